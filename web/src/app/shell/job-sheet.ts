import { ChangeDetectionStrategy, Component, type ElementRef, inject, signal, viewChild } from '@angular/core';
import { addresses, addressFrom } from '@yellow-pane/contracts';
import { SiteField } from '../kit/site-field';
import { RecordStore } from '../record/record.store';

type PaperOfJob = 'jobFile' | 'measuresCsv' | 'cutSheetPdf' | 'labelsPdf' | 'cutListCsv' | 'rollSvg' | 'rollDxf' | 'runSheetPdf' | 'layLogCsv';
const file = (name: string, call: PaperOfJob) => ({ name, href: (jobId: string): string => addressFrom(addresses[call].path, { jobId }) });

/** What a job is: for whom, where, until when; and its files. */
@Component({
  selector: 'yp-job-sheet',
  imports: [SiteField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <dialog #sheet class="m-auto max-h-[90dvh] w-[560px] max-w-[94vw] border border-ink bg-card p-6 backdrop:bg-ink/40" aria-labelledby="job-title">
      <div class="mb-3 flex items-start justify-between">
        <h2 id="job-title" class="text-xl">Job details</h2>
        <button type="button" class="btn" (click)="close()">Close</button>
      </div>
      @if (record.doc(); as doc) {
        <div class="grid grid-cols-2 gap-2 text-sm">
          <label
            >Name<input
              #name
              class="field"
              maxlength="120"
              [value]="doc.job.name"
              (change)="name.value.trim() && setJob('Name of the job', { name: name.value.trim() })"
          /></label>
          <label
            >Customer<input
              #customer
              class="field"
              maxlength="120"
              [value]="doc.job.customer"
              (change)="setJob('Customer', { customer: customer.value.trim() })"
          /></label>
          <label
            >Address<input #address class="field" maxlength="240" [value]="doc.job.address" (change)="setJob('Address', { address: address.value.trim() })"
          /></label>
          <label
            >Due on<input #due class="field" type="date" [value]="doc.job.dueOn ?? ''" (change)="setJob('Due date', { dueOn: due.value || null })"
          /></label>
        </div>
        <yp-site-field
          class="mt-3"
          [latDeg]="doc.job.latDeg"
          [lonDeg]="doc.job.lonDeg"
          (placed)="setJob('Place of the job', { latDeg: $event?.latDeg ?? null, lonDeg: $event?.lonDeg ?? null })"
        />
        <h3 class="cap mt-5 mb-1">This job as a file</h3>
        <ul class="flex flex-wrap gap-x-4 gap-y-1 text-sm underline">
          @for (f of files; track f.name) {
            <li>
              <a [href]="f.href(doc.job.id)" target="_blank" rel="noopener">{{ f.name }}</a>
            </li>
          }
        </ul>
        <label class="mt-3 block text-sm"
          >Bring in measures (CSV with place, surface, measure, value) <input type="file" accept=".csv,text/csv" class="mt-1 block" (change)="bringIn($event)"
        /></label>
      }
      @if (note()) {
        <p role="status" class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm whitespace-pre-line">{{ note() }}</p>
      }
    </dialog>
  `,
})
export class JobSheet {
  protected readonly record = inject(RecordStore);
  private readonly sheet = viewChild.required<ElementRef<HTMLDialogElement>>('sheet');
  protected readonly note = signal('');
  protected readonly files = [
    file('Job file (JSON)', 'jobFile'),
    file('Measures (CSV)', 'measuresCsv'),
    file('Cut sheet (PDF)', 'cutSheetPdf'),
    file('Labels (PDF)', 'labelsPdf'),
    file('Cut list (CSV)', 'cutListCsv'),
    file('Rolls (SVG)', 'rollSvg'),
    file('Rolls (DXF)', 'rollDxf'),
    file('Run sheets (PDF)', 'runSheetPdf'),
    file('Log of the work (CSV)', 'layLogCsv'),
  ];

  open(): void {
    this.note.set('');
    this.sheet().nativeElement.showModal();
  }
  close(): void {
    this.sheet().nativeElement.close();
  }

  protected setJob(label: string, fields: Record<string, unknown>): void {
    const job = this.record.doc()?.job;
    if (job) void this.record.set(label, 'job', job.id, fields);
  }

  protected async bringIn(event: Event): Promise<void> {
    const box = event.target as HTMLInputElement;
    const file = box.files?.[0];
    if (!file) return;
    this.note.set(await this.record.importMeasures(await file.text()));
    box.value = '';
  }
}
