import { factorPacked, squareInverter } from './cholesky.js';
import { solveSymmetric } from './linear.js';
import { seededRandom } from '../ground/index.js';

test('the packed Cholesky says what the general library says: solution, inverse and ln det of 30 random systems', () => {
  const random = seededRandom(7);
  for (let n = 1; n <= 30; n++) {
    const a = Array.from({ length: n + 2 }, () => Array.from({ length: n }, () => random() - 0.5));
    const rows = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (__, j) => a.reduce((s, r) => s + r[i]! * r[j]!, i === j ? 0.1 : 0)));
    const right = Array.from({ length: n }, () => random());
    const small = squareInverter(n)(Float64Array.from(rows.flat()));
    const [own, theirs] = [factorPacked(rows.map((r) => Float64Array.from(r))), solveSymmetric(rows, right)];
    expect(own.lnDeterminant).toBeCloseTo(theirs.lnDeterminant, 8);
    own.solve(right).forEach((v, i) => expect(v).toBeCloseTo(theirs.solution[i]!, 7));
    expect(small.lnDeterminant).toBeCloseTo(theirs.lnDeterminant, 8);
    theirs.inverse.flat().forEach((v, i) => expect(small.inverse[i]!).toBeCloseTo(v, 6));
    own.inverse().forEach((r, i) => r.forEach((v, j) => expect(v).toBeCloseTo(theirs.inverse[i]![j]!, 6)));
  }
});

test('what is not positive definite is refused', () => {
  expect(() => factorPacked([Float64Array.of(1, 2), Float64Array.of(2, 1)])).toThrow('do not determine');
});
