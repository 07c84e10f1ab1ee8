import { v7 as uuidv7 } from 'uuid';
import type { Patch, StockEntry, StockLine } from '@yellow-pane/contracts';
import { freeMm, remainingMm, reservedMm, valueOf } from '@yellow-pane/core';
import type { RecordsRepository } from '../../db/records.repository.js';
import type { Paper } from '../../pdf/page.js';
import { Refusal } from '../../problem.js';
import { currentFilms } from '../films/films.service.js';
import type { JobsService } from '../jobs/jobs.service.js';
import { stockFromCsv, stockToCsv } from './stock-csv.js';
import { stockLabelsPdf } from './stock-labels.js';

/** Rolls and leftovers: what is there, in and out as CSV, labels. */
export class StockService {
  constructor(
    private readonly jobs: JobsService,
    private readonly records: Pick<RecordsRepository, 'all'>,
    private readonly now: () => Date,
  ) {}

  async lines(): Promise<StockLine[]> {
    const stock = await this.jobs.stock();
    const rolls = (await this.records.all('roll')).filter((r) => r.deletedAt === null);
    return rolls.map((roll) => {
      const left = remainingMm(roll, stock.entries);
      return { roll, remainingMm: left, reservedMm: reservedMm(roll.id, stock.reservations), freeMm: freeMm(roll, stock), value: valueOf(roll, left) };
    });
  }

  async csv(): Promise<{ name: string; bytes: string }> {
    return { name: 'stock.csv', bytes: stockToCsv(await this.lines(), await this.records.all('film')) };
  }

  /** Labels of the rolls asked for, or of all. */
  async labels(ids: string | undefined, paper: Paper): Promise<{ name: string; bytes: Buffer }> {
    const wanted = ids ? new Set(ids.split(',')) : null;
    const lines = (await this.lines()).filter(({ roll }) => !wanted || wanted.has(roll.id));
    if (lines.length === 0) throw new Refusal('not-found', 'None of these rolls is here.');
    return { name: 'labels.pdf', bytes: await stockLabelsPdf(lines, await this.records.all('film'), await this.jobs.firm(), paper) };
  }

  /**
   * Rolls and leftovers from CSV, nothing unless every row reads.
   * @param same what a label that is already here means: ask first, leave what is here, or take the file as a count of it
   */
  async bringIn(
    csv: string,
    same: 'ask' | 'skip' | 'count',
    who: { personId: string; deviceId: string },
  ): Promise<{ added: number; counted: number; skipped: number }> {
    const { rolls, faults } = stockFromCsv(csv, currentFilms(await this.records.all('film')), uuidv7);
    if (faults.length)
      throw new Refusal(
        'bad-input',
        `${faults.length} ${faults.length === 1 ? 'thing does' : 'things do'} not read. Nothing was brought in.`,
        faults.slice(0, 50),
      );
    if (rolls.length === 0) throw new Refusal('bad-input', 'There is no roll in this file.');
    const here = new Map((await this.lines()).map((l) => [l.roll.label, l]));
    const known = rolls.filter((r) => here.has(r.label));
    if (known.length && same === 'ask')
      throw new Refusal('rolls-known', `${known.length} of ${rolls.length} labels are already here.`, known.map((r) => ({ path: r.label, message: 'Leave what is here, or take the file as a count of it.' }))); // prettier-ignore
    const fresh = rolls.filter((r) => !here.has(r.label));
    const at = this.now().toISOString();
    const counts = (same === 'count' ? known : []).flatMap((r): StockEntry[] => {
      const line = here.get(r.label)!;
      const lengthMm = r.lengthM * 1000 - line.remainingMm;
      if (Math.abs(lengthMm) < 0.5) return [];
      return [{ id: uuidv7(), rollId: line.roll.id, kind: 'count', lengthMm, jobId: null, planId: null, personId: who.personId, at, reason: 'Counted from a file', deletedAt: null }]; // prettier-ignore
    });
    const patches: Patch[] = [
      ...fresh.map((r): Patch => ({ op: 'add', kind: 'roll', id: r.id, value: r })),
      ...counts.map((e): Patch => ({ op: 'add', kind: 'stockEntry', id: e.id, value: e })),
    ];
    const firm = await this.jobs.firm();
    if (patches.length) await this.jobs.change(firm.id, who, `Bring in ${fresh.length} rolls, count ${counts.length}`, patches);
    return { added: fresh.length, counted: counts.length, skipped: rolls.length - fresh.length - counts.length };
  }
}
