import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { SealCheck } from '@yellow-pane/contracts';
import { groupedSeal } from '@yellow-pane/core/handover';
import { RecordStore } from '../../../record/record.store';
import { HandOverStore } from '../hand-over.store';

const looks: Record<SealCheck['verdict'], { readonly sign: string; readonly look: string }> = {
  unchanged: { sign: '✓', look: 'border-proof bg-proof-tint' },
  added: { sign: '+', look: 'border-wet bg-wet-tint' },
  erased: { sign: '–', look: 'border-wet bg-wet-tint' },
  changed: { sign: '!', look: 'border-harm bg-harm-tint' },
};

/** What was signed, and whether the record is still that: reckoned anew whenever it is looked at. */
@Component({
  selector: 'yp-seals-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="text-lg">Seals</h3>
    @if (store.seals().length === 0) {
      <p class="text-sm text-soft">Nobody has signed yet. A seal is a sum over the record as it was signed: printed on the paper, reckoned anew here.</p>
    } @else {
      <label class="mt-1 mb-2 block text-sm"
        >Compare one from a paper
        <input #typed class="field figure" maxlength="100" placeholder="first groups of it" (input)="asked.set(typed.value)" />
      </label>
      @if (compared(); as c) {
        <p role="status" class="mb-2 text-sm font-bold" data-compared>{{ c }}</p>
      }
    }
    @for (s of store.seals(); track s.entryId) {
      <div class="mb-2 border-l-4 p-2 text-sm" [class]="look(s).look" [attr.data-seal]="s.verdict">
        <p>
          <strong
            ><span aria-hidden="true">{{ look(s).sign }} </span>{{ s.signedBy }}, {{ day(s.signedAt) }}</strong
          >
        </p>
        @for (t of s.says; track t) {
          <p>{{ t }}</p>
        }
        <p class="figure mt-1 text-xs break-all text-soft">{{ grouped(s.seal) }}</p>
        @if (taking() === s.entryId) {
          <form class="mt-1 flex gap-2" (submit)="$event.preventDefault(); takeBack(s, why.value)">
            <input #why class="field flex-1" maxlength="200" required placeholder="Why it was wrong" aria-label="Why it was wrong" /><button class="btn">
              Take it back
            </button>
          </form>
        } @else {
          <button type="button" class="min-h-7 underline" (click)="taking.set(s.entryId)">It was signed in error</button>
        }
      </div>
    }
  `,
  host: { class: 'mb-5 block' },
})
export class SealsPanel {
  protected readonly store = inject(HandOverStore);
  private readonly record = inject(RecordStore);
  protected readonly asked = signal('');
  protected readonly taking = signal<string | null>(null);
  protected readonly grouped = groupedSeal;
  protected look = (s: SealCheck) => looks[s.verdict];

  /** Eight signs are enough: four thousand million others would have to be tried for another that begins so. */
  protected readonly compared = computed(() => {
    const typed = this.asked().toLowerCase().replace(/[^0-9a-f]/g, ''); // prettier-ignore
    if (!typed) return null;
    if (typed.length < 8) return 'Eight signs at least.';
    const found = this.store.seals().find((s) => s.seal.startsWith(typed));
    return found ? `It is the one that ${found.signedBy} signed on ${this.day(found.signedAt)}.` : 'No seal that was signed in this job begins so.';
  });

  protected day(iso: string): string {
    return new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: this.record.doc()?.job.zone ?? 'Etc/UTC' });
  }
  protected async takeBack(s: SealCheck, why: string): Promise<void> {
    if (why.trim() && (await this.store.takeBack(s.entryId, why.trim()))) this.taking.set(null);
  }
}
