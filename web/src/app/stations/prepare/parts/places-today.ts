import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RecordStore } from '../../../record/record.store';
import { DayStore } from '../day.store';

/** Which places are worked on that day: bottles and van are for them. */
@Component({
  selector: 'yp-places-today',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-3 flex flex-wrap items-center gap-1.5 text-sm" role="group" aria-label="Places of that day">
      <span class="text-soft">For</span>
      <button
        type="button"
        class="min-h-8 border px-2"
        [class]="look(all())"
        [attr.aria-pressed]="all()"
        (click)="day.set('Places of the day: all', { placeIds: null })"
      >
        the whole job
      </button>
      @for (p of places(); track p.id) {
        <button type="button" class="min-h-8 border px-2" [class]="look(p.isOn)" [attr.aria-pressed]="p.isOn" (click)="toggle(p.id, p.name)">
          {{ p.name }}
        </button>
      }
    </div>
  `,
  host: { class: 'block' },
})
export class PlacesToday {
  protected readonly day = inject(DayStore);
  private readonly record = inject(RecordStore);
  protected readonly all = computed(() => this.day.settings().placeIds === null);
  protected readonly places = computed(() => {
    const doc = this.record.doc();
    const chosen = this.day.settings().placeIds;
    return (doc?.places ?? [])
      .filter((p) => doc?.surfaces.some((s) => s.placeId === p.id))
      .map((p) => ({ id: p.id, name: p.name, isOn: chosen?.includes(p.id) ?? false }));
  });
  protected look(isOn: boolean): string {
    return isOn ? 'border-ink bg-tint font-semibold' : 'border-line bg-card';
  }
  protected toggle(id: string, name: string): void {
    const chosen = this.day.settings().placeIds ?? [];
    const next = chosen.includes(id) ? chosen.filter((p) => p !== id) : [...chosen, id];
    this.day.set(`Places of the day: ${name}`, { placeIds: next.length ? next : null });
  }
}
