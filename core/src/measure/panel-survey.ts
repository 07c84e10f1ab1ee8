import type { Panel, Reading } from '@yellow-pane/contracts';
import { contentHash, shelf } from '../ground/index.js';
import { judgePanel, type PanelSurvey } from './panel.js';
import { readingsFor, readingsHash, readingsInForce, tapesOf, type TapedRecords } from './readings.js';

/** The same tapes give the same survey: judged once. */
const surveys = shelf<PanelSurvey>(500);

/** The survey of one panel, and whether its size is signed for. */
export function surveyPanel(surface: Panel, records: TapedRecords): { survey: PanelSurvey; isSigned: boolean; inForce: Reading[] } {
  const readings = readingsFor(surface, records);
  const inForce = readingsInForce(surface, records.surfaces, readings);
  const hash = readingsHash(inForce);
  const { grooves, recesses, corrugation, dome, hardware } = surface;
  const parts = grooves.length + recesses.length + hardware.length || corrugation || dome ? contentHash([grooves, recesses, hardware, corrugation, dome]) : '';
  const survey = records.memo.once(surveys, `${hash}/${parts}`, () => judgePanel(surface, tapesOf(inForce, readings)));
  return { survey, inForce, isSigned: surface.signed?.readingsHash === hash };
}
