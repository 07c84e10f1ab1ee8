import type { LengthFrom } from '@yellow-pane/contracts';

/** Length of film on a roll with one standard deviation, m. */
export interface RollLength {
  readonly lengthM: number;
  readonly sigmaM: number;
}

/** One standard deviation of a diameter taken with tape or callipers on a wound roll, mm. @source house rule: a roll is never quite round */
const DIAMETER_SIGMA_MM = 0.5;
/** One standard deviation of the thickness as told, film and liner and adhesive together, share of it. @source house rule; 5 % in thickness is 5 % of the length */
const THICKNESS_SIGMA_FRAC = 0.05;

/** A sentence where diameters cannot belong to a roll. */
export type RollLengthAnswer = { readonly ok: true; readonly value: RollLength } | { readonly ok: false; readonly message: string };

const ringMm2 = (outsideMm: number, coreMm: number): number => (Math.PI * (outsideMm ** 2 - coreMm ** 2)) / 4;
const refuse = (message: string): RollLengthAnswer => ({ ok: false, message });

/**
 * What is still on a roll. From diameters: the ring of film divided by its thickness; the core's **outside** diameter counts, and the
 * thickness includes the liner. Calibrated with the full roll the thickness cancels, so only diameters carry doubt.
 * @source plane geometry: L = π (D² − d²) / (4 t); checks in CHECKS (28.274 m and 16.435 m)
 */
export function rollLength(from: LengthFrom, knownM: number): RollLengthAnswer {
  if (from.how === 'known') return { ok: true, value: { lengthM: knownM, sigmaM: 0 } };
  const { outsideMm: d, coreMm: c } = from;
  if (!(d > 0 && c > 0)) return refuse('Both diameters are needed: over the film, and over the core.');
  if (d < c) return refuse(`The roll (${d} mm) would be thinner than its core (${c} mm). The core counts on its outside.`);
  if (from.how === 'diameter') {
    if (!(from.thicknessUm > 0)) return refuse('The thickness of film and liner together is needed, in µm.');
    const thicknessMm = from.thicknessUm / 1000;
    const lengthM = ringMm2(d, c) / thicknessMm / 1000;
    const byDiameter = ((Math.PI / (2 * thicknessMm)) * DIAMETER_SIGMA_MM * Math.hypot(d, c)) / 1000;
    return { ok: true, value: { lengthM, sigmaM: Math.hypot(byDiameter, lengthM * THICKNESS_SIGMA_FRAC) } };
  }
  const { fullOutsideMm: full, fullLengthM } = from;
  if (full <= c) return refuse(`The full roll (${full} mm) would be thinner than its core (${c} mm).`);
  if (d > full) return refuse(`The roll is thicker now (${d} mm) than when it was full (${full} mm).`);
  const ring = full ** 2 - c ** 2;
  const lengthM = (fullLengthM * (d ** 2 - c ** 2)) / ring;
  const slopes = [(2 * d * fullLengthM) / ring, (2 * full * lengthM) / ring, (2 * c * (lengthM - fullLengthM)) / ring];
  return { ok: true, value: { lengthM, sigmaM: DIAMETER_SIGMA_MM * Math.hypot(...slopes) } };
}
