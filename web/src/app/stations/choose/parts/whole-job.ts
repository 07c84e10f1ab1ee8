import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { Grade } from '@yellow-pane/contracts';
import { panesOf, enclosingRectangle, surveySurface } from '@yellow-pane/core';
import { gradeWords, type PaneJudged } from '@yellow-pane/core/choose';
import { VerdictSearch } from '../../../compute/verdict-search';
import { RecordStore } from '../../../record/record.store';
import { verdictInputOf } from '../choose.updaters';

/** Every pane of the job with the film chosen for it: which may go, which are to be asked about, which must not. */
@Component({
  selector: 'yp-whole-job',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="text-sm" data-whole-job>
      @if (total() === 0) {
        <button type="button" class="min-h-6 underline" (click)="judge()">Judge every pane of the job</button>
      } @else {
        <p role="status" class="flex items-center gap-2">
          <span>{{ summary() }}</span>
          @if (running()) {
            <progress class="h-2 flex-1" [value]="judged().length" [max]="total()"></progress>
            <button type="button" class="min-h-6 underline" (click)="stop()">Stop</button>
          } @else {
            <button type="button" class="min-h-6 underline" (click)="judge()">Again</button>
          }
        </p>
        <ul>
          @for (j of doubtful(); track j.id) {
            <li>
              <button type="button" class="min-h-6 text-left" (click)="record.select(j.id)" [attr.title]="j.reason">
                <span class="underline">{{ nameOf(j.id) }}</span> <span [class]="j.grade === 'ask' ? 'text-heat-text' : 'text-harm'">{{ words[j.grade] }}</span>
              </button>
            </li>
          }
        </ul>
      }
    </div>
  `,
})
export class WholeJob {
  protected readonly record = inject(RecordStore);
  private readonly search = inject(VerdictSearch);
  protected readonly words = gradeWords;
  protected readonly judged = signal<readonly PaneJudged[]>([]);
  protected readonly total = signal(0);
  protected readonly running = signal(false);
  private unseen = 0;

  protected readonly doubtful = computed(() => this.judged().filter((j) => j.grade !== 'go'));
  protected readonly summary = computed(() => {
    const count = (g: Grade) => this.judged().filter((j) => j.grade === g).length;
    return `${count('go')} go, ${count('ask')} to ask, ${count('do-not')} must not${this.unseen ? `, ${this.unseen} without glass or film` : ''}`;
  });
  protected nameOf = (id: string): string => this.record.doc()?.surfaces.find((s) => s.id === id)?.name ?? '';

  protected judge(): void {
    const doc = this.record.records();
    if (!doc) return;
    const year = new Date().getFullYear();
    const panes = panesOf(doc.surfaces);
    const items = panes.flatMap((s) => {
      const box = enclosingRectangle(surveySurface(s, doc).survey);
      const film = doc.films.find((f) => f.id === s.filmId);
      const input = verdictInputOf(doc, s, box ?? { widthMm: 1000, heightMm: 1200 }, year, 0);
      return film && input ? [{ id: s.id, film, input: { ...input, filmFace: s.filmFace } }] : [];
    });
    this.unseen = panes.length - items.length;
    this.judged.set([]);
    this.total.set(items.length);
    this.running.set(true);
    void this.search.judgeJob(items, (more) => this.judged.update((now) => [...now, ...more])).then(() => this.running.set(false));
  }
  protected stop(): void {
    void this.search.stopJob();
    this.running.set(false);
  }
}
