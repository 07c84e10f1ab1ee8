import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ShrinkPlan, StepDrawing, UnitSystem } from '@yellow-pane/contracts';
import { taped } from '@yellow-pane/core/form';

const [W, H] = [360, 214];
const PAD = { left: 62, right: 62, top: 22, bottom: 24 };

/** The curved pane in hand: where the line goes at left, middle and right; which fingers in which order; or the four quarters that water is driven out of. */
@Component({
  selector: 'yp-forming-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" class="block w-full" role="img" [attr.aria-label]="label()">
      <polygon [attr.points]="d.outline" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
      <polygon [attr.points]="d.finished" fill="#FFE9A8" fill-opacity="0.55" stroke="#A97C00" stroke-dasharray="4 3" />
      @if (drawing() === 'forming') {
        @for (f of d.fingers; track f.key) {
          <polygon [attr.points]="f.points" fill="#F3D9CB" stroke="#C2501C" />
        }
      }
      <path [attr.d]="d.line" fill="none" stroke="#1C2226" stroke-width="3.5" />
      @if (drawing() === 'anchor-line') {
        <path [attr.d]="d.sides" fill="none" stroke="#1C2226" stroke-width="3.5" />
        @for (t of d.heights; track t.x) {
          <path [attr.d]="t.path" stroke="#1C2226" stroke-dasharray="3 3" fill="none" />
          <text [attr.x]="t.x" [attr.y]="t.y" [attr.text-anchor]="t.anchor" font-size="15" font-weight="700">{{ t.text }}</text>
        }
      }
      @if (drawing() === 'forming') {
        @for (f of d.fingers; track f.key) {
          <circle [attr.cx]="f.x" [attr.cy]="f.y" r="9.5" fill="#FFFEFA" stroke="#1C2226" />
          <text [attr.x]="f.x" [attr.y]="f.y + 4.2" text-anchor="middle" font-size="12" font-weight="700">{{ f.order }}</text>
        }
        @if (d.fingers.length === 0) {
          <text [attr.x]="w / 2" [attr.y]="h / 2 - 14" text-anchor="middle" font-size="14">no fingers: it lies down</text>
        }
      }
      @if (drawing() === 'quarters') {
        @for (q of d.quarters; track q.n) {
          <path [attr.d]="q.path" fill="none" stroke="#3E6E8E" stroke-width="6" stroke-linecap="round" />
          <polygon [attr.points]="q.head" fill="#1C2226" />
          <text [attr.x]="q.x" [attr.y]="q.y" text-anchor="middle" font-size="17" font-weight="700">{{ q.n }}</text>
        }
      }
      <text [attr.x]="w / 2" [attr.y]="h - 5" text-anchor="middle" font-size="12.5" fill="#56626A">{{ d.below }}</text>
    </svg>
  `,
  host: { class: 'block' },
})
export class FormingDrawing {
  readonly plan = input.required<ShrinkPlan>();
  readonly drawing = input.required<StepDrawing>();
  readonly units = input.required<UnitSystem>();
  /** Drawn from the other side than the bows were read from. */
  readonly mirrored = input(false);
  readonly label = input('The curved pane');
  protected readonly w = W;
  protected readonly h = H;

  protected readonly drawn = computed(() => {
    const p = this.plan();
    const xs = p.outline.map((q) => q.x);
    const ys = p.outline.map((q) => q.y);
    const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(0, ...ys), Math.max(...ys)];
    const k = Math.min((W - PAD.left - PAD.right) / (maxX - minX), (H - PAD.top - PAD.bottom) / (maxY - minY));
    const flip = this.mirrored() ? -1 : 1;
    const x = (v: number) => W / 2 + flip * (v - (minX + maxX) / 2) * k;
    const y = (v: number) => PAD.top + (H - PAD.top - PAD.bottom) / 2 - (v - (minY + maxY) / 2) * k;
    const points = (ring: readonly { x: number; y: number }[]) => ring.map((q) => `${x(q.x).toFixed(1)},${y(q.y).toFixed(1)}`).join(' ');
    const order = new Map(p.order.map((o, i) => [`${o.side}${o.number}`, i + 1]));
    const fingers = [...p.below.fingers, ...p.above.fingers].map((f) => {
      const [fx, fy, half] = [x(f.foot.x), y(f.foot.y), Math.max(3, (f.baseMm * k) / 2)];
      return {
        key: `${f.side}${f.number}`,
        order: order.get(`${f.side}${f.number}`) ?? 0,
        points: `${(fx - half).toFixed(1)},${fy.toFixed(1)} ${(fx + half).toFixed(1)},${fy.toFixed(1)} ${x(f.root.x).toFixed(1)},${y(f.root.y).toFixed(1)}`,
        x: fx,
        y: fy + (f.side === 'above' ? -11 : 11),
      };
    });
    const line = p.anchor.line.map((q, i) => `${i ? 'L' : 'M'}${x(q.x).toFixed(1)} ${y(q.y).toFixed(1)}`).join(' ');
    const at = (v: number, mm: number, anchor: string, dx: number) => ({
      path: `M${x(v)} ${y(0)}V${y(mm)}`,
      x: x(v) + flip * dx,
      y: y(mm / 2) + 5,
      anchor: flip > 0 ? anchor : anchor === 'end' ? 'start' : anchor === 'start' ? 'end' : anchor,
      text: taped(mm, this.units()),
    });
    const mid = (minX + maxX) / 2;
    const heights = [at(minX - 6 / k, p.anchor.leftMm, 'end', -5), at(mid, p.anchor.middleMm, 'start', 6), at(maxX + 6 / k, p.anchor.rightMm, 'start', 5)];
    const sides = `M${x(minX + 0.05 * (maxX - minX))} ${y(maxY - 0.12 * (maxY - minY))}V${y(minY + 0.12 * (maxY - minY))}M${x(maxX - 0.05 * (maxX - minX))} ${y(maxY - 0.12 * (maxY - minY))}V${y(minY + 0.12 * (maxY - minY))}`;
    const a = p.anchor.middleMm;
    const quarters = [
      [1, -0.3, 0.6],
      [2, 0.3, 0.6],
      [3, -0.3, -0.6],
      [4, 0.3, -0.6],
    ].map(([n, dx, dy]) => {
      const to = { x: mid + dx! * (maxX - minX), y: dy! > 0 ? a + 0.6 * (maxY - a) : a - 0.6 * (a - minY) };
      const [sx, sy, ex, ey] = [x(mid) + Math.sign(x(to.x) - x(mid)) * 8, y(a) + (dy! > 0 ? -6 : 6), x(to.x), y(to.y)];
      const d = Math.hypot(ex - sx, ey - sy) || 1;
      const [ux, uy] = [(ex - sx) / d, (ey - sy) / d];
      return {
        n,
        path: `M${sx.toFixed(1)} ${sy.toFixed(1)}L${ex.toFixed(1)} ${ey.toFixed(1)}`,
        head: `${(ex + 9 * ux).toFixed(1)},${(ey + 9 * uy).toFixed(1)} ${(ex - 6 * uy).toFixed(1)},${(ey + 6 * ux).toFixed(1)} ${(ex + 6 * uy).toFixed(1)},${(ey - 6 * ux).toFixed(1)}`,
        x: ex + 24 * ux,
        y: ey + 24 * uy + 6,
      };
    });
    const card = p.methods.find((m) => m.school === p.school);
    const below =
      this.drawing() === 'forming'
        ? `${card?.name ?? ''}, gun ${taped(card?.gunMm[0] ?? 100, this.units())} to ${taped(card?.gunMm[1] ?? 150, this.units())} off`
        : this.drawing() === 'anchor-line'
          ? p.forming.raiseMm > 0
            ? `from outside; film ${taped(p.forming.raiseMm, this.units())} higher than it will sit`
            : 'from outside; heights over the lower corners'
          : 'from the room; water to the side and down';
    return { outline: points(p.outline), finished: points(p.finished), fingers, line, heights, sides, quarters, below };
  });
}
