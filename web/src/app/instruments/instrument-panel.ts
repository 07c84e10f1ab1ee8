import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { measureOf, told } from '@yellow-pane/core/ground';
import { readMeasure } from '../kit/read-measure';
import { RecordStore } from '../record/record.store';
import type { InstrumentKind, InstrumentStatus } from '@yellow-pane/contracts';
import { usualEmissivities } from '@yellow-pane/core/instruments';
import { readNumber } from '../kit/read-number';
import { Instruments } from './instruments';

const plain: Record<InstrumentKind, string> = { laser: 'Laser meter', thermometer: 'Infrared thermometer', hygrometer: 'Thermo-hygrometer' };

/** The instruments at hand: whether they answer, what they read last, and, for the simulated ones, what they would see. */
@Component({
  selector: 'yp-instrument-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (s of shown(); track s.kind) {
      <section class="border-b border-hair py-2 text-sm" [attr.data-instrument]="s.kind" [attr.aria-label]="s.name">
        <p class="flex items-baseline justify-between gap-2">
          <strong>{{ s.name }}</strong>
          <span [class]="s.isLow ? 'text-heat-text' : 'text-soft'">{{ s.state }}</span>
        </p>
        @if (s.read) {
          <p class="figure">{{ s.read }}</p>
        }
        <form class="mt-1 flex flex-wrap items-end gap-2" (submit)="$event.preventDefault()">
          @switch (s.kind) {
            @case ('laser') {
              <label class="flex flex-col">it would see, mm<input #mm class="field figure w-24!" inputmode="decimal" [value]="aimMm() ?? 900" /></label>
              <button type="submit" class="btn" (click)="shootLaser(mm)">Shoot</button>
            }
            @case ('thermometer') {
              <label class="flex flex-col"
                >it is, {{ temperature().unit
                }}<input
                  #c
                  class="field figure w-20!"
                  inputmode="decimal"
                  [value]="
                    temperature()
                      .to(glassC() ?? 20)
                      .toFixed(0)
                  "
              /></label>
              <label class="flex flex-col"
                >set for<select #e class="field w-44!">
                  @for (u of emissivities; track u.name) {
                    <option [value]="u.frac">{{ u.name }} ({{ u.frac }})</option>
                  }
                </select></label
              >
              <label class="flex flex-col"
                >from, mm<input #d class="field figure w-20!" inputmode="decimal" value="100" aria-label="Held so far from it, mm"
              /></label>
              <label class="flex flex-col"
                >it is wide, mm<input #w class="field figure w-20!" inputmode="decimal" value="1000" aria-label="What it looks at is so wide, mm"
              /></label>
              <button type="submit" class="btn" (click)="shootGlass(c, e, d, w)">Read it</button>
            }
            @default {
              <label class="flex flex-col"
                >air is, {{ temperature().unit }}<input #t class="field figure w-20!" inputmode="decimal" [value]="temperature().to(21).toFixed(0)"
              /></label>
              <label class="flex flex-col">humidity, %<input #h class="field figure w-20!" inputmode="decimal" value="50" /></label>
              <button type="submit" class="btn" (click)="shootAir(t, h)">Read the air</button>
            }
          }
        </form>
        @if (s.isSimulated) {
          <p class="mt-1 text-xs text-soft">
            A stand-in: <button type="button" class="min-h-6 underline" (click)="act('drop', s.kind)">let it drop out</button> ·
            <button type="button" class="min-h-6 underline" (click)="act('drain', s.kind)">weak battery</button> ·
            <button type="button" class="min-h-6 underline" (click)="act('mend', s.kind)">put it right</button>
          </p>
        }
      </section>
    } @empty {
      <p class="text-sm text-soft">No instrument answers. Type what you read.</p>
    }
    @if (instruments.trouble(); as trouble) {
      <p class="mt-2 border-l-4 border-ink bg-tint p-2 text-sm" role="alert">{{ trouble }}</p>
    }
  `,
  host: { class: 'block' },
})
export class InstrumentPanel {
  readonly kinds = input.required<readonly InstrumentKind[]>();
  /** What the simulated laser is held against, if the page knows. */
  readonly aimMm = input<number | null>(null);
  /** How warm the model has the glass: what the simulated thermometer sees unless told otherwise. */
  readonly glassC = input<number | null>(null);
  protected readonly instruments = inject(Instruments);
  protected readonly emissivities = usualEmissivities;
  private readonly record = inject(RecordStore);
  protected readonly temperature = computed(() => measureOf('temperature', this.record.units()));

  protected readonly shown = computed(() =>
    this.kinds().flatMap((kind) => {
      const s = this.instruments.statuses()[kind];
      return s ? [{ ...s, name: plain[kind], state: this.stateOf(s), isLow: !s.isConnected || s.batteryPct < 15, read: this.readOf(s) }] : [];
    }),
  );
  private stateOf(s: InstrumentStatus): string {
    if (!s.isConnected) return 'does not answer';
    return `battery ${Math.round(s.batteryPct)} %${s.batteryPct < 15 ? ': change it, readings get worse' : ''}`;
  }
  private readOf(s: InstrumentStatus): string {
    switch (s.last?.kind) {
      case 'laser':
        return `${s.last.lengthMm} mm`;
      case 'thermometer':
        return told(`${s.last.surfaceC.toFixed(1)} °C at emissivity ${s.last.emissivityFrac}`, this.record.units());
      case 'hygrometer':
        return told(`${s.last.airC.toFixed(1)} °C, ${s.last.humidityPct} %`, this.record.units());
      case undefined:
        return '';
    }
  }

  protected act(act: 'drop' | 'drain' | 'mend', kind: InstrumentKind): void {
    void this.instruments.act({ act, kind });
  }
  protected shootLaser(box: HTMLInputElement): void {
    const trueMm = readNumber(box, { low: 50, high: 40_000, message: 'A laser meter takes 50 mm to 40 m.' });
    if (trueMm != null) void this.instruments.act({ act: 'shoot', deviceId: null, kind: 'laser', trueMm });
  }
  protected shootGlass(box: HTMLInputElement, set: HTMLSelectElement, from: HTMLInputElement, wide: HTMLInputElement): void {
    const surfaceC = readMeasure(box, 'temperature', this.record.units(), { low: -40, high: 300, message: 'Between −40 and 300 °C.' });
    const distanceMm = readNumber(from, { low: 5, high: 5000, message: 'From 5 mm to 5 m.' });
    const targetMm = readNumber(wide, { low: 1, high: 10_000, message: 'From 1 mm to 10 m.' });
    if (surfaceC != null && distanceMm != null && targetMm != null)
      void this.instruments.act({
        act: 'shoot',
        deviceId: null,
        kind: 'thermometer',
        surfaceC,
        trueEmissivityFrac: 0.9,
        setEmissivityFrac: Number(set.value),
        surroundingsC: 21,
        distanceMm,
        targetMm,
        heldS: 3,
      });
  }
  protected shootAir(t: HTMLInputElement, h: HTMLInputElement): void {
    const airC = readMeasure(t, 'temperature', this.record.units(), { low: -30, high: 60, message: 'Between −30 and 60 °C.' });
    const humidityPct = readNumber(h, { low: 1, high: 100, message: 'Between 1 and 100 %.' });
    if (airC != null && humidityPct != null) void this.instruments.act({ act: 'shoot', deviceId: null, kind: 'hygrometer', airC, humidityPct });
  }
}
