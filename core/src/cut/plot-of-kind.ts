import type { Film, Surface, SurfaceKind, SurfaceOf } from '@yellow-pane/contracts';
import { sheetsOfSign } from './cut-of-kind.js';
import type { PlotSheet } from './design/index.js';
import { paneToPiece, type JobRecords } from './job-pieces.js';
import { pieceNumber, plotOfPiece } from './pane-pieces.js';
import { plotOfSheet } from './sign-piece.js';

type Settings = { readonly weeding: boolean; readonly registration: boolean };
type PlotOf<S extends Surface> = (surface: S, records: JobRecords, film: Film, pieceId: string, settings: Settings) => PlotSheet | null;

const byHand = () => null;
/** What a plotter cuts of each kind of surface. */
const plotOfKind: { readonly [K in SurfaceKind]: PlotOf<SurfaceOf<K>> } = {
  pane: (surface, records, film, pieceId, settings) => plotOfPiece(paneToPiece(surface, records, film), pieceId, settings),
  column: byHand,
  panel: byHand,
  wall: byHand,
  counter: byHand,
  sign: (surface, records, film, pieceId, settings) => plotOfSheet(sheetsOfSign(surface, records, film), pieceNumber(surface, pieceId), settings),
};

/** What the plotter cuts for one piece of a surface, seen from the film side; null: it is cut by hand. */
export const plotOfSurface = (surface: Surface, records: JobRecords, film: Film, pieceId: string, settings: Settings): PlotSheet | null =>
  (plotOfKind[surface.kind] as PlotOf<Surface>)(surface, records, film, pieceId, settings);
