import type { FilmKind, LayEntry, SealCheck } from '@yellow-pane/contracts';
import {
  calendarOf,
  careSheet,
  allLaid,
  isWetLaidPane,
  checkSeal,
  CLEAN_AFTER_DAYS,
  linesInForce,
  recordOfPanes,
  sealPanes,
  temperatureText,
  type AnyLaid,
  type CheckPane,
  type DryingDays,
} from '@yellow-pane/core';
import { Refusal } from '../../problem.js';
import type { CheckService } from '../check/check.service.js';
import type { JobsService, OpenJob } from '../jobs/jobs.service.js';
import type { PhotoStore } from '../lay/photo-store.js';
import { calendarText } from './calendar.js';
import { carePdf } from './care-pdf.js';
import type { CareTexts } from './care-texts.js';
import { recordPdf } from './record-pdf.js';
import type { Paper } from '../../pdf/page.js';

const DAY_MS = 86_400_000;
/** Longest side of a photo on paper, px. @source house rule: 150 points at 300 dots an inch */
const PRINTED_PX = 640;

/** Papers, calendar and seals of a job that is laid. */
export class HandOverService {
  constructor(
    private readonly jobs: JobsService,
    private readonly check: CheckService,
    private readonly photos: PhotoStore,
    private readonly texts: CareTexts,
    private readonly now: () => Date,
  ) {}

  async seals(jobId: string): Promise<SealCheck[]> {
    return sealsOf(await this.jobs.openWithMemo(jobId));
  }

  languages(): ReturnType<CareTexts['list']> {
    return this.texts.list();
  }

  /** @throws Refusal nothing-laid */
  private async laid(jobId: string, placeId?: string): Promise<{ doc: OpenJob; panes: AnyLaid[] }> {
    const doc = await this.jobs.openWithMemo(jobId);
    const days = new Map<string, DryingDays>((await this.check.drying(jobId)).map((d) => [d.surfaceId, d]));
    const all = allLaid(doc, (id) => days.get(id) ?? null, this.now().toISOString());
    const panes = placeId ? all.filter((p) => p.surface.placeId === placeId) : all;
    if (panes.length === 0) throw new Refusal('nothing-laid', placeId ? 'Nothing of this place is laid yet.' : undefined);
    return { doc, panes };
  }

  async record(jobId: string, placeId: string | undefined, paper: Paper): Promise<{ name: string; bytes: Buffer }> {
    const { doc, panes } = await this.laid(jobId, placeId);
    const ids = new Set(panes.map((p) => p.surface.id));
    const lines = linesInForce(doc.layEntries);
    const whole = lines.filter((e) => e.surfaceId === null);
    const accepted = lines.filter((e) => e.kind === 'accepted' && e.acceptance?.panes.some((p) => ids.has(p.surfaceId)));
    const signed = [...whole.filter((e) => e.kind === 'signed'), ...accepted];
    const bytes = await recordPdf(
      {
        firm: doc.firm.name,
        job: doc.job.name,
        customer: doc.job.customer,
        address: doc.job.address,
        units: doc.job.units,
        zone: doc.job.zone,
        printedAt: this.now().toISOString(),
        panes: recordOfPanes(panes, doc),
        air: airOf(doc),
        before: whole.filter((e) => e.kind === 'photo' || e.kind === 'signed'),
        seal: sealPanes([...ids], doc).seal,
        jobId,
        seals: sealsOf(doc).filter((s) => accepted.some((e) => e.id === s.entryId)),
        signatures: signed.flatMap((e) => (e.signature ? [{ ...e.signature, at: e.occurredAt, of: signedFor(e, doc) }] : [])),
        photo: (name) => this.printed(name),
      },
      paper,
    );
    return { name: `${doc.job.name} record.pdf`, bytes };
  }

  async care(jobId: string, language: string, paper: Paper): Promise<{ name: string; bytes: Buffer }> {
    const text = this.texts.get(language);
    const { doc, panes } = await this.laid(jobId);
    // an inch job reads its dates as where inches are tape
    const locale = language.toLowerCase() === 'en' ? (doc.job.units === 'in' ? 'en-US' : 'en-GB') : language;
    const days = new Intl.DateTimeFormat(locale, { dateStyle: 'long', timeZone: doc.job.zone });
    const times = (list: readonly CheckPane[], pick: (p: CheckPane) => string) => list.map((p) => Date.parse(pick(p)));
    const laidWet = panes.filter(isWetLaidPane);
    const wet = laidWet.filter((p) => p.looks.at(-1)?.look?.water !== 'none');
    const clear = [...new Set(wet.map((p) => p.film.name))].map((film) => {
      const own = wet.filter((p) => p.film.name === film);
      return `${film} ${days.formatRange(Math.min(...times(own, (p) => p.clear.from)), Math.max(...times(own, (p) => p.clear.to)))}`;
    });
    const sheet = careSheet(
      text,
      new Set<FilmKind>(panes.map((p) => p.film.kind)),
      {
        isWet: laidWet.length > 0,
        isDry: laidWet.length < panes.length,
        hasDoubleGlazing: laidWet.some((p) => (p.surface.glazing?.panes.length ?? 1) > 1),
      },
      {
        customer: doc.job.customer,
        job: doc.job.name,
        firm: doc.firm.name,
        clear: clear.join('; '),
        touchTo: laidWet.length ? days.format(Math.max(...times(laidWet, (p) => p.touch.to))) : '',
        cleanFrom: days.format(Math.max(...panes.map((p) => Date.parse(p.laidAt))) + CLEAN_AFTER_DAYS * DAY_MS),
      },
    );
    return { name: `${doc.job.name} care.pdf`, bytes: await carePdf(sheet, doc.job.units, paper) };
  }

  async calendar(jobId: string): Promise<{ name: string; bytes: string }> {
    const { doc, panes } = await this.laid(jobId);
    const days = calendarOf(panes, doc.job, this.now().toISOString());
    return { name: `${doc.job.name}.ics`, bytes: calendarText(doc.job.name, days, this.now()) };
  }

  /** A photo made small for paper; null: it is not here. */
  private async printed(name: string): Promise<string | null> {
    if (!this.photos.has(name)) return null;
    try {
      const { default: sharp } = await import('sharp');
      const small = await sharp(this.photos.read(name)).resize({ width: PRINTED_PX, height: PRINTED_PX, fit: 'inside', withoutEnlargement: true }).jpeg().toBuffer(); // prettier-ignore
      return `data:image/jpeg;base64,${small.toString('base64')}`;
    } catch {
      // torn on the disk: the paper says how many are not printed
      return null;
    }
  }
}

/** Air as somebody read or typed it, with its day; what a weather service said is none of it. */
function airOf({ job }: OpenJob): string {
  const t = job.prepare?.typed;
  const pair = (name: string, c: number | null | undefined, pct: number | null | undefined) => {
    const parts = [...(c == null ? [] : [temperatureText(c, job.units)]), ...(pct == null ? [] : [`${pct} %`])];
    return parts.length ? [`${name} ${parts.join(', ')}`] : [];
  };
  const read = [...pair('outside', t?.airC, t?.humidityPct), ...pair('room', t?.roomC, t?.roomHumidityPct)];
  return read.length ? `Air as read${job.prepare?.typedOn ? ` on ${job.prepare.typedOn}` : ''}: ${read.join('; ')}` : '';
}

const signedFor = (e: LayEntry, doc: OpenJob): string => {
  if (e.kind === 'signed') return 'Before the work, what was already there';
  const names = (e.acceptance?.panes ?? []).map((p) => doc.surfaces.find((s) => s.id === p.surfaceId)?.name ?? 'a pane that is gone');
  return `Taken over: ${names.length > 12 ? `${names.slice(0, 12).join(', ')} and ${names.length - 12} more` : names.join(', ')}${e.text ? `. ${e.text}` : ''}`;
};

/** Every seal that was signed and not taken back, the newest first. */
const sealsOf = (doc: OpenJob): SealCheck[] =>
  linesInForce(doc.layEntries)
    .filter((e) => e.kind === 'accepted')
    .flatMap((e) => checkSeal(e, doc) ?? [])
    .sort((a, b) => b.signedAt.localeCompare(a.signedAt));
