import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { isOpen, pinNamesOf, pinStateWords, type Patient, type PinLine } from '@yellow-pane/core/check';
import { boundingBox, offsetOutline, type Polygon } from '@yellow-pane/core/geometry';
import { aimBy, onDrawing, tapOn, type PlaceOnDrawing } from '../../../kit/place-on-drawing';

const WIDEST = 420;
const TALLEST = 300;
const MARGIN = 14;
const FRAME_MM = 45;
/** A thumb hits a pin from so far, px of the screen. @source common practice: 44 px across */
const REACH_PX = 24;

/** The pane at true proportion with everything that is pinned on it; a place is chosen by a tap, or with arrows and Enter. Places are as seen from the room, whichever side it is drawn from. */
@Component({
  selector: 'yp-pin-drawing',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      [attr.viewBox]="'0 0 ' + scale().width + ' ' + scale().height"
      class="mx-auto block max-h-[46dvh] w-full"
      role="application"
      [attr.aria-label]="label()"
      tabindex="0"
      (click)="tap($event)"
      (keydown)="aim($event)"
    >
      @let d = drawn();
      <polygon [attr.points]="d.frame" fill="#D8D2C2" stroke="#1C2226" />
      <polygon [attr.points]="d.glass" fill="#FFF6DC" stroke="#1C2226" stroke-width="1.5" />
      <text [attr.x]="scale().width / 2" y="11" text-anchor="middle" font-size="11" fill="#56626A">▲ top</text>
      @for (p of d.pins; track p.id) {
        <g [attr.opacity]="p.isOpen ? 1 : 0.55" [attr.data-pin]="p.id">
          <circle
            [attr.cx]="p.x"
            [attr.cy]="p.y"
            r="11"
            [attr.fill]="p.isHere ? '#F4B400' : p.isOpen ? '#FFFEFA' : '#EFE9DA'"
            stroke="#1C2226"
            [attr.stroke-width]="p.isHere ? 2.5 : 1.5"
          />
          <text [attr.x]="p.x" [attr.y]="p.y + 4" text-anchor="middle" font-size="12" font-weight="700" fill="#1C2226">{{ p.number }}</text>
        </g>
      }
      @if (mark(); as m) {
        <circle [attr.cx]="m.x" [attr.cy]="m.y" r="12" fill="none" stroke="#B3261E" stroke-width="3" />
        <circle [attr.cx]="m.x" [attr.cy]="m.y" r="2.5" fill="#B3261E" />
      }
    </svg>
  `,
  host: { class: 'block' },
})
export class PinDrawing {
  readonly outline = input.required<Polygon>();
  /** The outline was taped from the other side than it is drawn from. */
  readonly mirrored = input(false);
  /** It is drawn from the street: places are handed on as seen from the room. */
  readonly fromStreet = input(false);
  readonly pins = input<readonly PinLine[]>([]);
  readonly hereId = input<string | null>(null);
  /** A place that was chosen and is not written down yet. */
  readonly chosen = input<PlaceOnDrawing | null>(null);
  readonly name = input('The pane');
  readonly patient = input<Patient>('wet-on-glass');
  readonly placed = output<PlaceOnDrawing>();
  readonly picked = output<string>();
  protected readonly aimed = signal<PlaceOnDrawing | null>(null);

  protected readonly scale = computed(() => {
    const box = boundingBox(this.outline());
    const [w, h] = [box.maxX - box.minX + 2 * FRAME_MM, box.maxY - box.minY + 2 * FRAME_MM];
    const k = Math.min((WIDEST - 2 * MARGIN) / w, (TALLEST - 2 * MARGIN) / h);
    const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    const [width, height] = [w * k + 2 * MARGIN, h * k + 2 * MARGIN];
    const flip = this.mirrored() ? -1 : 1;
    return { k, box, width, height, x: (x: number) => width / 2 + flip * (x - cx) * k, y: (y: number) => height / 2 - (y - cy) * k };
  });
  /** Where a place stands on the drawing: shares of the box as it is drawn. */
  private at({ xFrac, yFrac }: PlaceOnDrawing): { x: number; y: number } {
    const { width, height, box, k } = this.scale();
    const across = this.fromStreet() ? 1 - xFrac : xFrac;
    return { x: width / 2 + (across - 0.5) * (box.maxX - box.minX) * k, y: height / 2 - (yFrac - 0.5) * (box.maxY - box.minY) * k };
  }
  protected readonly mark = computed(() => {
    const place = this.chosen() ?? this.aimed();
    return place && this.at(place);
  });
  protected readonly label = computed(() => {
    const pins = this.pins().map((p, i) => `${i + 1}: ${pinNamesOf(this.patient())[p.pin.kind].toLowerCase()}, ${pinStateWords[p.state]}`);
    return `${this.name()}. ${pins.length ? pins.join('; ') : 'Nothing is pinned'}. Tap a place, or go there with the arrows and press Enter.`;
  });
  protected readonly drawn = computed(() => {
    const { x, y } = this.scale();
    const points = (ring: Polygon) => ring.map((p) => `${x(p.x).toFixed(1)},${y(p.y).toFixed(1)}`).join(' ');
    return {
      frame: points(offsetOutline(this.outline(), FRAME_MM) ?? this.outline()),
      glass: points(this.outline()),
      pins: this.pins().map((p, i) => ({ id: p.entry.id, number: i + 1, ...this.at(p.pin.at), isOpen: isOpen(p), isHere: p.entry.id === this.hereId() })),
    };
  });

  protected tap(event: MouseEvent): void {
    const { width, height, box, k } = this.scale();
    const { x, y, pxPerUnit } = tapOn(event, { width, height });
    const hit = this.drawn().pins.find((p) => Math.hypot(p.x - x, p.y - y) * pxPerUnit <= REACH_PX);
    if (hit) return this.picked.emit(hit.id);
    const across = onDrawing((x - width / 2) / ((box.maxX - box.minX) * k) + 0.5);
    this.placed.emit({ xFrac: this.fromStreet() ? 1 - across : across, yFrac: onDrawing((height / 2 - y) / ((box.maxY - box.minY) * k) + 0.5) });
  }
  /** The mark goes over the pane as it is drawn. */
  protected aim(event: KeyboardEvent): void {
    const aimed = aimBy(event, this.aimed() ?? { xFrac: 0.5, yFrac: 0.5 }, 0.05, this.fromStreet() ? -1 : 1);
    if (aimed?.isTaken) this.placed.emit(aimed.place);
    else if (aimed) this.aimed.set(aimed.place);
  }
}
