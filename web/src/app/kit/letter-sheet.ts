import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { LetterSheet } from '@yellow-pane/core';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';
import { svgOfRegion } from './svg-of-region';

/** Room of the sheet, px of the drawing. */
const WIDE = 330;
const HIGH = 190;
const LEFT = 40;
const TOP = 26;

/** One sheet of letters as the plotter cuts it, film side up: its size, the line it stands on, its hinge. */
@Component({
  selector: 'yp-letter-sheet',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height" class="block w-full" role="img" [attr.aria-label]="label() + ', film side up'">
      <rect [attr.x]="d.x" [attr.y]="d.y" [attr.width]="d.w" [attr.height]="d.h" fill="#FFF6DC" stroke="#1C2226" stroke-width="1.5" />
      <path [attr.d]="d.letters" fill-rule="evenodd" fill="#1C2226" />
      <path [attr.d]="d.baseline" stroke="#A8431A" stroke-dasharray="8 3 2 3" fill="none" />
      @if (hasHinge()) {
        <path [attr.d]="d.hinge" stroke="#1C2226" stroke-width="7" fill="none" />
        <path [attr.d]="d.hinge" stroke="#9DB6C4" stroke-width="5" fill="none" />
      }
      <text [attr.x]="d.x + d.w / 2" [attr.y]="d.y - 10" text-anchor="middle" class="figure" font-size="12">{{ d.wide }}</text>
      <text
        [attr.x]="d.x - 12"
        [attr.y]="d.y + d.h / 2"
        text-anchor="middle"
        class="figure"
        font-size="12"
        [attr.transform]="'rotate(-90 ' + (d.x - 12) + ' ' + (d.y + d.h / 2) + ')'"
      >
        {{ d.high }}
      </text>
      <text [attr.x]="d.x + d.w + 8" [attr.y]="d.baseY + 4" class="figure" font-size="11">{{ d.up }}</text>
      <text [attr.x]="d.width / 2" [attr.y]="d.height - 8" text-anchor="middle" font-size="12" fill="#56626A">
        film side up; {{ hasHinge() ? 'hinge in blue, ' : '' }}what it stands on in rust
      </text>
    </svg>
  `,
})
export class LetterSheetDrawing {
  readonly sheet = input.required<LetterSheet>();
  readonly label = input.required<string>();
  readonly units = input.required<UnitSystem>();
  /** Its hinge is put on when it hangs, not at the bench. */
  readonly hasHinge = input(true);

  protected readonly drawn = computed(() => {
    const [s, units] = [this.sheet(), this.units()];
    const k = Math.min(WIDE / s.widthMm, HIGH / s.heightMm);
    const [w, h] = [s.widthMm * k, s.heightMm * k];
    const x = (mm: number) => LEFT + (mm - s.leftMm) * k;
    const y = (mm: number) => TOP + h - (mm - s.lowMm) * k;
    const baseY = TOP + h - s.baselineMm * k;
    return {
      x: LEFT,
      y: TOP,
      w,
      h,
      width: LEFT + w + 44,
      height: TOP + h + 34,
      letters: svgOfRegion(s.region, x, y),
      baseY,
      baseline: `M${LEFT} ${baseY}h${w + 5}`,
      hinge: s.hinge === 'middle' ? `M${LEFT + w / 2} ${TOP - 5}v${h + 10}` : `M${LEFT - 5} ${TOP}h${w + 10}`,
      wide: formatLength(s.widthMm, units),
      high: formatLength(s.heightMm, units),
      up: formatLength(s.baselineMm, units),
    };
  });
}
