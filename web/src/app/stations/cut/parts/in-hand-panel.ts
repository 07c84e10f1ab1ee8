import { ChangeDetectionStrategy, Component, computed, DestroyRef, type ElementRef, inject, input, signal, viewChild } from '@angular/core';
import type { Film } from '@yellow-pane/contracts';
import { matchInHand, type InHand } from '@yellow-pane/core';
import { parseLength } from '@yellow-pane/core/ground';
import { InstrumentPanel } from '../../../instruments/instrument-panel';
import { Instruments } from '../../../instruments/instruments';
import { PlansStore } from '../../../record/plans.store';
import { RecordStore } from '../../../record/record.store';

const look: Record<InHand['verdict'], string> = {
  is: 'border-proof bg-proof-tint',
  serves: 'border-ink bg-tint',
  large: 'border-harm bg-harm-tint',
  short: 'border-harm bg-harm-tint',
};

/** The check before anything gets wet: two sizes of the piece in hand, and it says which pane it is for and how to hold it. */
@Component({
  selector: 'yp-in-hand-panel',
  imports: [InstrumentPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form class="flex flex-wrap items-end gap-2 text-sm" (submit)="$event.preventDefault(); check(a, b)">
      <label class="block">One side of the piece<input #a class="field figure block! w-32!" inputmode="text" /></label>
      <label class="block">and the other<input #b class="field figure block! w-32!" inputmode="text" /></label>
      <button class="btn btn-ink">Which pane is it?</button>
    </form>
    @if (message()) {
      <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
    <ol class="mt-2 grid gap-1.5" data-in-hand aria-live="polite">
      @for (m of answers(); track m.pieceId + m.level) {
        <li class="relief border-l-4 p-2" [class]="looks[m.verdict]">
          <button type="button" class="w-full text-left" (click)="record.select(m.surfaceId)">{{ m.words }}</button>
        </li>
      } @empty {
        @if (asked()) {
          <li class="text-sm">No pane of this film is near these sizes.</li>
        } @else {
          <li class="text-sm text-soft">
            Before anything gets wet: tape the piece in hand, type both sizes. It says which pane it is for and which side lies level, or by how much it misses.
          </li>
        }
      }
    </ol>
    <details class="mt-3 border-t border-hair pt-2">
      <summary class="cap cursor-pointer">Shoot the two sizes</summary>
      <yp-instrument-panel [kinds]="['laser']" />
    </details>
  `,
})
export class InHandPanel {
  readonly film = input.required<Film>();
  protected readonly record = inject(RecordStore);
  private readonly plans = inject(PlansStore);
  protected readonly looks = look;
  protected readonly message = signal('');
  protected readonly asked = signal<readonly [number, number] | null>(null);

  protected readonly answers = computed(() => {
    const sizes = this.asked();
    const cuts = this.plans.inputs().get(this.film().id)?.cuts;
    return sizes && cuts ? matchInHand(sizes[0], sizes[1], cuts, this.record.units(), this.film().direction !== 'none').slice(0, 5) : [];
  });

  private readonly first = viewChild.required<ElementRef<HTMLInputElement>>('a');
  private readonly second = viewChild.required<ElementRef<HTMLInputElement>>('b');
  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      if (r.kind === 'laser') this.take(r.lengthMm);
    });
    inject(DestroyRef).onDestroy(stop);
  }
  /** A shot fills the first field that is empty; with both full, a new piece begins. */
  private take(lengthMm: number): void {
    const [a, b] = [this.first().nativeElement, this.second().nativeElement];
    if (a.value && b.value) a.value = b.value = '';
    (a.value ? b : a).value = `${lengthMm} mm`;
    if (a.value && b.value) this.check(a, b);
  }

  protected check(a: HTMLInputElement, b: HTMLInputElement): void {
    const [first, second] = [parseLength(a.value, this.record.units()), parseLength(b.value, this.record.units())];
    const fault = !first.ok ? first.message : !second.ok ? second.message : '';
    this.message.set(fault);
    this.asked.set(first.ok && second.ok ? [first.value.lengthMm, second.value.lengthMm] : null);
  }
}
