import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
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

  protected readonly heads = computed(() => [
    'o’clock', 'air, °C', 'humidity, %', 'cloud, %', 'wind, m/s', 'gusts', 'rain, mm',
    ...(this.moments().length ? [`${this.record.surface()?.name ?? 'glass'}, °C`, 'dew point, °C', 'sun, W/m²'] : []),
  ]); // prettier-ignore
  protected readonly rows = computed(() => {
    const now = this.day.nowHour();
    return (this.day.weather()?.hours ?? []).slice(FROM, TO + 1).map((h, i) => {
      const hour = FROM + i;
      const m = this.moments().find((x) => Math.abs(x.hour - hour) < 0.05);
      return {
        hour,
        isNow: now !== null && Math.floor(now) === hour,
        cells: [
          h.airC.toFixed(0), h.humidityPct.toFixed(0), (100 * h.cloudFrac).toFixed(0), h.windMPerS.toFixed(0), h.gustMPerS.toFixed(0), h.rainMm > 0 ? h.rainMm.toFixed(1) : '–',
          ...(m ? [m.faceC.toFixed(0), m.dewC.toFixed(0), m.sunWPerM2.toFixed(0)] : []),
        ],
      }; // prettier-ignore
    });
  });
}
