import { LIES_DOWN_MM, type RecessForm } from '../measure/index.js';
import { insideMm, recessGrid, recessZ, type RecessGrid } from './recess-shape.js';
import { gridSize, laidFlat, relaxSheet, stretchOf, type CellStretch, type FilmMap, type Holds } from './stretch-sheet.js';

/**
 * An order in which film comes into a recess. Bridged: tacked round about, all of it made hot and formed in, pressed when it is in. Divided: the same, with a share of
 * the slack fed in before it is tacked. Fed: the field first, then the walls up, round about last. Walls first: tacked round about and pressed down from the arris bit
 * by bit. Field first: tacked round about and on the field, then the walls.
 */
export type RecessWay = 'bridged' | 'divided' | 'fed' | 'walls-first' | 'field-first';
export const recessWays = ['bridged', 'fed', 'divided', 'walls-first', 'field-first'] as const satisfies readonly RecessWay[];

/** Film in a recess at the end of an order. */
export interface RecessResult {
  readonly way: RecessWay;
  /** Share of the slack that is fed in before it is tacked. */
  readonly fedFrac: number;
  /** All but a ten-thousandth of the film is stretched by less: one cell in a corner of the model says nothing of film. */
  readonly largestFrac: number;
  readonly largestAt: { readonly xMm: number; readonly yMm: number };
  /** A fold so wide is left over at each corner, mm. */
  readonly foldMm: number;
  /** False: it was still moving when the reckoning was broken off, and its figures are rough. */
  readonly isAtRest: boolean;
  /** Of the quarter to the right of and above the middle. */
  readonly cells: readonly CellStretch[];
}

/** Pressed bit by bit is pressed in so many goes. @source house figure: as many again changes the largest stretch by less than a tenth of itself (recess-ways.spec.ts) */
const GOES = 8;
/** Film takes up by itself what is left over by less than this share. @source house figure */
const TAKEN_UP = 0.005;

/** Pressed places stay; the middles of the recess stay middles. */
const holdsOf = (grid: RecessGrid, isPressed: Uint8Array): Holds => [isPressed.map((p, i) => p || (i % grid.xs.length === 0 ? 1 : 0)), isPressed.map((p, i) => p || (i < grid.xs.length ? 1 : 0))]; // prettier-ignore
const where = (grid: RecessGrid, is: (insideMm: number) => boolean): Uint8Array => Uint8Array.from({ length: gridSize(grid) }, (_, i) => (is(grid.inside[i]!) ? 1 : 0)); // prettier-ignore
const EDGE_MM = 1e-9;

/** Film that was let come to rest, once or go by go. */
interface Rested {
  readonly film: FilmMap;
  readonly isAtRest: boolean;
}

/** The field lies as it came; all the rest slides. */
function fedIn(grid: RecessGrid): Rested {
  const film = laidFlat(grid);
  const isField = where(grid, (s) => s >= grid.runMm - EDGE_MM);
  return { film, isAtRest: relaxSheet(grid, recessZ(grid), film, holdsOf(grid, isField)) };
}

/** How the film lies as it is pressed bit by bit: at each go a shape it lies on, and what of it is pressed from then on. */
function goesOf(
  grid: RecessGrid,
  way: 'walls-first' | 'field-first',
  goes: number,
): { readonly z: Float64Array; readonly isPressed: (node: number) => boolean }[] {
  const { form, runMm, inside } = grid;
  const deep = recessZ(grid);
  const bottom = deep.reduce((least, z) => Math.min(least, z), 0);
  const half = Math.min(form.acrossMm, form.upMm) / 2;
  return Array.from({ length: goes }, (_, go) => {
    const share = (go + 1) / goes;
    if (way === 'walls-first') {
      // what is not down yet lies across at the depth reached
      const z = deep.map((d) => Math.max(d, bottom * share));
      return { z, isPressed: (i) => inside[i]! <= runMm * share + EDGE_MM };
    }
    // it hangs straight from the arris to the edge of what is pressed of the field
    const reachMm = half * (runMm / half) ** share;
    return { z: deep.map((_d, i) => bottom * Math.min(1, Math.max(0, inside[i]! / reachMm))), isPressed: (i) => inside[i]! >= reachMm - EDGE_MM };
  });
}

function endOf(grid: RecessGrid, way: RecessWay, fedFrac: number, goes: number): Rested {
  if (way === 'fed') return fedIn(grid);
  const film = laidFlat(grid);
  const isPressed = where(grid, (s) => s <= EDGE_MM);
  let isAtRest = true;
  if (way === 'divided') {
    const fed = fedIn(grid);
    isAtRest = fed.isAtRest;
    for (const k of ['u', 'v'] as const) for (let i = 0; i < isPressed.length; i++) film[k][i]! += fedFrac * (fed.film[k][i]! - film[k][i]!);
  }
  const steps = way === 'bridged' || way === 'divided' ? [{ z: recessZ(grid), isPressed: () => true }] : goesOf(grid, way, goes);
  for (const go of steps) {
    isAtRest = relaxSheet(grid, go.z, film, holdsOf(grid, isPressed)) && isAtRest;
    for (let i = 0; i < isPressed.length; i++) if (go.isPressed(i)) isPressed[i] = 1;
  }
  return { film, isAtRest };
}

/** What of a quarter is left over, as a fold from the corner outwards, or as a square within it. */
function foldOf(grid: RecessGrid, cells: readonly CellStretch[]): number {
  let [round, within] = [0, 0];
  for (const { leftOverFrac, areaMm2, xMm, yMm } of cells) {
    if (leftOverFrac < TAKEN_UP) continue;
    if (insideMm(grid.form, xMm, yMm) < 0) round += leftOverFrac * areaMm2;
    else within += leftOverFrac * areaMm2;
  }
  return Math.max(round / grid.apronMm, Math.sqrt(within));
}

export interface RecessOptions {
  /** 2: twice as fine a mesh. */
  readonly fineness?: number;
  readonly goes?: number;
}
/** Film in a recess by one order. @param fedFrac of a divided one */
export function recessBy(form: RecessForm, way: RecessWay, fedFrac = 0, { fineness = 1, goes = GOES }: RecessOptions = {}): RecessResult {
  const grid = recessGrid(form, fineness);
  const { film, isAtRest } = endOf(grid, way, fedFrac, goes);
  const cells = stretchOf(grid, recessZ(grid), film);
  const bySize = [...cells].sort((p, q) => q.stretchFrac - p.stretchFrac);
  const whole = cells.reduce((s, c) => s + c.areaMm2, 0);
  let [area, k] = [bySize[0]!.areaMm2, 0];
  while (k < bySize.length - 1 && area < 1e-4 * whole) area += bySize[++k]!.areaMm2;
  const { stretchFrac, xMm, yMm } = bySize[k]!;
  return { way, fedFrac: way === 'fed' ? 1 : fedFrac, largestFrac: stretchFrac, largestAt: { xMm, yMm }, foldMm: foldOf(grid, cells), isAtRest, cells };
}

/** What is to be done about a recess. */
export interface RecessPlan {
  readonly form: RecessForm;
  readonly ways: readonly RecessResult[];
  /** The order in which film stretches least while what is left over lies down. */
  readonly best: RecessResult;
  /** The same on half the mesh: how far the figure may be off by the mesh alone. */
  readonly finer: RecessResult;
  /** What feeding all of it in comes to; where the verdict hangs on it, the larger of both meshes. */
  readonly fedFrac: number;
  readonly limitFrac: number | null;
  /** Goes: film is within its limit. Slit: only when all of it is fed in and what is left over is slit at the corners. Inlay: not in one piece. Unknown: nobody knows what this film stands. */
  readonly is: 'goes' | 'slit' | 'inlay' | 'unknown';
}

/** What the best order and the one that feeds all of it in mean for a film. */
export function verdictOn(bestFrac: number, fedFrac: number, limitFrac: number | null): RecessPlan['is'] {
  if (limitFrac === null) return 'unknown';
  return bestFrac <= limitFrac ? 'goes' : fedFrac <= limitFrac ? 'slit' : 'inlay';
}

/**
 * Every order, the best of them, and what that means for a film.
 * @param limitFrac how far the film may be stretched, as a share; null: its maker’s figure is not known
 * @yields results as they come, the last one the plan
 */
export function* planRecess(form: RecessForm, limitFrac: number | null): Generator<RecessResult, RecessPlan> {
  const ways: RecessResult[] = [];
  const next = (way: RecessWay, fedFrac = 0): RecessResult => {
    const result = recessBy(form, way, fedFrac);
    ways.push(result);
    return result;
  };
  const bridged = next('bridged');
  yield bridged;
  const fed = next('fed');
  yield fed;
  // what is left over grows evenly with what is fed in
  const share = Math.min(1, (0.9 * LIES_DOWN_MM) / Math.max(1e-6, fed.foldMm));
  if (share < 0.95) yield next('divided', share);
  yield next('walls-first');
  yield next('field-first');
  const lying = ways.filter((w) => w.foldMm <= LIES_DOWN_MM);
  const best = (lying.length ? lying : ways).reduce((a, b) => (b.largestFrac < a.largestFrac ? b : a));
  const finer = recessBy(form, best.way, best.fedFrac, { fineness: 2 });
  const bestFrac = Math.max(best.largestFrac, finer.largestFrac);
  const isEnough = limitFrac === null || bestFrac <= limitFrac || best === fed;
  const fedFrac = Math.max(fed.largestFrac, isEnough ? 0 : recessBy(form, 'fed', 1, { fineness: 2 }).largestFrac);
  return { form, ways, best, finer, fedFrac, limitFrac, is: verdictOn(bestFrac, fedFrac, limitFrac) };
}
