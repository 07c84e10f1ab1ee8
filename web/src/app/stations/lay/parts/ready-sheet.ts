import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { LayStore } from '../lay.store';
import { clockAt } from '../lay-words';
import { RecordStore } from '../../../record/record.store';
import { PhotoButton } from '../../../kit/photo-button';
import { SignatureField, type Signed } from '../../../kit/signature-field';

/** Before the first pane: what was asked on site, photos of what is already scratched or broken, and the customer's signature under them. */
@Component({
  selector: 'yp-ready-sheet',
  imports: [PhotoButton, SignatureField],
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
        <p class="border-b border-hair py-1.5 text-sm">
          {{ clock(p.occurredAt) }} · {{ p.erased ? 'a photo, erased on request' : (p.text || 'a photo') + (p.photo ? '' : ' (on its way)') }}
        </p>
      }
      @if (signed(); as s) {
        <p class="mt-4 border-l-4 border-proof bg-proof-tint p-3" data-signed>
          {{ s.signature?.name ?? 'Somebody whose name was erased' }} has signed at {{ clock(s.occurredAt) }}.
        </p>
      } @else {
        <h3 class="cap mt-4 mb-1">The customer signs</h3>
        <yp-signature-field (signed)="sign($event)" />
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

  protected readonly items = computed(() =>
    (this.lay.set()?.ready ?? []).map((r) => {
      const line = this.lay.siteLines().find((e) => e.kind === 'ready' && e.stepKey === r.key);
      return { ...r, isAsked: line !== undefined, lineId: line?.id ?? null };
    }),
  );
  protected readonly photos = computed(() => this.lay.siteLines().filter((e) => e.kind === 'photo'));
  protected readonly signed = computed(() => this.lay.siteLines().find((e) => e.kind === 'signed') ?? null);

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
  protected async sign(signature: Signed): Promise<void> {
    await this.lay.write('signed', `${signature.name} has signed`, { surfaceId: null, signature });
  }
}
