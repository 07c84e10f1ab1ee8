import type { Plan } from '@yellow-pane/contracts';

/** Of two plans of one film the one that counts: written later; two of one instant are told apart alike everywhere. */
export const isLaterPlan = (a: Plan, b: Plan): boolean => (a.updatedAt === b.updatedAt ? a.id > b.id : a.updatedAt > b.updatedAt);

/** The plan of each film that counts: the newest that was not taken away. */
export function newestPlans(plans: readonly Plan[]): Map<string, Plan> {
  const newest = new Map<string, Plan>();
  for (const p of plans) {
    const other = newest.get(p.filmId);
    if (!p.deletedAt && (!other || isLaterPlan(p, other))) newest.set(p.filmId, p);
  }
  return newest;
}

/** The plan of one film that counts. */
export const newestPlan = (plans: readonly Plan[], filmId: string): Plan | undefined => newestPlans(plans.filter((p) => p.filmId === filmId)).get(filmId);
