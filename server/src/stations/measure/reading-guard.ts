import { measuresOfKind, surfaceKindNames, type Fault, type Reading, type SurfaceKind } from '@yellow-pane/contracts';
import { parseOffset } from '@yellow-pane/core';
import type { ClosingGuard } from '../../db/change.service.js';
import { Refusal } from '../../problem.js';

/** What was typed and the length it stands for agree to this, mm: a length that was written down to a tenth. */
const TYPED_TO_MM = 0.05;

/** A reading is what was typed: its length is that of the words, it is a measure that its surface has, and it supersedes one of the same measure of the same surface. */
export const readingGuard: ClosingGuard = async (records, patches) => {
  const faults: Fault[] = [];
  const kinds = new Map<string, SurfaceKind | null>();
  // what comes in with the same change is known; the rest is read together
  for (const p of patches) if (p.op === 'add' && p.kind === 'surface') kinds.set(p.id, p.value['kind'] as SurfaceKind);
  const asked = patches.flatMap((p) => (p.op === 'add' && p.kind === 'reading' ? [p.value['surfaceId'] as string] : [])).filter((id) => !kinds.has(id));
  await records.expect([...new Set(asked)].map((id) => ({ kind: 'surface', id })));
  const kindOf = async (surfaceId: string): Promise<SurfaceKind | null> => {
    const known = kinds.get(surfaceId);
    if (known !== undefined) return known;
    const kind = (await records.find('surface', surfaceId))?.kind ?? null;
    kinds.set(surfaceId, kind);
    return kind;
  };
  for (const [i, p] of patches.entries()) {
    if (p.op !== 'add' || p.kind !== 'reading') continue;
    const reading = p.value as unknown as Reading;
    const say = (field: string, message: string) => faults.push({ path: `patches[${i}].${field}`, message });
    const read = parseOffset(reading.typed, reading.unit);
    if (!read.ok) say('typed', read.message);
    else if (Math.abs(read.value.lengthMm - reading.lengthMm) > TYPED_TO_MM)
      say('lengthMm', `“${reading.typed}” is ${Math.round(read.value.lengthMm * 100) / 100} mm, not ${Math.round(reading.lengthMm * 100) / 100} mm.`);
    const kind = await kindOf(reading.surfaceId);
    if (kind && !measuresOfKind[kind].includes(reading.measure)) say('measure', `A ${surfaceKindNames[kind]} has no ${reading.measure}.`);
    const before = reading.supersedesId && (await records.find('reading', reading.supersedesId));
    if (before && (before.surfaceId !== reading.surfaceId || before.measure !== reading.measure))
      say('supersedesId', 'A reading supersedes one of the same measure of the same surface.');
  }
  if (faults.length) throw new Refusal('bad-input', undefined, faults.slice(0, 20));
};
