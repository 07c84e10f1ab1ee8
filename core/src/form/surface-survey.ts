import type { Pane, Reading } from '@yellow-pane/contracts';
import { contentHash, shelf, type Memo } from '../ground/index.js';
import {
  measuredLike,
  readingsFor,
  readingsHash,
  readingsInForce,
  surveyBelieving,
  surveyOpening,
  surveyShape,
  tapesOf,
  type Survey,
  type TapedRecords,
  type TapeReading,
} from '../measure/index.js';
import { chordReadings } from './chord.js';

/** The same tapes give the same survey: judged once. */
const surveys = shelf<Survey>(2000);
const surveysBelieving = shelf<Survey | null>(500);

/** The survey of one surface and whether its size is signed for; where an explanation was signed for, by that. `judged`: what the tapes say by themselves. */
export function surveySurface(surface: Pane, records: TapedRecords): { survey: Survey; isSigned: boolean; inForce: Reading[]; judged: Survey } {
  const readings = readingsFor(surface, records);
  const inForce = readingsInForce(surface, records.surfaces, readings);
  const hash = readingsHash(inForce);
  const bent = surface.curved?.taped === 'over' ? bowsFor(surface, records) : null;
  const taped = tapesOf(inForce, readings);
  const key = `${hash}/${surface.calledCrooked}/${taped
    .flatMap((t) => (t.times! > 1 ? [t.measure + t.times!] : []))
    .sort()
    .join()}/${surface.shape ? contentHash(surface.shape) : ''}/${bent ? contentHash(bent.bows.map((b) => [b.way, b.atMm, b.depthMm])) : ''}`;
  const tapes = bent ? chordReadings(bent, taped) : taped;
  const survey = records.memo.once(surveys, key, () =>
    surface.shape ? surveyShape(surface.shape, tapes) : surveyOpening(tapes, { calledCrooked: surface.calledCrooked }),
  );
  const isSigned = surface.signed !== null && surface.signed.readingsHash === hash;
  return { survey: (isSigned && believedSurvey(survey, key, surface, tapes, records.memo)) || survey, judged: survey, inForce, isSigned };
}

/** What the explanation that was signed for leaves; null: none was named, or what it leaves is no one opening. */
function believedSurvey(judged: Survey, key: string, surface: Pane, tapes: readonly TapeReading[], memo: Memo): Survey | null {
  const believes = surface.signed?.believes;
  if (!believes || judged.status !== 'doubtful') return null;
  return memo.once(surveysBelieving, `${key}/${believes}`, () => surveyBelieving(judged, believes, tapes, surface.calledCrooked));
}

/** The bows that bring tapes laid over the glass to their chords: of the pane itself, or of the one it is measured like (a mirrored bow is as deep). */
function bowsFor(surface: Pane, records: Pick<TapedRecords, 'surfaces'>): Pane['curved'] {
  const like = surface.curved?.bows.length ? undefined : measuredLike(surface, records.surfaces);
  return like?.curved ? { ...like.curved, taped: 'over' } : surface.curved;
}
