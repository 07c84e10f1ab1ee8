import type { Reading, Sign, SignLine } from '@yellow-pane/contracts';
import { contentHash, shelf } from '../ground/index.js';
import { readingsFor, readingsHash, readingsInForce, tapesOf, type TapedRecords } from './readings.js';
import { judgeSign, placeMark, type PlacedMark, type SignSurvey, type UnreadMark } from './sign.js';

/** The same tapes and the same letters give the same survey: judged once; letters that only moved neighbours are not placed again. */
const surveys = shelf<SignSurvey>(200);
const placed = shelf<PlacedMark | UnreadMark>(600);

/** The survey of one sign, and whether its size is signed for. */
export function surveySign(surface: Sign, records: TapedRecords): { survey: SignSurvey; isSigned: boolean; inForce: Reading[] } {
  const readings = readingsFor(surface, records);
  const inForce = readingsInForce(surface, records.surfaces, readings);
  const hash = readingsHash(inForce);
  const parts = contentHash([surface.lines, surface.hardware, surface.texture]);
  const place = (line: SignLine) => records.memo.once(placed, contentHash(line), () => placeMark(line));
  const survey = records.memo.once(surveys, `${hash}/${parts}`, () => judgeSign(surface, tapesOf(inForce, readings), place));
  return { survey, inForce, isSigned: surface.signed?.readingsHash === hash };
}
