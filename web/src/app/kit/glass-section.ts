import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { GlazingFigures } from '@yellow-pane/contracts';

/** What the section needs of a pane. */
export interface SectionPane {
  readonly thicknessMm: number;
  readonly isTinted: boolean;
  readonly isLaminated: boolean;
  readonly isWired: boolean;
  readonly coatedFace: 'outer' | 'inner' | null;
}

const W = 300;
const H = 200;
const MM = 2.4;
const GAP_MM = 1.5;

/** The pane cut through, street on the left: what the sun sends, and where it goes. Arrow widths are shares of the sun. */
@Component({
  selector: 'yp-glass-section',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" class="w-full" role="img" [attr.aria-label]="words()">
      <rect x="0" y="0" [attr.width]="d().left" [attr.height]="h" fill="#FFF6DC" />
      <rect [attr.x]="d().right" y="0" [attr.width]="w - d().right" [attr.height]="h" fill="#FFFEFA" />
      <text x="8" [attr.y]="h - 8" font-size="13" fill="#56626A">{{ isIndoors() ? 'other side' : 'street' }}</text>
      <text [attr.x]="w - 8" [attr.y]="h - 8" font-size="13" fill="#56626A" text-anchor="end">room</text>
      @for (c of d().cavities; track $index) {
        <rect [attr.x]="c.x" y="14" [attr.width]="c.w" [attr.height]="h - 36" fill="#F4F7F8" />
        <rect [attr.x]="c.x" [attr.y]="h - 34" [attr.width]="c.w" height="12" fill="#BDB6A2" />
      }
      @for (p of d().panes; track $index) {
        <rect [attr.x]="p.x" y="14" [attr.width]="p.w" [attr.height]="h - 36" [attr.fill]="p.fill" stroke="#1C2226" stroke-width="1" />
        @if (p.isLaminated) {
          <line [attr.x1]="p.x + p.w / 2" [attr.x2]="p.x + p.w / 2" y1="14" [attr.y2]="h - 22" stroke="#1C2226" stroke-width="1.5" stroke-dasharray="2 2" />
        }
        @if (p.isWired) {
          <line [attr.x1]="p.x + p.w / 2" [attr.x2]="p.x + p.w / 2" y1="14" [attr.y2]="h - 22" stroke="#1C2226" stroke-width="2" stroke-dasharray="1 7" />
        }
        @if (p.coatX !== null) {
          <line [attr.x1]="p.coatX" [attr.x2]="p.coatX" y1="14" [attr.y2]="h - 22" stroke="#3E6E8E" stroke-width="2.5" stroke-dasharray="5 3" />
        }
      }
      @if (d().filmX; as x) {
        <rect [attr.x]="x - 3" y="14" width="6" [attr.height]="h - 36" fill="#F4B400" stroke="#1C2226" />
      }
      @if (figures(); as f) {
        <polygon [attr.points]="arrow(6, 46, d().left - 3, 92, 24)" fill="#F4B400" stroke="#1C2226" stroke-width="1" />
        <text x="8" y="26" font-size="13" font-weight="700">{{ isIndoors() ? 'light' : 'sun' }} 100 %</text>
        <polygon [attr.points]="arrow(d().left - 3, 100, 12, 142, 24 * f.solarReflectanceOutFrac)" fill="#FFE9A8" stroke="#1C2226" stroke-width="0.8" />
        <text x="8" y="170" font-size="13">
          <tspan font-weight="700">{{ pct(f.solarReflectanceOutFrac) }}</tspan>
          back
        </text>
        <polygon [attr.points]="arrow(d().right + 5, 66, d().right + 50, 54, 24 * warm())" fill="#C2501C" stroke="#1C2226" stroke-width="0.8" />
        <text [attr.x]="w - 6" y="38" font-size="13" text-anchor="end" fill="#A8431A">
          <tspan font-weight="700">{{ pct(warm()) }}</tspan>
          as warmth
        </text>
        <polygon
          [attr.points]="arrow(d().right + 5, 96, d().right + 62, 122, 24 * f.solarTransmittanceFrac)"
          fill="#F4B400"
          stroke="#1C2226"
          stroke-width="0.8"
        />
        <text [attr.x]="w - 6" y="152" font-size="13" text-anchor="end">
          <tspan font-weight="700">{{ pct(f.solarTransmittanceFrac) }}</tspan>
          through
        </text>
        <text [attr.x]="w - 6" y="171" font-size="13" text-anchor="end" font-weight="700">{{ pct(f.gFrac) }} in all</text>
        <text [attr.x]="(d().left + d().right) / 2" y="10" font-size="12" text-anchor="middle" fill="#A8431A">soaks up {{ pct(soaked()) }}</text>
      }
    </svg>
  `,
  host: { class: 'block' },
})
export class GlassSection {
  readonly panes = input.required<readonly SectionPane[]>();
  readonly cavitiesMm = input.required<readonly number[]>();
  readonly filmFace = input<'room' | 'street' | null>(null);
  readonly figures = input<GlazingFigures | null>(null);
  readonly name = input('');
  readonly isIndoors = input(false);
  protected readonly w = W;
  protected readonly h = H;

  protected readonly d = computed(() => {
    const total = this.panes().reduce((s, p) => s + p.thicknessMm * MM, 0) + this.cavitiesMm().reduce((s, c) => s + c * GAP_MM, 0);
    const left = 112 - Math.max(0, total - 90) / 2;
    let x = left;
    const cavities: { x: number; w: number }[] = [];
    const panes = this.panes().map((p, i) => {
      const w = p.thicknessMm * MM;
      const drawn = {
        x,
        w,
        fill: p.isTinted ? '#B9C4C6' : '#DCEBEF',
        isLaminated: p.isLaminated,
        isWired: p.isWired,
        coatX: p.coatedFace === null ? null : p.coatedFace === 'outer' ? x + 2 : x + w - 2,
      };
      x += w;
      const gap = this.cavitiesMm()[i];
      if (gap !== undefined) {
        cavities.push({ x, w: gap * GAP_MM });
        x += gap * GAP_MM;
      }
      return drawn;
    });
    return { panes, cavities, left, right: x, filmX: this.filmFace() === 'room' ? x + 3 : this.filmFace() === 'street' ? left - 3 : null };
  });
  protected readonly warm = computed(() => Math.max(0, (this.figures()?.gFrac ?? 0) - (this.figures()?.solarTransmittanceFrac ?? 0)));
  protected readonly soaked = computed(() => this.figures()?.absorbedFrac.reduce((s, a) => s + a, 0) ?? 0);
  protected readonly words = computed(() => {
    const f = this.figures();
    return f
      ? `${this.name()}: of the sun ${this.pct(f.solarReflectanceOutFrac)} is thrown back, ${this.pct(this.soaked())} soaked up, ${this.pct(f.solarTransmittanceFrac)} let through; ${this.pct(f.gFrac)} reach the room in all`
      : `Section of ${this.panes().length} panes`;
  });
  protected pct = (x: number): string => `${Math.round(x * 100)} %`;

  /** A straight arrow of a given width, at least a hair. */
  protected arrow(x1: number, y1: number, x2: number, y2: number, width: number): string {
    const w = Math.max(1, width) / 2;
    const l = Math.hypot(x2 - x1, y2 - y1);
    const [ux, uy] = [(x2 - x1) / l, (y2 - y1) / l];
    const head = Math.min(l * 0.45, 6 + w);
    const at = (along: number, across: number) => `${(x1 + ux * along - uy * across).toFixed(1)},${(y1 + uy * along + ux * across).toFixed(1)}`;
    return [at(0, w), at(l - head, w), at(l - head, w + 4), at(l, 0), at(l - head, -w - 4), at(l - head, -w), at(0, -w)].join(' ');
  }
}
