import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { defaultPrepareSettings, type PrepareSettings, type Pane, type TypedConditions, type WeatherDay } from '@yellow-pane/contracts';
import { dateAt, dayStartMs } from '@yellow-pane/core/ground';
import { dayOfPane, typedDay, type WorkWindow } from '@yellow-pane/core/prepare';
import { Api } from '../../record/api';
import { clockText } from '../../record/day-words';
import { RecordStore } from '../../record/record.store';

/** Whether this is a good hour for a pane, and until or from when. */
export interface HourVerdict {
  readonly isGood: boolean;
  /** By weather that the bench made up for trying: a toy, and said so. */
  readonly isMadeUp: boolean;
  readonly text: string;
}

/** What counts for a pane: glass between two rooms takes the room alone, a room face room and weather, a street face the weather. */
const counting = (surface: Pick<Pane, 'filmFace' | 'exposure'>): (keyof TypedConditions)[] => {
  const room = ['roomC', 'roomHumidityPct'] as const;
  const outside = ['airC', 'humidityPct', 'cloudPct', 'windMPerS'] as const;
  if (surface.exposure?.isIndoors) return [...room];
  return surface.filmFace === 'room' ? [...room, ...outside] : [...outside];
};

/** On what a word about this hour would rest: readings of today, a weather service for what is outside, or the made-up weather; nothing: then nobody speaks. */
export function restsOn(
  surface: Pick<Pane, 'filmFace' | 'exposure'>,
  planned: Pick<PrepareSettings, 'typed' | 'typedOn'>,
  today: string,
  weather: Pick<WeatherDay, 'isMadeUp'> | null,
): 'read' | 'made-up' | 'nothing' {
  const isToday = planned.typedOn === today;
  const missing = counting(surface).filter((f) => !isToday || planned.typed[f] === null);
  if (missing.length === 0) return 'read';
  if (weather?.isMadeUp) return 'made-up';
  return weather && missing.every((f) => f !== 'roomC' && f !== 'roomHumidityPct') ? 'read' : 'nothing';
}

/** What to do now, by the windows of today. @param hour the clock at the site */
export function hourVerdict(windows: readonly WorkWindow[], hour: number): Omit<HourVerdict, 'isMadeUp'> | null {
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

/** Today at the site, for whatever pane is in hand: by what was read or typed today. Silent where that is not enough; by made-up weather only when it says so. */
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
    const day = await this.api.weather({ params: { jobId: this.record.doc()!.job.id }, query: { on: this.today() } }).catch(() => null);
    if (day && this.key() === key) this.weather.set({ key, day });
  }

  /** @returns null where nothing honest can be said */
  of(surface: Pane): HourVerdict | null {
    const [doc, loaded, today] = [this.record.records(), this.weather(), this.today()];
    if (!doc) return null;
    const planned = { ...defaultPrepareSettings, ...doc.job.prepare };
    // what was read on another day says nothing of this one
    const settings = planned.typedOn === today ? planned : { ...planned, typed: defaultPrepareSettings.typed };
    const weather = (loaded?.key === this.key() ? loaded?.day : null) ?? typedDay(today, settings.typed);
    const basis = restsOn(surface, planned, today, weather);
    if (basis === 'nothing') return null;
    const day = dayOfPane(surface, doc, settings, weather, today);
    const said = day.ok ? hourVerdict(day.windows, (this.clockMs() - dayStartMs(today, doc.job.zone)) / 3_600_000) : null;
    if (!said) return null;
    return basis === 'made-up'
      ? { isGood: said.isGood, isMadeUp: true, text: `By made-up weather, not by today’s: ${said.text}` }
      : { ...said, isMadeUp: false };
  }
}
