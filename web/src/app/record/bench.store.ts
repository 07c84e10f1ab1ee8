import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import type { BenchDocument, Patch } from '@yellow-pane/contracts';
import { Api, ApiProblem } from './api';
import { LocalStore } from './local-store';
import { Device } from './device';
import { Sender } from './sender';
import { applyBenchPatches } from './updaters';

interface BenchState {
  doc: BenchDocument | null;
  failed: string | null;
  refusal: string | null;
  /** Edits that the bench has not answered: kept in this browser, or not even that. */
  waiting: 'nothing' | 'kept' | 'unsafe';
}

/** What belongs to the firm, open outside a job: people, films, rolls. Edits go the same way as a job's, under the firm's id. */
export const BenchStore = signalStore(
  { providedIn: 'root' },
  withState<BenchState>({ doc: null, failed: null, refusal: null, waiting: 'nothing' }),
  withMethods((store, api = inject(Api), device = inject(Device), sender = inject(Sender), local = inject(LocalStore)) => {
    /** The firm's records from the bench, or, out of its reach, as they were kept here; with this device's edits that are still on their way. */
    const read = async (personId: string): Promise<BenchDocument> => {
      let doc: BenchDocument;
      try {
        doc = await api.bench({ query: { personId, deviceId: device.id } });
        void local.keepBench(doc).catch(() => undefined);
      } catch (error) {
        const kept = error instanceof ApiProblem && error.code === 'offline' ? await local.bench().catch(() => undefined) : undefined;
        if (!kept) throw error;
        doc = kept;
      }
      const edits = (await sender.orphans().catch(() => [])).filter((e) => e.ownerId === doc.firm.id);
      if (edits.length) patchState(store, { waiting: 'kept' });
      return edits.reduce((d, e) => applyBenchPatches(d, e.patches), doc);
    };
    let unanswered = 0;
    const load = async (): Promise<void> => {
      try {
        const person = device.person() ?? (await device.connect());
        const doc = await read(person.id);
        device.firm.set(doc.firm);
        device.persons.set(doc.persons);
        patchState(store, { doc, failed: null });
        void sender.recover().then(() => sender.settled()).then(() => unanswered === 0 && patchState(store, { waiting: 'nothing' })); // prettier-ignore
      } catch (error) {
        patchState(store, { failed: error instanceof Error ? error.message : String(error) });
      }
    };
    const refuse = async (error: unknown): Promise<void> => {
      await load();
      patchState(store, { refusal: error instanceof Error ? error.message : String(error) });
    };
    return {
      load,
      dismiss: (): void => patchState(store, { refusal: null }),
      /** One edit; shown at once. @returns whether the bench took it */
      async change(label: string, patches: Patch[]): Promise<boolean> {
        const doc = store.doc();
        if (!doc || patches.length === 0) return false;
        patchState(store, { doc: applyBenchPatches(doc, patches), refusal: null });
        unanswered++;
        try {
          const { change, canUndo, canRedo } = await sender.change(
            doc.firm.id,
            label,
            patches,
            () => store.doc()!.revision,
            (isKept) => patchState(store, { waiting: isKept ? 'kept' : 'unsafe' }),
          );
          unanswered--;
          if (unanswered === 0) patchState(store, { waiting: 'nothing' });
          const now = store.doc()!;
          device.firm.set(now.firm);
          device.persons.set(now.persons);
          patchState(store, { doc: { ...now, revision: change.revision, canUndo, canRedo } });
          return true;
        } catch (error) {
          unanswered--;
          await refuse(error);
          return false;
        }
      },
      async reverse(way: 'undo' | 'redo'): Promise<void> {
        const doc = store.doc();
        if (!doc) return;
        try {
          await sender.reverse(doc.firm.id, way, false, () => undefined);
          await load();
        } catch (error) {
          await refuse(error);
        }
      },
    };
  }),
);
