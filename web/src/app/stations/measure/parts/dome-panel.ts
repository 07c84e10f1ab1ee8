import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Dome, Panel } from '@yellow-pane/contracts';
import { panelDoubtText, planDome, stretchLimitOf, type PanelSurvey } from '@yellow-pane/core';
import { stretchPct } from '@yellow-pane/core/form';
import { formatLength, formatRough } from '@yellow-pane/core/ground';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** A dome as it begins. @source house figure */
const newDome: Dome = { acrossBowMm: 10, upBowMm: 10 };

/** Bows of a sheet that stands out in its middle: how round it is across and up, and what that asks of film. */
@Component({
  selector: 'yp-dome-panel',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Domed face</h3>
      @if (!surface().dome) {
        <button type="button" class="btn text-sm" (click)="put('Bows', newDome)">+ It stands out in its middle</button>
      }
    </div>
    @if (surface().dome) {
      <section class="mb-2 border-l-4 p-2" [class]="doubts().length ? 'border-ink bg-tint' : 'border-hair bg-card'" aria-label="Domed face" data-dome>
        <div class="mb-1 flex items-center gap-2 text-sm">
          <span class="text-soft">A straightedge on its middle: how far do the arrises lie back?</span>
          <button type="button" class="btn ml-auto px-2!" aria-label="Delete bows" (click)="put('Delete the bows', null)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="lengths()" of="Bow" (changed)="set($event.field, $event.mm)" />
        <p class="mt-1 text-sm" data-dome-word>{{ said() }}</p>
        @for (d of doubts(); track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @else {
      <p class="mb-2 text-sm text-soft">None. What is round both ways leaves film over at its border.</p>
    }
  `,
})
export class DomePanel {
  readonly surface = input.required<Panel>();
  readonly survey = input.required<PanelSurvey>();
  private readonly record = inject(RecordStore);
  protected readonly newDome = newDome;
  protected readonly lengths = computed<PartLength[]>(() => {
    const { acrossBowMm, upBowMm } = this.surface().dome ?? newDome;
    return [
      { field: 'acrossBowMm', name: 'Across', mm: acrossBowMm, is: 'place' },
      { field: 'upBowMm', name: 'Upwards', mm: upBowMm, is: 'place' },
    ];
  });
  protected readonly doubts = computed(() =>
    this.survey()
      .doubts.filter((d) => d.part === 'dome')
      .map((d) => panelDoubtText(d, this.surface(), this.record.units())),
  );
  protected readonly said = computed(() => {
    const { dome } = this.survey();
    if (!dome) return 'Width and height of its face say how round that is.';
    const units = this.record.units();
    const plan = planDome(dome, stretchLimitOf(this.record.doc()?.films.find((f) => f.id === this.surface().filmId)));
    return `Over its middle ${formatLength(dome.overMm.across, units)} across and ${formatLength(dome.overMm.up, units)} upwards. Laid from there, ${formatRough(plan.allRoundMm, units)} of film are too much all round; drawn on ${stretchPct(plan.drawnFrac)} at its corners.`;
  });

  protected set(field: string, mm: number | null): void {
    if (mm !== null) this.put('Bow', { ...this.surface().dome!, [field]: mm });
  }
  protected put(label: string, dome: Dome | null): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { dome });
  }
}
