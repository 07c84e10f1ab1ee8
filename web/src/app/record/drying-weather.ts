import { inject, Injectable, signal } from '@angular/core';
import type { DryingDays } from '@yellow-pane/core/check';
import { Api } from './api';

type Heard = readonly ({ readonly surfaceId: string } & DryingDays)[];

/** The weather behind the drying of laid panes, as the bench reckons it; out of reach what was heard last stands, or a plain room. */
@Injectable({ providedIn: 'root' })
export class DryingWeather {
  private readonly api = inject(Api);
  private readonly days = signal<{ readonly jobId: string; readonly byPane: ReadonlyMap<string, DryingDays> } | null>(null);

  /** Of the panes of a job; of none where nobody has heard yet. */
  of(jobId: string): (surfaceId: string) => DryingDays | null {
    const days = this.days();
    return (id) => (days?.jobId === jobId ? (days.byPane.get(id) ?? null) : null);
  }

  async hear(jobId: string): Promise<void> {
    const kept = `yp-drying-${jobId}`;
    const take = (list: Heard) => this.days.set({ jobId, byPane: new Map(list.map((d) => [d.surfaceId, d])) });
    try {
      const list: Heard = await this.api.drying({ params: { jobId } });
      take(list);
      localStorage.setItem(kept, JSON.stringify(list));
    } catch {
      const old = localStorage.getItem(kept);
      if (old) take(JSON.parse(old) as Heard);
    }
  }
}
