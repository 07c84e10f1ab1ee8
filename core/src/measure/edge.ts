import { tapeSigmaMm, type TapeReading } from './adjustment.js';

/** What is known of the edge that film goes over. */
export interface TapedEdge {
  readonly thicknessMm: number | null;
  /** The longer of thickness and string: what is too much is trimmed, what is missing is not. */
  readonly girthMm: number;
}
/** A string over an edge is shorter than the edge is thick, by so much: no string is. */
export interface EdgeDoubt {
  readonly is: 'edge-girth';
  readonly part: null;
  readonly byMm: number;
}

/** A string over an edge is read to this, 1 σ. @source house rule */
const STRING_SIGMA_MM = 1;
/** Told apart at 1 %. */
const APART = 2.58;

/** Judges what was taped of an edge. @returns edge null: nobody taped it */
export function judgeEdge(readings: readonly TapeReading[]): { readonly edge: TapedEdge | null; readonly doubts: readonly EdgeDoubt[] } {
  const of = (measure: TapeReading['measure']) => readings.find((r) => r.measure === measure && r.lengthMm > 0)?.lengthMm ?? null;
  const [thicknessMm, string] = [of('edgeThickness'), of('edgeGirth')];
  const girthMm = Math.max(thicknessMm ?? 0, string ?? 0);
  const isShort = thicknessMm !== null && string !== null && thicknessMm - string > APART * Math.hypot(STRING_SIGMA_MM, tapeSigmaMm(thicknessMm));
  return {
    edge: girthMm > 0 ? { thicknessMm, girthMm } : null,
    doubts: isShort ? [{ is: 'edge-girth', part: null, byMm: string - thicknessMm }] : [],
  };
}
