import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { PinKind } from '@yellow-pane/contracts';

/** A stroke or patch of a little drawing, 64 × 44. */
interface Mark {
  readonly d: string;
  readonly fill?: string;
  readonly stroke?: string;
  readonly width?: number;
}
const WET = '#3E6E8E';
const WET_TINT = '#C9DCE6';
const INK = '#1C2226';
const ring = (x: number, y: number, r: number): string => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`;
const dots = (r: number, ...at: readonly (readonly [number, number])[]): string => at.map(([x, y]) => ring(x, y, r)).join('');

/** What each thing looks like on the glass, drawn for a thumb and for sunlight. */
const drawings: Readonly<Record<PinKind, readonly Mark[]>> = {
  pockets: [
    { d: 'M9 14c5-7 14-5 15 1s-8 9-12 7-5-5-3-8zM33 9c6-3 15 0 14 6s-9 6-13 4-5-8-1-10zM26 30c5-5 15-4 16 1s-9 7-13 5-6-3-3-6z', fill: WET_TINT, stroke: WET, width: 1.6 },
  ],
  haze: [{ d: 'M6 10c8-5 20-4 30 0s16 2 22-1v24c-8 4-16 3-24 0s-20-3-28 1z', fill: '#E3DFD2' }, { d: 'M10 18h18M24 25h22M12 31h14M38 16h14', stroke: '#A79F8A', width: 1.5 }],
  bubble: [{ d: ring(32, 22, 9), fill: '#FFFEFA', stroke: INK, width: 2 }, { d: 'M27 18a7 7 0 0 1 5-3', stroke: INK, width: 1.5 }],
  'bubble-field': [{ d: dots(3, [12, 12], [24, 9], [36, 14], [49, 10], [17, 23], [30, 22], [43, 24], [54, 21], [11, 34], [25, 34], [38, 35], [50, 33]), fill: '#FFFEFA', stroke: INK, width: 1.4 }],
  'bubble-line': [{ d: dots(3.2, [7, 30], [16, 26], [25, 24], [34, 20], [43, 18], [52, 14], [59, 11]), fill: '#FFFEFA', stroke: INK, width: 1.5 }],
  speck: [{ d: ring(32, 22, 3.4), fill: INK }, { d: ring(32, 22, 8), stroke: '#A79F8A', width: 1.2 }],
  hair: [{ d: 'M10 30C20 8 26 36 36 20s14-10 18-3', stroke: INK, width: 1.8 }],
  crease: [{ d: 'M8 34L26 22L38 25L57 8', stroke: INK, width: 2.4 }, { d: 'M10 38L27 26L38 29L59 12', stroke: '#A79F8A', width: 1.4 }],
  fingers: [{ d: 'M4 4v13c4 0 4-6 7-6s3 9 7 9 3-11 7-11 3 8 7 8 3-7 7-7 3 10 7 10 3-8 7-8 3 5 7 5V4z', fill: '#FFE9A8', stroke: INK, width: 1.6 }],
  'light-line': [{ d: 'M12 3h48v38H12z', fill: '#FFE9A8' }, { d: 'M8 3v38', stroke: INK, width: 3 }, { d: 'M11.5 3v38', stroke: '#FFFEFA', width: 4 }],
  'edge-up': [{ d: 'M4 38h56', stroke: INK, width: 2 }, { d: 'M60 34H30C20 34 14 27 10 16', stroke: '#A97C00', width: 3 }],
  'fine-lines': [{ d: 'M14 34l8-24M19 36l8-24M24 35l9-25M29 37l8-25M34 36l9-26M39 37l8-24M44 36l7-22', stroke: INK, width: 1.1 }],
  streak: [{ d: 'M6 16c14-5 36-5 52-1v8c-16-4-38-4-52 1z', fill: '#E3DFD2' }, { d: 'M6 16c14-5 36-5 52-1M6 24c14-5 36-5 52-1', stroke: '#56626A', width: 1.4 }],
  scratch: [{ d: 'M14 36L50 8', stroke: INK, width: 1.3 }, { d: 'M22 36l8-6M40 20l9-7', stroke: INK, width: 2.6 }],
  crack: [{ d: 'M32 3l-5 12 8 6-9 10 5 10M35 21l14 5 11-3M26 31l-12-3-10 4', stroke: '#B3261E', width: 2 }],
  fog: [{ d: 'M6 8h22v30H6zM36 8h22v30H36z', stroke: INK, width: 2 }, { d: dots(1.7, [31, 12], [33, 17], [31, 22], [33, 27], [31, 32], [32, 36]), fill: WET }],
}; // prettier-ignore

@Component({
  selector: 'yp-pin-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<svg viewBox="0 0 64 44" class="block w-full" aria-hidden="true">
    <rect x="1" y="1" width="62" height="42" fill="#FFFEFA" stroke="#867F6B" />
    @for (m of marks(); track $index) {
      <path
        [attr.d]="m.d"
        [attr.fill]="m.fill ?? 'none'"
        [attr.stroke]="m.stroke ?? 'none'"
        [attr.stroke-width]="m.width ?? 1"
        stroke-linecap="round"
        stroke-linejoin="round"
      />
    }
  </svg>`,
  host: { class: 'block' },
})
export class PinIcon {
  readonly kind = input.required<PinKind>();
  protected readonly marks = computed(() => drawings[this.kind()]);
}
