import type { Reading, Wall } from '@yellow-pane/contracts';
import { contentHash, shelf } from '../ground/index.js';
import { isWall } from './kinds.js';
import { readingsFor, readingsHash, readingsInForce, tapesOf, type TapedRecords } from './readings.js';
import { judgeWall, type WallParts, type WallSide, type WallSurvey } from './wall.js';

/** The walls that are there. */
const wallsOf = ({ surfaces }: Pick<TapedRecords, 'surfaces'>): Wall[] => surfaces.filter(isWall).filter((w) => !w.deletedAt);
/** The wall beside one at an end; null: nobody named one. */
export function wallBeside(surface: Wall, side: WallSide, records: Pick<TapedRecords, 'surfaces'>): Wall | null {
  const found = side === 'right' ? wallsOf(records).find((w) => w.id === surface.nextId) : wallsOf(records).find((w) => w.nextId === surface.id);
  return found && found.id !== surface.id ? found : null;
}

/** Walls that go on round corners, from the left; a room all round begins at the one that comes first in the walk. */
export function runOf(surface: Wall, records: Pick<TapedRecords, 'surfaces'>): Wall[] {
  let first = surface;
  for (let w = wallBeside(first, 'left', records); w && w.id !== surface.id; w = wallBeside(first, 'left', records)) first = w;
  const isRoom = wallBeside(first, 'left', records)?.id === surface.id;
  const run = [first];
  for (let w = wallBeside(first, 'right', records); w && !run.includes(w); w = wallBeside(w, 'right', records)) run.push(w);
  if (!isRoom) return run;
  const start = run.reduce((a, b) => (b.order < a.order ? b : a));
  return [...run.slice(run.indexOf(start)), ...run.slice(0, run.indexOf(start))];
}

/** The corner at an end: it stands in the record of the wall on its left. */
function cornerAt(surface: Wall, side: WallSide, records: TapedRecords): WallParts['corners'][WallSide] {
  const beside = wallBeside(surface, side, records);
  if (!beside) return { ...surface[side], beside: null };
  const end = side === 'right' ? surface.right : { ...beside.right, isFirst: !beside.right.isFirst };
  const theirs = readingsInForce(beside, records.surfaces, readingsFor(beside, records));
  const of = (key: Reading['measure']) => theirs.find((r) => r.measure === key)?.lengthMm ?? null;
  const [height, up, down] = side === 'right' ? (['heightLeft', 'upLeft', 'downLeft'] as const) : (['heightRight', 'upRight', 'downRight'] as const);
  const [high, low] = [of(up), of(down)];
  const heightMm = of(height) ?? (high !== null && low !== null ? high + low : null);
  return { ...end, beside: { name: beside.name, heightMm }, wanderMm: of(side === 'right' ? 'wanderLeft' : 'wanderRight') };
}

/** The same tapes give the same survey: judged once. */
const surveys = shelf<WallSurvey>(500);

/** The survey of one wall, and whether its size is signed for. */
export function surveyWall(surface: Wall, records: TapedRecords): { survey: WallSurvey; isSigned: boolean; inForce: Reading[] } {
  const readings = readingsFor(surface, records);
  const inForce = readingsInForce(surface, records.surfaces, readings);
  const hash = readingsHash(inForce);
  const { hardware, masonry, breaks } = surface;
  const corners = { left: cornerAt(surface, 'left', records), right: cornerAt(surface, 'right', records) };
  const survey = records.memo.once(surveys, `${hash}/${contentHash([hardware, masonry, breaks, corners])}`, () =>
    judgeWall({ hardware, masonry, breaks, corners }, tapesOf(inForce, readings)),
  );
  return { survey, inForce, isSigned: surface.signed?.readingsHash === hash };
}
