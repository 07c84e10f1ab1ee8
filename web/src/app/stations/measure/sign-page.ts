import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Hardware, Sign, SignMeasure } from '@yellow-pane/contracts';
import { cutOfSign, signNames, surveySign, textureNames, toldOf } from '@yellow-pane/core';
import { boundingBox } from '@yellow-pane/core/geometry';
import { SignDrawing } from '../../kit/sign-drawing';
import { RecordStore } from '../../record/record.store';
import { DryDetails } from './parts/dry-details';
import { HardwarePanel } from './parts/hardware-panel';
import { SignLines } from './parts/sign-lines';
import { SurfaceChoices, type ChoicesOf } from './parts/surface-choices';
import { TapedPage, tapesShown, viewOf, type TapeGroup } from './parts/taped-page';
import { WhatItIs } from './parts/what-it-is';

/** Fields of the ground in the order one walks round it with the tape. */
const groups: readonly (TapeGroup & { readonly keys: readonly SignMeasure[] })[] = [
  { name: 'Width', hint: 'Of what letters may stand on: inside hems, frames and seams.', keys: ['widthTop', 'widthMiddle', 'widthBottom'] },
  { name: 'Height', hint: 'A canvas sags: its middle too.', keys: ['heightLeft', 'heightMiddle', 'heightRight'] },
  { name: 'Corner to corner', hint: 'Only these say whether it is square.', keys: ['diagonalDown', 'diagonalUp'] },
];
const allKeys = groups.flatMap((g) => g.keys);
const shortNames: Readonly<Record<SignMeasure, string>> = { widthTop: 'At the top', widthMiddle: 'In the middle', widthBottom: 'At the foot', heightLeft: 'Left', heightMiddle: 'Middle', heightRight: 'Right', diagonalDown: 'From top left', diagonalUp: 'From bottom left' }; // prettier-ignore
const choices: ChoicesOf<Sign> = [{ field: 'texture', name: 'Its ground feels', names: textureNames }];
/** An eyelet where one usually is. @source common practice */
const eyelet: Omit<Hardware, 'id'> = {
  what: 'Eyelet',
  handling: 'round',
  fromLeftMm: 20,
  fromFootMm: 20,
  widthMm: 30,
  heightMm: 30,
  isElectric: false,
  isRound: true,
};

/** Measure, of a sign: its ground, what is written on it, and what letters keep off. */
@Component({
  selector: 'yp-sign-page',
  imports: [DryDetails, HardwarePanel, SignDrawing, SignLines, SurfaceChoices, TapedPage, WhatItIs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <yp-taped-page [view]="v" [taped]="groups" [shortNames]="shortNames" [kindName]="names[v.surface.what]" [isWide]="true">
        <yp-what-it-is head [surface]="v.surface" [names]="names" label="What it is on" />
        <div drawing>
          @if (v.survey.ground; as ground) {
            <yp-sign-drawing
              [sign]="v.surface"
              [ground]="ground"
              [marks]="v.survey.marks"
              [units]="record.units()"
              [tapes]="v.tapes"
              [doubtful]="v.doubtful"
              [label]="v.surface.name + ' as one reads it'"
            />
          } @else {
            <p class="border border-dashed border-field p-4 text-center text-soft">A width and a height draw it.</p>
          }
        </div>
        <div below class="pb-4">
          <yp-sign-lines class="block" [surface]="v.surface" [ground]="v.ground" [doubts]="v.partDoubts" />
          <yp-hardware-panel
            class="mt-3 block"
            [surface]="v.surface"
            [doubts]="v.partDoubts"
            [usual]="eyelet"
            hint="Nothing on it. Eyelets, seams, lamps: what letters keep off, and whether it comes off."
          />
        </div>
        <yp-dry-details details class="mt-2 block" [surface]="v.surface"
          ><yp-surface-choices class="block" [surface]="v.surface" [choices]="choices"
        /></yp-dry-details>
      </yp-taped-page>
    }
  `,
})
export class SignPage {
  protected readonly record = inject(RecordStore);
  protected readonly groups = groups;
  protected readonly shortNames = shortNames;
  protected readonly names = signNames;
  protected readonly choices = choices;
  protected readonly eyelet = eyelet;

  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.sign(), this.record.units()];
    if (!doc || !surface) return null;
    const { survey } = surveySign(surface, doc);
    const told = toldOf(surface, doc, units);
    const film = doc.films.find((f) => f.id === surface.filmId);
    const box = survey.ground && boundingBox(survey.ground);
    const shown = viewOf(surface, told, film ? cutOfSign(surface, doc, film).answer : null);
    return {
      ...shown,
      survey,
      partDoubts: told.doubts,
      ground: box && { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY },
      doubtful: survey.doubts.flatMap((d) => ('other' in d ? [d.part, d.other] : [d.part])),
      tapes: tapesShown(allKeys, shown, units),
    };
  });
}
