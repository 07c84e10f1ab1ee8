import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { coordinateWords, parseCoordinates, type Coordinates } from '@yellow-pane/core/ground';

/** Where on earth a site is: one field for a pair of coordinates as a map gives it, and what it says in words. */
@Component({
  selector: 'yp-site-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="block text-sm"
      >Where the site is<input
        #box
        class="field figure"
        autocomplete="off"
        placeholder="53.546, 8.58 or 53°32′46″N 8°34′48″E"
        [value]="shown()"
        (change)="read(box)"
    /></label>
    <p class="text-sm text-soft" data-site-words>{{ words() }}</p>
  `,
  host: { class: 'block' },
})
export class SiteField {
  readonly latDeg = input.required<number | null>();
  readonly lonDeg = input.required<number | null>();
  /** Null: nobody knows any more. */
  readonly placed = output<Coordinates | null>();

  private readonly at = computed((): Coordinates | null => {
    const [latDeg, lonDeg] = [this.latDeg(), this.lonDeg()];
    return latDeg === null || lonDeg === null ? null : { latDeg, lonDeg };
  });
  protected readonly shown = computed(() => {
    const at = this.at();
    return at ? `${Number(at.latDeg.toFixed(5))}, ${Number(at.lonDeg.toFixed(5))}` : '';
  });
  protected readonly words = computed(() => {
    const at = this.at();
    return at
      ? `${coordinateWords(at)}: the sun on the glass is reckoned there.`
      : 'Long-press the place on any map and paste what it shows. The sun on the glass depends on it.';
  });

  protected read(box: HTMLInputElement): void {
    box.setCustomValidity('');
    if (box.value.trim() === '') return this.placed.emit(null);
    const read = parseCoordinates(box.value);
    if (read.ok) return this.placed.emit(read.value);
    box.setCustomValidity(read.message);
    box.reportValidity();
  }
}
