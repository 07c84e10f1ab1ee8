import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { Hardware } from '@yellow-pane/contracts';

/** A thing that stands on a face, px of its drawing. */
export interface HardwareDrawn {
  readonly id: string;
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
  readonly handling: Hardware['handling'];
  readonly isRound: boolean;
  readonly isDoubtful: boolean;
  /** What it is; empty where there is no room. */
  readonly text: string;
}
interface Face {
  /** Where its left side and its foot are, px. */
  readonly left: number;
  readonly foot: number;
  /** px for a mm. */
  readonly scale: number;
  /** What something does not fit about, by its id. */
  readonly doubts: readonly (string | null)[];
}

/** What is drawn smaller than this is not seen. */
const LEAST = 3;
const LETTER = 5;

/** Where the hardware of a face is drawn. */
export const placeHardware = (hardware: readonly Hardware[], { left, foot, scale, doubts }: Face): HardwareDrawn[] =>
  hardware.map((q) => {
    const [w, h] = [Math.max(LEAST, q.widthMm * scale), Math.max(LEAST, q.heightMm * scale)];
    const letters = Math.floor(w / LETTER);
    return {
      id: q.id,
      x: left + q.fromLeftMm * scale,
      y: foot - q.fromFootMm * scale - h,
      w,
      h,
      handling: q.handling,
      isRound: q.isRound === true,
      isDoubtful: doubts.includes(q.id),
      text: letters > 8 ? q.what.slice(0, letters) : '',
    };
  });

/** The hardware of a face: what film goes round dark, what comes off with a broken line, what stays a hole pale. */
@Component({
  // a part of a drawing: an element of its own would not be drawn
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: '[ypHardware]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (q of ypHardware(); track q.id) {
      <svg:rect
        [attr.x]="q.x"
        [attr.y]="q.y"
        [attr.width]="q.w"
        [attr.height]="q.h"
        [attr.rx]="q.isRound ? q.w / 2 : 1"
        [attr.ry]="q.isRound ? q.h / 2 : 1"
        [attr.fill]="fills[q.handling]"
        stroke="#1C2226"
        [attr.stroke-width]="q.isDoubtful ? 2.5 : 1"
        [attr.stroke-dasharray]="q.handling === 'off' ? '3 2' : null"
      />
      @if (q.text) {
        <svg:text
          [attr.x]="q.x + q.w / 2"
          [attr.y]="q.y + q.h / 2 + 4"
          text-anchor="middle"
          font-size="11"
          [attr.fill]="q.handling === 'round' ? '#FFFEFA' : '#1C2226'"
        >
          {{ q.text }}
        </svg:text>
      }
    }
  `,
})
export class HardwareMarks {
  readonly ypHardware = input.required<readonly HardwareDrawn[]>();
  protected readonly fills = { round: '#5E6A72', off: '#FFFEFA', open: '#E4DFD0' } as const;
}
