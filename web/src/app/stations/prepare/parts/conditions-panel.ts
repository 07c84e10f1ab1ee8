import { ChangeDetectionStrategy, Component, DestroyRef, inject } from '@angular/core';
import type { TypedConditions } from '@yellow-pane/contracts';
import { figureOf, measureOf, type MeasureKind } from '@yellow-pane/core/ground';
import { readMeasure } from '../../../kit/read-measure';
import { readNumber } from '../../../kit/read-number';
import { InstrumentPanel } from '../../../instruments/instrument-panel';
import { Instruments } from '../../../instruments/instruments';
import { RecordStore } from '../../../record/record.store';
import { DayStore } from '../day.store';

const fields: readonly { field: keyof TypedConditions; name: string; unit: string; kind?: MeasureKind; low: number; high: number; usual: string }[] = [
  { field: 'airC', name: 'Air outside', unit: '°C', kind: 'temperature', low: -40, high: 55, usual: 'forecast' },
  { field: 'humidityPct', name: 'Humidity outside', unit: '%', low: 1, high: 100, usual: 'forecast' },
  { field: 'cloudPct', name: 'Clouds', unit: '%', low: 0, high: 100, usual: 'forecast' },
  { field: 'windMPerS', name: 'Wind', unit: 'm/s', kind: 'wind', low: 0, high: 60, usual: 'forecast' },
  { field: 'roomC', name: 'Room', unit: '°C', kind: 'temperature', low: -30, high: 60, usual: '21' },
  { field: 'roomHumidityPct', name: 'Humidity in the room', unit: '%', low: 1, high: 100, usual: '50' },
];

/** What was read on site instead of what the service says, and what stands between the glass and the sun. */
@Component({
  selector: 'yp-conditions-panel',
  imports: [InstrumentPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 class="cap mb-1">Read on site instead, for the whole day</h3>
    <details class="mb-2">
      <summary class="cursor-pointer text-sm underline">Instruments</summary>
      <yp-instrument-panel [kinds]="['thermometer', 'hygrometer']" [glassC]="day.glassNowC()" />
    </details>
    @if (day.glassRead(); as g) {
      <p class="mb-2 border-l-4 p-2 text-sm" [class]="g.look" data-glass-read aria-live="polite">{{ g.text }}</p>
    }
    <div class="grid grid-cols-[1fr_auto] gap-x-2 gap-y-1 text-sm">
      @for (f of fields; track f.field) {
        <label class="self-center" [for]="'typed-' + f.field">{{ f.name }}, {{ unit(f) }}</label>
        <input
          #box
          class="field figure w-24!"
          inputmode="decimal"
          [id]="'typed-' + f.field"
          [value]="shown(f)"
          [placeholder]="usual(f)"
          (change)="type(f, box)"
        />
      }
    </div>
    <h3 class="cap mt-4 mb-1">What stands before the sun</h3>
    <p class="mb-1 text-sm text-soft">Bearing from north and how high a roof or hill stands there, both in degrees. A fist at arm’s length is about 10°.</p>
    <ul class="text-sm">
      @for (p of day.settings().horizon; track $index) {
        <li class="flex items-center justify-between border-b border-hair py-1">
          <span class="figure">{{ p.bearingDeg }}° · {{ p.heightDeg }}° high</span>
          <button type="button" class="min-h-7 px-1 underline" [attr.aria-label]="'Take away the point at ' + p.bearingDeg + '°'" (click)="takeAway($index)">
            take away
          </button>
        </li>
      }
    </ul>
    <div class="mt-1 flex items-center gap-1.5">
      <input #bearing class="field figure" placeholder="bearing" aria-label="Bearing of the point, degrees" inputmode="decimal" />
      <input #height class="field figure" placeholder="height" aria-label="Height of the point, degrees" inputmode="decimal" />
      <button type="button" class="btn" (click)="add(bearing, height)">Add</button>
    </div>
  `,
  host: { class: 'block' },
})
export class ConditionsPanel {
  protected readonly day = inject(DayStore);
  protected readonly fields = fields;
  private readonly record = inject(RecordStore);
  protected unit = (f: (typeof fields)[number]): string => (f.kind ? measureOf(f.kind, this.record.units()).unit : f.unit);
  protected shown(f: (typeof fields)[number]): string {
    const n = this.day.settings().typed[f.field];
    return n == null ? '' : f.kind ? figureOf(n, f.kind, this.record.units()) : String(n);
  }
  protected usual = (f: (typeof fields)[number]): string =>
    f.kind && f.usual !== 'forecast' ? figureOf(Number(f.usual), f.kind, this.record.units()) : f.usual;

  constructor() {
    const stop = inject(Instruments).onReading((r) => {
      if (r.kind === 'thermometer') this.day.readGlass(r.surfaceC);
      if (r.kind === 'hygrometer')
        this.day.set('Air of the room, read', { typed: { ...this.day.settings().typed, roomC: r.airC, roomHumidityPct: Math.round(r.humidityPct) } });
    });
    inject(DestroyRef).onDestroy(stop);
  }

  protected type({ field, name, low, high, unit, kind }: (typeof fields)[number], box: HTMLInputElement): void {
    const rule = { low, high, mayBeEmpty: true, message: `${name}: between ${low} and ${high} ${unit}, or empty.` };
    const n = kind ? readMeasure(box, kind, this.record.units(), rule) : readNumber(box, rule);
    if (n !== undefined) this.day.set(`${name} read on site`, { typed: { ...this.day.settings().typed, [field]: n } });
  }
  protected add(bearing: HTMLInputElement, height: HTMLInputElement): void {
    const b = readNumber(bearing, { low: 0, high: 359.9, message: 'A bearing is between 0 and 359°, from north by east.' });
    const h = readNumber(height, { low: 0, high: 90, message: 'Between 0° (level) and 90° (straight up).' });
    if (b == null || h == null) return;
    const others = this.day.settings().horizon.filter((p) => p.bearingDeg !== b);
    this.day.set('Horizon of the site', { horizon: [...others, { bearingDeg: b, heightDeg: h }].sort((x, y) => x.bearingDeg - y.bearingDeg) });
    bearing.value = height.value = '';
    bearing.focus();
  }
  protected takeAway(index: number): void {
    this.day.set('Horizon of the site', { horizon: this.day.settings().horizon.filter((_, i) => i !== index) });
  }
}
