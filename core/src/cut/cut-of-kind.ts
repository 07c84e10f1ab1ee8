import type { Column, Counter, CutMethod, Panel, Film, Piece, Sign, SurfaceKind, SurfaceOf, Surface, Wall } from '@yellow-pane/contracts';
import { besidesOf, runOf, surveyColumn, surveyCounter, surveyPanel, surveySign, surveyWall, type DrySurface } from '../measure/index.js';
import { againOf } from './again.js';
import { piecesOfColumn } from './column-piece.js';
import { piecesOfCounter } from './counter-piece.js';
import type { DryPieces, DryToPiece } from './dry-piece.js';
import { piecesOfPanel } from './panel-piece.js';
import { letterSheets, piecesOfSign, type LetterSheet } from './sign-piece.js';
import { layoutOfWall, piecesOfWall, type WallLayout, type WallToPiece } from './wall-piece.js';
import { cutOfPane, resolveDry, type JobRecords, type SurfaceCut } from './job-pieces.js';

type CutOf<S extends Surface> = (surface: S, records: JobRecords, film: Film, method?: CutMethod) => SurfaceCut;

/** How each kind of surface comes to its pieces. */
const cutOfKind: { readonly [K in SurfaceKind]: CutOf<SurfaceOf<K>> } = {
  pane: cutOfPane,
  column: cutOfColumn,
  panel: cutOfPanel,
  wall: cutOfWall,
  counter: cutOfCounter,
  sign: cutOfSign,
};

/** The cut of one surface. @param method of panes, where methods are compared */
export const cutOfSurface = (surface: Surface, records: JobRecords, film: Film, method?: CutMethod): SurfaceCut =>
  (cutOfKind[surface.kind] as CutOf<Surface>)(surface, records, film, method);

/** All surfaces of one film in walking order, each with its pieces or the reason why not. */
export function cutsForFilm(records: JobRecords, filmId: string, method?: CutMethod): SurfaceCut[] {
  const film = records.films.find((f) => f.id === filmId);
  if (!film) return [];
  return records.surfaces.filter((s) => s.filmId === filmId && !s.deletedAt).map((s) => cutOfSurface(s, records, film, method));
}

/** The widths of a film's rolls. */
const widthsOf = (records: JobRecords, film: Film): number[] => records.rolls.filter((r) => r.filmId === film.id && !r.deletedAt).map((r) => r.widthMm);

/** What decides the pieces of a surface that film is laid on dry, whatever its kind. */
const toPiece = <S extends DrySurface, V>(surface: S, survey: V, records: JobRecords, film: Film): DryToPiece<S, V> => ({
  surface,
  survey,
  allowances: resolveDry(records, surface),
  film,
  rollWidthsMm: widthsOf(records, film),
  units: records.job.units,
});

/** The cut of one column. */
export function cutOfColumn(surface: Column, records: JobRecords, film: Film): SurfaceCut {
  const { survey, isSigned } = surveyColumn(surface, records);
  return cutOfDry(surface, piecesOfColumn(toPiece(surface, survey, records, film)), { isSigned, isDoubtful: survey.status === 'doubtful' });
}

/** The cut of one panel. */
export function cutOfPanel(surface: Panel, records: JobRecords, film: Film): SurfaceCut {
  const { survey, isSigned } = surveyPanel(surface, records);
  const leaves = besidesOf(surface, records).map((leaf) => ({
    surface: leaf,
    survey: surveyPanel(leaf, records).survey,
    allowances: resolveDry(records, leaf),
  }));
  return cutOfDry(surface, piecesOfPanel({ ...toPiece(surface, survey, records, film), leaves }), {
    isSigned,
    isDoubtful: survey.status === 'doubtful',
  });
}

/** The cut of one counter or table top. */
export function cutOfCounter(surface: Counter, records: JobRecords, film: Film): SurfaceCut {
  const { survey, isSigned } = surveyCounter(surface, records);
  const tops = besidesOf(surface, records).map((top) => ({ surface: top, survey: surveyCounter(top, records).survey, allowances: resolveDry(records, top) }));
  return cutOfDry(surface, piecesOfCounter({ ...toPiece(surface, survey, records, film), tops }), { isSigned, isDoubtful: survey.status === 'doubtful' });
}

/** The sheets of letters of a sign, where they come on its ground. */
export const sheetsOfSign = (surface: Sign, records: JobRecords, film: Film): LetterSheet[] =>
  letterSheets(toPiece(surface, surveySign(surface, records).survey, records, film));

/** The cut of one sign. Letters are as large as they are said to be, whatever its ground measures. */
export function cutOfSign(surface: Sign, records: JobRecords, film: Film): SurfaceCut {
  const { survey, isSigned } = surveySign(surface, records);
  return cutOfDry(surface, piecesOfSign(toPiece(surface, survey, records, film)), { isSigned, isDoubtful: false });
}

/** What decides the pieces of a wall. */
function wallToPiece(surface: Wall, records: JobRecords, film: Film): WallToPiece {
  const run = runOf(surface, records);
  const asked = (wall: Wall, dropsBefore = 0): WallToPiece => ({
    ...toPiece(wall, surveyWall(wall, records).survey, records, film),
    run: run[0]!.id,
    dropsBefore,
  });
  if (surface.hanging === 'one-way') return asked(surface);
  const before = run
    .slice(
      0,
      run.findIndex((w) => w.id === surface.id),
    )
    .filter((w) => w.filmId === film.id);
  const counts = before.map((w) => layoutOfWall(asked(w))).map((l) => ('blocked' in l || l.isLying ? 0 : l.drops.length));
  return asked(surface, counts.reduce((s, n) => s + n, 0)); // prettier-ignore
}
/** Where film lies on a wall; null: none does yet. */
export function layoutOnWall(surface: Wall, records: JobRecords, film: Film): WallLayout | null {
  const layout = layoutOfWall(wallToPiece(surface, records, film));
  return 'blocked' in layout ? null : layout;
}

/** The cut of one wall. */
export function cutOfWall(surface: Wall, records: JobRecords, film: Film): SurfaceCut {
  const { survey, isSigned } = surveyWall(surface, records);
  const made = piecesOfWall(wallToPiece(surface, records, film));
  return cutOfDry(surface, made, { isSigned, isDoubtful: survey.status === 'doubtful' });
}

/** Named pieces of what is laid dry. */
function cutOfDry(surface: DrySurface, made: DryPieces, { isSigned, isDoubtful }: { readonly isSigned: boolean; readonly isDoubtful: boolean }): SurfaceCut {
  const base = { surface, isSigned, coverMm: null };
  if ('blocked' in made) return { ...base, answer: made, pieces: [] };
  const answer = { piece: made.pieces[0]!.piece, note: [made.note, isDoubtful && !isSigned && COVERS_ALL].filter(Boolean).join(' ') || null };
  if (surface.servedById !== null) return { ...base, answer, pieces: [] };
  const pieces = made.pieces.map(({ piece, suffix }, i): Piece => ({
    ...piece,
    id: made.pieces.length > 1 ? `${surface.id}.${i + 1}` : surface.id,
    label: suffix ? `${surface.name} ${suffix}` : surface.name,
  }));
  const headDropMm = new Map(made.pieces.flatMap((part, i) => (part.headDropMm ? [[pieces[i]!.id, part.headDropMm] as const] : [])));
  const runsOn = new Map(made.pieces.flatMap((part, i) => (part.runsOn ? [[pieces[i]!.id, part.runsOn] as const] : [])));
  return { ...base, answer, pieces: [...pieces, ...againOf(surface, pieces)], headDropMm, runsOn };
}
const COVERS_ALL = 'The tapes disagree, but this piece covers every explanation of them.';
