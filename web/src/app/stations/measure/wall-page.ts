import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Hardware, WallMeasure } from '@yellow-pane/contracts';
import { cutOfWall, layoutOnWall, surveyWall, toldOf } from '@yellow-pane/core';
import { WallDrawing } from '../../kit/wall-drawing';
import { RecordStore } from '../../record/record.store';
import { DryDetails } from './parts/dry-details';
import { HardwarePanel } from './parts/hardware-panel';
import { MasonryPanel } from './parts/masonry-panel';
import { TapedPage, tapesShown, viewOf, type TapeGroup } from './parts/taped-page';
import { WallBreaks } from './parts/wall-breaks';
import { WallChoices } from './parts/wall-choices';
import { WallEnds } from './parts/wall-ends';

/** Fields of a wall in the order one walks along it with the tape. */
const groups: readonly (TapeGroup & { readonly keys: readonly WallMeasure[] })[] = [
  { name: 'Width', hint: 'From corner to corner, or to where film stops.', keys: ['widthTop', 'widthMiddle', 'widthBottom'] },
  { name: 'Height', hint: 'From floor to ceiling, or to the skirting and the cornice.', keys: ['heightLeft', 'heightMiddle', 'heightRight'] },
  { name: 'From a level line, up', hint: 'A laser line at any height; up to the ceiling at three places.', keys: ['upLeft', 'upMiddle', 'upRight'] },
  {
    name: 'From the same line, down',
    hint: 'Down to the floor below them: tells which of the two is out of level.',
    keys: ['downLeft', 'downMiddle', 'downRight'],
  },
  { name: 'Corner to corner', hint: 'Only these say whether its ends are plumb.', keys: ['diagonalDown', 'diagonalUp'] },
  { name: 'How far the corners wander', hint: 'A long straightedge into the corner: the widest gap beside it.', keys: ['wanderLeft', 'wanderRight'] },
];
const allKeys = groups.flatMap((g) => g.keys);
const shortNames: Readonly<Record<WallMeasure, string>> = { widthTop: 'At the top', widthMiddle: 'In the middle', widthBottom: 'At the foot', heightLeft: 'Left', heightMiddle: 'Middle', heightRight: 'Right', diagonalDown: 'From top left', diagonalUp: 'From bottom left', upLeft: 'Left', upMiddle: 'Middle', upRight: 'Right', downLeft: 'Left', downMiddle: 'Middle', downRight: 'Right', wanderLeft: 'Left corner', wanderRight: 'Right corner' }; // prettier-ignore

/** A socket where one usually is. @source common practice: its middle 300 above the floor */
const socket: Omit<Hardware, 'id'> = { what: 'Socket', handling: 'off', fromLeftMm: 300, fromFootMm: 260, widthMm: 82, heightMm: 82, isElectric: true };

/** Measure, of a wall: its outline from tapes and a level line, its corners, its joints, what stands on it. */
@Component({
  selector: 'yp-wall-page',
  imports: [DryDetails, HardwarePanel, MasonryPanel, TapedPage, WallBreaks, WallChoices, WallDrawing, WallEnds],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <yp-taped-page [view]="v" [taped]="groups" [shortNames]="shortNames" kindName="wall" [signedKeys]="noughtToo" [laserKeys]="laserToo" [isWide]="true">
        <div drawing>
          @if (v.survey.body; as body) {
            <yp-wall-drawing
              [wall]="v.surface"
              [body]="body"
              [corners]="v.survey.corners"
              [layout]="v.layout"
              [tapes]="v.tapes"
              [doubtful]="v.doubtful"
              [label]="v.surface.name + ' as one stands before it'"
            />
          } @else {
            <p class="border border-dashed border-field p-4 text-center text-soft">A width and a height draw it.</p>
          }
        </div>
        <div below class="pb-4">
          <yp-wall-ends class="mb-4 block" [surface]="v.surface" [corners]="v.survey.corners" />
          <div class="grid gap-x-5 2xl:grid-cols-2">
            <div>
              <yp-wall-breaks class="mb-2 block" [surface]="v.surface" [doubts]="v.partDoubts" [widthMm]="v.survey.body?.widthMm?.bottom ?? null" />
              <yp-masonry-panel class="block" [surface]="v.surface" />
            </div>
            <yp-hardware-panel
              class="block"
              [surface]="v.surface"
              [doubts]="v.partDoubts"
              [usual]="socket"
              hint="Nothing on it. Doors, windows, sockets, switches, thermostats, pipes and signs: note whether each comes off."
            />
          </div>
        </div>
        <yp-dry-details details class="mt-2 block" [surface]="v.surface"><yp-wall-choices class="block" [surface]="v.surface" /></yp-dry-details>
      </yp-taped-page>
    }
  `,
})
export class WallPage {
  private readonly record = inject(RecordStore);
  protected readonly groups = groups;
  protected readonly shortNames = shortNames;
  protected readonly socket = socket;
  /** A corner that does not wander reads nought. */
  protected readonly noughtToo = /^wander/;
  protected readonly laserToo = /^(height|width|diagonal|up|down)/;

  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.wall(), this.record.units()];
    if (!doc || !surface) return null;
    const { survey } = surveyWall(surface, doc);
    const told = toldOf(surface, doc, units);
    const film = doc.films.find((f) => f.id === surface.filmId);
    const shown = viewOf(surface, told, film ? cutOfWall(surface, doc, film).answer : null);
    return { ...shown, survey, partDoubts: told.doubts, layout: film ? layoutOnWall(surface, doc, film) : null, doubtful: told.doubts.map((d) => d.part), tapes: tapesShown(allKeys, shown, units) }; // prettier-ignore
  });
}
