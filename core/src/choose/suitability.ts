import type { Film, Glazing, Grade } from '@yellow-pane/contracts';
import { darkens } from '../films/index.js';

/** A rule that holds whatever the sum says. */
export interface Ruling {
  readonly grade: Exclude<Grade, 'go'>;
  readonly reason: string;
  readonly change: string | null;
}

/** Films made for walls, doors and furniture. */
const notForGlass: readonly Film['kind'][] = ['interior', 'textured-wall', 'cast-wrap', 'printed-decor'];

/**
 * What film and glass are not made for each other, each with its reason and what would change it.
 * @param isAnchored security film is held to the frame by a bead: then hardened glass does not fall in one sheet
 * @source common practice
 */
export function rulings(film: Film, glazing: Glazing, filmFace: 'room' | 'street', isIndoors = false, isAnchored = false): Ruling[] {
  const out: Ruling[] = [];
  const no = (reason: string, change: string | null = null) => void out.push({ grade: 'do-not', reason, change });
  const ask = (reason: string, change: string | null = null) => void out.push({ grade: 'ask', reason, change });
  const filmed = filmFace === 'room' ? glazing.panes.at(-1)! : glazing.panes[0]!;
  if (filmed.kind === 'plastic') no('Acrylic and polycarbonate give off gas: the film blisters.', 'Glass in its place.');
  if (filmed.kind === 'patterned')
    no('Film does not lie on a patterned or sandblasted face: it touches only the tops.', 'The other face, if that one is smooth.');
  if (glazing.isLeaded) no('Leaded lights move and are not flat: the film tears or bridges.', null);
  if (glazing.hasFailedSeal) no('The unit is blind inside: its seal has failed, and film keeps the wet in view.', 'A new unit first.');
  if (glazing.isFireRated) no('Fire-rated glazing: no film without the maker’s written yes.', 'The maker’s written yes.');
  if (glazing.isLookout) {
    if (darkens(film)) no('Lookout glass: no tint unless the authority allows it.', 'A written permit of the authority.');
    else ask('Lookout glass: ask the authority before anything is laid on it.', 'A written permit of the authority.');
  }
  if (film.mounting === 'not-on-glass' || notForGlass.includes(film.kind)) no('This film is made for walls, doors and furniture, not for glass.', null);
  else if (film.mounting === 'inside' && filmFace === 'street')
    no('This film is made for the room face: weather would take it in a season.', 'The room face, or an exterior film.');
  else if (film.mounting === 'outside' && filmFace === 'room') no('This film is made for the street face.', 'The street face, or a film for inside.');
  if (isIndoors && film.mounting === 'outside') no('This film is made for weather: between two rooms a film for inside does it, and is easier to lay.', null);
  if (film.kind === 'security' && filmFace === 'street')
    no('Security film holds the splinters on the room side: it goes on the room face of the innermost pane.', 'The room face.');
  const isCoated = filmed.coating !== 'none' && filmed.coating !== 'unknown' && filmed.coatingFace === (filmFace === 'room' ? 'inner' : 'outer');
  if (isCoated)
    ask(
      'The face that would get the film is coated: film over a coating may not hold, may take it along when it comes off, and changes what the coating does.',
      'The written yes of the glass maker and the film maker.',
    );
  if (film.kind === 'security' && !isAnchored && (filmed.kind === 'tempered' || filmed.kind === 'heat-strengthened'))
    ask(
      `${filmed.kind === 'tempered' ? 'Tempered' : 'Heat-strengthened'} glass with film that is not anchored: when it breaks, the whole sheet can fall out of its frame in one piece, heavy.`,
      'An edge anchored to a frame that holds (Lay: Security edge).',
    );
  if (film.kind === 'windscreen-protection' && !glazing.isLookout) no('This film is made for the outside of windscreens.', null);
  if (film.retiredAt) ask('This film is retired: there may be none left to buy.', null);
  return out;
}

/** What the customer must hear of a kind of film. @source common practice */
export const kindCautions: Partial<Record<Film['kind'], string>> = {
  security: 'Security film slows a break-in; it does not make glass unbreakable. It fails first where it stops short of the edge or is not anchored.',
  mirror: 'A mirror works for whoever stands on the brighter side. At night, with the lights on, it turns round.',
  'exterior-solar': 'Film outside lives about half as long as inside; its edges are sealed.',
  'anti-graffiti': 'A sacrificial film: it is changed when it is scratched.',
};
