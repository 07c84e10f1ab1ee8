import type { CallBack } from '@yellow-pane/contracts';
import { callBacksOf } from '@yellow-pane/core';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { JobsService } from '../jobs/jobs.service.js';

/** Jobs with calls that are looked through, those changed last first. @source house rule */
const MOST_JOBS = 200;

/** Calls of customers after the work, over all jobs. */
export class CallBacksService {
  /** What each job's calls say, at its last revision. */
  private readonly kept = new Map<string, { readonly last: number; readonly calls: readonly CallBack[] }>();

  constructor(
    private readonly jobs: JobsService,
    private readonly records: RecordsRepository,
  ) {}

  async list(search = ''): Promise<CallBack[]> {
    const all: CallBack[] = [];
    for (const { jobId, last } of await this.records.jobsWithLine('called', MOST_JOBS)) {
      const known = this.kept.get(jobId);
      const now = known?.last === last ? known : { last, calls: callBacksOf(await this.jobs.openWithMemo(jobId)) };
      this.kept.set(jobId, now);
      all.push(...now.calls);
    }
    const words = search.toLowerCase().split(/\s+/).filter(Boolean);
    return all
      .filter((c) => {
        const text = [c.job, c.customer, c.address, c.pane, c.film, c.lot, c.laidBy, c.says, ...c.causes].join(' ').toLowerCase();
        return words.every((w) => text.includes(w));
      })
      .sort((a, b) => b.calledAt.localeCompare(a.calledAt));
  }
}
