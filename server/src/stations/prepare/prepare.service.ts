import {
  defaultPrepareSettings,
  type JobDay,
  type JobDocument,
  type KitLines,
  type SlipAnswer,
  type SlipRequest,
  type WashAnswer,
  type WashRequest,
  type WeatherDay,
} from '@yellow-pane/contracts';
import {
  bandsOfJob,
  correctMix,
  dateAt,
  dayKit,
  mixSlip,
  mixWash,
  slipNeed,
  spoonedText,
  strengthText,
  typedDay,
  washMeasure,
  washRules,
  washStrengthText,
} from '@yellow-pane/core';
import type { WeatherService } from '../../instruments/weather-service.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';

/** What a day of work asks for: weather, sun and glass, bottles. */
export class PrepareService {
  constructor(
    private readonly jobs: JobsService,
    private readonly weatherService: WeatherService | null,
    private readonly madeUp: WeatherService,
    private readonly now: () => Date,
  ) {}

  async weather(jobId: string, on: string | undefined, sky: WeatherDay['sky'] | undefined): Promise<WeatherDay> {
    const { job } = await this.jobs.open(jobId);
    return this.weatherFor(job, on, sky);
  }

  /** Each facade of the job over the day, as the screen shows it. */
  async day(jobId: string, on: string | undefined, sky: WeatherDay['sky'] | undefined): Promise<JobDay> {
    const doc = await this.jobs.openWithMemo(jobId);
    const settings = doc.job.prepare ?? defaultPrepareSettings;
    const weather = await this.weatherFor(doc.job, on, sky);
    const bands = bandsOfJob(doc, settings, weather, weather.on).map(({ day, ...band }) => ({
      ...band,
      surfaceIds: [...band.surfaceIds],
      windows: day.ok ? [...day.windows] : [],
      best: day.ok ? day.best : null,
      missing: day.ok ? null : day.missing,
      glass: day.ok ? day.moments.filter((_, i) => i % 6 === 0).map(({ hour, faceC, dewC, sunWPerM2 }) => ({ hour, faceC, dewC, sunWPerM2 })) : [],
    }));
    return { weather, bands };
  }

  async kit(jobId: string): Promise<KitLines> {
    const doc = await this.jobs.openWithMemo(jobId);
    const settings = doc.job.prepare ?? defaultPrepareSettings;
    return dayKit(doc, settings, slipNeed(doc, settings, [])).map((l) => ({
      ...l,
      isLoaded: settings.loaded.includes(l.key),
      isShort: (settings.short ?? []).includes(l.key),
    }));
  }

  /** A mix for an area, and how a bottle that is already mixed is put right. */
  async slip(asked: SlipRequest): Promise<SlipAnswer> {
    const mix = mixSlip(asked.school, asked.areaM2, asked.glassC, asked.bottleMl, asked.slipMlPerM2);
    const { inBottle } = asked;
    if (inBottle) this.holds(asked.bottleMl, inBottle.slipMl, inBottle.additiveMl);
    const correction = inBottle ? correctMix(inBottle.slipMl, inBottle.additiveMl, asked.bottleMl, mix.doseMlPerL) : null;
    return {
      ...mix,
      additiveText: spoonedText(mix.additiveMl, asked.school),
      correction: correction && { ...correction, words: strengthText(correction.strength) },
    };
  }

  /** Cleaner, wipe or wall wash for an area, and how a wrong one is put right. */
  async wash(asked: WashRequest): Promise<WashAnswer> {
    const rule = washRules[asked.kind];
    const least = rule.isDiluted ? rule.doseMlPerL / 10 : 100;
    if (asked.strengthPct < least)
      throw new Refusal('bad-input', undefined, [
        {
          path: 'body.strengthPct',
          message: rule.isDiluted
            ? `${rule.what} of ${asked.strengthPct} % is weaker than the mix (${least} %): take a stronger one.`
            : `${rule.what} is used as it comes: leave this at 100.`,
        },
      ]);
    const mix = mixWash(asked.kind, asked.areaM2, asked.bottleMl, asked.strengthPct);
    const { inBottle } = asked;
    if (inBottle) this.holds(asked.bottleMl, inBottle.mixMl, inBottle.additiveMl);
    const correction = inBottle ? correctMix(inBottle.mixMl, inBottle.additiveMl, asked.bottleMl, mix.doseMlPerL) : null;
    return {
      ...mix,
      additiveText: washMeasure(asked.kind, mix.additiveMl),
      correction: correction && { ...correction, words: washStrengthText(asked.kind, correction.strength) },
      after: rule.after,
      caution: rule.caution,
    };
  }

  /** @throws Refusal when a bottle cannot hold what is said to be in it */
  private holds(bottleMl: number, inItMl: number, additiveMl: number): void {
    if (inItMl <= bottleMl && additiveMl <= inItMl) return;
    throw new Refusal('bad-input', undefined, [
      {
        path: 'body.inBottle',
        message: `A bottle of ${bottleMl} ml cannot hold that: what is in it is at most the bottle, the additive at most what is in it.`,
      },
    ]);
  }

  private async weatherFor(job: JobDocument['job'], on: string | undefined, sky: WeatherDay['sky'] | undefined): Promise<WeatherDay> {
    const settings = job.prepare ?? defaultPrepareSettings;
    if (job.latDeg === null || job.lonDeg === null)
      throw new Refusal('no-place', 'Nobody has said where on earth the site is: enter latitude and longitude in Choose, under “Change the glass”.');
    const day = on ?? settings.on ?? job.dueOn ?? dateAt(this.now().getTime(), job.zone);
    const service = this.weatherService ?? (settings.madeUpWeather ? this.madeUp : null);
    const typed = service ? null : typedDay(day, settings.typed);
    if (typed) return typed;
    if (!service)
      throw new Refusal(
        'no-weather',
        'No weather service is connected to this bench. Type air, humidity, clouds and wind as you read them on site; for trying the bench, made-up weather can be switched on in Prepare.',
      );
    return service.day(job.latDeg, job.lonDeg, job.zone, day, sky ?? (settings.sky === 'as-forecast' ? null : settings.sky));
  }
}
