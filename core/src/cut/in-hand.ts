import type { Piece } from '@yellow-pane/contracts';
import { formatLength, type UnitSystem } from '../ground/index.js';
import type { SurfaceCut } from './job-pieces.js';

/** Two sizes of one piece as a tape on the bench gives them agree with the plan within this. @source common practice: a piece is cut within 2 mm */
const SAME_PIECE_MM = 2.5;
/** A trimmed side needs this much film past the frame for the blade to have something to cut. @source house rule */
export const LEAST_OVERHANG_MM = 5;

/** What a piece in hand is, for one pane and one way of holding it. */
export interface InHand {
  readonly surfaceId: string;
  readonly pieceId: string;
  readonly label: string;
  readonly verdict: 'is' | 'serves' | 'short' | 'large';
  /** The size that lies level: the first or the second that was given. */
  readonly level: 'first' | 'second';
  readonly spareMm: { readonly across: number; readonly up: number };
  readonly words: string;
}

/**
 * The check before anything gets wet: two sizes of the piece in hand against every pane. First panes whose own piece it is, then panes
 * that it would cover too, then the nearest miss with by how much.
 */
export function matchInHand(firstMm: number, secondMm: number, cuts: readonly SurfaceCut[], units: UnitSystem, isOneWay: boolean): InHand[] {
  const f = (mm: number) => formatLength(mm, units);
  const out: InHand[] = [];
  for (const cut of cuts) {
    for (const piece of cut.pieces)
      for (const level of ['first', 'second'] as const) {
        const [w, h] = level === 'first' ? [firstMm, secondMm] : [secondMm, firstMm];
        if (level === 'second' && Math.abs(firstMm - secondMm) < 0.5) continue;
        const isOwn = Math.abs(w - piece.widthMm) <= SAME_PIECE_MM && Math.abs(h - piece.heightMm) <= SAME_PIECE_MM;
        const need = needOf(piece, cut);
        const spare = { across: w - need.widthMm, up: h - need.heightMm };
        const how = `${f(w)} level, ${f(h)} upright`;
        const common = { surfaceId: cut.surface.id, pieceId: piece.id, label: piece.label, level, spareMm: spare };
        if (isOwn) {
          out.push({ ...common, verdict: 'is', words: `${piece.label}: ${how}.` });
          continue;
        }
        // a film with a direction may not be held any other way than it was cut
        if (isOneWay && level === 'second') continue;
        if (need.isExact) {
          const off = [w - piece.widthMm, h - piece.heightMm];
          if (Math.max(...off.map(Math.abs)) < 60)
            out.push({
              ...common,
              verdict: off.some((x) => x > 0) ? 'large' : 'short',
              words: `Not ${piece.label}: ${said(off[0]!, f)} across, ${said(off[1]!, f)} up; it must fit.`,
            });
          continue;
        }
        const isCovering = spare.across >= need.trimmedAcross * LEAST_OVERHANG_MM && spare.up >= need.trimmedUp * LEAST_OVERHANG_MM;
        if (isCovering)
          out.push({ ...common, verdict: 'serves', words: `Would cover ${piece.label} too: ${how}, ${f(spare.across)} and ${f(spare.up)} to trim.` });
        else
          out.push({
            ...common,
            verdict: 'short',
            words: `Too small for ${piece.label}: ${[
              spare.across < need.trimmedAcross * LEAST_OVERHANG_MM ? `${f(Math.max(0, need.trimmedAcross * LEAST_OVERHANG_MM - spare.across))} across` : '',
              spare.up < need.trimmedUp * LEAST_OVERHANG_MM ? `${f(Math.max(0, need.trimmedUp * LEAST_OVERHANG_MM - spare.up))} up` : '',
            ]
              .filter(Boolean)
              .join(' and ')} missing.`,
          });
      }
  }
  const rank = { is: 0, serves: 1, large: 2, short: 3 } as const;
  const miss = (m: InHand) => (m.verdict === 'short' || m.verdict === 'large' ? Math.max(-m.spareMm.across, -m.spareMm.up) : m.spareMm.across + m.spareMm.up);
  return out.sort((a, b) => rank[a.verdict] - rank[b.verdict] || miss(a) - miss(b));
}

const said = (mm: number, f: (mm: number) => string): string => `${f(Math.abs(mm))} too ${mm > 0 ? 'large' : 'small'}`;

/** What a piece must at least be, and on how many sides film must be left to trim. */
export function needOf(
  piece: Piece,
  { coverMm }: Pick<SurfaceCut, 'coverMm'>,
): { widthMm: number; heightMm: number; trimmedAcross: number; trimmedUp: number; isExact: boolean } {
  const count = (edges: readonly string[]) => piece.trimmedEdges.filter((e) => edges.includes(e)).length;
  const [trimmedAcross, trimmedUp] = [count(['left', 'right']), count(['top', 'bottom'])];
  if (piece.trimmedEdges.length === 0 || !coverMm) return { widthMm: piece.widthMm, heightMm: piece.heightMm, trimmedAcross: 0, trimmedUp: 0, isExact: true };
  return { ...coverMm, trimmedAcross, trimmedUp, isExact: false };
}
