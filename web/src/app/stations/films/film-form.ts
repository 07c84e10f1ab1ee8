import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { filmConstruction, filmKind, type Film } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { draftOf, emptyOffer, filmFromDraft, offerDraftsOf, type FilmDraft, type OfferDraft } from './film-draft';
import { kindWords } from './film-words';

/** A film's sheet to fill in: a new film, or the next version of one. */
@Component({
  selector: 'yp-film-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="grid grid-cols-6 gap-2 text-sm" (submit)="$event.preventDefault(); take()" (input)="faults.set([])">
      <h2 class="col-span-6 text-lg">{{ old() ? 'Next version of ' + old()!.name : 'A new film' }}</h2>
      @for (f of fields; track f.field) {
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
            @for (p of offerFields; track p.field) {
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
  readonly made = output<Film>();
  readonly left = output<void>();
  protected readonly faults = signal<readonly string[]>([]);
  private readonly typed = signal<Partial<FilmDraft>>({});
  protected readonly shown = computed<FilmDraft>(() => ({ ...draftOf(this.old()), ...this.typed() }));

  protected readonly fields: readonly {
    field: keyof FilmDraft;
    name: string;
    span: string;
    isNumber?: boolean;
    options?: readonly { value: string; name: string }[];
  }[] = [
    { field: 'name', name: 'Name', span: 'col-span-4' },
    { field: 'thicknessUm', name: 'Thickness, µm', span: 'col-span-2', isNumber: true },
    { field: 'kind', name: 'What it is', span: 'col-span-3', options: filmKind.options.map((k) => ({ value: k, name: kindWords[k] })) },
    {
      field: 'construction',
      name: 'Made of',
      span: 'col-span-3',
      options: [{ value: '', name: 'not said' }, ...filmConstruction.options.map((c) => ({ value: c, name: c }))],
    },
    {
      field: 'mounting',
      name: 'Goes on',
      span: 'col-span-2',
      options: [
        { value: 'inside', name: 'room face' },
        { value: 'outside', name: 'street face' },
        { value: 'either', name: 'either face' },
        { value: 'not-on-glass', name: 'walls, furniture' },
      ],
    },
    {
      field: 'wound',
      name: 'Wound',
      span: 'col-span-2',
      options: [
        { value: 'unknown', name: 'not known' },
        { value: 'liner-out', name: 'liner out' },
        { value: 'liner-in', name: 'liner in' },
      ],
    },
    {
      field: 'direction',
      name: 'May be turned',
      span: 'col-span-2',
      options: [
        { value: 'none', name: 'any way' },
        { value: 'two-way', name: 'end for end' },
        { value: 'one-way', name: 'not at all' },
      ],
    },
    {
      field: 'linerSide',
      name: 'Liner on',
      span: 'col-span-3',
      options: [
        { value: 'adhesive', name: 'the adhesive' },
        { value: 'face', name: 'the show face' },
        { value: 'none', name: 'no liner' },
      ],
    },
    {
      field: 'machineDirection',
      name: 'Drawn, so shrinks',
      span: 'col-span-3',
      options: [
        { value: 'along', name: 'along the roll' },
        { value: 'across', name: 'across the roll' },
        { value: 'both', name: 'both ways' },
        { value: 'none', name: 'not at all' },
      ],
    },
    {
      field: 'ratedOn',
      name: 'Values rated on',
      span: 'col-span-6',
      options: [
        { value: 'clear-3', name: '3 mm clear glass' },
        { value: 'clear-6', name: '6 mm clear glass' },
        { value: 'none', name: 'the film alone' },
      ],
    },
    { field: 'visibleT', name: 'Light through, %', span: 'col-span-2', isNumber: true },
    { field: 'visibleRGlass', name: 'back, glass side', span: 'col-span-2', isNumber: true },
    { field: 'visibleRFree', name: 'back, free side', span: 'col-span-2', isNumber: true },
    { field: 'solarT', name: 'Sun through, %', span: 'col-span-2', isNumber: true },
    { field: 'solarRGlass', name: 'back, glass side', span: 'col-span-2', isNumber: true },
    { field: 'solarRFree', name: 'back, free side', span: 'col-span-2', isNumber: true },
    { field: 'uvT', name: 'UV through, %', span: 'col-span-2', isNumber: true },
    { field: 'haze', name: 'Haze, %', span: 'col-span-2', isNumber: true },
    { field: 'emissivity', name: 'Emissivity', span: 'col-span-2', isNumber: true },
    { field: 'shrinkAlong', name: 'Shrinks along, %', span: 'col-span-2', isNumber: true },
    { field: 'growAcross', name: 'grows across, %', span: 'col-span-2', isNumber: true },
    { field: 'patternRepeat', name: 'Repeat, mm', span: 'col-span-2', isNumber: true },
    {
      field: 'patternMatch',
      name: 'Neighbours match',
      span: 'col-span-2',
      options: [
        { value: 'straight', name: 'straight' },
        { value: 'half-drop', name: 'by half a drop' },
      ],
    },
    { field: 'applyMin', name: 'Applied from, °C', span: 'col-span-2', isNumber: true },
    { field: 'applyMax', name: 'to, °C', span: 'col-span-2', isNumber: true },
    { field: 'postHeat', name: 'Post-heat, °C', span: 'col-span-2', isNumber: true },
    { field: 'limit', name: 'Stands, °C', span: 'col-span-2', isNumber: true },
    {
      field: 'drying',
      name: 'Drying',
      span: 'col-span-4',
      options: [
        { value: '', name: 'not said' },
        { value: 'fast', name: 'fast' },
        { value: 'medium', name: 'medium' },
        { value: 'slow', name: 'slow' },
        { value: 'dry-applied', name: 'applied dry' },
      ],
    },
    { field: 'note', name: 'Note', span: 'col-span-6' },
  ];

  protected readonly offerFields: readonly { field: keyof OfferDraft; name: string }[] = [
    { field: 'widthMm', name: 'mm wide' },
    { field: 'lengthM', name: 'm long' },
    { field: 'pricePerRoll', name: 'a roll' },
    { field: 'pricePerM', name: 'a metre' },
  ];
  private readonly typedSizes = signal<readonly OfferDraft[] | null>(null);
  protected readonly sizes = computed(() => this.typedSizes() ?? offerDraftsOf(this.old()));
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
    const read = filmFromDraft(this.shown(), this.sizes(), this.old(), uuidv7(), new Date().toISOString());
    if ('faults' in read) this.faults.set(read.faults);
    else this.made.emit(read.film);
  }
}
