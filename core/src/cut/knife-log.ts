import type { LogEntry, Plan, Roll } from '@yellow-pane/contracts';
import { knifeOrder } from './knife-order.js';
import { newestPlans } from './newest-plan.js';

// apart from what makes the pieces: the first page asks what is cut, and works nothing out

/** Knife steps that were ticked and not corrected since. */
export function doneSteps(entries: readonly LogEntry[]): Set<string> {
  const done = new Set<string>();
  for (const e of [...entries].sort((a, b) => a.at.localeCompare(b.at))) {
    if (e.stepKey === null) continue;
    if (e.kind === 'cut-done') done.add(e.stepKey);
    if (e.kind === 'cut-undone') done.delete(e.stepKey);
  }
  return done;
}

/** Pieces that have left the knife: every cut that finishes them is ticked. */
export function finishedPieces(plans: readonly Plan[], entries: readonly LogEntry[], rolls: readonly Roll[]): Set<string> {
  const done = doneSteps(entries);
  const finished = new Set<string>();
  if (done.size === 0) return finished;
  for (const plan of plans)
    for (const step of knifeOrder(plan.layout, plan.pieces, (id) => rolls.find((r) => r.id === id)?.widthMm ?? 0, 'mm'))
      if (done.has(step.key)) step.finishes.forEach((id) => finished.add(id));
  return finished;
}

/** Surfaces whose pieces have all left the knife, or that another pane's piece serves. */
export function cutSurfaces(records: {
  readonly surfaces: readonly {
    readonly id: string;
    readonly filmId: string | null;
    readonly extraPieces: readonly { readonly id: string }[];
    readonly servedById: string | null;
  }[];
  readonly plans: readonly Plan[];
  readonly entries: readonly LogEntry[];
  readonly rolls: readonly Roll[];
}): Set<string> {
  const finished = finishedPieces(records.plans, records.entries, records.rolls);
  const bySurface = new Map<string, string[]>();
  for (const plan of newestPlans(records.plans).values())
    for (const piece of plan.pieces)
      for (const single of piece.parts.length ? piece.parts : [piece]) bySurface.set(single.surfaceId, [...(bySurface.get(single.surfaceId) ?? []), single.id]);
  return new Set(
    records.surfaces
      .filter((s) => {
        if (s.servedById !== null) return true;
        const ids = bySurface.get(s.id) ?? [];
        return ids.length > 0 && ids.every((id) => finished.has(id)) && s.extraPieces.every((e) => finished.has(e.id));
      })
      .map((s) => s.id),
  );
}

/** Panes whose pieces are all cut and cover them: what may be laid. @param short as `piecesCutShort` tells */
export function panesReadyToLay(records: Parameters<typeof cutSurfaces>[0], short: readonly { readonly surfaceId: string }[]): Set<string> {
  const ready = cutSurfaces(records);
  for (const s of short) ready.delete(s.surfaceId);
  return ready;
}
