import { ChangeDetectionStrategy, Component, computed, type ElementRef, inject, output, signal, viewChild } from '@angular/core';
import SignaturePad from 'signature_pad';
import { LayStore } from '../lay.store';
import { clockAt } from '../lay-words';
import { RecordStore } from '../../../record/record.store';
import { PhotoButton } from './photo-button';

/** Before the first pane: what was asked on site, photos of what is already scratched or broken, and the customer's signature under them. */
@Component({
  selector: 'yp-ready-sheet',
  imports: [PhotoButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="mx-auto flex h-full max-w-2xl flex-col overflow-y-auto bg-card p-4 *:shrink-0" aria-label="Before the first pane">
      <h2 class="mb-2 text-2xl">Before the first pane</h2>
      @for (r of items(); track r.key) {
        <label class="flex min-h-13 cursor-pointer items-center gap-3 border-b border-hair py-2 text-lg"
          ><input type="checkbox" class="h-7 w-7 shrink-0" [checked]="r.isAsked" (change)="ask(r.key, r.text, r.lineId)" /><span
            >{{ r.text }}
            @if (r.caution) {
              <span class="block text-sm text-soft">{{ r.caution }}</span>
            }
          </span></label
        >
      }
      <h3 class="cap mt-4 mb-1">What is already there</h3>
      <p class="mb-2 text-sm">
        Each scratch, chip, failed double-glazing seal and stained frame: a photo, seen and signed by the customer. The claim comes later.
      </p>
      <input #what class="field mb-2 min-h-12 text-lg" maxlength="120" placeholder="What it shows, and where" aria-label="What the photo shows" />
      <yp-photo-button label="Photo of it" (taken)="photo($event, what)" />
      @for (p of photos(); track p.id) {
        <p class="border-b border-hair py-1.5 text-sm">{{ clock(p.occurredAt) }} · {{ p.text || 'a photo' }}{{ p.photo ? '' : ' (on its way)' }}</p>
      }
      @if (signed(); as s) {
        <p class="mt-4 border-l-4 border-proof bg-proof-tint p-3" data-signed>{{ s.signature?.name }} has signed at {{ clock(s.occurredAt) }}.</p>
      } @else {
        <h3 class="cap mt-4 mb-1">The customer signs</h3>
        <input #who class="field mb-2 min-h-12 text-lg" maxlength="120" placeholder="Name" aria-label="Who signs" />
        <div class="relative h-36 border border-field bg-paper">
          <canvas #pad class="absolute inset-0 h-full w-full touch-none" aria-label="Sign here"></canvas>
          <span class="pointer-events-none absolute right-4 bottom-8 left-4 border-b border-line"></span>
        </div>
        <div class="mt-2 flex gap-2">
          <button type="button" class="btn min-h-12" (click)="clear()">Clear</button>
          <button type="button" class="btn btn-ink min-h-12 flex-1 text-lg" (click)="sign(who)">Sign</button>
        </div>
      }
      @if (fault()) {
        <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2">{{ fault() }}</p>
      }
      <button type="button" class="btn btn-hand mt-5 min-h-16 text-xl" (click)="closed.emit()">To the panes</button>
    </section>
  `,
  host: { class: 'block' },
})
export class ReadySheet {
  protected readonly lay = inject(LayStore);
  private readonly record = inject(RecordStore);
  readonly closed = output<void>();
  private readonly canvas = viewChild<ElementRef<HTMLCanvasElement>>('pad');
  private pad: SignaturePad | null = null;
  protected readonly fault = signal('');

  protected readonly items = computed(() =>
    (this.lay.set()?.ready ?? []).map((r) => {
      const line = this.lay.siteLines().find((e) => e.kind === 'ready' && e.stepKey === r.key);
      return { ...r, isAsked: line !== undefined, lineId: line?.id ?? null };
    }),
  );
  protected readonly photos = computed(() => this.lay.siteLines().filter((e) => e.kind === 'photo'));
  protected readonly signed = computed(() => this.lay.siteLines().find((e) => e.kind === 'signed') ?? null);

  constructor() {
    // the field is drawn with the page; its pixels follow its size on the screen
    setTimeout(() => {
      const canvas = this.canvas()?.nativeElement;
      if (!canvas?.getContext('2d')) return;
      [canvas.width, canvas.height] = [canvas.clientWidth, canvas.clientHeight];
      this.pad = new SignaturePad(canvas, { penColor: '#1C2226' });
    });
  }

  protected clock(iso: string): string {
    return clockAt(iso, this.record.doc()?.job.zone ?? 'Etc/UTC');
  }
  protected async ask(key: string, text: string, lineId: string | null): Promise<void> {
    const line = this.lay.siteLines().find((e) => e.id === lineId);
    if (line) await this.lay.correct(line, 'not so');
    else await this.lay.write('ready', text, { surfaceId: null, stepKey: key });
  }
  protected async photo(blob: Blob, what: HTMLInputElement): Promise<void> {
    const text = what.value.trim();
    if (await this.lay.write('photo', 'Photo before the work', { surfaceId: null, stepKey: 'before', text }, blob)) what.value = '';
  }
  protected clear(): void {
    this.pad?.clear();
  }
  protected async sign(who: HTMLInputElement): Promise<void> {
    const name = who.value.trim();
    const canvas = this.canvas()!.nativeElement;
    const strokes = (this.pad?.toData() ?? []).map((g) => g.points.map((p): [number, number] => [round(p.x / canvas.width), round(p.y / canvas.width)]));
    if (!name || strokes.length === 0) {
      this.fault.set(name ? 'The line above is empty: the customer signs on it.' : 'Write the name of who signs.');
      return;
    }
    if (await this.lay.write('signed', `${name} has signed`, { surfaceId: null, signature: { name, strokes } })) this.fault.set('');
  }
}
const round = (v: number): number => Math.round(v * 10_000) / 10_000;
