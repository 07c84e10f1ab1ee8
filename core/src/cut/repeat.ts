import type { Film, Piece } from '@yellow-pane/contracts';
import type { RunsOn } from './runs-on.js';

/** One drop of patterned film on a wall of neighbouring panes, in the order of the walk along the wall. */
export interface PatternPiece {
  readonly piece: Piece;
  /** Pieces of one key stand side by side with their heads at one height. */
  readonly row: string | null;
  /** Place in that row, counted from its left. */
  readonly place: number;
  /** How far its head hangs below the highest of its row. Left out: not at all. */
  readonly headDropMm?: number;
  /** Where its direction lies level: how the pattern runs on along the roll. Left out: its head decides. */
  readonly runsOn?: RunsOn | undefined;
}

/** From the line of its row to where it starts, along the roll: from the highest head down to its foot, or as it runs on from the face before it. */
const startOf = ({ piece, headDropMm = 0, runsOn }: PatternPiece): number => runsOn?.fromMm ?? -(headDropMm + piece.heightMm);
/** Hangs turned half round: its head comes off the roll first, and what the roll counts up runs down on the wall. */
const isTurned = ({ piece, runsOn }: PatternPiece): boolean => !runsOn && piece.turns.every((t) => t === 180);
/** Pieces of a level direction lie one way round, or what runs from left to right on one would run from right to left on the next. */
const turned = ({ piece, runsOn }: PatternPiece): Piece['turns'] => {
  const one = runsOn ? 90 : 0;
  return piece.turns.includes(one) ? [one] : piece.turns;
};

/**
 * Pattern matched over drops and neighbouring panes: all heads of a row lie at the same mark of the repeat, with a half drop every second
 * one half a repeat on. The piece whose head is farthest from its start begins at a mark; the others follow. Where the direction lies level each face goes on
 * along the roll where the one before it ended, and heads lie at one edge of the roll. What hangs turned half round (book-match) has its marks at the same heights, upside down.
 * @returns the pieces with the place in the repeat at which each must start, mm from the mark
 * @source common practice of patterned coverings: straight match and half drop; docs/models/pieces.md
 */
export function matchPattern(pieces: readonly PatternPiece[], film: Pick<Film, 'patternRepeatMm' | 'patternMatch'>): Piece[] {
  const repeatMm = film.patternRepeatMm;
  if (repeatMm === null || repeatMm <= 0) return pieces.map((p) => p.piece);
  const first = new Map<string, number>();
  for (const p of pieces) if (p.row !== null) first.set(p.row, Math.min(first.get(p.row) ?? Infinity, startOf(p)));
  return pieces.map((p) => {
    const { piece, row, place } = p;
    // marks lie at one height on all: of one that hangs turned the head is the start, and marks are counted from there downwards
    const line = row === null ? startOf(p) : first.get(row)!;
    const shift = row !== null && isTurned(p) ? (p.headDropMm ?? 0) + line : startOf(p) - line;
    const half = row !== null && film.patternMatch === 'half-drop' && place % 2 === 1 ? repeatMm / 2 : 0;
    const startMm = Math.round(((((shift + half) % repeatMm) + repeatMm) % repeatMm) * 100) / 100;
    const atEdge = p.runsOn?.isBeside ? { factoryEdge: 'top' as const } : {};
    return { ...piece, ...atEdge, turns: turned(p), repeat: { repeatMm, startMm } };
  });
}
