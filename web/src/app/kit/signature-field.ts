import { ChangeDetectionStrategy, Component, type ElementRef, input, output, signal, viewChild } from '@angular/core';
import SignaturePad from 'signature_pad';

/** Who signed, and the line they drew: strokes of points, shares of the field’s width. */
export interface Signed {
  readonly name: string;
  readonly strokes: [number, number][][];
}

/** A name and a line to sign on, by finger, pen or mouse. */
@Component({
  selector: 'yp-signature-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input #who class="field mb-2 min-h-12 text-lg" maxlength="120" placeholder="Name" aria-label="Who signs" />
    <div class="relative h-36 border border-field bg-paper">
      <canvas #pad class="absolute inset-0 h-full w-full touch-none" aria-label="Sign here"></canvas>
      <span class="pointer-events-none absolute right-4 bottom-8 left-4 border-b border-line"></span>
    </div>
    <div class="mt-2 flex gap-2">
      <button type="button" class="btn min-h-12" (click)="clear()">Clear</button>
      <button type="button" class="btn btn-ink min-h-12 flex-1 text-lg" (click)="sign(who)">{{ label() }}</button>
    </div>
    @if (fault()) {
      <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2">{{ fault() }}</p>
    }
  `,
  host: { class: 'block' },
})
export class SignatureField {
  readonly label = input('Sign');
  readonly signed = output<Signed>();
  protected readonly fault = signal('');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('pad');
  private pad: SignaturePad | null = null;

  constructor() {
    // the field is drawn with the page; its pixels follow its size on the screen
    setTimeout(() => {
      const canvas = this.canvas().nativeElement;
      if (!canvas.getContext('2d')) return;
      [canvas.width, canvas.height] = [canvas.clientWidth, canvas.clientHeight];
      this.pad = new SignaturePad(canvas, { penColor: '#1C2226' });
    });
  }

  protected clear(): void {
    this.pad?.clear();
  }
  protected sign(who: HTMLInputElement): void {
    const name = who.value.trim();
    const { width } = this.canvas().nativeElement;
    const strokes = (this.pad?.toData() ?? []).map((g) => g.points.map((p): [number, number] => [round(p.x / width), round(p.y / width)]));
    this.fault.set(!name ? 'Write the name of who signs.' : strokes.length === 0 ? 'The line above is empty: the customer signs on it.' : '');
    if (!this.fault()) this.signed.emit({ name, strokes });
  }
}
const round = (v: number): number => Math.round(v * 10_000) / 10_000;
