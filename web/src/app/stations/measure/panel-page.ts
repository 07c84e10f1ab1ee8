import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Hardware, Panel, PanelMeasure } from '@yellow-pane/contracts';
import { cutOfPanel, panelNames, surveyPanel, toldOf } from '@yellow-pane/core';
import type { Polygon } from '@yellow-pane/core/geometry';
import { PanelDrawing } from '../../kit/panel-drawing';
import { RecordStore } from '../../record/record.store';
import { CorrugationPanel } from './parts/corrugation-panel';
import { DomePanel } from './parts/dome-panel';
import { RoundCornersPanel } from './parts/round-corners-panel';
import { DryDetails } from './parts/dry-details';
import { GroovesPanel } from './parts/grooves-panel';
import { RecessesPanel } from './parts/recesses-panel';
import { HardwarePanel } from './parts/hardware-panel';
import { PanelChoices } from './parts/panel-choices';
import { TapedPage, tapesShown, viewOf, type TapeGroup } from './parts/taped-page';
import { WhatItIs } from './parts/what-it-is';

/** Fields of a panel in the order one walks round it with the tape. */
const groups: readonly (TapeGroup & { readonly keys: readonly PanelMeasure[] })[] = [
  { name: 'Width', hint: 'Of the face, from arris to arris, seen from the front.', keys: ['widthTop', 'widthMiddle', 'widthBottom'] },
  { name: 'Height', hint: 'A hung leaf is taller than it looks: under the head as well.', keys: ['heightLeft', 'heightMiddle', 'heightRight'] },
  { name: 'Corner to corner', hint: 'Only these say whether it is square.', keys: ['diagonalDown', 'diagonalUp'] },
  { name: 'Edge', hint: 'Its thickness; where it is rounded or moulded, a string over it too.', keys: ['edgeThickness', 'edgeGirth'] },
];
const allKeys = groups.flatMap((g) => g.keys);
const shortNames: Readonly<Record<PanelMeasure, string>> = { widthTop: 'At the top', widthMiddle: 'In the middle', widthBottom: 'At the foot', heightLeft: 'Left', heightMiddle: 'Middle', heightRight: 'Right', diagonalDown: 'From top left', diagonalUp: 'From bottom left', edgeThickness: 'Thick', edgeGirth: 'String over it' }; // prettier-ignore

/** A lever where it usually stands: on the side that opens, at hand height. @source common practice */
const leverOf = ({ hinges }: Pick<Panel, 'hinges'>, outline: Polygon | null): Omit<Hardware, 'id'> => ({
  what: 'Lever and plate',
  handling: 'off',
  fromLeftMm: hinges === 'right' ? 40 : Math.max(0, Math.round((outline ? Math.max(...outline.map((p) => p.x)) : 800) - 100)),
  fromFootMm: 950,
  widthMm: 45,
  heightMm: 220,
  isElectric: false,
});

/** Measure, of a door or panel: its face, its edge, its grooves and what stands on it. */
@Component({
  selector: 'yp-panel-page',
  imports: [
    CorrugationPanel,
    DomePanel,
    DryDetails,
    GroovesPanel,
    HardwarePanel,
    PanelChoices,
    PanelDrawing,
    RecessesPanel,
    RoundCornersPanel,
    TapedPage,
    WhatItIs,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <yp-taped-page [view]="v" [taped]="groups" [shortNames]="shortNames" [kindName]="names[v.surface.what]">
        <yp-what-it-is head [surface]="v.surface" [names]="names" />
        <div drawing>
          @if (v.survey.face.outline; as outline) {
            <yp-panel-drawing
              [panel]="v.surface"
              [outline]="outline"
              [tapes]="v.tapes"
              [doubtful]="v.doubtful"
              [label]="v.surface.name + ' seen from the front'"
            />
          } @else {
            <p class="border border-dashed border-field p-4 text-center text-soft">Width and height draw it.</p>
          }
        </div>
        <div below class="grid gap-x-5 pb-4 2xl:grid-cols-2">
          <yp-grooves-panel class="block" [surface]="v.surface" [survey]="v.survey" />
          <yp-recesses-panel class="block" [surface]="v.surface" [survey]="v.survey" />
          <yp-corrugation-panel class="block" [surface]="v.surface" [survey]="v.survey" />
          <yp-dome-panel class="block" [surface]="v.surface" [survey]="v.survey" />
          <yp-round-corners-panel class="block" [surface]="v.surface" [survey]="v.survey" />
          <yp-hardware-panel class="block" [surface]="v.surface" [doubts]="v.partDoubts" [usual]="v.lever" />
        </div>
        <yp-dry-details details class="mt-2 block" [surface]="v.surface"><yp-panel-choices class="block" [surface]="v.surface" /></yp-dry-details>
      </yp-taped-page>
    }
  `,
})
export class PanelPage {
  protected readonly record = inject(RecordStore);
  protected readonly groups = groups;
  protected readonly shortNames = shortNames;
  protected readonly names = panelNames;

  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.panel(), this.record.units()];
    if (!doc || !surface) return null;
    const { survey } = surveyPanel(surface, doc);
    const told = toldOf(surface, doc, units);
    const film = doc.films.find((f) => f.id === surface.filmId);
    const shown = viewOf(surface, told, film ? cutOfPanel(surface, doc, film).answer : null);
    return {
      ...shown,
      survey,
      partDoubts: told.doubts,
      lever: leverOf(surface, survey.face.outline),
      doubtful: told.doubts.map((d) => d.part),
      tapes: tapesShown(allKeys, shown, units),
    };
  });
}
