/** A slip that hands and eyes make, as the error it leaves in a reading (typed minus true), with how often it is that one. */
export interface Slip {
  readonly name: string;
  readonly meanMm: number;
  readonly sigmaMm: number;
  readonly weight: number;
}

/** Adjacent digits of the whole millimetres exchanged: 619 for 691. */
function digitSwaps(lengthMm: number): number[] {
  const digits = String(Math.round(lengthMm));
  const out: number[] = [];
  for (let i = 0; i + 1 < digits.length; i++) {
    if (digits[i] === digits[i + 1]) continue;
    const swapped = digits.slice(0, i) + digits[i + 1] + digits[i] + digits.slice(i + 2);
    if (!swapped.startsWith('0')) out.push(Number(digits) - Number(swapped));
  }
  return out;
}

/**
 * The slips worth believing in for one reading. Weights add up to 1.
 * @source common practice for the kinds (10 or 100 mm, one inch, swapped digits, inch read as centimetre); the weights are a house rule
 */
export function usualSlips(lengthMm: number): readonly Slip[] {
  const swaps = digitSwaps(lengthMm);
  const fixed = (name: string, meanMm: number, weight: number): Slip => ({ name, meanMm, sigmaMm: 0.5, weight });
  const both = (name: string, mm: number, weight: number) => [fixed(name, mm, weight), fixed(name, -mm, weight)];
  const slips = [
    ...both('10 mm', 10, 0.11),
    ...both('100 mm', 100, 0.05),
    ...both('1 inch', 25.4, 0.04),
    ...swaps.map((mm) => fixed('digits swapped', mm, 0.1 / swaps.length)),
    fixed('an inch read as a centimetre', lengthMm - 2.54 * lengthMm, 0.02),
    fixed('a centimetre read as an inch', lengthMm - lengthMm / 2.54, 0.02),
    { name: 'misread', meanMm: 0, sigmaMm: 20, weight: 0.38 },
    { name: 'misread', meanMm: 0, sigmaMm: 150, weight: 0.08 },
  ];
  const total = slips.reduce((s, x) => s + x.weight, 0);
  return slips.map((s) => ({ ...s, weight: s.weight / total }));
}
