import type { BenchCut, Hardware } from '@yellow-pane/contracts';

interface Place {
  readonly xMm: number;
  readonly yMm: number;
}
const point = (xMm: number, yMm: number) => ({ xMm, yMm, bulge: 0 });

/**
 * A cross over something that film does not cover, as one line: from corner to corner of its box, or, of a round thing, through its middle from rim to rim: past
 * the rim a slit would stay seen. @param shortMm how far from corner or rim it ends
 */
export function crossOver(low: Place, high: Place, words: string, { isRound = false, shortMm = 0 } = {}): BenchCut {
  const middle = point((low.xMm + high.xMm) / 2, (low.yMm + high.yMm) / 2);
  const ends = isRound
    ? [point(low.xMm, middle.yMm), point(high.xMm, middle.yMm), point(middle.xMm, low.yMm), point(middle.xMm, high.yMm)]
    : [point(low.xMm, low.yMm), point(high.xMm, high.yMm), point(high.xMm, low.yMm), point(low.xMm, high.yMm)];
  const [a, b, c, d] = ends.map((e) => {
    const away = Math.hypot(e.xMm - middle.xMm, e.yMm - middle.yMm);
    // something smaller than that is still cut
    const k = away > 0 ? Math.max(0.5, 1 - shortMm / away) : 1;
    return point(middle.xMm + (e.xMm - middle.xMm) * k, middle.yMm + (e.yMm - middle.yMm) * k);
  });
  return { layer: 'film', later: true, path: isRound ? [a!, b!, middle, c!, d!] : [a!, b!, c!, d!, a!], words: words.slice(0, 200) };
}

/** What is done at something that film does not cover, once it lies there. */
export const crossWords = ({ what, handling, isRound }: Pick<Hardware, 'what' | 'handling' | 'isRound'>): string =>
  `${what}: when the film lies there, a cross over it ${isRound ? 'from rim to rim' : 'from corner to corner'}; then trimmed ${handling === 'open' && !isRound ? 'along its sides' : 'round it'}.`.slice(
    0,
    200,
  );
