import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { MeasureKey } from '@yellow-pane/contracts';

/** What was taped, as it is shown. */
export interface TapeShown {
  readonly key: MeasureKey;
  readonly text: string;
  readonly isDoubtful: boolean;
}
/** A tape where it lies in a drawing, px of it. `line`: its way, drawn thin. */
export interface TapeDrawn extends TapeShown {
  readonly x: number;
  readonly y: number;
  readonly line: string | null;
  readonly turn: string | null;
}
interface TapePlace {
  readonly line?: string;
  readonly isUpright?: boolean;
  /** Said before its figure. */
  readonly before?: string;
}

/** Where the tapes of a drawing lie: none for one that was not taken. */
export const placeTapes =
  (tapes: readonly TapeShown[]) =>
  (key: MeasureKey, x: number, y: number, { line, isUpright, before = '' }: TapePlace = {}): TapeDrawn[] =>
    tapes
      .filter((t) => t.key === key)
      .map((t) => ({ ...t, text: `${before}${t.text}`, x, y, line: line ?? null, turn: isUpright ? `rotate(-90 ${x} ${y})` : null }));

/** The tapes of a drawing: each figure where its tape lies, one that is suspected on a yellow ground. */
@Component({
  // a part of a drawing: an element of its own would not be drawn
  // eslint-disable-next-line @angular-eslint/component-selector
  selector: '[ypTapes]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (t of shown(); track t.key) {
      @if (t.line) {
        <svg:path [attr.d]="t.line" stroke="#BDB6A2" fill="none" />
      }
      @if (t.isDoubtful) {
        <svg:rect [attr.x]="t.x - t.half" [attr.y]="t.y - 14" [attr.width]="2 * t.half" height="19" fill="#FFE9A8" stroke="#1C2226" [attr.transform]="t.turn" />
      }
      <svg:text
        [attr.x]="t.x"
        [attr.y]="t.y"
        text-anchor="middle"
        class="figure"
        font-size="12"
        font-weight="600"
        stroke="#FFFEFA"
        stroke-width="3"
        paint-order="stroke"
        [attr.transform]="t.turn"
      >
        {{ t.text }}
      </svg:text>
    }
  `,
})
export class Tapes {
  readonly ypTapes = input.required<readonly TapeDrawn[]>();
  protected readonly shown = computed(() => this.ypTapes().map((t) => ({ ...t, half: Math.max(24, 4 * t.text.length + 6) })));
}
