import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { RecordStore } from '../../../record/record.store';
import { HandOverStore } from '../hand-over.store';

/** The customer called: written down with the pane it is about, and from there straight to looking at it. */
@Component({
  selector: 'yp-calls-panel',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="text-lg">The customer called</h3>
    @for (c of store.calls(); track c.id) {
      <p class="border-b border-hair py-1.5 text-sm" data-call>
        <strong>{{ day(c.occurredAt) }}{{ paneOf(c.surfaceId) ? ', ' + paneOf(c.surfaceId) : '' }}</strong> {{ c.text || '(erased)' }}
        @if (c.surfaceId) {
          <a class="underline" [routerLink]="['/jobs', record.doc()!.job.id, 'check']" (click)="record.select(c.surfaceId)">Look at it</a>
        }
      </p>
    }
    @if (isOpen()) {
      <form class="mt-2 grid gap-2" (submit)="$event.preventDefault(); keep(pane.value, words.value)">
        <label class="text-sm"
          >About<select #pane class="field">
            <option value="">the whole job</option>
            @for (p of store.panes(); track p.surfaceId) {
              <option [value]="p.surfaceId">{{ p.name }}, {{ p.place }}</option>
            }
          </select></label
        >
        <label class="text-sm">What they say<textarea #words class="field min-h-16" maxlength="600" required></textarea></label>
        <div class="flex gap-2">
          <button class="btn btn-ink">Write it down</button><button type="button" class="btn" (click)="isOpen.set(false)">Cancel</button>
        </div>
      </form>
    } @else {
      <div class="mt-2 flex flex-wrap items-center gap-3">
        <button type="button" class="btn" (click)="isOpen.set(true)">Write a call down</button>
        <a routerLink="/call-backs" class="text-sm underline">Calls of all jobs</a>
      </div>
    }
  `,
  host: { class: 'mb-5 block' },
})
export class CallsPanel {
  protected readonly store = inject(HandOverStore);
  protected readonly record = inject(RecordStore);
  protected readonly isOpen = signal(false);

  protected day(iso: string): string {
    return new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: this.record.doc()?.job.zone ?? 'Etc/UTC' });
  }
  protected paneOf(id: string | null): string {
    return this.record.doc()?.surfaces.find((s) => s.id === id)?.name ?? '';
  }
  protected async keep(surfaceId: string, text: string): Promise<void> {
    if (text.trim() && (await this.store.called(surfaceId || null, text.trim()))) this.isOpen.set(false);
  }
}
