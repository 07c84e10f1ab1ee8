import {
  isUndoStep,
  kindOf,
  fieldsOf,
  schemaOf,
  upgradedRecord,
  type Change,
  type ChangeAnswer,
  type ChangeDraft,
  type Fault,
  type Patch,
  type RecordKind,
  type UndoRequest,
} from '@yellow-pane/contracts';
import { inverseOf, othersOnTheSame, patchedRecord, reversalOf, scrubbed, type Erasing } from '@yellow-pane/core';
import { Refusal } from '../problem.js';
import type { Journal } from './journal.js';
import { breathe } from '../breathe.js';
import { BatchedRecords } from './batched-records.js';
import { OwnHistory, type BoundChanges } from './own-history.js';
import type { RecordsRepository } from './records.repository.js';

/** A rule that a kind of record puts on changes to it; throws a Refusal. */
export type RecordGuard = (records: RecordsRepository, kind: RecordKind, record: Record<string, unknown>) => Promise<void>;

/** A rule over a whole change, asked when all of it is written and before it counts; throws a Refusal. */
export type ClosingGuard = (records: RecordsRepository, patches: readonly Patch[]) => Promise<void>;

/** What a start brought back. */
export interface Replayed {
  readonly count: number;
  /** Lines of the journal that do not read, and where they were set aside. */
  readonly unreadableCount: number;
  readonly unreadableFile: string | null;
}
/** How a change is written: undone or redone, without a look at the history, or erasing. */
interface WayToWrite {
  readonly undoesId?: string;
  readonly isQuiet?: boolean;
  readonly erasings?: readonly Erasing[];
}
const REPLAY_BATCH = 100;
/** Devices whose last number is kept. @source house rule: more than any firm has in hand */
const MOST_DEVICES = 200;
/** After so many patches others get a turn. @source house rule: a few milliseconds */
const PATCHES_IN_A_ROW = 50;

/**
 * The only way to write: one change at a time, validated, applied with its inverse in one transaction, synced to the journal
 * before it is acknowledged.
 */
export class ChangeService {
  private queue: Promise<unknown> = Promise.resolve();
  private readonly ears = new Set<(change: Change) => void>();
  private readonly doubters = new Set<() => void>();
  private readonly own: OwnHistory;
  /** The last revision, and the last number of each device that wrote, as this process knows them; null: ask. */
  private top: number | null = null;
  private readonly lastSeqs = new Map<string, number>();
  /** Who has written before: nobody who works here is ever erased. */
  private readonly people = new Set<string>();

  constructor(
    private readonly records: RecordsRepository,
    private readonly journal: Journal | null,
    private readonly now: () => Date,
    private readonly guards: readonly RecordGuard[] = [],
    private readonly closing: readonly ClosingGuard[] = [],
    boundBy: BoundChanges = async () => new Set(),
  ) {
    this.own = new OwnHistory(records, boundBy);
    this.listen((change) => this.own.hear(change));
  }

  /** Hears of every change once it is safe. @returns stops hearing */
  listen(hear: (change: Change) => void): () => void {
    this.ears.add(hear);
    return () => void this.ears.delete(hear);
  }

  /** Called when a change may have been written that nobody heard of: what was kept of the record is to be asked anew. */
  listenToDoubt(doubt: () => void): void {
    this.doubters.add(doubt);
  }

  /** @param isQuiet nobody asks what can be undone next: the history is not looked through */
  apply(draft: ChangeDraft, isQuiet = false): Promise<ChangeAnswer> {
    return this.inTurn(() => this.write(draft, { isQuiet }));
  }

  /**
   * A change that takes something out of the records for good, and out of the history and the journal with it. It cannot be undone. Where a crash leaves the
   * journal ahead of the database, the next start replays it, and `finishErasure` does the history again.
   */
  erase(draft: ChangeDraft, erasings: readonly Erasing[]): Promise<ChangeAnswer> {
    return this.inTurn(async () => {
      const answer = await this.write(draft, { isQuiet: true, erasings });
      this.forget();
      return answer;
    });
  }

  /** Takes out of the history what a database that lost its last changes may have kept there. @param upTo the revision of the erasure */
  finishErasure(erasings: readonly Erasing[], upTo: number): Promise<void> {
    return this.inTurn(() => this.records.transaction((tx) => this.scrubHistory(tx, erasings, upTo)));
  }

  private scrubHistory(tx: RecordsRepository, erasings: readonly Erasing[], upTo: number): Promise<void> {
    return tx.rewriteChanges(
      erasings.map((e) => e.id),
      upTo,
      (c) => scrubbed(c, erasings),
    );
  }
  private scrubJournal(erasings: readonly Erasing[], upTo: number): void {
    this.journal?.scrub(
      erasings.map((e) => e.id),
      (c) => (c.revision <= upTo ? scrubbed(c, erasings) : c),
    );
  }

  undo(jobId: string, request: UndoRequest): Promise<ChangeAnswer> {
    return this.inTurn(() => this.reverse(jobId, request, 'undo'));
  }

  redo(jobId: string, request: UndoRequest): Promise<ChangeAnswer> {
    return this.inTurn(() => this.reverse(jobId, request, 'redo'));
  }

  /** @param deviceId undo takes back what was made on this device, never what the same person did on another */
  async canUndo(jobId: string, personId: string, deviceId?: string): Promise<{ canUndo: string | null; canRedo: string | null }> {
    const { undo, redo } = await this.own.undoState(jobId, personId, deviceId);
    return { canUndo: undo?.label ?? null, canRedo: redo?.label ?? null };
  }

  /**
   * Applies what the journal knows and the database lost, a hundred changes a transaction.
   * @param tell hears now and then how far it is
   */
  async replay(tell: (done: number, all: number) => void = () => undefined): Promise<Replayed> {
    if (!this.journal) return { count: 0, unreadableCount: 0, unreadableFile: null };
    const known = await this.records.allChangeIds();
    const { changes, unreadableCount, unreadableFile } = this.journal.read();
    const missing = changes.filter((c) => !known.has(c.id));
    for (let at = 0; at < missing.length; at += REPLAY_BATCH) {
      await this.records.transaction(async (tx) => {
        for (const change of missing.slice(at, at + REPLAY_BATCH)) {
          for (const patch of change.patches) await this.applyPatch(tx, patch);
          await tx.addChange(change);
        }
      });
      for (const change of missing.slice(at, at + REPLAY_BATCH)) for (const hear of this.ears) hear(change);
      tell(Math.min(missing.length, at + REPLAY_BATCH), missing.length);
    }
    this.forget();
    return { count: missing.length, unreadableCount, unreadableFile };
  }

  /** Waits until nothing is being written. */
  settled(): Promise<unknown> {
    return this.queue;
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.queue.then(work, work);
    this.queue = next.catch(() => undefined);
    return next;
  }

  private async reverse(jobId: string, request: UndoRequest, way: 'undo' | 'redo'): Promise<ChangeAnswer> {
    const done = await this.records.changeById(request.id);
    if (done) return { change: done, ...(await this.canUndo(jobId, request.personId, request.deviceId)) };
    const target = (await this.own.undoState(jobId, request.personId, request.deviceId))[way];
    if (!target) throw new Refusal(way === 'undo' ? 'nothing-to-undo' : 'nothing-to-redo');
    if (!request.force) {
      const other = othersOnTheSame(target.patches, await this.othersAfter(target.revision, request.deviceId, target.patches), request.deviceId);
      if (other)
        throw new Refusal(
          'undo-conflict',
          `Someone has since made “${other.label}” on the same thing. ${way === 'undo' ? 'Undo' : 'Redo'} “${target.label}” all the same?`,
        );
    }
    const label = target.label;
    const draft: ChangeDraft = {
      id: request.id,
      jobId,
      personId: request.personId,
      deviceId: request.deviceId,
      deviceSeq: request.deviceSeq,
      baseRevision: target.revision,
      label,
      patches: reversalOf(target),
    };
    return this.write(draft, { undoesId: target.id });
  }

  private async write(sent: ChangeDraft, way: WayToWrite, isSecondTry = false): Promise<ChangeAnswer> {
    const { undoesId = null, isQuiet = false, erasings = null } = way;
    const isReversal = undoesId !== null;
    const isFree = isReversal || erasings !== null;
    const draft = received(sent, this.now());
    // what was sent before is told again, also under a further number: a page that was left before it was answered counts anew
    const before = await this.records.changeById(draft.id);
    if (before) return this.toldAgain(before, draft);
    const last = this.lastSeqs.get(draft.deviceId) ?? (await this.records.lastDeviceSeq(draft.deviceId));
    if (draft.deviceSeq !== last + 1) throw new Refusal('sequence-gap', `This device’s next change is number ${last + 1}; number ${draft.deviceSeq} came.`);
    if (!isFree) await this.refuseConflict(draft);
    let change: Change | null = null;
    try {
      change = await this.records.transaction(async (plain) => {
        const tx = new BatchedRecords(plain.connection());
        await tx.expect(this.people.has(draft.personId) ? draft.patches : [...draft.patches, { kind: 'person', id: draft.personId }]);
        const inverse: Patch[] = [];
        const patches: Patch[] = [];
        for (const [i, asked] of draft.patches.entries()) {
          if (i > 0 && i % PATCHES_IN_A_ROW === 0) await breathe();
          const patch = isFree ? asked : await superseding(tx, asked);
          await bound(tx, patch, i, draft.jobId);
          const { written, back } = await this.checkedPatch(tx, patch, i, isFree);
          patches.push(written);
          if (back && !erasings) inverse.push(back);
        }
        if (!this.people.has(draft.personId) && !(await tx.find('person', draft.personId)))
          throw new Refusal('bad-input', undefined, [{ path: 'personId', message: 'Nobody with this id works here.' }]);
        for (const guard of this.closing) await guard(tx, patches);
        const undoable = inverse.length > 0 && (isReversal || isUndoStep(draft.patches));
        const written: Change = {
          ...draft,
          patches,
          revision: (this.top ?? (await tx.revision())) + 1,
          inverse,
          undoable,
          undoesId,
          at: this.now().toISOString(),
        };
        await tx.flush();
        if (erasings) await this.scrubHistory(tx, erasings, written.revision);
        await tx.addChange(written);
        this.journal?.append(written);
        change = written;
        if (erasings) this.scrubJournal(erasings, written.revision);
        return written;
      });
    } catch (error) {
      if (error instanceof Refusal) throw error;
      this.forget();
      // the journal has it and the database not: it was refused, and no start may bring it back
      if (change) this.journal?.void(draft.id);
      if (change) throw error;
      // another process may have written: what this one knew of the record was old
      if (isTaken(error) && !isSecondTry) return this.write(sent, way, true);
      throw error;
    }
    this.top = (change as Change).revision;
    this.people.add(draft.personId);
    this.lastSeqs.delete(draft.deviceId);
    this.lastSeqs.set(draft.deviceId, draft.deviceSeq);
    for (const oldest of this.lastSeqs.keys()) if (this.lastSeqs.size > MOST_DEVICES) this.lastSeqs.delete(oldest);
    for (const hear of this.ears) hear(change);
    return isQuiet ? { change, canUndo: null, canRedo: null } : { change, ...(await this.canUndo(draft.jobId, draft.personId, draft.deviceId)) };
  }

  private async toldAgain(change: Change, draft: ChangeDraft): Promise<ChangeAnswer> {
    return { change, ...(await this.canUndo(draft.jobId, draft.personId, draft.deviceId)) };
  }

  /** What this process knows of the record is asked anew. */
  forget(): void {
    for (const doubt of this.doubters) doubt();
    this.own.forget();
    this.top = null;
    this.lastSeqs.clear();
    this.people.clear();
  }

  /** Changes since a revision that other devices made on any of these records. */
  private async othersAfter(revision: number, deviceId: string, patches: readonly Patch[]): Promise<Change[]> {
    return this.top !== null && revision >= this.top ? [] : this.records.changesOfOthersAfter(revision, deviceId, new Set(patches.map((p) => p.id)));
  }

  /** Somebody else set the same field since this person looked. */
  private async refuseConflict(draft: ChangeDraft): Promise<void> {
    const mine = draft.patches.filter((p) => p.op === 'set');
    if (mine.length === 0) return;
    const other = othersOnTheSame(mine, await this.othersAfter(draft.baseRevision, draft.deviceId, mine), draft.deviceId);
    if (other) throw new Refusal('conflict', `In the meantime someone made “${other.label}” on the same thing. Look at it, then do yours again.`);
  }

  /**
   * Validates and applies one patch.
   * @returns the patch as it was written, by the schema; and its inverse, or null for a fact, which stands even when its change is undone
   */
  private async checkedPatch(tx: RecordsRepository, patch: Patch, index: number, isFree: boolean): Promise<{ written: Patch; back: Patch | null }> {
    const schema = schemaOf(patch.kind);
    const bad = (message: string, path = ''): never => {
      throw new Refusal('bad-input', undefined, [{ path: `patches[${index}]${path}`, message }]);
    };
    const old = (await tx.find(patch.kind, patch.id)) as Record<string, unknown> | null;
    if (patch.op === 'add') {
      if (old) bad('A record with this id is already there.');
      if (patch.value['id'] !== patch.id) bad('The record carries another id than the patch.', '.value.id');
    } else {
      if (!old) return bad('There is no such record.');
      if (!(patch.field in fieldsOf(patch.kind, old)) || patch.field === 'id') return bad(`“${patch.field}” is not a field that can be set.`, '.field');
      if (patch.kind === 'surface' && patch.field === 'kind') return bad('A surface stays of the kind it is: write down a new one.', '.field');
      if (!isFree) refuseFactEdit(patch.kind, patch.field, old);
    }
    // a device may have waited with it since before its kind changed its shape
    const read = schema.safeParse(upgradedRecord(patch.kind, patchedRecord(old, patch)));
    if (!read.success) {
      const faults: Fault[] = read.error.issues.map((i) => ({ path: `patches[${index}].${i.path.join('.')}`, message: i.message }));
      throw new Refusal('bad-input', undefined, faults);
    }
    const record = read.data as Record<string, unknown>;
    for (const guard of this.guards) await guard(tx, patch.kind, record);
    await tx.put(patch.kind, patch.id, record);
    const written: Patch = patch.op === 'add' ? { ...patch, value: record } : { ...patch, value: record[patch.field] };
    return { written, back: inverseOf(patch, old, this.now().toISOString(), 'deletedAt' in fieldsOf(patch.kind, record)) };
  }

  private async applyPatch(tx: RecordsRepository, patch: Patch): Promise<void> {
    // read by today's schema: an edit journalled by an older version gets what is new since
    const record = patchedRecord((await tx.find(patch.kind, patch.id)) as Record<string, unknown> | null, patch);
    const read = record && patch.op === 'add' ? (schemaOf(patch.kind).safeParse(upgradedRecord(patch.kind, record)).data ?? record) : record;
    if (read) await tx.put(patch.kind, patch.id, read);
  }
}

/**
 * Exactly one reading of a measure is in force: a new one supersedes whichever is when it comes in, also where two people taped the same side and neither knew
 * of the other’s. Both stay in the record. What an import brings says for itself what it supersedes.
 */
async function superseding(tx: RecordsRepository, patch: Patch): Promise<Patch> {
  if (patch.op !== 'add' || patch.kind !== 'reading' || patch.value['instrument'] === 'import') return patch;
  const { surfaceId, measure, withdrawnAt } = patch.value;
  if (!isId(surfaceId) || typeof measure !== 'string' || (withdrawnAt ?? null) !== null) return patch;
  const before = await tx.readingsOf(surfaceId, measure);
  const superseded = new Set(before.map((r) => r.supersedesId));
  const inForce = before.filter((r) => !superseded.has(r.id) && !r.withdrawnAt && r.id !== patch.id);
  const newest = inForce.at(-1);
  return newest && newest.id !== patch.value['supersedesId'] ? { ...patch, value: { ...patch.value, supersedesId: newest.id } } : patch;
}

/** A revision or a number of a device that is in the record already. @source PostgreSQL, error 23505 unique_violation */
const isTaken = (error: unknown): boolean => [error, (error as { cause?: unknown }).cause].some((e) => (e as { code?: unknown } | undefined)?.code === '23505'); // prettier-ignore

const isId = (v: unknown): v is string => typeof v === 'string' && /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(v);

/**
 * A change touches only what belongs to its job: nobody writes another job's panes, or the firm, in the name of a job, by a change or by a job file.
 * @throws Refusal bad-input that names the patch
 */
async function bound(tx: RecordsRepository, patch: Patch, index: number, jobId: string): Promise<void> {
  const { kind } = patch;
  const bad = (message: string): never => {
    throw new Refusal('bad-input', undefined, [{ path: `patches[${index}]`, message }]);
  };
  if (kind === 'job' && patch.id !== jobId) bad('This job is another one than the change belongs to.');
  if (kindOf(kind).of === 'firm') {
    const id =
      kind === 'firm'
        ? patch.id
        : ((patch.op === 'add' ? patch.value['firmId'] : ((await tx.find(kind, patch.id)) as { firmId?: string } | null)?.firmId) ?? null);
    if (id !== jobId) bad('The firm, its people and its rates are not changed in the name of a job.');
  }
  if (kind === 'job' && patch.op === 'set' && patch.field === 'firmId') bad('A job stays with its firm.');
  if (kindOf(kind).of !== 'job') return;
  const old = patch.op === 'set' ? ((await tx.find(kind, patch.id)) as { jobId?: string } | null) : null;
  if (patch.op === 'set' && patch.field === 'jobId') bad('A record stays in its job.');
  if ((patch.op === 'add' ? patch.value['jobId'] : (old?.jobId ?? jobId)) !== jobId) bad('This belongs to another job than the change.');
}

/** Lines of the log get the bench's own time beside the device's: when they were written down here. */
const received = (draft: ChangeDraft, now: Date): ChangeDraft => ({
  ...draft,
  patches: draft.patches.map((p) =>
    p.op === 'add' && p.kind === 'layEntry' ? { ...p, value: { ...p.value, receivedAt: p.value['receivedAt'] ?? now.toISOString() } } : p,
  ),
});

/** Facts stand: readings, log entries and committed plans are corrected by new ones. */
function refuseFactEdit(kind: RecordKind, field: string, old: Record<string, unknown>): void {
  const { stands } = kindOf(kind);
  if (stands && !stands.but.includes(field)) throw new Refusal('fact-stands', stands.sentence);
  if (kind === 'plan' && old['status'] === 'committed' && field !== 'takenRollIds')
    throw new Refusal('fact-stands', 'This cut plan is committed and frozen: a re-plan is a new plan.');
}
