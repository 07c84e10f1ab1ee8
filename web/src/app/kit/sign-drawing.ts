import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Sign, StepDrawing } from '@yellow-pane/contracts';
import type { LetterSheet, PlacedMark } from '@yellow-pane/core';
import { boundingBox, type Polygon } from '@yellow-pane/core/geometry';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';
import { HardwareMarks, placeHardware } from './hardware-marks';
import { letterOrder, type AirWay } from '@yellow-pane/core/lay';
import { svgOfRegion } from './svg-of-region';
import { placeTapes, Tapes, type TapeShown } from './tapes';

/** Room of the ground, px of the drawing: with figures beside it, and without. */
const WITH_FIGURES = { most: 400, left: 62, right: 70 };
const BARE = { most: 330, left: 14, right: 14 };
const HIGH = 250;
const TOP = 34;
/** Arrows run beside the letters, not over them, px. */
const BESIDE = 7;
/** Figures closer than this cannot be read apart, px. */
const CLOSE = 13;

/** A sign as one reads it: its ground, what stands on it with the height of each baseline, its sheets as far as the step has them. */
@Component({
  selector: 'yp-sign-drawing',
  imports: [HardwareMarks, Tapes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height" class="block w-full" role="img" [attr.aria-label]="label()">
      <polygon [attr.points]="d.outline" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
      <svg:g [ypHardware]="d.hardware" />
      @for (s of d.sheets; track $index) {
        <rect [attr.x]="s.x" [attr.y]="s.y" [attr.width]="s.w" [attr.height]="s.h" fill="#FFF6DC" stroke="#A97C00" stroke-dasharray="4 3" />
      }
      @for (m of d.marks; track m.id) {
        <path
          [attr.d]="m.path"
          fill-rule="evenodd"
          [attr.fill]="m.isDoubtful ? '#F4B400' : '#1C2226'"
          [attr.stroke]="m.isDoubtful ? '#1C2226' : null"
          [attr.stroke-width]="m.isDoubtful ? 1 : null"
        />
      }
      @for (b of d.baselines; track b.id) {
        <path [attr.d]="b.line" stroke="#A8431A" stroke-dasharray="8 3 2 3" fill="none" />
        <text [attr.x]="b.x" [attr.y]="b.y" class="figure" font-size="12" font-weight="600" stroke="#FFFEFA" stroke-width="3" paint-order="stroke">
          {{ b.text }}
        </text>
      }
      @for (t of d.hinges; track $index) {
        <path [attr.d]="t" stroke="#1C2226" stroke-width="8" fill="none" />
        <path [attr.d]="t" stroke="#9DB6C4" stroke-width="6" fill="none" />
      }
      @if (d.arrows; as a) {
        <path [attr.d]="a" stroke="#FFFEFA" stroke-width="5" fill="none" />
        <path [attr.d]="a" stroke="#1C2226" stroke-width="2" fill="none" />
      }
      @for (t of d.turns; track t.key) {
        <text
          [attr.x]="t.x"
          [attr.y]="t.y"
          text-anchor="middle"
          class="figure"
          font-size="11"
          font-weight="700"
          stroke="#FFFEFA"
          stroke-width="3"
          paint-order="stroke"
        >
          {{ t.text }}
        </text>
      }
      <svg:g [ypTapes]="d.tapes" />
      <text [attr.x]="d.width / 2" [attr.y]="d.height - 6" text-anchor="middle" font-size="13" fill="#56626A">{{ words() }}</text>
    </svg>
  `,
})
export class SignDrawing {
  readonly sign = input.required<Pick<Sign, 'hardware'>>();
  readonly ground = input.required<Polygon>();
  readonly marks = input.required<readonly PlacedMark[]>();
  readonly sheets = input<readonly LetterSheet[]>([]);
  readonly step = input<StepDrawing>('none');
  readonly units = input.required<UnitSystem>();
  readonly doubtful = input<readonly string[]>([]);
  readonly tapes = input<readonly TapeShown[]>([]);
  readonly label = input.required<string>();

  protected readonly words = computed(() => {
    const words: Partial<Record<StepDrawing, string>> = {
      'sign-place': 'baselines, from the foot',
      'sign-weed': 'waste off, low over itself; letters stay',
      'sign-hinge': 'hinges of masking tape in blue',
      'sign-liner': 'from the hinge outwards',
      'sign-tape-off': 'from an upper corner, flat back on itself',
      'sign-heat': 'in this order; arrows: where the air goes',
    };
    return words[this.step()] ?? 'as one reads it';
  });

  /** The order of letters under the gun. */
  private readonly turns = computed(() => letterOrder(this.marks()));

  protected readonly drawn = computed(() => {
    const [ground, step, units] = [this.ground(), this.step(), this.units()];
    const hasFigures = this.tapes().length > 0;
    const { most, left, right } = hasFigures ? WITH_FIGURES : { ...BARE, right: step === 'sign-place' ? 84 : BARE.right };
    const box = boundingBox(ground);
    const [wide, high] = [box.maxX - box.minX, box.maxY - box.minY];
    const k = Math.min((most - (hasFigures ? 0 : right)) / wide, HIGH / high);
    const [w, h] = [wide * k, high * k];
    const foot = TOP + h;
    const x = (mm: number) => left + mm * k;
    const y = (mm: number) => foot - mm * k;
    // over letters no figure is read: inside, only what is suspected
    const text = placeTapes(this.tapes());
    const inside = placeTapes(this.marks().length ? this.tapes().filter((t) => t.isDoubtful) : this.tapes());
    const mid = left + w / 2;
    const sheets = ['none', 'sign-weed'].includes(step)
      ? []
      : this.sheets().map((s) => ({ s, x: x(s.leftMm), y: y(s.lowMm + s.heightMm), w: s.widthMm * k, h: s.heightMm * k }));
    const showsBaselines = hasFigures || step === 'sign-place';
    return {
      width: left + w + right,
      height: foot + (hasFigures ? 46 : 28),
      outline: ground.map((p) => `${x(p.x - box.minX)},${y(p.y - box.minY)}`).join(' '),
      hardware: placeHardware(this.sign().hardware, { left, foot, scale: k, doubts: this.doubtful() }),
      sheets,
      marks: this.marks().map((m) => ({ id: m.line.id, path: svgOfRegion(m.region, x, y), isDoubtful: this.doubtful().includes(m.line.id) })),
      baselines: showsBaselines ? baselinesOf(this.marks(), { from: x(0) - 4, to: x(wide) + 6, y }, units) : [],
      hinges:
        step === 'sign-hinge' || step === 'sign-liner'
          ? sheets.map((s) => (s.s.hinge === 'middle' ? `M${s.x + s.w / 2} ${s.y - 4}v${s.h + 8}` : `M${s.x - 4} ${s.y}h${s.w + 8}`))
          : [],
      arrows: step === 'sign-heat' ? airArrows(this.turns(), x, y) : arrowsOf(step, sheets),
      turns: step === 'sign-heat' ? turnFigures(this.turns(), x, y) : [],
      tapes: [
        ...text('widthTop', mid, TOP - 6),
        ...inside('widthMiddle', left + 0.36 * w, TOP + 0.5 * h - 4, { line: `M${left} ${TOP + 0.5 * h}H${left + w}` }),
        ...text('widthBottom', mid, foot + 15),
        ...text('heightLeft', left - 14, TOP + h / 2, { isUpright: true }),
        ...inside('heightMiddle', left + 0.5 * w, TOP + 0.3 * h, { isUpright: true, line: `M${left + 0.5 * w} ${TOP}V${foot}` }),
        ...text('heightRight', left + w + 54, TOP + h / 2, { isUpright: true }),
        ...inside('diagonalDown', left + 0.8 * w, TOP + 0.84 * h, { line: `M${left} ${TOP}L${left + w} ${foot}` }),
        ...inside('diagonalUp', left + 0.8 * w, TOP + 0.2 * h, { line: `M${left} ${foot}L${left + w} ${TOP}` }),
      ],
    };
  });
}

/** Baselines with their heights; those that come too close share one figure beside them. */
function baselinesOf(marks: readonly PlacedMark[], at: { readonly from: number; readonly to: number; readonly y: (mm: number) => number }, units: UnitSystem) {
  const sorted = [...marks].sort((a, b) => b.line.baselineMm - a.line.baselineMm);
  return sorted.map((m, i) => {
    const isClose = (a: PlacedMark | undefined, b: PlacedMark | undefined) => a && b && at.y(b.line.baselineMm) - at.y(a.line.baselineMm) < CLOSE;
    const here = at.y(m.line.baselineMm);
    const next = sorted[i + 1];
    const figures = isClose(m, next) ? [m, next!] : [m];
    const text = isClose(sorted[i - 1], m) ? '' : [...new Set(figures.map((f) => formatLength(f.line.baselineMm, units)))].join(', ');
    return { id: m.line.id, line: `M${at.from} ${here}H${at.to}`, x: at.to + 3, y: here + 4, text };
  });
}

interface SheetBox {
  readonly s: LetterSheet;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
const head = (dx: number, dy: number, size: number): string => {
  const [a, b] = [Math.atan2(dy, dx) + 2.6, Math.atan2(dy, dx) - 2.6];
  return `m${size * Math.cos(a)} ${size * Math.sin(a)}l${-size * Math.cos(a)} ${-size * Math.sin(a)}l${size * Math.cos(b)} ${size * Math.sin(b)}`;
};
const arrow = (fx: number, fy: number, dx: number, dy: number, size = 7): string => `M${fx} ${fy}l${dx} ${dy}${head(dx, dy, size)}`;

/** The air of a letter, px from it. */
const AIR = 12;
const airOf: Readonly<Record<AirWay, readonly [number, number]>> = { up: [0, -1], down: [0, 1], right: [1, 0], left: [-1, 0] };
type Place = (mm: number) => number;
type Turns = ReturnType<typeof letterOrder>;
/** Which way the air goes from each letter. */
function airArrows(turns: Turns, x: Place, y: Place): string | null {
  if (turns.length === 0) return null;
  return turns
    .map(({ box, air }) => {
      const [dx, dy] = airOf[air];
      const at = [dx === 0 ? x((box.minX + box.maxX) / 2) : x(dx > 0 ? box.maxX : box.minX), dy === 0 ? y((box.minY + box.maxY) / 2) : y(dy < 0 ? box.maxY : box.minY)] as const; // prettier-ignore
      return arrow(at[0] + 2 * dx, at[1] + 2 * dy, AIR * dx, AIR * dy, 5);
    })
    .join('');
}
/** Turn by turn, as far as figures do not run into each other. */
function turnFigures(turns: Turns, x: Place, y: Place): { readonly key: number; readonly x: number; readonly y: number; readonly text: string }[] {
  const places = turns.map(({ box, air }, i) => {
    const [dx, dy] = airOf[air];
    const [cx, cy] = [x((box.minX + box.maxX) / 2), y((box.minY + box.maxY) / 2)];
    const off = AIR + 10;
    return {
      key: i,
      x: dx === 0 ? cx : x(dx > 0 ? box.maxX : box.minX) + off * dx,
      y: (dy === 0 ? cy : y(dy < 0 ? box.maxY : box.minY) + off * dy) + 4,
      text: `${i + 1}`,
    };
  });
  // the first of a run and whatever has room after it
  return places.reduce<typeof places>((out, p) => (out.every((q) => Math.abs(q.x - p.x) > CLOSE + 2 || Math.abs(q.y - p.y) > CLOSE) ? [...out, p] : out), []);
}

/** Which way the hand goes on every sheet. */
function arrowsOf(step: StepDrawing, sheets: readonly SheetBox[]): string | null {
  const of: Partial<Record<StepDrawing, (b: SheetBox) => string>> = {
    'sign-liner': ({ s, x, y, w, h }) =>
      s.hinge === 'middle'
        ? arrow(x + w / 2 + 8, y + h + BESIDE, 0.36 * w, 0) + arrow(x + w / 2 - 8, y + h + BESIDE, -0.36 * w, 0)
        : arrow(x + w + BESIDE, y + 4, 0, Math.max(14, h - 8)),
    'sign-tape-off': ({ x, y, w, h }) => arrow(x + 6, y + 6, Math.min(0.5 * w, 70), Math.min(h - 12, 24)),
  };
  const draw = of[step];
  return draw ? sheets.map(draw).join('') : null;
}
