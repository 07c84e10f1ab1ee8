import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { columnEnds, type Column, type ColumnMeasure } from '@yellow-pane/contracts';
import { columnKeys, cutOfColumn, surveyColumn, toldOf } from '@yellow-pane/core';
import { ColumnDrawing } from '../../kit/column-drawing';
import { RecordStore } from '../../record/record.store';
import { DryDetails } from './parts/dry-details';
import { TapedPage, tapesShown, viewOf, type TapeGroup } from './parts/taped-page';

/** Fields of a column as they stand round its drawing, in the order one walks round it. */
const groups: readonly (TapeGroup & { readonly keys: readonly ColumnMeasure[] })[] = [
  { name: 'Girth', hint: 'The tape pulled round, level, at three heights.', keys: ['girthTop', 'girthMiddle', 'girthFoot'] },
  { name: 'Height', hint: 'Floor to ceiling at its four sides; the front is where people come from.', keys: ['heightFront', 'heightRight', 'heightBack', 'heightLeft'] },
  { name: 'Across', hint: 'At half height between two straightedges, square to each other. Girth alone hides an oval.', keys: ['acrossFront', 'acrossSide', 'cornerRadius'] },
  { name: 'Foot to a line hung from its top', hint: '+ where the foot stands out past the line, − where it stays back. Only where it may lean.', keys: ['plumbFront', 'plumbRight', 'plumbBack', 'plumbLeft'] },
]; // prettier-ignore

const shortNames: Readonly<Record<ColumnMeasure, string>> = { girthTop: 'Under the top', girthMiddle: 'At half height', girthFoot: 'At the foot', heightFront: 'Front', heightRight: 'Right', heightBack: 'Back', heightLeft: 'Left', acrossFront: 'From the front', acrossSide: 'From the side', cornerRadius: 'Corner radius', plumbFront: 'Front', plumbRight: 'Right', plumbBack: 'Back', plumbLeft: 'Left' }; // prettier-ignore

/** Measure, of a column: its tapes, and what they say to each other. */
@Component({
  selector: 'yp-column-page',
  imports: [ColumnDrawing, DryDetails, TapedPage],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <yp-taped-page [view]="v" [taped]="v.groups" [shortNames]="shortNames" [laserKeys]="laser" kindName="column">
        <div head class="flex gap-1.5 text-sm" role="group" aria-label="Its section">
          @for (s of sections; track s.id) {
            <button
              type="button"
              class="btn"
              [class.btn-hand]="s.id === v.surface.section"
              [attr.aria-pressed]="s.id === v.surface.section"
              (click)="setSection(s.id)"
            >
              {{ s.name }}
            </button>
          }
        </div>
        <div drawing>
          @if (v.body; as body) {
            <yp-column-drawing [body]="body" [units]="record.units()" [tapes]="v.tapes" [label]="v.surface.name + ' from the front and from above'" />
          } @else {
            <p class="border border-dashed border-field p-4 text-center text-soft">Girth and height draw it.</p>
          }
        </div>
        <yp-dry-details details class="mt-2 block" [surface]="v.surface">
          <div class="grid grid-cols-2 gap-2 text-sm">
            @for (e of ends; track e.end) {
              <label class="block"
                >{{ e.name
                }}<select #box class="field" [attr.data-choice]="e.end" (change)="setEnd(e.end, box.value)">
                  @for (o of e.options; track o) {
                    <option [value]="o" [selected]="v.surface.ends[e.end] === o">{{ o }}</option>
                  }
                </select></label
              >
            }
          </div>
        </yp-dry-details>
      </yp-taped-page>
    }
  `,
})
export class ColumnPage {
  protected readonly record = inject(RecordStore);
  protected readonly shortNames = shortNames;
  protected readonly laser = /^(height|across)/;
  protected readonly sections = [
    { id: 'round', name: 'Round' },
    { id: 'square', name: 'Square' },
  ] as const;

  /** What it stands on and what it carries. */
  protected readonly ends = [
    { end: 'foot', name: 'Film ends below at the', options: columnEnds.shape.foot.options },
    { end: 'head', name: 'Film ends above at the', options: columnEnds.shape.head.options },
  ] as const;

  protected readonly view = computed(() => {
    const [doc, surface, units] = [this.record.records(), this.record.column(), this.record.units()];
    if (!doc || !surface) return null;
    const { survey } = surveyColumn(surface, doc);
    const told = toldOf(surface, doc, units);
    const film = doc.films.find((f) => f.id === surface.filmId);
    const known = columnKeys(surface.section);
    const shown = viewOf(surface, told, film ? cutOfColumn(surface, doc, film).answer : null);
    return {
      ...shown,
      body: survey.body,
      groups: groups.map((g) => ({ ...g, keys: g.keys.filter((key) => (known as readonly string[]).includes(key)) })),
      tapes: tapesShown(known, shown, units) as { key: ColumnMeasure; text: string; isDoubtful: boolean }[],
    };
  });

  protected setEnd(end: keyof Column['ends'], value: string): void {
    const s = this.record.column();
    const read = columnEnds.partial().safeParse({ [end]: value });
    if (s && read.success) void this.record.set(`Ends of ${s.name}`.slice(0, 120), 'surface', s.id, { ends: { ...s.ends, ...read.data } });
  }
  protected setSection(section: 'round' | 'square'): void {
    const s = this.record.column();
    if (s && s.section !== section) void this.record.set(`${s.name} is ${section}`, 'surface', s.id, { section });
  }
}
