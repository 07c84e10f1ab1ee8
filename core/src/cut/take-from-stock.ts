import type { Firm, Job, LeftoverRule, Patch, Plan, Roll, StockEntry } from '@yellow-pane/contracts';
import { availableForJobMm, edgesOfRest, isWorthKeeping, leadInDueMm, leftoverPricePerM, remainingMm, takenByJobMm, type StockBook } from '../stock/index.js';
import { dropKey, restsOf, type Rest } from './knife-order.js';

/** Records that committing a plan looks at. */
export interface StockRecords {
  readonly firm: Pick<Firm, 'leftovers'>;
  readonly job: Pick<Job, 'id' | 'name'>;
  readonly rolls: readonly Roll[];
  readonly stock: StockBook;
}
export interface Taker {
  readonly personId: string;
  readonly at: string;
  readonly newId: () => string;
}

/** A plan as far as it lies on rolls. */
type Laid = Pick<Plan, 'layout'> & { readonly pieces: readonly Pick<Plan['pieces'][number], 'repeat'>[] };

/** Whether the film of a roll has been taken off the stock for exactly this plan. */
export const isTaken = (plan: Pick<Plan, 'takenRollIds'> | undefined, rollId: string): boolean => plan?.takenRollIds.includes(rollId) ?? false;

/**
 * What a roll is shorter by when a plan has been cut from it, mm: patterned film loses what is left up to the next mark too, since whoever cuts next begins at
 * one, as far as there is any.
 * @source common practice: the start of patterned film is squared at a mark
 */
function offRollMm(plan: Laid, rollId: string, mostMm: number): number {
  const used = plan.layout.rolls.find((r) => r.rollId === rollId)?.usedMm ?? 0;
  const repeatMm = plan.pieces.find((p) => p.repeat)?.repeat?.repeatMm ?? 0;
  return repeatMm > 0 ? Math.max(used, Math.min(mostMm, Math.ceil(used / repeatMm - 1e-6) * repeatMm)) : used;
}

/**
 * Takes what a plan lays on one roll off the stock, in one change that can be undone as a whole until the knife has been at it: the plan is
 * committed, its length booked (less what this job had taken before), its promise lifted, and every rest worth keeping becomes a labelled
 * leftover with its lot, its edges and its worth. Leftovers of an earlier plan whose drop is no longer there go.
 * @returns patches, none when the plan lays nothing there
 */
export function takeFromStock(plan: Plan, rollId: string, records: StockRecords, who: Taker): Patch[] {
  const roll = records.rolls.find((r) => r.id === rollId);
  const laid = plan.layout.rolls.find((r) => r.rollId === rollId);
  if (!roll || !laid || laid.drops.length === 0) return [];
  const { entries, reservations } = records.stock;
  const { leftovers: rule } = records.firm;
  const jobId = records.job.id;
  const patches: Patch[] = [];
  const book = (entry: Omit<StockEntry, 'id' | 'jobId' | 'planId' | 'personId' | 'at' | 'deletedAt'>) => {
    const value: StockEntry = { id: who.newId(), jobId, planId: plan.id, personId: who.personId, at: who.at, deletedAt: null, ...entry };
    patches.push({ op: 'add', kind: 'stockEntry', id: value.id, value });
  };
  const whole = offRollMm(plan, rollId, availableForJobMm(roll, records.stock, jobId)) + leadInDueMm(roll, entries, jobId);
  const more = whole - takenByJobMm(rollId, entries, jobId);
  if (Math.abs(more) > 0.01) book({ rollId, kind: 'cut', lengthMm: -more, reason: `Cut for ${records.job.name}`.slice(0, 200) });
  if (plan.status === 'draft') patches.push({ op: 'set', kind: 'plan', id: plan.id, field: 'status', value: 'committed' });
  patches.push({ op: 'set', kind: 'plan', id: plan.id, field: 'takenRollIds', value: [...new Set([...plan.takenRollIds, rollId])] });
  for (const r of reservations)
    if (r.rollId === rollId && r.jobId === jobId && r.deletedAt === null) patches.push({ op: 'set', kind: 'reservation', id: r.id, field: 'deletedAt', value: who.at }); // prettier-ignore
  const wanted = laid.drops.flatMap((d) => restsOf(d, roll.widthMm, rule).filter((r) => r.isWorthKeeping).map((rest, i) => ({ rest, key: `${jobId}:${dropKey(laid, d)}:${i}` }))); // prettier-ignore
  const before = records.rolls.filter((r) => r.fromRollId === rollId && r.fromDrop?.startsWith(`${jobId}:`) && r.deletedAt === null);
  const isUsed = (r: Roll) =>
    entries.some((e) => e.rollId === r.id && e.deletedAt === null) || reservations.some((x) => x.rollId === r.id && x.deletedAt === null);
  for (const old of before)
    if (!wanted.some((w) => w.key === old.fromDrop) && !isUsed(old)) patches.push({ op: 'set', kind: 'roll', id: old.id, field: 'deletedAt', value: who.at });
  let number = Math.max(0, ...records.rolls.filter((r) => r.fromRollId === rollId).map((r) => Number(r.label.split('/').at(-1)) || 0));
  for (const { rest, key } of wanted) {
    if (before.some((b) => b.fromDrop === key)) continue;
    const made = leftoverOf(roll, rest, key, plan.id, `${roll.label}/${++number}`, rule, who.newId());
    patches.push({ op: 'add', kind: 'roll', id: made.id, value: made });
  }
  // the end of a leftover that is not worth keeping is thrown away with it
  const left = remainingMm(roll, entries) - more;
  if (roll.form === 'leftover' && left > 0.5 && !isWorthKeeping({ alongMm: left, acrossMm: roll.widthMm }, rule))
    book({ rollId, kind: 'correction', lengthMm: -left, reason: 'Too small to keep' });
  return patches;
}

const leftoverOf = (roll: Roll, rest: Rest, key: string, planId: string, label: string, rule: LeftoverRule, id: string): Roll => ({
  ...roll,
  id,
  label: label.slice(0, 40),
  widthMm: Math.floor(rest.acrossMm),
  lengthM: Math.floor(rest.alongMm) / 1000,
  lengthSigmaM: 0,
  lengthFrom: { how: 'known' },
  leadInMm: 0,
  pricePerM: leftoverPricePerM(roll.form === 'leftover' ? { ...roll, pricePerM: String(Number(roll.pricePerM) / Math.max(0.01, rule.worthFrac)) } : roll, rest.acrossMm, rule), // prettier-ignore
  isToOrder: false,
  form: 'leftover',
  edges: edgesOfRest(rest, roll),
  fromRollId: roll.id,
  fromPlanId: planId,
  fromDrop: key.slice(0, 900),
  deletedAt: null,
});

/** One roll's promise to a job. @returns patches that leave exactly this promise, or lift it (0) */
export function reserve(rollId: string, filmId: string, lengthMm: number, records: Pick<StockRecords, 'job' | 'stock'>, who: Taker): Patch[] {
  const old = records.stock.reservations.filter((r) => r.rollId === rollId && r.jobId === records.job.id && r.deletedAt === null);
  const patches: Patch[] = old.map((r) => ({ op: 'set', kind: 'reservation', id: r.id, field: 'deletedAt', value: who.at }));
  if (lengthMm > 0) {
    const id = who.newId();
    patches.push({ op: 'add', kind: 'reservation', id, value: { id, rollId, jobId: records.job.id, filmId, lengthMm, personId: who.personId, at: who.at, deletedAt: null } }); // prettier-ignore
  }
  return patches;
}

/** What a plan still has to be promised on a roll: its length and lead-in, less what was taken already, mm. */
export function promiseNeededMm(plan: Laid, roll: Roll, book: StockBook, jobId: string): number {
  const used = offRollMm(plan, roll.id, availableForJobMm(roll, book, jobId));
  if (used === 0) return 0;
  return Math.max(0, used + leadInDueMm(roll, book.entries, jobId) - takenByJobMm(roll.id, book.entries, jobId));
}
