import { ChangeDetectionStrategy, Component, type ElementRef, effect, inject, input, output, signal, viewChild } from '@angular/core';
import type { PaneCloud } from '@yellow-pane/contracts';
import type { CloudUnit } from '@yellow-pane/core/form';
import { ShrinkSearch } from '../../../compute/shrink-search';
import type { CloudPreview } from '../../../compute/shrink.worker';

const SIZE = { w: 280, h: 210 };
const asks = ['the lower left corner', 'the lower right corner', 'somewhere at the top'] as const;

/** A point cloud of a pane brought in: placed by itself, or by three clicks on its points. */
@Component({
  selector: 'yp-cloud-placer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="min-h-8 cursor-pointer py-1 underline decoration-field"
      >{{ cloud() ? 'Another point cloud' : 'Point cloud (PLY, XYZ)' }}
      <input #file type="file" accept=".ply,.xyz,.txt,.asc,.csv" class="sr-only" (change)="read(file)"
    /></label>
    @if (cloud(); as c) {
      <p class="text-sm" data-cloud>
        {{ c.fileName }}: {{ c.pointCount }} points, {{ c.strayCount }} strays left out, noise {{ c.noiseMm.toFixed(2) }} mm.
        <button type="button" class="underline" (click)="placed.emit(null)">Take it off</button>
      </p>
    }
    @if (busy()) {
      <p class="text-sm text-soft" aria-busy="true">Reading the points …</p>
    }
    @if (message()) {
      <p role="alert" class="my-1 border-l-4 border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
    @if (preview()) {
      <div class="my-1 border border-hair bg-card p-2 text-sm">
        <div class="flex flex-wrap items-center gap-2">
          <label class="flex items-center gap-1"
            >written in<select #unitBox class="field w-24!" (change)="setUnit(unitBox.value)">
              <option value="">as guessed</option>
              <option value="mm">mm</option>
              <option value="m">m</option>
              <option value="in">inches</option>
            </select></label
          >
          <button type="button" class="btn" [class.btn-hand]="clicks().length > 0 || isPointing()" (click)="startPointing()">
            {{ isPointing() ? 'Point at ' + ask() : 'Place it by three clicks' }}
          </button>
        </div>
        <canvas
          #canvas
          [attr.width]="size.w"
          [attr.height]="size.h"
          class="mt-1 block max-w-full border border-hair"
          [class.cursor-crosshair]="isPointing()"
          role="img"
          aria-label="The points, seen from the front"
          (click)="point($event)"
        ></canvas>
      </div>
    }
  `,
  host: { class: 'block' },
})
export class CloudPlacer {
  readonly cloud = input.required<PaneCloud | null>();
  readonly placed = output<PaneCloud | null>();
  private readonly search = inject(ShrinkSearch);
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('canvas');
  protected readonly size = SIZE;
  protected readonly busy = signal(false);
  protected readonly message = signal('');
  protected readonly preview = signal<CloudPreview | null>(null);
  protected readonly isPointing = signal(false);
  protected readonly clicks = signal<readonly number[][]>([]);
  private unit: CloudUnit | null = null;
  private file: { name: string; bytes: Uint8Array } | null = null;

  constructor() {
    effect(() => this.paint(this.preview(), this.clicks(), this.canvas()?.nativeElement ?? null));
  }

  protected ask = (): string => asks[Math.min(2, this.clicks().length)]!;
  protected async read(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    this.file = { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) };
    this.clicks.set([]);
    this.isPointing.set(false);
    this.preview.set(null);
    this.busy.set(true);
    const seen = await this.search.preview(this.file.bytes);
    if (seen.ok) this.preview.set(seen.value);
    else this.message.set(seen.message);
    if (seen.ok) await this.place();
    this.busy.set(false);
  }
  protected setUnit(unit: string): void {
    this.unit = (unit || null) as CloudUnit | null;
    void this.place();
  }
  protected startPointing(): void {
    this.clicks.set([]);
    this.isPointing.set(true);
  }
  private async place(): Promise<void> {
    const file = this.file;
    if (!file) return;
    const c = this.clicks();
    const made = await this.search.cloud(file.bytes, file.name, this.unit, c.length === 3 ? (c as [number[], number[], number[]]) : null);
    this.message.set(made.ok ? '' : made.message);
    if (made.ok) this.placed.emit(made.value);
  }

  private view(p: CloudPreview) {
    const range = (v: Float32Array) => {
      const s = v.slice().sort();
      return [s[Math.floor(0.003 * s.length)]!, s[Math.ceil(0.997 * s.length) - 1]!] as const;
    };
    const [x, y] = [range(p.x), range(p.y)];
    const k = Math.min((SIZE.w - 24) / (x[1] - x[0]), (SIZE.h - 24) / (y[1] - y[0]));
    const [cx, cy] = [(x[0] + x[1]) / 2, (y[0] + y[1]) / 2];
    return { px: (v: number) => SIZE.w / 2 + (v - cx) * k, py: (v: number) => SIZE.h / 2 - (v - cy) * k };
  }
  private paint(p: CloudPreview | null, clicks: readonly number[][], canvas: HTMLCanvasElement | null): void {
    const g = canvas?.getContext('2d');
    if (!p || !g) return;
    const { px, py } = this.view(p);
    g.clearRect(0, 0, SIZE.w, SIZE.h);
    g.fillStyle = '#56626a';
    for (let i = 0; i < p.x.length; i++) g.fillRect(px(p.x[i]!), py(p.y[i]!), 1.3, 1.3);
    g.strokeStyle = '#1c2226';
    g.lineWidth = 2;
    for (const c of clicks) {
      const i = this.indexOf(p, c);
      g.beginPath();
      g.arc(px(p.x[i]!), py(p.y[i]!), 6, 0, 7);
      g.stroke();
    }
  }
  private indexOf(p: CloudPreview, at: readonly number[]): number {
    for (let i = 0; i < p.x.length; i++) if (p.file[3 * i] === at[0] && p.file[3 * i + 1] === at[1] && p.file[3 * i + 2] === at[2]) return i;
    return 0;
  }
  protected point(event: MouseEvent): void {
    const p = this.preview();
    if (!p || !this.isPointing()) return;
    const box = (event.currentTarget as HTMLCanvasElement).getBoundingClientRect();
    const [ex, ey] = [((event.clientX - box.left) / box.width) * SIZE.w, ((event.clientY - box.top) / box.height) * SIZE.h];
    const { px, py } = this.view(p);
    let [best, far] = [-1, 14];
    for (let i = 0; i < p.x.length; i++) {
      const d = Math.hypot(px(p.x[i]!) - ex, py(p.y[i]!) - ey);
      if (d < far) [best, far] = [i, d];
    }
    if (best < 0) return;
    this.clicks.update((list) => [...list, Array.from(p.file.slice(3 * best, 3 * best + 3))]);
    if (this.clicks().length < 3) return;
    this.isPointing.set(false);
    void this.place();
  }
}
