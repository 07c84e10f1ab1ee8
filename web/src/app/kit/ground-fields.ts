import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { gloss, groundFinish, groundMaterial, groundState, type Ground } from '@yellow-pane/contracts';

const words = (v: string): string => (v === 'unknown' ? 'not known' : v.replace('-', ' '));
const choices = [
  { field: 'material', name: 'Made of', options: groundMaterial.options },
  { field: 'finish', name: 'Finish', options: groundFinish.options },
  { field: 'gloss', name: 'Gloss', options: gloss.options },
  { field: 'state', name: 'State', options: groundState.options },
] as const;
const yesNo = [
  { field: 'isDamp', name: 'Damp' },
  { field: 'isGreasy', name: 'Greasy' },
] as const;

/** What a ground that is no glass is, as a person found it. */
@Component({
  selector: 'yp-ground-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="grid grid-cols-2 gap-2 text-sm">
      @for (c of choices; track c.field) {
        <label class="block"
          >{{ c.name }}
          <select #box class="field" (change)="set(c.field, box.value)">
            @for (o of c.options; track o) {
              <option [value]="o" [selected]="o === ground()[c.field]">{{ words(o) }}</option>
            }
          </select>
        </label>
      }
      @for (c of yesNo; track c.field) {
        <label class="block"
          >{{ c.name }}
          <select #box class="field" (change)="set(c.field, box.value === '' ? null : box.value === 'yes')">
            <option value="" [selected]="ground()[c.field] === null">nobody looked</option>
            <option value="no" [selected]="ground()[c.field] === false">no</option>
            <option value="yes" [selected]="ground()[c.field] === true">yes</option>
          </select>
        </label>
      }
      <label class="col-span-2 block"
        >Painted, or concrete made, on<input #made class="field" type="date" [value]="ground().madeOn ?? ''" (change)="set('madeOn', made.value || null)"
      /></label>
    </div>
  `,
})
export class GroundFields {
  readonly ground = input.required<Ground>();
  readonly changed = output<Ground>();
  protected readonly choices = choices;
  protected readonly yesNo = yesNo;
  protected readonly words = words;
  protected set(field: keyof Ground, value: unknown): void {
    this.changed.emit({ ...this.ground(), [field]: value } as Ground);
  }
}
