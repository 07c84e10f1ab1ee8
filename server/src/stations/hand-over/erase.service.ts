import { v7 as uuidv7 } from 'uuid';
import type { EraseAnswer, EraseRequest, LayEntry, Patch } from '@yellow-pane/contracts';
import { commitmentOf, stepSetOf, type Erasing } from '@yellow-pane/core';
import type { ChangeService } from '../../db/change.service.js';
import type { RecordsRepository } from '../../db/records.repository.js';
import { Refusal } from '../../problem.js';
import type { JobsService } from '../jobs/jobs.service.js';
import type { PhotoStore } from '../lay/photo-store.js';

/** What of a line may be personal, and what stands there once it was erased. */
const ERASED_LINE = { text: '', photo: null, signature: null, salt: null } as const;
const ERASED_JOB = { customer: '', address: '' } as const;
const ERASED_QUOTE = { customer: '', site: '', photo: null } as const;

/** Takes what is personal out of the records for good: who, when and why stays in the log. */
export class EraseService {
  constructor(
    private readonly jobs: JobsService,
    private readonly records: RecordsRepository,
    private readonly changes: ChangeService,
    private readonly photos: PhotoStore,
    private readonly now: () => Date,
    /** Names of the backups that are there. */
    private readonly backups: () => readonly string[],
    /** Takes off the disk what rows were before; null: that is not this bench’s to do. */
    private readonly clearOut: (() => Promise<void>) | null,
  ) {}

  async erase(jobId: string, asked: EraseRequest): Promise<EraseAnswer> {
    const doc = await this.jobs.open(jobId);
    const by: LayEntry = {
      id: uuidv7(), jobId, surfaceId: null, personId: asked.personId, occurredAt: this.now().toISOString(), clockOffsetMs: 0, receivedAt: null,
      stepSetId: stepSetOf(doc.job.firmId, doc.stepSets, doc.layEntries).id, kind: 'erased', stepKey: null, text: asked.why, reading: null, found: null, photo: null, problem: null,
      roll: null, signature: null, correctsId: null, erasure: asked.thing,
    }; // prettier-ignore
    const { patches, erasings, photo } = asked.thing.what === 'line' ? this.ofLine(doc.layEntries, asked.thing.entryId, by) : await this.ofCustomer(doc.job.id);
    const label = asked.thing.what === 'line' ? 'Erase what is personal in a line' : 'Erase the customer’s name and address';
    // first the file: after a crash in between the line still names what is to go, and is erased again
    const photoGone = photo !== null && (await this.records.linesWithPhoto(photo)) <= 1 && this.photos.remove(photo);
    await this.jobs.erase(jobId, asked, label, [{ op: 'add', kind: 'layEntry', id: by.id, value: { ...by } }, ...patches], erasings);
    // it is erased: a disk that does not let itself be cleared is told, and is no failure of it
    const isOffTheDisk = this.clearOut !== null && (await this.clearOut().then(() => true, () => false)); // prettier-ignore
    return { erasedLineCount: asked.thing.what === 'line' ? 1 : 0, photoGone, isOffTheDisk, olderBackups: [...this.backups()] };
  }

  /** Does what a crash left over: called at a start that brought changes back from the journal. */
  async finish(): Promise<void> {
    const all = await this.records.erasedBy();
    for (const { line, revision } of all) {
      const erasings = line.erasure?.what === 'line' ? [erasingOfLine(line.erasure.entryId)] : await this.customerErasings(line.jobId);
      await this.changes.finishErasure(erasings, revision);
    }
    if (all.length) await this.clearOut?.();
  }

  private ofLine(entries: readonly LayEntry[], entryId: string, by: LayEntry): { patches: Patch[]; erasings: Erasing[]; photo: string | null } {
    const line = entries.find((e) => e.id === entryId);
    if (!line) throw new Refusal('not-found', 'There is no such line in the log of this job.');
    if (line.erased) throw new Refusal('not-found', 'This line was erased already.');
    if (line.kind === 'erased')
      throw new Refusal('bad-input', 'Why something was erased stays in the log.', [{ path: 'thing.entryId', message: 'Pick another line.' }]);
    if (!line.text && !line.photo && !line.signature) throw new Refusal('not-found', 'There are no words, no photo and no signature in this line.');
    const set = (field: string, value: unknown): Patch => ({ op: 'set', kind: 'layEntry', id: entryId, field, value });
    // the mark comes first: a photo line without its photo is no line, but for one that is marked
    const mark = set('erased', { at: by.occurredAt, byEntryId: by.id, commitment: commitmentOf(line) });
    const patches = [mark, ...Object.entries(ERASED_LINE).map(([field, value]) => set(field, value))];
    return { patches, erasings: [erasingOfLine(entryId)], photo: line.photo };
  }

  private async ofCustomer(jobId: string): Promise<{ patches: Patch[]; erasings: Erasing[]; photo: null }> {
    const erasings = await this.customerErasings(jobId);
    const patches = erasings.flatMap(({ id, fields }) =>
      Object.entries(fields).map(([field, value]): Patch => ({ op: 'set', kind: id === jobId ? 'job' : 'quote', id, field, value })),
    );
    return { patches, erasings, photo: null };
  }
  private async customerErasings(jobId: string): Promise<Erasing[]> {
    const quotes = await this.records.quotesOfJob(jobId);
    return [{ id: jobId, fields: ERASED_JOB }, ...quotes.map((q) => ({ id: q.id, fields: ERASED_QUOTE }))];
  }
}

const erasingOfLine = (id: string): Erasing => ({ id, fields: ERASED_LINE });
