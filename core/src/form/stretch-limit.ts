import type { Film } from '@yellow-pane/contracts';

/** How far a film may be stretched by its maker’s figure, as a share; null: nobody knows. */
export const stretchLimitOf = (film: Pick<Film, 'stretchMaxPct'> | null | undefined): number | null =>
  film?.stretchMaxPct == null ? null : film.stretchMaxPct / 100;

/** Warm film that is stretched farther thins, whitens and creeps back. @source from memory: makers of cast and interior film name 20 to 40 % */
export const MOST_STRETCH_FRAC = 0.3;
/** How far a film may be stretched: its maker’s figure, or what such film usually stands. @returns a share */
export const mostStretchOf = (film: Pick<Film, 'stretchMaxPct'> | null | undefined): number => stretchLimitOf(film) ?? MOST_STRETCH_FRAC;
