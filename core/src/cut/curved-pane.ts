import type { CurvedPane, Film, Firm, Job, Pane, Roll, ShrinkInput, Surface, Turn } from '@yellow-pane/contracts';
import { flatSize, mayTurn, mirroredCurved, outlineOfCurved } from '../form/index.js';
import { formatLength, formatRough, type Memo } from '../ground/index.js';
import { measuredLike, type Survey } from '../measure/index.js';
import { darkens, workClassOf } from '../films/index.js';
import { roundUpToMark } from './handy-size.js';
import type { BarePiece, PieceAnswer } from './piece.js';

/** The records a curved pane is read from. */
export interface CurvedRecords {
  readonly surfaces: readonly Surface[];
}

/** The pane that another is measured like, if it is there. */
const likeOf = (surface: Pane, { surfaces }: CurvedRecords): Pane | undefined => measuredLike(surface, surfaces);

/**
 * The curve of a pane: its own bows, or those of the pane it is measured like, turned over where it is the window across. What belongs to this very pane (its stamp,
 * chips, zones when it has any) stays its own.
 */
export function curvedOf(surface: Pane, records: CurvedRecords, surveyOf: (s: Pane) => Survey, depth = 0): CurvedPane | null {
  const own = surface.curved;
  if (!own) return null;
  const like = likeOf(surface, records);
  if (own.bows.length > 0 || own.cloud || !like?.curved || depth > 8) return own;
  const theirs = curvedOf(like, records, surveyOf, depth + 1)!;
  const outline = outlineOfCurved(surveyOf(like), theirs);
  if (!outline) return own;
  const corner = theirs.cloud ? Math.min(...outline.map((p) => p.x)) + Math.max(...outline.map((p) => p.x)) : (surveyOf(like).outline?.[1]?.x ?? 0);
  const shape = own.isMirror ? mirroredCurved(theirs, outline, corner) : theirs;
  return { ...shape, isMirror: own.isMirror, stamp: own.stamp === 'unknown' ? theirs.stamp : own.stamp, isChipped: own.isChipped, school: own.school, lubrication: own.lubrication, anchor: own.anchor.kind === 'balanced' ? shape.anchor : own.anchor }; // prettier-ignore
}

/** What the shrink plan of a pane is made from, besides its curve. */
export interface ShrinkSource {
  readonly surface: Pane;
  readonly curved: CurvedPane;
  readonly survey: Survey;
  readonly film: Film;
  readonly films: readonly Film[];
  readonly rolls: readonly Roll[];
  readonly edgeGapMm: number;
  readonly job: Pick<Job, 'units'> & { readonly lay?: Job['lay'] };
  readonly firm: { readonly forming?: Firm['forming'] };
}

/** Films that give way to a pull. @source common practice: urethane and cast films stretch, polyester does not */
const stretchesOf = (film: Pick<Film, 'kind' | 'construction'>): boolean => film.construction === 'urethane' || film.kind === 'cast-wrap';

/** The input of a shrink plan, or the sentence that says what is missing. */
export function shrinkInputOf(s: ShrinkSource): { readonly input: ShrinkInput } | { readonly blocked: string } {
  const { curved, surface, film } = s;
  const outline = outlineOfCurved(s.survey, curved);
  if (!outline) return { blocked: 'No outline yet: tape a width and a height, or bring in a point cloud.' };
  const missing = missingBows(curved);
  if (missing) return { blocked: missing };
  const others = s.films.filter((f) => f.shrink && f.id !== film.id && workClassOf(f) === workClassOf(film) && f.mounting === film.mounting);
  return {
    input: {
      curved,
      outline: outline.map((p) => ({ x: p.x, y: p.y })),
      film: {
        id: film.id,
        name: film.name,
        shrink: film.shrink && { alongPct: film.shrink.alongPct, acrossPct: film.shrink.acrossPct },
        thicknessUm: film.thicknessUm,
        stretches: stretchesOf(film),
        isOutside: film.mounting === 'outside',
        darkens: darkens(film),
      },
      others: others.map((f) => ({ id: f.id, name: f.name, alongPct: f.shrink!.alongPct })),
      isLookout: surface.glazing?.isLookout ?? false,
      isLaminated: surface.glazing?.panes.some((p) => p.kind === 'laminated') ?? false,
      edgeGapMm: s.edgeGapMm,
      widestRollMm: widestOf(film, s.rolls),
      units: s.job.units,
      firmSchool: s.job.lay?.forming ?? s.firm.forming ?? null,
      stepMm: 20,
    },
  };
}

/** The widest this film is to be had: on a roll that is there, or as it is sold. */
function widestOf(film: Film, rolls: readonly Roll[]): number | null {
  const widths = [...rolls.filter((r) => r.filmId === film.id && !r.deletedAt).map((r) => r.widthMm), ...film.offers.map((o) => o.widthMm)];
  return widths.length ? Math.max(...widths) : null;
}

/** What has to be read before anything can be said of a curve; null when there is enough. */
export function missingBows(curved: Pick<CurvedPane, 'bows' | 'cloud'>): string | null {
  if (curved.cloud) return null;
  const has = (way: 'across' | 'upright') => curved.bows.some((b) => b.way === way && !b.span);
  if (!has('across') && !has('upright')) return 'No bow yet: lay a straightedge across and read the gap under its middle.';
  if (!has('across')) return 'No level bow yet: lay the straightedge across, half way up, and read the gap.';
  if (!has('upright')) return 'No upright bow yet: stand the straightedge up in the middle and read the gap.';
  return null;
}

/** The piece of a curved pane: the flat film with its room for forming, its width along the roll. */
export function curvedPiece(source: ShrinkSource, turnsOf: (direction: Film['direction']) => Turn[], memo: Memo): PieceAnswer {
  const made = shrinkInputOf(source);
  if ('blocked' in made) return made;
  const { input } = made;
  const { surface, film, job } = source;
  if (input.isLookout && input.film.darkens) return { blocked: 'Lookout glass: no film is cut for it unless the authority allows it.' };
  if (input.curved.stamp === 'plastic') return { blocked: 'A plastic window: no heat gun on it, so no film is cut for it.' };
  let size: ReturnType<typeof flatSize>;
  try {
    size = flatSize(input, memo);
  } catch (error) {
    if (error instanceof RangeError) return { blocked: error.message };
    throw error;
  }
  const free = mayTurn(input.film);
  const turns = turnsOf(film.direction).filter((t) => free || t % 180 === 90);
  if (turns.length === 0)
    return {
      blocked: `${film.name} has to lie upright, and on this glass its width has to lie along the roll: it cannot be both. Take another film, or a plain one.`,
    };
  const f = (mm: number) => `${formatLength(mm, job.units)}${job.units === 'mm' ? ' mm' : ''}`;
  const piece: BarePiece = {
    surfaceId: surface.id,
    filmId: film.id,
    method: 'overhang',
    widthMm: roundUpToMark(size.widthMm, job.units),
    heightMm: roundUpToMark(size.heightMm, job.units),
    turns,
    factoryEdge: null,
    trimmedEdges: ['top', 'right', 'bottom', 'left'],
    path: null,
    holes: [],
    meets: null,
    repeat: null,
    isPlotted: false,
    parts: [],
    why: [
      `The film before it is shrunk is ${f(size.filmWidthMm)} × ${f(size.filmHeightMm)}: the pane unrolled along its anchor line and its threads.`,
      `${formatRough(size.pastSidesMm, job.units)} past each side and ${formatRough(size.gripMm, job.units)} to grip above and below, trimmed on the glass outside before it is turned over.`,
      free
        ? `${film.name} ${input.film.stretches ? 'gives way to a pull' : 'shrinks both ways'}: it may lie either way round.`
        : `${film.name} shrinks along the roll only, so the width of this pane lies along the roll, factory edges top and bottom. Turned by 90° it could not be formed.`,
    ],
    fallback: null,
  };
  return { piece, note: null };
}
