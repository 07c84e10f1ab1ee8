import type { MeasureKey, PaneShape, Patch, Reading, ShapeKind, Surface } from '@yellow-pane/contracts';
import { isBow, shapeModel, tapeOrder, twoTapes } from '@yellow-pane/core';
import { v7 as uuidv7 } from 'uuid';
import type { TypedReading } from '../../kit/length-field';

/** Which tapes the drawing asks for: two are enough where two are enough. */
export function keysToShow(inForce: readonly Reading[], asksForAll: boolean, ask: MeasureKey | null): MeasureKey[] {
  const has = (k: MeasureKey) => inForce.some((r) => r.measure === k);
  const all = asksForAll || tapeOrder.some(has);
  const bows = inForce.map((r) => r.measure).filter(isBow);
  if (ask && isBow(ask) && !bows.includes(ask)) bows.push(ask);
  return [...(all ? tapeOrder : twoTapes), ...bows];
}

/** Which tapes a pane that is not four-sided asks for: all of its kind; of a polygon its sides, the fan from A, one diagonal more, and what was taped. */
export function shapeKeysToShow(shape: PaneShape, inForce: readonly Reading[], ask: MeasureKey | null): MeasureKey[] {
  const { keys } = shapeModel(shape);
  if (shape.kind !== 'polygon') return [...keys];
  const has = (k: MeasureKey) => k === ask || inForce.some((r) => r.measure === k);
  const isSide = (_: MeasureKey, i: number) => i < shape.corners;
  const check = keys.find((k, i) => !isSide(k, i) && !k.includes('A'));
  return keys.filter((k, i) => isSide(k, i) || k.includes('A') || k === check || has(k));
}

/** Outlines in the words of the trade. */
export const shapeNames: Record<'four-sided' | ShapeKind, string> = {
  'four-sided': 'four-sided',
  rake: 'rake: sloping top',
  parallelogram: 'stair: two slopes',
  triangle: 'triangle',
  'arch-round': 'arch, half round',
  'arch-flat': 'arch, flatter',
  'arch-pointed': 'arch, pointed',
  circle: 'round',
  quarter: 'quarter',
  polygon: 'corner by corner',
  drawn: 'from a drawing',
};

/** A typed reading as a patch: it supersedes the surface's own reading of that measure; an inherited one stays with its pane. */
export function readingPatch(
  surface: Pick<Surface, 'id' | 'jobId'>,
  key: MeasureKey,
  typed: Pick<TypedReading, 'typed' | 'unit' | 'lengthMm'>,
  inForce: readonly Reading[],
  who: { personId: string; at: string },
  instrument: 'tape' | 'laser' = 'tape',
): Patch {
  const old = inForce.find((r) => r.measure === key && r.surfaceId === surface.id);
  const reading: Reading = {
    id: uuidv7(),
    jobId: surface.jobId,
    surfaceId: surface.id,
    measure: key,
    typed: typed.typed,
    unit: typed.unit,
    lengthMm: typed.lengthMm,
    instrument: isBow(key) ? 'straightedge' : instrument,
    personId: who.personId,
    at: who.at,
    supersedesId: old?.id ?? null,
    withdrawnAt: null,
    deletedAt: null,
  };
  return { op: 'add', kind: 'reading', id: reading.id, value: reading };
}
