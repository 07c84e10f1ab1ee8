export { LayoutPlanner, layPiecesOnRolls, ONE_WAY_ROUND, type LayoutInput, type RollToCut } from './planner.js';
export { checkLayout } from './check-layout.js';
export * from './move.js';
