import { checkRange } from '../ground/index.js';

/** A surface as a radiation thermometer sees it. */
export interface RadiantScene {
  readonly surfaceC: number;
  /** True emissivity of the surface, 0 … 1. */
  readonly emissivityFrac: number;
  /** What the surface mirrors: walls, or a cold sky. */
  readonly surroundingsC: number;
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
  const arriving = scene.emissivityFrac * fourth(scene.surfaceC) + (1 - scene.emissivityFrac) * fourth(scene.surroundingsC);
  const own = (arriving - (1 - setEmissivityFrac) * fourth(scene.surroundingsC)) / setEmissivityFrac;
  return Math.max(own, 0) ** 0.25 - ZERO_C;
}

/** Emissivities that a person sets. @source handbook tables (from memory) */
export const usualEmissivities = [
  { name: 'glass, plain film', frac: 0.9 },
  { name: 'low-emissivity film or coating', frac: 0.15 },
  { name: 'painted wall', frac: 0.93 },
  { name: 'bare aluminium', frac: 0.1 },
] as const;
