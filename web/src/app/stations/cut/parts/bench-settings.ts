import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MOST_ALLOWANCE_MM, type CutSettings, type SizeStep } from '@yellow-pane/contracts';
import { resolveDry, sizeStepNames } from '@yellow-pane/core/cut';
import { figureOf, formatDifference, formatLength, measureOf, parseLength, told } from '@yellow-pane/core/ground';
import { DryFields, withDry, type DryChange } from '../../../kit/dry-fields';
import { RecordStore } from '../../../record/record.store';

/** What bench, knife and job allow: longest pull, stages, allowances, lots and direction. */
@Component({
  selector: 'yp-bench-settings',
  imports: [DryFields, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p><a class="underline" routerLink="/stock">Stock</a>: {{ idle() }}</p>
    <p class="flex flex-wrap items-center gap-2">
      <label class="flex items-center gap-1"
        >Pull <input #pull class="field figure w-28!" [value]="f(record.doc()!.job.cut.longestPullMm)" (change)="setPull(pull)"
      /></label>
      @if (pullCost()) {
        <span class="basis-full text-soft" data-pull-cost>{{ pullCost() }}</span>
      }
      <label class="flex min-w-0 flex-1 basis-full items-center gap-1"
        >Knife
        <select #stages class="field w-full! min-w-0 flex-1" (change)="setStages(stages.value)">
          <option value="3" [selected]="record.doc()?.job?.cut?.stages === 3">across, along, across</option>
          <option value="4" [selected]="record.doc()?.job?.cut?.stages === 4">and once more along</option>
        </select></label
      >
    </p>
    <label class="flex min-h-7 items-center gap-2"
      ><input
        type="checkbox"
        [checked]="record.doc()!.job.cut.oneDirection"
        (change)="setCut('All pieces one way round', { oneDirection: !record.doc()!.job.cut.oneDirection })"
      />
      metallised and embossed film one way round</label
    >
    <label class="flex min-h-7 items-center gap-2"
      ><input type="checkbox" [checked]="record.doc()!.job.cut.mixLots" (change)="setCut('Lots may be mixed', { mixLots: !record.doc()!.job.cut.mixLots })" />
      panes that meet may mix lots</label
    >
    <details>
      <summary class="cursor-pointer py-1 underline">Bench and allowances of the job</summary>
      <div class="grid grid-cols-2 gap-2 pt-1">
        @for (a of jobFields(); track a.field) {
          <label class="block">{{ a.name }}<input #box class="field figure" [value]="a.value" (change)="setJobField(a.field, box)" /></label>
        }
        <label class="block"
          >Handy sizes<select #step class="field" (change)="setSizeStep(step.value)">
            @for (s of sizeSteps; track s) {
              <option [value]="s" [selected]="s === stepNow()">{{ stepNames[s][record.units()] }}</option>
            }
          </select></label
        >
      </div>
      @if (hasDry()) {
        <p class="cap mt-2 mb-1">Pieces that are laid dry</p>
        <yp-dry-fields [dry]="jobDry()" [own]="record.doc()!.job.dry" [units]="record.units()" (changed)="setDry($event)" />
      }
    </details>
    <button type="button" class="min-h-6 underline" (click)="record.openFilmSheet(true)">Another roll</button>
    @if (settingsNote() || note()) {
      <p role="alert" class="border-l-4 border-ink bg-tint p-2">{{ settingsNote() || note() }}</p>
    }
  `,
  host: { class: 'block space-y-1' },
})
export class BenchSettings {
  /** Rolls of this film that the plan does not need, in words. */
  readonly idle = input('');
  /** What the longest pull costs, in words. */
  readonly pullCost = input('');
  /** Something to be told beside the settings. */
  readonly note = input('');
  protected readonly record = inject(RecordStore);
  protected readonly settingsNote = signal('');

  protected f = (mm: number): string => formatLength(mm, this.record.units());

  /** Only where something in the job is laid dry. */
  protected readonly hasDry = computed(() => this.record.doc()?.surfaces.some((s) => s.kind !== 'pane') ?? false);
  protected readonly jobDry = computed(() => resolveDry(this.record.records()!, { dry: null }));
  protected setDry(change: DryChange): void {
    const job = this.record.doc()?.job;
    if (job) void this.record.set('What is added to pieces that are laid dry', 'job', job.id, { dry: withDry(job.dry, change) });
  }

  protected setCut(label: string, part: Partial<CutSettings>): void {
    const doc = this.record.doc();
    if (doc) void this.record.set(label, 'job', doc.job.id, { cut: { ...doc.job.cut, ...part } });
  }

  protected setPull(box: HTMLInputElement): void {
    const doc = this.record.doc();
    const read = parseLength(box.value, this.record.units());
    if (!read.ok) return this.settingsNote.set(read.message);
    this.settingsNote.set('');
    if (doc) void this.record.set('Longest pull', 'job', doc.job.id, { cut: { ...doc.job.cut, longestPullMm: read.value.lengthMm } });
  }
  /** What bench, knife and job allow, as shown. */
  protected readonly jobFields = computed(() => {
    const doc = this.record.doc();
    if (!doc) return [];
    const { cut } = doc.job;
    const a = { ...doc.firm.allowances, ...doc.job.allowances };
    const fine = (mm: number | undefined) => (this.record.units() === 'mm' ? String(Math.round((mm ?? 0) * 10) / 10) : this.f(mm ?? 0));
    return [
      { field: 'overhangMm', name: 'Overhang', value: fine(a.overhangMm) },
      { field: 'overhangTopMm', name: 'Overhang at the top', value: fine(a.overhangTopMm) },
      { field: 'edgeGapMm', name: 'Edge gap', value: fine(a.edgeGapMm) },
      { field: 'crosscutAllowanceMm', name: 'Lost per crosscut', value: fine(cut.crosscutAllowanceMm) },
      { field: 'slitAllowanceMm', name: 'Lost per slit', value: fine(cut.slitAllowanceMm) },
      { field: 'smallestStripMm', name: 'Smallest strip', value: fine(cut.smallestStripMm) },
      {
        field: 'largestSheetM2',
        name: `Heaviest sheet, ${measureOf('area', this.record.units()).unit}`,
        value: cut.largestSheetM2 === null ? '' : figureOf(cut.largestSheetM2, 'area', this.record.units()),
      },
    ] as const;
  });
  protected readonly sizeSteps: readonly SizeStep[] = ['none', 'fine', 'coarse'];
  protected readonly stepNames = sizeStepNames;
  protected readonly stepNow = computed((): SizeStep => {
    const doc = this.record.doc();
    return doc?.job.allowances?.sizeStep ?? doc?.firm.allowances.sizeStep ?? 'none';
  });
  protected setSizeStep(value: string): void {
    const doc = this.record.doc();
    const step = this.sizeSteps.find((s) => s === value);
    if (doc && step) void this.record.set('Handy sizes of the job', 'job', doc.job.id, { allowances: { ...doc.job.allowances, sizeStep: step } });
  }
  protected setJobField(field: string, box: HTMLInputElement): void {
    const doc = this.record.doc();
    if (!doc) return;
    if (field === 'largestSheetM2') {
      const { from } = measureOf('area', this.record.units());
      const m2 = box.value.trim() === '' ? null : from(Number(box.value.replace(',', '.')));
      if (m2 !== null && !(m2 > 0 && m2 <= 100))
        return this.settingsNote.set(told('The heaviest sheet is between 0 and 100 m²; leave it empty for no limit.', this.record.units()));
      this.settingsNote.set('');
      return void this.record.set('Heaviest sheet', 'job', doc.job.id, { cut: { ...doc.job.cut, largestSheetM2: m2 } });
    }
    const read = parseLength(box.value, this.record.units());
    if (!read.ok) return this.settingsNote.set(read.message);
    const most = field in MOST_ALLOWANCE_MM ? MOST_ALLOWANCE_MM[field as keyof typeof MOST_ALLOWANCE_MM] : field === 'smallestStripMm' ? 300 : 50;
    if (read.value.lengthMm > most) return this.settingsNote.set(`At most ${formatDifference(most, this.record.units())}.`);
    this.settingsNote.set('');
    const isAllowance = field in MOST_ALLOWANCE_MM;
    const fields = isAllowance
      ? { allowances: { ...doc.job.allowances, [field]: read.value.lengthMm } }
      : { cut: { ...doc.job.cut, [field]: read.value.lengthMm } };
    void this.record.set('Allowances of the job', 'job', doc.job.id, fields);
  }
  protected setStages(stages: string): void {
    const doc = this.record.doc();
    if (doc) void this.record.set('Cutting stages', 'job', doc.job.id, { cut: { ...doc.job.cut, stages: Number(stages) } });
  }
}
