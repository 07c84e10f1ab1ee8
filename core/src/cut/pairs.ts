import type { Piece, PiecePart, Turn } from '@yellow-pane/contracts';
import { boundingBox, cross, isConvex, minus, signedArea, vec, type Polygon, type Vec } from '../geometry/index.js';
import { Memo, shelf } from '../ground/index.js';

/** Two outlines in one rectangle: where the second lies, and the straight cut between them. */
export interface Pairing {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly first: Polygon;
  readonly second: Polygon;
  readonly isSecondTurned: boolean;
}

/** A pair must save this share of its two rectangles to be worth a slanting cut. @source house rule */
const LEAST_SAVING = 0.06;
/** Places tried while one piece walks round the other, at least. */
const PLACES = 200;

/** Outline of everything within reach: the places of b's origin at which b touches a from outside. @source Minkowski sum of convex outlines (de Berg et al., Computational Geometry, from memory) */
export function touchingPlaces(a: Polygon, b: Polygon): Polygon {
  const minusB = b.map((p) => vec(-p.x, -p.y));
  const lowest = (q: Polygon) => q.reduce((best, p, i) => (p.y < q[best]!.y || (p.y === q[best]!.y && p.x < q[best]!.x) ? i : best), 0);
  let [i, j] = [lowest(a), lowest(minusB)];
  const out: Vec[] = [];
  let [m, n] = [0, 0];
  while (m < a.length || n < minusB.length) {
    const [p, q] = [a[i % a.length]!, minusB[j % minusB.length]!];
    out.push(vec(p.x + q.x, p.y + q.y));
    const turn = cross(minus(a[(i + 1) % a.length]!, p), minus(minusB[(j + 1) % minusB.length]!, q));
    if (n >= minusB.length || (m < a.length && turn > 0)) [i, m] = [i + 1, m + 1];
    else if (m >= a.length || turn < 0) [j, n] = [j + 1, n + 1];
    else [i, m, j, n] = [i + 1, m + 1, j + 1, n + 1];
  }
  return out;
}

const moved = (p: Polygon, by: Vec): Polygon => p.map((q) => vec(q.x + by.x, q.y + by.y));
const upsideDown = (p: Polygon): Polygon => {
  const box = boundingBox(p);
  return p.map((q) => vec(box.maxX + box.minX - q.x, box.maxY + box.minY - q.y));
};

/**
 * The smallest rectangle that holds both convex outlines side by side, over all places at which they touch. Convex outlines that only
 * touch are always parted by one straight line.
 * @param turns ways the second may lie: as it is, upside down
 * @param fits whether a rectangle can be cut at all
 */
export function bestPair(a: Polygon, b: Polygon, turns: readonly (0 | 180)[], fits: (w: number, h: number) => boolean): Pairing | null {
  let best: Pairing | null = null;
  let least = Infinity;
  for (const turn of turns) {
    const second = turn === 180 ? upsideDown(b) : b;
    const places = touchingPlaces(a, second);
    const [boxA, boxB] = [boundingBox(a), boundingBox(second)];
    const steps = Math.ceil(PLACES / places.length);
    const tried: Vec[] = places.flatMap((p, i) => {
      const q = places[(i + 1) % places.length]!;
      // where the two are level or flush the rectangle is often smallest
      const special = [boxA.minY - boxB.minY, boxA.maxY - boxB.maxY].flatMap((y) => at(p, q, (y - p.y) / (q.y - p.y))).concat([boxA.minX - boxB.minX, boxA.maxX - boxB.maxX].flatMap((x) => at(p, q, (x - p.x) / (q.x - p.x)))); // prettier-ignore
      return [...Array.from({ length: steps }, (_, k) => vec(p.x + ((q.x - p.x) * k) / steps, p.y + ((q.y - p.y) * k) / steps)), ...special];
    });
    for (const t of tried) {
      const [minX, maxX] = [Math.min(boxA.minX, boxB.minX + t.x), Math.max(boxA.maxX, boxB.maxX + t.x)];
      const [minY, maxY] = [Math.min(boxA.minY, boxB.minY + t.y), Math.max(boxA.maxY, boxB.maxY + t.y)];
      const area = (maxX - minX) * (maxY - minY);
      if (area >= least - 1 || !fits(maxX - minX, maxY - minY)) continue;
      const put = moved(second, t);
      if (!partingLine(a, put)) continue;
      least = area;
      const corner = vec(-minX, -minY);
      best = { widthMm: maxX - minX, heightMm: maxY - minY, first: moved(a, corner), second: moved(put, corner), isSecondTurned: turn === 180 };
    }
  }
  return best;
}
const at = (p: Vec, q: Vec, t: number): Vec[] => (t > 0 && t < 1 ? [vec(p.x + (q.x - p.x) * t, p.y + (q.y - p.y) * t)] : []);

/** How far one outline may reach over the other and still count as parted: the hair of the knife, mm. */
const HAIR_MM = 0.3;

/** A straight line with both outlines on their own sides of it, as two of its points (first outline to the left); null when they overlap. */
export function partingLine(a: Polygon, b: Polygon): readonly [Vec, Vec] | null {
  let best: { gap: number; line: readonly [Vec, Vec] } | null = null;
  const look = (own: Polygon, other: Polygon, isFirst: boolean) => {
    for (let i = 0; i < own.length; i++) {
      const [p, q] = [own[i]!, own[(i + 1) % own.length]!];
      const along = minus(q, p);
      const l = Math.hypot(along.x, along.y);
      if (l < 1e-6) continue;
      const gap = Math.min(...other.map((r) => -cross(along, minus(r, p)) / l));
      if (!best || gap > best.gap) best = { gap, line: isFirst ? [p, q] : [q, p] };
    }
  };
  look(a, b, true);
  look(b, a, false);
  const found = best as { gap: number; line: readonly [Vec, Vec] } | null;
  return found && found.gap > -HAIR_MM ? found.line : null;
}

/** Where the parting line enters and leaves the rectangle of a pair. */
export function cutAcross(line: readonly [Vec, Vec], widthMm: number, heightMm: number): readonly [Vec, Vec] {
  const [p, q] = line;
  const d = minus(q, p);
  const hits: Vec[] = [];
  const add = (t: number) => {
    const h = vec(p.x + d.x * t, p.y + d.y * t);
    if (h.x > -1e-6 && h.x < widthMm + 1e-6 && h.y > -1e-6 && h.y < heightMm + 1e-6 && !hits.some((k) => Math.hypot(k.x - h.x, k.y - h.y) < 1e-3)) hits.push(h);
  };
  if (Math.abs(d.x) > 1e-9) [0, widthMm].forEach((x) => add((x - p.x) / d.x));
  if (Math.abs(d.y) > 1e-9) [0, heightMm].forEach((y) => add((y - p.y) / d.y));
  return [hits[0] ?? p, hits[1] ?? q];
}

/** Pairs of equal sizes are one kind. */
export const pairKind = (a: { widthMm: number; heightMm: number }, b: { widthMm: number; heightMm: number }): string =>
  [a, b]
    .map((p) => `${p.widthMm}x${p.heightMm}`)
    .sort()
    .join('+');

const outlineOf = (piece: Piece): Polygon => piece.path!.map((p) => vec(p.xMm, p.yMm));
const turnsOfPair = (a: Piece, b: Piece): Turn[] => a.turns.filter((t) => b.turns.includes(t));

/** Whether a piece may share a rectangle: an overhang piece of a convex outline, no rectangle itself. */
const mayPair = (p: Piece): boolean => {
  if (p.path === null || p.parts.length > 0 || p.method === 'pre-cut') return false;
  const o = outlineOf(p);
  return isConvex(o) && signedArea(o) < 0.97 * p.widthMm * p.heightMm;
};

/**
 * Joins shaped pieces two by two where a straight cut parts them and the rectangle round both is clearly smaller than two of their own:
 * triangles and rakes head to foot, arches shoulder to shoulder. The most saving pair first.
 * @param widestMm widest roll @param longestMm longest pull @param memo of pairs tried before @param isWanted whether pairs of a kind (`pairKind`) may be made
 */
export function pairUp(
  pieces: readonly Piece[],
  widestMm: number,
  longestMm: number,
  memo = new Memo(),
  isWanted: (kind: string) => boolean = () => true,
): Piece[] {
  const fits = (w: number, h: number) => Math.min(w, h) <= widestMm && Math.max(w, h) <= longestMm;
  const free = pieces.filter(mayPair);
  const pairOf = (a: Piece, b: Piece): Pairing | null => {
    const key = JSON.stringify([a.path, b.path, a.turns, b.turns, widestMm, longestMm]);
    return memo.once(pairings, key, () => bestPair(outlineOf(a), outlineOf(b), a.turns.includes(180) && b.turns.includes(180) ? [0, 180] : [0], fits));
  };
  const offers: { a: Piece; b: Piece; pair: Pairing; saving: number }[] = [];
  free.forEach((a, i) =>
    free.slice(i + 1).forEach((b) => {
      const pair = pairOf(a, b);
      const own = a.widthMm * a.heightMm + b.widthMm * b.heightMm;
      const saving = pair ? own - Math.ceil(pair.widthMm) * Math.ceil(pair.heightMm) : 0;
      if (pair && saving > LEAST_SAVING * own && turnsOfPair(a, b).length > 0 && isWanted(pairKind(a, b))) offers.push({ a, b, pair, saving });
    }),
  );
  offers.sort((x, y) => y.saving - x.saving);
  const used = new Set<string>();
  const made: Piece[] = [];
  for (const { a, b, pair } of offers) {
    if (used.has(a.id) || used.has(b.id)) continue;
    used.add(a.id).add(b.id);
    made.push(joined(a, b, pair));
  }
  const byFirst = new Map(made.map((p) => [p.parts[0]!.id, p]));
  return pieces.flatMap((p) => (used.has(p.id) ? (byFirst.get(p.id) ?? []) : [p]));
}

/** Two outlines pair the same way whenever they are asked. */
const pairings = shelf<Pairing | null>(3000);

function joined(a: Piece, b: Piece, pair: Pairing): Piece {
  const part = (p: Piece, outline: Polygon, isTurned: boolean): PiecePart => ({
    id: p.id,
    surfaceId: p.surfaceId,
    label: p.label,
    widthMm: p.widthMm,
    heightMm: p.heightMm,
    path: outline.map((q) => ({ xMm: q.x, yMm: q.y, bulge: 0 })),
    isTurned,
  });
  return {
    ...a,
    id: `${a.id}+${b.id}`,
    label: `${a.label} + ${b.label}`,
    widthMm: Math.ceil(pair.widthMm - 1e-6),
    heightMm: Math.ceil(pair.heightMm - 1e-6),
    turns: turnsOfPair(a, b),
    path: null,
    holes: [],
    parts: [part(a, pair.first, false), part(b, pair.second, pair.isSecondTurned)],
    why: [`${a.label} and ${b.label} out of one rectangle, parted by one straight cut${pair.isSecondTurned ? `; ${b.label} lies upside down` : ''}.`],
  };
}

/**
 * Joined pieces one by one, as they go onto the glass, in the sizes that the plan cuts, which are those of its day.
 * @param own pieces as they would be cut now, for what a part does not tell (method, edges to trim, why)
 */
export function singlePieces(pieces: readonly Piece[], own: ReadonlyMap<string, Piece>): Piece[] {
  return pieces.flatMap((whole) =>
    whole.parts
      .map((part): Piece => {
        const now = own.get(part.id);
        if (now && Math.abs(now.widthMm - part.widthMm) < 0.01 && Math.abs(now.heightMm - part.heightMm) < 0.01) return now;
        const [x, y] = [Math.min(...part.path.map((q) => q.xMm)), Math.min(...part.path.map((q) => q.yMm))];
        const path = part.path.map((q) => ({
          ...q,
          xMm: part.isTurned ? x + part.widthMm - q.xMm : q.xMm - x,
          yMm: part.isTurned ? y + part.heightMm - q.yMm : q.yMm - y,
        }));
        const { id, surfaceId, label, widthMm, heightMm } = part;
        return { ...(now ?? { ...whole, why: [] }), id, surfaceId, label, widthMm, heightMm, path, parts: [] };
      })
      .concat(whole.parts.length ? [] : [whole]),
  );
}

/** A point of a piece's own frame where it lies on the roll: x along from the squared start, y across from the near edge. */
export function onRoll(
  p: Vec,
  piece: { readonly widthMm: number; readonly heightMm: number },
  placed: { readonly turn: Turn; readonly xMm: number; readonly yMm: number },
): Vec {
  const [w, h] = [piece.widthMm, piece.heightMm];
  const local = placed.turn === 0 ? vec(p.y, w - p.x) : placed.turn === 90 ? vec(w - p.x, h - p.y) : placed.turn === 180 ? vec(h - p.y, p.x) : vec(p.x, p.y);
  return vec(placed.xMm + local.x, placed.yMm + local.y);
}

/** Whether what a joined piece claims is true: both parts inside, and a straight cut between them. @returns sentences */
export function checkParts(piece: Piece): string[] {
  if (piece.parts.length === 0) return [];
  const outlines = piece.parts.map((p) => p.path.map((q) => vec(q.xMm, q.yMm)));
  const faults = piece.parts
    .filter((_, i) => outlines[i]!.some((q) => q.x < -1e-6 || q.y < -1e-6 || q.x > piece.widthMm + 1e-6 || q.y > piece.heightMm + 1e-6))
    .map((p) => `${p.label} reaches out of the rectangle of ${piece.label}.`);
  if (outlines.length !== 2 || !partingLine(outlines[0]!, outlines[1]!)) faults.push(`No straight cut parts ${piece.label}.`);
  return faults;
}
