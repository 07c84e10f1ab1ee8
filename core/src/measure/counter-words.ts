import type { Counter, CounterCorner } from '@yellow-pane/contracts';
import { formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import { counterCorners, type CounterBody, type CounterDoubt, type CounterSideName, type CounterSurvey } from './counter.js';
import { edgeDoubtText } from './panel-words.js';
import { adjustedWhy, slipVerdict } from './taped-words.js';

/** What a top is called by what it is. */
export const counterNames: Readonly<Record<Counter['what'], string>> = { counter: 'counter top', table: 'table top', shelf: 'shelf' };
export const counterCornerNames: Readonly<Record<CounterCorner, string>> = {
  frontLeft: 'front left',
  frontRight: 'front right',
  backRight: 'back right',
  backLeft: 'back left',
};
export const counterSideNames: Readonly<Record<CounterSideName, string>> = { front: 'front', right: 'right end', back: 'back', left: 'left end' };

/** Less is no taper and no lean worth a word, mm. @source common practice: a tape is read within 2 mm */
const NOTABLE_MM = 3;

/** What is not square about a top, in sentences. */
export function counterFacts(body: CounterBody, system: UnitSystem): string[] {
  const f = (mm: number) => formatDifference(Math.abs(mm), system);
  const { widerMm, deeperMm, rackMm } = body;
  // two numbers across say whether it is a circle
  const across = [body.corners.frontRight.x - body.corners.frontLeft.x, body.corners.backLeft.y - body.corners.frontLeft.y].map(Math.abs) as [number, number];
  return [
    ...(body.isFullRound
      ? [
          Math.abs(across[0] - across[1]) < NOTABLE_MM
            ? 'Round, as far as its two widths tell.'
            : 'Its ends are taken as half circles: no round of it is taped.',
        ]
      : []),
    ...(widerMm !== null && Math.abs(widerMm) >= NOTABLE_MM ? [`Its back is ${f(widerMm)} ${widerMm > 0 ? 'longer' : 'shorter'} than its front.`] : []),
    ...(deeperMm !== null && Math.abs(deeperMm) >= NOTABLE_MM ? [`It is ${f(deeperMm)} ${deeperMm > 0 ? 'deeper' : 'less deep'} on the right.`] : []),
    ...(rackMm !== null && Math.abs(rackMm) >= NOTABLE_MM ? [`Its back stands ${f(rackMm)} to the ${rackMm > 0 ? 'right' : 'left'} of its front.`] : []),
  ];
}

/** What does not fit, in plain words, and what would settle it. */
export function counterDoubtText(doubt: CounterDoubt, { hardware }: Pick<Counter, 'hardware'>, system: UnitSystem): string {
  switch (doubt.is) {
    case 'edge-girth':
      return edgeDoubtText(doubt, system);
    case 'outside':
      return `${hardware.find((h) => h.id === doubt.part)?.what ?? 'Something'} would stand ${formatDifference(doubt.byMm, system)} outside the top. Tape its place again.`;
    case 'round-untaped':
      return `Its ${counterCornerNames[doubt.corner]} corner is round, and nobody taped it: lay a ruler along both sides, and tape from where they cross to where the straight ends. (A round table: “round all over”, and none of its rounds taped.)`;
    case 'rounds-meet':
      return `The rounds at its ${counterSideNames[doubt.side]} would overlap by ${formatDifference(doubt.byMm, system)}: no side is left between them. Tape them again.`;
  }
}

/** Headline and body of the verdict on what was taped of a top. */
export function counterVerdict(survey: CounterSurvey, parts: Pick<Counter, 'hardware'>, system: UnitSystem): { headline: string; body: string } {
  const facts = survey.body ? counterFacts(survey.body, system) : [];
  if (survey.status === 'nothing')
    return {
      headline: 'Nothing taped yet.',
      body: 'Stand at its front: tape its width and its depth. Both ways from corner to corner say whether it is square.',
    };
  if (survey.suspects.length > 0) return slipVerdict(survey, system);
  if (survey.doubts.length)
    return {
      headline: survey.doubts.length === 1 ? 'One thing does not fit.' : `${survey.doubts.length} things do not fit.`,
      body: counterDoubtText(survey.doubts[0]!, parts, system),
    };
  const body = [...facts, ...survey.cannotCheck].join(' ');
  if (survey.status === 'unchecked') return { headline: 'No tape here checks another yet.', body };
  return { headline: 'The tapes agree.', body: body || 'Square and parallel, as far as these tapes can tell.' };
}

/** Figures of a top, for the list beside its drawing. */
export function counterNumbers({ body, edge }: CounterSurvey, system: UnitSystem): { name: string; value: string }[] {
  if (!body) return [];
  const f = (mm: number) => formatLength(mm, system);
  return [
    ...counterCorners
      .filter((c) => body.radiusMm[c] > 0 && (!body.isFullRound || c === 'frontLeft'))
      .map((c) => ({
        name: body.isFullRound ? 'Radius' : `Radius, ${counterCornerNames[c]}`,
        value: `${f(body.radiusMm[c])} ± ${formatDifference(2 * body.sigmaMm.radius[c], system)}`,
      })),
    ...(edge ? [{ name: 'Film over its edge', value: f(edge.girthMm) }] : []),
  ];
}

/** How the verdict on a top came about. */
export const counterWhy = (survey: CounterSurvey): string[] =>
  adjustedWhy(
    survey,
    'A tape is taken as ±(1 mm + 0.1 ‰), where a straight ends as ±3 mm, the way to a round as ±1 mm, 1 σ: house rule.',
    'Width, depth, how far it is from parallel and square, and the radius of each round corner are the numbers that are sought; from corner to corner is taped to the middle of a round (docs/models/counters.md).',
  );
