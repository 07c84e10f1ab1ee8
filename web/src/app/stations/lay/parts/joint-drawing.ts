import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { strokePath, type FaceLane, type JointGraph, type JointStroke, type TexturedPanel } from '@yellow-pane/core/lay';
import { tapOn } from '../../../kit/place-on-drawing';

/** Room of the drawing, px of it. */
const WIDE = 360;
const HIGH = 300;
const MARGIN = 14;
/** Numbers nearer to each other than this could not be read, px. */
const LEAST_APART = 16;
/** Drawn narrower than this a panel has its numbers beside it, px: strokes left of it, the border right. */
const NARROW_PX = 40;
/** A tap this far from a joint still means it, px. */
const TAP_PX = 22;
/** Room shown beside the place in hand, mm. */
const ASIDE_MM = 60;

/** A part of a wall, in mm from its left end and foot. */
export interface WallBox {
  readonly fromMm: number;
  readonly toMm: number;
  readonly lowMm: number;
  readonly highMm: number;
}
type At = { readonly xMm: number; readonly yMm: number };

/**
 * Joints beneath a panel true to scale: hollow while they breathe, full once pressed, dotted red where air is shut in; strokes with their numbers: of the wheel full with an
 * arrow, of the roller broad and pale, of the border dashed.
 */
@Component({
  selector: 'yp-joint-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg
      [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height"
      class="block w-full"
      role="img"
      [attr.aria-label]="label()"
      [attr.tabindex]="pickable() ? 0 : null"
      (click)="tap($event)"
      (keydown)="key($event)"
    >
      <defs>
        <pattern [id]="id + 'h'" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="#56626A" stroke-width="2" />
        </pattern>
        <marker [id]="id + 'a'" viewBox="0 0 8 8" refX="6" refY="4" markerWidth="9" markerHeight="9" markerUnits="userSpaceOnUse" orient="auto">
          <path d="M0 0L8 4L0 8Z" fill="#1C2226" />
        </marker>
        <marker [id]="id + 'b'" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="5" markerHeight="5" markerUnits="userSpaceOnUse" orient="auto">
          <path d="M0 0L8 4L0 8Z" fill="#3E6E8E" />
        </marker>
      </defs>
      <!-- held to its own box: what lies beside it would show where the box is narrower than the screen -->
      <clipPath [id]="id + 'c'"><rect [attr.width]="d.width" [attr.height]="d.height" /></clipPath>
      <g [attr.clip-path]="'url(#' + id + 'c)'">
        <rect [attr.x]="d.panel.x" [attr.y]="d.panel.y" [attr.width]="d.panel.w" [attr.height]="d.panel.h" fill="#FFF6DC" stroke="#1C2226" stroke-width="1.2" />
        @for (l of d.lanes; track $index) {
          <path [attr.d]="l" fill="none" stroke="#3E6E8E" stroke-opacity="0.13" [attr.stroke-width]="d.lanePx" />
        }
        @for (l of d.lanes; track $index) {
          <path [attr.d]="l" fill="none" stroke="#3E6E8E" stroke-width="0.8" [attr.marker-end]="'url(#' + id + 'b)'" />
        }
        <path [attr.d]="d.open" fill="none" stroke="#56626A" [attr.stroke-width]="d.jointPx + 2" />
        <path [attr.d]="d.open" fill="none" stroke="#FFFEFA" [attr.stroke-width]="d.jointPx" />
        <path [attr.d]="d.pressed" fill="none" stroke="#A97C00" [attr.stroke-width]="d.jointPx + 1" />
        <path [attr.d]="d.trapped" fill="none" stroke="#B3261E" [attr.stroke-width]="d.jointPx + 3" stroke-dasharray="3 3" />
        @for (o of d.obstacles; track $index) {
          <rect
            [attr.x]="o.x"
            [attr.y]="o.y"
            [attr.width]="o.w"
            [attr.height]="o.h"
            [attr.fill]="o.isOpen ? '#FFFEFA' : 'url(#' + id + 'h)'"
            stroke="#1C2226"
            [attr.stroke-dasharray]="o.isOpen ? '3 2' : null"
          />
        }
        <path [attr.d]="d.shut" stroke="#1C2226" stroke-width="5" fill="none" />
        @for (s of d.strokes; track s.number) {
          <path
            [attr.d]="s.path"
            fill="none"
            [attr.stroke]="s.isSeal ? '#A8431A' : '#1C2226'"
            [attr.stroke-width]="s.isNow ? 4 : s.isSeal ? 4 : 2"
            [attr.stroke-dasharray]="s.isSeal ? '7 4' : null"
            [attr.marker-end]="s.isSeal ? null : 'url(#' + id + 'a)'"
          />
        }
        @for (s of d.numbers; track s.number) {
          <circle [attr.cx]="s.x" [attr.cy]="s.y" r="8.5" [attr.fill]="s.isNow ? '#F4B400' : '#FFFEFA'" stroke="#1C2226" stroke-width="0.8" />
          <text [attr.x]="s.x" [attr.y]="s.y + 3.6" text-anchor="middle" font-size="10.5" font-weight="700" fill="#1C2226">{{ s.number }}</text>
        }
        @if (d.air) {
          <path [attr.d]="d.air" fill="none" stroke="#3E6E8E" stroke-width="2.5" stroke-dasharray="2 3" [attr.marker-end]="'url(#' + id + 'b)'" data-air />
        }
        @for (p of d.pierces; track $index) {
          <path [attr.d]="'M' + (p.x - 6) + ' ' + (p.y - 6) + 'l12 12m0 -12l-12 12'" stroke="#B3261E" stroke-width="3" />
        }
        @if (d.aimed) {
          <path [attr.d]="d.aimed" fill="none" stroke="#F4B400" [attr.stroke-width]="d.jointPx + 7" stroke-opacity="0.7" />
        }
      </g>
    </svg>
  `,
  host: { class: 'block' },
})
export class JointDrawing {
  private static count = 0;
  protected readonly id = `joints-${JointDrawing.count++}`;
  readonly panel = input.required<Pick<TexturedPanel, 'asked' | 'graph'>>();
  /** The part that is shown; null: all of the panel. */
  readonly box = input<WallBox | null>(null);
  /** Strokes that are done. */
  readonly done = input<readonly JointStroke[]>([]);
  /** Strokes that are drawn with their numbers, counted from `firstNumber`. */
  readonly strokes = input<readonly JointStroke[]>([]);
  readonly firstNumber = input(1);
  /** Of them the one in hand, by its number. */
  readonly now = input<number | null>(null);
  readonly lanes = input<readonly FaceLane[]>([]);
  readonly rollerMm = input(100);
  /** Segments that air is shut in under. */
  readonly trapped = input<readonly number[]>([]);
  readonly pierces = input<readonly At[]>([]);
  /** The way of the air ahead of the stroke in hand. */
  readonly air = input<readonly At[] | null>(null);
  readonly label = input('The joints');
  /** Joints can be pressed by a tap towards the end one taps nearer to, or by keys. */
  readonly pickable = input(false);
  readonly pressed = output<{ readonly segment: number; readonly to: number }>();
  readonly takenBack = output();
  private readonly aim = signal<number | null>(null);

  private readonly scale = computed(() => {
    const { panel: p } = this.panel().asked;
    const box = this.box();
    const x0 = box ? Math.max(p.leftMm, box.fromMm - ASIDE_MM) : p.leftMm;
    const x1 = box ? Math.min(p.rightMm, box.toMm + ASIDE_MM) : p.rightMm;
    const y0 = box ? Math.max(p.footMm, box.lowMm - ASIDE_MM) : p.footMm;
    const y1 = box ? Math.min(p.topMm, box.highMm + ASIDE_MM) : p.topMm;
    const k = Math.min((WIDE - 2 * MARGIN) / (x1 - x0), (HIGH - 2 * MARGIN) / (y1 - y0));
    const isNarrow = (x1 - x0) * k < NARROW_PX;
    const aside = isNarrow ? 3 * MARGIN : MARGIN;
    const [width, height] = [(x1 - x0) * k + 2 * aside, (y1 - y0) * k + 2 * MARGIN];
    return { k, width, height, x0, y1, isNarrow, x: (mm: number) => aside + (mm - x0) * k, y: (mm: number) => MARGIN + (y1 - mm) * k, isIn: ({ xMm, yMm }: At) => xMm >= x0 - 1 && xMm <= x1 + 1 && yMm >= y1 - (y1 - y0) - 1 && yMm <= y1 + 1 }; // prettier-ignore
  });
  private line(path: readonly At[]): string {
    const { x, y } = this.scale();
    return path.map((p, i) => `${i ? 'L' : 'M'}${x(p.xMm).toFixed(1)} ${y(p.yMm).toFixed(1)}`).join('');
  }
  private of(segment: number): string {
    const { nodes, segments }: JointGraph = this.panel().graph;
    const s = segments[segment]!;
    const [a, b] = [nodes[s.a]!, nodes[s.b]!];
    return this.line([a, s.way === 'bed' ? { xMm: a.xMm + s.lengthMm, yMm: a.yMm } : b]);
  }

  protected readonly drawn = computed(() => {
    const { k, width, height, isNarrow, x, y, isIn } = this.scale();
    const { asked, graph } = this.panel();
    const { panel: p, borders } = asked;
    const pressed = new Set(this.done().flatMap((s) => (s.does === 'press' ? s.segments : [])));
    const trapped = new Set(this.trapped());
    const all = graph.segments.map((_s, i) => i);
    const now = this.now();
    const strokes = this.strokes().map((stroke, i) => {
      const path = strokePath(graph, stroke);
      const number = this.firstNumber() + i;
      // a seal lies beside the border, not on it
      return { number, path: this.line(path), points: path, isSeal: stroke.does === 'seal', isNow: number === now };
    });
    const placed: { x: number; y: number }[] = [];
    const numbers = strokes.flatMap(({ number, points, isNow, isSeal }) => {
      if (!points.every(isIn) && points.length < 2) return [];
      const [a, b] = [points[0]!, points[1] ?? points[0]!];
      const besideX = isSeal ? x(p.rightMm) + MARGIN + 4 : x(p.leftMm) - MARGIN - 4;
      const at = { x: isNarrow ? besideX : x(a.xMm + (b.xMm - a.xMm) * 0.4), y: y(a.yMm + (b.yMm - a.yMm) * 0.4) };
      if (!isNow && placed.some((q) => Math.hypot(q.x - at.x, q.y - at.y) < LEAST_APART)) return [];
      placed.push(at);
      return [{ number, ...at, isNow }];
    });
    const edge = { left: `M${x(p.leftMm)} ${y(p.footMm)}V${y(p.topMm)}`, right: `M${x(p.rightMm)} ${y(p.footMm)}V${y(p.topMm)}`, foot: `M${x(p.leftMm)} ${y(p.footMm)}H${x(p.rightMm)}`, top: `M${x(p.leftMm)} ${y(p.topMm)}H${x(p.rightMm)}` }; // prettier-ignore
    const aimed = this.pickable() ? this.aim() : null;
    return {
      width,
      height,
      jointPx: Math.max(1.5, Math.min(6, asked.masonry.jointMm * k)),
      lanePx: Math.max(2, this.rollerMm() * k),
      panel: { x: x(p.leftMm), y: y(p.topMm), w: (p.rightMm - p.leftMm) * k, h: (p.topMm - p.footMm) * k },
      lanes: this.lanes().map((l) => this.line([{ xMm: l.fromXMm, yMm: l.fromYMm }, { xMm: l.toXMm, yMm: l.toYMm }])), // prettier-ignore
      open: all.filter((i) => !pressed.has(i) && !trapped.has(i)).map((i) => this.of(i)).join(''), // prettier-ignore
      pressed: all.filter((i) => pressed.has(i) && !trapped.has(i)).map((i) => this.of(i)).join(''), // prettier-ignore
      trapped: [...trapped].map((i) => this.of(i)).join(''),
      shut: (['left', 'right', 'foot', 'top'] as const).flatMap((side) => (borders[side] === 'closed' ? [edge[side]] : [])).join(''), // prettier-ignore
      obstacles: asked.obstacles.flatMap((o) => {
        // what stands beside the panel is no matter of its drawing
        const [from, to] = [Math.max(p.leftMm, o.leftMm), Math.min(p.rightMm, o.leftMm + o.widthMm)];
        const [low, high] = [Math.max(p.footMm, o.footMm), Math.min(p.topMm, o.footMm + o.heightMm)];
        return to > from && high > low ? [{ x: x(from), y: y(high), w: Math.max(3, (to - from) * k), h: Math.max(3, (high - low) * k), isOpen: o.isOpen }] : [];
      }),
      strokes,
      numbers,
      air: this.air() && this.air()!.length > 1 ? this.line(this.air()!) : null,
      pierces: this.pierces().map((q) => ({ x: x(q.xMm), y: y(q.yMm) })),
      aimed: aimed === null ? null : this.of(aimed),
    };
  });

  /** Middle of each segment, px of the drawing, with its two ends. */
  private readonly places = computed(() => {
    const { x, y } = this.scale();
    const { nodes, segments } = this.panel().graph;
    return segments.map(({ a, b, way, lengthMm }) => {
      const p = nodes[a]!;
      const q = way === 'bed' ? { xMm: p.xMm + lengthMm, yMm: p.yMm } : nodes[b]!;
      return { a, b, ax: x(p.xMm), ay: y(p.yMm), bx: x(q.xMm), by: y(q.yMm) };
    });
  });
  protected tap(event: MouseEvent): void {
    if (!this.pickable()) return;
    const { width, height } = this.scale();
    const { x, y } = tapOn(event, { width, height });
    const far = this.places().map(({ ax, ay, bx, by }) => {
      const long = Math.hypot(bx - ax, by - ay) || 1;
      const t = Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long ** 2));
      return { t, d: Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)) };
    });
    const segment = far.reduce((best, f, i) => (best < 0 || f.d < far[best]!.d ? i : best), -1);
    if (segment < 0 || far[segment]!.d > TAP_PX) return;
    this.aim.set(segment);
    const { a, b } = this.places()[segment]!;
    this.pressed.emit({ segment, to: far[segment]!.t > 0.5 ? b : a });
  }
  /** Arrows go from joint to joint, Enter presses it onwards (right, or up), with Shift the other way; Backspace takes the last stroke back. */
  protected key(event: KeyboardEvent): void {
    if (!this.pickable()) return;
    const ways: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const way = ways[event.key];
    if (!way && event.key !== 'Enter' && event.key !== 'Backspace') return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Backspace') return this.takenBack.emit();
    const at = this.aim() ?? 0;
    const places = this.places();
    const here = places[at];
    if (!here) return;
    if (!way) return this.pressed.emit({ segment: at, to: event.shiftKey ? here.a : here.b });
    const middle = (p: typeof here) => ({ x: (p.ax + p.bx) / 2, y: (p.ay + p.by) / 2 });
    const m = middle(here);
    // the nearest that lies that way, what lies straight ahead before what lies aside
    const cost = places.map((p, i) => {
      const [dx, dy] = [middle(p).x - m.x, middle(p).y - m.y];
      const ahead = dx * way[0] + dy * way[1];
      return i === at || ahead < 2 ? Infinity : ahead + 2.5 * Math.abs(way[0] ? dy : dx);
    });
    const next = cost.reduce((best, c, i) => (c < (cost[best] ?? Infinity) ? i : best), -1);
    if (next >= 0) this.aim.set(next);
  }
}
