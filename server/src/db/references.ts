import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { allKinds, kindOf, referencesOf, type Fault, type Patch, type RecordKind, type RecordOf, type Reference } from '@yellow-pane/contracts';
import { SHIPPED_STEPS_ID } from '@yellow-pane/core';
import { Refusal } from '../problem.js';
import type { ClosingGuard } from './change.service.js';
import type { RecordsRepository } from './records.repository.js';

/** So many faults are told of one change. */
const MOST_FAULTS = 20;

/** What is wrong with what a record names; null: all of it is here, and where it belongs. */
async function faultOf(records: RecordsRepository, jobId: unknown, ref: Reference, isBroughtIn: boolean): Promise<string | null> {
  if (ref.kind === 'stepSet' && ref.id === SHIPPED_STEPS_ID) return null;
  const found = (await records.find(ref.kind, ref.id)) as { jobId?: unknown } | null;
  if (!found) return isBroughtIn && ref.mayStayAbroad ? null : `“${ref.path}” names ${kindOf(ref.kind).words} that is not here.`;
  // what belongs to no job, or is of all jobs by its nature, is in reach of each
  if (ref.isOfAnyJob || typeof found.jobId !== 'string' || typeof jobId !== 'string' || found.jobId === jobId) return null;
  return `“${ref.path}” names ${kindOf(ref.kind).words} of another job.`;
}

/** Records of a change, each with the fields that it sets; null: all of them. */
function touched(patches: readonly Patch[]): { kind: RecordKind; id: string; index: number; fields: Set<string> | null }[] {
  const out = new Map<string, { kind: RecordKind; id: string; index: number; fields: Set<string> | null }>();
  for (const [index, p] of patches.entries()) {
    const key = `${p.kind}/${p.id}`;
    const known = out.get(key);
    if (p.op === 'add') out.set(key, { kind: p.kind, id: p.id, index, fields: null });
    else if (!known) out.set(key, { kind: p.kind, id: p.id, index, fields: new Set([p.field]) });
    else known.fields?.add(p.field);
  }
  return [...out.values()];
}

/**
 * Whatever a change writes names only what is here and belongs to its job: panes, rooms, films, plans, people. Asked when the whole change is written, so that
 * two records of one change may name each other. What a change does not touch is not looked at again.
 * @throws Refusal bad-input, with the field of each fault
 */
export const referenceGuard: ClosingGuard = async (records, patches) => {
  const isBroughtIn = patches.some((p) => p.op === 'add' && p.kind === 'job');
  const asked: { index: number; jobId: unknown; ref: Reference }[] = [];
  for (const { kind, id, index, fields } of touched(patches)) {
    const record = (await records.find(kind, id)) as RecordOf<RecordKind> | null;
    if (!record) continue;
    for (const ref of referencesOf(kind, record as never))
      if (fields === null || fields.has(ref.path.split('.')[0]!)) asked.push({ index, jobId: (record as { jobId?: unknown }).jobId, ref });
  }
  await records.expect(asked.map((a) => a.ref));
  const faults: Fault[] = [];
  for (const { index, jobId, ref } of asked) {
    const message = await faultOf(records, jobId, ref, isBroughtIn);
    if (message) faults.push({ path: `patches[${index}].${ref.path}`, message });
    if (faults.length >= MOST_FAULTS) break;
  }
  if (faults.length) throw new Refusal('bad-input', undefined, faults);
};

/**
 * After an update: what older versions let in is told, in the log and in a file beside the data; nothing of it is changed.
 * @returns a sentence; null: nothing was found
 */
export async function reportDangling(records: RecordsRepository, dataDir: string, stamp: string): Promise<string | null> {
  const found = await findDangling(records);
  if (found.length === 0) return null;
  const file = join(dataDir, `names-nothing-${stamp}.txt`);
  writeFileSync(file, found.map((f) => `${f.kind} ${f.id}: ${f.message}\n`).join(''), { mode: 0o600 });
  return `${found.length === 1 ? 'One record names' : `${found.length} records name`} something that is not here, let in by an older version. Nothing was changed; they are listed in ${file}.`;
}

/** One that names what is not here. */
export interface Dangling {
  readonly kind: RecordKind;
  readonly id: string;
  readonly message: string;
}

/** Looks through the whole record, kind by kind, for what names something that is not here: what older versions let in. It changes nothing. */
export async function findDangling(records: RecordsRepository): Promise<Dangling[]> {
  const kinds = allKinds;
  const here = new Map<RecordKind, Map<string, { jobId?: unknown }>>();
  for (const kind of kinds) here.set(kind, new Map((await records.all(kind)).map((r) => [r.id, r as { jobId?: unknown }])));
  const known = { find: async (kind: RecordKind, id: string) => here.get(kind)?.get(id) ?? null } as unknown as RecordsRepository;
  const out: Dangling[] = [];
  for (const kind of kinds)
    for (const [id, record] of here.get(kind)!)
      for (const ref of referencesOf(kind, record as never)) {
        // a job that came from another bench left its people and the history of its rolls there
        const message = await faultOf(known, record.jobId, ref, true);
        if (message) out.push({ kind, id, message });
      }
  return out;
}
