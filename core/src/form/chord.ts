import type { CurvedPane, MeasureKey } from '@yellow-pane/contracts';
import type { TapeReading } from '../measure/index.js';
import { DEEPEST_FRAC } from './bow-sights.js';

/** Depth of a bow where a tape lies, by the bows that were read: the nearest of its way, else none. */
function bowNear(curved: CurvedPane, way: 'across' | 'upright', atFrac: number): number {
  const list = curved.bows.filter((b) => b.way === way && !b.span).sort((a, b) => a.atMm - b.atMm);
  return list.length === 0 ? 0 : list[Math.min(list.length - 1, Math.round(atFrac * (list.length - 1)))]!.depthMm;
}

/** Chord of an arc that was taped over the glass. @source chord and sagitta: arc = chord + 8 h² / 3 chord, to the next order (CHECKS: 801.3327 over 800 with 20) */
export const chordOfArc = (arcMm: number, depthMm: number): number => {
  let chord = arcMm;
  for (let i = 0; i < 4; i++) chord = arcMm - (8 * depthMm ** 2) / (3 * chord);
  return chord;
};

/** Bows that a pane of these tapes can have: what no glass bends to is left out of the plan, and counts here no more than there. */
function possibleBows(bows: CurvedPane['bows'], tapes: readonly TapeReading[]): CurvedPane['bows'] {
  const longest = (starts: string) => tapes.reduce((most, t) => (t.measure.startsWith(starts) ? Math.max(most, t.lengthMm) : most), 0);
  const [across, upright] = [longest('width'), longest('height')];
  const room = { across, upright, down: Math.hypot(across, upright), up: Math.hypot(across, upright) };
  return bows.filter((b) => room[b.way] === 0 || Math.abs(b.depthMm) <= DEEPEST_FRAC * room[b.way]);
}

/** Tapes laid over the glass brought to the chords under them. */
export function chordReadings(asRead: CurvedPane, tapes: readonly TapeReading[]): TapeReading[] {
  if (asRead.taped === 'chord' || asRead.cloud) return [...tapes];
  const curved = { ...asRead, bows: possibleBows(asRead.bows, tapes) };
  const diagonal =
    curved.bows.filter((b) => b.way === 'down' || b.way === 'up')[0]?.depthMm ?? bowNear(curved, 'across', 0.5) + bowNear(curved, 'upright', 0.5);
  const depth: Partial<Record<MeasureKey, number>> = {
    widthTop: bowNear(curved, 'across', 1),
    widthMiddle: bowNear(curved, 'across', 0.5),
    widthBottom: bowNear(curved, 'across', 0),
    widthLargest: bowNear(curved, 'across', 0.5),
    heightLeft: bowNear(curved, 'upright', 0),
    heightMiddle: bowNear(curved, 'upright', 0.5),
    heightRight: bowNear(curved, 'upright', 1),
    heightLargest: bowNear(curved, 'upright', 0.5),
    diagonalDown: diagonal,
    diagonalUp: diagonal,
  };
  return tapes.map((t) => ({ ...t, lengthMm: depth[t.measure] && t.lengthMm > 0 ? chordOfArc(t.lengthMm, depth[t.measure]!) : t.lengthMm }));
}
