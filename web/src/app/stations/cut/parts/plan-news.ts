import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { newRoll, type Film, type FilmOffer } from '@yellow-pane/contracts';
import { compareWithPlan } from '@yellow-pane/core';
import { formatLength, filmText } from '@yellow-pane/core/ground';
import { v7 as uuidv7 } from 'uuid';
import { OneMore } from '../../../record/one-more';
import { PlansStore } from '../../../record/plans.store';
import type { FilmPlan } from '../../../record/plans.updaters';
import { JobProgress } from '../../../record/progress';
import { RecordStore } from '../../../record/record.store';

/** What must be known before the knife: what a re-measure made of a committed plan, and film that is missing. */
@Component({
  selector: 'yp-plan-news',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of short(); track s.surfaceId + s.part) {
      <div class="mb-3 flex flex-wrap items-center gap-2 border-l-4 border-harm bg-harm-tint p-2.5 text-sm" role="status" data-cut-short>
        <button type="button" class="min-w-0 flex-1 basis-64 text-left underline decoration-field" (click)="record.select(s.surfaceId)">{{ s.words }}</button>
        @if (!s.isAsked) {
          <button type="button" class="btn" (click)="oneMore.for(s)">One more of it</button>
        }
        @if (s.serves; as elsewhere) {
          <span>{{ elsewhere.words }}</span><button type="button" class="btn" (click)="oneMore.serveElsewhere(elsewhere, s)">Use it there</button>
        }
      </div>
    }
    @if (replan(); as r) {
      <div class="relief mb-3 border-l-4 border-ink bg-tint p-3 text-sm" role="status" data-replan>
        <p class="font-bold">This plan is committed, and what it was made from has changed.</p>
        <ul class="my-1">
          @for (c of r.changes.slice(0, 8); track c.pieceId) {
            <li [class.text-harm]="c.stillFits === false">
              <button type="button" class="text-left underline decoration-field" (click)="record.select(c.surfaceId)">{{ c.words }}</button>
            </li>
          } @empty {
            <li>Rolls, prices or bench settings are others now.</li>
          }
          @if (r.changes.length > 8) {
            <li>and {{ r.changes.length - 8 }} more</li>
          }
          @for (s of servesLeft(); track s.pieceId) {
            <li class="mt-1 flex flex-wrap items-center gap-2">
              <span>{{ s.words }}</span><button type="button" class="btn" (click)="oneMore.serveElsewhere(s, null)">Use it there</button>
            </li>
          }
        </ul>
        <button type="button" class="btn btn-ink" (click)="plans.replan(film().id)">Plan what is not cut anew</button>
      </div>
    }
    @if (shortage(); as short) {
      <div class="mb-3 border-l-4 border-harm bg-harm-tint p-2.5 text-sm" role="status" data-shortage>
        <span>{{ short.words }}</span>
        @for (o of short.offers; track o.widthMm) {
          <button type="button" class="btn ml-2" (click)="order(o)">Plan on a new roll of {{ f(o.widthMm) }}, {{ euro(+o.pricePerRoll) }}</button>
        }
      </div>
    }
  `,
})
export class PlanNews {
  readonly film = input.required<Film>();
  readonly plan = input.required<FilmPlan | null>();
  protected readonly record = inject(RecordStore);
  protected readonly plans = inject(PlansStore);

  /** What a re-measure made of a committed plan. */
  protected readonly replan = computed(() => {
    const film = this.film();
    const plan = this.plan();
    const input = this.plans.inputs().get(film.id);
    if (!plan?.isStale || !plan.stored || !input) return null;
    const report = compareWithPlan(plan.stored, input, this.plans.finished(), this.record.units(), film.direction !== 'none');
    // what is cut too small is said above, with what to do; there is nothing to plan before one more is asked for
    const changes = report.changes.filter((c) => !(c.stillFits === false && this.short().some((s) => s.surfaceId === c.surfaceId)));
    return report.changes.length > 0 && changes.length === 0 ? null : { ...report, changes };
  });
  private readonly progress = inject(JobProgress);
  /** Pieces of this film that left the knife and do not cover their panes any more, whether the plan is stale or not. */
  protected readonly short = computed(() => this.progress.short().filter((s) => s.filmId === this.film().id));
  /** What is not said with a short piece already. */
  protected readonly servesLeft = computed(() => (this.replan()?.serves ?? []).filter((s) => !this.short().some((x) => x.serves?.pieceId === s.pieceId)));
  /** Film that is missing, and what it is sold in. */
  protected readonly shortage = computed(() => {
    const plan = this.plan();
    const film = this.film();
    if (!plan || plan.layout.shortMm === 0) return null;
    const { shortMm, shortWidthMm } = plan.layout;
    const ids = new Set(plan.layout.unplaced.filter((u) => u.reason.includes('more of')).map((u) => u.pieceId));
    const names = plan.pieces.filter((p) => ids.has(p.id)).map((p) => p.label);
    return {
      words: `${filmText(shortMm, this.record.units(), 1)} of ${this.f(shortWidthMm ?? 0)} are missing, for ${names.slice(0, 6).join(', ')}${names.length > 6 ? ` and ${names.length - 6} more` : ''}.`,
      offers: film.offers.filter((o) => shortWidthMm !== null && o.widthMm >= shortWidthMm - 1).slice(0, 2),
    };
  });

  protected readonly oneMore = inject(OneMore);
  /** A roll that is planned on and still has to be ordered. */
  protected order(offer: FilmOffer): void {
    const film = this.film();
    const number = (this.record.doc()?.rolls ?? []).filter((r) => r.filmId === film.id && r.isToOrder).length + 1;
    const { widthMm, lengthM } = offer;
    const pricePerM = (Number(offer.pricePerRoll) / lengthM).toFixed(4);
    const value = newRoll({ id: uuidv7(), filmId: film.id, label: `to order ${number}`, widthMm, lengthM, pricePerM, isToOrder: true });
    void this.record.change(`Plan on a new roll of ${film.name}`, [{ op: 'add', kind: 'roll', id: value.id, value }]);
  }

  protected f = (mm: number): string => formatLength(mm, this.record.units());
  protected euro(amount: number): string {
    return new Intl.NumberFormat('en-IE', { style: 'currency', currency: this.record.doc()?.job.currency ?? 'EUR', maximumFractionDigits: 0 }).format(amount);
  }
}
