import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Panel, RoundCorners } from '@yellow-pane/contracts';
import { cornersOfPanel, resolveDry, type PanelSurvey } from '@yellow-pane/core';
import { stretchPct } from '@yellow-pane/core/form';
import { formatRough } from '@yellow-pane/core/ground';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** Corners as they begin. @source house figure */
const newCorners: RoundCorners = { radiusMm: 20, arrisMm: 2 };

/** How round the corners are where wrapped edges meet, and whether film goes over them without a cut. */
@Component({
  selector: 'yp-round-corners-panel',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Round corners</h3>
      @if (!surface().corners) {
        <button type="button" class="btn text-sm" (click)="put('Round corners', newCorners)">+ Its corners are round</button>
      }
    </div>
    @if (surface().corners) {
      <section class="mb-2 border-l-4 border-hair bg-card p-2" aria-label="Round corners" data-round-corners>
        <div class="mb-1 flex items-center gap-2 text-sm">
          <span class="text-soft">As one stands before it, and across its arris.</span>
          <button type="button" class="btn ml-auto px-2!" aria-label="Delete round corners" (click)="put('Delete round corners', null)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="lengths()" of="Corners" (changed)="set($event.field, $event.mm)" />
        <p class="mt-1 text-sm" data-corner-word>{{ said() }}</p>
      </section>
    } @else {
      <p class="mb-2 text-sm text-soft">None: where two wrapped edges meet its corner is sharp, and folded.</p>
    }
  `,
})
export class RoundCornersPanel {
  readonly surface = input.required<Panel>();
  readonly survey = input.required<PanelSurvey>();
  private readonly record = inject(RecordStore);
  protected readonly newCorners = newCorners;
  protected readonly lengths = computed<PartLength[]>(() => {
    const { radiusMm, arrisMm } = this.surface().corners ?? newCorners;
    return [
      { field: 'radiusMm', name: 'Corner radius', mm: radiusMm, is: 'size' },
      { field: 'arrisMm', name: 'Arris radius', mm: arrisMm, is: 'place' },
    ];
  });
  protected readonly said = computed(() => {
    const [surface, doc] = [this.surface(), this.record.doc()];
    const film = doc?.films.find((f) => f.id === surface.filmId);
    if (!doc || !film) return 'Its film says how far it may be stretched over them.';
    const plan = cornersOfPanel({ surface, survey: this.survey(), allowances: resolveDry(doc, surface), film });
    if (!plan) return 'They count where film goes over two edges that meet, and its edge is taped.';
    const units = this.record.units();
    return plan.is === 'draws'
      ? `Film is drawn over them warm, without a cut: ${stretchPct(plan.largestFrac)} at its end.`
      : `Not without a cut: its ${stretchPct(plan.limitFrac)} take it ${formatRough(Math.floor(plan.reachMm), units)} down. It is folded.`;
  });

  protected set(field: string, mm: number | null): void {
    const next = { ...this.surface().corners!, [field]: mm };
    // what nobody can hold a gauge to is not written
    if (mm !== null && mm <= 500) this.put('Round corners', next);
  }
  protected put(label: string, corners: RoundCorners | null): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { corners });
  }
}
