import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { StepDrawing } from '@yellow-pane/contracts';
import { boundingBox, offsetOutline, type Polygon } from '@yellow-pane/core/geometry';
import type { PassName, SqueegeePlan, Stroke } from '@yellow-pane/core/lay';
import { aimBy, onDrawing, tapOn } from '../../../kit/place-on-drawing';

/** A wide pane fills this, a narrow one takes as little as its words need; px of the drawing. */
const WIDEST = 360;
const NARROWEST = 150;
/** A tall pane takes no more of the screen than this, a wide one as little as it needs; px of the drawing. */
const TALLEST = 240;
/** Room beside the frame, and below it for a word, px. */
const MARGIN = 10;
const BELOW = 22;
/** Frame drawn round the glass, mm. */
const FRAME_MM = 45;

interface DrawnStroke {
  readonly path: string;
  readonly band: string;
  readonly number: number;
  readonly x: number;
  readonly y: number;
  readonly tool: Stroke['tool'];
  readonly end: string;
}

/** The pane in hand at true proportion, with what the step does on it: film, stop line, strokes in their order, knife path. */
@Component({
  selector: 'yp-lay-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + width() + ' ' + height()"
      class="block w-full"
      role="img"
      [attr.aria-label]="label()"
      [attr.tabindex]="pickable() ? 0 : null"
      (click)="tap($event)"
      (keydown)="aim($event)"
    >
      @if (drawn(); as d) {
        <polygon [attr.points]="d.frame" fill="#D8D2C2" stroke="#1C2226" stroke-width="1" />
        <polygon [attr.points]="d.glass" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
        @if (d.film) {
          <polygon [attr.points]="d.film" [attr.fill]="isTrimmed() ? '#FFF1C9' : '#FFE9A8'" fill-opacity="0.75" stroke="#A97C00" stroke-width="1" />
        }
        @for (h of d.holes; track $index) {
          <polygon [attr.points]="h" fill="#FFFEFA" stroke="#1C2226" stroke-width="1" />
        }
        @if (d.stop) {
          <polygon [attr.points]="d.stop" fill="none" stroke="#56626A" stroke-width="1.2" stroke-dasharray="2 4" />
        }
        @for (s of d.strokes; track $index) {
          @if (s.tool === 'finger' && !s.band) {
            <circle [attr.cx]="s.x" [attr.cy]="s.y" r="7" fill="none" stroke="#3E6E8E" stroke-width="2.5" />
          } @else {
            <path [attr.d]="s.band" fill="none" stroke="#3E6E8E" stroke-opacity="0.16" [attr.stroke-width]="bandPx(s)" />
          }
        }
        @for (s of d.strokes; track $index) {
          @if (s.path) {
            <path [attr.d]="s.path" fill="none" stroke="#3E6E8E" [attr.stroke-width]="isBold() ? 9 : 3.5" stroke-linecap="round" stroke-linejoin="round" />
            <polygon [attr.points]="s.end" fill="#1C2226" />
          }
        }
        @if (d.strokes.length > 1 && d.strokes.length <= 40) {
          @for (s of d.strokes; track $index) {
            <circle [attr.cx]="s.x" [attr.cy]="s.y" r="8" fill="#FFFEFA" stroke="#1C2226" stroke-width="1" />
            <text [attr.x]="s.x" [attr.y]="s.y + 3.7" text-anchor="middle" font-size="10.5" font-weight="700" fill="#1C2226">{{ s.number }}</text>
          }
        }
        @for (k of d.knife; track $index) {
          <path [attr.d]="k.path" fill="none" stroke="#1C2226" stroke-width="2.5" stroke-dasharray="7 4" />
          <polygon [attr.points]="k.end" fill="#1C2226" />
        }
        @for (c of d.corners; track $index) {
          <line [attr.x1]="c.x1" [attr.y1]="c.y1" [attr.x2]="c.x2" [attr.y2]="c.y2" stroke="#1C2226" stroke-width="3" />
        }
        @for (l of d.lines; track $index) {
          <line [attr.x1]="l.x1" [attr.y1]="l.y1" [attr.x2]="l.x2" [attr.y2]="l.y2" [attr.stroke]="l.color" stroke-width="2" [attr.stroke-dasharray]="l.dash" />
        }
        @if (d.bead) {
          <polygon [attr.points]="d.bead" fill="none" stroke="#1C2226" stroke-width="7" stroke-opacity="0.55" stroke-linejoin="round" />
        }
        @for (t of d.words; track t.text) {
          <text [attr.x]="t.x" [attr.y]="t.y" [attr.text-anchor]="t.anchor" font-size="14" fill="#1C2226">{{ t.text }}</text>
        }
        @if (mark() ?? aimed(); as m) {
          @let at = d.place(m.xFrac, m.yFrac);
          <circle [attr.cx]="at.x" [attr.cy]="at.y" r="11" fill="none" stroke="#B3261E" stroke-width="3" />
          <circle [attr.cx]="at.x" [attr.cy]="at.y" r="2.5" fill="#B3261E" />
        }
      }
    </svg>
  `,
  host: { class: 'block' },
})
export class LayDrawing {
  readonly outline = input.required<Polygon>();
  readonly holes = input<readonly Polygon[]>([]);
  readonly plan = input<SqueegeePlan | null>(null);
  readonly drawing = input<StepDrawing>('pane');
  readonly edgeGapMm = input(0);
  readonly overhangMm = input(25);
  /** Trimmed from a top corner, or from the middles. */
  readonly trim = input<'corner' | 'centre'>('corner');
  readonly liner = input<'halves' | 'pulled-down'>('halves');
  /** Drawn from the other side. */
  readonly mirrored = input(false);
  readonly mark = input<{ xFrac: number; yFrac: number } | null>(null);
  readonly label = input('The pane');
  /** A place on it can be chosen: by a tap, or with arrows and Enter. */
  readonly pickable = input(false);
  protected readonly aimed = signal<{ xFrac: number; yFrac: number } | null>(null);
  /** Where on the pane it was tapped, as shares of its box from the lower left, as drawn for the face that is worked on. */
  readonly tapped = output<{ xFrac: number; yFrac: number }>();

  private readonly order: readonly StepDrawing[] = ['pane', 'liner', 'template', 'lock', 'light', 'corners', 'trim', 'hard', 'edges', 'anchor'];
  protected readonly isTrimmed = computed(() => this.order.indexOf(this.drawing()) > this.order.indexOf('trim'));
  protected readonly isBold = computed(() => this.drawing() === 'lock');

  protected readonly width = computed(() => this.scale().width);
  protected readonly height = computed(() => this.scale().height);
  private readonly scale = computed(() => {
    const box = boundingBox(this.outline());
    const [w, h] = [box.maxX - box.minX + 2 * FRAME_MM, box.maxY - box.minY + 2 * FRAME_MM];
    const k = Math.min((WIDEST - 2 * MARGIN) / w, (TALLEST - MARGIN - BELOW) / h);
    const height = h * k + MARGIN + BELOW;
    const width = Math.max(NARROWEST, w * k + 2 * MARGIN);
    const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    const flip = this.mirrored() ? -1 : 1;
    const middle = MARGIN + (h * k) / 2;
    return { k, box, width, height, middle, x: (x: number) => width / 2 + flip * (x - cx) * k, y: (y: number) => middle - (y - cy) * k, cx, cy, flip };
  });

  protected bandPx(s: DrawnStroke): number {
    const stroke = this.strokes()[s.number - 1];
    return (stroke?.bladeMm ?? 0) * this.scale().k;
  }

  private readonly strokes = computed<readonly Stroke[]>(() => {
    const pass: Partial<Record<StepDrawing, PassName>> = { lock: 'lock', light: 'light', hard: 'hard', edges: 'edges' };
    const name = pass[this.drawing()];
    return (name && this.plan()?.passes.find((p) => p.name === name)?.strokes) ?? [];
  });

  protected readonly drawn = computed(() => {
    const { x, y, box } = this.scale();
    const points = (ring: Polygon) => ring.map((p) => `${x(p.x).toFixed(1)},${y(p.y).toFixed(1)}`).join(' ');
    const outline = this.outline();
    const kind = this.drawing();
    const filmRing =
      kind === 'none' ? null : this.isTrimmed() ? offsetOutline(outline, -this.edgeGapMm()) : offsetOutline(outline, Math.max(0, this.overhangMm()));
    return {
      frame: points(offsetOutline(outline, FRAME_MM) ?? outline),
      glass: points(outline),
      film: filmRing && points(filmRing),
      holes: this.holes().map(points),
      stop: ['lock', 'light', 'corners'].includes(kind) && this.plan() ? points(this.plan()!.stopLine) : null,
      strokes: this.strokes().map((s, i) => this.drawStroke(s, i + 1)),
      knife: kind === 'trim' ? this.knifePaths() : [],
      corners: kind === 'corners' ? this.cornerCuts() : [],
      lines: this.helpLines(),
      bead: kind === 'anchor' ? points(outline) : null,
      words: this.words(),
      place: (xFrac: number, yFrac: number) => ({ x: x(box.minX + xFrac * (box.maxX - box.minX)), y: y(box.minY + yFrac * (box.maxY - box.minY)) }),
    };
  });

  private drawStroke(s: Stroke, number: number): DrawnStroke {
    const { x, y } = this.scale();
    const px = s.path.map((p) => ({ x: x(p.x), y: y(p.y) }));
    const [first, last] = [px[0]!, px.at(-1)!];
    const d = px.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(' ');
    const before = px.at(-2) ?? first;
    // the number stands on the stroke, so that two that start at one line are told apart
    const on = px.length > 1 ? { x: first.x + (px[1]!.x - first.x) * 0.4, y: first.y + (px[1]!.y - first.y) * 0.4 } : first;
    return {
      path: px.length > 1 ? d : '',
      band: px.length > 1 ? d : '',
      number,
      x: on.x,
      y: on.y,
      tool: s.tool,
      end: px.length > 1 ? arrow(before, last, this.isBold() ? 11 : 8) : '',
    };
  }

  /** The sides of the outline that are trimmed, joined where they bend, in the order of the knife. */
  private knifePaths(): { path: string; end: string }[] {
    const { x, y, box } = this.scale();
    const c = (fx: number, fy: number) => ({ x: x(box.minX + fx * (box.maxX - box.minX)), y: y(box.minY + fy * (box.maxY - box.minY)) });
    const left = this.mirrored() ? 1 : 0;
    const ways: [number, number][][] =
      this.trim() === 'corner'
        ? [[[left, 1], [left, 0]], [[left, 1], [1 - left, 1]], [[1 - left, 1], [1 - left, 0]], [[left, 0], [1 - left, 0]]] // prettier-ignore
        : [[[0.5, 1], [0, 1]], [[0.5, 1], [1, 1]], [[0, 0.5], [0, 0]], [[0, 0.5], [0, 1]], [[1, 0.5], [1, 0]], [[1, 0.5], [1, 1]], [[0.5, 0], [0, 0]], [[0.5, 0], [1, 0]]]; // prettier-ignore
    return ways.map((w) => {
      const [a, b] = w.map(([fx, fy]) => c(fx, fy));
      return { path: `M${a!.x.toFixed(1)} ${a!.y.toFixed(1)} L${b!.x.toFixed(1)} ${b!.y.toFixed(1)}`, end: arrow(a!, b!, 9) };
    });
  }

  private cornerCuts(): { x1: number; y1: number; x2: number; y2: number }[] {
    const { x, y, cx, cy } = this.scale();
    return (this.plan()?.corners ?? []).map(({ at }) => {
      const d = Math.hypot(at.x - cx, at.y - cy) || 1;
      const [ux, uy] = [(at.x - cx) / d, (at.y - cy) / d];
      return { x1: x(at.x + ux * 5), y1: y(at.y + uy * 5), x2: x(at.x + ux * 75), y2: y(at.y + uy * 75) };
    });
  }

  private helpLines(): { x1: number; y1: number; x2: number; y2: number; color: string; dash: string | null }[] {
    const { x, y, box } = this.scale();
    const line = (fx1: number, fy1: number, fx2: number, fy2: number, color: string, dash: string | null) => ({
      x1: x(box.minX + fx1 * (box.maxX - box.minX)), y1: y(box.minY + fy1 * (box.maxY - box.minY)), x2: x(box.minX + fx2 * (box.maxX - box.minX)), y2: y(box.minY + fy2 * (box.maxY - box.minY)), color, dash,
    }); // prettier-ignore
    if (this.drawing() === 'liner')
      return this.liner() === 'halves' ? [line(-0.04, 0.5, 1.04, 0.5, '#3E6E8E', '8 5')] : [line(0, 0.72, 1, 0.6, '#3E6E8E', '8 5')];
    if (this.drawing() === 'template') return [line(0, 0.66, 1, 0.66, '#1C2226', '3 4'), line(-0.05, 0.93, 0.1, 1.06, '#F4B400', null), line(1.05, 0.93, 0.9, 1.06, '#F4B400', null)]; // prettier-ignore
    return [];
  }

  private words(): { text: string; x: number; y: number; anchor: string }[] {
    const { y, box } = this.scale();
    const kind = this.drawing();
    const out: { text: string; x: number; y: number; anchor: string }[] = [];
    if (kind === 'pane') out.push({ text: '▲ top', x: this.width() / 2, y: y(box.maxY) + 20, anchor: 'middle' });
    if (kind === 'liner') out.push({ text: this.liner() === 'halves' ? 'half, then half' : 'from the top down', x: this.width() / 2, y: this.height() - 6, anchor: 'middle' }); // prettier-ignore
    if (kind === 'trim') out.push({ text: this.trim() === 'corner' ? 'from a top corner' : 'from the middles', x: this.width() / 2, y: this.height() - 6, anchor: 'middle' }); // prettier-ignore
    if (['lock', 'light', 'corners'].includes(kind)) out.push({ text: 'dotted: stop here', x: this.width() / 2, y: this.height() - 6, anchor: 'middle' });
    return out;
  }

  protected aim(event: KeyboardEvent): void {
    if (!this.pickable()) return;
    const aimed = aimBy(event, this.aimed() ?? { xFrac: 0.5, yFrac: 0.5 }, 0.1, this.mirrored() ? -1 : 1);
    if (aimed?.isTaken) this.tapped.emit(aimed.place);
    else if (aimed) this.aimed.set(aimed.place);
  }

  protected tap(event: MouseEvent): void {
    const { k, box, cx, cy, flip, middle, width, height } = this.scale();
    const { x, y } = tapOn(event, { width, height });
    const share = (v: number, low: number, high: number) => onDrawing((v - low) / (high - low));
    this.tapped.emit({ xFrac: share((flip * (x - width / 2)) / k + cx, box.minX, box.maxX), yFrac: share((middle - y) / k + cy, box.minY, box.maxY) });
  }
}

function arrow(from: { x: number; y: number }, to: { x: number; y: number }, size: number): string {
  const d = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [ux, uy] = [(to.x - from.x) / d, (to.y - from.y) / d];
  const back = { x: to.x - ux * size * 1.5, y: to.y - uy * size * 1.5 };
  const p = (a: { x: number; y: number }) => `${a.x.toFixed(1)},${a.y.toFixed(1)}`;
  return `${p(to)} ${p({ x: back.x - uy * size * 0.75, y: back.y + ux * size * 0.75 })} ${p({ x: back.x + uy * size * 0.75, y: back.y - ux * size * 0.75 })}`;
}
