import { panesIn } from '../../../demo/src/index.js';
import { demoFirm, lanternStreet } from '../../../demo/src/index.js';
import type { Drop, LogEntry, Piece, Plan } from '@yellow-pane/contracts';
import { file, pane, records } from './demo-job.testing.js';
import { filmPlanInput, fixedDropsOf, methodFigures } from './film-plan.js';
import { CORE_VERSION } from './core-version.js';
import { doneSteps, finishedPieces } from './knife-log.js';
import { surveySurface } from '../form/index.js';
import { quotedSize, readingsHash, readingsInForce, tapesOf } from '../measure/index.js';
import { cutOfSurface, cutsForFilm } from './cut-of-kind.js';
import { resolveAllowances } from './job-pieces.js';
import { knifeOrder } from './knife-order.js';
import { checkLayout, layPiecesOnRolls } from './layout/index.js';

const guard = file.films.find((f) => f.kind === 'security')!;
const roomy = (fixedDrops: Drop[], id: string) => [{ id, widthMm: 1829, availableMm: 30_000, pricePerM: 31.5, fixedDrops }];

function planned(): Plan {
  const input = filmPlanInput(records, file.job.cut, guard.id, undefined);
  return {
    id: pane('O1').id,
    jobId: file.job.id,
    filmId: guard.id,
    status: 'committed',
    inputHash: input.hash,
    coreVersion: CORE_VERSION,
    pieces: [...input.pieces],
    layout: layPiecesOnRolls(input.layout, 20),
    lockedPieceIds: [],
    isByHand: false,
    takenRollIds: [],
    updatedAt: '2026-09-14T09:00:00.000Z',
    deletedAt: null,
  };
}
const entry = (n: number, kind: LogEntry['kind'], stepKey: string): LogEntry => ({
  id: pane('O1').id,
  jobId: file.job.id,
  at: `2026-09-14T09:0${n}:00.000Z`,
  personId: pane('O1').id,
  kind,
  planId: null,
  stepKey,
  surfaceId: null,
  note: '',
});

describe('from records to pieces', () => {
  test('a pane measured like another uses its tapes, but its own where it has them', () => {
    const w2 = pane('W2');
    expect(readingsInForce(w2, file.surfaces, file.readings).map((r) => r.lengthMm)).toEqual([1184, 2046]);
    const own = { ...file.readings[0]!, id: 'x', surfaceId: w2.id, measure: 'widthLargest' as const, lengthMm: 1180 };
    expect(readingsInForce(w2, file.surfaces, [...file.readings, own]).map((r) => [r.measure, r.lengthMm])).toEqual([
      ['widthLargest', 1180],
      ['heightLargest', 2046],
    ]);
  });

  test('a superseded reading stays in the record and out of the arithmetic', () => {
    const old = file.readings.find((r) => r.surfaceId === pane('Toilet 2').id && r.measure === 'widthBottom')!;
    const again = { ...old, id: 'again', lengthMm: 598, supersedesId: old.id };
    const { survey } = surveySurface(pane('Toilet 2'), { ...records, readings: [...file.readings, again] });
    expect(survey.status).toBe('agreeing');
  });

  test('tapes of one place taken one after the other with the same result count as several; one that differs begins anew', () => {
    const toilet = pane('Toilet 2');
    const old = file.readings.find((r) => r.surfaceId === toilet.id && r.measure === 'widthBottom')!;
    const second = { ...old, id: 'second', lengthMm: old.lengthMm + 1, at: '2026-10-01T09:00:00Z', supersedesId: old.id };
    const third = { ...second, id: 'third', at: '2026-10-01T09:05:00Z', supersedesId: 'second' };
    const other = { ...second, id: 'other', lengthMm: old.lengthMm + 9, at: '2026-10-01T09:09:00Z', supersedesId: 'third' };
    const times = (...more: typeof file.readings) => {
      const readings = [...file.readings, ...more];
      return tapesOf(readingsInForce(toilet, file.surfaces, readings), readings).find((t) => t.measure === 'widthBottom')!.times;
    };
    expect([times(), times(second), times(second, third), times(second, third, other)]).toEqual([1, 2, 3, 1]);
    // a file that is brought in twice says nothing new
    expect(times({ ...second, instrument: 'import' })).toBe(1);
    const blame = (...more: typeof file.readings) =>
      surveySurface(toilet, { ...records, readings: [...file.readings, ...more] }).survey.suspects.find(
        (s) => s.hypothesis.kind === 'slip' && s.hypothesis.measure === 'widthBottom',
      )?.probability ?? 0;
    expect(blame({ ...third, lengthMm: old.lengthMm }, { ...second, lengthMm: old.lengthMm })).toBeLessThan(0.5 * blame());
  });
  test('a size that was signed for an explanation is cut by what it leaves', () => {
    const toilet = pane('Toilet 2');
    const sign = (believes: string | null) => {
      const signed = {
        personId: toilet.id,
        at: '2026-09-14T09:00:00Z',
        readingsHash: readingsHash(readingsInForce(toilet, file.surfaces, file.readings)),
        believes,
      };
      return surveySurface({ ...toilet, signed }, records).survey;
    };
    expect(sign('slip:widthBottom')).toMatchObject({ status: 'agreeing', believed: { hypothesis: { measure: 'widthBottom' } } });
    expect(sign('as-taped').status).toBe('doubtful');
    expect(sign(null).status).toBe('doubtful');
  });
  test('a signature stands for exactly these readings', () => {
    const toilet = pane('Toilet 2');
    const signed = {
      ...toilet,
      signed: { personId: toilet.id, at: '2026-09-14T09:00:00Z', readingsHash: readingsHash(readingsInForce(toilet, file.surfaces, file.readings)) },
    };
    expect(surveySurface(signed, records).isSigned).toBe(true);
    const more = file.readings.map((r) => (r.surfaceId === toilet.id && r.measure === 'heightLeft' ? { ...r, lengthMm: 671 } : r));
    expect(surveySurface(signed, { ...records, readings: more }).isSigned).toBe(false);
  });

  test('allowances: firm, then job, then surface decide', () => {
    const surface = { ...pane('W1'), allowances: { overhangMm: 40 } };
    expect(resolveAllowances({ firm: demoFirm, job: { ...file.job, allowances: { overhangMm: 30, edgeGapMm: 2 } } }, surface)).toEqual({
      overhangMm: 40,
      overhangTopMm: 25,
      edgeGapMm: 2,
      sizeStep: 'fine',
    });
  });

  test('a quoted size is a guess: nothing is cut to it, nothing of it mixes with tapes, and a tape of the same size is one tape', () => {
    const w1 = pane('W1');
    const quoted = file.readings.filter((r) => r.surfaceId === w1.id).slice(0, 1);
    const guess = (measure: 'widthLargest' | 'heightLargest', lengthMm: number, n: number) => ({
      ...quoted[0]!,
      id: `018f0000-0000-7000-8000-00000000000${n}`,
      measure,
      lengthMm,
      instrument: 'quote' as const,
      supersedesId: null,
      withdrawnAt: null,
    });
    const others = file.readings.filter((r) => r.surfaceId !== w1.id);
    const [wide, high] = [guess('widthLargest', 1200, 1), guess('heightLargest', 1500, 2)];
    const on = (...own: (typeof file.readings)[number][]) => ({ ...records, readings: [...others, ...own] });
    const cut = (...own: (typeof file.readings)[number][]) =>
      cutOfSurface(
        w1,
        on(...own),
        file.films.find((f) => f.id === w1.filmId)!,
      );
    expect(quotedSize(w1, file.surfaces, [wide, high])).toEqual({ widthMm: 1200, heightMm: 1500 });
    expect(cut(wide, high)).toMatchObject({ pieces: [], answer: { blocked: expect.stringContaining('Quoted at 1200 × 1500 mm, and nobody has taped it') } });
    expect(surveySurface(w1, on(wide, high)).survey.status).toBe('nothing');
    const tape = { ...wide, id: '018f0000-0000-7000-8000-000000000003', instrument: 'tape' as const, supersedesId: wide.id };
    expect(quotedSize(w1, file.surfaces, [wide, high, tape])).toBeNull();
    expect(cut(wide, high, tape).answer).toEqual({ blocked: 'No width and height yet.' });
    expect(tapesOf(readingsInForce(w1, file.surfaces, [wide, high, tape]), [wide, high, tape])).toEqual([
      { measure: 'widthLargest', lengthMm: 1200, times: 1 },
    ]);
    const both = cut(wide, high, tape, { ...high, id: '018f0000-0000-7000-8000-000000000004', instrument: 'laser', supersedesId: high.id });
    expect(both.pieces).toHaveLength(1);
  });

  test('a spoiled piece adds one more of the same size', () => {
    const surfaces = panesIn(file).map((s) =>
      s.name === 'O4' ? { ...s, extraPieces: [{ id: 'e', reason: 'spoiled', at: '2026-09-14T09:00:00Z', part: null }] } : s,
    );
    const cut = cutsForFilm({ ...records, surfaces }, guard.id).find((c) => c.surface.name === 'O4')!;
    expect(cut.pieces.map((p) => p.label)).toEqual(['O4', 'O4 again']);
    expect(cut.pieces[1]!.widthMm).toBe(cut.pieces[0]!.widthMm);
  });
});

describe('a plan and what makes it stale', () => {
  test('the hash changes with a tape, a roll or a setting, and with nothing else', () => {
    const hash = (r: typeof records, cut = file.job.cut) => filmPlanInput(r, cut, guard.id, undefined).hash;
    const base = hash(records);
    expect(hash({ ...records, surfaces: panesIn(records).map((s) => ({ ...s, note: 'sunny' })) })).toBe(base);
    expect(hash({ ...records, readings: records.readings.map((r) => (r.surfaceId === pane('O1').id ? { ...r, lengthMm: r.lengthMm + 5 } : r)) })).not.toBe(
      base,
    );
    expect(hash({ ...records, rolls: records.rolls.map((r) => ({ ...r, lengthM: 9 })) })).not.toBe(base);
    expect(hash(records, { ...file.job.cut, longestPullMm: 2000 })).not.toBe(base);
  });

  test('ticks are facts: a later entry corrects one, the last word counts', () => {
    expect(doneSteps([entry(1, 'cut-done', 'a'), entry(2, 'cut-done', 'b'), entry(3, 'cut-undone', 'a')])).toEqual(new Set(['b']));
    expect(doneSteps([entry(3, 'cut-done', 'a'), entry(2, 'cut-undone', 'a')])).toEqual(new Set(['a']));
  });

  test('a piece is finished when the cut that frees it is ticked', () => {
    const plan = planned();
    const steps = knifeOrder(plan.layout, plan.pieces, () => 1829, 'mm');
    const freeing = steps.find((s) => s.finishes.length > 0)!;
    expect(finishedPieces([plan], [entry(1, 'cut-done', freeing.key)], file.rolls)).toEqual(new Set(freeing.finishes));
    expect(finishedPieces([plan], [], file.rolls).size).toBe(0);
  });

  test('a re-plan leaves alone what the knife has been at, and what is locked', () => {
    const plan = planned();
    const steps = knifeOrder(plan.layout, plan.pieces, () => 1829, 'mm');
    const roll = plan.layout.rolls[0]!;
    expect(fixedDropsOf(plan, [], file.rolls, plan.pieces).size).toBe(0);
    expect(fixedDropsOf(plan, [entry(1, 'cut-done', steps[0]!.key)], file.rolls, plan.pieces).get(roll.rollId)).toEqual([roll.drops[0]]);
    const last = roll.drops.at(-1)!;
    const locked = { ...plan, lockedPieceIds: [last.columns[0]!.rows[0]!.pieces[0]!.pieceId] };
    expect(fixedDropsOf(locked, [], file.rolls, plan.pieces).get(roll.rollId)).toEqual([last]);
  });

  test('a locked piece keeps its place when a neighbour in its drop changes size; the neighbour is laid anew', () => {
    const plan = planned();
    const roll = plan.layout.rolls[0]!;
    const shared = roll.drops.find((d) => d.columns.flatMap((c) => c.rows).length > 1)!;
    const ids = shared.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)));
    const [locked, grown] = [ids[0]!, ids.at(-1)!];
    const pieces = plan.pieces.map((p) => (p.id === grown ? { ...p, widthMm: p.widthMm + 40, heightMm: p.heightMm + 40 } : p));
    const held = fixedDropsOf({ ...plan, lockedPieceIds: [locked] }, [], file.rolls, pieces).get(roll.rollId)!;
    expect(held).toHaveLength(1);
    const kept = held[0]!.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)));
    expect(kept).toEqual(ids.filter((id) => id !== grown));
    const layout = layPiecesOnRolls({ ...filmPlanInput(records, file.job.cut, guard.id, plan).layout, pieces, rolls: roomy(held, roll.rollId) }, 10);
    expect(checkLayout(layout, { pieces, rolls: roomy(held, roll.rollId), settings: file.job.cut })).toEqual([]);
    // and when the locked piece itself changed, there is nothing to hold
    expect(fixedDropsOf({ ...plan, lockedPieceIds: [grown] }, [], file.rolls, pieces).size).toBe(0);
  });

  test('of a patterned drop that is locked nothing moves off its mark when a piece in it changes size', () => {
    const of = (n: number, heightMm: number, startMm: number): Piece => ({ ...planned().pieces[0]!, id: pane(`O${n}`).id, surfaceId: pane(`O${n}`).id, label: `P${n}`, widthMm: 600, heightMm, turns: [0], factoryEdge: null, parts: [], meets: null, repeat: { repeatMm: 200, startMm } }); // prettier-ignore
    const pieces = [of(1, 900, 0), of(2, 700, 50), of(3, 500, 120)];
    const input = { filmId: guard.id, rolls: [{ id: file.rolls[0]!.id, widthMm: 620, availableMm: 1e5, pricePerM: 10, fixedDrops: [] as Drop[] }], pieces, settings: { ...file.job.cut, longestPullMm: 3000 }, seed: 1 }; // prettier-ignore
    const row = (p: Piece, xMm: number, alongMm: number) => ({ xMm, alongMm, pieces: [{ pieceId: p.id, turn: 0 as const, xMm: xMm + alongMm - p.heightMm, yMm: 0, alongMm: p.heightMm, acrossMm: 600 }] }); // prettier-ignore
    // 900 from the mark; 700 from 1050; 500 from 1920
    const drop: Drop = { xMm: 0, alongMm: 2420, locked: false, columns: [{ yMm: 0, acrossMm: 600, rows: [row(pieces[0]!, 0, 900), row(pieces[1]!, 903, 847), row(pieces[2]!, 1753, 667)] }] }; // prettier-ignore
    const layout = { ...planned().layout, filmId: guard.id, rolls: [{ rollId: input.rolls[0]!.id, usedMm: 2423, drops: [drop] }], unplaced: [] };
    const grown = pieces.map((p, i) => (i === 1 ? { ...p, heightMm: 760 } : p));
    const held = fixedDropsOf({ ...planned(), pieces, layout, lockedPieceIds: [pieces[2]!.id] }, [], file.rolls, grown).get(input.rolls[0]!.id)!;
    expect(held[0]!.columns[0]!.rows.map((r) => [r.xMm, r.alongMm, r.pieces[0]!.xMm])).toEqual([[0, 900, 0], [903, 1517, 1920]]); // prettier-ignore
    const again = { ...input, pieces: grown, rolls: input.rolls.map((r) => ({ ...r, fixedDrops: held })) };
    expect(checkLayout(layPiecesOnRolls(again, 5), { pieces: grown, rolls: again.rolls, settings: again.settings })).toEqual([]);
  });

  test('a piece already cut keeps the size it was cut to, whatever the tapes say now', () => {
    const plan = planned();
    const first = knifeOrder(plan.layout, plan.pieces, () => 1829, 'mm')[0]!;
    const readings = file.readings.map((r) => (r.surfaceId === pane('O1').id ? { ...r, lengthMm: r.lengthMm + 9 } : r));
    const again = filmPlanInput({ ...records, readings, entries: [entry(1, 'cut-done', first.key)] }, file.job.cut, guard.id, plan);
    const cutIds = plan.layout.rolls[0]!.drops[0]!.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)));
    for (const id of cutIds) expect(again.pieces.find((p) => p.id === id)!.widthMm).toBe(plan.pieces.find((p) => p.id === id)!.widthMm);
  });
});

test('methods differ as the trade says: fewer trims by factory edge, none pre-cut, and two tapes are not enough for that', () => {
  const bakery = lanternStreet();
  const small = { ...records, job: bakery.job, surfaces: bakery.surfaces, readings: bakery.readings };
  const shade = bakery.films.find((f) => f.kind === 'solar')!;
  const by = (m: 'overhang' | 'factory-edge' | 'pre-cut') => methodFigures(small, bakery.job.cut, shade.id, m, 5);
  expect(by('factory-edge').trims).toBeLessThan(by('overhang').trims);
  expect(by('pre-cut')).toMatchObject({ blockedCount: 3, usedM: 0 });
  expect(by('overhang').workCost).toBeCloseTo((by('overhang').minutes / 60) * Number(demoFirm.hourRate), 9);
});
