import * as z from 'zod';
import { id, instant, words } from './quantities.js';
import { allKinds, kindOf } from './record-kinds.js';

const recordKind = z.enum(allKinds);

/**
 * One step of a change. `add` brings a new record; `set` gives one field a new value. Nothing is ever removed: deleting
 * sets `deletedAt`, so that it can be undone.
 */
export const patch = z.discriminatedUnion('op', [
  z.object({ op: z.literal('add'), kind: recordKind, id, value: z.record(z.string(), z.unknown()) }),
  z.object({ op: z.literal('set'), kind: recordKind, id, field: z.string(), value: z.unknown() }),
]);
export type Patch = z.infer<typeof patch>;

/**
 * An edit as a device sends it. `deviceSeq` counts this device's changes without a gap; the same (device, seq) twice is
 * the same change. `baseRevision` is the revision that the person looked at when editing.
 */
export const changeDraft = z.object({
  id,
  /** The job whose history this belongs to; the firm's id for what belongs to no job. */
  jobId: id,
  personId: id,
  deviceId: id,
  deviceSeq: z.int().min(1),
  baseRevision: z.int().min(0),
  label: words(120),
  patches: z.array(patch).min(1).max(2000),
});
export type ChangeDraft = z.infer<typeof changeDraft>;

/** A change as it stands in the history. */
export const change = changeDraft.extend({
  revision: z.int().min(1),
  inverse: z.array(patch),
  /** A fact (a cut made, a plan committed) or a computed result: not part of undo. */
  undoable: z.boolean(),
  /** The change that this one undoes, if it is an undo. */
  undoesId: id.nullable(),
  at: instant,
});
export type Change = z.infer<typeof change>;

/** What the server answers to a change, an undo or a redo. */
export const changeAnswer = z.object({ change, canUndo: z.string().nullable(), canRedo: z.string().nullable() });
export type ChangeAnswer = z.infer<typeof changeAnswer>;

/** Undo and redo are new changes of one's own; `force` goes ahead where someone else has since touched the same. */
export const undoRequest = z.object({ id, personId: id, deviceId: id, deviceSeq: z.int().min(1), force: z.boolean() });
export type UndoRequest = z.infer<typeof undoRequest>;

/**
 * Whether a change is a step that its person may take back. Not those that only record facts or what the search found (a move by hand and
 * a lock are a person's own), and not the beginning of a job, nor its coming back from the deleted ones: undo inside a job never takes the whole job away.
 */
export function isUndoStep(patches: readonly Patch[]): boolean {
  if (patches.some((p) => p.kind === 'job' && (p.op === 'add' || (p.field === 'deletedAt' && p.value === null)))) return false;
  const isByHand = patches.some((p) => p.kind === 'plan' && (p.op === 'add' ? p.value['isByHand'] === true : p.field === 'lockedPieceIds'));
  return patches.some((p) => !kindOf(p.kind).isFact && (p.kind !== 'plan' || isByHand));
}
