import { effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { CutShort, FilmPlanInput } from '@yellow-pane/core';
import type { UnitSystem } from '@yellow-pane/core/ground';
import { LayoutSearch } from '../compute/layout-search';
import { RecordStore, type OpenJob } from './record.store';

/** How long typing rests before the job is worked out anew, ms. */
const REST_MS = 250;

/** What grows with all panes of the open job and is worked out beside the page after every change: what each film's plan is made from, and what was cut too small. */
@Injectable({ providedIn: 'root' })
export class WorkedOutJob {
  private readonly record = inject(RecordStore);
  private readonly search = inject(LayoutSearch);
  /** By the film's id. */
  readonly inputs = signal<ReadonlyMap<string, FilmPlanInput>>(new Map());
  /** Pieces already cut that do not cover their panes any more. */
  readonly short = signal<readonly CutShort[]>([]);
  /** The records that these figures are of. */
  readonly of = signal<OpenJob | null>(null);
  private inUnits: UnitSystem = 'mm';
  private asked: { readonly of: OpenJob; readonly units: UnitSystem; readonly answer: Promise<void> } | null = null;

  constructor() {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let jobId: string | undefined;
    effect(() => {
      const open = this.record.records();
      this.record.units();
      clearTimeout(timer);
      const isOther = open?.job.id !== jobId;
      jobId = open?.job.id;
      if (untracked(this.of)?.job.id !== jobId) untracked(() => this.take(null, new Map(), []));
      timer = setTimeout(() => void this.fresh(), isOther ? 0 : REST_MS);
    });
  }

  /** Until the figures are of the records as they are at this moment, or of later ones. */
  async fresh(): Promise<void> {
    const [open, units] = [this.record.records(), this.record.units()];
    if (!open || (open === this.of() && units === this.inUnits)) return;
    if (this.asked?.of !== open || this.asked.units !== units) this.asked = { of: open, units, answer: this.workOut(open, units) };
    await this.asked.answer;
  }

  private async workOut(open: OpenJob, units: UnitSystem): Promise<void> {
    const { memo: _memo, ...plain } = open;
    const { inputs, short } = await this.search.workOut(plain, units);
    if (open.job.id !== this.record.doc()?.job.id) return;
    this.inUnits = units;
    this.take(open, inputs, short);
  }

  private take(of: OpenJob | null, inputs: ReadonlyMap<string, FilmPlanInput>, short: readonly CutShort[]): void {
    this.inputs.set(inputs);
    this.short.set(short);
    this.of.set(of);
  }
}
