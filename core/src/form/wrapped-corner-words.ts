import type { WrappedCornerAnswer, WrappedCornerInput } from '@yellow-pane/contracts';
import { formatRough, type UnitSystem } from '../ground/index.js';
import { mostStretchOf, stretchLimitOf } from './stretch-limit.js';
import { goesOf, nearLimitWords, stretchPct, type StretchWords } from './stretch-words.js';
import { planWrappedCorner, type CornerPlan } from './wrapped-corner.js';

const told = (frac: number): string => (frac > 9.99 ? 'many times its length' : stretchPct(frac));

/** The plan for the corners of a panel as one says it. @param isKnown its film’s figure stands in the library */
export function wrappedCornerWords(plan: CornerPlan, isKnown: boolean, units: UnitSystem): StretchWords {
  const { is, largestFrac, arrisFrac, edgeFrac, reachMm, limitFrac, filmMm, partsMm } = plan;
  const f = (mm: number) => formatRough(mm, units);
  const wayMm = partsMm.arris + partsMm.edge + partsMm.back;
  const goes = goesOf(largestFrac);
  const stands = isKnown ? `this film stands ${stretchPct(limitFrac)}` : `such film usually stands ${stretchPct(limitFrac)}`;
  return {
    headline:
      is === 'draws'
        ? `Drawn over without a cut: ${stretchPct(largestFrac)} at its end.`
        : `Not without a cut: at its end it would stretch ${told(largestFrac)}, and ${stands}.`,
    doing:
      is === 'draws'
        ? [
            'Both edges lie to within a hand of the corner; there the film hangs free.',
            'Warm it a palm’s width round the corner, take it on the middle of the corner and draw it straight down, along the diagonal: drawn one way it grows narrower, and nothing is left over.',
            goes > 1
              ? `In ${goes} goes: lift back to the arris, heat, let it nearly cool, draw on. A change of colour is hidden by the arris, not by the edge.`
              : '',
            'Press from the arris down, from the middle of the corner to both edges; then heat it through.',
          ].filter(Boolean)
        : [
            reachMm < 1
              ? 'Cut or fold it as the bench sheet says, from where the face ends.'
              : `Draw it over, warm, as far as ${f(Math.floor(reachMm))} from where the face ends; there it is cut or folded as the bench sheet says, no farther in.`,
            'What lies round first, over it the other: nothing thicker than two films.',
          ],
    minds: [
      is === 'draws' ? nearLimitWords(largestFrac, limitFrac) : '',
      isKnown ? '' : 'How far this film may be stretched is not in the library: put its maker’s figure there, or try it where nobody sees it.',
      partsMm.back > 0 && edgeFrac <= limitFrac && is === 'folds' ? `Ending at the far arris it would stretch ${stretchPct(edgeFrac)}: over the edge only, it goes without a cut.` : '',
    ].filter(Boolean),
    why: [
      `Round the arris ${stretchPct(arrisFrac)}, at the end of the edge ${told(edgeFrac)}${partsMm.back > 0 ? `, on the back ${told(largestFrac)}` : ''}: ${f(filmMm)} of flat film come to lie on ${f(wayMm)}.`,
      'An edge by itself stretches film nowhere; where two meet there is too much of it, and film that is drawn one way grows narrower by the root of it (docs/models/stretch.md §6).',
    ],
  }; // prettier-ignore
}

/** How film goes over the corner of a wrapped board, by its measures alone, with the words of the screen. */
export function wrappedCornerCard({ corner, thicknessMm, returnMm, film, units }: WrappedCornerInput): WrappedCornerAnswer {
  const plan = planWrappedCorner({ ...corner, thicknessMm, girthMm: thicknessMm, returnMm }, mostStretchOf(film));
  const { headline, doing, minds, why } = wrappedCornerWords(plan, stretchLimitOf(film) !== null, units);
  const pct = (frac: number) => (Number.isFinite(frac) ? 100 * frac : null);
  return {
    is: plan.is,
    arrisPct: 100 * plan.arrisFrac,
    edgePct: 100 * plan.edgeFrac,
    largestPct: pct(plan.largestFrac),
    reachMm: plan.reachMm,
    filmMm: plan.filmMm,
    headline,
    doing: [...doing],
    minds: [...minds],
    why: [...why],
  };
}
