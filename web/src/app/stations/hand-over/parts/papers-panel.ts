import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { hrefOf } from '../../../record/api';
import { RecordStore } from '../../../record/record.store';
import { HandOverStore } from '../hand-over.store';

interface Paper {
  readonly name: string;
  readonly what: string;
  readonly file: string;
  readonly href: string;
  readonly type: string;
}

/** The papers of the end of the job: opened, kept or handed to whatever the device shares with. */
@Component({
  selector: 'yp-papers-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="text-lg">Papers</h3>
    <div class="mt-1 mb-2 flex flex-wrap gap-2 text-sm">
      <label class="flex items-center gap-1.5"
        >Paper<select #p class="field w-24!" (change)="paper.set(p.value === 'letter' ? 'letter' : 'a4')">
          <option value="a4" [selected]="paper() === 'a4'">A4</option>
          <option value="letter" [selected]="paper() === 'letter'">Letter</option>
        </select></label
      >
      <label class="flex items-center gap-1.5"
        >Of<select #w class="field w-36!" (change)="placeId.set(w.value)">
          <option value="">the whole job</option>
          @for (x of store.places(); track x.id) {
            <option [value]="x.id" [selected]="placeId() === x.id">{{ x.name }}</option>
          }
        </select></label
      >
      @if (languages().length > 1) {
        <label class="flex items-center gap-1.5"
          >Care sheet in<select #l class="field w-32!" (change)="language.set(l.value)">
            @for (x of languages(); track x.language) {
              <option [value]="x.language" [selected]="language() === x.language">{{ nameOf(x.language) }}</option>
            }
          </select></label
        >
      }
    </div>
    @for (f of faulty(); track f.language) {
      <p class="mb-2 border-l-4 border-ink bg-tint p-2 text-sm">The file care.{{ f.language }}.txt does not read. {{ f.fault }}</p>
    }
    <ul class="border-t border-hair">
      @for (x of papers(); track x.name) {
        <li class="flex items-center gap-2 border-b border-hair py-1.5">
          <a class="min-w-0 flex-1 py-1" [href]="x.href" target="_blank" rel="noopener"
            ><span class="block font-bold underline decoration-field underline-offset-2">{{ x.name }}</span
            ><span class="block text-sm text-soft">{{ x.what }}</span></a
          >
          @if (canShare) {
            <button type="button" class="btn min-h-11" [attr.aria-label]="'Share: ' + x.name" (click)="share(x)">Share</button>
          }
        </li>
      }
    </ul>
    @if (fault()) {
      <p role="alert" class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm">{{ fault() }}</p>
    }
  `,
  host: { class: 'mb-5 block' },
})
export class PapersPanel {
  private readonly record = inject(RecordStore);
  protected readonly store = inject(HandOverStore);
  protected readonly paper = signal<'a4' | 'letter'>('a4');
  protected readonly placeId = signal('');
  protected readonly language = signal('en');
  protected readonly fault = signal('');
  protected readonly languages = computed(() => this.store.languages().filter((l) => !l.fault));
  protected readonly faulty = computed(() => this.store.languages().filter((l) => l.fault));
  /** Files can be handed to other programs of the device. */
  protected readonly canShare =
    typeof navigator.canShare === 'function' && navigator.canShare({ files: [new File([''], 'a.pdf', { type: 'application/pdf' })] });

  protected readonly papers = computed<readonly Paper[]>(() => {
    const job = this.record.doc()?.job;
    if (!job) return [];
    const params = { jobId: job.id };
    const paper = this.paper();
    const pdf = 'application/pdf';
    return [
      { name: 'Record of the work', what: 'All that is laid, what was seen, who signed, the seal', file: `${job.name} record.pdf`, type: pdf, href: hrefOf('handOverPdf', { params, query: { paper, ...(this.placeId() ? { placeId: this.placeId() } : {}) } }) }, // prettier-ignore
      { name: 'Care sheet', what: 'For the customer, by the films that are there', file: `${job.name} care.pdf`, type: pdf, href: hrefOf('careSheetPdf', { params, query: { paper, language: this.language() } }) }, // prettier-ignore
      { name: 'Calendar', what: 'Days to look, to come back, until it is clear', file: `${job.name}.ics`, type: 'text/calendar', href: hrefOf('calendar', { params }) },
      { name: 'Job file', what: 'All records of the job, to keep or to bring in elsewhere', file: `${job.name}.json`, type: 'application/json', href: hrefOf('jobFile', { params }) },
    ]; // prettier-ignore
  });

  protected nameOf(language: string): string {
    return new Intl.DisplayNames(['en'], { type: 'language' }).of(language) ?? language;
  }

  protected async share(x: Paper): Promise<void> {
    try {
      const answer = await fetch(x.href);
      if (!answer.ok) throw new Error(((await answer.json()) as { detail?: string }).detail ?? 'The bench did not give the paper.');
      await navigator.share({ files: [new File([await answer.blob()], x.file, { type: x.type })], title: x.file });
      this.fault.set('');
    } catch (error) {
      // whoever closes the sheet has not failed
      if ((error as Error).name !== 'AbortError') this.fault.set(`${x.name} could not be shared: ${(error as Error).message}`);
    }
  }
}
