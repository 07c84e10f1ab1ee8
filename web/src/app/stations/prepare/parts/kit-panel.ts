import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { DayStore } from '../day.store';

/** What the day needs in the van, ticked as it is loaded. */
@Component({
  selector: 'yp-kit-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="mb-2" data-kit-count>
      <strong>{{ loadedCount() }} of {{ lines().length }}</strong> in the van.
      @if (missing().length && missing().length <= 6) {
        <span class="text-soft">Not yet: {{ missing().join(', ') }}.</span>
      }
    </p>
    @if (short().length) {
      <p class="mb-2 border-l-4 border-ink bg-tint p-2" role="note" data-short><strong>To get before you leave:</strong> {{ short().join(', ') }}.</p>
    }
    <ul class="border-t border-hair">
      @for (l of lines(); track l.key) {
        <li class="flex items-start gap-2 border-b border-hair">
          <label class="grid flex-1 cursor-pointer grid-cols-[28px_minmax(120px,230px)_110px_1fr] items-start gap-x-2 py-2 max-md:grid-cols-[28px_1fr_auto]">
            <input type="checkbox" class="mt-0.5 h-5 w-5" [checked]="isLoaded(l.key)" (change)="tick(l.key, l.what)" />
            <strong [class.text-soft]="isLoaded(l.key)" [class.font-normal]="isLoaded(l.key)">{{ l.what }}</strong>
            <span class="figure">{{ l.howMuch }}</span>
            <span class="text-sm text-soft max-md:col-span-2 max-md:col-start-2">
              {{ l.why }}
              @if (l.caution) {
                <span class="mt-1 block border-l-4 border-harm bg-harm-tint px-2 py-1 text-ink">{{ l.caution }}</span>
              }
            </span>
          </label>
          <button
            type="button"
            class="my-1.5 min-h-8 shrink-0 border px-2 text-sm"
            [class]="isShort(l.key) ? 'border-ink bg-tint font-bold' : 'border-line bg-card'"
            [attr.aria-pressed]="isShort(l.key)"
            [attr.aria-label]="'Short: ' + l.what"
            (click)="callShort(l.key, l.what)"
          >
            short
          </button>
        </li>
      } @empty {
        <li class="py-3 text-soft">Nothing to load yet: no pane of this job is measured and has a film.</li>
      }
    </ul>
  `,
  host: { class: 'block' },
})
export class KitPanel {
  private readonly day = inject(DayStore);

  protected readonly lines = this.day.kit;
  protected readonly loadedCount = computed(() => this.lines().filter((l) => this.isLoaded(l.key)).length);
  protected readonly missing = computed(() =>
    this.lines()
      .filter((l) => !this.isLoaded(l.key))
      .map((l) => l.what.toLowerCase()),
  );
  protected readonly short = computed(() =>
    this.lines()
      .filter((l) => this.isShort(l.key))
      .map((l) => `${l.what.toLowerCase()} (${l.howMuch})`),
  );
  protected isShort(key: string): boolean {
    return (this.day.settings().short ?? []).includes(key);
  }
  protected callShort(key: string, what: string): void {
    const short = this.day.settings().short ?? [];
    const is = short.includes(key);
    this.day.set(`${what}: ${is ? 'enough' : 'short'}`, { short: is ? short.filter((k) => k !== key) : [...short, key] });
  }
  protected isLoaded(key: string): boolean {
    return this.day.settings().loaded.includes(key);
  }
  protected tick(key: string, what: string): void {
    const { loaded } = this.day.settings();
    const isIn = loaded.includes(key);
    this.day.set(`${what}: ${isIn ? 'not in the van' : 'in the van'}`, { loaded: isIn ? loaded.filter((k) => k !== key) : [...loaded, key] });
  }
}
