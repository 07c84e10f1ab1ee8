import type { Counter, Panel } from '@yellow-pane/contracts';
import type { TapedRecords } from './readings.js';

/** What stands side by side with others of its kind: leaves, tops. */
export type Besides = Panel | Counter;

/** Leaves or tops side by side over which grain, pattern and lot go on, from the left; alone, the one itself. */
export function besidesOf<S extends Besides>(surface: S, { surfaces }: Pick<TapedRecords, 'surfaces'>): S[] {
  const alike = surfaces.filter((s): s is S & (typeof surfaces)[number] => s.kind === surface.kind && !s.deletedAt);
  const run: S[] = [surface];
  const isNew = (p: S | undefined): p is S => p !== undefined && !run.some((x) => x.id === p.id);
  const leftOf = (p: S): S | undefined => alike.find((x) => x.id === p.besideId);
  const rightOf = (p: S): S | undefined => alike.find((x) => x.besideId === p.id);
  for (let left = leftOf(surface); isNew(left); left = leftOf(left)) run.unshift(left);
  for (let right = rightOf(surface); isNew(right); right = rightOf(right)) run.push(right);
  return run;
}
