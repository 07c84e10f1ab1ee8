import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BenchCut, Piece } from '@yellow-pane/contracts';

/** What is done at each layer. */
const heads: Readonly<Record<BenchCut['layer'], string>> = { liner: 'Liner only.', film: 'Through the film.', mark: 'Pencil, no cut.' };

/** The cuts that the bench makes in a piece, in words, numbered in the order they are made. */
@Component({
  selector: 'yp-bench-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol class="text-sm" data-bench-cuts>
      @for (c of cuts(); track $index) {
        <li class="flex gap-2 border-b border-hair py-1.5">
          <span class="figure w-5 shrink-0 text-right font-semibold">{{ $index + 1 }}</span>
          <span
            ><strong [class]="c.layer === 'liner' ? 'text-wet' : ''">{{ head(c) }}</strong> {{ rest(c) }}</span
          >
        </li>
      }
    </ol>
  `,
})
export class BenchList {
  readonly piece = input.required<Pick<Piece, 'bench'>>();
  protected readonly cuts = computed(() => this.piece().bench ?? []);
  protected head = (c: BenchCut): string => (c.later ? 'Later, when it lies.' : heads[c.layer]);
  /** The layer is said before the words. */
  protected rest = (c: BenchCut): string => c.words.replace(/^(?:Liner only, |Pencil on the liner: |Fold: )(\w)/, (_, first: string) => first.toUpperCase());
}
