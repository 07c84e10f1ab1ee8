import { faceEmissivity, GLASS_CONDUCTIVITY, GLASS_EMISSIVITY, type DefiniteCavity, type DefinitePane, type FilmOnFace } from './glass.js';

const SIGMA = 5.67e-8;
/** Gas at 10 °C: ρ kg/m³, μ kg/(m s), λ W/(m K), c J/(kg K). @source EN 673 table 1 (from memory, checked by CHECKS U values) */
const gasAt10C = {
  air: { density: 1.232, viscosity: 1.761e-5, conductivity: 2.496e-2, heat: 1.008e3 },
  argon: { density: 1.699, viscosity: 2.164e-5, conductivity: 1.684e-2, heat: 0.519e3 },
  krypton: { density: 3.56, viscosity: 2.4e-5, conductivity: 0.9e-2, heat: 0.245e3 },
} as const;
/** Share of the named gas in a filled unit; the rest is air. @source EN 673 practice: 90 % */
const FILL = 0.9;
const MEAN_TEMP_K = 283;
const TOTAL_DIFFERENCE_K = 15;

/** Surface coefficients, W/(m² K). */
export interface SurfaceCoefficients {
  readonly outsideWPerM2K: number;
  readonly insideWPerM2K: number;
}
/**
 * Heat between a room and the face of upright glass in it, W/(m² K): still air, and radiation as the face gives it off.
 * @param radiation of plain glass, W/(m² K): 4.1 in EN 673, 4.4 in EN 410
 * @source EN 673:2011: hi = 3.6 + 4.1 ε/0.837; EN 410 / ISO 9050: hi = 3.6 + 4.4 ε/0.837
 */
export const insideCoefficient = (roomEmissivity: number, radiation: 4.1 | 4.4 = 4.1): number => 3.6 + (radiation * roomEmissivity) / GLASS_EMISSIVITY;
/** For ratings of U. @source EN 673:2011: he 25 */
export const ratingForU = (roomEmissivity: number): SurfaceCoefficients => ({ outsideWPerM2K: 25, insideWPerM2K: insideCoefficient(roomEmissivity) });
/** For ratings of g. @source EN 410 / ISO 9050: he 23 */
export const ratingForG = (roomEmissivity: number): SurfaceCoefficients => ({ outsideWPerM2K: 23, insideWPerM2K: insideCoefficient(roomEmissivity, 4.4) });

/** Heat through one upright cavity, W/(m² K). @source EN 673: radiation 4σT³, convection Nu = 0.035 (Gr Pr)^0.38, at least 1 */
export function cavityConductance(cavity: DefiniteCavity, e1: number, e2: number, differenceK: number): number {
  const [own, air] = [gasAt10C[cavity.gas], gasAt10C.air];
  const share = cavity.gas === 'air' ? 1 : FILL;
  const mix = (f: 'density' | 'viscosity' | 'conductivity' | 'heat') => share * own[f] + (1 - share) * air[f];
  const s = cavity.widthMm / 1000;
  const grashof = (9.81 * s ** 3 * differenceK * mix('density') ** 2) / (MEAN_TEMP_K * mix('viscosity') ** 2);
  const prandtl = (mix('viscosity') * mix('heat')) / mix('conductivity');
  const nusselt = Math.max(1, 0.035 * (grashof * prandtl) ** 0.38);
  const radiation = (4 * SIGMA * MEAN_TEMP_K ** 3) / (1 / e1 + 1 / e2 - 1);
  return radiation + (nusselt * mix('conductivity')) / s;
}

/** Conductances between pane centres, and the emissivity of the room face. */
export interface Conductances {
  readonly betweenPanesWPerM2K: readonly number[];
  readonly roomEmissivity: number;
}

/** Conductances of a build-up; the 15 K of the rating fall on the cavities by their resistance, found by repeating. @source EN 673 */
export function conductances(panes: readonly DefinitePane[], cavities: readonly DefiniteCavity[], film: FilmOnFace | null): Conductances {
  const emissivity = (i: number, which: 'outer' | 'inner') =>
    faceEmissivity(panes[i]!, which, film && film.paneIndex === i && film.face === which ? film.emissivityFrac : null);
  let share = cavities.map(() => 1 / Math.max(1, cavities.length));
  let hs: number[] = [];
  for (let round = 0; round < 12; round++) {
    hs = cavities.map((c, i) => cavityConductance(c, emissivity(i, 'inner'), emissivity(i + 1, 'outer'), TOTAL_DIFFERENCE_K * share[i]!));
    const total = hs.reduce((s, h) => s + 1 / h, 0);
    share = hs.map((h) => 1 / h / total);
  }
  return { betweenPanesWPerM2K: hs, roomEmissivity: emissivity(panes.length - 1, 'inner') };
}

/** Conductance from the street face to the room face, W/(m² K); Infinity for a pane without thickness. @source EN 673 */
function throughConductance(panes: readonly { thicknessMm: number }[], betweenPanes: readonly number[]): number {
  const glass = panes.reduce((s, p) => s + p.thicknessMm / 1000 / GLASS_CONDUCTIVITY, 0);
  return 1 / (betweenPanes.reduce((s, h) => s + 1 / h, 0) + glass);
}

/** U, W/(m² K), at the middle of the pane. @source EN 673 / ISO 10292 */
export function uValue(panes: readonly DefinitePane[], cavities: readonly DefiniteCavity[], film: FilmOnFace | null): number {
  const { betweenPanesWPerM2K: betweenPanes, roomEmissivity } = conductances(panes, cavities, film);
  const h = ratingForU(roomEmissivity);
  return 1 / (1 / h.outsideWPerM2K + 1 / h.insideWPerM2K + 1 / throughConductance(panes, betweenPanes));
}

/**
 * Total solar energy transmittance: what is let through at once, and what the panes soak up and give to the room, each by the
 * resistance between it and the street over the whole.
 * @param betweenPanes conductance from pane to pane, W/(m² K)
 * @source EN 410 / ISO 9050
 */
export function gValue(transmittanceFrac: number, absorbedFrac: readonly number[], betweenPanes: readonly number[], h: SurfaceCoefficients): number {
  const whole = 1 / h.outsideWPerM2K + 1 / h.insideWPerM2K + betweenPanes.reduce((s, x) => s + 1 / x, 0);
  let resistance = 1 / h.outsideWPerM2K;
  let inwards = 0;
  absorbedFrac.forEach((a, i) => {
    inwards += (a * resistance) / whole;
    resistance += betweenPanes[i] === undefined ? 0 : 1 / betweenPanes[i];
  });
  return transmittanceFrac + inwards;
}

/** Conductance from pane centre to pane centre, half of each pane's own resistance included. */
export const centreToCentre = (panes: readonly { thicknessMm: number }[], betweenPanes: readonly number[]): number[] =>
  betweenPanes.map((h, i) => 1 / (1 / h + (panes[i]!.thicknessMm + panes[i + 1]!.thicknessMm) / 2000 / GLASS_CONDUCTIVITY));
