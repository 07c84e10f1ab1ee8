import type { Film, FilmVerdict, GlazingFigures, Sight, Want } from '@yellow-pane/contracts';
import { SHAPES_BELOW } from './privacy.js';

/** Price that counts as dear, per m². @source house rule */
const DEAR_PER_M2 = 45;
/** Film that counts as strong. @source common practice: 8 mil (200 µm) security film */
const STRONG_UM = 200;

/** What a want is judged by. */
export interface WantInput {
  readonly film: Film;
  readonly figures: GlazingFigures;
  readonly bare: GlazingFigures;
  readonly day: Sight;
  readonly night: Sight;
}

const share = (x: number): number => Math.max(0, Math.min(1, x));
const pct = (x: number): string => `${Math.round(x * 100)} %`;

/** Lowest price per m² among the sizes it is sold in; null = no price. */
export function pricePerM2(film: Pick<Film, 'offers'>): number | null {
  const all = film.offers.map((o) => Number(o.pricePerM) / (o.widthMm / 1000));
  return all.length ? Math.min(...all) : null;
}

/** What counts as fully met and what as not at all, in words. */
const rules: Record<Want, string> = {
  heat: 'full at 60 % less heat (g), none at no less',
  glare: 'full at 70 % less light, none at no less',
  light: 'the share of the light that is kept',
  view: 'full at a contrast of 0.45 left by day, none at 0',
  'privacy-day': 'full when nothing is left to see by day, none from a contrast of 0.2 on',
  'privacy-night': 'full when nothing is left to see at night, none from a contrast of 0.2 on',
  safety: `full for security film of ${STRONG_UM} µm, in proportion below; other films count three tenths`,
  looks: 'full when the street sees no more mirror than before, none at 30 % more',
  cost: `full at nothing, none at ${DEAR_PER_M2} per m² of film`,
};

/** How well each want is met, 0 … 1, and the words for it. All rules of the score stand here. @source docs/models/ranking.md */
const judge: Record<Want, (x: WantInput) => [number, string]> = {
  heat: ({ figures, bare }) => [share((1 - figures.gFrac / bare.gFrac) / 0.6), `lets in ${pct(1 - figures.gFrac / bare.gFrac)} less heat`],
  glare: ({ figures, bare }) => {
    const less = 1 - figures.visibleTransmittanceFrac / bare.visibleTransmittanceFrac;
    return [share(less / 0.7), `${pct(less)} less glare`];
  },
  light: ({ figures, bare }) => [
    share(figures.visibleTransmittanceFrac / bare.visibleTransmittanceFrac),
    `keeps ${pct(figures.visibleTransmittanceFrac / bare.visibleTransmittanceFrac)} of the light`,
  ],
  view: ({ day }) => [
    share(day.outwardsFrac / 0.45),
    day.outwards === 'clear' ? 'the view stays clear' : day.outwards === 'shapes' ? 'the view turns to shapes' : 'no view is left',
  ],
  'privacy-day': ({ day }) => [share(1 - day.inwardsFrac / SHAPES_BELOW), seen(day.inwards, 'by day')],
  'privacy-night': ({ night }) => [share(1 - night.inwardsFrac / SHAPES_BELOW), seen(night.inwards, 'at night')],
  safety: ({ film }) => {
    const isMade = film.kind === 'security';
    return [share((film.thicknessUm / STRONG_UM) * (isMade ? 1 : 0.3)), isMade ? `${film.thicknessUm} µm holds splinters` : 'not a safety film'];
  },
  looks: ({ figures, bare }) => {
    const more = figures.visibleReflectanceOutFrac - bare.visibleReflectanceOutFrac;
    return [share(1 - more / 0.3), more > 0.05 ? `mirrors ${pct(figures.visibleReflectanceOutFrac)} to the street` : 'hardly shows from the street'];
  },
  cost: ({ film }) => {
    const price = pricePerM2(film);
    return price === null ? [0, 'no price entered'] : [share(1 - price / DEAR_PER_M2), `${price.toFixed(0)} per m² of film`];
  },
};
const seen = (how: Sight['inwards'], when: string): string =>
  how === 'hidden' ? `at these light levels nobody sees in ${when}` : how === 'shapes' ? `shapes show ${when}` : `anyone sees in ${when}`;

/** Weights by the order of tapping: the first counts 1, the second ½, the third ⅓ …, made to add up to 1. */
export const wantWeights = (wants: readonly Want[]): number[] => {
  const raw = wants.map((_, i) => 1 / (i + 1));
  const total = raw.reduce((s, x) => s + x, 0);
  return raw.map((x) => x / total);
};

/** The score of one film: Σ weight × met. No wants, no order. */
export function scoreFilm(wants: readonly Want[], x: WantInput): Pick<FilmVerdict, 'score' | 'wants'> {
  const weights = wantWeights(wants);
  const list = wants.map((want, i) => {
    const [metFrac, words] = judge[want](x);
    return { want, weightFrac: weights[i]!, metFrac, words, rule: rules[want] };
  });
  return { score: list.reduce((s, w) => s + w.weightFrac * w.metFrac, 0), wants: list };
}
