import { computed, effect, inject, untracked } from '@angular/core';
import { patchState, signalStore, withComputed, withHooks, withMethods, withState } from '@ngrx/signals';
import type { Plan } from '@yellow-pane/contracts';
import {
  doneSteps,
  finishedPieces,
  isTaken,
  movePiece,
  newestPlan,
  promiseNeededMm,
  reserve,
  SETTLED_STEPS,
  takeFromStock,
  type FilmPlanInput,
  type MovedByHand,
  type MoveTarget,
} from '@yellow-pane/core';
import { v7 as uuidv7 } from 'uuid';
import { LayoutSearch } from '../compute/layout-search';
import { Device } from './device';
import { draftPatches, heldDrops, isOvertaken, planToShow, rollOfStep, tickPatch, type ByHand, type FilmPlan } from './plans.updaters';
import { RecordStore } from './record.store';
import { WorkedOutJob } from './worked-out';

/** Cut plans of the open job: taken from the records while they hold, searched anew when their input changed. */
export const PlansStore = signalStore(
  { providedIn: 'root' },
  withState<{ byFilm: Record<string, FilmPlan>; sought: readonly string[] }>({ byFilm: {}, sought: [] }),
  withComputed((_store, record = inject(RecordStore), worked = inject(WorkedOutJob)) => ({
    inputs: worked.inputs.asReadonly(),
    /** What was changed last is not in the inputs yet. */
    isBehind: computed(() => record.records() !== worked.of()),
    done: computed(() => doneSteps(record.doc()?.entries ?? [])),
    finished: computed(() => {
      const doc = record.doc();
      return doc ? finishedPieces(doc.plans, doc.entries, doc.rolls) : new Set<string>();
    }),
  })),
  withMethods((store, record = inject(RecordStore), worked = inject(WorkedOutJob), search = inject(LayoutSearch), device = inject(Device)) => {
    const put = (plan: FilmPlan) => patchState(store, { byFilm: { ...store.byFilm(), [plan.filmId]: plan } });

    const who = () => ({ personId: device.person()?.id ?? '', at: new Date().toISOString(), newId: () => uuidv7() });

    const save = async (plan: FilmPlan, byHand: ByHand | null = null): Promise<void> => {
      const doc = record.doc();
      if (doc) await record.change(byHand?.label ?? 'Lay pieces on the roll', draftPatches(doc, plan, byHand, uuidv7(), new Date().toISOString()));
    };
    const newest = (filmId: string): Plan | undefined => newestPlan(record.doc()?.plans ?? [], filmId);

    /** Films whose next plan is booked off the stock as soon as it is stored. */
    const takeAfter = new Set<string>();

    /** The plan that somebody cuts by stands and is shown; nothing of the one that came too late is kept or taken off the stock. */
    const giveWay = (filmId: string, input: FilmPlanInput, late: FilmPlan): void => {
      takeAfter.delete(filmId);
      const standing = planToShow(input, newest(filmId), store.finished(), late);
      if (standing && standing !== 'search') put(standing);
    };

    const seek = (filmId: string, isSought: boolean) =>
      patchState(store, { sought: [...store.sought().filter((id) => id !== filmId), ...(isSought ? [filmId] : [])] });
    /** The search that counts, film by film, while it is at work. */
    const searches = new Map<string, { readonly hash: string }>();
    const start = (filmId: string, input: FilmPlanInput): void => {
      const beside = newest(filmId);
      const mine = { hash: input.hash };
      searches.set(filmId, mine);
      seek(filmId, true);
      void search.search(input.layout, SETTLED_STEPS, async (layout, done) => {
        // what was changed while it searched may have made other pieces of the panes
        if (done) await worked.fresh();
        if (searches.get(filmId) !== mine) return;
        if (done) {
          searches.delete(filmId);
          seek(filmId, false);
        }
        if (store.inputs().get(filmId)?.hash !== input.hash) return;
        const plan: FilmPlan = { filmId, hash: input.hash, pieces: input.pieces, layout, running: !done, stored: null, isStale: false, beside };
        if (isOvertaken(plan, newest(filmId))) return giveWay(filmId, input, plan);
        put(plan);
        if (done) void save(plan).then(() => (takeAfter.delete(filmId) ? takeAll(filmId) : undefined));
      });
    };

    /** Takes what the plan lays on a roll off the stock; the plan is committed by it. */
    const take = async (filmId: string, rollId: string): Promise<void> => {
      const doc = record.doc();
      const plan = newest(filmId);
      const roll = doc?.rolls.find((r) => r.id === rollId);
      if (!doc || !plan || !roll || roll.isToOrder || !device.person()) return;
      await record.change(`Take film off ${roll.label}`, takeFromStock(plan, rollId, doc, who()));
    };
    const takeAll = async (filmId: string): Promise<void> => {
      for (const r of newest(filmId)?.layout.rolls ?? []) if (r.drops.length > 0) await take(filmId, r.rollId);
    };

    return {
      /** Brings every film's plan in line with its input. */
      follow(): void {
        const doc = record.doc();
        if (!doc) return;
        for (const [filmId, input] of store.inputs()) {
          const shown = store.byFilm()[filmId];
          // of this input, but its search has ended for nothing or given way: what it was for had gone, and has come back
          const isLost = shown?.running === true && shown.hash === input.hash && searches.get(filmId)?.hash !== input.hash;
          const next = planToShow(input, newest(filmId), store.finished(), isLost ? undefined : shown);
          if (next === 'search') start(filmId, input);
          else if (next) put(next);
        }
      },
      stop(filmId: string): void {
        void search.stop(filmId);
        seek(filmId, false);
        const [plan, input] = [store.byFilm()[filmId], store.inputs().get(filmId)];
        if (!plan) return;
        if (input && isOvertaken(plan, newest(filmId))) return giveWay(filmId, input, plan);
        put({ ...plan, running: false });
        void save(plan);
      },
      /** Searches again with the locks as they are now. @param thenTake books the film off at once, as for one piece more while the knife is at work */
      async replan(filmId: string, thenTake = false): Promise<void> {
        if (thenTake) takeAfter.add(filmId);
        await worked.fresh();
        const input = store.inputs().get(filmId);
        if (input) start(filmId, input);
      },
      /** Puts a piece where the person wants it; it is locked there. @returns what it does, or why it cannot be */
      tryMove(filmId: string, pieceId: string, to: MoveTarget): MovedByHand {
        const input = store.inputs().get(filmId);
        const plan = store.byFilm()[filmId];
        if (!input || !plan || plan.isStale) return { ok: false, message: 'This plan is being made anew.' };
        return movePiece(plan.layout, pieceId, to, input.layout, heldDrops(record.doc()!, plan, store.done()));
      },
      async move(filmId: string, pieceId: string, to: MoveTarget): Promise<string | null> {
        const moved = this.tryMove(filmId, pieceId, to);
        if (!moved.ok) return moved.message;
        const plan = { ...store.byFilm()[filmId]!, layout: moved.layout, running: false, stored: null, beside: newest(filmId) };
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
        const plan = newest(filmId);
        if (!plan || plan.status === 'committed') return;
        const locked = plan.lockedPieceIds.includes(pieceId) ? plan.lockedPieceIds.filter((id) => id !== pieceId) : [...plan.lockedPieceIds, pieceId];
        await record.set(locked.length > plan.lockedPieceIds.length ? 'Lock a piece' : 'Unlock a piece', 'plan', plan.id, { lockedPieceIds: locked });
      },
      /** Ticks a knife step, or corrects a tick. The first tick at a roll takes its film off the stock: from then on the plan is frozen. @returns why not */
      async tick(filmId: string, stepKey: string, isDone: boolean): Promise<string | null> {
        const doc = record.doc();
        const person = device.person();
        // the record knows at once that the plan is committed; what is shown follows a moment later
        const plan = newest(filmId);
        if (!doc || !person || !plan || !store.byFilm()[filmId]?.stored) return null;
        const rollId = rollOfStep(doc, plan, stepKey);
        const roll = doc.rolls.find((r) => r.id === rollId);
        if (isDone && roll?.isToOrder) return `${roll.label} still has to be ordered. When it has come, say so in Stock.`;
        // the first cut at a roll takes its film off the stock, as a change of its own that a person may have made before
        if (isDone && rollId && !isTaken(plan, rollId)) void take(filmId, rollId);
        const by = { personId: person.id, id: uuidv7(), at: new Date().toISOString() };
        await record.change(isDone ? 'Cut made' : 'Cut tick corrected', [tickPatch(plan, stepKey, isDone, by)]);
        return null;
      },
    };
  }),
  withHooks({
    onInit(store) {
      const [worked, record] = [inject(WorkedOutJob), inject(RecordStore)];
      effect(() => {
        const of = worked.of();
        untracked(() => {
          // what came in meanwhile is being worked out, and followed then
          if (of && of === record.records()) store.follow();
        });
      });
    },
  }),
);
