import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import type { Change, JobDocument, JobFile, JobPage, Patch, Problem, Surface } from '@yellow-pane/contracts';
import { routes } from '@yellow-pane/contracts';
import { isDrySurface, Memo, toldOf } from '@yellow-pane/core';
import { demoRates, panesIn } from '@yellow-pane/demo';
import type { App } from './app.js';
import { ines, lanternStreetId, okan, openBench, TestDevice, ternPointId, type TestDatabase } from './bench.testing.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());

const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const post = (path: string, body: object | string) => request(app.http).post(path).set('Host', 'localhost').send(body);
const document = async (jobId: string): Promise<JobDocument> => (await get(`/api/jobs/${jobId}?personId=${ines}`)).body as JobDocument;
const surfaceNamed = async (jobId: string, name: string): Promise<Surface> => (await document(jobId)).surfaces.find((s) => s.name === name)!;
const note = (s: Surface, value: string) => [{ op: 'set' as const, kind: 'surface' as const, id: s.id, field: 'note', value }];

describe('the bench answers', () => {
  test('with the five demo jobs, the next due first, those without a date last', async () => {
    const { body } = await get('/api/jobs');
    expect(body.jobs.map((j: { name: string; surfaceCount: number; measuredCount: number }) => [j.name, j.surfaceCount, j.measuredCount])).toEqual([
      ['Tern Point terminal', 60, 60],
      ['Lantern Street bakery', 4, 4],
      ['Launch and shuttle', 7, 7],
      ['Tern Point interior', 30, 30],
      ['Tern Point annex', 6, 6],
    ]);
  });

  test('an unknown job is a problem in the form of RFC 9457', async () => {
    const answer = await get('/api/jobs/00000000-0000-7000-8000-00000000ffff');
    expect(answer.status).toBe(404);
    expect(answer.headers['content-type']).toContain('application/problem+json');
    expect(answer.body).toMatchObject({ code: 'job-not-found', status: 404, title: 'There is no such job on this bench.' });
  });

  test('what does not read is named by its path', async () => {
    const answer = await post('/api/compute/survey', { readings: [{ measure: 'girth', lengthMm: 3 }] });
    expect(answer.status).toBe(400);
    expect((answer.body as Problem).faults![0]!.path).toBe('body.readings.0.measure');
  });

  test('broken JSON, an unknown path and a foreign page are refused in words', async () => {
    const broken = await request(app.http).post('/api/compute/survey').set('Host', 'localhost').set('Content-Type', 'application/json').send('{"readings": [');
    expect([broken.status, broken.body.code]).toEqual([400, 'bad-input']);
    expect((await get('/api/nowhere')).body.code).toBe('not-found');
    expect((await get('/api/jobs').set('Origin', 'http://elsewhere.example')).body.code).toBe('wrong-origin');
    expect((await request(app.http).get('/api/jobs').set('Host', 'bench.example')).body.code).toBe('wrong-origin');
  });

  test('every call of the contract is in the OpenAPI document, and there is a page to read', async () => {
    const { body } = await get('/api/openapi.json');
    const calls = Object.entries(body.paths as Record<string, Record<string, { operationId: string }>>).flatMap(([, byMethod]) =>
      Object.values(byMethod).map((o) => o.operationId),
    );
    expect(calls.sort()).toEqual(Object.keys(routes).sort());
    expect((await get('/api/docs')).text).toContain('/api/compute/layout');
  });
});

describe('computing by call', () => {
  test('the survey gives the same verdict as the screen', async () => {
    const { body } = await post('/api/compute/survey', {
      readings: Object.entries({
        widthTop: 612,
        widthMiddle: 605,
        widthBottom: 619,
        heightLeft: 669,
        heightMiddle: 668,
        heightRight: 668,
        diagonalDown: 903,
        diagonalUp: 900,
      }).map(([measure, lengthMm]) => ({ measure, lengthMm })),
    });
    expect(body.status).toBe('doubtful');
    expect(body.ask.text).toBe('Tape the bottom width again');
  });

  test('and so does that of what is no glass, kind by kind: the same words, the same doubts', async () => {
    const doc = await document(((await get('/api/jobs?find=interior')).body as JobPage).jobs.find((j) => j.name === 'Tern Point interior')!.id);
    const memo = new Memo();
    const seen = new Set<string>();
    for (const surface of doc.surfaces.filter(isDrySurface)) {
      // what stands beside it, or is measured like another, is known to the record alone
      if (
        surface.measuredLikeId !== null ||
        (surface.kind === 'wall' && (surface.nextId !== null || doc.surfaces.some((s) => s.kind === 'wall' && s.nextId === surface.id)))
      )
        continue;
      const told = toldOf(surface, { ...doc, memo }, 'mm');
      const { body } = await post('/api/compute/taped', { surface, readings: told.inForce.map(({ measure, lengthMm }) => ({ measure, lengthMm })) });
      expect(body).toMatchObject({ status: told.status, ...told.words, doubts: told.doubts, numbers: told.numbers });
      expect(body.suspects).toHaveLength(told.suspects.length);
      seen.add(surface.kind);
    }
    expect([...seen].sort()).toEqual(['column', 'counter', 'panel', 'sign', 'wall']);
    const column = doc.surfaces.find((s) => s.kind === 'column')!;
    const wrong = await post('/api/compute/taped', { surface: column, readings: [{ measure: 'widthTop', lengthMm: 900 }] });
    expect(wrong.body).toMatchObject({ code: 'bad-input', detail: 'A column has no widthTop.' });
    const inches = await post('/api/compute/taped', { surface: column, units: 'in', readings: [{ measure: 'girthFoot', lengthMm: 1257 }, { measure: 'heightFront', lengthMm: 2500 }] }); // prettier-ignore
    expect(JSON.stringify(inches.body.numbers)).toContain('/16');
  });

  test('how to move a gun: figures and words of the bench, in the units asked for; a reading corrects it', async () => {
    const film = { construction: 'cast-vinyl', thicknessUm: 60, temps: { applyMinC: 10, applyMaxC: 35, relaxC: 90, postHeatC: 150, limitC: 100 } };
    const asked = { aim: 'faces', film, material: 'concrete', masonry: { texture: 'medium', jointDepthMm: 0 } };
    const { body } = await post('/api/compute/heat', asked);
    expect(body).toMatchObject({ headline: '25 mm off, 50 mm a second, once.', passes: 1, trial: null });
    expect(body.sure.slowestMmPerS).toBeLessThan(51);
    expect(body.places[0]).toMatchObject({ name: 'Film over a pore', isWanted: true });
    const board = { ...asked, aim: 'post-heat', material: 'wood-board', masonry: null };
    const [unread, read] = [await post('/api/compute/heat', board), await post('/api/compute/heat', { ...board, trial: { readC: 60, afterS: 2, speedMmPerS: 20, passes: 1 } })]; // prettier-ignore
    expect(unread.body.howSure).toContain('±40 %');
    expect(read.body.howSure).toContain('Corrected by the reading of 60 °C');
    const inches = await post('/api/compute/heat', { ...asked, units: 'in' });
    expect(inches.body.headline).toBe('1" off, 2" a second, once.');
    expect(inches.body.why[0]).toContain('194 °F');
    const none = await post('/api/compute/heat', { ...board, film: { ...film, temps: null } });
    expect(none.body).toBeNull();
    const wrong = await post('/api/compute/heat', { ...asked, gun: { setC: 9000 } });
    expect(wrong.body.code).toBe('bad-input');
  });

  test('how film lies over ribs and on a dome, by measures alone; what is no such shape is said to be none', async () => {
    const ribs = { form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0, girthMm: null, way: 'bridged' };
    const over = (more: object, stretchMaxPct: number | null) =>
      post('/api/compute/corrugation', { corrugation: { ...ribs, ...more }, film: { stretchMaxPct } });
    expect((await over({}, 20)).body).toMatchObject({ is: 'goes', doubt: null, bridgedPct: expect.closeTo(14.3, 0) as number });
    expect((await over({}, 10)).body).toMatchObject({ is: 'feed' });
    expect((await over({ depthMm: 60 }, 10)).body).toMatchObject({ doubt: expect.stringContaining('no deeper than half its pitch') as string });
    expect((await over({ pitchMm: 0 }, 10)).status).toBe(400);
    const domed = (more: object) =>
      post('/api/compute/dome', { dome: { acrossBowMm: 50, upBowMm: 40 }, widthMm: 600, heightMm: 450, film: { stretchMaxPct: 30 }, ...more });
    expect((await domed({})).body).toMatchObject({ is: 'draw', doubt: null, drawnPct: expect.closeTo(5.1, 0) as number });
    expect((await domed({ widthMm: -1 })).status).toBe(400);
    const corner = (more: object) =>
      post('/api/compute/wrapped-corner', { corner: { radiusMm: 80, arrisMm: 5 }, thicknessMm: 12, film: { stretchMaxPct: 30 }, ...more });
    expect((await corner({})).body).toMatchObject({ is: 'draws', largestPct: expect.closeTo(23.2, 1) as number });
    expect((await corner({ returnMm: 90 })).body).toMatchObject({ is: 'folds', largestPct: null });
    expect((await corner({ corner: { radiusMm: 0, arrisMm: 0 } })).status).toBe(400);
  });
  test('how far film stretches in a recess: every order, the best of them, and what it means for the film', async () => {
    const recess = { acrossMm: 60, upMm: 80, depthMm: 4, slopeMm: 6, cornerMm: 15 };
    const ask = (stretchMaxPct: number | null, more: object = {}) => post('/api/compute/recess', { recess: { ...recess, ...more }, film: { stretchMaxPct } });
    const { body } = await ask(60);
    expect(body).toMatchObject({ is: 'goes', headline: expect.stringContaining('It goes in one piece') });
    expect(body.ways.map((w: { way: string }) => w.way)).toEqual(expect.arrayContaining(['bridged', 'fed', 'field-first']));
    expect(body.ways.filter((w: { isBest: boolean }) => w.isBest)).toHaveLength(1);
    expect((await ask(null)).body.is).toBe('unknown');
    const wrong = await ask(30, { slopeMm: 40 });
    expect(wrong.body).toMatchObject({ code: 'bad-input' });
    expect(JSON.stringify(wrong.body)).toContain('no field is left');
  });

  test('methods are compared for a film', async () => {
    const film = (await document(ternPointId)).films.find((f) => f.kind === 'security')!;
    const { body } = await get(`/api/jobs/${ternPointId}/films/${film.id}/methods`);
    const by = Object.fromEntries(body.map((m: { method: string }) => [m.method, m]));
    expect(by['factory-edge'].trims).toBeLessThan(by['overhang'].trims);
    expect(by['pre-cut'].blockedCount).toBe(5);
  });
});

describe('changes', () => {
  test('what an older version stored as a step of undo, though it began the job, is none', async () => {
    const device = new TestDevice(ines);
    const began = (await app.records.allChanges()).find((c) => c.jobId === ternPointId)!;
    expect(began.patches.some((p) => p.kind === 'job')).toBe(true);
    await app.records.transaction(async (tx) =>
      tx.addChange({ ...began, ...device.draft(ternPointId, began.label, began.patches, 0), undoable: true, revision: (await tx.revision()) + 1 }),
    );
    expect((await post(`/api/jobs/${ternPointId}/undo`, device.undo())).body.code).toBe('nothing-to-undo');
  });
  test('a deleted job is gone from the list, and undo brings it back', async () => {
    const device = new TestDevice(okan);
    const { revision } = await document(lanternStreetId);
    const names = async () => ((await get('/api/jobs')).body as JobPage).jobs.map((j) => j.name);
    const gone = [{ op: 'set' as const, kind: 'job' as const, id: lanternStreetId, field: 'deletedAt', value: '2026-11-25T05:00:00Z' }];
    expect((await post(`/api/jobs/${lanternStreetId}/changes`, device.draft(lanternStreetId, 'Delete', gone, revision))).status).toBe(200);
    expect([await names(), (await get(`/api/jobs/${lanternStreetId}`)).status]).toEqual([
      ['Tern Point terminal', 'Launch and shuttle', 'Tern Point interior', 'Tern Point annex'],
      404,
    ]);
    expect((await post(`/api/jobs/${lanternStreetId}/undo`, device.undo())).status).toBe(200);
    expect(await names()).toHaveLength(5);
    expect((await post(`/api/jobs/${uuidv7()}/undo`, device.undo())).status).toBe(404);
  });
  test('undo in a job that was only just brought in has nothing to take back: the job itself stays', async () => {
    expect((await document(ternPointId)).canUndo).toBeNull();
    expect((await post(`/api/jobs/${ternPointId}/undo`, new TestDevice(ines).undo())).body.code).toBe('nothing-to-undo');
    expect((await document(ternPointId)).job.deletedAt).toBeNull();
  });
  test('are applied with their inverse, undone and redone, and history keeps all of it', async () => {
    const device = new TestDevice(ines);
    const s = await surfaceNamed(lanternStreetId, 'F1');
    const { revision } = await document(lanternStreetId);
    const made = await post(`/api/jobs/${lanternStreetId}/changes`, device.draft(lanternStreetId, 'Note', note(s, 'cracked sill'), revision));
    expect(made.body.canUndo).toBe('Note');
    await post(`/api/jobs/${lanternStreetId}/undo`, device.undo());
    expect((await surfaceNamed(lanternStreetId, 'F1')).note).toBe('');
    const redone = await post(`/api/jobs/${lanternStreetId}/redo`, device.undo());
    expect(redone.body.canRedo).toBeNull();
    expect((await surfaceNamed(lanternStreetId, 'F1')).note).toBe('cracked sill');
    const history = (await get(`/api/jobs/${lanternStreetId}/history`)).body as Change[];
    expect(history.slice(-3).map((c) => c.undoesId !== null)).toEqual([false, true, true]);
    expect(history.at(-3)!.inverse).toEqual([{ op: 'set', kind: 'surface', id: s.id, field: 'note', value: '' }]);
  });

  test('sent twice are one change; a gap in the numbers is refused', async () => {
    const device = new TestDevice(ines);
    const s = await surfaceNamed(lanternStreetId, 'F2');
    const { revision } = await document(lanternStreetId);
    const draft = device.draft(lanternStreetId, 'Note', note(s, 'once'), revision);
    const first = await post(`/api/jobs/${lanternStreetId}/changes`, draft);
    const again = await post(`/api/jobs/${lanternStreetId}/changes`, draft);
    expect(again.body.change.revision).toBe(first.body.change.revision);
    const gap = await post(`/api/jobs/${lanternStreetId}/changes`, { ...draft, id: '00000000-0000-7000-8000-0000000000aa', deviceSeq: 7 });
    expect(gap.body.code).toBe('sequence-gap');
  });

  test('two people on the same field: the later one is asked to look first', async () => {
    const [a, b] = [new TestDevice(ines), new TestDevice(okan)];
    const s = await surfaceNamed(lanternStreetId, 'F2');
    const { revision } = await document(lanternStreetId);
    await post(`/api/jobs/${lanternStreetId}/changes`, a.draft(lanternStreetId, 'Note A', note(s, 'from A'), revision));
    const late = await post(`/api/jobs/${lanternStreetId}/changes`, b.draft(lanternStreetId, 'Note B', note(s, 'from B'), revision));
    expect([late.status, late.body.code]).toEqual([409, 'conflict']);
    expect((await surfaceNamed(lanternStreetId, 'F2')).note).toBe('from A');
  });

  test('undo of what another has touched since asks, and goes ahead on a yes', async () => {
    const [a, b] = [new TestDevice(ines), new TestDevice(okan)];
    const s = await surfaceNamed(lanternStreetId, 'Transom');
    await post(`/api/jobs/${lanternStreetId}/changes`, a.draft(lanternStreetId, 'Note A', note(s, 'A'), (await document(lanternStreetId)).revision));
    await post(`/api/jobs/${lanternStreetId}/changes`, b.draft(lanternStreetId, 'Note B', note(s, 'B'), (await document(lanternStreetId)).revision));
    const asked = await post(`/api/jobs/${lanternStreetId}/undo`, a.undo());
    expect(asked.body.code).toBe('undo-conflict');
    a.takeBack();
    expect((await post(`/api/jobs/${lanternStreetId}/undo`, a.undo(true))).status).toBe(200);
    expect((await surfaceNamed(lanternStreetId, 'Transom')).note).toBe('');
  });

  test('nothing is half applied: one bad patch and none of it happens', async () => {
    const device = new TestDevice(ines);
    const s = await surfaceNamed(lanternStreetId, 'B1');
    const patches = [...note(s, 'half'), { op: 'set' as const, kind: 'surface' as const, id: s.id, field: 'seenFrom', value: 'roof' }];
    const answer = await post(
      `/api/jobs/${lanternStreetId}/changes`,
      device.draft(lanternStreetId, 'Both', patches, (await document(lanternStreetId)).revision),
    );
    expect(answer.body.faults[0].path).toBe('patches[1].seenFrom');
    expect((await surfaceNamed(lanternStreetId, 'B1')).note).toBe('');
  });

  test('facts stand: a reading is superseded, never overwritten', async () => {
    const device = new TestDevice(ines);
    const doc = await document(lanternStreetId);
    const answer = await post(
      `/api/jobs/${lanternStreetId}/changes`,
      device.draft(lanternStreetId, 'Overwrite', [{ op: 'set', kind: 'reading', id: doc.readings[0]!.id, field: 'lengthMm', value: 1 }], doc.revision),
    );
    expect(answer.body.code).toBe('fact-stands');
  });

  test.each(['rates', 'person', 'firm'] as const)('the firm’s %s is not changed in the name of a job', async (kind) => {
    const device = new TestDevice(ines);
    const doc = await document(lanternStreetId);
    const value = { rates: { ...demoRates, id: uuidv7(), version: 99 }, person: { ...doc.persons[0]!, id: uuidv7() }, firm: doc.firm }[kind];
    const patch: Patch = kind === 'firm' ? { op: 'set', kind, id: value.id, field: 'name', value: 'X' } : { op: 'add', kind, id: value.id, value };
    const answer = await post(`/api/jobs/${lanternStreetId}/changes`, device.draft(lanternStreetId, 'Theirs', [patch], doc.revision));
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([400, expect.stringContaining('not changed in the name of a job')]);
  });

  test('a cut plan that cannot be cut does not enter the records', async () => {
    const device = new TestDevice(ines);
    const doc = await document(ternPointId);
    const film = doc.films[0]!;
    const plan = {
      id: '00000000-0000-7000-8000-0000000000bb',
      jobId: ternPointId,
      filmId: film.id,
      status: 'draft',
      inputHash: 'x',
      coreVersion: 'x',
      pieces: [],
      layout: { filmId: film.id, rolls: [], unplaced: [], usedMm: 100, cost: 0, boundCost: null, cutCount: 0, seed: 1, steps: 0 },
      lockedPieceIds: [],
      updatedAt: new Date().toISOString(),
      deletedAt: null,
    };
    const answer = await post(
      `/api/jobs/${ternPointId}/changes`,
      device.draft(ternPointId, 'Plan', [{ op: 'add', kind: 'plan', id: plan.id, value: plan }], doc.revision),
    );
    expect([answer.status, answer.body.code]).toEqual([422, 'plan-refused']);
  });
});

describe('files', () => {
  test('a job file goes out and comes in again without loss', async () => {
    const file = (await get(`/api/jobs/${ternPointId}/file`)).body as JobFile;
    const fresh = await openBench();
    // the job is there already from the demo: it comes in as a copy with the same content under new ids
    const copy = await request(fresh.app.http)
      .post(`/api/job-files?personId=${ines}&deviceId=00000000-0000-7000-8000-0000000000cc`)
      .set('Host', 'localhost')
      .send(file);
    expect(copy.body.isCopy).toBe(true);
    const out = (await request(fresh.app.http).get(`/api/jobs/${copy.body.jobId}/file`).set('Host', 'localhost')).body as JobFile;
    const content = (f: JobFile) => ({
      surfaces: panesIn(f).map((s) => [s.name, s.order, s.frame, s.note, s.filmId]),
      readings: f.readings.map((r) => [r.measure, r.typed, r.lengthMm]),
      places: f.places.map((p) => p.name),
    });
    const sorted = (f: JobFile): JobFile => ({
      ...f,
      surfaces: [...f.surfaces].sort((a, b) => a.order - b.order),
      readings: [...f.readings].sort((a, b) => a.at.localeCompare(b.at)),
      places: [...f.places].sort((a, b) => a.order - b.order),
    });
    expect(content(sorted(out))).toEqual(content(sorted(file)));
    await fresh.open.close();
  });

  test('a file that is no job file, or has a bad field, says so and changes nothing', async () => {
    const before = (await get('/api/jobs')).body.total;
    const who = `personId=${ines}&deviceId=00000000-0000-7000-8000-0000000000dd`;
    expect((await post(`/api/job-files?${who}`, { format: 'other' })).body.detail).toContain('not a job file');
    const file = (await get(`/api/jobs/${lanternStreetId}/file`)).body as JobFile;
    const bad = { ...file, surfaces: [{ ...panesIn(file)[0], frame: 'marble' }, ...panesIn(file).slice(1)] };
    const answer = await post(`/api/job-files?${who}`, bad);
    expect(answer.body.faults[0].path).toBe('surfaces.0.frame');
    expect((await get('/api/jobs')).body.total).toBe(before);
  });

  test('measures come in from CSV and go out again; a bad row names row and field and stops all of it', async () => {
    const url = `/api/jobs/${lanternStreetId}/measures.csv?personId=${ines}&deviceId=00000000-0000-7000-8000-0000000000ee`;
    const csv = (text: string) => request(app.http).post(url).set('Host', 'localhost').set('Content-Type', 'text/csv').send(text);
    const bad = await csv('place,surface,measure,value\nShop front,F1,widthLargest,36\nShop front,F9,girth,20\nShop front,F9,heightLargest,tall\n');
    expect(bad.body.faults.map((f: { path: string }) => f.path)).toEqual(['row 3, measure', 'row 4, value']);
    expect((await document(lanternStreetId)).surfaces.some((s) => s.name === 'F9')).toBe(false);
    const good = await csv('place,surface,measure,value\nShop front,F9,widthLargest,36 1/4\nShop front,F9,heightLargest,900 mm\n');
    expect(good.body).toEqual({ readings: 2, surfaces: 1 });
    const out = (await get(`/api/jobs/${lanternStreetId}/measures.csv`)).text;
    expect(out).toContain('Shop front,F9,widthLargest,36 1/4,920.75');
    expect(out).toContain('Shop front,F9,heightLargest,900 mm,900');
  });

  test('bows of curved glass go out and come in by the same table, and a second time they are read again', async () => {
    const idOf = async (name: string): Promise<string> => (await get('/api/jobs')).body.jobs.find((j: { name: string }) => j.name === name).id;
    // both in mm: a figure without a unit means that of the job
    const [launch, terminal] = [await idOf('Launch and shuttle'), await idOf('Tern Point terminal')];
    const out = (await get(`/api/jobs/${launch}/measures.csv`)).text;
    expect(out).toContain('Shuttle van,Rear window,bow across 295,58,58');
    expect(out).toContain('Shuttle van,Rear window,bow upright 660 from 309 long 260,2,2');
    const csv = (text: string) => request(app.http).post(`/api/jobs/${terminal}/measures.csv?personId=${ines}&deviceId=00000000-0000-7000-8000-0000000000ee`).set('Host', 'localhost').set('Content-Type', 'text/csv').send(text); // prettier-ignore
    const rows = out.split('\r\n').filter((l) => l.includes('Rear window'));
    const bows = rows.filter((l) => /,bow (across|upright|down|up)\b/.test(l));
    expect(bows.length).toBeGreaterThan(10);
    const answer = await csv(['place,surface,measure,value,lengthMm', ...rows].join('\n'));
    expect(answer.body).toEqual({ readings: rows.length, surfaces: 1 });
    const pane = async () => panesIn(await document(terminal)).find((s) => s.name === 'Rear window')!;
    expect((await pane()).curved!.bows).toHaveLength(bows.length);
    expect((await csv('surface,measure,value\nRear window,bow across 295,57\nRear window,bow down 3,9\n')).body.faults[0].message).toContain(
      '“bow down 3” is no measure',
    );
    expect((await pane()).curved!.bows.find((b) => b.way === 'across' && b.atMm === 295)!.depthMm).toBe(58);
    await csv('surface,measure,value\nRear window,bow across 295,57\n');
    const again = (await pane()).curved!.bows;
    expect(again).toHaveLength(bows.length);
    expect(again.find((b) => b.way === 'across' && b.atMm === 295)).toMatchObject({ depthMm: 57, typed: '57' });
  });
});

describe('deleted jobs', () => {
  test('a deleted job is brought back for 30 days by whoever wants it, with the film it was promised as far as nobody else was since', async () => {
    const [device, other] = [new TestDevice(okan), new TestDevice(ines)];
    const who = { personId: ines, deviceId: uuidv7() };
    const at = new Date().toISOString();
    const write = async (d: TestDevice, jobId: string, patches: Patch[], label = 'Write') => {
      const answer = await post(`/api/jobs/${jobId}/changes`, d.draft(jobId, label, patches, (await document(ternPointId)).revision));
      expect(answer.body).toMatchObject({ change: { jobId } });
    };
    const [old] = (await document(lanternStreetId)).rolls;
    const roll = { ...old!, id: uuidv7(), label: 'B-1', lengthM: 12, leadInMm: 0 };
    const promise = (jobId: string, lengthMm: number) => ({
      id: uuidv7(),
      rollId: roll.id,
      jobId,
      filmId: roll.filmId,
      lengthMm,
      personId: ines,
      at,
      deletedAt: null,
    });
    const add = (kind: 'roll' | 'reservation', value: { id: string }): Patch => ({ op: 'add', kind, id: value.id, value: { ...value } });
    const lift = (kind: 'job' | 'reservation', id: string, deletedAt: string): Patch => ({ op: 'set', kind, id, field: 'deletedAt', value: deletedAt });
    const bin = async () => ((await get('/api/deleted-jobs')).body as { name: string }[]).map((j) => j.name);
    const live = async () => ((await document(ternPointId)).stock.reservations as { id: string }[]).map((r) => r.id);
    const own = promise(lanternStreetId, 10_000);
    await write(device, lanternStreetId, [add('roll', roll)]);
    await write(device, lanternStreetId, [add('reservation', own)]);

    await write(device, lanternStreetId, [lift('reservation', own.id, at), lift('job', lanternStreetId, at)], 'Delete');
    expect([await bin(), (await live()).includes(own.id)]).toEqual([['Lantern Street bakery'], false]);
    expect((await post(`/api/deleted-jobs/${lanternStreetId}/bring-back`, who)).body).toEqual({ jobId: lanternStreetId, promisesBack: 1, promisesGone: 0 });
    expect([await bin(), (await live()).includes(own.id), (await get(`/api/jobs/${lanternStreetId}`)).status]).toEqual([[], true, 200]);
    // undo in the job that came back does not take it away again
    const { canUndo } = (await get(`/api/jobs/${lanternStreetId}?personId=${ines}&deviceId=${who.deviceId}`)).body as JobDocument;
    expect(canUndo).toBeNull();
    // asked once more, nothing happens
    expect((await post(`/api/deleted-jobs/${lanternStreetId}/bring-back`, who)).body).toEqual({ jobId: lanternStreetId, promisesBack: 0, promisesGone: 0 });

    // promised to another job meanwhile: the job comes back without that film
    await write(device, lanternStreetId, [lift('reservation', own.id, at), lift('job', lanternStreetId, at)], 'Delete');
    await write(other, ternPointId, [add('reservation', promise(ternPointId, 5_000))]);
    expect((await post(`/api/deleted-jobs/${lanternStreetId}/bring-back`, who)).body).toEqual({ jobId: lanternStreetId, promisesBack: 0, promisesGone: 1 });

    // after thirty days it is no longer offered
    await write(device, lanternStreetId, [lift('job', lanternStreetId, new Date(Date.now() - 31 * 86_400_000).toISOString())], 'Delete');
    expect(await bin()).toEqual([]);
    await post(`/api/deleted-jobs/${lanternStreetId}/bring-back`, who);
    expect((await post(`/api/deleted-jobs/${uuidv7()}/bring-back`, who)).status).toBe(404);
  });
});
