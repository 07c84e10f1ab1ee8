import { ChangeDetectionStrategy, Component, inject, input } from '@angular/core';
import { panelWrap, type Panel } from '@yellow-pane/contracts';
import { RecordStore } from '../../../record/record.store';
import { GoesOnFrom } from './goes-on-from';
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
  imports: [GoesOnFrom, SurfaceChoices],
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
      <yp-goes-on-from class="col-span-2 block" [surface]="s" label="Grain goes on from the leaf on its left" />
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

  protected wrap(side: keyof Panel['wraps'], name: string, value: string): void {
    const read = panelWrap.safeParse(value);
    const s = this.surface();
    if (read.success) void this.record.set(`${name} of ${s.name}`.slice(0, 120), 'surface', s.id, { wraps: { ...s.wraps, [side]: read.data } });
  }
}
