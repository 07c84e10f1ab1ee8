import { newPane, type Counter, type LayEntry, type Panel, type Sign, type Wall } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { distance, type Vec } from '../geometry/index.js';
import { Memo, told as retold, toldAll } from '../ground/index.js';
import { heatAimOf, heatCaseOf, heatTrialOf, factorOf } from './heat-of-surface.js';
import { planHeat } from './heat-pass.js';
import { filmUnderThermometer, HAND_MM, heatCoverOf, heatProofs, unprovenEdges, type HeatEdge } from './heat-stretches.js';
import { heatWords, proofText, trialText } from './heat-words.js';
import { shippedSteps } from './shipped-steps.js';
import type { LayRecords } from './lay-records.js';

const file = ternInterior();
const records: LayRecords = { ...file, firm: demoFirm, layEntries: [], memo: new Memo() };
const named = (name: string) => file.surfaces.find((s) => s.name === name)!;
const door = named('Door 1') as Panel;
const lengthOf = (e: HeatEdge) => e.stretches.reduce((sum, s) => sum + s.path.slice(1).reduce((l, p, i) => l + distance(s.path[i]!, p), 0), 0);
const withSurface = <S extends { readonly id: string }>(s: S): LayRecords => ({
  ...records,
  surfaces: records.surfaces.map((o) => (o.id === s.id ? (s as never) : o)),
  memo: new Memo(),
});
const cover = (s: Panel | Wall | Counter) => heatCoverOf(s, withSurface(s));
const keys = (s: Panel | Wall | Counter) => cover(s)?.edges.map((e) => e.key) ?? [];
const wraps = (is: 'trimmed' | 'edge'): Panel['wraps'] => ({ left: is, right: is, top: is, bottom: is });

let n = 0;
const read = (valueC: number, stretch?: string, more: Partial<LayEntry> = {}): LayEntry =>
  ({ id: `018f0000-0000-7000-8000-0000000001${String(++n).padStart(2, '0')}`, jobId: file.job.id, surfaceId: door.id, personId: 'p', occurredAt: new Date(Date.UTC(2025, 5, 2, 8, n)).toISOString(), clockOffsetMs: 0, receivedAt: null, stepSetId: 's', kind: 'reading', stepKey: null, text: '', reading: { what: 'film', valueC, ...(stretch ? { stretch } : {}) }, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more }) as LayEntry; // prettier-ignore

describe('what was stretched on a door', () => {
  test('edges that film goes over, corners where two of them meet, grooves; trimmed edges were never stretched', () => {
    expect(keys({ ...door, wraps: wraps('trimmed'), grooves: [] })).toEqual([]);
    expect(cover({ ...door, wraps: wraps('trimmed'), grooves: [] })).toBeNull();
    expect(keys({ ...door, wraps: { ...wraps('trimmed'), left: 'edge', right: 'edge' }, grooves: [] })).toEqual(['right', 'left']);
    expect(keys({ ...door, wraps: wraps('edge'), grooves: [] })).toEqual(['bottom', 'right', 'top', 'left', 'corner-1', 'corner-2', 'corner-3', 'corner-4']);
    // two edges that meet: the one corner between them
    expect(keys({ ...door, wraps: { ...wraps('trimmed'), top: 'edge', left: 'edge' }, grooves: [] })).toEqual(['top', 'left', 'corner-4']);
    expect(keys({ ...door, wraps: { ...wraps('trimmed'), top: 'edge', right: 'edge' }, grooves: [] })).toEqual(['right', 'top', 'corner-3']);
    expect(keys(door)).toEqual(expect.arrayContaining(['groove-1', 'groove-2']));
  });
  test('is cut into hand’s lengths that leave nothing out', () => {
    const { edges, outline } = cover({ ...door, wraps: wraps('edge') })!;
    const around = edges.slice(0, 4).reduce((sum, e) => sum + lengthOf(e), 0);
    expect(around).toBeCloseTo(
      outline.reduce((sum, p, i) => sum + distance(p, outline[(i + 1) % 4]!), 0),
      6,
    );
    for (const e of edges.slice(0, 4)) {
      const long = e.stretches.map((s) => distance(s.path[0]!, s.path.at(-1)!));
      expect(Math.max(...long)).toBeLessThanOrEqual(HAND_MM + 1e-6);
      expect(e.stretches).toHaveLength(Math.ceil(lengthOf(e) / HAND_MM));
      // one begins where the other ends
      e.stretches.slice(1).forEach((s, i) => expect(distance(s.path[0]!, e.stretches[i]!.path.at(-1)!)).toBeLessThan(1e-6));
    }
  });
  test('a recess is heated all along its walls', () => {
    const leaf = named('Archive door, left') as Panel;
    const edge = heatCoverOf(leaf, records)!.edges.find((e) => e.key === 'recess-2')!;
    expect(edge.name).toBe('recess 2');
    // in the middle of walls that lean in by 10 mm
    expect(edge.stretches).toHaveLength(Math.ceil((2 * (550 + 970)) / 200));
  });
  test('valleys that film was formed into are heated one by one, from end to end; fed in nothing was stretched', () => {
    const hut = named('Key hut, front') as Panel;
    const c = heatCoverOf(hut, records)!;
    expect(c.edges.map((e) => e.key)).toEqual(Array.from({ length: 16 }, (_, i) => `valley-${i + 1}`));
    expect(c.edges[0]!.stretches).toHaveLength(11);
    expect(c.edges[1]!.stretches[0]!.path[0]!.x).toBeCloseTo(114, 6);
    expect(heatCoverOf({ ...hut, corrugation: { ...hut.corrugation!, way: 'fed' } }, records)).toBeNull();
    const level = heatCoverOf({ ...hut, corrugation: { ...hut.corrugation!, run: 'level' } }, records)!;
    expect(level.edges).toHaveLength(26);
    expect(level.edges[0]!.stretches[0]!.path[0]!.y).toBeCloseTo(38, 6);
  });
  test('the border of a dome that film was drawn on over is heated all round; what goes over an edge is read there', () => {
    const whole = named('Key hut, lid') as Panel;
    const lid: Panel = { ...whole, wraps: { left: 'trimmed', right: 'trimmed', top: 'trimmed', bottom: 'trimmed' } };
    expect(heatCoverOf(lid, records)!.edges.map((e) => e.key)).toEqual(['rim-bottom', 'rim-right', 'rim-top', 'rim-left']);
    expect(heatCoverOf({ ...lid, wraps: { ...lid.wraps, left: 'edge' } }, records)!.edges.map((e) => e.key)).toEqual([
      'left',
      'rim-bottom',
      'rim-right',
      'rim-top',
    ]);
    expect(heatCoverOf({ ...lid, dome: { acrossBowMm: 20, upBowMm: 10 } }, records)).toBeNull();
    expect(heatCoverOf(whole, records)!.edges.map((e) => e.key)).toEqual(['bottom', 'right', 'top', 'left', 'corner-1', 'corner-2', 'corner-3', 'corner-4']);
    expect(heatCoverOf({ ...lid, dome: { acrossBowMm: 105, upBowMm: 95 } }, records)).toBeNull();
  });
  test('a frame of grooves is heated along all four of its sides', () => {
    const frame = door.grooves.find((g) => g.run.way === 'frame')!;
    const run = frame.run as Extract<typeof frame.run, { way: 'frame' }>;
    const edge = cover({ ...door, grooves: [frame] })!.edges.find((e) => e.key === 'groove-1')!;
    expect(lengthOf(edge)).toBeCloseTo(2 * (run.acrossMm + run.upMm) - 4 * frame.widthMm, 6);
  });
});

describe('what was stretched on tops and walls', () => {
  test('a round that film is pulled over is heated as the arc it is', () => {
    const counter = named('Reception counter') as Counter;
    const around: Counter = { ...counter, sides: { front: 'edge', right: 'edge', back: 'wall', left: 'edge' } };
    const c = cover(around)!;
    const round = c.edges.find((e) => e.key === 'round-frontright')!;
    expect(lengthOf(round)).toBeGreaterThan(300);
    const ends: Vec[] = [round.stretches[0]!.path[0]!, round.stretches.at(-1)!.path.at(-1)!];
    const straight = c.edges.filter((e) => ['front', 'right'].includes(e.key)).flatMap((e) => [e.stretches[0]!.path[0]!, e.stretches.at(-1)!.path.at(-1)!]);
    for (const end of ends) expect(Math.min(...straight.map((p) => distance(p, end)))).toBeLessThan(3);
  });
  test('a corner of a wall from floor to ceiling, where film goes into it or round it; not where it only ends', () => {
    const wall = file.surfaces.find((s): s is Wall => s.kind === 'wall' && s.name === 'Lobby left')!;
    const { edges } = heatCoverOf(wall, records)!;
    expect(edges.map((e) => e.key)).toEqual(['right']);
    expect(lengthOf(edges[0]!)).toBeGreaterThan(2000);
    // whose film comes round an arris first bends it there; the second only ends on it
    const back = file.surfaces.find((s): s is Wall => s.kind === 'wall' && s.name === 'Lobby back')!;
    const outside = (isFirst: boolean) => keys({ ...back, right: { ...back.right, is: 'outside', isFirst } });
    expect(outside(true)).toContain('right');
    expect(outside(false)).not.toContain('right');
    expect(heatCoverOf(named('Corridor wall'), records)).toBeNull();
    expect(heatCoverOf(named('Column 1'), records)).toBeNull();
  });
});

describe('proven by reading', () => {
  const c = cover(door)!;
  test('the newest reading of a stretch counts; one of the whole edge stands for all of it; what was taken back is no reading', () => {
    const first = read(95, 'right-1');
    const all = [first, read(80, 'right-2'), read(92, 'left')];
    expect(heatProofs(c, all).get('right-1')).toEqual({ readC: 95, isProven: true });
    expect(heatProofs(c, all).get('right-2')).toEqual({ readC: 80, isProven: false });
    expect(heatProofs(c, all).get('left-7')).toEqual({ readC: 92, isProven: true });
    expect(heatProofs(c, [...all, read(91, 'right-2')]).get('right-2')!.isProven).toBe(true);
    expect(heatProofs(c, [...all, read(70, 'right')]).get('right-1')!.isProven).toBe(false);
    expect(heatProofs(c, [...all, read(0, undefined, { kind: 'correction', correctsId: first.id, reading: null })]).has('right-1')).toBe(false);
  });
  test('a figure is reached at the figure; a trial of the gun proves nothing', () => {
    expect(c.dueC).toBe(90);
    expect(heatProofs(c, [read(90, 'left-1')]).get('left-1')!.isProven).toBe(true);
    expect(heatProofs(c, [read(89.9, 'left-1')]).get('left-1')!.isProven).toBe(false);
    expect(heatProofs(c, [read(120)]).size).toBe(0);
  });
  test('what is not proven is told by its name', () => {
    const proofs = heatProofs(c, [read(95, 'right'), read(95, 'left'), read(95, 'groove-1')]);
    expect(unprovenEdges(c, proofs)).toEqual(['groove 2']);
    expect(proofText(c, proofs)).toMatch(/^\d+ of \d+ stretches are proven hot\. Not yet: groove 2\.$/);
    expect(
      proofText(
        c,
        heatProofs(
          c,
          c.edges.map((e, i) => read(91 + i, e.key)),
        ),
      ),
    ).toMatch(/^All \d+ stretches were read at 90 °C or more, the coldest at 91 °C\.$/);
  });
  test('film without a figure of its maker is never proven', () => {
    const bare = { ...c, dueC: null };
    expect(heatProofs(bare, [read(200, 'left')]).get('left-1')!.isProven).toBe(false);
  });
  test('metallic film looks colder than it is, and is corrected; plain film is as shown', () => {
    expect(filmUnderThermometer({ emissivityFrac: null }, 85, 20)).toBe(85);
    expect(filmUnderThermometer({ emissivityFrac: 0.9 }, 85, 20)).toBe(85);
    const truth = filmUnderThermometer({ emissivityFrac: 0.5 }, 60, 20);
    // grey body by hand: 0.5·T⁴ + 0.5·T₀⁴ = 0.95·Tₛ⁴ + 0.05·T₀⁴
    const [shown, room] = [(60 + 273.15) ** 4, (20 + 273.15) ** 4];
    expect(truth).toBeCloseTo(((0.95 * shown - 0.45 * room) / 0.5) ** 0.25 - 273.15, 6);
    expect(truth).toBeGreaterThan(85);
  });
});

describe('the gun at a step', () => {
  test('every step that comes with Yellow Pane and has a gun for what is laid dry says what it is for; steps of glass have a model of their own', () => {
    const withGun = shippedSteps('018f0000-0000-7000-8000-000000000001').steps.filter(
      (s) => s.tools.includes('heat gun') && !s.when.surface?.includes('pane') && s.when.surface,
    );
    expect(withGun.length).toBeGreaterThan(8);
    for (const s of withGun) if (s.key !== 'counter-holes') expect([s.key, heatAimOf(s.key)]).not.toEqual([s.key, null]);
    expect(heatAimOf('form-heat')).toBeNull();
  });
  test('it knows the room, the ground as it was measured, and the gun of the job', () => {
    const c = heatCaseOf(door, records)!;
    expect(c).toMatchObject({ distanceMm: 25, gun: { setC: 538 }, groundC: door.ground.surfaceTempC ?? 20 });
    const cold = { ...door, ground: { ...door.ground, surfaceTempC: 8 } };
    expect(heatCaseOf(cold, records)!.groundC).toBe(8);
    expect(heatWords(heatCaseOf(cold, records)!, planHeat(heatCaseOf(cold, records)!, 'post-heat')!, null, 'mm').minds.join(' ')).toContain('at 8 °C');
    const canvas = named('Gate canvas') as Sign;
    const pores = (texture: Sign['texture']) => heatCaseOf({ ...canvas, texture }, records)!.ground.hollows.map((h) => h.gapMm);
    expect([pores('smooth'), pores('fine'), pores('rough')]).toEqual([[], [0.15], [0.5]]);
    const lay = { ...file.job.lay!, gun: { nozzleMm: 40, setC: 400, powerW: 1600, distanceMm: 60, angleDeg: 45 } };
    // no film, nothing to heat; glass has a model of its own
    expect(heatCaseOf({ ...door, filmId: null }, records)).toBeNull();
    const pane = newPane({ id: door.id, jobId: door.jobId, placeId: door.placeId, name: 'P1', order: 1, filmId: door.filmId });
    expect(heatCaseOf(pane, records)).toBeNull();
    expect(heatCaseOf(door, { ...records, job: { ...file.job, lay } })).toMatchObject({
      distanceMm: 60,
      gun: { nozzleMm: 40, setC: 400, powerW: 1600, angleDeg: 45 },
    });
    // a job of before says nothing of its angle: straight on
    const { angleDeg: _a, ...before } = lay.gun;
    expect(heatCaseOf(door, { ...records, job: { ...file.job, lay: { ...lay, gun: before as never } } })!.gun.angleDeg).toBe(90);
    expect(heatCaseOf(named('Corridor wall'), records)!.ground.hollows.map((h) => h.key)).toEqual(['pore', 'joint']);
  });
  test('a trial on one door corrects the plan of every door of that ground and film, and of no other surface', () => {
    const gun = { distanceMm: 25, speedMmPerS: 20, passes: 1, afterS: 2 };
    const tried: LayRecords = { ...records, layEntries: [read(60, undefined, { reading: { what: 'film', valueC: 60, gun } })], memo: new Memo() };
    for (const name of ['Door 1', 'Door 4']) expect(heatTrialOf(named(name), tried)!.says.is).toBe('corrected');
    expect(heatTrialOf(named('Corridor wall'), tried)).toBeNull();
    // the same film on steel is another matter
    const lift = { ...named('Door 4'), ground: { ...door.ground, material: 'steel' as const } } as Panel;
    expect(heatTrialOf(lift, { ...withSurface(lift), layEntries: tried.layEntries })).toBeNull();
    const trial = heatTrialOf(door, tried);
    const c = heatCaseOf(door, tried)!;
    const words = heatWords(c, planHeat(c, 'post-heat', factorOf(trial))!, trial, 'mm');
    expect(words.sure).toContain('Corrected by the reading of 60 °C');
    const late: LayRecords = { ...tried, layEntries: [read(60, undefined, { reading: { what: 'film', valueC: 60, gun: { ...gun, afterS: 500 } } })] };
    expect(trialText(heatTrialOf(door, late))).toContain('read sooner');
  });
});

test('a ground that nobody named is taken for what its kind mostly is, and that is said', () => {
  const bare = { ...door, ground: { ...door.ground, material: 'unknown' as const } };
  const c = heatCaseOf(bare, records)!;
  expect(c.ground.name).toBe('wood board');
  expect(heatWords(c, planHeat(c, 'post-heat')!, null, 'mm').minds.join(' ')).toContain('Nobody named its ground: it is taken for wood board.');
  const wall = named('Corridor wall') as Wall;
  expect(heatCaseOf({ ...wall, ground: { ...wall.ground, material: 'unknown' } }, records)!.ground.name).toBe('concrete');
});

describe('what is said of a plan', () => {
  const told = (surface: Panel | Wall, aim: 'faces' | 'post-heat', more: object = {}) => {
    const c = { ...heatCaseOf(surface, records)!, ...more };
    return heatWords(c, planHeat(c, aim)!, null, 'mm');
  };
  const corridor = named('Corridor wall') as Wall;
  const even = { ...corridor, masonry: { ...corridor.masonry!, jointDepthMm: 0 } };
  test('what may scorch is said where joints run, and nowhere else; so is the speed that hands are used to', () => {
    expect(told(corridor, 'faces').minds.join(' ')).toMatch(
      /Film over a joint may scorch \(about 200 °C\).*The usual 50 mm a second is for faces without deep joints/,
    );
    expect(told(even, 'faces').minds).toEqual([]);
  });
  test('a ground that is spoilt before film has its figure is named with its limit', () => {
    const plaster = { ...door, ground: { ...door.ground, material: 'plasterboard' as const } };
    expect(told(plaster, 'post-heat').headline).toMatch(/^Not from 25 mm away/);
    expect(told(plaster, 'post-heat').minds).toContainEqual(expect.stringContaining('Plasterboard is spoilt at about 80 °C, before its film has 90'));
    // from far off nothing is spoilt: it only stays cool
    expect(told(door, 'post-heat', { distanceMm: 350 }).headline).toMatch(/Go nearer\.$/);
    expect(told(door, 'post-heat', { distanceMm: 350 }).minds.join(' ')).not.toContain('spoilt');
    expect(told(door, 'post-heat').minds.join(' ')).not.toContain('spoilt');
  });
  test('in an inch job every temperature is in °F, both ends of a range too', () => {
    const plaster = { ...door, ground: { ...door.ground, material: 'plasterboard' as const } };
    const inches = toldAll(told(plaster, 'post-heat'), 'in');
    expect(JSON.stringify(inches)).not.toContain('°C');
    expect(inches.minds[0]).toContain('spoilt at about 176 °F, before its film has 194 °F');
    const [low, high, mid] = /(\d+) to (\d+) °C \(about (\d+) °C\)/.exec(told(door, 'post-heat').places[0]!.range)!.slice(1).map(Number) as [
      number,
      number,
      number,
    ];
    const f = (c: number) => Math.round(c * 1.8 + 32);
    expect(toldAll(told(door, 'post-heat'), 'in').places[0]!.range).toBe(`${f(low)} to ${f(high)} °F (about ${f(mid)} °F)`);
    expect(retold(trialText({ readC: 400, says: { is: 'cannot-be', betweenC: [20, 140] } })!, 'in')).toContain('between 68 and 284 °F');
  });
  test('how far behind the gun the roller may come', () => {
    const { follow } = told(even, 'faces');
    const [, seconds, mm] = /^Roller or pad within ([\d.]+) s: (\d+) mm behind the gun at most\.$/.exec(follow!)!;
    expect(Number(mm)).toBeLessThanOrEqual(Number(seconds) * 50 + 5);
    expect(Number(mm)).toBeGreaterThan(25);
    expect(told(door, 'post-heat').follow).toBeNull();
  });
});
