import { computed, inject, Injectable } from '@angular/core';
import { panesReadyToLay, piecesCutShort, surveySurface, type CutShort, type Survey } from '@yellow-pane/core';
import { laidPanes } from '@yellow-pane/core/lay';
import { RecordStore } from './record.store';

/** How far each surface has come. */
export interface Progress {
  readonly survey: Survey;
  readonly isMeasured: boolean;
  readonly isDoubtful: boolean;
  readonly isCut: boolean;
  readonly isLaid: boolean;
}

@Injectable({ providedIn: 'root' })
export class JobProgress {
  private readonly record = inject(RecordStore);

  /** Pieces already cut that do not cover their panes any more. */
  readonly short = computed<readonly CutShort[]>(() => {
    const doc = this.record.records();
    return doc ? piecesCutShort(doc, this.record.units()) : [];
  });
  readonly bySurface = computed<ReadonlyMap<string, Progress>>(() => {
    const doc = this.record.records();
    if (!doc) return new Map();
    const cut = panesReadyToLay(doc, this.short());
    const laid = laidPanes(doc.layEntries);
    return new Map(doc.surfaces.map((s) => [s.id, this.of(surveySurface(s, doc), cut.has(s.id), laid.has(s.id))]));
  });
  readonly measuredCount = computed(() => [...this.bySurface().values()].filter((p) => p.isMeasured).length);
  readonly laidCount = computed(() => [...this.bySurface().values()].filter((p) => p.isLaid).length);
  readonly cutCount = computed(() => [...this.bySurface().values()].filter((p) => p.isCut).length);

  private of({ survey, isSigned }: ReturnType<typeof surveySurface>, isCut: boolean, isLaid: boolean): Progress {
    return {
      survey,
      isMeasured: survey.status !== 'nothing' && survey.status !== 'impossible',
      isDoubtful: (survey.status === 'doubtful' && !isSigned) || survey.status === 'impossible',
      isCut,
      isLaid,
    };
  }
}
