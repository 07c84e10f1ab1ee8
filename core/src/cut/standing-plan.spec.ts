import type { LogEntry, Plan, Roll } from '@yellow-pane/contracts';
import { file, film, pane, records } from './demo-job.testing.js';
import { filmPlanInput } from './film-plan.js';
import { finishedPieces } from './knife-log.js';
import { knifeOrder } from './knife-order.js';
import { layPiecesOnRolls } from './layout/index.js';
import { newestPlan, newestPlans } from './newest-plan.js';
import { singlePieces } from './pairs.js';
import { filmsToCut, standingPlan } from './standing-plan.js';

const guard = file.films.find((f) => f.kind === 'security')!;
const at = '2026-09-14T09:00:00Z';
const planOf = (filmId: string, more: Partial<Plan> = {}): Plan => {
  const input = filmPlanInput(records, file.job.cut, filmId, undefined);
  return {
    id: pane('O1').id, jobId: file.job.id, filmId, status: 'draft', inputHash: input.hash, coreVersion: 'x', pieces: [...input.pieces],
    layout: layPiecesOnRolls(input.layout, 10), lockedPieceIds: [], isByHand: false, takenRollIds: [], updatedAt: at, deletedAt: null, ...more,
  }; // prettier-ignore
};
const widthOf = (id: string) => file.rolls.find((r) => r.id === id)!.widthMm;

describe('which plan is followed', () => {
  const kept = planOf(guard.id);
  const committed: Plan = { ...kept, status: 'committed' };
  const standing = (plan: Plan | undefined, more: Partial<typeof records> = {}, entries: LogEntry[] = []) =>
    standingPlan(
      plan,
      filmPlanInput({ ...records, ...more, entries }, file.job.cut, guard.id, plan),
      finishedPieces(plan ? [plan] : [], entries, file.rolls),
      'mm',
    );
  const anotherRoll: Roll = { ...file.rolls.find((r) => r.filmId === guard.id)!, id: pane('O2').id, label: 'B-999', pricePerM: '0.01' };
  const longer = file.readings.map((r) => (r.surfaceId === pane('O1').id && r.measure === 'widthLargest' ? { ...r, lengthMm: r.lengthMm + 120 } : r));

  test('none yet: whatever is laid out is a proposal', () => expect(standing(undefined)).toEqual({ is: 'none' }));
  test('one that was kept, and what it was made from is still so', () => {
    expect(standing(kept)).toEqual({ is: 'kept', plan: kept });
    expect(standing(committed)).toEqual({ is: 'kept', plan: committed });
  });
  test('one that was kept, and a cheaper roll has come or a pane was taped anew: it is a proposal again', () => {
    expect(standing(kept, { rolls: [...file.rolls, anotherRoll] })).toEqual({ is: 'none' });
    expect(standing(kept, { readings: longer })).toEqual({ is: 'none' });
  });
  test('one that the knife has been at stands whatever else there is to cut from now: nothing of it has changed', () => {
    const first = knifeOrder(committed.layout, committed.pieces, widthOf, 'mm')[0]!;
    const tick: LogEntry = {
      id: 'e',
      jobId: file.job.id,
      at,
      personId: 'p',
      kind: 'cut-done',
      planId: committed.id,
      stepKey: first.key,
      surfaceId: null,
      note: '',
    };
    expect(standing(committed, { rolls: [...file.rolls, anotherRoll] }, [tick])).toEqual({ is: 'committed', plan: committed, changes: [] });
  });
  test('it stands when a pane is taped anew too, and what changed is said', () => {
    const now = standing(committed, { readings: longer });
    expect(now).toMatchObject({ is: 'committed', plan: committed, changes: [{ label: 'O1', kind: 'size', isCut: false }] });
  });
  test('and when no pane has its film any more: its rolls lie cut on the bench', () => {
    const bare = { ...records, surfaces: file.surfaces.map((s) => ({ ...s, filmId: null })) };
    const of = (plan: Plan) => filmsToCut({ ...bare, plans: [plan] }).map((f) => f.id);
    expect([of(kept), of(committed)]).toEqual([[], [guard.id]]);
    expect(standing(committed, { surfaces: bare.surfaces })).toMatchObject({
      is: 'committed',
      changes: committed.pieces.map((p) => ({ kind: 'gone', pieceId: p.id })),
    });
  });
});

describe('the newest plan', () => {
  const [a, b] = [planOf(guard.id), planOf(guard.id, { id: pane('O2').id, updatedAt: '2026-09-14T10:00:00Z' })];
  test('of each film the one that was written last, whichever comes first in the record', () => {
    expect(newestPlan([a, b], guard.id)).toBe(b);
    expect(newestPlan([b, a], guard.id)).toBe(b);
    expect(newestPlan([a, b], 'another film')).toBeUndefined();
    const other = { ...a, filmId: 'f' };
    expect([...newestPlans([a, other, b])]).toEqual([
      [guard.id, b],
      ['f', other],
    ]);
  });
  test('one that was taken away counts no more', () => expect(newestPlan([a, { ...b, deletedAt: at }], guard.id)).toBe(a));
  test('two of the same instant, from two benches, are told apart the same way on both', () => {
    const twin = { ...b, updatedAt: a.updatedAt };
    expect(newestPlan([a, twin], guard.id)).toBe(newestPlan([twin, a], guard.id));
  });
});

describe('joined pieces one by one, as they go onto the glass', () => {
  const frost = filmPlanInput(records, file.job.cut, film('Quay Frost plain').id, undefined);
  const joined = [...new Set(records.films.map((f) => f.id))]
    .flatMap((id) => filmPlanInput(records, file.job.cut, id, undefined).pieces)
    .find((p) => p.parts.length > 0)!;
  const own = new Map(records.films.flatMap((f) => filmPlanInput(records, file.job.cut, f.id, undefined).cuts.flatMap((c) => c.pieces)).map((p) => [p.id, p]));
  test('each is the piece of its pane; one that stands alone is itself', () => {
    expect(singlePieces([joined], own)).toEqual(joined.parts.map((part) => own.get(part.id)));
    const alone = frost.pieces.find((p) => p.parts.length === 0)!;
    expect(singlePieces([alone], own)).toEqual([alone]);
  });
  test('of a committed plan the size is the one that is cut, not the one that its pane would be cut to today', () => {
    const [first, second] = joined.parts as [(typeof joined.parts)[number], (typeof joined.parts)[number]];
    const today = new Map([...own].map(([id, p]) => [id, id === second.id ? { ...p, widthMm: p.widthMm + 120, path: null } : p]));
    const [, now] = singlePieces([joined], today);
    expect(now).toMatchObject({ id: second.id, widthMm: second.widthMm, heightMm: second.heightMm, method: own.get(second.id)!.method });
    // the outline as it hangs, whichever way round it lay in the rectangle
    const path = own.get(second.id)!.path!;
    const low = (list: typeof path) => ({ x: Math.min(...list.map((q) => q.xMm)), y: Math.min(...list.map((q) => q.yMm)) });
    const key = (list: typeof path) => list.map((q) => `${(q.xMm - low(list).x).toFixed(3)}/${(q.yMm - low(list).y).toFixed(3)}`).sort();
    expect(key(now!.path!)).toEqual(key(path));
    expect(singlePieces([joined], new Map()).map((p) => p.label)).toEqual([first.label, second.label]);
    // and point by point, in order: a part that lay upside down is turned back, not mirrored
    const turned = joined.parts.find((p) => p.isTurned)!;
    const back = singlePieces([joined], new Map()).find((p) => p.id === turned.id)!.path!;
    const mine = own.get(turned.id)!.path!;
    const shifted = (list: typeof path, i: number) => `${(list[i]!.xMm - low(list).x).toFixed(3)}/${(list[i]!.yMm - low(list).y).toFixed(3)}`;
    const start = mine.findIndex((_, i) => shifted(mine, i) === shifted(back, 0));
    expect(back.map((_, i) => shifted(back, i))).toEqual(mine.map((_, i) => shifted(mine, (i + start) % mine.length)));
  });
});
