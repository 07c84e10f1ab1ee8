import { signal } from '@angular/core';
import { emptyStock } from '@yellow-pane/contracts';
import type { Answer, BenchDocument, Change, ChangeAnswer, JobDocument, Patch, Sent, WeatherDay } from '@yellow-pane/contracts';
import { demoFirm, demoPersons, ternPoint } from '../../../../demo/src/index';
import { ApiProblem } from './api';
import { applyPatches } from './updaters';

/** The demo job as the server opens it. */
export function ternPointDocument(): JobDocument {
  return { revision: 1, firm: demoFirm, persons: demoPersons, ...ternPoint(), stock: emptyStock, canUndo: null, canRedo: null };
}

/** Stands in for the server: keeps the document, answers in order, can be unreachable or refuse. */
export class FakeApi {
  doc = ternPointDocument();
  readonly drafts: Sent<'change'>['body'][] = [];
  readonly undone: Sent<'undo'>['body'][] = [];
  /** How many calls go unanswered before the bench is there again. */
  unanswered = 0;
  refuseNext: ApiProblem | null = null;
  readonly isPutOut = signal(false);
  private lastInverse: Patch[] = [];
  readonly history: Change[] = [];
  private answering = '';
  changesSince = async ({ query: { after } }: Sent<'changesSince'>): Promise<Answer<'changesSince'>> => ({
    changes: this.history.filter((c) => c.revision > Number(after)),
    revision: this.doc.revision,
    isTooMuch: false,
  });
  /** Somebody else changes the same job on the bench. */
  elsewhere(patches: Patch[]): Change {
    this.doc = applyPatches(this.doc, patches);
    this.answering = `elsewhere ${this.doc.revision}`;
    return this.answer(patches, 'elsewhere').change;
  }

  session = async (): Promise<Answer<'session'>> => ({
    firm: this.doc.firm,
    persons: this.doc.persons,
    lastDeviceSeq: this.drafts.length + this.undone.length,
    at: new Date().toISOString(),
    apiVersion: 1,
    admitted: null,
  });
  /** Nobody has asked it about the weather. */
  weather: (sent: Sent<'weather'>) => Promise<WeatherDay> = async () => {
    throw new ApiProblem('no-place', 'Nobody has said where on earth the site is.');
  };
  job = async () => JSON.parse(JSON.stringify(this.doc)) as JobDocument;
  bench = async (): Promise<BenchDocument> => ({
    revision: this.doc.revision,
    firm: this.doc.firm,
    persons: this.doc.persons,
    films: this.doc.films,
    rolls: this.doc.rolls,
    stock: this.doc.stock,
    rates: [],
    quotes: [],
    stepSets: [],
    panesWithFilm: {},
    canUndo: null,
    canRedo: null,
  });

  private gate(): void {
    if (this.unanswered > 0) {
      this.unanswered--;
      throw new ApiProblem('offline', 'The bench does not answer.');
    }
    if (this.refuseNext) {
      const refusal = this.refuseNext;
      this.refuseNext = null;
      throw refusal;
    }
  }
  private answer(patches: Patch[], label: string): ChangeAnswer {
    const change = { id: this.answering, jobId: this.doc.job.id, patches, revision: ++this.doc.revision, label } as unknown as Change;
    this.history.push(change);
    return { change, canUndo: label, canRedo: null };
  }

  change = async ({ body: draft }: Sent<'change'>): Promise<ChangeAnswer> => {
    this.gate();
    this.drafts.push(draft);
    this.answering = draft.id;
    this.lastInverse = draft.patches.flatMap((p): Patch[] => {
      const old = [...this.doc.surfaces, ...this.doc.places].find((r) => r.id === p.id) as Record<string, unknown> | undefined;
      return p.op === 'set' && old ? [{ ...p, value: old[p.field] }] : [];
    });
    this.doc = applyPatches(this.doc, draft.patches);
    return this.answer(draft.patches, draft.label);
  };
  undo = async ({ body: request }: Sent<'undo'>): Promise<ChangeAnswer> => {
    this.gate();
    this.undone.push(request);
    this.answering = request.id;
    this.doc = applyPatches(this.doc, this.lastInverse);
    return this.answer(this.lastInverse, '');
  };
}
