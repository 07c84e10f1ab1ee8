import { boundingBox, type Region } from '../geometry/index.js';

type Box = ReturnType<typeof boundingBox>;
/** Which way the air goes on from a letter. */
export type AirWay = 'up' | 'down' | 'right' | 'left';
/** A letter with its turn under the gun. */
export interface LetterTurn {
  readonly box: Box;
  readonly air: AirWay;
  /** What lies there: nothing, or letters whose turn is still to come. Never one that is finished. */
  readonly onto: 'free' | 'unheated';
}

/** So far beside a letter the air is still hot enough to lift the edge of another. @source house rule, from the half width of a stream 100 to 150 mm off */
const REACH_MM = 150;
/** In this order: warm air rises by itself, and a hand sees what lies before it on the right. */
const WAYS = ['up', 'down', 'right', 'left'] as const;

/** Where the air goes from a letter: as wide as it is, so far beyond it. */
function strip(b: Box, way: AirWay): Box {
  switch (way) {
    case 'up':
      return { ...b, minY: b.maxY, maxY: b.maxY + REACH_MM };
    case 'down':
      return { ...b, minY: b.minY - REACH_MM, maxY: b.minY };
    case 'right':
      return { ...b, minX: b.maxX, maxX: b.maxX + REACH_MM };
    case 'left':
      return { ...b, minX: b.minX - REACH_MM, maxX: b.minX };
  }
}
const meet = (a: Box, b: Box): boolean => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;

/** Parts of a line that stand above each other are one letter: a dot and its stroke, an accent. */
function lettersOf(region: Region): Box[] {
  const parts = region.map((rings) => boundingBox(rings[0]!)).sort((a, b) => a.minX - b.minX);
  return parts.reduce<Box[]>((out, p) => {
    const last = out.at(-1);
    // less than half of the narrower one: a kerned neighbour
    const shared = last ? Math.min(last.maxX, p.maxX) - Math.max(last.minX, p.minX) : -1;
    if (!last || shared <= 0.5 * Math.min(last.maxX - last.minX, p.maxX - p.minX)) return [...out, p];
    return [
      ...out.slice(0, -1),
      { minX: Math.min(last.minX, p.minX), maxX: Math.max(last.maxX, p.maxX), minY: Math.min(last.minY, p.minY), maxY: Math.max(last.maxY, p.maxY) },
    ];
  }, []);
}

/** Each letter in turn with a way for its air; null where one of them would have to blow over a finished one. */
function turnsIn(order: readonly Box[]): LetterTurn[] | null {
  const out: LetterTurn[] = [];
  for (const [i, box] of order.entries()) {
    const hit = (way: AirWay) => order.flatMap((o, j) => (j !== i && meet(strip(box, way), o) ? [j] : []));
    // a hand keeps its way as long as it goes
    const ways = [...(i > 0 ? [out[i - 1]!.air] : []), ...WAYS].map((way) => ({ way, hit: hit(way) }));
    const best = ways.find((w) => w.hit.length === 0) ?? ways.find((w) => w.hit.every((j) => j > i));
    if (!best) return null;
    out.push({ box, air: best.way, onto: best.hit.length === 0 ? 'free' : 'unheated' });
  }
  return out;
}

/**
 * The order in which letters are heated so that the air of none goes over one that is finished: as one reads them, where that does it; else from left to right over all lines, which always
 * does (what lies to the right of a letter ends farther right, and has its turn later).
 * @param marks lines of letters or figures as they are placed, mm
 */
export function letterOrder(marks: readonly { readonly region: Region; readonly box: Box }[]): LetterTurn[] {
  const lines = [...marks].sort((a, b) => b.box.maxY - a.box.maxY || a.box.minX - b.box.minX).map((m) => lettersOf(m.region));
  const asRead = lines.flat();
  const free = (turns: readonly LetterTurn[] | null) => turns?.filter((t) => t.onto === 'free').length ?? -1;
  const [read, across] = [turnsIn(asRead), turnsIn([...asRead].sort((a, b) => a.maxX - b.maxX))];
  return (free(read) >= free(across) ? read : across) ?? [];
}

/** What is said of that order. */
export function orderText(turns: readonly LetterTurn[]): string {
  if (turns.length < 2) return 'Aim the air to the free ground beside it.';
  const free = turns.filter((t) => t.onto === 'free').length;
  return free === turns.length
    ? 'In the order drawn the air of every letter goes on to free ground.'
    : `In the order drawn no air goes over a finished letter; ${turns.length - free} of ${turns.length} blow over letters that are still to come: press those down well first.`;
}
