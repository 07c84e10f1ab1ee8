import type { Corrugation, CorrugationAnswer, CorrugationInput } from '@yellow-pane/contracts';
import { formatRough, type UnitSystem } from '../ground/index.js';
import { girthOfRibs, judgeRibs, noSectionByMm } from '../measure/index.js';
import { planCorrugation, type CorrugationPlan } from './corrugation-ways.js';
import { stretchLimitOf } from './stretch-limit.js';
import { nearLimitWords, stretchPct, type StretchWords } from './stretch-words.js';

/** The plan for a corrugated sheet as one says it. */
export function corrugationWords(plan: CorrugationPlan, way: Corrugation['way'], bendMm: number, units: UnitSystem): StretchWords {
  const { bridgedFrac, pressedFrac, limitFrac, moreFrac, is } = plan;
  const [bridged, pressed] = [stretchPct(bridgedFrac), stretchPct(pressedFrac)];
  const limit = limitFrac === null ? '' : stretchPct(limitFrac);
  const more = Math.max(1, Math.round(100 * moreFrac));
  const fed = [
    'Tack it on one crest in the middle of the sheet, from end to end; everything else hangs free.',
    'Valley by valley from there outwards, to both sides: glove into the valley, film comes in from the free side, then up over the next crest.',
    'Pull nothing across: a crest that is pressed too soon starves the valley before it.',
  ];
  const over = [
    'Lay it from crest to crest without a pull, pressed on the crests only, and tack its border.',
    'Relax it all over with even heat: wrinkles appear, then vanish.',
    'Valley by valley from the middle outwards: hot over all its length, formed in with the glove at once, pressed when it is in; its foot last.',
    'Let each valley cool before the next one beside it is heated.',
  ];
  const isFed = way === 'fed';
  const headline = isFed
    ? `Valley by valley it stretches nowhere; its ribs take ${more} % more film.`
    : is === 'goes'
      ? `Stretched over its crests it goes: ${bridged} in every valley.`
      : is === 'feed'
        ? `Not over its crests: ${bridged} in every valley, and this film stands ${limit}. Feed it in valley by valley.`
        : `Over its crests it stretches ${bridged} in every valley; how much this film stands is not in the library.`;
  return {
    headline,
    doing: isFed || is === 'feed' ? fed : over,
    minds: [
      !isFed && is !== 'feed' && pressedFrac > 1.15 * bridgedFrac ? `Pressing a valley down from its crests bit by bit would cost ${pressed} at its foot.` : '',
      !isFed && is === 'goes' ? nearLimitWords(bridgedFrac, limitFrac) : '',
      isFed && is === 'goes' ? `It would also stand being stretched over its crests (${bridged} of ${limit}): ${more} % less film, but all of it to be heated through.` : '',
      bendMm < 3 ? 'Its bends are sharp: film lies over no corner sharper than about 3 mm; press them out with the edge of a felt card.' : '',
      'Where its ribs end in the sheet, or a screw stands in a valley, film bends two ways: heat there, and slit what does not lie down.',
    ].filter(Boolean),
    why: [
      `From crest to crest ${formatRough(plan.girthMm, units)} of film. Ribs bend one way only, so film that can come in from outside stretches nowhere.`,
      `Held on the crests: fed in under 1 %, formed in at once ${bridged}, pressed down bit by bit ${pressed} (docs/models/stretch.md §4).`,
    ],
  }; // prettier-ignore
}

/** How film lies on a corrugated sheet, by its measures alone, with the words of the screen. */
export function corrugationCard({ corrugation, film, units }: CorrugationInput): CorrugationAnswer {
  const { ribs, doubts } = judgeRibs({ ...corrugation, run: 'upright' });
  const isNone = noSectionByMm(corrugation) > 0;
  const limit = stretchLimitOf(film);
  const plan = isNone
    ? { girthMm: ribs.girthMm, moreFrac: ribs.moreFrac, bridgedFrac: 0, pressedFrac: 0, limitFrac: limit, is: 'unknown' as const }
    : planCorrugation(corrugation, limit, Math.max(girthOfRibs(corrugation), ribs.girthMm));
  const words = isNone ? { headline: 'No sheet has such ribs.', doing: [], minds: [], why: [] } : corrugationWords(plan, corrugation.way, corrugation.form === 'wave' ? 3 : corrugation.bendMm, units); // prettier-ignore
  return {
    doubt: isNone
      ? corrugation.form === 'wave'
        ? 'A wave is no deeper than half its pitch: measure pitch and depth again.'
        : 'Its flats are wider than its pitch: measure crest, valley and pitch again.'
      : doubts.length
        ? 'String and section do not agree: lay the string again, or measure pitch and depth again.'
        : null,
    girthMm: plan.girthMm,
    moreFrac: plan.moreFrac,
    bridgedPct: 100 * plan.bridgedFrac,
    pressedPct: 100 * plan.pressedFrac,
    is: plan.is,
    headline: words.headline,
    doing: [...words.doing],
    minds: [...words.minds],
    why: [...words.why],
  };
}
