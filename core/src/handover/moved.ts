import type { Film, Firm, Job, Place, Quote, QuoteLine, QuotePrice, Rates, Reading, Surface } from '@yellow-pane/contracts';
import { surveySurface } from '../form/index.js';
import type { Memo } from '../ground/index.js';
import { enclosingRectangle, panesOf } from '../measure/index.js';
import { priceQuote } from './price.js';

/** One pane that is not what was quoted. */
export interface Moved {
  readonly name: string;
  readonly kind: 'size' | 'new' | 'gone';
  readonly fromMm: { readonly widthMm: number; readonly heightMm: number } | null;
  readonly toMm: { readonly widthMm: number; readonly heightMm: number } | null;
}
export interface Resurvey {
  readonly quoted: QuotePrice;
  readonly now: QuotePrice;
  readonly moved: readonly Moved[];
}

/** A size is another when it moved by more than a tape's own doubt. @source common practice: rounded tapes of a first visit */
const NOTABLE_MM = 3;

const paneNames = (line: QuoteLine): string[] => (line.count === 1 ? [line.name] : Array.from({ length: line.count }, (_, i) => `${line.name} ${i + 1}`));

/**
 * What the survey of the job made of its quote: panes that grew, came or went, and the price by the same rates with the sizes
 * as they are now. Panes are known by the name and place the quote gave them.
 */
export function resurvey(
  quote: Quote,
  film: Film,
  rates: Rates,
  firm: Pick<Firm, 'allowances'>,
  job: {
    readonly job: Pick<Job, 'cut'>;
    readonly places: readonly Place[];
    readonly surfaces: readonly Surface[];
    readonly readings: readonly Reading[];
    readonly memo: Memo;
  },
): Resurvey {
  const placeName = new Map(job.places.map((p) => [p.id, p.name]));
  const quotedPanes = quote.lines.flatMap((line) => paneNames(line).map((name) => ({ key: `${line.place.trim() || 'First room'}/${name}`, name, line })));
  const moved: Moved[] = [];
  const seen = new Set<string>();
  const lines = panesOf(job.surfaces).flatMap((s): QuoteLine[] => {
    const key = `${placeName.get(s.placeId) ?? ''}/${s.name}`;
    const was = quotedPanes.find((q) => q.key === key);
    seen.add(key);
    const { survey } = surveySurface(s, job);
    // rounding margins of the survey are no movement of the pane
    const box = enclosingRectangle(survey);
    const toMm = box && { widthMm: box.widthMm - box.marginMm.width, heightMm: box.heightMm - box.marginMm.height };
    const fromMm = was ? { widthMm: was.line.widthMm, heightMm: was.line.heightMm } : null;
    if (!fromMm) moved.push({ name: s.name, kind: 'new', fromMm: null, toMm });
    else if (toMm && Math.max(Math.abs(toMm.widthMm - fromMm.widthMm), Math.abs(toMm.heightMm - fromMm.heightMm)) > NOTABLE_MM)
      moved.push({ name: s.name, kind: 'size', fromMm, toMm });
    const size = toMm ?? fromMm;
    if (!size) return [];
    const rest = was?.line ?? { id: s.id, place: '', name: s.name, reach: 'floor' as const, hasOldFilm: false, hasProudSilicone: false };
    return [{ ...rest, ...size, count: 1 }];
  });
  for (const q of quotedPanes)
    if (!seen.has(q.key)) moved.push({ name: q.name, kind: 'gone', fromMm: { widthMm: q.line.widthMm, heightMm: q.line.heightMm }, toMm: null });
  return {
    quoted: priceQuote(quote, film, rates, firm.allowances, job.job.cut),
    now: priceQuote({ ...quote, lines }, film, rates, firm.allowances, job.job.cut),
    moved,
  };
}
