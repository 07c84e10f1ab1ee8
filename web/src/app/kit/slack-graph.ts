import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { MeshStation } from '@yellow-pane/contracts';
import { hostSize } from './host-size';

const [H, LEFT, BOTTOM, TOP] = [118, 46, 20, 10];
/** What lies down without heat. */
const LIES_DOWN_PCT = 0.1;

/** What has to go along the upper and the lower edge, from left to right, in per cent of the film's width at each place. */
@Component({
  selector: 'yp-slack-graph',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let g = graph();
    @let w = size().w;
    <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" class="block w-full" role="img" [attr.aria-label]="label()">
      @for (t of g.ticks; track t.text) {
        <line [attr.x1]="left" [attr.x2]="w - 8" [attr.y1]="t.y" [attr.y2]="t.y" stroke="#D8D2C2" />
        <text [attr.x]="left - 6" [attr.y]="t.y + 4" font-size="12" text-anchor="end" fill="#56626A" class="figure">{{ t.text }}</text>
      }
      <rect [attr.x]="left" [attr.width]="w - 8 - left" [attr.y]="g.downTop" [attr.height]="g.downHeight" fill="#DFEEE4" />
      <text [attr.x]="left + 8" [attr.y]="g.downTop + 12" font-size="11" fill="#2C7550">lies down without heat</text>
      <polyline [attr.points]="g.above" fill="none" stroke="#3E6E8E" stroke-width="2.5" stroke-dasharray="7 4" />
      <polyline [attr.points]="g.below" fill="none" stroke="#C2501C" stroke-width="2.5" />
      <text [attr.x]="left" [attr.y]="h - 5" font-size="12" fill="#56626A">left</text>
      <g font-size="12" font-weight="700">
        <path [attr.d]="'M' + g.lowerX + ' ' + (h - 9) + 'h26'" stroke="#C2501C" stroke-width="2.5" />
        <text [attr.x]="g.lowerX + 32" [attr.y]="h - 5" fill="#A8431A">lower edge</text>
        <path [attr.d]="'M' + (w / 2 + 20) + ' ' + (h - 9) + 'h26'" stroke="#3E6E8E" stroke-width="2.5" stroke-dasharray="7 4" />
        <text [attr.x]="w / 2 + 52" [attr.y]="h - 5" fill="#3E6E8E">upper edge</text>
      </g>
      <text [attr.x]="w - 8" [attr.y]="h - 5" font-size="12" fill="#56626A" text-anchor="end">right</text>
    </svg>
  `,
  host: { class: 'block' },
})
export class SlackGraph {
  readonly mesh = input.required<readonly MeshStation[]>();
  readonly label = input('What has to go along both edges');
  /** Drawn to the pixel, so that its words stay readable on a phone. */
  protected readonly size = hostSize({ w: 720, h: H });
  protected readonly h = H;
  protected readonly left = LEFT;
  protected readonly graph = computed(() => {
    const W = this.size().w;
    const at = (side: 'up' | 'down') => this.mesh().flatMap((s) => (s[side].length ? [{ x: s.alongMm, pct: 100 * s[side].at(-1)![4] }] : []));
    const [above, below] = [at('up'), at('down')];
    const all = [...above, ...below];
    const xs = all.length ? all.map((p) => p.x) : [-1, 1];
    const [minX, maxX] = [Math.min(...xs), Math.max(...xs)];
    const high = Math.max(0.25, ...all.map((p) => p.pct)) * 1.08;
    const low = Math.min(0, ...all.map((p) => p.pct)) * 1.08;
    const x = (v: number) => LEFT + ((v - minX) / (maxX - minX || 1)) * (W - 8 - LEFT);
    const y = (v: number) => TOP + ((high - v) / (high - low)) * (H - BOTTOM - TOP);
    const line = (list: readonly { x: number; pct: number }[]) => list.map((p) => `${x(p.x).toFixed(1)},${y(p.pct).toFixed(1)}`).join(' ');
    const step = [0.1, 0.2, 0.5, 1, 2, 5].find((s) => (high - low) / s <= 4) ?? 10;
    const ticks = [];
    for (let v = Math.ceil(low / step) * step; v <= high; v += step) ticks.push({ y: y(v), text: `${Number(v.toFixed(2))} %` });
    return {
      // clear of the word at the left end
      lowerX: Math.max(LEFT + 36, W / 2 - 130),
      above: line(above),
      below: line(below),
      ticks,
      downTop: y(LIES_DOWN_PCT),
      downHeight: y(-Math.min(LIES_DOWN_PCT, -low)) - y(LIES_DOWN_PCT),
    };
  });
}
