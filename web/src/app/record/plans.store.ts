import { computed, effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { JobDocument, Layout, Patch, Piece, Plan } from '@yellow-pane/contracts';
import {
  CORE_VERSION,
  doneSteps,
  filmsToCut,
  filmPlanInput,
  finishedPieces,
  isTaken,
  knifeOrder,
  movePiece,
  newestPlan,
  promiseNeededMm,
  reserve,
  SETTLED_STEPS,
  standingPlan,
  takeFromStock,
  type FilmPlanInput,
  type MovedByHand,
  type MoveTarget,
} from '@yellow-pane/core';
import { v7 as uuidv7 } from 'uuid';
import { LayoutSearch } from '../compute/layout-search';
import { Device } from './device';
import { RecordStore } from './record.store';

/** The cut plan of one film as the person sees it. */
export interface FilmPlan {
  readonly filmId: string;
  readonly hash: string;
  readonly pieces: readonly Piece[];
  readonly layout: Layout;
  /** Still being searched. */
  readonly running: boolean;
  /** Committed, and what it was made from has changed since: it stands until the person plans anew. */
  readonly isStale: boolean;
  readonly stored: Plan | null;
}

/** How long typing rests before a layout is searched, ms. */
const REST_MS = 250;

/** Cut plans of the open job: taken from the records while they hold, searched anew when their input changed. */
export const PlansStore = signalStore(
  { providedIn: 'root' },
  withState<{ byFilm: Record<string, FilmPlan> }>({ byFilm: {} }),
  withComputed((_store, record = inject(RecordStore)) => ({
    inputs: computed<ReadonlyMap<string, FilmPlanInput>>(() => {
      const doc = record.doc();
      if (!doc) return new Map();
      return new Map(filmsToCut(doc).map((f) => [f.id, filmPlanInput(doc, doc.job.cut, f.id, newestPlan(doc.plans, f.id))]));
    }),
    done: computed(() => doneSteps(record.doc()?.entries ?? [])),
    finished: computed(() => {
      const doc = record.doc();
      return doc ? finishedPieces(doc.plans, doc.entries, doc.rolls) : new Set<string>();
    }),
  })),
  withMethods((store, record = inject(RecordStore), search = inject(LayoutSearch), device = inject(Device)) => {
    const put = (plan: FilmPlan) => patchState(store, { byFilm: { ...store.byFilm(), [plan.filmId]: plan } });

    const who = () => ({ personId: device.person()?.id ?? '', at: new Date().toISOString(), newId: () => uuidv7() });

    const save = async (plan: FilmPlan, byHand: { readonly label: string; readonly locked: readonly string[] } | null = null): Promise<void> => {
      const doc = record.doc();
      if (!doc) return;
      const old = newestPlan(doc.plans, plan.filmId);
      const stored: Plan = {
        id: uuidv7(),
        jobId: doc.job.id,
        filmId: plan.filmId,
        status: 'draft',
        inputHash: plan.hash,
        coreVersion: CORE_VERSION,
        pieces: [...plan.pieces],
        layout: plan.layout,
        lockedPieceIds: [...new Set([...(old?.lockedPieceIds ?? []), ...(byHand?.locked ?? [])])].filter((id) => plan.pieces.some((p) => p.id === id)),
        isByHand: byHand !== null,
        takenRollIds: [],
        updatedAt: new Date().toISOString(),
        deletedAt: null,
      };
      const patches: Patch[] = [{ op: 'add', kind: 'plan', id: stored.id, value: stored }];
      if (old?.status === 'draft') patches.push({ op: 'set', kind: 'plan', id: old.id, field: 'deletedAt', value: stored.updatedAt });
      await record.change(byHand?.label ?? 'Lay pieces on the roll', patches);
    };

    /** Films whose next plan is booked off the stock as soon as it is stored. */
    const takeAfter = new Set<string>();

    const start = (filmId: string, input: FilmPlanInput): void => {
      void search.search(input.layout, SETTLED_STEPS, (layout, done) => {
        if (store.inputs().get(filmId)?.hash !== input.hash) return;
        const plan: FilmPlan = { filmId, hash: input.hash, pieces: input.pieces, layout, running: !done, stored: null, isStale: false };
        put(plan);
        if (done) void save(plan).then(() => (takeAfter.delete(filmId) ? takeAll(filmId) : undefined));
      });
    };

    /** Drops that the knife has been at, by roll. */
    const held = (plan: FilmPlan): Map<string, Set<number>> => {
      const doc = record.doc();
      const out = new Map<string, Set<number>>();
      if (!doc) return out;
      for (const s of knifeOrder(plan.layout, plan.pieces, widthOf(doc), 'mm')) if (store.done().has(s.key)) out.set(s.rollId, (out.get(s.rollId) ?? new Set()).add(s.dropIndex)); // prettier-ignore
      return out;
    };

    /** Takes what the plan lays on a roll off the stock; the plan is committed by it. */
    const take = async (filmId: string, rollId: string): Promise<void> => {
      const doc = record.doc();
      const plan = doc && newestPlan(doc.plans, filmId);
      const roll = doc?.rolls.find((r) => r.id === rollId);
      if (!doc || !plan || !roll || roll.isToOrder || !device.person()) return;
      await record.change(`Take film off ${roll.label}`, takeFromStock(plan, rollId, doc, who()));
    };
    const takeAll = async (filmId: string): Promise<void> => {
      const plan = newestPlan(record.doc()?.plans ?? [], filmId);
      for (const r of plan?.layout.rolls ?? []) if (r.drops.length > 0) await take(filmId, r.rollId);
    };

    return {
      /** Brings every film's plan in line with its input. */
      follow(): void {
        const doc = record.doc();
        if (!doc) return;
        for (const [filmId, input] of store.inputs()) {
          const stored = newestPlan(doc.plans, filmId);
          const shown = store.byFilm()[filmId];
          const standing = standingPlan(stored, input, store.finished(), 'mm');
          if (standing.is !== 'committed' && input.pieces.length === 0) continue;
          if (standing.is === 'kept') {
            const { plan } = standing;
            if (shown?.stored !== plan)
              put({ filmId, hash: input.hash, pieces: input.pieces, layout: plan.layout, running: false, stored: plan, isStale: false });
          } else if (standing.is === 'committed' && shown?.hash !== input.hash) {
            const { plan } = standing;
            const isStale = standing.changes.length > 0;
            if (shown?.stored !== plan || shown.isStale !== isStale)
              put({ filmId, hash: plan.inputHash, pieces: plan.pieces, layout: plan.layout, running: false, stored: plan, isStale });
          } else if (shown?.hash !== input.hash) start(filmId, input);
        }
      },
      stop(filmId: string): void {
        void search.stop(filmId);
        const plan = store.byFilm()[filmId];
        if (plan) {
          put({ ...plan, running: false });
          void save(plan);
        }
      },
      /** Searches again with the locks as they are now. @param thenTake books the film off at once, as for one piece more while the knife is at work */
      replan(filmId: string, thenTake = false): void {
        if (thenTake) takeAfter.add(filmId);
        const input = store.inputs().get(filmId);
        if (input) start(filmId, input);
      },
      /** Puts a piece where the person wants it; it is locked there. @returns what it does, or why it cannot be */
      tryMove(filmId: string, pieceId: string, to: MoveTarget): MovedByHand {
        const input = store.inputs().get(filmId);
        const plan = store.byFilm()[filmId];
        if (!input || !plan || plan.isStale) return { ok: false, message: 'This plan is being made anew.' };
        return movePiece(plan.layout, pieceId, to, input.layout, held(plan));
      },
      async move(filmId: string, pieceId: string, to: MoveTarget): Promise<string | null> {
        const moved = this.tryMove(filmId, pieceId, to);
        if (!moved.ok) return moved.message;
        const plan = { ...store.byFilm()[filmId]!, layout: moved.layout, running: false, stored: null };
        put(plan);
        await save(plan, { label: `Move ${plan.pieces.find((p) => p.id === pieceId)?.label ?? 'a piece'} by hand`, locked: [pieceId] });
        return null;
      },
      /** Promises this job what its plan lays on a roll, or lifts the promise. */
      async promise(filmId: string, rollId: string, isWanted: boolean): Promise<void> {
        const doc = record.doc();
        const plan = store.byFilm()[filmId];
        const roll = doc?.rolls.find((r) => r.id === rollId);
        if (!doc || !plan || !roll || !device.person()) return;
        const lengthMm = isWanted ? promiseNeededMm(plan, roll, doc.stock, doc.job.id) : 0;
        await record.change(
          isWanted ? `Promise ${roll.label} to this job` : `Lift the promise on ${roll.label}`,
          reserve(rollId, filmId, lengthMm, doc, who()),
        );
      },
      take,
      async toggleLock(filmId: string, pieceId: string): Promise<void> {
        const plan = newestPlan(record.doc()?.plans ?? [], filmId);
        if (!plan || plan.status === 'committed') return;
        const locked = plan.lockedPieceIds.includes(pieceId) ? plan.lockedPieceIds.filter((id) => id !== pieceId) : [...plan.lockedPieceIds, pieceId];
        await record.set(locked.length > plan.lockedPieceIds.length ? 'Lock a piece' : 'Unlock a piece', 'plan', plan.id, { lockedPieceIds: locked });
      },
      /** Ticks a knife step, or corrects a tick. The first tick at a roll takes its film off the stock: from then on the plan is frozen. @returns why not */
      async tick(filmId: string, stepKey: string, isDone: boolean): Promise<string | null> {
        const doc = record.doc();
        const person = device.person();
        // the record knows at once that the plan is committed; what is shown follows a moment later
        const plan = doc && newestPlan(doc.plans, filmId);
        if (!doc || !person || !plan || !store.byFilm()[filmId]?.stored) return null;
        const entry = {
          id: uuidv7(),
          jobId: doc.job.id,
          at: new Date().toISOString(),
          personId: person.id,
          kind: isDone ? 'cut-done' : 'cut-undone',
          planId: plan.id,
          stepKey,
          surfaceId: null,
          note: '',
        };
        const rollId = knifeOrder(plan.layout, plan.pieces, widthOf(doc), 'mm').find((s) => s.key === stepKey)?.rollId;
        const roll = doc.rolls.find((r) => r.id === rollId);
        if (isDone && roll?.isToOrder) return `${roll.label} still has to be ordered. When it has come, say so in Stock.`;
        // the first cut at a roll takes its film off the stock, as a change of its own that a person may have made before
        if (isDone && rollId && !isTaken(plan, rollId)) void take(filmId, rollId);
        const patches: Patch[] = [{ op: 'add', kind: 'logEntry', id: entry.id, value: entry }];
        await record.change(isDone ? 'Cut made' : 'Cut tick corrected', patches);
        return null;
      },
    };
  }),
  withHooks({
    onInit(store) {
      let timer: ReturnType<typeof setTimeout> | undefined;
      effect(() => {
        store.inputs();
        clearTimeout(timer);
        timer = setTimeout(() => untracked(() => store.follow()), REST_MS);
      });
    },
  }),
);

const widthOf = (doc: JobDocument) => (id: string) => doc.rolls.find((r) => r.id === id)?.widthMm ?? 0;
