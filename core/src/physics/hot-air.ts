/** A hot-air gun as a round jet on a wall. Model: docs/models/hot-air.md. */

/** The gun in hand: width of its nozzle, what it is set to, what it draws. */
export interface HotAirGun {
  readonly nozzleMm: number;
  readonly setC: number;
  readonly powerW: number;
  /** Between its stream and the wall; left out: straight on, 90. */
  readonly angleDeg?: number;
}
/** What of a gun comes to a wall, at the middle of the stream and sideways. */
export interface JetOnWall {
  /** Convection where the stream meets the wall, W/(m²·K), mean over its spot. */
  readonly wPerM2K: number;
  /** Of the air in the middle of it. */
  readonly middleC: number;
  /** From the middle to where half of the heat is left, mm. */
  readonly halfWidthMm: number;
  readonly reynolds: number;
  /** Inside the published range of the correlation; else its nearest edge is taken. */
  readonly isInRange: boolean;
}

/** Of dry air at 1 atm: viscosity by Sutherland's law, conductivity by its like, density as of an ideal gas. @source White, Viscous Fluid Flow, table 1 (from memory): 1.716e-5 Pa·s and 0.0241 W/(m·K) at 273 K, constants 111 K and 194 K */
export const air = {
  joulePerKgK: 1030,
  prandtl: 0.7,
  densityKgPerM3: (tempC: number): number => 353 / (tempC + 273.15),
  viscosityPaS: (tempC: number): number => sutherland(1.716e-5, 111, tempC),
  wPerMK: (tempC: number): number => sutherland(0.0241, 194, tempC),
};
const sutherland = (at273: number, constantK: number, tempC: number): number => {
  const kelvin = tempC + 273.15;
  return at273 * (kelvin / 273) ** 1.5 * ((273 + constantK) / (kelvin + constantK));
};

/** Where Martin's correlation was found. */
export const martinRange = { reynolds: [2000, 400_000], distance: [2, 12], radius: [2.5, 7.5] } as const;

/**
 * Mean Nusselt number of a disc under a single round nozzle, by nozzle width.
 * @param distance from the nozzle, @param radius of the disc, both by the nozzle's width
 * @source Martin 1977, Heat and Mass Transfer between Impinging Gas Jets and Solid Surfaces, Advances in Heat Transfer 13, single round nozzle
 */
export function martinNusselt(reynolds: number, prandtl: number, distance: number, radius: number): number {
  const f = 2 * Math.sqrt(reynolds) * Math.sqrt(1 + 0.005 * reynolds ** 0.55);
  const g = ((1 / radius) * (1 - 1.1 / radius)) / (1 + (0.1 * (distance - 6)) / radius);
  return prandtl ** 0.42 * f * g;
}

/** A stream of hot, thin air mixes as one from a narrower nozzle with air like that around it. @source Thring & Newby 1953: D·√(ρ₀/ρ) (from memory) */
const mixingWidth = (gun: HotAirGun, airC: number): number => gun.nozzleMm * Math.sqrt(air.densityKgPerM3(gun.setC) / air.densityKgPerM3(airC));
/** A free round jet is hot in its middle for so many (mixing) widths; from there its heat falls with the distance. @source free-jet decay, Rajaratnam, Turbulent Jets (from memory): 5 to 6 */
const CORE_WIDTHS = 5.5;
/**
 * From the middle to half: between the stream's own half width and 1.4 nozzle widths, where the thin layer it becomes on the wall has mixed (layer D²/8r against spread 0.1·(r − D/2)); a
 * free jet spreads by about 0.1 of its way.
 * @source house rule, docs/models/hot-air.md
 */
const halfWidth = (nozzleMm: number, distanceMm: number): number => nozzleMm + 0.1 * distanceMm;

/**
 * Convection under a stream that comes at an angle, by that of one straight on: falls evenly to 0.82 at 30°. Where it is hottest lies towards the gun by less than the spot is wide: left out.
 * @source Sparrow & Lovell 1980, Journal of Heat Transfer 102: an obliquely impinging circular jet, at most 15 to 20 % less down to 30° (from memory)
 */
export const tiltShare = (angleDeg: number): number => 1 - (0.18 * (90 - within(angleDeg, [30, 90]))) / 60;

const within = (x: number, [low, high]: readonly [number, number]): number => Math.min(high, Math.max(low, x));

/** What a gun does at a distance from a wall. Its own power says how much air it can have so hot. @param distanceMm from nozzle to wall, @param airC around */
export function jetOnWall(gun: HotAirGun, distanceMm: number, airC: number): JetOnWall {
  const width = gun.nozzleMm / 1000;
  const kgPerS = gun.powerW / (air.joulePerKgK * Math.max(1, gun.setC - airC));
  const reynolds = (4 * kgPerS) / (Math.PI * width * air.viscosityPaS(gun.setC));
  const distance = distanceMm / gun.nozzleMm;
  const [low, high] = martinRange.radius;
  const halfWidthMm = halfWidth(gun.nozzleMm, distanceMm);
  const radius = within(halfWidthMm / gun.nozzleMm, [low, high]);
  const used = { reynolds: within(reynolds, martinRange.reynolds), distance: within(distance, martinRange.distance) };
  const nusselt = martinNusselt(used.reynolds, air.prandtl, used.distance, radius);
  const share = Math.min(1, (CORE_WIDTHS * mixingWidth(gun, airC)) / Math.max(distanceMm, 1e-9));
  const middleC = airC + share * (gun.setC - airC);
  return {
    // the correlation takes the air's properties between nozzle and wall
    wPerM2K: (tiltShare(gun.angleDeg ?? 90) * nusselt * air.wPerMK((gun.setC + airC) / 2)) / width,
    middleC,
    halfWidthMm,
    reynolds,
    isInRange: reynolds === used.reynolds && distance === used.distance && radius === halfWidthMm / gun.nozzleMm,
  };
}

/** Share of the stream that reaches a place beside its middle: half of it at the half width. */
export const streamShare = (offMm: number, halfWidthMm: number): number => Math.exp(-Math.LN2 * (offMm / halfWidthMm) ** 2);
