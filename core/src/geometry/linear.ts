import { CholeskyDecomposition, EigenvalueDecomposition, inverse, Matrix, SingularValueDecomposition } from 'ml-matrix';

/** The one door to the linear-algebra library: rows of numbers in, rows of numbers out. */
export type Rows = readonly (readonly number[])[];

const matrix = (rows: Rows): Matrix => new Matrix(rows.map((r) => [...r]));

/** Solves the symmetric positive definite system and gives the inverse and ln det too (Cholesky). @throws when not positive definite */
export function solveSymmetric(rows: Rows, right: readonly number[]): { solution: number[]; inverse: number[][]; lnDeterminant: number } {
  // rounding leaves the two halves a last bit apart, which the library refuses
  const cholesky = new CholeskyDecomposition(matrix(rows.map((row, i) => row.map((v, j) => (v + rows[j]![i]!) / 2))));
  if (!cholesky.isPositiveDefinite()) throw new RangeError('The readings do not determine the shape.');
  const lower = cholesky.lowerTriangularMatrix;
  let lnDeterminant = 0;
  for (let i = 0; i < rows.length; i++) lnDeterminant += 2 * Math.log(lower.get(i, i));
  return {
    solution: cholesky.solve(Matrix.columnVector([...right])).to1DArray(),
    inverse: cholesky.solve(Matrix.eye(rows.length)).to2DArray(),
    lnDeterminant,
  };
}

/** Numerical rank: singular values above 1e-9 of the largest. */
export function rankOf(rows: Rows): number {
  if (rows.length === 0) return 0;
  const values = new SingularValueDecomposition(matrix(rows), { autoTranspose: true }).diagonal;
  return values.filter((v) => v > 1e-9 * Math.max(...values)).length;
}

export const transposeTimes = (a: Rows, weights: readonly number[], b: Rows): number[][] => {
  const columns = a[0]?.length ?? 0;
  const width = b[0]?.length ?? 0;
  const out = Array.from({ length: columns }, () => new Array<number>(width).fill(0));
  a.forEach((row, r) => row.forEach((v, i) => b[r]!.forEach((w, j) => (out[i]![j]! += weights[r]! * v * w))));
  return out;
};

/** Inverse of a square matrix (LU). @throws when it is singular */
export const invertSquare = (rows: Rows): number[][] => inverse(matrix(rows)).to2DArray();

/** Unit axes of a symmetric matrix, that of the largest value first. */
export function symmetricAxes(rows: Rows): number[][] {
  const { eigenvectorMatrix, realEigenvalues } = new EigenvalueDecomposition(matrix(rows), { assumeSymmetric: true });
  const order = realEigenvalues.map((value, i) => ({ value, i })).sort((a, b) => b.value - a.value);
  return order.map(({ i }) => eigenvectorMatrix.getColumn(i));
}
