import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Hardware, Panel } from '@yellow-pane/contracts';
import { panelDoubtText, type PanelSurvey } from '@yellow-pane/core';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

const lengthsOf = (h: Hardware): PartLength[] => [
  { field: 'fromLeftMm', name: 'From the left edge', mm: h.fromLeftMm, is: 'place' },
  { field: 'fromFootMm', name: 'From the foot', mm: h.fromFootMm, is: 'place' },
  { field: 'widthMm', name: 'Wide', mm: h.widthMm, is: 'size' },
  { field: 'heightMm', name: 'High', mm: h.heightMm, is: 'size' },
];

/** What stands on a panel: what comes off, and what film is cut round. */
@Component({
  selector: 'yp-hardware-panel',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Hardware</h3>
      <button type="button" class="btn text-sm" (click)="add()">+ Something on it</button>
    </div>
    @for (h of rows(); track h.part.id) {
      <section
        class="mb-2 border-l-4 p-2"
        [class]="h.doubts.length ? 'border-ink bg-tint' : 'border-hair bg-card'"
        [attr.aria-label]="h.part.what"
        data-hardware
      >
        <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
          <input
            #what
            class="field w-40!"
            maxlength="40"
            aria-label="What it is"
            [value]="h.part.what"
            (change)="what.value.trim() && put({ part: h.part, what: what.value.trim() })"
          />
          <select #how class="field w-auto!" aria-label="What happens to it" (change)="put({ part: h.part, handling: how.value === 'off' ? 'off' : 'round' })">
            <option value="off" [selected]="h.part.handling === 'off'">comes off</option>
            <option value="round" [selected]="h.part.handling === 'round'">stays, cut round</option>
          </select>
          <label class="flex items-center gap-1"
            ><input #electric type="checkbox" [checked]="h.part.isElectric" (change)="put({ part: h.part, isElectric: electric.checked })" />electric</label
          >
          <button type="button" class="btn ml-auto px-2!" [attr.aria-label]="'Delete ' + h.part.what" (click)="remove(h.part)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="h.lengths" [of]="h.part.what" (changed)="$event.mm !== null && put({ part: h.part, field: $event.field, mm: $event.mm })" />
        @if (h.part.isElectric) {
          <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-sm">Isolated before its cover comes off: a licensed electrician’s work.</p>
        }
        @for (d of h.doubts; track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @empty {
      <p class="mb-2 text-sm text-soft">Nothing on it. Handles, locks, vents and signs: note whether each comes off.</p>
    }
  `,
})
export class HardwarePanel {
  readonly surface = input.required<Panel>();
  readonly survey = input.required<PanelSurvey>();
  private readonly record = inject(RecordStore);
  protected readonly rows = computed(() =>
    this.surface().hardware.map((part) => ({
      part,
      lengths: lengthsOf(part),
      doubts: this.survey()
        .doubts.filter((d) => d.part === part.id)
        .map((d) => panelDoubtText(d, this.surface(), this.record.units())),
    })),
  );

  protected add(): void {
    const { hinges, hardware } = this.surface();
    const outline = this.survey().face.outline;
    const wide = outline ? Math.max(...outline.map((p) => p.x)) : 800;
    // a lever stands on the side that opens, at hand height
    const fromLeftMm = Math.round(hinges === 'right' ? 40 : wide - 100);
    this.change('Something on it', [
      ...hardware,
      {
        id: uuidv7(),
        what: hardware.length ? `Part ${hardware.length + 1}` : 'Lever and plate',
        handling: 'off',
        fromLeftMm: Math.max(0, fromLeftMm),
        fromFootMm: 950,
        widthMm: 45,
        heightMm: 220,
        isElectric: false,
      },
    ]);
  }
  protected remove(part: Hardware): void {
    this.change(
      'Delete hardware',
      this.surface().hardware.filter((h) => h.id !== part.id),
    );
  }
  protected put({ part, field, mm, ...more }: { part: Hardware; field?: string; mm?: number } & Partial<Hardware>): void {
    const next = { ...part, ...more, ...(field === undefined ? {} : { [field]: mm }) };
    this.change(
      'Hardware',
      this.surface().hardware.map((h) => (h.id === part.id ? next : h)),
    );
  }
  private change(label: string, hardware: Hardware[]): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { hardware });
  }
}
