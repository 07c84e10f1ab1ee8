import { ChangeDetectionStrategy, Component, computed, effect, type ElementRef, inject, signal, viewChild } from '@angular/core';
import { film as filmSchema, newRoll, type Film, type Patch } from '@yellow-pane/contracts';
import { measureOf, parseLength } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../record/record.store';

const kinds = [
  { value: 'solar', name: 'solar or privacy tint', hatch: 'slant' },
  { value: 'frosted', name: 'frosted or decorative', hatch: 'dots' },
  { value: 'security', name: 'security', hatch: 'cross' },
] as const;

/** A film and a roll of it, as they stand in the van: enough to cut from. */
@Component({
  selector: 'yp-film-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog
      #sheet
      class="m-auto w-[520px] max-w-[94vw] border border-ink bg-card p-6 backdrop:bg-ink/40"
      aria-labelledby="film-title"
      (close)="record.openFilmSheet(false)"
    >
      <form
        class="grid grid-cols-2 gap-3 text-sm"
        (submit)="
          $event.preventDefault();
          add({
            film: film.value,
            name: name.value,
            kind: kind.value,
            wound: wound.value,
            direction: direction.value,
            label: label.value,
            lot: lot.value,
            width: width.value,
            length: length.value,
            price: price.value,
          })
        "
      >
        <h2 id="film-title" class="col-span-2 text-xl">A roll in the van</h2>
        <label class="col-span-2"
          >Film<select #film class="field" (change)="isNew.set(film.value === '')">
            <option value="">a film not yet on this bench</option>
            @for (f of record.doc()?.films ?? []; track f.id) {
              <option [value]="f.id">{{ f.name }}</option>
            }
          </select></label
        >
        <label class="col-span-2" [class.hidden]="!isNew()">Name of the film<input #name class="field" maxlength="80" /></label>
        <label [class.hidden]="!isNew()"
          >What it is<select #kind class="field">
            @for (k of kinds; track k.value) {
              <option [value]="k.value">{{ k.name }}</option>
            }
          </select></label
        >
        <label [class.hidden]="!isNew()"
          >Face wound outside<select #wound class="field">
            <option value="liner-out">liner: it comes off liner up</option>
            <option value="liner-in">film: it comes off film up</option>
            <option value="unknown">not known yet</option>
          </select></label
        >
        <label class="col-span-2" [class.hidden]="!isNew()"
          >May a piece be turned on the roll?<select #direction class="field">
            <option value="none">any way</option>
            <option value="two-way">only end for end: it has a direction</option>
            <option value="one-way">not at all: one way up</option>
          </select></label
        >
        <label>Roll, as you call it<input #label class="field" maxlength="40" required placeholder="S-115" /></label>
        <label>Lot<input #lot class="field" maxlength="40" /></label>
        <label>Width<input #width class="field figure" required [placeholder]="record.units() === 'mm' ? '1524' : '60'" /></label>
        <label>{{ inFeet() ? 'Feet' : 'Metres' }} on it<input #length class="field figure" required [placeholder]="inFeet() ? '100' : '30.5'" /></label>
        <label>Price per {{ inFeet() ? 'foot' : 'metre' }}<input #price class="field figure" required [placeholder]="inFeet() ? '4.10' : '13.50'" /></label>
        @if (message()) {
          <p role="alert" class="col-span-2 border-l-4 border-ink bg-tint p-2">{{ message() }}</p>
        }
        <div class="col-span-2 flex gap-2">
          <button class="btn btn-ink">Put it on the bench</button><button type="button" class="btn" (click)="close()">Leave it</button>
        </div>
      </form>
    </dialog>
  `,
})
export class FilmSheet {
  protected readonly record = inject(RecordStore);
  protected readonly kinds = kinds;
  protected readonly isNew = signal(true);
  protected readonly inFeet = computed(() => this.record.units() === 'in');
  protected readonly message = signal('');
  private readonly sheet = viewChild.required<ElementRef<HTMLDialogElement>>('sheet');

  constructor() {
    effect(() => {
      const dialog = this.sheet().nativeElement;
      if (this.record.filmSheet() && !dialog.open) dialog.showModal();
      if (!this.record.filmSheet() && dialog.open) dialog.close();
    });
  }

  protected close(): void {
    this.record.openFilmSheet(false);
  }

  protected add(f: {
    film: string;
    name: string;
    kind: string;
    wound: string;
    direction: string;
    label: string;
    lot: string;
    width: string;
    length: string;
    price: string;
  }): void {
    const width = parseLength(f.width, this.record.units());
    // rolls are sold by the foot where tapes are in inches
    const [inFeet, unitM] = [this.inFeet(), measureOf('roll', this.inFeet() ? 'in' : 'mm').from(1)];
    const metres = Number(f.length.replace(',', '.')) * unitM;
    const price = Number(f.price.replace(',', '.')) / unitM;
    if (f.film === '' && !f.name.trim()) return this.message.set('The film needs a name.');
    if (!width.ok) return this.message.set(`Width: ${width.message}`);
    if (!(metres > 0 && metres <= 1000)) return this.message.set(`A roll has between 0 and ${inFeet ? '3280 feet' : '1000 m'} on it.`);
    if (!(price >= 0) || f.price.trim() === '')
      return this.message.set(`Price per ${inFeet ? 'foot: a number such as 4.10' : 'metre: a number such as 13.50'}.`);
    const now = new Date().toISOString();
    const patches: Patch[] = [];
    let filmId = f.film;
    if (filmId === '') {
      const kind = kinds.find((k) => k.value === f.kind)!;
      const film: Film = filmSchema.parse({
        id: uuidv7(),
        name: f.name.trim(),
        version: 1,
        kind: kind.value,
        wound: f.wound as Film['wound'],
        direction: f.direction as Film['direction'],
        hatch: kind.hatch,
        thicknessUm: 50,
        // what this roll cost is what the next one is priced at, until the film's own sheet says otherwise
        offers: [{ widthMm: width.value.lengthMm, lengthM: metres, pricePerRoll: (price * metres).toFixed(2), pricePerM: price.toFixed(2) }],
        createdAt: now,
      });
      filmId = film.id;
      patches.push({ op: 'add', kind: 'film', id: film.id, value: film });
    }
    const roll = newRoll({
      id: uuidv7(),
      filmId,
      label: f.label.trim(),
      lot: f.lot.trim(),
      widthMm: width.value.lengthMm,
      lengthM: metres,
      pricePerM: price.toFixed(2),
    });
    patches.push({ op: 'add', kind: 'roll', id: roll.id, value: roll });
    const surface = this.record.surface();
    if (surface && !surface.filmId) patches.push({ op: 'set', kind: 'surface', id: surface.id, field: 'filmId', value: filmId });
    void this.record.change(`Roll ${roll.label}`, patches);
    this.message.set('');
    this.close();
  }
}
