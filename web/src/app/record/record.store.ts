import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import type { JobDocument, Patch, Surface, UnitSystem } from '@yellow-pane/contracts';
import { Api, ApiProblem } from './api';
import { Device } from './device';
import { LocalStore } from './local-store';
import { Sender } from './sender';
import { applyPatches, needsReload } from './updaters';

/** What the shell says about saving. */
export type SaveState = 'saved' | 'saving' | 'waiting' | 'refused';

interface RecordState {
  doc: JobDocument | null;
  /** Out of the bench's reach: the job as this device kept it, from when. */
  keptFrom: string | null;
  /** Set when the job could not be opened. */
  failed: string | null;
  selectedId: string | null;
  save: SaveState;
  /** What was refused last, for the person to read. */
  refusal: string | null;
  /** An undo that needs a yes because somebody else touched the same. */
  ask: { way: 'undo' | 'redo'; text: string } | null;
  canUndo: string | null;
  canRedo: string | null;
  /** "Seen from": true when drawings show the other side than the survey was made from. */
  otherSide: boolean;
  /** The sheet that takes a film and a roll is open. */
  filmSheet: boolean;
  /** How lengths are shown here; null = as the job says. */
  shownUnits: UnitSystem | null;
}

/** Where the person was in a job, kept on this device. */
const lastPaneKey = (jobId: string): string => `yp-pane-${jobId}`;

const start: RecordState = {
  doc: null,
  keptFrom: null,
  failed: null,
  selectedId: null,
  save: 'saved',
  refusal: null,
  ask: null,
  canUndo: null,
  canRedo: null,
  otherSide: false,
  filmSheet: false,
  shownUnits: null,
};

/** The open job, shared by all stations: its records, what is selected, and the way edits reach the server. */
export const RecordStore = signalStore(
  { providedIn: 'root' },
  withState(start),
  withComputed((store) => ({
    units: computed<UnitSystem>(() => store.shownUnits() ?? store.doc()?.job.units ?? 'mm'),
    surface: computed<Surface | null>(() => store.doc()?.surfaces.find((s) => s.id === store.selectedId()) ?? null),
  })),
  withMethods((store, api = inject(Api), device = inject(Device), sender = inject(Sender), local = inject(LocalStore)) => {
    const pick = (selectedId: string): void => {
      patchState(store, { selectedId });
      const jobId = store.doc()?.job.id;
      if (jobId) localStorage.setItem(lastPaneKey(jobId), selectedId);
    };

    /** The job from the bench, or, out of its reach, as it was kept here; with the lines of the log that are still on their way. */
    const read = async (jobId: string, personId: string): Promise<{ doc: JobDocument; keptFrom: string | null }> => {
      try {
        const doc = await api.job(jobId, personId);
        void local.keepJob(doc).catch(() => undefined);
        return { doc: await withWaiting(doc), keptFrom: null };
      } catch (error) {
        const kept = error instanceof ApiProblem && error.code === 'offline' ? await local.job(jobId).catch(() => undefined) : undefined;
        if (!kept) throw error;
        return { doc: await withWaiting(kept.doc), keptFrom: kept.savedAt };
      }
    };
    const withWaiting = async (doc: JobDocument): Promise<JobDocument> => {
      const waiting = localStorage.getItem('yp-lay-pending') ? await local.queued().catch(() => []) : [];
      return applyPatches(doc, waiting.filter((q) => q.draft.jobId === doc.job.id).flatMap((q) => q.draft.patches)); // prettier-ignore
    };

    const load = async (jobId: string): Promise<void> => {
      const person = device.person() ?? (await device.connect());
      const { doc, keptFrom } = await read(jobId, person.id);
      const there = (id: string | null) => doc.surfaces.find((s) => s.id === id)?.id;
      const selectedId = there(store.selectedId()) ?? there(localStorage.getItem(lastPaneKey(jobId))) ?? doc.surfaces[0]?.id ?? null;
      patchState(store, { doc, keptFrom, failed: null, canUndo: doc.canUndo, canRedo: doc.canRedo, selectedId });
    };

    const reloadAfter = async (error: unknown, jobId: string): Promise<void> => {
      patchState(store, { save: 'refused', refusal: error instanceof Error ? error.message : String(error) });
      await load(jobId).catch(() => undefined);
    };
    const waiting = () => patchState(store, { save: 'waiting' });
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
      const doc = store.doc();
      if (!doc || !device.person() || patches.length === 0) return;
      patchState(store, { doc: applyPatches(doc, patches), save: 'saving', refusal: null });
      const answered = underWay();
      try {
        const answer = await sender.change(doc.job.id, label, patches, () => store.doc()?.revision ?? doc.revision, waiting);
        answered();
        const now = store.doc();
        if (now?.job.id === doc.job.id)
          patchState(store, { doc: { ...now, revision: answer.change.revision }, canUndo: answer.canUndo, canRedo: answer.canRedo, save: saved() });
      } catch (error) {
        answered();
        await reloadAfter(error, doc.job.id);
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
        const now = store.doc()!;
        if (needsReload(now, answer.change.patches)) await load(doc.job.id);
        else patchState(store, { doc: { ...applyPatches(now, answer.change.patches), revision: answer.change.revision } });
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
        if (store.doc()?.job.id !== jobId) patchState(store, { ...start });
        try {
          await load(jobId);
        } catch (error) {
          patchState(store, { failed: error instanceof Error ? error.message : String(error) });
        }
      },
      /** Takes in what was made elsewhere, or what this device has just written down. @param revision null: the bench has not numbered it yet */
      receive(patches: readonly Patch[], revision: number | null): void {
        const doc = store.doc();
        if (!doc) return;
        if (needsReload(doc, patches)) return void load(doc.job.id).catch(() => undefined);
        patchState(store, { doc: { ...applyPatches(doc, patches), revision: Math.max(doc.revision, revision ?? 0) } });
      },
      /** The bench has written this device's lines down: the kept job is brought up to date with them. */
      received(patches: readonly Patch[], revision: number): void {
        const doc = store.doc();
        const own = patches[0]?.op === 'add' ? patches[0].value['jobId'] : null;
        if (!doc || own !== doc.job.id) return;
        const next = { ...applyPatches(doc, patches), revision: Math.max(doc.revision, revision) };
        patchState(store, { doc: next, keptFrom: null });
        void local.keepJob(next).catch(() => undefined);
      },
      select: pick,
      step(by: 1 | -1): void {
        const list = store.doc()?.surfaces ?? [];
        const at = list.findIndex((s) => s.id === store.selectedId());
        const next = list[Math.min(list.length - 1, Math.max(0, at + by))];
        if (next) pick(next.id);
      },
      toggleSide: (): void => patchState(store, { otherSide: !store.otherSide() }),
      openFilmSheet: (filmSheet: boolean): void => patchState(store, { filmSheet }),
      toggleUnits: (): void => patchState(store, { shownUnits: store.units() === 'mm' ? 'in' : 'mm' }),
      dismiss: (): void => patchState(store, { refusal: null, ask: null, save: store.save() === 'refused' ? 'saved' : store.save() }),
      /** Brings measures in from CSV. @returns what happened, in words */
      async importMeasures(csv: string): Promise<string> {
        const doc = store.doc();
        const person = device.person();
        if (!doc || !person) return 'No job is open.';
        await sender.settled();
        try {
          const done = await api.importMeasures(doc.job.id, csv, { personId: person.id, deviceId: device.id });
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
