import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';

const names = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const;

/** The bearing in words. */
export const bearingName = (deg: number): string => names[Math.round(deg / 45) % 8]!;

/** Which way a pane looks: drag the needle, use the arrow keys, or type the bearing beside it. */
@Component({
  selector: 'yp-compass',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      viewBox="-60 -60 120 120"
      width="120"
      height="120"
      tabindex="0"
      role="slider"
      aria-label="Bearing that the pane looks to"
      aria-valuemin="0"
      aria-valuemax="359"
      [attr.aria-valuenow]="shown() ?? 0"
      [attr.aria-valuetext]="text()"
      class="cursor-grab touch-none"
      (pointerdown)="drag($event)"
      (pointermove)="drag($event)"
      (pointerup)="release()"
      (keydown.arrowright)="turn($event, 5)"
      (keydown.arrowup)="turn($event, 5)"
      (keydown.arrowleft)="turn($event, -5)"
      (keydown.arrowdown)="turn($event, -5)"
    >
      <circle r="50" fill="#FFFEFA" stroke="#867F6B" />
      @for (t of ticks; track t) {
        <line [attr.transform]="'rotate(' + t + ')'" x1="0" x2="0" y1="-50" [attr.y2]="t % 90 ? -45 : -40" stroke="#56626A" />
      }
      <text y="-26" text-anchor="middle" font-size="14" font-weight="700">N</text>
      <text y="36" text-anchor="middle" font-size="13" fill="#56626A">S</text>
      <text x="-31" y="5" text-anchor="middle" font-size="13" fill="#56626A">W</text>
      <text x="31" y="5" text-anchor="middle" font-size="13" fill="#56626A">E</text>
      @if (shown() !== null) {
        <g [attr.transform]="'rotate(' + shown() + ')'">
          <path d="M0 -48 L8 -24 L3 -24 L3 10 L-3 10 L-3 -24 L-8 -24 Z" fill="#F4B400" stroke="#1C2226" stroke-width="1.5" />
          <line x1="-16" x2="16" y1="12" y2="12" stroke="#1C2226" stroke-width="4" />
        </g>
      }
    </svg>
  `,
  host: { class: 'inline-block' },
})
export class Compass {
  readonly deg = input.required<number | null>();
  readonly changed = output<number>();
  private readonly live = signal<number | null>(null);
  protected readonly shown = computed(() => this.live() ?? this.deg());
  protected readonly ticks = Array.from({ length: 24 }, (_, i) => i * 15);
  protected readonly text = computed(() => (this.shown() === null ? 'not known' : `${Math.round(this.shown()!)} degrees, ${bearingName(this.shown()!)}`));

  protected drag(event: PointerEvent): void {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const [x, y] = [event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2];
    if (Math.hypot(x, y) < 6) return;
    (event.currentTarget as SVGElement).setPointerCapture?.(event.pointerId);
    this.live.set(Math.round(((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360) % 360);
  }
  /** A drag is one edit: told when the hand lets go. */
  protected release(): void {
    const deg = this.live();
    this.live.set(null);
    if (deg !== null && deg !== this.deg()) this.changed.emit(deg);
  }
  protected turn(event: Event, by: number): void {
    event.preventDefault();
    this.changed.emit(((this.deg() ?? 0) + by + 360) % 360);
  }
}
