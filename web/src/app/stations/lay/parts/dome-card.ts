import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Panel } from '@yellow-pane/contracts';
import { domeWords, planDome, tackedDome } from '@yellow-pane/core/form';
import { surveyPanel } from '@yellow-pane/core/measure';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';

/** How film goes over a domed sheet: what is left over, whether it is drawn on or slit. */
@Component({
  selector: 'yp-dome-card',
  imports: [Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (words(); as w) {
      <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="Film over the dome" data-dome-card>
        <p class="cap">Over its middle</p>
        <p class="text-xl leading-tight font-bold" data-dome-headline>{{ w.headline }}</p>
        <ol class="mt-1 list-decimal pl-6 text-[17px] leading-snug">
          @for (d of w.doing; track $index) {
            <li>{{ d }}</li>
          }
        </ol>
        @for (m of w.minds; track $index) {
          <p class="mt-1 border-l-4 border-ink bg-tint px-2 py-1 text-[15px]">{{ m }}</p>
        }
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
    const pct = this.record.doc()?.films.find((f) => f.id === this.surface().filmId)?.stretchMaxPct ?? null;
    return domeWords(planDome(judged, pct === null ? null : pct / 100), this.tackedFrac(), this.record.units());
  });
}
