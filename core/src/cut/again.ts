import type { Piece, Surface } from '@yellow-pane/contracts';

/** One more of each piece that was spoiled, or that somebody asked for. */
export const againOf = (surface: Pick<Surface, 'extraPieces'>, pieces: readonly Piece[]): Piece[] =>
  surface.extraPieces.flatMap((e, i): Piece[] => {
    const like = pieces[e.part ?? 0];
    return like ? [{ ...like, id: e.id, label: `${like.label} again${i > 0 ? ` ${i + 1}` : ''}` }] : [];
  });
