import type { Allowances, CutMethod, DryAllowances, Film, Firm, Job, Pane, Piece, Roll, Surface } from '@yellow-pane/contracts';
import { outlineOfCurved, surveySurface, uprightBendPerMm } from '../form/index.js';
import { boundingBox } from '../geometry/index.js';
import { formatLength } from '../ground/index.js';
import { panesOf, quotedSize, type DrySurface, type Survey, type TapedRecords } from '../measure/index.js';
import type { StockBook } from '../stock/index.js';
import { usualDry } from './dry-allowances.js';
import { edgeGapFor } from './edge-gap.js';
import { offsetsInRow, piecesOfPane, type PaneToPiece } from './pane-pieces.js';
import { pieceForPane, turnsOf, type PieceAnswer } from './piece.js';
import type { RunsOn } from './runs-on.js';
import { curvedOf, curvedPiece, shrinkInputOf, type ShrinkSource } from './curved-pane.js';

/** The records of a job that decide its pieces. */
export interface JobRecords extends TapedRecords {
  readonly firm: Pick<Firm, 'allowances' | 'hourRate'> & { readonly dry?: Firm['dry']; readonly forming?: Firm['forming']; readonly blades?: Firm['blades'] };
  readonly job: Pick<Job, 'id' | 'units' | 'method' | 'allowances'> & { readonly cut?: Job['cut']; readonly dry?: Job['dry'] };
  readonly films: readonly Film[];
  readonly rolls: readonly Roll[];
  /** What was taken off the rolls and promised; absent = nothing. */
  readonly stock?: StockBook;
}

/** The same, as it travels to a worker: what was worked out stays behind. */
export type PlainRecords = Omit<JobRecords, 'memo'>;

/** Firm, then job, then surface: the nearest one that says something decides; thick film keeps its own edge gap at least. @param film another one than the pane has now */
export function resolveAllowances(
  records: { readonly firm: Pick<Firm, 'allowances'>; readonly job: Pick<Job, 'allowances'>; readonly films?: readonly Film[] },
  surface: Pane,
  film: Pick<Film, 'kind'> | undefined = records.films?.find((f) => f.id === surface.filmId),
): Allowances {
  const own = { ...records.firm.allowances, ...said(records.job.allowances), ...said(surface.allowances) };
  return film ? { ...own, edgeGapMm: edgeGapFor(film, own.edgeGapMm) } : own;
}
/** What is added to pieces that are laid dry, by whoever says something of it: the last one counts. */
export const dryOf = (...sayings: readonly ({ readonly [K in keyof DryAllowances]?: DryAllowances[K] | undefined } | null | undefined)[]): DryAllowances =>
  sayings.reduce<DryAllowances>((all, some) => ({ ...all, ...said<DryAllowances>(some) }), usualDry);
/** Firm, then job, then surface. */
export const resolveDry = (records: Pick<JobRecords, 'firm' | 'job'>, surface: Pick<DrySurface, 'dry'>): DryAllowances =>
  dryOf(records.firm.dry, records.job.dry, surface.dry);
const said = <T extends object>(some: { readonly [K in keyof T]?: T[K] | undefined } | null | undefined): Partial<T> =>
  Object.fromEntries(Object.entries(some ?? {}).filter(([, v]) => v !== undefined)) as Partial<T>;

/** The cut of one surface, whatever its kind. */
export interface SurfaceCut {
  /** Of pieces whose heads hang lower than those beside them, by their ids: how far. */
  readonly headDropMm?: ReadonlyMap<string, number>;
  /** Of pieces whose direction lies level, by their ids: how the pattern runs on from one to the next. */
  readonly runsOn?: ReadonlyMap<string, RunsOn>;
  readonly surface: Surface;
  readonly isSigned: boolean;
  /** Box of what its one piece has to cover, for which it may be larger; null: a piece is good in its own size only. */
  readonly coverMm: { readonly widthMm: number; readonly heightMm: number } | null;
  readonly answer: { readonly piece: Omit<Piece, 'id' | 'label'>; readonly note: string | null } | { readonly blocked: string };
  /** Empty when blocked; else the piece and one more for each spoiled one. */
  readonly pieces: readonly Piece[];
}
export interface PaneCut extends SurfaceCut {
  readonly surface: Pane;
  readonly survey: Survey;
  readonly method: CutMethod;
  readonly answer: PieceAnswer;
}

/** What the shrink plan of a surface is made from; null for flat glass. */
export function shrinkSourceOf(surface: Pane, records: JobRecords & { readonly job: ShrinkSource['job'] }, film: Film): ShrinkSource | null {
  const curved = curvedOf(surface, records, (s) => surveySurface(s, records).survey);
  if (!curved) return null;
  const { survey } = surveySurface(surface, records);
  const { films, rolls, job } = records;
  return { surface, curved, survey, film, films, rolls, edgeGapMm: resolveAllowances(records, surface, film).edgeGapMm, job, firm: records.firm };
}

/** How sharply a curved pane bends along an upright blade, 1/mm; null: nobody has measured it; undefined: it is flat. */
export function uprightBendOf(surface: Pane, records: Pick<JobRecords, 'surfaces' | 'readings' | 'memo'>): number | null | undefined {
  const curved = curvedOf(surface, records, (s) => surveySurface(s, records).survey);
  if (!curved) return undefined;
  const outline = outlineOfCurved(surveySurface(surface, records).survey, curved);
  if (!outline) return null;
  const box = boundingBox(outline);
  return uprightBendPerMm(curved, box.maxY - box.minY);
}

/** The input of the shrink plan of a surface with its film; what is missing for it; null for flat glass. */
export function shrinkRequestOf(
  surface: Pane,
  records: JobRecords & { readonly job: ShrinkSource['job'] },
  film: Film,
): ReturnType<typeof shrinkInputOf> | null {
  const source = shrinkSourceOf(surface, records, film);
  return source && shrinkInputOf(source);
}

/** The cut of one pane. @param method stands in for the job's own method when methods are compared */
export function cutOfPane(surface: Pane, records: JobRecords, film: Film, method?: CutMethod): PaneCut {
  const asked = paneToPiece(surface, records, film, method);
  const { survey, answer, isSigned, used } = asked;
  const made = piecesOfPane(asked);
  const isWhole = !surface.seam && !surface.design;
  const box = isWhole && survey.outline ? boundingBox(survey.outline) : null;
  const base = { surface, survey, isSigned, method: used, coverMm: box && { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY } };
  if ('blocked' in made) return { ...base, answer: { blocked: made.blocked }, pieces: [] };
  return { ...base, answer, pieces: made.pieces };
}

/** What is said of a size that was only quoted. */
export const quotedWords = ({ widthMm, heightMm }: { widthMm: number; heightMm: number }, units: Job['units']): string =>
  `Quoted at ${formatLength(widthMm, units)} × ${formatLength(heightMm, units)}${units === 'mm' ? ' mm' : ''}, and nobody has taped it: nothing is cut to a quoted size. Tape it first.`;

/** A surface with all that decides its pieces. */
export function paneToPiece(surface: Pane, records: JobRecords, film: Film, method?: CutMethod): PaneToPiece & { isSigned: boolean; used: CutMethod } {
  const { survey, isSigned } = surveySurface(surface, records);
  const used = method ?? surface.method ?? records.job.method;
  const allowances = resolveAllowances(records, surface, film);
  const bent = shrinkSourceOf(surface, records, film);
  const quoted = survey.status === 'nothing' ? quotedSize(surface, records.surfaces, records.readings) : null;
  const rollWidthsMm = records.rolls.filter((r) => r.filmId === film.id && !r.deletedAt).map((r) => r.widthMm);
  const longestMm = records.job.cut?.longestPullMm;
  const answer = quoted
    ? { blocked: quotedWords(quoted, records.job.units) }
    : bent
      ? curvedPiece(bent, turnsOf, records.memo)
      : pieceForPane({
          surface,
          survey,
          // a pane pieced together or with a design is trimmed on the glass, whatever the job does
          method: (surface.seam || surface.design) && used !== 'dry-template' ? 'overhang' : used,
          allowances,
          film,
          rollWidthsMm,
          ...(longestMm === undefined ? {} : { longestMm }),
          units: records.job.units,
          isSigned,
        });
  const offsets = surface.design ? offsetsInRow(surface, panesOf(records.surfaces), (s) => surveySurface(s, records).survey, surface.design) : null;
  return {
    surface,
    survey,
    isSigned,
    used,
    answer,
    allowances,
    film,
    units: records.job.units,
    offsetMm: offsets?.get(surface.id) ?? 0,
    limitsMm: longestMm === undefined ? rollWidthsMm : [...rollWidthsMm, longestMm],
    memo: records.memo,
  };
}
