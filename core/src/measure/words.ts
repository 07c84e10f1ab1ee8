import type { MeasureKey, PaneShape } from '@yellow-pane/contracts';
import { capital, formatDifference, formatLength, type UnitSystem } from '../ground/index.js';
import { handTape, type TapeError } from './adjustment.js';
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
  girthFoot: 'girth at the foot',
  girthMiddle: 'girth at half height',
  girthTop: 'girth under the top',
  heightFront: 'height at the front',
  heightBack: 'height at the back',
  acrossFront: 'width seen from the front',
  acrossSide: 'width seen from the side',
  cornerRadius: 'corner radius',
  upLeft: 'line up to the ceiling, left',
  upMiddle: 'line up to the ceiling, middle',
  upRight: 'line up to the ceiling, right',
  downLeft: 'line down to the floor, left',
  downMiddle: 'line down to the floor, middle',
  downRight: 'line down to the floor, right',
  wanderLeft: 'straightedge gap in the left corner',
  wanderRight: 'straightedge gap in the right corner',
  edgeThickness: 'thickness of the edge',
  edgeGirth: 'string over the edge',
  widthFront: 'width at the front',
  widthBack: 'width at the back',
  depthLeft: 'depth on the left',
  depthMiddle: 'depth in the middle',
  depthRight: 'depth on the right',
  fromBackLeft: 'from back left to front right',
  fromFrontLeft: 'from front left to back right',
  setbackFrontLeft: 'where the straight ends, front left',
  gapFrontLeft: 'way to the round, front left',
  setbackFrontRight: 'where the straight ends, front right',
  gapFrontRight: 'way to the round, front right',
  setbackBackRight: 'where the straight ends, back right',
  gapBackRight: 'way to the round, back right',
  setbackBackLeft: 'where the straight ends, back left',
  gapBackLeft: 'way to the round, back left',
  plumbFront: 'foot to the hanging line, front',
  plumbRight: 'foot to the hanging line, right',
  plumbBack: 'foot to the hanging line, back',
  plumbLeft: 'foot to the hanging line, left',
};
/** What a thing is when it is shaped otherwise than usual, by how much. */
const otherwiseText: Readonly<Record<string, (by: string, isMore: boolean) => string>> = {
  hanging: (by, isMore) => `Its ceiling ${isMore ? 'hangs through' : 'stands higher'} by about ${by} in the middle, or its floor does the same the other way`,
  swelling: (by, isMore) => `It ${isMore ? 'swells' : 'is drawn in'} by about ${by} at half height`,
};
/** The name of a measure, by the shape it belongs to (null: four-sided). */
const measureName = (key: MeasureKey, shape: PaneShape | null = null): string =>
  (shape ? shapeModel(shape).names[key] : undefined) ?? names[key] ?? `${key[0]} to ${key[1]}`;
export const measureTitle = (key: MeasureKey, shape: PaneShape | null = null): string => capital(measureName(key, shape));

const sideOf: Partial<Record<MeasureKey, string>> = { bowTop: 'top', bowBottom: 'bottom', bowLeft: 'left side', bowRight: 'right side' };

/** No film is laid on smaller openings, and no pane is longer. @source house rule: beyond it a slip by a factor of ten, or an inch for a millimetre, is likelier */
const SMALLEST_OPENING_MM = 50;
const LARGEST_OPENING_MM = 12_000;

/** What makes a typed length odd enough to be asked about before it counts; null: nothing. A gap under a straightedge is told in tens of mm at most. */
export function oddLength(key: MeasureKey, lengthMm: number, system: UnitSystem): string | null {
  if (sideOf[key]) return Math.abs(lengthMm) > MOST_BOW_MM ? `A gap of ${formatLength(Math.abs(lengthMm), system)} under a straightedge? ${tenth(lengthMm, system)}` : null; // prettier-ignore
  const said = lengthMm >= 1000 ? `${(lengthMm / 1000).toFixed(2)} m` : formatLength(lengthMm, system);
  if (lengthMm > LARGEST_OPENING_MM) return `That is ${said}.${system === 'in' && lengthMm / 25.4 <= LARGEST_OPENING_MM ? ` Millimetres? Type “${Number((lengthMm / 25.4).toFixed(1))} mm”.` : ''}`; // prettier-ignore
  const isSide = /^(width|height|diagonal|chord|side|depth|from)/.test(key) && key !== 'widthHalfRise';
  if (/^(girth|across)/.test(key) && lengthMm < SMALLEST_OPENING_MM) return `That is a column of ${said}${system === 'mm' ? ' mm' : ''}.`;
  if (/^wander/.test(key) && lengthMm > MOST_BOW_MM) return `A corner that wanders by ${formatLength(lengthMm, system)}? ${tenth(lengthMm, system)}`;
  if (/^plumb/.test(key) && Math.abs(lengthMm) > MOST_LEAN_MM)
    return `A foot that stands ${formatLength(Math.abs(lengthMm), system)} off the line? ${tenth(lengthMm, system)}`;
  if (isSide && lengthMm < SMALLEST_OPENING_MM)
    return `That is ${/^(depth|from|widthFront|widthBack)/.test(key) ? 'a top' : 'an opening'} of ${said}${system === 'mm' ? ' mm' : ''}.`;
  return null;
}
/** A column that leans by more is not clad but propped up. @source house rule */
const MOST_LEAN_MM = 150;
/** A frame bowed by more is not glazed. @source house rule */
const MOST_BOW_MM = 40;
const tenth = (mm: number, system: UnitSystem): string => `Ten times too large, perhaps: ${formatDifference(Math.abs(mm) / 10, system)}.`;

/** What to do next, as on a button. */
export function askText(key: MeasureKey, isRetape: boolean, shape: PaneShape | null = null): string {
  if (sideOf[key]) return `Lay a straightedge on the ${sideOf[key]}`;
  const name = the(measureName(key, shape));
  if (!isRetape) return `Tape ${name}`;
  return name.startsWith('where ') ? `Tape again ${name}` : `Tape ${name} again`;
}

/** Probability as a person says it. */
export function oddsText(p: number): string {
  if (p >= 0.95) return 'almost surely';
  if (p >= 0.75) return 'most likely';
  if (p >= 0.4) return 'about as likely as not';
  if (p >= 0.15) return `about 1 in ${Math.round(1 / p)}`;
  return 'less likely';
}

/** "A to C" and "from tip to tip" take no article. */
const the = (name: string): string => (/^([A-H] to |from |where |corner to |across$|up$|slanting )/.test(name) ? name : `the ${name}`);

export function suspectText(s: Suspect<readonly number[]>, system: UnitSystem, shape: PaneShape | null = null): string {
  const h = s.hypothesis;
  const like = s.looksLike ? ` (looks like ${s.looksLike})` : '';
  if (h.kind === 'no-slip') return 'No slip: the opening really is that crooked';
  if (h.kind === 'bowed')
    return `The ${sideOf[h.bow]} is bowed ${s.slipMm >= 0 ? 'outwards' : 'inwards'} by about ${formatDifference(Math.abs(s.slipMm), system)}`;
  if (h.kind === 'otherwise') return otherwiseText[h.is]!(formatDifference(Math.abs(s.slipMm), system), s.slipMm >= 0);
  if (h.kind === 'swapped') return `${measureTitle(h.measures[0], shape)} and ${measureName(h.measures[1], shape)} were exchanged`;
  return `${measureTitle(h.measure, shape)} would be ${formatLength(s.wouldBeMm!, system)}${like}`;
}

const confirmedText = (taped: number, spare: number): string =>
  `${taped - spare} tapes make this outline; ${spare === 1 ? 'one more was taken and confirms them' : `${spare} more were taken and confirm them`}.`;

/** Headline and body of the verdict on the tapes. */
export function verdictText(survey: Survey, system: UnitSystem): { headline: string; body: string } {
  const blamed = survey.suspects.filter((s) => s.hypothesis.kind !== 'no-slip');
  const [first, second] = blamed;
  if (survey.believed)
    return {
      headline: 'Signed.',
      body: `${suspectText(survey.believed, system, survey.shape)}: taken as true by signature. ${
        survey.status === 'unchecked' ? 'Of the tapes that are left none checks another.' : 'The tapes that are left agree.'
      }`,
    };
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
        body: survey.shape ? confirmedText(survey.adjustment!.readings.length, survey.adjustment!.redundancy) : crookednessText(survey, system),
      };
    case 'doubtful':
    case 'impossible': {
      // no explanation is worth naming for sides that cannot close
      if (!first || survey.status === 'impossible')
        return { headline: 'These tapes cannot belong to one opening.', body: 'Tape the marked ones again, or start this pane again.' };
      const size = formatDifference(survey.disagreeMm, system);
      const headline = `These tapes disagree by about ${size}.`;
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

/** How the verdict on the tapes came about, for whoever wants to check it. @param tape what the tapes were weighed by */
export function surveyWhy(survey: Survey, tape: TapeError = handTape): string[] {
  const taken = `A tape is taken as ±(${tape.constantMm} mm + ${tape.perMille} ‰)`;
  const a = survey.adjustment;
  if (!a) return [`${taken}: common practice.`];
  const test =
    a.redundancy > 0
      ? `${a.readings.length} tapes adjusted together by least squares, ${a.redundancy} of them redundant. Σ(residual/σ)² = ${a.chiSquare.toFixed(1)}, limit ${a.limit.toFixed(1)} (α ${(a.alpha * 100).toFixed(1)} %, power ${a.power * 100} %, matched levels after Baarda 1968).`
      : 'No redundancy: no tape checks another.';
  return [`${taken}, 1 σ: common practice.`, test, ...survey.cannotCheck];
}
