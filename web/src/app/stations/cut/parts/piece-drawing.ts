import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Allowances, PathPoint, Piece, Pane } from '@yellow-pane/contracts';
import { flatten, type Survey } from '@yellow-pane/core';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';
import { toLinerView } from '@yellow-pane/core/cut';

interface SideNote {
  readonly edge: 'top' | 'right' | 'bottom' | 'left';
  readonly text: string;
  readonly isFactory: boolean;
  readonly isTrimmed: boolean;
}

const W = 260;
const H = 270;

/** One pane with its piece over it, from the side it was taped from or mirrored: what is trimmed, where the factory edge goes. */
@Component({
  selector: 'yp-piece-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" class="min-h-0 w-full flex-1" role="img" [attr.aria-label]="label()">
      @if (!piece().path) {
        <rect [attr.x]="g().px - 14" [attr.y]="g().py - 14" [attr.width]="g().pw + 28" [attr.height]="g().ph + 28" fill="#D8D2C2" />
      }
      <polygon [attr.points]="g().opening" fill="#FFF6DC" stroke="#1C2226" stroke-width="1.5" />
      <rect
        [attr.x]="g().px"
        [attr.y]="g().py"
        [attr.width]="g().pw"
        [attr.height]="g().ph"
        fill="#F4B400"
        [attr.fill-opacity]="g().own ? 0 : 0.16"
        stroke="#F4B400"
        [attr.stroke-width]="g().own ? 1 : 3"
        [attr.stroke-dasharray]="g().own ? '4 4' : null"
      />
      @if (g().own; as own) {
        <path [attr.d]="own" fill="#F4B400" fill-opacity="0.16" fill-rule="evenodd" stroke="#F4B400" stroke-width="3" />
      }
      @for (s of sides(); track s.edge) {
        @if (s.isFactory) {
          <path [attr.d]="edgePath(s.edge)" stroke="#1C2226" stroke-width="6" />
        }
        <text
          [attr.x]="at(s.edge).x"
          [attr.y]="at(s.edge).y"
          font-size="14"
          text-anchor="middle"
          [attr.transform]="turn(s.edge)"
          [attr.fill]="s.isTrimmed ? '#A8431A' : '#1C2226'"
          [attr.font-weight]="s.isFactory ? 700 : 400"
        >
          {{ s.text }}
        </text>
      }
      <path [attr.d]="'M' + cx() + ' ' + (cy() + arrow()) + ' V' + (cy() - arrow())" stroke="#3E6E8E" stroke-width="2" />
      <path
        [attr.d]="'M' + (cx() - 7) + ' ' + (cy() - arrow() + 8) + ' L' + cx() + ' ' + (cy() - arrow() - 3) + ' L' + (cx() + 7) + ' ' + (cy() - arrow() + 8)"
        stroke="#3E6E8E"
        stroke-width="2"
        fill="none"
      />
      <text [attr.x]="cx()" [attr.y]="cy() + arrow() + 15" font-size="14" fill="#3E6E8E" text-anchor="middle">top of pane</text>
    </svg>
    <p class="figure text-center text-[15px] font-semibold">{{ f(piece().widthMm) }} wide × {{ f(piece().heightMm) }} high</p>
  `,
  host: { class: 'flex flex-col' },
})
export class PieceDrawing {
  readonly piece = input.required<Piece>();
  readonly surface = input.required<Pane>();
  readonly survey = input.required<Survey>();
  readonly allowances = input.required<Allowances>();
  readonly units = input.required<UnitSystem>();
  /** Drawn from the other side than the survey was made from: left and right change places. */
  readonly mirrored = input(false);
  protected readonly w = W;
  protected readonly h = H;
  protected f = (mm: number): string => formatLength(mm, this.units());
  protected readonly label = computed(() => `Piece for ${this.surface().name}: ${this.f(this.piece().widthMm)} by ${this.f(this.piece().heightMm)}`);

  /** The factory edge as the layer sees it: the liner's view turned back. */
  private readonly factoryEdge = computed(() => {
    const edge = this.piece().factoryEdge;
    return edge && toLinerView(edge, this.surface().seenFrom, this.surface().filmFace);
  });

  protected readonly g = computed(() => {
    const p = this.piece();
    const s = Math.min((W - 76) / p.widthMm, (H - 76) / p.heightMm);
    const [pw, ph] = [p.widthMm * s, p.heightMm * s];
    const [px, py] = [(W - pw) / 2, (H - ph) / 2];
    const outline = this.survey().outline ?? [];
    const w = Math.max(...outline.map((q) => q.x)) - Math.min(...outline.map((q) => q.x));
    const h = Math.max(...outline.map((q) => q.y)) - Math.min(...outline.map((q) => q.y));
    const trims = (edge: 'left' | 'top') =>
      p.path
        ? edge === 'left'
          ? (p.widthMm - w) / 2
          : (p.heightMm - h) / 2
        : p.trimmedEdges.includes(edge)
          ? edge === 'top'
            ? this.allowances().overhangTopMm
            : this.allowances().overhangMm
          : -this.allowances().edgeGapMm;
    const xs = outline.map((q) => q.x);
    const ys = outline.map((q) => q.y);
    const minX = Math.min(...xs);
    const maxY = Math.max(...ys);
    const across = (x: number) => (this.mirrored() ? px + pw - (trims('left') + x - minX) * s : px + (trims('left') + x - minX) * s);
    const opening = outline.map((q) => `${across(q.x).toFixed(1)},${(py + (trims('top') + maxY - q.y) * s).toFixed(1)}`).join(' ');
    // the outline is kept as the liner sees it; here it is drawn as the layer sees it
    const isTurned = (this.surface().seenFrom === this.surface().filmFace) !== this.mirrored();
    const place = (q: PathPoint) => ({ x: px + (isTurned ? p.widthMm - q.xMm : q.xMm) * s, y: py + (p.heightMm - q.yMm) * s });
    const own = p.path
      ? [p.path, ...p.holes]
          .map((ring) => {
            const points = flatten(ring.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge }))).map((v) => place({ xMm: v.x, yMm: v.y, bulge: 0 }));
            return `M${points.map((v) => `${v.x.toFixed(1)} ${v.y.toFixed(1)}`).join('L')}Z`;
          })
          .join('')
      : null;
    return { px, py, pw, ph, opening, own };
  });
  protected readonly cx = computed(() => W / 2);
  protected readonly cy = computed(() => H / 2);
  protected readonly arrow = computed(() => Math.min(44, this.g().ph * 0.24));

  protected readonly sides = computed<SideNote[]>(() => {
    const p = this.piece();
    const a = this.allowances();
    // an outline of its own is trimmed, or not, all the way round
    if (p.path) return p.trimmedEdges.length ? [{ edge: 'bottom', text: 'trimmed all round', isFactory: false, isTrimmed: true }] : [];
    return (['top', 'right', 'bottom', 'left'] as const).map((edge) => {
      const isTrimmed = p.trimmedEdges.includes(edge);
      const isFactory = this.factoryEdge() === edge;
      const text = isFactory
        ? 'factory edge, no cut'
        : isTrimmed
          ? `trim ${this.f(edge === 'top' ? a.overhangTopMm : a.overhangMm)}`
          : `stays ${a.edgeGapMm} mm off`;
      return { edge: this.shown(edge), text, isFactory, isTrimmed };
    });
  });

  /** Where an edge is drawn. */
  private shown(edge: SideNote['edge']): SideNote['edge'] {
    return this.mirrored() && edge === 'left' ? 'right' : this.mirrored() && edge === 'right' ? 'left' : edge;
  }
  protected at(edge: string): { x: number; y: number } {
    const { px, py, pw, ph } = this.g();
    return edge === 'top'
      ? { x: W / 2, y: py - 20 }
      : edge === 'bottom'
        ? { x: W / 2, y: py + ph + 29 }
        : edge === 'left'
          ? { x: px - 20, y: H / 2 }
          : { x: px + pw + 29, y: H / 2 };
  }
  protected turn(edge: string): string | null {
    const p = this.at(edge);
    return edge === 'left' || edge === 'right' ? `rotate(-90 ${p.x} ${p.y})` : null;
  }
  protected edgePath(edge: string): string {
    const { px, py, pw, ph } = this.g();
    return edge === 'top'
      ? `M${px} ${py}h${pw}`
      : edge === 'bottom'
        ? `M${px} ${py + ph}h${pw}`
        : edge === 'left'
          ? `M${px} ${py}v${ph}`
          : `M${px + pw} ${py}v${ph}`;
  }
}
