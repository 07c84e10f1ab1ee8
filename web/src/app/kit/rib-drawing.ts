import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Corrugation } from '@yellow-pane/contracts';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';
import { halfRib } from '@yellow-pane/core/measure';

/** Room of the drawing, px. */
const WIDE = 330;
const TALLEST = 110;
const LEFT = 40;
const TOP = 26;

/** Ribs of a corrugated sheet, cut across and true to scale, with film as it comes to lie in them. */
@Component({
  selector: 'yp-rib-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + (d.w + 80) + ' ' + (d.h + 74)" class="block w-full" role="img" [attr.aria-label]="label()">
      <path [attr.d]="d.ground" fill="#D8D2C2" stroke="none" />
      <path [attr.d]="d.sheet" fill="none" stroke="#1C2226" stroke-width="2" stroke-linejoin="round" />
      @if (corrugation().way === 'bridged') {
        <path [attr.d]="d.across" fill="none" stroke="#A97C00" stroke-width="2" stroke-dasharray="6 4" />
        <path [attr.d]="d.arrows" fill="none" stroke="#1C2226" stroke-width="1.6" />
      }
      <path [attr.d]="d.film" fill="none" stroke="#F4B400" stroke-width="3.5" stroke-linejoin="round" />
      <path [attr.d]="d.pitch" fill="none" stroke="#56626A" />
      <text [attr.x]="d.middle" [attr.y]="d.h + 68" text-anchor="middle" font-size="12">{{ d.pitchText }}</text>
      <path [attr.d]="d.deep" fill="none" stroke="#56626A" />
      <text x="16" [attr.y]="d.mid + 4" font-size="12" text-anchor="end">{{ d.depthText }}</text>
    </svg>
  `,
})
export class RibDrawing {
  readonly corrugation = input.required<Corrugation>();
  readonly units = input.required<UnitSystem>();
  readonly label = input.required<string>();

  protected readonly drawn = computed(() => {
    const [c, units] = [this.corrugation(), this.units()];
    const half = halfRib(c);
    // crest, valley, crest, valley, crest
    const one = [...half, ...[...half].reverse().map((p) => ({ xMm: c.pitchMm - p.xMm, downMm: p.downMm }))];
    const rib = [...one, ...one.map((p) => ({ xMm: p.xMm + c.pitchMm, downMm: p.downMm }))];
    const k = Math.min(WIDE / (2 * c.pitchMm), TALLEST / c.depthMm);
    const [w, h] = [2 * c.pitchMm * k, c.depthMm * k];
    const at = (xMm: number, downMm: number, lift = 0) => `${(LEFT + xMm * k).toFixed(1)} ${(TOP + downMm * k - lift).toFixed(1)}`;
    const line = (lift: number) => `M${rib.map((p) => at(p.xMm, p.downMm, lift)).join('L')}`;
    const across = [0.5, 1.5].map((n) => `M${at((n - 0.5) * c.pitchMm, 0, 3.5)}L${at((n + 0.5) * c.pitchMm, 0, 3.5)}`).join('');
    const arrows = [0.5, 1.5].map((n) => `M${at(n * c.pitchMm, 0, -2)}v${Math.max(8, h - 10)}m-4 -6l4 6l4 -6`).join('');
    const y = TOP + h + 24;
    return {
      w,
      h,
      sheet: line(0),
      ground: `${line(0)}L${at(2 * c.pitchMm, c.depthMm, -14)}L${at(0, c.depthMm, -14)}Z`,
      film: line(3.5),
      across,
      arrows,
      deep: `M20 ${TOP}h10M20 ${TOP + h}h10M25 ${TOP}v${h.toFixed(1)}`,
      pitch: `M${LEFT} ${y - 5}v10M${LEFT + c.pitchMm * k} ${y - 5}v10M${LEFT} ${y}h${(c.pitchMm * k).toFixed(1)}`,
      middle: LEFT + (c.pitchMm * k) / 2,
      mid: TOP + h / 2,
      pitchText: formatLength(c.pitchMm, units),
      depthText: formatLength(c.depthMm, units),
    };
  });
}
