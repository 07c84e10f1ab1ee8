import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { Panel, Recess } from '@yellow-pane/contracts';
import {
  recessWayNames,
  recessWords,
  stopDepths,
  stretchLimitOf,
  stretchPct,
  type RecessPlan,
  type RecessResult,
  type RecessWay,
} from '@yellow-pane/core/form';
import { capital, formatRough } from '@yellow-pane/core/ground';
import { recessName } from '@yellow-pane/core/measure';
import { RecessSearch } from '../../../compute/recess-search';
import { StretchMap } from '../../../kit/stretch-map';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { StretchDoing } from './stretch-doing';

/** How film gets into a recess: the order in which it stretches least, where it stretches, and what other orders would cost. */
@Component({
  selector: 'yp-recess-card',
  imports: [StretchDoing, StretchMap, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="Film in the recess" data-recess-card>
      <div class="flex flex-wrap items-center gap-2">
        <p class="cap">{{ title() }}</p>
        @if (recesses().length > 1) {
          @for (r of recesses(); track r.id; let i = $index) {
            <button
              type="button"
              class="btn min-h-11 px-3! md:min-h-8"
              [class.bg-hand!]="r.id === here().id"
              [attr.aria-pressed]="r.id === here().id"
              [attr.aria-label]="'Recess ' + (i + 1)"
              (click)="picked.set(r.id)"
            >
              {{ i + 1 }}
            </button>
          }
        }
      </div>
      @if (words(); as w) {
        <yp-stretch-doing [words]="w" />
      } @else {
        <p class="text-lg" role="status">{{ ways().length ? 'First answer; the other orders are being tried …' : 'Laying film into it, order by order …' }}</p>
      }
      @if (shown(); as s) {
        <yp-stretch-map
          class="mx-auto mt-2 block max-w-[340px]"
          [result]="s"
          [form]="here()"
          [limitFrac]="limitFrac()"
          [stopsMm]="stops()"
          [label]="mapText()"
        />
        <p class="text-sm">{{ mapText() }}</p>
        @if (canChoose(); as way) {
          <button type="button" class="btn mt-1 min-h-11 w-full md:min-h-9" data-choose-way (click)="choose(way)">Do it this way here</button>
        }
      }
      @if (ways().length) {
        <h4 class="cap mt-2">Orders, and what each costs</h4>
        <div class="grid gap-1 text-[15px]">
          @for (o of ways(); track o.way) {
            <button
              type="button"
              class="flex min-h-11 items-center gap-2 border px-2 text-left md:min-h-9"
              [class]="o.way === shown()?.way ? 'border-ink bg-tint' : 'border-hair'"
              [attr.aria-pressed]="o.way === shown()?.way"
              (click)="looked.set(o.way)"
            >
              <span class="min-w-0 flex-1 leading-tight">{{ o.name }}</span>
              <strong class="figure">{{ o.most }}</strong>
              <span class="figure w-24 text-right text-sm text-soft">{{ o.fold }}</span>
            </button>
          }
        </div>
      }
      @if (words(); as w) {
        <yp-why [lines]="w.why" />
      }
    </section>
  `,
})
export class RecessCard {
  readonly surface = input.required<Panel>();
  private readonly record = inject(RecordStore);
  private readonly search = inject(RecessSearch);
  protected readonly picked = signal<string | null>(null);
  protected readonly looked = signal<RecessWay | null>(null);

  /** The deepest first: what film goes into first. */
  protected readonly recesses = computed(() => this.surface().recesses);
  protected readonly here = computed<Recess>(() => {
    const all = this.recesses();
    return all.find((r) => r.id === this.picked()) ?? all.reduce((a, b) => (b.depthMm > a.depthMm ? b : a));
  });
  protected readonly title = computed(() => {
    const [r, units] = [this.here(), this.record.units()];
    const name = this.recesses().length > 1 ? capital(recessName(r, this.recesses())) : 'The recess';
    return `${name}, ${formatRough(r.depthMm, units)} deep`;
  });
  protected readonly limitFrac = computed(() => {
    return stretchLimitOf(this.record.doc()?.films.find((f) => f.id === this.surface().filmId));
  });
  // which order was chosen changes nothing of what is found
  private readonly asked = computed(() => ({ form: { ...this.here(), way: null }, limitFrac: this.limitFrac() }), {
    equal: (a, b) => JSON.stringify(a) === JSON.stringify(b),
  });
  private readonly came = signal<{ readonly of: unknown; readonly ways: readonly RecessResult[]; readonly plan: RecessPlan | null }>({
    of: null,
    ways: [],
    plan: null,
  });
  private readonly now = computed(() => (this.came().of === this.asked() ? this.came() : null));
  protected readonly words = computed(() => {
    const plan = this.now()?.plan;
    return plan ? recessWords(plan, this.record.units(), this.here().way) : null;
  });
  protected readonly shown = computed<RecessResult | null>(() => {
    const now = this.now();
    return now?.ways.find((w) => w.way === (this.looked() ?? this.here().way)) ?? now?.plan?.best ?? now?.ways[0] ?? null;
  });
  /** The order that is gone by: chosen here, or the one in which film stretches least. */
  private readonly goneBy = computed(() => this.here().way ?? this.now()?.plan?.best.way ?? null);
  /** The order that is looked at, where it is not the one that is gone by. */
  protected readonly canChoose = computed(() => {
    const way = this.shown()?.way;
    return this.now()?.plan && way && way !== this.goneBy() ? way : null;
  });
  protected choose(way: RecessWay): void {
    const [s, here, best] = [this.surface(), this.here(), this.now()?.plan?.best.way];
    // the best needs no choice: it stays the best when the recess is taped again
    const recesses = s.recesses.map((r) => (r.id === here.id ? { ...r, way: way === best ? null : way } : r));
    this.looked.set(null);
    void this.record.set(`Order of a recess of ${s.name}`.slice(0, 120), 'surface', s.id, { recesses });
  }
  protected readonly mapText = computed(() => {
    const s = this.shown();
    return s ? `Its upper right corner, the others are its mirror image: ${recessWayNames[s.way]}, ${stretchPct(s.largestFrac)} at the worst place.` : '';
  });
  protected readonly stops = computed(() => (this.shown() ? stopDepths(this.here(), this.shown()!.largestFrac) : []));
  protected readonly ways = computed(() => {
    const now = this.now();
    return (now?.ways ?? []).map((w) => ({
      way: w.way,
      name: `${capital(recessWayNames[w.way])}${w.way === now?.plan?.best.way ? ' (least)' : ''}${w.way === this.goneBy() ? ' ✓' : ''}`,
      most: stretchPct(w.largestFrac),
      fold: w.foldMm < 0.5 ? 'no fold' : `fold ${formatRough(w.foldMm, this.record.units())}`,
    }));
  });

  constructor() {
    effect(() => {
      const asked = this.asked();
      untracked(() => void this.find(asked));
    });
  }
  private async find(asked: { readonly form: Recess; readonly limitFrac: number | null }): Promise<void> {
    this.came.set({ of: asked, ways: [], plan: null });
    const put = (more: Partial<{ ways: readonly RecessResult[]; plan: RecessPlan }>) => {
      if (this.came().of === asked) this.came.update((c) => ({ ...c, ...more }));
    };
    const plan = await this.search.plan(asked.form, asked.limitFrac, (result) => put({ ways: [...this.came().ways, result] }));
    put({ ways: plan.ways, plan });
  }
}
