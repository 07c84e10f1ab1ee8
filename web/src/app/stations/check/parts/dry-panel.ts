import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { dryFilm } from '@yellow-pane/core/check';
import { RecordStore } from '../../../record/record.store';
import { CheckStore } from '../check.store';
import { dayOf } from '../check-words';

/** What is known of a surface that film was laid on dry: when it is looked over, what may have done harm, when somebody looked. */
@Component({
  selector: 'yp-dry-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (check.here(); as p) {
      <h3 class="cap mb-1">Laid dry</h3>
      @if (lookDue(); as due) {
        <p class="mb-2 text-xl leading-tight" data-look-due>
          Look it over from <strong>{{ day(due) }}</strong>
        </p>
      } @else {
        <p class="mb-2 text-xl leading-tight">Looked over.</p>
      }
      <p class="mb-3 text-sm text-soft">
        Laid {{ day(p.laidAt) }}. There is no water in it: what is pressed too softly shows a day later in the sun, what was not heated through comes back in
        the first weeks (common practice).
      </p>
      @if (holds(); as h) {
        <p class="mb-3 text-[15px]" data-holds>
          {{ h.isAhead ? 'Holds fully from' : 'Has held fully since' }} <strong>{{ day(h.at) }}</strong>{{
            h.isAhead ? ': laid without heat over all of it, its glue takes two weeks (common practice). Nobody washes or rubs it before.' : '.'
          }}
        </p>
      }
      <p class="mb-3 border-l-4 border-ink bg-glass p-2.5 text-[15px]"><strong>The truth test:</strong> pass warm air over it. Hidden air stands up at once.</p>
      <p class="mb-3 border-l-4 border-harm bg-harm-tint p-2.5 text-sm">
        The gun only where no alcohol or promoter is smelt; off sprinkler heads, detectors and plastics.
      </p>
      @if (harm().length) {
        <h3 class="cap mb-1">May have done harm</h3>
        <ul class="mb-3 text-sm" data-harm>
          @for (h of harm(); track h) {
            <li class="border-t border-hair py-1">{{ h }}</li>
          }
        </ul>
      }
      @if (p.looks.length) {
        <h3 class="cap">Looked at</h3>
        <ul class="mb-3 text-sm">
          @for (l of p.looks; track l.id) {
            <li class="flex justify-between border-t border-hair py-1">
              <span>{{ l.look!.isClean ? 'looked over: clean' : 'looked over, with pins open' }}</span><span class="figure text-soft">{{
                day(l.occurredAt)
              }}</span>
            </li>
          }
        </ul>
        <button type="button" class="btn mb-3" data-look-back (click)="check.takeBack(p.looks[p.looks.length - 1]!.id, 'looked at by mistake')">
          The last one was wrong
        </button>
      }
    }
  `,
  host: { class: 'block' },
})
export class DryPanel {
  protected readonly check = inject(CheckStore);
  private readonly record = inject(RecordStore);
  protected readonly lookDue = computed(() => this.check.here()?.due.find((d) => d.kind === 'look')?.dueAt ?? null);
  /** What of the log makes something likelier; what only rules something out does no harm. */
  protected readonly harm = computed(() => {
    const facts = this.check.here()?.facts ?? [];
    return dryFilm.facts
      .filter((f) => facts.includes(f.key) && Object.values(f.times).some((t) => t > 1))
      .map((f) => `${f.text[0]!.toUpperCase()}${f.text.slice(1)}.`);
  });
  protected readonly holds = computed(() => {
    const here = this.check.here();
    return here && 'holdsAt' in here ? { at: here.holdsAt, isAhead: Date.parse(here.holdsAt) > this.check.nowMs() } : null;
  });
  protected day(iso: string): string {
    return dayOf(iso, this.record.doc()?.job.zone ?? 'Etc/UTC');
  }
}
