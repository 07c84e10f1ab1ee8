/** Most steps that a plan is searched for; a browser does them while the person looks, and stops earlier when its time is up. */
export const SETTLED_STEPS = 1500;
/** Steps for a plan that is needed at once and not stored. */
export const PROMPT_STEPS = 150;
