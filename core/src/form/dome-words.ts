import type { DomeAnswer, DomeInput } from '@yellow-pane/contracts';
import { formatRough, type UnitSystem } from '../ground/index.js';
import { judgeDome } from '../measure/index.js';
import { planDome, tackedDome, type DomePlan } from './dome-ways.js';
import { stretchLimitOf } from './stretch-limit.js';
import { nearLimitWords, stretchPct, type StretchWords } from './stretch-words.js';

/** The plan for a domed sheet as one says it. @param tackedFrac what tacking its border first would cost */
export function domeWords(plan: DomePlan, tackedFrac: number, units: UnitSystem): StretchWords {
  const { is, leftOverMm, allRoundMm, drawnFrac, darts, limitFrac } = plan;
  const f = (mm: number) => formatRough(mm, units);
  const drawn = stretchPct(drawnFrac);
  const limit = limitFrac === null ? '' : stretchPct(limitFrac);
  const headlines: Readonly<Record<DomePlan['is'], string>> = {
    lies:
      leftOverMm < 0.5
        ? 'It lies as on a flat face.'
        : `Laid from its middle outwards it lies down: ${f(leftOverMm)} too much on a hand’s length at its corners.`,
    draw: `Drawn on from its middle outwards: ${drawn} at its corners.`,
    darts: `Not without cuts: drawn on it would stretch ${drawn} at its corners, and this film stands ${limit}.`,
    unknown: `Drawn on it would stretch ${drawn} at its corners; how much this film stands is not in the library.`,
  };
  const middle = 'Tack it in the middle, a palm’s width, and look along both arrises; nothing at the border.';
  const ways: Readonly<Record<DomePlan['is'], readonly string[]>> = {
    lies: [middle, 'From there outwards to all sides, strokes like spokes; what gathers at the border is warmed and pressed outwards.'],
    draw: [
      middle,
      'A ring a hand wide at a time: heat it, draw the film outwards just so far that nothing gathers, press it, let it cool before the next ring.',
      'Corners last of each ring: they take most. Where a bead or a crease runs over the sheet a ring ends on it: such a line of the body hides a change of colour.',
    ],
    unknown: [middle, 'A ring a hand wide at a time, drawn outwards just so far that nothing gathers. Try it first where nobody sees it.'],
    darts: [
      middle,
      'From there outwards to all sides without a pull, until folds begin to stand.',
      `Slit it from the border to where each fold begins: about ${darts} darts in all, none wider than ${f(allRoundMm / Math.max(1, darts))}; promoter beneath, one side over the other, trimmed through both.`,
    ],
  };
  return {
    headline: headlines[is],
    doing: ways[is],
    minds: [
      tackedFrac > Math.max(0.01, is === 'draw' ? 0 : drawnFrac) ? `Tacked round its border first it would stretch ${stretchPct(tackedFrac)} in the middle, and nothing slides in.` : '',
      is === 'draw' ? nearLimitWords(drawnFrac, limitFrac) : '',
    ].filter(Boolean),
    why: [
      `Laid flat from its middle, ${f(allRoundMm)} of film are too much all round its border, ${f(leftOverMm)} on a hand’s length at a corner. Drawn by as much as it has to grow narrower it stretches ${drawn}.`,
      `The dome is taken for the sphere that bends as much both ways together (docs/models/stretch.md §5).`,
    ],
  }; // prettier-ignore
}

/** How film lies on a domed sheet, by its measures alone, with the words of the screen. */
export function domeCard({ dome, widthMm, heightMm, film, units }: DomeInput): DomeAnswer {
  const { dome: judged, doubts } = judgeDome(dome, { widthMm, heightMm });
  const plan = planDome(judged, stretchLimitOf(film));
  const tackedFrac = tackedDome(judged);
  const { headline, doing, minds, why } = domeWords(plan, tackedFrac, units);
  return {
    doubt: doubts.length ? 'It would be so round that its corners lie on no ball: measure its bows again.' : null,
    is: plan.is,
    overAcrossMm: judged.overMm.across,
    overUpMm: judged.overMm.up,
    leftOverMm: plan.leftOverMm,
    allRoundMm: plan.allRoundMm,
    drawnPct: 100 * plan.drawnFrac,
    tackedPct: 100 * tackedFrac,
    darts: plan.is === 'darts' ? plan.darts : 0,
    headline,
    doing: [...doing],
    minds: [...minds],
    why: [...why],
  };
}
