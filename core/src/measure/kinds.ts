import type { Column, Counter, Pane, Panel, Sign, Surface, Wall } from '@yellow-pane/contracts';

export const isPane = (s: Surface): s is Pane => s.kind === 'pane';
export const isColumn = (s: Surface): s is Column => s.kind === 'column';
const isPanel = (s: Surface): s is Panel => s.kind === 'panel';
const isCounter = (s: Surface): s is Counter => s.kind === 'counter';
const isSign = (s: Surface): s is Sign => s.kind === 'sign';
export const isWall = (s: Surface): s is Wall => s.kind === 'wall';
/** What film is laid on dry. */
export type DrySurface = Column | Panel | Wall | Counter | Sign;
export const isDrySurface = (s: Surface): s is DrySurface => isColumn(s) || isPanel(s) || isWall(s) || isCounter(s) || isSign(s);
/** The panes of glass among the surfaces of a job, in their order. */
export const panesOf = (surfaces: readonly Surface[]): Pane[] => surfaces.filter(isPane);

/** The surface that another one is measured like, if it is there and of the same kind. */
export function measuredLike<S extends Surface>(surface: S, surfaces: readonly Surface[]): S | undefined {
  if (!surface.measuredLikeId) return undefined;
  return surfaces.find((s): s is S => s.id === surface.measuredLikeId && s.kind === surface.kind && !s.deletedAt);
}
