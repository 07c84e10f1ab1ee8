import * as z from 'zod';
import { decimalPrice, id, instant, positiveLengthMm, words } from '../quantities.js';

/** How high a pane hangs, by what one stands on. */
const reachClass = z.enum(['floor', 'ladder', 'tower']);

const minutes = z.number().min(0).max(10_000).meta({ unit: 'min' });
/** One immutable version of the firm's own rates. A quote keeps the version that it was made with. */
export const rates = z.object({
  id,
  firmId: id,
  version: z.int().min(1),
  hourRate: decimalPrice,
  /** Once per visit: unload, cover the floor, pack up. */
  setUpMinutes: minutes,
  /** Per pane whatever its size: tabs, position, look. */
  paneMinutes: minutes,
  minutesPerM2: z.object({ tint: minutes, frost: minutes, security: minutes }),
  cleaningMinutesPerM2: minutes,
  oldFilmMinutesPerM2: minutes,
  /** Cutting out and running again, per metre of frame. */
  siliconeMinutesPerM: minutes,
  /** What a ladder or a tower makes of the minutes on the pane. */
  ladderFactor: z.number().min(1).max(10),
  towerFactor: z.number().min(1).max(10),
  travelPerKm: decimalPrice,
  /** Film is counted this much dearer than it is bought. */
  materialMarginPct: z.number().min(0).max(500).meta({ unit: '%' }),
  minimum: decimalPrice,
  /** Tax on work and travel. */
  taxPct: z.number().min(0).max(100).meta({ unit: '%' }),
  /** Tax on film where it is another one; null = the same. */
  filmTaxPct: z.number().min(0).max(100).meta({ unit: '%' }).nullable().default(null),
  createdAt: instant,
});
export type Rates = z.infer<typeof rates>;

/** Equal panes as they are taped at the first visit: rounded tapes are fine. */
export const quoteLine = z.object({
  id,
  place: words(80),
  name: words(60).min(1, 'Say what it is: window, door …'),
  widthMm: positiveLengthMm,
  heightMm: positiveLengthMm,
  count: z.int().min(1).max(500),
  reach: reachClass,
  hasOldFilm: z.boolean(),
  hasProudSilicone: z.boolean(),
});
export type QuoteLine = z.infer<typeof quoteLine>;

/** A price at the customer's window, from rounded tapes to a job. */
export const quote = z.object({
  id,
  firmId: id,
  customer: words(120),
  site: words(240),
  lines: z.array(quoteLine).max(100),
  kmThere: z.number().min(0).max(5000).meta({ unit: 'km' }),
  /** Two or three films to choose from, in the order they are offered. */
  filmIds: z.array(id).max(3),
  ratesId: id,
  /** A small picture of the window, re-drawn on the device so that no place tag is left in it. */
  photo: z.string().max(900_000).startsWith('data:image/').nullable(),
  currency: z.string().length(3),
  status: z.enum(['draft', 'accepted']),
  acceptedFilmId: id.nullable(),
  /** The job that it became. */
  jobId: id.nullable(),
  createdAt: instant,
  deletedAt: instant.nullable(),
});
export type Quote = z.infer<typeof quote>;

/** One line of the make-up that only the firm sees. */
const priceLine = z.object({ name: z.string(), how: z.string(), amountMinor: z.int(), taxPct: z.number().meta({ unit: '%' }), taxMinor: z.int() });
/** The price of one film option. Money is in minor units (cents), rounded once per line, halves away from zero. */
export const quotePrice = z.object({
  filmId: id,
  usedM: z.number(),
  rollWidthMm: z.number().nullable(),
  hours: z.number(),
  makeUp: z.array(priceLine),
  netMinor: z.int(),
  taxMinor: z.int(),
  totalMinor: z.int(),
  /** Set when the firm's minimum was charged. */
  isMinimum: z.boolean(),
  /** Why there is no price. */
  fault: z.string().nullable(),
});
export type QuotePrice = z.infer<typeof quotePrice>;

/** What a new firm starts from. @source common practice for minutes and factors; the money is a house rule to be changed on the first day */
export const defaultRates: Omit<Rates, 'id' | 'firmId' | 'version' | 'createdAt'> = {
  hourRate: '45.00',
  setUpMinutes: 45,
  paneMinutes: 8,
  minutesPerM2: { tint: 12, frost: 12, security: 22 },
  cleaningMinutesPerM2: 6,
  oldFilmMinutesPerM2: 25,
  siliconeMinutesPerM: 6,
  ladderFactor: 1.25,
  towerFactor: 1.8,
  travelPerKm: '0.60',
  materialMarginPct: 35,
  minimum: '150.00',
  taxPct: 0,
  filmTaxPct: null,
};
