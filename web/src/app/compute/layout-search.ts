import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { CutSettings, Layout } from '@yellow-pane/contracts';
import type { LayoutInput, MethodFigures, PlainRecords } from '@yellow-pane/core';
import type { LogEntry } from '@yellow-pane/contracts';
import type { LayoutWorker } from './layout.worker';

/** The layout computations in web workers: one for each film's search, one for comparing methods. */
@Injectable({ providedIn: 'root' })
export class LayoutSearch {
  private readonly workers = new Map<string, Remote<LayoutWorker>>();

  private worker(name: string): Remote<LayoutWorker> {
    let remote = this.workers.get(name);
    if (!remote) {
      remote = wrap<LayoutWorker>(new Worker(new URL('./layout.worker', import.meta.url), { type: 'module' }));
      this.workers.set(name, remote);
    }
    return remote;
  }

  search(input: LayoutInput, steps: number, report: (layout: Layout, done: boolean) => void): Promise<void> {
    return this.worker(input.filmId).search(input, steps, proxy(report));
  }

  stop(filmId: string): Promise<void> {
    return this.worker(filmId).stop();
  }

  methods(records: PlainRecords & { entries: readonly LogEntry[] }, settings: CutSettings, filmId: string): Promise<MethodFigures[]> {
    return this.worker('methods').methods(records, settings, filmId);
  }
}
