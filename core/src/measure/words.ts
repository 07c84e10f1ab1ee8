import type { MeasureKey, PaneShape } from '@yellow-pane/contracts';
import { formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import { shapeModel } from './shape-models.js';
import type { Suspect } from './hypotheses.js';
import type { Survey } from './survey.js';

const names: Partial<Record<MeasureKey, string>> = {
  widthLargest: 'largest width',
  heightLargest: 'largest height',
  widthTop: 'top width',
  widthMiddle: 'middle width',
  widthBottom: 'bottom width',
  heightLeft: 'left height',
  heightMiddle: 'middle height',
  heightRight: 'right height',
  diagonalDown: 'diagonal from top left',
  diagonalUp: 'diagonal from bottom left',
  bowTop: 'straightedge gap at the top',
  bowBottom: 'straightedge gap at the bottom',
  bowLeft: 'straightedge gap on the left',
  bowRight: 'straightedge gap on the right',
  widthSpring: 'width where the arch begins',
  widthHalfRise: 'width at half the rise',
  crownLeft: 'left spring to crown',
  crownRight: 'right spring to crown',
  chord: 'from tip to tip',
  cornerToArc: 'corner to the middle of the arc',
  sideLeft: 'left side',
  sideRight: 'right side',
};
/** The name of a measure, by the shape it belongs to (null: four-sided). */
export const measureName = (key: MeasureKey, shape: PaneShape | null = null): string =>
  (shape ? shapeModel(shape).names[key] : undefined) ?? names[key] ?? `${key[0]} to ${key[1]}`;
const capital = (s: string): string => s[0]!.toUpperCase() + s.slice(1);
export const measureTitle = (key: MeasureKey, shape: PaneShape | null = null): string => capital(measureName(key, shape));

const sideOf: Partial<Record<MeasureKey, string>> = { bowTop: 'top', bowBottom: 'bottom', bowLeft: 'left side', bowRight: 'right side' };

/** What to do next, as on a button. */
export const askText = (key: MeasureKey, isRetape: boolean, shape: PaneShape | null = null): string =>
  sideOf[key] ? `Lay a straightedge on the ${sideOf[key]}` : isRetape ? `Tape ${the(measureName(key, shape))} again` : `Tape ${the(measureName(key, shape))}`;

/** Probability as a person says it. */
export function oddsText(p: number): string {
  if (p >= 0.95) return 'almost surely';
  if (p >= 0.75) return 'most likely';
  if (p >= 0.4) return 'about as likely as not';
  if (p >= 0.15) return `about 1 in ${Math.round(1 / p)}`;
  return 'less likely';
}

/** "A to C" and "from tip to tip" take no article. */
const the = (name: string): string => (/^([A-H] to |from |corner to |across$|up$|slanting )/.test(name) ? name : `the ${name}`);

export function suspectText(s: Suspect<readonly number[]>, system: UnitSystem, shape: PaneShape | null = null): string {
  const h = s.hypothesis;
  const like = s.looksLike ? ` (looks like ${s.looksLike})` : '';
  if (h.kind === 'no-slip') return 'No slip: the opening really is that crooked';
  if (h.kind === 'bowed')
    return `The ${sideOf[h.bow]} is bowed ${s.slipMm >= 0 ? 'outwards' : 'inwards'} by about ${formatDifference(Math.abs(s.slipMm), system)}`;
  if (h.kind === 'swapped') return `${measureTitle(h.measures[0], shape)} and ${measureName(h.measures[1], shape)} were exchanged`;
  return `${measureTitle(h.measure, shape)} would be ${formatLength(s.wouldBeMm!, system)}${like}`;
}

/** Headline and body of the verdict on the tapes. */
export function verdictText(survey: Survey, system: UnitSystem): { headline: string; body: string } {
  const blamed = survey.suspects.filter((s) => s.hypothesis.kind !== 'no-slip');
  const [first, second] = blamed;
  switch (survey.status) {
    case 'nothing':
      if (survey.shape)
        return { headline: 'Not enough tapes for this shape yet.', body: 'Walk round as the drawing goes; one tape more than needed checks the others.' };
      return { headline: 'Nothing taped yet.', body: 'Tape the largest width and the largest height. With overhang that is enough.' };
    case 'two-tapes':
      return {
        headline: 'Two tapes: enough to cut with overhang.',
        body: 'For a pre-cut or tucked piece, tape three widths, three heights and both diagonals.',
      };
    case 'unchecked':
      return { headline: 'No tape here checks another yet.', body: survey.cannotCheck.join(' ') };
    case 'agreeing':
      return {
        headline: 'The tapes agree.',
        body: survey.shape ? `${survey.adjustment!.redundancy} of ${survey.adjustment!.readings.length} check the others.` : crookednessText(survey, system),
      };
    default: {
      if (!first) return { headline: 'These tapes cannot belong to one opening.', body: 'Tape the marked ones again.' };
      const size = formatDifference(survey.disagreeMm, system);
      const headline = survey.status === 'impossible' ? 'These tapes cannot belong to one opening.' : `These tapes disagree by about ${size}.`;
      if (second && second.probability > 0.5 * first.probability)
        return {
          headline,
          body: `Two explanations fit about equally well. ${suspectText(first, system, survey.shape)}; or: ${lower(suspectText(second, system, survey.shape))}.`,
        };
      return {
        headline,
        body: `${capital(oddsText(first.probability))}: ${lower(suspectText(first, system, survey.shape))}. From these tapes alone it cannot be proven.`,
      };
    }
  }
}
const lower = (s: string): string => s[0]!.toLowerCase() + s.slice(1);

/** Out of square and out of parallel, in mm first. Differences below 2 mm (1/16 in) are not worth a word. */
export function crookednessText(survey: Survey, system: UnitSystem): string {
  const c = survey.crookedness;
  if (!c) return '';
  const mm = (v: number) => formatDifference(Math.abs(v), system);
  const parts: string[] = [];
  if (Math.abs(c.widthTaperMm) >= 2)
    parts.push(`the ${c.widthTaperMm < 0 ? 'top' : 'bottom'} is ${mm(c.widthTaperMm)} narrower than the ${c.widthTaperMm < 0 ? 'bottom' : 'top'}`);
  if (Math.abs(c.heightTaperMm) >= 2)
    parts.push(`the ${c.heightTaperMm < 0 ? 'left' : 'right'} is ${mm(c.heightTaperMm)} lower than the ${c.heightTaperMm < 0 ? 'right' : 'left'}`);
  if (Math.abs(c.rackMm) >= 2 && survey.adjustment?.isDetermined)
    parts.push(`the top sits ${mm(c.rackMm)} to the ${c.rackMm > 0 ? 'right' : 'left'} of the bottom`);
  if (parts.length === 0) return survey.adjustment?.isDetermined ? 'Square and parallel within 2 mm.' : 'Parallel within 2 mm, as far as these tapes can say.';
  return capital(parts.join('; ')) + '.';
}
