import type { Recess } from '@yellow-pane/contracts';

/** So wide a fold at a corner of a recess or of a frame of grooves still lies down when it is warmed and pressed outwards. @source house rule */
export const LIES_DOWN_MM = 4;

/** A recess as film sees it, wherever it is. */
export type RecessForm = Pick<Recess, 'acrossMm' | 'upMm' | 'depthMm' | 'slopeMm' | 'cornerMm'>;

/** How much more film a wall takes than it is wide on plan, mm. @source girth: hypot(slope, depth) − slope */
export const slackOfWall = ({ slopeMm, depthMm }: Pick<RecessForm, 'slopeMm' | 'depthMm'>): number => Math.hypot(slopeMm, depthMm) - slopeMm;
