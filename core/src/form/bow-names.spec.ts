import type { BowPlace } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { bowName, bowPlaceOf } from './bow-names.js';
import { bowPlaceWords } from './plan-words.js';

const tenth = (min: number, max: number) => fc.integer({ min: 10 * min, max: 10 * max }).map((v) => v / 10);
const place = fc.record({
  way: fc.constantFrom('across' as const, 'upright' as const, 'down' as const, 'up' as const),
  atMm: tenth(-200, 3000),
  span: fc.option(fc.record({ fromMm: tenth(0, 2000), lengthMm: tenth(1, 900) })),
});

test('a place of a straightedge is written and read again as the same', () =>
  fc.assert(
    fc.property(place, (p) => {
      const is: BowPlace = { ...p, atMm: p.way === 'down' || p.way === 'up' ? 0 : p.atMm };
      expect(bowPlaceOf(bowName(is))).toEqual(is);
    }),
  ));

test('it reads as a person would write it, and what is no bow is none', () => {
  expect(bowName({ way: 'upright', atMm: 660, span: { fromMm: 309, lengthMm: 260 } })).toBe('bow upright 660 from 309 long 260');
  expect(bowName({ way: 'down', atMm: 0, span: null })).toBe('bow down');
  for (const text of ['widthTop', 'bow', 'bow across', 'bow down 20', 'bow across 20 from 5 long 0', 'bow across 20 from 5', 'bow slanted 20']) expect(bowPlaceOf(text)).toBeNull(); // prettier-ignore
});

test('and told to whoever lays it: where it goes, how long it is, where it begins', () => {
  const words = (way: BowPlace['way'], atMm: number, from?: number, long = 260) => bowPlaceWords({ way, atMm, span: from === undefined ? null : { fromMm: from, lengthMm: long } }, 'mm'); // prettier-ignore
  expect(words('across', 295)).toBe('across, 295 mm above the lower corners');
  expect(words('upright', 660, 309)).toBe('upright, 660 mm from the left corner, a straightedge of 260 mm begun 309 mm above the lower edge');
  expect(words('upright', 410, 0, 140)).toBe('upright, 410 mm from the left corner, a straightedge of 140 mm stood on the lower edge');
  expect(words('across', 145, 0, 200)).toBe('across, 145 mm above the lower corners, a straightedge of 200 mm begun at the left edge');
  expect(words('up', 0)).toBe('along the diagonal from the lower left to the upper right');
});
