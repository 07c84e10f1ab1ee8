import { layPiecesOnRolls, type LayoutInput } from './layout/index.js';

/** Search steps for either bench: as many as methods are compared by. */
const STEPS = 40;

/**
 * What the longest pull costs on this film: how much cheaper the same pieces would lie on the same rolls if drops twice as long could be pulled. Two searches of
 * the same length are compared, so that small figures are not sure: what a longer pull does not bring within them is told as nothing.
 * @returns in the job's currency, never negative; null where a longer pull lays pieces that the bench has no room for: then it is not money that it brings
 */
export function pullCost(input: LayoutInput): number | null {
  const longer = { ...input, settings: { ...input.settings, longestPullMm: 2 * input.settings.longestPullMm } };
  const [now, then] = [layPiecesOnRolls(input, STEPS), layPiecesOnRolls(longer, STEPS)];
  return now.unplaced.length === then.unplaced.length ? Math.max(0, now.cost - then.cost) : null;
}
