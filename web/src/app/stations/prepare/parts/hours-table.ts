import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { measureOf, type MeasureKind } from '@yellow-pane/core/ground';
import { RecordStore } from '../../../record/record.store';
import { DayStore } from '../day.store';

const [FROM, TO] = [6, 21];

/** The weather hour by hour, and what it makes of the glass in hand. */
@Component({
  selector: 'yp-hours-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary class="cap cursor-pointer py-1">Hour by hour</summary>
      <div class="overflow-x-auto" tabindex="0" role="region" aria-label="The weather hour by hour">
        <table class="w-full min-w-[560px] text-right text-sm">
          <thead>
            <tr class="border-b border-line text-soft">
              @for (h of heads(); track h) {
                <th scope="col" class="py-1 pl-3 font-normal first:pl-0 first:text-left">{{ h }}</th>
              }
            </tr>
          </thead>
          <tbody>
            @for (r of rows(); track r.hour) {
              <tr class="figure border-b border-hair" [class.bg-tint]="r.isNow">
                <th scope="row" class="py-0.5 text-left font-normal">{{ r.hour }}</th>
                @for (c of r.cells; track $index) {
                  <td class="pl-3">{{ c }}</td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
    </details>
  `,
  host: { class: 'block' },
})
export class HoursTable {
  private readonly day = inject(DayStore);
  private readonly record = inject(RecordStore);
  private readonly moments = computed(() => {
    const d = this.day.here()?.day;
    return d?.ok ? d.moments : [];
  });

  private unit = (kind: MeasureKind): string => measureOf(kind, this.record.units()).unit;
  protected readonly heads = computed(() => [
    'o’clock', `air, ${this.unit('temperature')}`, 'humidity, %', 'cloud, %', `wind, ${this.unit('wind')}`, 'gusts', `rain, ${this.unit('rain')}`,
    ...(this.moments().length ? [`${this.record.surface()?.name ?? 'glass'}, ${this.unit('temperature')}`, `dew point, ${this.unit('temperature')}`, 'sun, W/m²'] : []),
  ]); // prettier-ignore
  protected readonly rows = computed(() => {
    const now = this.day.nowHour();
    const put = (value: number, kind: MeasureKind, digits = 0) => measureOf(kind, this.record.units()).to(value).toFixed(digits);
    return (this.day.weather()?.hours ?? []).slice(FROM, TO + 1).map((h, i) => {
      const hour = FROM + i;
      const m = this.moments().find((x) => Math.abs(x.hour - hour) < 0.05);
      return {
        hour,
        isNow: now !== null && Math.floor(now) === hour,
        cells: [
          put(h.airC, 'temperature'), h.humidityPct.toFixed(0), (100 * h.cloudFrac).toFixed(0), put(h.windMPerS, 'wind'), put(h.gustMPerS, 'wind'), h.rainMm > 0 ? put(h.rainMm, 'rain', this.record.units() === 'in' ? 2 : 1) : '–',
          ...(m ? [put(m.faceC, 'temperature'), put(m.dewC, 'temperature'), m.sunWPerM2.toFixed(0)] : []),
        ],
      }; // prettier-ignore
    });
  });
}
