/** A place on earth, degrees: north and east positive. */
export interface Coordinates {
  readonly latDeg: number;
  readonly lonDeg: number;
}

export type ReadCoordinates = { readonly ok: true; readonly value: Coordinates } | { readonly ok: false; readonly message: string };

const HOW = 'Paste a pair as a map gives it: 53.546, 8.58 or 53°32′46″N 8°34′48″E.';

/** One figure with its parts: degrees, minutes, seconds, and a letter before or behind. */
const PART =
  /([NSEWO])?\s*([+\-−–]?\d+(?:[.,]\d+)?)\s*(?:°|º|deg)?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:['′’]|min)\s*)?(?:(\d+(?:[.,]\d+)?)\s*(?:["″”]|''|′′|sec)\s*)?([NSEWO])?/giu;

const figure = (text: string | undefined): number => (text === undefined ? 0 : Number(text.replace(',', '.').replace(/[−–]/, '-')));

/**
 * A pair of coordinates as people paste it: degrees with a point, degrees and minutes, or degrees, minutes and seconds, with or without letters of the compass.
 * Without letters the first is north or south, as maps write it. Seconds may not reach 60.
 */
export function parseCoordinates(text: string): ReadCoordinates {
  const wrong = (message: string): ReadCoordinates => ({ ok: false, message: `${message} ${HOW}` });
  // "53,546; 8,58": a semicolon parts the two, so that commas may be decimal; otherwise one comma does, but "53,5" is one figure and not two
  const plain = text.trim().replace(/[()]/g, '');
  const halves = plain.includes(';') ? plain.split(';') : /^[^,]*,[^,]*$/.test(plain) ? plain.split(',') : null;
  if (/^[+\-−–]?\d+,\d+$/.test(plain)) return wrong('This is one figure: the other one is missing.');
  const joined = halves ? halves.map((h) => h.trim()).join(' | ') : plain;
  const parts = [...joined.matchAll(PART)];
  const rest = joined.replace(PART, '').replace(/[|,\s]/g, '');
  if (parts.length !== 2 || rest !== '') return wrong('These are not two coordinates.');
  const read = parts.map((m) => {
    const [deg, min, sec] = [figure(m[2]), figure(m[3]), figure(m[4])];
    const letter = (m[1] ?? m[5] ?? '').toUpperCase();
    const size = Math.abs(deg) + min / 60 + sec / 3600;
    const isMinus = /^[-−–]/.test(m[2]!);
    return {
      value: (isMinus || letter === 'S' || letter === 'W' ? -1 : 1) * size,
      letter,
      isTooFine: min >= 60 || sec >= 60,
      hasBoth: isMinus && letter !== '',
    };
  });
  if (read.some((r) => r.isTooFine)) return wrong('Minutes and seconds end at 60.');
  if (read.some((r) => r.hasBoth)) return wrong('A minus and a letter of the compass say two things at once.');
  const isNorth = (letter: string) => letter === 'N' || letter === 'S';
  if (read.some((r) => r.letter === 'O')) return wrong('O is east in one language and west in another: write E or W.');
  const isEast = (letter: string) => letter === 'E' || letter === 'W';
  const [a, b] = read as [(typeof read)[number], (typeof read)[number]];
  const isTurned = isEast(a.letter) || isNorth(b.letter);
  const [lat, lon] = isTurned ? [b, a] : [a, b];
  if (isEast(lat.letter) || isNorth(lon.letter)) return wrong('Both of these are north and south, or both east and west.');
  if (Math.abs(lat.value) > 90) return wrong('North and south end at 90°, at the poles.');
  if (Math.abs(lon.value) > 180) return wrong('East and west end at 180°.');
  return { ok: true, value: { latDeg: lat.value, lonDeg: lon.value } };
}

/** "53.546° north, 8.580° east". */
export function coordinateWords({ latDeg, lonDeg }: Coordinates): string {
  return `${Math.abs(latDeg).toFixed(3)}° ${latDeg < 0 ? 'south' : 'north'}, ${Math.abs(lonDeg).toFixed(3)}° ${lonDeg < 0 ? 'west' : 'east'}`;
}
