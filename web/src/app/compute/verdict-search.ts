import { Injectable } from '@angular/core';
import { proxy, wrap, type Remote } from 'comlink';
import type { Allowances, CutSettings, Film, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import type { PaneJudged, PaneToJudge } from '@yellow-pane/core/choose';
import type { Material, PaneSize } from '@yellow-pane/core/handover';
import type { VerdictWorker } from './verdict.worker';

/** The verdict on a pane, and what films cost, in a web worker. */
@Injectable({ providedIn: 'root' })
export class VerdictSearch {
  private remote: Remote<VerdictWorker> | null = null;
  private jobRemote: Remote<VerdictWorker> | null = null;

  private worker(): Remote<VerdictWorker> {
    this.remote ??= wrap<VerdictWorker>(new Worker(new URL('./verdict.worker', import.meta.url), { type: 'module' }));
    return this.remote;
  }

  judge(input: VerdictInput, films: readonly Film[]): Promise<PaneVerdict> {
    return this.worker().judge(input, [...films]);
  }

  costs(
    panes: readonly PaneSize[],
    films: readonly Film[],
    allowances: Allowances,
    cut: CutSettings,
    report: (filmId: string, material: Material) => void,
  ): Promise<void> {
    return this.worker().costs([...panes], [...films], allowances, cut, proxy(report));
  }

  /** Every pane of a job, in a thread of its own, so that the pane at hand is still judged at once. */
  judgeJob(items: readonly PaneToJudge[], report: (judged: readonly PaneJudged[]) => void): Promise<void> {
    this.jobRemote ??= wrap<VerdictWorker>(new Worker(new URL('./verdict.worker', import.meta.url), { type: 'module' }));
    return this.jobRemote.judgeJob([...items], proxy(report));
  }
  async stopJob(): Promise<void> {
    await this.jobRemote?.stop();
  }
}
