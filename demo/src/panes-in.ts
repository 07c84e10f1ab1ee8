import type { Pane, Surface } from '@yellow-pane/contracts';

/** The panes of glass among the surfaces of a job. */
export const panesIn = (job: { readonly surfaces: readonly Surface[] }): Pane[] => job.surfaces.filter((s): s is Pane => s.kind === 'pane');
