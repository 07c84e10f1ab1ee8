import type { MeasureKey, Patch, Reading, Surface } from '@yellow-pane/contracts';
import { isBow, tapeOrder, twoTapes } from '@yellow-pane/core';
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

/** A typed reading as a patch: it supersedes the surface's own reading of that measure; an inherited one stays with its pane. */
export function readingPatch(
  surface: Surface,
  key: MeasureKey,
  typed: TypedReading,
  inForce: readonly Reading[],
  who: { personId: string; at: string },
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
    instrument: isBow(key) ? 'straightedge' : 'tape',
    personId: who.personId,
    at: who.at,
    supersedesId: old?.id ?? null,
    withdrawnAt: null,
    deletedAt: null,
  };
  return { op: 'add', kind: 'reading', id: reading.id, value: reading };
}
