/**
 * Film as a thin elastic sheet that lies on a shape, slides on it where it is not pressed yet, and carries tension only: it wrinkles rather than push.
 * What is sought is, for every place of the shape, which place of the flat film comes to lie there. Model: docs/models/stretch.md.
 */

/** Film that is not pressed keeps so much of its stiffness against being pushed together, as a share: wrinkles spread instead of gathering in one cell. @source house figure */
const WRINKLE_SHARE = 1e-3;

/** A shape as it is seen from where the film comes: heights over a grid of lines, mm. */
export interface StretchGrid {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
}
export const gridSize = ({ xs, ys }: StretchGrid): number => xs.length * ys.length;

/** Which place of the flat film lies at each node: u to the right, v up, mm; node `j·xs + i` for line `i` of x and `j` of y. */
export interface FilmMap {
  readonly u: Float64Array;
  readonly v: Float64Array;
}
/** Film laid down without a pull. */
export function laidFlat({ xs, ys }: StretchGrid): FilmMap {
  const [u, v] = [new Float64Array(xs.length * ys.length), new Float64Array(xs.length * ys.length)];
  ys.forEach((y, j) => xs.forEach((x, i) => ((u[j * xs.length + i] = x), (v[j * xs.length + i] = y)))); // prettier-ignore
  return { u, v };
}

/** What holds the film while it finds its state, of each node: 1 it stays where it is across, and upwards. Pressed on: both. */
export type Holds = readonly [across: Uint8Array, upwards: Uint8Array];

/** A triangle of the shape: its corners, its area mm², and what brings differences of film places to a gradient. */
interface Cell {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly areaMm2: number;
  readonly b11: number;
  readonly b12: number;
  readonly b22: number;
}

/** Two triangles for each mesh; the diagonal runs towards the nearer corner of the grid, so that a shape of two halves has a grid of two halves. */
function cellsOfShape({ xs, ys }: StretchGrid, z: Float64Array): Cell[] {
  const [nx, ny] = [xs.length, ys.length];
  const [midX, midY] = [(xs[0]! + xs[nx - 1]!) / 2, (ys[0]! + ys[ny - 1]!) / 2];
  const out: Cell[] = [];
  const add = (a: number, b: number, c: number) => {
    const [ax, ay] = [xs[a % nx]!, ys[Math.floor(a / nx)]!];
    const from = (n: number) => [xs[n % nx]! - ax, ys[Math.floor(n / nx)]! - ay, z[n]! - z[a]!] as const;
    const [[px, py, pz], [qx, qy, qz]] = [from(b), from(c)];
    const long = Math.hypot(px, py, pz);
    const along = (px * qx + py * qy + pz * qz) / long;
    const up = Math.sqrt(Math.max(1e-18, qx * qx + qy * qy + qz * qz - along * along));
    // flat in the triangle's own plane: (long, 0) and (along, up)
    out.push({ a, b, c, areaMm2: (long * up) / 2, b11: 1 / long, b12: -along / (long * up), b22: 1 / up });
  };
  for (let j = 0; j + 1 < ny; j++)
    for (let i = 0; i + 1 < nx; i++) {
      const [n00, n10, n01, n11] = [j * nx + i, j * nx + i + 1, (j + 1) * nx + i, (j + 1) * nx + i + 1];
      const isRising = (xs[i]! + xs[i + 1]!) / 2 > midX === (ys[j]! + ys[j + 1]!) / 2 > midY;
      add(n00, n10, isRising ? n11 : n01);
      add(isRising ? n00 : n10, n11, n01);
    }
  return out;
}

/** Energy of a square millimetre of shape (half the shear stiffness is 1) by how many millimetres of film lie on one, and its slopes. `least` ≤ `most`. */
function energyOf(least: number, most: number): readonly [energy: number, byLeast: number, byMost: number] {
  const both = least * most;
  const full = most / least + least / most + both * both * both - 3 * both;
  const fullByLeast = -most / (least * least) + 1 / most + 3 * both * both * most - 3 * most;
  const fullByMost = 1 / least - least / (most * most) + 3 * both * both * least - 3 * least;
  if (least >= 1) return [WRINKLE_SHARE * full, WRINKLE_SHARE * fullByLeast, WRINKLE_SHARE * fullByMost];
  if (most * most * least <= 1) return [full, fullByLeast, fullByMost];
  // pulled one way, loose the other: as wide as it likes
  const k = 1 - WRINKLE_SHARE;
  const pulled = 1 / least + 2 * least * least - 3 * least;
  return [
    k * most * pulled + WRINKLE_SHARE * full,
    k * most * (-1 / (least * least) + 4 * least - 3) + WRINKLE_SHARE * fullByLeast,
    k * pulled + WRINKLE_SHARE * fullByMost,
  ];
}

/** How many millimetres of film lie on one of shape, in the two directions in which that is least and most. Null: it is folded over. */
function filmPerMm({ a, b, c, b11, b12, b22 }: Cell, u: Float64Array, v: Float64Array) {
  const [du, eu, dv, ev] = [u[b]! - u[a]!, u[c]! - u[a]!, v[b]! - v[a]!, v[c]! - v[a]!];
  const [g11, g12, g21, g22] = [du * b11, du * b12 + eu * b22, dv * b11, dv * b12 + ev * b22];
  const [e, f, g, h] = [(g11 + g22) / 2, (g11 - g22) / 2, (g21 + g12) / 2, (g21 - g12) / 2];
  const [q, r] = [Math.hypot(e, h), Math.hypot(f, g)];
  return { least: q - r, most: q + r };
}

/** What a piece of film went through where it lies now. */
export interface CellStretch {
  /** By how much it is longer than it was where it is longest, as a share. */
  readonly stretchFrac: number;
  /** Film that is left over there across that, as a share of the shape: it wrinkles. */
  readonly leftOverFrac: number;
  readonly areaMm2: number;
  readonly xMm: number;
  readonly yMm: number;
  /** Its three corners as the shape is seen. */
  readonly corners: readonly { readonly x: number; readonly y: number }[];
}
export function stretchOf(grid: StretchGrid, z: Float64Array, { u, v }: FilmMap): CellStretch[] {
  const nx = grid.xs.length;
  return cellsOfShape(grid, z).map((cell) => {
    const { least, most } = filmPerMm(cell, u, v);
    // what is pulled grows narrower by itself: only what is more than that wrinkles
    const natural = least < 1 ? 1 / Math.sqrt(least) : 1;
    const corners = [cell.a, cell.b, cell.c].map((n) => ({ x: grid.xs[n % nx]!, y: grid.ys[Math.floor(n / nx)]! }));
    return {
      stretchFrac: Math.max(0, 1 / least - 1),
      leftOverFrac: Math.max(0, least > 1 ? least * most - 1 : (most - natural) * Math.min(1, least)),
      areaMm2: cell.areaMm2,
      xMm: corners.reduce((s, q) => s + q.x / 3, 0),
      yMm: corners.reduce((s, q) => s + q.y / 3, 0),
      corners,
    };
  });
}

const { abs, max, min, sqrt } = Math;

/** A symmetric band matrix as the lower triangle of its Cholesky factor, row by row. */
interface Band {
  readonly n: number;
  readonly half: number;
  readonly rows: Float64Array;
}
function factored(n: number, half: number, rows: Float64Array): Band {
  const w = half + 1;
  for (let i = 0; i < n; i++) {
    const first = max(0, i - half);
    for (let j = first; j <= i; j++) {
      let sum = rows[i * w + (j - i + half)]!;
      for (let k = max(first, j - half); k < j; k++) sum -= rows[i * w + (k - i + half)]! * rows[j * w + (k - j + half)]!;
      rows[i * w + (j - i + half)] = i === j ? sqrt(max(sum, 1e-12)) : sum / rows[j * w + half]!;
    }
  }
  return { n, half, rows };
}
function solveBand({ n, half, rows }: Band, x: Float64Array): void {
  const w = half + 1;
  for (let i = 0; i < n; i++) {
    let sum = x[i]!;
    for (let k = max(0, i - half); k < i; k++) sum -= rows[i * w + (k - i + half)]! * x[k]!;
    x[i] = sum / rows[i * w + half]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = x[i]!;
    for (let k = i + 1; k <= min(n - 1, i + half); k++) sum -= rows[k * w + (i - k + half)]! * x[k]!;
    x[i] = sum / rows[i * w + half]!;
  }
}

/** Steps are remembered so far back. */
const MEMORY = 8;
const MOST_STEPS = 300;
/** At rest where no node would go farther than this, mm, or than this share of the shape. */
const REST_MM = 1e-3;
const REST_FRAC = 1e-6;

/**
 * The state of least energy on a shape, from a state before. Changes `film` in place.
 * @param z height of each node, mm @returns whether it came to rest
 * @source energy: incompressible neo-Hookean membrane relaxed by tension-field theory (Pipkin 1986), per area of the shape; steps: limited-memory BFGS (Nocedal & Wright, algorithm 7.4) from the
 * sheet's own Laplacian as first guess of its stiffness
 */
export function relaxSheet(grid: StretchGrid, z: Float64Array, film: FilmMap, held: Holds): boolean {
  const [nx, n] = [grid.xs.length, gridSize(grid)];
  // what nobody can move says nothing
  const cells = cellsOfShape(grid, z).filter(({ a, b, c }) => [a, b, c].some((i) => !held[0][i] || !held[1][i]));
  const half = nx + 1;
  const stiffness = held.map((fixed) => {
    const rows = new Float64Array(n * (half + 1));
    const put = (i: number, j: number, by: number) => {
      if (i >= j && !fixed[i] && !fixed[j]) rows[i * (half + 1) + (j - i + half)]! += by;
    };
    for (const { a, b, c, areaMm2, b11, b12, b22 } of cells) {
      const slopes = [
        [-b11, -b12 - b22],
        [b11, b12],
        [0, b22],
      ] as const;
      const nodes = [a, b, c];
      nodes.forEach((i, s) => nodes.forEach((j, t) => put(i, j, 2 * areaMm2 * (slopes[s]![0] * slopes[t]![0] + slopes[s]![1] * slopes[t]![1]))));
    }
    for (let i = 0; i < n; i++) rows[i * (half + 1) + half] = fixed[i] ? 1 : rows[i * (half + 1) + half]! + 1e-6;
    return factored(n, half, rows);
  }) as [Band, Band];

  const pair = () => [new Float64Array(n), new Float64Array(n)] as const;
  const corners = Int32Array.from(cells.flatMap(({ a, b, c }) => [a, b, c]));
  const sizes = Float64Array.from(cells.flatMap(({ areaMm2, b11, b12, b22 }) => [areaMm2, b11, b12, b22]));
  /** Energy at a state; slopes into `out`. Infinite: folded over somewhere. */
  const energy = (u: Float64Array, v: Float64Array, [outU, outV]: readonly [Float64Array, Float64Array]): number => {
    let sum = 0;
    outU.fill(0);
    outV.fill(0);
    for (let k = 0, m = 0, end = cells.length; k < end; k++, m += 4) {
      const [a, b, c] = [corners[3 * k]!, corners[3 * k + 1]!, corners[3 * k + 2]!];
      const [area, b11, b12, b22] = [sizes[m]!, sizes[m + 1]!, sizes[m + 2]!, sizes[m + 3]!];
      const [du, eu, dv, ev] = [u[b]! - u[a]!, u[c]! - u[a]!, v[b]! - v[a]!, v[c]! - v[a]!];
      const [g11, g12, g21, g22] = [du * b11, du * b12 + eu * b22, dv * b11, dv * b12 + ev * b22];
      const [e, f, g, h] = [(g11 + g22) / 2, (g11 - g22) / 2, (g21 + g12) / 2, (g21 - g12) / 2];
      const [q, r] = [sqrt(e * e + h * h), sqrt(f * f + g * g)];
      if (q - r <= 1e-3) return Infinity;
      const [w, byLeast, byMost] = energyOf(q - r, q + r);
      sum += area * w;
      const [s, t] = [(area * (byMost + byLeast)) / 2 / q, r > 1e-12 ? (area * (byMost - byLeast)) / 2 / r : 0];
      const [d11, d12, d21, d22] = [s * e + t * f, -s * h + t * g, s * h + t * g, s * e - t * f];
      const [ub, uc, vb, vc] = [d11 * b11 + d12 * b12, d12 * b22, d21 * b11 + d22 * b12, d22 * b22];
      outU[a]! -= ub + uc;
      outU[b]! += ub;
      outU[c]! += uc;
      outV[a]! -= vb + vc;
      outV[b]! += vb;
      outV[c]! += vc;
    }
    for (let i = 0; i < n; i++) {
      if (held[0][i]) outU[i] = 0;
      if (held[1][i]) outV[i] = 0;
    }
    return sum;
  };
  const dot = (p: readonly [Float64Array, Float64Array], q: readonly [Float64Array, Float64Array]): number => {
    let sum = 0;
    for (const way of [0, 1] as const) for (let i = 0; i < n; i++) sum += p[way][i]! * q[way][i]!;
    return sum;
  };

  const { u, v } = film;
  const restMm = max(REST_MM, REST_FRAC * max(grid.xs.at(-1)! - grid.xs[0]!, grid.ys.at(-1)! - grid.ys[0]!));
  let [slope, next] = [pair(), pair()];
  let now = energy(u, v, slope);
  const past: { s: ReturnType<typeof pair>; y: ReturnType<typeof pair>; rho: number }[] = [];
  const [tryU, tryV] = pair();
  for (let step = 0; step < MOST_STEPS; step++) {
    const way = pair();
    for (const k of [0, 1] as const) way[k].set(slope[k]);
    const alphas = past.map(() => 0);
    for (let m = past.length - 1; m >= 0; m--) {
      const { s, y, rho } = past[m]!;
      const alpha = rho * dot(s, way);
      alphas[m] = alpha;
      for (const k of [0, 1] as const) for (let i = 0; i < n; i++) way[k][i]! -= alpha * y[k][i]!;
    }
    for (const k of [0, 1] as const) {
      solveBand(stiffness[k], way[k]);
      for (let i = 0; i < n; i++) if (held[k][i]) way[k][i] = 0;
    }
    past.forEach(({ s, y, rho }, m) => {
      const beta = rho * dot(y, way);
      for (const k of [0, 1] as const) for (let i = 0; i < n; i++) way[k][i]! += (alphas[m]! - beta) * s[k][i]!;
    });
    let farthest = 0;
    for (const k of [0, 1] as const) for (let i = 0; i < n; i++) farthest = max(farthest, abs(way[k][i]!));
    if (farthest < restMm) return true;
    const down = -dot(slope, way);
    if (down >= 0) {
      if (past.length === 0) return false;
      past.length = 0;
      continue;
    }
    let [size, found] = [1, false];
    for (let tries = 0; tries < 30; tries++, size /= 2) {
      for (let i = 0; i < n; i++) [tryU[i], tryV[i]] = [u[i]! - size * way[0][i]!, v[i]! - size * way[1][i]!];
      const then = energy(tryU, tryV, next);
      if (then <= now + 1e-4 * size * down) {
        now = then;
        found = true;
        break;
      }
    }
    if (!found) {
      if (past.length === 0) return size * farthest < restMm;
      past.length = 0;
      continue;
    }
    const [s, y] = [pair(), pair()];
    for (let i = 0; i < n; i++) [s[0][i], s[1][i]] = [tryU[i]! - u[i]!, tryV[i]! - v[i]!];
    for (const k of [0, 1] as const) for (let i = 0; i < n; i++) y[k][i] = next[k][i]! - slope[k][i]!;
    const curved = dot(s, y);
    if (curved > 1e-12) {
      past.push({ s, y, rho: 1 / curved });
      if (past.length > MEMORY) past.shift();
    }
    u.set(tryU);
    v.set(tryV);
    [slope, next] = [next, slope];
    if (size * farthest < restMm) return true;
  }
  return false;
}
