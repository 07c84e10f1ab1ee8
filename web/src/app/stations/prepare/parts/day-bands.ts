import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { bearingName } from '../../../kit/compass';
import type { UnitSystem } from '@yellow-pane/contracts';
import { told } from '@yellow-pane/core/ground';
import type { DayBand, WorkWindow } from '@yellow-pane/core/prepare';
import { causeWords, clockText, gradeWords, windowText } from '../../../record/day-words';

const [FROM, TO] = [6, 21];
const at = (hour: number): number => (100 * (hour - FROM)) / (TO - FROM);

/** One readable band for each facade: the hours in which wet work is good, marginal or wrong, and why. */
@Component({
  selector: 'yp-day-bands',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="relative grid grid-cols-[minmax(96px,190px)_1fr] items-center gap-x-3 gap-y-1">
      <span class="text-xs text-soft">place · looks</span>
      <div class="relative h-5" aria-hidden="true">
        @for (h of hours; track h) {
          <span class="figure absolute -translate-x-1/2 text-xs text-soft" [style.left.%]="at(h)">{{ h }}</span>
        }
      </div>
      @for (b of rows(); track b.key) {
        <button
          type="button"
          class="min-w-0 text-left text-sm leading-tight"
          [class.font-bold]="b.isHere"
          (click)="picked.emit({ band: b.band, window: null })"
        >
          <span class="block truncate">{{ b.name }}</span>
          <span class="block text-xs font-normal text-soft">{{ b.looks }}</span>
        </button>
        <button
          type="button"
          class="relative h-[34px] border bg-card text-left"
          [class]="b.isHere ? 'border-ink outline-2 outline-ink' : 'border-line'"
          [attr.data-band]="b.name"
          [attr.aria-label]="b.said"
          (click)="pick(b.band, $event)"
        >
          @if (b.missing) {
            <span class="absolute inset-0 flex items-center px-2 text-sm text-heat-text">{{ b.missing }}</span>
          }
          @for (w of b.windows; track w.left) {
            <span
              class="absolute inset-y-0 flex items-center overflow-hidden border-r border-card"
              [class]="w.look"
              [style.left.%]="w.left"
              [style.width.%]="w.width"
              [title]="w.text"
            >
              @if (w.word) {
                <span class="ml-1 inline-block bg-card/90 px-1 text-xs leading-5">{{ w.word }}</span>
              }
            </span>
          }
          @if (nowHour() !== null && nowHour()! >= 6 && nowHour()! <= 21) {
            <span class="pointer-events-none absolute -inset-y-1 w-0.5 bg-ink" [style.left.%]="at(nowHour()!)"></span>
          }
        </button>
      }
    </div>
    <p class="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-xs text-soft">
      <span><i class="band-good mr-1 inline-block h-3 w-5 border border-line align-middle"></i>good</span>
      <span><i class="band-marginal mr-1 inline-block h-3 w-5 border border-line align-middle"></i>marginal</span>
      <span><i class="band-wrong mr-1 inline-block h-3 w-5 border border-line align-middle"></i>wrong</span>
      @if (nowHour() !== null) {
        <span><i class="mr-1 inline-block h-3 w-0.5 bg-ink align-middle"></i>now, {{ nowText() }}</span>
      }
    </p>
  `,
})
export class DayBands {
  readonly bands = input.required<readonly DayBand[]>();
  readonly hereKey = input<string | null>(null);
  readonly nowHour = input<number | null>(null);
  readonly units = input<UnitSystem>('mm');
  readonly picked = output<{ band: DayBand; window: WorkWindow | null }>();

  protected readonly at = at;
  protected readonly hours = [6, 9, 12, 15, 18, 21];
  protected readonly nowText = computed(() => clockText(this.nowHour() ?? 0));
  private words = (w: WorkWindow): string => told(windowText(w), this.units());
  protected readonly rows = computed(() =>
    this.bands().map((band) => ({
      band,
      key: band.key,
      name: band.name,
      isHere: band.key === this.hereKey(),
      looks: `${band.isIndoors ? 'inside' : band.facadeDeg === null ? '?' : bearingName(band.facadeDeg)} · ${band.surfaceIds.length} ${band.surfaceIds.length === 1 ? 'pane' : 'panes'}`,
      missing: band.day.ok ? null : band.day.missing,
      said: `${band.name}: ${band.day.ok ? band.day.windows.map(this.words).join('; ') : band.day.missing}`,
      windows: (band.day.ok ? band.day.windows : []).map((w) => {
        const width = at(w.toHour) - at(w.fromHour);
        const word = w.cause ? causeWords[w.cause] : gradeWords.good;
        return { window: w, left: at(w.fromHour), width, look: `band-${w.grade}`, text: this.words(w), word: width > 3 + word.length * 1.5 ? word : '' };
      }),
    })),
  );

  /** The hour under the finger; by keyboard, the band as a whole. */
  protected pick(band: DayBand, event: MouseEvent): void {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
    const hour = event.detail === 0 || box.width === 0 ? null : FROM + ((event.clientX - box.left) / box.width) * (TO - FROM);
    const window = hour !== null && band.day.ok ? band.day.windows.find((w) => hour >= w.fromHour && hour < w.toHour) : undefined;
    this.picked.emit({ band, window: window ?? null });
  }
}
