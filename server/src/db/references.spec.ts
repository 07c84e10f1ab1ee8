import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { newPane, fieldsOf, referencesOf, type JobDocument, type JobFile, type Patch, type Problem, type RecordKind } from '@yellow-pane/contracts';
import { doneSteps, filmPlanInput, finishedPieces, knifeOrder, standingPlan, takeFromStock, Memo } from '@yellow-pane/core';
import { ternPoint, panesIn } from '@yellow-pane/demo';
import type { App } from '../app.js';
import { ines, lanternStreetId, draftPlan, openBench, TestDevice, ternPointId, type TestDatabase } from '../bench.testing.js';
import { findDangling, reportDangling } from './references.js';
import { RecordsRepository } from './records.repository.js';
import { rolls, surfaces } from './tables.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());

const device = new TestDevice(ines);
const at = '2026-12-01T08:00:00Z';
const document = async (jobId: string) => (await request(app.http).get(`/api/jobs/${jobId}`).set('Host', 'localhost')).body as JobDocument;
const send = async (jobId: string, patches: Patch[]) => {
  const { revision } = await document(jobId);
  const answer = await request(app.http).post(`/api/jobs/${jobId}/changes`).set('Host', 'localhost').send(device.draft(jobId, 'x', patches, revision)); // prettier-ignore
  if (!answer.ok) device.takeBack();
  return answer;
};
const nowhere = '01930000-0000-7000-8000-00000000dead';

describe('a record names only what is here', () => {
  test.each([
    ['surface', 'filmId', 'a film'],
    ['surface', 'measuredLikeId', 'a surface'],
    ['surface', 'placeId', 'a room'],
  ] as const)('a %s whose %s is nowhere: refused by the field, and nothing is written', async (kind, field, word) => {
    const before = await document(ternPointId);
    const { id } = panesIn(before)[0]!;
    const answer = await send(ternPointId, [
      { op: 'set', kind, id, field: 'note', value: 'half of a change' },
      { op: 'set', kind, id, field, value: nowhere },
    ]);
    const [fault] = (answer.body as Problem).faults!;
    expect([answer.status, fault]).toEqual([400, { path: `patches[0].${field}`, message: `“${field}” names ${word} that is not here.` }]);
    expect((await document(ternPointId)).surfaces[0]).toEqual(panesIn(before)[0]);
  });

  test.each([
    ['a tape of a pane that is nowhere', (d: JobDocument) => ['reading', { ...tape(d), surfaceId: nowhere }, 'surfaceId']],
    ['a tape by nobody who works here', (d: JobDocument) => ['reading', { ...tape(d), personId: nowhere }, 'personId']],
    ['a tape that supersedes one that never was', (d: JobDocument) => ['reading', { ...tape(d), supersedesId: nowhere, instrument: 'import' }, 'supersedesId']],
    ['a roll of a film that nobody knows', (d: JobDocument) => ['roll', { ...d.rolls[0]!, filmId: nowhere }, 'filmId']],
    ['a tick at a plan that is none', () => ['logEntry', { ...tick(nowhere, 'x'), jobId: ternPointId }, 'planId']],
    ['film taken by a job that is nowhere', (d: JobDocument) => ['stockEntry', { id: '', rollId: d.rolls[0]!.id, kind: 'count', lengthMm: 1, jobId: nowhere, planId: null, personId: ines, at, reason: 'x', deletedAt: null }, 'jobId']], // prettier-ignore
    ['film promised off a roll that is nowhere', (d: JobDocument) => ['reservation', { id: '', rollId: nowhere, jobId: ternPointId, filmId: d.films[0]!.id, lengthMm: 10, personId: ines, at, deletedAt: null }, 'rollId']], // prettier-ignore
  ] as [string, (d: JobDocument) => [RecordKind, Record<string, unknown>, string]][])('%s', async (_, make) => {
    const [kind, record, field] = make(await document(ternPointId));
    const id = uuidv7();
    const answer = await send(ternPointId, [{ op: 'add', kind, id, value: { ...record, id } }]);
    expect([answer.status, (answer.body as Problem).faults?.[0]?.path]).toEqual([400, `patches[0].${field}`]);
    expect(await new RecordsRepository(open.db).find(kind, id)).toBeNull();
  });

  test('nor may it name a pane, a tape or a plan of another job', async () => {
    const [here, there] = [await document(lanternStreetId), await document(ternPointId)];
    for (const [field, value] of [
      ['measuredLikeId', panesIn(there)[0]!.id],
      ['placeId', there.places[0]!.id],
    ] as const)
      // prettier-ignore
      expect(((await send(lanternStreetId, [{ op: 'set', kind: 'surface', id: panesIn(here)[0]!.id, field, value }])).body as Problem).faults![0]!.message).toMatch(/of another job\.$/);
    const id = uuidv7();
    const foreign = { ...tape(here), id, instrument: 'import', supersedesId: there.readings[0]!.id };
    expect(((await send(lanternStreetId, [{ op: 'add', kind: 'reading', id, value: foreign }])).body as Problem).faults![0]).toEqual({ path: 'patches[0].supersedesId', message: '“supersedesId” names a reading of another job.' }); // prettier-ignore
  });

  test('two panes of one change may name each other, in whichever order they come', async () => {
    const { places } = await document(lanternStreetId);
    const [a, b] = [uuidv7(), uuidv7()];
    const pane = (id: string, name: string, measuredLikeId: string | null) =>
      newPane({ id, jobId: lanternStreetId, placeId: places[0]!.id, name, order: 90, measuredLikeId });
    const answer = await send(lanternStreetId, [
      { op: 'add', kind: 'surface', id: a, value: pane(a, 'L1', b) },
      { op: 'add', kind: 'surface', id: b, value: pane(b, 'L2', null) },
    ]);
    expect(answer.status).toBe(200);
  });

  test('every field of every kind that is called an id is either named there or is no record', () => {
    // ids of things that are no records: who sent it, a group of panes, what a version of an imported file knew
    const noRecord = new Set(['id', 'servedById', 'pieceId']);
    const file = ternPoint();
    const samples: Partial<Record<RecordKind, Record<string, unknown>>> = { surface: panesIn(file)[0]!, reading: file.readings[0]!, roll: file.rolls[0]!, film: file.films[0]!, place: file.places[0]! }; // prettier-ignore
    for (const [kind, sample] of Object.entries(samples) as [RecordKind, Record<string, unknown>][]) {
      const fields = Object.keys(fieldsOf(kind, sample)).filter((f) => f.endsWith('Id') && !noRecord.has(f));
      const named = referencesOf(kind, { ...sample, ...Object.fromEntries(fields.map((f) => [f, nowhere])) } as never).map((r) => r.path);
      expect({ kind, missing: fields.filter((f) => !named.includes(f)) }).toEqual({ kind, missing: [] });
    }
  });
});

/** A further tape of the first pane that has one. */
const tape = (d: JobDocument) => {
  const { lengthMm, ...r } = d.readings.find((x) => x.measure === 'widthLargest')!;
  return { ...r, typed: String(Math.round(lengthMm)), unit: 'mm' as const, lengthMm: Math.round(lengthMm), at, supersedesId: null as string | null };
};
const tick = (planId: string, stepKey: string) => ({ id: uuidv7(), jobId: ternPointId, at, personId: ines, kind: 'cut-done' as const, planId, stepKey, surfaceId: null, note: '' }); // prettier-ignore

describe('a reading is what was typed', () => {
  const add = async (more: (r: ReturnType<typeof tape>) => object) => {
    const doc = await document(ternPointId);
    const value = { ...tape(doc), ...more(tape(doc)), id: uuidv7() };
    return send(ternPointId, [{ op: 'add', kind: 'reading', id: value.id, value }]);
  };
  test('902 typed and 920 written: refused with both', async () => {
    const answer = await add(() => ({ typed: '902', lengthMm: 920 }));
    expect([answer.status, (answer.body as Problem).faults![0]]).toEqual([400, { path: 'patches[0].lengthMm', message: '“902” is 902 mm, not 920 mm.' }]);
  });
  test('inches are read as inches, and words as no length', async () => {
    expect((await add(() => ({ typed: '36 1/4', unit: 'in', lengthMm: 920.75 }))).status).toBe(200);
    expect((await add(() => ({ typed: '36 1/4', unit: 'in', lengthMm: 36.25 }))).status).toBe(400);
    const answer = await add(() => ({ typed: 'about a metre', lengthMm: 1000 }));
    expect((answer.body as Problem).faults![0]).toMatchObject({ path: 'patches[0].typed', message: expect.stringContaining('does not read as a length') });
  });
  test('a length written down to a tenth is what was typed; half a millimetre is not', async () => {
    expect((await add(() => ({ typed: '902.3', lengthMm: 902.26 }))).status).toBe(200);
    expect((await add(() => ({ typed: '902.3', lengthMm: 902.2 }))).status).toBe(400);
  });
  test('it supersedes one of its own measure and pane', async () => {
    const doc = await document(ternPointId);
    const other = doc.readings.find((r) => r.measure === 'heightLargest' && r.surfaceId === tape(doc).surfaceId)!;
    const value = { ...tape(doc), id: uuidv7(), instrument: 'import', supersedesId: other.id };
    const answer = await send(ternPointId, [{ op: 'add', kind: 'reading', id: value.id, value }]);
    expect((answer.body as Problem).faults![0]!.message).toBe('A reading supersedes one of the same measure of the same surface.');
  });
});

describe('a job comes in from another bench', () => {
  test('its people and the rolls that its rolls were cut from stayed there; its panes and films did not', async () => {
    const file = (await request(app.http).get(`/api/jobs/${lanternStreetId}/file`).set('Host', 'localhost')).body as JobFile;
    const text = JSON.stringify(file).replaceAll(ines, uuidv7());
    const bring = (raw: unknown) => request(app.http).post(`/api/job-files?personId=${ines}&deviceId=${uuidv7()}`).set('Host', 'localhost').send(raw as object); // prettier-ignore
    const came = await bring(JSON.parse(text));
    expect([came.status, came.body.isCopy]).toEqual([200, true]);
    const bad = { ...file, surfaces: panesIn(file).map((s, i) => (i ? s : { ...s, filmId: nowhere })) };
    const refused = await bring(bad);
    expect([refused.status, (refused.body as Problem).faults![0]!.message]).toEqual([400, '“filmId” names a film that is not here.']);
  });

  test('part cut: plans, ticks, and the log come in as they went out, the film is taken once, and what is not cut can be planned anew', async () => {
    const { id: film } = (await document(ternPointId)).films.find((f) => f.kind === 'security')!;
    let doc = await document(ternPointId);
    const plan = draftPlan(doc, film, 20);
    const ok = async (patches: Patch[]) => expect((await send(ternPointId, patches)).status).toBe(200);
    await ok([{ op: 'add', kind: 'plan', id: plan.id, value: plan }]);
    doc = await document(ternPointId);
    const roll = doc.rolls.find((r) => r.id === plan.layout.rolls.find((x) => x.drops.length > 0)!.rollId)!;
    await ok(takeFromStock(plan, roll.id, doc, { personId: ines, at: new Date().toISOString(), newId: uuidv7 }));
    for (const step of knifeOrder(plan.layout, plan.pieces, () => roll.widthMm, 'mm').slice(0, 3)) {
      const entry = tick(plan.id, step.key);
      await ok([{ op: 'add', kind: 'logEntry', id: entry.id, value: entry }]);
    }
    const file = (await request(app.http).get(`/api/jobs/${ternPointId}/file`).set('Host', 'localhost')).body as JobFile;
    const left = async () => (await document(ternPointId)).stock.entries.filter((e) => e.rollId === roll.id).reduce((s, e) => s + e.lengthMm, 0);
    const before = await left();
    const copy = await request(app.http).post(`/api/job-files?personId=${ines}&deviceId=${uuidv7()}`).set('Host', 'localhost').send(file); // prettier-ignore
    expect([copy.status, copy.body.isCopy]).toEqual([200, true]);
    expect(await left()).toBe(before);
    const there = await document(copy.body.jobId as string);
    const own = there.plans.find((p) => p.filmId === film)!;
    expect(own).toMatchObject({ status: 'committed', takenRollIds: [roll.id] });
    expect(own.layout.usedMm).toBe(plan.layout.usedMm);
    expect(doneSteps(there.entries).size).toBe(3);
    const finished = finishedPieces(there.plans, there.entries, there.rolls);
    expect(finished.size).toBe(finishedPieces(file.plans, file.entries, doc.rolls).size);
    expect(finished.size).toBeGreaterThan(0);
    // the knife goes on where it was; its pieces are those of the copy's own panes
    const names = new Map(panesIn(there).map((s) => [s.id, s.name]));
    expect(own.pieces.map((p) => names.get(p.surfaceId)).sort()).toEqual(plan.pieces.map((p) => panesIn(doc).find((s) => s.id === p.surfaceId)!.name).sort());
    expect(standingPlan(own, filmPlanInput({ ...there, memo: new Memo() }, there.job.cut, film, own), finished, 'mm')).toMatchObject({
      is: expect.stringMatching(/kept|committed/),
    });
  });
});

test('what an older version let in is found and told, and nothing is changed by that', async () => {
  const records = new RecordsRepository(open.db);
  expect(await findDangling(records)).toEqual([]);
  const [pane, roll] = [(await records.all('surface'))[0]!, (await records.all('roll'))[0]!];
  await open.db.insert(surfaces).values({ id: nowhere, body: { ...pane, id: nowhere, filmId: nowhere } });
  const other = uuidv7();
  await open.db.insert(rolls).values({ id: other, body: { ...roll, id: other, filmId: nowhere, fromRollId: nowhere } });
  expect(await findDangling(records)).toEqual([
    { kind: 'surface', id: nowhere, message: '“filmId” names a film that is not here.' },
    { kind: 'roll', id: other, message: '“filmId” names a film that is not here.' },
  ]);
  const dir = mkdtempSync(join(tmpdir(), 'yp-names-'));
  const told = await reportDangling(records, dir, '2026');
  expect(told).toMatch(/^2 records name something that is not here.* Nothing was changed; they are listed in .*names-nothing-2026\.txt\.$/);
  expect(readFileSync(join(dir, 'names-nothing-2026.txt'), 'utf8').split('\n')[0]).toBe(`surface ${nowhere}: “filmId” names a film that is not here.`);
  rmSync(dir, { recursive: true });
});
