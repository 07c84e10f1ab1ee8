import type { Fault, Reading } from '@yellow-pane/contracts';
import { parseOffset } from '@yellow-pane/core';
import type { ClosingGuard } from '../../db/change.service.js';
import { Refusal } from '../../problem.js';

/** What was typed and the length it stands for agree to this, mm: a length that was written down to a tenth. */
const TYPED_TO_MM = 0.05;

/** A reading is what was typed: its length is that of the words, and it supersedes one of the same measure of the same pane. */
export const readingGuard: ClosingGuard = async (records, patches) => {
  const faults: Fault[] = [];
  for (const [i, p] of patches.entries()) {
    if (p.op !== 'add' || p.kind !== 'reading') continue;
    const reading = p.value as unknown as Reading;
    const say = (field: string, message: string) => faults.push({ path: `patches[${i}].${field}`, message });
    const read = parseOffset(reading.typed, reading.unit);
    if (!read.ok) say('typed', read.message);
    else if (Math.abs(read.value.lengthMm - reading.lengthMm) > TYPED_TO_MM)
      say('lengthMm', `“${reading.typed}” is ${Math.round(read.value.lengthMm * 100) / 100} mm, not ${Math.round(reading.lengthMm * 100) / 100} mm.`);
    const before = reading.supersedesId && (await records.find('reading', reading.supersedesId));
    if (before && (before.surfaceId !== reading.surfaceId || before.measure !== reading.measure))
      say('supersedesId', 'A reading supersedes one of the same measure of the same pane.');
  }
  if (faults.length) throw new Refusal('bad-input', undefined, faults.slice(0, 20));
};
