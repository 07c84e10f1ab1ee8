import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ColumnMeasure, Piece, StepDrawing } from '@yellow-pane/contracts';
import type { ColumnBody } from '@yellow-pane/core/measure';
import type { UnitSystem } from '@yellow-pane/core/ground';
import { BenchDrawing } from './bench-drawing';

/** Room of the column, px of the drawing. */
const HIGH = 232;
const WIDEST = 130;
const CENTRE = 110;
const FOOT = 250;

/** A column as it stands before one, with the film as far as the step has it; a step that is about the piece shows the piece. */
@Component({
  selector: 'yp-column-drawing',
  imports: [BenchDrawing],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (step() === 'column-piece' && pieces().length) {
      <yp-bench-drawing [piece]="pieces()[0]!" [units]="units()" />
    } @else {
      @let d = drawn();
      <svg [attr.viewBox]="'0 0 220 ' + (tapes().length ? 404 : 276)" class="block w-full" role="img" [attr.aria-label]="label()">
        <line x1="20" x2="200" [attr.y1]="foot" [attr.y2]="foot" stroke="#1C2226" stroke-width="1.5" />
        <line x1="20" x2="200" [attr.y1]="d.top" [attr.y2]="d.top" stroke="#1C2226" stroke-width="1.5" />
        <polygon [attr.points]="d.outline" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
        @if (d.film) {
          <polygon [attr.points]="d.film" fill="#FFE9A8" stroke="#A97C00" />
        }
        @if (d.film && step() === 'column-round') {
          @for (b of d.bands; track $index) {
            <line [attr.x1]="b" [attr.x2]="b" [attr.y1]="d.top + 4" [attr.y2]="foot - 4" stroke="#A97C00" stroke-dasharray="3 3" />
          }
          <path [attr.d]="d.ways" fill="none" stroke="#1C2226" stroke-width="2" />
        }
        @if (step() === 'column-plumb' || step() === 'column-strip') {
          <line [attr.x1]="centre" [attr.x2]="centre" [attr.y1]="d.top - 10" [attr.y2]="foot" stroke="#1C2226" stroke-dasharray="8 3 2 3" />
          <path [attr.d]="'M' + (centre - 4) + ' ' + (foot - 14) + 'h8l-4 12z'" fill="#1C2226" />
        }
        @for (g of d.girths; track g.key) {
          <path [attr.d]="g.ring" fill="none" [attr.stroke]="g.isDoubtful ? '#1C2226' : '#56626A'" [attr.stroke-width]="g.isDoubtful ? 2.5 : 1.2" />
          @if (g.isDoubtful) {
            <rect [attr.x]="150" [attr.y]="g.y - 10" width="52" height="19" fill="#FFE9A8" stroke="#1C2226" />
          }
          <text x="176" [attr.y]="g.y + 4" text-anchor="middle" class="figure" font-size="12" font-weight="600">{{ g.text }}</text>
        }
        @if (d.plan; as s) {
          <line x1="20" x2="200" y1="288" y2="288" stroke="#D8D2C2" />
          @if (body().section === 'round') {
            <ellipse cx="110" cy="340" [attr.rx]="s.rx" [attr.ry]="s.ry" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
          } @else {
            <rect
              [attr.x]="110 - s.rx"
              [attr.y]="340 - s.ry"
              [attr.width]="2 * s.rx"
              [attr.height]="2 * s.ry"
              [attr.rx]="s.radius"
              fill="#FFFEFA"
              stroke="#1C2226"
              stroke-width="1.5"
            />
          }
          <line [attr.x1]="110 - s.rx" [attr.x2]="110 + s.rx" y1="340" y2="340" stroke="#BDB6A2" />
          <line x1="110" x2="110" [attr.y1]="340 - s.ry" [attr.y2]="340 + s.ry" stroke="#BDB6A2" />
          <text x="110" y="336" text-anchor="middle" class="figure" font-size="12" font-weight="600" stroke="#FFFEFA" stroke-width="3" paint-order="stroke">
            {{ s.across }}
          </text>
          <text x="176" y="344" text-anchor="middle" class="figure" font-size="12" font-weight="600">{{ s.along }}</text>
          <text x="110" y="400" text-anchor="middle" font-size="12" fill="#56626A">from above; people come from below</text>
        }
        <text x="110" y="270" text-anchor="middle" font-size="13" fill="#56626A">{{ words() }}</text>
      </svg>
    }
  `,
})
export class ColumnDrawing {
  readonly body = input.required<ColumnBody>();
  readonly pieces = input<readonly Piece[]>([]);
  readonly units = input.required<UnitSystem>();
  readonly step = input<StepDrawing>('none');
  /** What was taped, as it is shown: written where the tape lies. */
  readonly tapes = input<readonly { readonly key: ColumnMeasure; readonly text: string; readonly isDoubtful: boolean }[]>([]);
  readonly label = input.required<string>();
  protected readonly foot = FOOT;
  protected readonly centre = CENTRE;

  protected readonly words = computed(() => {
    const words: Partial<Record<StepDrawing, string>> = {
      'column-plumb': 'from where people come',
      'column-strip': 'the middle strip on the line',
      'column-round': 'to the bottom, then to the top',
      'column-seam': 'from behind',
    };
    return words[this.step()] ?? 'from the front';
  });

  protected readonly drawn = computed(() => {
    const { acrossMm, taperMm, heightMm } = this.body();
    const high = Math.max(...Object.values(heightMm));
    const wide = Math.max(acrossMm.front + Math.abs(taperMm) / 2, 1);
    const scale = Math.min(HIGH / high, WIDEST / wide);
    const [foot, top] = [((acrossMm.front - taperMm / 2) / 2) * scale, ((acrossMm.front + taperMm / 2) / 2) * scale];
    const topY = FOOT - high * scale;
    const quad = (l0: number, r0: number, l1: number, r1: number) =>
      `${CENTRE + l0},${FOOT} ${CENTRE + r0},${FOOT} ${CENTRE + r1},${topY} ${CENTRE + l1},${topY}`;
    const strip = 0.16 * foot;
    const film: Partial<Record<StepDrawing, string>> = {
      'column-strip': quad(-strip, strip, -strip, strip),
      'column-round': quad(-strip, foot, -strip, top),
      'column-seam': quad(-foot, foot, -top, top),
    };
    const bands = [0.3, 0.5, 0.7, 0.88].map((k) => CENTRE + k * foot);
    const x = CENTRE + 0.4 * foot;
    const middle = (FOOT + topY) / 2;
    const arrow = (to: number, by: number) => `M${x} ${middle}L${x} ${to}m-5 ${by}l5 ${-by}l5 ${by}`;
    const high3 = { girthFoot: [FOOT - 8, foot], girthMiddle: [middle, (foot + top) / 2], girthTop: [topY + 10, top] } as const;
    const girths = this.tapes().flatMap((t) => {
      const seat = high3[t.key as keyof typeof high3];
      // the front half of the tape, as it lies round
      return seat ? [{ ...t, y: seat[0], ring: `M${CENTRE - seat[1]} ${seat[0]}q${seat[1]} 9 ${2 * seat[1]} 0` }] : [];
    });
    const k = 84 / Math.max(acrossMm.front, acrossMm.side);
    const textOf = (key: ColumnMeasure) => this.tapes().find((t) => t.key === key)?.text ?? '';
    const plan = this.tapes().length
      ? {
          rx: (acrossMm.front * k) / 2,
          ry: (acrossMm.side * k) / 2,
          radius: this.body().cornerRadiusMm * k,
          across: textOf('acrossFront'),
          along: textOf('acrossSide'),
        }
      : null;
    return {
      girths,
      plan,
      outline: quad(-foot, foot, -top, top),
      film: film[this.step()] ?? null,
      top: topY,
      bands,
      ways: arrow(FOOT - 12, -9) + arrow(topY + 12, 9),
    };
  });
}
