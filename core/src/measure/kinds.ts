import type { Column, Pane, Surface } from '@yellow-pane/contracts';

export const isPane = (s: Surface): s is Pane => s.kind === 'pane';
export const isColumn = (s: Surface): s is Column => s.kind === 'column';
/** The panes of glass among the surfaces of a job, in their order. */
export const panesOf = (surfaces: readonly Surface[]): Pane[] => surfaces.filter(isPane);

/** The surface that another one is measured like, if it is there and of the same kind. */
export function measuredLike<S extends Surface>(surface: S, surfaces: readonly Surface[]): S | undefined {
  if (!surface.measuredLikeId) return undefined;
  return surfaces.find((s): s is S => s.id === surface.measuredLikeId && s.kind === surface.kind && !s.deletedAt);
}
