import type { JobDocument, Layout, LogEntry, Patch, Piece, Plan } from '@yellow-pane/contracts';
import { CORE_VERSION, knifeOrder, newestPlan, standingPlan, type FilmPlanInput } from '@yellow-pane/core';

/** The cut plan of one film as the person sees it. */
export interface FilmPlan {
  readonly filmId: string;
  readonly hash: string;
  readonly pieces: readonly Piece[];
  readonly layout: Layout;
  /** Still being searched. */
  readonly running: boolean;
  /** Committed, and what it was made from has changed since: it stands until the person plans anew. */
  readonly isStale: boolean;
  readonly stored: Plan | null;
  /** Not stored yet: the plan that counted when its search began. */
  readonly beside?: Plan | undefined;
}

/**
 * What is to be shown of a film now that its input or its records may be others.
 * @returns the plan, `search` where none holds, or null where what is shown is right as it is
 */
export function planToShow(
  input: FilmPlanInput,
  newest: Plan | undefined,
  finished: ReadonlySet<string>,
  shown: FilmPlan | undefined,
): FilmPlan | 'search' | null {
  if (isOvertaken(shown, newest)) return planToShow(input, newest, finished, undefined);
  const standing = standingPlan(newest, input, finished, 'mm');
  if (standing.is !== 'committed' && input.pieces.length === 0) return null;
  const { filmId } = input.layout;
  if (standing.is === 'kept') {
    if (shown?.stored === standing.plan) return null;
    return { filmId, hash: input.hash, pieces: input.pieces, layout: standing.plan.layout, running: false, stored: standing.plan, isStale: false };
  }
  // what is shown is of this input already: searched, or being searched
  if (shown?.hash === input.hash) return null;
  if (standing.is === 'none') return 'search';
  const { plan, changes } = standing;
  const isStale = changes.length > 0;
  if (shown?.stored === plan && shown.isStale === isStale) return null;
  return { filmId, hash: plan.inputHash, pieces: plan.pieces, layout: plan.layout, running: false, stored: plan, isStale };
}

/** Whether what is being searched comes too late: somebody has taken film or cut by a plan since it began, and that one stands. */
export function isOvertaken(shown: Pick<FilmPlan, 'stored' | 'beside'> | undefined, newest: Plan | undefined): boolean {
  if (!shown || shown.stored !== null || newest?.status !== 'committed') return false;
  return newest.id !== shown.beside?.id || shown.beside.status !== 'committed';
}

/** A plan put by hand: what the person did, and which pieces stay where they are. */
export interface ByHand {
  readonly label: string;
  readonly locked: readonly string[];
}
/** Stores a plan as a draft; an older draft of the film makes room, a committed one stays in the record. Locks on pieces that are no more are let go. */
export function draftPatches(doc: JobDocument, plan: FilmPlan, byHand: ByHand | null, id: string, at: string): Patch[] {
  const old = newestPlan(doc.plans, plan.filmId);
  const locked = new Set([...(old?.lockedPieceIds ?? []), ...(byHand?.locked ?? [])]);
  const stored: Plan = {
    id,
    jobId: doc.job.id,
    filmId: plan.filmId,
    status: 'draft',
    inputHash: plan.hash,
    coreVersion: CORE_VERSION,
    pieces: [...plan.pieces],
    layout: plan.layout,
    lockedPieceIds: [...locked].filter((piece) => plan.pieces.some((p) => p.id === piece)),
    isByHand: byHand !== null,
    takenRollIds: [],
    updatedAt: at,
    deletedAt: null,
  };
  const patches: Patch[] = [{ op: 'add', kind: 'plan', id, value: stored }];
  if (old?.status === 'draft') patches.push({ op: 'set', kind: 'plan', id: old.id, field: 'deletedAt', value: at });
  return patches;
}

/** A cut that was made, or one that was not after all, in the log. */
export function tickPatch(plan: Plan, stepKey: string, isDone: boolean, who: { readonly personId: string; readonly id: string; readonly at: string }): Patch {
  const kind = isDone ? 'cut-done' : 'cut-undone';
  const entry: LogEntry = { ...who, jobId: plan.jobId, kind, planId: plan.id, stepKey, surfaceId: null, note: '' };
  return { op: 'add', kind: 'logEntry', id: entry.id, value: entry };
}

const widthOf = (doc: JobDocument) => (rollId: string) => doc.rolls.find((r) => r.id === rollId)?.widthMm ?? 0;

/** The roll that a step of the knife is at. */
export const rollOfStep = (doc: JobDocument, plan: Pick<Plan, 'layout' | 'pieces'>, stepKey: string): string | undefined =>
  knifeOrder(plan.layout, plan.pieces, widthOf(doc), 'mm').find((s) => s.key === stepKey)?.rollId;

/** Drops that the knife has been at, by roll: nothing is moved out of them. */
export function heldDrops(
  doc: JobDocument,
  plan: Pick<Plan, 'layout'> & { readonly pieces: readonly Piece[] },
  done: ReadonlySet<string>,
): Map<string, Set<number>> {
  const out = new Map<string, Set<number>>();
  for (const step of knifeOrder(plan.layout, plan.pieces, widthOf(doc), 'mm'))
    if (done.has(step.key)) out.set(step.rollId, (out.get(step.rollId) ?? new Set()).add(step.dropIndex));
  return out;
}
