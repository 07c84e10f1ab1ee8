import type { Allowances, CutMethod, Film, Firm, Job, Piece, Reading, Roll, Surface } from '@yellow-pane/contracts';
import { outlineOfCurved, uprightBendPerMm } from '../form/index.js';
import { boundingBox } from '../geometry/index.js';
import { contentHash } from '../ground/index.js';
import { surveyOpening, surveyShape, type Survey, type TapeReading } from '../measure/index.js';
import type { StockBook } from '../stock/index.js';
import { offsetsInRow, piecesOfPane, type PaneToPiece } from './pane-pieces.js';
import { pieceForPane, turnsOf, type PieceAnswer } from './piece.js';
import { chordReadings, curvedOf, curvedPiece, inheritedReadings, shrinkInputOf, type ShrinkSource } from './curved-pane.js';

/** The records of a job that decide its pieces. */
export interface JobRecords {
  readonly firm: Pick<Firm, 'allowances' | 'hourRate'> & { readonly forming?: Firm['forming'] };
  readonly job: Pick<Job, 'id' | 'units' | 'method' | 'allowances'>;
  readonly surfaces: readonly Surface[];
  readonly readings: readonly Reading[];
  readonly films: readonly Film[];
  readonly rolls: readonly Roll[];
  /** What was taken off the rolls and promised; absent = nothing. */
  readonly stock?: StockBook;
}

/** The readings of one surface that count: the newest of each measure, withdrawn ones out; its own before those it is measured like. */
export function readingsInForce(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[], depth = 0): Reading[] {
  const own = readings.filter((r) => r.surfaceId === surface.id && !r.deletedAt);
  const superseded = new Set(own.map((r) => r.supersedesId));
  const inForce = own.filter((r) => !superseded.has(r.id) && !r.withdrawnAt);
  const like = surface.measuredLikeId ? surfaces.find((s) => s.id === surface.measuredLikeId && !s.deletedAt) : undefined;
  if (!like || depth > 8) return inForce;
  const inherited = inheritedReadings(surface, readingsInForce(like, surfaces, readings, depth + 1));
  return [...inForce, ...inherited.filter((r) => !inForce.some((o) => o.measure === r.measure))];
}

/** Hash of the readings a signature stands for. */
export const readingsHash = (inForce: readonly Reading[]): string => contentHash([...inForce].map((r) => [r.measure, r.lengthMm]).sort());

export const tapesOf = (inForce: readonly Reading[]): TapeReading[] => inForce.map((r) => ({ measure: r.measure, lengthMm: r.lengthMm }));

/** Firm, then job, then surface: the nearest one that says something decides. */
export const resolveAllowances = (records: { firm: Pick<Firm, 'allowances'>; job: Pick<Job, 'allowances'> }, surface: Surface): Allowances => ({
  ...records.firm.allowances,
  ...clean(records.job.allowances),
  ...clean(surface.allowances),
});
type Said = { readonly [K in keyof Allowances]?: Allowances[K] | undefined };
const clean = (a: Said | null): Partial<Allowances> => Object.fromEntries(Object.entries(a ?? {}).filter(([, v]) => v !== undefined));

export interface SurfaceCut {
  readonly surface: Surface;
  readonly survey: Survey;
  readonly isSigned: boolean;
  readonly method: CutMethod;
  readonly answer: PieceAnswer;
  /** Empty when blocked; else the piece and one more for each spoiled one. */
  readonly pieces: readonly Piece[];
}

/** The survey of one surface and whether its size is signed for. */
export function surveySurface(surface: Surface, records: Pick<JobRecords, 'surfaces' | 'readings'>): { survey: Survey; isSigned: boolean; inForce: Reading[] } {
  const inForce = readingsInForce(surface, records.surfaces, records.readings);
  const hash = readingsHash(inForce);
  const bent = surface.curved?.taped === 'over' ? bowsFor(surface, records) : null;
  const key = `${hash}/${surface.calledCrooked}/${surface.shape ? contentHash(surface.shape) : ''}/${bent ? contentHash(bent.bows.map((b) => [b.way, b.atMm, b.depthMm])) : ''}`;
  const tapes = bent ? chordReadings(bent, tapesOf(inForce)) : tapesOf(inForce);
  const survey = known.get(key) ?? (surface.shape ? surveyShape(surface.shape, tapes) : surveyOpening(tapes, { calledCrooked: surface.calledCrooked }));
  if (known.size > 2000) known.clear();
  known.set(key, survey);
  return { survey, inForce, isSigned: surface.signed !== null && surface.signed.readingsHash === hash };
}

/** The bows that bring tapes laid over the glass to their chords: of the pane itself, or of the one it is measured like (a mirrored bow is as deep). */
function bowsFor(surface: Surface, records: Pick<JobRecords, 'surfaces'>): Surface['curved'] {
  const like = surface.curved?.bows.length ? undefined : records.surfaces.find((s) => s.id === surface.measuredLikeId && !s.deletedAt);
  return like?.curved ? { ...like.curved, taped: 'over' } : surface.curved;
}

/** The same tapes give the same survey: judged once. */
const known = new Map<string, Survey>();

/** What the shrink plan of a surface is made from; null for flat glass. */
export function shrinkSourceOf(surface: Surface, records: JobRecords & { readonly job: ShrinkSource['job'] }, film: Film): ShrinkSource | null {
  const curved = curvedOf(surface, records, (s) => surveySurface(s, records).survey);
  if (!curved) return null;
  const { survey } = surveySurface(surface, records);
  const { films, rolls, job } = records;
  return { surface, curved, survey, film, films, rolls, edgeGapMm: resolveAllowances(records, surface).edgeGapMm, job, firm: records.firm };
}

/** How sharply a curved pane bends along an upright blade, 1/mm; null: nobody has measured it; undefined: it is flat. */
export function uprightBendOf(surface: Surface, records: Pick<JobRecords, 'surfaces' | 'readings'>): number | null | undefined {
  const curved = curvedOf(surface, records, (s) => surveySurface(s, records).survey);
  if (!curved) return undefined;
  const outline = outlineOfCurved(surveySurface(surface, records).survey, curved);
  if (!outline) return null;
  const box = boundingBox(outline);
  return uprightBendPerMm(curved, box.maxY - box.minY);
}

/** The input of the shrink plan of a surface with its film; what is missing for it; null for flat glass. */
export function shrinkRequestOf(
  surface: Surface,
  records: JobRecords & { readonly job: ShrinkSource['job'] },
  film: Film,
): ReturnType<typeof shrinkInputOf> | null {
  const source = shrinkSourceOf(surface, records, film);
  return source && shrinkInputOf(source);
}

/** The cut of one surface. @param method stands in for the job's own method when methods are compared */
export function cutOfSurface(surface: Surface, records: JobRecords, film: Film, method?: CutMethod): SurfaceCut {
  const asked = paneToPiece(surface, records, film, method);
  const { survey, answer, isSigned, used } = asked;
  const made = piecesOfPane(asked);
  const base = { surface, survey, isSigned, method: used };
  if ('blocked' in made) return { ...base, answer: { blocked: made.blocked }, pieces: [] };
  return { ...base, answer, pieces: made.pieces };
}

/** A surface with all that decides its pieces. */
export function paneToPiece(surface: Surface, records: JobRecords, film: Film, method?: CutMethod): PaneToPiece & { isSigned: boolean; used: CutMethod } {
  const { survey, isSigned } = surveySurface(surface, records);
  const used = method ?? surface.method ?? records.job.method;
  const allowances = resolveAllowances(records, surface);
  const bent = shrinkSourceOf(surface, records, film);
  const answer = bent
    ? curvedPiece(bent, turnsOf)
    : pieceForPane({
        surface,
        survey,
        // a pane pieced together or with a design is trimmed on the glass, whatever the job does
        method: (surface.seam || surface.design) && used !== 'dry-template' ? 'overhang' : used,
        allowances,
        film,
        rollWidthsMm: records.rolls.filter((r) => r.filmId === film.id && !r.deletedAt).map((r) => r.widthMm),
        units: records.job.units,
        isSigned,
      });
  const offsets = surface.design ? offsetsInRow(surface, records.surfaces, (s) => surveySurface(s, records).survey, surface.design) : null;
  return { surface, survey, isSigned, used, answer, allowances, film, units: records.job.units, offsetMm: offsets?.get(surface.id) ?? 0 };
}

/** All surfaces of one film in walking order, each with its pieces or the reason why not. */
export function cutsForFilm(records: JobRecords, filmId: string, method?: CutMethod): SurfaceCut[] {
  const film = records.films.find((f) => f.id === filmId);
  if (!film) return [];
  return records.surfaces.filter((s) => s.filmId === filmId && !s.deletedAt).map((s) => cutOfSurface(s, records, film, method));
}
