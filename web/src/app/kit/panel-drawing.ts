import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Corrugation, Dome, Groove, Panel, StepDrawing } from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '@yellow-pane/core/geometry';
import { CornerFold } from './corner-fold';
import { CornerRound } from './corner-round';
import { EdgeBands } from './edge-bands';
import { HardwareMarks, placeHardware } from './hardware-marks';
import { placeTapes, Tapes, type TapeShown } from './tapes';

/** Room of the face, px of the drawing. */
const WIDE = 148;
const HIGH = 270;
const LEFT = 42;
const TOP = 34;
/** Film over an edge is drawn so wide, whatever it is. */
const BAND = 9;
/** A groove is drawn at least so wide. */
const LEAST_GROOVE = 2.5;

/** Lines of a dome that lie as far back: rings, or straight where it is round one way only. */
function domeRings(w: number, h: number, { acrossBowMm, upBowMm }: Dome): string {
  const [cx, cy] = [LEFT + w / 2, TOP + h / 2];
  return [0.35, 0.65, 0.92]
    .map((k) => {
      if (acrossBowMm <= 0 && upBowMm <= 0) return '';
      if (upBowMm <= 0) return `M${cx - (k * w) / 2} ${TOP}v${h}M${cx + (k * w) / 2} ${TOP}v${h}`;
      if (acrossBowMm <= 0) return `M${LEFT} ${cy - (k * h) / 2}h${w}M${LEFT} ${cy + (k * h) / 2}h${w}`;
      const [rx, ry] = [(k * w) / 2, (k * h) / 2];
      return `M${cx - rx} ${cy}a${rx} ${ry} 0 1 0 ${2 * rx} 0a${rx} ${ry} 0 1 0 ${-2 * rx} 0`;
    })
    .join('');
}
/** Strokes from the middle to all sides. */
function spokesOf(w: number, h: number): string {
  const [cx, cy] = [LEFT + w / 2, TOP + h / 2];
  return Array.from({ length: 8 }, (_, i) => (i * Math.PI) / 4)
    .map((t) => {
      const [x, y] = [Math.cos(t), Math.sin(t)];
      const at = (k: number) => `${(cx + (k * x * w) / 2).toFixed(1)} ${(cy + (k * y * h) / 2).toFixed(1)}`;
      const tip = (turn: number) => `l${(-7 * Math.cos(t + turn)).toFixed(1)} ${(-7 * Math.sin(t + turn)).toFixed(1)}`;
      return `M${at(0.2)}L${at(0.7)}${tip(0.5)}M${at(0.7)}${tip(-0.5)}`;
    })
    .join('');
}

/** An outline with its corners rounded, as far as its sides leave room. */
function rounded(points: readonly (readonly [number, number])[], radius: number): string {
  const n = points.length;
  const toward = ([x, y]: readonly [number, number], [tx, ty]: readonly [number, number]): string => {
    const long = Math.hypot(tx - x, ty - y);
    const share = long > 0 ? Math.min(0.5, radius / long) : 0;
    return `${(x + (tx - x) * share).toFixed(2)} ${(y + (ty - y) * share).toFixed(2)}`;
  };
  const turns = points.map((p, i) => `${i ? 'L' : 'M'}${toward(p, points[(i + n - 1) % n]!)}Q${p[0].toFixed(2)} ${p[1].toFixed(2)} ${toward(p, points[(i + 1) % n]!)}`); // prettier-ignore
  return `${turns.join('')}Z`;
}

/** Valleys are drawn no nearer to one another, px. */
const LEAST_RIB = 4;
/** Where valleys run on the face, as far apart as can be seen. */
function ribLines({ run, pitchMm }: Corrugation, wide: number, high: number, k: number): string {
  const apart = pitchMm * Math.max(1, Math.ceil(LEAST_RIB / (pitchMm * k)));
  const across = run === 'upright' ? wide : high;
  const count = Math.max(1, Math.round(across / apart));
  return Array.from({ length: count }, (_, i) => Math.min(across, (i + 0.5) * apart) * k)
    .map((at) =>
      run === 'upright'
        ? `M${(LEFT + at).toFixed(1)} ${TOP}v${(high * k).toFixed(1)}`
        : `M${LEFT} ${(TOP + high * k - at).toFixed(1)}h${(wide * k).toFixed(1)}`,
    )
    .join('');
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** A panel as it stands before one: its face, grooves, hardware, which edges film goes over, and the film as far as the step has it. */
@Component({
  selector: 'yp-panel-drawing',
  imports: [CornerFold, CornerRound, EdgeBands, HardwareMarks, Tapes],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (step() === 'panel-corner') {
      <yp-corner-fold [school]="school()" [label]="label()" />
    } @else if (step() === 'panel-corner-round') {
      <yp-corner-round [label]="label()" />
    } @else if (step() === 'panel-groove') {
      <svg viewBox="0 0 220 220" class="block w-full" role="img" [attr.aria-label]="label()">
        <rect x="20" y="20" width="180" height="180" fill="#FFE9A8" stroke="none" />
        <path d="M20 110H110V200" fill="none" stroke="#1C2226" stroke-width="1.5" />
        <path d="M20 60H160V200" fill="none" stroke="#1C2226" stroke-width="1.5" />
        <rect x="20" y="60" width="140" height="50" fill="#F6D98A" />
        <rect x="110" y="60" width="50" height="140" fill="#F6D98A" />
        <rect x="143" y="60" width="17" height="17" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" stroke-dasharray="4 3" />
        <line x1="110" y1="110" x2="143" y2="77" stroke="#1C2226" stroke-width="2.5" />
        <path d="M60 66v36m-5-8l5 9 5-9M116 150h36m-8-5l9 5-9 5" fill="none" stroke="#1C2226" stroke-width="1.6" />
        <text x="62" y="52" text-anchor="middle" font-size="11">1 straight in</text>
        <text x="164" y="154" font-size="11">1</text>
        <text x="170" y="72" font-size="11">out</text>
        <text x="96" y="128" text-anchor="end" font-size="11" fill="#56626A">the field</text>
        <text x="122" y="126" font-size="11" font-weight="600">2 last</text>
      </svg>
    } @else {
      @let d = drawn();
      <svg [attr.viewBox]="'0 0 230 ' + d.height" class="block w-full" role="img" [attr.aria-label]="label()">
        <svg:g [ypEdgeBands]="d.bands" />
        <path data-face [attr.d]="d.outline" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
        @if (d.film; as film) {
          <rect [attr.x]="film.x" [attr.y]="film.y" [attr.width]="film.w" [attr.height]="film.h" fill="#FFE9A8" stroke="#A97C00" />
        }
        @if (d.dome) {
          <path [attr.d]="d.dome" fill="none" stroke="#B9B19B" stroke-width="1.2" />
        }
        @if (d.spokes) {
          <path [attr.d]="d.spokes" fill="none" stroke="#1C2226" stroke-width="1.6" />
        }
        @if (d.ribs) {
          <path [attr.d]="d.ribs" fill="none" [attr.stroke]="d.ribFill" stroke-width="1.4" />
        }
        @for (x of d.grain; track $index) {
          <path [attr.d]="x" fill="none" stroke="#A97C00" stroke-width="1.2" />
        }
        @for (r of d.recesses; track $index) {
          <rect
            [attr.x]="r.mouth.x"
            [attr.y]="r.mouth.y"
            [attr.width]="r.mouth.w"
            [attr.height]="r.mouth.h"
            [attr.rx]="r.round"
            [attr.fill]="r.fill"
            stroke="#56626A"
          />
          <rect
            [attr.x]="r.field.x"
            [attr.y]="r.field.y"
            [attr.width]="r.field.w"
            [attr.height]="r.field.h"
            [attr.rx]="r.inner"
            [attr.fill]="r.field.fill"
            stroke="#56626A"
            stroke-width="0.7"
          />
        }
        @for (g of d.grooves; track $index) {
          <path [attr.d]="g.path" fill-rule="evenodd" [attr.fill]="g.isDoubtful ? '#FFD54F' : '#CFC8B4'" stroke="#56626A" stroke-width="0.7" />
        }
        @for (g of d.marks; track $index) {
          <text [attr.x]="g.x" [attr.y]="g.y" text-anchor="middle" font-size="10" font-weight="700" stroke="#FFFEFA" stroke-width="3" paint-order="stroke">
            {{ g.text }}
          </text>
        }
        <svg:g [ypHardware]="d.hardware" />
        @for (h of d.hinges; track $index) {
          <rect [attr.x]="h.x" [attr.y]="h.y" width="5" height="16" fill="#1C2226" />
        }
        @if (step() === 'panel-centre') {
          <path [attr.d]="d.cross" stroke="#1C2226" stroke-width="2" fill="none" />
        }
        @if (step() === 'panel-face' && d.film) {
          <path [attr.d]="d.strokes" stroke="#1C2226" stroke-width="1.6" fill="none" />
        }
        <svg:g [ypTapes]="d.tapes" />
        <text [attr.x]="d.middle" [attr.y]="d.height - 6" text-anchor="middle" font-size="12" fill="#56626A">{{ words() }}</text>
      </svg>
    }
  `,
})
export class PanelDrawing {
  readonly panel = input.required<Pick<Panel, 'grooves' | 'recesses' | 'corrugation' | 'dome' | 'corners' | 'hardware' | 'wraps' | 'grain' | 'hinges'>>();
  readonly outline = input.required<Polygon>();
  readonly step = input<StepDrawing>('none');
  readonly school = input<'relief' | 'mitre' | 'envelope'>('relief');
  /** Grooves and hardware that something does not fit about, by their ids. */
  readonly doubtful = input<readonly (string | null)[]>([]);
  /** What was taped, as it is shown: written where the tape lies. */
  readonly tapes = input<readonly TapeShown[]>([]);
  readonly label = input.required<string>();

  protected readonly words = computed(() => {
    const words: Partial<Record<StepDrawing, string>> = {
      'panel-centre': 'the middle of the top first',
      'panel-face': 'from the middle out, downwards',
      'panel-edges': 'over the edges in yellow',
      'panel-recess': 'walls hot and let slide, the field last',
      'panel-corrugation': 'valley by valley, from the middle out',
      'panel-dome': 'from the middle out, like spokes',
    };
    return words[this.step()] ?? 'seen from the front';
  });

  protected readonly drawn = computed(() => {
    const { grooves, recesses, corrugation, dome, corners, hardware, wraps, grain, hinges } = this.panel();
    const box = boundingBox(this.outline());
    const [wide, high] = [box.maxX - box.minX, box.maxY - box.minY];
    const k = Math.min(WIDE / wide, HIGH / high);
    const [w, h] = [wide * k, high * k];
    const at = (x: number, y: number): [number, number] => [LEFT + x * k, TOP + h - y * k];
    const rect = (x: number, y: number, dx: number, dy: number): Box => ({ x: LEFT + x * k, y: TOP + h - (y + dy) * k, w: dx * k, h: dy * k });
    const ring = (b: Box) => `M${b.x} ${b.y}h${b.w}v${b.h}h${-b.w}z`;
    const doubts = new Set(this.doubtful());
    const step = this.step();
    const all = { x: LEFT, y: TOP, w, h };
    const film: Partial<Record<StepDrawing, Box>> = {
      'panel-face': { ...all, h: 0.62 * h },
      'panel-centre': { ...all, h: Math.min(h, 100 * k) },
      'panel-edges': all,
    };
    const bands = (
      [
        { side: 'left', x: LEFT - BAND, y: TOP, w: BAND, h },
        { side: 'right', x: LEFT + w, y: TOP, w: BAND, h },
        { side: 'top', x: LEFT, y: TOP - BAND, w, h: BAND },
        { side: 'bottom', x: LEFT, y: TOP + h, w, h: BAND },
      ] as const
    ).flatMap((b) => (wraps[b.side] === 'trimmed' ? [] : [{ ...b, isReturn: wraps[b.side] === 'return', isNow: step === 'panel-edges' }]));
    const outer = { left: LEFT - (wraps.left === 'trimmed' ? 0 : BAND), bottom: TOP + h + (wraps.bottom === 'trimmed' ? 0 : BAND) };
    const hingeX = hinges === 'left' ? outer.left - 6 : LEFT + w + (wraps.right === 'trimmed' ? 1 : BAND + 1);
    const text = placeTapes(this.tapes());
    const mid = LEFT + w / 2;
    const level = (y: number) => `M${LEFT} ${y}H${LEFT + w}`;
    const upright = (x: number) => `M${x} ${TOP}V${TOP + h}`;
    const edgeX = LEFT + w + BAND + 10;
    return {
      height: outer.bottom + (this.tapes().length ? 44 : 26),
      middle: mid,
      outline: rounded(this.outline().map((p) => at(p.x - box.minX, p.y - box.minY)), (corners?.radiusMm ?? 0) * k), // prettier-ignore
      bands,
      dome: dome ? domeRings(w, h, dome) : '',
      spokes: step === 'panel-dome' ? spokesOf(w, h) : '',
      ribs: corrugation ? ribLines(corrugation, wide, high, k) : '',
      ribFill: step === 'panel-corrugation' ? '#A97C00' : doubts.has('corrugation') ? '#1C2226' : '#B9B19B',
      film: film[step] ?? null,
      grooves: grooves.map((g) => ({ path: this.rings(g, wide, high, rect, k).map(ring).join(''), isDoubtful: doubts.has(g.id) })),
      recesses: recesses.map((r) => {
        const wall = Math.max(r.slopeMm, 4 / k);
        const isNow = step === 'panel-recess';
        const field = rect(r.fromLeftMm + wall, r.fromFootMm + wall, Math.max(0, r.acrossMm - 2 * wall), Math.max(0, r.upMm - 2 * wall));
        return {
          mouth: rect(r.fromLeftMm, r.fromFootMm, r.acrossMm, r.upMm),
          field: { ...field, fill: isNow ? '#FFE9A8' : '#F3EEDF' },
          fill: doubts.has(r.id) ? '#FFD54F' : isNow ? '#F9D25C' : '#CFC8B4',
          round: r.cornerMm * k,
          inner: Math.max(0, r.cornerMm - wall) * k,
        };
      }),
      marks: grooves.map((g, i) => {
        const b = this.rings(g, wide, high, rect, k)[0]!;
        return {
          text: String(i + 1),
          x: g.run.way === 'level' ? b.x + 8 : b.x + (g.run.way === 'frame' ? 12 : b.w / 2),
          y: b.y + (g.run.way === 'level' ? -3 : 14),
        };
      }),
      hardware: placeHardware(hardware, { left: LEFT, foot: TOP + h, scale: k, doubts: this.doubtful() }),
      hinges: hinges === 'none' ? [] : [0.12, 0.5, 0.84].map((f) => ({ x: hingeX, y: TOP + f * h })),
      grain: [0.24, 0.5, 0.76].map((f) =>
        grain === 'upright' ? `M${LEFT + f * w} ${TOP + h - 10}v-26m-3 6l3-6l3 6` : `M${LEFT + 10} ${TOP + f * h}h26m-6-3l6 3l-6 3`,
      ),
      cross: `M${mid - 8} ${TOP + 6}l16 16m0-16l-16 16`,
      strokes: [0.2, 0.4].map((f) => `M${mid} ${TOP + f * h}h${0.4 * w}m-7-4l7 4l-7 4M${mid} ${TOP + f * h}h${-0.4 * w}m7-4l-7 4l7 4`).join(''),
      tapes: [
        ...text('widthTop', mid, TOP - (wraps.top === 'trimmed' ? 6 : BAND + 5)),
        ...text('widthMiddle', mid, TOP + h / 2 + 4, { line: level(TOP + h / 2) }),
        ...text('widthBottom', mid, outer.bottom + 14),
        ...text('heightLeft', outer.left - 12, TOP + h / 2, { isUpright: true }),
        ...text('heightMiddle', LEFT + 0.3 * w, TOP + 0.28 * h, { isUpright: true, line: upright(LEFT + 0.3 * w) }),
        ...text('heightRight', edgeX + 8, TOP + h / 2, { isUpright: true }),
        ...text('diagonalDown', LEFT + 0.74 * w, TOP + 0.78 * h, { line: `M${LEFT} ${TOP}L${LEFT + w} ${TOP + h}` }),
        ...text('diagonalUp', LEFT + 0.74 * w, TOP + 0.2 * h, { line: `M${LEFT} ${TOP + h}L${LEFT + w} ${TOP}` }),
      ],
    };
  });

  /** What of a groove is filled: one strip, or a frame’s outer and inner box. */
  private rings(g: Groove, wide: number, high: number, rect: (x: number, y: number, dx: number, dy: number) => Box, k: number): Box[] {
    const w = Math.max(g.widthMm, LEAST_GROOVE / k);
    const { run } = g;
    if (run.way === 'upright') return [rect(run.fromLeftMm, 0, w, high)];
    if (run.way === 'level') return [rect(0, run.fromFootMm, wide, w)];
    const inner = rect(run.fromLeftMm + w, run.fromFootMm + w, Math.max(0, run.acrossMm - 2 * w), Math.max(0, run.upMm - 2 * w));
    return [rect(run.fromLeftMm, run.fromFootMm, run.acrossMm, run.upMm), inner];
  }
}
