import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { surfaceKindNames, type DryAllowances, type Ground, type SurfaceKind } from '@yellow-pane/contracts';
import { isLaidDry, resolveDry, type DrySurface } from '@yellow-pane/core';
import { DryFields, withDry, type DryChange } from '../../../kit/dry-fields';
import { GroundFields } from '../../../kit/ground-fields';
import { RecordStore } from '../../../record/record.store';

/** What is known of a surface that film is laid on dry, besides its tapes, and what is added to its pieces. What only its kind has stands between. */
@Component({
  selector: 'yp-dry-details',
  imports: [DryFields, GroundFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <div class="space-y-2 text-sm">
      <label class="block"
        >Name<input #name class="field" [value]="s.name" maxlength="60" (change)="name.value.trim() && set('Rename', { name: name.value.trim() })"
      /></label>
      <label class="block"
        >Film<select #film class="field" data-choice="film" (change)="set('Choose film', { filmId: film.value || null })">
          <option value="" [selected]="!s.filmId">none yet</option>
          @for (f of films(); track f.id) {
            <option [value]="f.id" [selected]="f.id === s.filmId">{{ f.name }}</option>
          }
        </select></label
      >
      <yp-ground-fields [ground]="s.ground" (changed)="setGround($event)" />
      <ng-content />
      <yp-dry-fields [kind]="s.kind" [dry]="dry()" [own]="s.dry" [units]="record.units()" (changed)="setDry($event)" />
      <label class="block"
        >Note<textarea #note class="field" rows="2" maxlength="400" [value]="s.note" (change)="set('Note', { note: note.value })"></textarea>
      </label>
      <button type="button" class="btn" (click)="remove()">Delete this {{ kindName(s.kind) }}</button>
    </div>
  `,
})
export class DryDetails {
  readonly surface = input.required<DrySurface>();
  protected readonly record = inject(RecordStore);
  protected kindName = (kind: SurfaceKind): string => surfaceKindNames[kind];
  protected readonly films = computed(() => {
    const doc = this.record.doc();
    const replaced = new Set((doc?.films ?? []).map((f) => f.replacesId));
    return (doc?.films ?? []).filter((f) => f.id === this.surface().filmId || (isLaidDry(f) && f.retiredAt === null && !replaced.has(f.id)));
  });
  protected readonly dry = computed<DryAllowances>(() => resolveDry(this.record.records()!, this.surface()));

  protected set(label: string, value: Partial<Pick<DrySurface, 'name' | 'filmId' | 'ground' | 'dry' | 'note' | 'deletedAt'>>): void {
    void this.record.set(`${label}: ${this.surface().name}`.slice(0, 120), 'surface', this.surface().id, value);
  }
  protected setGround(ground: Ground): void {
    this.set('What it is', { ground });
  }
  protected setDry(change: DryChange): void {
    this.set('What is added', { dry: withDry(this.surface().dry, change) });
  }
  protected remove(): void {
    const { id, name } = this.surface();
    void this.record.set(`Delete ${name}`, 'surface', id, { deletedAt: new Date().toISOString() });
  }
}
