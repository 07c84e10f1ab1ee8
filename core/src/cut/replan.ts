import type { Piece, Plan } from '@yellow-pane/contracts';
import { formatLength, type UnitSystem } from '../ground/index.js';
import { LEAST_OVERHANG_MM, needOf } from './in-hand.js';
import type { SurfaceCut } from './job-pieces.js';

export type Planned = Pick<Piece, 'id' | 'surfaceId' | 'label' | 'widthMm' | 'heightMm'>;

/** What became of one piece since its plan was committed. */
export interface PieceChange {
  readonly pieceId: string;
  readonly surfaceId: string;
  readonly label: string;
  readonly kind: 'size' | 'added' | 'gone';
  readonly isCut: boolean;
  /** Of a piece already cut: whether it still covers its pane. */
  readonly stillFits: boolean | null;
  readonly words: string;
}
/** A piece that was cut wrong and covers another pane that is not cut yet. */
export interface ServesElsewhere {
  readonly pieceId: string;
  readonly label: string;
  readonly forSurfaceId: string;
  readonly forLabel: string;
  readonly words: string;
}
export interface ReplanReport {
  readonly changes: readonly PieceChange[];
  readonly serves: readonly ServesElsewhere[];
}

/**
 * What a re-measure made of a committed plan: which pieces have another size, are new or gone; which of those already cut still cover
 * their pane; and where a wrong one can serve instead of a piece that is not cut yet.
 * @param finished pieces that have left the knife
 */
export function compareWithPlan(
  plan: Plan,
  fresh: { readonly cuts: readonly SurfaceCut[] },
  finished: ReadonlySet<string>,
  units: UnitSystem,
  isOneWay: boolean,
): ReplanReport {
  const f = (mm: number) => formatLength(mm, units);
  const asPlanned = new Map(plan.pieces.flatMap((p): Planned[] => (p.parts.length ? p.parts : [p])).map((p) => [p.id, p]));
  const cutOf = new Map(fresh.cuts.flatMap((c) => c.pieces.map((p) => [p.id, c] as const)));
  const wanted = fresh.cuts.flatMap((c) => c.pieces);
  const changes: PieceChange[] = [];
  const wrong: Piece[] = [];
  for (const piece of wanted) {
    const old = asPlanned.get(piece.id);
    const isCut = finished.has(piece.id);
    const base = { pieceId: piece.id, surfaceId: piece.surfaceId, label: piece.label, isCut };
    if (!old) {
      changes.push({ ...base, kind: 'added', stillFits: null, words: `${piece.label} is new: ${f(piece.widthMm)} × ${f(piece.heightMm)}.` });
      continue;
    }
    if (Math.abs(old.widthMm - piece.widthMm) < 0.5 && Math.abs(old.heightMm - piece.heightMm) < 0.5) continue;
    const need = needOf(piece, cutOf.get(piece.id)!);
    const stillFits = isCut ? covers(old, need) : null;
    if (isCut && !stillFits) wrong.push({ ...piece, widthMm: old.widthMm, heightMm: old.heightMm });
    const was = `${f(old.widthMm)} × ${f(old.heightMm)}`;
    const now = `${f(piece.widthMm)} × ${f(piece.heightMm)}`;
    changes.push({
      ...base,
      kind: 'size',
      stillFits,
      words: !isCut
        ? `${piece.label}: ${was} is now ${now}.`
        : stillFits
          ? `${piece.label} is cut ${was}; ${now} would be cut today, but it still covers the pane.`
          : `${piece.label} is cut ${was} and does not cover the pane any more: ${now} is needed.`,
    });
  }
  for (const [id, old] of asPlanned)
    if (!wanted.some((p) => p.id === id)) {
      const isCut = finished.has(id);
      changes.push({
        pieceId: id,
        surfaceId: old.surfaceId,
        label: old.label,
        isCut,
        kind: 'gone',
        stillFits: null,
        words: `${old.label} is not wanted any more${isCut ? ', and is cut' : ''}.`,
      });
      const whole = plan.pieces.find((p) => p.id === id);
      if (isCut && whole) wrong.push(whole);
    }
  const taken = new Set<string>();
  const serves: ServesElsewhere[] = [];
  for (const piece of wrong) {
    const best = wanted
      .filter((w) => w.surfaceId !== piece.surfaceId && !finished.has(w.id) && !taken.has(w.id) && w.trimmedEdges.length > 0)
      .map((w) => ({ w, need: needOf(w, cutOf.get(w.id)!) }))
      .filter(({ need }) => !need.isExact && (covers(piece, need) || (!isOneWay && covers({ widthMm: piece.heightMm, heightMm: piece.widthMm }, need))))
      .sort((a, b) => b.need.widthMm * b.need.heightMm - a.need.widthMm * a.need.heightMm)[0];
    if (!best) continue;
    taken.add(best.w.id);
    const turned = !covers(piece, best.need);
    serves.push({
      pieceId: piece.id,
      label: piece.label,
      forSurfaceId: best.w.surfaceId,
      forLabel: best.w.label,
      words: `The piece cut for ${piece.label} (${f(piece.widthMm)} × ${f(piece.heightMm)}) covers ${best.w.label}${turned ? ', turned a quarter' : ''}: trim the rest.`,
    });
  }
  return { changes, serves };
}

/** Whether a piece still covers what is needed. */
export const covers = (piece: { widthMm: number; heightMm: number }, need: ReturnType<typeof needOf>): boolean =>
  need.isExact
    ? Math.abs(piece.widthMm - need.widthMm) <= 1 && Math.abs(piece.heightMm - need.heightMm) <= 1
    : piece.widthMm >= need.widthMm + need.trimmedAcross * LEAST_OVERHANG_MM && piece.heightMm >= need.heightMm + need.trimmedUp * LEAST_OVERHANG_MM;
