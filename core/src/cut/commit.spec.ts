import { panesIn } from '../../../demo/src/index.js';
import fc from 'fast-check';
import type { LogEntry, Patch, Plan, Reservation, Roll, StockEntry } from '@yellow-pane/contracts';
import { freeMm, remainingMm } from '../stock/index.js';
import { demoFirm } from '../../../demo/src/index.js';
import { file, film, pane, records } from './demo-job.testing.js';
import { filmPlanInput } from './film-plan.js';
import { finishedPieces, panesReadyToLay } from './knife-log.js';
import { matchInHand } from './in-hand.js';
import { cutsForFilm } from './cut-of-kind.js';
import { knifeOrder, restsOf } from './knife-order.js';
import { checkLayout, layPiecesOnRolls } from './layout/index.js';
import { costOfPlan } from './plan-cost.js';
import { piecesCutShort } from './cut-short.js';
import { compareWithPlan } from './replan.js';
import { promiseNeededMm, reserve, takeFromStock } from './take-from-stock.js';

const guard = file.films.find((f) => f.kind === 'security')!;
const shade = film('Tern Shade 35');
const at = '2026-09-14T09:00:00Z';

function planOf(filmId: string, more: Partial<typeof records> & { stock?: { entries: StockEntry[]; reservations: Reservation[] } } = {}): Plan {
  const input = filmPlanInput({ ...records, ...more }, file.job.cut, filmId, undefined);
  return {
    id: pane('O1').id, jobId: file.job.id, filmId, status: 'draft', inputHash: input.hash, coreVersion: 'x', pieces: [...input.pieces],
    layout: layPiecesOnRolls(input.layout, 20), lockedPieceIds: [], isByHand: false, takenRollIds: [], updatedAt: at, deletedAt: null,
  }; // prettier-ignore
}

/** A bench of records on which patches are made and taken back. */
class Book {
  rolls: Roll[] = [...file.rolls];
  entries: StockEntry[] = [];
  reservations: Reservation[] = [];
  private n = 0;
  readonly newId = () => `id-${this.n++}`;
  get view() {
    return {
      firm: demoFirm,
      job: file.job,
      rolls: this.rolls.filter((r) => !r.deletedAt),
      stock: { entries: this.entries, reservations: this.reservations },
      memo: records.memo,
    };
  }
  private list(kind: Patch['kind']): { id: string }[] | null {
    return kind === 'roll' ? this.rolls : kind === 'stockEntry' ? this.entries : kind === 'reservation' ? this.reservations : null;
  }
  /** @returns what undoes it */
  make(patches: readonly Patch[]): () => void {
    const undo: (() => void)[] = [];
    for (const p of patches) {
      const list = this.list(p.kind);
      if (!list) continue;
      if (p.op === 'add') {
        const made = { ...p.value } as { id: string; deletedAt: string | null };
        list.push(made);
        undo.push(() => void (made.deletedAt = at));
      } else {
        const i = list.findIndex((r) => r.id === p.id);
        const old = list[i] as unknown as Record<string, unknown>;
        const before = old[p.field];
        list[i] = { ...old, [p.field]: p.value } as never;
        undo.push(() => void (list[i] = { ...(list[i] as unknown as Record<string, unknown>), [p.field]: before } as never));
      }
    }
    return () => [...undo].reverse().forEach((u) => u());
  }
  get who() {
    return { personId: 'p', at, newId: this.newId };
  }
}

describe('patterned film off the stock', () => {
  const reed = film('Reed Lines');
  const plan = planOf(reed.id);
  const roll = file.rolls.find((r) => r.filmId === reed.id)!;
  const used = plan.layout.rolls.find((r) => r.rollId === roll.id)!.usedMm;
  const toMark = Math.ceil(used / reed.patternRepeatMm! - 1e-6) * reed.patternRepeatMm!;
  test('what is left up to the next mark goes with the plan: whoever cuts next begins at one', () => {
    expect(toMark).toBeGreaterThan(used);
    expect(toMark - used).toBeLessThan(reed.patternRepeatMm!);
    const book = new Book();
    expect(promiseNeededMm(plan, roll, book.view.stock, file.job.id)).toBeCloseTo(toMark + roll.leadInMm, 6);
    book.make(takeFromStock(plan, roll.id, book.view, book.who));
    expect(remainingMm(roll, book.entries)).toBeCloseTo(roll.lengthM * 1000 - roll.leadInMm - toMark, 6);
    // asked again nothing more is taken
    expect(takeFromStock(plan, roll.id, book.view, book.who).filter((p) => p.kind === 'stockEntry')).toEqual([]);
  });
  test('but never more than there is', () => {
    const book = new Book();
    const short = { ...roll, lengthM: (used + roll.leadInMm + 2) / 1000 };
    book.rolls = book.rolls.map((r) => (r.id === roll.id ? short : r));
    book.make(takeFromStock(plan, roll.id, book.view, book.who));
    expect(remainingMm(short, book.entries)).toBeCloseTo(0, 6);
  });
});

describe('a plan takes its film off the stock', () => {
  const plan = planOf(guard.id);
  const roll = file.rolls.find((r) => r.filmId === guard.id)!;
  const used = plan.layout.rolls.find((r) => r.rollId === roll.id)!.usedMm;

  test('length and the crooked start once; rests worth keeping become labelled leftovers with lot, edges and worth', () => {
    const book = new Book();
    book.make(takeFromStock(plan, roll.id, book.view, book.who));
    expect(remainingMm(roll, book.entries)).toBeCloseTo(roll.lengthM * 1000 - roll.leadInMm - used, 6);
    const kept = plan.layout.rolls.flatMap((r) => r.drops.flatMap((d) => restsOf(d, roll.widthMm, demoFirm.leftovers))).filter((r) => r.isWorthKeeping);
    const made = book.rolls.filter((r) => r.fromRollId === roll.id);
    expect(made).toHaveLength(kept.length);
    made.forEach((m, i) => {
      expect([m.form, m.lot, m.label]).toEqual(['leftover', roll.lot, `${roll.label}/${i + 1}`]);
      expect(Number(m.pricePerM)).toBeCloseTo((31.5 * m.widthMm * 0.4) / 1829, 1);
    });
    // the same plan taken again books nothing more
    expect(takeFromStock({ ...plan, status: 'committed', takenRollIds: [roll.id] }, roll.id, book.view, book.who).filter((p) => p.op === 'add')).toEqual([]);
  });

  test('a re-plan books the difference only, and its leftovers follow', () => {
    const book = new Book();
    book.make(takeFromStock(plan, roll.id, book.view, book.who));
    const surfaces = panesIn(file).map((s) => (s.name === 'O5' ? { ...s, filmId: null } : s));
    const less = { ...planOf(guard.id, { surfaces }), id: pane('O2').id };
    book.make(takeFromStock(less, roll.id, book.view, book.who));
    const lessUsed = less.layout.rolls.find((r) => r.rollId === roll.id)!.usedMm;
    expect(remainingMm(roll, book.entries)).toBeCloseTo(roll.lengthM * 1000 - roll.leadInMm - lessUsed, 6);
    const kept = less.layout.rolls.flatMap((r) => r.drops.flatMap((d) => restsOf(d, roll.widthMm, demoFirm.leftovers))).filter((r) => r.isWorthKeeping);
    expect(book.rolls.filter((r) => r.fromRollId === roll.id && !r.deletedAt)).toHaveLength(kept.length);
  });

  test('film is conserved through any sequence of reserve, commit and undo: roll + pieces + rests + waste = what came in', () =>
    fc.assert(
      fc.property(fc.array(fc.constantFrom('reserve', 'commit', 'undo', 'lift'), { maxLength: 25 }), (acts) => {
        const book = new Book();
        const done: (() => void)[] = [];
        for (const act of acts) {
          if (act === 'undo') done.pop()?.();
          else if (act === 'commit') done.push(book.make(takeFromStock(plan, roll.id, book.view, book.who)));
          else
            done.push(
              book.make(reserve(roll.id, guard.id, act === 'lift' ? 0 : promiseNeededMm(plan, roll, book.view.stock, file.job.id), book.view, book.who)),
            );
          const taken = roll.lengthM * 1000 - remainingMm(roll, book.entries);
          expect([0, used + roll.leadInMm].some((x) => Math.abs(x - taken) < 1e-6)).toBe(true);
          const made = book.rolls.filter((r) => r.fromRollId === roll.id && !r.deletedAt);
          expect(made.length > 0).toBe(taken > 0);
          expect(freeMm(roll, book.view.stock)).toBeGreaterThanOrEqual(0);
        }
        while (done.length) done.pop()!();
        expect(remainingMm(roll, book.entries)).toBe(roll.lengthM * 1000);
        expect(book.rolls.filter((r) => r.fromRollId === roll.id && !r.deletedAt)).toEqual([]);
      }),
      { seed: 6, numRuns: 200 },
    ));

  test('what another job was promised is not laid on', () => {
    const promised: Reservation = {
      id: 'r',
      rollId: roll.id,
      jobId: 'other',
      filmId: guard.id,
      lengthMm: roll.lengthM * 1000 - 2000,
      personId: 'p',
      at,
      deletedAt: null,
    };
    const tight = planOf(guard.id, { stock: { entries: [], reservations: [promised] } });
    expect(tight.layout.usedMm).toBeLessThanOrEqual(2000 - roll.leadInMm);
    expect(tight.layout.shortMm).toBeGreaterThan(0);
  });
});

describe('what a plan costs', () => {
  test('pieces, leftovers and waste are all the film; panes bear all the money', () => {
    const plan = planOf(shade.id);
    const cost = costOfPlan(plan.layout, plan.pieces, file.rolls, demoFirm.leftovers, 48);
    const usedM2 = plan.layout.rolls.reduce((s, r) => s + (r.usedMm * file.rolls.find((x) => x.id === r.rollId)!.widthMm) / 1e6, 0);
    const laid = plan.layout.rolls.flatMap((r) => r.drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces))));
    const piecesM2 = laid.reduce((s, p) => s + (p.alongMm * p.acrossMm) / 1e6, 0);
    expect(cost.wasteM2 + cost.leftoverM2 + piecesM2).toBeCloseTo(usedM2, 6);
    expect(cost.film).toBeCloseTo(plan.layout.cost, 6);
    expect(cost.total).toBeCloseTo(cost.film + cost.workMoney - cost.leftoverMoney, 9);
    const panes = cost.perPane.reduce((s, p) => s + p.money, 0);
    expect(Math.abs(panes - cost.total)).toBeLessThan(0.15 * cost.total);
    expect(new Set(cost.perPane.map((p) => p.surfaceId)).size).toBe(cost.perPane.length);
    // where an hour costs nothing they bear the film, less what is kept of it, to the cent
    const free = costOfPlan(plan.layout, plan.pieces, file.rolls, demoFirm.leftovers, 0);
    expect(free.leftoverMoney).toBeGreaterThan(0);
    expect(free.perPane.reduce((s, p) => s + p.money, 0)).toBeCloseTo(free.film - free.leftoverMoney, 6);
    const each = free.perPane.map((p) => p.money / p.areaM2);
    expect(Math.min(...each)).toBeGreaterThan(0);
  });
});

describe('the piece in hand, before anything gets wet', () => {
  const cuts = cutsForFilm(records, guard.id);
  test('two sizes name the pane and which size lies level', () => {
    const o4 = cuts.find((c) => c.surface.name === 'O4')!.pieces[0]!;
    const [best] = matchInHand(o4.heightMm + 1, o4.widthMm - 1, cuts, 'mm', false);
    expect(best).toMatchObject({ label: 'O4', verdict: 'is', level: 'second' });
    expect(best!.words).toBe(`O4: ${o4.widthMm - 1} level, ${o4.heightMm + 1} upright.`);
  });
  test('a piece of none of them may serve another pane, or misses by so much', () => {
    const answers = matchInHand(1500, 1200, cuts, 'mm', false);
    expect(answers[0]!.verdict).toBe('serves');
    expect(answers.at(-1)!.verdict === 'short' || answers.at(-1)!.verdict === 'serves').toBe(true);
    const small = matchInHand(500, 900, cuts, 'mm', false);
    expect(small[0]).toMatchObject({ verdict: 'short', words: expect.stringMatching(/Too small for O[45]: .*missing/) });
  });
  test('a pre-cut piece must fit: 4 mm over on one side is too large, 4 mm under too small, whatever the other side is', () => {
    const [own] = cuts;
    const exact = [{ ...own!, pieces: [{ ...own!.pieces[0]!, method: 'pre-cut' as const, widthMm: 900, heightMm: 1400, trimmedEdges: [] }] }];
    const said = (a: number, b: number) => matchInHand(a, b, exact, 'mm', true).map((m) => [m.verdict, m.words]);
    const { label } = exact[0]!.pieces[0]!;
    expect(said(901, 1399)).toEqual([['is', `${label}: 901 level, 1399 upright.`]]);
    expect(said(904, 1396)).toEqual([['large', `Not ${label}: 4 too large across, 4 too small up; it must fit.`]]);
    expect(said(896, 1400)).toEqual([['short', `Not ${label}: 4 too small across, 0 too small up; it must fit.`]]);
    // so far off it is another piece altogether
    expect(said(960, 1400)).toEqual([]);
  });
  test('film with one way up is not offered turned', () =>
    expect(matchInHand(1200, 1500, cuts, 'mm', true).filter((a) => a.level === 'second' && a.verdict === 'serves')).toEqual([]));
});

describe('measured again after the cut', () => {
  const plan = { ...planOf(guard.id), status: 'committed' as const };
  const steps = knifeOrder(plan.layout, plan.pieces, (id) => file.rolls.find((r) => r.id === id)!.widthMm, 'mm');
  const entries = steps.map((s, i): LogEntry => ({ id: `e${i}`, jobId: file.job.id, at: `2026-09-14T10:${String(i).padStart(2, '0')}:00Z`, personId: 'p', kind: 'cut-done', planId: plan.id, stepKey: s.key, surfaceId: null, note: '' })); // prettier-ignore
  const finished = finishedPieces([plan], entries, file.rolls);
  const again = (name: string, byMm: number, all = entries) => {
    const readings = file.readings.map((r) => (r.surfaceId === pane(name).id && r.measure === 'widthLargest' ? { ...r, lengthMm: r.lengthMm + byMm } : r));
    const fresh = filmPlanInput({ ...records, readings, entries: all }, file.job.cut, guard.id, plan);
    return compareWithPlan(plan, fresh, all.length ? finished : new Set(), 'mm', false);
  };
  test('a few millimetres more are still covered by the overhang', () =>
    expect(again('O4', 12).changes).toEqual([expect.objectContaining({ label: 'O4', isCut: true, stillFits: true })])); // prettier-ignore
  test('a decimetre more is not; the wrong piece is offered where it serves', () => {
    const { changes, serves } = again('O1', 120);
    expect(changes).toEqual([expect.objectContaining({ label: 'O1', stillFits: false, words: expect.stringContaining('does not cover the pane any more') })]);
    expect(serves).toEqual([]); // all others are cut as well
    const some = new Set([...finished].filter((id) => id !== pane('O3').id));
    const readings = file.readings.map((r) => (r.surfaceId === pane('O1').id && r.measure === 'widthLargest' ? { ...r, lengthMm: r.lengthMm + 120 } : r));
    const report = compareWithPlan(plan, filmPlanInput({ ...records, readings, entries }, file.job.cut, guard.id, plan), some, 'mm', false);
    expect(report.serves).toEqual([expect.objectContaining({ label: 'O1', forLabel: 'O3' })]);
  });
  test('not cut yet: simply another size', () => expect(again('O1', 120, []).changes[0]).toMatchObject({ isCut: false, stillFits: null }));
  test('nothing changed: nothing to report', () => expect(again('O1', 0)).toEqual({ changes: [], serves: [] }));
  test('a pane that another one’s piece serves needs none of its own', () => {
    const surfaces = panesIn(file).map((s) => (s.name === 'O3' ? { ...s, servedById: pane('O1').id } : s));
    expect(cutsForFilm({ ...records, surfaces }, guard.id).find((c) => c.surface.name === 'O3')!.pieces).toEqual([]);
    const input = filmPlanInput({ ...records, surfaces }, file.job.cut, guard.id, undefined);
    expect(checkLayout(layPiecesOnRolls(input.layout, 5), { pieces: input.pieces, rolls: input.layout.rolls, settings: file.job.cut })).toEqual([]);
  });

  const told = (surfaces: typeof file.surfaces, readings: typeof file.readings, done = entries, plans: Plan[] = [plan]) => {
    const now = { ...records, surfaces, readings, entries: done, plans };
    const short = piecesCutShort(now, 'mm');
    return { short, ready: panesReadyToLay(now, short) };
  };
  const taped = (name: string, byMm: number) =>
    file.readings.map((r) => (r.surfaceId === pane(name).id && r.measure === 'widthLargest' ? { ...r, lengthMm: r.lengthMm + byMm } : r));
  test('whatever was cut and does not cover its pane any more is told with what to do, though nothing of the plan is stale', () => {
    expect(told(file.surfaces, file.readings).short).toEqual([]);
    expect(told(file.surfaces, file.readings).ready.has(pane('O1').id)).toBe(true);
    expect(told(file.surfaces, taped('O1', 12)).short).toEqual([]);
    const { short, ready } = told(file.surfaces, taped('O1', 120));
    expect(short).toEqual([expect.objectContaining({ label: 'O1', isAsked: false, words: expect.stringMatching(/^O1 is cut .* does not cover the pane any more: .* Do not lay it/) })]); // prettier-ignore
    expect(ready.has(pane('O1').id)).toBe(false);
    expect(told(file.surfaces, taped('O1', 120), []).short).toEqual([]);
  });
  test('one more that is asked for is told as such, and settles it once it is cut large enough', () => {
    const extra = { id: 'again-1', reason: 'measured again', at, part: null };
    const surfaces = panesIn(file).map((s) => (s.name === 'O1' ? { ...s, extraPieces: [extra] } : s));
    expect(told(surfaces, taped('O1', 120)).short[0]).toMatchObject({ isAsked: true, words: expect.stringContaining('asked for and not cut yet') });
    const now = { ...records, surfaces, readings: taped('O1', 120), entries };
    const input = filmPlanInput(now, file.job.cut, guard.id, plan);
    const next: Plan = { ...plan, id: pane('O2').id, pieces: [...input.pieces], layout: layPiecesOnRolls(input.layout, 5), updatedAt: '2026-09-15T09:00:00Z' };
    // the old one keeps the size it was cut to, the new one has today's
    expect(told(surfaces, taped('O1', 120), entries, [plan, next]).short[0]).toMatchObject({ isAsked: true });
    const steps = knifeOrder(next.layout, next.pieces, (id) => file.rolls.find((r) => r.id === id)!.widthMm, 'mm');
    const all = steps.map((s, i): LogEntry => ({ ...entries[0]!, id: `n${i}`, stepKey: s.key, planId: next.id }));
    expect(told(surfaces, taped('O1', 120), all, [plan, next])).toMatchObject({ short: [] });
    expect(told(surfaces, taped('O1', 120), all, [plan, next]).ready.has(pane('O1').id)).toBe(true);
  });
  test('a pane served by another one’s piece counts as cut only while that piece covers it', () => {
    const surfaces = panesIn(file).map((s) => (s.name === 'O3' ? { ...s, servedById: pane('O1').id } : s));
    const bigger = taped('O3', 400);
    expect(told(surfaces, bigger).short.map((s) => s.label)).toEqual(['O3']);
  });
});
