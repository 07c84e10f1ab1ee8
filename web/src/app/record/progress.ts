import { computed, inject, Injectable } from '@angular/core';
import type { Surface } from '@yellow-pane/contracts';
import { surveySurface, type Survey } from '@yellow-pane/core';
import { PlansStore } from './plans.store';
import { RecordStore } from './record.store';

/** How far each surface has come. */
export interface Progress {
  readonly survey: Survey;
  readonly isMeasured: boolean;
  readonly isDoubtful: boolean;
  readonly isCut: boolean;
}

@Injectable({ providedIn: 'root' })
export class JobProgress {
  private readonly record = inject(RecordStore);
  private readonly plans = inject(PlansStore);

  readonly bySurface = computed<ReadonlyMap<string, Progress>>(() => {
    const doc = this.record.doc();
    if (!doc) return new Map();
    const finished = this.plans.finished();
    return new Map(doc.surfaces.map((s) => [s.id, this.of(s, surveySurface(s, doc), finished)]));
  });
  readonly measuredCount = computed(() => [...this.bySurface().values()].filter((p) => p.isMeasured).length);
  readonly cutCount = computed(() => [...this.bySurface().values()].filter((p) => p.isCut).length);

  private of(surface: Surface, { survey, isSigned }: ReturnType<typeof surveySurface>, finished: ReadonlySet<string>): Progress {
    return {
      survey,
      isMeasured: survey.status !== 'nothing' && survey.status !== 'impossible',
      isDoubtful: (survey.status === 'doubtful' && !isSigned) || survey.status === 'impossible',
      isCut: finished.has(surface.id) && surface.extraPieces.every((e) => finished.has(e.id)),
    };
  }
}
