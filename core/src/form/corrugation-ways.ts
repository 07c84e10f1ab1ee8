import { flatOfCrest, girthOfRibs, halfRib, type Ribs } from '../measure/index.js';

/** Film is drawn on no farther where less than this is left between the flanks: it lies over no corner sharper than that, mm. @source house rule (docs/models/stretch.md §2) */
const SHARPEST_MM = 3;

/** How far film stretches over a corrugated sheet, as shares, far from the ends of its ribs. */
export interface CorrugationPlan {
  readonly girthMm: number;
  /** Film that is more than the sheet is wide, as a share: what feeding all of it in takes. */
  readonly moreFrac: number;
  /** Stretched from crest to crest, then formed into the valleys hot, all of a valley at once: evenly, where it does not lie on the crest. */
  readonly bridgedFrac: number;
  /** The same, pressed down from the crests bit by bit: what is left between is stretched more and more. */
  readonly pressedFrac: number;
  readonly limitFrac: number | null;
  /** Goes: stretched over its crests it stays within the film's figure. Feed: only with film drawn in from outside. Unknown: nobody knows what this film stands. */
  readonly is: 'goes' | 'feed' | 'unknown';
}

/**
 * Ribs bend one way only: fed in valley by valley, film stretches nowhere. Held on the crests it has to.
 * @param girthMm of a string, where it is longer than the section says
 * @source closed forms: bridged (girth − c)/(pitch − c) − 1 with a flat crest c; pressed bit by bit `d ln λ = 2(1 − cos α) ds / W`, W what is open between the flanks
 * (docs/models/stretch.md §4)
 */
export function planCorrugation(ribs: Ribs, limitFrac: number | null, girthMm = girthOfRibs(ribs)): CorrugationPlan {
  const flat = flatOfCrest(ribs);
  const bridgedFrac = (girthMm - flat) / (ribs.pitchMm - flat) - 1;
  const half = halfRib(ribs);
  let log = 0;
  for (let i = 1; i < half.length; i++) {
    const [a, b] = [half[i - 1]!, half[i]!];
    const [across, down] = [b.xMm - a.xMm, b.downMm - a.downMm];
    const ds = Math.hypot(across, down);
    const lost = 2 * (ds - across);
    const [from, to] = [ribs.pitchMm - 2 * a.xMm, Math.max(SHARPEST_MM, ribs.pitchMm - 2 * b.xMm)];
    if (from <= SHARPEST_MM || lost <= 0) continue;
    // the flank is straight between the two: ∫ ds/W closed
    log += from - to > 1e-9 * from ? (lost * Math.log(from / to)) / (from - to) : lost / from;
  }
  const is = limitFrac === null ? 'unknown' : bridgedFrac <= limitFrac ? 'goes' : 'feed';
  return { girthMm, moreFrac: girthMm / ribs.pitchMm - 1, bridgedFrac, pressedFrac: Math.exp(log) - 1, limitFrac, is };
}
