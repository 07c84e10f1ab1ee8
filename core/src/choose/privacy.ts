import type { LightLevels, Sight } from '@yellow-pane/contracts';

/** What the eye is shown: transmission, reflection on the near side, share scattered. */
export interface SightThrough {
  readonly transmittanceFrac: number;
  readonly reflectanceNearFrac: number;
  readonly hazeFrac: number;
}

/** Contrast of what is worth seeing behind the glass: a person against a wall. @source house rule */
const SCENE_CONTRAST = 0.5;
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

const inWords = (contrast: number): Sight['inwards'] => (contrast < HIDDEN_BELOW ? 'hidden' : contrast < SHAPES_BELOW ? 'shapes' : 'clear');

/** Who sees whom at these light levels. */
export function sightAt(t: number, rOut: number, rIn: number, hazeFrac: number, outsideLux: number, insideLux: number): Sight {
  const inwardsFrac = contrastThrough({ transmittanceFrac: t, reflectanceNearFrac: rOut, hazeFrac }, insideLux, outsideLux);
  const outwardsFrac = contrastThrough({ transmittanceFrac: t, reflectanceNearFrac: rIn, hazeFrac }, outsideLux, insideLux);
  return { inwardsFrac, outwardsFrac, inwards: inWords(inwardsFrac), outwards: inWords(outwardsFrac) };
}

/** Day and night at once. */
export const sightDayAndNight = (t: number, rOut: number, rIn: number, hazeFrac: number, light: LightLevels): { day: Sight; night: Sight } => ({
  day: sightAt(t, rOut, rIn, hazeFrac, light.dayOutsideLux, light.dayInsideLux),
  night: sightAt(t, rOut, rIn, hazeFrac, light.nightOutsideLux, light.nightInsideLux),
});
