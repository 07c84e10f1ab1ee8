import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { HeatCover, HeatProof } from '@yellow-pane/core/lay';
import { boundingBox, type Vec } from '@yellow-pane/core/geometry';

/** Room of the drawing, px. */
const WIDE = 300;
const HIGH = 250;
const MARGIN = 20;

/** What of a surface has been proven hot: a stretch without a reading glows, one that was too cool is broken, one that is proven is a thin green line with its tick. */
@Component({
  selector: 'yp-heat-cover-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height" class="block w-full" role="img" [attr.aria-label]="label()">
      <path [attr.d]="d.outline" fill="#FFFEFA" stroke="#BDB6A2" />
      @for (s of d.stretches; track s.key) {
        <g class="cursor-pointer" [attr.data-stretch]="s.key" (click)="picked.emit(s.key)">
          <path [attr.d]="s.d" stroke="transparent" stroke-width="26" stroke-linecap="round" fill="none" />
          @if (s.isPicked) {
            <path [attr.d]="s.d" stroke="#1C2226" stroke-width="15" stroke-linecap="round" fill="none" />
          }
          @switch (s.state) {
            @case ('proven') {
              <path [attr.d]="s.d" stroke="#2E6B3E" stroke-width="4" stroke-linecap="round" fill="none" />
              <path [attr.d]="s.tick" stroke="#2E6B3E" stroke-width="2" fill="none" />
            }
            @case ('cool') {
              <path [attr.d]="s.d" stroke="#FFFEFA" stroke-width="8" stroke-linecap="round" fill="none" />
              <path [attr.d]="s.d" stroke="#A3271F" stroke-width="6" stroke-dasharray="3 4" fill="none" />
            }
            @default {
              <path [attr.d]="s.d" stroke="#F4B400" stroke-opacity="0.35" stroke-width="16" stroke-linecap="round" fill="none" />
              <path [attr.d]="s.d" stroke="#F4B400" stroke-width="7" stroke-linecap="round" fill="none" />
            }
          }
        </g>
      }
    </svg>
  `,
})
export class HeatCoverDrawing {
  readonly cover = input.required<HeatCover>();
  readonly proofs = input.required<ReadonlyMap<string, HeatProof>>();
  /** Stretches in hand. */
  readonly selected = input<readonly string[]>([]);
  readonly label = input.required<string>();
  readonly picked = output<string>();

  protected readonly drawn = computed(() => {
    const { outline, edges } = this.cover();
    const box = boundingBox(outline);
    const k = Math.min(WIDE / (box.maxX - box.minX), HIGH / (box.maxY - box.minY));
    const to = (p: Vec) => ({ x: MARGIN + (p.x - box.minX) * k, y: MARGIN + (box.maxY - p.y) * k });
    const line = (path: readonly Vec[]) =>
      path
        .map(to)
        .map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`)
        .join('');
    // a gap between neighbours, so that they are told apart
    const shrunk = (path: readonly Vec[]): Vec[] => {
      if (path.length !== 2) return [...path];
      const [a, b] = [path[0]!, path[1]!];
      const long = Math.hypot(b.x - a.x, b.y - a.y) * k;
      const cut = long > 14 ? 5 / long : long > 0 ? 0.3 : 0;
      const at = (t: number) => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });
      return [at(cut), at(1 - cut)];
    };
    const middle = { x: (box.minX + box.maxX) / 2, y: (box.minY + box.maxY) / 2 };
    const tick = (path: readonly Vec[]): string => {
      const at = path.length % 2 ? path[(path.length - 1) / 2]! : { x: (path[path.length / 2 - 1]!.x + path[path.length / 2]!.x) / 2, y: (path[path.length / 2 - 1]!.y + path[path.length / 2]!.y) / 2 }; // prettier-ignore
      const [p, m] = [to(at), to(middle)];
      const away = Math.hypot(m.x - p.x, m.y - p.y) || 1;
      const [x, y] = [p.x + ((m.x - p.x) / away) * 11, p.y + ((m.y - p.y) / away) * 11];
      return `M${(x - 4).toFixed(1)} ${y.toFixed(1)}l3 3l6 -7`;
    };
    const selected = new Set(this.selected());
    const stretches = edges.flatMap((e) =>
      e.stretches.map((s) => {
        const proof = this.proofs().get(s.key);
        return {
          key: s.key,
          d: line(shrunk(s.path)),
          tick: tick(s.path),
          state: !proof ? 'unread' : proof.isProven ? 'proven' : 'cool',
          isPicked: selected.has(s.key),
        };
      }),
    );
    return {
      width: (box.maxX - box.minX) * k + 2 * MARGIN,
      height: (box.maxY - box.minY) * k + 2 * MARGIN,
      outline: `${line(outline)}Z`,
      stretches,
    };
  });
}
