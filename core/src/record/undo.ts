import type { Change, Patch } from '@yellow-pane/contracts';

/**
 * Undo, as everybody at the bench knows it. Nothing is ever removed from the history: taking a change back is a new change that carries the old one's inverse
 * and names it (`undoesId`); doing it again takes back that one. A device takes back only what it did itself, the last first.
 */

/** What may be undone and redone next. */
export interface UndoState {
  readonly undo: Change | null;
  readonly redo: Change | null;
}

/**
 * What may be undone and redone next, from the history alone. A new change leaves nothing to redo.
 * @param own changes that count as steps of one device, oldest first, with those that took one back
 */
export function undoState(own: readonly Change[]): UndoState {
  const undo: Change[] = [];
  let redo: Change[] = [];
  for (const change of own) {
    if (change.undoesId === null) {
      undo.push(change);
      redo = [];
    } else if (undo.at(-1)?.id === change.undoesId) {
      undo.pop();
      redo.push(change);
    } else if (redo.at(-1)?.id === change.undoesId) {
      redo.pop();
      undo.push(change);
    }
  }
  return { undo: undo.at(-1) ?? null, redo: redo.at(-1) ?? null };
}

/**
 * The same from the last part of a history: what lies before it is not looked at where it makes no difference.
 * @param tail the newest of one's own changes, oldest first @param isWhole nothing lies before them
 * @returns null where more of the history has to be known
 */
export function undoStateOfTail(tail: readonly Change[], isWhole: boolean): UndoState | null {
  if (isWhole) return undoState(tail);
  // a change of one's own leaves nothing to redo, whatever was before
  const from = tail.findIndex((c) => c.undoesId === null);
  if (from < 0) return null;
  const known = tail.slice(from);
  const ids = new Set(known.map((c) => c.id));
  if (known.some((c) => c.undoesId !== null && !ids.has(c.undoesId))) return null;
  const state = undoState(known);
  return state.undo ? state : null;
}

/**
 * What takes a patch back: a record that was added is deleted, a field gets its old value.
 * @param old the record before; null for one that is added @param at when, ISO @param canBeDeleted whether records of this kind can be
 * @returns null for a fact: it stands when its change is undone
 */
export function inverseOf(patch: Patch, old: Readonly<Record<string, unknown>> | null, at: string, canBeDeleted: boolean): Patch | null {
  const { kind, id } = patch;
  if (patch.op === 'add') return canBeDeleted ? { op: 'set', kind, id, field: 'deletedAt', value: at } : null;
  return { op: 'set', kind, id, field: patch.field, value: old?.[patch.field] ?? null };
}

/** Patches that take a change back, in the order in which they are to be applied: what was done last goes first. */
export const reversalOf = (change: Pick<Change, 'inverse'>): Patch[] => [...change.inverse].reverse();

/** What a patch touches: a whole record, or one field of it. */
const touched = (p: Patch): string => (p.op === 'add' ? `${p.kind}/${p.id}` : `${p.kind}/${p.id}/${p.field}`);
const isOnTheSame = (a: string, b: string): boolean => a === b || a.startsWith(`${b}/`) || b.startsWith(`${a}/`);

/**
 * The first change since that another device made on the same record or field. Somebody else's work on other things is in nobody's way.
 * @param since changes after the one that is looked at, oldest first
 */
export function othersOnTheSame(patches: readonly Patch[], since: readonly Change[], deviceId: string): Change | null {
  const mine = patches.map(touched);
  const meets = (c: Change) => c.patches.some((p) => mine.some((m) => isOnTheSame(m, touched(p))));
  return since.find((c) => c.deviceId !== deviceId && meets(c)) ?? null;
}
