import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChildren } from '@angular/core';
import type { CurvedPane } from '@yellow-pane/contracts';
import { bowPlaceWords, lengthOf, straightedgeOf } from '@yellow-pane/core/form';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';
import { shrinkColor } from '../../../kit/shrink-colors';
import { hostSize } from '../../../kit/host-size';
import { LengthField, type TypedReading } from '../../../kit/length-field';
import type { BowSlot } from '../curve.updaters';

interface Point {
  readonly x: number;
  readonly y: number;
}
interface Drawn {
  readonly slot: BowSlot;
  readonly line: string;
  readonly arc: string;
  readonly from: Point;
  readonly to: Point;
  readonly field: Point;
  readonly lead: string;
}

/** Width of a field, px: on a phone as little as four figures need. */
const FIELD_W = { wide: 74, narrow: 56 };
const ROOM = { right: 26, top: 62, bottom: 72 };
/** The deepest bow is drawn so deep, px; the others beside it. */
const DEEPEST_PX = 26;
/** Fields in a column stand so far apart at least, px. */
const APART = 40;

/**
 * A curved pane true to scale in the plane of its corners with every straightedge on it: level ones read at the left, upright ones above, diagonals and short ones below.
 * Enter walks on as the straightedge is moved.
 */
@Component({
  selector: 'yp-curve-drawing',
  imports: [LengthField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg class="absolute inset-0 h-full w-full" role="img" [attr.aria-label]="description()">
      <polygon [attr.points]="ring()" fill="#FFF6DC" stroke="#1C2226" stroke-width="2" />
      @if (dots(); as d) {
        <polygon [attr.points]="d" fill="none" stroke="#56626A" stroke-width="5" stroke-dasharray="1 6" stroke-linecap="round" />
      }
      @for (w of wires(); track $index) {
        <line [attr.x1]="w.x1" [attr.y1]="w.y1" [attr.x2]="w.x2" [attr.y2]="w.y2" stroke="#C2501C" stroke-opacity="0.45" />
      }
      @for (z of zones(); track z.id) {
        <rect [attr.x]="z.x" [attr.y]="z.y" [attr.width]="z.w" [attr.height]="z.h" fill="#E6EEF2" stroke="#3E6E8E" stroke-dasharray="4 3" />
        <text [attr.x]="z.x + z.w / 2" [attr.y]="z.y + z.h / 2 + 4" font-size="11" text-anchor="middle" fill="#1C2226">{{ z.name }}</text>
      }
      @for (p of points(); track $index) {
        <circle [attr.cx]="p.x" [attr.cy]="p.y" r="2.2" [attr.fill]="p.fill" />
      }
      @for (d of drawn(); track d.slot.key) {
        @let active = d.slot.key === activeKey();
        <path [attr.d]="d.lead" fill="none" stroke="#BDB6A2" />
        <path
          [attr.d]="d.line"
          stroke="#1C2226"
          [attr.stroke-width]="active ? 3 : d.slot.bow ? 1.5 : 1"
          [attr.stroke-dasharray]="d.slot.bow ? null : '5 5'"
          fill="none"
        />
        @if (d.arc) {
          <path
            [attr.d]="d.arc"
            [attr.stroke]="isOut(d.slot) ? '#B3261E' : '#C2501C'"
            [attr.stroke-width]="active ? 3 : 1.5"
            [attr.stroke-opacity]="active ? 1 : 0.7"
            fill="none"
          />
        }
        <circle [attr.cx]="d.from.x" [attr.cy]="d.from.y" r="3" fill="#1C2226" />
        <circle [attr.cx]="d.to.x" [attr.cy]="d.to.y" r="3" fill="#1C2226" />
      }
    </svg>
    <p class="absolute inset-x-4 bottom-1 text-sm text-soft">{{ legend() }}</p>
    @for (d of drawn(); track d.slot.key) {
      <yp-length-field
        class="absolute! -translate-x-1/2 -translate-y-1/2"
        [style.left.px]="d.field.x"
        [style.top.px]="d.field.y"
        [style.width.px]="fieldW()"
        [attr.data-bow]="d.slot.way + '-' + d.slot.atMm"
        [label]="'Bow ' + words(d.slot)"
        [value]="textOf(d.slot)"
        [units]="units()"
        [signed]="true"
        [doubtful]="isOut(d.slot) || d.slot.isAsked"
        [inherited]="inherited()"
        [placeholder]="d.slot.isAsked ? 'gap?' : 'gap'"
        [hint]="words(d.slot) + ', ' + lengthText(d.slot)"
        (focused)="activeKey.set(d.slot.key)"
        (committed)="typed.emit({ slot: d.slot, reading: $event })"
        (cleared)="cleared.emit(d.slot)"
        (next)="walk(d.slot.key, $event)"
      />
    }
  `,
  host: { class: 'relative block h-full w-full overflow-hidden' },
})
export class CurveDrawing {
  readonly outline = input.required<readonly Point[]>();
  readonly curved = input.required<CurvedPane>();
  readonly slots = input.required<readonly BowSlot[]>();
  /** Bows that all the others speak against. */
  readonly out = input<ReadonlySet<string>>(new Set());
  readonly units = input.required<UnitSystem>();
  readonly name = input('');
  readonly inherited = input(false);
  readonly typed = output<{ slot: BowSlot; reading: TypedReading }>();
  readonly cleared = output<BowSlot>();
  readonly activeKey = signal<string | null>(null);
  protected readonly fieldW = computed(() => (this.size().w < 520 ? FIELD_W.narrow : FIELD_W.wide));
  protected readonly size = hostSize({ w: 700, h: 520 });
  private readonly fields = viewChildren(LengthField);

  private readonly view = computed(() => {
    const { w, h } = this.size();
    const room = this.fieldW() + 22;
    const ring = this.outline();
    const xs = ring.map((p) => p.x);
    const ys = ring.map((p) => p.y);
    const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const k = Math.max(0.02, Math.min((w - room - ROOM.right) / (maxX - minX), (h - ROOM.top - ROOM.bottom) / (maxY - minY)));
    const px = (p: Point): Point => ({
      x: room + (w - room - ROOM.right) / 2 + (p.x - (minX + maxX) / 2) * k,
      y: ROOM.top + (h - ROOM.top - ROOM.bottom) / 2 - (p.y - (minY + maxY) / 2) * k,
    });
    return { k, px, minX, maxX, minY, maxY, top: px({ x: 0, y: maxY }).y, low: px({ x: 0, y: minY }).y, left: px({ x: minX, y: 0 }).x };
  });
  private ringOf = (ring: readonly Point[]): string => ring.map((p) => this.view().px(p)).map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' '); // prettier-ignore
  protected readonly ring = computed(() => this.ringOf(this.outline()));
  protected readonly dots = computed(() => {
    const d = this.curved().dotBorderMm;
    const { minX, maxX, minY, maxY } = this.view();
    if (!d) return null;
    const [kx, ky] = [1 - (2 * d) / (maxX - minX), 1 - (2 * d) / (maxY - minY)];
    const c = { x: (minX + maxX) / 2, y: (minY + maxY) / 2 };
    return kx > 0 && ky > 0 ? this.ringOf(this.outline().map((p) => ({ x: c.x + kx * (p.x - c.x), y: c.y + ky * (p.y - c.y) }))) : null;
  });
  protected readonly wires = computed(() => {
    const d = this.curved().defroster;
    const { px } = this.view();
    if (!d) return [];
    return Array.from({ length: d.count }, (_, i) => d.firstMm + i * d.spacingMm).flatMap((mm) => {
      const e = straightedgeOf(this.outline(), { way: d.way === 'across' ? 'across' : 'upright', atMm: mm, span: null });
      if (!e) return [];
      const [a, b] = [px(e.from), px(e.to)];
      return [{ x1: a.x + 0.06 * (b.x - a.x), y1: a.y + 0.06 * (b.y - a.y), x2: b.x - 0.06 * (b.x - a.x), y2: b.y - 0.06 * (b.y - a.y) }];
    });
  });
  protected readonly zones = computed(() => {
    const { px, k } = this.view();
    return this.curved().zones.map((z) => {
      const at = px({ x: z.leftMm, y: z.lowMm + z.heightMm });
      return { id: z.id, x: at.x, y: at.y, w: z.widthMm * k, h: z.heightMm * k, name: z.kind.replace('-', ' ') };
    });
  });

  /** A bow that is out does not flatten all the others; it is drawn no deeper than they are. */
  private readonly deepestMm = computed(() =>
    Math.max(
      3,
      ...this.curved()
        .bows.filter((b) => !this.out().has(b.id))
        .map((b) => Math.abs(b.depthMm)),
    ),
  );

  protected readonly drawn = computed<Drawn[]>(() => this.spread(this.placed()));
  /** Fields that would cover one another are moved apart along their column or row. */
  private spread(list: Drawn[]): Drawn[] {
    const out = [...list];
    const groups: { is: (d: Drawn) => boolean; of: 'x' | 'y'; apart: number }[] = [
      { is: (d) => d.slot.way === 'across' && !d.slot.span, of: 'y', apart: APART },
      { is: (d) => d.field.y < this.view().top, of: 'x', apart: this.fieldW() + 5 },
      { is: (d) => d.field.y > this.view().low + 20, of: 'x', apart: this.fieldW() + 5 },
    ];
    for (const g of groups) {
      const ids = out.map((_, i) => i).filter((i) => g.is(out[i]!)).sort((a, b) => out[a]!.field[g.of] - out[b]!.field[g.of]); // prettier-ignore
      const at = ids.map((i) => out[i]!.field[g.of]);
      // pushed apart from both ends by turns until all have room
      for (let round = 0; round < 20; round++)
        for (let i = 1; i < at.length; i++) {
          const short = g.apart - (at[i]! - at[i - 1]!);
          if (short <= 0) continue;
          at[i - 1]! -= short / 2;
          at[i]! += short / 2;
        }
      // and back into the drawing, where the last one would stand over its border
      const [low, high] = [this.fieldW() / 2 + 2, this.size().w - this.fieldW() / 2 - 2];
      if (g.of === 'x' && at.length) {
        const by = Math.min(0, high - at.at(-1)!) + Math.max(0, low - at[0]!);
        at.forEach((v, i) => (at[i] = v + by));
      }
      ids.forEach((i, k) => {
        const d = out[i]!;
        const field = { ...d.field, [g.of]: at[k]! };
        out[i] = { ...d, field, lead: `${d.lead.split('L')[0]}L${field.x.toFixed(1)} ${field.y.toFixed(1)}` };
      });
    }
    return out;
  }
  private readonly placed = computed<Drawn[]>(() => {
    const { px, top, low, left } = this.view();
    const shorts = this.slots().filter((s) => s.span && s.way === 'upright').length;
    let short = 0;
    return this.slots().flatMap((slot): Drawn[] => {
      const e = straightedgeOf(this.outline(), slot);
      if (!e) return [];
      const [from, to, mid] = [px(e.from), px(e.to), px(e.middle)];
      const d = Math.hypot(to.x - from.x, to.y - from.y) || 1;
      const [nx, ny] = [(to.y - from.y) / d, -(to.x - from.x) / d];
      const most = this.deepestMm();
      const depth = 2 * DEEPEST_PX * Math.max(-1, Math.min(1, (slot.bow?.depthMm ?? 0) / most));
      const line = `M${from.x.toFixed(1)} ${from.y.toFixed(1)}L${to.x.toFixed(1)} ${to.y.toFixed(1)}`;
      const arc = slot.bow
        ? `M${from.x.toFixed(1)} ${from.y.toFixed(1)}Q${(mid.x - nx * depth).toFixed(1)} ${(mid.y - ny * depth).toFixed(1)} ${to.x.toFixed(1)} ${to.y.toFixed(1)}`
        : '';
      const field = this.fieldPlace(slot, from, to, mid, { top, low, left }, shorts, short);
      if (slot.span && slot.way === 'upright') short++;
      const near = slot.way === 'across' ? from : slot.way === 'upright' ? (slot.span && !this.hangs(slot) ? from : to) : slot.way === 'down' ? to : from;
      return [{ slot, line, arc, from, to, field, lead: `M${near.x.toFixed(1)} ${near.y.toFixed(1)}L${field.x.toFixed(1)} ${field.y.toFixed(1)}` }];
    });
  });
  /** A short straightedge that hangs from the upper edge. */
  private hangs(slot: BowSlot): boolean {
    const whole = slot.span && slot.way === 'upright' ? straightedgeOf(this.outline(), { ...slot, span: null }) : null;
    return whole !== null && slot.span!.fromMm > 50 && lengthOf(whole) - slot.span!.fromMm - slot.span!.lengthMm < 50;
  }
  private fieldPlace(
    slot: BowSlot,
    from: Point,
    to: Point,
    mid: Point,
    edge: { top: number; low: number; left: number },
    shorts: number,
    short: number,
  ): Point {
    const half = this.fieldW() / 2;
    if (slot.way === 'across') return slot.span ? { x: mid.x, y: mid.y - 22 } : { x: Math.max(half + 6, edge.left - half - 14), y: from.y };
    if (slot.way === 'upright' && !slot.span) return { x: to.x, y: Math.max(24, edge.top - 26) };
    if (slot.way === 'upright') {
      // short ones below the pane or over it, side by side even where they stand close together
      const spread = mid.x + (short - (shorts - 1) / 2) * 6;
      const upper = this.hangs(slot);
      return { x: spread, y: upper ? Math.max(24, edge.top - 26) : slot.span!.fromMm > 50 ? mid.y : edge.low + 26 };
    }
    return slot.way === 'down' ? { x: to.x - half, y: edge.low + 26 } : { x: from.x + half, y: edge.low + 26 };
  }

  /** The thinned points of a cloud, darker the deeper they lie under the highest. */
  protected readonly points = computed(() => {
    const cells = this.curved().cloud?.cells ?? [];
    const { px } = this.view();
    const zs = cells.map((c) => c[2]);
    const [low, high] = [Math.min(...zs), Math.max(...zs)];
    return cells.map(([x, y, z]) => ({ ...px({ x, y }), fill: shrinkColor(0.08 + (0.9 * (high - z)) / (high - low || 1)) }));
  });
  protected readonly legend = computed(() =>
    this.curved().cloud
      ? 'Points as they are kept: the darker, the farther back they lie.'
      : 'Gap under the middle of the straightedge; bows drawn to one scale. Minus: the glass stands up against it.',
  );
  protected readonly description = computed(() => `${this.name()}: curved pane with ${this.curved().bows.length} bows`);
  protected words = (s: BowSlot): string => bowPlaceWords(s, this.units());
  protected lengthText(s: BowSlot): string {
    const e = straightedgeOf(this.outline(), s);
    return e ? `straightedge ${formatLength(lengthOf(e), this.units())}` : '';
  }
  protected isOut = (s: BowSlot): boolean => s.bow !== null && this.out().has(s.bow.id);
  protected textOf(s: BowSlot): string {
    if (!s.bow) return '';
    return s.bow.unit === this.units() ? s.bow.typed : formatLength(s.bow.depthMm, this.units());
  }
  focusOn(key: string): void {
    setTimeout(() => this.fields()[this.drawn().findIndex((d) => d.slot.key === key)]?.focus());
  }
  protected walk(key: string, back: boolean): void {
    const at = this.drawn().findIndex((d) => d.slot.key === key);
    const next = this.drawn()[at + (back ? -1 : 1)];
    if (next) this.focusOn(next.slot.key);
  }
}
