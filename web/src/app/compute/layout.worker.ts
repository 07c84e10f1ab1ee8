import { expose } from 'comlink';
import { cutMethod, type CutSettings, type Layout, type LogEntry } from '@yellow-pane/contracts';
import { LayoutPlanner, Memo, methodFigures, type LayoutInput, type MethodFigures, type PlainRecords } from '@yellow-pane/core';

/** How long the search may hold the thread before it looks whether it was stopped, ms. */
const SLICE_MS = 40;
/** How long a plan is searched at most, ms. Time only decides how many steps are run; the steps decide the plan. */
const SEARCH_MS = 4000;
let current = 0;
/** What this worker has had worked out. */
const memo = new Memo();

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
  methods: (...[records, settings, filmId]: [PlainRecords & { readonly entries: readonly LogEntry[] }, CutSettings, string]): MethodFigures[] =>
    cutMethod.options.map((m) => methodFigures({ ...records, memo }, settings, filmId, m)),
};

export type LayoutWorker = typeof api;
expose(api);
