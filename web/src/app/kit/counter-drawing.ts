import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Counter, CounterCorner, CornerSchool, StepDrawing } from '@yellow-pane/contracts';
import { counterCornerNames, counterCorners, counterSides, type CounterBody, type CounterSideName } from '@yellow-pane/core';
import { arcOf, boundingBox, type ArcPath } from '@yellow-pane/core/geometry';
import { CornerFold } from './corner-fold';
import { EdgeBands } from './edge-bands';
import { HardwareMarks, placeHardware } from './hardware-marks';
import { placeTapes, Tapes, type TapeShown } from './tapes';

/** Room of the top, px of the drawing: with figures beside it, and without. */
const WITH_FIGURES = { most: 400, left: 90, top: 48 };
const BARE = { most: 300, left: 22, top: 24 };
const HIGH = 250;
/** Film over an edge, and a wall, are drawn so deep, whatever they are. */
const BAND = 10;
const WALL = 12;

/** What is told of the strip of an edge, as lengths in words. */
export interface EdgeFigures {
  readonly onTop: string;
  readonly edge: string;
  readonly under: string;
  readonly ruler: string;
}

/** A counter top from above, as one stands at its front: its sides, its rounds, what stands on it, and the film as far as the step has it; or its edge cut through. */
@Component({
  selector: 'yp-counter-drawing',
  imports: [CornerFold, EdgeBands, HardwareMarks, Tapes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (step() === 'counter-corner') {
      <yp-corner-fold [school]="school()" [label]="label()" />
    } @else if (step() === 'counter-strip') {
      @let e = edge();
      <svg viewBox="0 0 320 190" class="block w-full" role="img" [attr.aria-label]="label() + ', its edge cut through'">
        <rect x="20" y="60" width="180" height="60" fill="#CFC8B4" stroke="#56626A" />
        <path d="M126 55H206V125H140" fill="none" stroke="#1C2226" stroke-width="8" stroke-linejoin="round" />
        <path d="M126 55H206V125H140" fill="none" stroke="#F4B400" stroke-width="5.5" stroke-linejoin="round" />
        <path d="M20 46H186" fill="none" stroke="#1C2226" stroke-width="8" />
        <path d="M20 46H186" fill="none" stroke="#FFF6DC" stroke-width="5.5" />
        <path d="M186 22V40M206 22V48M186 28H206" stroke="#1C2226" fill="none" />
        <text x="196" y="17" text-anchor="middle" font-size="13" font-weight="700">{{ e?.ruler }}</text>
        <text x="60" y="34" font-size="13">the top, last</text>
        <text x="134" y="78" font-size="13">{{ e?.onTop }}</text>
        <text x="218" y="94" font-size="13" font-weight="700">edge {{ e?.edge }}</text>
        <text x="134" y="148" font-size="13">{{ e?.under }} underneath</text>
        <text x="110" y="96" text-anchor="middle" font-size="12" fill="#56626A">top</text>
        <text x="160" y="182" text-anchor="middle" font-size="12" fill="#56626A">cut through; films drawn thick, the strip of the edge in yellow</text>
      </svg>
    } @else if (step() === 'counter-round') {
      @let r = roundOne();
      <svg viewBox="0 0 260 236" class="block w-full" role="img" [attr.aria-label]="label() + ', a round corner from above'">
        <path d="M20 20H150V80A70 70 0 0 1 80 150H20Z" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
        <path d="M150 20V80A70 70 0 0 1 80 150H20V174H80A94 94 0 0 0 174 80V20Z" fill="#F6D98A" stroke="#A97C00" />
        <path d="M174 20V80A94 94 0 0 1 80 174H20V206H80A126 126 0 0 0 206 80V20Z" fill="#FFF6DC" stroke="#A97C00" stroke-dasharray="4 3" />
        <path [attr.d]="r.vs" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.4" />
        <path d="M112 112L140 140m-10-1l10 1l-1-10" fill="none" stroke="#1C2226" stroke-width="2" />
        <text x="76" y="86" text-anchor="middle" font-size="12">top</text>
        <text x="48" y="167" text-anchor="middle" font-size="11">edge</text>
        <text x="48" y="195" text-anchor="middle" font-size="11">underneath</text>
        <text x="130" y="230" text-anchor="middle" font-size="12" fill="#56626A">{{ r.words }}</text>
      </svg>
    } @else {
      @let d = drawn();
      <svg [attr.viewBox]="'0 0 ' + d.width + ' ' + d.height" class="block w-full" role="img" [attr.aria-label]="label()">
        @for (w of d.walls; track w.side) {
          <path [attr.d]="w.hatch" stroke="#56626A" fill="none" />
          <path [attr.d]="w.line" stroke="#1C2226" stroke-width="2" fill="none" />
        }
        @for (j of d.joints; track j.side) {
          <rect [attr.x]="j.x" [attr.y]="j.y" [attr.width]="j.w" [attr.height]="j.h" fill="#EFE9D8" stroke="#BDB6A2" stroke-dasharray="3 2" />
        }
        <svg:g [ypEdgeBands]="d.bands" />
        <path [attr.d]="d.outline" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
        @if (d.film; as film) {
          <clipPath [id]="clipId"><rect [attr.x]="film.x" y="0" [attr.width]="film.w" [attr.height]="d.height" /></clipPath>
          <path [attr.d]="d.outline" fill="#FFE9A8" stroke="#A97C00" [attr.clip-path]="'url(#' + clipId + ')'" />
        }
        @if (d.lap; as l) {
          <path [attr.d]="l" stroke="#1C2226" stroke-width="7" fill="none" />
          <path [attr.d]="l" stroke="#FFD54F" stroke-width="5" fill="none" />
        }
        @for (x of d.grain; track $index) {
          <path [attr.d]="x" fill="none" stroke="#A97C00" stroke-width="1.2" />
        }
        <svg:g [ypHardware]="d.hardware" />
        @if (d.strokes; as s) {
          <path [attr.d]="s" stroke="#1C2226" stroke-width="1.6" fill="none" />
        }
        <svg:g [ypTapes]="d.tapes" />
        <text [attr.x]="d.middle" [attr.y]="d.height - 6" text-anchor="middle" font-size="13" fill="#56626A">{{ words() }}</text>
      </svg>
    }
  `,
})
export class CounterDrawing {
  private static drawings = 0;
  readonly counter = input.required<Pick<Counter, 'sides' | 'hardware' | 'grain'>>();
  readonly body = input.required<CounterBody>();
  readonly step = input<StepDrawing>('none');
  readonly school = input<CornerSchool>('relief');
  /** The end that is tacked first. */
  readonly first = input<'left' | 'right'>('left');
  readonly edge = input<EdgeFigures | null>(null);
  /** Rounds that film is pulled over, with the Vs underneath. */
  readonly rounds = input<readonly { readonly corner: CounterCorner; readonly vs: number }[]>([]);
  readonly doubtful = input<readonly (string | null)[]>([]);
  readonly tapes = input<readonly TapeShown[]>([]);
  readonly label = input.required<string>();
  protected readonly clipId = `counter-film-${CounterDrawing.drawings++}`;

  protected readonly words = computed(() => {
    const words: Partial<Record<StepDrawing, string>> = {
      'counter-end': `this end first: its liner is sliced off`,
      'counter-top': 'from the middle out, to front and back',
      'counter-edges': 'over the edges in yellow',
      'counter-seam': 'the lap, in yellow',
    };
    return words[this.step()] ?? 'from above; you stand at its front, below';
  });

  /** One round with as many Vs as it has; all are alike. */
  protected readonly roundOne = computed(() => {
    const rounds = this.rounds();
    const count = rounds[0]?.vs ?? 0;
    const at = (angle: number, radius: number) => `${80 + radius * Math.cos(angle)} ${80 + radius * Math.sin(angle)}`;
    const half = count ? Math.PI / count / 8 : 0;
    const vs = Array.from({ length: count }, (_, k) => ((k + 0.5) / count) * (Math.PI / 2)).map(
      (t) => `M${at(t - half, 126)}L${at(t, 95)}L${at(t + half, 126)}Z`,
    );
    return {
      vs: vs.join(''),
      words: `${rounds.map((r) => counterCornerNames[r.corner]).join(', ')}: straight down, warm; ${count ? `${count} Vs, none on the edge` : 'nothing underneath'}`,
    };
  });

  protected readonly drawn = computed(() => {
    const [body, { sides, hardware, grain }, step] = [this.body(), this.counter(), this.step()];
    // figures need room beside the top; a step on a phone none
    const { most, left, top } = this.tapes().length ? WITH_FIGURES : BARE;
    const box = boundingBox(Object.values(body.corners));
    const [wide, deep] = [box.maxX - box.minX, box.maxY - box.minY];
    const k = Math.min(most / wide, HIGH / deep);
    const [w, h] = [wide * k, deep * k];
    const x = (mm: number) => left + (mm - box.minX) * k;
    const y = (mm: number) => top + h - (mm - box.minY) * k;
    const [right, foot] = [left + w, top + h];
    const place: Record<CounterSideName, { x: number; y: number; w: number; h: number }> = {
      front: { x: left, y: foot, w, h: BAND },
      back: { x: left, y: top - BAND, w, h: BAND },
      left: { x: left - BAND, y: top, w: BAND, h },
      right: { x: right, y: top, w: BAND, h },
    };
    const of = (...is: Counter['sides']['front'][]) => counterSides.filter((s) => is.includes(sides[s]));
    // a band ends where its round begins
    const inset = (side: CounterSideName) => {
      const i = counterSides.indexOf(side);
      const r = (c: CounterCorner) => body.radiusMm[c] * k;
      const [from, to] = [r(counterCorners[i]!), r(counterCorners[(i + 1) % 4]!)];
      const b = place[side];
      if (side === 'front') return { ...b, x: b.x + from, w: b.w - from - to };
      if (side === 'back') return { ...b, x: b.x + to, w: b.w - from - to };
      if (side === 'right') return { ...b, y: b.y + to, h: b.h - from - to };
      return { ...b, y: b.y + from, h: b.h - from - to };
    };
    const text = placeTapes(this.tapes());
    const [mid, middle] = [left + w / 2, top + h / 2];
    // from corner to corner it is taped over what is there
    const tip = (c: CounterCorner) => {
      const [p, r] = [body.corners[c], body.radiusMm[c]];
      const gap = r * (1 / Math.cos(body.turnRad[c] / 2) - 1);
      const to = { x: (box.minX + box.maxX) / 2 - p.x, y: (box.minY + box.maxY) / 2 - p.y };
      const d = Math.hypot(to.x, to.y) || 1;
      return `${x(p.x + (to.x / d) * gap)} ${y(p.y + (to.y / d) * gap)}`;
    };
    const first = this.first();
    const share = step === 'counter-end' ? Math.max(0.06, 24 / w) : step === 'counter-top' ? 0.62 : step === 'counter-edges' || step === 'counter-seam' ? 1 : 0;
    const film = share > 0 ? { x: first === 'left' ? 0 : right - share * w, w: first === 'left' ? left + share * w : 2 * most } : null;
    // arrows lie at the front, above its rounds where both are round: in a round table across its middle
    const grainY = Math.max(middle + 11, foot - k * Math.min(body.radiusMm.frontLeft, body.radiusMm.frontRight));
    const strokeAt = [0.15, 0.38].map((f) => (first === 'left' ? left + f * w : right - f * w));
    const isWall = (side: CounterSideName) => sides[side] === 'wall';
    return {
      width: left * 2 + w,
      height: foot + (isWall('front') || of('edge', 'return', 'strip', 'joint').includes('front') ? BAND : 0) + (this.tapes().length ? 48 : 28),
      middle: mid,
      outline: svgOf(body.path, x, y, k),
      walls: of('wall').map((side) => ({ side, ...wallAt(side, place[side]) })),
      joints: of('joint').map((side) => ({ side, ...place[side] })),
      bands: of('edge', 'return', 'strip').map((side) => ({ side, ...inset(side), isReturn: sides[side] === 'return', isStrip: sides[side] === 'strip', isNow: step === 'counter-edges' })), // prettier-ignore
      film,
      lap: step === 'counter-seam' ? (grain === 'along' ? `M${left} ${middle}H${right}` : `M${mid} ${top}V${foot}`) : null,
      strokes:
        step === 'counter-top' ? strokeAt.map((s) => `M${s} ${middle}v${0.36 * h}m-4-7l4 7l4-7M${s} ${middle}v${-0.36 * h}m-4 7l4-7l4 7`).join('') : null,
      grain: [0.28, 0.72].map((f) =>
        grain === 'along' ? `M${left + f * w - 14} ${grainY - 11}h28m-6-3l6 3l-6 3` : `M${left + f * w} ${grainY - 8}v-24m-3 6l3-6l3 6`,
      ),
      hardware: placeHardware(hardware, { left, foot, scale: k, doubts: this.doubtful() }),
      tapes: [
        ...text('widthFront', mid, foot + BAND + 17),
        ...text('widthMiddle', left + 0.4 * w, middle - 4, { line: `M${left} ${middle}H${right}` }),
        ...text('widthBack', mid, top - BAND - 6),
        ...text('depthLeft', left - BAND - 8, middle, { isUpright: true }),
        ...text('depthMiddle', left + 0.5 * w - 6, top + 0.72 * h, { isUpright: true, line: `M${mid} ${top}V${foot}` }),
        ...text('depthRight', right + BAND + 16, middle, { isUpright: true }),
        ...text('fromBackLeft', left + 0.17 * w, top + 0.17 * h + 4, { line: `M${tip('backLeft')}L${tip('frontRight')}` }),
        ...text('fromFrontLeft', left + 0.17 * w, top + 0.83 * h + 4, { line: `M${tip('frontLeft')}L${tip('backRight')}` }),
        ...counterCorners.flatMap((c) => {
          const isLeft = c.endsWith('Left');
          const isFront = c.startsWith('front');
          const [tx, ty] = [isLeft ? left - 40 : right + 40, isFront ? foot + BAND + 12 : top - BAND - 18];
          const name = (c[0]!.toUpperCase() + c.slice(1)) as Capitalize<CounterCorner>;
          return [...text(`setback${name}`, tx, ty, { before: 'ends ' }), ...text(`gap${name}`, tx, ty + 17, { before: 'round ' })];
        }),
      ],
    };
  });
}

/** An outline with its arcs as an SVG path; seen from above, y down. */
function svgOf(path: ArcPath, x: (mm: number) => number, y: (mm: number) => number, k: number): string {
  const steps = path.map((p, i) => {
    const to = path[(i + 1) % path.length]!;
    const arc = arcOf(p, to);
    // anticlockwise on paper too
    return arc ? `A${arc.radius * k} ${arc.radius * k} 0 0 0 ${x(to.x)} ${y(to.y)}` : `L${x(to.x)} ${y(to.y)}`;
  });
  return `M${x(path[0]!.x)} ${y(path[0]!.y)}${steps.join('')}Z`;
}

/** A wall beside a side: its face and its hatching. */
function wallAt(side: CounterSideName, b: { x: number; y: number; w: number; h: number }): { readonly line: string; readonly hatch: string } {
  const [x0, y0, x1, y1] = [b.x, b.y, b.x + b.w, b.y + b.h];
  if (side === 'front' || side === 'back') {
    const [face, far] = side === 'back' ? [y1, y1 - WALL] : [y0, y0 + WALL];
    const at = Array.from({ length: Math.floor((x1 - x0) / 12) }, (_, i) => x0 + 12 * i);
    return { line: `M${x0 - 8} ${face}H${x1 + 8}`, hatch: at.map((q) => `M${q} ${face}L${q + 10} ${far}`).join('') };
  }
  const [face, far] = side === 'left' ? [x1, x1 - WALL] : [x0, x0 + WALL];
  const at = Array.from({ length: Math.floor((y1 - y0) / 12) }, (_, i) => y0 + 12 * i);
  return { line: `M${face} ${y0 - 8}V${y1 + 8}`, hatch: at.map((q) => `M${face} ${q + 10}L${far} ${q}`).join('') };
}
