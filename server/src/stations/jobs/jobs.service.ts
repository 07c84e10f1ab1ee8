import { v7 as uuidv7 } from 'uuid';
import {
  API_VERSION,
  defaultChooseSettings,
  defaultCutSettings,
  DELETED_DAYS,
  jobFile,
  upgradedJobFile,
  type BenchDocument,
  type BroughtBack,
  type Change,
  type ChangeDraft,
  type DeletedJob,
  type Firm,
  type Job,
  type JobDocument,
  type JobFile,
  type JobPage,
  type JobSummary,
  type LayEntry,
  type Patch,
  type Person,
  type RecordKind,
  type StepSet,
  type StockView,
} from '@yellow-pane/contracts';
import { dropKey, freeMm, inWalkingOrder, isMeasured, Memo, panesReadyToLay, piecesCutShort, surveyed, type Erasing } from '@yellow-pane/core';
import type { ChangeService } from '../../db/change.service.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { JobCount, JobCountsRepository } from '../../db/job-counts.repository.js';
import { breathe } from '../../breathe.js';
import { Refusal } from '../../problem.js';
import { OpenJobs, shownIn } from './open-jobs.js';

/** Whoever was away for more than this loads the job anew. @source house rule */
const MOST_MISSED = 400;
/** A change as a page of a job has to see it: all of its own, of another only what every job shows; null: nothing of it. */
export function seenFrom(jobId: string, change: Change): Change | null {
  if (change.jobId === jobId) return change;
  const patches = shownIn(jobId, change);
  return patches.length ? { ...change, patches, inverse: [] } : null;
}

/** One change of more would hold up everybody else. @source measured; house figure */
const PATCHES_IN_A_CHANGE = 250;

const alive = <T extends { deletedAt: string | null }>(list: readonly T[]): T[] => list.filter((x) => x.deletedAt === null);
async function firmOf(records: RecordsRepository): Promise<Firm> {
  const [firm] = await records.all('firm');
  if (!firm) throw new Error('The bench was not set up.');
  return firm;
}
/** @param jobId only what this job has to know of; left out: all of it */
async function stockOf(records: RecordsRepository, jobId?: string): Promise<StockView> {
  const reservations = alive(await records.all('reservation'));
  const entries = jobId === undefined ? alive(await records.all('stockEntry')) : await records.movementsFor(jobId);
  const holders = new Set([...reservations, ...entries].flatMap((r) => r.jobId ?? []));
  return { entries, reservations, jobNames: await records.jobNames([...holders]) };
}
const addPatch = (kind: RecordKind, record: { id: string }): Patch => ({ op: 'add', kind, id: record.id, value: record as unknown as Record<string, unknown> });

export type OpenJob = JobDocument & { readonly memo: Memo };

/** Jobs: listing, opening, starting, and job files in and out. */
export class JobsService {
  private readonly opened = new OpenJobs();
  private knownFirm: Firm | null = null;
  /** The last change that was made here, and not on a page. */
  private making: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly records: RecordsRepository,
    private readonly changes: ChangeService,
    private readonly now: () => Date,
    private readonly hasPhoto: (photo: string) => boolean,
    private readonly counts: JobCountsRepository,
    private readonly memo = new Memo(),
  ) {
    changes.listen((change) => {
      this.opened.hear(change);
      if (change.patches.some((p) => p.kind === 'firm')) this.knownFirm = null;
    });
    changes.listenToDoubt(() => {
      this.opened.forget();
      this.knownFirm = null;
    });
  }

  async firm(): Promise<Firm> {
    return (this.knownFirm ??= await firmOf(this.records));
  }

  async session(deviceId: string | undefined): Promise<{ firm: Firm; persons: Person[]; lastDeviceSeq: number; at: string; apiVersion: number }> {
    const lastDeviceSeq = deviceId ? await this.records.lastDeviceSeq(deviceId) : 0;
    return { firm: await this.firm(), persons: await this.records.all('person'), lastDeviceSeq, at: this.now().toISOString(), apiVersion: API_VERSION };
  }

  /** A page of the list. What was not counted since its job changed is counted now, one job after the other, and others get a turn in between. */
  async list(asked: { search?: string | undefined; offset: number; limit: number }): Promise<JobPage> {
    const { jobs, total } = await this.counts.page(asked, this.now());
    const out: JobSummary[] = [];
    for (const { count, ...job } of jobs) out.push({ ...job, ...(count ?? (await this.count(job.id))) });
    return { jobs: out, total };
  }

  private async count(jobId: string): Promise<JobCount> {
    await breathe();
    const doc = { ...(this.opened.get(jobId) ?? (await this.read(jobId))), memo: this.memo };
    const count = {
      surfaceCount: doc.surfaces.length,
      measuredCount: doc.surfaces.filter((s) => isMeasured(surveyed(s, doc))).length,
      cutCount: panesReadyToLay(doc, piecesCutShort(doc, doc.job.units)).size,
    };
    await this.counts.keep(jobId, doc.revision, count);
    return count;
  }

  /** Jobs that were deleted in the last days, the last one first. */
  async deleted(): Promise<DeletedJob[]> {
    const since = new Date(this.now().getTime() - DELETED_DAYS * 86_400_000).toISOString();
    const gone = (await this.records.jobsDeletedSince(since)).flatMap(({ id, name, customer, deletedAt }) =>
      deletedAt !== null && deletedAt >= since ? [{ id, name, customer, deletedAt }] : [],
    );
    return gone.sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
  }

  /**
   * Brings a deleted job back, and the promises of film that were lifted with it, as far as the film is still free.
   * A job that is there already stays as it is: asked twice, nothing happens twice. @throws Refusal job-not-found
   */
  async bringBack(jobId: string, who: { personId: string; deviceId: string }): Promise<BroughtBack> {
    const job = await this.records.find('job', jobId);
    if (!job) throw new Refusal('job-not-found');
    if (job.deletedAt === null) return { jobId, promisesBack: 0, promisesGone: 0 };
    const [book, rolls] = [await this.stock(), await this.records.all('roll')];
    const lifted = (await this.records.ofJob('reservation', jobId)).filter((r) => r.deletedAt === job.deletedAt);
    const free = new Map(rolls.filter((r) => !r.deletedAt).map((r) => [r.id, freeMm(r, book)]));
    const back = lifted.filter((r) => {
      const left = (free.get(r.rollId) ?? -1) - r.lengthMm;
      // what rounding leaves is no reason to lose a promise
      if (left < -0.5) return false;
      free.set(r.rollId, left);
      return true;
    });
    const live = (kind: 'job' | 'reservation', id: string): Patch => ({ op: 'set', kind, id, field: 'deletedAt', value: null });
    await this.change(jobId, who, `Bring back ${job.name}`, [live('job', jobId), ...back.map((r) => live('reservation', r.id))]);
    return { jobId, promisesBack: back.length, promisesGone: lifted.length - back.length };
  }

  async job(jobId: string): Promise<Job> {
    const job = await this.records.find('job', jobId);
    if (!job || job.deletedAt) throw new Refusal('job-not-found');
    return job;
  }

  /** What can be undone in: also a job that was deleted, for that is undone too. @throws Refusal job-not-found */
  async everOwner(id: string): Promise<void> {
    if (!this.opened.get(id) && (await this.firm()).id !== id && !(await this.records.find('job', id))) throw new Refusal('job-not-found');
  }

  /** What a change may belong to: a job, or the firm itself. @throws Refusal job-not-found */
  async owner(id: string): Promise<void> {
    if (!this.opened.get(id) && (await this.firm()).id !== id) await this.job(id);
  }

  /** What was changed after a revision that a page of this job has to know of. */
  async since(jobId: string, after: number): Promise<{ changes: Change[]; revision: number; isTooMuch: boolean }> {
    await this.everOwner(jobId);
    const all = await this.records.changesAfterAtMost(after, MOST_MISSED + 1);
    const isTooMuch = all.length > MOST_MISSED;
    return { changes: isTooMuch ? [] : all.flatMap((c) => seenFrom(jobId, c) ?? []), revision: await this.records.revision(), isTooMuch };
  }

  async bench(personId?: string, deviceId?: string): Promise<BenchDocument> {
    const firm = await this.firm();
    return {
      revision: await this.records.revision(),
      firm,
      persons: await this.records.all('person'),
      films: await this.records.all('film'),
      rolls: alive(await this.records.all('roll')),
      stock: await this.stock(),
      rates: (await this.records.all('rates')).sort((a, b) => a.version - b.version),
      quotes: alive(await this.records.all('quote')),
      stepSets: await this.stepSets(),
      panesWithFilm: await this.records.panesWithFilm(),
      ...(personId ? await this.changes.canUndo(firm.id, personId, deviceId) : { canUndo: null, canRedo: null }),
    };
  }

  /** The firm's own steps, all versions, the newest last. */
  async stepSets(): Promise<StepSet[]> {
    return (await this.records.all('stepSet')).sort((a, b) => a.version - b.version);
  }

  /** Movements and promises on all rolls, with the names of the jobs that hold film. */
  stock(): Promise<StockView> {
    return stockOf(this.records);
  }

  /** @throws Refusal job-not-found */
  async open(jobId: string, personId?: string, deviceId?: string): Promise<JobDocument> {
    let doc = this.opened.get(jobId);
    if (!doc) this.opened.keep((doc = await this.read(jobId)));
    return { ...doc, ...(personId ? await this.changes.canUndo(jobId, personId, deviceId) : {}) };
  }

  /** The open job with what this process has had worked out of it: what core's questions about panes and plans are asked of. */
  async openWithMemo(jobId: string): Promise<OpenJob> {
    return { ...(await this.open(jobId)), memo: this.memo };
  }

  /** The whole job as the database has it, all of it of one moment. */
  private read(jobId: string): Promise<JobDocument> {
    return this.records.atOneMoment(async (records) => {
      const job = await records.find('job', jobId);
      if (!job || job.deletedAt) throw new Refusal('job-not-found');
      // one after the other: it is one connection
      const places = await records.ofJob('place', jobId);
      const surfaces = await records.ofJob('surface', jobId);
      const readings = await records.ofJob('reading', jobId);
      const plans = await records.ofJob('plan', jobId);
      const entries = await records.ofJob('logEntry', jobId);
      const plotRuns = await records.ofJob('plotRun', jobId);
      const layEntries = await records.ofJob('layEntry', jobId);
      return inWalkingOrder({
        revision: await records.revision(),
        firm: await firmOf(records),
        persons: await records.all('person'),
        job,
        places: alive(places),
        surfaces: alive(surfaces),
        readings: alive(readings),
        films: await records.all('film'),
        rolls: alive(await records.all('roll')),
        stock: await stockOf(records, jobId),
        plans: alive(plans),
        entries,
        plotRuns,
        layEntries,
        stepSets: (await records.all('stepSet')).sort((a, b) => a.version - b.version),
        canUndo: null,
        canRedo: null,
      });
    });
  }

  /** A job as it starts, by the firm's defaults; not written yet. */
  async draft(input: { name: string; customer: string; units: 'mm' | 'in' }): Promise<Job> {
    const firm = await this.firm();
    return {
      id: uuidv7(),
      firmId: firm.id,
      name: input.name,
      customer: input.customer,
      address: '',
      zone: 'Etc/UTC',
      latDeg: null,
      lonDeg: null,
      units: input.units,
      currency: firm.currency,
      dueOn: null,
      method: 'overhang',
      allowances: null,
      dry: null,
      cut: defaultCutSettings,
      choose: defaultChooseSettings,
      prepare: null,
      lay: null,
      reachMm: null,
      createdAt: this.now().toISOString(),
      deletedAt: null,
    };
  }

  async create(input: { name: string; customer: string; units: 'mm' | 'in'; personId: string; deviceId: string }): Promise<Job> {
    const job = await this.draft(input);
    const place = { id: uuidv7(), jobId: job.id, name: 'First room', order: 1, deletedAt: null };
    await this.change(job.id, input, 'Start the job', [addPatch('job', job), addPatch('place', place)]);
    return job;
  }

  async file(jobId: string): Promise<JobFile> {
    const doc = await this.open(jobId);
    const filmIds = new Set([...doc.surfaces.map((s) => s.filmId), ...doc.plans.map((p) => p.filmId)]);
    const all = {
      surfaces: await this.records.ofJob('surface', jobId),
      readings: await this.records.ofJob('reading', jobId),
      plans: await this.records.ofJob('plan', jobId),
    };
    return {
      format: 'yellow-pane job',
      formatVersion: 17,
      writtenAt: this.now().toISOString(),
      job: doc.job,
      places: await this.records.ofJob('place', jobId),
      ...all,
      films: doc.films.filter((f) => filmIds.has(f.id)),
      // another bench knows nothing of other jobs: what they took is taken off here
      rolls: doc.rolls
        .filter((r) => filmIds.has(r.filmId))
        .map((r) => ({ ...r, lengthM: Math.max(0, r.lengthM + sumM(doc.stock.entries.filter((e) => e.rollId === r.id && e.jobId !== jobId))) })),
      entries: doc.entries,
      stockEntries: doc.stock.entries.filter((e) => e.jobId === jobId),
      plotRuns: doc.plotRuns,
      layEntries: doc.layEntries,
      stepSets: doc.stepSets.filter((s) => doc.layEntries.some((e) => e.stepSetId === s.id)),
    };
  }

  /** Brings a job file in as one change. A job that is already here (even deleted) comes in as a copy with ids of its own. */
  async import(raw: unknown, who: { personId: string; deviceId: string }): Promise<{ jobId: string; isCopy: boolean }> {
    const format = (raw as { format?: unknown } | null)?.format;
    if (format !== 'yellow-pane job')
      throw new Refusal('bad-input', 'This is not a job file of Yellow Pane: its first field should read “format”: “yellow-pane job”.');
    const parsed = jobFile.safeParse(upgradedJobFile(raw));
    if (!parsed.success)
      throw new Refusal(
        'bad-input',
        'This job file does not read. Nothing was brought in.',
        parsed.error.issues.slice(0, 20).map((i) => ({ path: i.path.join('.'), message: i.message })),
      );
    const isCopy = (await this.records.find('job', parsed.data.job.id)) !== null;
    const file = isCopy ? withNewIds(parsed.data) : parsed.data;
    const firm = await this.firm();
    const knownFilms = await this.records.existing(
      'film',
      file.films.map((f) => f.id),
    );
    const knownRolls = await this.records.existing(
      'roll',
      file.rolls.map((r) => r.id),
    );
    const knownSteps = await this.records.existing(
      'stepSet',
      file.stepSets.map((s) => s.id),
    );
    const job = { ...file.job, firmId: firm.id, name: isCopy ? `${file.job.name} (copy)` : file.job.name };
    const patches = [
      addPatch('job', job),
      ...file.films.filter((f) => !knownFilms.has(f.id)).map((f) => addPatch('film', f)),
      ...file.rolls.filter((r) => !knownRolls.has(r.id)).map((r) => addPatch('roll', r)),
      ...file.places.map((p) => addPatch('place', p)),
      ...file.surfaces.map((s) => addPatch('surface', s)),
      ...file.readings.map((r) => addPatch('reading', r)),
      // what was cut was cut once: the film of a copy is taken already, by the job that it is a copy of
      ...(isCopy ? [] : file.stockEntries.map((e) => addPatch('stockEntry', e))),
      ...file.plans.map((p) => addPatch('plan', p)),
      ...file.entries.map((e) => addPatch('logEntry', e)),
      ...file.plotRuns.map((r) => addPatch('plotRun', r)),
      ...file.stepSets.filter((s) => !knownSteps.has(s.id)).map((s) => addPatch('stepSet', { ...s, firmId: firm.id } as StepSet)),
      ...file.layEntries.map((e) => addPatch('layEntry', this.withoutLostPhoto(e))),
    ];
    await this.inOne(job.id, who, `Bring in ${job.name}`, patches);
    return { jobId: job.id, isCopy };
  }

  /** Photos stay on the bench that took them: elsewhere the line tells that there was one. */
  private withoutLostPhoto(e: LayEntry): LayEntry {
    if (!e.photo || this.hasPhoto(e.photo)) return e;
    return { ...e, photo: null, kind: e.kind === 'photo' ? 'note' : e.kind, text: `${e.text} (its photo stayed on the other bench)`.trim().slice(0, 600) };
  }

  /** One change from the server's own side, on behalf of a person's device. */
  async change(jobId: string, who: { personId: string; deviceId: string }, label: string, patches: Patch[]): Promise<void> {
    return patches.length > PATCHES_IN_A_CHANGE ? this.changeInParts(jobId, who, label, patches) : this.inOne(jobId, who, label, patches);
  }

  /** All of it or nothing: a job that is brought in. In turn, so that no two of one device get the same number. */
  private inOne(jobId: string, who: { personId: string; deviceId: string }, label: string, patches: Patch[]): Promise<void> {
    const next = this.making.then(() => this.make(jobId, who, label, patches));
    this.making = next.catch(() => undefined);
    return next;
  }

  /** As `change`, for one that takes something out of the records for good. */
  erase(jobId: string, who: { personId: string; deviceId: string }, label: string, patches: Patch[], erasings: readonly Erasing[]): Promise<void> {
    const next = this.making.then(() => this.make(jobId, who, label, patches, erasings));
    this.making = next.catch(() => undefined);
    return next;
  }

  private async make(
    jobId: string,
    who: { personId: string; deviceId: string },
    label: string,
    patches: Patch[],
    erasings: readonly Erasing[] | null = null,
  ): Promise<void> {
    const draft: ChangeDraft = {
      id: uuidv7(),
      jobId,
      personId: who.personId,
      deviceId: who.deviceId,
      deviceSeq: (await this.records.lastDeviceSeq(who.deviceId)) + 1,
      baseRevision: await this.records.revision(),
      label: label.slice(0, 120),
      patches,
    };
    await (erasings ? this.changes.erase(draft, erasings) : this.changes.apply(draft, true));
  }

  /** A large import as several changes one after another, so that nobody waits for all of it: each can be undone, the last one first. */
  private async changeInParts(jobId: string, who: { personId: string; deviceId: string }, label: string, patches: Patch[]): Promise<void> {
    const count = Math.ceil(patches.length / PATCHES_IN_A_CHANGE);
    for (let i = 0; i < count; i++)
      await this.inOne(jobId, who, `${label.slice(0, 90)} (part ${i + 1} of ${count})`, patches.slice(i * PATCHES_IN_A_CHANGE, (i + 1) * PATCHES_IN_A_CHANGE));
  }
}

/** The same job under new ids, everywhere in it; films and rolls keep theirs. */
function withNewIds(file: JobFile): JobFile {
  const own = [file.job, ...file.places, ...file.surfaces, ...file.readings, ...file.plans, ...file.entries, ...file.plotRuns, ...file.layEntries].map(
    (r) => r.id,
  );
  const groups = file.surfaces
    .flatMap((s) => [s.kind === 'pane' ? s.grid?.groupId : null, ...s.extraPieces.map((e) => e.id)])
    .filter((x): x is string => Boolean(x));
  const renamed = new Map([...new Set([...own, ...groups])].map((old) => [old, uuidv7()]));
  const text = JSON.stringify(file).replace(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g, (old) => renamed.get(old) ?? old);
  const copy = JSON.parse(text) as JobFile;
  // what was sealed was the job that this is a copy of
  copy.layEntries = copy.layEntries.map(({ acceptance, ...e }) =>
    acceptance ? { ...e, kind: 'note', text: 'Taken over, in the job that this is a copy of.' } : e,
  );
  // a tick names its drop by the ends of its pieces' ids
  const dropNames = new Map(
    file.plans.flatMap((plan, i) =>
      plan.layout.rolls.flatMap((roll, k) =>
        roll.drops.map((drop, n) => [dropKey(roll, drop), dropKey(roll, copy.plans[i]!.layout.rolls[k]!.drops[n]!)] as const),
      ),
    ),
  );
  const stepKeyOf = (key: string) => {
    const end = key.lastIndexOf('/');
    return `${dropNames.get(key.slice(0, end)) ?? key.slice(0, end)}${key.slice(end)}`;
  };
  return { ...copy, entries: copy.entries.map((e) => (e.stepKey === null ? e : { ...e, stepKey: stepKeyOf(e.stepKey) })) };
}

/** Lengths booked, m. */
const sumM = (entries: readonly { lengthMm: number }[]): number => entries.reduce((t, e) => t + e.lengthMm, 0) / 1000;
