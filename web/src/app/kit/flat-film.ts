import { afterRenderEffect, ChangeDetectionStrategy, Component, computed, type ElementRef, input, output, signal, viewChild } from '@angular/core';
import type { MeshStation, PlannedFinger } from '@yellow-pane/contracts';
import { hostSize } from './host-size';
import { shrinkColor } from './shrink-colors';

/** A place of the film that is pointed at, and what has to go there. */
export interface FilmPlace {
  readonly alongMm: number;
  readonly fromLineMm: number;
  readonly lossFrac: number;
}

const PAD = { left: 12, right: 12, top: 26, bottom: 26 };

/**
 * The film as it lies flat before it is shrunk, in the colours of the map: along the roll to the right, its line level, fingers as wedges. A pointer or the
 * arrow keys ask what has to go at a place.
 */
@Component({
  selector: 'yp-flat-film',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas #canvas class="absolute inset-0 h-full w-full" aria-hidden="true"></canvas>
    <svg
      class="absolute inset-0 h-full w-full"
      role="img"
      tabindex="0"
      [attr.aria-label]="label()"
      (pointermove)="point($event)"
      (pointerleave)="place.set(null); pointed.emit(null)"
      (keydown)="walk($event)"
    >
      <polygon [attr.points]="ring()" fill="none" stroke="#1C2226" stroke-width="1.5" />
      <line [attr.x1]="view().x0" [attr.x2]="view().x1" [attr.y1]="view().yOf(0)" [attr.y2]="view().yOf(0)" stroke="#1C2226" stroke-width="3" />
      @for (z of zones(); track $index) {
        <polygon [attr.points]="z" fill="#E6EEF2" fill-opacity="0.8" stroke="#3E6E8E" stroke-width="1.5" stroke-dasharray="4 3" />
      }
      @for (f of wedges(); track f.id) {
        <polygon [attr.points]="f.points" fill="#FFFEFA" fill-opacity="0.35" stroke="#C2501C" stroke-width="1.5" />
        <circle [attr.cx]="f.x" [attr.cy]="f.y" r="9" fill="#FFFEFA" stroke="#1C2226" />
        <text [attr.x]="f.x" [attr.y]="f.y + 4" text-anchor="middle" font-size="11" font-weight="700">{{ f.number }}</text>
      }
      @if (mark(); as m) {
        <circle [attr.cx]="m.x" [attr.cy]="m.y" r="6" fill="none" stroke="#1C2226" stroke-width="2" />
      }
    </svg>
  `,
  host: { class: 'relative block h-full w-full' },
})
export class FlatFilm {
  readonly mesh = input.required<readonly MeshStation[]>();
  readonly outline = input.required<readonly { x: number; y: number }[]>();
  readonly fingers = input<readonly PlannedFinger[]>([]);
  readonly numbers = input<ReadonlyMap<string, number>>(new Map());
  /** Rings that heat keeps out of. */
  readonly kept = input<readonly (readonly { x: number; y: number }[])[]>([]);
  readonly fullFrac = input.required<number>();
  readonly label = input('The flat film');
  readonly pointed = output<FilmPlace | null>();
  protected readonly place = signal<FilmPlace | null>(null);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly size = hostSize({ w: 340, h: 240 });

  constructor() {
    afterRenderEffect(() => this.paint());
  }

  /** From the film (mm along, mm across) to the drawing. */
  protected readonly view = computed(() => {
    const { w, h } = this.size();
    const ring = this.outline();
    // while a line is dragged there is no outline yet: the threads reach as far
    const ends = this.mesh().flatMap((s) => [s.up.at(-1)?.[3] ?? 0, -(s.down.at(-1)?.[3] ?? 0)]);
    const xs = ring.length ? ring.map((p) => p.x) : this.mesh().length ? this.mesh().map((s) => s.alongMm) : [-500, 500];
    const ys = ring.length ? ring.map((p) => p.y) : ends.length ? ends : [-300, 300];
    const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const k = Math.max(0.01, Math.min((w - PAD.left - PAD.right) / (maxX - minX), (h - PAD.top - PAD.bottom) / (maxY - minY)));
    const [cx, cy] = [(minX + maxX) / 2, (minY + maxY) / 2];
    const xOf = (x: number) => w / 2 + (x - cx) * k;
    const yOf = (y: number) => h / 2 - (y - cy) * k;
    return {
      w,
      h,
      k,
      xOf,
      yOf,
      x0: xOf(minX) - 6,
      x1: xOf(maxX) + 6,
      back: (px: number, py: number) => ({ x: (px - w / 2) / k + cx, y: (h / 2 - py) / k + cy }),
    };
  });
  private readonly drawnRing = computed(() => {
    const { xOf, yOf } = this.view();
    return (ring: readonly { x: number; y: number }[]) => ring.map((p) => `${xOf(p.x).toFixed(1)},${yOf(p.y).toFixed(1)}`).join(' ');
  });
  protected readonly ring = computed(() => this.drawnRing()(this.outline()));
  protected readonly zones = computed(() => this.kept().map(this.drawnRing()));
  protected readonly wedges = computed(() => {
    const { xOf, yOf, k } = this.view();
    const lengths = this.edgeAt();
    return this.fingers().map((f) => {
      const sign = f.side === 'above' ? 1 : -1;
      const edge = sign * lengths(f.side, f.alongMm);
      const root = edge - sign * f.lengthMm;
      const [x, y] = [xOf(f.alongMm), yOf(edge)];
      const half = (f.baseMm * k) / 2;
      return {
        id: `${f.side}${f.number}`,
        number: this.numbers().get(`${f.side}${f.number}`) ?? f.number,
        points: `${(x - half).toFixed(1)},${y.toFixed(1)} ${(x + half).toFixed(1)},${y.toFixed(1)} ${x.toFixed(1)},${yOf(root).toFixed(1)}`,
        x,
        y: y - sign * 13,
      };
    });
  });
  /** How far the edge lies from the line, by the nearest thread. */
  private readonly edgeAt = computed(() => {
    const mesh = this.mesh();
    return (side: 'above' | 'below', alongMm: number): number => {
      let [best, s] = [Infinity, 0];
      for (const st of mesh) {
        const thread = side === 'above' ? st.up : st.down;
        const d = Math.abs(st.alongMm - alongMm);
        if (thread.length && d < best) [best, s] = [d, thread.at(-1)![3]];
      }
      return s;
    };
  });
  protected readonly mark = computed(() => {
    const p = this.place();
    return p && { x: this.view().xOf(p.alongMm), y: this.view().yOf(p.fromLineMm) };
  });

  private paint(): void {
    const canvas = this.canvas().nativeElement;
    const g = canvas.getContext('2d');
    const { w, h, xOf, yOf } = this.view();
    if (!g) return;
    const ratio = Math.min(2, devicePixelRatio || 1);
    canvas.width = w * ratio;
    canvas.height = h * ratio;
    g.scale(ratio, ratio);
    const full = this.fullFrac();
    const mesh = this.mesh();
    const quad = (a: MeshStation, b: MeshStation, side: 'up' | 'down') => {
      const [p, q] = [a[side], b[side]];
      const sign = side === 'up' ? 1 : -1;
      for (let k = 1; k < Math.max(p.length, q.length); k++) {
        const [p0, p1, q0, q1] = [
          p[Math.min(k - 1, p.length - 1)],
          p[Math.min(k, p.length - 1)],
          q[Math.min(k - 1, q.length - 1)],
          q[Math.min(k, q.length - 1)],
        ];
        if (!p0 || !p1 || !q0 || !q1) continue;
        g.fillStyle = g.strokeStyle = shrinkColor((p0[4] + p1[4] + q0[4] + q1[4]) / 4 / full);
        g.beginPath();
        g.moveTo(xOf(a.alongMm), yOf(sign * p0[3]));
        g.lineTo(xOf(a.alongMm), yOf(sign * p1[3]));
        g.lineTo(xOf(b.alongMm), yOf(sign * q1[3]));
        g.lineTo(xOf(b.alongMm), yOf(sign * q0[3]));
        g.closePath();
        g.fill();
        g.stroke();
      }
    };
    for (let i = 1; i < mesh.length; i++) {
      quad(mesh[i - 1]!, mesh[i]!, 'up');
      quad(mesh[i - 1]!, mesh[i]!, 'down');
    }
  }

  private lookUp(alongMm: number, fromLineMm: number): FilmPlace | null {
    let best: FilmPlace | null = null;
    let far = 40;
    for (const s of this.mesh())
      for (const [thread, sign] of [
        [s.up, 1],
        [s.down, -1],
      ] as const)
        for (const p of thread) {
          const d = Math.hypot(s.alongMm - alongMm, sign * p[3] - fromLineMm);
          if (d < far) [far, best] = [d, { alongMm: s.alongMm, fromLineMm: sign * p[3], lossFrac: p[4] }];
        }
    return best;
  }
  protected point(event: PointerEvent): void {
    const box = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
    const at = this.view().back(event.clientX - box.left, event.clientY - box.top);
    this.show(this.lookUp(at.x, at.y));
  }
  protected walk(event: KeyboardEvent): void {
    const step = { ArrowLeft: [-30, 0], ArrowRight: [30, 0], ArrowUp: [0, 30], ArrowDown: [0, -30] }[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const from = this.place() ?? { alongMm: 0, fromLineMm: 0 };
    this.show(this.lookUp(from.alongMm + step[0]!, from.fromLineMm + step[1]!) ?? this.place());
  }
  private show(p: FilmPlace | null): void {
    this.place.set(p);
    this.pointed.emit(p);
  }
}
