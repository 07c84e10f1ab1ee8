import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { Pin, PinKind, PinSpread } from '@yellow-pane/contracts';
import { isCounted, kindsOf, liesAsDrawn, pinNamesOf, type Patient } from '@yellow-pane/core/check';
import { PhotoButton } from '../../../kit/photo-button';
import { RecordStore } from '../../../record/record.store';
import { PinIcon } from './pin-icon';

/** What is pinned, before a place and a hand are added. */
export type Picked = Omit<Pin, 'at' | 'seenFrom'>;

const spreads: readonly { readonly key: PinSpread; readonly text: string }[] = [
  { key: 'one', text: 'By itself' },
  { key: 'line', text: 'Along a line' },
  { key: 'edge', text: 'At an edge' },
  { key: 'field', text: 'All over a part' },
];
/** What does it look like? Picked from drawings; then how it lies, how large it is, a photo. */
@Component({
  selector: 'yp-pin-picker',
  imports: [PinIcon, PhotoButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!kind()) {
      <h3 class="mb-2 text-xl">What does it look like?</h3>
      <div class="grid grid-cols-3 gap-2 sm:grid-cols-4">
        @for (k of kinds(); track k) {
          <button
            type="button"
            class="relief flex flex-col items-stretch border border-field bg-card p-1.5 text-left text-[13px] leading-tight"
            [attr.data-pick]="k"
            (click)="pick(k)"
          >
            <yp-pin-icon [kind]="k" /><span class="mt-1 block">{{ names()[k] }}</span>
          </button>
        }
      </div>
    } @else {
      <div class="mb-3 flex items-center gap-3">
        <yp-pin-icon class="w-20 shrink-0" [kind]="kind()!" />
        <h3 class="text-xl leading-tight">{{ names()[kind()!] }}</h3>
      </div>
      @if (!spread()) {
        <p class="mb-2 text-lg font-semibold">How does it lie?</p>
        <div class="grid grid-cols-2 gap-2">
          @for (s of spreads; track s.key) {
            <button type="button" class="btn min-h-14 text-lg" [attr.data-spread]="s.key" (click)="spread.set(s.key)">{{ s.text }}</button>
          }
        </div>
      } @else {
        @if (asksSize()) {
          <p class="mb-1 text-lg font-semibold">How large, the longest way?</p>
          <div class="mb-2 flex flex-wrap gap-2">
            @for (mm of sizes(); track mm.mm) {
              <button
                type="button"
                class="btn min-h-12 min-w-16"
                [class.btn-ink]="sizeMm() === mm.mm"
                [attr.aria-pressed]="sizeMm() === mm.mm"
                (click)="sizeMm.set(mm.mm)"
              >
                {{ mm.text }}
              </button>
            }
          </div>
          <p class="mb-3 text-sm text-soft">Against the scale of a ruler held beside it. Leave it out, and the rule asks for it.</p>
        }
        <yp-photo-button class="mb-2" [label]="photo() ? 'Photo kept: take another' : 'Photo, with a ruler beside it'" (taken)="photo.set($event)" />
        <button type="button" class="btn btn-hand min-h-16 w-full text-xl" data-pin-down (click)="done()">Pin it</button>
      }
    }
    <button type="button" class="btn mt-3 min-h-12 w-full text-lg" (click)="back()">Back</button>
  `,
  host: { class: 'block' },
})
export class PinPicker {
  private readonly record = inject(RecordStore);
  readonly picked = output<{ readonly pin: Picked; readonly photo: Blob | null }>();
  readonly left = output<void>();
  /** Film on glass and film that was laid dry have other troubles. */
  readonly patient = input<Patient>('wet-on-glass');
  protected readonly names = computed(() => pinNamesOf(this.patient()));
  protected readonly kinds = computed(() => kindsOf(this.patient()));
  protected readonly spreads = spreads;
  protected readonly kind = signal<PinKind | null>(null);
  protected readonly spread = signal<PinSpread | null>(null);
  protected readonly sizeMm = signal<number | null>(null);
  protected readonly photo = signal<Blob | null>(null);
  protected readonly asksSize = computed(() => isCounted(this.kind()!));
  /** What a ruler shows at a glance. */
  protected readonly sizes = computed(() =>
    this.record.units() === 'in'
      ? [[0.4, 'under 1/32"'], [0.8, '1/32"'], [1.6, '1/16"'], [3.2, '1/8"'], [6.4, '1/4"'], [12.7, '1/2"'], [25.4, '1" or more']].map(([mm, text]) => ({ mm: mm as number, text: text as string }))
      : [[0.4, 'under 0.5 mm'], [1, '1 mm'], [1.5, '1.5 mm'], [2, '2 mm'], [3, '3 mm'], [5, '5 mm'], [10, '10 mm'], [25, '25 mm or more']].map(([mm, text]) => ({ mm: mm as number, text: text as string })),
  ); // prettier-ignore

  protected pick(kind: PinKind): void {
    this.kind.set(kind);
    this.spread.set(liesAsDrawn[kind] ?? null);
  }
  protected done(): void {
    this.picked.emit({ pin: { kind: this.kind()!, spread: this.spread()!, sizeMm: this.sizeMm(), answers: {} }, photo: this.photo() });
  }
  protected back(): void {
    if (this.spread() && !liesAsDrawn[this.kind()!]) this.spread.set(null);
    else if (this.kind()) {
      this.kind.set(null);
      this.spread.set(null);
    } else this.left.emit();
  }
}
