import type { FilmVerdict } from '@yellow-pane/contracts';
import { gradeWords } from '@yellow-pane/core/choose';

/** One line of the comparison: bare glass first, then the films in the order they were picked. */
export interface CompareRow {
  readonly name: string;
  readonly values: readonly { readonly text: string; readonly isBest: boolean }[];
}
const percent = (frac: number): string => `${Math.round(frac * 100)} %`;

/** Films on one pane side by side, the best figure of each line marked where there is a better and a worse. */
export function compareRows(bare: FilmVerdict, picked: readonly { readonly verdict: FilmVerdict; readonly price: string }[]): CompareRow[] {
  const all = [{ verdict: bare, price: '' }, ...picked];
  const row = (name: string, of: (x: FilmVerdict) => number | null | undefined, text: (n: number) => string, best: 'low' | 'high' | null) => {
    const numbers = all.map((x) => of(x.verdict) ?? null);
    const films = numbers.slice(1).filter((n): n is number => n !== null);
    const top = best === null || films.length < 2 ? null : best === 'low' ? Math.min(...films) : Math.max(...films);
    return { name, values: numbers.map((n, i) => ({ text: n === null ? '–' : text(n), isBest: i > 0 && n !== null && n === top })) };
  };
  const words = (name: string, of: (x: (typeof all)[number]) => string) => ({ name, values: all.map((x) => ({ text: of(x), isBest: false })) });
  const f = (x: FilmVerdict) => x.figures;
  return [
    words('verdict', (x) => gradeWords[x.verdict.grade]),
    words('film for these panes', (x) => x.price || '–'),
    row('light let through', (x) => f(x)?.visibleTransmittanceFrac, percent, 'high'),
    row(
      'g, sun heat let in',
      (x) => f(x)?.gFrac,
      (n) => n.toFixed(2),
      'low',
    ),
    row('less heat', (x) => x.heatLessFrac, percent, 'high'),
    row('less glare', (x) => x.glareLessFrac, percent, 'high'),
    row('less fading', (x) => x.fadingLessFrac, percent, 'high'),
    row('ultraviolet let through', (x) => f(x)?.uvTransmittanceFrac, percent, 'low'),
    row('mirrors to the street', (x) => f(x)?.visibleReflectanceOutFrac, percent, null),
    row(
      'U, W/m²K',
      (x) => f(x)?.uWPerM2K,
      (n) => n.toFixed(1),
      'low',
    ),
    row(
      'middle over edge, K',
      (x) => x.breakRisk?.differenceK,
      (n) => String(Math.round(n)),
      'low',
    ),
    words('seen into by day / at night', (x) => (x.verdict.day ? `${x.verdict.day.inwards} / ${x.verdict.night!.inwards}` : '–')),
    row(
      'score for these wants',
      (x) => (x.filmId ? x.score : null),
      (n) => n.toFixed(2),
      'high',
    ),
  ];
}
