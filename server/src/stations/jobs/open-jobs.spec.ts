import { v7 as uuidv7 } from 'uuid';
import type { JobDocument, JobPage, Patch, Roll } from '@yellow-pane/contracts';
import { sql } from 'drizzle-orm';
import request from 'supertest';
import { demoId } from '@yellow-pane/demo';
import type { App } from '../../app.js';
import { appOn, draftPlan, ines, lanternStreetId, okan, openBench, ternPointId, TestDevice, type TestDatabase } from '../../bench.testing.js';
import { OpenJobs } from './open-jobs.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => {
  ({ app, open } = await openBench());
});
afterAll(() => open.close());

const list = async (query = ''): Promise<JobPage> => (await request(app.http).get(`/api/jobs${query}`).set('Host', 'localhost')).body as JobPage;
const set = (kind: Patch['kind'], id: string, field: string, value: unknown): Patch => ({ op: 'set', kind, id, field, value });
const add = (kind: Patch['kind'], value: { readonly id: string; readonly [field: string]: unknown }): Patch => ({ op: 'add', kind, id: value.id, value });

describe('an open job is kept and brought along by every change', () => {
  /** By a second bench on the same record, that has kept nothing: what the database says. */
  const fresh = (jobId: string): Promise<JobDocument> => appOn(open.db).jobs.open(jobId);
  const device = new TestDevice(okan);
  const other = new TestDevice(ines);
  const write = async (jobId: string, label: string, patches: Patch[], by = device) => {
    const { revision } = await app.jobs.open(jobId);
    await app.changes.apply(by.draft(jobId, label, patches, revision));
  };
  const asJson = async (jobId: string): Promise<unknown> => (await request(app.http).get(`/api/jobs/${jobId}`).set('Host', 'localhost')).body;
  const isSame = async () => {
    for (const jobId of [ternPointId, lanternStreetId]) {
      const there = await fresh(jobId);
      expect(await app.jobs.open(jobId)).toEqual(there);
      expect(await asJson(jobId)).toEqual(JSON.parse(JSON.stringify(there)));
    }
  };

  test('whatever is changed, by whom and in which job: it is what the database has, in the same order', async () => {
    await isSame();
    const doc = await app.jobs.open(lanternStreetId);
    const [pane, place] = [doc.surfaces[0]!, doc.places[0]!];
    const roll = doc.rolls[0]!;
    const steps: [string, string, Patch[]][] = [
      ['a note', lanternStreetId, [set('surface', pane.id, 'note', 'tight')]],
      ['a pane and its tape', lanternStreetId, [add('surface', { ...pane, id: uuidv7(), name: 'New', order: pane.order, grid: null }), add('place', { ...place, id: uuidv7(), name: 'Yard', order: 0 })]], // prettier-ignore
      ['walking order', lanternStreetId, [set('surface', pane.id, 'order', 99), set('place', place.id, 'order', 7)]],
      ['a pane with an id before all others', lanternStreetId, [add('surface', { ...pane, id: demoId(1), name: 'Old id', grid: null })]],
      ['a pane deleted', lanternStreetId, [set('surface', demoId(1), 'deletedAt', '2026-11-29T10:00:00Z')]],
      ['and brought back', lanternStreetId, [set('surface', demoId(1), 'deletedAt', null)]],
      ['a roll, seen by all jobs', ternPointId, [add('roll', { ...roll, id: uuidv7(), label: 'F-999', fromRollId: null, fromPlanId: null, fromDrop: null } as Roll)]], // prettier-ignore
      ['film promised to a job', lanternStreetId, [add('reservation', { id: uuidv7(), jobId: lanternStreetId, rollId: roll.id, filmId: roll.filmId, lengthMm: 1000, personId: okan, at: '2026-11-29T10:00:00Z', deletedAt: null })]], // prettier-ignore
      ['the job has another name', lanternStreetId, [set('job', lanternStreetId, 'name', 'Lantern Street 2')]],
      ['its address', lanternStreetId, [set('job', lanternStreetId, 'address', 'At the quay')]],
      ['a plan', lanternStreetId, [add('plan', draftPlan(await app.jobs.open(lanternStreetId), doc.surfaces.find((s) => s.filmId)!.filmId!, 5))]],
    ];
    for (const [label, jobId, patches] of steps) {
      await write(jobId, label, patches);
      await isSame();
    }
  });
  test('a change out of its turn, as one that came back from the journal, is not followed: the job is read anew', async () => {
    const doc = await app.jobs.open(lanternStreetId);
    const change = (await app.records.allChanges()).at(-1)!;
    const kept = new OpenJobs();
    kept.keep(doc);
    expect(kept.get(lanternStreetId)).toBe(doc);
    kept.hear({ ...change, revision: doc.revision });
    expect(kept.get(lanternStreetId)).toBeUndefined();
    // and one that was read while something was written is not kept
    kept.hear({ ...change, revision: doc.revision + 1 });
    kept.keep(doc);
    expect(kept.get(lanternStreetId)).toBeUndefined();
  });
  test('undo and redo bring it along as well, also what another device did meanwhile', async () => {
    const pane = (await app.jobs.open(lanternStreetId)).surfaces.find((s) => s.deletedAt === null)!;
    await write(lanternStreetId, 'Sill', [set('surface', pane.id, 'note', 'wet sill')], other);
    await write(lanternStreetId, 'Gone', [set('surface', pane.id, 'deletedAt', '2026-11-29T11:00:00Z')], other);
    await app.changes.undo(lanternStreetId, other.undo());
    await isSame();
    await app.changes.redo(lanternStreetId, other.undo());
    await isSame();
    expect((await app.jobs.open(lanternStreetId)).surfaces.some((s) => s.id === pane.id)).toBe(false);
  });
  test('firm and people: what all jobs show of them', async () => {
    const { firm } = await app.jobs.open(ternPointId);
    await app.changes.apply(device.draft(firm.id, 'Rate', [set('firm', firm.id, 'hourRate', '51.00')], await app.records.revision()));
    expect((await app.jobs.open(ternPointId)).firm.hourRate).toBe('51.00');
    await isSame();
  });
  test('a job that was deleted does not open any more, from nowhere', async () => {
    await write(lanternStreetId, 'Delete', [set('job', lanternStreetId, 'deletedAt', '2026-11-29T12:00:00Z')]);
    await expect(app.jobs.open(lanternStreetId)).rejects.toMatchObject({ code: 'job-not-found' });
    await app.changes.undo(lanternStreetId, device.undo());
    expect((await app.jobs.open(lanternStreetId)).job.name).toBe('Lantern Street 2');
  });
});

describe('the list of jobs', () => {
  const start = async (name: string, dueOn: string | null, customer = '', address = ''): Promise<string> => {
    const device = new TestDevice(ines);
    const job = await app.jobs.create({ name, customer, units: 'mm', personId: ines, deviceId: device.id });
    device.draft(job.id, 'Start', [], 0);
    await app.changes.apply(
      device.draft(job.id, 'Day', [set('job', job.id, 'dueOn', dueOn), set('job', job.id, 'address', address)], await app.records.revision()),
    );
    return job.id;
  };
  const day = (n: number): string => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
  const namesOf = (p: JobPage) => p.jobs.map((j) => j.name);

  test('first what is to be done, by its day; then what has none, the newest first; then earlier ones, the last first', async () => {
    await start('Zebra', day(3));
    await start('apple', day(3));
    await start('Late by a week', day(-7));
    await start('No day, older', null);
    await start('No day, newer', null);
    await start('Last year', day(-365));
    await start('Last month', day(-30));
    const all = namesOf(await list());
    const own = ['Late by a week', 'apple', 'Zebra', 'No day, newer', 'No day, older', 'Last month', 'Last year'];
    expect(all.filter((n) => own.includes(n))).toEqual(own);
  });
  test('page by page it is the same list, each job once', async () => {
    const all = await list();
    const parts = [];
    for (let offset = 0; offset < all.total; offset += 3) parts.push(...(await list(`?offset=${offset}&limit=3`)).jobs);
    expect(parts).toEqual(all.jobs);
    expect(await list(`?offset=900`)).toEqual({ jobs: [], total: all.total });
    expect((await request(app.http).get('/api/jobs?limit=9999').set('Host', 'localhost')).status).toBe(400);
  });
  test('it is found by words of its name, customer or street, in any case; signs of the database’s own stand for themselves', async () => {
    await start('Corner house', day(1), 'Ms 100% Wool', 'Quay 5_b');
    expect(namesOf(await list('?search=corner'))).toEqual(['Corner house']);
    expect(namesOf(await list('?search=QUAY%20wool'))).toEqual(['Corner house']);
    expect(namesOf(await list('?search=quay%20cotton'))).toEqual([]);
    expect(namesOf(await list('?search=0%25%20w'))).toEqual(['Corner house']);
    expect(namesOf(await list('?search=5_b'))).toEqual(['Corner house']);
    expect(namesOf(await list('?search=5%25b'))).toEqual([]);
  });
  test('how far a job has come is counted when it changed, and else taken from what was counted', async () => {
    const countOf = async () => (await list('?search=Tern')).jobs[0]!;
    const before = await countOf();
    const { jobs } = app as unknown as { jobs: { count: (id: string) => Promise<unknown> } };
    const [counted, really] = [[] as string[], jobs.count.bind(jobs)];
    jobs.count = (id) => (counted.push(id), really(id));
    expect(await countOf()).toEqual(before);
    expect(counted).toEqual([]);
    const doc = await app.jobs.open(ternPointId);
    const tapes = doc.readings.filter((r) => r.surfaceId === doc.surfaces[0]!.id);
    const device = new TestDevice(ines);
    await app.changes.apply(device.draft(ternPointId, 'Not these', tapes.map((r) => set('reading', r.id, 'withdrawnAt', '2026-11-29T09:00:00Z')), doc.revision)); // prettier-ignore
    expect((await countOf()).measuredCount).toBeLessThan(before.measuredCount);
    expect(counted).toEqual([ternPointId]);
  });
  test('a roll that is narrower than it was makes the counts of the jobs that are cut from it doubtful, and of no others', async () => {
    const lantern = await app.jobs.open(lanternStreetId);
    const { filmId } = lantern.plans[0]!;
    const countedAt = async (jobId: string) => Number(((await open.db.execute(sql`select counted_at from job_count where job_id = ${jobId}`)).rows[0] as { counted_at: string }).counted_at); // prettier-ignore
    await list();
    const before = [await countedAt(lanternStreetId), await countedAt(ternPointId)];
    expect(Math.min(...before)).toBeGreaterThan(0);
    const device = new TestDevice(ines);
    const roll = lantern.rolls.find((r) => r.filmId === filmId)!;
    const change = (patches: Patch[]) => app.changes.apply(device.draft(lantern.firm.id, 'Roll', patches, 1e9));
    await change([add('roll', { ...roll, id: uuidv7(), label: 'F-998', fromRollId: null, fromPlanId: null, fromDrop: null })]);
    expect([await countedAt(lanternStreetId), await countedAt(ternPointId)]).toEqual(before);
    await change([set('roll', roll.id, 'label', 'F-997')]);
    expect(await countedAt(lanternStreetId)).toBe(before[0]);
    await change([set('roll', roll.id, 'widthMm', 1220)]);
    expect(await countedAt(lanternStreetId)).toBe(0);
    // no plan of that job is on this film
    expect((await app.jobs.open(ternPointId)).plans.some((p) => p.filmId === filmId)).toBe(false);
    expect(await countedAt(ternPointId)).toBe(before[1]);
    await list();
    expect(await countedAt(lanternStreetId)).toBeGreaterThan(before[0]!);
    await change([set('firm', lantern.firm.id, 'allowances', { ...lantern.firm.allowances, overhangMm: 30 })]);
    expect(await countedAt(lanternStreetId)).toBe(0);
  });
});
