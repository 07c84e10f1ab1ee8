import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { RouterLink } from '@angular/router';
import { SignatureField, type Signed } from '../../kit/signature-field';
import { RecordStore } from '../../record/record.store';
import { HandOverStore, type PaneToHandOver, type PlaceToHandOver } from './hand-over.store';
import { CallsPanel } from './parts/calls-panel';
import { ErasePanel } from './parts/erase-panel';
import { PapersPanel } from './parts/papers-panel';
import { SealsPanel } from './parts/seals-panel';

/** Hand over: the customer walks the panes and signs; papers, seals, calls after it, and what has to be erased. */
@Component({
  selector: 'yp-hand-over-page',
  imports: [RouterLink, SignatureField, CallsPanel, ErasePanel, PapersPanel, SealsPanel],
  providers: [HandOverStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './hand-over-page.html',
  host: { class: 'block h-full' },
})
export class HandOverPage {
  protected readonly record = inject(RecordStore);
  protected readonly store = inject(HandOverStore);
  /** Panes that the customer takes over now. */
  protected readonly chosen = signal<ReadonlySet<string>>(new Set());
  protected readonly isSigning = signal(false);
  protected readonly said = signal('');
  private readonly zone = computed(() => this.record.doc()?.job.zone ?? 'Etc/UTC');
  protected readonly overCount = computed(() => this.store.panes().filter((p) => p.acceptedBy).length);
  protected readonly chosenPanes = computed(() => this.store.panes().filter((p) => this.chosen().has(p.surfaceId)));
  protected readonly openOnes = computed(() => this.chosenPanes().filter((p) => p.because));

  constructor() {
    // the days behind the drying, when the job is here and again when the bench is back in reach
    const asked = computed(() => `${this.record.doc()?.job.id ?? ''}/${this.store.queue.isReached()}`);
    effect(() => {
      asked();
      const jobId = untracked(() => this.record.doc()?.job.id);
      if (!jobId) return;
      untracked(() => {
        void this.store.weather.hear(jobId);
        void this.store.hearLanguages();
      });
    });
  }

  protected day(iso: string): string {
    return new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: this.zone() });
  }
  protected overText(p: PaneToHandOver): string {
    return `taken over ${this.day(p.acceptedBy!.occurredAt)}${p.acceptedBy!.signature ? ` by ${p.acceptedBy!.signature.name}` : ''}`;
  }
  protected toggle(id: string): void {
    this.chosen.update((old) => (old.has(id) ? new Set([...old].filter((x) => x !== id)) : new Set([...old, id])));
  }
  protected isWhole = (place: PlaceToHandOver): boolean => place.panes.every((p) => this.chosen().has(p.surfaceId));
  protected toggleAll(place: PlaceToHandOver): void {
    const ids = place.panes.map((p) => p.surfaceId);
    const isWhole = this.isWhole(place);
    this.chosen.update((old) => new Set([...[...old].filter((x) => !ids.includes(x)), ...(isWhole ? [] : ids)]));
  }
  protected async sign(signature: Signed, names: string): Promise<void> {
    const ids = this.chosenPanes().map((p) => p.surfaceId);
    if (!(await this.store.accept(ids, signature, names.trim()))) return;
    this.isSigning.set(false);
    this.chosen.set(new Set());
    this.said.set(`${signature.name} has taken over ${this.store.count(ids.length)}. The seal stands under “Seals”.`);
  }
}
