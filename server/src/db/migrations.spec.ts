import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PGlite } from '@electric-sql/pglite';
import { defaultLaySettings, schemaOf, type Job, type Recess, type RecordKind, type StepSet, type Surface } from '@yellow-pane/contracts';
import { shippedSteps } from '@yellow-pane/core';
import { demoFilms, demoFirm, demoRolls, ternInterior, ternPoint } from '@yellow-pane/demo';

const folder = join(dirname(fileURLToPath(import.meta.url)), 'migrations');
const statements = (name: string) => readFileSync(join(folder, name), 'utf8').split('--> statement-breakpoint');

/** A record as the first version of Yellow Pane wrote it. */
const recessesOf = (s: Surface): readonly Recess[] => (s.kind === 'panel' ? s.recesses : []);
const without = (record: object, ...fields: string[]): Record<string, unknown> =>
  Object.fromEntries(Object.entries(record).filter(([k]) => !fields.includes(k)));

test('a bench of the first version opens: films, panes, rolls and jobs get what is new as not yet known, and keep what they had', async () => {
  const db = await PGlite.create();
  for (const s of statements('0000_first-bench.sql')) await db.exec(s);
  const { id, name, version, kind, wound, direction, hatch, thicknessUm, createdAt } = demoFilms.guard;
  const file = ternPoint();
  const old: [RecordKind, Record<string, unknown>][] = [
    ['film', { id, name, version, kind, wound, direction, hatch, thicknessUm, createdAt }],
    ['firm', without(demoFirm, 'leftovers', 'blades', 'forming')],
    ['surface', { ...without(file.surfaces[0]!, 'glazing', 'exposure', 'choose', 'seam', 'design', 'servedById', 'curved', 'workedFace'), kind: 'flat-pane' }],
    ['roll', without(demoRolls[0]!, 'isToOrder', 'lengthSigmaM', 'lengthFrom', 'form', 'place', 'edges', 'wound', 'fromRollId', 'fromPlanId', 'fromDrop')],
    ['job', { ...without(file.job, 'choose', 'prepare', 'lay', 'dry'), cut: without(file.job.cut, 'mixLots', 'oneDirection') }],
  ];
  for (const [table, body] of old) await db.query(`insert into "${table}" (id, body) values ($1, $2)`, [body['id'], JSON.stringify(body)]);
  for (const name of readdirSync(folder)
    .filter((f) => f.endsWith('.sql') && !f.startsWith('0000'))
    .sort())
    for (const s of statements(name)) await db.exec(s);
  for (const [table, body] of old) {
    const { rows } = await db.query<{ body: Record<string, unknown> }>(`select body from "${table}"`);
    // complete without any help of the schema's defaults, and nothing lost
    expect(schemaOf(table).parse(rows[0]!.body)).toEqual(rows[0]!.body);
    expect(rows[0]!.body).toMatchObject(table === 'surface' ? { ...body, kind: 'pane' } : body);
  }
  await db.close();
});

test('recesses: panels, walls, columns and tops written before they had what they have today get it as nothing, and keep what was said of them', async () => {
  const db = await PGlite.create();
  const files = readdirSync(folder)
    .filter((f) => f.endsWith('.sql'))
    .sort();
  const [before, now] = [files.filter((f) => f < '0012'), files.filter((f) => f >= '0012')];
  for (const name of before) for (const s of statements(name)) await db.exec(s);
  const of = (name: string) => ternInterior().surfaces.find((s) => s.name === name)!;
  const old = [
    without(of('Door 1'), 'head', 'besideId', 'recesses', 'corrugation', 'dome', 'corners'),
    { ...without(of('Door 2'), 'recesses', 'corrugation', 'dome', 'corners'), head: 'down' },
    // two recesses, before one could choose their order
    { ...without(of('Archive door, left'), 'corrugation', 'dome', 'corners'), recesses: recessesOf(of('Archive door, left')).map((r) => without(r, 'way')) },
    without(of('Stair wall'), 'breaks', 'hanging', 'lie'),
    without(of('Column 1'), 'ends'),
    without(of('Reception counter'), 'besideId'),
    without(of('Gate canvas')),
  ];
  expect(old[2]).toMatchObject({ recesses: [{ depthMm: 8 }, { depthMm: 14 }] });
  for (const body of old) await db.query('insert into "surface" (id, body) values ($1, $2)', [body['id'], JSON.stringify(body)]);
  for (const name of now) for (const s of statements(name)) await db.exec(s);
  const { rows } = await db.query<{ id: string; body: Record<string, unknown> }>('select id, body from "surface"');
  expect(rows).toHaveLength(old.length);
  for (const { id, body } of rows) {
    expect(schemaOf('surface').parse(body)).toEqual(body);
    expect(body).toMatchObject(old.find((o) => o['id'] === id)!);
  }
  await db.close();
});

test('kinds-of-surface: panes of before, and the history that tells of them, are of the kind they are; what a person wrote stays to the letter', async () => {
  const db = await PGlite.create();
  const all = readdirSync(folder).filter((f) => f.endsWith('.sql')).sort(); // prettier-ignore
  for (const name of all.filter((n) => n < '0011')) for (const s of statements(name)) await db.exec(s);
  const pane = { ...ternPoint().surfaces[0]!, kind: 'flat-pane', note: 'the "kind": "flat-pane" of old' };
  const patches = [{ op: 'add', kind: 'surface', id: pane.id, value: pane }, { op: 'set', kind: 'place', id: pane.placeId, field: 'name', value: 'flat-pane' }]; // prettier-ignore
  await db.query('insert into surface (id, body) values ($1, $2)', [pane.id, JSON.stringify(pane)]);
  await db.query(
    `insert into change (position, id, job_id, person_id, device_id, device_seq, base_revision, label, patches, inverse, undoable, at)
     values (1, $1, $1, $1, $1, 1, 0, 'x', $2, $3, true, now())`,
    [pane.id, JSON.stringify(patches), JSON.stringify([{ op: 'set', kind: 'surface', id: pane.id, field: 'deletedAt', value: 'x' }])],
  );
  for (const s of statements('0011_kinds-of-surface.sql')) await db.exec(s);
  const [surface] = (await db.query<{ body: Record<string, unknown> }>('select body from surface')).rows;
  expect(surface!.body).toEqual({ ...pane, kind: 'pane' });
  const [change] = (await db.query<{ patches: unknown; inverse: unknown }>('select patches, inverse from change')).rows;
  expect(change!.patches).toEqual([{ ...patches[0], value: { ...pane, kind: 'pane' } }, patches[1]]);
  expect(change!.inverse).toHaveLength(1);
  await db.close();
});

test('steps, log and settings written before anybody asked what a face is: the steps still read, in their order, and ask for nothing new', async () => {
  const db = await PGlite.create();
  const names = readdirSync(folder).filter((f) => f.endsWith('.sql')).sort(); // prettier-ignore
  const run = async (from: string, to: string) => {
    for (const name of names.filter((n) => n >= from && n < to)) for (const s of statements(name)) await db.exec(s);
  };
  await run('0000', '0006');
  const shipped = shippedSteps(demoFirm.id);
  const set = { ...shipped, id: '01930000-0000-7000-8000-00000000a001', version: 2, steps: shipped.steps.map((s) => ({ ...without(s, 'returnAfterMinutes'), when: without(s.when, 'care', 'glass') })) }; // prettier-ignore
  const entry = { id: '01930000-0000-7000-8000-00000000a002', jobId: ternPoint().job.id, surfaceId: null, personId: demoFirm.id, occurredAt: '2026-12-03T09:00:00Z', clockOffsetMs: 0, receivedAt: null, stepSetId: set.id, kind: 'note', stepKey: null, text: 'x', reading: null, photo: null, problem: null, roll: null, signature: null, correctsId: null }; // prettier-ignore
  const { job } = ternPoint();
  const oldJob = {
    ...without(job, 'dry'),
    prepare: without(job.prepare!, 'typedOn', 'madeUpWeather'),
    lay: without(defaultLaySettings, 'forming', 'lubrication'),
  };
  const old: [RecordKind, string, Record<string, unknown>][] = [
    ['stepSet', 'step_set', set],
    ['layEntry', 'lay_entry', entry],
    ['job', 'job', oldJob],
  ];
  for (const [, table, body] of old) await db.query(`insert into "${table}" (id, body) values ($1, $2)`, [body['id'], JSON.stringify(body)]);
  await run('0006', '9');
  for (const [kind, table, body] of old) {
    const { rows } = await db.query<{ body: Record<string, unknown> }>(`select body from "${table}"`);
    expect(schemaOf(kind).parse(rows[0]!.body)).toEqual(rows[0]!.body);
    expect(rows[0]!.body).toMatchObject(body);
  }
  const { rows } = await db.query<{ body: StepSet }>('select body from "step_set"');
  expect(rows[0]!.body.steps.map((s) => s.key)).toEqual(set.steps.map((s) => s['key' as never]));
  // a real job goes by no made-up weather
  expect((await db.query<{ body: Job }>('select body from "job"')).rows[0]!.body.prepare!.madeUpWeather).toBe(false);
  await db.close();
});
