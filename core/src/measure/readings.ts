import type { MeasureKey, Reading, Surface } from '@yellow-pane/contracts';
import { contentHash, shelf, type Memo } from '../ground/index.js';
import type { TapeReading } from './adjustment.js';
import { measuredLike } from './kinds.js';

/** Records that say what of a surface was taped. */
export interface TapedRecords {
  readonly surfaces: readonly Surface[];
  readonly readings: readonly Reading[];
  /** What whoever asks has had worked out before. */
  readonly memo: Memo;
}

/** The same measure on the window across. */
const across: Partial<Record<MeasureKey, MeasureKey>> = {
  heightLeft: 'heightRight',
  heightRight: 'heightLeft',
  diagonalDown: 'diagonalUp',
  diagonalUp: 'diagonalDown',
  bowLeft: 'bowRight',
  bowRight: 'bowLeft',
};
/** A reading of the window across, as it is here. */
export const mirroredReading = <R extends { readonly measure: MeasureKey }>(r: R): R => ({ ...r, measure: across[r.measure] ?? r.measure });
/** A reading as a tape, mirrored where the pane is the window across. */
const inheritedReadings = (surface: Surface, inherited: readonly Reading[]): Reading[] =>
  surface.kind === 'pane' && surface.curved?.isMirror ? inherited.map(mirroredReading) : [...inherited];

const later = (a: Reading | undefined, b: Reading): Reading => (a && (a.at > b.at || (a.at === b.at && a.id > b.id)) ? a : b);

/** The readings of one surface that count: exactly one of each measure, the newest, withdrawn ones and guesses of a quote out; its own before those it is measured like. */
export function readingsInForce(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[]): Reading[] {
  return standing(surface, surfaces, readings).filter((r) => r.instrument !== 'quote');
}

/** The size that a pane was quoted at, mm, while nobody has taped one of its sides; null when there is none or it was taped since. */
export function quotedSize(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[]): { widthMm: number; heightMm: number } | null {
  const all = standing(surface, surfaces, readings);
  const of = (measure: Reading['measure']) => all.find((r) => r.measure === measure && r.instrument === 'quote')?.lengthMm;
  const [widthMm, heightMm] = [of('widthLargest'), of('heightLargest')];
  return widthMm === undefined || heightMm === undefined || all.some((r) => r.instrument !== 'quote') ? null : { widthMm, heightMm };
}

const readingsBySurface = shelf<ReadonlyMap<string, readonly Reading[]>>(Infinity);
/** The readings of a surface and of those that it is measured like: with a tower of panes most readings are of others. */
export function readingsFor(surface: Surface, { surfaces, readings, memo }: TapedRecords): Reading[] {
  const bySurface = memo.onceFor(readingsBySurface, readings, [], () => {
    const groups = new Map<string, Reading[]>();
    for (const r of readings) {
      const group = groups.get(r.surfaceId);
      if (group) group.push(r);
      else groups.set(r.surfaceId, [r]);
    }
    return groups;
  });
  const seen = new Set<string>();
  const own: Reading[] = [];
  for (let s: Surface | undefined = surface; s && !seen.has(s.id); s = s.measuredLikeId ? surfaces.find((x) => x.id === s!.measuredLikeId) : undefined) {
    seen.add(s.id);
    own.push(...(bySurface.get(s.id) ?? []));
  }
  return own;
}

function standing(surface: Surface, surfaces: readonly Surface[], readings: readonly Reading[], depth = 0): Reading[] {
  const own = readings.filter((r) => r.surfaceId === surface.id && !r.deletedAt);
  const superseded = new Set(own.map((r) => r.supersedesId));
  // two that supersede the same one, in a record of before that was ruled out: the one that came last counts
  const newest = new Map<string, Reading>();
  for (const r of own) if (!superseded.has(r.id) && !r.withdrawnAt) newest.set(r.measure, later(newest.get(r.measure), r));
  const inForce = own.filter((r) => newest.get(r.measure) === r);
  const like = measuredLike(surface, surfaces);
  if (!like || depth > 8) return inForce;
  const inherited = inheritedReadings(surface, standing(like, surfaces, readings, depth + 1));
  return [...inForce, ...inherited.filter((r) => !inForce.some((o) => o.measure === r.measure))];
}

/** Hash of the readings a signature stands for. */
export const readingsHash = (inForce: readonly Reading[]): string => contentHash([...inForce].map((r) => [r.measure, r.lengthMm]).sort());

/** So near to each other two tapes of one place say the same. @source house rule: two tapes' own errors */
const SAME_TAPE_MM = 2;

/** How often a reading in force was taken one after the other with the same result. A file brought in twice is no second reading. */
function timesTaken(r: Reading, readings: readonly Reading[]): number {
  let times = 1;
  for (let at = r; at.supersedesId !== null && times < 5; times++) {
    const before = readings.find((x) => x.id === at.supersedesId);
    if (
      !before ||
      at.instrument === 'import' ||
      before.instrument === 'quote' ||
      before.withdrawnAt ||
      before.deletedAt ||
      Math.abs(before.lengthMm - r.lengthMm) > SAME_TAPE_MM
    )
      break;
    at = before;
  }
  return times;
}

/** Readings in force as tapes. @param readings all of them: how often one was taken anew with the same result is told by those it supersedes */
export const tapesOf = (inForce: readonly Reading[], readings: readonly Reading[]): TapeReading[] =>
  inForce.map((r) => ({ measure: r.measure, lengthMm: r.lengthMm, times: timesTaken(r, readings) }));
