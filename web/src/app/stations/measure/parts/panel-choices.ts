import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { panelWrap, type Panel } from '@yellow-pane/contracts';
import { isPanel } from '@yellow-pane/core';
import { RecordStore } from '../../../record/record.store';
import { SurfaceChoices, type ChoicesOf } from './surface-choices';

const choices: ChoicesOf<Panel> = [
  { field: 'hinges', name: 'Hinges', names: { left: 'on the left', right: 'on the right', none: 'it does not swing' } },
  { field: 'faces', name: 'Film on', names: { front: 'its front', both: 'both faces' } },
  { field: 'grain', name: 'Film’s direction', names: { upright: 'upright', level: 'level' } },
  { field: 'head', name: 'Head of its film', names: { any: 'as the film allows', up: 'up', down: 'down: turned round' } },
  { field: 'fire', name: 'Fire or escape door', names: { unknown: 'nobody asked', no: 'no', rated: 'yes: needs a written yes' } },
];
const sides = [
  { id: 'left', name: 'Left edge' },
  { id: 'right', name: 'Right edge' },
  { id: 'top', name: 'Top' },
  { id: 'bottom', name: 'Foot' },
] as const;
const wrapNames = { trimmed: 'trimmed there', edge: 'over the edge', return: 'on to the back' } as const;

/** How a panel hangs, and how film goes on it. */
@Component({
  selector: 'yp-panel-choices',
  imports: [SurfaceChoices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <yp-surface-choices class="block" [surface]="s" [choices]="choices">
      @for (side of sides; track side.id) {
        <label class="block"
          >{{ side.name
          }}<select #box class="field" [attr.data-wrap]="side.id" (change)="wrap(side.id, side.name, box.value)">
            @for (o of wraps; track o) {
              <option [value]="o" [selected]="s.wraps[side.id] === o">{{ wrapNames[o] }}</option>
            }
          </select></label
        >
      }
      <label class="block col-span-2"
        >Grain goes on from the leaf on its left<select #left class="field" data-choice="beside" (change)="goesOnFrom(left.value)">
          <option value="" [selected]="!s.besideId">none: it stands alone</option>
          @for (p of others(); track p.id) {
            <option [value]="p.id" [selected]="s.besideId === p.id">{{ p.name }}</option>
          }
        </select></label
      >
    </yp-surface-choices>
    @if (s.head !== 'any' || s.besideId) {
      <p class="mt-1 text-sm text-soft">
        Two leaves that meet, one head up and one head down, show each other the same edge of the roll: a shade that wanders over its width does not jump there.
        Film cannot be turned over, so figures are not mirrored.
      </p>
    }
    @if (s.faces === 'both') {
      <p class="mt-1 text-sm text-soft">
        The back is taken for the mirror image of the front. Edges go on to the back, beneath the film there: no seam lies on an arris.
      </p>
    }
  `,
})
export class PanelChoices {
  readonly surface = input.required<Panel>();
  private readonly record = inject(RecordStore);
  protected readonly choices = choices;
  protected readonly sides = sides;
  protected readonly wraps = panelWrap.options;
  protected readonly wrapNames = wrapNames;

  /** Leaves that have nobody on their right yet, and do not stand on its own right. */
  protected readonly others = computed(() => {
    const own = this.surface();
    const panels = (this.record.records()?.surfaces ?? []).filter(isPanel).filter((p) => !p.deletedAt);
    const rightOf = (p: Panel): Panel | undefined => panels.find((x) => x.besideId === p.id);
    const onRight = new Set<string>();
    for (let p: Panel | undefined = own; p && !onRight.has(p.id); p = rightOf(p)) onRight.add(p.id);
    return panels.filter((p) => !onRight.has(p.id) && (rightOf(p) === undefined || rightOf(p)!.id === own.id));
  });
  protected goesOnFrom(id: string): void {
    const s = this.surface();
    void this.record.set(`Grain of ${s.name}`.slice(0, 120), 'surface', s.id, { besideId: id || null });
  }

  protected wrap(side: keyof Panel['wraps'], name: string, value: string): void {
    const read = panelWrap.safeParse(value);
    const s = this.surface();
    if (read.success) void this.record.set(`${name} of ${s.name}`.slice(0, 120), 'surface', s.id, { wraps: { ...s.wraps, [side]: read.data } });
  }
}
