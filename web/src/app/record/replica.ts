import type { Change, JobDocument, Patch } from '@yellow-pane/contracts';
import { applyPatches, needsReload } from './updaters';

/** An edit of this device that the bench’s word has not come back for. */
export interface PendingEdit {
  readonly id: string;
  readonly patches: readonly Patch[];
  /** The number that the bench gave it; null: not answered yet. */
  readonly revision: number | null;
}

/**
 * The open job as this device has it: what the bench has said, in the bench’s order, and this device’s own edits that are still on their way, on top. What is
 * shown is the one with the others laid over it. However edits and answers overtake one another, when nothing is on its way any more this is what the
 * bench has: nothing of one’s own is ever put into the said part but by the bench.
 */
export interface Replica {
  /** As the bench said it, up to its `revision`. */
  readonly base: JobDocument;
  readonly pending: readonly PendingEdit[];
}

export const replicaOf = (base: JobDocument, pending: readonly PendingEdit[] = []): Replica => dropSaid({ base, pending });

/** What the bench has numbered up to where the base is, is in the base. */
const dropSaid = (r: Replica): Replica => ({ ...r, pending: r.pending.filter((p) => p.revision === null || p.revision > r.base.revision) });

/** An edit is made here. The same one again changes nothing. */
export const held = (r: Replica, id: string, patches: readonly Patch[]): Replica =>
  r.pending.some((p) => p.id === id) ? r : { ...r, pending: [...r.pending, { id, patches, revision: null }] };

/** The bench would not take it: it is gone. */
export const refused = (r: Replica, id: string): Replica => ({ ...r, pending: r.pending.filter((p) => p.id !== id) });

/** The bench has numbered an edit of this device. It goes into the base with its turn, by `told`; until then it is shown as the bench wrote it. */
export const numbered = (r: Replica, change: Pick<Change, 'id' | 'patches' | 'revision'>): Replica =>
  dropSaid({ ...r, pending: r.pending.map((p) => (p.id === change.id ? { id: p.id, patches: change.patches, revision: change.revision } : p)) });

/** Whether nothing can lie between what is known here and this number. */
export const isNext = (r: Replica, revision: number): boolean => revision === r.base.revision + 1;

/**
 * The bench tells changes after the base, in whatever order they come in; those it has told before are passed over.
 * @param upTo all changes of this job up to here are among them: the base is that far
 * @returns null when something comes back that is not in the document any more: then it has to be loaded anew
 */
export function told(r: Replica, changes: readonly Pick<Change, 'id' | 'patches' | 'revision'>[], upTo = 0): Replica | null {
  let { base } = r;
  const ids = new Set<string>();
  for (const c of [...changes].sort((a, b) => a.revision - b.revision)) {
    ids.add(c.id);
    if (c.revision <= base.revision) continue;
    if (needsReload(base, c.patches)) return null;
    base = { ...applyPatches(base, c.patches), revision: c.revision };
  }
  base = upTo > base.revision ? { ...base, revision: upTo } : base;
  return dropSaid({ base, pending: r.pending.filter((p) => !ids.has(p.id)) });
}

/** What is shown. */
export const shown = (r: Replica): JobDocument => (r.pending.length === 0 ? r.base : applyPatches(r.base, r.pending.flatMap((p) => p.patches))); // prettier-ignore
