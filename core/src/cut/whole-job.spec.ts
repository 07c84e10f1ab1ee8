import fc from 'fast-check';
import { newRoll, newPane, type Film, type LogEntry, type MeasureKey, type Reading, type Roll, type Pane } from '@yellow-pane/contracts';
import { demoFilms, demoFirm, demoId, ternPoint } from '../../../demo/src/index.js';
import { seededRandom, randomInt, type Random, Memo } from '../ground/index.js';
import { filmPlanInput } from './film-plan.js';
import { cutSurfaces, finishedPieces } from './knife-log.js';
import { knifeOrder, restsOf } from './knife-order.js';
import { checkLayout, layPiecesOnRolls } from './layout/index.js';
import { costOfPlan } from './plan-cost.js';

const { job } = ternPoint();
const pick = <T>(random: Random, list: readonly T[]): T => list[randomInt(random, list.length)]!;

/** A job as it may come: rows of panes, single ones, wide ones pieced together, bands and marks, on whatever is in the van. */
function jobOf(seed: number) {
  const random = seededRandom(seed);
  let n = 5000;
  const id = () => demoId(n++);
  const film: Film = pick(random, [demoFilms.shade, demoFilms.frost, demoFilms.reed, demoFilms.guard]);
  const surfaces: Pane[] = [];
  const readings: Reading[] = [];
  const tape = (surfaceId: string, measure: MeasureKey, lengthMm: number) =>
    readings.push({ id: id(), jobId: job.id, surfaceId, measure, typed: String(lengthMm), unit: 'mm', lengthMm, instrument: 'tape', personId: demoId(2), at: '2026-09-14T09:00:00Z', supersedesId: null, withdrawnAt: null, deletedAt: null }); // prettier-ignore
  const pane = (widthMm: number, heightMm: number, more: Partial<Pane> = {}) => {
    const s = newPane({ id: id(), jobId: job.id, placeId: demoId(1), name: `P${surfaces.length + 1}`, order: surfaces.length, filmId: film.id, ...more });
    surfaces.push(s);
    tape(s.id, 'widthLargest', widthMm);
    tape(s.id, 'heightLargest', heightMm);
    return s;
  };
  for (let g = 1 + randomInt(random, 3); g > 0; g--) {
    const [w, h, count, groupId] = [400 + randomInt(random, 600), 500 + randomInt(random, 1400), 1 + randomInt(random, 4), id()];
    for (let column = 0; column < count; column++) pane(w, h + (random() < 0.3 ? 7 : 0), { grid: count > 1 ? { groupId, row: 0, column } : null });
  }
  if (film.kind !== 'frosted' && random() < 0.6)
    pane(2400, 1500, { seam: { kind: pick(random, ['overlap', 'double-cut'] as const), direction: 'upright', atMm: [1200] } });
  if (film.id === demoFilms.frost.id && random() < 0.7)
    pane(800, 1900, { design: { kind: 'bands', heightsFrom: 'sill', gapMm: 0, bands: [{ bottomMm: 200, topMm: 290 }, { bottomMm: 700, topMm: 1500 }] } }); // prettier-ignore
  if (film.id === demoFilms.frost.id && random() < 0.7)
    pane(900, 2000, { design: { kind: 'marking', heightsFrom: 'sill', gapMm: 0, rule: 'approved-document-k', zones: [{ bottomMm: 1, topMm: 2 }], motif: 'squares', sizeMm: 45, pitchMm: 75 } }); // prettier-ignore
  const roll = (more: Partial<Roll>): Roll => newRoll({ id: id(), filmId: film.id, label: `R${n}`, widthMm: 1524, lengthM: 30, pricePerM: '12.00', ...more });
  const rolls = [
    roll({ widthMm: pick(random, [1220, 1524, 1829]), lengthM: 4 + randomInt(random, 20), leadInMm: randomInt(random, 200), lot: 'A' }),
    ...(random() < 0.5 ? [roll({ lengthM: 6, lot: pick(random, ['A', 'B']), pricePerM: '13.10' })] : []),
    ...Array.from({ length: randomInt(random, 4) }, () =>
      roll({ form: 'leftover', widthMm: 400 + randomInt(random, 700), lengthM: (500 + randomInt(random, 1300)) / 1000, pricePerM: '2.4', edges: pick(random, ['none', 'near', 'far'] as const), lot: pick(random, ['A', 'B']) }),
    ),
  ]; // prettier-ignore
  return { firm: demoFirm, job, surfaces, readings, films: [film], rolls, entries: [] as LogEntry[], film, memo: new Memo() };
}

describe('any job, from tapes to the last cut', () => {
  test('its plan can be cut, its knife order frees every piece exactly once, and with the last tick every pane is cut', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const records = jobOf(seed);
        const input = filmPlanInput(records, job.cut, records.film.id, undefined);
        const layout = layPiecesOnRolls(input.layout, 8);
        expect(checkLayout(layout, { pieces: input.pieces, rolls: input.layout.rolls, settings: job.cut })).toEqual([]);
        const width = (id: string) => records.rolls.find((r) => r.id === id)!.widthMm;
        const steps = knifeOrder(layout, input.pieces, width, 'mm');
        const laid = input.pieces
          .filter((p) => !layout.unplaced.some((u) => u.pieceId === p.id))
          .flatMap((p) => (p.parts.length ? p.parts.map((x) => x.id) : [p.id]));
        expect(steps.flatMap((s) => [...s.finishes]).sort()).toEqual([...laid].sort());
        expect(new Set(steps.map((s) => s.key)).size).toBe(steps.length);
        const plan = { id: demoId(4999), jobId: job.id, filmId: records.film.id, status: 'committed' as const, inputHash: input.hash, coreVersion: 'x', pieces: [...input.pieces], layout, lockedPieceIds: [], isByHand: false, takenRollIds: [], updatedAt: '2026-09-14T09:00:00Z', deletedAt: null }; // prettier-ignore
        const entries = steps.map((s, i): LogEntry => ({ id: `e${i}`, jobId: job.id, at: new Date(1.7e12 + i).toISOString(), personId: 'p', kind: 'cut-done', planId: plan.id, stepKey: s.key, surfaceId: null, note: '' })); // prettier-ignore
        expect([...finishedPieces([plan], entries, records.rolls)].sort()).toEqual([...laid].sort());
        const whole = records.surfaces.filter(
          (s) => input.pieces.some((p) => p.surfaceId === s.id) && input.pieces.every((p) => p.surfaceId !== s.id || laid.includes(p.id)),
        );
        expect(cutSurfaces({ ...records, plans: [plan], entries })).toEqual(new Set(whole.map((s) => s.id)));
        // a pane of which one piece more was asked for is not cut until that one is too
        const surfaces = records.surfaces.map((s) => ({ ...s, extraPieces: [{ id: 'one more' }] }));
        expect(cutSurfaces({ ...records, surfaces, plans: [plan], entries }).size).toBe(0);
      }),
      { seed: 17, numRuns: 60 },
    ));

  test('roll = pieces + rests + what the knife and the pattern take; the cost of it all is what the film costs', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const records = jobOf(seed);
        const input = filmPlanInput(records, job.cut, records.film.id, undefined);
        const layout = layPiecesOnRolls(input.layout, 4);
        const cost = costOfPlan(layout, input.pieces, records.rolls, demoFirm.leftovers, 48);
        for (const r of layout.rolls) {
          const widthMm = records.rolls.find((x) => x.id === r.rollId)!.widthMm;
          const used = r.usedMm * widthMm;
          const pieces = r.drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces))).reduce((s, p) => s + p.alongMm * p.acrossMm, 0);
          const rests = r.drops.flatMap((d) => restsOf(d, widthMm, demoFirm.leftovers)).reduce((s, x) => s + x.alongMm * x.acrossMm, 0);
          expect(pieces + rests).toBeLessThanOrEqual(used + 1);
        }
        expect(cost.film).toBeCloseTo(layout.cost, 6);
        expect(cost.wasteMoney).toBeGreaterThanOrEqual(-1e-9);
        expect(cost.wasteMoney).toBeLessThanOrEqual(cost.film + 1e-9);
      }),
      { seed: 23, numRuns: 60 },
    ));

  test('the same job again: the same plan and the same hash, whatever order its records come in', () => {
    for (const seed of [3, 8, 21]) {
      const records = jobOf(seed);
      const [a, b] = [records, { ...records, readings: [...records.readings].reverse(), rolls: [...records.rolls] }].map((r) =>
        filmPlanInput(r, job.cut, records.film.id, undefined),
      );
      expect(b!.hash).toBe(a!.hash);
      expect(layPiecesOnRolls(b!.layout, 5)).toEqual(layPiecesOnRolls(a!.layout, 5));
    }
  });
});
