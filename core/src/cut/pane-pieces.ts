import type { Allowances, Design, Edge, Film, Piece, Pane, Surface } from '@yellow-pane/contracts';
import { boundingBox } from '../geometry/index.js';
import { contentHash, shelf, type Memo, type UnitSystem } from '../ground/index.js';
import { enclosingRectangle, type Survey } from '../measure/index.js';
import { keepOnSheet, piecesOfDesign, type DesignedPane, type DesignedPiece } from './design/design-pieces.js';
import { plotSheet, type PlotSheet } from './design/plot-paths.js';
import type { PaneOnWall } from './design/pattern.js';
import { againOf } from './again.js';
import { handySize, roundUpToMark } from './handy-size.js';
import { toLinerView, type PieceAnswer } from './piece.js';
import { seamLapMm, stripsOf } from './seams.js';

/** A pane with everything that decides how many pieces it takes. */
export interface PaneToPiece {
  readonly surface: Pane;
  readonly survey: Survey;
  readonly answer: PieceAnswer;
  readonly allowances: Allowances;
  readonly film: Film;
  readonly units: UnitSystem;
  /** Left side of this pane from the left side of the first of its row. */
  readonly offsetMm: number;
  /** Widths of rolls and the longest pull: sizes that go into them are not rounded out of them. */
  readonly limitsMm: readonly number[];
  readonly memo: Memo;
}

/** The pieces of a pane, or why there are none. */
export type PanePieces = { readonly pieces: Piece[] } | { readonly blocked: string };

export const paneOnWall = (p: Pick<PaneToPiece, 'surface' | 'survey' | 'offsetMm'>): PaneOnWall => ({
  outline: p.survey.outline!,
  offsetMm: p.offsetMm,
  sillMm: p.surface.exposure?.heightAboveFloorMm ?? null,
});

const designedPane = (p: PaneToPiece, plain: DesignedPane['plain']): DesignedPane => ({
  surface: p.surface,
  pane: paneOnWall(p),
  plain,
  allowances: p.allowances,
  marginMm: enclosingRectangle(p.survey)!.marginMm,
  roundUp: (mm) => roundUpToMark(mm, p.units),
  memo: p.memo,
});

/**
 * One piece, or several where the pane is wider than its film (strips) or its design leaves clear gaps (bands). A pane that another
 * pane's piece serves has none of its own.
 */
export function piecesOfPane(p: PaneToPiece): PanePieces {
  const { surface, answer } = p;
  if ('blocked' in answer) return answer;
  if (surface.servedById !== null) return { pieces: [] };
  const meets = surface.grid?.groupId ?? (surface.seam || surface.design ? surface.id : null);
  const named = (piece: Omit<Piece, 'id' | 'label'>, i: number, count: number, suffix: string): Piece => ({
    ...piece,
    meets,
    id: count > 1 ? `${surface.id}.${i + 1}` : surface.id,
    label: suffix && count > 1 ? `${surface.name} ${suffix}` : surface.name,
  });
  let bare: { piece: Omit<Piece, 'id' | 'label'>; suffix: string }[];
  if (surface.design && isForDesigns(p.film) && !surface.curved) {
    const designed = knownDesign(p, answer.piece);
    if (!designed.ok) return { blocked: designed.message };
    bare = designed.pieces;
  } else if (surface.seam && !surface.curved) {
    const strips = stripPieces(p, answer.piece);
    if ('blocked' in strips) return strips;
    bare = strips.pieces;
  } else bare = [{ piece: answer.piece, suffix: '' }];
  const pieces = bare.map((b, i) => named(b.piece, i, bare.length, b.suffix));
  return { pieces: [...pieces, ...againOf(surface, pieces)] };
}

/** The same design on the same pane is laid out once: thousands of dots are not drawn anew at every keystroke. */
function knownDesign(p: PaneToPiece, plain: DesignedPane['plain']): ReturnType<typeof piecesOfDesign> {
  const pane = designedPane(p, plain);
  const key = contentHash([pane.surface.design, pane.surface.seenFrom, pane.surface.filmFace, pane.surface.id, pane.pane, pane.allowances, pane.marginMm, plain.widthMm, plain.heightMm, plain.filmId, plain.turns, p.units]); // prettier-ignore
  return p.memo.once(designed, key, () => piecesOfDesign(pane));
}
const designed = shelf<ReturnType<typeof piecesOfDesign>>(400);

/** Films that carry a design: what is frosted or printed. */
export const isForDesigns = (film: Pick<Film, 'kind'>): boolean => film.kind === 'frosted' || film.kind === 'printed-decor' || film.kind === 'mirror';

function stripPieces(
  p: PaneToPiece,
  plain: Omit<Piece, 'id' | 'label'>,
): { pieces: { piece: Omit<Piece, 'id' | 'label'>; suffix: string }[] } | { blocked: string } {
  const { surface, allowances } = p;
  const seam = surface.seam!;
  const box = enclosingRectangle(p.survey)!;
  const total = seam.direction === 'upright' ? box.widthMm : box.heightMm;
  if (seam.atMm.some((x) => x <= 0 || x >= total)) return { blocked: 'A seam lies outside this pane since it was measured again: choose the seams anew.' };
  const upright = seam.direction === 'upright';
  const turns = plain.turns;
  // what is over at a frame is trimmed there; between two seams a strip is as wide as it has to be
  const sized = (mm: number, frame: readonly Edge[], sides: readonly Edge[]): number =>
    sides.some((e) => frame.includes(e)) ? handySize(mm, { units: p.units, step: allowances.sizeStep, limitsMm: p.limitsMm }) : roundUpToMark(mm, p.units);
  return {
    pieces: stripsOf(box, seam, allowances).map((s) => ({
      suffix: s.name,
      piece: {
        ...plain,
        method: 'overhang' as const,
        widthMm: sized(s.widthMm, s.frameEdges, ['left', 'right']),
        heightMm: sized(s.heightMm, s.frameEdges, ['top', 'bottom']),
        turns: s.factoryEdge === null ? turns : turns.filter((t) => (upright ? t % 180 === 0 : t % 180 === 90)),
        factoryEdge: s.factoryEdge && toLinerView(s.factoryEdge, surface.seenFrom, surface.filmFace),
        trimmedEdges: [...s.frameEdges],
        path: null,
        holes: [],
        why: [
          `${s.name} strip of a pane pieced together at ${seam.atMm.map((x) => Math.round(x)).join(', ')} mm ${upright ? 'from the left' : 'from the sill'}, seen from the ${surface.seenFrom}.`,
          seam.kind === 'butt'
            ? 'Straight edges meet: the roll’s own edge lies at the seam.'
            : seam.kind === 'overlap'
              ? `${seamLapMm.overlap} mm lie over the neighbour; a tape line keeps the lap straight.`
              : `Each strip reaches ${seamLapMm['double-cut'] / 2} mm past the line; both are cut through together over a strip of liner, so that the glass is not scored, and the waste is lifted.`,
          `Overhang ${allowances.overhangMm} mm at the frame, trimmed on the glass.`,
        ],
        fallback: null,
      },
    })),
  };
}

/** Which of the pieces of its surface a piece is, by its id; one more of it is the same one. */
export const pieceNumber = ({ extraPieces }: Pick<Surface, 'extraPieces'>, pieceId: string): number =>
  extraPieces.find((e) => e.id === pieceId)?.part ?? (pieceId.includes('.') ? Number(pieceId.split('.')[1]) - 1 : 0);

/** What the plotter cuts for one piece of a designed pane; null when it is cut by hand. */
export function plotOfPiece(p: PaneToPiece, pieceId: string, settings: { weeding: boolean; registration: boolean }): PlotSheet | null {
  if ('blocked' in p.answer || !p.surface.design) return null;
  const pane = designedPane(p, p.answer.piece);
  const designed = piecesOfDesign(pane);
  if (!designed.ok) return null;
  const part = pieceNumber(p.surface, pieceId);
  const piece: DesignedPiece | undefined = designed.pieces[part];
  const keep = piece && keepOnSheet(pane, piece);
  if (!piece || !keep) return null;
  return plotSheet({ ...keep, widthMm: piece.piece.widthMm, heightMm: piece.piece.heightMm, settings });
}

/** Where the pieces of a pane lie on it, mm from the left side and the lower edge of its glass, as it was seen when measured. */
export function piecePlaces(
  p: PaneToPiece,
): { readonly pieceId: string; readonly leftMm: number; readonly lowMm: number; readonly widthMm: number; readonly heightMm: number }[] {
  const made = piecesOfPane(p);
  if ('blocked' in made || 'blocked' in p.answer || !p.survey.outline) return [];
  const box = boundingBox(p.survey.outline);
  const places: { x: number; y: number }[] = [];
  if (p.surface.design && isForDesigns(p.film)) {
    const designed = knownDesign(p, p.answer.piece);
    if (designed.ok) places.push(...designed.pieces.map((d) => ({ x: d.cornerMm.x - box.minX, y: d.cornerMm.y - box.minY })));
  } else if (p.surface.seam) places.push(...stripsOf(enclosingRectangle(p.survey)!, p.surface.seam, p.allowances).map((s) => ({ x: s.leftMm, y: s.lowMm })));
  return made.pieces.flatMap((piece) => {
    const part = pieceNumber(p.surface, piece.id);
    const at = places[part];
    return at ? [{ pieceId: piece.id, leftMm: at.x, lowMm: at.y, widthMm: piece.widthMm, heightMm: piece.heightMm }] : [];
  });
}

/**
 * Left sides of panes in one row between bars, in the order of their columns.
 * @returns by surface id, mm from the left side of the first
 */
export function offsetsInRow(
  surface: Pane,
  surfaces: readonly Pane[],
  surveyOf: (s: Pane) => Survey,
  design: Pick<Design, 'gapMm'> | null,
): ReadonlyMap<string, number> {
  const { grid } = surface;
  if (!grid) return new Map([[surface.id, 0]]);
  const row = surfaces
    .filter((s) => !s.deletedAt && s.grid?.groupId === grid.groupId && s.grid.row === grid.row)
    .sort((a, b) => a.grid!.column - b.grid!.column);
  const out = new Map<string, number>();
  let x = 0;
  for (const s of row) {
    out.set(s.id, x);
    const { outline } = surveyOf(s);
    const b = outline ? boundingBox(outline) : null;
    x += (b ? b.maxX - b.minX : 0) + (design?.gapMm ?? 0);
  }
  return out;
}
