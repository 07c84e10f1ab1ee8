import type { EdgeCondition, PaneKind } from '@yellow-pane/contracts';

/** Young's modulus and expansion of soda-lime glass. @source EN 572-1: 70 GPa, 9·10⁻⁶ 1/K (from memory) */
const YOUNG_MPA = 70_000;
const EXPANSION_PER_K = 9e-6;

/** Stress along a cold edge held by a warm middle, MPa: E·α·ΔT, the full restraint of a large pane. @source Timoshenko & Goodier, thermal stress in a strip (from memory) */
export const edgeStressMPa = (differenceK: number): number => YOUNG_MPA * EXPANSION_PER_K * differenceK;

/**
 * Temperature difference that a clean-cut edge of each kind is allowed, K; its stress is the strength used here, with the safety that the rule already holds.
 * The careful end of what is commonly published: float as cut 35 K up to 12 mm and 30 K above (15 and 19 mm), wired and patterned 26 K, heat-strengthened 100,
 * tempered 200. The North American practice (ASTM E2431: 16.6 MPa for a clean-cut edge at 8 breaks in 1000) is no lower a limit than it looks: it is held against
 * a stress that its charts reduce for the frame, while here the full restraint E·α·ΔT is taken; 16.6 MPa are 26 K of that, what wired glass gets here.
 * Laminated: the ply's own figure less an eighth, for its two cut edges (house rule).
 * @source European tables for thermal breakage (NF DTU 39 P3 and makers' tables), ASTM E2431; all from memory
 */
const allowedDifferenceK: Record<Exclude<PaneKind, 'unknown' | 'plastic' | 'float' | 'laminated'>, number> = {
  wired: 26,
  patterned: 26,
  'heat-strengthened': 100,
  tempered: 200,
};
/** Thickness up to which a float edge as cut is allowed the higher difference. */
const THIN_MM = 12;
const LAMINATED_FRAC = 0.875;

function allowedK(kind: PaneKind, thicknessMm: number): number {
  const float = thicknessMm <= THIN_MM ? 35 : 30;
  if (kind === 'float') return float;
  // what nobody knows is taken as the weakest that looks plain
  if (kind === 'laminated' || kind === 'unknown' || kind === 'plastic') return float * LAMINATED_FRAC;
  return allowedDifferenceK[kind];
}
/** @source house rule: a ground edge a tenth better, a damaged one two fifths weaker, one patched with resin or putty no better (the flaw is still there), an unseen one a fifth weaker */
const edgeFactor: Record<EdgeCondition, number> = { ground: 1.1, cut: 1, hidden: 0.8, damaged: 0.6, patched: 0.6 };
/** Long edges hold more flaws. @source weakest-link rule with modulus 10 on the perimeter, 6 m as reference (house rule) */
const SIZE_REFERENCE_M = 6;
/** @source house rule: weathered edges over 30 years a tenth weaker */
const OLD_YEARS = 30;

/** Strength of a pane's edge against heat, MPa. Unknown glass is taken as laminated, the weakest that looks plain; unknown age as old. */
export function edgeStrengthMPa(kind: PaneKind, edge: EdgeCondition, perimeterM: number, ageYears: number | null, thicknessMm: number): number {
  const base = allowedK(kind, thicknessMm);
  const size = Math.min(1, (perimeterM / SIZE_REFERENCE_M) ** -0.1);
  const isHardened = kind === 'tempered' || kind === 'heat-strengthened';
  const worn = isHardened ? 1 : edgeFactor[edge] * ((ageYears ?? Infinity) > OLD_YEARS ? 0.9 : 1);
  return edgeStressMPa(base) * size * worn;
}
