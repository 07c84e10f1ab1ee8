import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Panel } from '@yellow-pane/contracts';
import { stretchLimitOf, wrappedCornerWords } from '@yellow-pane/core/form';
import { cornersOfPanel, resolveDry } from '@yellow-pane/core';
import { surveyPanel } from '@yellow-pane/core/measure';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { StretchDoing } from './stretch-doing';

/** How film goes over the round corner of a board: drawn over without a cut, or how far. */
@Component({
  selector: 'yp-corner-card',
  imports: [StretchDoing, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (told(); as t) {
      <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="Film over its round corners" data-corner-card>
        <p class="cap">Over its round corners</p>
        <yp-stretch-doing [words]="t" />
        <yp-why [lines]="t.why" />
      </section>
    }
  `,
})
export class CornerCard {
  readonly surface = input.required<Panel>();
  private readonly record = inject(RecordStore);
  protected readonly told = computed(() => {
    const [doc, surface] = [this.record.records(), this.surface()];
    const film = doc?.films.find((f) => f.id === surface.filmId);
    if (!doc || !film) return null;
    const plan = cornersOfPanel({ surface, survey: surveyPanel(surface, doc).survey, allowances: resolveDry(doc, surface), film });
    return plan && wrappedCornerWords(plan, stretchLimitOf(film) !== null, this.record.units());
  });
}
