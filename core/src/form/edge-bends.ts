import { ROOM_MM, type Rows } from './pane-prior.js';
import { shelf, type Memo } from '../ground/index.js';
import type { SplineBox } from './spline.js';

// Glass is rolled out smoothly and often bent once more along an edge, where it meets a body or a frame: what is known of that before a pane is measured.

/** Where a bend may begin, as shares of the way across the pane. @source house rule */
const BEGINS = [0.17, 0.3];
/** Sides that may bend, and which lie across from one another. */
const SIDES = ['lower', 'upper', 'left', 'right'] as const;
const ACROSS = [
  [0, 1],
  [2, 3],
] as const;
/** Along the edge: the same all over, more to one end, more in the middle or less; and how much of each beside the first. @source house rule */
const ALONG = [
  { share: 1, of: () => 1 },
  { share: 0.3, of: (t: number) => t },
  { share: 0.3, of: (t: number) => 1.5 * t * t - 0.5 },
];
/** How far an edge that bends is off by it, one sigma: as share of a typical bow. Every edge may be off by a little. @source house rules */
const OFF = { share: 0.6, littleShare: 0.02, littleMm: 0.1 };
/** How often two sides that face one another bend: neither, one, both alike. @source house rule: half of all panes hardly, some abruptly along one edge; set so that what is claimed holds (claims.spec.ts) */
const OFTEN = { neither: 0.45, one: 0.4, both: 0.15 };

/** Which ways of bending go together on a pane, and how likely that is beforehand (ln). */
export interface Bending {
  readonly belief: number;
  /** Places in the list of groups. */
  readonly groups: readonly number[];
}

/** Whether an edge bends in this way. */
export const bendsAt = (b: Bending, side: 'lower' | 'upper'): boolean => b.groups.some((g) => Math.floor(g / BEGINS.length) === SIDES.indexOf(side));
/** Whether the lower or the upper edge bends in this way. */
export const bendsLowOrHigh = (b: Bending): boolean => b.groups.some((g) => g < 2 * BEGINS.length);

/** Every way in which an edge may bend: splines that fall by 1 mm at the edge of the pane, and which of them come together. */
export interface EdgeBends {
  readonly splines: Rows;
  /** How much of each spline, one sigma, over that of its group. */
  readonly share: Float64Array;
  /** Of the splines the last: curvature that drifts from the lower edge to the upper, on every pane a little. */
  readonly drift: number;
  /** Of one side and one beginning: the first and the one after the last of its splines. */
  readonly groups: readonly (readonly [from: number, to: number])[];
  readonly bendings: readonly Bending[];
}

/** One sigma of an edge that bends, and of one that hardly does, mm. */
export const bendSigmas = (typicalBowMm: number) => ({
  strongMm: OFF.share * typicalBowMm + OFF.littleMm,
  littleMm: (OFF.littleShare * typicalBowMm + OFF.littleMm) / Math.sqrt(BEGINS.length),
});

/**
 * How far the curvature from edge to edge drifts on its way up, one sigma, as the coefficient of t³ (t from −1 to 1 over the height), as share of an upright bow: glass is often
 * rounder towards its lower edge. @source house rule: curvature at the lower edge twice to four times that at the upper makes 0.1 to 0.25
 */
export const DRIFT_SHARE = 0.2;

/** A survey goes on in the same box from bow to bow. */
const bendsOfBox = shelf<EdgeBends>(2);

/** @param box the pane with the room round it */
export const edgeBends = (box: SplineBox, memo: Memo): EdgeBends =>
  memo.once(bendsOfBox, [box.minX, box.minY, box.maxX, box.maxY, box.nx, box.ny].join(' '), () => bendsOf(box));

function bendsOf(b: SplineBox): EdgeBends {
  const [w, h] = [b.maxX - b.minX, b.maxY - b.minY];
  const splines: Rows = [];
  const groups: (readonly [number, number])[] = [];
  SIDES.forEach((side) => {
    const isLevel = side === 'lower' || side === 'upper';
    const inwards = (x: number, y: number): number => ({ lower: y - b.minY, upper: b.maxY - y, left: x - b.minX, right: b.maxX - x })[side];
    for (const begin of BEGINS) {
      const paneMm = Math.max(1, (isLevel ? h : w) - 2 * ROOM_MM) * begin;
      const from = splines.length;
      for (const { of } of ALONG) {
        const f = (x: number, y: number): number =>
          (Math.max(0, paneMm + ROOM_MM - inwards(x, y)) / paneMm) ** 2 * of(isLevel ? (2 * (x - b.minX)) / w - 1 : (2 * (y - b.minY)) / h - 1);
        splines.push(asSpline(b, f));
      }
      groups.push([from, splines.length]);
    }
  });
  const share = Float64Array.from([...splines.map((_, i) => ALONG[i % ALONG.length]!.share), 0]);
  const t = (y: number) => (2 * (y - b.minY) - h) / (h - 2 * ROOM_MM);
  splines.push(asSpline(b, (_x, y) => t(y) ** 3 - t(y)));
  return { splines, share, drift: splines.length - 1, groups, bendings: bendings() };
}

/** Two sides that face one another, each beginning anywhere; the two pairs do not know of each other. */
function bendings(): Bending[] {
  const group = (side: number, begin: number): number => side * BEGINS.length + begin;
  const each = BEGINS.map((_, i) => i);
  const ofPair = ([a, b]: readonly [number, number]): Bending[] => [
    { belief: Math.log(OFTEN.neither), groups: [] },
    ...[a, b].flatMap((side) => each.map((i) => ({ belief: Math.log(OFTEN.one / 2 / BEGINS.length), groups: [group(side, i)] }))),
    ...each.map((i) => ({ belief: Math.log(OFTEN.both / BEGINS.length), groups: [group(a, i), group(b, i)] })),
  ];
  const [upright, level] = [ofPair(ACROSS[0]), ofPair(ACROSS[1])];
  return upright.flatMap((u) => level.map((l): Bending => ({ belief: u.belief + l.belief, groups: [...u.groups, ...l.groups] })));
}

/** Coefficients of a spline near a function: its values at the knots less a sixth of their second differences. @source de Boor, ch. XII (quasi-interpolants; from memory) */
function asSpline(b: SplineBox, f: (x: number, y: number) => number): Float64Array {
  const [n, m] = [b.nx + 3, b.ny + 3];
  const [hx, hy] = [(b.maxX - b.minX) / b.nx, (b.maxY - b.minY) / b.ny];
  return Float64Array.from({ length: n * m }, (_, k) => {
    const [x, y] = [b.minX + ((k % n) - 1) * hx, b.minY + (Math.floor(k / n) - 1) * hy];
    const v = f(x, y);
    return v - (f(x - hx, y) + f(x + hx, y) - 2 * v) / 6 - (f(x, y - hy) + f(x, y + hy) - 2 * v) / 6;
  });
}
