import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { StretchWords } from '@yellow-pane/core/form';

/** What hands do where film has to give, and what has to be minded; what is put in stands above it. */
@Component({
  selector: 'yp-stretch-doing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="text-xl leading-tight font-bold" data-stretch-headline>{{ words().headline }}</p>
    <ng-content />
    <ol class="mt-1 list-decimal pl-6 text-[17px] leading-snug">
      @for (d of words().doing; track $index) {
        <li>{{ d }}</li>
      }
    </ol>
    @for (m of words().minds; track $index) {
      <p class="mt-1 border-l-4 border-ink bg-tint px-2 py-1 text-[15px]">{{ m }}</p>
    }
  `,
  host: { class: 'block' },
})
export class StretchDoing {
  readonly words = input.required<StretchWords>();
}
