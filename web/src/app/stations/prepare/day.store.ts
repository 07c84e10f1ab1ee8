import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { defaultPrepareSettings, type PrepareSettings, type WeatherDay } from '@yellow-pane/contracts';
import { dateAt, dayStartMs, toldAll } from '@yellow-pane/core/ground';
import { bandsOfJob, slipNeed, typedDay, workAsked, workMoments, type DayBand } from '@yellow-pane/core/prepare';
import { dayKit } from '@yellow-pane/core/lay';
import { gradeWords } from '../../record/day-words';
import { Api } from '../../record/api';
import { RecordStore } from '../../record/record.store';

/** The day that the open job is planned for: what was said about it, its weather, and each facade over its hours. */
@Injectable()
export class DayStore {
  private readonly api = inject(Api);
  private readonly record = inject(RecordStore);
  private readonly clockMs = signal(Date.now());
  private readonly loaded = signal<{ readonly key: string; readonly weather: WeatherDay } | null>(null);
  readonly failed = signal<string | null>(null);

  readonly settings = computed<PrepareSettings>(() => ({ ...defaultPrepareSettings, ...this.record.doc()?.job.prepare }));
  readonly on = computed(() => this.settings().on ?? this.record.doc()?.job.dueOn ?? dateAt(this.clockMs(), this.record.doc()?.job.zone ?? 'Etc/UTC'));
  readonly isPlaced = computed(() => this.record.doc()?.job.latDeg != null && this.record.doc()?.job.lonDeg != null);
  private readonly key = computed(() => {
    const job = this.record.doc()?.job;
    return job && this.isPlaced() ? [job.id, job.latDeg, job.lonDeg, job.zone, this.on(), this.settings().sky, this.settings().madeUpWeather].join('/') : null;
  });
  /** What a service says, or the made-up day where that is switched on; else what was typed on site, if it is enough. */
  readonly weather = computed(() => (this.loaded()?.key === this.key() ? this.loaded()!.weather : typedDay(this.on(), this.settings().typed)));
  readonly bands = computed<readonly DayBand[]>(() => {
    const doc = this.record.records();
    // while the answer is on its way nothing is said; without any weather glass between two rooms still has its day
    const weather = this.weather();
    return doc && this.isPlaced() && (weather || this.failed()) ? bandsOfJob(doc, this.settings(), weather, this.on()) : [];
  });
  /** The band of the pane in hand. */
  readonly here = computed(() => this.bands().find((b) => b.surfaceIds.includes(this.record.selectedId() ?? '')) ?? null);
  /** Wet glass of the day and how warm it is in its good hours. */
  readonly slip = computed(() => {
    const doc = this.record.records();
    return doc ? slipNeed(doc, this.settings(), this.bands()) : { wetAreaM2: 0, glassC: 20 };
  });
  readonly kit = computed(() => {
    const doc = this.record.records();
    return doc ? toldAll(dayKit(doc, this.settings(), this.slip()), this.record.units()) : [];
  });
  /** The clock at the site, when the day is today. */
  readonly nowHour = computed(() => {
    const zone = this.record.doc()?.job.zone;
    const hour = zone ? (this.clockMs() - dayStartMs(this.on(), zone)) / 3_600_000 : -1;
    return hour >= 0 && hour < 24 ? hour : null;
  });

  /** The moment that is now, or on another day its noon. */
  private readonly moment = computed(() => {
    const day = this.here()?.day;
    if (!day?.ok) return null;
    const hour = this.nowHour() ?? 12;
    return day.moments.reduce((a, b) => (Math.abs(b.hour - hour) < Math.abs(a.hour - hour) ? b : a));
  });
  /** How warm the model has the face that is worked on, °C. */
  readonly glassNowC = computed(() => this.moment()?.faceC ?? null);
  private readonly readC = signal<{ readonly surfaceId: string; readonly glassC: number } | null>(null);
  /** What the thermometer says of this pane, against the model, and whether one may go on. */
  readonly glassRead = computed(() => {
    const [doc, weather, moment, read] = [this.record.doc(), this.weather(), this.moment(), this.readC()];
    const surface = this.record.pane();
    if (!doc || !weather || !moment || !surface || read?.surfaceId !== surface.id) return null;
    const film = doc.films.find((f) => f.id === surface.filmId) ?? null;
    const judged = workMoments([{ ...moment, innerC: read.glassC, outerC: read.glassC }], workAsked(surface, film, this.settings(), weather))[0]!;
    const apart = read.glassC - moment.faceC;
    const model = Math.abs(apart) < 3 ? 'as reckoned' : `${Math.abs(apart).toFixed(0)} °C ${apart > 0 ? 'warmer' : 'colder'} than reckoned`;
    const why = judged.reasons[0]?.words;
    return toldAll(
      {
        text: `${surface.name}: glass read at ${read.glassC.toFixed(1)} °C, ${model}. ${this.nowHour() === null ? 'At noon of that day' : 'Now'}: ${gradeWords[judged.grade]}${why ? `, ${why}` : ''}.`,
        look: { good: 'border-proof bg-proof-tint', marginal: 'border-ink bg-tint', wrong: 'border-harm bg-harm-tint' }[judged.grade],
      },
      this.record.units(),
    );
  });
  readGlass(glassC: number): void {
    const surfaceId = this.record.selectedId();
    if (surfaceId) this.readC.set({ surfaceId, glassC });
  }

  constructor() {
    const timer = setInterval(() => this.clockMs.set(Date.now()), 60_000);
    effect((onCleanup) => onCleanup(() => clearInterval(timer)));
    effect(() => {
      const key = this.key();
      if (key) untracked(() => void this.load(key));
    });
  }

  async load(key = this.key()): Promise<void> {
    const job = this.record.doc()?.job;
    if (!job || key === null) return;
    const { sky } = this.settings();
    this.failed.set(null);
    try {
      const weather = await this.api.weather({ params: { jobId: job.id }, query: { on: this.on(), ...(sky === 'as-forecast' ? {} : { sky }) } });
      if (this.key() !== key) return;
      this.loaded.set({ key, weather });
      this.failed.set(null);
    } catch (error) {
      if (this.key() === key) this.failed.set(error instanceof Error ? error.message : String(error));
    }
  }

  /** One edit of what is said about the day. */
  set(label: string, part: Partial<PrepareSettings>): void {
    const job = this.record.doc()?.job;
    const typedOn = part.typed && job ? { typedOn: dateAt(Date.now(), job.zone) } : {};
    if (job) void this.record.set(label, 'job', job.id, { prepare: { ...this.settings(), ...part, ...typedOn } });
  }
}
