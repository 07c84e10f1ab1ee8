import type { Film, FilmKind } from '@yellow-pane/contracts';

/** Film kinds as the trade says them. */
export const kindWords: Record<FilmKind, string> = {
  solar: 'solar or privacy tint',
  'exterior-solar': 'solar, outside',
  mirror: 'one-way mirror',
  frosted: 'frosted',
  security: 'security',
  'anti-graffiti': 'anti-graffiti',
  'anti-fog': 'anti-fog',
  'windscreen-protection': 'windscreen protection',
  interior: 'interior decor',
  'printed-decor': 'printed decor',
  'textured-wall': 'textured wall',
  'cast-wrap': 'cast wrap',
  lettering: 'lettering',
};

/** What a film is made of, as the trade says it. */
export const constructionWords: Record<NonNullable<Film['construction']>, string> = {
  clear: 'clear',
  dyed: 'dyed',
  metallised: 'metallised',
  ceramic: 'ceramic',
  'spectrally-selective': 'spectrally selective',
  matt: 'matt',
  'cast-vinyl': 'cast vinyl',
  'calendered-vinyl': 'calendered vinyl',
  'embossed-vinyl': 'embossed vinyl',
  urethane: 'urethane',
};

/** What a film is for: the words a person would look by. */
export const purposes = [
  { id: 'all', name: 'All', test: () => true },
  {
    id: 'heat',
    name: 'Heat and glare',
    test: (f: Film) => ['solar', 'exterior-solar', 'mirror'].includes(f.kind) || (f.optics !== null && f.optics.solar.transmittanceFrac < 0.5),
  },
  { id: 'privacy', name: 'Privacy', test: (f: Film) => f.kind === 'frosted' || f.kind === 'mirror' },
  { id: 'safety', name: 'Safety', test: (f: Film) => f.kind === 'security' || f.kind === 'anti-graffiti' || f.kind === 'windscreen-protection' },
  { id: 'walls', name: 'Walls and furniture', test: (f: Film) => f.mounting === 'not-on-glass' },
  { id: 'retired', name: 'Retired', test: (f: Film) => f.retiredAt !== null },
] as const;
export type PurposeId = (typeof purposes)[number]['id'];

/** A column that the list can be sorted by. */
export type SortKey = 'name' | 'kind' | 'thickness' | 'light' | 'sun' | 'haze' | 'price';
const lowestPricePerM2 = (f: Film): number | null => (f.offers.length ? Math.min(...f.offers.map((o) => Number(o.pricePerM) / (o.widthMm / 1000))) : null);
export const sortValue: Record<SortKey, (f: Film) => string | number | null> = {
  name: (f) => f.name,
  kind: (f) => kindWords[f.kind],
  thickness: (f) => f.thicknessUm,
  light: (f) => f.optics?.visible.transmittanceFrac ?? null,
  sun: (f) => f.optics?.solar.transmittanceFrac ?? null,
  haze: (f) => f.hazeFrac,
  price: lowestPricePerM2,
};

/** The list as asked for: newest versions, by purpose and words, sorted; what has no value comes last either way. */
export function shownFilms(films: readonly Film[], query: string, purpose: PurposeId, key: SortKey, isDown: boolean): Film[] {
  const replaced = new Set(films.map((f) => f.replacesId));
  const words = query.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const text = (f: Film) => `${f.name} ${kindWords[f.kind]} ${f.construction ? constructionWords[f.construction] : ''} ${f.note}`.toLowerCase();
  const test = purposes.find((p) => p.id === purpose)!.test;
  const list = films.filter(
    (f) => !replaced.has(f.id) && (purpose === 'retired' || f.retiredAt === null) && test(f) && words.every((w) => text(f).includes(w)),
  );
  const of = sortValue[key];
  return list.sort((a, b) => {
    const [x, y] = [of(a), of(b)];
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    const order = typeof x === 'string' ? x.localeCompare(String(y)) : x - Number(y);
    return (isDown ? -order : order) || a.name.localeCompare(b.name);
  });
}
