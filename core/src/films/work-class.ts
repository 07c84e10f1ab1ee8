import type { Film, WorkClass } from '@yellow-pane/contracts';

const darkening: readonly Film['kind'][] = ['solar', 'exterior-solar', 'mirror', 'frosted', 'printed-decor', 'lettering'];

/** It takes light away, so glass that somebody steers behind may carry it only where the authority allows it. */
export const darkens = (film: Pick<Film, 'kind'>): boolean => darkening.includes(film.kind);

/** Film for walls, columns and furniture, which is laid dry; any other is for glass. */
export const isLaidDry = (film: Pick<Film, 'drying' | 'mounting'>): boolean => film.drying === 'dry-applied' || film.mounting === 'not-on-glass';

/** Which minutes and steps a film is worked by. */
export const workClassOf = (film: Pick<Film, 'kind'>): WorkClass =>
  film.kind === 'security' || film.kind === 'windscreen-protection' ? 'security' : film.kind === 'frosted' || film.kind === 'lettering' ? 'frost' : 'tint';
