import type { Recess } from '@yellow-pane/contracts';

/** A recess as film sees it, wherever it is. */
export type RecessForm = Pick<Recess, 'acrossMm' | 'upMm' | 'depthMm' | 'slopeMm' | 'cornerMm'>;

/** How much more film a wall takes than it is wide on plan, mm. @source girth: hypot(slope, depth) − slope */
export const slackOfWall = ({ slopeMm, depthMm }: Pick<RecessForm, 'slopeMm' | 'depthMm'>): number => Math.hypot(slopeMm, depthMm) - slopeMm;
