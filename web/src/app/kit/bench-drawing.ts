import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { BenchCut, Piece } from '@yellow-pane/contracts';
import { isNotch } from '@yellow-pane/core';
import { flatten } from '@yellow-pane/core/geometry';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';

/** Room of the whole piece, of one that lies, and of an enlarged end, px of the drawing. */
const WHOLE = { width: 150, height: 236 };
const LYING = { width: 430, height: 150 };
/** A strip is drawn at least so high, and says so. */
const LEAST_HIGH = 54;
const ENLARGED = { width: 216, height: 84 };
const LEFT = 16;
const TOP = 22;
/** Film cuts lower than this share of the piece are drawn once more, enlarged. */
const SMALL_SHARE = 0.12;

/** What is cut when the film lies: the corner of a groove, Vs, a corner of the edges; anything else is no corner. */
function cornerKind({ words }: BenchCut): 'groove' | 'vs' | 'edges' | null {
  if (/ slit from its corner outwards/.test(words)) return 'groove';
  if (/ Vs?[ ,]/.test(words)) return 'vs';
  return /^(Top|Bottom|Back|Front) /.test(words) ? 'edges' : null;
}

/** How each layer is drawn; what is cut when the film lies is thinner and dotted. */
interface Look {
  readonly stroke: string;
  readonly width: number;
  readonly dash: string | null;
}
const looks = { liner: { stroke: '#3E6E8E', width: 1.2, dash: '6 3' }, mark: { stroke: '#56626A', width: 1, dash: '1 2.5' }, film: { stroke: '#1C2226', width: 2, dash: null } } as const; // prettier-ignore
const LATER: Look = { stroke: '#A8431A', width: 1.4, dash: '5 2 1 2' };
const lookOf = (c: BenchCut): Look => (c.later ? LATER : looks[c.layer]);
/** Where a cut is, by its words. */
const placeOf = (c: BenchCut): string => c.words.split(':')[0]!;

interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}
interface DrawnCut {
  readonly number: number;
  readonly look: Look;
  readonly points: string;
  readonly x: number;
  readonly y: number;
}

/** A way with its arcs, as straight sides. */
const wayOf = (c: BenchCut): { readonly xMm: number; readonly yMm: number }[] =>
  flatten(c.path.map((p) => ({ x: p.xMm, y: p.yMm, bulge: p.bulge }))).map((p) => ({ xMm: p.x, yMm: p.y }));

function boxOf(cut: BenchCut): Box {
  const way = wayOf(cut);
  const [xs, ys] = [way.map((p) => p.xMm), way.map((p) => p.yMm)];
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}

/** A piece as the bench cuts it: film cuts drawn through, liner-only cuts dashed and named, numbered in the order they are made; small ends once more, enlarged. */
@Component({
  selector: 'yp-bench-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height" class="block w-full" role="img" [attr.aria-label]="label()">
      <defs>
        <clipPath [id]="clipId">
          @for (e of d.ends; track $index) {
            <rect [attr.x]="e.x" [attr.y]="e.y" [attr.width]="e.w" [attr.height]="e.h" />
          }
        </clipPath>
      </defs>
      <rect [attr.x]="d.x" [attr.y]="d.y" [attr.width]="d.w" [attr.height]="d.h" fill="#FFE9A8" stroke="#1C2226" stroke-width="1.5" />
      <text [attr.x]="d.x + d.w / 2" [attr.y]="d.y - 7" text-anchor="middle" class="figure" font-size="11">{{ f(piece().widthMm) }}</text>
      <text
        [attr.x]="d.x - 5"
        [attr.y]="d.y + d.h / 2"
        text-anchor="middle"
        class="figure"
        font-size="11"
        [attr.transform]="'rotate(-90 ' + (d.x - 5) + ' ' + (d.y + d.h / 2) + ')'"
      >
        {{ f(piece().heightMm) }}
      </text>
      <text [attr.x]="d.topX" [attr.y]="d.y + 15" font-size="10" fill="#56626A">▲ {{ upName() }}</text>
      @if (d.stretched; as words) {
        <text [attr.x]="d.x" [attr.y]="d.y + d.h + 14" font-size="10" fill="#56626A">{{ words }}</text>
      }
      @for (c of d.cuts; track c.number) {
        <polyline [attr.points]="c.points" fill="none" [attr.stroke]="c.look.stroke" [attr.stroke-width]="c.look.width" [attr.stroke-dasharray]="c.look.dash" />
        <circle [attr.cx]="c.x" [attr.cy]="c.y" r="7.5" fill="#FFFEFA" [attr.stroke]="c.look.stroke" />
        <text [attr.x]="c.x" [attr.y]="c.y + 3.5" text-anchor="middle" font-size="10" font-weight="700">{{ c.number }}</text>
      }
      @for (e of d.ends; track $index) {
        <text [attr.x]="e.x" [attr.y]="e.y - 5" font-size="10" fill="#56626A">{{ e.name }}, enlarged</text>
        <rect [attr.x]="e.x" [attr.y]="e.y" [attr.width]="e.w" [attr.height]="e.h" fill="#FFFEFA" stroke="#BDB6A2" />
        <g [attr.clip-path]="'url(#' + clipId + ')'">
          <rect [attr.x]="e.filmX" [attr.y]="e.filmY" [attr.width]="e.filmW" [attr.height]="e.filmH" fill="#FFE9A8" stroke="#1C2226" stroke-width="1" />
          @for (c of e.cuts; track c.number) {
            <polyline
              [attr.points]="c.points"
              [attr.fill]="c.isHole ? '#FFFEFA' : 'none'"
              [attr.stroke]="c.look.stroke"
              [attr.stroke-width]="c.look.width * 1.25"
              [attr.stroke-dasharray]="c.look.dash"
            />
          }
        </g>
        @for (t of e.words; track $index) {
          <text [attr.x]="t.x" [attr.y]="t.y" text-anchor="middle" class="figure" font-size="11" stroke="#FFFEFA" stroke-width="3" paint-order="stroke">
            {{ t.text }}
          </text>
        }
      }
    </svg>
  `,
})
export class BenchDrawing {
  readonly piece = input.required<Pick<Piece, 'label' | 'widthMm' | 'heightMm' | 'bench'>>();
  readonly units = input.required<UnitSystem>();
  private static count = 0;
  protected readonly clipId = `bench-clip-${BenchDrawing.count++}`;
  protected readonly cuts = computed(() => this.piece().bench ?? []);
  protected readonly label = computed(() => `${this.piece().label} at the bench, liner up: ${this.cuts().map((c, i) => `${i + 1}. ${c.words}`).join(' ')}`); // prettier-ignore
  /** What lies at its upper end: of a piece seen from above its back. */
  protected readonly upName = computed(() => (/ from the back, /.test(this.cuts()[0]?.words ?? '') ? 'back' : 'top'));
  protected f = (mm: number): string => formatLength(mm, this.units());

  protected readonly drawn = computed(() => {
    const { widthMm, heightMm } = this.piece();
    const cuts = this.cuts();
    const small = cuts.filter((c) => isNotch(c) && boxOf(c).y1 - boxOf(c).y0 < SMALL_SHARE * heightMm);
    const isLying = widthMm > 1.2 * heightMm;
    const room = isLying ? LYING : WHOLE;
    const scale = Math.min(room.width / widthMm, room.height / heightMm);
    const up = Math.max(scale, LEAST_HIGH / heightMm);
    const [w, h] = [widthMm * scale, heightMm * up];
    const at = (x: number, y: number): [number, number] => [LEFT + x * scale, TOP + (heightMm - y) * up];
    const whole = cuts.map((c, i): DrawnCut => {
      const box = boxOf(c);
      // numbers of what stands side by side one above the other
      const isHigh = box.y0 > heightMm / 2;
      const middle = at((box.x0 + box.x1) / 2, c.layer === 'liner' ? heightMm * (0.62 - 0.14 * i) : (box.y0 + box.y1) / 2);
      // beside its end of the strip, clear of the measures
      if (c.layer === 'film' && !c.later) middle.splice(0, 2, at(box.x1, 0)[0] + 12, middle[1] + (isHigh ? 10 : -10));
      const isLine = box.y1 - box.y0 < heightMm / 2;
      if (c.layer === 'mark') middle.splice(0, 2, at(isLine ? 0.78 * widthMm : box.x0, 0)[0], at(0, isLine ? box.y1 : 0.42 * heightMm)[1]);
      // towards the middle of the piece, clear of its own lines
      if (c.later)
        middle.splice(
          0,
          2,
          middle[0] + (box.x0 + box.x1 < widthMm ? 13 : -13),
          middle[1] + (isHigh ? 9 : -9) * (cuts.findIndex((x) => placeOf(x) === placeOf(c)) === i ? 1 : -1),
        );
      return {
        number: i + 1,
        look: lookOf(c),
        points: wayOf(c)
          .map((p) => at(p.xMm, p.yMm).join())
          .join(' '),
        x: middle[0],
        y: middle[1],
      };
    });
    // beside a piece that stands, below one that lies
    const seatOf = (i: number): [x: number, y: number] =>
      isLying
        ? [LEFT + (i % 2) * (LYING.width - ENLARGED.width), TOP + h + (up > 1.05 * scale ? 46 : 34) + Math.floor(i / 2) * (ENLARGED.height + 44)]
        : [LEFT + WHOLE.width + 26, TOP + 14 + i * (ENLARGED.height + 44)];
    const ends = small
      .slice()
      .sort((a, b) => boxOf(b).y0 - boxOf(a).y0)
      .map((c, i) => this.enlarged(c, cuts, ...seatOf(i)))
      .concat(this.laterShown(cuts).map((own, i) => this.enlargedLater(own, cuts, ...seatOf(small.length + i))));
    // clear of the numbers of what is marked there
    const topX = LEFT + (cuts.some((c) => c.layer === 'mark') ? w / 2 - 14 : 5);
    const below = isLying ? TOP + h + (ends.length ? (up > 1.05 * scale ? 46 : 34) + Math.ceil(ends.length / 2) * (ENLARGED.height + 44) - 26 : 8) : Math.max(TOP + h + 8, ends.length * (ENLARGED.height + 44) + TOP); // prettier-ignore
    const times = up / scale;
    const stretched = times > 1.05 ? `drawn ${times < 10 ? times.toFixed(1).replace('.0', '') : Math.round(times)} times as high` : null;
    return { topX, stretched, x: LEFT, y: TOP, w, h, cuts: whole, ends, width: isLying ? LEFT + LYING.width + 8 : LEFT + WHOLE.width + 34 + ENLARGED.width, height: below + (stretched && !ends.length ? 14 : 0) }; // prettier-ignore
  });

  /** The end of the piece round one film cut, with its measures. */
  private enlarged(cut: BenchCut, all: readonly BenchCut[], x: number, y: number) {
    const { heightMm } = this.piece();
    const box = boxOf(cut);
    const isTop = box.y1 > heightMm / 2;
    const depth = box.y1 - box.y0;
    const [wide, high] = [(box.x1 - box.x0) * 1.3, Math.max(depth * 2.6, ((box.x1 - box.x0) * 1.3 * ENLARGED.height) / ENLARGED.width)];
    const scale = Math.min(ENLARGED.width / wide, ENLARGED.height / high);
    const left = (box.x0 + box.x1) / 2 - ENLARGED.width / scale / 2;
    // a little of the air beyond the end
    const air = 12 / scale;
    const top = isTop ? heightMm + air : ENLARGED.height / scale - air;
    const at = (mx: number, my: number): [number, number] => [x + (mx - left) * scale, y + (top - my) * scale];
    const flat = [...cut.path].sort((a, b) => (isTop ? a.yMm - b.yMm : b.yMm - a.yMm)).slice(0, 2).map((p) => p.xMm); // prettier-ignore
    const [from, to] = [Math.min(...flat), Math.max(...flat)];
    const level = isTop ? box.y0 : box.y1;
    const inside = at((from + to) / 2, level);
    const words = [
      { text: this.f(to - from), x: inside[0], y: inside[1] + (isTop ? 16 : -8) },
      { text: this.f(depth), x: at(to, 0)[0] + 22 + 0.5 * depth * scale, y: at(0, isTop ? heightMm - depth / 2 : depth / 2)[1] + 4 },
      { text: `45°`, x: at(from, 0)[0] - 22 - 0.5 * depth * scale, y: at(0, isTop ? heightMm - depth / 2 : depth / 2)[1] + 4 },
    ];
    const drawn = all
      .map((c, i) => ({
        number: i + 1,
        look: lookOf(c),
        isHole: c.layer === 'film',
        points: wayOf(c)
          .map((p) => at(p.xMm, p.yMm).join())
          .join(' '),
      }))
      .sort((a, b) => Number(b.isHole) - Number(a.isHole));
    const edge = at(0, isTop ? heightMm : 0)[1];
    return { name: isTop ? 'Top end' : 'Foot end', x, y, w: ENLARGED.width, h: ENLARGED.height, filmX: x - 5, filmW: ENLARGED.width + 10, filmY: isTop ? edge : y - 5, filmH: isTop ? ENLARGED.height : edge - y + 5, cuts: drawn, words }; // prettier-ignore
  }

  /** One corner of a groove, one of two edges and one of Vs stand for all of their kind. */
  private laterShown(cuts: readonly BenchCut[]): BenchCut[][] {
    const later = cuts.filter((c) => c.later);
    const first = (['groove', 'edges', 'vs'] as const).map((kind) => later.find((c) => cornerKind(c) === kind));
    return first.flatMap((c) => (c ? [later.filter((x) => placeOf(x) === placeOf(c))] : []));
  }

  /** A corner that is cut when the film lies, with the measure that matters: the square that falls out, or the tab that goes round. */
  private enlargedLater(own: readonly BenchCut[], all: readonly BenchCut[], x: number, y: number) {
    const { widthMm, heightMm } = this.piece();
    const points = own.flatMap((c) => c.path);
    const [x0, x1] = [Math.min(...points.map((p) => p.xMm)), Math.max(...points.map((p) => p.xMm))];
    const [y0, y1] = [Math.min(...points.map((p) => p.yMm)), Math.max(...points.map((p) => p.yMm))];
    const scale = Math.min(ENLARGED.width / (2.2 * Math.max(1, x1 - x0)), ENLARGED.height / (1.7 * Math.max(1, y1 - y0)));
    const [cx, cy] = [(x0 + x1) / 2, (y0 + y1) / 2];
    const at = (mx: number, my: number): [number, number] => [x + ENLARGED.width / 2 + (mx - cx) * scale, y + ENLARGED.height / 2 - (my - cy) * scale];
    const [filmX, filmY] = at(0, heightMm);
    const kind = cornerKind(own[0]!);
    const isGroove = kind === 'groove';
    const vWide = / (\S+( \S+)?) wide/.exec(own[0]!.words)?.[1]?.replace('each ', '');
    const square = own[0]!.path.slice(1);
    const side = isGroove
      ? Math.max(...square.map((p) => p.xMm)) - Math.min(...square.map((p) => p.xMm))
      : own.length > 1
        ? Math.abs(own[1]!.path[0]!.yMm - own[1]!.path[1]!.yMm)
        : null;
    const to = own.at(-1)!.path[0]!;
    const isLeft = cx < widthMm / 2;
    const [tx, ty] = isGroove ? at((Math.max(...square.map((p) => p.xMm)) + Math.min(...square.map((p) => p.xMm))) / 2, (Math.max(...square.map((p) => p.yMm)) + Math.min(...square.map((p) => p.yMm))) / 2) : at(to.xMm, to.yMm); // prettier-ignore
    const words =
      kind === 'vs'
        ? [{ text: `V ${vWide}`, x: x + ENLARGED.width / 2, y: y + ENLARGED.height - 7 }]
        : side === null
          ? []
          : [{ text: isGroove ? `${this.f(side)} out` : `tab ${this.f(side)}`, x: isGroove ? tx + (isLeft ? -46 : 46) : tx + (isLeft ? 40 : -40), y: ty + 4 }];
    const drawn = all
      .filter((c) => c.layer === 'mark' || own.includes(c))
      .map((c) => ({
        number: all.indexOf(c) + 1,
        look: lookOf(c),
        isHole: false,
        points: wayOf(c)
          .map((p) => at(p.xMm, p.yMm).join())
          .join(' '),
      }));
    return {
      name: placeOf(own[0]!),
      x,
      y,
      w: ENLARGED.width,
      h: ENLARGED.height,
      filmX,
      filmW: widthMm * scale,
      filmY,
      filmH: heightMm * scale,
      cuts: drawn,
      words,
    };
  }
}
