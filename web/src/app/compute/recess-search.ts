import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { RecessPlan, RecessResult } from '@yellow-pane/core/form';
import type { RecessForm } from '@yellow-pane/core/measure';
import type { RecessWorker } from './recess.worker';

/** How far film stretches in a recess, in a web worker. What was asked before is not worked out again. */
@Injectable({ providedIn: 'root' })
export class RecessSearch {
  private remote: Remote<RecessWorker> | null = null;
  private readonly known = new Map<string, Promise<RecessPlan>>();

  plan({ acrossMm, upMm, depthMm, slopeMm, cornerMm }: RecessForm, limitFrac: number | null, seen: (result: RecessResult) => void): Promise<RecessPlan> {
    this.remote ??= wrap<RecessWorker>(new Worker(new URL('./recess.worker', import.meta.url), { type: 'module' }));
    const form = { acrossMm, upMm, depthMm, slopeMm, cornerMm };
    const key = JSON.stringify([form, limitFrac]);
    const known = this.known.get(key);
    if (known) return known;
    const found = this.remote.plan(form, limitFrac, proxy(seen));
    this.known.set(key, found);
    found.catch(() => this.known.delete(key));
    return found;
  }
}
