import type { LogEntry, Piece, Plan } from '@yellow-pane/contracts';
import { formatLength, type UnitSystem } from '../ground/index.js';
import { cutSurfaces, doneSteps, finishedPieces } from './film-plan.js';
import { LEAST_OVERHANG_MM, needOf } from './in-hand.js';
import { newestPlans } from './newest-plan.js';
import { cutsForFilm } from './cut-of-kind.js';
import type { JobRecords, SurfaceCut } from './job-pieces.js';

type Planned = Pick<Piece, 'id' | 'surfaceId' | 'label' | 'widthMm' | 'heightMm'>;

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

const covers = (piece: { widthMm: number; heightMm: number }, need: ReturnType<typeof needOf>): boolean =>
  need.isExact
    ? Math.abs(piece.widthMm - need.widthMm) <= 1 && Math.abs(piece.heightMm - need.heightMm) <= 1
    : piece.widthMm >= need.widthMm + need.trimmedAcross * LEAST_OVERHANG_MM && piece.heightMm >= need.heightMm + need.trimmedUp * LEAST_OVERHANG_MM;

/** A pane whose piece has left the knife and does not cover it: it was measured again since. */
export interface CutShort {
  readonly surfaceId: string;
  readonly filmId: string;
  readonly pieceId: string;
  readonly label: string;
  /** Which of several pieces of the pane; null: its only one. */
  readonly part: number | null;
  /** Whether one more is asked for that the knife has not reached yet. */
  readonly isAsked: boolean;
  /** Another pane that it covers. */
  readonly serves: ServesElsewhere | null;
  readonly words: string;
}
/** The records that say what has to be cut, and what was. */
export type CutRecords = JobRecords & { readonly plans: readonly Plan[]; readonly entries: readonly LogEntry[] };

/**
 * Pieces already cut, against what their panes are known to be now: whatever no longer covers its opening, whether its plan was made anew since
 * or not. One that was cut again, large enough, is settled.
 */
export function piecesCutShort(records: CutRecords, units: UnitSystem): CutShort[] {
  if (doneSteps(records.entries).size === 0) return [];
  const finished = finishedPieces(records.plans, records.entries, records.rolls);
  const f = (mm: number) => formatLength(mm, units);
  const size = (p: { widthMm: number; heightMm: number }) => `${f(p.widthMm)} × ${f(p.heightMm)}`;
  const out: CutShort[] = [];
  for (const [filmId, plan] of newestPlans(records.plans)) {
    const cuts = cutsForFilm(records, filmId);
    const asCut = new Map(plan.pieces.flatMap((p): Planned[] => (p.parts.length ? p.parts : [p])).map((p) => [p.id, p]));
    const isOneWay = records.films.find((x) => x.id === filmId)?.direction !== 'none';
    const { serves } = compareWithPlan(plan, { cuts }, finished, units, isOneWay);
    for (const cut of cuts) {
      const { surface } = cut;
      const again = new Map(surface.extraPieces.map((e) => [e.id, e.part ?? 0]));
      const own = cut.pieces.filter((p) => !again.has(p.id));
      // a pane that another one’s piece serves has none of its own: that one must cover it
      const wanted = own.length === 0 && surface.servedById !== null && 'piece' in cut.answer ? [{ ...cut.answer.piece, id: surface.servedById, label: surface.name }] : own; // prettier-ignore
      for (const [i, piece] of wanted.entries()) {
        const need = needOf(piece, cut);
        const all = [piece.id, ...[...again].flatMap(([id, part]) => (part === i ? [id] : []))];
        const made = all.filter((id) => finished.has(id) && asCut.has(id));
        if (made.length === 0 || made.some((id) => covers(asCut.get(id)!, need))) continue;
        const old = asCut.get(made.at(-1)!)!;
        const isAsked = all.some((id) => !finished.has(id));
        out.push({
          surfaceId: surface.id,
          filmId,
          pieceId: old.id,
          label: piece.label,
          part: wanted.length > 1 ? i : null,
          isAsked,
          serves: serves.find((x) => x.pieceId === old.id) ?? null,
          words: `${piece.label} is cut ${size(old)} and does not cover the pane any more: ${size(piece)} is needed. ${
            isAsked ? 'One more is asked for and not cut yet: do not lay the old one.' : 'Do not lay it: one more has to be cut.'
          }`,
        });
      }
    }
  }
  return out;
}

/** Panes whose pieces are all cut and cover them: what may be laid. @param short as `piecesCutShort` tells */
export function panesReadyToLay(records: CutRecords, short: readonly CutShort[]): Set<string> {
  const ready = cutSurfaces(records);
  for (const s of short) ready.delete(s.surfaceId);
  return ready;
}
