import type { Film, WorkClass } from '@yellow-pane/contracts';

/** Which minutes and steps a film is worked by. */
export const workClassOf = (film: Pick<Film, 'kind'>): WorkClass =>
  film.kind === 'security' || film.kind === 'windscreen-protection' ? 'security' : film.kind === 'frosted' || film.kind === 'lettering' ? 'frost' : 'tint';
