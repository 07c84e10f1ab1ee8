import type { Allowances, CutSettings, Film, Quote, QuoteLine, QuotePrice, Rates, WorkClass } from '@yellow-pane/contracts';
import { workClassOf } from '../films/index.js';
import { toMinor } from '../ground/index.js';
import { materialFor, type Material } from './material.js';

/** Minutes of one line, by what they are for. */
export interface LineMinutes {
  readonly layingMinutes: number;
  readonly cleaningMinutes: number;
  readonly oldFilmMinutes: number;
  readonly siliconeMinutes: number;
}

/** Minutes of one line of equal panes; a ladder or a tower slows everything done on the pane. */
export function lineMinutes(line: QuoteLine, rates: Rates, work: WorkClass): LineMinutes {
  const areaM2 = (line.widthMm * line.heightMm) / 1e6;
  const frameM = (2 * (line.widthMm + line.heightMm)) / 1000;
  const slow = (line.reach === 'floor' ? 1 : line.reach === 'ladder' ? rates.ladderFactor : rates.towerFactor) * line.count;
  return {
    layingMinutes: slow * (rates.paneMinutes + rates.minutesPerM2[work] * areaM2),
    cleaningMinutes: slow * rates.cleaningMinutesPerM2 * areaM2,
    oldFilmMinutes: line.hasOldFilm ? slow * rates.oldFilmMinutesPerM2 * areaM2 : 0,
    siliconeMinutes: line.hasProudSilicone ? slow * rates.siliconeMinutesPerM * frameM : 0,
  };
}

const hoursText = (minutes: number): string => `${(minutes / 60).toFixed(1)} h`;

/**
 * The price of one film for a quote. The make-up is the firm's; the customer sees the total.
 * Order: film with its margin, minutes at the hour rate by kind of work, travel both ways; raised to the minimum; tax on each line, rounded there.
 * @source docs/models/price.md
 */
export function priceQuote(quote: Pick<Quote, 'lines' | 'kmThere'>, film: Film, rates: Rates, allowances: Allowances, cut: CutSettings): QuotePrice {
  const work = workClassOf(film);
  const material = materialFor(quote.lines, film, allowances, cut);
  const minutes = quote.lines.map((l) => lineMinutes(l, rates, work));
  const sum = (pick: (m: LineMinutes) => number) => minutes.reduce((s, m) => s + pick(m), 0);
  const rate = Number(rates.hourRate);
  const makeUp: QuotePrice['makeUp'] = [];
  const put = (name: string, how: string, amountMinor: number, taxPct = rates.taxPct) =>
    void (amountMinor !== 0 && makeUp.push({ name, how, amountMinor, taxPct, taxMinor: toMinor((amountMinor / 100) * (taxPct / 100)) }));
  const add = (name: string, how: string, amount: number, taxPct?: number) => put(name, how, toMinor(amount), taxPct);
  const timed = (name: string, m: number) => add(name, `${hoursText(m)} at ${rate.toFixed(2)}`, (m / 60) * rate);
  const width = material.offer?.widthMm ?? null;
  add(
    'Film',
    `${material.usedM.toFixed(2)} m of ${width ?? '–'} mm, ${rates.materialMarginPct} % on top`,
    material.cost * (1 + rates.materialMarginPct / 100),
    rates.filmTaxPct ?? rates.taxPct,
  );
  timed(
    'Laying',
    sum((m) => m.layingMinutes),
  );
  timed(
    'Cleaning',
    sum((m) => m.cleaningMinutes),
  );
  timed(
    'Old film off',
    sum((m) => m.oldFilmMinutes),
  );
  timed(
    'Silicone',
    sum((m) => m.siliconeMinutes),
  );
  timed('Setting up', rates.setUpMinutes);
  add('Travel', `2 × ${quote.kmThere} km at ${rates.travelPerKm}`, 2 * quote.kmThere * Number(rates.travelPerKm));
  const made = makeUp.reduce((s, l) => s + l.amountMinor, 0);
  const least = toMinor(Number(rates.minimum));
  const isMinimum = made < least;
  if (isMinimum) put('Up to the minimum', `nothing under ${rates.minimum}`, least - made);
  const netMinor = Math.max(made, least);
  const taxMinor = makeUp.reduce((s, l) => s + l.taxMinor, 0);
  const all = sum((m) => m.layingMinutes + m.cleaningMinutes + m.oldFilmMinutes + m.siliconeMinutes) + rates.setUpMinutes;
  return {
    filmId: film.id,
    usedM: material.usedM,
    rollWidthMm: width,
    hours: all / 60,
    makeUp,
    netMinor,
    taxMinor,
    totalMinor: netMinor + taxMinor,
    isMinimum,
    fault: faultOf(quote, film, material),
  };
}

/** Why this film has no honest price for these panes; null = it has one. */
function faultOf(quote: Pick<Quote, 'lines'>, film: Film, material: Material): string | null {
  if (quote.lines.length === 0) return 'No window yet.';
  if (film.offers.length === 0) return 'No size and price are entered for this film.';
  if (material.tooWide > 0)
    return `${material.tooWide} ${material.tooWide === 1 ? 'pane is' : 'panes are'} too large for any roll of this film: a seam, or another film.`;
  return null;
}
