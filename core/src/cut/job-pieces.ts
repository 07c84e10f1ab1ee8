import type { Allowances, CutMethod, Film, Firm, Job, Piece, Reading, Roll, Surface } from '@yellow-pane/contracts';
import { outlineOfCurved, uprightBendPerMm } from '../form/index.js';
import { boundingBox } from '../geometry/index.js';
import { contentHash, formatLength } from '../ground/index.js';
import { surveyBelieving, surveyOpening, surveyShape, type Survey, type TapeReading } from '../measure/index.js';
import type { StockBook } from '../stock/index.js';
import { edgeGapFor } from './edge-gap.js';
import { offsetsInRow, piecesOfPane, type PaneToPiece } from './pane-pieces.js';
import { pieceForPane, turnsOf, type PieceAnswer } from './piece.js';
import { chordReadings, curvedOf, curvedPiece, inheritedReadings, shrinkInputOf, type ShrinkSource } from './curved-pane.js';

/** The records of a job that decide its pieces. */
export interface JobRecords {
  readonly firm: Pick<Firm, 'allowances' | 'hourRate'> & { readonly forming?: Firm['forming']; readonly blades?: Firm['blades'] };
  readonly job: Pick<Job, 'id' | 'units' | 'method' | 'allowances'> & { readonly cut?: Job['cut'] };
  readonly surfaces: readonly Surface[];
  readonly readings: readonly Reading[];
  readonly films: readonly Film[];
  readonly rolls: readonly Roll[];
  /** What was taken off the rolls and promised; absent = nothing. */
  readonly stock?: StockBook;
}

const later = (a: Reading | undefined, b: Reading): Reading => (a && (a.at > b.at || (a.at === b.at && a.id > b.id)) ? a : b);

/** The readings of one surface that count: exactly one of each measure, the newest, withdrawn ones and guesses of a quote out; its own before those it is measured like. */
export function readingsInForce(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[]): Reading[] {
  return standing(surface, surfaces, readings).filter((r) => r.instrument !== 'quote');
}

/** The size that a pane was quoted at, mm, while nobody has taped one of its sides; null when there is none or it was taped since. */
export function quotedSize(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[]): { widthMm: number; heightMm: number } | null {
  const all = standing(surface, surfaces, readings);
  const of = (measure: Reading['measure']) => all.find((r) => r.measure === measure && r.instrument === 'quote')?.lengthMm;
  const [widthMm, heightMm] = [of('widthLargest'), of('heightLargest')];
  return widthMm === undefined || heightMm === undefined || all.some((r) => r.instrument !== 'quote') ? null : { widthMm, heightMm };
}

function standing(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[], depth = 0): Reading[] {
  const own = readings.filter((r) => r.surfaceId === surface.id && !r.deletedAt);
  const superseded = new Set(own.map((r) => r.supersedesId));
  // two that supersede the same one, in a record of before that was ruled out: the one that came last counts
  const newest = new Map<string, Reading>();
  for (const r of own) if (!superseded.has(r.id) && !r.withdrawnAt) newest.set(r.measure, later(newest.get(r.measure), r));
  const inForce = own.filter((r) => newest.get(r.measure) === r);
  const like = surface.measuredLikeId ? surfaces.find((s) => s.id === surface.measuredLikeId && !s.deletedAt) : undefined;
  if (!like || depth > 8) return inForce;
  const inherited = inheritedReadings(surface, standing(like, surfaces, readings, depth + 1));
  return [...inForce, ...inherited.filter((r) => !inForce.some((o) => o.measure === r.measure))];
}

/** Hash of the readings a signature stands for. */
export const readingsHash = (inForce: readonly Reading[]): string => contentHash([...inForce].map((r) => [r.measure, r.lengthMm]).sort());

/** So near to each other two tapes of one place say the same. @source house rule: two tapes' own errors */
const SAME_TAPE_MM = 2;

/** How often a reading in force was taken one after the other with the same result. A file brought in twice is no second reading. */
function timesTaken(r: Reading, readings: readonly Reading[]): number {
  let times = 1;
  for (let at = r; at.supersedesId !== null && times < 5; times++) {
    const before = readings.find((x) => x.id === at.supersedesId);
    if (
      !before ||
      at.instrument === 'import' ||
      before.instrument === 'quote' ||
      before.withdrawnAt ||
      before.deletedAt ||
      Math.abs(before.lengthMm - r.lengthMm) > SAME_TAPE_MM
    )
      break;
    at = before;
  }
  return times;
}

/** Readings in force as tapes. @param readings all of them: how often one was taken anew with the same result is told by those it supersedes */
export const tapesOf = (inForce: readonly Reading[], readings: readonly Reading[]): TapeReading[] =>
  inForce.map((r) => ({ measure: r.measure, lengthMm: r.lengthMm, times: timesTaken(r, readings) }));

/** Firm, then job, then surface: the nearest one that says something decides; thick film keeps its own edge gap at least. @param film another one than the pane has now */
export function resolveAllowances(
  records: { readonly firm: Pick<Firm, 'allowances'>; readonly job: Pick<Job, 'allowances'>; readonly films?: readonly Film[] },
  surface: Surface,
  film: Pick<Film, 'kind'> | undefined = records.films?.find((f) => f.id === surface.filmId),
): Allowances {
  const said = { ...records.firm.allowances, ...clean(records.job.allowances), ...clean(surface.allowances) };
  return film ? { ...said, edgeGapMm: edgeGapFor(film, said.edgeGapMm) } : said;
}
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

/** The survey of one surface and whether its size is signed for; where an explanation was signed for, by that. `judged`: what the tapes say by themselves. */
export function surveySurface(
  surface: Surface,
  records: Pick<JobRecords, 'surfaces' | 'readings'>,
): { survey: Survey; isSigned: boolean; inForce: Reading[]; judged: Survey } {
  const inForce = readingsInForce(surface, records.surfaces, records.readings);
  const hash = readingsHash(inForce);
  const bent = surface.curved?.taped === 'over' ? bowsFor(surface, records) : null;
  const taped = tapesOf(inForce, records.readings);
  const key = `${hash}/${surface.calledCrooked}/${taped
    .flatMap((t) => (t.times! > 1 ? [t.measure + t.times!] : []))
    .sort()
    .join()}/${surface.shape ? contentHash(surface.shape) : ''}/${bent ? contentHash(bent.bows.map((b) => [b.way, b.atMm, b.depthMm])) : ''}`;
  const tapes = bent ? chordReadings(bent, taped) : taped;
  const survey = known.get(key) ?? (surface.shape ? surveyShape(surface.shape, tapes) : surveyOpening(tapes, { calledCrooked: surface.calledCrooked }));
  if (known.size > 2000) known.clear();
  known.set(key, survey);
  const isSigned = surface.signed !== null && surface.signed.readingsHash === hash;
  return { survey: (isSigned && believedSurvey(survey, key, surface, tapes)) || survey, judged: survey, inForce, isSigned };
}

/** What the explanation that was signed for leaves; null: none was named, or what it leaves is no one opening. */
function believedSurvey(judged: Survey, key: string, surface: Surface, tapes: readonly TapeReading[]): Survey | null {
  const believes = surface.signed?.believes;
  if (!believes || judged.status !== 'doubtful') return null;
  const at = `${key}/${believes}`;
  const survey = knownBeliefs.get(at) ?? surveyBelieving(judged, believes, tapes, surface.calledCrooked);
  if (knownBeliefs.size > 500) knownBeliefs.clear();
  knownBeliefs.set(at, survey);
  return survey;
}
const knownBeliefs = new Map<string, Survey | null>();

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
  return { surface, curved, survey, film, films, rolls, edgeGapMm: resolveAllowances(records, surface, film).edgeGapMm, job, firm: records.firm };
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

/** What is said of a size that was only quoted. */
export const quotedWords = ({ widthMm, heightMm }: { widthMm: number; heightMm: number }, units: Job['units']): string =>
  `Quoted at ${formatLength(widthMm, units)} × ${formatLength(heightMm, units)}${units === 'mm' ? ' mm' : ''}, and nobody has taped it: nothing is cut to a quoted size. Tape it first.`;

/** A surface with all that decides its pieces. */
export function paneToPiece(surface: Surface, records: JobRecords, film: Film, method?: CutMethod): PaneToPiece & { isSigned: boolean; used: CutMethod } {
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
      ? curvedPiece(bent, turnsOf)
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
  const offsets = surface.design ? offsetsInRow(surface, records.surfaces, (s) => surveySurface(s, records).survey, surface.design) : null;
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
  };
}

/** All surfaces of one film in walking order, each with its pieces or the reason why not. */
export function cutsForFilm(records: JobRecords, filmId: string, method?: CutMethod): SurfaceCut[] {
  const film = records.films.find((f) => f.id === filmId);
  if (!film) return [];
  return records.surfaces.filter((s) => s.filmId === filmId && !s.deletedAt).map((s) => cutOfSurface(s, records, film, method));
}
