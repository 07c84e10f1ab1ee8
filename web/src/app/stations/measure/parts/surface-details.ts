import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { cutMethod, frameKind, MOST_ALLOWANCE_MM, obstructionKind, type Allowances, type Pane } from '@yellow-pane/contracts';
import { resolveAllowances } from '@yellow-pane/core';
import { formatDifference, formatLength, parseLength } from '@yellow-pane/core/ground';
import { methodNames } from '@yellow-pane/core/cut';
import { RecordStore } from '../../../record/record.store';

type AllowanceMm = Exclude<keyof Allowances, 'sizeStep'>;

/** What is known of the pane besides its tapes. */
@Component({
  selector: 'yp-surface-details',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <div class="space-y-2 text-sm">
      <label class="block"
        >Name<input #name class="field" [value]="s.name" maxlength="60" (change)="name.value.trim() && set('Rename', { name: name.value.trim() })"
      /></label>
      <div class="grid grid-cols-2 gap-2">
        <label class="block"
          >Film<select #film class="field" (change)="set('Choose film', { filmId: film.value || null })">
            <option value="" [selected]="!s.filmId">none yet</option>
            @for (f of films(); track f.id) {
              <option [value]="f.id" [selected]="f.id === s.filmId">{{ f.name }}</option>
            }
          </select></label
        >
        <label class="block"
          >Method<select #method class="field" (change)="set('Choose method', { method: method.value || null })">
            <option value="" [selected]="!s.method">as the job: {{ names[jobMethod()] }}</option>
            @for (m of methods; track m) {
              <option [value]="m" [selected]="m === s.method">{{ names[m] }}</option>
            }
          </select></label
        >
        <label class="block"
          >Size taken<select #size class="field" (change)="set('Which size', { sizeKind: size.value })">
            <option value="daylight" [selected]="s.sizeKind === 'daylight'">daylight: gasket to gasket</option>
            <option value="tight" [selected]="s.sizeKind === 'tight'">tight: under the beads</option>
          </select></label
        >
        <label class="block"
          >Frame<select #frame class="field" (change)="set('Frame kind', { frame: frame.value })">
            @for (f of frames; track f) {
              <option [value]="f" [selected]="f === s.frame">{{ f === 'unknown' ? 'not known' : f }}</option>
            }
          </select></label
        >
        <label class="block"
          >Taped from<select #seen class="field" (change)="set('Side taped from', { seenFrom: seen.value })">
            <option value="room" [selected]="s.seenFrom === 'room'">the room</option>
            <option value="street" [selected]="s.seenFrom === 'street'">the street</option>
          </select></label
        >
        <label class="block"
          >Film goes on<select #face class="field" (change)="set('Glass face', { filmFace: face.value })">
            <option value="room" [selected]="s.filmFace === 'room'">the room face</option>
            <option value="street" [selected]="s.filmFace === 'street'">the street face</option>
          </select></label
        >
        <label class="block"
          >Reveal depth<input #reveal class="field figure" [value]="s.revealMm === null ? '' : length(s.revealMm)" (change)="setReveal(reveal)"
        /></label>
        <label class="block"
          >In the way<select #kind class="field" (change)="addObstruction(kind)">
            <option value="">add …</option>
            @for (k of obstructions; track k) {
              <option [value]="k">{{ k }}</option>
            }
          </select></label
        >
      </div>
      @for (o of s.obstructions; track $index) {
        <p class="flex items-center justify-between gap-2 border-b border-hair">
          <span>{{ o.kind }}{{ o.note ? ': ' + o.note : '' }}</span
          ><button type="button" class="min-h-6 underline" (click)="dropObstruction($index)">not there</button>
        </p>
      }
      <div class="flex flex-wrap gap-x-4">
        <button type="button" class="min-h-6 underline" (click)="record.openFilmSheet(true)">New film or roll</button>
      </div>
      <fieldset class="grid grid-cols-3 gap-2">
        <legend class="mb-1 text-soft">Allowances of this pane (empty: as the job)</legend>
        @for (a of allowanceFields; track a.field) {
          <label class="block"
            >{{ a.name
            }}<input #box class="field figure" [value]="own(a.field)" [placeholder]="fine(resolved()[a.field])" (change)="setAllowance(a.field, box)"
          /></label>
        }
      </fieldset>
      <label class="block"
        >Note<textarea #note class="field" rows="2" maxlength="400" (change)="set('Note', { note: note.value })">{{ s.note }}</textarea>
      </label>
      <button type="button" class="min-h-6 underline" (click)="remove()">Delete this pane</button>
    </div>
  `,
})
export class SurfaceDetails {
  readonly surface = input.required<Pane>();
  protected readonly record = inject(RecordStore);
  protected readonly allowanceFields = [
    { field: 'overhangMm', name: 'Overhang' },
    { field: 'overhangTopMm', name: 'At the top' },
    { field: 'edgeGapMm', name: 'Edge gap' },
  ] as const;
  protected readonly resolved = computed(() => resolveAllowances(this.record.doc()!, this.surface()));
  protected readonly names = methodNames;
  protected readonly methods = cutMethod.options;
  protected readonly frames = frameKind.options;
  protected readonly obstructions = obstructionKind.options;
  protected readonly films = computed(() => (this.record.doc()?.films ?? []).filter((f) => f.id === this.surface().filmId || f.retiredAt === null));
  protected readonly jobMethod = computed(() => this.record.doc()?.job.method ?? 'overhang');
  protected length = (mm: number): string => formatLength(mm, this.record.units());

  protected set(label: string, fields: Record<string, unknown>): void {
    const s = this.surface();
    void this.record.set(`${label}: ${s.name}`, 'surface', s.id, fields);
  }
  protected setReveal(box: HTMLInputElement): void {
    const read = box.value.trim() === '' ? null : parseLength(box.value, this.record.units());
    if (read && !read.ok) {
      box.setCustomValidity(read.message);
      box.reportValidity();
      return;
    }
    box.setCustomValidity('');
    this.set('Reveal', { revealMm: read ? read.value.lengthMm : null });
  }
  protected own(field: AllowanceMm): string {
    const mm = this.surface().allowances?.[field];
    return mm === undefined ? '' : this.fine(mm);
  }
  /** An edge gap is told in tenths of a millimetre. */
  protected fine = (mm: number): string => (this.record.units() === 'mm' ? String(Math.round(mm * 10) / 10) : formatLength(mm, 'in'));
  protected setAllowance(field: AllowanceMm, box: HTMLInputElement): void {
    const { [field]: _old, ...rest } = this.surface().allowances ?? {};
    const read = box.value.trim() === '' ? null : parseLength(box.value, this.record.units());
    const most = MOST_ALLOWANCE_MM[field];
    const message =
      read && !read.ok ? read.message : read && read.ok && read.value.lengthMm > most ? `At most ${formatDifference(most, this.record.units())}.` : '';
    box.setCustomValidity(message);
    if (message) return void box.reportValidity();
    this.set('Allowance', { allowances: read && read.ok ? { ...rest, [field]: read.value.lengthMm } : rest });
  }
  protected addObstruction(box: HTMLSelectElement): void {
    if (box.value) this.set('Something in the way', { obstructions: [...this.surface().obstructions, { kind: box.value, note: '' }] });
    box.value = '';
  }
  protected dropObstruction(at: number): void {
    this.set('Nothing in the way', { obstructions: this.surface().obstructions.filter((_, i) => i !== at) });
  }
  protected remove(): void {
    const s = this.surface();
    this.record.step(1);
    if (this.record.selectedId() === s.id) this.record.step(-1);
    void this.record.set(`Delete ${s.name}`, 'surface', s.id, { deletedAt: new Date().toISOString() });
  }
}
