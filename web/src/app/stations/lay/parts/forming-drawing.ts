import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ShrinkPlan, StepDrawing, UnitSystem } from '@yellow-pane/contracts';
import { taped } from '@yellow-pane/core/form';
import { formatRough, formatRoughRange } from '@yellow-pane/core/ground';

const [W, H] = [360, 214];
/** Heights are written beside the pane where the line is laid; elsewhere the pane has that room. */
const padOf = (drawing: StepDrawing) => ({ side: drawing === 'anchor-line' ? 78 : 12, top: 24, bottom: drawing === 'forming' ? 40 : 24 });

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
        @for (z of d.zones; track z.id) {
          <polygon [attr.points]="z.points" fill="#E6EEF2" stroke="#3E6E8E" stroke-width="1.5" stroke-dasharray="4 3" />
        }
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
        @for (z of d.zones; track z.id) {
          <text [attr.x]="z.x" [attr.y]="z.y" text-anchor="middle" font-size="11.5" font-weight="700" fill="#3E6E8E">no heat</text>
        }
        @if (d.fingers.length === 0) {
          <text [attr.x]="w / 2" [attr.y]="h / 2 - 14" text-anchor="middle" font-size="14">{{ d.noFingers }}</text>
        }
      }
      @if (drawing() === 'quarters') {
        @for (s of d.strokes; track $index) {
          <path [attr.d]="s.path" fill="none" stroke="#3E6E8E" [attr.stroke-width]="s.isLane ? 2.5 : 1" [attr.stroke-dasharray]="s.isLane ? null : '3 2'" />
          @if (s.isLane) {
            <circle [attr.cx]="s.x" [attr.cy]="s.y" r="3" fill="#1C2226" />
          }
        }
        @for (q of d.quarters; track q.n) {
          @if (d.strokes.length === 0) {
            <path [attr.d]="q.path" fill="none" stroke="#3E6E8E" stroke-width="6" stroke-linecap="round" />
            <polygon [attr.points]="q.head" fill="#1C2226" />
          } @else {
            <circle [attr.cx]="q.x" [attr.cy]="q.y - 6" r="13" fill="#FFFEFA" stroke="#1C2226" />
          }
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
  /** Strokes of the quarters in order, in the plane of the plan. */
  readonly strokes = input<readonly { readonly path: readonly { x: number; y: number }[]; readonly isLane: boolean }[]>([]);
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
    const pad = padOf(this.drawing());
    const k = Math.min((W - 2 * pad.side) / (maxX - minX), (H - pad.top - pad.bottom) / (maxY - minY));
    const flip = this.mirrored() ? -1 : 1;
    const x = (v: number) => W / 2 + flip * (v - (minX + maxX) / 2) * k;
    const y = (v: number) => pad.top + (H - pad.top - pad.bottom) / 2 - (v - (minY + maxY) / 2) * k;
    const points = (ring: readonly { x: number; y: number }[]) => ring.map((q) => `${x(q.x).toFixed(1)},${y(q.y).toFixed(1)}`).join(' ');
    const order = new Map(p.order.map((o, i) => [`${o.side}${o.number}`, i + 1]));
    // what heat keeps away from: told beside it, towards the line, where no finger stands
    const zones = p.keepClear
      .filter((z) => z.heatMm !== null && z.ring.length > 2)
      .map((z) => {
        const [zx, zy] = [z.ring.map((q) => q[0]), z.ring.map((q) => q[1])];
        const isHigh = (Math.min(...zy) + Math.max(...zy)) / 2 > p.anchor.middleMm;
        return {
          id: z.zoneId,
          points: points(z.ring.map(([a, b]) => ({ x: a, y: b }))),
          x: x((Math.min(...zx) + Math.max(...zx)) / 2),
          y: isHigh ? y(Math.min(...zy)) + 13 : y(Math.max(...zy)) - 5,
        };
      });
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
    const noFingers = p.anchor.kind === 'arch' ? 'push three fingers together below' : 'no fingers: it lies down';
    const heights =
      p.anchor.kind === 'arch'
        ? []
        : [at(minX - 6 / k, p.anchor.leftMm, 'end', -5), at(mid, p.anchor.middleMm, 'start', 6), at(maxX + 6 / k, p.anchor.rightMm, 'start', 5)];
    const sides = `M${x(minX + 0.05 * (maxX - minX))} ${y(maxY - 0.12 * (maxY - minY))}V${y(minY + 0.12 * (maxY - minY))}M${x(maxX - 0.05 * (maxX - minX))} ${y(maxY - 0.12 * (maxY - minY))}V${y(minY + 0.12 * (maxY - minY))}`;
    const a = p.anchor.middleMm;
    const quarters = [
      [1, -0.3, 0.6],
      [2, 0.3, 0.6],
      [3, -0.3, -0.6],
      [4, 0.3, -0.6],
    ].map(([n, dx, dy]) => {
      // the first is at the left of whoever works, whichever way round the pane is drawn
      const to = { x: mid + flip * dx! * (maxX - minX), y: dy! > 0 ? a + 0.6 * (maxY - a) : a - 0.6 * (a - minY) };
      const [sx, sy, ex, ey] = [x(mid) + Math.sign(x(to.x) - x(mid)) * 8, y(a) + (dy! > 0 ? -6 : 6), x(to.x), y(to.y)];
      const d = Math.hypot(ex - sx, ey - sy) || 1;
      const [ux, uy] = [(ex - sx) / d, (ey - sy) / d];
      return {
        n: n!,
        path: `M${sx.toFixed(1)} ${sy.toFixed(1)}L${ex.toFixed(1)} ${ey.toFixed(1)}`,
        head: `${(ex + 9 * ux).toFixed(1)},${(ey + 9 * uy).toFixed(1)} ${(ex - 6 * uy).toFixed(1)},${(ey + 6 * ux).toFixed(1)} ${(ex + 6 * uy).toFixed(1)},${(ey - 6 * ux).toFixed(1)}`,
        x: ex + 24 * ux,
        y: ey + 24 * uy + 6,
        inX: (sx + ex) / 2,
        inY: (sy + ey) / 2 + 6,
      };
    });
    const strokes = this.strokes().map(({ path, isLane }) => ({
      isLane,
      path: path.map((q, i) => `${i ? 'L' : 'M'}${x(q.x).toFixed(1)} ${y(q.y).toFixed(1)}`).join(' '),
      x: x(path.at(-1)!.x),
      y: y(path.at(-1)!.y),
    }));
    const hasStrokes = strokes.length > 0;
    const card = p.methods.find((m) => m.school === p.school);
    const below =
      this.drawing() === 'forming'
        ? fingers.length === 0
          ? 'under the squeegee alone: no gun'
          : `${card?.name ?? ''}, gun ${formatRoughRange(card?.gunMm[0] ?? 100, card?.gunMm[1] ?? 150, this.units())} off`
        : this.drawing() === 'anchor-line'
          ? p.forming.raiseMm > 0
            ? `from outside; film ${formatRough(p.forming.raiseMm, this.units())} higher than it will sit`
            : 'from outside; heights over the lower corners'
          : 'on the face that gets the film; water to the side and down';
    return {
      outline: points(p.outline),
      finished: points(p.finished),
      zones,
      fingers,
      line,
      heights,
      noFingers,
      sides,
      quarters: hasStrokes ? quarters.map((q) => ({ ...q, x: q.inX, y: q.inY })) : quarters,
      strokes,
      below,
    };
  });
}
