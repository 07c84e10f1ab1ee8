import type { Counter, Reading } from '@yellow-pane/contracts';
import { contentHash, shelf } from '../ground/index.js';
import { judgeCounter, type CounterSurvey } from './counter.js';
import { readingsFor, readingsHash, readingsInForce, tapesOf, type TapedRecords } from './readings.js';

/** The same tapes give the same survey: judged once. */
const surveys = shelf<CounterSurvey>(500);

/** The survey of one top, and whether its size is signed for. */
export function surveyCounter(surface: Counter, records: TapedRecords): { survey: CounterSurvey; isSigned: boolean; inForce: Reading[] } {
  const readings = readingsFor(surface, records);
  const inForce = readingsInForce(surface, records.surfaces, readings);
  const hash = readingsHash(inForce);
  const parts = contentHash([[...surface.round].sort(), surface.hardware]);
  const survey = records.memo.once(surveys, `${hash}/${parts}`, () => judgeCounter(surface, tapesOf(inForce, readings)));
  return { survey, inForce, isSigned: surface.signed?.readingsHash === hash };
}
