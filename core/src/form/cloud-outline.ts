import type { Polygon, Vec } from '../geometry/index.js';

// The outline of a pane out of the points of its cloud.

/** Convex hull, anticlockwise. @source Andrew's monotone chain */
export function convexHull(points: readonly Vec[]): Polygon {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Vec[]): Vec[] => {
    const out: Vec[] = [];
    for (const p of list) {
      while (out.length > 1 && (out.at(-1)!.x - out.at(-2)!.x) * (p.y - out.at(-2)!.y) <= (out.at(-1)!.y - out.at(-2)!.y) * (p.x - out.at(-2)!.x)) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...half(sorted), ...half([...sorted].reverse())];
}

/** So many corners are more than any outline has; a disc that has not come round by then has lost its way. */
const MOST_CORNERS = 20_000;

/**
 * The outline that a disc touches as it rolls round points from outside, anticlockwise. It goes into an edge that is bent inwards less tightly than the disc; holes
 * inside, and gaps in the border much narrower than the disc, do not let it in.
 * @param radiusMm of the disc @returns null where there is no one outline: heaps farther apart than the disc is wide, or a place that it comes by twice
 * @source boundary of the alpha shape (Edelsbrunner, Kirkpatrick and Seidel 1983) by a pivoting ball in the plane
 */
export function rolledOutline(points: readonly Vec[], radiusMm: number): Polygon | null {
  if (points.length < 3) return null;
  // sorted into squares as wide as the disc: what can be touched next lies in the five by five round a point
  const squares = new Map<string, Vec[]>();
  const squareOf = (v: number): number => Math.floor(v / radiusMm);
  const seenOnce = new Map(points.map((p) => [`${p.x} ${p.y}`, p]));
  for (const p of seenOnce.values()) {
    const key = `${squareOf(p.x)} ${squareOf(p.y)}`;
    const list = squares.get(key);
    if (list) list.push(p);
    else squares.set(key, [p]);
  }
  const near = new Map<string, Vec[]>();
  const roundAbout = (p: Vec): Vec[] => {
    const [i, j] = [squareOf(p.x), squareOf(p.y)];
    const known = near.get(`${i} ${j}`);
    if (known) return known;
    const list: Vec[] = [];
    for (let a = i - 2; a <= i + 2; a++) for (let b = j - 2; b <= j + 2; b++) list.push(...(squares.get(`${a} ${b}`) ?? []));
    near.set(`${i} ${j}`, list);
    return list;
  };
  const start = [...seenOnce.values()].reduce((a, p) => (p.y < a.y || (p.y === a.y && p.x > a.x) ? p : a));
  const ring: Vec[] = [start];
  // the disc lies below the lowest point and rolls to the right
  let turn = -Math.PI / 2;
  let [here, before]: [Vec, Vec | null] = [start, null];
  const full = 2 * Math.PI;
  while (ring.length < MOST_CORNERS) {
    let next: Vec | null = null;
    let [leastTurn, nextTurn] = [Infinity, 0];
    for (const q of roundAbout(here)) {
      const [dx, dy] = [q.x - here.x, q.y - here.y];
      const apart = Math.hypot(dx, dy);
      if (apart === 0 || apart > 2 * radiusMm) continue;
      // the two places of a disc that touches both, as seen from the point it turns about
      const [towards, half] = [Math.atan2(dy, dx), Math.acos(apart / (2 * radiusMm))];
      for (const centre of [towards - half, towards + half]) {
        let by = (centre - turn) % full;
        if (by < 0) by += full;
        // where it lies now it touches the point it comes from
        if (q === before && (by < 1e-9 || by > full - 1e-9)) continue;
        if (by > full - 1e-9) by = 0;
        if (by < leastTurn || (by === leastTurn && next && apart < Math.hypot(next.x - here.x, next.y - here.y)))
          [next, leastTurn, nextTurn] = [q, by, Math.atan2(here.y + radiusMm * Math.sin(centre) - q.y, here.x + radiusMm * Math.cos(centre) - q.x)];
      }
    }
    if (!next) return null;
    if (next === start) {
      // every corner of the hull can be touched from outside: one that was not belongs to another heap
      const touched = new Set(ring);
      return touched.size > 2 && touched.size === ring.length && convexHull([...seenOnce.values()]).every((p) => touched.has(p)) ? ring : null;
    }
    [before, here, turn] = [here, next, nextTurn];
    ring.push(next);
  }
  return null;
}

/** Turn of the axes (rad, under an eighth of a circle) at which the box round an outline is smallest: a side of its hull lies along the box. */
export function leastBoxTurn(outline: Polygon): number {
  const hull = convexHull(outline);
  let best = { area: Infinity, turn: 0 };
  hull.forEach((a, i) => {
    const b = hull[(i + 1) % hull.length]!;
    let turn = Math.atan2(b.y - a.y, b.x - a.x);
    turn -= (Math.PI / 2) * Math.round(turn / (Math.PI / 2));
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const xs = hull.map((p) => c * p.x + s * p.y);
    const ys = hull.map((p) => c * p.y - s * p.x);
    const area = (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys));
    if (area < best.area) best = { area, turn };
  });
  return best.turn;
}

/** Corners that stand out by less than this are left out; at most 300 stay. */
export function simplified(ring: Polygon, mm: number): Polygon {
  let out = ring;
  for (let limit = mm; ;) {
    const now = out;
    const keep = now.filter((p, i) => {
      if (i % 2 === 0) return true;
      const [a, b] = [now[(i + now.length - 1) % now.length]!, now[(i + 1) % now.length]!];
      const length = Math.hypot(b.x - a.x, b.y - a.y);
      return length < 1e-9 || Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / length > limit;
    });
    if (keep.length < 4) return now;
    if (keep.length === now.length && keep.length <= 300) return keep;
    if (keep.length === now.length) limit *= 1.5;
    out = keep;
  }
}
