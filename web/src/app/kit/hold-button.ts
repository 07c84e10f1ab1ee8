import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';

/** Held this long it counts: a drop of water does not. @source the brief of the trade: half a second */
export const HOLD_MS = 500;

/**
 * A button for wet hands: it counts when one finger has rested on it for half a second, anywhere on it. A drop, a brush of the sleeve or a second
 * finger does nothing. A key is held as long; an aid that presses buttons by itself simply presses it.
 */
@Component({
  selector: 'yp-hold-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="relief relative flex h-full w-full touch-none flex-col items-center justify-center overflow-hidden border-2 border-ink px-4 text-center select-none"
      [class]="look()"
      [disabled]="disabled()"
      (pointerdown)="press($event)"
      (pointerup)="release($event)"
      (pointercancel)="cancel()"
      (pointerleave)="cancel()"
      (contextmenu)="$event.preventDefault()"
      (keydown.enter)="byKey($event)"
      (keydown.space)="byKey($event)"
      (keyup.enter)="keyUp($event)"
      (keyup.space)="keyUp($event)"
      (blur)="cancel()"
      (click)="click($event)"
    >
      <span class="hold absolute inset-y-0 left-0 bg-ink/15" [class.holding]="isHeld()" aria-hidden="true"></span>
      <span class="relative"><ng-content /></span>
      @if (isShort()) {
        <span class="relative mt-1 text-sm font-normal" role="status">Hold it half a second</span>
      }
    </button>
  `,
  styles: `
    .hold {
      width: 0;
    }
    .holding {
      width: 100%;
      transition: width 500ms linear;
    }
  `,
  host: { class: 'block' },
})
export class HoldButton {
  readonly look = input('bg-hand font-bold');
  readonly disabled = input(false);
  readonly held = output<void>();
  protected readonly isHeld = signal(false);
  /** It was let go too soon. */
  protected readonly isShort = signal(false);
  private timer: ReturnType<typeof setTimeout> | null = null;
  private readonly fingers = new Set<number>();
  /** A click that follows a touch is not the keyboard's. */
  private isTouch = false;

  protected press(event: PointerEvent): void {
    this.isTouch = true;
    this.fingers.add(event.pointerId);
    this.cancelTimer();
    // two at once: drops, or a hand leaning on the glass
    if (this.fingers.size > 1 || (event.pointerType === 'mouse' && event.button !== 0)) return;
    this.begin();
  }
  private begin(): void {
    this.isHeld.set(true);
    this.isShort.set(false);
    this.timer = setTimeout(() => {
      this.cancelTimer();
      navigator.vibrate?.(40);
      this.held.emit();
    }, HOLD_MS);
  }
  protected release(event: PointerEvent): void {
    this.fingers.delete(event.pointerId);
    if (this.timer) this.isShort.set(true);
    this.cancelTimer();
  }
  protected cancel(): void {
    this.fingers.clear();
    this.cancelTimer();
  }
  protected byKey(event: Event): void {
    event.preventDefault();
    event.stopPropagation();
    if ((event as KeyboardEvent).repeat || this.disabled()) return;
    this.cancelTimer();
    this.begin();
  }
  protected keyUp(event: Event): void {
    event.preventDefault();
    event.stopPropagation();
    if (this.timer) this.isShort.set(true);
    this.cancelTimer();
  }
  /** Aids that press buttons by themselves send a click and no touch. */
  protected click(event: MouseEvent): void {
    if (!this.isTouch && event.detail === 0 && !this.disabled()) this.held.emit();
    this.isTouch = false;
  }
  private cancelTimer(): void {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.isHeld.set(false);
  }
}
