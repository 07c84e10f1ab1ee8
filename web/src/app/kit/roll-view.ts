import {
  afterNextRender,
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import {
  defaultLeftoverRule,
  type Film,
  type Layout,
  type LeftoverRule,
  type Piece,
  type PlacedPiece,
  type Roll,
  type RollLayout,
} from '@yellow-pane/contracts';
import { formatLength, type UnitSystem, filmText } from '@yellow-pane/core/ground';
import { isFilmUpOn, onRoll, restsOf } from '@yellow-pane/core/cut';
import { flatten } from '@yellow-pane/core/geometry';

interface DrawnPiece {
  readonly id: string;
  readonly surfaceId: string;
  readonly label: string;
  readonly size: string;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly isSelected: boolean;
  readonly isLocked: boolean;
  readonly isCut: boolean;
  readonly showText: boolean;
  readonly arrow: string;
  /** True outlines inside the rectangle, each with its pane. */
  readonly parts: readonly {
    readonly surfaceId: string;
    readonly d: string;
    readonly label: string;
    readonly x: number;
    readonly y: number;
    readonly isSelected: boolean;
  }[];
}
interface DrawnRest {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly text: string | null;
}
interface DrawnCut {
  readonly x: number;
  readonly n: number;
  readonly isShown: boolean;
}

/** The film's hatch as an SVG pattern, by film. */
const hatchPath: Record<Film['hatch'], string> = {
  slant: 'M-2 2 L2 -2 M0 8 L8 0 M6 10 L10 6',
  dots: 'M1 4 h1.4 M5 0 h1.4',
  cross: 'M0 8 L8 0 M0 0 L8 8',
  lines: 'M0 2 h8 M0 6 h8',
};

/** So far beside what is in sight pieces are drawn already, px. */
const BESIDE_PX = 1500;

/** One roll unrolled to scale: pieces, drops, rests, factory edges drawn heavy. Picking a piece picks its surface. */
@Component({
  selector: 'yp-roll-view',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      #sheet
      (pointermove)="carry($event)"
      (pointerup)="drop($event)"
      (pointercancel)="letGo()"
      [attr.width]="width()"
      [attr.height]="height()"
      role="group"
      [attr.aria-label]="'Roll ' + roll().label + ', drawn ' + faceUp() + ' up'"
    >
      <defs>
        <pattern [attr.id]="patternId()" width="8" height="8" patternUnits="userSpaceOnUse">
          <path [attr.d]="hatch()" stroke="#9DB6C4" stroke-width="1" fill="none" />
        </pattern>
      </defs>
      @for (r of inSight(rests()); track $index) {
        <rect [attr.x]="r.x" [attr.y]="r.y" [attr.width]="r.w" [attr.height]="r.h" fill="#EFE9DA" />
        @if (r.text) {
          <text [attr.x]="r.x + r.w / 2" [attr.y]="r.y + r.h / 2 + 4" text-anchor="middle" font-size="12" fill="#56626A">{{ r.text }}</text>
        }
      }
      <rect [attr.x]="usedX()" [attr.y]="top" [attr.width]="width() - usedX() - 66" [attr.height]="rollPx()" fill="#EFE9DA" />
      @for (p of inSight(drawn()); track p.id) {
        <g
          role="button"
          tabindex="0"
          class="cursor-pointer"
          [attr.data-piece]="p.id"
          [attr.aria-pressed]="p.isSelected"
          [class.opacity-40]="dragging() === p.id"
          (pointerdown)="lift($event, p.id)"
          (keydown)="byKey($event, p.id)"
          [attr.aria-label]="p.label + ', ' + p.size + (p.isCut ? ', cut' : '') + (p.isLocked ? ', locked' : '') + '. Shift and arrows move it'"
          (click)="picked.emit(p.surfaceId)"
          (keydown.enter)="picked.emit(p.surfaceId)"
          (keydown.space)="$event.preventDefault(); picked.emit(p.surfaceId)"
        >
          <rect [attr.x]="p.x" [attr.y]="p.y" [attr.width]="p.w" [attr.height]="p.h" [attr.fill]="p.isSelected ? '#F4B400' : p.isCut ? '#DFEEE4' : '#F4F7F8'" />
          @if (!p.isSelected) {
            <rect [attr.x]="p.x" [attr.y]="p.y" [attr.width]="p.w" [attr.height]="p.h" [attr.fill]="'url(#' + patternId() + ')'" />
          }
          <rect
            [attr.x]="p.x"
            [attr.y]="p.y"
            [attr.width]="p.w"
            [attr.height]="p.h"
            fill="none"
            stroke="#1C2226"
            [attr.stroke-width]="p.isSelected ? 2.5 : 1"
          />
          @for (part of p.parts; track $index) {
            <path
              [attr.d]="part.d"
              fill-rule="evenodd"
              [attr.fill]="part.isSelected ? '#F4B400' : 'none'"
              stroke="#1C2226"
              stroke-width="1.4"
              pointer-events="all"
              (click)="$event.stopPropagation(); picked.emit(part.surfaceId)"
            />
            @if (p.parts.length > 1) {
              <text [attr.x]="part.x" [attr.y]="part.y + 4" font-size="13" font-weight="700" text-anchor="middle">{{ part.label }}</text>
            }
          }
          @if (p.showText && p.parts.length < 2) {
            <rect
              [attr.x]="p.x + 4"
              [attr.y]="p.y + 4"
              [attr.width]="textWidth(p)"
              [attr.height]="fitsSize(p) ? 36 : 20"
              [attr.fill]="p.isSelected ? '#F4B400' : '#FFFEFA'"
            />
            <text [attr.x]="p.x + 8" [attr.y]="p.y + 18" font-size="13" font-weight="700">{{ nameOf(p) }}</text>
            @if (fitsSize(p)) {
              <text [attr.x]="p.x + 8" [attr.y]="p.y + 34" font-size="12" class="figure">{{ p.size }}</text>
            }
          }
          @if (p.w > 26 && p.h > 26) {
            <path [attr.d]="p.arrow" stroke="#3E6E8E" stroke-width="1.6" fill="none" />
          }
        </g>
      }
      <line [attr.x1]="pad" [attr.x2]="width() - 44" [attr.y1]="top" [attr.y2]="top" stroke="#1C2226" stroke-width="3" />
      <line [attr.x1]="pad" [attr.x2]="width() - 44" [attr.y1]="top + rollPx()" [attr.y2]="top + rollPx()" stroke="#1C2226" stroke-width="3" />
      @for (c of inSight(cuts()); track c.n) {
        <line [attr.x1]="c.x" [attr.x2]="c.x" [attr.y1]="top - 8" [attr.y2]="top + rollPx() + 8" stroke="#1C2226" stroke-width="2" stroke-dasharray="6 4" />
        @if (c.isShown) {
          <circle [attr.cx]="c.x" [attr.cy]="top - 15" r="10" fill="#1C2226" />
          <text [attr.x]="c.x" [attr.y]="top - 11" font-size="11.5" font-weight="700" text-anchor="middle" fill="#FFFEFA">{{ c.n }}</text>
        }
      }
      @for (m of inSight(marks()); track m.mm) {
        <line [attr.x1]="m.x" [attr.x2]="m.x" [attr.y1]="top + rollPx() + 5" [attr.y2]="top + rollPx() + 11" stroke="#56626A" />
        <text [attr.x]="m.x" [attr.y]="top + rollPx() + 24" font-size="12" [attr.text-anchor]="m.mm === 0 ? 'start' : 'middle'" fill="#56626A" class="figure">
          {{ m.text }}
        </text>
      }
      @if (over(); as o) {
        <rect
          [attr.x]="o.x"
          [attr.y]="top - 4"
          [attr.width]="o.w"
          [attr.height]="rollPx() + 8"
          fill="none"
          stroke="#1C2226"
          stroke-width="3"
          stroke-dasharray="2 5"
          stroke-linecap="round"
        />
        @if (dragNote()) {
          <rect [attr.x]="o.x + 6" [attr.y]="top + rollPx() / 2 - 13" [attr.width]="dragNote().length * 7 + 16" height="24" fill="#FFE9A8" stroke="#1C2226" />
          <text [attr.x]="o.x + 14" [attr.y]="top + rollPx() / 2 + 4" font-size="13" font-weight="600">{{ dragNote() }}</text>
        }
      }
      <text [attr.x]="usedX() + 12" [attr.y]="top + rollPx() / 2" font-size="13" fill="#56626A">{{ left() }}</text>
      <g fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5">
        <ellipse [attr.cx]="width() - 42" [attr.cy]="top + rollPx() / 2" rx="22" [attr.ry]="rollPx() / 2 + 5" />
        <ellipse [attr.cx]="width() - 42" [attr.cy]="top + rollPx() / 2" rx="9" [attr.ry]="rollPx() / 4" stroke="#BDB6A2" />
        <ellipse [attr.cx]="width() - 42" [attr.cy]="top + rollPx() / 2" rx="4.5" [attr.ry]="rollPx() / 8" fill="#1C2226" />
      </g>
    </svg>
  `,
  host: { class: 'block' },
})
export class RollView {
  readonly layout = input.required<Layout>();
  readonly pieces = input.required<readonly Piece[]>();
  readonly roll = input.required<Roll>();
  readonly film = input.required<Film>();
  readonly units = input.required<UnitSystem>();
  readonly selectedSurfaceId = input<string | null>(null);
  readonly lockedIds = input<readonly string[]>([]);
  readonly cutIds = input<ReadonlySet<string>>(new Set<string>());
  readonly rollPx = input(150);
  /** Which rests are worth keeping. */
  readonly leftovers = input<LeftoverRule>(defaultLeftoverRule);
  /** Length that a job may lay on, mm; null = what the roll says. */
  readonly availableMm = input<number | null>(null);
  /** Where the piece that is carried, from this roll or another, would come to lie; null: not on this roll. Drop null = one of its own at the end. */
  readonly carriedTo = input<{ readonly dropIndex: number | null } | null>(null);
  /** What it would do there, in words. */
  readonly dragNote = input('');
  /** A piece carried to a place of the screen, which may be over another roll. */
  readonly dragged = output<{ pieceId: string; clientX: number; clientY: number; isDone: boolean }>();
  /** Keys: to the drop before or after, onto one of its own, turned a quarter. */
  readonly moved = output<{ pieceId: string; by: -1 | 1 | 'end' | 'turn' }>();
  readonly picked = output<string>();

  protected readonly pad = 12;
  protected readonly top = 30;
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly faceUp = computed(() => (isFilmUpOn(this.roll(), this.film()) ? 'film' : 'liner'));
  protected readonly height = computed(() => this.rollPx() + 62);
  private readonly scale = computed(() => this.rollPx() / this.roll().widthMm);
  private readonly mine = computed<RollLayout | undefined>(() => this.layout().rolls.find((r) => r.rollId === this.roll().id));
  private readonly usedMm = computed(() => this.mine()?.usedMm ?? 0);
  protected readonly usedX = computed(() => this.x(this.usedMm()));
  protected readonly width = computed(() => this.pad + (this.usedMm() + 1400) * this.scale() + 90);
  protected readonly patternId = computed(() => `hatch-${this.roll().id.slice(-6)}`);
  protected readonly hatch = computed(() => hatchPath[this.film().hatch]);
  /** Marks along the roll: every metre, or every five feet. */
  protected readonly marks = computed(() => {
    const [every, by, unit] = this.units() === 'in' ? [1524, 5, 'ft'] : [1000, 1, 'm'];
    return Array.from({ length: Math.floor((this.usedMm() + 0.9 * every) / every) + 1 }, (_, i) => ({
      mm: i * every,
      x: this.x(i * every),
      text: `${i * by} ${unit}`,
    }));
  });
  protected readonly left = computed(() => {
    const metres = (this.availableMm() ?? this.roll().lengthM * 1000 - this.roll().leadInMm) / 1000 - this.usedMm() / 1000;
    return `${filmText(Math.abs(metres) * 1000, this.units(), 1)} ${metres >= 0 ? 'left' : 'short'}`;
  });

  /** What of the roll is in sight, px: of a tower's only the pieces there are drawn. */
  private readonly sight = signal({ from: 0, to: BESIDE_PX });
  /** The piece that is moved by keys stays drawn wherever it goes: it has the focus. */
  private readonly byKeys = signal<string | null>(null);
  protected inSight<T extends { readonly x: number; readonly w?: number; readonly id?: string }>(list: readonly T[]): T[] {
    const { from, to } = this.sight();
    return list.filter((p) => (p.x + (p.w ?? 0) >= from && p.x <= to) || (p.id !== undefined && p.id === this.byKeys()));
  }

  constructor() {
    const gone = inject(DestroyRef);
    afterNextRender(() => {
      const box = this.host.nativeElement.closest('[data-roll-scroll]');
      if (!box) return this.sight.set({ from: 0, to: Infinity });
      const look = (): void => {
        const [from, to] = [box.scrollLeft - BESIDE_PX, box.scrollLeft + box.clientWidth + BESIDE_PX];
        if (Math.abs(from - this.sight().from) > BESIDE_PX / 2 || Math.abs(to - this.sight().to) > BESIDE_PX / 2) this.sight.set({ from, to });
      };
      look();
      box.addEventListener('scroll', look, { passive: true });
      addEventListener('resize', look);
      gone.onDestroy(() => {
        box.removeEventListener('scroll', look);
        removeEventListener('resize', look);
      });
    });
    afterRenderEffect(() => {
      const id = this.selectedSurfaceId();
      const piece = this.drawn().find((p) => p.surfaceId === id || p.parts.some((part) => part.surfaceId === id));
      if (!piece) return;
      this.host.nativeElement.scrollIntoView?.({ block: 'nearest', inline: 'nearest' });
      const box = this.host.nativeElement.closest('[data-roll-scroll]');
      if (box && (piece.x < box.scrollLeft || piece.x + piece.w > box.scrollLeft + box.clientWidth)) box.scrollLeft = Math.max(0, piece.x - 60);
    });
  }

  /** The piece in hand while it is dragged, once it has really moved. */
  protected readonly dragging = signal<string | null>(null);
  private grip: { id: string; x: number; y: number } | null = null;
  private readonly sheet = viewChild.required<ElementRef<SVGSVGElement>>('sheet');

  /** The drop under the piece in hand; behind the last one it gets a drop of its own. */
  protected readonly over = computed(() => {
    const at = this.carriedTo();
    if (!at) return null;
    const drop = at.dropIndex === null ? null : this.mine()?.drops[at.dropIndex];
    return drop ? { x: this.x(drop.xMm), w: drop.alongMm * this.scale() } : { x: this.usedX(), w: 120 };
  });

  protected lift(event: PointerEvent, id: string): void {
    if (event.button === 0 && event.pointerType !== 'touch') this.grip = { id, x: event.clientX, y: event.clientY };
  }
  protected carry(event: PointerEvent): void {
    const grip = this.grip;
    if (!grip || (this.dragging() === null && Math.hypot(event.clientX - grip.x, event.clientY - grip.y) < 6)) return;
    if (this.dragging() === null) {
      this.dragging.set(grip.id);
      this.sheet().nativeElement.setPointerCapture(event.pointerId);
    }
    this.dragged.emit({ pieceId: grip.id, clientX: event.clientX, clientY: event.clientY, isDone: false });
  }
  /** The system took the pointer away: the piece stays where it was. */
  protected letGo(): void {
    const id = this.dragging();
    this.grip = null;
    this.dragging.set(null);
    if (id !== null) this.dragged.emit({ pieceId: id, clientX: NaN, clientY: NaN, isDone: true });
  }
  protected drop(event: PointerEvent): void {
    const id = this.dragging();
    this.grip = null;
    this.dragging.set(null);
    if (id !== null) this.dragged.emit({ pieceId: id, clientX: event.clientX, clientY: event.clientY, isDone: true });
  }
  /** The drop that lies at this place of the screen; null beside all of them. */
  dropAt(clientX: number): number | null {
    const mm = (clientX - this.sheet().nativeElement.getBoundingClientRect().left - this.pad) / this.scale();
    const i = (this.mine()?.drops ?? []).findIndex((d) => mm >= d.xMm && mm <= d.xMm + d.alongMm);
    return i < 0 ? null : i;
  }
  protected byKey(event: KeyboardEvent, pieceId: string): void {
    if (!event.shiftKey) return;
    const by = ({ ArrowLeft: -1, ArrowRight: 1, End: 'end', R: 'turn' } as const)[event.key as 'End'];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    this.byKeys.set(pieceId);
    this.moved.emit({ pieceId, by });
  }

  protected x = (mm: number): number => this.pad + mm * this.scale();
  /** Drawn with the side up that comes up off the roll: with the film up, mirrored across. */
  private y(low: number, size: number): number {
    const s = this.scale();
    return this.faceUp() === 'film' ? this.top + low * s : this.top + this.rollPx() - (low + size) * s;
  }
  protected nameOf = (p: DrawnPiece): string => p.label + (p.isLocked ? ' · locked' : '') + (p.isCut ? ' ✓' : '');
  protected fitsSize = (p: DrawnPiece): boolean => p.h > 44 && p.size.length * 7.4 + 14 < p.w;
  protected textWidth = (p: DrawnPiece): number => Math.min(p.w - 8, Math.max(this.fitsSize(p) ? p.size.length * 7.4 : 0, this.nameOf(p).length * 8) + 8);

  protected readonly drawn = computed<DrawnPiece[]>(() => {
    const byId = new Map(this.pieces().map((p) => [p.id, p]));
    const f = (mm: number) => formatLength(mm, this.units());
    const s = this.scale();
    return (this.mine()?.drops ?? []).flatMap((d) =>
      d.columns.flatMap((c) =>
        c.rows.flatMap((r) =>
          r.pieces.map((p) => {
            const piece = byId.get(p.pieceId);
            const [x, y, w, h] = [this.x(p.xMm), this.y(p.yMm, p.acrossMm), p.alongMm * s, p.acrossMm * s];
            return {
              id: p.pieceId,
              surfaceId: piece?.surfaceId ?? '',
              label: piece?.label ?? '',
              size: `${f(p.alongMm)}×${f(p.acrossMm)}`,
              x,
              y,
              w,
              h,
              isSelected: piece?.surfaceId === this.selectedSurfaceId() && (piece?.parts.length ?? 0) === 0 && !piece?.path,
              parts: piece ? this.outlines(piece, p) : [],
              isLocked: this.lockedIds().includes(p.pieceId),
              isCut: this.cutIds().has(p.pieceId),
              showText: h > 26 && (piece?.label.length ?? 0) * 7.6 + 12 < w,
              arrow: this.arrow(p.turn, x + w - 20, y + h - 20, Math.min(13, h / 5, w / 5)),
            };
          }),
        ),
      ),
    );
  });

  /** What of the rectangle is film for a pane: two joined pieces, or one of an outline of its own. */
  private outlines(piece: Piece, placed: PlacedPiece): DrawnPiece['parts'] {
    const own = piece.parts.length
      ? piece.parts.map((part) => ({ surfaceId: part.surfaceId, label: part.label, rings: [part.path] }))
      : piece.path
        ? [{ surfaceId: piece.surfaceId, label: piece.label, rings: [piece.path, ...piece.holes] }]
        : [];
    const toPx = (q: { x: number; y: number }) => {
      const on = onRoll(q, piece, placed);
      return { x: this.x(on.x), y: this.y(on.y, 0) };
    };
    return own.map(({ surfaceId, label, rings }) => {
      const outline = rings.map((ring) =>
        flatten(
          ring.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge })),
          1,
        ).map(toPx),
      );
      const first = outline[0]!;
      return {
        surfaceId,
        label,
        d: outline.map((ring) => `M${ring.map((q) => `${q.x.toFixed(1)} ${q.y.toFixed(1)}`).join('L')}Z`).join(''),
        x: first.reduce((s, q) => s + q.x, 0) / first.length,
        y: first.reduce((s, q) => s + q.y, 0) / first.length,
        isSelected: surfaceId === this.selectedSurfaceId(),
      };
    });
  }

  /** Arrow to the pane's top. */
  private arrow(turn: number, cx: number, cy: number, size: number): string {
    const flip = this.faceUp() === 'film' ? -1 : 1;
    const [dx, dy] = turn === 0 ? [1, 0] : turn === 90 ? [0, flip] : turn === 180 ? [-1, 0] : [0, -flip];
    const [tx, ty] = [cx + dx * size, cy + dy * size];
    return `M ${cx - dx * size} ${cy - dy * size} L ${tx} ${ty} M ${tx - dx * 5 + dy * 4} ${ty - dy * 5 + dx * 4} L ${tx} ${ty} L ${tx - dx * 5 - dy * 4} ${ty - dy * 5 - dx * 4}`;
  }

  protected readonly rests = computed<DrawnRest[]>(() => {
    const s = this.scale();
    const f = (mm: number) => formatLength(mm, this.units());
    return (this.mine()?.drops ?? []).flatMap((d) =>
      restsOf(d, this.roll().widthMm, this.leftovers()).map((r) => {
        const [w, h] = [r.alongMm * s, r.acrossMm * s];
        return {
          x: this.x(r.xMm),
          y: this.y(r.yMm, r.acrossMm),
          w,
          h,
          text: r.isWorthKeeping && w > 100 && h > 15 ? `keep ${f(r.alongMm)}×${f(r.acrossMm)}` : null,
        };
      }),
    );
  });

  /** Where the roll is cut across; numbers that would lie over one another are left out. */
  protected readonly cuts = computed<DrawnCut[]>(() => {
    let last = -Infinity;
    return (this.mine()?.drops ?? []).map((d, i) => {
      const x = this.x(d.xMm + d.alongMm);
      const isShown = x - last >= 22;
      if (isShown) last = x;
      return { x, n: i + 1, isShown };
    });
  });
}
