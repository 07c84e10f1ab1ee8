import type { RecessAnswer, RecessInput } from '@yellow-pane/contracts';
import { planRecess, type RecessPlan } from './recess-ways.js';
import { recessWayNames, recessWords } from './recess-words.js';
import { stretchLimitOf } from './stretch-limit.js';

/** A plan to its end. */
function endOf(run: Generator<unknown, RecessPlan>): RecessPlan {
  for (;;) {
    const { value, done } = run.next();
    if (done) return value;
  }
}

/** How far film stretches in a recess, by its measures alone, with the words of the screen. */
export function recessCard({ recess, film, units }: RecessInput): RecessAnswer {
  const plan = endOf(planRecess(recess, stretchLimitOf(film)));
  const { headline, doing, minds, why } = recessWords(plan, units);
  return {
    is: plan.is,
    headline,
    doing: [...doing],
    minds: [...minds],
    ways: plan.ways.map((w) => ({
      way: w.way,
      name: recessWayNames[w.way],
      isBest: w === plan.best,
      fedFrac: w.fedFrac,
      largestPct: 100 * w.largestFrac,
      foldMm: w.foldMm,
    })),
    finerPct: 100 * plan.finer.largestFrac,
    why: [...why],
  };
}
