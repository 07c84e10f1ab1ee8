/**
 * Solves a system in which each unknown is tied to its neighbours only: lower[i] x[i−1] + diagonal[i] x[i] + upper[i] x[i+1] = right[i]. The first of `lower` and the
 * last of `upper` tie nothing and are not read.
 * @returns the unknowns; where the diagonal does not outweigh its neighbours they may be worth nothing
 * @source Thomas's algorithm: elimination forwards and back; Golub & Van Loan, Matrix Computations, 4.3 (from memory)
 */
export function solveThreeBand(lower: readonly number[], diagonal: readonly number[], upper: readonly number[], right: readonly number[]): number[] {
  const n = diagonal.length;
  const over: number[] = [];
  const x: number[] = [];
  for (let i = 0; i < n; i++) {
    const own = diagonal[i]! - (i === 0 ? 0 : lower[i]! * over[i - 1]!);
    over.push(i === n - 1 ? 0 : upper[i]! / own);
    x.push((right[i]! - (i === 0 ? 0 : lower[i]! * x[i - 1]!)) / own);
  }
  for (let i = n - 2; i >= 0; i--) x[i]! -= over[i]! * x[i + 1]!;
  return x;
}
