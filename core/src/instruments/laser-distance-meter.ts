import { checkRange, type Random } from '../ground/index.js';

/** How a laser meter errs. */
export interface LaserModel {
  /** Noise of one shot, 1 σ, mm. @source common practice: makers give ±1.5 mm as two standard deviations */
  readonly noiseMm: number;
  /** Of the length, 1 σ. */
  readonly noiseFrac: number;
  /** What it shows at zero: a worn foot, a wrong reference edge. */
  readonly offsetMm: number;
  /** Smallest step that it shows, mm. */
  readonly stepMm: number;
}
export const usualLaser: LaserModel = { noiseMm: 0.75, noiseFrac: 5e-5, offsetMm: 0, stepMm: 1 };
/** Shortest and longest that such a meter takes, mm. @source common practice */
const LASER_RANGE_MM = { least: 50, most: 40_000 };

/** Standard normal deviate. @source Box & Muller 1958 */
export const normal = (random: Random): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** One shot, mm. @param trueMm distance from the foot of the meter to the red point @throws OutOfRange beyond what the meter takes */
export function shootLaser(trueMm: number, random: Random, model: LaserModel = usualLaser): number {
  checkRange('Distance', trueMm, LASER_RANGE_MM.least, LASER_RANGE_MM.most, 'mm');
  const sigma = Math.hypot(model.noiseMm, model.noiseFrac * trueMm);
  return Math.round((trueMm + model.offsetMm + sigma * normal(random)) / model.stepMm) * model.stepMm;
}
