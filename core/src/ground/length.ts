import { add, fromDecimal, rational, roundHalfUp, times, toNumber, type Rational } from './rational.js';
import { fail, ok, type Result } from './result.js';

export type UnitSystem = 'mm' | 'in';

/** A length as typed: exact in mm, and the system it was meant in. */
export interface TypedLength {
  readonly exactMm: Rational;
  readonly lengthMm: number;
  readonly unit: UnitSystem;
}

/** 1 in = 25.4 mm exactly. @source international yard and pound agreement, 1959 */
const MM_PER_INCH = rational(127n, 5n);
const ONE = rational(1n);
const mmPer: Record<string, Rational> = { mm: ONE, cm: rational(10n), m: rational(1000n), in: MM_PER_INCH, ft: times(MM_PER_INCH, rational(12n)) };

const NUMBER = String.raw`(?:(\d+)\s+(\d+)\s*/\s*(\d+)|(\d+)\s*-\s*(\d+)\s*/\s*(\d+)|(\d+)\s*/\s*(\d+)|(\d+(?:\.\d*)?|\.\d+))`;
const PART = new RegExp(String.raw`^\s*${NUMBER}\s*(mm|cm|m|inches|inch|in|feet|foot|ft|''|"|″|”|'|′|’)?`, 'i');

const unitName = (mark: string): string => {
  const m = mark.toLowerCase();
  if (['"', '″', '”', "''", 'in', 'inch', 'inches'].includes(m)) return 'in';
  if (["'", '′', '’', 'ft', 'foot', 'feet'].includes(m)) return 'ft';
  return m;
};

/** `⅝` and `5⁄8` as they come off a keyboard that helps, `3'-4"` as it is written on drawings: all as `5/8` and `3' 4"`. @source Unicode NFKC: a vulgar fraction is figure, fraction slash (U+2044), figure */
const plainMarks = (text: string): string =>
  text
    .replace(/[\u00bc-\u00be\u2150-\u215e]/g, (c) => ` ${c.normalize('NFKC')}`)
    .replace(/[\u2044\u2215]/g, '/')
    .replace(/(['′’]|ft|foot|feet)\s*[-–]\s*(?=\d)/gi, '$1 ')
    .trim();

/** A point or comma that parts three figures may be a thousand or a decimal: 2,400 in is 61 mm or 61 m. Beyond 100 m it can only be a decimal. */
function thousandOrPart(text: string, system: UnitSystem): string | null {
  const m = /^(\d{1,3})([.,])(\d{3})\s*(mm|''|"|″|”|in|inch|inches)?$/i.exec(text);
  if (!m) return null;
  const [, whole, mark, part, unit] = m as unknown as [string, string, string, string, string | undefined];
  const isInches = unit ? !/^mm$/i.test(unit) : system === 'in';
  // an inch has decimals, and a decimal point in it is read as one; in millimetres nobody tapes thousandths
  if (mark === '.' && isInches) return null;
  if (Number(`${whole}${part}`) * (isInches ? 25.4 : 1) > 100_000 || /^0/.test(whole)) return null;
  const name = isInches ? ' in' : ' mm';
  return `Is “${text}” ${whole}${part}${name} or ${Number(`${whole}.${part}`)}${name}? Write ${whole}${part}, or ${Number(`${whole}.${part}`)}.`;
}

function readNumber(m: RegExpMatchArray): { value: Rational; isFraction: boolean; isMoreThanOne: boolean } | null {
  const big = (i: number) => BigInt(m[i] ?? '0');
  const [whole, n, d] = m[1] !== undefined ? [1, 2, 3] : m[4] !== undefined ? [4, 5, 6] : [0, 7, 8];
  if (m[9] !== undefined) return { value: fromDecimal(m[9]), isFraction: false, isMoreThanOne: false };
  if (big(d!) === 0n) return null;
  const part = rational(big(n!), big(d!));
  // `17/16` by itself is a count of sixteenths; behind a whole number it is a slip
  return { value: whole ? add(rational(big(whole)), part) : part, isFraction: true, isMoreThanOne: whole !== 0 && big(n!) >= big(d!) };
}

/**
 * Reads a length as an installer writes it: `902.5`, `90.25cm`, `35 5/8`, `35-5/8`, `4' 2 1/16"`, `1,5 m`.
 * The unit system only decides what a bare number means; a bare fraction is always inches (nobody tapes eighths of a
 * millimetre).
 * @param system what a number without a unit is
 * @returns exact mm; fails with a sentence on anything else, on what may be a thousand or a decimal, on 0 below the line, on a sign, and above 100 m
 */
export function parseLength(text: string, system: UnitSystem): Result<TypedLength> {
  const unclear = thousandOrPart(text.trim(), system);
  if (unclear) return fail(unclear);
  let rest = plainMarks(text).replace(/(\d),(\d)/g, '$1.$2');
  if (rest === '') return fail('Type a length, such as 902.5 or 35 9/16".');
  let total = rational(0n);
  let previous = Infinity;
  let unit: UnitSystem | null = null;
  while (rest !== '') {
    const m = PART.exec(rest);
    if (!m) return fail(`“${text.trim()}” does not read as a length. Write 902.5, 90.25 cm, 35 9/16" or 4' 2 1/16".`);
    const number = readNumber(m);
    if (!number) return fail(`“${text.trim()}” has a 0 below the fraction line.`);
    if (number.isMoreThanOne) return fail(`“${text.trim()}”: the fraction is a whole inch or more. Read it again.`);
    const afterFeet = previous === 2;
    const name = m[10] ? unitName(m[10]) : number.isFraction || afterFeet ? 'in' : system;
    const rank = { ft: 2, in: 1 }[name] ?? 0;
    if (unit !== null && !(afterFeet && rank === 1)) {
      const isBrokenFraction = /\/\s*($|[^\d\s])/.test(text) || /(^|[^\d\s])\s*\//.test(text);
      return fail(
        isBrokenFraction
          ? `“${text.trim()}” does not read as a length: the fraction is not whole. Write 35 9/16.`
          : `“${text.trim()}” holds two lengths. Type one.`,
      );
    }
    if (afterFeet && toNumber(number.value) >= 12) return fail(`“${text.trim()}”: 12 inches and more are another foot. Read it again.`);
    previous = rank;
    unit = rank > 0 ? 'in' : 'mm';
    total = add(total, times(number.value, mmPer[name]!));
    rest = rest.slice(m[0].length).trim();
  }
  const lengthMm = toNumber(total);
  if (lengthMm > 100_000) return fail(`${text.trim()} is more than 100 m: is the unit right?`);
  return ok({ exactMm: total, lengthMm, unit: unit! });
}

/** A gap or offset: like a length, but it may carry a sign. */
export function parseOffset(text: string, system: UnitSystem): Result<TypedLength> {
  const trimmed = text.trim();
  const negative = /^[-−]/.test(trimmed);
  const read = parseLength(trimmed.replace(/^[-−+]\s*/, ''), system);
  if (!read.ok || !negative) return read;
  const exactMm = rational(-read.value.exactMm.n, read.value.exactMm.d);
  return ok({ ...read.value, exactMm, lengthMm: -read.value.lengthMm });
}

const exactFromMm = (mm: number): Rational => rational(BigInt(Math.round(mm * 320_000)), 320_000n);

/** Length in inches to the nearest 1/16 (or another power of two): `35 9/16"`; carries 16/16; feet only when asked. */
export function formatInches(mm: number, { denominator = 16, feet = false } = {}): string {
  const parts = roundHalfUp(times(exactFromMm(Math.abs(mm)), rational(BigInt(denominator) * 5n, 127n)));
  const sign = mm < 0 && parts > 0n ? '−' : '';
  const den = BigInt(denominator);
  let whole = parts / den;
  const fraction = rational(parts % den, den);
  const foot = feet ? whole / 12n : 0n;
  whole -= foot * 12n;
  const inches = fraction.n === 0n ? `${whole}` : whole === 0n ? `${fraction.n}/${fraction.d}` : `${whole} ${fraction.n}/${fraction.d}`;
  return sign + (foot > 0n ? `${foot}' ${inches}"` : `${inches}"`);
}

/** Whole millimetres, halves upwards. */
const formatMm = (mm: number): string => String(Math.round(mm)).replace('-', '−');

/** A length for the eye, in the unit system of the job: whole mm, or inches to the nearest 1/16. */
export const formatLength = (mm: number, system: UnitSystem): string => (system === 'in' ? formatInches(mm) : formatMm(mm));

/** In a sentence a fraction must not go to the next line by itself: `2` and `3/8"` are other lengths than `2 3/8"`. */
export const unbroken = (inches: string): string => inches.replaceAll(' ', '\u00a0');

/** Marks of a rule of thumb in inches: up to which length, in which part of an inch. @source house rule: 13 mm is half an inch, 150 mm six inches, to the hand */
const ROUGH_INCHES = [
  [0.5, 16],
  [2, 8],
  [4, 4],
  [10, 2],
] as const;
const roughInches = (mm: number): string => unbroken(formatInches(mm, { denominator: ROUGH_INCHES.find(([upTo]) => Math.abs(mm) / 25.4 < upTo)?.[1] ?? 1 }));

/** A length that nobody tapes, such as how far a gun is held off: `150 mm`, `6"`. */
export const formatRough = (mm: number, system: UnitSystem): string => (system === 'in' ? roughInches(mm) : `${formatMm(mm)} mm`);

/** From one such length to another: `25 to 50 mm`, `1" to 2"`. */
export const formatRoughRange = (fromMm: number, toMm: number, system: UnitSystem): string =>
  system === 'in' ? `${roughInches(fromMm)} to ${roughInches(toMm)}` : `${formatMm(fromMm)} to ${formatMm(toMm)} mm`;

/** A length of a few millimetres that is reckoned, such as slack: tenths of a millimetre, or thirty-seconds of an inch, the finest mark of a rule. */
export const formatFine = (mm: number, system: UnitSystem): string =>
  system === 'in'
    ? unbroken(formatInches(mm, { denominator: 32 }))
    : `${mm
        .toFixed(1)
        .replace(/^-0\.0$/, '0.0')
        .replace('-', '−')} mm`;

/** How far such a length is to be trusted: at least one mark of the rule. */
export const formatDoubt = (mm: number, system: UnitSystem): string => formatFine(Math.max(mm, system === 'in' ? 25.4 / 32 : 0), system);

/** A radius or a row of panes: metres to a centimetre, or whole inches with feet. */
export const formatLong = (mm: number, system: UnitSystem): string =>
  system === 'in' ? formatInches(mm, { denominator: 1, feet: true }) : `${(mm / 1000).toFixed(2)} m`;

/** A small difference for a sentence: "9 mm" or `3/8"`. */
export const formatDifference = (mm: number, system: UnitSystem): string => (system === 'in' ? formatInches(mm) : `${formatMm(mm)} mm`);

/**
 * The grain of all layout arithmetic: 1/320 mm, in which both 1 mm (320) and 1/64 in (127) are whole.
 * Pieces round up, rolls round down, so that rounding can never make a piece too small or a roll too long.
 */
export const GRAINS_PER_MM = 320;
export const grainsUp = (mm: number): number => Math.ceil(mm * GRAINS_PER_MM - 1e-6);
export const grainsDown = (mm: number): number => Math.floor(mm * GRAINS_PER_MM + 1e-6);
export const mmFromGrains = (grains: number): number => grains / GRAINS_PER_MM;
