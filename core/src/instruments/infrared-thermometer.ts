import { checkRange } from '../ground/index.js';

/** A surface as a radiation thermometer sees it. */
export interface RadiantScene {
  readonly surfaceC: number;
  /** True emissivity of the surface, 0 … 1. */
  readonly emissivityFrac: number;
  /** What the surface mirrors: walls, or a cold sky. */
  readonly surroundingsC: number;
  /** How much of its spot lies on the surface; the rest sees the surroundings. Left out: all of it. */
  readonly onTargetFrac?: number;
}
const ZERO_C = 273.15;
const fourth = (c: number): number => (c + ZERO_C) ** 4;

/**
 * What the thermometer shows: it takes what comes from the surface, own radiation and mirrored, and reckons back with the emissivity
 * that it was set to.
 * @source Stefan & Boltzmann, grey surface: ε T⁴ + (1 − ε) T₀⁴; total radiation stands for the band of the instrument
 * @throws OutOfRange for an emissivity that is none
 */
export function shownC(scene: RadiantScene, setEmissivityFrac: number): number {
  checkRange('Emissivity', scene.emissivityFrac, 0.01, 1, '');
  checkRange('Emissivity set', setEmissivityFrac, 0.1, 1, '');
  const onTarget = scene.onTargetFrac ?? 1;
  const around = fourth(scene.surroundingsC);
  const arriving = onTarget * (scene.emissivityFrac * fourth(scene.surfaceC) + (1 - scene.emissivityFrac) * around) + (1 - onTarget) * around;
  const own = (arriving - (1 - setEmissivityFrac) * fourth(scene.surroundingsC)) / setEmissivityFrac;
  return Math.max(own, 0) ** 0.25 - ZERO_C;
}

/** Distance over spot of pocket instruments, and the spot at the lens, mm. @source common practice: 12 : 1; lens from memory */
const SPOT = { ratio: 12, lensMm: 10 };
/** Diameter of what it looks at from so far, mm. */
export const spotMm = (distanceMm: number): number => Math.max(SPOT.lensMm, distanceMm / SPOT.ratio);
/** From how far at most all of its spot lies on something so wide, mm; 0: from nowhere. */
export const farthestFor = (wideMm: number): number => (wideMm < SPOT.lensMm ? 0 : wideMm * SPOT.ratio);
/** How much of its spot lies on a strip so wide, aimed at its middle. @source two segments cut off a circle: (2/π)(asin k + k√(1 − k²)), k = width / diameter */
export function shareOnStrip(distanceMm: number, wideMm: number): number {
  const k = wideMm / spotMm(distanceMm);
  return k >= 1 ? 1 : (2 / Math.PI) * (Math.asin(k) + k * Math.sqrt(1 - k * k));
}
/** Seconds in which it follows what it sees by 63 %. @source from memory: pocket instruments name 0.5 to 0.8 s to 95 % */
export const THERMOMETER_LAG_S = 0.25;
/** What its sensor has come to after it was held on something. */
export const followHeat = (sensorC: number, seenC: number, heldS: number): number =>
  seenC + (sensorC - seenC) * Math.exp(-Math.max(0, heldS) / THERMOMETER_LAG_S);

/** Emissivities that a person sets. @source handbook tables (from memory) */
export const usualEmissivities = [
  { name: 'glass, plain film', frac: 0.9 },
  { name: 'low-emissivity film or coating', frac: 0.15 },
  { name: 'painted wall', frac: 0.93 },
  { name: 'bare aluminium', frac: 0.1 },
] as const;
