import type { CutSettings } from '@yellow-pane/contracts';
import type { UnitSystem } from '../ground/index.js';
import { filmPlanInput, type FilmPlanInput } from './film-plan.js';
import { newestPlan } from './newest-plan.js';
import { piecesCutShort, type CutRecords, type CutShort } from './cut-short.js';
import { filmsToCut } from './standing-plan.js';

/** The same with the bench that its plans are laid on. */
export type PlanRecords = CutRecords & { readonly job: { readonly cut: CutSettings } };

/** What of a job grows with all its panes and is asked for after every tape: work for a thread of its own. */
export interface WorkedOut {
  /** What the plan of each film is made from, by the film's id. */
  readonly inputs: ReadonlyMap<string, FilmPlanInput>;
  /** Pieces already cut that do not cover their panes any more. */
  readonly short: readonly CutShort[];
}

/** @param units that sizes are told in */
export function workedOut(records: PlanRecords, units: UnitSystem): WorkedOut {
  return {
    inputs: new Map(filmsToCut(records).map((f) => [f.id, filmPlanInput(records, records.job.cut, f.id, newestPlan(records.plans, f.id))])),
    short: piecesCutShort(records, units),
  };
}
