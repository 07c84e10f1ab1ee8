/** An exact fraction; the denominator is positive and the two share no factor. Inches on a tape are fractions, not decimals. */
export interface Rational {
  readonly n: bigint;
  readonly d: bigint;
}

const gcd = (a: bigint, b: bigint): bigint => {
  let [x, y] = [a < 0n ? -a : a, b];
  while (y) [x, y] = [y, x % y];
  return x;
};

/** @throws RangeError on a zero denominator */
export function rational(n: bigint, d: bigint = 1n): Rational {
  if (d === 0n) throw new RangeError('A fraction cannot have 0 below the line.');
  const sign = d < 0n ? -1n : 1n;
  const g = gcd(n, d * sign) || 1n;
  return { n: (sign * n) / g, d: (sign * d) / g };
}

export const add = (a: Rational, b: Rational): Rational => rational(a.n * b.d + b.n * a.d, a.d * b.d);
export const times = (a: Rational, b: Rational): Rational => rational(a.n * b.n, a.d * b.d);
export const toNumber = (a: Rational): number => Number(a.n) / Number(a.d);
/** Nearest whole number of `a`, halves upwards. */
export function roundHalfUp(a: Rational): bigint {
  const doubled = 2n * a.n + a.d;
  const whole = doubled / (2n * a.d);
  return doubled < 0n && doubled % (2n * a.d) !== 0n ? whole - 1n : whole;
}

/** A decimal such as `902.5` (digits, one point) as an exact fraction. */
export function fromDecimal(text: string): Rational {
  const [whole = '0', part = ''] = text.split('.');
  return rational(BigInt((whole || '0') + part), 10n ** BigInt(part.length));
}
