import type { Film, Plan } from '@yellow-pane/contracts';
import { type UnitSystem } from '../ground/index.js';
import type { FilmPlanInput } from './film-plan.js';
import type { JobRecords } from './job-pieces.js';
import { newestPlans } from './newest-plan.js';
import { compareWithPlan, type PieceChange } from './replan.js';

/** Films that there is something to cut of: some pane has it, or a committed plan of it is followed. */
export function filmsToCut(records: Pick<JobRecords, 'films' | 'surfaces'> & { readonly plans: readonly Plan[] }): Film[] {
  const plans = newestPlans(records.plans);
  return records.films.filter((f) => records.surfaces.some((s) => s.filmId === f.id) || plans.get(f.id)?.status === 'committed');
}

/**
 * Which plan of a film is followed:
 * - `kept`: what it was made from is still so;
 * - `committed`: film was taken or the knife has been at it. It stands whatever else changes, until a person plans anew; `changes` are the
 *   pieces that are not what they were (other rolls or prices do not change it at all);
 * - `none`: nothing that holds. What is laid out now is a proposal, and has to be kept before it is cut.
 */
export type StandingPlan =
  | { readonly is: 'kept'; readonly plan: Plan }
  | { readonly is: 'committed'; readonly plan: Plan; readonly changes: readonly PieceChange[] }
  | { readonly is: 'none' };

/**
 * The one rule by which screen, papers and files know what is cut.
 * @param input what the film's plan is made from now @param finished pieces that have left the knife @param units of the sentences
 */
export function standingPlan(plan: Plan | undefined, input: FilmPlanInput, finished: ReadonlySet<string>, units: UnitSystem): StandingPlan {
  if (!plan) return { is: 'none' };
  // the hash knows the core's version
  if (plan.inputHash === input.hash) return { is: 'kept', plan };
  if (plan.status !== 'committed') return { is: 'none' };
  return { is: 'committed', plan, changes: compareWithPlan(plan, input, finished, units, false).changes };
}
