import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Counter, CounterCorner, CounterMeasure, Hardware } from '@yellow-pane/contracts';
import { counterCornerNames, counterCorners, counterNames, cutOfCounter, surveyCounter, toldOf } from '@yellow-pane/core';
import { CounterDrawing } from '../../kit/counter-drawing';
import { RecordStore } from '../../record/record.store';
import { CounterSides } from './parts/counter-sides';
import { DryDetails } from './parts/dry-details';
import { HardwarePanel } from './parts/hardware-panel';
import { GoesOnFrom } from './parts/goes-on-from';
import { SurfaceChoices, type ChoicesOf } from './parts/surface-choices';
import { TapedPage, tapesShown, viewOf, type TapeGroup } from './parts/taped-page';
import { WhatItIs } from './parts/what-it-is';

type Groups = readonly (TapeGroup & { readonly keys: readonly CounterMeasure[] })[];
/** Fields of a top in the order one walks round it with the tape. */
const outline: Groups = [
  { name: 'Width', hint: 'From side to side. Where a corner is round: to where two rulers cross.', keys: ['widthFront', 'widthMiddle', 'widthBack'] },
  { name: 'Depth', hint: 'From front to back, or to the wall.', keys: ['depthLeft', 'depthMiddle', 'depthRight'] },
  { name: 'Corner to corner', hint: 'Only these say whether it is square. At a round: to its middle.', keys: ['fromBackLeft', 'fromFrontLeft'] },
];
const edge: Groups = [{ name: 'Edge', hint: 'Its thickness; where it is rounded or moulded, a string over it too.', keys: ['edgeThickness', 'edgeGirth'] }];
const roundKeys: Readonly<Record<CounterCorner, readonly CounterMeasure[]>> = {
  frontLeft: ['setbackFrontLeft', 'gapFrontLeft'],
  frontRight: ['setbackFrontRight', 'gapFrontRight'],
  backRight: ['setbackBackRight', 'gapBackRight'],
  backLeft: ['setbackBackLeft', 'gapBackLeft'],
};
/** Fields of each round corner. */
const rounds = (of: readonly CounterCorner[]): Groups =>
  counterCorners
    .filter((c) => of.includes(c))
    .map((c) => ({ name: `Round, ${counterCornerNames[c]}`, hint: 'Two rulers along its sides: from where they cross.', keys: roundKeys[c] }));
const allKeys = [...outline, ...edge, ...rounds(counterCorners)].flatMap((g) => g.keys);
const shortNames: Readonly<Record<CounterMeasure, string>> = { widthFront: 'At the front', widthMiddle: 'In the middle', widthBack: 'At the back', depthLeft: 'Left', depthMiddle: 'Middle', depthRight: 'Right', fromBackLeft: 'From back left', fromFrontLeft: 'From front left', setbackFrontLeft: 'Straight ends', gapFrontLeft: 'Round begins', setbackFrontRight: 'Straight ends', gapFrontRight: 'Round begins', setbackBackRight: 'Straight ends', gapBackRight: 'Round begins', setbackBackLeft: 'Straight ends', gapBackLeft: 'Round begins', edgeThickness: 'Thick', edgeGirth: 'String over it' }; // prettier-ignore

const isOfRound = (k: string): boolean => /^(setback|gap)/.test(k);

const choices: ChoicesOf<Counter> = [
  { field: 'grain', name: 'Film’s direction', names: { along: 'along it', across: 'across it' } },
  { field: 'seam', name: 'A seam', names: { overlap: 'one over the other', 'double-cut': 'cut double' } },
];
/** A cable outlet where one usually is. @source common practice */
const outlet: Omit<Hardware, 'id'> = {
  what: 'Cable outlet',
  handling: 'off',
  fromLeftMm: 200,
  fromFootMm: 500,
  widthMm: 80,
  heightMm: 80,
  isElectric: false,
  isRound: true,
};

/** Measure, of a counter or table: its top from above, its rounds, its edge, its sides and what stands on it. */
@Component({
  selector: 'yp-counter-page',
  imports: [CounterDrawing, CounterSides, DryDetails, GoesOnFrom, HardwarePanel, SurfaceChoices, TapedPage, WhatItIs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <yp-taped-page [view]="v" [taped]="v.groups" [shortNames]="shortNames" [kindName]="names[v.surface.what]" [laserKeys]="laserToo" [isWide]="true">
        <yp-what-it-is head [surface]="v.surface" [names]="names" />
        <div drawing>
          @if (v.survey.body; as body) {
            <yp-counter-drawing
              [counter]="v.surface"
              [body]="body"
              [tapes]="v.tapes"
              [doubtful]="v.doubtful"
              [label]="v.surface.name + ' from above, as one stands at its front'"
            />
          } @else {
            <p class="border border-dashed border-field p-4 text-center text-soft">A width and a depth draw it.</p>
          }
          @if (v.isFullRound) {
            <button type="button" class="btn mt-2" data-tape-rounds [attr.aria-expanded]="tapesRounds() === v.surface.id" (click)="tapeRounds(v.surface.id)">
              Not half circles? Tape its rounds
            </button>
          }
        </div>
        <div below class="grid gap-5 pb-4 2xl:grid-cols-2">
          <yp-counter-sides class="block" [surface]="v.surface" />
          <yp-hardware-panel
            class="block"
            [surface]="v.surface"
            [doubts]="v.partDoubts"
            [usual]="outlet"
            [places]="places"
            hint="Nothing on it. Sinks, cable outlets, taps: note whether each comes off. Places from its left side and its front."
          />
        </div>
        <yp-dry-details details class="mt-2 block" [surface]="v.surface"
          ><yp-surface-choices class="block" [surface]="v.surface" [choices]="choices"
            ><yp-goes-on-from class="col-span-2 block" [surface]="v.surface" label="Joined on its left to" /></yp-surface-choices
        ></yp-dry-details>
      </yp-taped-page>
    }
  `,
})
export class CounterPage {
  protected readonly record = inject(RecordStore);
  protected readonly shortNames = shortNames;
  protected readonly names = counterNames;
  protected readonly choices = choices;
  protected readonly outlet = outlet;
  protected readonly places = { fromFootMm: 'From the front', heightMm: 'Deep' };
  protected readonly laserToo = /^(width|depth|from)/;

  /** The top all round whose rounds somebody wants to tape after all. */
  protected readonly tapesRounds = signal<string | null>(null);
  protected tapeRounds(id: string): void {
    this.tapesRounds.update((of) => (of === id ? null : id));
  }

  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.counter(), this.record.units()];
    if (!doc || !surface) return null;
    const { survey, inForce } = surveyCounter(surface, doc);
    // a table that is round all over is known by its widths: eight fields for its rounds would only ask to be filled
    const isFullRound = surface.round.length === counterCorners.length && !inForce.some((r) => isOfRound(r.measure));
    const shownRounds = isFullRound && this.tapesRounds() !== surface.id ? [] : rounds(surface.round);
    const told = toldOf(surface, doc, units);
    const film = doc.films.find((f) => f.id === surface.filmId);
    const shown = viewOf(surface, told, film ? cutOfCounter(surface, doc, film).answer : null);
    return {
      ...shown,
      survey,
      isFullRound,
      groups: [...outline, ...shownRounds, ...edge],
      partDoubts: told.doubts,
      doubtful: told.doubts.map((d) => d.part),
      // a corner that is sharp again keeps what was taped of its round, but does not show it
      tapes: tapesShown(allKeys.filter((k) => !isOfRound(k) || rounds(surface.round).some((g) => g.keys.includes(k))), shown, units), // prettier-ignore
    };
  });
}
