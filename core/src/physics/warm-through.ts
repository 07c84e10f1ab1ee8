/** Something wound or round that takes the temperature of the room from its outside: SI units but mm and °C. */
export interface RoundBody {
  readonly radiusMm: number;
  /** Conductivity square to its axis, W/(m·K). */
  readonly wPerMK: number;
  /** Heat that a cubic metre of it takes for a kelvin, J/(m³·K). */
  readonly joulePerM3K: number;
  /** From its surface to the air, W/(m²·K). */
  readonly surfaceWPerM2K: number;
}

/** Bessel functions of the first kind by their power series: to 1e-12 for 0 ≤ x ≤ 6. @source Abramowitz & Stegun 9.1.10 (from memory) */
const bessel = (order: 0 | 1, x: number): number => {
  let term = order === 0 ? 1 : x / 2;
  let sum = term;
  for (let k = 1; k < 60 && Math.abs(term) > 1e-18; k++) {
    term *= -(x * x) / 4 / (k * (k + order));
    sum += term;
  }
  return sum;
};

/** First root of ζ·J₁(ζ) = Bi·J₀(ζ): between 0 and the first nought of J₀. @param biot more than 0 */
export function firstRoot(biot: number): number {
  let [low, high] = [1e-9, 2.404_825_557_695_77];
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (middle * bessel(1, middle) < biot * bessel(0, middle)) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
/** How much more than one the first term begins with, at the axis. */
export const firstFactor = (root: number): number => (2 * bessel(1, root)) / (root * (bessel(0, root) ** 2 + bessel(1, root) ** 2));

/**
 * How long until the axis of a long round body has come near the temperature of the air around it.
 * @param fromC all through at the beginning, @param airC after that, @param withinK how near is near enough, more than 0
 * @returns hours; 0: it is near enough already
 * @source one-term solution of the infinite cylinder with convection: θ = C₁·exp(−ζ₁²·Fo), Incropera & DeWitt, Fundamentals of Heat and Mass Transfer (from memory; its table is checked). Early (Fo < 0.2) it errs by a few per cent, to the long side.
 */
export function warmThroughHours({ radiusMm, wPerMK, joulePerM3K, surfaceWPerM2K }: RoundBody, fromC: number, airC: number, withinK: number): number {
  const away = Math.abs(airC - fromC);
  if (away <= withinK) return 0;
  const radius = radiusMm / 1000;
  const root = firstRoot((surfaceWPerM2K * radius) / wPerMK);
  const fourier = Math.log((firstFactor(root) * away) / withinK) / root ** 2;
  return Math.max(0, (fourier * radius ** 2 * joulePerM3K) / wPerMK) / 3600;
}
