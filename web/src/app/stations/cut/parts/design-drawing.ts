import { ChangeDetectionStrategy, Component, computed, input, inject } from '@angular/core';
import type { Design, Pane } from '@yellow-pane/contracts';
import { boundingBox, designOnPane, offsetsInRow, paneOnWall, type Survey } from '@yellow-pane/core';
import type { Polygon } from '@yellow-pane/core/geometry';
import { PageMemo } from '../../../record/page-memo';

/** One pane of the row: its glass and what is frosted, as path data. */
interface DrawnPane {
  readonly id: string;
  readonly name: string;
  readonly glass: string;
  readonly frost: string;
  readonly isHere: boolean;
  readonly x: number;
  readonly y: number;
}

/** A design at true scale on its whole row of panes, with the bars between them and the heights of standing and seated eyes. */
@Component({
  selector: 'yp-design-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <svg class="h-full w-full" [attr.viewBox]="v.box" role="img" [attr.aria-label]="'Design on ' + v.panes.length + ' panes, to scale'">
        <rect [attr.x]="v.minX" [attr.y]="v.minY" [attr.width]="v.w" [attr.height]="v.h" fill="#D8D2C2" />
        @for (p of v.panes; track p.id) {
          <path [attr.d]="p.glass" fill="#FFFEFA" [attr.stroke]="p.isHere ? '#1C2226' : '#867F6B'" [attr.stroke-width]="p.isHere ? v.px * 2.5 : v.px" />
          <path [attr.d]="p.frost" fill="#B9CAD4" fill-rule="evenodd" stroke="#3E6E8E" [attr.stroke-width]="v.px * 0.6" />
        }
        @for (e of v.eyes; track e.name) {
          <line
            [attr.x1]="v.minX"
            [attr.x2]="v.minX + v.w"
            [attr.y1]="e.y"
            [attr.y2]="e.y"
            stroke="#A8431A"
            [attr.stroke-width]="v.px"
            [attr.stroke-dasharray]="v.px * 6 + ' ' + v.px * 5"
          />
          <text [attr.x]="v.minX + v.px * 6" [attr.y]="e.y - v.px * 4" [attr.font-size]="v.px * 12" fill="#A8431A">{{ e.name }}</text>
        }
      </svg>
    }
  `,
  host: { class: 'block' },
})
export class DesignDrawing {
  private readonly memo = inject(PageMemo);
  readonly surface = input.required<Pane>();
  readonly design = input.required<Design>();
  readonly surfaces = input.required<readonly Pane[]>();
  readonly surveyOf = input.required<(s: Pane) => Survey>();
  readonly mirrored = input(false);

  protected readonly view = computed(() => {
    const here = this.surface();
    const design = this.design();
    const offsets = offsetsInRow(here, this.surfaces(), this.surveyOf(), design);
    const flip = this.mirrored() ? -1 : 1;
    const d = (rings: readonly Polygon[], dx: number, dy: number) =>
      rings.map((r) => `M${r.map((p) => `${((p.x + dx) * flip).toFixed(1)} ${(-p.y - dy).toFixed(1)}`).join('L')}Z`).join('');
    const all: { minX: number; maxX: number; minY: number; maxY: number }[] = [];
    const panes = [...offsets].flatMap(([id, offsetMm]): DrawnPane[] => {
      const surface = this.surfaces().find((s) => s.id === id);
      const survey = surface && this.surveyOf()(surface);
      if (!surface || !survey?.outline) return [];
      const pane = paneOnWall({ surface, survey, offsetMm });
      const read = designOnPane(design, pane, this.memo);
      const own = boundingBox(survey.outline);
      const [dx, dy] = [offsetMm - own.minX, -own.minY];
      const [x0, x1] = [offsetMm * flip, (offsetMm + own.maxX - own.minX) * flip];
      all.push({ minX: Math.min(x0, x1), maxX: Math.max(x0, x1), minY: -(own.maxY - own.minY), maxY: 0 });
      return [
        { id, name: surface.name, glass: d([survey.outline], dx, dy), frost: read.ok ? d(read.value.frosted.flatMap((rings) => [...rings]), dx, dy) : '', isHere: id === here.id, x: x0, y: 0 },
      ]; // prettier-ignore
    });
    if (panes.length === 0) return null;
    const m = 40;
    const [minX, maxX] = [Math.min(...all.map((b) => b.minX)) - m, Math.max(...all.map((b) => b.maxX)) + m];
    const [minY, maxY] = [Math.min(...all.map((b) => b.minY)) - m, m];
    const [w, h] = [maxX - minX, maxY - minY];
    const px = Math.max(w / 420, h / 250);
    const sill = here.exposure?.heightAboveFloorMm ?? null;
    const eyes = sill === null ? [] : [{ name: 'standing eyes', y: -(1600 - sill) }, { name: 'seated eyes', y: -(1200 - sill) }].filter((e) => e.y > minY && e.y < maxY); // prettier-ignore
    return { panes, eyes, px, minX, minY, w, h, box: `${minX} ${minY} ${w} ${h}` };
  });
}
