// Plain variables throughout: a pair taken out of a list makes a list, and these loops are run through before any compiler has looked at them.

/** A matrix as rows of packed numbers. */
export type PackedRows = readonly Float64Array[];

/** Rows of nothing, one beside the other in one piece of memory. */
export function packedRows(count: number, length = count): Float64Array[] {
  const all = new Float64Array(count * length);
  return Array.from({ length: count }, (_, i) => all.subarray(i * length, (i + 1) * length));
}

/** a + factor × b, for rows of the same size. */
export function sumPacked(a: PackedRows, b: PackedRows, factor: number): Float64Array[] {
  const out = packedRows(a.length, a[0]?.length ?? 0);
  for (let i = 0; i < out.length; i++) {
    const to = out[i]!;
    const from = a[i]!;
    const other = b[i]!;
    for (let j = 0; j < to.length; j++) to[j] = from[j]! + factor * other[j]!;
  }
  return out;
}

export function timesPacked(a: ArrayLike<number>, b: ArrayLike<number>): number {
  let s = 0;
  for (let i = 0; i < a.length; i++) s += a[i]! * b[i]!;
  return s;
}

/** Rows times a vector, four rows at a time: each number of the vector is fetched once for four products. */
export function applyPacked(rows: PackedRows, v: Float64Array): Float64Array {
  const out = new Float64Array(rows.length);
  let i = 0;
  for (; i + 3 < rows.length; i += 4) {
    const a = rows[i]!;
    const b = rows[i + 1]!;
    const c = rows[i + 2]!;
    const d = rows[i + 3]!;
    let s = 0;
    let t = 0;
    let u = 0;
    let w = 0;
    for (let k = 0; k < v.length; k++) {
      const x = v[k]!;
      s += x * a[k]!;
      t += x * b[k]!;
      u += x * c[k]!;
      w += x * d[k]!;
    }
    out[i] = s;
    out[i + 1] = t;
    out[i + 2] = u;
    out[i + 3] = w;
  }
  for (; i < rows.length; i++) out[i] = timesPacked(rows[i]!, v);
  return out;
}

/** Rows that count; used again by every sum. */
let places = new Int32Array(256);

/** to += Σ factor × row from a place on, four rows at a time; rows with the factor 0 are passed over. */
export function addPacked(to: Float64Array, factors: ArrayLike<number>, rows: PackedRows, from = 0): void {
  const n = to.length;
  if (places.length < rows.length) places = new Int32Array(2 * rows.length);
  let count = 0;
  for (let k = 0; k < rows.length; k++) if (factors[k] !== 0) places[count++] = k;
  let i = 0;
  for (; i + 3 < count; i += 4) {
    const f = factors[places[i]!]!;
    const g = factors[places[i + 1]!]!;
    const h = factors[places[i + 2]!]!;
    const l = factors[places[i + 3]!]!;
    const a = rows[places[i]!]!;
    const b = rows[places[i + 1]!]!;
    const c = rows[places[i + 2]!]!;
    const d = rows[places[i + 3]!]!;
    for (let j = from; j < n; j++) to[j]! += f * a[j]! + g * b[j]! + h * c[j]! + l * d[j]!;
  }
  for (; i < count; i++) {
    const f = factors[places[i]!]!;
    const a = rows[places[i]!]!;
    for (let j = from; j < n; j++) to[j]! += f * a[j]!;
  }
}
