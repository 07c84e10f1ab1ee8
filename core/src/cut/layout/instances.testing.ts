import type { CutSettings, Edge, Piece, Turn } from '@yellow-pane/contracts';
import { randomInt, seededRandom } from '../../ground/index.js';

/** Made-up layout problems for tests and benches: the same seed gives the same problem. */
export const plainSettings: CutSettings = {
  longestPullMm: 3600,
  smallestStripMm: 60,
  crosscutAllowanceMm: 0,
  slitAllowanceMm: 0,
  largestSheetM2: null,
  stages: 3,
  mixLots: false,
  oneDirection: true,
};

const idOf = (n: number): string => `00000000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;

export function testPiece(n: number, widthMm: number, heightMm: number, more: { turns?: Turn[]; factoryEdge?: Edge | null } = {}): Piece {
  return {
    id: idOf(n),
    surfaceId: idOf(n),
    label: `P${n}`,
    filmId: idOf(0),
    method: 'overhang',
    widthMm,
    heightMm,
    turns: more.turns ?? [0, 90, 180, 270],
    factoryEdge: more.factoryEdge ?? null,
    trimmedEdges: [],
    why: [],
    path: null,
    holes: [],
    parts: [],
    meets: null,
    repeat: null,
    isPlotted: false,
    fallback: null,
  };
}

export const testRoll = (widthMm: number, metres = 500) => ({ id: idOf(999), widthMm, availableMm: metres * 1000, pricePerM: 10, fixedDrops: [] });

/** A job as it comes: some pane sizes, each several times. */
export function jobOfRepeatedSizes(seed: number, rollWidthMm: number, count = 100): Piece[] {
  const random = seededRandom(seed);
  const kinds = 8 + randomInt(random, 13);
  const widest = Math.min(1300, rollWidthMm - 30);
  const sizes = Array.from({ length: kinds }, () => [300 + randomInt(random, widest - 300), 350 + randomInt(random, 1700)] as const);
  const pieces: Piece[] = [];
  while (pieces.length < count) {
    const [w, h] = sizes[randomInt(random, kinds)]!;
    for (let i = 1 + randomInt(random, 8); i > 0 && pieces.length < count; i--) pieces.push(testPiece(pieces.length + 1, w, h));
  }
  return pieces;
}

export interface Dissected {
  readonly pieces: Piece[];
  /** Length of the drops that they were cut out of: nothing shorter holds them. */
  readonly optimumMm: number;
}

/** How a dissection differs from the plainest. */
export interface DissectionKind {
  /** Every drop comes so many times: equal pieces repeated. */
  readonly repeats?: number;
  /** Pieces stay as they were cut: a film with one direction. */
  readonly isFixed?: boolean;
  /** Pieces at the roll's edges, up to one at each in a drop, ask for a factory edge. */
  readonly hasEdges?: boolean;
}

const parting =
  (random: () => number) =>
  (total: number, n: number, least: number): number[] => {
    const cuts = Array.from({ length: n - 1 }, () => randomInt(random, total - n * least + 1)).sort((a, b) => a - b);
    return Array.from({ length: n }, (_, i) => (i === n - 1 ? total - n * least : cuts[i]!) - (i === 0 ? 0 : cuts[i - 1]!) + least);
  };

/** Cuts full drops into pieces by the three-stage rule, nothing left over: the least length is known. */
export function dissection(seed: number, rollWidthMm: number, count: number, kind: DissectionKind = {}): Dissected {
  const { repeats = 1, isFixed = false, hasEdges = false } = kind;
  const random = seededRandom(seed);
  const parts = parting(random);
  const pieces: Piece[] = [];
  let optimumMm = 0;
  while (pieces.length < count) {
    const along = 700 + randomInt(random, 1800);
    const columns = 1 + randomInt(random, 3);
    const plan = parts(rollWidthMm, columns, 250).map((across) => ({
      across,
      rows: parts(along, 1 + randomInt(random, Math.min(3, Math.floor(along / 300))), 200),
    }));
    if (pieces.length + repeats * plan.reduce((s, c) => s + c.rows.length, 0) > count + 4 * repeats) continue;
    optimumMm += repeats * along;
    for (const [i, c] of plan.entries())
      for (const r of c.rows) {
        const isTurned = !isFixed && random() < 0.5;
        const turns: Turn[] = isFixed ? [0, 180] : [0, 90, 180, 270];
        // the sill of a turned piece, the left side of one that stands, lies along the roll
        const atEdge = hasEdges && (i === 0 || i === plan.length - 1) && random() < 0.4;
        const factoryEdge: Edge | null = atEdge ? (isTurned ? 'bottom' : 'left') : null;
        for (let k = 0; k < repeats; k++)
          pieces.push(
            isTurned ? testPiece(pieces.length + 1, r, c.across, { turns, factoryEdge }) : testPiece(pieces.length + 1, c.across, r, { turns, factoryEdge }),
          );
      }
  }
  return { pieces, optimumMm };
}

/** The same by more or fewer stages: drops are parted across and along in turn, so many times. Two stages part a drop into columns of one piece. */
export function deepDissection(seed: number, rollWidthMm: number, count: number, stages: number): Dissected {
  const random = seededRandom(seed);
  const parts = parting(random);
  const pieces: Piece[] = [];
  let optimumMm = 0;
  const part = (across: number, along: number, left: number, isSlit: boolean): void => {
    const side = isSlit ? across : along;
    const most = Math.floor(side / 220);
    if (left === 0 || most < 2)
      return void pieces.push(random() < 0.5 ? testPiece(pieces.length + 1, across, along) : testPiece(pieces.length + 1, along, across));
    for (const own of parts(side, 2 + randomInt(random, Math.min(most, 3) - 1), 200)) part(isSlit ? own : across, isSlit ? along : own, left - 1, !isSlit);
  };
  while (pieces.length < count) {
    const along = 700 + randomInt(random, 1800);
    optimumMm += along;
    // the crosscut that makes the drop is the first stage
    part(rollWidthMm, along, stages - 1, true);
  }
  return { pieces, optimumMm };
}
