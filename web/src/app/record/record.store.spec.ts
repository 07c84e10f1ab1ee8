import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { TestBed } from '@angular/core/testing';
import { Api, ApiProblem } from './api';
import { BenchStore } from './bench.store';
import { FakeApi } from './fake-api.testing';
import { LocalStore } from './local-store';
import { RecordStore } from './record.store';

// jsdom lacks it; what is kept here is plain JSON
globalThis.structuredClone = ((v: unknown) => (v === undefined ? v : JSON.parse(JSON.stringify(v)))) as typeof structuredClone;

const until = async (holds: () => boolean | Promise<boolean>) => {
  for (let i = 0; i < 600 && !(await holds()); i++) await new Promise((r) => setTimeout(r, 10));
  expect(await holds()).toBe(true);
};

let api: FakeApi;
beforeEach(() => {
  localStorage.clear();
  sessionStorage.clear();
  globalThis.indexedDB = new IDBFactory();
  api = new FakeApi();
  TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
});
const opened = async () => {
  const record = TestBed.inject(RecordStore);
  await record.open(api.doc.job.id);
  return record;
};
const pane = (name: string) => api.doc.surfaces.find((s) => s.name === name)!;

describe('the open job', () => {
  test('opens on its first pane, and the next time on the pane one was at', async () => {
    const record = await opened();
    expect(record.surface()!.name).toBe('T1');
    record.select(pane('O3').id);
    TestBed.resetTestingModule().configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
    expect((await opened()).surface()!.name).toBe('O3');
  });

  test('an edit is seen at once and counted one by one', async () => {
    const record = await opened();
    const first = record.set('Note', 'surface', pane('T1').id, { note: 'chipped' });
    expect(record.surface()!.note).toBe('chipped');
    expect(record.save()).toBe('saving');
    const second = record.set('Note', 'surface', pane('T1').id, { note: 'chipped, signed' });
    await first;
    // it is not saved while the other one is still on its way
    expect(record.save()).toBe('saving');
    await second;
    expect(record.save()).toBe('saved');
    expect(api.drafts.map((d) => d.deviceSeq)).toEqual([1, 2]);
    expect(api.drafts[1]!.baseRevision).toBe(2);
  });

  test('while the bench does not answer the edit is kept and sent again, the same one', async () => {
    const record = await opened();
    api.unanswered = 1;
    const done = record.set('Note', 'surface', pane('T1').id, { note: 'wet' });
    await new Promise((r) => setTimeout(r, 50));
    expect(record.save()).toBe('waiting');
    expect(record.surface()!.note).toBe('wet');
    await done;
    expect(record.save()).toBe('saved');
    expect(api.drafts).toHaveLength(1);
  });

  test('only what this browser has in its store is said to be kept: where it keeps nothing, the page says to stay', async () => {
    const record = await opened();
    TestBed.inject(LocalStore).keepEdit = async () => Promise.reject(new Error('no room'));
    api.unanswered = 1;
    const done = record.set('Note', 'surface', pane('T1').id, { note: 'wet' });
    await new Promise((r) => setTimeout(r, 50));
    expect(record.save()).toBe('unsafe');
    await done;
    expect(record.save()).toBe('saved');
  });

  test('out of reach and then reloaded: the tape is still there, is shown, and is delivered once when the bench is back', async () => {
    const record = await opened();
    await until(async () => (await TestBed.inject(LocalStore).job(api.doc.job.id)) !== undefined);
    api.unanswered = 1e9;
    void record.set('Note', 'surface', pane('T1').id, { note: 'typed in a dead spot' });
    await until(() => record.save() === 'waiting');
    expect(await TestBed.inject(LocalStore).edits()).toHaveLength(1);
    // the page is loaded anew, still out of reach: the job as it was kept here, with what was typed
    TestBed.resetTestingModule().configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
    api.job = async () => { throw new ApiProblem('offline', 'The bench does not answer.'); }; // prettier-ignore
    const again = await opened();
    expect(again.keptFrom()).not.toBeNull();
    expect(again.surface()!.note).toBe('typed in a dead spot');
    api.unanswered = 0;
    await until(() => api.drafts.length === 1);
    await until(async () => (await TestBed.inject(LocalStore).edits()).length === 0);
    expect(api.drafts[0]!.patches[0]).toMatchObject({ field: 'note', value: 'typed in a dead spot' });
    expect(again.surface()!.note).toBe('typed in a dead spot');
  });

  test('what somebody else does comes in without one’s own being lost, and an answer that overtakes it waits for its turn', async () => {
    const record = await opened();
    const theirs = api.elsewhere([{ op: 'set', kind: 'surface', id: pane('O1').id, field: 'note', value: 'theirs' }]);
    // its event is late: the own edit is numbered after it
    await record.set('Note', 'surface', pane('T1').id, { note: 'mine' });
    await until(() => record.doc()!.surfaces.find((s) => s.name === 'O1')!.note === 'theirs');
    record.receive(theirs);
    expect(record.surface()!.note).toBe('mine');
    expect(record.doc()!.revision).toBe(api.doc.revision);
  });

  test('what the bench refuses goes back to what it was, with its sentence', async () => {
    const record = await opened();
    api.refuseNext = new ApiProblem('conflict', 'In the meantime someone changed the same thing.');
    await record.set('Note', 'surface', pane('T1').id, { note: 'mine' });
    expect(record.refusal()).toContain('In the meantime');
    expect(record.surface()!.note).toBe('');
    await record.set('Note', 'surface', pane('T1').id, { note: 'again' });
    expect(api.drafts.map((d) => d.deviceSeq)).toEqual([1]);
  });

  test('undo sets the field back; where somebody else touched it, it asks first', async () => {
    const record = await opened();
    await record.set('Note', 'surface', pane('T1').id, { note: 'chipped' });
    expect(record.canUndo()).toBe('Note');
    api.refuseNext = new ApiProblem('undo-conflict', 'Okan has since changed it. Undo all the same?');
    const asked = record.reverse('undo', false);
    expect(record.save()).toBe('saving');
    await asked;
    expect(record.save()).toBe('saved');
    expect(record.ask()).toEqual({ way: 'undo', text: 'Okan has since changed it. Undo all the same?' });
    await record.reverse('undo', true);
    expect(record.ask()).toBeNull();
    expect(api.undone.at(-1)!.force).toBe(true);
    expect(record.surface()!.note).toBe('');
  });

  test('a job that is not there says so instead of an empty page', async () => {
    api.job = async () => {
      throw new ApiProblem('job-not-found', 'There is no such job on this bench.');
    };
    const record = await opened();
    expect(record.failed()).toBe('There is no such job on this bench.');
    expect(record.doc()).toBeNull();
  });

  test('the walk stops at both ends', async () => {
    const record = await opened();
    record.step(-1);
    expect(record.surface()!.name).toBe('T1');
    for (let i = 0; i < 80; i++) record.step(1);
    expect(record.surface()!.name).toBe('Trefoil');
  });
});

describe('what belongs to the firm', () => {
  test('changes under the firm’s id, in the same count as the job’s edits', async () => {
    const record = await opened();
    const bench = TestBed.inject(BenchStore);
    await bench.load();
    const firm = bench.doc()!.firm;
    await Promise.all([
      record.set('Note', 'surface', pane('T1').id, { note: 'x' }),
      bench.change('Hour rate', [{ op: 'set', kind: 'firm', id: firm.id, field: 'hourRate', value: '52.00' }]),
    ]);
    expect(bench.doc()!.firm.hourRate).toBe('52.00');
    expect(api.drafts.map((d) => [d.jobId === firm.id, d.deviceSeq])).toEqual([
      [false, 1],
      [true, 2],
    ]);
  });

  test('a refusal is shown and the old value stands', async () => {
    const bench = TestBed.inject(BenchStore);
    await bench.load();
    api.refuseNext = new ApiProblem('bad-input', 'Something in what was sent does not read.');
    const firm = bench.doc()!.firm;
    expect(await bench.change('Name', [{ op: 'set', kind: 'firm', id: firm.id, field: 'name', value: 'X' }])).toBe(false);
    expect(bench.refusal()).toContain('does not read');
    expect(bench.doc()!.firm.name).toBe(api.doc.firm.name);
  });
});
