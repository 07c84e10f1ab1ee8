import type { Dome } from '@yellow-pane/contracts';

/** A domed sheet: its size as it is seen from the front, and how round it is each way. */
export interface JudgedDome {
  readonly dome: Dome;
  readonly widthMm: number;
  readonly heightMm: number;
  /** Radius of its middle across and up; Infinity: flat that way. */
  readonly radiusMm: { readonly across: number; readonly up: number };
  /** Film over its middle, from arris to arris, across and up. */
  readonly overMm: { readonly across: number; readonly up: number };
}
/** What does not fit about a dome. */
export interface DomeDoubt {
  readonly is: 'dome-none' | 'dome-hollows';
  readonly part: 'dome';
  readonly byMm: number;
}

/** Radius of an arc by its chord and bow. @source circle: c²/(8b) + b/2 */
const radiusOf = (chordMm: number, bowMm: number): number => (bowMm > 0 ? chordMm ** 2 / (8 * bowMm) + bowMm / 2 : Infinity);
/** Length of that arc. @source circle: 2R·asin(c/2R) */
const arcOf = (chordMm: number, bowMm: number): number => {
  const r = radiusOf(chordMm, bowMm);
  return Number.isFinite(r) ? 2 * r * Math.asin(Math.min(1, chordMm / (2 * r))) : chordMm;
};

/** Judges two bows against the size of the face. */
export function judgeDome(
  dome: Dome,
  size: { readonly widthMm: number; readonly heightMm: number },
): { readonly dome: JudgedDome; readonly doubts: readonly DomeDoubt[] } {
  const { widthMm, heightMm } = size;
  const past = Math.max(dome.acrossBowMm - widthMm / 2, dome.upBowMm - heightMm / 2);
  const judged = {
    dome,
    widthMm,
    heightMm,
    radiusMm: { across: radiusOf(widthMm, dome.acrossBowMm), up: radiusOf(heightMm, dome.upBowMm) },
    overMm: { across: arcOf(widthMm, dome.acrossBowMm), up: arcOf(heightMm, dome.upBowMm) },
  };
  return { dome: judged, doubts: past > 0 ? [{ is: 'dome-none', part: 'dome', byMm: past }] : [] };
}
