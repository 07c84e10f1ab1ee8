import { TestBed } from '@angular/core/testing';
import type { WorkedOut } from '@yellow-pane/core';
import { LayoutSearch, type PlainPlanRecords } from '../compute/layout-search';
import { LayoutSearchInPlace } from '../compute/layout-search.testing';
import { Api } from './api';
import { FakeApi } from './fake-api.testing';
import { JobProgress } from './progress';
import { RecordStore } from './record.store';
import { WorkedOutJob } from './worked-out';

/** Answers when it is told to. */
class SlowSearch extends LayoutSearchInPlace {
  readonly asked: { readonly readings: number; readonly answer: () => void }[] = [];
  override workOut = (records: PlainPlanRecords): Promise<WorkedOut> =>
    new Promise((resolve) => this.asked.push({ readings: records.readings.length, answer: () => resolve({ inputs: new Map([[String(records.readings.length), null!]]), short: [] }) })); // prettier-ignore
}
let api: FakeApi;
let search: SlowSearch;
const record = () => TestBed.inject(RecordStore);
const worked = () => TestBed.inject(WorkedOutJob);
const known = () => [...worked().inputs().keys()];
const tape = (id: string) => {
  const reading = record().doc()!.readings[0]!;
  void record().change('tape', [{ op: 'add', kind: 'reading', id, value: { ...reading, id, supersedesId: null } }]);
};
const rest = (ms = 0) => new Promise((r) => setTimeout(r, ms));

beforeEach(async () => {
  localStorage.clear();
  sessionStorage.clear();
  api = new FakeApi();
  search = new SlowSearch();
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: LayoutSearch, useValue: search },
    ],
  });
  await record().open(api.doc.job.id);
});
const clock = performance.now;
afterEach(() => void (performance.now = clock));

describe('what is worked out beside the page', () => {
  test('is asked for at once when a job is opened, and once more when typing rests, not at every tape', async () => {
    worked();
    TestBed.tick();
    await rest(20);
    expect(search.asked).toHaveLength(1);
    for (const id of ['a', 'b', 'c']) {
      tape(id);
      TestBed.tick();
    }
    await rest(400);
    expect(search.asked.map((a) => a.readings - api.doc.readings.length + 3)).toEqual([0, 3]);
  });

  test('whoever needs it of this moment waits for the tape that was typed last, and does not ask twice', async () => {
    worked();
    tape('a');
    const n = record().doc()!.readings.length;
    let isThere = false;
    const waits = Promise.all([worked().fresh(), worked().fresh()]).then(() => (isThere = true));
    expect(search.asked).toHaveLength(1);
    tape('b');
    search.asked[0]!.answer();
    await waits;
    expect(isThere).toBe(true);
    expect(known()).toEqual([String(n)]);
    expect(worked().of()).not.toBe(record().records());
    // the later tape is asked for by itself, when the bench has numbered it
    await rest(50);
    void worked().fresh();
    search.asked.at(-1)!.answer();
    await rest();
    expect(known()).toEqual([String(n + 1)]);
    expect(worked().of()).toBe(record().records());
    const asked = search.asked.length;
    await worked().fresh();
    expect(search.asked).toHaveLength(asked);
  });

  test('shown in the other units it is told anew: its words have sizes in them', async () => {
    worked();
    void worked().fresh();
    search.asked[0]!.answer();
    await rest();
    record().toggleUnits();
    void worked().fresh();
    expect(search.asked).toHaveLength(2);
  });
});

describe('how far the panes of a tower have come', () => {
  test('is worked out in slices; until all are surveyed what was known before stands', async () => {
    const progress = TestBed.inject(JobProgress);
    let now = 0;
    // every look at the clock finds 12 ms gone: three panes to a slice
    performance.now = () => (now += 12);
    expect(progress.bySurface().size).toBe(0);
    expect(progress.isKnown()).toBe(false);
    let slices = 0;
    for (; !progress.isKnown() && slices < 100; slices++) await rest();
    expect(progress.isKnown()).toBe(true);
    expect(slices).toBeGreaterThan(10);
    const all = progress.bySurface();
    expect([...all.keys()]).toEqual(
      record()
        .doc()!
        .surfaces.map((s) => s.id),
    );
    expect(progress.measuredCount()).toBe([...all.values()].filter((p) => p.survey.status !== 'nothing' && p.survey.status !== 'impossible').length);
    expect(progress.measuredCount()).toBeGreaterThan(50);
    tape('a');
    const before = progress.measuredCount();
    expect(progress.isKnown()).toBe(true);
    expect(progress.measuredCount()).toBe(before);
    for (let i = 0; i < 60; i++) await rest();
    expect(progress.bySurface().size).toBe(all.size);
    expect(progress.bySurface()).not.toBe(all);
  });
});
