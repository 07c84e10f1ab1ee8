/** A layer's part in one band of light; front is the street side. T is the same both ways. */
export interface Layer {
  readonly t: number;
  readonly rFront: number;
  readonly rBack: number;
}
export type BandName = 'visible' | 'solar' | 'uv';

/** Reflection at one face of clear float, normal incidence: ((n−1)/(n+1))² with n = 1.526. @source Fresnel; n by common practice */
const FACE_REFLECTION = ((1.526 - 1) / (1.526 + 1)) ** 2;

/** Nothing there. */
export const emptyLayer: Layer = { t: 1, rFront: 0, rBack: 0 };
/** Glass against air, seen from the air. */
export const airFace: Layer = { t: 1 - FACE_REFLECTION, rFront: FACE_REFLECTION, rBack: FACE_REFLECTION };
/** Bulk of a slab: takes, reflects nothing. @param extinctionPerM per metre of path */
export const bulk = (extinctionPerM: number, thicknessMm: number): Layer => ({ t: Math.exp(-extinctionPerM * (thicknessMm / 1000)), rFront: 0, rBack: 0 });

/** Two layers with light going to and fro between them. @source EN 410 / ISO 9050, double glazing formulas; geometric series */
export function behind(front: Layer, back: Layer): Layer {
  const toAndFro = 1 - front.rBack * back.rFront;
  return {
    t: (front.t * back.t) / toAndFro,
    rFront: front.rFront + (front.t * front.t * back.rFront) / toAndFro,
    rBack: back.rBack + (back.t * back.t * front.rBack) / toAndFro,
  };
}
export const stack = (layers: readonly Layer[]): Layer => layers.reduce(behind, emptyLayer);
export const turnedRound = (l: Layer): Layer => ({ t: l.t, rFront: l.rBack, rBack: l.rFront });

/**
 * What a thin film or coating does by itself when it sits on the back face of a slab, from the values of slab and film
 * together: the slab's part is taken off exactly (the inverse of `behind`).
 * @param together T, R on the slab's side, R on the film's side
 * @returns null when the values cannot come from a film on this slab (it would shine)
 */
export function filmAlone(together: Layer, slab: Layer): Layer | null {
  const x = (together.rFront - slab.rFront) / (slab.t * slab.t);
  const rFront = x / (1 + slab.rBack * x);
  const toAndFro = 1 - slab.rBack * rFront;
  const t = (together.t * toAndFro) / slab.t;
  const rBack = together.rBack - (t * t * slab.rBack) / toAndFro;
  const slack = 1e-9;
  if (t < 0 || rFront < -slack || rBack < -slack || t + rFront > 1 + slack || t + rBack > 1 + slack) return null;
  return { t, rFront: Math.max(0, rFront), rBack: Math.max(0, rBack) };
}

/** Extinction of clear float, per metre, so that 4 mm lets 90 % of light, 85 % of solar energy and 68 % of UV through. @source common catalogue values, from memory */
export const clearExtinctionPerM: Record<BandName, number> = { visible: 4.5, solar: 18.9, uv: 73 };

/** The reference glass that a film was rated on, without its far face: the film sits there. */
export const referenceSlab = (ratedOn: 'none' | 'clear-3' | 'clear-6', band: BandName): Layer =>
  behind(airFace, bulk(clearExtinctionPerM[band], ratedOn === 'none' ? 0 : ratedOn === 'clear-3' ? 3 : 6));
