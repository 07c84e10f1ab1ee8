import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Besides } from '@yellow-pane/core';
import { RecordStore } from '../../../record/record.store';

/** Which one on its left grain, pattern and lot go on from: a leaf beside a leaf, a top joined to a top. */
@Component({
  selector: 'yp-goes-on-from',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <label class="block"
      >{{ label()
      }}<select #left class="field" data-choice="beside" (change)="goesOnFrom(left.value)">
        <option value="" [selected]="!s.besideId">none: it stands alone</option>
        @for (p of others(); track p.id) {
          <option [value]="p.id" [selected]="s.besideId === p.id">{{ p.name }}</option>
        }
      </select></label
    >
  `,
})
export class GoesOnFrom {
  readonly surface = input.required<Besides>();
  readonly label = input.required<string>();
  private readonly record = inject(RecordStore);
  /** Those of its kind that have nobody on their right yet, and do not stand on its own right. */
  protected readonly others = computed(() => {
    const own = this.surface();
    const alike = (this.record.records()?.surfaces ?? []).flatMap((p): Besides[] =>
      p.kind === own.kind && 'besideId' in p && !p.deletedAt ? [p as Besides] : [],
    );
    const rightOf = (p: Besides): Besides | undefined => alike.find((x) => x.besideId === p.id);
    const onRight = new Set<string>();
    for (let p: Besides | undefined = own; p && !onRight.has(p.id); p = rightOf(p)) onRight.add(p.id);
    return alike.filter((p) => !onRight.has(p.id) && (rightOf(p) === undefined || rightOf(p)!.id === own.id));
  });

  protected goesOnFrom(id: string): void {
    const s = this.surface();
    void this.record.set(`Grain of ${s.name}`.slice(0, 120), 'surface', s.id, { besideId: id || null });
  }
}
