import type { LightLevels, Sight } from '@yellow-pane/contracts';

/** What the eye is shown: transmission, reflection on the near side, share scattered. */
export interface SightThrough {
  readonly transmittanceFrac: number;
  readonly reflectanceNearFrac: number;
  readonly hazeFrac: number;
}

/** Contrast of what is worth seeing behind the glass: a person against a wall. @source house rule */
export const SCENE_CONTRAST = 0.5;
/** Below this nothing can be told apart. @source WMO Guide to Instruments and Methods of Observation, contrast threshold 0.05 of the meteorological optical range (from memory) */
export const HIDDEN_BELOW = 0.05;
/** Below this a shape is seen and no face. @source house rule: four times the threshold */
export const SHAPES_BELOW = 0.2;

/**
 * Contrast left to somebody who looks through: light from the far side that comes straight through, over all that reaches
 * the eye: far light, scattered far light, and near light thrown back. Both scenes reflect alike.
 * @param farLux light on what is looked at
 * @param nearLux light on the looker's side
 * @returns 0 … 0.5; 0 in full darkness on the far side
 */
export function contrastThrough(s: SightThrough, farLux: number, nearLux: number): number {
  const far = s.transmittanceFrac * farLux;
  const veil = s.reflectanceNearFrac * nearLux;
  return far + veil > 0 ? (SCENE_CONTRAST * (1 - s.hazeFrac) * far) / (far + veil) : 0;
}

/** Near over far light at which the far side is lost to the eye; 0: it is hidden at any light; null: no mirror helps, nothing is thrown back. */
export function tippingRatio(s: SightThrough): number | null {
  const straight = (SCENE_CONTRAST * (1 - s.hazeFrac)) / HIDDEN_BELOW - 1;
  if (straight <= 0) return 0;
  return s.reflectanceNearFrac > 0 ? (straight * s.transmittanceFrac) / s.reflectanceNearFrac : null;
}

/** Frost spreads what it scatters about this much to either side (half of the light within it). @source common practice for matt polyester and etched looks, from memory: 10–20° */
export const SCATTER_HALF_ANGLE_DEG = 15;
/** Half width to standard deviation of a bell curve: √(2 ln 2). */
const HALF_WIDTH_SIGMAS = Math.sqrt(2 * Math.LN2);
/** What is to be made out, by its half period: a person against the wall, the dark and light parts of a face. @source house rule */
export const PERSON_M = 0.5;
export const FACE_M = 0.06;

/**
 * How far behind the film something can stand and still be made out. Light scattered at angle θ comes from d·tan θ beside the thing
 * looked at, so scatter blurs with a width that grows with the distance d from the film; a blur of standard deviation s leaves
 * exp(−2π²s²f²) of a pattern of spatial frequency f. Not in it: the looker's own distance (it does not count while the eye resolves the
 * thing at all).
 * @param sizeM half period of what is to be made out, m
 * @returns metres; 0: not even against the film; null: at any distance
 * @source Goodman, Introduction to Fourier Optics (transfer function of a Gaussian blur; from memory); docs/models/privacy.md
 */
export function madeOutWithinM(s: SightThrough, farLux: number, nearLux: number, sizeM: number): number | null {
  const sharp = contrastThrough({ ...s, hazeFrac: 0 }, farLux, nearLux);
  if (sharp < HIDDEN_BELOW) return 0;
  const needed = HIDDEN_BELOW / sharp - (1 - s.hazeFrac);
  if (needed <= 0) return null;
  const sigmaPerM = Math.tan((SCATTER_HALF_ANGLE_DEG * Math.PI) / 180) / HALF_WIDTH_SIGMAS;
  const perM = 1 / (2 * sizeM);
  return Math.sqrt(Math.log(s.hazeFrac / needed) / (2 * Math.PI ** 2)) / (sigmaPerM * perM);
}

const inWords = (contrast: number): Sight['inwards'] => (contrast < HIDDEN_BELOW ? 'hidden' : contrast < SHAPES_BELOW ? 'shapes' : 'clear');

/** Who sees whom at these light levels. */
export function sightAt(t: number, rOut: number, rIn: number, hazeFrac: number, outsideLux: number, insideLux: number): Sight {
  const fromStreet: SightThrough = { transmittanceFrac: t, reflectanceNearFrac: rOut, hazeFrac };
  const inwardsFrac = contrastThrough(fromStreet, insideLux, outsideLux);
  const outwardsFrac = contrastThrough({ transmittanceFrac: t, reflectanceNearFrac: rIn, hazeFrac }, outsideLux, insideLux);
  return {
    inwardsFrac,
    outwardsFrac,
    inwards: inWords(inwardsFrac),
    outwards: inWords(outwardsFrac),
    personWithinM: madeOutWithinM(fromStreet, insideLux, outsideLux, PERSON_M),
    faceWithinM: madeOutWithinM(fromStreet, insideLux, outsideLux, FACE_M),
  };
}

/** Day and night at once. */
export const sightDayAndNight = (t: number, rOut: number, rIn: number, hazeFrac: number, light: LightLevels): { day: Sight; night: Sight } => ({
  day: sightAt(t, rOut, rIn, hazeFrac, light.dayOutsideLux, light.dayInsideLux),
  night: sightAt(t, rOut, rIn, hazeFrac, light.nightOutsideLux, light.nightInsideLux),
});
