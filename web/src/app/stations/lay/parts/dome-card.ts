import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Panel } from '@yellow-pane/contracts';
import { domeWords, planDome, stretchLimitOf, tackedDome } from '@yellow-pane/core/form';
import { surveyPanel } from '@yellow-pane/core/measure';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { StretchDoing } from './stretch-doing';

/** How film goes over a domed sheet: what is left over, whether it is drawn on or slit. */
@Component({
  selector: 'yp-dome-card',
  imports: [StretchDoing, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (words(); as w) {
      <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="Film over the dome" data-dome-card>
        <p class="cap">Over its middle</p>
        <yp-stretch-doing [words]="w" />
        <yp-why [lines]="w.why" />
      </section>
    }
  `,
})
export class DomeCard {
  readonly surface = input.required<Panel>();
  private readonly record = inject(RecordStore);
  private readonly judged = computed(() => {
    const doc = this.record.records();
    return doc ? surveyPanel(this.surface(), doc).survey.dome : null;
  });
  /** The slow part, kept while only the film changes. */
  private readonly tackedFrac = computed(() => (this.judged() ? tackedDome(this.judged()!) : 0));
  protected readonly words = computed(() => {
    const judged = this.judged();
    if (!judged) return null;
    const film = this.record.doc()?.films.find((f) => f.id === this.surface().filmId);
    return domeWords(planDome(judged, stretchLimitOf(film)), this.tackedFrac(), this.record.units());
  });
}
