import type { FrameMaterial } from '@yellow-pane/contracts';
import { GLASS_CONDUCTIVITY } from './glass.js';

/** Heat stored by glass, J/(m³ K). @source EN 572-1: 2500 kg/m³, 720 J/(kg K) (from memory) */
const GLASS_HEAT_J_PER_M3K = 2500 * 720;

/** Panes in a row as a heat network, per m². */
export interface PaneNetwork {
  readonly thicknessMm: readonly number[];
  /** Between pane centres, W/(m² K); one fewer than panes. */
  readonly between: readonly number[];
  readonly outside: number;
  readonly inside: number;
}

/**
 * Pane temperatures one step on: implicit Euler, so any step is stable. One unknown per pane, a three-band system solved
 * from the street inwards and back.
 * @param soakedWPerM2 sun soaked up by each pane
 * @param stepS Infinity gives the settled temperatures
 */
export function stepPanes(n: PaneNetwork, now: readonly number[], soakedWPerM2: readonly number[], outsideC: number, insideC: number, stepS: number): number[] {
  const count = n.thicknessMm.length;
  const upper: number[] = [];
  const right: number[] = [];
  for (let i = 0; i < count; i++) {
    const store = stepS === Infinity ? 0 : (GLASS_HEAT_J_PER_M3K * n.thicknessMm[i]!) / 1000 / stepS;
    const left = i === 0 ? n.outside : n.between[i - 1]!;
    const next = i === count - 1 ? n.inside : n.between[i]!;
    let diagonal = store + left + next;
    let b = store * now[i]! + soakedWPerM2[i]! + (i === 0 ? left * outsideC : 0) + (i === count - 1 ? next * insideC : 0);
    if (i > 0) {
      diagonal -= left * upper[i - 1]!;
      b += left * right[i - 1]!;
    }
    upper.push(i === count - 1 ? 0 : next / diagonal);
    right.push(b / diagonal);
  }
  const out = new Array<number>(count);
  for (let i = count - 1; i >= 0; i--) out[i] = right[i]! + (i === count - 1 ? 0 : upper[i]! * out[i + 1]!);
  return out;
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
