import { emptyLayer, stack, type BandName, type Layer } from '../films/index.js';
import { paneLayer, type DefinitePane, type FilmOnFace } from './glass.js';

/** One band of light on a whole build-up, per unit of light on the street side. */
export interface BandResult {
  readonly transmittanceFrac: number;
  readonly reflectanceOutFrac: number;
  readonly reflectanceInFrac: number;
  /** Soaked up by each pane with what is on it, from the street on. */
  readonly absorbedFrac: readonly number[];
}

/**
 * Net-radiation balance of panes in a row: what comes to each pane from either side after all reflections, what it lets
 * through, throws back and soaks up. The balance closes exactly: T + R + ΣA = 1.
 * @source EN 410 / ISO 9050, formulas for double and triple glazing, written for any number; broad-band values, so ±0.03
 */
export function throughLayers(layers: readonly Layer[]): BandResult {
  const from = layers.map((_, i) => stack(layers.slice(i)));
  const whole = stack(layers);
  const absorbedFrac: number[] = [];
  let onto = 1;
  layers.forEach((layer, i) => {
    const rest = from[i + 1] ?? { ...emptyLayer, rFront: 0 };
    const next = (onto * layer.t) / (1 - layer.rBack * rest.rFront);
    const back = i + 1 < layers.length ? next * rest.rFront : 0;
    absorbedFrac.push(onto * (1 - layer.t - layer.rFront) + back * (1 - layer.t - layer.rBack));
    onto = next;
  });
  return { transmittanceFrac: whole.t, reflectanceOutFrac: whole.rFront, reflectanceInFrac: whole.rBack, absorbedFrac };
}

/** A build-up, with or without a film, in one band. */
export const throughGlazing = (panes: readonly DefinitePane[], film: FilmOnFace | null, band: BandName): BandResult =>
  throughLayers(panes.map((p, i) => paneLayer(p, band, film && film.paneIndex === i ? film : null)));

/**
 * Share of normal transmission left at an angle, for clear panes: Fresnel at each face for both polarisations, longer path in
 * the glass. Used for filmed panes too: the film's own change with angle is not in its sheet.
 * @source Fresnel, Snell, n = 1.526; checked against the usual table value for one clear pane at 60° (about 0.93 of normal)
 */
export function angularShare(incidenceDeg: number, paneCount: number): number {
  if (incidenceDeg >= 90) return 0;
  const angle = Math.max(1e-6, (incidenceDeg * Math.PI) / 180);
  const inner = Math.asin(Math.sin(angle) / 1.526);
  const s = (Math.sin(angle - inner) / Math.sin(angle + inner)) ** 2;
  const p = (Math.tan(angle - inner) / Math.tan(angle + inner)) ** 2;
  const clear = (r: number) => (1 - r) / (1 + (2 * paneCount - 1) * r);
  const normal = ((1.526 - 1) / (1.526 + 1)) ** 2;
  return (clear(s) + clear(p)) / 2 / clear(normal);
}
/** Share for light from all directions of the sky. @source the usual 58–60° of equivalent incidence (Duffie & Beckman, from memory) */
export const diffuseShare = (paneCount: number): number => angularShare(59, paneCount);
