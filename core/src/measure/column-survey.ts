import type { Column, Reading } from '@yellow-pane/contracts';
import { shelf } from '../ground/index.js';
import { judgeColumn, type ColumnSurvey } from './column.js';
import { readingsFor, readingsHash, readingsInForce, tapesOf, type TapedRecords } from './readings.js';

/** The same tapes give the same survey: judged once. */
const surveys = shelf<ColumnSurvey>(500);

/** The survey of one column, and whether its size is signed for. */
export function surveyColumn(surface: Column, records: TapedRecords): { survey: ColumnSurvey; isSigned: boolean; inForce: Reading[] } {
  const readings = readingsFor(surface, records);
  const inForce = readingsInForce(surface, records.surfaces, readings);
  const hash = readingsHash(inForce);
  const survey = records.memo.once(surveys, `${surface.section}/${hash}`, () => judgeColumn(surface.section, tapesOf(inForce, readings)));
  return { survey, inForce, isSigned: surface.signed?.readingsHash === hash };
}
