import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { formatLength } from '@yellow-pane/core/ground';
import { LengthField } from '../../../kit/length-field';
import { RecordStore } from '../../../record/record.store';

/** One length of something on a panel. Places may be nought, sizes may not; what is open may be left empty, and so may an offset, which may have a minus. */
export interface PartLength {
  readonly field: string;
  readonly name: string;
  readonly mm: number | null;
  readonly is: 'place' | 'size' | 'open' | 'offset';
}

/** The lengths of a groove or a piece of hardware, side by side. */
@Component({
  selector: 'yp-part-lengths',
  imports: [LengthField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="grid grid-cols-2 gap-2 sm:grid-cols-3 xl:grid-cols-4">
      @for (l of lengths(); track l.field) {
        <div class="text-sm">
          <span aria-hidden="true">{{ l.name }}</span>
          <yp-length-field
            [attr.data-part]="l.field"
            [label]="of() + ', ' + l.name.toLowerCase()"
            [value]="l.mm === null ? '' : f(l.mm)"
            [units]="record.units()"
            [signed]="l.is === 'offset'"
            [wrong]="l.is === 'place' || l.is === 'offset' ? anything : moreThanNothing"
            (committed)="changed.emit({ field: l.field, mm: $event.lengthMm })"
            (cleared)="(l.is === 'open' || l.is === 'offset') && changed.emit({ field: l.field, mm: null })"
          />
        </div>
      }
    </div>
  `,
})
export class PartLengths {
  readonly lengths = input.required<readonly PartLength[]>();
  /** What they belong to, for whoever cannot see it. */
  readonly of = input.required<string>();
  readonly changed = output<{ readonly field: string; readonly mm: number | null }>();
  protected readonly record = inject(RecordStore);
  protected f = (mm: number): string => formatLength(mm, this.record.units());
  protected readonly anything = (): null => null;
  protected readonly moreThanNothing = (mm: number): string | null => (mm > 0 ? null : 'It has to be more than nothing.');
}
