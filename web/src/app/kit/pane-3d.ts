import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  inject,
  input,
  NgZone,
  output,
  signal,
  viewChild,
} from '@angular/core';
import type { MeshStation, PlannedFinger } from '@yellow-pane/contracts';
import type { BufferGeometry, Mesh, Object3D, PerspectiveCamera, Raycaster, Scene, WebGLRenderer } from 'three';
import type * as three from 'three';
import { shrinkRgb } from './shrink-colors';

type Three = typeof three;

/** What is pointed at on the glass. */
export interface PointedAt {
  readonly xMm: number;
  readonly yMm: number;
  readonly lossFrac: number;
}

/** A pointer so near to the line takes hold of it, px. */
const GRAB_PX = 16;
const MOST_TURN = 1.25;

/**
 * The pane in space in the colours of its shrink map, with its line and its fingers. Drag turns it, the line can be taken hold of; arrow keys turn it, + and − bring
 * it nearer. Without a drawing surface nothing is lost: the flat film and the table say the same.
 */
@Component({
  selector: 'yp-pane-3d',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <canvas
      #canvas
      class="block h-full w-full touch-none"
      [class.cursor-ns-resize]="holds()"
      role="img"
      tabindex="0"
      [attr.aria-label]="label()"
      (pointerdown)="take($event)"
      (pointermove)="move($event)"
      (pointerup)="letGo($event)"
      (pointercancel)="letGo($event)"
      (pointerleave)="pointed.emit(null)"
      (wheel)="nearer($event)"
      (keydown)="turnByKey($event)"
    ></canvas>
    @if (failed()) {
      <p class="absolute inset-0 m-auto h-fit max-w-60 text-center text-sm text-soft">
        This browser draws nothing in space. The flat film beside it shows the same map.
      </p>
    }
  `,
  host: { class: 'relative block h-full w-full' },
})
export class Pane3d {
  readonly mesh = input.required<readonly MeshStation[]>();
  readonly line = input.required<readonly { x: number; y: number }[]>();
  readonly fingers = input<readonly PlannedFinger[]>([]);
  /** Rings on the glass that heat keeps out of. */
  readonly kept = input<readonly (readonly (readonly [number, number, number])[])[]>([]);
  readonly numbers = input<ReadonlyMap<string, number>>(new Map());
  /** Share to lose that fills the colour scale. */
  readonly fullFrac = input.required<number>();
  readonly label = input('The pane in space');
  /** Height by which the line is dragged from where it was taken hold of, mm; `isDone` when it is let go. */
  readonly dragged = output<{ byMm: number; isDone: boolean }>();
  readonly pointed = output<PointedAt | null>();

  protected readonly failed = signal(false);
  protected readonly holds = signal(false);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly zone = inject(NgZone);
  private three: Three | null = null;
  private renderer: WebGLRenderer | null = null;
  private scene: Scene | null = null;
  private camera: PerspectiveCamera | null = null;
  private ray: Raycaster | null = null;
  private glass: Mesh<BufferGeometry> | null = null;
  private turn = { x: -0.3, y: 0.42 };
  private zoom = 1;
  private centre = { x: 0, y: 0, z: 0, w: 1000, h: 500, size: 1000 };
  private held: { kind: 'turn' | 'line'; x: number; y: number; v: number } | null = null;
  private isGone = false;
  private lineOnScreen: { x: number; y: number }[] = [];

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.isGone = true;
      this.drop();
      this.renderer?.dispose();
    });
    afterRenderEffect(() => {
      const parts = [this.mesh(), this.line(), this.fingers(), this.numbers(), this.fullFrac(), this.kept()] as const;
      void this.zone.runOutsideAngular(() => this.build(...parts));
    });
  }

  private drop(): void {
    this.scene?.traverse((o: Object3D) => {
      const m = o as Partial<Mesh>;
      m.geometry?.dispose();
    });
    this.scene?.clear();
  }

  private async build(
    mesh: readonly MeshStation[],
    line: readonly { x: number; y: number }[],
    fingers: readonly PlannedFinger[],
    numbers: ReadonlyMap<string, number>,
    full: number,
    kept: readonly (readonly (readonly [number, number, number])[])[],
  ): Promise<void> {
    this.three ??= await import('three');
    const T = this.three;
    const canvas = this.canvas().nativeElement;
    if (this.isGone) return;
    if (!this.renderer) {
      try {
        this.renderer = new T.WebGLRenderer({ canvas, antialias: true, alpha: true, preserveDrawingBuffer: true });
      } catch {
        this.failed.set(true);
        return;
      }
      this.scene = new T.Scene();
      this.camera = new T.PerspectiveCamera(28, 1, 10, 20_000);
      this.ray = new T.Raycaster();
      const watch = new ResizeObserver(() => this.draw());
      watch.observe(canvas);
    }
    this.drop();
    const scene = this.scene!;
    const { geometry, box } = this.glassOf(T, mesh, full);
    this.centre = box;
    this.glass = new T.Mesh(geometry, new T.MeshBasicMaterial({ vertexColors: true, side: T.DoubleSide }));
    scene.add(this.glass);
    scene.add(new T.LineSegments(this.threadsOf(T, mesh), new T.LineBasicMaterial({ color: 0x1c2226, transparent: true, opacity: 0.16 })));
    const onGlass = this.heightOf(mesh);
    scene.add(this.tube(T, line.map((p) => [p.x, p.y, onGlass(p.x, p.y) + 4] as const), 4.5, 0x1c2226)); // prettier-ignore
    for (const f of fingers) {
      const [a, b] = [f.foot, f.root].map((p) => [p.x, p.y, onGlass(p.x, p.y) + 5] as const);
      scene.add(this.tube(T, [a!, b!], 3.2, 0xc2501c));
      const label = this.number(T, String(numbers.get(`${f.side}${f.number}`) ?? ''));
      label.position.set(a![0], a![1] + (f.side === 'above' ? 30 : -30), a![2] + 8);
      scene.add(label);
    }
    for (const ring of kept) if (ring.length > 2) scene.add(this.ring(T, ring));
    scene.add(this.rim(T, mesh));
    this.draw();
  }

  /** Strips of triangles between neighbouring threads, coloured by what the film loses. */
  private glassOf(T: Three, mesh: readonly MeshStation[], full: number): { geometry: BufferGeometry; box: Pane3d['centre'] } {
    const position: number[] = [];
    const color: number[] = [];
    const index: number[] = [];
    let [lowX, highX, lowY, highY, lowZ, highZ] = [Infinity, -Infinity, Infinity, -Infinity, Infinity, -Infinity];
    const rows = mesh.flatMap((s) => [s.up, s.down]).map((thread) =>
      thread.map(([x, y, z, , loss]) => {
        position.push(x, y, z);
        const c = new T.Color().setRGB(...(shrinkRgb(loss / full).map((v) => v / 255) as [number, number, number]), T.SRGBColorSpace);
        color.push(c.r, c.g, c.b);
        [lowX, highX, lowY, highY] = [Math.min(lowX, x), Math.max(highX, x), Math.min(lowY, y), Math.max(highY, y)];
        [lowZ, highZ] = [Math.min(lowZ, z), Math.max(highZ, z)];
        return position.length / 3 - 1;
      }),
    ); // prettier-ignore
    for (let i = 2; i < rows.length; i++) {
      const [a, b] = [rows[i - 2]!, rows[i]!];
      const n = Math.max(a.length, b.length);
      if (a.length === 0 || b.length === 0) continue;
      const at = (r: readonly number[], k: number) => r[Math.min(k, r.length - 1)]!;
      for (let k = 1; k < n; k++) index.push(at(a, k - 1), at(b, k - 1), at(a, k), at(b, k - 1), at(b, k), at(a, k));
    }
    const geometry = new T.BufferGeometry();
    geometry.setAttribute('position', new T.Float32BufferAttribute(position, 3));
    geometry.setAttribute('color', new T.Float32BufferAttribute(color, 3));
    geometry.setIndex(index);
    return {
      geometry,
      box: {
        x: (lowX + highX) / 2,
        y: (lowY + highY) / 2,
        z: (lowZ + highZ) / 2,
        w: highX - lowX,
        h: highY - lowY,
        size: Math.max(highX - lowX, highY - lowY),
      },
    };
  }

  private threadsOf(T: Three, mesh: readonly MeshStation[]): BufferGeometry {
    const points: number[] = [];
    mesh.forEach((s, i) => {
      if (i % 4) return;
      for (const thread of [s.up, s.down])
        for (let k = 1; k < thread.length; k++)
          points.push(...thread[k - 1]!.slice(0, 2), thread[k - 1]![2] + 1.5, ...thread[k]!.slice(0, 2), thread[k]![2] + 1.5);
    });
    const g = new T.BufferGeometry();
    g.setAttribute('position', new T.Float32BufferAttribute(points, 3));
    return g;
  }

  /** The edge of the glass: the ends of the threads, upper then lower. */
  private rim(T: Three, mesh: readonly MeshStation[]): Object3D {
    const ends = (side: 'up' | 'down') => mesh.flatMap((s) => (s[side].length ? [s[side].at(-1)!] : []));
    const ring = [...ends('up'), ...ends('down').reverse()].map(([x, y, z]) => [x, y, z + 2] as const);
    return ring.length > 2 ? this.tube(T, [...ring, ring[0]!], 2.2, 0x56626a) : new T.Group();
  }

  /** A zone on the glass: a dashed line round it. */
  private ring(T: Three, ring: readonly (readonly [number, number, number])[]): Object3D {
    const group = new T.Group();
    const closed = [...ring, ring[0]!].map(([x, y, z]) => [x, y, z + 5] as const);
    for (let i = 1; i < closed.length; i++) {
      const [a, b] = [closed[i - 1]!, closed[i]!];
      const part = (t: number) => [0, 1, 2].map((k) => a[k as 0] + t * (b[k as 0] - a[k as 0])) as [number, number, number];
      group.add(this.tube(T, [part(0.15), part(0.75)], 2.6, 0x3e6e8e));
    }
    return group;
  }

  private heightOf(mesh: readonly MeshStation[]): (x: number, y: number) => number {
    const all = mesh.flatMap((s) => [...s.up, ...s.down]);
    return (x, y) => {
      let [best, z] = [Infinity, 0];
      for (const p of all) {
        const d = (p[0] - x) ** 2 + (p[1] - y) ** 2;
        if (d < best) [best, z] = [d, p[2]];
      }
      return z;
    };
  }

  private tube(T: Three, points: readonly (readonly [number, number, number])[], radius: number, color: number): Object3D {
    if (points.length < 2) return new T.Group();
    const curve = new T.CatmullRomCurve3(points.map((p) => new T.Vector3(...p)));
    return new T.Mesh(new T.TubeGeometry(curve, Math.min(200, points.length * 4), radius, 6), new T.MeshBasicMaterial({ color }));
  }

  /** A number on a round label that always faces whoever looks. */
  private number(T: Three, text: string): Object3D {
    const c = document.createElement('canvas');
    c.width = c.height = 64;
    const g = c.getContext('2d');
    if (!g) return new T.Group();
    g.fillStyle = '#fffefa';
    g.strokeStyle = '#1c2226';
    g.lineWidth = 4;
    g.beginPath();
    g.arc(32, 32, 27, 0, 7);
    g.fill();
    g.stroke();
    g.fillStyle = '#1c2226';
    g.font = '700 34px "Atkinson Hyperlegible Next Variable", sans-serif';
    g.textAlign = 'center';
    g.textBaseline = 'middle';
    g.fillText(text, 32, 34);
    const map = new T.CanvasTexture(c);
    map.colorSpace = T.SRGBColorSpace;
    const sprite = new T.Sprite(new T.SpriteMaterial({ map, depthTest: false }));
    sprite.scale.setScalar(0.13 * this.centre.h);
    return sprite;
  }

  private draw(): void {
    const [r, camera, scene, T] = [this.renderer, this.camera, this.scene, this.three];
    if (!r || !camera || !scene || !T) return;
    const canvas = this.canvas().nativeElement;
    const [w, h] = [canvas.clientWidth, canvas.clientHeight];
    if (w === 0 || h === 0) return;
    r.setPixelRatio(Math.min(2, devicePixelRatio));
    r.setSize(w, h, false);
    camera.aspect = w / h;
    const { x, y, z, w: wide, h: high } = this.centre;
    // both ways in the frame, with room for the numbers round it
    const half = Math.tan((camera.fov * Math.PI) / 360);
    const far = (Math.max((0.66 * high) / half, (0.56 * wide) / half / camera.aspect) * 1.08) / this.zoom;
    const [tx, ty] = [this.turn.x, this.turn.y];
    camera.position.set(x + far * Math.sin(ty) * Math.cos(tx), y - far * Math.sin(tx), z + far * Math.cos(ty) * Math.cos(tx));
    camera.lookAt(x, y, z);
    camera.updateProjectionMatrix();
    r.render(scene, camera);
    const onGlass = this.heightOf(this.mesh());
    this.lineOnScreen = this.line().map((p) => {
      const v = new T.Vector3(p.x, p.y, onGlass(p.x, p.y)).project(camera);
      return { x: ((v.x + 1) / 2) * w, y: ((1 - v.y) / 2) * h };
    });
  }

  private at(event: PointerEvent): { x: number; y: number } {
    const box = this.canvas().nativeElement.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }
  private isOnLine(p: { x: number; y: number }): boolean {
    const l = this.lineOnScreen;
    for (let i = 1; i < l.length; i++) {
      const [a, b] = [l[i - 1]!, l[i]!];
      const d = Math.hypot(b.x - a.x, b.y - a.y) || 1;
      const t = Math.min(1, Math.max(0, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / d ** 2));
      if (Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y)) < GRAB_PX) return true;
    }
    return false;
  }
  /** The place of the glass under a place of the screen. */
  private under(p: { x: number; y: number }): PointedAt | null {
    const [T, camera, ray, glass] = [this.three, this.camera, this.ray, this.glass];
    const canvas = this.canvas().nativeElement;
    if (!T || !camera || !ray || !glass) return null;
    ray.setFromCamera(new T.Vector2((2 * p.x) / canvas.clientWidth - 1, 1 - (2 * p.y) / canvas.clientHeight), camera);
    const [hit] = ray.intersectObject(glass);
    if (!hit) return null;
    let [best, loss] = [Infinity, 0];
    for (const s of this.mesh())
      for (const t of [s.up, s.down])
        for (const q of t) {
          const d = (q[0] - hit.point.x) ** 2 + (q[1] - hit.point.y) ** 2;
          if (d < best) [best, loss] = [d, q[4]];
        }
    return { xMm: hit.point.x, yMm: hit.point.y, lossFrac: loss };
  }

  protected take(event: PointerEvent): void {
    const p = this.at(event);
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    const isLine = this.isOnLine(p);
    this.held = { kind: isLine ? 'line' : 'turn', ...p, v: this.under(p)?.yMm ?? 0 };
  }
  protected move(event: PointerEvent): void {
    const p = this.at(event);
    const held = this.held;
    if (!held) {
      this.holds.set(this.isOnLine(p));
      this.pointed.emit(this.under(p));
      return;
    }
    if (held.kind === 'turn') {
      this.turn.y = Math.max(-MOST_TURN, Math.min(MOST_TURN, this.turn.y - (p.x - held.x) / 160));
      this.turn.x = Math.max(-MOST_TURN, Math.min(MOST_TURN, this.turn.x - (p.y - held.y) / 160));
      this.held = { ...held, ...p };
      this.draw();
      return;
    }
    const v = this.under(p)?.yMm;
    if (v !== undefined) this.dragged.emit({ byMm: v - held.v, isDone: false });
  }
  protected letGo(event: PointerEvent): void {
    const held = this.held;
    this.held = null;
    if (held?.kind !== 'line') return;
    const v = this.under(this.at(event))?.yMm;
    this.dragged.emit({ byMm: v === undefined ? 0 : v - held.v, isDone: true });
  }
  protected nearer(event: WheelEvent): void {
    event.preventDefault();
    this.zoom = Math.max(0.5, Math.min(4, this.zoom * Math.exp(-event.deltaY / 600)));
    this.draw();
  }
  protected turnByKey(event: KeyboardEvent): void {
    const step = { ArrowLeft: [0, -0.12], ArrowRight: [0, 0.12], ArrowUp: [-0.12, 0], ArrowDown: [0.12, 0] }[event.key];
    if (step)
      [this.turn.x, this.turn.y] = [this.turn.x + step[0]!, this.turn.y + step[1]!].map((v) => Math.max(-MOST_TURN, Math.min(MOST_TURN, v))) as [number, number]; // prettier-ignore
    else if (event.key === '+' || event.key === '-') this.zoom = Math.max(0.5, Math.min(4, this.zoom * (event.key === '+' ? 1.15 : 1 / 1.15)));
    else return;
    event.preventDefault();
    event.stopPropagation();
    this.draw();
  }
}
