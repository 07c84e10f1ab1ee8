import { defaultPrepareSettings, type PaneDrying, type PrepareSettings, type WeatherDay } from '@yellow-pane/contracts';
import { dateAt, datesAsked, daysBasis, layProgress, dryingFrom, lossesOn, wasWarmWhenLaid } from '@yellow-pane/core';
import { breathe } from '../../breathe.js';
import type { WeatherService } from '../../instruments/weather-service.js';
import type { JobsService, OpenJob } from '../jobs/jobs.service.js';

/** Jobs whose drying is kept at hand. @source house rule */
const MOST_KEPT = 20;

/** What checking needs from the bench: the weather behind the drying of laid panes. */
export class CheckService {
  /** By job and revision: weather of a season is asked for and reckoned once. */
  private readonly kept = new Map<string, { readonly revision: number; readonly days: Promise<PaneDrying[]> }>();

  constructor(
    private readonly jobs: JobsService,
    private readonly weatherService: WeatherService | null,
    private readonly madeUp: WeatherService,
  ) {}

  async drying(jobId: string): Promise<PaneDrying[]> {
    const doc = await this.jobs.openWithMemo(jobId);
    const known = this.kept.get(jobId);
    if (known?.revision === doc.revision) return known.days;
    const days = this.reckon(doc);
    this.kept.delete(jobId);
    this.kept.set(jobId, { revision: doc.revision, days });
    if (this.kept.size > MOST_KEPT) this.kept.delete(this.kept.keys().next().value!);
    // what failed is asked anew
    days.catch(() => this.kept.get(jobId)?.days === days && this.kept.delete(jobId));
    return days;
  }

  private async reckon(doc: OpenJob): Promise<PaneDrying[]> {
    const { job } = doc;
    const settings: PrepareSettings = { ...defaultPrepareSettings, ...job.prepare };
    const laid = [...layProgress(doc)].flatMap(([id, p]) => (p.doneAt ? [{ id, laidAt: p.doneAt }] : []));
    if (laid.length === 0) return [];
    const service = this.weatherService ?? (settings.madeUpWeather ? this.madeUp : null);
    const weatherOn = async (on: string, sky: WeatherDay['sky'] | null): Promise<WeatherDay | null> => {
      if (!service || job.latDeg === null || job.lonDeg === null) return null;
      // a service that does not answer, or knows no day so far ahead, is as good as none
      return service.day(job.latDeg, job.lonDeg, job.zone, on, sky).catch(() => null);
    };
    const first = laid.reduce((a, b) => (a.laidAt < b.laidAt ? a : b)).laidAt;
    const losses = new Map<string, { on: string; gPerM2: number }[]>();
    let source: WeatherDay | null = null;
    for (const on of datesAsked(first, job.zone))
      for (const sky of ['clear', 'changing'] as const) {
        await breathe();
        const weather = await weatherOn(on, sky);
        source ??= weather;
        for (const [id, gPerM2] of lossesOn(doc, settings, { on, weather })) losses.set(id, [...(losses.get(id) ?? []), { on, gPerM2 }]);
      }
    const basis = daysBasis(source?.source ?? 'Between rooms', source?.isMadeUp ?? false);
    const layingDays = new Map<string, WeatherDay | null>();
    const out: PaneDrying[] = [];
    for (const { id, laidAt } of laid) {
      const on = dateAt(Date.parse(laidAt), job.zone);
      const own = dryingFrom(on, losses.get(id) ?? []);
      if (!own) continue;
      if (!layingDays.has(on)) layingDays.set(on, await weatherOn(on, null));
      out.push({ surfaceId: id, losses: own, basis, wasWarm: wasWarmWhenLaid(doc, settings, layingDays.get(on)!, id, laidAt) });
    }
    return out;
  }
}
