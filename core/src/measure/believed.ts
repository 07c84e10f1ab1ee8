import { bowActsOn, type Hypothesis } from './hypotheses.js';
import { shapeModel } from './shape-models.js';
import { surveyShape } from './shape-survey.js';
import { surveyOpening, type Survey } from './survey.js';
import type { TapeReading } from './adjustment.js';

/** A name for an explanation, as a signature keeps it. */
export function explanationKey(h: Hypothesis): string {
  switch (h.kind) {
    case 'no-slip':
      return 'as-taped';
    case 'slip':
      return `slip:${h.measure}`;
    case 'bowed':
      return `bowed:${h.bow}`;
    case 'swapped':
      return `swapped:${h.measures.join('+')}`;
    case 'otherwise':
      return h.is;
  }
}

/**
 * The survey of tapes that disagree, once somebody has signed for one explanation of them: a tape that slipped is left out, two that were exchanged
 * are put right, a side that is bowed stands out by its gap.
 * @param judged the survey of all the tapes, @param readings the same it was made from
 * @returns null: it is none of its explanations, or what it leaves still fits no one opening. "As taped" leaves all of them, which fit none.
 */
export function surveyBelieving(judged: Survey, key: string, readings: readonly TapeReading[], calledCrooked: boolean): Survey | null {
  const suspect = judged.suspects.find((s) => explanationKey(s.hypothesis) === key);
  const h = suspect?.hypothesis;
  if (!suspect || !h || h.kind === 'no-slip' || h.kind === 'otherwise' || judged.status !== 'doubtful') return null;
  let left: TapeReading[];
  if (h.kind === 'slip') left = readings.filter((r) => r.measure !== h.measure);
  else if (h.kind === 'bowed')
    left = [...readings.filter((r) => r.measure !== bowActsOn[h.bow] && r.measure !== h.bow), { measure: h.bow, lengthMm: suspect.slipMm }];
  else {
    const [a, b] = h.measures;
    const of = (k: string) => readings.find((r) => r.measure === k)!.lengthMm;
    left = readings.map((r) => (r.measure === a ? { ...r, lengthMm: of(b) } : r.measure === b ? { ...r, lengthMm: of(a) } : r));
  }
  const survey = judged.shape ? surveyShape(judged.shape, left.filter((r) => shapeModel(judged.shape!).keys.includes(r.measure))) : surveyOpening(left, { calledCrooked }); // prettier-ignore
  return survey.outline && (survey.status === 'agreeing' || survey.status === 'unchecked') ? { ...survey, believed: suspect } : null;
}

/** Explanations that may be signed for: what they leave is one opening. Most probable first. */
export const signable = (judged: Survey, readings: readonly TapeReading[], calledCrooked: boolean): Survey['suspects'] =>
  judged.suspects.filter((s) => surveyBelieving(judged, explanationKey(s.hypothesis), readings, calledCrooked) !== null);
