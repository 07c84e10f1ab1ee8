import fc from 'fast-check';
import { defaultAcceptance as rule, holdToRule, isCounted, type Flaw } from './acceptance.js';

const speck = (id: string, xMm: number, sizeMm: number | null, more: Partial<Flaw> = {}): Flaw => ({
  id,
  kind: 'speck',
  sizeMm,
  at: { xMm, yMm: 500 },
  edgeMm: 400,
  isSeenFromThere: null,
  ...more,
});
const verdicts = (flaws: Flaw[], areaM2 = 1) => holdToRule(flaws, areaM2, rule, 'mm').map((r) => r.verdict);

describe('what a firm lets pass', () => {
  test('one speck of a millimetre on a square metre stays, one of two does not; half a millimetre is not counted', () => {
    expect(verdicts([speck('a', 0, 1)])).toEqual(['within']);
    expect(verdicts([speck('a', 0, 2)])).toEqual(['beyond']);
    expect(verdicts([speck('a', 0, 0.4)])).toEqual(['unseen']);
    // at the limits themselves it counts, and it passes
    expect(verdicts([speck('a', 0, 0.5)])).toEqual(['within']);
    expect(verdicts([speck('a', 0, 1.5)])).toEqual(['within']);
  });
  test('not seen from two metres is a verdict too, whatever its size; seen from there takes nothing off', () => {
    expect(verdicts([speck('a', 0, 8, { isSeenFromThere: false })])).toEqual(['unseen']);
    expect(verdicts([speck('a', 0, 8, { isSeenFromThere: true })])).toEqual(['beyond']);
    expect(verdicts([speck('a', 0, null, { isSeenFromThere: false })])).toEqual(['unseen']);
  });
  test('what nobody measured is asked for, not judged', () => expect(verdicts([speck('a', 0, null)])).toEqual(['measure']));
  test('along the edge twice as large and twice as many pass', () => {
    expect(verdicts([speck('a', 0, 2.5, { edgeMm: 49 })])).toEqual(['within']);
    expect(verdicts([speck('a', 0, 2.5, { edgeMm: 50 })])).toEqual(['beyond']);
    const row = (n: number, edgeMm: number) => Array.from({ length: n }, (_, i) => speck(`${i}`, 400 * i, 1, { edgeMm }));
    expect(new Set(verdicts(row(6, 10)))).toEqual(new Set(['within']));
    expect(new Set(verdicts(row(7, 10)))).toEqual(new Set(['beyond']));
    // those at the edge do not count against those in the field
    expect(new Set(verdicts([...row(3, 400), ...row(6, 10).map((f) => ({ ...f, id: `e${f.id}`, at: { xMm: f.at.xMm, yMm: 2000 } }))]))).toEqual(
      new Set(['within']),
    );
  });
  test('three on a square metre pass, the fourth brings all of them beyond; on a small pane one is let pass', () => {
    const many = (n: number) => Array.from({ length: n }, (_, i) => speck(`${i}`, 400 * i, 1));
    expect(verdicts(many(3))).toEqual(['within', 'within', 'within']);
    expect(verdicts(many(4))).toEqual(Array(4).fill('beyond'));
    expect(verdicts(many(1), 0.2)).toEqual(['within']);
    expect(verdicts(many(2), 0.2)).toEqual(['beyond', 'beyond']);
    expect(verdicts(many(7), 2.34)).toEqual(Array(7).fill('within'));
  });
  test('two of a millimetre a hand apart are seen as one of two; 300 mm apart they are two', () => {
    expect(verdicts([speck('a', 0, 1), speck('b', 200, 1)])).toEqual(['beyond', 'beyond']);
    expect(verdicts([speck('a', 0, 1), speck('b', 300, 1)])).toEqual(['within', 'within']);
    // two small ones together are still within
    expect(verdicts([speck('a', 0, 0.7), speck('b', 100, 0.7)])).toEqual(['within', 'within']);
    // one that is not seen does not make another worse
    expect(verdicts([speck('a', 0, 1), speck('b', 100, 1, { isSeenFromThere: false })])).toEqual(['within', 'unseen']);
  });
  test('hairs and scratches are held to a length', () => {
    expect(verdicts([speck('a', 0, 9, { kind: 'hair' })])).toEqual(['within']);
    expect(verdicts([speck('a', 0, 12, { kind: 'scratch' })])).toEqual(['beyond']);
  });
  test('of water, creases and cracks the rule says nothing', () => {
    expect(verdicts([speck('a', 0, 3, { kind: 'pockets' }), speck('b', 0, 3, { kind: 'crease' })])).toEqual([]);
    expect([isCounted('speck'), isCounted('crack')]).toEqual([true, false]);
  });
  test('says why in the units of the job', () => {
    const why = (flaws: Flaw[], units: 'mm' | 'in') => holdToRule(flaws, 1.2, rule, units)[0]!.why;
    expect(why([speck('a', 0, 2)], 'mm')).toBe('2.0 mm; the rule lets 1.5 mm pass here.');
    expect(why([speck('a', 0, 2)], 'in').replaceAll('\u00a0', ' ')).toBe('3/32"; the rule lets 1/16" pass here.');
    expect(why([speck('a', 0, 1, { isSeenFromThere: false })], 'mm')).toBe('Not seen from 2 m: it stays.');
    expect(
      why(
        Array.from({ length: 5 }, (_, i) => speck(`${i}`, 400 * i, 1)),
        'mm',
      ),
    ).toBe('5 on 1.20 m²; the rule lets 3 pass in the field.');
  });
  test('a larger flaw never gets a milder verdict, and one more never makes it milder for the others', () =>
    fc.assert(
      fc.property(
        fc.array(fc.record({ x: fc.integer({ min: 0, max: 2000 }), mm: fc.double({ min: 0.2, max: 3, noNaN: true }) }), { minLength: 1, maxLength: 6 }),
        (list) => {
          const rank = { unseen: 0, within: 1, measure: 1, beyond: 2 };
          const flaws = list.map((f, i) => speck(`${i}`, f.x, f.mm));
          const before = verdicts(flaws);
          const larger = verdicts(flaws.map((f, i) => (i === 0 ? { ...f, sizeMm: f.sizeMm! + 1 } : f)));
          const more = verdicts([...flaws, speck('more', 1000, 1)]);
          before.forEach((v, i) => {
            expect(rank[larger[i]!]).toBeGreaterThanOrEqual(rank[v]);
            expect(rank[more[i]!]).toBeGreaterThanOrEqual(rank[v]);
          });
        },
      ),
    ));
});
