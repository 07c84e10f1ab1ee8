import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { lookText } from '@yellow-pane/core/check';
import { told } from '@yellow-pane/core/ground';
import { LineChart, type Curve } from '../../../kit/line-chart';
import { RecordStore } from '../../../record/record.store';
import { CheckStore } from '../check.store';
import { dayOf, daysText } from '../check-words';

/** The drying clock of the pane in hand: what is left of the water, its days, and what to say to the customer. */
@Component({
  selector: 'yp-drying-panel',
  imports: [LineChart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (check.wet(); as p) {
      <h3 class="cap mb-1">Drying clock</h3>
      <p class="text-xl leading-tight" data-clear>
        Clear between <strong>{{ range().clear }}</strong>
      </p>
      <p class="mb-2 text-sm text-soft">Eight panes of ten. Laid {{ day(p.laidAt) }}, today is day {{ check.dayNow().toFixed(0) }}.</p>
      @if (curves().length) {
        <yp-line-chart class="h-44" [curves]="curves()" [label]="chartText()" unit="%" [fromHour]="0" [toHour]="lastDay()" [along]="along()" />
        <p class="mb-2 text-sm text-soft">Water left behind the film, % over days. The band: a quick pane and a slow one.</p>
      }
      <table class="mb-3 w-full text-[15px]">
        <tbody>
          <tr class="border-t border-hair">
            <th class="py-1 pr-2 text-left font-normal">It holds</th>
            <td class="figure text-right">{{ range().holds }}</td>
          </tr>
          <tr class="border-t border-hair">
            <th class="py-1 pr-2 text-left font-normal">Drop windows may go down</th>
            <td class="figure text-right">{{ range().touch }}</td>
          </tr>
          <tr class="border-t border-hair">
            <th class="py-1 pr-2 text-left font-normal">Fair to judge water from</th>
            <td class="figure text-right">{{ day(p.clear.to) }}</td>
          </tr>
        </tbody>
      </table>
      <p class="mb-3 border-l-4 border-wet bg-wet-tint p-2.5 text-[15px]" data-tell><strong>Say to the customer:</strong> {{ tell() }}</p>
      @if (p.looks.length) {
        <h3 class="cap">Looked at</h3>
        <ul class="mb-3 text-sm">
          @for (l of p.looks; track l.id) {
            <li class="flex justify-between border-t border-hair py-1">
              <span>{{ lookWords(l.look!) }}</span><span class="figure text-soft">{{ day(l.occurredAt) }}</span>
            </li>
          }
        </ul>
        <button type="button" class="btn mb-3" data-look-back (click)="check.takeBack(p.looks[p.looks.length - 1]!.id, 'looked at by mistake')">
          The last one was wrong
        </button>
      }
      <p class="text-sm text-soft">{{ basis() }} {{ pressed() }}</p>
    }
  `,
  host: { class: 'block' },
})
export class DryingPanel {
  protected readonly check = inject(CheckStore);
  private readonly record = inject(RecordStore);
  private readonly zone = computed(() => this.record.doc()?.job.zone ?? 'Etc/UTC');
  protected readonly lookWords = lookText;
  protected day(iso: string): string {
    return dayOf(iso, this.zone());
  }
  protected readonly range = computed(() => {
    const p = this.check.wet()!;
    return { clear: daysText(p.clear, this.zone()).replace(' to ', ' and '), holds: daysText(p.holds, this.zone()), touch: daysText(p.touch, this.zone()) };
  });
  protected readonly lastDay = computed(() => Math.max(7, Math.ceil(this.check.curve().at(-1)?.day ?? 7)));
  protected readonly along = computed(() => ({ unit: 'd', step: [1, 2, 5, 7, 14, 30, 60, 120].find((s) => this.lastDay() / s <= 7) ?? 120 }));
  protected readonly curves = computed<Curve[]>(() => {
    const points = this.check.curve();
    const of = (pick: (p: (typeof points)[number]) => number) => points.map((p) => ({ x: p.day, y: 100 * pick(p) }));
    const now = this.check.dayNow();
    return [
      { name: 'a slow pane', color: '#3E6E8E', width: 1, dash: [4, 3], points: of((p) => p.slowFrac), fill: 'rgba(62,110,142,0.16)', fillTo: '+1' },
      { name: 'a quick pane', color: '#3E6E8E', width: 1, dash: [4, 3], points: of((p) => p.quickFrac) },
      { name: 'a usual pane', color: '#1C2226', width: 2.5, points: of((p) => p.middleFrac) },
      ...(now <= this.lastDay() ? [{ name: 'today', color: '#C2501C', width: 2, points: [{ x: now, y: 0 }, { x: now, y: 100 }] }] : []),
    ]; // prettier-ignore
  });
  protected readonly chartText = computed(() => {
    const { clear } = this.check.wet()!.clock;
    return `Water left behind the film over days: a quick pane is clear on day ${clear.fromDay.toFixed(0)}, a slow one on day ${clear.toDay.toFixed(0)}.`;
  });
  protected readonly tell = computed(() => {
    const p = this.check.wet()!;
    if (p.state === 'clear') return 'This pane is clear. Clean it with a soft cloth, no ammonia, nothing that scours.';
    const care = `No cleaning for 30 days, no ammonia or anything that scours, drop windows stay up until ${this.day(p.touch.to)}.`;
    return `Water pockets and a veil are normal until about ${this.day(p.clear.to)}; they wander and shrink by themselves. Do not press or prick them. ${care}`;
  });
  protected readonly basis = computed(() => told(this.check.wet()!.basis, this.record.units()));
  protected readonly pressed = computed(() => {
    const { hardPasses, isThick } = this.check.wet()!.pressing;
    if (hardPasses === null) return 'Tapped done at once: taken as pressed well, with more doubt.';
    return hardPasses >= (isThick ? 2 : 1)
      ? 'Pressed as it should be, by the log.'
      : 'By the log the hard pass was left out or hurried: more water, reckoned with.';
  });
}
