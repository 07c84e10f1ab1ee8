import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { slipSchool, type SlipSchool } from '@yellow-pane/contracts';
import { correctSlip, DROP_ML, FLUID_OUNCE_ML, mixSlip, slipRules, spoonedText, strengthText } from '@yellow-pane/core/prepare';
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
    <div class="grid gap-4 lg:grid-cols-2">
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
          {{ day.slip().wetAreaM2.toFixed(1) }} m² of glass at {{ day.slip().glassC.toFixed(0) }} °C take <span class="figure">{{ volume(m.totalMl) }}</span> of
          slip, in one canister {{ spooned(canisterMl()) }}. Distilled water leaves no marks.
        </p>
        <div class="mt-3 flex flex-wrap gap-3 text-sm">
          <label class="flex flex-col"
            >Bottle, ml<input #bottle class="field figure w-24!" inputmode="decimal" [value]="day.settings().bottleMl" (change)="setBottle(bottle)"
          /></label>
          <label class="flex flex-col"
            >Slip for a m², ml<input #per class="field figure w-24!" inputmode="decimal" [value]="day.settings().slipMlPerM2" (change)="setPer(per)"
          /></label>
        </div>
        <yp-why class="mt-2 block" [lines]="why()" />
      </section>
      <section class="border border-hair bg-card p-4" aria-label="A wrong mix">
        <h3 class="mb-1 text-base">A bottle that is mixed wrong</h3>
        <p class="mb-2 text-sm text-soft">What is in it, and how much {{ rules[day.settings().school].what }} went in?</p>
        <div class="flex flex-wrap items-end gap-3 text-sm">
          <label class="flex flex-col"
            >In the bottle, ml<input #inIt class="field figure w-24!" inputmode="decimal" [value]="inBottle() ?? ''" (change)="setIn(inIt)"
          /></label>
          <label class="flex flex-col"
            >{{ byDrops() ? 'Drops in it' : 'Of that, ml in it'
            }}<input #of class="field figure w-24!" inputmode="decimal" [value]="additive() ?? ''" (change)="setOf(of)"
          /></label>
        </div>
        @if (correction(); as c) {
          <p class="mt-3 border-l-4 border-ink bg-tint p-2" role="status" data-correction>{{ c }}</p>
        }
        <h3 class="mt-4 mb-1 text-base">Cleaner goes first</h3>
        <p class="text-sm">About 1 part of alcohol-based concentrate to 2 parts of water. It is not slip: a rest of it under the film keeps it from tacking.</p>
        <p class="mt-2 border-l-4 border-harm bg-harm-tint p-2 text-sm">
          Alcohol and its vapour burn: air the room, no flame, gloves. Follow the label on the bottle.
        </p>
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
  protected readonly inBottle = signal<number | null>(null);
  /** Drops or millilitres, as the school counts. */
  protected readonly additive = signal<number | null>(null);

  protected readonly byDrops = computed(() => this.day.settings().school === 'soap-drops');
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
    return [
      `${rule.name}: ${rule.source} (the trade’s schools differ).`,
      `Dose ${this.mix().doseMlPerL.toFixed(2)} ml in a litre; where a school names a range, the least up to 22 °C and the most from 32 °C on.`,
      `${strengthText(2)} ${strengthText(0.5)}`,
      'A drop is 0.05 ml, a tablespoon 15 ml, a teaspoon 5 ml; a cap is taken as 7.5 ml: measure yours.',
    ];
  });
  protected readonly correction = computed(() => {
    const { school, bottleMl } = this.day.settings();
    const [inBottle, additive] = [this.inBottle(), this.additive()];
    if (inBottle === null || additive === null) return null;
    const additiveMl = this.byDrops() ? additive * DROP_ML : additive;
    if (inBottle > bottleMl) return `The bottle holds ${bottleMl} ml: it cannot have ${inBottle} ml in it.`;
    if (additiveMl > inBottle) return `There cannot be more ${slipRules[school].what} in it than there is slip.`;
    const c = correctSlip(inBottle, additiveMl, bottleMl, this.mix().doseMlPerL);
    const pour = c.pourOutMl > 1 ? `pour out ${Math.round(c.pourOutMl)} ml, then ` : '';
    if (c.strength > 1.02)
      return `Your bottle is ${c.strength.toFixed(1)} times too strong: ${pour}add ${Math.round(c.addWaterMl)} ml of water. ${strengthText(c.strength)}`;
    if (c.strength < 0.98)
      return `Your bottle has ${Math.round(c.strength * 100)} % of what it needs: ${pour}add ${spoonedText(c.addAdditiveMl, school)}. ${strengthText(c.strength)}`;
    return strengthText(1);
  });

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
    const n = readNumber(box, { low: 20, high: 3000, message: 'Between 20 and 3000 ml for a square metre.' });
    if (n != null) this.day.set('Slip for a square metre', { slipMlPerM2: n });
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
