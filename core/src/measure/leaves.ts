import type { Panel } from '@yellow-pane/contracts';
import { isPanel } from './kinds.js';
import type { TapedRecords } from './readings.js';

/** Leaves side by side over which grain, pattern and lot go on, from the left; alone, the leaf itself. */
export function leavesOf(surface: Panel, { surfaces }: Pick<TapedRecords, 'surfaces'>): Panel[] {
  const panels = surfaces.filter(isPanel).filter((p) => !p.deletedAt);
  const run = [surface];
  const isNew = (p: Panel | undefined): p is Panel => p !== undefined && !run.some((x) => x.id === p.id);
  const leftOf = (p: Panel) => panels.find((x) => x.id === p.besideId);
  const rightOf = (p: Panel) => panels.find((x) => x.besideId === p.id);
  for (let left = leftOf(surface); isNew(left); left = leftOf(left)) run.unshift(left);
  for (let right = rightOf(surface); isNew(right); right = rightOf(right)) run.push(right);
  return run;
}
