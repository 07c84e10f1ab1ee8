import type { Blades } from '@yellow-pane/contracts';

/** A straight blade presses on bent glass where its rubber gives way by no more than this in the middle. @source house rule */
const RUBBER_GIVES_MM = 2;
/** First strokes end this far from the frame. @source common practice: ½ in (13 mm), water there draws dirt in */
export const EDGE_STOP_MM = 13;

/** A pane as a blade goes over it. */
export interface BladedPane {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Of curved glass: how sharply it bends along an upright blade, 1/mm; null: nobody has measured it. Left out: flat. */
  readonly bendPerMm?: number | null | undefined;
}

/** The longest blade that lies on glass bent by so much: chord and sagitta, b² κ / 8. */
const bladeOnBend = (bendPerMm: number): number => (bendPerMm > 0 ? Math.sqrt((8 * RUBBER_GIVES_MM) / bendPerMm) : Infinity);

/** A blade longer than this is not put on bent glass that nobody has measured. @source house rule */
const UNMEASURED_BEND_MM = 150;

/** The widest of a list of blades that works across a pane without touching the frame on both sides, and that lies on it where it is bent; the narrowest where none does. */
export function bladeFor(pane: BladedPane, widthsMm: readonly number[]): number {
  const clear = Math.min(pane.widthMm, pane.heightMm) - 2 * EDGE_STOP_MM;
  const bend = pane.bendPerMm === undefined ? Infinity : pane.bendPerMm === null ? UNMEASURED_BEND_MM : bladeOnBend(pane.bendPerMm);
  const sorted = [...widthsMm].sort((a, b) => b - a);
  return sorted.find((b) => b <= Math.min(clear, bend)) ?? sorted.at(-1)!;
}

/** The blade that presses film onto a pane: of the narrow ones, of thick film those for thick film. @source common practice: the same hand presses a third as hard on three times the width */
export const pressingBladeFor = (pane: BladedPane, isThick: boolean, blades: Blades): number => bladeFor(pane, isThick ? blades.thickMm : blades.pressingMm);
