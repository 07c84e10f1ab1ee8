import { computed } from '@angular/core';
import { patchState, signalStoreFeature, type, withComputed, withMethods, withState } from '@ngrx/signals';
import type { Column, Counter, JobDocument, Pane, Panel, Sign, Surface, UnitSystem, Wall } from '@yellow-pane/contracts';
import type { DrySurface } from '@yellow-pane/core/measure';

/** What a person has in hand in the open job, and how it is shown: theirs alone, never an edit. */
export interface InHand {
  selectedId: string | null;
  /** "Seen from": true when drawings show the other side than the survey was made from. */
  otherSide: boolean;
  /** The sheet that takes a film and a roll is open. */
  filmSheet: boolean;
  /** How lengths are shown here; null = as the job says. */
  shownUnits: UnitSystem | null;
}
export const nothingInHand: InHand = { selectedId: null, otherSide: false, filmSheet: false, shownUnits: null };

/** Where the person was in a job, kept on this device. */
const lastPaneKey = (jobId: string): string => `yp-pane-${jobId}`;

/** The pane that is taken up when a job is shown: the one in hand, else where this person was last, else the first. */
export function paneToTakeUp(doc: JobDocument, inHand: string | null): string | null {
  const there = (id: string | null) => doc.surfaces.find((s) => s.id === id)?.id;
  return there(inHand) ?? there(localStorage.getItem(lastPaneKey(doc.job.id))) ?? doc.surfaces[0]?.id ?? null;
}

/** A surface, where it is of this kind. */
const inKind = <K extends Surface['kind']>(surface: Surface | null, kind: K): Extract<Surface, { kind: K }> | null =>
  surface?.kind === kind ? (surface as Extract<Surface, { kind: K }>) : null;

/** The part of the record's store that is about the pane in hand. */
export const withPaneInHand = () =>
  signalStoreFeature(
    { state: type<{ doc: JobDocument | null }>() },
    withState(nothingInHand),
    withComputed((store) => ({
      units: computed<UnitSystem>(() => store.shownUnits() ?? store.doc()?.job.units ?? 'mm'),
      surface: computed<Surface | null>(() => store.doc()?.surfaces.find((s) => s.id === store.selectedId()) ?? null),
    })),
    withComputed((store) => ({
      /** The surface in hand where it is a pane of glass. */
      pane: computed<Pane | null>(() => inKind(store.surface(), 'pane')),
      /** The surface in hand where it is a column. */
      column: computed<Column | null>(() => inKind(store.surface(), 'column')),
      /** The surface in hand where it is a panel. */
      panel: computed<Panel | null>(() => inKind(store.surface(), 'panel')),
      /** The surface in hand where it is a wall. */
      wall: computed<Wall | null>(() => inKind(store.surface(), 'wall')),
      /** The surface in hand where it is a counter or table top. */
      counter: computed<Counter | null>(() => inKind(store.surface(), 'counter')),
      /** The surface in hand where it is a sign. */
      sign: computed<Sign | null>(() => inKind(store.surface(), 'sign')),
      /** The surface in hand where film is laid on it dry. */
      drySurface: computed<DrySurface | null>(() => {
        const surface = store.surface();
        // asked here and not of the core: the first page carries no survey
        return surface && surface.kind !== 'pane' ? surface : null;
      }),
    })),
    withMethods((store) => {
      const select = (selectedId: string): void => {
        patchState(store, { selectedId });
        const jobId = store.doc()?.job.id;
        if (jobId) localStorage.setItem(lastPaneKey(jobId), selectedId);
      };
      return {
        select,
        /** To the next or the last pane in walking order; at either end it stays. */
        step(by: 1 | -1): void {
          const list = store.doc()?.surfaces ?? [];
          const at = list.findIndex((s) => s.id === store.selectedId());
          const next = list[Math.min(list.length - 1, Math.max(0, at + by))];
          if (next) select(next.id);
        },
        toggleSide: (): void => patchState(store, { otherSide: !store.otherSide() }),
        openFilmSheet: (filmSheet: boolean): void => patchState(store, { filmSheet }),
        toggleUnits: (): void => patchState(store, { shownUnits: store.units() === 'mm' ? 'in' : 'mm' }),
      };
    }),
  );
