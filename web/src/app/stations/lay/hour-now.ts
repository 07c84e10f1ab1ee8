import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { defaultPrepareSettings, type Surface, type WeatherDay } from '@yellow-pane/contracts';
import { dateAt, dayStartMs } from '@yellow-pane/core/ground';
import { dayOfPane, type WorkWindow } from '@yellow-pane/core/prepare';
import { Api } from '../../record/api';
import { clockText } from '../../record/day-words';
import { RecordStore } from '../../record/record.store';

/** Whether this is a good hour for a pane, and until or from when. */
export interface HourVerdict {
  readonly isGood: boolean;
  readonly text: string;
}

/** What to do now, by the windows of today. @param hour the clock at the site */
export function hourVerdict(windows: readonly WorkWindow[], hour: number): HourVerdict | null {
  const at = windows.findIndex((w) => hour >= w.fromHour && hour < w.toHour);
  const now = windows[at];
  if (!now) return null;
  if (now.grade === 'good') {
    const next = windows[at + 1];
    return {
      isGood: true,
      text: next
        ? `Good for wet work until ${clockText(next.fromHour)}${next.why ? `, then: ${next.why}` : ''}.`
        : 'Good for wet work for the rest of the day.',
    };
  }
  const good = windows.slice(at).find((w) => w.grade === 'good');
  const again = good ? `Good from ${clockText(good.fromHour)}.` : 'Not good again today: shade the glass, or take another pane.';
  return { isGood: false, text: `${now.grade === 'wrong' ? 'Not now' : 'Not quite right now'}: ${now.why}. ${again}` };
}

/** Today at the site, for whatever pane is in hand; silent where the weather or the glass is not known, or out of reach of the bench. */
@Injectable()
export class HourNow {
  private readonly api = inject(Api);
  private readonly record = inject(RecordStore);
  private readonly clockMs = signal(Date.now());
  private readonly weather = signal<{ readonly key: string; readonly day: WeatherDay } | null>(null);
  private readonly today = computed(() => dateAt(this.clockMs(), this.record.doc()?.job.zone ?? 'Etc/UTC'));
  private readonly key = computed(() => {
    const job = this.record.doc()?.job;
    return job && job.latDeg !== null && job.lonDeg !== null ? `${job.id}/${job.latDeg}/${job.lonDeg}/${this.today()}` : null;
  });

  constructor() {
    const timer = setInterval(() => this.clockMs.set(Date.now()), 60_000);
    effect((onCleanup) => onCleanup(() => clearInterval(timer)));
    effect(() => {
      const key = this.key();
      if (key) untracked(() => void this.load(key));
    });
  }

  private async load(key: string): Promise<void> {
    const day = await this.api.weather(this.record.doc()!.job.id, this.today(), null).catch(() => null);
    if (day && this.key() === key) this.weather.set({ key, day });
  }

  /** @returns null where nothing honest can be said */
  of(surface: Surface): HourVerdict | null {
    const [doc, loaded] = [this.record.doc(), this.weather()];
    if (!doc || !loaded || loaded.key !== this.key()) return null;
    const planned = { ...defaultPrepareSettings, ...doc.job.prepare };
    // what was typed was read on the day that was planned
    const settings = planned.on === this.today() ? planned : { ...planned, typed: defaultPrepareSettings.typed };
    const day = dayOfPane(surface, doc, settings, loaded.day);
    return day.ok ? hourVerdict(day.windows, (this.clockMs() - dayStartMs(this.today(), doc.job.zone)) / 3_600_000) : null;
  }
}
