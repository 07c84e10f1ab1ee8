import type { Film } from '@yellow-pane/contracts';

/** How far a film may be stretched by its maker’s figure, as a share; null: nobody knows. */
export const stretchLimitOf = (film: Pick<Film, 'stretchMaxPct'> | null | undefined): number | null =>
  film?.stretchMaxPct == null ? null : film.stretchMaxPct / 100;
