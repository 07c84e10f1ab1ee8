import type { Film, Piece } from '@yellow-pane/contracts';

/** One drop of patterned film on a wall of neighbouring panes, in the order of the walk along the wall. */
export interface PatternPiece {
  readonly piece: Piece;
  /** Pieces of one key stand side by side with their heads at one height. */
  readonly row: string | null;
  /** Place in that row, counted from its left. */
  readonly place: number;
  /** How far its head hangs below the highest of its row. Left out: not at all. */
  readonly headDropMm?: number;
}

/** From the highest head of its row down to where it starts. */
const startBelow = ({ piece, headDropMm = 0 }: PatternPiece): number => headDropMm + piece.heightMm;

/**
 * Pattern matched over drops and neighbouring panes: all heads of a row lie at the same mark of the repeat, with a half drop every second
 * one half a repeat on. The piece whose head is farthest from its start begins at a mark; the others follow.
 * @returns the pieces with the place in the repeat at which each must start, mm from the mark
 * @source common practice of patterned coverings: straight match and half drop; docs/models/pieces.md
 */
export function matchPattern(pieces: readonly PatternPiece[], film: Pick<Film, 'patternRepeatMm' | 'patternMatch'>): Piece[] {
  const repeatMm = film.patternRepeatMm;
  if (repeatMm === null || repeatMm <= 0) return pieces.map((p) => p.piece);
  const longest = new Map<string, number>();
  for (const p of pieces) if (p.row !== null) longest.set(p.row, Math.max(longest.get(p.row) ?? 0, startBelow(p)));
  return pieces.map((p) => {
    const { piece, row, place } = p;
    const shift = row === null ? 0 : longest.get(row)! - startBelow(p);
    const half = row !== null && film.patternMatch === 'half-drop' && place % 2 === 1 ? repeatMm / 2 : 0;
    const startMm = Math.round(((((shift + half) % repeatMm) + repeatMm) % repeatMm) * 100) / 100;
    return { ...piece, turns: piece.turns.includes(0) ? [0] : piece.turns, repeat: { repeatMm, startMm } };
  });
}
