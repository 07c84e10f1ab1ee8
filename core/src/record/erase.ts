import type { Change, Patch } from '@yellow-pane/contracts';

/** Fields of one record that were erased, and what stands there instead: words, or null. */
export interface Erasing {
  readonly id: string;
  readonly fields: Readonly<Record<string, string | null>>;
}
/** What the history says of an edit that carried something erased. */
export const ERASED_LABEL = 'An edit of which something was erased';

function scrubbedPatch(patch: Patch, { id, fields }: Erasing): Patch {
  if (patch.id !== id) return patch;
  if (patch.op === 'set') return patch.field in fields && patch.value !== fields[patch.field] ? { ...patch, value: fields[patch.field] } : patch;
  const hit = Object.keys(fields).filter((f) => f in patch.value && patch.value[f] !== fields[f]);
  return hit.length ? { ...patch, value: { ...patch.value, ...Object.fromEntries(hit.map((f) => [f, fields[f]])) } } : patch;
}

/**
 * A change of the history without what was erased since: what it wrote, what undoing it would write, and its label, which may name what it wrote.
 * @returns the very same change where it carries nothing of it
 */
export function scrubbed(change: Change, erasings: readonly Erasing[]): Change {
  const all = (patches: readonly Patch[]): Patch[] => patches.map((p) => erasings.reduce(scrubbedPatch, p));
  const [patches, inverse] = [all(change.patches), all(change.inverse)];
  const isSame = patches.every((p, i) => p === change.patches[i]) && inverse.every((p, i) => p === change.inverse[i]);
  return isSame ? change : { ...change, label: ERASED_LABEL, patches, inverse };
}
