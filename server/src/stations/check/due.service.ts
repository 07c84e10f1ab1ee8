import type { DueJob } from '@yellow-pane/contracts';
import { allLaid, dateAt } from '@yellow-pane/core';
import { breathe } from '../../breathe.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { JobsService } from '../jobs/jobs.service.js';
import type { CheckService } from './check.service.js';

/** Jobs with laid panes that are looked through, those worked on last first. @source house rule: two months of a busy crew; half a second of work each the first time */
const MOST_JOBS = 40;
const WEEK_DAYS = 7;
const DAY_MS = 86_400_000;

interface Visit {
  readonly surfaceId: string;
  readonly pane: string;
  readonly what: string;
  readonly dueAt: string;
}

/** What is due to be looked at, over all jobs. */
export class DueService {
  /** What is to come in each job, reckoned at its last revision; it moves with the hour only in what of it is due by now. */
  private readonly kept = new Map<string, { readonly last: number; readonly zone: string; readonly job: string; readonly visits: readonly Visit[] }>();

  constructor(
    private readonly jobs: JobsService,
    private readonly check: CheckService,
    private readonly records: RecordsRepository,
    private readonly now: () => Date,
  ) {}

  private running: Promise<DueJob[]> | null = null;

  /** Asked by several at once, it is reckoned once. */
  list(): Promise<DueJob[]> {
    return (this.running ??= this.reckon().finally(() => (this.running = null)));
  }

  private async reckon(): Promise<DueJob[]> {
    const at = this.now().getTime();
    const out: DueJob[] = [];
    for (const { jobId, last } of await this.records.jobsWithLine('pane-done', MOST_JOBS)) {
      const known = this.kept.get(jobId);
      const it = known?.last === last ? known : { last, ...(await this.visitsOf(jobId)) };
      this.kept.set(jobId, it);
      const due = it.visits.filter((v) => Date.parse(v.dueAt) <= at);
      const soon = it.visits.filter((v) => Date.parse(v.dueAt) > at && Date.parse(v.dueAt) <= at + WEEK_DAYS * DAY_MS);
      if (due.length + soon.length === 0) continue;
      const told = ({ surfaceId, pane, what }: Visit) => ({ surfaceId, pane, what });
      out.push({ jobId, job: it.job, now: due.map(told), week: soon.map((v) => ({ ...told(v), on: dateAt(Date.parse(v.dueAt), it.zone) })) });
    }
    return out.sort((a, b) => b.now.length - a.now.length || a.job.localeCompare(b.job));
  }

  private async visitsOf(jobId: string): Promise<{ zone: string; job: string; visits: Visit[] }> {
    await breathe();
    const doc = await this.jobs.openWithMemo(jobId);
    const days = new Map((await this.check.drying(jobId)).map((d) => [d.surfaceId, d]));
    const now = this.now().toISOString();
    const laid = allLaid(doc, (id) => days.get(id) ?? null, now);
    return {
      zone: doc.job.zone,
      job: doc.job.name,
      visits: laid.flatMap((p) => p.due.map((d) => ({ surfaceId: p.surface.id, pane: p.surface.name, what: d.title, dueAt: d.dueAt }))),
    };
  }
}
