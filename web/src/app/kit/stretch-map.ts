import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { stretchPct, type RecessResult } from '@yellow-pane/core/form';
import type { RecessForm } from '@yellow-pane/core/measure';

/** Width of the drawing, px, and where the quarter lies in it. */
const WIDE = 300;
/** Shares of the limit (or of the largest, where nobody knows it), and how each is drawn: light to dark, so that it is read in the sun and without colours too. */
const steps = [
  { upTo: 0.1, fill: '#FFFEFA' },
  { upTo: 0.25, fill: '#FFF1C4' },
  { upTo: 0.5, fill: '#F9D25C' },
  { upTo: 0.75, fill: '#E39A2D' },
  { upTo: 1, fill: '#B8541F' },
  { upTo: Infinity, fill: '#5E1A14' },
] as const;

/** So many places are looked at along a row. */
const FINE = 100;

/** Stretch anywhere, from what triangles of a grid of lines say: at each crossing the most of what meets there, so that the worst place looks it; evenly between. */
function fieldOf(cells: RecessResult['cells']): { valueAt(x: number, y: number): number } {
  const sorted = (of: 'x' | 'y') => [...new Set(cells.flatMap((c) => c.corners.map((q) => q[of])))].sort((a, b) => a - b);
  const [xs, ys] = [sorted('x'), sorted('y')];
  const [xPlace, yPlace] = [xs, ys].map((all) => new Map(all.map((v, i) => [v, i]))) as [Map<number, number>, Map<number, number>];
  const most = new Float64Array(xs.length * ys.length);
  for (const c of cells)
    for (const q of c.corners) {
      const n = yPlace.get(q.y)! * xs.length + xPlace.get(q.x)!;
      most[n] = Math.max(most[n]!, c.stretchFrac);
    }
  const place = (all: readonly number[], v: number) => {
    const i = Math.min(all.length - 2, Math.max(0, all.findIndex((a) => a > v) - 1));
    return { i, part: Math.min(1, Math.max(0, (v - all[i]!) / (all[i + 1]! - all[i]!))) };
  };
  return {
    valueAt(x, y) {
      const [h, v] = [place(xs, x), place(ys, y)];
      const row = (j: number) => most[j * xs.length + h.i]! * (1 - h.part) + most[j * xs.length + h.i + 1]! * h.part;
      return row(v.i) * (1 - v.part) + row(v.i + 1) * v.part;
    },
  };
}

/** Where film is stretched in a quarter of a recess, and where some is left over. */
@Component({
  selector: 'yp-stretch-map',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + d.w + ' ' + (d.h + 34)" class="block w-full" role="img" [attr.aria-label]="label()">
      @for (p of d.patches; track $index) {
        <path [attr.d]="p.path" [attr.fill]="p.fill" [attr.stroke]="p.fill" stroke-width="0.6" />
      }
      @if (d.loose) {
        <path [attr.d]="d.loose" fill="none" stroke="#1C2226" stroke-width="0.7" />
      }
      <path [attr.d]="d.mouth" fill="none" stroke="#1C2226" stroke-width="1.6" />
      <path [attr.d]="d.foot" fill="none" stroke="#1C2226" stroke-width="1" stroke-dasharray="4 3" />
      @for (s of d.stops; track $index) {
        <path [attr.d]="s" fill="none" stroke="#FFFEFA" stroke-width="3" />
        <path [attr.d]="s" fill="none" stroke="#1C2226" stroke-width="1.4" stroke-dasharray="1 3" />
      }
      <circle [attr.cx]="d.worst.x" [attr.cy]="d.worst.y" r="6" fill="none" stroke="#FFFEFA" stroke-width="4" />
      <circle [attr.cx]="d.worst.x" [attr.cy]="d.worst.y" r="6" fill="none" stroke="#1C2226" stroke-width="2" />
      @for (k of d.key; track $index) {
        <rect [attr.x]="k.x" [attr.y]="d.h + 6" width="22" height="10" [attr.fill]="k.fill" stroke="#1C2226" stroke-width="0.6" />
        <text [attr.x]="k.x + 11" [attr.y]="d.h + 29" text-anchor="middle" font-size="11">{{ k.text }}</text>
      }
      @if (d.loose) {
        <path [attr.d]="'M' + (d.w - 70) + ' ' + (d.h + 15) + 'l5 -8m2 8l5 -8m2 8l5 -8'" fill="none" stroke="#1C2226" stroke-width="0.9" />
        <text [attr.x]="d.w - 44" [attr.y]="d.h + 16" font-size="11">left over</text>
      }
    </svg>
  `,
})
export class StretchMap {
  readonly result = input.required<RecessResult>();
  readonly form = input.required<RecessForm>();
  readonly limitFrac = input.required<number | null>();
  /** Depths at which forming stops, to heat and go on. */
  readonly stopsMm = input<readonly number[]>([]);
  readonly label = input.required<string>();

  protected readonly drawn = computed(() => {
    const [{ cells, largestFrac, largestAt }, form] = [this.result(), this.form()];
    const reach = Math.max(form.depthMm * 1.5, 12);
    // what lies far from corners says nothing: at most as much of it as of a square beside the corner
    const shown = Math.min(Math.max(form.acrossMm, form.upMm) / 2 + reach, Math.max(2 * (form.cornerMm + form.slopeMm + form.depthMm), 60) + reach);
    const [right, top] = [form.acrossMm / 2 + reach, form.upMm / 2 + reach];
    const [left, foot] = [Math.max(0, right - shown), Math.max(0, top - shown)];
    const k = WIDE / Math.max(right - left, 1);
    const h = (top - foot) * k;
    const at = (x: number, y: number) => `${((x - left) * k).toFixed(1)} ${(h - (y - foot) * k).toFixed(1)}`;
    const most = this.limitFrac() ?? Math.max(largestFrac, 0.01);
    const level = (share: number) => steps.findIndex((s) => share <= s.upTo);
    const { valueAt } = fieldOf(cells);
    const paths = steps.map(() => '');
    const px = WIDE / FINE;
    for (let row = 0; row * px < h; row++) {
      const y = top - ((row + 0.5) * px) / k;
      // runs of one colour along a row are one stroke
      for (let from = 0, i = 1; i <= FINE; i++) {
        const of = (n: number) => level(valueAt(left + ((n + 0.5) * px) / k, y) / most);
        if (i < FINE && of(i) === of(from)) continue;
        paths[of(from)] +=
          `M${(from * px).toFixed(1)} ${(row * px).toFixed(1)}h${((i - from) * px).toFixed(1)}v${px.toFixed(1)}h${((from - i) * px).toFixed(1)}z`;
        from = i;
      }
    }
    let loose = '';
    for (const c of cells)
      if (c.xMm > left && c.yMm > foot && c.leftOverFrac > 0.02) loose += `M${at(c.xMm - 1.2 / k, c.yMm - 2 / k)}L${at(c.xMm + 1.2 / k, c.yMm + 2 / k)}`;
    const r = (inset: number) => Math.max(0, Math.min(form.cornerMm, form.acrossMm / 2, form.upMm / 2) - inset);
    const ring = (inset: number) => {
      const [x, y, round] = [form.acrossMm / 2 - inset, form.upMm / 2 - inset, r(inset)];
      return `M${at(x, foot)}L${at(x, y - round)}A${round * k} ${round * k} 0 0 0 ${at(x - round, y)}L${at(left, y)}`;
    };
    const wall = Math.max(form.slopeMm, 0.12 * form.depthMm);
    return {
      w: WIDE,
      h,
      patches: steps.flatMap((s, i) => (paths[i] ? [{ path: paths[i], fill: s.fill }] : [])),
      loose,
      mouth: ring(0),
      foot: ring(wall),
      stops: this.stopsMm().map((mm) => ring((wall * mm) / form.depthMm)),
      worst: { x: (largestAt.xMm - left) * k, y: h - (largestAt.yMm - foot) * k },
      key: steps
        .slice(0, largestFrac > most ? 6 : 5)
        .map((s, i) => ({ x: 2 + i * 38, fill: s.fill, text: s.upTo === Infinity ? 'more' : stretchPct(s.upTo * most).replace('under ', '<') })),
    };
  });
}
