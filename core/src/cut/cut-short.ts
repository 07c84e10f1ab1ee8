import type { LogEntry, Plan } from '@yellow-pane/contracts';
import { formatLength, type UnitSystem } from '../ground/index.js';
import { cutsForFilm } from './cut-of-kind.js';
import { needOf } from './in-hand.js';
import type { JobRecords } from './job-pieces.js';
import { doneSteps, finishedPieces } from './knife-log.js';
import { newestPlans } from './newest-plan.js';
import { compareWithPlan, covers, type Planned, type ServesElsewhere } from './replan.js';

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
