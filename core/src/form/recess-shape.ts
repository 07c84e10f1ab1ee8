import { slackOfWall, type RecessForm } from '../measure/index.js';
import type { StretchGrid } from './stretch-sheet.js';

/** No wall is drawn steeper than this, as run for depth, nor narrower than this share of the recess: what is upright has no place on a plan. @source house rule (docs/models/stretch.md) */
const STEEPEST = 0.12;
const NARROWEST = 0.004;
const runOf = ({ slopeMm, depthMm, acrossMm, upMm }: RecessForm): number =>
  Math.min(Math.max(slopeMm, STEEPEST * depthMm, NARROWEST * Math.min(acrossMm, upMm)), 0.45 * Math.min(acrossMm, upMm));

/** How far a place (from the middle) is inside the mouth, mm; outside: below 0. @source signed distance of a rounded rectangle */
export function insideMm({ acrossMm, upMm, cornerMm }: RecessForm, xMm: number, yMm: number): number {
  const r = Math.min(cornerMm, acrossMm / 2, upMm / 2);
  const [qx, qy] = [Math.abs(xMm) - acrossMm / 2 + r, Math.abs(yMm) - upMm / 2 + r];
  return -(Math.hypot(Math.max(qx, 0), Math.max(qy, 0)) + Math.min(Math.max(qx, qy), 0) - r);
}

/** What lies between: from one side of a wall to the other, and outside of it what the film can be drawn from. */
export interface RecessGrid extends StretchGrid {
  readonly form: RecessForm;
  /** Of each node: how far it is inside the mouth. */
  readonly inside: Float64Array;
  readonly runMm: number;
  /** How far film outside the mouth is looked at. */
  readonly apronMm: number;
}

/** Lines between two places: steps grow by half from either end, none above the coarse one. */
function between(from: number, to: number, stepFrom: number, stepTo: number, coarse: number): number[] {
  const [left, right]: [number[], number[]] = [[], []];
  let [low, high, a, b] = [from, to, Math.min(stepFrom, coarse), Math.min(stepTo, coarse)];
  while (high - low > 1.2 * Math.max(a, b)) {
    if (a <= b) {
      left.push((low += a));
      a = Math.min(coarse, a * 1.5);
    } else {
      right.unshift((high -= b));
      b = Math.min(coarse, b * 1.5);
    }
  }
  return [...left, ...right];
}

/** Corners are taken no sharper than this at the foot of a wall: film lies over no sharper one, mm. @source house rule */
const SHARPEST_MM = 3;

/**
 * Lines over the quarter of a recess to the right of and above its middle: fine where its walls stand and over the round of its corners.
 * @param fineness 1: as usual; 2: twice as fine
 */
export function recessGrid(asked: RecessForm, fineness = 1): RecessGrid {
  const run = runOf(asked);
  const form = { ...asked, cornerMm: Math.min(Math.max(asked.cornerMm, run + SHARPEST_MM), asked.acrossMm / 2, asked.upMm / 2) };
  const apron = 1.5 * form.depthMm + 12;
  const wall = run / (3 * fineness);
  const lines = (half: number): number[] => {
    const foot = half - run;
    // where the round of the corner begins, and a run more
    const bend = Math.max(foot * 0.1, foot - form.cornerMm);
    const step = Math.max(wall, (foot - bend) / (4 * fineness));
    const walls = Math.round(run / wall);
    return [
      0,
      ...between(0, bend, half, step, half / (7 * fineness)),
      bend,
      ...between(bend, foot, step, wall, step),
      ...Array.from({ length: walls }, (_, i) => foot + (run * i) / walls),
      half,
      ...between(half, half + apron, wall, apron, apron / (3 * fineness)),
      half + apron,
    ];
  };
  const [xs, ys] = [lines(form.acrossMm / 2), lines(form.upMm / 2)];
  const inside = new Float64Array(xs.length * ys.length);
  ys.forEach((y, j) => xs.forEach((x, i) => (inside[j * xs.length + i] = insideMm(form, x, y))));
  return { xs, ys, form, inside, runMm: run, apronMm: apron };
}

/** Depth of each node: where a wall stands steeper than can be drawn, it leans, and takes as much more film than it is wide on plan as the true one. */
export function recessZ({ form, runMm, inside }: RecessGrid): Float64Array {
  const fall = Math.sqrt((slackOfWall(form) + runMm) ** 2 - runMm ** 2);
  return inside.map((s) => -fall * Math.min(1, Math.max(0, s / runMm)));
}
