import type { FrameMaterial } from '@yellow-pane/contracts';
import { solveThreeBand } from '../geometry/index.js';
import { GLASS_CONDUCTIVITY } from './glass.js';

/** Heat stored by glass, J/(m³ K). @source EN 572-1: 2500 kg/m³, 720 J/(kg K) (from memory) */
const GLASS_HEAT_J_PER_M3K = 2500 * 720;

/** Panes in a row as a heat network, per m². */
export interface PaneNetwork {
  readonly thicknessMm: readonly number[];
  /** Between pane centres, W/(m² K); one fewer than panes. */
  readonly betweenWPerM2K: readonly number[];
  readonly outsideWPerM2K: number;
  readonly insideWPerM2K: number;
}

/**
 * Pane temperatures one step on: implicit Euler, so any step is stable. One unknown per pane, each tied to its
 * neighbours.
 * @param soakedWPerM2 sun soaked up by each pane
 * @param stepS Infinity gives the settled temperatures
 */
export function stepPanes(n: PaneNetwork, now: readonly number[], soakedWPerM2: readonly number[], outsideC: number, insideC: number, stepS: number): number[] {
  const count = n.thicknessMm.length;
  // conductances to the left and to the right of each pane
  const left = n.thicknessMm.map((_, i) => (i === 0 ? n.outsideWPerM2K : n.betweenWPerM2K[i - 1]!));
  const right = n.thicknessMm.map((_, i) => (i === count - 1 ? n.insideWPerM2K : n.betweenWPerM2K[i]!));
  const store = n.thicknessMm.map((mm) => (stepS === Infinity ? 0 : (GLASS_HEAT_J_PER_M3K * mm) / 1000 / stepS));
  return solveThreeBand(
    left.map((h) => -h),
    store.map((s, i) => s + left[i]! + right[i]!),
    right.map((h) => -h),
    store.map((s, i) => s * now[i]! + soakedWPerM2[i]! + (i === 0 ? left[i]! * outsideC : 0) + (i === count - 1 ? right[i]! * insideC : 0)),
  );
}

/** What a frame does to the covered edge. */
export interface FrameHeat {
  /** Hours in which it follows the air by 63 %. */
  readonly lagH: number;
  /** Share of its temperature that the street gives; the rest is the room's. */
  readonly streetFrac: number;
  /** From glass to frame over both faces, W/(m² K). */
  readonly contactWPerM2K: number;
}
/** @source house figures by material, from memory of practice: a masonry rebate stays cold longest, plain metal follows the street */
export const frameHeat: Record<Exclude<FrameMaterial, 'unknown'>, FrameHeat> = {
  wood: { lagH: 1.5, streetFrac: 0.6, contactWPerM2K: 60 },
  plastic: { lagH: 1.5, streetFrac: 0.6, contactWPerM2K: 60 },
  metal: { lagH: 0.75, streetFrac: 0.6, contactWPerM2K: 110 },
  'broken-metal': { lagH: 1, streetFrac: 0.75, contactWPerM2K: 110 },
  masonry: { lagH: 6, streetFrac: 0.8, contactWPerM2K: 110 },
};

/**
 * Temperature at the very edge under the frame: the glass as a fin, warm from its middle, cooled by the frame along the cover.
 * @param loss W/(m² K) that the open glass beside the frame gives to both sides
 * @source Incropera & DeWitt, fin with insulated tip (table 3.4), joined to a long fin on the open side (from memory)
 */
export function edgeC(centreC: number, frameC: number, thicknessMm: number, coverMm: number, contactWPerM2K: number, loss: number): number {
  const kd = (GLASS_CONDUCTIVITY * thicknessMm) / 1000;
  const open = Math.sqrt(kd / loss);
  const covered = Math.sqrt(kd / contactWPerM2K);
  const depth = coverMm / 1000 / covered;
  const pull = Math.tanh(depth) / covered;
  const mouth = (centreC / open + frameC * pull) / (1 / open + pull);
  return frameC + (mouth - frameC) / Math.cosh(depth);
}
