import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Piece } from '@yellow-pane/contracts';
import { boundingBox, type piecePlaces, type Survey } from '@yellow-pane/core';
import { formatLength, type UnitSystem } from '@yellow-pane/core/ground';

const W = 260;
const H = 250;

/** A pane laid in several pieces, true to scale: strips or bands where they lie, the one in hand yellow. */
@Component({
  selector: 'yp-part-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" class="min-h-0 w-full flex-1" role="img" [attr.aria-label]="piece().label + ' on its pane'">
      <rect [attr.x]="g().x - 10" [attr.y]="g().y - 10" [attr.width]="g().w + 20" [attr.height]="g().h + 20" fill="#D8D2C2" />
      <polygon [attr.points]="g().glass" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
      @for (p of g().parts; track p.id) {
        <rect
          [attr.x]="p.x"
          [attr.y]="p.y"
          [attr.width]="p.w"
          [attr.height]="p.h"
          [attr.fill]="p.isHere ? '#F4B400' : '#B9CAD4'"
          [attr.fill-opacity]="p.isHere ? 0.45 : 0.4"
          [attr.stroke]="p.isHere ? '#1C2226' : '#3E6E8E'"
          [attr.stroke-width]="p.isHere ? 2.5 : 1"
        />
      }
    </svg>
    <p class="figure text-center text-[15px] font-semibold">{{ f(piece().widthMm) }} wide × {{ f(piece().heightMm) }} high</p>
  `,
  host: { class: 'flex flex-col' },
})
export class PartDrawing {
  readonly piece = input.required<Piece>();
  readonly pieceId = input.required<string>();
  readonly places = input.required<ReturnType<typeof piecePlaces>>();
  readonly survey = input.required<Survey>();
  readonly units = input.required<UnitSystem>();
  readonly mirrored = input(false);
  protected readonly w = W;
  protected readonly h = H;
  protected f = (mm: number): string => formatLength(mm, this.units());

  protected readonly g = computed(() => {
    const outline = this.survey().outline ?? [];
    const box = boundingBox(outline);
    const [gw, gh] = [box.maxX - box.minX, box.maxY - box.minY];
    const s = Math.min((W - 50) / gw, (H - 40) / gh);
    const [w, h] = [gw * s, gh * s];
    const [x, y] = [(W - w) / 2, (H - h) / 2];
    const across = (left: number, width: number) => (this.mirrored() ? x + w - (left + width) * s : x + left * s);
    return {
      x,
      y,
      w,
      h,
      glass: outline.map((p) => `${across(p.x - box.minX, 0).toFixed(1)},${(y + h - (p.y - box.minY) * s).toFixed(1)}`).join(' '),
      parts: this.places().map((p) => ({
        id: p.pieceId,
        isHere: p.pieceId === this.pieceId(),
        x: across(p.leftMm, p.widthMm),
        y: y + h - (p.lowMm + p.heightMm) * s,
        w: p.widthMm * s,
        h: p.heightMm * s,
      })),
    };
  });
}
