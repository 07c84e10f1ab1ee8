import fc from 'fast-check';
import { coordinateWords, parseCoordinates } from './coordinates.js';

const at = (text: string) => {
  const read = parseCoordinates(text);
  if (!read.ok) throw new Error(read.message);
  return [read.value.latDeg, read.value.lonDeg];
};
const why = (text: string) => {
  const read = parseCoordinates(text);
  return read.ok ? '' : read.message;
};

describe('coordinates as people paste them', () => {
  test.each([
    ['53.546, 8.58', 53.546, 8.58],
    ['53.546 8.58', 53.546, 8.58],
    ['53.546,8.58', 53.546, 8.58],
    ['53,546 8,58', 53.546, 8.58],
    ['(53.546, 8.58)', 53.546, 8.58],
    ['53,546; 8,58', 53.546, 8.58],
    ['-33.86, 151.2', -33.86, 151.2],
    ['−33.86, −70.5', -33.86, -70.5],
    ['53°32′45.6″N 8°34′48″E', 53.546, 8.58],
    ['53° 32\' 45.6" N, 8° 34\' 48" E', 53.546, 8.58],
    ["N 53° 32.76' E 8° 34.8'", 53.546, 8.58],
    ['8.58 E, 53.546 N', 53.546, 8.58],
    ['70.5 W 33.86 S', -33.86, -70.5],
    ['33.86, 70.5 W', 33.86, -70.5],
    ['70.5 W, 33.86', 33.86, -70.5],
    ['33°51′36″S 70°30′0″W', -33.86, -70.5],
  ])('%s', (text, lat, lon) => {
    expect(at(text)[0]).toBeCloseTo(lat, 6);
    expect(at(text)[1]).toBeCloseTo(lon, 6);
  });
  test('what is no pair is refused with how to write one', () => {
    for (const text of [
      '',
      'Quay 3',
      '53.546',
      '53.546, 8.58, 12',
      '53.546 N 8.58 N',
      '53,5',
      '91, 8',
      '53, 181',
      "53°61'N 8°E",
      '-53 S, 8 E',
      '53.546 here 8.58',
      '8 E, 9 W',
      '53.546 N 8.58 O',
    ]) {
      expect(why(text)).toContain('Paste a pair as a map gives it');
    }
    expect(why('91, 8')).toContain('end at 90°');
    // Ost, and ouest: a shop in one country would get the sun of another
    expect(why('53.546 N 8.58 O')).toContain('O is east in one language and west in another');
    expect(why('53.546 N 8.58 N')).toContain('Both of these are north and south, or both east and west');
    expect(why('8 E, 9 W')).toContain('Both of these');
    expect(why("53°61'N 8°E")).toContain('end at 60');
  });
  test('told in words a person knows', () => expect(coordinateWords({ latDeg: -33.86, lonDeg: 8.58 })).toBe('33.860° south, 8.580° east'));
  test('any place written either way is read as the same place', () =>
    fc.assert(
      fc.property(fc.double({ min: -89.9, max: 89.9, noNaN: true }), fc.double({ min: -179.9, max: 179.9, noNaN: true }), (lat, lon) => {
        const dms = (v: number, plus: string, minus: string) => {
          const s = Math.round(Math.abs(v) * 3600);
          return `${Math.floor(s / 3600)}°${Math.floor((s % 3600) / 60)}′${s % 60}″${v < 0 ? minus : plus}`;
        };
        const [a, b] = at(`${dms(lat, 'N', 'S')} ${dms(lon, 'E', 'W')}`);
        expect(Math.abs(a! - lat)).toBeLessThan(0.0002);
        expect(Math.abs(b! - lon)).toBeLessThan(0.0002);
        const [c, d] = at(`${lat.toFixed(5)}, ${lon.toFixed(5)}`);
        expect([Math.abs(c! - lat) < 1e-5, Math.abs(d! - lon) < 1e-5]).toEqual([true, true]);
      }),
    ));
});

test('a place is told with its half of the earth, and the equator and Greenwich are north and east; the poles and the date line are places too', () => {
  const words = (latDeg: number, lonDeg: number) => coordinateWords({ latDeg, lonDeg });
  expect(words(-33.8568, 151.2153)).toBe('33.857° south, 151.215° east');
  expect(words(38.6, -9.1)).toBe('38.600° north, 9.100° west');
  expect(words(0, 0)).toBe('0.000° north, 0.000° east');
  expect([parseCoordinates('90, 180').ok, parseCoordinates('-90, -180').ok, parseCoordinates('90.01, 0').ok, parseCoordinates('0, 180.01').ok]).toEqual([
    true,
    true,
    false,
    false,
  ]);
});
