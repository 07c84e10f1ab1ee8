import type { Change, Patch } from '@yellow-pane/contracts';
import { bookFault, doneSteps } from '@yellow-pane/core';
import type { ClosingGuard } from '../../db/change.service.js';
import type { BoundChanges } from '../../db/own-history.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import { Refusal } from '../../problem.js';

/** Rolls whose book a change touches. */
async function touchedRolls(records: RecordsRepository, patches: readonly Patch[]): Promise<Set<string>> {
  const out = new Set<string>();
  for (const p of patches) {
    if (p.kind === 'roll') out.add(p.id);
    if (p.kind !== 'stockEntry' && p.kind !== 'reservation') continue;
    const record = p.op === 'add' ? (p.value as { rollId: string }) : await records.find(p.kind, p.id);
    if (record) out.add(record.rollId);
  }
  return out;
}

/**
 * The book of every roll that a change touches must add up when the change is whole: nothing cut that is not there, no metre promised twice,
 * no roll taken away that somebody counts on. A count tells what is there, so it is taken as it is.
 */
export const stockGuard: ClosingGuard = async (records, patches) => {
  const touched = await touchedRolls(records, patches);
  if (touched.size === 0) return;
  const isCount = patches.every((p) => p.op === 'add' && p.kind === 'stockEntry' && p.value['kind'] !== 'cut');
  const reservations = await records.ofRolls('reservation', [...touched]);
  const entries = await records.ofRolls('stockEntry', [...touched]);
  const names = await records.jobNames([...new Set([...reservations, ...entries].flatMap((r) => r.jobId ?? []))]);
  for (const rollId of touched) {
    const roll = await records.find('roll', rollId);
    if (!roll) continue;
    const promised = reservations.filter((r) => r.rollId === rollId);
    if (roll.deletedAt !== null) {
      const held = promised[0] ?? entries.find((e) => e.rollId === rollId && e.kind === 'cut');
      if (held && patches.some((p) => p.kind === 'roll' && p.id === rollId))
        throw new Refusal('stock-promised', `${roll.label} cannot go: ${names[held.jobId ?? ''] ?? 'a job'} counts on it or has cut from it.`);
      continue;
    }
    const book = { entries, reservations: isCount ? [] : promised };
    const fault = bookFault(roll, book, names);
    if (fault) throw new Refusal(fault.includes('promised') ? 'stock-promised' : 'stock-short', fault);
  }
};

/** A plan's moves by hand, locks and the taking of its film off the stock can be undone until the knife has been at the plan; then only a correction puts it right. */
export const boundByKnife: BoundChanges = async (records, jobId, own) => {
  const taking = own.filter((c) => planTouched(c) !== null);
  if (taking.length === 0) return new Set();
  const entries = await records.ofJob('logEntry', jobId);
  const cut = new Set(entries.flatMap((e) => (e.planId && doneSteps(entries.filter((x) => x.planId === e.planId)).size > 0 ? [e.planId] : [])));
  return new Set(taking.filter((c) => cut.has(planTouched(c)!)).map((c) => c.id));
};
const planTouched = (c: Change): string | null =>
  c.patches.find((p) => p.kind === 'plan' && (p.op === 'add' ? p.value['isByHand'] === true : ['takenRollIds', 'lockedPieceIds'].includes(p.field)))?.id ??
  null;
