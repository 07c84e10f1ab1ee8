import type { Piece } from '@yellow-pane/contracts';

/**
 * Minutes at the bench and on the glass, for comparing methods only. @source house figures; the log will replace them.
 * Trimming: hold card, draw the blade, take the strip off. Squaring: a tucked or pre-cut piece is checked with a square.
 */
export const minutesPer = { knifeCut: 1, trimmedSide: 1.2, trimmedMetre: 0.5, squaredPiece: 2.5, dryFitPiece: 4 } as const;

const sideLengthM = (piece: Piece, edge: Piece['trimmedEdges'][number]): number =>
  (edge === 'top' || edge === 'bottom' ? piece.widthMm : piece.heightMm) / 1000;

/** Minutes for all cuts of a plan and all trimming of its pieces. */
export function workMinutes(pieces: readonly Piece[], knifeCuts: number): number {
  const perPiece = (p: Piece) =>
    p.trimmedEdges.reduce((s, e) => s + minutesPer.trimmedSide + minutesPer.trimmedMetre * sideLengthM(p, e), 0) +
    (p.method === 'tucked-corner' || p.method === 'pre-cut' ? minutesPer.squaredPiece : 0) +
    (p.method === 'dry-template' ? minutesPer.dryFitPiece : 0);
  return knifeCuts * minutesPer.knifeCut + pieces.reduce((s, p) => s + perPiece(p), 0);
}

/** Sides that are trimmed on the glass. */
export const trimCount = (pieces: readonly Piece[]): number => pieces.reduce((s, p) => s + p.trimmedEdges.length, 0);
