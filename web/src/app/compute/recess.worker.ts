import { expose } from 'comlink';
import { planRecess, type RecessPlan, type RecessResult } from '@yellow-pane/core/form';
import type { RecessForm } from '@yellow-pane/core/measure';

const api = {
  /** The plan; `seen` is told of every order as it comes. */
  async plan(form: RecessForm, limitFrac: number | null, seen: (result: RecessResult) => Promise<void> | void): Promise<RecessPlan> {
    const run = planRecess(form, limitFrac);
    for (;;) {
      const { value, done } = run.next();
      if (done) return value;
      await seen(value);
    }
  },
};

export type RecessWorker = typeof api;
expose(api);
