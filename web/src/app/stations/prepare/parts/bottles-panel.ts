import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { slipSchool, washKind, type SlipSchool, type WashKind } from '@yellow-pane/contracts';
import {
  correctMix,
  DROP_ML,
  FLUID_OUNCE_ML,
  mixSlip,
  mixWash,
  slipRules,
  spoonedText,
  strengthText,
  washMeasure,
  washRules,
  washStrengthText,
} from '@yellow-pane/core/prepare';
import { figureOf, measureOf, told, toldAll } from '@yellow-pane/core/ground';
import { readMeasure } from '../../../kit/read-measure';
import { readNumber } from '../../../kit/read-number';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { DayStore } from '../day.store';

/** What goes into the bottles today, and how a wrong mix is put right. */
@Component({
  selector: 'yp-bottles-panel',
  imports: [Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let m = mix();
    <div class="grid gap-4 lg:grid-cols-2 lg:items-start">
      <section class="border border-hair bg-card p-4" aria-label="Slip">
        <div class="mb-3 flex flex-wrap gap-1.5 text-sm" role="group" aria-label="School">
          @for (s of schools; track s) {
            <button
              type="button"
              class="btn"
              [class.btn-hand]="s === day.settings().school"
              [attr.aria-pressed]="s === day.settings().school"
              (click)="pick(s)"
            >
              {{ rules[s].name }}
            </button>
          }
        </div>
        <p class="text-lg" data-slip>
          <strong>{{ m.fillingCount }} {{ m.fillingCount === 1 ? 'filling' : 'fillings' }}</strong> of
          <span class="figure">{{ volume(day.settings().bottleMl) }}</span>: water first, then <strong>{{ spooned(m.additiveMl) }}</strong> of
          {{ rules[day.settings().school].what }} in each. Turn it over, do not shake.
        </p>
        <p class="mt-1 text-sm text-soft">
          {{ glassWords() }} take <span class="figure">{{ volume(m.totalMl) }}</span> of slip, in one canister {{ spooned(canisterMl()) }}. Distilled water
          leaves no marks.
        </p>
        <div class="mt-3 flex flex-wrap gap-3 text-sm">
          <label class="flex flex-col"
            >Bottle, ml<input #bottle class="field figure w-24!" inputmode="decimal" [value]="day.settings().bottleMl" (change)="setBottle(bottle)"
          /></label>
          <label class="flex flex-col"
            >Slip for {{ area().unit === 'm²' ? 'a' : 'one' }} {{ area().unit }}, ml<input
              #per
              class="field figure w-24!"
              inputmode="decimal"
              [value]="perArea(day.settings().slipMlPerM2)"
              (change)="setPer(per)"
          /></label>
        </div>
        <yp-why class="mt-2 block" [lines]="why()" />
      </section>
      <section class="border border-hair bg-card p-4" aria-label="A wrong mix">
        <h3 class="mb-2 text-base">A bottle that is mixed wrong</h3>
        <div class="flex flex-wrap items-end gap-3 text-sm">
          <label class="flex flex-col"
            >Which<select #which class="field w-32!" (change)="setWrong(which.value)">
              <option value="slip" [selected]="wrong() === 'slip'">slip</option>
              @for (w of washes; track w) {
                <option [value]="w" [selected]="wrong() === w">{{ washRules[w].name }}</option>
              }
            </select></label
          >
          <label class="flex flex-col"
            >In the bottle, ml<input #inIt class="field figure w-24!" inputmode="decimal" [value]="inBottle() ?? ''" (change)="setIn(inIt)"
          /></label>
          <label class="flex flex-col"
            >{{ wrongWhat() }}<input #of class="field figure w-24!" inputmode="decimal" [value]="additive() ?? ''" (change)="setOf(of)"
          /></label>
        </div>
        @if (correction(); as c) {
          <p class="mt-3 border-l-4 border-ink bg-tint p-2" role="status" data-correction>{{ c }}</p>
        }
      </section>
      <section class="border border-hair bg-card p-4 lg:col-span-2" aria-label="Before the film">
        <h3 class="mb-2 text-base">Before the film</h3>
        <div class="mb-3 flex flex-wrap gap-3 text-sm">
          <label class="flex flex-col"
            >Walls and panels, {{ area().unit
            }}<input #wall class="field figure w-24!" inputmode="decimal" [value]="areaOf(day.settings().wallM2)" (change)="setWall(wall)"
          /></label>
          <label class="flex flex-col"
            >Alcohol as it comes, %<input #pure class="field figure w-24!" inputmode="decimal" [value]="day.settings().alcoholPct" (change)="setPure(pure)"
          /></label>
        </div>
        @for (r of washRows(); track r.kind) {
          <div class="border-t border-hair py-2" [attr.data-wash]="r.kind">
            <p>
              <strong class="inline-block w-32">{{ washRules[r.kind].name }}</strong> {{ r.text }}
            </p>
            <p class="text-sm text-soft">{{ washRules[r.kind].after }}</p>
            <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-sm">{{ washRules[r.kind].caution }}</p>
          </div>
        }
        <yp-why class="mt-2 block" [lines]="washWhy()" />
      </section>
    </div>
  `,
  host: { class: 'block' },
})
export class BottlesPanel {
  protected readonly day = inject(DayStore);
  private readonly record = inject(RecordStore);
  protected readonly rules = slipRules;
  protected readonly schools = slipSchool.options;
  protected readonly washRules = washRules;
  protected readonly washes = washKind.options;
  /** The mix that went wrong. */
  protected readonly wrong = signal<'slip' | WashKind>('slip');
  protected readonly inBottle = signal<number | null>(null);
  /** Drops or millilitres, as the school counts. */
  protected readonly additive = signal<number | null>(null);

  protected readonly byDrops = computed(() => this.wrong() === 'slip' && this.day.settings().school === 'soap-drops');
  private readonly additiveName = computed(() => {
    const wrong = this.wrong();
    return wrong === 'slip' ? slipRules[this.day.settings().school].what : washRules[wrong].what;
  });
  protected readonly wrongWhat = computed(() => (this.byDrops() ? 'Drops in it' : `Of that ${this.additiveName()}, ml`));
  protected readonly washRows = computed(() => {
    const { bottleMl, wallM2 } = this.day.settings();
    return washKind.options.map((kind) => {
      const areaM2 = kind === 'cleaner' ? this.day.slip().wetAreaM2 : wallM2;
      const m = this.washMix(kind, areaM2);
      if (areaM2 === 0) return { kind, text: kind === 'cleaner' ? 'No glass is filmed wet today.' : 'No walls or panels today.' };
      return {
        kind,
        text: `${m.fillingCount} ${m.fillingCount === 1 ? 'filling' : 'fillings'} of ${this.volume(bottleMl)}: ${washMeasure(kind, m.additiveMl)} of ${washRules[kind].what}, the rest water; ${this.volume(m.totalMl)} for ${told(`${areaM2.toFixed(1)} m²`, this.record.units())}.`,
      };
    });
  });
  protected readonly washWhy = computed(() =>
    toldAll(
      [
        ...washKind.options.map(
          (k) =>
            `${washRules[k].name}: ${washRules[k].source} (common practice); about ${this.perArea(washRules[k].mlPerM2)} ml for one ${this.area().unit} (house figure). ${washRules[k].tooStrong} ${washRules[k].tooWeak}`,
        ),
        'Alcohol by volume as its label says: a wipe of 70 % takes 707 ml of 99 % or 769 ml of 91 % for a litre.',
      ],
      this.record.units(),
    ),
  );
  private washMix(kind: WashKind, areaM2: number) {
    return mixWash(kind, areaM2, this.day.settings().bottleMl, washRules[kind].isDiluted ? this.day.settings().alcoholPct : 100);
  }
  protected readonly mix = computed(() => {
    const { school, bottleMl, slipMlPerM2 } = this.day.settings();
    return mixSlip(school, this.day.slip().wetAreaM2, this.day.slip().glassC, bottleMl, slipMlPerM2);
  });
  /** Additive for the whole day in one canister. */
  protected readonly canisterMl = computed(() => (this.mix().totalMl * this.mix().doseMlPerL) / 1000);
  protected spooned(ml: number): string {
    return `${spoonedText(ml, this.day.settings().school)} (${ml < 10 ? ml.toFixed(1) : ml.toFixed(0)} ml)`;
  }
  protected readonly why = computed(() => {
    const rule = slipRules[this.day.settings().school];
    return toldAll(
      [
        `${rule.name}: ${rule.source} (the trade’s schools differ).`,
        `Dose ${this.mix().doseMlPerL.toFixed(2)} ml in a litre; where a school names a range, the least up to 22 °C and the most from 32 °C on.`,
        `${strengthText(2)} ${strengthText(0.5)}`,
        'A drop is 0.05 ml, a tablespoon 15 ml, a teaspoon 5 ml; a cap is taken as 7.5 ml: measure yours.',
      ],
      this.record.units(),
    );
  });
  protected readonly correction = computed(() => {
    const { school, bottleMl } = this.day.settings();
    const [inBottle, additive, wrong] = [this.inBottle(), this.additive(), this.wrong()];
    if (inBottle === null || additive === null) return null;
    const additiveMl = this.byDrops() ? additive * DROP_ML : additive;
    if (inBottle > bottleMl) return `The bottle holds ${bottleMl} ml: it cannot have ${inBottle} ml in it.`;
    if (additiveMl > inBottle) return `There cannot be more ${this.additiveName()} in it than there is in the bottle.`;
    const c = correctMix(inBottle, additiveMl, bottleMl, wrong === 'slip' ? this.mix().doseMlPerL : this.washMix(wrong, 0).doseMlPerL);
    const words = (strength: number) => (wrong === 'slip' ? strengthText(strength) : washStrengthText(wrong, strength));
    const pour = c.pourOutMl > 1 ? `pour out ${Math.round(c.pourOutMl)} ml, then ` : '';
    if (c.strength > 1.02)
      return `Your bottle is ${c.strength.toFixed(1)} times too strong: ${pour}add ${Math.round(c.addWaterMl)} ml of water. ${words(c.strength)}`;
    const more = wrong === 'slip' ? spoonedText(c.addAdditiveMl, school) : `${washMeasure(wrong, c.addAdditiveMl)} of ${this.additiveName()}`;
    if (c.strength < 0.98) return `Your bottle has ${Math.round(c.strength * 100)} % of what it needs: ${pour}add ${more}. ${words(c.strength)}`;
    return words(1);
  });

  protected readonly area = computed(() => measureOf('area', this.record.units()));
  protected perArea = (mlPerM2: number): string => String(Number((mlPerM2 * this.area().from(1)).toFixed(this.record.units() === 'in' ? 1 : 0)));
  protected areaOf = (m2: number): string => figureOf(m2, 'area', this.record.units());
  protected readonly glassWords = computed(() =>
    told(`${this.day.slip().wetAreaM2.toFixed(1)} m² of glass at ${this.day.slip().glassC.toFixed(0)} °C`, this.record.units()),
  );

  /** Millilitres, in ounces too on a bench of inches. */
  protected volume(ml: number): string {
    const metric = ml >= 1000 ? `${(ml / 1000).toFixed(1)} l` : `${Math.round(ml)} ml`;
    return this.record.units() === 'in' ? `${Math.round(ml / FLUID_OUNCE_ML)} fl oz (${metric})` : metric;
  }
  protected pick(school: SlipSchool): void {
    this.day.set(`Slip: ${slipRules[school].name}`, { school });
  }
  protected setBottle(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 50, high: 25_000, message: 'A bottle holds between 50 ml and 25 l.' });
    if (n != null) this.day.set('Size of the bottle', { bottleMl: n });
  }
  protected setPer(box: HTMLInputElement): void {
    // so much for a square metre or a square foot
    const one = this.area().from(1);
    const n = readNumber(box, {
      low: Math.ceil(20 * one),
      high: Math.floor(3000 * one),
      message: `Between ${Math.ceil(20 * one)} and ${Math.floor(3000 * one)} ml for a square ${one === 1 ? 'metre' : 'foot'}.`,
    });
    if (n != null) this.day.set('Slip for its area', { slipMlPerM2: n / one });
  }
  protected setWrong(kind: string): void {
    this.wrong.set(kind as 'slip' | WashKind);
    this.additive.set(null);
  }
  protected setWall(box: HTMLInputElement): void {
    const n = readMeasure(box, 'area', this.record.units(), { low: 0, high: 100_000, message: `Nothing or more, in ${this.area().unit}.` });
    if (n != null) this.day.set('Walls to wash', { wallM2: n });
  }
  protected setPure(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 70, high: 100, message: 'Between 70 and 100 %: a weaker one cannot become a 70 % wipe.' });
    if (n != null) this.day.set('Alcohol as it comes', { alcoholPct: n });
  }
  protected setIn(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 1, high: 25_000, mayBeEmpty: true, message: 'Between 1 ml and what the bottle holds.' });
    if (n !== undefined) this.inBottle.set(n);
  }
  protected setOf(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 0, high: 25_000, mayBeEmpty: true, message: 'Nothing or more.' });
    if (n !== undefined) this.additive.set(n);
  }
}
