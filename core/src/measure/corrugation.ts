import type { Corrugation } from '@yellow-pane/contracts';

/** What of a sheet's ribs decides how film lies on them. */
export type Ribs = Pick<Corrugation, 'form' | 'pitchMm' | 'depthMm' | 'crestMm' | 'valleyMm' | 'bendMm'>;

/** Pitch and depth by a folding rule, and a string pressed in, 1 σ. @source house rule, as of a groove */
const SIGMA_MM = { rule: 0.5, string: 1 };
/** Two claims are told apart from this many standard deviations on. @source as the single tapes: 1 % */
const APART = 2.58;

/** A place of the section: from the middle of a crest across, below the crest. */
export interface RibPoint {
  readonly xMm: number;
  readonly downMm: number;
}

/** A bend is taken in so many parts. */
const PARTS = 24;

/** What is known of a trapezoid's bends: by how much each turns, its radius as far as there is room for it, and how long its tangents are. */
function bendsOf({ pitchMm, depthMm, crestMm, valleyMm, bendMm }: Ribs) {
  const run = (pitchMm - crestMm - valleyMm) / 2;
  const turn = Math.atan2(depthMm, run);
  const flank = Math.hypot(run, depthMm);
  const room = Math.min(crestMm / 2, valleyMm / 2, flank / 2);
  const radius = Math.min(bendMm, room / Math.tan(turn / 2));
  return { turn, flank, radius, tangentMm: radius * Math.tan(turn / 2) };
}

/** Radius and turn of the arcs of a wave: each half of a flank is one. @source two tangent arcs over half a pitch: tan(θ/2) = 2·depth/pitch, r = pitch/(4 sin θ) */
function arcsOf({ pitchMm, depthMm }: Pick<Ribs, 'pitchMm' | 'depthMm'>) {
  const turn = 2 * Math.atan2(2 * depthMm, pitchMm);
  return { turn, radiusMm: pitchMm / (4 * Math.sin(turn)) };
}

/**
 * The way of film from crest to crest.
 * @source closed form (docs/models/stretch.md §4): a wave `4rθ`; a trapezoid `crest + valley + 2·flank − 4r(2 tan(φ/2) − φ)`
 */
export function girthOfRibs(ribs: Ribs): number {
  if (ribs.form === 'wave') {
    const { turn, radiusMm } = arcsOf(ribs);
    return 4 * radiusMm * turn;
  }
  const { flank, turn, radius } = bendsOf(ribs);
  return ribs.crestMm + ribs.valleyMm + 2 * flank - 4 * radius * (2 * Math.tan(turn / 2) - turn);
}

/** How much of each crest is flat, so that film laid over it lies on it, mm. */
export function flatOfCrest(ribs: Ribs): number {
  return ribs.form === 'wave' ? 0 : ribs.crestMm - 2 * bendsOf(ribs).tangentMm;
}

/** Half a rib, from the middle of its crest to the middle of the valley. */
export function halfRib(ribs: Ribs): RibPoint[] {
  const { pitchMm, depthMm, crestMm } = ribs;
  const share = Array.from({ length: PARTS + 1 }, (_, i) => i / PARTS);
  if (ribs.form === 'wave') {
    const { turn, radiusMm: r } = arcsOf(ribs);
    const up = share.map((s) => ({ xMm: r * Math.sin(turn * s), downMm: r * (1 - Math.cos(turn * s)) }));
    const low = [...up].reverse().map((p) => ({ xMm: pitchMm / 2 - p.xMm, downMm: depthMm - p.downMm }));
    return [...up, ...low.slice(1)];
  }
  const { turn, radius: r, tangentMm: t } = bendsOf(ribs);
  const bend = (from: number) => share.map((s) => ({ xMm: from + r * Math.sin(turn * s), downMm: r * (1 - Math.cos(turn * s)) }));
  const up = [{ xMm: 0, downMm: 0 }, ...bend(crestMm / 2 - t)];
  // the valley is the crest turned over
  const low = [{ xMm: pitchMm / 2, downMm: depthMm }, ...bend(ribs.valleyMm / 2 - t).map((p) => ({ xMm: pitchMm / 2 - p.xMm, downMm: depthMm - p.downMm }))];
  return [...up, ...low.reverse()].filter((p, i, all) => i === 0 || p.xMm > all[i - 1]!.xMm + 1e-9 || p.downMm > all[i - 1]!.downMm + 1e-9);
}

/** What does not fit about a sheet's ribs. */
export interface RibDoubt {
  readonly is: 'ribs-none' | 'ribs-girth' | 'ribs-hollows';
  readonly part: 'corrugation';
  readonly byMm: number;
}
/** The ribs of a sheet, and the film that goes over one of them. */
export interface JudgedRibs {
  readonly corrugation: Corrugation;
  /** The longer of what the string and the section say. */
  readonly girthMm: number;
  /** Film that is more than the sheet is wide, as a share. */
  readonly moreFrac: number;
}

/** By how much the flats of a section are wider than its pitch, or a wave deeper than two half circles; not above 0: it can be. */
export const noSectionByMm = ({ form, pitchMm, depthMm, crestMm, valleyMm }: Ribs): number =>
  form === 'wave' ? depthMm - pitchMm / 2 : crestMm + valleyMm - pitchMm;

/** Weighs the string against the section; the piece takes the longer. */
export function judgeRibs(corrugation: Corrugation): { readonly ribs: JudgedRibs; readonly doubts: readonly RibDoubt[] } {
  const none = noSectionByMm(corrugation);
  const bySection = none > 0 ? 0 : girthOfRibs(corrugation);
  const { girthMm: string, pitchMm } = corrugation;
  const girthMm = Math.max(bySection, string ?? 0, pitchMm);
  const ribs = { corrugation, girthMm, moreFrac: girthMm / pitchMm - 1 };
  const doubt = (is: RibDoubt['is'], byMm: number): RibDoubt => ({ is, part: 'corrugation', byMm });
  if (none > 0) return { ribs, doubts: [doubt('ribs-none', none)] };
  if (string === null) return { ribs, doubts: [] };
  const by = (part: 'pitchMm' | 'depthMm') => (girthOfRibs({ ...corrugation, [part]: corrugation[part] + 0.01 }) - bySection) / 0.01;
  const sigma = Math.hypot(SIGMA_MM.string, by('pitchMm') * SIGMA_MM.rule, by('depthMm') * SIGMA_MM.rule);
  const apart = string - bySection;
  return { ribs, doubts: Math.abs(apart) > APART * sigma || string < pitchMm ? [doubt('ribs-girth', apart)] : [] };
}
