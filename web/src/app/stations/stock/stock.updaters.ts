import type { BenchDocument, LengthFrom, Patch, Roll, StockEntry } from '@yellow-pane/contracts';
import { freeMm, remainingMm, reservedMm, rollLength, valueOf } from '@yellow-pane/core/stock';

/** A roll or leftover as the page lists it. */
export interface StockRow {
  readonly roll: Roll;
  readonly film: string;
  readonly remainingMm: number;
  readonly reservedMm: number;
  readonly freeMm: number;
  readonly value: number;
  /** Jobs that were promised some of it. */
  readonly holders: readonly { readonly jobId: string; readonly name: string; readonly lengthMm: number }[];
}

/** Everything on the rack and in the tube, films together, rolls before leftovers. */
export function stockRows(doc: BenchDocument, search: string): StockRow[] {
  const films = new Map(doc.films.map((f) => [f.id, f.name]));
  const text = search.trim().toLowerCase();
  return doc.rolls
    .map((roll): StockRow => {
      const left = remainingMm(roll, doc.stock.entries);
      return {
        roll,
        film: films.get(roll.filmId) ?? '',
        remainingMm: left,
        reservedMm: reservedMm(roll.id, doc.stock.reservations),
        freeMm: freeMm(roll, doc.stock),
        value: valueOf(roll, left),
        holders: doc.stock.reservations
          .filter((r) => r.rollId === roll.id)
          .map((r) => ({ jobId: r.jobId, name: doc.stock.jobNames[r.jobId] ?? 'a job', lengthMm: r.lengthMm })),
      };
    })
    .filter((r) => text === '' || [r.roll.label, r.roll.lot, r.roll.place, r.film].some((x) => x.toLowerCase().includes(text)))
    .sort((a, b) => a.film.localeCompare(b.film) || b.roll.form.localeCompare(a.roll.form) || a.roll.label.localeCompare(b.roll.label));
}

/** What a label says when it is scanned or typed: the code of a printed label, or the bare name. */
export const labelFrom = (scanned: string): string => scanned.trim().replace(/^YP:/i, '');

/** A count as an entry: the difference to what the book says; null when there is none. */
export function countEntry(
  row: Pick<StockRow, 'roll' | 'remainingMm'>,
  countedMm: number,
  kind: 'count' | 'correction',
  reason: string,
  who: { id: string; personId: string; at: string },
): Patch | null {
  const lengthMm = countedMm - row.remainingMm;
  if (Math.abs(lengthMm) < 0.5) return null;
  const value: StockEntry = {
    id: who.id,
    rollId: row.roll.id,
    kind,
    lengthMm,
    jobId: null,
    planId: null,
    personId: who.personId,
    at: who.at,
    reason,
    deletedAt: null,
  };
  return { op: 'add', kind: 'stockEntry', id: value.id, value };
}

/** A length found from diameters, as edits of the roll: the book starts anew from it by a count. @returns a sentence when it does not read */
export function lengthPatches(
  row: Pick<StockRow, 'roll' | 'remainingMm'>,
  from: LengthFrom,
  who: { id: string; personId: string; at: string },
): Patch[] | string {
  const found = rollLength(from, row.remainingMm / 1000);
  if (!found.ok) return found.message;
  const set = (field: string, value: unknown): Patch => ({ op: 'set', kind: 'roll', id: row.roll.id, field, value });
  const count = countEntry(row, found.value.lengthM * 1000, 'count', from.how === 'known' ? 'Counted' : 'Measured by diameter', who);
  return [set('lengthFrom', from), set('lengthSigmaM', Math.round(found.value.sigmaM * 1000) / 1000), ...(count ? [count] : [])];
}
