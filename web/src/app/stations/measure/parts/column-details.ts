import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { column as columnSchema, type Column, type DryAllowances, type Ground } from '@yellow-pane/contracts';
import { isLaidDry, resolveDry } from '@yellow-pane/core';
import { formatLength, parseLength } from '@yellow-pane/core/ground';
import { GroundFields } from '../../../kit/ground-fields';
import { RecordStore } from '../../../record/record.store';

const lengths = [
  { field: 'lapMm', name: 'Lap at the seam' },
  { field: 'notchMm', name: 'Notches, deep' },
  { field: 'linerStripMm', name: 'Strip of liner, wide' },
] as const;

/** What is known of a column besides its tapes, and what is added to its piece. */
@Component({
  selector: 'yp-column-details',
  imports: [GroundFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <div class="space-y-2 text-sm">
      <label class="block"
        >Name<input #name class="field" [value]="s.name" maxlength="60" (change)="name.value.trim() && set('Rename', { name: name.value.trim() })"
      /></label>
      <label class="block"
        >Film<select #film class="field" (change)="set('Choose film', { filmId: film.value || null })">
          <option value="" [selected]="!s.filmId">none yet</option>
          @for (f of films(); track f.id) {
            <option [value]="f.id" [selected]="f.id === s.filmId">{{ f.name }}</option>
          }
        </select></label
      >
      <yp-ground-fields [ground]="s.ground" (changed)="setGround($event)" />
      <div class="grid grid-cols-2 gap-2">
        @for (l of lengths; track l.field) {
          <label class="block"
            >{{ l.name }}<input #box class="field figure" [value]="f(dry()[l.field])" [class.font-semibold]="isOwn(l.field)" (change)="setDry(l.field, box)"
          /></label>
        }
        <label class="block"
          >A lap that grows<select #taper class="field" (change)="put({ taper: taper.value === 'wedge' ? 'wedge' : 'trim' })">
            <option value="trim" [selected]="dry().taper === 'trim'">is trimmed straight</option>
            <option value="wedge" [selected]="dry().taper === 'wedge'">stays a wedge</option>
          </select></label
        >
      </div>
      @if (message()) {
        <p role="alert" class="border-l-4 border-ink bg-tint p-2">{{ message() }}</p>
      }
      <label class="block"
        >Note<textarea #note class="field" rows="2" maxlength="400" [value]="s.note" (change)="set('Note', { note: note.value })"></textarea>
      </label>
      <button type="button" class="btn" (click)="remove()">Delete this column</button>
    </div>
  `,
})
export class ColumnDetails {
  readonly surface = input.required<Column>();
  private readonly record = inject(RecordStore);
  protected readonly lengths = lengths;
  protected readonly message = signal('');
  protected readonly films = computed(() => {
    const doc = this.record.doc();
    const replaced = new Set((doc?.films ?? []).map((f) => f.replacesId));
    return (doc?.films ?? []).filter((f) => f.id === this.surface().filmId || (isLaidDry(f) && f.retiredAt === null && !replaced.has(f.id)));
  });
  protected readonly dry = computed<DryAllowances>(() => resolveDry(this.record.records()!, this.surface()));
  protected f = (mm: number): string => formatLength(mm, this.record.units());
  protected isOwn = (field: keyof DryAllowances): boolean => this.surface().dry?.[field] !== undefined;

  protected set(label: string, value: Partial<Column>): void {
    void this.record.set(`${label}: ${this.surface().name}`.slice(0, 120), 'surface', this.surface().id, value);
  }
  protected setGround(ground: Ground): void {
    this.set('What it is', { ground });
  }
  /** Emptied, it is again as the job has it. */
  protected setDry(field: (typeof lengths)[number]['field'], box: HTMLInputElement): void {
    this.message.set('');
    const typed = box.value.trim();
    if (typed === '') return this.put({ [field]: undefined });
    const read = parseLength(typed, this.record.units());
    const value = read.ok ? read.value.lengthMm : null;
    const fault = value === null ? (read.ok ? '' : read.message) : columnSchema.shape.dry.safeParse({ [field]: value }).error?.issues[0]?.message;
    if (fault !== undefined) {
      this.message.set(fault);
      box.value = this.f(this.dry()[field]);
      return;
    }
    this.put({ [field]: value! });
  }
  protected put(more: { readonly [K in keyof DryAllowances]?: DryAllowances[K] | undefined }): void {
    const dry = Object.fromEntries(Object.entries({ ...this.surface().dry, ...more }).filter(([, v]) => v !== undefined)) as Partial<DryAllowances>;
    this.set('What is added', { dry: Object.keys(dry).length ? dry : null });
  }
  protected remove(): void {
    const { id, name } = this.surface();
    void this.record.set(`Delete ${name}`, 'surface', id, { deletedAt: new Date().toISOString() });
  }
}
