import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { wall, type Wall } from '@yellow-pane/contracts';
import { RecordStore } from '../../../record/record.store';

const choices = [
  { field: 'hungFrom', name: 'First drop', names: { left: 'at the left end', right: 'at the right end' } },
  { field: 'seam', name: 'Drops meet', names: { overlap: 'one over the other', 'double-cut': 'cut double' } },
  { field: 'fire', name: 'Escape route', names: { unknown: 'nobody asked', no: 'no', rated: 'yes: needs a written yes' } },
] as const;
const costs = {
  overlap: 'One over the other: quick, holds well, a step that light across it shows.',
  'double-cut': 'Cut double: a flush seam; takes twice the lap and a new blade, and wants liner beneath or the wall is scored.',
} as const;

/** How film is hung on a wall. */
@Component({
  selector: 'yp-wall-choices',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <div class="grid grid-cols-2 gap-2 text-sm">
      @for (c of choices; track c.field) {
        <label class="block"
          >{{ c.name
          }}<select #box class="field" [attr.data-choice]="c.field" (change)="set(c.name, c.field, box.value)">
            @for (o of options(c.names); track o.id) {
              <option [value]="o.id" [selected]="s[c.field] === o.id">{{ o.name }}</option>
            }
          </select></label
        >
      }
    </div>
    <p class="mt-1 text-sm text-soft">{{ costs[s.seam] }}</p>
  `,
})
export class WallChoices {
  readonly surface = input.required<Wall>();
  private readonly record = inject(RecordStore);
  protected readonly choices = choices;
  protected readonly costs = costs;
  protected options = (names: Readonly<Record<string, string>>) => Object.entries(names).map(([id, name]) => ({ id, name }));

  protected set(name: string, field: (typeof choices)[number]['field'], value: string): void {
    const s = this.surface();
    const read = wall.shape[field].safeParse(value);
    if (read.success) void this.record.set(`${name} of ${s.name}`.slice(0, 120), 'surface', s.id, { [field]: read.data });
  }
}
