import type { Reservation, Roll, StockEntry, StockView } from '@yellow-pane/contracts';

/** What of the stock's book a computation needs. */
export type StockBook = Pick<StockView, 'entries' | 'reservations'>;

/**
 * What is on a roll now: its length as it came onto the bench and everything that was booked since. Nothing is ever overwritten, so that any
 * order of commits and undos gives the same sum.
 */
export const remainingMm = (roll: Pick<Roll, 'id' | 'lengthM'>, entries: readonly StockEntry[]): number =>
  entries.reduce((s, e) => s + (e.rollId === roll.id && e.deletedAt === null ? e.lengthMm : 0), roll.lengthM * 1000);

/** Film promised to jobs, mm. @param exceptJobId whose own promise does not count against it */
export const reservedMm = (rollId: string, reservations: readonly Reservation[], exceptJobId: string | null = null): number =>
  reservations.reduce((s, r) => s + (r.rollId === rollId && r.deletedAt === null && r.jobId !== exceptJobId ? r.lengthMm : 0), 0);

/** What a job's plans have already taken off a roll, mm; its lead-in included where this job cut it. */
export const takenByJobMm = (rollId: string, entries: readonly StockEntry[], jobId: string): number =>
  -entries.reduce((s, e) => s + (e.rollId === rollId && e.kind === 'cut' && e.jobId === jobId && e.deletedAt === null ? e.lengthMm : 0), 0) || 0;

/** The crooked start still to be cut away by this job: the first job at a roll loses it, the others do not. */
export const leadInDueMm = (roll: Pick<Roll, 'id' | 'leadInMm'>, entries: readonly StockEntry[], jobId: string): number =>
  entries.some((e) => e.rollId === roll.id && e.kind === 'cut' && e.jobId !== jobId && e.deletedAt === null) ? 0 : roll.leadInMm;

/** Length from the squared start that a job may lay pieces on: what is there, less what others were promised, plus what its own plan holds already. */
export const availableForJobMm = (roll: Pick<Roll, 'id' | 'lengthM' | 'leadInMm'>, book: StockBook, jobId: string): number =>
  Math.max(
    0,
    remainingMm(roll, book.entries) +
      takenByJobMm(roll.id, book.entries, jobId) -
      reservedMm(roll.id, book.reservations, jobId) -
      leadInDueMm(roll, book.entries, jobId),
  );

/** Nobody's: neither cut nor promised, mm. */
export const freeMm = (roll: Pick<Roll, 'id' | 'lengthM'>, book: StockBook): number =>
  Math.max(0, remainingMm(roll, book.entries) - reservedMm(roll.id, book.reservations));

/** Film may be short by this much without a word: what rounding leaves. */
const HAIR_MM = 0.5;

/**
 * Whether the book still adds up on a roll: nothing below empty, nothing promised twice.
 * @returns a sentence that says who holds what; null = it adds up
 */
export function bookFault(roll: Pick<Roll, 'id' | 'label' | 'lengthM'>, book: StockBook, jobNames: Readonly<Record<string, string>>): string | null {
  const left = remainingMm(roll, book.entries);
  if (left < -HAIR_MM)
    return `${roll.label} has ${metres(left - lastOf(roll.id, book.entries))} m on it; ${metres(-lastOf(roll.id, book.entries))} m cannot be cut from it.`;
  const promised = book.reservations.filter((r) => r.rollId === roll.id && r.deletedAt === null);
  const sum = promised.reduce((s, r) => s + r.lengthMm, 0);
  if (sum <= left + HAIR_MM || promised.length === 0) return null;
  const who = promised.map((r) => `${jobNames[r.jobId] ?? 'a job'} ${metres(r.lengthMm)} m`).join(', ');
  return `${roll.label} has ${metres(left)} m left and ${metres(sum)} m would be promised (${who}). No metre can be promised twice.`;
}
const metres = (mm: number): string => (mm / 1000).toFixed(2);
const lastOf = (rollId: string, entries: readonly StockEntry[]): number =>
  entries.filter((e) => e.rollId === rollId && e.deletedAt === null).at(-1)?.lengthMm ?? 0;
