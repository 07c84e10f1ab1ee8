import { expose } from 'comlink';
import { cutMethod, type CutSettings, type Layout } from '@yellow-pane/contracts';
import { filmPlanInput, handyFigures, LayoutPlanner, Memo, methodFigures, newestPlan, pullCost, repeatLossMm, workedOut, type PlanRecords, type CutShort, type FilmPlanInput, type HandyFigures, type LayoutInput, type MethodFigures } from '@yellow-pane/core'; // prettier-ignore
import type { UnitSystem } from '@yellow-pane/core/ground';
import { onlyWhatIsOther, type OrAsBefore } from './as-before';
import { heard, type Mirrored, type Told } from './mirror';

/** What a film's plan costs beside the film itself. */
export interface Extras {
  /** What matching the pattern costs in length, mm. */
  readonly repeatMm: number;
  readonly handy: HandyFigures | null;
}

/** How long the search may hold the thread before it looks whether it was stopped, ms. */
const SLICE_MS = 40;
/** How long a plan is searched at most, ms. Time only decides how many steps are run; the steps decide the plan. */
const SEARCH_MS = 4000;
let current = 0;
/** What this worker has had worked out. */
const memo = new Memo();
/** The records of the open job as this worker was told them. */
let mirrored: Mirrored | null = null;
const records = (): PlanRecords => ({ ...mirrored, memo }) as unknown as PlanRecords;
/** What was last answered of each film, as text. */
const answered = new Map<string, string>();

const api = {
  /**
   * Searches a layout: reports the instant answer, every better one, and the last with its bound.
   * A new search, or `stop`, ends the one before; the plan of a search that ran to its end is fixed by input and steps.
   */
  async search(input: LayoutInput, steps: number, report: (layout: Layout, done: boolean) => void): Promise<void> {
    const mine = ++current;
    const planner = new LayoutPlanner(input);
    report(planner.result(), false);
    let best = planner.result().cost;
    const end = Date.now() + SEARCH_MS;
    while (planner.steps < steps && !planner.isDone && Date.now() < end) {
      const until = Date.now() + SLICE_MS;
      while (Date.now() < until && planner.steps < steps) planner.step();
      await new Promise((r) => setTimeout(r));
      if (mine !== current) return;
      const now = planner.result();
      if (now.cost < best) report(now, false);
      best = now.cost;
    }
    planner.computeBound(60);
    if (mine === current) report(planner.result(), true);
  },
  stop(): void {
    current++;
  },
  hear(told: Told): void {
    mirrored = heard(mirrored, told);
  },
  /** What has to be cut, film by film, and which pieces are short; a film whose part is as it was last answered is only said to be. */
  workOut(units: UnitSystem): { inputs: Map<string, OrAsBefore<FilmPlanInput>>; short: readonly CutShort[] } {
    const { inputs, short } = workedOut(records(), units);
    return { inputs: onlyWhatIsOther(inputs, answered), short };
  },
  /** As if nothing had been cut yet. */
  methods: (settings: CutSettings, filmId: string): MethodFigures[] =>
    cutMethod.options.map((m) => methodFigures({ ...records(), entries: [] }, settings, filmId, m)),
  /** What the longest pull costs on a film. */
  pullCost(filmId: string): number | null {
    const all = records();
    return pullCost(filmPlanInput({ ...all, entries: [] }, all.job.cut, filmId, undefined).layout);
  },
  extras(filmId: string): Extras {
    const all = records();
    const input = filmPlanInput(all, all.job.cut, filmId, newestPlan(all.plans, filmId));
    return { repeatMm: repeatLossMm(input.layout), handy: handyFigures(all, all.job.cut, filmId) };
  },
};

export type LayoutWorker = typeof api;
expose(api);
