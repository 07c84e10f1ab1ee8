import { alongBall, LIES_DOWN_MM, type JudgedDome } from '../measure/index.js';
import { dishByBows } from './surface.js';
import { gridSize, laidFlat, relaxSheet, stretchOf } from './stretch-sheet.js';

/** Left-over film is looked at on so much of the border: a hand's length, mm. @source house rule */
const HAND_MM = 200;
/** A dart takes out no more than this; wider ones leave a step. @source house rule, as the Vs of a top */
const WIDEST_DART_MM = 12;

/** How film lies on a domed sheet. */
export interface DomePlan {
  /** Laid from its middle outwards without a pull: what is left over on a hand's length at the worst place of its border, mm. */
  readonly leftOverMm: number;
  /** The same all round, mm. */
  readonly allRoundMm: number;
  /** Drawn on from its middle outwards, just so far that nothing is left over: the most, at its corners, as a share. */
  readonly drawnFrac: number;
  readonly darts: number;
  readonly limitFrac: number | null;
  /** Lies: what is left over lies down warm. Draw: drawn on it is within the film's figure. Darts: only with cuts. Unknown: it has to be drawn on, and nobody knows what the film stands. */
  readonly is: 'lies' | 'draw' | 'darts' | 'unknown';
}

/** Film that is drawn on over a sphere: stretch where it has come to so far from the pole (an angle). @source docs/models/stretch.md §5: ρ³ = 3R³(φ/2 − sin 2φ/4), λ = (ρ/(R sin φ))² */
export function drawnOver(phi: number): number {
  if (phi < 1e-3) return phi ** 2 / 5;
  const rho = Math.cbrt(3 * (phi / 2 - Math.sin(2 * phi) / 4));
  return (rho / Math.sin(phi)) ** 2 - 1;
}

/**
 * A dome by its two bows, taken for the sphere that bends as much both ways together (the root of its two radii): what film has too much of depends on that alone.
 * @param limitFrac how far the film may be stretched; null: nobody knows
 */
export function planDome({ radiusMm, widthMm, heightMm }: JudgedDome, limitFrac: number | null): DomePlan {
  const radius = Math.sqrt(radiusMm.across * radiusMm.up);
  const [a, b] = [widthMm / 2, heightMm / 2];
  /** What is left over on each mm that the film has round the middle, so far from its axis. */
  const left = (awayMm: number) => 1 - awayMm / alongBall(radius, awayMm);
  const PARTS = 200;
  let allRoundMm = 0;
  for (const [from, side] of [[b, a], [a, b]] as const)
    for (let i = 0; i < PARTS; i++) {
      const away = Math.hypot(from, (side * (i + 0.5)) / PARTS);
      // a part of the border is seen from the middle under so much
      const seenRad = (from / away ** 2) * (side / PARTS);
      allRoundMm += 4 * (alongBall(radius, away) - away) * seenRad;
    }
  const corner = Math.hypot(a, b);
  const drawnFrac = drawnOver(Number.isFinite(radius) ? alongBall(radius, corner) / radius : 0);
  const leftOverMm = left(corner) * HAND_MM;
  const is = leftOverMm <= LIES_DOWN_MM ? 'lies' : limitFrac === null ? 'unknown' : drawnFrac <= limitFrac ? 'draw' : 'darts';
  return { leftOverMm, allRoundMm, drawnFrac, darts: Math.ceil(Math.max(0, allRoundMm / WIDEST_DART_MM - 1e-9)), limitFrac, is };
} // prettier-ignore

/**
 * The same film tacked round its border first and pressed on from there: it has to stretch in the middle.
 * @returns the most, as a share @source the sheet of least energy (stretch-sheet.ts) on the dish of both bows
 */
export function tackedDome({ dome, widthMm, heightMm }: JudgedDome, lines = 14): number {
  const steps = (half: number) => Array.from({ length: lines + 1 }, (_, i) => (half * i) / lines);
  const grid = { xs: steps(widthMm / 2), ys: steps(heightMm / 2) };
  const { height } = dishByBows(widthMm, dome.acrossBowMm, heightMm, dome.upBowMm);
  const n = gridSize(grid);
  const z = Float64Array.from({ length: n }, (_, i) => -height!(grid.xs[i % (lines + 1)]!, grid.ys[Math.floor(i / (lines + 1))]!).z);
  const isRim = (i: number) => i % (lines + 1) === lines || Math.floor(i / (lines + 1)) === lines;
  const film = laidFlat(grid);
  const held = (isMiddle: (i: number) => boolean) => Uint8Array.from({ length: n }, (_, i) => (isRim(i) || isMiddle(i) ? 1 : 0));
  relaxSheet(grid, z, film, [held((i) => i % (lines + 1) === 0), held((i) => i <= lines)]);
  return stretchOf(grid, z, film).reduce((most, c) => Math.max(most, c.stretchFrac), 0);
}
