import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** Every figure opens to its why: formula, inputs, rule. */
@Component({
  selector: 'yp-why',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details class="text-sm text-soft">
      <summary class="inline-block cursor-pointer py-1 underline decoration-field underline-offset-2">Why</summary>
      <ul class="mt-1 list-none space-y-1">
        @for (line of lines(); track $index) {
          <li>{{ line }}</li>
        }
      </ul>
    </details>
  `,
})
export class Why {
  readonly lines = input.required<readonly string[]>();
}
