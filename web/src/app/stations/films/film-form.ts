import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { filmConstruction, filmKind, type Film, type UnitSystem } from '@yellow-pane/contracts';
import { measureOf, type MeasureKind } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { draftOf, emptyOffer, filmFromDraft, offerDraftsOf, type FilmDraft, type OfferDraft } from './film-draft';
import { constructionWords, kindWords } from './film-words';

/** A place on the sheet of a film. */
interface Field {
  readonly field: keyof FilmDraft;
  readonly name: string;
  readonly span: string;
  readonly isNumber?: boolean;
  readonly options?: readonly { readonly value: string; readonly name: string }[];
}
const figure = (field: keyof FilmDraft, name: string): Field => ({ field, name, span: 'col-span-2', isNumber: true });
const spans = { 2: 'col-span-2', 3: 'col-span-3', 4: 'col-span-4', 6: 'col-span-6' } as const;
const choice = (field: keyof FilmDraft, name: string, wide: keyof typeof spans, options: readonly (readonly [value: string, name: string])[]): Field => ({
  field,
  name,
  span: spans[wide],
  options: options.map(([value, own]) => ({ value, name: own })),
});

/** A film's sheet to fill in: a new film, or the next version of one. */
@Component({
  selector: 'yp-film-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="grid grid-cols-6 gap-2 text-sm" (submit)="$event.preventDefault(); take()" (input)="faults.set([])">
      <h2 class="col-span-6 text-lg">{{ old() ? 'Next version of ' + old()!.name : 'A new film' }}</h2>
      @for (f of fields(); track f.field) {
        <div [class]="f.span">
          <label class="block" [for]="'film-' + f.field">{{ f.name }}</label>
          @if (f.options) {
            <select class="field" [id]="'film-' + f.field" (change)="type(f.field, $event)">
              @for (o of f.options; track o.value) {
                <option [value]="o.value" [selected]="o.value === shown()[f.field]">{{ o.name }}</option>
              }
            </select>
          } @else {
            <input
              class="field"
              [class.figure]="f.isNumber"
              [id]="'film-' + f.field"
              autocomplete="off"
              [value]="shown()[f.field]"
              (input)="type(f.field, $event)"
            />
          }
        </div>
      }
      <fieldset class="col-span-6">
        <legend>Sold as</legend>
        @for (o of sizes(); track $index) {
          <div class="mb-1 grid grid-cols-4 gap-1">
            @for (p of offerFields(); track p.field) {
              <label>
                @if ($index === 0 || sizes().length === 1) {
                  <span class="block text-soft">{{ p.name }}</span>
                }
                <input
                  class="field figure"
                  [attr.aria-label]="p.name + ', size ' + (sizes().indexOf(o) + 1)"
                  autocomplete="off"
                  [value]="o[p.field]"
                  (change)="typeSize(sizes().indexOf(o), p.field, $event)"
              /></label>
            }
          </div>
        }
        <button type="button" class="btn" (click)="moreSizes()">One size more</button>
      </fieldset>
      @if (faults().length) {
        <ul role="alert" class="col-span-6 border-l-4 border-ink bg-tint p-2">
          @for (f of faults(); track f) {
            <li>{{ f }}</li>
          }
        </ul>
      }
      <div class="col-span-6 flex gap-2">
        <button class="btn btn-ink">{{ old() ? 'Make this version' : 'Put it in the library' }}</button><button type="button" class="btn" (click)="left.emit()">
          Leave it
        </button>
      </div>
    </form>
  `,
})
export class FilmForm {
  readonly old = input.required<Film | null>();
  /** What the bench is measured in. */
  readonly units = input<UnitSystem>('mm');
  readonly made = output<Film>();
  readonly left = output<void>();
  protected readonly faults = signal<readonly string[]>([]);
  private readonly typed = signal<Partial<FilmDraft>>({});
  protected readonly shown = computed<FilmDraft>(() => ({ ...draftOf(this.old(), this.units()), ...this.typed() }));

  private unit = (kind: MeasureKind): string => measureOf(kind, this.units()).unit;
  protected readonly fields = computed((): readonly Field[] => [
    { field: 'name', name: 'Name', span: 'col-span-4' },
    figure('thicknessUm', `Thickness, ${this.unit('thickness')}`),
    choice('kind', 'What it is', 3, filmKind.options.map((k) => [k, kindWords[k]])), // prettier-ignore
    choice('construction', 'Made of', 3, [['', 'not said'], ...filmConstruction.options.map((c) => [c, constructionWords[c]] as const)]), // prettier-ignore
    choice('mounting', 'Goes on', 2, [['inside', 'room face'], ['outside', 'street face'], ['either', 'either face'], ['not-on-glass', 'walls, furniture']]), // prettier-ignore
    choice('wound', 'Wound', 2, [['unknown', 'not known'], ['liner-out', 'liner out'], ['liner-in', 'liner in']]), // prettier-ignore
    choice('direction', 'May be turned', 2, [['none', 'any way'], ['two-way', 'end for end'], ['one-way', 'not at all']]), // prettier-ignore
    choice('linerSide', 'Liner on', 3, [['adhesive', 'the adhesive'], ['face', 'the show face'], ['none', 'no liner']]), // prettier-ignore
    choice('machineDirection', 'Drawn, so shrinks', 3, [['along', 'along the roll'], ['across', 'across the roll'], ['both', 'both ways'], ['none', 'not at all']]), // prettier-ignore
    choice('ratedOn', 'Values rated on', 6, [['clear-3', '3 mm clear glass'], ['clear-6', '6 mm clear glass'], ['none', 'the film alone']]), // prettier-ignore
    figure('visibleT', 'Light through, %'),
    figure('visibleRGlass', 'back, glass side'),
    figure('visibleRFree', 'back, free side'),
    figure('solarT', 'Sun through, %'),
    figure('solarRGlass', 'back, glass side'),
    figure('solarRFree', 'back, free side'),
    figure('uvT', 'UV through, %'),
    figure('haze', 'Haze, %'),
    figure('emissivity', 'Emissivity'),
    figure('shrinkAlong', 'Shrinks along, %'),
    figure('growAcross', 'grows across, %'),
    figure('stretchMax', 'Stretches to, %'),
    figure('readAfter', 'Gun away before it is read, s'),
    figure('patternRepeat', `Repeat, ${this.units()}`),
    choice('patternMatch', 'Neighbours match', 2, [['straight', 'straight'], ['half-drop', 'by half a drop']]), // prettier-ignore
    figure('applyMin', `Applied from, ${this.unit('temperature')}`),
    figure('applyMax', `to, ${this.unit('temperature')}`),
    figure('postHeat', `Post-heat, ${this.unit('temperature')}`),
    figure('limit', `Stands, ${this.unit('temperature')}`),
    choice('drying', 'Drying', 4, [['', 'not said'], ['fast', 'fast'], ['medium', 'medium'], ['slow', 'slow'], ['dry-applied', 'applied dry']]), // prettier-ignore
    { field: 'note', name: 'Note', span: 'col-span-6' },
  ]);

  protected readonly offerFields = computed((): readonly { field: keyof OfferDraft; name: string }[] => [
    { field: 'widthMm', name: this.units() === 'in' ? 'inches wide' : 'mm wide' },
    { field: 'lengthM', name: this.units() === 'in' ? 'ft long' : 'm long' },
    { field: 'pricePerRoll', name: 'a roll' },
    { field: 'pricePerM', name: this.units() === 'in' ? 'a foot' : 'a metre' },
  ]);
  private readonly typedSizes = signal<readonly OfferDraft[] | null>(null);
  protected readonly sizes = computed(() => this.typedSizes() ?? offerDraftsOf(this.old(), this.units()));
  protected moreSizes(): void {
    this.typedSizes.set([...this.sizes(), { ...emptyOffer }]);
  }
  protected typeSize(at: number, field: keyof OfferDraft, event: Event): void {
    const { value } = event.target as HTMLInputElement;
    this.typedSizes.set(this.sizes().map((o, i) => (i === at ? { ...o, [field]: value } : o)));
  }

  protected type(field: keyof FilmDraft, event: Event): void {
    const { value } = event.target as HTMLInputElement | HTMLSelectElement;
    this.typed.update((t) => ({ ...t, [field]: value }));
  }
  protected take(): void {
    const read = filmFromDraft(this.shown(), this.sizes(), this.old(), uuidv7(), new Date().toISOString(), this.units());
    if ('faults' in read) this.faults.set(read.faults);
    else this.made.emit(read.film);
  }
}
