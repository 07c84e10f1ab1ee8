import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import type { Change, JobDocument, Patch } from '@yellow-pane/contracts';
import type { Memo } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { Api, ApiProblem } from './api';
import { Device } from './device';
import { LocalStore } from './local-store';
import { PageMemo } from './page-memo';
import { Sender } from './sender';
import { held, isNext, numbered, refused, replicaOf, shown, told, type PendingEdit, type Replica } from './replica';
import { needsReload } from './updaters';
import { nothingInHand, paneToTakeUp, withPaneInHand } from './with-pane-in-hand';

/** What the shell says about saving. */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'unsafe' | 'refused';

/** The open job, with what this page has had worked out of it: what core's questions about panes and plans are asked of. It never leaves this thread. */
export type OpenJob = JobDocument & { readonly memo: Memo };

interface RecordState {
  doc: JobDocument | null;
  /** Out of the bench's reach: the job as this device kept it, from when. */
  keptFrom: string | null;
  /** Set when the job could not be opened. */
  failed: string | null;
  save: SaveState;
  /** What was refused last, for the person to read. */
  refusal: string | null;
  /** An undo that needs a yes because somebody else touched the same. */
  ask: { way: 'undo' | 'redo'; text: string } | null;
  canUndo: string | null;
  canRedo: string | null;
}

const start: RecordState = {
  doc: null,
  keptFrom: null,
  failed: null,
  save: 'saved',
  refusal: null,
  ask: null,
  canUndo: null,
  canRedo: null,
};

/** The open job, shared by all stations: its records, what is selected, and the way edits reach the server. */
export const RecordStore = signalStore(
  { providedIn: 'root' },
  withState(start),
  withPaneInHand(),
  withComputed(({ doc }, memo = inject(PageMemo)) => ({
    records: computed((): OpenJob | null => {
      const open = doc();
      return open && { ...open, memo };
    }),
  })),
  withMethods((store, api = inject(Api), device = inject(Device), sender = inject(Sender), local = inject(LocalStore)) => {
    /** What the bench has said of the open job, and what of this device is on its way. */
    let replica: Replica | null = null;
    const show = (next: Replica, more: Partial<RecordState> = {}): void => {
      replica = next;
      patchState(store, { doc: shown(next), ...more });
    };

    /** The job from the bench, or, out of its reach, as it was kept here. */
    const read = async (jobId: string, personId: string): Promise<{ doc: JobDocument; keptFrom: string | null }> => {
      try {
        const doc = await api.job({ params: { jobId }, query: { personId, deviceId: device.id } });
        void local.keepJob(doc).catch(() => undefined);
        return { doc, keptFrom: null };
      } catch (error) {
        const kept = error instanceof ApiProblem && error.code === 'offline' ? await local.job(jobId).catch(() => undefined) : undefined;
        if (!kept) throw error;
        return { doc: kept.doc, keptFrom: kept.savedAt };
      }
    };
    /** What this device has made and the bench has not answered: this page's own, and what an earlier one left behind. */
    const onTheirWay = async (jobId: string): Promise<PendingEdit[]> => {
      const own = replica?.base.job.id === jobId ? replica.pending : [];
      const lines = localStorage.getItem('yp-lay-pending') ? await local.queued().catch(() => []) : [];
      const edits = await sender.orphans().catch(() => []);
      const before: PendingEdit[] = [
        ...edits.filter((e) => e.ownerId === jobId).map((e) => ({ id: e.id, patches: e.patches, revision: null })),
        ...lines.filter((q) => q.draft.jobId === jobId).map((q) => ({ id: q.draft.id, patches: q.draft.patches, revision: null })),
      ];
      return [...before.filter((p) => !own.some((o) => o.id === p.id)), ...own];
    };

    const load = async (jobId: string): Promise<void> => {
      const person = device.person() ?? (await device.connect());
      const { doc: base, keptFrom } = await read(jobId, person.id);
      const next = replicaOf(base, await onTheirWay(jobId));
      show(next, { keptFrom, failed: null, canUndo: base.canUndo, canRedo: base.canRedo });
      patchState(store, { selectedId: paneToTakeUp(shown(next), store.selectedId()) });
      // what an earlier life of this page did not get answered goes now, before anything new
      void sender
        .recover()
        .then(() => sender.settled())
        .then(() => catchUp(jobId));
    };

    /** Takes in what the bench has told. @param upTo every change of the job up to here is among them */
    const take = (changes: readonly Pick<Change, 'id' | 'patches' | 'revision'>[], upTo = 0): void => {
      if (!replica) return;
      const next = told(replica, changes, upTo);
      if (!next) return void load(replica.base.job.id).catch(() => undefined);
      show(next, { keptFrom: null });
      void local.keepJob(next.base).catch(() => undefined);
    };
    /** Asks for what was missed. */
    const catchUp = async (jobId: string): Promise<void> => {
      if (replica?.base.job.id !== jobId) return;
      const missed = await api.changesSince({ params: { jobId }, query: { after: replica.base.revision } }).catch(() => null);
      if (!missed || (replica.base.job.id as string) !== jobId) return;
      if (missed.isTooMuch) return load(jobId).catch(() => undefined);
      take(missed.changes, missed.revision);
    };
    /** The bench has numbered an edit of this device: it goes in with its turn, after whatever others made before it. */
    const numberedAs = (change: Change): void => {
      if (!replica) return;
      if (isNext(replica, change.revision)) return take([change]);
      show(numbered(replica, change));
      void catchUp(replica.base.job.id);
    };

    const reloadAfter = async (error: unknown, jobId: string): Promise<void> => {
      patchState(store, { save: 'refused', refusal: error instanceof Error ? error.message : String(error) });
      await load(jobId).catch(() => undefined);
    };
    const waiting = (isKept: boolean) => patchState(store, { save: isKept ? 'waiting' : 'unsafe' });
    /** Edits of this job that the bench has not answered yet: it is saved when the last one is. */
    let unanswered = 0;
    const saved = (): SaveState => (unanswered === 0 ? 'saved' : 'saving');
    /** Counts one more edit under way. @returns to be called when it is answered; called again it does nothing */
    const underWay = (): (() => void) => {
      unanswered++;
      let isAnswered = false;
      return () => {
        if (!isAnswered) unanswered--;
        isAnswered = true;
      };
    };

    const change = async (label: string, patches: Patch[]): Promise<void> => {
      const jobId = store.doc()?.job.id;
      if (!replica || !jobId || !device.person() || patches.length === 0) return;
      const id = uuidv7();
      show(held(replica, id, patches), { save: 'saving', refusal: null });
      const answered = underWay();
      try {
        const answer = await sender.change(jobId, label, patches, () => replica?.base.revision ?? 0, waiting, id);
        answered();
        if (store.doc()?.job.id !== jobId) return;
        numberedAs(answer.change);
        patchState(store, { canUndo: answer.canUndo, canRedo: answer.canRedo, save: saved() });
      } catch (error) {
        answered();
        if (replica) show(refused(replica, id));
        await reloadAfter(error, jobId);
      }
    };

    const reverse = async (way: 'undo' | 'redo', force: boolean): Promise<void> => {
      const doc = store.doc();
      if (!doc || !device.person()) return;
      patchState(store, { ask: null, refusal: null, save: 'saving' });
      const answered = underWay();
      try {
        const answer = await sender.reverse(doc.job.id, way, force, waiting);
        answered();
        if (replica && needsReload(replica.base, answer.change.patches)) await load(doc.job.id);
        else numberedAs(answer.change);
        patchState(store, { canUndo: answer.canUndo, canRedo: answer.canRedo, save: saved() });
      } catch (error) {
        answered();
        patchState(store, { save: saved() });
        if (error instanceof ApiProblem && error.code === 'undo-conflict') patchState(store, { ask: { way, text: error.message } });
        else patchState(store, { refusal: error instanceof Error ? error.message : String(error) });
      }
    };

    return {
      change,
      reverse,
      load,
      /** Opens a job; remembers in the state when it cannot be opened. */
      async open(jobId: string): Promise<void> {
        if (store.doc()?.job.id !== jobId) {
          replica = null;
          patchState(store, { ...start, ...nothingInHand });
        }
        try {
          await load(jobId);
        } catch (error) {
          patchState(store, { failed: error instanceof Error ? error.message : String(error) });
        }
      },
      /** Takes in what the bench tells of the open job: what others made, and this device's own. */
      receive: (change: Change): void => take([change]),
      /** The line to the bench is open again: what was missed is asked for. */
      catchUp: (): Promise<void> => (replica ? catchUp(replica.base.job.id) : Promise.resolve()),
      /** Loads the open job anew. */
      reload: (): Promise<void> => (replica ? load(replica.base.job.id).catch(() => undefined) : Promise.resolve()),
      /** An edit that another queue of this device has kept and will deliver is shown. */
      hold(id: string, patches: readonly Patch[]): void {
        if (replica) show(held(replica, id, patches));
      },
      /** The bench has written this device's lines down. */
      received(change: Change): void {
        if (!replica || change.jobId !== replica.base.job.id) return;
        numberedAs(change);
        if (store.save() === 'waiting' && unanswered === 0) patchState(store, { save: 'saved' });
      },
      dismiss: (): void => patchState(store, { refusal: null, ask: null, save: store.save() === 'refused' ? 'saved' : store.save() }),
      /** Brings measures in from CSV. @returns what happened, in words */
      async importMeasures(csv: string): Promise<string> {
        const doc = store.doc();
        const person = device.person();
        if (!doc || !person) return 'No job is open.';
        await sender.settled();
        try {
          const done = await api.importMeasures({ params: { jobId: doc.job.id }, query: { personId: person.id, deviceId: device.id }, body: csv });
          await device.connect();
          await load(doc.job.id);
          return `${done.readings} measures came in${done.surfaces ? `, ${done.surfaces} panes are new` : ''}.`;
        } catch (error) {
          if (!(error instanceof ApiProblem)) throw error;
          return [error.message, ...error.faults.map((f) => `${f.path}: ${f.message}`)].join('\n');
        }
      },
      /** Sets fields of one record as one change. */
      set: (label: string, kind: Patch['kind'], id: string, fields: Record<string, unknown>): Promise<void> =>
        change(
          label,
          Object.entries(fields).map(([field, value]) => ({ op: 'set', kind, id, field, value })),
        ),
    };
  }),
);
