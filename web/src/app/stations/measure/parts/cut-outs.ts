import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { CutOut, Pane } from '@yellow-pane/contracts';
import { formatLength, parseLength } from '@yellow-pane/core/ground';
import { RecordStore } from '../../../record/record.store';

const lengths = [
  { field: 'widthMm', name: 'wide' },
  { field: 'heightMm', name: 'high' },
] as const;

/** What is cut out of a pane, each with its sizes and place; fetched with the first pane that has any. */
@Component({
  selector: 'yp-cut-outs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = surface();
    <details class="mt-1 text-sm" [open]="isFresh()">
      <summary class="min-h-7 cursor-pointer">{{ cutOutNames() }}</summary>
      @for (c of s.cutOuts; track c.id) {
        <div class="mt-1 flex flex-wrap items-center gap-1.5 text-sm" [attr.data-cut-out]="c.what">
          <strong class="w-20">{{ c.what }}</strong>
          <label class="flex items-center gap-1"
            ><input type="checkbox" [checked]="c.isRound" (change)="change(c, { isRound: !c.isRound, heightMm: c.isRound ? c.heightMm : c.widthMm })" />
            round</label
          >
          @for (l of lengths; track l.field) {
            @if (l.field === 'widthMm' || !c.isRound) {
              <label class="flex items-center gap-1"
                ><input #box class="field figure w-20!" [value]="f(c[l.field])" [attr.aria-label]="c.what + ' ' + l.name" (change)="size(c, l.field, box)" />
                {{ c.isRound ? '⌀' : l.name }}</label
              >
            }
          }
          <label class="flex items-center gap-1"
            ><input
              #across
              class="field figure w-20!"
              [value]="f(c.acrossMm)"
              [attr.aria-label]="c.what + ' from the side'"
              (change)="size(c, 'acrossMm', across)"
            />
            from the</label
          >
          <select #side class="field w-20!" [attr.aria-label]="c.what + ', which side'" (change)="change(c, { fromSide: $any(side.value) })">
            <option value="left" [selected]="c.fromSide === 'left'">left</option>
            <option value="right" [selected]="c.fromSide === 'right'">right</option>
          </select>
          <label class="flex items-center gap-1"
            ><input #up class="field figure w-20!" [value]="f(c.upMm)" [attr.aria-label]="c.what + ' from sill or head'" (change)="size(c, 'upMm', up)" /> from
            the</label
          >
          <select #edge class="field w-24!" [attr.aria-label]="c.what + ', sill or head'" (change)="change(c, { fromEdge: $any(edge.value) })">
            <option value="bottom" [selected]="c.fromEdge === 'bottom'">bottom</option>
            <option value="top" [selected]="c.fromEdge === 'top'">top</option>
          </select>
          <button type="button" class="min-h-7 underline" (click)="drop(c)">not there</button>
        </div>
      }
    </details>
  `,
  host: { class: 'block' },
})
export class CutOuts {
  readonly surface = input.required<Pane>();
  /** One was just added: the sizes stand open. */
  readonly isFresh = input(false);
  private readonly record = inject(RecordStore);
  protected readonly cutOutNames = computed(
    () =>
      `Cut out: ${this.surface()
        .cutOuts.map((c) => c.what)
        .join(', ')}`,
  );
  protected readonly lengths = lengths;
  protected f = (mm: number): string => formatLength(mm, this.record.units());

  private set(label: string, fields: Partial<Pane>): void {
    const s = this.surface();
    void this.record.set(`${label} of ${s.name}`, 'surface', s.id, fields);
  }
  protected change(c: CutOut, part: Partial<CutOut>): void {
    this.set('Cut-out', { cutOuts: this.surface().cutOuts.map((x) => (x.id === c.id ? { ...x, ...part } : x)) });
  }
  protected size(c: CutOut, field: 'widthMm' | 'heightMm' | 'acrossMm' | 'upMm', box: HTMLInputElement): void {
    const read = parseLength(box.value, this.record.units());
    const message = !read.ok ? read.message : read.value.lengthMm <= 0 && (field === 'widthMm' || field === 'heightMm') ? 'Larger than nothing.' : '';
    box.setCustomValidity(message);
    if (message || !read.ok) return void box.reportValidity();
    this.change(c, { [field]: read.value.lengthMm, ...(c.isRound && field === 'widthMm' ? { heightMm: read.value.lengthMm } : {}) });
  }
  protected drop(c: CutOut): void {
    this.set('No cut-out', { cutOuts: this.surface().cutOuts.filter((x) => x.id !== c.id) });
  }
}
