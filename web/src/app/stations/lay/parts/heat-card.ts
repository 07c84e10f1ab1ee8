import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import type { HotAirGun, Surface } from '@yellow-pane/contracts';
import { defaultLay, factorOf, heatCaseOf, heatTrialOf, heatWords, planHeat, trialText, type HeatAim, type HeatCase } from '@yellow-pane/core/lay';
import { formatRough, measureOf, toldAll } from '@yellow-pane/core/ground';
import { HeatSearch } from '../../../compute/heat-search';
import { LengthField } from '../../../kit/length-field';
import { LineChart, type Curve } from '../../../kit/line-chart';
import { readMeasure } from '../../../kit/read-measure';
import { readNumber } from '../../../kit/read-number';
import { Why } from '../../../kit/why';
import { RecordStore } from '../../../record/record.store';
import { LayStore } from '../lay.store';

/** Distances of the map, mm. */
const MAP_MM = [10, 20, 30, 40, 50, 65, 80, 100, 120, 140, 160, 180, 200, 220, 240];
/** So much colder is the day that stands beside this one in the map, K. */
const COLDER_K = 12;

/** The gun in hand at this step: how far off, how fast, how often; what film and ground come to; and one reading that makes it surer. */
@Component({
  selector: 'yp-heat-card',
  imports: [LengthField, LineChart, Why],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (told(); as t) {
      <section class="my-2 border-2 border-ink bg-card p-2.5" aria-label="The gun at this step" data-heat-card>
        <p class="cap">The gun</p>
        <p class="text-xl leading-tight font-bold" data-heat-headline>{{ t.words.headline }}</p>
        @if (t.words.follow; as f) {
          <p class="text-[17px] leading-snug">{{ f }}</p>
        }
        <dl class="mt-1 grid grid-cols-[auto_1fr] gap-x-3 text-[15px]">
          @for (p of t.words.places; track p.name) {
            <dt [class]="p.isWanted ? 'font-semibold' : 'text-soft'">{{ p.name }}</dt>
            <dd class="figure" [class.font-semibold]="p.isWanted">{{ p.range }}</dd>
          }
        </dl>
        @for (m of t.words.minds; track $index) {
          <p class="mt-1 border-l-4 border-ink bg-tint px-2 py-1 text-[15px]">{{ m }}</p>
        }
        @if (t.trial; as text) {
          <p class="mt-1 border-l-4 border-harm bg-harm-tint px-2 py-1 text-[15px]" data-heat-trial>{{ text }}</p>
        }
        <p class="mt-1 text-sm text-soft" data-heat-sure>{{ t.words.sure }}</p>
        <details class="mt-1" (toggle)="isOpen.set($any($event.target).open)">
          <summary class="cap min-h-11 cursor-pointer py-2.5 md:min-h-9 md:py-1.5">
            {{ aim() === 'warm' ? 'Another gun, the map' : 'One reading, another gun, the map' }}
          </summary>
          @if (aim() !== 'warm') {
            <h4 class="cap">Try it where nobody sees it</h4>
            <p class="mb-1 text-sm">
              {{ t.plan.asked.place.key === 'lying' ? 'One pass' : 'One pass where film lies on' }} as above, gun away, then read. What was it?
            </p>
            <div class="mb-2 flex flex-wrap items-end gap-2 text-sm">
              <label>After, s<input #after class="field figure block min-h-11 w-16!" inputmode="decimal" value="2" /></label>
              <label>Passes<input #passes class="field figure block min-h-11 w-16!" inputmode="numeric" [value]="t.plan.passes ?? 1" /></label>
              <label>Film, {{ unit() }}<input #read class="field figure block min-h-11 w-20!" inputmode="decimal" data-trial-read /></label>
              <button type="button" class="btn min-h-11" (click)="tryOut(t.plan.speedMmPerS, after, passes, read)">Correct the plan</button>
            </div>
          }
          <h4 class="cap">The gun of this job</h4>
          <div class="mb-2 flex flex-wrap items-end gap-2 text-sm">
            <div class="w-20">
              Off the film<yp-length-field
                label="How far the gun is off the film"
                [units]="units()"
                [value]="rough(gun().distanceMm)"
                [wrong]="wrongDistance"
                (committed)="set('distanceMm', $event.lengthMm)"
              />
            </div>
            <div class="w-20">
              Nozzle<yp-length-field
                label="Width of its nozzle"
                [units]="units()"
                [value]="rough(gun().nozzleMm)"
                [wrong]="wrongNozzle"
                (committed)="set('nozzleMm', $event.lengthMm)"
              />
            </div>
            <label
              >Set to, {{ unit() }}<input #hot class="field figure block min-h-9 w-20!" inputmode="decimal" [value]="inUnit(gun().setC)" (change)="setHot(hot)"
            /></label>
            <label
              >Angle, °<input
                #tilt
                class="field figure block min-h-9 w-16!"
                inputmode="numeric"
                [value]="gun().angleDeg"
                title="Between its stream and the face: 90 is straight on"
                data-gun-angle
                (change)="setAngle(tilt)"
            /></label>
            <label
              >Watts<input #watts class="field figure block min-h-9 w-20!" inputmode="numeric" data-gun-watts [value]="gun().powerW" (change)="setWatts(watts)"
            /></label>
          </div>
          <h4 class="cap">Speed against distance</h4>
          @if (curves(); as c) {
            <yp-line-chart class="h-44" [curves]="c" [label]="chartText()" unit="" [fromHour]="0" [toHour]="240" [along]="{ unit: 'mm', step: 60 }" />
            <p class="text-sm">{{ chartText() }}</p>
          } @else {
            <p class="text-sm text-soft">Working it out …</p>
          }
          <yp-why [lines]="t.words.why" />
        </details>
      </section>
    }
  `,
})
export class HeatCard {
  readonly surface = input.required<Surface>();
  readonly aim = input.required<HeatAim>();
  readonly stepKey = input<string | null>(null);
  private readonly record = inject(RecordStore);
  private readonly lay = inject(LayStore);
  private readonly search = inject(HeatSearch);

  protected readonly units = computed(() => this.record.units());
  protected readonly unit = computed(() => measureOf('temperature', this.units()).unit);
  protected readonly gun = computed<HotAirGun>(() => ({ ...defaultLay.gun, ...this.record.doc()?.job.lay?.gun }));
  protected readonly isOpen = signal(false);
  private readonly case_ = computed<HeatCase | null>(() => {
    const doc = this.record.records();
    return doc ? heatCaseOf(this.surface(), doc) : null;
  });
  private readonly trial = computed(() => {
    const doc = this.record.records();
    return doc ? heatTrialOf(this.surface(), doc) : null;
  });
  private readonly factor = computed(() => factorOf(this.trial()));
  protected readonly told = computed(() => {
    const [c, trial] = [this.case_(), this.trial()];
    const plan = c && planHeat(c, this.aim(), this.factor());
    if (!c || !plan) return null;
    return toldAll({ plan, words: heatWords(c, plan, trial, this.units()), trial: trialText(trial) }, this.units());
  });

  private readonly made = signal<{ readonly of: unknown; readonly curves: Curve[]; readonly text: string } | null>(null);
  private readonly asked = computed(() => (this.isOpen() ? { c: this.case_(), aim: this.aim(), factor: this.factor() } : null));
  protected readonly curves = computed(() => (this.made()?.of === this.asked() ? this.made()!.curves : null));
  protected readonly chartText = computed(() => this.made()?.text ?? '');

  constructor() {
    effect(() => {
      const asked = this.asked();
      if (asked?.c) untracked(() => void this.draw(asked as typeof asked & { c: HeatCase }));
    });
  }
  private async draw(asked: { readonly c: HeatCase; readonly aim: HeatAim; readonly factor: ReturnType<typeof factorOf> }): Promise<void> {
    const { c, aim, factor } = asked;
    const cold = { ...c, airC: c.airC - COLDER_K, groundC: c.groundC - COLDER_K };
    const [here, colder] = await Promise.all([this.search.map(c, aim, MAP_MM, factor), this.search.map(cold, aim, MAP_MM, factor)]);
    const line = (map: typeof here, end: 'slowestMmPerS' | 'fastestMmPerS') =>
      map.flatMap((m) => (m.expected ? [{ x: m.distanceMm, y: m.expected[end] }] : []));
    const curves: Curve[] = [
      { name: 'slowest', color: '#A3271F', points: line(here, 'slowestMmPerS') },
      { name: 'fastest', color: '#2E6B3E', points: line(here, 'fastestMmPerS'), fill: '#F4B40055', fillTo: '-1' },
      { name: 'slowest, colder', color: '#A3271F', dash: [3, 4], width: 1.5, points: line(colder, 'slowestMmPerS') },
      { name: 'fastest, colder', color: '#2E6B3E', dash: [3, 4], width: 1.5, points: line(colder, 'fastestMmPerS') },
    ];
    const text = toldAll(
      `Millimetres a second by millimetres off the film, one pass, as far as is expected: yellow is right, below the red line something is too hot, above the green one film stays too cool. Here ${c.airC.toFixed(0)} °C; dashed: a day ${COLDER_K} °C colder.`,
      this.units(),
    );
    this.made.set({ of: this.asked(), curves, text });
  }

  protected readonly rough = (mm: number): string => formatRough(mm, this.units()).replace(' mm', '');
  protected readonly wrongDistance = (mm: number): string | null =>
    mm >= 5 && mm <= 400 ? null : `Between ${formatRough(5, this.units())} and ${formatRough(400, this.units())}.`;
  protected readonly wrongNozzle = (mm: number): string | null =>
    mm >= 4 && mm <= 80 ? null : `Between ${formatRough(4, this.units())} and ${formatRough(80, this.units())}.`;
  protected inUnit(c: number): string {
    return measureOf('temperature', this.units()).to(c).toFixed(0);
  }
  protected set(field: keyof HotAirGun, value: number): void {
    const job = this.record.doc()?.job;
    if (job) void this.record.set('The gun', 'job', job.id, { lay: { ...this.lay.settings(), gun: { ...this.gun(), [field]: value } } });
  }
  protected setHot(box: HTMLInputElement): void {
    const n = readMeasure(box, 'temperature', this.units(), { low: 50, high: 700, message: 'Between 50 and 700 °C.' });
    if (n != null) this.set('setC', Math.round(n * 10) / 10);
  }
  protected setAngle(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 30, high: 90, message: 'Between 30° and 90°; 90° is straight on. Flatter than 30° nobody has measured it.' });
    if (n != null) this.set('angleDeg', n);
  }
  protected setWatts(box: HTMLInputElement): void {
    const n = readNumber(box, { low: 200, high: 3600, message: 'Between 200 and 3600 W, as its plate says.' });
    if (n != null) this.set('powerW', n);
  }
  protected async tryOut(speedMmPerS: number, after: HTMLInputElement, passes: HTMLInputElement, read: HTMLInputElement): Promise<void> {
    const afterS = readNumber(after, { low: 0, high: 600, message: 'Between 0 and 600 s after the gun.' });
    const count = readNumber(passes, { low: 1, high: 40, message: 'Between 1 and 40 passes.' });
    const valueC = readMeasure(read, 'temperature', this.units(), { low: -40, high: 400, message: 'Between −40 and 400 °C.' });
    if (afterS == null || count == null || valueC == null) return;
    const gun = { distanceMm: this.gun().distanceMm, speedMmPerS: Math.round(speedMmPerS), passes: Math.round(count), afterS };
    if (await this.lay.write('reading', `A trial of the gun: ${valueC.toFixed(0)} °C`, { reading: { what: 'film', valueC, gun }, stepKey: this.stepKey() }))
      read.value = '';
  }
}
