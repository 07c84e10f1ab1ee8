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
  /** What a flat piece measures that, laid from the middle outwards, reaches its corners too. */
  readonly pieceMm: { readonly across: number; readonly up: number };
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

/** How far it is over a ball to a place that lies so far from its axis; an infinite ball is flat. @source R·asin(d/R) */
export const alongBall = (radiusMm: number, awayMm: number): number =>
  Number.isFinite(radiusMm) ? radiusMm * Math.asin(Math.min(1, awayMm / radiusMm)) : awayMm;

/** Judges two bows against the size of the face. */
export function judgeDome(
  dome: Dome,
  size: { readonly widthMm: number; readonly heightMm: number },
): { readonly dome: JudgedDome; readonly doubts: readonly DomeDoubt[] } {
  const { widthMm, heightMm } = size;
  const radiusMm = { across: radiusOf(widthMm, dome.acrossBowMm), up: radiusOf(heightMm, dome.upBowMm) };
  const overMm = { across: arcOf(widthMm, dome.acrossBowMm), up: arcOf(heightMm, dome.upBowMm) };
  const ball = Math.sqrt(radiusMm.across * radiusMm.up);
  const corner = Math.hypot(widthMm, heightMm) / 2;
  // no rectangle has its corners on a ball smaller than they are apart
  const past = Math.max(dome.acrossBowMm - widthMm / 2, dome.upBowMm - heightMm / 2, corner - ball);
  const more = alongBall(ball, corner) / corner;
  const judged = {
    dome,
    widthMm,
    heightMm,
    radiusMm,
    overMm,
    pieceMm: { across: Math.max(overMm.across, widthMm * more), up: Math.max(overMm.up, heightMm * more) },
  };
  return { dome: judged, doubts: past > 0 ? [{ is: 'dome-none', part: 'dome', byMm: past }] : [] };
}
