import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Masonry, StepDrawing, Wall } from '@yellow-pane/contracts';
import { ceilingBetween, jointsOf, type CornerFigures, type WallBody, type WallCorner, type WallLayout, type WallSide } from '@yellow-pane/core';
import { boundingBox } from '@yellow-pane/core/geometry';
import { HardwareMarks, placeHardware } from './hardware-marks';
import { placeTapes, Tapes, type TapeShown } from './tapes';

/** Room of the wall, px of the drawing: with figures beside it, and without. */
const WITH_FIGURES = { most: 420, left: 62 };
const BARE = { most: 310, left: 38 };
const HIGH = 250;
const TOP = 34;
/** The wall beside it is drawn so deep. */
const DEEP = 26;
/** Joints nearer to each other than this would be a grey field, px. */
const CLOSEST_JOINTS = 3;

/** A wall as one stands before it: its joints, what stands on it, its drops, the walls beside it; or one of its corners seen from above. */
@Component({
  selector: 'yp-wall-drawing',
  imports: [HardwareMarks, Tapes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (above(); as c) {
      <svg viewBox="0 0 300 210" class="block w-full" role="img" [attr.aria-label]="label() + ', its ' + c.side + ' corner from above'">
        <path [attr.d]="c.walls" fill="#CFC8B4" stroke="#56626A" />
        @for (f of c.films; track f.name) {
          <path [attr.d]="f.path" fill="none" stroke="#1C2226" stroke-width="8" stroke-linejoin="round" />
          <path [attr.d]="f.path" fill="none" [attr.stroke]="f.isOwn ? '#F4B400' : '#FFF6DC'" stroke-width="5.5" stroke-linejoin="round" />
        }
        <path [attr.d]="c.leaders" stroke="#1C2226" stroke-width="1" fill="none" />
        @for (t of c.words; track t.text) {
          <text [attr.x]="t.x" [attr.y]="t.y" [attr.text-anchor]="t.anchor" font-size="13" [attr.font-weight]="t.isOwn ? 700 : 400">{{ t.text }}</text>
        }
        <text x="150" y="204" text-anchor="middle" font-size="12" fill="#56626A">from above; films drawn thick</text>
      </svg>
    } @else {
      @let d = drawn();
      <svg [attr.viewBox]="'0 0 ' + (d.wide + 2 * d.left) + ' ' + d.height" class="block w-full" role="img" [attr.aria-label]="label()">
        @for (b of d.beside; track b.side) {
          <polygon [attr.points]="b.points" fill="#EFE9D8" stroke="#BDB6A2" />
          <text [attr.x]="b.x" [attr.y]="b.y" text-anchor="middle" font-size="11" fill="#56626A" [attr.transform]="b.turn">{{ b.text }}</text>
        }
        <clipPath [id]="clipId"><polygon [attr.points]="d.outline" /></clipPath>
        <polygon [attr.points]="d.outline" fill="#FFFEFA" />
        @if (d.joints) {
          <path [attr.d]="d.joints" stroke="#CFC8B4" stroke-width="0.8" fill="none" [attr.clip-path]="'url(#' + clipId + ')'" />
        }
        @for (s of d.drops; track s.number) {
          <rect
            [attr.x]="s.x"
            [attr.y]="s.y"
            [attr.width]="s.w"
            [attr.height]="s.h"
            [attr.fill]="s.fill"
            [attr.fill-opacity]="s.opacity"
            [attr.clip-path]="'url(#' + clipId + ')'"
            stroke="#A97C00"
            stroke-dasharray="5 3"
          />
          <text
            [attr.x]="s.x + s.w / 2"
            [attr.y]="s.textY"
            text-anchor="middle"
            font-size="12"
            fill="#56626A"
            stroke="#FFFEFA"
            stroke-width="3"
            paint-order="stroke"
          >
            {{ s.text }}
          </text>
        }
        @for (l of d.laps; track $index) {
          <rect
            [attr.x]="l.x"
            [attr.y]="l.y"
            [attr.width]="l.w"
            [attr.height]="l.h"
            [attr.clip-path]="'url(#' + clipId + ')'"
            fill="#FFD54F"
            stroke="#1C2226"
          />
        }
        <polygon [attr.points]="d.outline" fill="none" stroke="#1C2226" stroke-width="1.5" />
        <svg:g [ypHardware]="d.hardware" />
        @if (d.line; as y) {
          <path [attr.d]="'M' + (d.left - 6) + ' ' + y + 'H' + (d.left + d.wide + 6)" stroke="#A8431A" stroke-dasharray="8 3 2 3" fill="none" />
        }
        @if (d.plumb; as p) {
          <path [attr.d]="p.path" stroke="#1C2226" stroke-width="2" stroke-dasharray="10 3 2 3" fill="none" />
        }
        <svg:g [ypTapes]="d.tapes" />
        <text [attr.x]="d.left + d.wide / 2" [attr.y]="d.height - 6" text-anchor="middle" font-size="12" fill="#56626A">{{ words() }}</text>
      </svg>
    }
  `,
})
export class WallDrawing {
  private static count = 0;
  protected readonly clipId = `wall-${WallDrawing.count++}`;
  readonly wall = input.required<Pick<Wall, 'hardware' | 'masonry' | 'hungFrom'>>();
  readonly body = input.required<WallBody>();
  readonly corners = input.required<Readonly<Record<WallSide, WallCorner>>>();
  /** Where film lies; null: there is none yet. */
  readonly layout = input<WallLayout | null>(null);
  /** What is told of its corners where they are drawn from above. */
  readonly cornerFigures = input<readonly CornerFigures[]>([]);
  readonly step = input<StepDrawing>('none');
  /** What something does not fit about, by its id. */
  readonly doubtful = input<readonly (string | null)[]>([]);
  readonly tapes = input<readonly TapeShown[]>([]);
  readonly label = input.required<string>();

  private readonly isLevel = computed(() => (this.layout()?.levels.length ?? 0) > 0);
  private readonly isBook = computed(() => this.layout()?.isTurned.some((is) => is) ?? false);
  protected readonly words = computed(() => {
    const words: Partial<Record<StepDrawing, string>> = {
      'wall-plumb': 'the plumb line, where the first drop’s inner edge comes',
      'wall-level': 'the level line, where the first length’s upper edge comes',
      'wall-seam': 'the laps, in yellow',
      'wall-drops': `in this order, from the ${this.isLevel() ? 'foot' : this.wall().hungFrom}${this.isBook() ? '; ↑ head of the roll up, ↓ turned' : ''}`,
    };
    return words[this.step()] ?? `as one stands before it${this.isBook() ? '; ↑ head of the roll up, ↓ turned' : ''}`;
  });

  /** The corner that the step is about, from above; null: the wall from the front. */
  protected readonly above = computed(() => {
    const asked = /^wall-(inside|outside)(-second)?$/.exec(this.step());
    const c = this.cornerFigures().find((x) => x.is === asked?.[1] && x.isFirst === !asked[2]);
    if (!c) return null;
    // drawn for a right corner: this wall runs in from the left, its room below it
    const flip = (x: number) => (c.side === 'right' ? x : 300 - x);
    const path = (...points: [number, number][]) => points.map(([x, y], i) => `${i ? 'L' : 'M'}${flip(x)} ${y}`).join('');
    const text = (x: number, y: number, words: string, isOwn = false) => ({ x: flip(x), y, text: words, isOwn, anchor: 'middle' });
    // beside an upright wall, on the side that is not the room
    const outer = (x: number, y: number, words: string) => ({ ...text(x, y, words), anchor: c.side === 'right' ? 'end' : 'start' });
    const [first, second] = c.isFirst ? [c.own, c.other] : [c.other, c.own];
    if (c.is === 'inside') {
      const walls = `${path([10, 30], [210, 30], [210, 180], [234, 180], [234, 6], [10, 6])}Z`;
      // the first turns round, the second ends a ruler short of the corner, over its return
      const turned = c.isFirst ? path([14, 35], [204, 35], [204, 96]) : path([204, 176], [204, 35], [142, 35]);
      const over = c.isFirst ? path([197, 176], [197, 50]) : path([14, 42], [190, 42]);
      return {
        side: c.side,
        walls,
        leaders: c.isFirst ? path([160, 88], [200, 88]) + path([176, 56], [196, 47]) : path([150, 62], [150, 40]) + path([170, 82], [193, 46]),
        films: [{ name: 'first', path: turned, isOwn: c.isFirst }, { name: 'second', path: over, isOwn: !c.isFirst }], // prettier-ignore
        words: [
          text(92, 24, c.own, true),
          text(266, 110, c.other),
          text(c.isFirst ? 130 : 120, c.isFirst ? 92 : 66, `return ${c.returned}`),
          text(c.isFirst ? 146 : 150, c.isFirst ? 60 : 92, `ruler ${c.ruler}`),
          text(96, 150, `1st: ${first}`, c.isFirst),
          text(96, 170, `2nd: ${second}`, !c.isFirst),
        ],
      };
    }
    const walls = `${path([10, 120], [170, 120], [170, 14], [146, 14], [146, 96], [10, 96])}Z`;
    const round = c.isFirst ? path([14, 126], [176, 126], [176, 62]) : path([176, 18], [176, 126], [112, 126]);
    const over = c.isFirst ? path([183, 90], [183, 18]) : path([14, 133], [140, 133]);
    return {
      side: c.side,
      walls,
      leaders: c.isFirst ? path([214, 112], [181, 112]) + path([214, 76], [187, 76]) : path([150, 145], [150, 132]),
      films: [{ name: 'first', path: round, isOwn: c.isFirst }, { name: 'second', path: over, isOwn: !c.isFirst }], // prettier-ignore
      words: [
        text(78, 113, c.own, true),
        outer(140, 40, c.other),
        text(c.isFirst ? 240 : 150, c.isFirst ? 116 : 156, `round ${c.returned}`),
        text(c.isFirst ? 240 : 90, c.isFirst ? 80 : 156, c.isFirst ? `${c.lap} over` : ''),
        text(150, 172, `1st: ${first}`, c.isFirst),
        text(150, 188, `2nd: ${second}, ${c.lap} over`, !c.isFirst),
      ].filter((t) => t.text),
    };
  });

  protected readonly drawn = computed(() => {
    const [body, { hardware, masonry, hungFrom }, layout, step] = [this.body(), this.wall(), this.layout(), this.step()];
    // figures need room beside the wall; a step on a phone none
    const { most, left } = this.tapes().length ? WITH_FIGURES : BARE;
    const box = boundingBox(body.outline);
    const [wide, high] = [box.maxX - box.minX, box.maxY - box.minY];
    const k = Math.min(most / wide, HIGH / high);
    const [w, h] = [wide * k, high * k];
    const x = (mm: number) => left + mm * k;
    const y = (mm: number) => TOP + h - (mm - box.minY) * k;
    const points = (list: readonly { readonly x: number; readonly y: number }[]) => list.map((p) => `${x(p.x - box.minX)},${y(p.y)}`).join(' ');
    const foot = y(box.minY);
    const levels = layout?.levels ?? [];
    const drops = (layout?.drops ?? []).map((d, i) => {
      const level = levels[i];
      // from the foot of the wall; what hangs goes from ceiling to floor
      const heights = level ? { low: level.lowMm - box.minY, high: level.highMm - box.minY } : { low: 0, high };
      return { from: Math.max(d.fromMm, 0), to: Math.min(d.toMm, wide), low: Math.max(0, heights.low), high: Math.min(high, heights.high), number: i + 1, isTurned: layout!.isTurned[i]! };
    }); // prettier-ignore
    const isBook = this.isBook();
    const laps = drops.slice(1).map((d, i) => {
      if (levels.length) return { ...d, high: drops[i]!.high };
      return hungFrom === 'left' ? { ...d, to: drops[i]!.to } : { ...d, from: drops[i]!.from };
    });
    const first = drops[0];
    const plumbX = first && x(hungFrom === 'left' ? first.to : first.from);
    const upOf = (mm: number) => TOP + h - mm * k;
    const text = placeTapes(this.tapes());
    const isTaped = (start: string) => this.tapes().some((t) => t.key.startsWith(start));
    const hasLine = isTaped('up') || isTaped('down');
    const line = TOP + 0.55 * h;
    // under a ceiling that breaks there is room below the level line only
    const across = body.isBroken.ceiling ? (line + foot) / 2 : TOP + 0.42 * h;
    const lineAt = (share: number) => left + share * w;
    const [outer, inner] = [14, 40];
    return {
      left,
      wide: w,
      height: foot + (this.tapes().length ? 46 : 28),
      outline: points(body.outline),
      beside: (['left', 'right'] as const).flatMap((side) => {
        const c = this.corners()[side];
        if (c.is === 'stop') return [];
        const [from, dir] = side === 'left' ? [left, -1] : [left + w, 1];
        // a wall that comes towards one opens outwards, one that goes away closes
        const drop = c.is === 'inside' ? 14 : -10;
        const end = side === 'left' ? 0 : -1;
        const [high, low] = [y(body.ceiling.at(end)!.y), y(body.floor.at(end)!.y)];
        const ends = [`${from},${high}`, `${from + dir * DEEP},${high - drop}`, `${from + dir * DEEP},${low + drop}`, `${from},${low}`];
        const tx = from + dir * (DEEP - 8);
        return [{ side, points: ends.join(' '), x: tx, y: (high + low) / 2, turn: `rotate(-90 ${tx} ${(high + low) / 2})`, text: `${c.is}${c.beside ? `: ${c.beside.name}` : ''}` }]; // prettier-ignore
      }),
      joints: this.jointLines(masonry, wide, high, x, (mm) => y(body.floor[0]!.y + mm), k),
      drops: drops.map((d) => {
        const isNow = step === 'wall-drops' || step === 'wall-plumb' || step === 'wall-level' ? d.number === 1 : false;
        // a narrow one has room for its number only
        const name = levels.length ? `length ${d.number}` : (d.to - d.from) * k < (isBook ? 56 : 42) ? `${d.number}` : `drop ${d.number}`;
        const hungTextY = body.isBroken.ceiling ? foot - 9 : y(ceilingBetween(body, (d.from + d.to) / 2, (d.from + d.to) / 2 + 1)[0]!.y) + 16;
        return { number: d.number, text: drops.length > 1 ? `${name}${isBook ? (d.isTurned ? ' ↓' : ' ↑') : ''}` : '', x: x(d.from), y: upOf(d.high), w: (d.to - d.from) * k, h: (d.high - d.low) * k, textY: levels.length ? (upOf(d.high) + upOf(d.low)) / 2 + 4 : hungTextY, fill: isNow ? '#FFE9A8' : '#FFF6DC', opacity: step === 'none' ? 0.35 : 0.75 }; // prettier-ignore
      }),
      laps:
        step === 'wall-seam'
          ? laps.map((l) => ({ x: x(l.from), y: upOf(l.high), w: Math.max(3, (l.to - l.from) * k), h: Math.max(3, (l.high - l.low) * k) }))
          : [],
      hardware: placeHardware(hardware, { left, foot, scale: k, doubts: this.doubtful() }),
      line: hasLine ? line : null,
      plumb: step === 'wall-plumb' && plumbX ? { path: `M${plumbX} ${TOP - 10}V${foot + 10}` } : step === 'wall-level' && first ? { path: `M${left - 10} ${upOf(first.high)}H${left + w + 10}` } : null, // prettier-ignore
      tapes: [
        ...text('widthTop', left + w / 2, TOP - 6),
        ...text('widthMiddle', left + 0.36 * w, across, { line: `M${left} ${across + 3}H${left + w}` }),
        ...text('widthBottom', left + w / 2, foot + 15),
        ...text('heightLeft', left - outer - (this.corners().left.is === 'stop' ? 0 : DEEP - 8), TOP + h / 2, { isUpright: true }),
        ...text('heightMiddle', left + 0.5 * w, TOP + 0.3 * h, { isUpright: true, line: `M${left + 0.5 * w} ${TOP}V${foot}` }),
        ...text('heightRight', left + w + outer + 8 + (this.corners().right.is === 'stop' ? 0 : DEEP - 8), TOP + h / 2, { isUpright: true }),
        ...text('upLeft', lineAt(0) + inner - 12, line - 8),
        ...text('downLeft', lineAt(0) + inner - 12, line + 17),
        ...text('upMiddle', lineAt(0.5) + 30, line - 8),
        ...text('downMiddle', lineAt(0.5) + 30, line + 17),
        ...text('upRight', lineAt(1) - inner + 12, line - 8),
        ...text('downRight', lineAt(1) - inner + 12, line + 17),
        ...text('diagonalDown', left + 0.78 * w, TOP + 0.84 * h, { line: `M${left} ${TOP}L${left + w} ${foot}` }),
        ...text('diagonalUp', left + 0.78 * w, TOP + 0.2 * h, { line: `M${left} ${foot}L${left + w} ${TOP}` }),
        ...text('wanderLeft', left + 6, foot + 15, { before: 'gap ' }),
        ...text('wanderRight', left + w - 6, foot + 15, { before: 'gap ' }),
      ],
    };
  });

  /** Joints as one path; null: none, or too close to be seen. */
  private jointLines(m: Masonry | null, wide: number, high: number, x: (mm: number) => number, y: (mm: number) => number, k: number): string | null {
    if (!m || Math.min(m.pitchUpMm, m.pitchAcrossMm) * k < CLOSEST_JOINTS) return null;
    const { bedsMm, courses } = jointsOf(m, { widthMm: wide, heightMm: high });
    return [
      ...bedsMm.map((b) => `M${x(0)} ${y(b)}H${x(wide)}`),
      ...courses.flatMap((c) => c.headsMm.map((at) => `M${x(at)} ${y(c.lowMm)}V${y(c.highMm)}`)),
    ].join('');
  }
}
