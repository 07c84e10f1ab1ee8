import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { newPane, type Change, type JobDocument, type JobFile, type Patch, type Problem } from '@yellow-pane/contracts';
import { layPiecesOnRolls } from '@yellow-pane/core';
import { demoFilms } from '@yellow-pane/demo';
import type { App } from './app.js';
import { ines, lanternStreetId, okan, openBench, TestDevice, ternPointId, type TestDatabase } from './bench.testing.js';

let app: App, open: TestDatabase;
// whoever waits asks without a pause: on a quick machine more often than a device may
beforeAll(async () => ({ app, open } = await openBench(null, { requestsIn10s: 1e9 })), 60_000);
afterAll(() => open.close());

const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const post = (path: string) => request(app.http).post(path).set('Host', 'localhost');
const csv = (path: string, text: string) => post(`${path}?personId=${ines}&deviceId=${uuidv7()}`).set('Content-Type', 'text/csv').send(text);
const newJob = async (): Promise<string> =>
  ((await post('/api/jobs').send({ name: 'A tower', customer: '', units: 'mm', personId: ines, deviceId: uuidv7() })).body as { id: string }).id;
/** The longest that anybody else waits for the bench to say that it is well. */
async function longestWait(work: Promise<unknown>): Promise<number> {
  let isDone = false;
  void work.finally(() => (isDone = true));
  let longest = 0;
  while (!isDone) {
    const from = performance.now();
    await get('/api/instruments');
    longest = Math.max(longest, performance.now() - from);
  }
  return longest;
}

describe('imports hold up nobody', () => {
  const tower = (rows: number) => 'place,surface,measure,value\n' + Array.from({ length: rows }, (_, i) => `Floor ${Math.floor(i / 200)},P${Math.floor(i / 2)},${i % 2 ? 'heightLargest' : 'widthLargest'},${900 + (i % 50)}`).join('\n'); // prettier-ignore
  test('ten thousand measures come in as parts that can each be undone, and in the meantime the bench answers', async () => {
    const jobId = await newJob();
    const from = performance.now();
    const importing = csv(`/api/jobs/${jobId}/measures.csv`, tower(10_000)).then((r) => r);
    const longest = await longestWait(importing);
    const answer = await importing;
    const wholeMs = performance.now() - from;
    expect(answer.body).toEqual({ readings: 10_000, surfaces: 5000 });
    const changes = (await get(`/api/jobs/${jobId}/history`)).body as Change[];
    expect(changes.length).toBeGreaterThan(30);
    expect(changes.at(-1)!.label).toMatch(/^Bring in 10000 measures \(part \d+ of \d+\)$/);
    // once it was silent for all of it; a part at a time it is a small share, on a busy machine too
    expect(longest).toBeLessThan(wholeMs / 5);
  });
  test('a table that is too long, too wide, or bad all over is refused in words before it is taken apart', async () => {
    const say = async (path: string, text: string) => ((await csv(path, text)).body as Problem).faults!;
    const measures = `/api/jobs/${lanternStreetId}/measures.csv`;
    expect((await say(measures, tower(20_001)))[0]!.message).toBe('This file has 20001 rows; 20000 are the most at once. Part it.');
    expect((await say(measures, `place,surface,measure,value${','.repeat(3_000_000)}\n`))[0]!.message).toContain('more than 60 columns');
    expect((await say('/api/stock.csv', 'label,film,widthMm,lengthM\n' + 'x,no such film,wide,long\n'.repeat(100_000)))[0]!.message).toContain(
      '5000 are the most',
    );
    const bad = await csv(measures, 'place,surface,measure,value\n' + 'Hall,W1,girth,x\n'.repeat(9000));
    expect([bad.status, bad.body.detail]).toEqual([400, 'Many rows do not read. Nothing was brought in.']);
  });
});

describe('a change touches only what belongs to its job', () => {
  const device = new TestDevice(ines);
  const send = async (jobId: string, patches: Patch[], by = device) => {
    const { revision } = (await get(`/api/jobs/${ternPointId}`)).body as JobDocument;
    const answer = await post(`/api/jobs/${jobId}/changes`).send(by.draft(jobId, 'x', patches, revision));
    if (!answer.ok) by.takeBack();
    return answer;
  };
  test('another job’s pane, the firm, a person or a rate in the name of a job: refused, and nothing is changed', async () => {
    const doc = (await get(`/api/jobs/${ternPointId}`)).body as JobDocument;
    const [pane, reading] = [doc.surfaces[0]!, doc.readings[0]!];
    const foreign: Patch[] = [
      { op: 'set', kind: 'surface', id: pane.id, field: 'note', value: 'mine now' },
      { op: 'set', kind: 'job', id: ternPointId, field: 'name', value: 'mine now' },
      { op: 'set', kind: 'firm', id: doc.firm.id, field: 'name', value: 'mine now' },
      { op: 'set', kind: 'person', id: okan, field: 'name', value: 'mine now' },
      { op: 'add', kind: 'reading', id: uuidv7(), value: { ...reading, id: uuidv7() } },
      { op: 'add', kind: 'surface', id: uuidv7(), value: { ...pane, jobId: lanternStreetId } },
    ];
    for (const patch of foreign) {
      const own = patch.op === 'add' ? { ...patch, value: { ...patch.value, id: patch.id } } : patch;
      const answer = await send(lanternStreetId, [own]);
      expect([answer.status, (answer.body as Problem).faults![0]!.path]).toEqual([400, expect.stringMatching(/^patches\[0\]/)]);
    }
    // the pane of this job, but pointing at a place of another
    const pointing = await send(lanternStreetId, [{ op: 'set', kind: 'surface', id: ((await get(`/api/jobs/${lanternStreetId}`)).body as JobDocument).surfaces[0]!.id, field: 'placeId', value: doc.places[0]!.id }]); // prettier-ignore
    expect((pointing.body as Problem).faults![0]!.message).toBe('“placeId” names a room of another job.');
    const after = (await get(`/api/jobs/${ternPointId}`)).body as JobDocument;
    expect([after.job.name, after.firm.name, after.surfaces[0]!.note, after.readings.length]).toEqual([
      doc.job.name,
      doc.firm.name,
      pane.note,
      doc.readings.length,
    ]);
  });
  test('a job file that carries another job’s records is refused whole', async () => {
    const file = (await get(`/api/jobs/${lanternStreetId}/file`)).body as JobFile;
    const odd = { ...file, job: { ...file.job, id: uuidv7() } };
    const answer = await post(`/api/job-files?personId=${ines}&deviceId=${uuidv7()}`).send(odd);
    expect([answer.status, answer.body.code]).toEqual([400, 'bad-input']);
    expect((await get(`/api/jobs/${odd.job.id}`)).status).toBe(404);
  });
  test('nobody writes who does not work here', async () => {
    const stranger = new TestDevice(uuidv7());
    const answer = await send(ternPointId, [{ op: 'set', kind: 'job', id: ternPointId, field: 'name', value: 'x' }], stranger);
    expect((answer.body as Problem).faults![0]!).toEqual({ path: 'personId', message: 'Nobody with this id works here.' });
  });
  test('thousands of patches in one change cost a handful of statements, and all or none of them count', async () => {
    const doc = (await get(`/api/jobs/${lanternStreetId}`)).body as JobDocument;
    const notes = (n: number): Patch[] =>
      Array.from({ length: n }, (_, i) => ({ op: 'set', kind: 'surface', id: doc.surfaces[i % 4]!.id, field: 'note', value: `note ${i}` }));
    expect((await send(lanternStreetId, notes(1500))).status).toBe(200);
    expect(((await get(`/api/jobs/${lanternStreetId}`)).body as JobDocument).surfaces[3]!.note).toBe('note 1499');
    const spoiled = [...notes(200), { op: 'set' as const, kind: 'surface' as const, id: doc.surfaces[0]!.id, field: 'note', value: 7 }];
    expect((await send(lanternStreetId, spoiled)).status).toBe(400);
    expect(((await get(`/api/jobs/${lanternStreetId}`)).body as JobDocument).surfaces[3]!.note).toBe('note 1499');
  });
});

describe('what was asked wrongly is answered rightly', () => {
  test('a charset or packing that nobody knows is 415, a body that is no gzip too', async () => {
    const send = (type: string, encoding?: string) => {
      const ask = post('/api/compute/slip').set('Content-Type', type);
      return (encoding ? ask.set('Content-Encoding', encoding) : ask).serialize((x: unknown) => x as string).send('{}');
    };
    for (const [type, encoding] of [['application/json; charset=latin-77'], ['application/json', 'x-none'], ['application/json', 'gzip']] as const)
      expect((await send(type, encoding)).body).toMatchObject({ status: 415, code: 'wrong-media' });
  });
  test('half a surrogate pair or the sign of nothing in any text is refused with its place', async () => {
    for (const name of ['a\u0000b', 'x\ud800'])
      expect((await post('/api/jobs').send({ name, customer: '', units: 'mm', personId: ines, deviceId: uuidv7() })).body).toMatchObject({
        code: 'bad-input',
        faults: [{ path: 'body.name' }],
      });
    expect((await post('/api/jobs').send({ name: 'a 💡 b', customer: '', units: 'mm', personId: ines, deviceId: uuidv7() })).status).toBe(200);
  });
  test('200 bytes that promise nine thousand million million of something are no way to stop the bench', async () => {
    const ply =
      'ply\nformat binary_little_endian 1.0\nelement junk 9000000000000000\nelement vertex 60\nproperty float x\nproperty float y\nproperty float z\nend_header\n';
    const from = Date.now();
    const answer = await post('/api/compute/cloud').send({ fileName: 'x.ply', text: ply, base64: null, unit: null, clicks: null });
    expect([answer.status, answer.body.detail]).toEqual([400, expect.stringContaining('ends early')]);
    const far = `${'1e308 0 0\n'.repeat(60)}`;
    expect((await post('/api/compute/cloud').send({ fileName: 'x.xyz', text: far, base64: null, unit: null, clicks: null })).body.detail).toContain(
      'no pane is that far off',
    );
    // taken at its word it would go on for years
    expect(Date.now() - from).toBeLessThan(60_000);
  });
});

test('a job of 150 m of one film is planned, promised and booked from end to end', async () => {
  const jobId = await newJob();
  const film = demoFilms.shade.id;
  const roll = { ...((await get('/api/bench')).body as { rolls: Record<string, unknown>[] }).rolls.find((r) => r['filmId'] === film)!, id: uuidv7(), label: 'S-900', lengthM: 200, pricePerM: '13.00', leadInMm: 0 };
  const device = new TestDevice(ines);
  const write = async (patches: Patch[]) => {
    const { revision } = (await get(`/api/jobs/${jobId}`)).body as JobDocument;
    const answer = await post(`/api/jobs/${jobId}/changes`).send(device.draft(jobId, 'x', patches, revision));
    if (!answer.ok) throw new Error(JSON.stringify(answer.body));
  };
  await write([{ op: 'add', kind: 'roll', id: roll.id, value: roll }]);
  const { id: placeId } = ((await get(`/api/jobs/${jobId}`)).body as JobDocument).places[0]!;
  const panes = Array.from({ length: 60 }, (_, i) => newPane({ id: uuidv7(), jobId, placeId, name: `P${i}`, order: i, filmId: film }));
  await write(panes.map((p) => ({ op: 'add', kind: 'surface', id: p.id, value: p })));
  const pieces = panes.map((p, i) => ({ id: `p${i}`, surfaceId: p.id, label: `P${i}`, filmId: film, method: 'overhang' as const, widthMm: 1400, heightMm: 2480, turns: [0 as const], factoryEdge: null, trimmedEdges: [], path: null, holes: [], meets: null, repeat: null, isPlotted: false, parts: [], why: [], fallback: null })); // prettier-ignore
  const settings = ((await get(`/api/jobs/${jobId}`)).body as JobDocument).job.cut;
  const input = { filmId: film, rolls: [{ id: roll.id, widthMm: 1524, availableMm: 200_000, pricePerM: 13, fixedDrops: [], edges: 'both' as const, lot: '' }], pieces, settings, seed: 1, steps: 20, cutPrice: 0 }; // prettier-ignore
  const computed = await post('/api/compute/layout').send(input);
  expect(computed.status).toBe(200);
  expect(computed.body.usedMm).toBeGreaterThan(148_000);
  expect(computed.body.unplaced).toEqual([]);
  const layout = layPiecesOnRolls(input, 20);
  const plan = { id: uuidv7(), jobId, filmId: film, status: 'draft', inputHash: 'x', coreVersion: 'x', pieces, layout, lockedPieceIds: [], isByHand: false, takenRollIds: [], updatedAt: '2026-12-01T08:00:00Z', deletedAt: null }; // prettier-ignore
  await write([{ op: 'add', kind: 'plan', id: plan.id, value: plan }]);
  const promise = { id: uuidv7(), rollId: roll.id, jobId, filmId: film, lengthMm: layout.usedMm, personId: ines, at: '2026-12-01T08:00:00Z', deletedAt: null };
  await write([{ op: 'add', kind: 'reservation', id: promise.id, value: promise }]);
  const booked = { id: uuidv7(), rollId: roll.id, kind: 'cut', lengthMm: -layout.usedMm, jobId, planId: plan.id, personId: ines, at: '2026-12-01T09:00:00Z', reason: 'Cut', deletedAt: null };
  await write([{ op: 'set', kind: 'reservation', id: promise.id, field: 'deletedAt', value: '2026-12-01T09:00:00Z' }, { op: 'add', kind: 'stockEntry', id: booked.id, value: booked }]);
  const line = ((await get('/api/stock')).body as { roll: { label: string }; remainingMm: number }[]).find((l) => l.roll.label === 'S-900')!;
  expect(line.remainingMm).toBeCloseTo(200_000 - layout.usedMm, 3);
}); // prettier-ignore
