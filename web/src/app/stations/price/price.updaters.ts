import type { BenchDocument, Film, Quote, QuoteLine, UnitSystem } from '@yellow-pane/contracts';
import { told } from '@yellow-pane/core/ground';

/** A new, empty price for the firm, by its newest rates. @returns null when the firm has no rates yet */
export function newQuote(bench: Pick<BenchDocument, 'firm' | 'rates'>, id: string, at: string): Quote | null {
  const rates = bench.rates.at(-1);
  return rates
    ? {
        id,
        firmId: bench.firm.id,
        customer: '',
        site: '',
        lines: [],
        kmThere: 0,
        filmIds: [],
        ratesId: rates.id,
        photo: null,
        currency: bench.firm.currency,
        status: 'draft',
        acceptedFilmId: null,
        jobId: null,
        createdAt: at,
        deletedAt: null,
      }
    : null;
}

/** The next window is most like the one before it. */
export const nextLine = (lines: readonly QuoteLine[], id: string, size: { widthMm: number; heightMm: number; count: number }): QuoteLine => ({
  place: lines.at(-1)?.place ?? '',
  name: `Window ${lines.length + 1}`,
  reach: lines.at(-1)?.reach ?? 'floor',
  hasOldFilm: lines.at(-1)?.hasOldFilm ?? false,
  hasProudSilicone: lines.at(-1)?.hasProudSilicone ?? false,
  ...size,
  id,
});

/** A film put among those offered, or taken away; three are the most a customer weighs. */
export const toggleFilm = (ids: readonly string[], id: string): string[] => (ids.includes(id) ? ids.filter((x) => x !== id) : [...ids, id].slice(-3));

/** Films that can be offered on glass, with a price, none retired. */
export function offerable(films: readonly Film[]): Film[] {
  const replaced = new Set(films.map((f) => f.replacesId));
  return films
    .filter((f) => !replaced.has(f.id) && f.retiredAt === null && f.mounting !== 'not-on-glass' && f.offers.length > 0)
    .sort((a, b) => a.kind.localeCompare(b.kind) || a.name.localeCompare(b.name));
}

/** Panes and glass of a quote in one line. */
export function quoteSummary(q: Pick<Quote, 'lines'>, units: UnitSystem): string {
  const panes = q.lines.reduce((s, l) => s + l.count, 0);
  const m2 = q.lines.reduce((s, l) => s + (l.count * l.widthMm * l.heightMm) / 1e6, 0);
  return panes === 0 ? 'no window yet' : `${panes} ${panes === 1 ? 'pane' : 'panes'}, ${told(`${m2.toFixed(1)} m²`, units)}`;
}

/** Films by what a customer says they want them for. */
export function filmsByWish(films: readonly Film[]): { readonly name: string; readonly films: Film[] }[] {
  const groups = [
    { name: 'Against heat and glare', kinds: ['solar', 'exterior-solar'] },
    { name: 'Against being seen', kinds: ['frosted', 'mirror'] },
    { name: 'For safety', kinds: ['security', 'anti-graffiti'] },
  ];
  const named = groups.map((g) => ({ name: g.name, films: films.filter((f) => g.kinds.includes(f.kind)) }));
  const rest = films.filter((f) => !groups.some((g) => g.kinds.includes(f.kind)));
  return [...named, { name: 'Others', films: rest }].filter((g) => g.films.length > 0);
}
