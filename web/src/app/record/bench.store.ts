import { inject } from '@angular/core';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import type { BenchDocument, Patch } from '@yellow-pane/contracts';
import { Api } from './api';
import { Device } from './device';
import { Sender } from './sender';
import { applyBenchPatches } from './updaters';

interface BenchState {
  doc: BenchDocument | null;
  failed: string | null;
  refusal: string | null;
}

/** What belongs to the firm, open outside a job: people, films, rolls. Edits go the same way as a job's, under the firm's id. */
export const BenchStore = signalStore(
  { providedIn: 'root' },
  withState<BenchState>({ doc: null, failed: null, refusal: null }),
  withMethods((store, api = inject(Api), device = inject(Device), sender = inject(Sender)) => {
    const load = async (): Promise<void> => {
      try {
        const person = device.person() ?? (await device.connect());
        const doc = await api.bench(person.id);
        device.firm.set(doc.firm);
        device.persons.set(doc.persons);
        patchState(store, { doc, failed: null });
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
        try {
          const { change, canUndo, canRedo } = await sender.change(
            doc.firm.id,
            label,
            patches,
            () => store.doc()!.revision,
            () => undefined,
          );
          const now = store.doc()!;
          device.firm.set(now.firm);
          device.persons.set(now.persons);
          patchState(store, { doc: { ...now, revision: change.revision, canUndo, canRedo } });
          return true;
        } catch (error) {
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
