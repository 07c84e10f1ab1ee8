import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { isMeasured, panesReadyToLay, surveyed, type CutShort, type Surveyed } from '@yellow-pane/core';
import { pinsOf } from '@yellow-pane/core/check';
import { laidPanes, linesInForce } from '@yellow-pane/core/lay';
import { RecordStore, type OpenJob } from './record.store';
import { WorkedOutJob } from './worked-out';

/** How far each surface has come. */
export interface Progress {
  readonly survey: Surveyed;
  readonly isMeasured: boolean;
  readonly isDoubtful: boolean;
  readonly isCut: boolean;
  readonly isLaid: boolean;
}

/** So long the panes of a job may hold the page up at a time, ms. */
const SLICE_MS = 30;

@Injectable({ providedIn: 'root' })
export class JobProgress {
  private readonly record = inject(RecordStore);

  /** Pieces already cut that do not cover their panes any more. */
  readonly short: Signal<readonly CutShort[]> = inject(WorkedOutJob).short;
  private readonly round = signal(0);
  /** Being surveyed: as far as it has come. */
  private slice: { readonly of: OpenJob; readonly surveys: Map<string, Surveyed> } | null = null;
  private last: { readonly jobId: string; readonly surveys: ReadonlyMap<string, Surveyed> } | null = null;
  /** A tower is surveyed a slice at a time, so that the page answers meanwhile; until all panes are, what was known before stands. */
  private readonly surveys = computed<ReadonlyMap<string, Surveyed>>(() => {
    this.round();
    const doc = this.record.records();
    if (!doc) return new Map();
    if (this.slice?.of !== doc) this.slice = { of: doc, surveys: new Map() };
    const { surveys } = this.slice;
    const until = performance.now() + SLICE_MS;
    for (const s of doc.surfaces.slice(surveys.size)) {
      surveys.set(s.id, surveyed(s, doc));
      if (performance.now() <= until || surveys.size === doc.surfaces.length) continue;
      setTimeout(() => this.round.update((n) => n + 1));
      return this.last?.jobId === doc.job.id ? this.last.surveys : new Map();
    }
    this.last = { jobId: doc.job.id, surveys };
    return surveys;
  });
  readonly bySurface = computed<ReadonlyMap<string, Progress>>(() => {
    const [doc, surveys] = [this.record.records(), this.surveys()];
    if (!doc || surveys.size === 0) return new Map();
    const cut = panesReadyToLay(doc, this.short());
    const laid = laidPanes(doc.layEntries);
    return new Map(doc.surfaces.flatMap((s) => (surveys.has(s.id) ? [[s.id, this.of(surveys.get(s.id)!, cut.has(s.id), laid.has(s.id))]] : [])));
  });
  /** Not yet while a big job is being opened. */
  readonly isKnown = computed(() => this.bySurface().size > 0 || (this.record.doc()?.surfaces.length ?? 0) === 0);
  readonly measuredCount = computed(() => [...this.bySurface().values()].filter((p) => p.isMeasured).length);
  readonly laidCount = computed(() => [...this.bySurface().values()].filter((p) => p.isLaid).length);
  /** What of the log of checking the stages show: pins that nobody has decided, panes that were seen clear. */
  private readonly checked = computed(() => {
    const lines = linesInForce(this.record.doc()?.layEntries ?? []);
    const laid = laidPanes(lines);
    const open = pinsOf(lines, null).filter((p) => p.state === 'open' && laid.has(p.entry.surfaceId ?? ''));
    const clear = new Set<string>();
    for (const e of lines) {
      if (e.kind === 'pane-done' && e.surfaceId) clear.delete(e.surfaceId);
      if (e.kind === 'looked' && e.surfaceId && laid.has(e.surfaceId)) {
        if (e.look?.water === 'none') clear.add(e.surfaceId);
        else clear.delete(e.surfaceId);
      }
    }
    const over = new Set<string>();
    const there = new Set(this.record.doc()?.surfaces.map((s) => s.id));
    for (const e of lines) {
      // a new piece was not taken over with the old one
      if (e.kind === 'pane-done' && e.surfaceId) over.delete(e.surfaceId);
      if (e.kind === 'accepted') for (const p of e.acceptance?.panes ?? []) if (there.has(p.surfaceId)) over.add(p.surfaceId);
    }
    return { open: open.length, clear: clear.size, over: over.size };
  });
  readonly openPinCount = computed(() => this.checked().open);
  readonly clearCount = computed(() => this.checked().clear);
  readonly handedOverCount = computed(() => this.checked().over);
  readonly cutCount = computed(() => [...this.bySurface().values()].filter((p) => p.isCut).length);

  private of(survey: Surveyed, isCut: boolean, isLaid: boolean): Progress {
    return {
      survey,
      isMeasured: isMeasured(survey),
      isDoubtful: (survey.status === 'doubtful' && !survey.isSigned) || survey.status === 'impossible',
      isCut,
      isLaid,
    };
  }
}
