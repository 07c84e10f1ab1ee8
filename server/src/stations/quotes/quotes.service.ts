import { v7 as uuidv7 } from 'uuid';
import {
  newPane,
  defaultCutSettings,
  type Film,
  type Firm,
  type Job,
  type Patch,
  type Quote,
  type QuotePrice,
  type Rates,
  type Reading,
} from '@yellow-pane/contracts';
import { priceQuote } from '@yellow-pane/core';
import type { RecordsRepository } from '../../db/records.repository.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';

/** A quote with everything that its price depends on. */
export interface OpenQuote {
  readonly quote: Quote;
  readonly firm: Firm;
  readonly rates: Rates;
  readonly films: readonly Film[];
  readonly prices: readonly QuotePrice[];
}

const add = (kind: Patch['kind'], record: { id: string }): Patch => ({ op: 'add', kind, id: record.id, value: record as unknown as Record<string, unknown> });

/** Prices at the window, and what becomes of them. */
export class QuotesService {
  constructor(
    private readonly jobs: JobsService,
    private readonly records: Pick<RecordsRepository, 'find'>,
    private readonly now: () => Date,
  ) {}

  /** @throws Refusal quote-not-found */
  async open(quoteId: string): Promise<OpenQuote> {
    const quote = await this.records.find('quote', quoteId);
    const rates = quote && (await this.records.find('rates', quote.ratesId));
    if (!quote || quote.deletedAt || !rates) throw new Refusal('quote-not-found');
    const firm = await this.jobs.firm();
    const found = await Promise.all(quote.filmIds.map((id) => this.records.find('film', id)));
    const films = found.filter((f): f is Film => f !== null);
    return { quote, firm, rates, films, prices: films.map((f) => priceQuote(quote, f, rates, firm.allowances, defaultCutSettings)) };
  }

  /** The job that a yes makes: one place per place of the quote, one pane per window, with the size that was quoted: a guess until it is taped. */
  async accept(quoteId: string, filmId: string, who: { personId: string; deviceId: string }): Promise<{ jobId: string }> {
    const { quote, firm, films, prices } = await this.open(quoteId);
    if (quote.status === 'accepted') throw new Refusal('quote-accepted');
    const film = films.find((f) => f.id === filmId);
    const fault = film ? prices[films.indexOf(film)]!.fault : 'This film is not one of those offered.';
    if (!film || fault) throw new Refusal('no-price', fault ?? undefined);
    const at = this.now().toISOString();
    const template = await this.jobs.draft({ name: quote.customer || quote.site || 'Quoted job', customer: quote.customer, units: firm.units });
    const job: Job = { ...template, address: quote.site };
    const patches: Patch[] = [add('job', job), ...panesOf(quote, job, film, who.personId, at)];
    patches.push(
      { op: 'set', kind: 'quote', id: quote.id, field: 'status', value: 'accepted' },
      { op: 'set', kind: 'quote', id: quote.id, field: 'acceptedFilmId', value: film.id },
      { op: 'set', kind: 'quote', id: quote.id, field: 'jobId', value: job.id },
    );
    await this.jobs.change(job.id, who, `Accept the quote for ${job.name}`, patches);
    return { jobId: job.id };
  }
}

function panesOf(quote: Quote, job: Job, film: Film, personId: string, at: string): Patch[] {
  const patches: Patch[] = [];
  const places = new Map<string, string>();
  let order = 0;
  for (const line of quote.lines) {
    const name = line.place.trim() || 'First room';
    if (!places.has(name)) {
      const place = { id: uuidv7(), jobId: job.id, name, order: places.size + 1, deletedAt: null };
      places.set(name, place.id);
      patches.push(add('place', place));
    }
    const firstId = uuidv7();
    for (let i = 0; i < line.count; i++) {
      const note = [
        line.reach === 'floor' ? '' : `From a ${line.reach}.`,
        line.hasOldFilm ? 'Old film comes off.' : '',
        line.hasProudSilicone ? 'Silicone stands proud.' : '',
      ];
      const surface = newPane({
        id: i === 0 ? firstId : uuidv7(),
        jobId: job.id,
        placeId: places.get(name)!,
        name: line.count === 1 ? line.name : `${line.name} ${i + 1}`,
        order: ++order,
        measuredLikeId: i === 0 ? null : firstId,
        frame: line.hasProudSilicone ? 'silicone' : 'unknown',
        filmFace: film.mounting === 'outside' ? 'street' : 'room',
        filmId: film.id,
        note: note.filter(Boolean).join(' '),
      });
      patches.push(add('surface', surface));
    }
    for (const [measure, lengthMm] of [
      ['widthLargest', line.widthMm],
      ['heightLargest', line.heightMm],
    ] as const) {
      const reading: Reading = {
        id: uuidv7(),
        jobId: job.id,
        surfaceId: firstId,
        measure,
        typed: String(Math.round(lengthMm * 10) / 10),
        unit: 'mm',
        lengthMm: Math.round(lengthMm * 10) / 10,
        instrument: 'quote',
        personId,
        at,
        supersedesId: null,
        withdrawnAt: null,
        deletedAt: null,
      };
      patches.push(add('reading', reading));
    }
  }
  return patches;
}
