import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { surfaceKinds } from '@yellow-pane/contracts';
import type { DrySurface } from '@yellow-pane/core';
import { RecordStore } from '../../../record/record.store';

/** A field of a surface that is one of a few words. */
export interface SurfaceChoice {
  readonly field: string;
  readonly name: string;
  readonly names: Readonly<Record<string, string>>;
}
/** The choices of one kind: the compiler knows its fields. */
export type ChoicesOf<S extends DrySurface> = readonly (SurfaceChoice & { readonly field: keyof S & string })[];

/** What a tape does not say of a surface, in boxes to choose from. */
@Component({
  selector: 'yp-surface-choices',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="grid grid-cols-2 gap-2 text-sm">
      @for (c of shown(); track c.field) {
        <label class="block"
          >{{ c.name
          }}<select #box class="field" [attr.data-choice]="c.field" (change)="set(c, box.value)">
            @for (o of c.options; track o.id) {
              <option [value]="o.id" [selected]="o.isOn">{{ o.name }}</option>
            }
          </select></label
        >
      }
      <ng-content />
    </div>
  `,
})
export class SurfaceChoices {
  readonly surface = input.required<DrySurface>();
  readonly choices = input.required<readonly SurfaceChoice[]>();
  private readonly record = inject(RecordStore);
  protected readonly shown = computed(() => {
    const now = this.surface() as unknown as Readonly<Record<string, unknown>>;
    return this.choices().map((c) => ({ ...c, options: Object.entries(c.names).map(([id, name]) => ({ id, name, isOn: now[c.field] === id })) }));
  });

  protected set({ field, name }: SurfaceChoice, value: string): void {
    const s = this.surface();
    // what is not one of its words is not written
    const read = surfaceKinds[s.kind].partial().safeParse({ [field]: value });
    if (read.success) void this.record.set(`${name} of ${s.name}`.slice(0, 120), 'surface', s.id, { [field]: value });
  }
}
