import { sql, type SQL } from 'drizzle-orm';
import { STILL_DUE_DAYS, type Change, type JobSummary } from '@yellow-pane/contracts';
import type { Database } from './database.js';
import { jobCounts } from './tables.js';

const DAY_MS = 86_400_000;

/** How far a job has come. */
export interface JobCount {
  readonly surfaceCount: number;
  readonly measuredCount: number;
  readonly cutCount: number;
}
/** One job of the list; without a count where its job has changed since it was counted. */
export type ListedJob = Omit<JobSummary, keyof JobCount> & { readonly count: JobCount | null };

interface Row {
  readonly id: string;
  readonly name: string;
  readonly customer: string;
  readonly due_on: string | null;
  readonly units: JobSummary['units'];
  readonly created_at: string;
  readonly total: number;
  readonly last: string | number | null;
  readonly last_at: string | null;
  readonly counted_at: string | number | null;
  readonly surface_count: number;
  readonly measured_count: number;
  readonly cut_count: number;
}

/** A word as it is looked for: nothing in it stands for anything but itself. */
const anywhere = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** The list of jobs, paged and searched by the database, and the counts that are kept for it. */
export class JobCountsRepository {
  constructor(private readonly db: Database) {}

  /** @param now whose day it is: what is long past its day comes last */
  async page(
    asked: { readonly search?: string | undefined; readonly offset: number; readonly limit: number },
    now: Date,
  ): Promise<{ jobs: ListedJob[]; total: number }> {
    const still = new Date(now.getTime() - STILL_DUE_DAYS * DAY_MS).toISOString().slice(0, 10);
    const words = (asked.search ?? '').split(/\s+/).filter(Boolean);
    const named = words.map(
      (w): SQL => sql` and (name ilike ${anywhere(w)} or customer ilike ${anywhere(w)} or address ilike ${anywhere(w)}
      or id in (select job_id from lay_entry where lot is not null and lot ilike ${anywhere(w)}))`,
    );
    const where = sql`deleted_at is null${sql.join(named)}`;
    const order = sql`order by case when due_on >= ${still} then 0 when due_on is null then 1 else 2 end,
      case when due_on >= ${still} then due_on end, case when due_on < ${still} then due_on end desc, case when due_on is null then created_at end desc, lower(name), id`;
    const found = await this.db.execute(sql`
      select j.id, j.name, j.customer, j.due_on, j.units, j.created_at, p.total, c.position as last, c.at as last_at,
        k.counted_at, k.surface_count, k.measured_count, k.cut_count
      from (
        select id, count(*) over ()::int as total, row_number() over (${order}) as place
        from job where ${where} ${order} offset ${asked.offset} limit ${asked.limit}
      ) p
      join job j on j.id = p.id
      left join lateral (select position, at from change where job_id = p.id order by position desc limit 1) c on true
      left join job_count k on k.job_id = p.id
      order by p.place`);
    const rows = found.rows as unknown as Row[];
    const total = rows[0]?.total ?? (asked.offset === 0 ? 0 : await this.countOf(where));
    return { jobs: rows.map(toListed), total };
  }

  private async countOf(where: SQL): Promise<number> {
    return ((await this.db.execute(sql`select count(*)::int as n from job where ${where}`)).rows[0] as { n: number }).n;
  }

  /** @param revision of the record that was counted in */
  async keep(jobId: string, revision: number, count: JobCount): Promise<void> {
    await this.db
      .insert(jobCounts)
      .values({ jobId, countedAt: revision, ...count })
      .onConflictDoUpdate({ target: jobCounts.jobId, set: { countedAt: revision, ...count }, setWhere: sql`${jobCounts.countedAt} <= ${revision}` });
  }
}

function toListed(r: Row): ListedJob {
  const holds = r.counted_at !== null && Number(r.counted_at) >= Number(r.last ?? 0);
  return {
    id: r.id,
    name: r.name,
    customer: r.customer,
    dueOn: r.due_on,
    units: r.units,
    updatedAt: new Date(r.last_at ?? r.created_at).toISOString(),
    count: holds ? { surfaceCount: r.surface_count, measuredCount: r.measured_count, cutCount: r.cut_count } : null,
  };
}

/** Fields of a roll that its cuts hang on. */
const OF_CUTS: ReadonlySet<string> = new Set(['widthMm', 'filmId', 'deletedAt']);

/**
 * Counts of other jobs that a change makes doubtful: what a roll is wide, or is gone, decides which of its cuts are done; the firm's allowances whether a piece
 * still covers its pane. A further roll changes neither. In the transaction of the change.
 */
export async function forgetCounts(db: Database, change: Pick<Change, 'patches'>): Promise<void> {
  const rolls = [...new Set(change.patches.flatMap((p) => (p.kind === 'roll' && p.op === 'set' && OF_CUTS.has(p.field) ? [p.id] : [])))];
  if (change.patches.some((p) => p.kind === 'firm' && p.op === 'set'))
    await db.execute(sql`update job_count set counted_at = 0 where job_id in (select job_id from plan)`); // prettier-ignore
  else if (rolls.length) {
    const films = sql`select film_id from roll where id in (${sql.join(rolls.map((id) => sql`${id}::uuid`), sql`, `)})`; // prettier-ignore
    await db.execute(sql`update job_count set counted_at = 0 where job_id in (select job_id from plan where film_id in (${films}))`);
  }
}
