import type { LeftoverRule, Roll, RollEdges } from '@yellow-pane/contracts';

/** A rest beside the pieces of a plan, in the frame of its roll. */
export interface RestOnRoll {
  readonly yMm: number;
  readonly alongMm: number;
  readonly acrossMm: number;
}

/** Whether the firm keeps a rest of this size. */
export const isWorthKeeping = (rest: Pick<RestOnRoll, 'alongMm' | 'acrossMm'>, rule: LeftoverRule): boolean =>
  Math.min(rest.alongMm, rest.acrossMm) >= rule.smallestSideMm && (rest.alongMm * rest.acrossMm) / 1e6 >= rule.smallestAreaM2;

/** Edges of a rest that are still the roll's own. */
export function edgesOfRest(rest: RestOnRoll, roll: Pick<Roll, 'widthMm' | 'edges'>): RollEdges {
  const near = rest.yMm < 0.5 && (roll.edges === 'both' || roll.edges === 'near');
  const far = rest.yMm + rest.acrossMm > roll.widthMm - 0.5 && (roll.edges === 'both' || roll.edges === 'far');
  return near && far ? 'both' : near ? 'near' : far ? 'far' : 'none';
}

/** What a metre of a leftover of this width counts for: the firm's share of what new film costs, by area. @returns decimal string */
export const leftoverPricePerM = (roll: Pick<Roll, 'pricePerM' | 'widthMm'>, widthMm: number, rule: LeftoverRule): string =>
  (Number(roll.pricePerM) * (widthMm / roll.widthMm) * rule.worthFrac).toFixed(4);

/** Money in a roll or leftover as it stands. */
export const valueOf = (roll: Pick<Roll, 'pricePerM'>, lengthMm: number): number => (lengthMm / 1000) * Number(roll.pricePerM);
