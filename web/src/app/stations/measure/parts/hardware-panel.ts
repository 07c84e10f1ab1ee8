import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { handling, type Hardware, type Panel } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** What the lengths of a piece are called. */
export type PlaceNames = Readonly<Record<'fromLeftMm' | 'fromFootMm' | 'widthMm' | 'heightMm', string>>;
const onAFace: PlaceNames = { fromLeftMm: 'From the left edge', fromFootMm: 'From the foot', widthMm: 'Wide', heightMm: 'High' };
const lengthsOf = (h: Hardware, names: PlaceNames): PartLength[] => [
  { field: 'fromLeftMm', name: names.fromLeftMm, mm: h.fromLeftMm, is: 'place' },
  { field: 'fromFootMm', name: names.fromFootMm, mm: h.fromFootMm, is: 'place' },
  { field: 'widthMm', name: names.widthMm, mm: h.widthMm, is: 'size' },
  { field: 'heightMm', name: names.heightMm, mm: h.heightMm, is: 'size' },
];

/** What stands on a face: what comes off, what film is cut round, and openings in it. */
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
      <section class="mb-2 border-l-4 p-2" [class]="h.doubts.length ? 'border-ink bg-tint' : 'border-hair bg-card'" [attr.aria-label]="h.label" data-hardware>
        <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
          <input
            #what
            class="field w-40!"
            maxlength="40"
            aria-label="What it is"
            [value]="h.part.what"
            (change)="what.value.trim() && put({ part: h.part, what: what.value.trim() })"
          />
          <select #how class="field w-auto!" aria-label="What happens to it" (change)="put({ part: h.part, handling: handlingOf(how.value) })">
            <option value="off" [selected]="h.part.handling === 'off'">comes off</option>
            <option value="round" [selected]="h.part.handling === 'round'">stays, cut round</option>
            <option value="open" [selected]="h.part.handling === 'open'">an opening: no film</option>
          </select>
          <label class="flex items-center gap-1"
            ><input #electric type="checkbox" [checked]="h.part.isElectric" (change)="put({ part: h.part, isElectric: electric.checked })" />electric</label
          >
          <label class="flex items-center gap-1"
            ><input #round type="checkbox" [checked]="h.part.isRound" (change)="put({ part: h.part, isRound: round.checked })" />round</label
          >
          <button type="button" class="btn ml-auto px-2!" [attr.aria-label]="'Delete ' + h.label" (click)="remove(h.part)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="h.lengths" [of]="h.label" (changed)="$event.mm !== null && put({ part: h.part, field: $event.field, mm: $event.mm })" />
        @if (h.part.isElectric) {
          <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-sm">Isolated before its cover comes off: a licensed electrician’s work.</p>
        }
        @for (d of h.doubts; track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @empty {
      <p class="mb-2 text-sm text-soft">{{ hint() }}</p>
    }
  `,
})
export class HardwarePanel {
  readonly surface = input.required<Pick<Panel, 'id' | 'name' | 'hardware'>>();
  /** What does not fit, of which piece, in sentences. */
  readonly doubts = input.required<readonly { readonly part: string | null; readonly text: string }[]>();
  /** What the first one is, and where it usually stands. */
  readonly usual = input.required<Omit<Hardware, 'id'>>();
  /** What there may be. */
  readonly hint = input('Nothing on it. Handles, locks, vents and signs: note whether each comes off.');
  /** Of what does not stand upright: what its lengths are called there. */
  readonly places = input<Partial<PlaceNames>>({});
  private readonly record = inject(RecordStore);
  protected handlingOf = (v: string): Hardware['handling'] => handling.catch('off').parse(v);
  protected readonly rows = computed(() =>
    this.surface().hardware.map((part, i, all) => ({
      part,
      // four eyelets are told apart by their number
      label: all.filter((p) => p.what === part.what).length > 1 ? `${part.what}, ${i + 1}` : part.what,
      lengths: lengthsOf(part, { ...onAFace, ...this.places() }),
      doubts: this.doubts().flatMap((d) => (d.part === part.id ? [d.text] : [])),
    })),
  );

  protected add(): void {
    const { hardware } = this.surface();
    const what = hardware.length ? `Part ${hardware.length + 1}` : this.usual().what;
    this.change('Something on it', [...hardware, { ...this.usual(), id: uuidv7(), what }]);
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
