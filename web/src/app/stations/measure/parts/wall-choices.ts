import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Wall } from '@yellow-pane/contracts';
import { SurfaceChoices, type ChoicesOf } from './surface-choices';

const choices: ChoicesOf<Wall> = [
  { field: 'lie', name: 'Film lies', names: { upright: 'upright drops', level: 'level lengths' } },
  { field: 'hungFrom', name: 'It begins', names: { left: 'at the left end', right: 'at the right end' } },
  { field: 'seam', name: 'Drops meet', names: { overlap: 'one over the other', 'double-cut': 'cut double' } },
  { field: 'hanging', name: 'Drops hang', names: { 'one-way': 'all one way', book: 'book-match' } },
  { field: 'fire', name: 'Escape route', names: { unknown: 'nobody asked', no: 'no', rated: 'yes: needs a written yes' } },
];
const costs = {
  overlap: 'One over the other: quick, holds well, a step that light across it shows.',
  'double-cut': 'Cut double: a flush seam; takes twice the lap and a new blade, and wants liner beneath or the wall is scored.',
} as const;

/** How film is hung on a wall. */
@Component({
  selector: 'yp-wall-choices',
  imports: [SurfaceChoices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <yp-surface-choices class="block" [surface]="surface()" [choices]="choices" />
    <p class="mt-1 text-sm text-soft">{{ costs[surface().seam] }}</p>
    @if (surface().lie === 'level') {
      <p class="mt-1 text-sm text-soft" data-lie>{{ level }}</p>
    } @else if (surface().hanging === 'book') {
      <p class="mt-1 text-sm text-soft" data-hanging>{{ book }}</p>
    }
  `,
})
export class WallChoices {
  readonly surface = input.required<Wall>();
  protected readonly choices = choices;
  protected readonly costs = costs;
  protected readonly level =
    'Lengths along the wall, from the foot up, each over the one below: few seams and no dust on their edges. For film without a direction; every length takes two people.';
  protected readonly book =
    'Book-match: at each seam the same edge of the roll meets itself, so a roll that is darker at one edge shows no step. Counted over the whole run of walls; a pattern keeps its height, upside down. Film with one way up cannot.';
}
