import { capital, formatRough, type UnitSystem } from '../ground/index.js';
import { slackOfWall, type RecessForm } from '../measure/index.js';
import { goesOf, nearLimitWords, stretchPct, type StretchWords } from './stretch-words.js';
import { verdictOn, type RecessPlan, type RecessResult, type RecessWay } from './recess-ways.js';

/** What hands do, by the order in which film comes into a recess. */
export const recessWayNames: Readonly<Record<RecessWay, string>> = {
  bridged: 'tacked round about, formed in hot',
  divided: 'some fed in, then formed in hot',
  fed: 'fed in, round about last',
  'walls-first': 'pressed down from the arris bit by bit',
  'field-first': 'tacked round about and on the field',
};

/**
 * Depths at which forming stops, to heat, let it cool and go on, mm: equal shares of the way down.
 * @source house figure: no more than a tenth in one go; common practice: "heat, let it nearly cool, stretch on"
 */
export function stopDepths({ depthMm }: Pick<RecessForm, 'depthMm'>, largestFrac: number): number[] {
  const goes = goesOf(largestFrac);
  return Array.from({ length: goes - 1 }, (_, i) => (depthMm * (i + 1)) / goes);
}

function doingOf({ best, form, is, ways }: RecessPlan, units: UnitSystem): string[] {
  const f = (mm: number) => formatRough(mm, units);
  const stops = stopDepths(form, best.largestFrac);
  const byGoes = stops.length
    ? `In ${stops.length + 1} goes: down to ${stops.map(f).join(', ')}, lift it back to the nearest line of the body (arris or foot), heat, let it nearly cool, on. Such a line hides a change of colour: no stop in the middle of the field.`
    : '';
  const hot = ['Heat the film over all of the recess, with a palm’s width round about, until it hangs.', `Form it in with the glove in the middle of each wall first, then towards the corners: let it slide, press nothing yet.`, byGoes, 'When it is in: heat, and press the walls from the arris down, corners last of them, then the field.'].filter(Boolean); // prettier-ignore
  if (is === 'inlay') return ['Cover the field with a piece of its own, seam at the foot of its walls; walls and what is round about from the large piece.'];
  if (is === 'slit' || best.way === 'fed')
    return [
      'Lay the field first, from its middle to the foot of the walls; nothing else touches.',
      'Walls from the foot up, all four; film comes in from outside by itself.',
      is === 'slit'
        ? `Slit it at each corner from the foot outwards on the diagonal: about ${f(ways.find((w) => w.way === 'fed')!.foldMm)} falls out; promoter there, one over the other.`
        : 'What is left over at the corners: warm it and press it outwards.',
      'What is round about last, from the arris outwards.',
    ];
  const tack = 'Tack it round about, a hand’s width from the arris; over the recess it bridges.';
  if (best.way === 'divided') {
    const eachMm = best.fedFrac * slackOfWall(form);
    return [`Push ${f(eachMm)} of film in from each of the four sides, so that it hangs loose in the recess, then tack it round about.`, ...hot];
  }
  if (best.way === 'walls-first')
    return [
      tack,
      'Heat the film along the arris and press it down the walls a little at a time, all four sides in turn, corners last of each round: what is not down yet lies across.',
      byGoes,
      'When the foot is reached: the field, from the foot inwards.',
    ].filter(Boolean);
  if (best.way === 'field-first')
    return [
      tack,
      'Heat the film over the field and press it down from its middle outwards; the walls hang free.',
      byGoes,
      'Then the walls, hot, from the foot and from the arris to their middle; corners last.',
    ].filter(Boolean);
  return [tack, ...hot];
}

/** A plan by an order that somebody chose instead of the best; the plan itself where that is the best, or was not tried. */
function byOrder(plan: RecessPlan, chosen: RecessWay | null): RecessPlan {
  const own = plan.ways.find((w) => w.way === chosen);
  if (!own || own.way === plan.best.way) return plan;
  return { ...plan, best: own, finer: own, is: verdictOn(own.largestFrac, plan.fedFrac, plan.limitFrac) };
}

/** The plan for one recess as one says it. @param chosen the order that somebody wants; null: the best */
export function recessWords(found: RecessPlan, units: UnitSystem, chosen: RecessWay | null = null): StretchWords {
  const plan = byOrder(found, chosen);
  const { best, finer, fedFrac, limitFrac, ways, form, is } = plan;
  const figure = Math.max(best.largestFrac, finer.largestFrac);
  const least = Math.max(found.best.largestFrac, found.finer.largestFrac);
  const isOwn = plan !== found;
  // another order would have kept it within what the film stands
  const isNeedless = isOwn && found.is === 'goes' && is !== 'goes';
  const straight = ways.find((w) => w.way === 'field-first')!;
  const limit = limitFrac === null ? '' : stretchPct(limitFrac);
  const most = stretchPct(figure);
  const headlines: Readonly<Record<RecessPlan['is'], string>> = {
    goes: `It goes in one piece: ${most} at most, at the corners.`,
    slit: `In one piece only with its corners slit: uncut it would stretch ${most} there, and this film stands ${limit}.`,
    inlay: `Not in one piece: it would stretch ${stretchPct(fedFrac)} even if all of it were fed in, and this film stands ${limit}.`,
    unknown: `It would stretch ${most} at the corners; how much this film stands is not in the library.`,
  };
  return {
    headline: isNeedless ? `By this order it would stretch ${most}, and this film stands ${limit}.` : headlines[is],
    doing: doingOf(isNeedless ? { ...plan, is: 'goes' } : plan, units),
    minds: [
      isOwn && least < figure - 0.005 ? `This order was chosen here; ${recessWayNames[found.best.way]} would cost ${stretchPct(least)}.` : '',
      straight.largestFrac > 1.15 * figure && best.way !== 'field-first' && is !== 'slit' && is !== 'inlay' ? `Pressing the field down first would cost ${stretchPct(straight.largestFrac)}.` : '',
      is === 'goes' ? nearLimitWords(figure, limitFrac) : '',
      best.foldMm > 0.5 && is !== 'slit' && is !== 'inlay' ? `A fold of about ${formatRough(best.foldMm, units)} is left over at each corner: warm it and press it outwards over what is round about.` : '',
      best.isAtRest && finer.isAtRest ? '' : 'The film was still moving when the reckoning was broken off: take the figures as rough.',
      form.cornerMm <= form.slopeMm ? 'Its corners are sharp: film lies over no corner sharper than about 3 mm, and the figure is for that.' : '',
    ].filter(Boolean),
    why: whyOf(found, units),
  }; // prettier-ignore
}

function whyOf({ ways, best, finer, form }: RecessPlan, units: UnitSystem): string[] {
  const f = (mm: number) => formatRough(mm, units);
  const narrow = Math.min(form.acrossMm, form.upMm);
  const girth = (2 * slackOfWall(form)) / narrow;
  const one = (w: RecessResult) => `${recessWayNames[w.way]}${w.way === 'divided' ? ` (${Math.round(100 * w.fedFrac)} %)` : ''}: ${stretchPct(w.largestFrac)}, ${w.foldMm < 0.5 ? 'nothing left over' : `${f(w.foldMm)} left over at a corner`}`; // prettier-ignore
  return [
    `By girth alone, far from corners: ${stretchPct(girth)}; rough rule (8/3)(depth/width)²: ${stretchPct((8 / 3) * (form.depthMm / narrow) ** 2)}.`,
    ...ways.map((w) => `${capital(one(w))}.`),
    `On a mesh twice as fine ${recessWayNames[best.way]} comes to ${stretchPct(finer.largestFrac)}. Film is taken as a thin sheet that is soft, slides until it is pressed and wrinkles rather than push (docs/models/stretch.md).`,
  ];
}
