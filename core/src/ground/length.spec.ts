import fc from 'fast-check';
import {
  formatDoubt,
  formatFine,
  formatInches,
  formatLength,
  formatLong,
  formatRough,
  formatRoughRange,
  grainsDown,
  grainsUp,
  GRAINS_PER_MM,
  parseLength,
  parseOffset,
} from './length.js';

const mm = (text: string, system: 'mm' | 'in' = 'mm') => {
  const read = parseLength(text, system);
  if (!read.ok) throw new Error(read.message);
  return read.value.lengthMm;
};

describe('reading a length as an installer writes it', () => {
  // @source international yard and pound agreement 1959: 1 in = 25.4 mm exactly
  test.each([
    [`1' 6 1/2"`, 469.9],
    [`4' 2 1/16"`, 50.0625 * 25.4],
    ['35 5/8', 35.625 * 25.4],
    ['35-5/8"', 35.625 * 25.4],
    ['902.5', 902.5],
    ['902,5', 902.5],
    ['90.25cm', 902.5],
    ['1.5 m', 1500],
    ['7/16"', 11.1125],
    ['5 ft', 1524],
    [`60''`, 1524],
    [`35 5⁄8"`, 35.625 * 25.4],
    [`35⅝"`, 35.625 * 25.4],
    ['35 ⅝', 35.625 * 25.4],
    ['¾"', 19.05],
    [`3'-4"`, 40 * 25.4],
    [`3' - 4 1/2"`, 40.5 * 25.4],
    ['17/16"', 17 * 1.5875],
    ['1.200 m', 1200],
    ['1,200 m', 1200],
    ['902.125', 902.125],
    ['0.125"', 3.175],
  ])('%s is %d mm', (text, expected) => expect(mm(text)).toBeCloseTo(expected, 9));

  test('the unit system only decides what a bare number means', () => {
    expect(mm('24', 'in')).toBeCloseTo(609.6, 9);
    expect(mm('24', 'mm')).toBe(24);
    expect(mm('24 mm', 'in')).toBe(24);
    expect(mm('24"', 'mm')).toBeCloseTo(609.6, 9);
  });

  test('2,400 in an inch job is asked about, not read as 61 mm; 2.400 there is a decimal', () => {
    const read = parseLength('2,400', 'in');
    expect(!read.ok && read.message).toBe('Is “2,400” 2400 in or 2.4 in? Write 2400, or 2.4.');
    expect(mm('2.400', 'in')).toBeCloseTo(60.96, 9);
  });

  test('a comma before three figures that can only be one length is that length, without a question', () => {
    // 0,450 m is nobody's 450 mm; 2,400 m and 250,000 mm would be longer than any pane, so their comma is a decimal
    expect(mm('0,450')).toBe(0.45);
    expect(mm('250,000')).toBe(250);
    expect(mm('100.001')).toBe(100.001);
    expect(mm('99,500 in', 'mm')).toBeCloseTo(99.5 * 25.4, 9);
    expect(parseLength('3,900 in', 'mm').ok).toBe(false);
    // the question is asked up to 100 m and at 100 m itself
    expect([parseLength('100,000', 'mm').ok, parseLength('100.000', 'mm').ok]).toEqual([false, false]);
    expect(mm('1,2345')).toBe(1.2345);
    expect(parseLength('2.400 mm', 'in').ok).toBe(false);
  });
  test('100 m are a length, a hair more is a slip in the unit', () => {
    expect(mm('100 m')).toBe(100_000);
    expect(parseLength('100.1 m', 'mm').ok).toBe(false);
  });
  test('every spelling of inch and foot, and 11 inches behind a foot', () => {
    expect(['2 in', '2 inch', '2 inches', '2"', '2″', '2”', `2''`, '2 IN'].map((t) => mm(t))).toEqual(Array(8).fill(50.8));
    expect(['1 ft', '1 foot', '1 feet', `1'`, '1′', '1’'].map((t) => mm(t))).toEqual(Array(6).fill(304.8));
    expect(mm(`3' 11"`)).toBeCloseTo(47 * 25.4, 9);
    expect(mm('3 ft - 11')).toBeCloseTo(47 * 25.4, 9);
  });
  test('two feet behind one another, or a foot behind an inch, are two lengths', () =>
    expect([`3' 2'`, `3" 2'`, `3" 2"`, '3 mm 2"'].map((t) => parseLength(t, 'mm').ok)).toEqual([false, false, false, false]));
  test('a bare fraction is inches even on a metric bench', () => expect(mm('18 1/2', 'mm')).toBeCloseTo(469.9, 9));

  test.each([
    ['', 'Type a length'],
    ['wide', 'does not read'],
    ['58 1/', 'fraction is not whole'],
    ['3 1/0"', '0 below the fraction line'],
    ['600 700', 'holds two lengths'],
    ['-5', 'does not read'],
    [`3' 13"`, 'another foot'],
    [`3' 12"`, 'another foot'],
    ['35 17/16"', 'whole inch or more'],
    ['35-16/16"', 'whole inch or more'],
    ['1,200', 'Is “1,200” 1200 mm or 1.2 mm?'],
    ['1.200', 'Is “1.200” 1200 mm or 1.2 mm?'],
    ['12,500 mm', '12500 mm or 12.5 mm'],
    ['2,400"', '2400 in or 2.4 in'],
    ['200 m', 'more than 100 m'],
  ])('“%s” is refused with a sentence', (text, part) => {
    const read = parseLength(text, 'mm');
    expect(read.ok).toBe(false);
    expect(!read.ok && read.message).toContain(part);
  });

  test('a gap under a straightedge may be negative', () => {
    const read = parseOffset('−3', 'mm');
    expect(read.ok && read.value.lengthMm).toBe(-3);
    // exact to the fraction, with the sign: the record keeps this one
    const inches = parseOffset('-3/16"', 'mm');
    expect(inches.ok && [inches.value.lengthMm, Number(inches.value.exactMm.n) / Number(inches.value.exactMm.d)]).toEqual([-4.7625, -4.7625]);
    expect([parseOffset('+ 3', 'mm'), parseOffset('3', 'mm')].map((r) => r.ok && r.value.lengthMm)).toEqual([3, 3]);
    expect(parseOffset('--3', 'mm').ok).toBe(false);
  });
});

describe('showing a length', () => {
  // CHECKS: 610 mm = 24", 470 mm = 18 1/2", 902.5 mm = 35 9/16" (not 35 1/2), to the nearest 1/16
  test.each([
    [610, '24"'],
    [470, '18 1/2"'],
    [902.5, '35 9/16"'],
    [25.39, '1"'],
    [304.79, '12"'],
    [0.2, '0"'],
    [1.6, '1/16"'],
  ])('%d mm is %s', (length, text) => expect(formatInches(length)).toBe(text));

  test('16/16 carries to the inch and 12 inches to the foot', () => {
    expect(formatInches(11.99 * 25.4)).toBe('12"');
    expect(formatInches(11.99 * 25.4, { feet: true })).toBe(`1' 0"`);
  });

  test('whatever is shown in sixteenths reads back to the same sixteenth', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40_000 }), (sixteenths) => {
        const length = (sixteenths * 25.4) / 16;
        expect(mm(formatInches(length), 'in')).toBeCloseTo(length, 9);
      }),
    ));

  // the trade's own pairs, in both units (common practice)
  test.each([
    [6, '1/4"'],
    [10, '3/8"'],
    [13, '1/2"'],
    [20, '3/4"'],
    [25, '1"'],
    [50, '2"'],
    [150, '6"'],
    [180, '7"'],
    [200, '8"'],
    [300, '12"'],
    [450, '18"'],
  ])('%d mm as a rule of thumb are %s', (length, text) => expect([formatRough(length, 'in'), formatRough(length, 'mm')]).toEqual([text, `${length} mm`]));
  test('from one length to another, and what is finer than a tape: thirty-seconds, never a doubt below one of them', () => {
    expect([formatRoughRange(25, 50, 'in'), formatRoughRange(25, 50, 'mm')]).toEqual(['1" to 2"', '25 to 50 mm']);
    expect([formatFine(4.8, 'in'), formatFine(4.76, 'mm'), formatFine(-3.04, 'mm')]).toEqual(['3/16"', '4.8 mm', '−3.0 mm']);
    expect([formatFine(-0.02, 'in'), formatFine(-0.02, 'mm')]).toEqual(['0"', '0.0 mm']);
    expect([formatDoubt(0.2, 'in'), formatDoubt(0.2, 'mm')]).toEqual(['1/32"', '0.2 mm']);
    expect([formatLong(3000, 'in'), formatLong(3000, 'mm')]).toEqual([`9' 10"`, '3.00 m']);
  });
  test('a minus stands before what is left after rounding, and not before nothing', () => {
    expect([formatInches(-0.5), formatInches(-1.6), formatInches(-25.4 * 1.5)]).toEqual(['0"', '−1/16"', '−1 1/2"']);
    expect([formatLength(-3, 'mm'), formatLength(-38.1, 'in')]).toEqual(['−3', '−1 1/2"']);
  });
  test('a rule of thumb gets coarser as it grows: nobody holds a gun 6 1/8" off', () =>
    // either side of each mark: below 1/2" sixteenths, below 2" eighths, below 4" quarters, below 10" halves, then whole inches
    expect([12.6, 12.7, 50.7, 50.8, 101.5, 101.6, 253.9, 254, 157].map((l) => formatRough(l, 'in').replaceAll('\u00a0', ' '))).toEqual([
      '1/2"',
      '1/2"',
      '2"',
      '2"',
      '4"',
      '4"',
      '10"',
      '10"',
      '6"',
    ]));
  test('metric lengths are whole millimetres', () => expect(formatLength(902.5, 'mm')).toBe('903'));
});

describe('grains of 1/320 mm', () => {
  test('1 mm and 1/64 in are both whole numbers of grains', () => {
    expect(GRAINS_PER_MM * 1).toBe(320);
    expect((25.4 / 64) * GRAINS_PER_MM).toBeCloseTo(127, 9);
    expect(grainsUp(25.4 / 64)).toBe(127);
    expect(grainsDown(25.4 / 64)).toBe(127);
  });

  test('pieces never get smaller and rolls never longer by rounding', () =>
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5000, noNaN: true }), (length) => {
        expect(grainsUp(length) / 320).toBeGreaterThanOrEqual(length - 1e-8);
        expect(grainsDown(length) / 320).toBeLessThanOrEqual(length + 1e-8);
      }),
    ));
});

describe('a reading keeps what was typed and the system it was meant in', () => {
  const n = fc.integer({ min: 0, max: 4000 });
  const typed = fc.oneof(
    n.map(String),
    fc.tuple(n, fc.constantFrom('.', ','), fc.integer({ min: 0, max: 99 })).map(([a, mark, b]) => `${a}${mark}${b}`),
    fc
      .tuple(n, fc.constantFrom(' ', '-'), fc.integer({ min: 1, max: 15 }), fc.constantFrom('', '"', ' in'))
      .map(([a, gap, b, unit]) => `${a % 300}${gap}${b}/16${unit}`),
    fc.integer({ min: 1, max: 15 }).map((b) => `${b}/16`),
    fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 0, max: 11 })).map(([a, b]) => `${a}' ${b}`),
    fc.tuple(n, fc.constantFrom(' mm', 'cm', ' m', ' in', ' ft')).map(([a, unit]) => `${a}${unit}`),
    n.map((a) => `${(a / 10).toFixed(1)} mm`),
  );
  test('both together give the same length again, whatever the job is taped in: no honest tape is refused as another length than was typed', () =>
    fc.assert(
      fc.property(typed, fc.constantFrom('mm' as const, 'in' as const), fc.constantFrom('', '-'), (text, system, sign) => {
        const first = sign ? parseOffset(sign + text, system) : parseLength(text, system);
        fc.pre(first.ok);
        const again = parseOffset(sign + text, first.value.unit);
        expect(again.ok && again.value).toMatchObject({ lengthMm: first.value.lengthMm, unit: first.value.unit });
      }),
      { numRuns: 2000 },
    ));
});
