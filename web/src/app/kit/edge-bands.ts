import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** Film over one edge of a face, px of its drawing: drawn flat beside it. */
export interface EdgeBand {
  readonly side: string;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  /** It goes on underneath, or behind. */
  readonly isReturn: boolean;
  /** A strip of its own. */
  readonly isStrip?: boolean;
  /** The step is about it. */
  readonly isNow: boolean;
}

/** Film over the edges of a face. */
@Component({
  // a part of a drawing: an element of its own would not be drawn
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: '[ypEdgeBands]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (b of ypEdgeBands(); track b.side) {
      <svg:rect
        [attr.x]="b.x"
        [attr.y]="b.y"
        [attr.width]="b.w"
        [attr.height]="b.h"
        [attr.fill]="b.isStrip ? '#F4B400' : b.isNow ? '#FFD54F' : '#FFF6DC'"
        stroke="#A97C00"
        [attr.stroke-dasharray]="b.isReturn ? null : '3 2'"
        [attr.stroke-width]="b.isReturn ? 2 : 1"
      />
    }
  `,
})
export class EdgeBands {
  readonly ypEdgeBands = input.required<readonly EdgeBand[]>();
}
