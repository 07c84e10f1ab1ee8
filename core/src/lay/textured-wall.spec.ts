import type { Film, Masonry, Wall } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import { isWall, jointsOf } from '../measure/index.js';
import { otherEnd } from './joint-graph.js';
import { jointsCard } from './joint-card.js';
import { replayJoints, type JointStroke } from './joint-replay.js';
import {
  beforePanelWords,
  fitWords,
  jointName,
  mindsOfPanel,
  otherEndWords,
  panelName,
  panelShort,
  setFirstWords,
  strokePath,
  verdictWords,
  walkWords,
  zoneDoing,
  zoneName,
} from './joint-words.js';
import { faceLanes, jointStrokeMm, minutesOfPlaces, usualTools, zonesOfPanel, type PanelZones, type WallZone, type ZoneDone } from './joint-zones.js';
import type { LayRecords } from './lay-records.js';
import { jointFit, texturedWallOf, type TexturedPanel } from './textured-wall.js';

const file = ternInterior();
const corridor = file.surfaces.filter(isWall).find((s) => s.name === 'Corridor wall')!;
function wallOf(own: Partial<Wall> = {}, film: Partial<Film> = {}) {
  const surface = { ...corridor, ...own };
  const films = file.films.map((f) => (f.id === corridor.filmId ? { ...f, ...film } : f));
  const records = { ...file, films, firm: demoFirm, memo: new Memo(), surfaces: file.surfaces.map((s) => (s.id === surface.id ? surface : s)) } as LayRecords;
  return texturedWallOf(surface, records);
}
const panels = wallOf()!.panels;
const logOf = (p: PanelZones, z: WallZone): ZoneDone => ({ panel: p.panel.number, graph: p.graph, strokes: z.strokes });
const isPress = (s: JointStroke): s is Extract<JointStroke, { does: 'press' }> => s.does === 'press';

describe('the panels of a wall', () => {
  test('each has the joints that it is the first to lie on: together they are those of the wall, none twice', () => {
    expect(panels.length).toBeGreaterThan(2);
    const lengthM = panels.reduce((s, p) => s + p.graph.segments.reduce((t, x) => t + x.lengthMm, 0), 0) / 1000;
    const { wall, obstacles } = panels[0]!.asked;
    const all = jointsOf(corridor.masonry!, wall).lengthM;
    // the pipe takes a piece out of each joint behind it, and the ceiling slopes by 0.2 of a course
    expect(lengthM).toBeGreaterThan(all - 2.5);
    expect(lengthM).toBeLessThan(all);
    expect(obstacles).toEqual([expect.objectContaining({ isOpen: false })]);
    panels.slice(1).forEach((p, i) => expect(p.asked.panel.leftMm).toBeCloseTo(panels[i]!.asked.panel.rightMm, 6));
  });
  test('where it is laid over the one before it nothing goes out: its lap is set on promoter; everywhere else its edge is free', () => {
    expect(panels[0]).toMatchObject({ overSide: null, asked: { borders: { left: 'free', right: 'free', foot: 'free', top: 'free' } } });
    for (const p of panels.slice(1)) expect(p).toMatchObject({ overSide: 'left', asked: { borders: { left: 'closed', right: 'free' } } });
    const fromRight = wallOf({ hungFrom: 'right' })!.panels;
    fromRight.slice(1).forEach((p, i) => expect(p.asked.panel.rightMm).toBeCloseTo(fromRight[i]!.asked.panel.leftMm, 6));
    for (const p of fromRight.slice(1)) expect(p).toMatchObject({ overSide: 'right', asked: { borders: { left: 'free', right: 'closed' } } });
  });
  test('what film is laid over at an arris shuts that end of the wall, and of its last panel alone', () => {
    const second = wallOf({ left: { is: 'outside', angleDeg: 90, isFirst: false }, right: { is: 'inside', angleDeg: 90, isFirst: true } })!.panels;
    expect(second[0]!.asked.borders.left).toBe('closed');
    expect(second.at(-1)!.asked.borders.right).toBe('free');
    expect(second[0]!.asked.borders.right).toBe('free');
    // film that goes round the arris itself, or ends over a return in a corner, has its edge free there
    for (const left of [{ is: 'outside', angleDeg: 90, isFirst: true }, { is: 'inside', angleDeg: 90, isFirst: false }] as const) expect(wallOf({ left })!.panels[0]!.asked.borders.left).toBe('free'); // prettier-ignore
    // hung from the other end it is the last that lies there, and of the others none
    const other = wallOf({ hungFrom: 'right', left: { is: 'outside', angleDeg: 90, isFirst: false } })!.panels;
    expect(other.map((p) => p.asked.borders.left)).toEqual([...other.slice(1).map(() => 'free'), 'closed']);
  });
  test('lengths along the wall: each from the upper edge of the one below, over which its foot is shut; each breathes by its ends and its top', () => {
    const lengths = wallOf({ lie: 'level' }, { direction: 'none' })!.panels;
    expect(lengths.map((p) => p.overSide)).toEqual([null, 'foot', 'foot']);
    expect(lengths.map((p) => p.asked.borders)).toEqual([
      { left: 'free', right: 'free', foot: 'free', top: 'free' },
      { left: 'free', right: 'free', foot: 'closed', top: 'free' },
      { left: 'free', right: 'free', foot: 'closed', top: 'free' },
    ]);
    lengths.slice(1).forEach((p, i) => expect(p.asked.panel.footMm).toBeCloseTo(lengths[i]!.asked.panel.topMm, 6));
    for (const p of lengths) expect(p.asked.panel).toMatchObject({ leftMm: 0, rightMm: p.asked.wall.widthMm });
    // together they are the joints of the wall, as its drops are
    const lengthM = (list: readonly TexturedPanel[]) => list.reduce((s, p) => s + p.graph.segments.reduce((t, x) => t + x.lengthMm, 0), 0) / 1000;
    expect(Math.abs(lengthM(lengths) - lengthM(panels))).toBeLessThan(0.02 * lengthM(panels));
    const zones = lengths.map((p) => zonesOfPanel(p, []));
    for (const [i, z] of zones.entries()) {
      const strokes = z.left.flatMap((x) => x.strokes);
      const verdict = replayJoints(lengths[i]!.graph, strokes);
      expect([verdict.isClean, verdict.left]).toEqual([true, []]);
      expect(z.pierces).toEqual([]);
    }
    expect(zoneName(zones[1]!.left[0]!, lengths, 'mm')).toMatch(/^Length 2, /);
    // an inside corner, or film round an arris, shuts the end of every length
    const second = wallOf({ lie: 'level', left: { is: 'outside', angleDeg: 90, isFirst: false } }, { direction: 'none' })!.panels;
    expect(second.map((p) => p.asked.borders.left)).toEqual(['closed', 'closed', 'closed']);
    // with a direction there is no such film
    expect(wallOf({ lie: 'level' }, { direction: 'two-way' })).toBeNull();
  });
  describe('film that goes round an arris on to joints of the other wall', () => {
    const [along, end] = ['Corridor, long side', 'Corridor, end'].map((n) => file.surfaces.filter(isWall).find((s) => s.name === n)!) as [Wall, Wall];
    const recordsOf = (own: Partial<Wall>, theirs: Partial<Wall> = {}) => ({ ...file, firm: demoFirm, memo: new Memo(), surfaces: file.surfaces.map((s) => (s.id === along.id ? { ...along, ...own } : s.id === end.id ? { ...end, ...theirs } : s)) }) as LayRecords; // prettier-ignore
    const of = (own: Partial<Wall> = {}, theirs: Partial<Wall> = {}) => texturedWallOf({ ...along, ...own }, recordsOf(own, theirs))!.panels;
    const strips = (list: readonly TexturedPanel[]) => list.filter((p) => p.round);

    test('a strip for each length along the wall, 50 wide on the wall at its end, shut at the arris, free at its edge', () => {
      const list = of();
      expect(list.map((p) => p.round?.panel ?? null)).toEqual([null, null, null, 1, 2, 3]);
      for (const p of strips(list)) {
        expect(p.round).toMatchObject({ side: 'right', on: 'Corridor, end', acrossMm: 50 });
        expect(p.asked).toMatchObject({ panel: { leftMm: 0, rightMm: 50 }, borders: { left: 'closed', right: 'free' } });
      }
      // together they reach from its floor to its ceiling, each from where the one below it ends
      const [low, middle, high] = strips(list).map((p) => p.asked.panel);
      expect([low!.footMm, middle!.footMm, high!.footMm]).toEqual([0, low!.topMm, middle!.topMm].map((v) => expect.closeTo(v, 6)));
      expect(high!.topMm).toBeCloseTo(2993, -1);
      // beneath them lie the beds of that wall, and no joint is in two of them
      const beds = strips(list).flatMap((p) => p.graph.segments.map((s) => Math.round(p.graph.nodes[s.a]!.yMm)));
      expect(beds).toEqual(jointsOf(end.masonry!, { widthMm: 1200, heightMm: 2993 }).bedsMm.map(Math.round));
    });
    test('the floor of the other wall begins where this one ends: a bed that runs on round the arris lies at one height on both', () => {
      // the floor falls by 8 from end to end of the long side, and there the other wall’s begins
      const [low, strip] = [of()[0]!, strips(of())[0]!];
      expect(strip.asked.panel.topMm - low.asked.panel.topMm).toBeCloseTo(8, 0);
    });
    test('pressed from the arris to its edge nothing is shut in; the other way the air is rolled against the arris', () => {
      for (const p of strips(of())) {
        const { left, pierces } = zonesOfPanel(p, []);
        const strokes = left.flatMap((z) => z.strokes);
        expect(pierces).toEqual([]);
        expect(replayJoints(p.graph, strokes)).toMatchObject({ isClean: true, left: [] });
        // beds are pressed outwards, one stroke each
        for (const s of strokes.filter(isPress)) expect(p.graph.nodes[s.from]!.xMm).toBeLessThan(1);
        const s = p.graph.segments[0]!;
        expect(replayJoints(p.graph, [{ does: 'press', from: s.b, segments: [0] }]).trapped).toEqual([{ segment: 0, atStroke: 0, why: 'dead-end' }]);
        // where there is room for one, one works
        expect(zonesOfPanel(p, [], { hands: 'two' }).left.every((z) => z.hand === undefined)).toBe(true);
      }
    });
    test('drops have one strip, on the wall at the left too; a smooth wall there, an inside corner and film that is second have none', () => {
      const one = strips(of({ lie: 'upright' }));
      expect(one).toHaveLength(1);
      expect(one[0]!.asked.panel).toMatchObject({ footMm: 0, rightMm: 50 });
      expect(one[0]!.round!.panel).toBe(of({ lie: 'upright' }).length - 1);
      expect(of({ lie: 'upright', hungFrom: 'right' }).at(-1)!.round!.panel).toBe(1);
      // the wall at the end laid first: round the same arris the other way, on to the right end of the long side
      const other = texturedWallOf(end, recordsOf({ right: { is: 'outside', angleDeg: 90, isFirst: false } }))!.panels;
      expect(other.at(-1)).toMatchObject({ round: { side: 'left', on: along.name }, asked: { borders: { left: 'free', right: 'closed' } } });
      expect(other.at(-1)!.asked.panel.rightMm - other.at(-1)!.asked.panel.leftMm).toBeCloseTo(50, 6);
      expect(other.at(-1)!.asked.panel.rightMm).toBeCloseTo(10_001, -1);
      expect(strips(of({}, { masonry: null }))).toEqual([]);
      expect(strips(of({ right: { is: 'inside', angleDeg: 90, isFirst: true } }))).toEqual([]);
      expect(strips(of({ right: { is: 'outside', angleDeg: 90, isFirst: false } }))).toEqual([]);
      expect(strips(of({ nextId: null }))).toEqual([]);
    });
    test('what film comes round on to was pressed with it: the film of the other wall is first to cover from its edge on, and none is pressed twice', () => {
      const there = texturedWallOf(end, recordsOf({}))!.panels;
      expect(there[0]!.asked.panel.leftMm).toBeCloseTo(50, 6);
      expect(there[0]!.asked.borders.left).toBe('closed');
      const lengthM = (list: readonly TexturedPanel[]) => list.reduce((s, p) => s + p.graph.segments.reduce((t, x) => t + x.lengthMm, 0), 0) / 1000;
      const all = jointsOf(end.masonry!, there[0]!.asked.wall).lengthM;
      expect(lengthM([...strips(of()), ...there])).toBeCloseTo(all, 1);
    });
    test('a drop of which all lies on what came round is no panel: it has no joint that is its own', () => {
      // the first film comes round almost all of this wall, then all of it
      const records = { ...recordsOf({}), job: { ...file.job, dry: { outsideWrapMm: 1190, lapMm: 25 } } } as LayRecords;
      const there = texturedWallOf(end, records)!.panels;
      expect(there.map((p) => p.asked.panel.rightMm - p.asked.panel.leftMm)).toEqual([expect.closeTo(10, -1)]);
      const all = { ...records, job: { ...file.job, dry: { outsideWrapMm: 1205, lapMm: 25 } } } as LayRecords;
      expect(texturedWallOf(end, { ...all, memo: new Memo() })!.panels).toEqual([]);
      // and of the other film the strip is no wider than the wall
      expect(strips(texturedWallOf(along, { ...all, memo: new Memo() })!.panels)[0]!.asked.panel.rightMm).toBeLessThan(1205);
    });
    test('it is told by its arris: turned round first, then its places; what it is cut round there shuts it in as anywhere', () => {
      const list = of();
      expect(list.map((p) => panelName(list, p.number))).toEqual(['Length 1', 'Length 2', 'Length 3', 'Right arris of length 1', 'Right arris of length 2', 'Right arris of length 3']); // prettier-ignore
      expect(list.map((p) => panelShort(list, p.number))).toEqual(['1', '2', '3', 'Arris 1', 'Arris 2', 'Arris 3']);
      const strip = zonesOfPanel(list[3]!, []);
      expect(zoneName(strip.left[0]!, list, 'mm')).toBe('Right arris of length 1, from the floor, 50 mm on Corridor, end');
      expect(beforePanelWords(list, 4, 'mm')).toContain('First turn length 1 round the right arris, 50 mm on to Corridor, end');
      expect(beforePanelWords(list, 2, 'mm')).toBe('First lay length 2: promoter on the lap of length 1, its edge set on it. There no air gets out.');
      expect(beforePanelWords(list, 1, 'mm')).toBeNull();
      const short = texturedWallOf({ ...along, lie: 'upright' }, recordsOf({ lie: 'upright' }))!.panels;
      expect(panelName(short, short.length)).toBe('Right arris');
      const fit = jointFit(end.masonry!, 0.6);
      // tacked with its length: its border is no work of its own; a roller wider than the strip goes along it once
      expect(zoneDoing(strip.left[0]!, list[3]!, { fit, border: 'left-open', isFirst: true, units: 'mm' })).toEqual([
        'Faces: 1 lane with the roller, towards its arrow.',
        'Joints with the joint wheel: 6 level strokes, by their numbers.',
        'Then seal the border here, right; gun pointing away from what is done.',
      ]);
      expect(strip.left[0]!.lanes).toEqual([expect.objectContaining({ fromXMm: 25, toXMm: 25 })]);
      const pipe = { id: 'pipe', what: 'Pipe', handling: 'round', fromLeftMm: 20, fromFootMm: 380, widthMm: 60, heightMm: 40, isElectric: false } as const;
      const shut = strips(of({}, { hardware: [pipe] as unknown as Wall['hardware'] }))[0]!;
      expect(zonesOfPanel(shut, []).pierces).toHaveLength(1);
    });
  });
  test('a cover that comes off leaves its hole open, and so does a door; a smooth wall has no panels of this kind', () => {
    const of = (handling: 'off' | 'round' | 'open') => wallOf({ hardware: corridor.hardware.map((h) => ({ ...h, handling })) })!.panels[0]!.asked.obstacles[0]!.isOpen;
    expect([of('off'), of('open'), of('round')]).toEqual([true, true, false]);
    expect(wallOf({ masonry: null })).toBeNull();
  }); // prettier-ignore
});

describe('film in a joint', () => {
  const of = (jointMm: number, jointDepthMm: number, limit: number | null = 0.6) => jointFit({ jointMm, jointDepthMm }, limit);
  test('stretches as over a hollow of the same depth: half a round 57.08 % (CHECKS, columns, grooves, recesses 2), a flush joint nothing', () => {
    expect(of(10, 5).stretchFrac).toBeCloseTo(0.5708, 4);
    expect(of(10, 0).stretchFrac).toBe(0);
    // a parabola 0.3 as deep as wide 20.43 %, 0.1 2.61 % (the same source): an arc is near it
    expect(of(10, 3).stretchFrac).toBeCloseTo(0.2043, 1);
    expect(of(10, 1).stretchFrac).toBeCloseTo(0.0261, 2);
  });
  test('goes in, bridges or lies down by itself; without a figure nobody says', () => {
    expect([of(10, 5).is, of(10, 5, 0.3).is, of(10, 0.5).is, of(10, 5, null).is]).toEqual(['goes', 'bridges', 'lies', 'unknown']);
    const words = (f: ReturnType<typeof of>, texture: Masonry['texture'] = 'rough') => fitWords(f, { jointMm: 10, jointDepthMm: 5, texture }, 'mm');
    expect(words(of(10, 5))).toContain('film goes in, 57 % of the 60 % it stands');
    expect(words(of(10, 5, 0.3))).toContain('It bridges them');
    expect(words(of(10, 0.5))).toContain('no wheel');
    expect(words(of(10, 5), 'glazed')).toContain('pressed cold');
    expect(fitWords(of(10, 5), { jointMm: 9.525, jointDepthMm: 5, texture: 'rough' }, 'in')).toContain('3/8');
  });
});

describe('lanes over the faces', () => {
  const box = { fromMm: 0, toMm: 1350, lowMm: 0, highMm: 900 };
  const panel = (borders: Partial<TexturedPanel['asked']['borders']>, obstacles: TexturedPanel['asked']['obstacles'] = []): TexturedPanel => ({ ...panels[0]!, asked: { ...panels[0]!.asked, panel: { leftMm: 0, rightMm: 1350, footMm: 0, topMm: 900 }, borders: { left: 'free', right: 'free', foot: 'free', top: 'free', ...borders }, obstacles } }); // prettier-ignore
  const lanes = (borders: Parameters<typeof panel>[0], obstacles?: TexturedPanel['asked']['obstacles']) =>
    faceLanes(panel(borders, obstacles), box, usualTools);
  test('a roller wide, half of it over the lane before: 17 of 100 mm cover 900 mm from edge to edge, from the top down', () => {
    const ys = lanes({ left: 'closed' }).map((l) => l.fromYMm);
    expect(ys).toHaveLength(17);
    expect([ys[0], ys.at(-1)]).toEqual([850, 50]);
    ys.slice(1).forEach((y, i) => expect(ys[i]! - y).toBeLessThanOrEqual(usualTools.rollerMm - usualTools.overlapMm + 1e-9));
  });
  test('always towards an edge that is open: to the free side, from the middle to both, or down and up where both sides are shut', () => {
    expect(lanes({ left: 'closed' }).every((l) => l.fromXMm === 0 && l.toXMm === 1350)).toBe(true);
    expect(lanes({ right: 'closed' }).every((l) => l.fromXMm === 1350 && l.toXMm === 0)).toBe(true);
    expect(new Set(lanes({}).map((l) => `${l.fromXMm} ${l.toXMm}`))).toEqual(new Set(['675 1350', '675 0']));
    const shut = lanes({ left: 'closed', right: 'closed' });
    expect(shut.every((l) => l.fromXMm === l.toXMm)).toBe(true);
    expect(lanes({ left: 'closed', right: 'closed', top: 'closed' }).every((l) => l.toYMm === 0)).toBe(true);
    expect(lanes({ left: 'closed', right: 'closed', foot: 'closed' }).every((l) => l.toYMm === 900)).toBe(true);
  });
  test('none goes over what stands in the wall: beside it each is in two parts', () => {
    const parted = lanes({ left: 'closed' }, [{ leftMm: 500, footMm: 400, widthMm: 80, heightMm: 100, isOpen: false }]).filter((l) => l.fromYMm > 400 && l.fromYMm < 500); // prettier-ignore
    expect(new Set(parted.map((l) => `${l.fromXMm} ${l.toXMm}`))).toEqual(new Set(['0 500', '580 1350']));
    // from the middle outwards the part nearer to the middle comes first, on either side
    const [line] = lanes({}, [{ leftMm: 300, footMm: 400, widthMm: 80, heightMm: 100, isOpen: false }]).filter((l) => l.fromYMm > 400 && l.fromYMm < 500); // prettier-ignore
    const along = lanes({}, [{ leftMm: 300, footMm: 400, widthMm: 80, heightMm: 100, isOpen: false }]).filter((l) => l.fromYMm === line!.fromYMm); // prettier-ignore
    expect(along.map((l) => [l.fromXMm, l.toXMm])).toEqual([[675, 1350], [675, 380], [300, 0]]); // prettier-ignore
  });
});

describe('place by place', () => {
  const first = zonesOfPanel(panels[0]!, []);
  test('one place from the floor, one from the platform: faces, then joints, then the border over them; every order is clean', () => {
    expect(first.left.map((z) => z.band)).toEqual([0, 1]);
    for (const z of first.left) {
      expect(z.lanes.length).toBeGreaterThan(5);
      const seal = z.strokes.findIndex((s) => s.does === 'seal');
      expect(z.strokes.slice(seal).every((s) => s.does === 'seal')).toBe(true);
    }
    for (const p of panels)
      expect(
        replayJoints(
          p.graph,
          zonesOfPanel(p, []).left.flatMap((z) => z.strokes),
        ).isClean,
      ).toBe(true);
  });
  test('joints of 400 × 200 mm blocks take 7.5 m and 147 s a square metre at 51 mm/s (CHECKS, walls)', () => {
    const { panel: p, wall } = panels[1]!.asked;
    expect(wall.widthMm).toBeGreaterThan(5000);
    const areaM2 = ((p.rightMm - p.leftMm) * (p.topMm - p.footMm)) / 1e6;
    const strokes = zonesOfPanel(panels[1]!, []).left.flatMap((z) => z.strokes).filter(isPress); // prettier-ignore
    const lengthM = strokes.reduce((s, x) => s + jointStrokeMm(panels[1]!.graph, x), 0) / 1000;
    expect(lengthM / areaM2).toBeGreaterThan(7.1);
    expect(lengthM / areaM2).toBeLessThan(7.9);
    expect((1000 * 7.5) / 51).toBeCloseTo(147, 0);
  });
  test('minutes and what the gun draws come of length and speed; twice as fast, half the heat; glazed faces are pressed cold', () => {
    const of = (tools: Partial<typeof usualTools>, p = panels[0]!) => zonesOfPanel(p, [], { tools: { ...usualTools, ...tools } }).left[0]!;
    expect(of({ faceMmPerS: 102, jointMmPerS: 102 }).gunKwh).toBeCloseTo(of({}).gunKwh / 2, 9);
    expect(of({ gunW: 1000 }).gunKwh).toBeCloseTo(of({}).gunKwh / 2, 9);
    expect(of({ faceMmPerS: 102 }).minutes).toBeLessThan(of({}).minutes);
    const glazed = wallOf({ masonry: { ...corridor.masonry!, texture: 'glazed' } })!.panels[0]!;
    const joints = of({}).strokes.reduce((s, x) => s + jointStrokeMm(panels[0]!.graph, x), 0);
    expect(of({}, glazed).gunKwh).toBeCloseTo((2000 * joints) / 51 / 3.6e6, 9);
  });
  test('a place that is done is done: the next is left, as it was planned', () => {
    const one = zonesOfPanel(panels[0]!, [logOf(first, first.left[0]!)]);
    expect(one).toMatchObject({ placesDone: 1, isPlannedAnew: false, trapped: [], pierces: [] });
    expect(one.left).toEqual(first.left.slice(1));
    const both = zonesOfPanel(panels[0]!, first.left.map((z) => logOf(first, z))); // prettier-ignore
    expect(both).toMatchObject({ left: [], trapped: [] });
  });
  test('“I did this one already”: what is left is planned anew from there; what that shut in is said, and where it is pierced', () => {
    const anew = zonesOfPanel(panels[0]!, [logOf(first, first.left[1]!)]);
    expect(anew).toMatchObject({ placesDone: 1, isPlannedAnew: true });
    expect(anew.left.map((z) => z.band)).toEqual([0]);
    const rest = anew.left.flatMap((z) => z.strokes);
    expect(rest.filter(isPress).flatMap((s) => s.segments).length + first.left[1]!.strokes.filter(isPress).flatMap((s) => s.segments).length).toBe(panels[0]!.graph.segments.length); // prettier-ignore
    // faces of the place that was done are not rolled again
    expect(anew.left.every((z) => z.band === 0 && z.lanes.length > 0)).toBe(true);
    // a border sealed all round before anything was pressed leaves everything shut in
    const exits = panels[0]!.graph.nodes.flatMap((n, i) => (n.is === 'exit' ? [i] : []));
    const sealed = zonesOfPanel(panels[0]!, [{ panel: 1, graph: first.graph, strokes: [{ does: 'seal', exits }] }]);
    expect(sealed.trapped).toHaveLength(panels[0]!.graph.segments.length);
    expect(sealed.pierces.length).toBeGreaterThan(0);
    const minds = mindsOfPanel(sealed, 'mm');
    expect(minds[0]).toMatch(/^What was done has shut in .*: the border was closed over its way out\.$/);
    expect(minds[1]).toMatch(/^Pierce .* from the left, at the foot: \d+ pieces of joint let their air out there\.$/);
    // and a needle needs its lowest place
    const low = Math.min(...panels[0]!.graph.nodes.map((n) => n.yMm));
    expect(sealed.pierces[0]!.yMm).toBeCloseTo(low, 6);
  });
  test('two phones tapped the same place: it counts once; joints taped anew since make old lines say nothing', () => {
    const line = logOf(first, first.left[0]!);
    const twice = zonesOfPanel(panels[0]!, [line, line]);
    expect(replayJoints(panels[0]!.graph, twice.done).broken).toEqual([]);
    expect(twice).toMatchObject({ placesDone: 1, trapped: [], isPlannedAnew: false });
    expect(twice.left).toEqual(first.left.slice(1));
    expect(zonesOfPanel(panels[0]!, [{ ...line, graph: '0'.repeat(16) }])).toMatchObject({ placesDone: 0, trapped: [], isPlannedAnew: false });
  });
  test('a stroke half of which was done before is pressed where it is new', () => {
    const { graph } = panels[0]!;
    const long = first.left[0]!.strokes.filter(isPress).find((s) => s.segments.length > 2)!;
    const middle = long.segments[1]!;
    const from = otherEnd(graph.segments[long.segments[0]!]!, long.from);
    const done = zonesOfPanel(panels[0]!, [{ panel: 1, graph: first.graph, strokes: [{ does: 'press', from, segments: [middle] }] }, { panel: 1, graph: first.graph, strokes: [long] }]); // prettier-ignore
    expect(replayJoints(graph, done.done).broken).toEqual([]);
    expect(done.done.filter(isPress).map((s) => s.segments)).toEqual([[middle], [long.segments[0]], long.segments.slice(2)]);
  });
  test('what is shut in between a lap and something cut round breathes where the wall is hung from its other end, and that is said while it can still be done', () => {
    // a conduit a finger beside the second lap, over three bed joints
    const conduit = { ...corridor.hardware[0]!, fromLeftMm: 2675, fromFootMm: 100, widthMm: 60, heightMm: 500 };
    const of = (hungFrom: 'left' | 'right') => wallOf({ hungFrom, hardware: [conduit] })!.panels.map((p) => zonesOfPanel(p, []));
    const [left, right] = [of('left'), of('right')];
    const holes = (list: readonly PanelZones[]) => list.flatMap((p) => p.pierces).length;
    expect(holes(left)).toBeGreaterThan(0);
    expect(holes(right)).toBe(0);
    expect(otherEndWords(left, right, 'left')).toBe('Hung from its right end it would be pierced nowhere: say so in Measure before the first drop is cut.');
    expect(otherEndWords(right, left, 'right')).toBeNull();
    expect(otherEndWords(left, left, 'left')).toBeNull();
    const begun = left.map((p, i) => (i ? p : zonesOfPanel(p.panel, [logOf(p, p.left[0]!)])));
    expect(otherEndWords(begun, right, 'left')).toBeNull();
  });
  test('a panel with no joint beneath it has its faces, from the floor and from the platform', () => {
    const bare = wallOf({ masonry: { ...corridor.masonry!, pitchAcrossMm: 20_000, pitchUpMm: 20_000, firstBedMm: 19_000, firstHeadMm: 19_000 } })!.panels[0]!;
    expect(bare.graph.segments).toEqual([]);
    const zones = zonesOfPanel(bare, []);
    expect(zones.left.map((z) => [z.band, z.strokes.length])).toEqual([[0, 0], [1, 0]]); // prettier-ignore
    const one = zonesOfPanel(bare, [logOf(zones, zones.left[0]!)]);
    expect(one.left).toHaveLength(1);
  });
});

describe('two people, place by place', () => {
  const [one, two] = [zonesOfPanel(panels[0]!, []), zonesOfPanel(panels[0]!, [], { hands: 'two' })];
  test('each has places of his own; both together take well under the time of one', () => {
    expect(new Set(two.left.map((z) => z.hand))).toEqual(new Set(['left', 'right']));
    expect(one.left.every((z) => z.hand === undefined)).toBe(true);
    expect(minutesOfPlaces(one.left)).toBeCloseTo(
      one.left.reduce((s, z) => s + z.minutes, 0),
      9,
    );
    expect(minutesOfPlaces(two.left)).toBeLessThan(0.75 * minutesOfPlaces(one.left));
    expect(zoneName(two.left[0]!, panels, 'mm')).toMatch(/ from the left, left person$/);
    // as they are listed nothing is shut in either
    expect(
      replayJoints(
        panels[0]!.graph,
        two.left.flatMap((z) => z.strokes),
      ),
    ).toMatchObject({ isClean: true, left: [], broken: [] });
  });
  test('taps of both in any order go on as planned; one that comes too early plans the rest anew, and still nothing is shut in', () => {
    const of = (hand: 'left' | 'right') => two.left.filter((z) => z.hand === hand);
    for (const order of [
      [...of('right'), ...of('left')],
      [...of('left'), ...of('right')],
    ]) {
      const on = zonesOfPanel(panels[0]!, order.map((z) => logOf(two, z)), { hands: 'two' }); // prettier-ignore
      expect(on).toMatchObject({ isPlannedAnew: false, left: [], trapped: [], placesDone: two.left.length });
    }
    const early = of('left').at(-1)!;
    if (of('left').length > 1) {
      const anew = zonesOfPanel(panels[0]!, [logOf(two, early)], { hands: 'two' });
      expect(anew.isPlannedAnew).toBe(true);
      const rest = replayJoints(panels[0]!.graph, [...anew.done, ...anew.left.flatMap((z) => z.strokes)]);
      expect([rest.left, rest.broken]).toEqual([[], []]);
    }
  });
});

describe('in words', () => {
  const { graph } = panels[0]!;
  const plan = zonesOfPanel(panels[0]!, []);
  test('a joint is found on the wall by its course and how far it is from the left end', () => {
    const head = graph.segments.findIndex((s) => s.way === 'head' && s.level === 2);
    const bed = graph.segments.findIndex((s) => s.way === 'bed' && s.level === 0);
    expect(jointName(graph, head, 'mm')).toMatch(/^the upright joint of course 3, \d+ mm from the left$/);
    expect(jointName(graph, bed, 'mm')).toMatch(/^level joint 1 from \d+ mm to \d+ mm$/);
    expect(jointName(graph, head, 'in')).toMatch(/\d" from the left$/);
  });
  test('of an order of one’s own the first mistake is said, with its stroke and why', () => {
    const beds = graph.segments.flatMap((s, i) => (s.way === 'bed' && s.level < 2 ? [i] : []));
    const own = beds.map((s): JointStroke => ({ does: 'press', from: graph.segments[s]!.a, segments: [s] }));
    const words = verdictWords(graph, replayJoints(graph, own), 'mm');
    expect(words).toMatch(/^Stroke \d+ shuts in the upright joint of course 2, .* (was pressed before it|something shut)\.$/);
    expect(verdictWords(graph, replayJoints(graph, plan.left[0]!.strokes.slice(0, 1)), 'mm')).toMatch(/^Nothing is shut in; \d+ pieces of joint to go/);
    expect(
      verdictWords(
        graph,
        replayJoints(
          graph,
          plan.left.flatMap((z) => z.strokes),
        ),
        'mm',
      ),
    ).toBe('All pressed, and nothing was shut in.');
    expect(verdictWords(graph, replayJoints(graph, [...plan.left[0]!.strokes, ...plan.left[0]!.strokes]), 'mm')).toContain('pressed already');
  });
  test('a place says where one stands, what is rolled, wheeled and sealed there', () => {
    const z = plan.left[0]!;
    expect(zoneName(z, panels, 'mm')).toMatch(/^Drop 1, from the floor, /);
    expect(zoneName({ ...z, band: 1 }, [panels[0]!], 'mm')).toMatch(/^from the platform, /);
    const known = { fit: jointFit(corridor.masonry!, 0.6), border: 'left-open', isFirst: false, units: 'mm' } as const;
    const [faces, joints, border] = zoneDoing(z, panels[0]!, known);
    expect(faces).toMatch(/^Faces: \d+ lanes with the roller/);
    expect(joints).toMatch(/^Joints with the joint wheel: \d+ short upright strokes, \d+ level ones/);
    expect(border).toMatch(/^Then seal the border here, foot/);
    const flush = { ...panels[0]!, asked: { ...panels[0]!.asked, masonry: { ...corridor.masonry!, texture: 'glazed' } } } as TexturedPanel;
    expect(zoneDoing(z, flush, { ...known, fit: jointFit({ jointMm: 10, jointDepthMm: 0 }, 0.6) }).join(' ')).toMatch(/squeegee, cold.*the face roller/);
    // before anything of a panel is pressed its border is tacked: its faces, or by the other school all of it
    expect(zoneDoing(z, panels[0]!, { ...known, isFirst: true })[0]).toMatch(/^Tack its border first, top and foot, then the sides: its faces only/);
    expect(zoneDoing(z, panels[0]!, { ...known, isFirst: true })[0]).toContain('Gun 150 mm to 250 mm away');
    expect(zoneDoing(z, panels[0]!, { ...known, isFirst: true, units: 'in' })[0]).toContain('Gun 6" to 10" away');
    expect(zoneDoing(z, panels[0]!, { ...known, isFirst: true, border: 'set-first' })[0]).toContain('all of it, joints as well');
    // the pipe stands at 4890, from 2100 up: beside the platform of the fourth drop, and nowhere else
    const padded = panels.flatMap((p) =>
      zonesOfPanel(p, []).left.flatMap((q) => (zoneDoing(q, p, known).some((d) => d.startsWith('Round Pipe')) ? [`${q.panel}/${q.band}`] : [])),
    );
    expect(padded).toEqual(['4/1']);
    expect(walkWords(plan.plan, 'mm')).toContain('up or down once');
    expect(walkWords({ walkMm: 9000, leastWalkMm: 6000, climbs: 0 }, 'mm')).toContain('at best 3000 mm less');
  });
  test('what setting all of the border first would do here: all of it shut in, and where to pierce', () => {
    expect(setFirstWords(graph, 'mm')).toMatch(new RegExp(`would shut in ${graph.segments.length} pieces of joint: pierced in \\d+ places? \\(`));
  });
  test('a stroke is drawn from where it begins, also where a column’s film meets itself', () => {
    const long = plan.left[0]!.strokes.filter(isPress).find((s) => s.segments.length > 2)!;
    const path = strokePath(graph, long);
    expect(path).toHaveLength(long.segments.length + 1);
    expect(path[0]).toEqual({ xMm: graph.nodes[long.from]!.xMm, yMm: graph.nodes[long.from]!.yMm });
    const way = path.slice(1).reduce((s, p, i) => s + Math.hypot(p.xMm - path[i]!.xMm, p.yMm - path[i]!.yMm), 0);
    expect(way).toBeCloseTo(jointStrokeMm(graph, long), 6);
  });
});

describe('by figures alone', () => {
  const input = { masonry: corridor.masonry!, wall: { widthMm: 1300, heightMm: 900 }, panel: { leftMm: 0, rightMm: 1300, footMm: 0, topMm: 900 }, borders: { left: 'closed', right: 'free', foot: 'free', top: 'free' }, obstacles: [], goesRound: false, border: 'left-open', hands: 'one', rule: 'strict', film: { stretchMaxPct: 60 }, strokes: [], units: 'mm' } as const; // prettier-ignore
  test('plan, joints and words of one panel; an order of one’s own is judged', () => {
    const answer = jointsCard({ ...input, obstacles: [], strokes: [] });
    expect(answer).toMatchObject({ doubt: null, fit: { is: 'goes' }, verdict: null, pierces: [] });
    const strokes = answer.zones.flatMap((z) => z.strokes.map((s) => s.stroke));
    expect(jointsCard({ ...input, obstacles: [], strokes }).verdict).toMatchObject({ isClean: true, trapped: [] });
    const wrong = jointsCard({ ...input, obstacles: [], strokes: [...strokes].reverse() }).verdict!;
    expect(wrong.isClean).toBe(false);
    expect(wrong.text).toMatch(/^Stroke 1 shuts in|^Stroke \d+/);
  });
  test('for two people every place says whose it is, and both together press all of it', () => {
    const { zones, segments } = jointsCard({ ...input, obstacles: [], strokes: [], hands: 'two' });
    expect(new Set(zones.map((z) => z.hand))).toEqual(new Set(['left', 'right']));
    const pressed = zones.flatMap((z) => z.strokes.flatMap((s) => (s.stroke.does === 'press' ? s.stroke.segments : [])));
    expect([...pressed].sort((a, b) => a - b)).toEqual(segments.map((_s, i) => i));
    expect(jointsCard({ ...input, obstacles: [], strokes: [] }).zones.every((z) => z.hand === null)).toBe(true);
  });
  test('what cannot be is told in a sentence, and nothing is made up', () => {
    const doubt = (more: object) => jointsCard({ ...input, obstacles: [], strokes: [], ...more }).doubt;
    expect(doubt({ masonry: { ...input.masonry, jointMm: 300 } })).toContain('as wide as the blocks are long');
    expect(doubt({ panel: { ...input.panel, rightMm: 5 } })).toContain('has no size');
    expect(doubt({ panel: { ...input.panel, rightMm: 1400 } })).toContain('past the wall');
    expect(doubt({ wall: { widthMm: 60_000, heightMm: 30_000 }, panel: { leftMm: 0, rightMm: 60_000, footMm: 0, topMm: 30_000 } })).toContain('one by one');
    const strange = jointsCard({ ...input, obstacles: [], strokes: [{ does: 'press', from: 0, segments: [99_999] }] });
    expect(strange).toMatchObject({ verdict: null, doubt: expect.stringContaining('joints that are not there') as string });
    expect(strange.zones.length).toBeGreaterThan(0);
  });
});
