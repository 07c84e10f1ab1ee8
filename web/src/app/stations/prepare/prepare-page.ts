import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import type { WorkWindow } from '@yellow-pane/core/prepare';
import { measureOf, told, toldAll, type Coordinates } from '@yellow-pane/core/ground';
import { LineChart, type Curve } from '../../kit/line-chart';
import { Tabs } from '../../kit/tabs';
import { SiteField } from '../../kit/site-field';
import { Why } from '../../kit/why';
import { RecordStore } from '../../record/record.store';
import { adviceText, clockText, windowText } from '../../record/day-words';
import { DayStore } from './day.store';
import { BottlesPanel } from './parts/bottles-panel';
import { ConditionsPanel } from './parts/conditions-panel';
import { DayBands } from './parts/day-bands';
import { HoursTable } from './parts/hours-table';
import { GroundPlanPanel } from './parts/ground-plan-panel';
import { KitPanel } from './parts/kit-panel';
import { PlacesToday } from './parts/places-today';

/** Prepare: is it a good hour for this glass, what goes into the bottles, what has to be in the van. */
@Component({
  selector: 'yp-prepare-page',
  imports: [GroundPlanPanel, LineChart, SiteField, Tabs, Why, DayBands, ConditionsPanel, BottlesPanel, KitPanel, PlacesToday, HoursTable],
  providers: [DayStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="flex h-full flex-col overflow-y-auto md:flex-row md:overflow-hidden">
      <section class="min-w-0 flex-1 px-4 pt-3 pb-4 md:overflow-y-auto" aria-labelledby="prepare-title">
        <div class="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1.5">
          <h2 id="prepare-title" class="text-xl">{{ title() }}</h2>
          <label class="flex items-center gap-1.5 text-sm">Day<input #on type="date" class="field w-40!" [value]="day.on()" (change)="setDay(on)" /></label>
          @if (day.settings().madeUpWeather) {
            <label class="flex items-center gap-1.5 text-sm"
              >Sky<select #sky class="field w-32!" (change)="setSky(sky)">
                <option value="as-forecast" [selected]="day.settings().sky === 'as-forecast'">as forecast</option>
                <option value="clear" [selected]="day.settings().sky === 'clear'">clear</option>
                <option value="changing" [selected]="day.settings().sky === 'changing'">changing</option>
              </select></label
            >
          }
        </div>
        <yp-tabs class="mb-3" label="Prepare" prefix="prepare" [tabs]="tabs" [(selected)]="tab" />
        <div id="prepare-panel" role="tabpanel" [attr.aria-labelledby]="'prepare-' + tab()">
          @switch (tab()) {
            @case ('bottles') {
              <yp-places-today />
              <yp-bottles-panel />
            }
            @case ('van') {
              <yp-places-today />
              <yp-kit-panel />
            }
            @default {
              @if (record.drySurface()) {
                <yp-ground-plan-panel />
              } @else if (!day.isPlaced()) {
                <div class="max-w-md border-l-4 border-ink bg-tint p-3">
                  <p class="mb-2">Where on earth is the site? The sun on the glass depends on it.</p>
                  <yp-site-field [latDeg]="null" [lonDeg]="null" (placed)="place($event)" />
                </div>
              } @else if (!day.weather() && !day.failed()) {
                <p class="text-soft" aria-busy="true">Asking for the weather …</p>
              } @else {
                @if (!day.weather()) {
                  <div class="mb-3 border-l-4 border-ink bg-tint p-3" data-no-weather>
                    <p>{{ day.failed() }}</p>
                    <button type="button" class="btn mt-2" (click)="day.load()">Ask again</button>
                    @if (!day.settings().madeUpWeather) {
                      <button type="button" class="btn mt-2 ml-2" (click)="day.set('Made-up weather, for trying', { madeUpWeather: true })">
                        Try with made-up weather
                      </button>
                    }
                  </div>
                }
                <yp-day-bands
                  [units]="record.units()"
                  [bands]="day.bands()"
                  [hereKey]="day.here()?.key ?? null"
                  [nowHour]="day.nowHour()"
                  (picked)="pick($event.band.surfaceIds, $event.window)"
                />
                @if (day.weather(); as w) {
                  <p class="mt-2 text-sm text-soft" [class.bg-tint]="w.isMadeUp" data-source>
                    {{ w.source }}. {{ weatherText() }}
                    @if (w.isMadeUp) {
                      <button type="button" class="min-h-6 underline" (click)="day.set('No made-up weather', { madeUpWeather: false })">Switch it off</button>
                    }
                  </p>
                  <yp-hours-table class="mt-3" />
                }
              }
            }
          }
        </div>
      </section>
      <aside class="w-full shrink-0 overflow-y-auto border-hair bg-card p-4 md:w-[276px] md:border-l xl:w-[316px]" aria-label="Numbers" tabindex="-1">
        <h3 class="cap mb-2">A good hour for {{ record.surface()?.name ?? 'this pane' }}</h3>
        @if (record.surface() && !record.pane()) {
          <p class="mb-3 text-sm">{{ dryHours() }}</p>
        } @else if (verdict(); as v) {
          <div class="relief mb-3 border-l-4 p-3.5" [class]="v.look" data-day-verdict aria-live="polite">
            <p>{{ v.text }}</p>
          </div>
          @if (curves().length) {
            <yp-line-chart class="h-40" [curves]="curves()" [label]="chartText()" unit="°" [fromHour]="6" [toHour]="21" />
            <p class="mb-3 flex flex-wrap gap-x-3 text-xs text-soft">
              @for (c of curves(); track c.name) {
                <span><i class="mr-1 inline-block h-1 w-4 align-middle" [style.background]="c.color"></i>{{ c.name }}</span>
              }
            </p>
          }
          @if (picked(); as p) {
            <p class="mb-3 text-sm" data-picked-window>{{ p }}</p>
          }
          <ul class="mb-2 text-sm">
            @for (w of v.windows; track w) {
              <li class="border-b border-hair py-1">{{ w }}</li>
            }
          </ul>
          <yp-why [lines]="why()" />
        } @else {
          <p class="mb-3 text-sm text-soft">{{ record.surface()?.filmId ? 'Nothing to say yet.' : 'No film is chosen for this pane.' }}</p>
        }
        <yp-conditions-panel class="mt-4 border-t border-hair pt-3" />
      </aside>
    </div>
  `,
  host: { class: 'block h-full' },
})
export class PreparePage {
  protected readonly record = inject(RecordStore);
  protected readonly day = inject(DayStore);
  protected readonly tab = signal<'day' | 'bottles' | 'van'>('day');
  protected readonly tabs = [
    { id: 'day', name: 'The day' },
    { id: 'bottles', name: 'Bottles' },
    { id: 'van', name: 'In the van' },
  ] as const;
  protected readonly picked = signal<string | null>(null);
  /** Sun and dew decide for wet work on glass; off it the room does. */
  protected readonly dryHours = computed(() =>
    told('What is laid dry wants a room and a ground of 15 to 25 °C, whatever the sun does. Read the room below: the waits go by it.', this.record.units()),
  );
  protected readonly why = computed(() =>
    toldAll(
      [
        'Sun by the position of the sun, a clear-sky model (Bird & Hulstrom) and the clouds of the hour (Kasten & Czeplak), past reveal, overhang and what stands before it.',
        'Glass as a row of heat stores between wind and room (ISO 6946, EN 673), every ten minutes; the day before is taken as like this one.',
        'Dew point by the Magnus formula of WMO-No. 8; less than 3 °C above it counts as damp (ISO 8502-4).',
        'Common practice: no wet work in the sun or on glass still warm from it, nor under 5 °C, nor before a night in which its face freezes; a face that sweats is dried first. The film’s own limits come first.',
      ],
      this.record.units(),
    ),
  );

  protected readonly title = computed(() =>
    new Date(`${this.day.on()}T12:00:00Z`).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' }),
  );
  protected readonly verdict = computed(() => {
    const band = this.day.here();
    if (!band) return null;
    if (!band.day.ok) return { text: band.day.missing, look: 'border-ink bg-tint', windows: [] as string[] };
    const { windows, best } = band.day;
    const look = best?.grade === 'good' ? 'border-proof bg-proof-tint' : best ? 'border-ink bg-tint' : 'border-harm bg-harm-tint';
    return toldAll({ text: adviceText(windows, best), look, windows: windows.map(windowText) }, this.record.units());
  });
  protected readonly face = computed(() => (this.record.pane()?.filmFace === 'street' ? 'glass, street face' : 'glass, room face'));
  protected readonly curves = computed<Curve[]>(() => {
    const band = this.day.here();
    if (!band?.day.ok) return [];
    const { moments } = band.day;
    const { to } = measureOf('temperature', this.record.units());
    const line = (of: (m: (typeof moments)[number]) => number) => moments.map((m) => ({ x: m.hour, y: to(of(m)) }));
    return [
      { name: this.face(), color: '#C2501C', points: line((m) => m.faceC), width: 3 },
      ...(band.isIndoors ? [] : [{ name: 'air outside', color: '#56626A', points: line((m) => m.airC), dash: [6, 4] }]),
      { name: 'dew point', color: '#3E6E8E', points: line((m) => m.dewC), dash: [2, 3] },
    ];
  });
  protected readonly chartText = computed(() => {
    const band = this.day.here();
    if (!band?.day.ok) return '';
    const { moments } = band.day;
    const warmest = moments.reduce((a, b) => (b.faceC > a.faceC ? b : a));
    const sentence = `Glass warmest at ${clockText(warmest.hour)} with ${warmest.faceC.toFixed(0)} °C; at the least ${Math.min(...moments.map((m) => m.dewMarginK)).toFixed(0)} °C above the dew point`;
    return told(sentence, this.record.units());
  });
  protected readonly weatherText = computed(() => {
    const w = this.day.weather();
    if (!w) return '';
    const air = w.hours.slice(6, 21).map((h) => h.airC);
    const rain = w.hours.reduce((s, h) => s + h.rainMm, 0);
    const words = `${Math.min(...air).toFixed(0)} to ${Math.max(...air).toFixed(0)} °C, gusts up to ${Math.max(...w.hours.map((h) => h.gustMPerS)).toFixed(0)} m/s, ${rain > 0 ? `${this.rain(rain)} of rain` : 'no rain'}, ${w.nightLowC === null ? 'the night is not known' : `${w.nightLowC.toFixed(0)} °C at night`}.`;
    return told(words, this.record.units());
  });
  private rain(mm: number): string {
    const { to, unit } = measureOf('rain', this.record.units());
    return `${to(mm).toFixed(this.record.units() === 'in' ? 1 : 0)} ${unit}`;
  }

  protected pick(surfaceIds: readonly string[], window: WorkWindow | null): void {
    if (!surfaceIds.includes(this.record.selectedId() ?? '')) this.record.select(surfaceIds[0]!);
    this.picked.set(window && told(windowText(window), this.record.units()));
  }
  protected setDay(box: HTMLInputElement): void {
    // another day is packed for anew
    if (box.value) this.day.set('Day of the work', { on: box.value, loaded: [], short: [] });
  }
  protected setSky(box: HTMLSelectElement): void {
    this.day.set('Sky of the day', { sky: box.value as 'as-forecast' | 'clear' | 'changing' });
  }
  protected place(at: Coordinates | null): void {
    const job = this.record.doc()?.job;
    if (job && at) void this.record.set('Place of the job', 'job', job.id, { latDeg: at.latDeg, lonDeg: at.lonDeg });
  }
}
