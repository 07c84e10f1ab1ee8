import { ChangeDetectionStrategy, Component, type ElementRef, computed, effect, input, output, signal, viewChild } from '@angular/core';
import { parseLength, parseOffset, type TypedLength, type UnitSystem } from '@yellow-pane/core/ground';

/** What a person typed, read. */
export interface TypedReading extends TypedLength {
  readonly typed: string;
}

/** A field for one length: takes fractions, feet, mm and cm; says in a sentence what does not read, and keeps it. */
@Component({
  selector: 'yp-length-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #box
      class="figure block w-full border bg-card px-1 py-0.5 text-center text-[17px] font-semibold"
      [class]="look()"
      [style.min-height.px]="34"
      [style.font-size.px]="text().length > 7 ? 14 : null"
      type="text"
      autocomplete="off"
      spellcheck="false"
      [attr.aria-label]="label()"
      [attr.aria-invalid]="message() ? true : null"
      [attr.aria-describedby]="message() ? id : null"
      [attr.title]="hint()"
      [value]="text()"
      [placeholder]="placeholder()"
      (input)="text.set(box.value); handedOn = null"
      (focus)="focused.emit(); box.select()"
      (blur)="commit()"
      (keydown.enter)="enter($event, false)"
      (keydown.shift.enter)="enter($event, true)"
      (keydown.escape)="box.blur()"
    />
    @if (message()) {
      <p [id]="id" role="alert" class="absolute z-20 mt-1 w-56 border border-ink bg-tint p-2 text-sm">{{ message() }}</p>
    }
  `,
  host: { class: 'block relative' },
})
export class LengthField {
  readonly label = input.required<string>();
  readonly value = input<string>('');
  readonly units = input.required<UnitSystem>();
  readonly signed = input(false);
  readonly doubtful = input(false);
  readonly inherited = input(false);
  readonly placeholder = input('');
  readonly hint = input<string | null>(null);
  /** What makes a length odd enough to be asked about before it counts, in a sentence; null: nothing. */
  readonly odd = input<(lengthMm: number) => string | null>(() => null);
  /** What makes a length impossible, in a sentence; null: nothing. */
  readonly wrong = input<(lengthMm: number) => string | null>(() => null);
  readonly committed = output<TypedReading>();
  readonly cleared = output<void>();
  readonly next = output<boolean>();
  readonly focused = output<void>();

  private static count = 0;
  protected readonly id = `length-field-${LengthField.count++}`;
  protected readonly text = signal('');
  /** What Enter or leaving the field has already handed on: leaving it again says nothing new. */
  protected handedOn: string | null = null;
  protected readonly message = signal<string | null>(null);
  private readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  protected readonly look = computed(() =>
    this.message()
      ? 'border-harm border-2'
      : this.doubtful()
        ? 'border-ink border-2 bg-tint!'
        : this.inherited()
          ? 'border-dashed border-field text-soft'
          : 'border-field',
  );

  constructor() {
    effect(() => {
      this.text.set(this.value());
      this.handedOn = null;
      this.message.set(null);
    });
  }

  focus(): void {
    this.box().nativeElement.focus();
  }

  protected enter(event: Event, back: boolean): void {
    event.preventDefault();
    event.stopPropagation();
    if (!back && (event as KeyboardEvent).shiftKey) return;
    if (this.commit(true)) this.next.emit(back);
  }

  /** An odd length that was asked about: Enter once more means it. */
  private asked: string | null = null;
  /** Emits what changed. @param isMeant by Enter, not by leaving the field @returns false when it does not read, or is asked about first */
  protected commit(isMeant = false): boolean {
    const typed = this.text().trim();
    if (typed === this.value().trim() || typed === this.handedOn) {
      this.message.set(null);
      return true;
    }
    if (typed === '') {
      this.message.set(null);
      this.handedOn = typed;
      this.cleared.emit();
      return true;
    }
    const read = (this.signed() ? parseOffset : parseLength)(typed, this.units());
    const wrong = read.ok ? this.wrong()(read.value.lengthMm) : null;
    if (wrong) {
      this.message.set(wrong);
      return false;
    }
    const odd = read.ok ? this.odd()(read.value.lengthMm) : null;
    if (odd && !(isMeant && this.asked === typed)) {
      if (isMeant) this.asked = typed;
      this.message.set(`${odd} Enter once more, if it is so.`);
      return false;
    }
    this.message.set(read.ok ? null : read.message);
    if (read.ok) {
      this.handedOn = typed;
      this.committed.emit({ ...read.value, typed });
    }
    return read.ok;
  }
}
