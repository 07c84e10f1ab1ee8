import fc from 'fast-check';
import { addPacked, applyPacked, timesPacked } from './packed-rows.js';

const number = fc.double({ min: -10, max: 10, noNaN: true });
const matrix = fc
  .tuple(fc.integer({ min: 1, max: 11 }), fc.integer({ min: 1, max: 9 }))
  .chain(([rows, columns]) => fc.tuple(fc.array(fc.array(number, { minLength: columns, maxLength: columns }), { minLength: rows, maxLength: rows }), fc.array(number, { minLength: columns, maxLength: columns }), fc.array(fc.oneof(fc.constant(0), number), { minLength: rows, maxLength: rows }))); // prettier-ignore

test('four rows at a time come to what one row at a time does, whatever their number', () =>
  fc.assert(
    fc.property(matrix, ([m, v, f]) => {
      const rows = m.map((r) => Float64Array.from(r));
      const applied = applyPacked(rows, Float64Array.from(v));
      m.forEach((r, i) => expect(applied[i]).toBeCloseTo(r.reduce((s, x, k) => s + x * v[k]!, 0), 9)); // prettier-ignore
      const to = Float64Array.from(v);
      addPacked(to, f, rows, 1);
      v.forEach((x, k) => expect(to[k]).toBeCloseTo(k < 1 ? x : x + m.reduce((s, r, i) => s + f[i]! * r[k]!, 0), 9));
      expect(timesPacked(v, v)).toBeCloseTo(
        v.reduce((s, x) => s + x * x, 0),
        9,
      );
    }),
  ));
