import { checkDry, type CheckDry } from './check-dry.js';
import { checkPanes, type CheckPane, type CheckRecords, type DryingDays } from './check-job.js';

/** Anything that film was laid on, wet or dry. */
export type AnyLaid = CheckPane | CheckDry;
/** Whether film was laid on it wet, so that water leaves through it. */
export const isWetLaidPane = (p: AnyLaid): p is CheckPane => 'clock' in p;

/** All that is laid in a job, in the order of its walk. @param daysOf weather behind each pane’s drying @param at now, an instant */
export function allLaid(records: CheckRecords, daysOf: (surfaceId: string) => DryingDays | null, at: string): AnyLaid[] {
  const order = new Map(records.surfaces.map((s, i) => [s.id, i]));
  return [...checkPanes(records, daysOf, at), ...checkDry(records, at)].sort((a, b) => order.get(a.surface.id)! - order.get(b.surface.id)!);
}

/** So many of what film was laid on: panes where all of it is glass, surfaces otherwise. */
export const countLaid = (count: number, areAllPanes: boolean): string => {
  const one = areAllPanes ? 'pane' : 'surface';
  return count === 1 ? `1 ${one}` : `${count} ${one}s`;
};
