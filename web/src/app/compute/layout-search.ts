import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { CutSettings, Layout } from '@yellow-pane/contracts';
import type { PlanRecords, FilmPlanInput, LayoutInput, MethodFigures, WorkedOut } from '@yellow-pane/core';
import type { UnitSystem } from '@yellow-pane/core/ground';
import { inFull } from './as-before';
import type { Extras, LayoutWorker } from './layout.worker';
import { toldSince, type Mirrored } from './mirror';

/** The records that pieces and plans are worked out from, as they may leave this thread. */
export type PlainPlanRecords = Omit<PlanRecords, 'memo'>;
/** Those of a job's records, and nothing else of it. */
const planRecords = ({ firm, job, surfaces, readings, films, rolls, stock, plans, entries }: PlainPlanRecords): Mirrored => ({
  firm,
  job,
  surfaces,
  readings,
  films,
  rolls,
  stock,
  plans,
  entries,
});

/** What of pieces and layout is worked out in web workers: one for each film's search, one that follows the open job, one for comparing. */
@Injectable({ providedIn: 'root' })
export class LayoutSearch {
  private readonly workers = new Map<string, Remote<LayoutWorker>>();
  /** What each worker was told of the job. */
  private readonly told = new Map<string, Mirrored>();
  private inputs: ReadonlyMap<string, FilmPlanInput> = new Map();

  private worker(name: string): Remote<LayoutWorker> {
    let remote = this.workers.get(name);
    if (!remote) {
      remote = wrap<LayoutWorker>(new Worker(new URL('./layout.worker', import.meta.url), { type: 'module' }));
      this.workers.set(name, remote);
    }
    return remote;
  }
  /** A worker that knows these records. */
  private knowing(name: string, records: PlainPlanRecords): Remote<LayoutWorker> {
    const remote = this.worker(name);
    const now = planRecords(records);
    void remote.hear(toldSince(this.told.get(name) ?? null, now));
    this.told.set(name, now);
    return remote;
  }

  search(input: LayoutInput, steps: number, report: (layout: Layout, done: boolean) => void): Promise<void> {
    return this.worker(input.filmId).search(input, steps, proxy(report));
  }

  stop(filmId: string): Promise<void> {
    return this.worker(filmId).stop();
  }

  /** What has to be cut by these records. Answers come in the order they are asked for; a film's part that is as before is the same object. */
  async workOut(records: PlainPlanRecords, units: UnitSystem): Promise<WorkedOut> {
    const { inputs, short } = await this.knowing('the job', records).workOut(units);
    this.inputs = inFull(inputs, this.inputs);
    return { inputs: this.inputs, short };
  }

  methods(records: PlainPlanRecords, settings: CutSettings, filmId: string): Promise<MethodFigures[]> {
    return this.knowing('compare', records).methods(settings, filmId);
  }
  pullCost(records: PlainPlanRecords, filmId: string): Promise<number | null> {
    return this.knowing('compare', records).pullCost(filmId);
  }
  extras(records: PlainPlanRecords, filmId: string): Promise<Extras> {
    return this.knowing('compare', records).extras(filmId);
  }
}
