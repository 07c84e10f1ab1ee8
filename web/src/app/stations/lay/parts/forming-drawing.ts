import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { ShrinkPlan, StepDrawing, UnitSystem } from '@yellow-pane/contracts';
import { formingFigure, H, W, type StrokeDrawn } from './forming-figure';

/** The curved pane in hand: where the line goes at left, middle and right; which fingers in which order; or the four quarters that water is driven out of. */
@Component({
  selector: 'yp-forming-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let d = drawn();
    <svg [attr.viewBox]="'0 0 ' + w + ' ' + h" class="block w-full" role="img" [attr.aria-label]="label()">
      <polygon [attr.points]="d.outline" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.5" />
      <polygon [attr.points]="d.finished" fill="#FFE9A8" fill-opacity="0.55" stroke="#A97C00" stroke-dasharray="4 3" />
      @if (drawing() === 'forming') {
        @for (z of d.zones; track z.id) {
          <polygon [attr.points]="z.points" fill="#E6EEF2" stroke="#3E6E8E" stroke-width="1.5" stroke-dasharray="4 3" />
        }
        @for (f of d.fingers; track f.key) {
          <polygon [attr.points]="f.points" fill="#F3D9CB" stroke="#C2501C" />
        }
      }
      <path [attr.d]="d.line" fill="none" stroke="#1C2226" stroke-width="3.5" />
      @if (drawing() === 'anchor-line') {
        <path [attr.d]="d.sides" fill="none" stroke="#1C2226" stroke-width="3.5" />
        @for (t of d.heights; track t.x) {
          <path [attr.d]="t.path" stroke="#1C2226" stroke-dasharray="3 3" fill="none" />
          <text [attr.x]="t.x" [attr.y]="t.y" [attr.text-anchor]="t.anchor" font-size="15" font-weight="700">{{ t.text }}</text>
        }
      }
      @if (drawing() === 'forming') {
        @for (f of d.fingers; track f.key) {
          <circle [attr.cx]="f.x" [attr.cy]="f.y" r="9.5" fill="#FFFEFA" stroke="#1C2226" />
          <text [attr.x]="f.x" [attr.y]="f.y + 4.2" text-anchor="middle" font-size="12" font-weight="700">{{ f.order }}</text>
        }
        @for (z of d.zones; track z.id) {
          <text [attr.x]="z.x" [attr.y]="z.y" text-anchor="middle" font-size="11.5" font-weight="700" fill="#3E6E8E">no heat</text>
        }
        @if (d.fingers.length === 0) {
          <text [attr.x]="w / 2" [attr.y]="h / 2 - 14" text-anchor="middle" font-size="14">{{ d.noFingers }}</text>
        }
      }
      @if (drawing() === 'quarters') {
        @for (s of d.strokes; track $index) {
          <path [attr.d]="s.path" fill="none" stroke="#3E6E8E" [attr.stroke-width]="s.isLane ? 2.5 : 1" [attr.stroke-dasharray]="s.isLane ? null : '3 2'" />
          @if (s.isLane) {
            <circle [attr.cx]="s.x" [attr.cy]="s.y" r="3" fill="#1C2226" />
          }
        }
        @for (q of d.quarters; track q.n) {
          @if (d.strokes.length === 0) {
            <path [attr.d]="q.path" fill="none" stroke="#3E6E8E" stroke-width="6" stroke-linecap="round" />
            <polygon [attr.points]="q.head" fill="#1C2226" />
          } @else {
            <circle [attr.cx]="q.x" [attr.cy]="q.y - 6" r="13" fill="#FFFEFA" stroke="#1C2226" />
          }
          <text [attr.x]="q.x" [attr.y]="q.y" text-anchor="middle" font-size="17" font-weight="700">{{ q.n }}</text>
        }
      }
      <text [attr.x]="w / 2" [attr.y]="h - 5" text-anchor="middle" font-size="12.5" fill="#56626A">{{ d.below }}</text>
    </svg>
  `,
  host: { class: 'block' },
})
export class FormingDrawing {
  readonly plan = input.required<ShrinkPlan>();
  readonly drawing = input.required<StepDrawing>();
  readonly units = input.required<UnitSystem>();
  /** Strokes of the quarters in order, in the plane of the plan. */
  readonly strokes = input<readonly StrokeDrawn[]>([]);
  /** Drawn from the other side than the bows were read from. */
  readonly mirrored = input(false);
  readonly label = input('The curved pane');
  protected readonly w = W;
  protected readonly h = H;

  protected readonly drawn = computed(() => formingFigure(this.plan(), this.drawing(), this.units(), this.strokes(), this.mirrored()));
}
