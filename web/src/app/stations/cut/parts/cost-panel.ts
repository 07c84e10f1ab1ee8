import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { Film } from '@yellow-pane/contracts';
import { costOfPlan } from '@yellow-pane/core';
import { formatDifference, formatLong, moneyText, told, type UnitSystem } from '@yellow-pane/core/ground';
import { LayoutSearch } from '../../../compute/layout-search';
import type { Extras } from '../../../compute/layout.worker';
import { Why } from '../../../kit/why';
import { PlansStore } from '../../../record/plans.store';
import { RecordStore } from '../../../record/record.store';

const handyWords = (moreMm: number, units: UnitSystem): string =>
  Math.abs(moreMm) < 5
    ? 'no film more'
    : `about ${units === 'in' ? formatDifference(Math.abs(moreMm), 'in') : formatLong(Math.abs(moreMm), 'mm')} ${moreMm > 0 ? 'more' : 'less'} film`;

/** What the plan costs: film and minutes together, waste and leftovers in metres and money, and what each pane bears. */
@Component({
  selector: 'yp-cost-panel',
  imports: [Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (view(); as v) {
      <dl class="text-sm" data-cost>
        @for (r of v.rows; track r.name) {
          <div class="flex justify-between gap-3 border-b border-hair py-1" [class.font-bold]="r.isSum">
            <dt>
              {{ r.name }}<span class="block text-xs font-normal text-soft">{{ r.how }}</span>
            </dt>
            <dd class="figure text-right whitespace-nowrap">{{ r.money }}</dd>
          </div>
        }
      </dl>
      <yp-why [lines]="v.why" />
      <details class="mt-1 text-sm">
        <summary class="cursor-pointer py-1 underline">Price per pane</summary>
        <ul class="columns-2 gap-4">
          @for (p of v.panes; track p.surfaceId) {
            <li class="flex justify-between border-b border-hair">
              <span>{{ p.label }}</span><span class="figure">{{ p.money }}</span>
            </li>
          }
        </ul>
      </details>
    } @else {
      <p class="text-sm text-soft">Nothing is laid out yet.</p>
    }
  `,
})
export class CostPanel {
  readonly film = input.required<Film>();
  private readonly record = inject(RecordStore);
  private readonly plans = inject(PlansStore);

  private readonly search = inject(LayoutSearch);
  /** What the pattern and handy sizes cost, of the film and the input that it was asked of. */
  private readonly extras = signal<{ readonly key: string; readonly of: Extras } | null>(null);
  private readonly key = computed(() => `${this.film().id}/${this.plans.inputs().get(this.film().id)?.hash}`);

  constructor() {
    effect(() => {
      const key = this.key();
      untracked(() => void this.ask(key));
    });
  }
  private async ask(key: string): Promise<void> {
    const doc = this.record.records();
    if (!doc || this.extras()?.key === key) return;
    const { memo: _memo, ...plain } = doc;
    const of = await this.search.extras(plain, this.film().id);
    if (this.key() === key) this.extras.set({ key, of });
  }

  protected readonly view = computed(() => {
    const doc = this.record.records();
    const plan = this.plans.byFilm()[this.film().id];
    if (!doc || !plan || plan.layout.usedMm === 0) return null;
    const c = costOfPlan(plan.layout, plan.pieces, doc.rolls, doc.firm.leftovers, Number(doc.firm.hourRate));
    const money = (v: number) => moneyText(v, doc.job.currency);
    const long = (m: number) => formatLong(1000 * m, this.record.units());
    const extras = this.extras()?.key === this.key() ? this.extras()!.of : null;
    const handy = extras?.handy ?? null;
    const repeatM = (extras?.repeatMm ?? 0) / 1000;
    return {
      rows: [
        { name: 'Film', how: `${long(c.usedM)} taken`, money: money(c.film), isSum: false },
        { name: 'of it waste', how: `${long(c.wasteM)}, ${told(`${c.wasteM2.toFixed(2)} m²`, this.record.units())}`, money: money(c.wasteMoney), isSum: false },
        ...(repeatM > 0.005 ? [{ name: 'of it for the pattern', how: `${long(repeatM)} more so that the repeat matches`, money: '', isSum: false }] : []),
        ...(handy
          ? [
              {
                name: 'of it for handy sizes',
                how: `${handy.sizes} different ${handy.sizes === 1 ? 'size' : 'sizes'} instead of ${handy.sizesWithout}, ${handyWords(handy.moreMm, this.record.units())}`,
                money: '',
                isSum: false,
              },
            ]
          : []),
        {
          name: 'Cutting',
          how: `${c.cuttingMinutes.toFixed(0)} min for ${plan.layout.cutCount} cuts`,
          money: money((c.cuttingMinutes / 60) * Number(doc.firm.hourRate)),
          isSum: false,
        },
        {
          name: 'Trimming on the glass',
          how: `${c.trimmingMinutes.toFixed(0)} min`,
          money: money((c.trimmingMinutes / 60) * Number(doc.firm.hourRate)),
          isSum: false,
        },
        {
          name: 'Leftovers kept',
          how: `${c.leftoverCount}, ${told(`${c.leftoverM2.toFixed(2)} m²`, this.record.units())} at ${Math.round(doc.firm.leftovers.worthFrac * 100)} % of new`,
          money: `−${money(c.leftoverMoney)}`,
          isSum: false,
        },
        { name: 'In all', how: 'film and minutes, less what is kept', money: money(c.total), isSum: true },
      ],
      panes: c.perPane.map((p) => ({ ...p, money: money(p.money) })),
      why: [
        'Plans are compared by film and minutes together: one knife cut counts one minute at the firm’s hour rate.',
        'Each pane bears its share of the film of its roll by area, waste and leftovers with it, and its own minutes.',
        `A rest is kept from ${formatDifference(doc.firm.leftovers.smallestSideMm, this.record.units())} on its shorter side and ${told(`${doc.firm.leftovers.smallestAreaM2} m²`, this.record.units())}: the firm’s rule.`,
      ],
    };
  });
}
