import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { Wall, WallBreak } from '@yellow-pane/contracts';
import { v7 as uuidv7 } from 'uuid';
import { RecordStore } from '../../../record/record.store';
import { PartLengths, type PartLength } from './part-lengths';

/** Taped of each break, from the left end and from the level line. */
const lengthsOf = (b: WallBreak): PartLength[] => [
  { field: 'fromLeftMm', name: 'From the left end', mm: b.fromLeftMm, is: 'place' },
  { field: 'upMm', name: 'Line to ceiling, up', mm: b.upMm, is: 'offset' },
  { field: 'downMm', name: 'Line to floor, down', mm: b.downMm, is: 'offset' },
];

/** Where the ceiling or the floor of a wall breaks: a gable, a beam, stairs, a landing. */
@Component({
  selector: 'yp-wall-breaks',
  imports: [PartLengths],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mb-1 flex flex-wrap items-center gap-2">
      <h3 class="cap">Gable, stairs, beam</h3>
      <button type="button" class="btn text-sm" [disabled]="rows().length >= 24" (click)="add()">+ A break of ceiling or floor</button>
    </div>
    @for (b of rows(); track b.part.id) {
      <section class="mb-2 border-l-4 p-2" [class]="b.doubts.length ? 'border-ink bg-tint' : 'border-hair bg-card'" [attr.aria-label]="b.label" data-break>
        <div class="mb-1 flex flex-wrap items-center gap-2 text-sm">
          <strong>{{ b.label }}</strong>
          <button type="button" class="btn ml-auto px-2!" [attr.aria-label]="'Delete ' + b.label" (click)="remove(b.part)">Delete</button>
        </div>
        <yp-part-lengths [lengths]="b.lengths" [of]="b.label" (changed)="put(b.part, $event.field, $event.mm)" />
        @for (d of b.doubts; track d) {
          <p class="mt-1 text-sm font-semibold">{{ d }}</p>
        }
      </section>
    } @empty {
      <p class="mb-2 text-sm text-soft">
        Floor and ceiling run straight from end to end. Where one breaks: its place from the left, and up or down from the laser line.
      </p>
    }
    @if (rows().length) {
      <p class="mb-2 text-sm text-soft">
        From the same level line as both ends. Leave up or down empty where that line goes on straight; a minus where it lies on the other side of the line. A
        beam has two breaks at one place. An end that leans: its height there is 1, and a break stands where it meets the ceiling (or the floor, where it leans
        out; the line then just under the ceiling).
      </p>
    }
    @for (d of others(); track d) {
      <p class="mb-2 text-sm font-semibold" data-break-doubt>{{ d }}</p>
    }
  `,
})
export class WallBreaks {
  readonly surface = input.required<Pick<Wall, 'id' | 'name' | 'breaks'>>();
  /** What does not fit, of which break, in sentences. */
  readonly doubts = input.required<readonly { readonly part: string | null; readonly text: string }[]>();
  /** How wide the wall is, as far as anybody knows: a new break stands in the middle of it. */
  readonly widthMm = input<number | null>(null);
  private readonly record = inject(RecordStore);
  protected readonly rows = computed(() =>
    this.surface().breaks.map((part, i) => ({
      part,
      label: `Break ${i + 1}`,
      lengths: lengthsOf(part),
      doubts: this.doubts().flatMap((d) => (d.part === part.id ? [d.text] : [])),
    })),
  );
  /** Of no one break: an end that its line is not taped at. */
  protected readonly others = computed(() => (this.surface().breaks.length ? this.doubts().flatMap((d) => (d.part === null && d.text.includes('breaks:') ? [d.text] : [])) : [])); // prettier-ignore

  protected add(): void {
    const fromLeftMm = Math.round((this.widthMm() ?? 2000) / 2);
    this.change('A break', [...this.surface().breaks, { id: uuidv7(), fromLeftMm, upMm: null, downMm: null }]);
  }
  protected remove(part: WallBreak): void {
    this.change(
      'Delete a break',
      this.surface().breaks.filter((b) => b.id !== part.id),
    );
  }
  protected put(part: WallBreak, field: string, mm: number | null): void {
    this.change(
      'Break',
      this.surface().breaks.map((b) => (b.id === part.id ? { ...b, [field]: mm } : b)),
    );
  }
  private change(label: string, breaks: WallBreak[]): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`.slice(0, 120), 'surface', s.id, { breaks });
  }
}
