import * as z from 'zod';
import { alongRollMm, id, instant, positiveLengthMm, words } from '../quantities.js';
import { roll } from './roll.js';

/** What moved on a roll: a plan was cut from it, it was counted, or something was put right. Never overwritten; the sum is what is there. */
export const stockEntry = z.object({
  id,
  rollId: id,
  kind: z.enum(['cut', 'count', 'correction']),
  /** Along the roll; negative = taken off. */
  lengthMm: z.number().min(-1_000_000).max(1_000_000).meta({ unit: 'mm' }),
  jobId: id.nullable(),
  planId: id.nullable(),
  personId: id,
  at: instant,
  reason: words(200),
  deletedAt: instant.nullable(),
});
export type StockEntry = z.infer<typeof stockEntry>;

/** Film promised to a job before it is cut: no other job can count on it. */
export const reservation = z.object({
  id,
  rollId: id,
  jobId: id,
  filmId: id,
  lengthMm: alongRollMm.refine((mm) => mm > 0, 'A promise is of some film.'),
  personId: id,
  at: instant,
  deletedAt: instant.nullable(),
});
export type Reservation = z.infer<typeof reservation>;

/** What is known of the stock beside the rolls themselves. */
export const stockView = z.object({
  entries: z.array(stockEntry),
  reservations: z.array(reservation),
  /** Names of the jobs that hold film, by id. */
  jobNames: z.record(z.string(), z.string()),
});
export type StockView = z.infer<typeof stockView>;
export const emptyStock: StockView = { entries: [], reservations: [], jobNames: {} };

/** Which rests are worth keeping, and what they count for. */
export const leftoverRule = z.object({
  /** Shorter side at least this. */
  smallestSideMm: positiveLengthMm,
  smallestAreaM2: z.number().min(0).max(50).meta({ unit: 'm²' }),
  /** Share of the price of new film that a leftover counts for. */
  worthFrac: z.number().min(0).max(1),
});
export type LeftoverRule = z.infer<typeof leftoverRule>;
/** @source house rule, to be set by the firm */
export const defaultLeftoverRule: LeftoverRule = { smallestSideMm: 250, smallestAreaM2: 0.15, worthFrac: 0.4 };

/** A roll or leftover with what the book says of it. */
export const stockLine = z.object({ roll, remainingMm: z.number(), reservedMm: z.number(), freeMm: z.number(), value: z.number() });
export type StockLine = z.infer<typeof stockLine>;
