import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Panel, Recess } from '@yellow-pane/contracts';
import { capital, formatLength } from '@yellow-pane/core/ground';
import { panelDoubtText, recessName, type PanelSurvey } from '@yellow-pane/core/measure';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** A recess as it begins: where one usually is. @source house figures */
const newRecess = (wide: number, high: number): Recess => ({
  id: uuidv7(),
  fromLeftMm: Math.round(wide * 0.15),
  fromFootMm: Math.round(wide * 0.15),
  acrossMm: Math.round(wide * 0.7),
  upMm: Math.max(20, Math.round(high - wide * 0.3)),
  depthMm: 10,
  slopeMm: 8,
  cornerMm: 10,
  way: null,
});
const lengthsOf = (r: Recess): PartLength[] => [
  { field: 'fromLeftMm', name: 'From the left edge', mm: r.fromLeftMm, is: 'place' },
  { field: 'fromFootMm', name: 'From the foot', mm: r.fromFootMm, is: 'place' },
  { field: 'acrossMm', name: 'Mouth, across', mm: r.acrossMm, is: 'size' },
  { field: 'upMm', name: 'Mouth, high', mm: r.upMm, is: 'size' },
  { field: 'depthMm', name: 'Deep', mm: r.depthMm, is: 'size' },
  { field: 'slopeMm', name: 'Walls lean in', mm: r.slopeMm, is: 'place' },
  { field: 'cornerMm', name: 'Corners, radius', mm: r.cornerMm, is: 'place' },
];

/** Recesses of a panel: fields that lie deeper than what is round them. */
@Component({
  selector: 'yp-recesses-panel',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Recesses</h3>
      <button type="button" class="btn text-sm" (click)="add()">+ Recess</button>
    </div>
    @for (r of rows(); track r.recess.id) {
      <section class="mb-2 border-l-4 p-2" [class]="r.doubts.length ? 'border-ink bg-tint' : 'border-hair bg-card'" [attr.aria-label]="r.name" data-recess>
        <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
          <strong>{{ r.title }}</strong>
          <span class="text-soft">{{ r.slack }}</span>
          <button type="button" class="btn ml-auto px-2!" [attr.aria-label]="'Delete ' + r.name" (click)="remove(r.recess)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="r.lengths" [of]="r.title" (changed)="set(r.recess, $event.field, $event.mm)" />
        @for (d of r.doubts; track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @empty {
      <p class="mb-2 text-sm text-soft">None. A recess is a field that lies deeper than its frame; how film gets into it stands under Lay.</p>
    }
  `,
})
export class RecessesPanel {
  readonly surface = input.required<Panel>();
  readonly survey = input.required<PanelSurvey>();
  private readonly record = inject(RecordStore);
  protected readonly rows = computed(() => {
    const [{ recesses }, survey, units] = [this.surface(), this.survey(), this.record.units()];
    return recesses.map((recess) => {
      const name = recessName(recess, recesses);
      const slackMm = survey.recesses.find((j) => j.recess.id === recess.id)?.slackMm ?? 0;
      return {
        recess,
        name,
        title: capital(name),
        lengths: lengthsOf(recess),
        slack: `takes ${formatLength(2 * slackMm, units)} more film than it is wide and high`,
        doubts: survey.doubts.filter((d) => d.part === recess.id).map((d) => panelDoubtText(d, this.surface(), units)),
      };
    });
  });

  protected add(): void {
    const box = this.survey().face.outline;
    const [wide, high] = box ? [Math.max(...box.map((p) => p.x)), Math.max(...box.map((p) => p.y))] : [800, 2000];
    this.change('New recess', [...this.surface().recesses, newRecess(wide, high)]);
  }
  protected remove(recess: Recess): void {
    this.change(
      'Delete a recess',
      this.surface().recesses.filter((r) => r.id !== recess.id),
    );
  }
  protected set(recess: Recess, field: string, mm: number | null): void {
    this.change(
      'A recess',
      this.surface().recesses.map((r) => (r.id === recess.id ? { ...recess, [field]: mm } : r)),
    );
  }
  private change(label: string, recesses: Recess[]): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { recesses });
  }
}
