import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { HeatAim, HeatCase, HeatFactor } from '@yellow-pane/core/lay';
import type { HeatWorker } from './heat.worker';

/** Speeds of a gun at many distances, in a web worker. */
@Injectable({ providedIn: 'root' })
export class HeatSearch {
  private remote: Remote<HeatWorker> | null = null;

  map(c: HeatCase, aim: HeatAim, distancesMm: readonly number[], factor: HeatFactor): Promise<ReturnType<HeatWorker['map']>> {
    this.remote ??= wrap<HeatWorker>(new Worker(new URL('./heat.worker', import.meta.url), { type: 'module' }));
    return this.remote.map(c, aim, distancesMm, factor);
  }
}
