import jsQR from 'jsqr';
import request from 'supertest';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { v7 as uuidv7 } from 'uuid';
import type { JobDocument, Patch, Plan, Problem, Roll, StockLine } from '@yellow-pane/contracts';
import { filmPlanInput, knifeOrder, promiseNeededMm, reserve, takeFromStock, Memo } from '@yellow-pane/core';
import { demoFilms } from '@yellow-pane/demo';
import type { App } from '../../app.js';
import { ines, lanternStreetId, okan, draftPlan, openBench, TestDevice, ternPointId, type TestDatabase } from '../../bench.testing.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());

const device = new TestDevice(ines);
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const document = async (jobId: string): Promise<JobDocument> => (await get(`/api/jobs/${jobId}?personId=${ines}`)).body as JobDocument;
const lines = async (): Promise<StockLine[]> => (await get('/api/stock')).body as StockLine[];
const line = async (label: string): Promise<StockLine> => (await lines()).find((l) => l.roll.label === label)!;
const who = () => ({ personId: ines, at: new Date().toISOString(), newId: uuidv7 });
async function change(jobId: string, label: string, patches: Patch[], by = device) {
  const revision = ((await get(`/api/jobs/${jobId}`)).body as JobDocument).revision;
  const answer = await request(app.http)
    .post(`/api/jobs/${jobId}/changes`)
    .set('Host', 'localhost')
    .send(by.draft(jobId, label, patches, revision));
  if (!answer.ok) by.takeBack();
  return answer;
}
/** Lays a film of a job out and stores the plan. */
async function storePlan(jobId: string, filmId: string): Promise<Plan> {
  const doc = await document(jobId);
  const plan = draftPlan(doc, filmId, 30);
  expect((await change(jobId, 'Lay', [{ op: 'add', kind: 'plan', id: plan.id, value: plan }])).status).toBe(200);
  return plan;
}

describe('a plan, its promise and the stock', () => {
  test('promised, then cut: the roll is shorter, leftovers are there with labels; undo gives it all back; after the first tick it stands', async () => {
    const guard = demoFilms.guard.id;
    const plan = await storePlan(ternPointId, guard);
    let doc = await document(ternPointId);
    const roll = doc.rolls.find((r) => r.filmId === guard)!;
    const needed = promiseNeededMm(plan, roll, doc.stock, ternPointId);
    expect((await change(ternPointId, 'Promise', reserve(roll.id, guard, needed, doc, who()))).status).toBe(200);
    expect((await line('B-031')).freeMm).toBeCloseTo(18_200 - needed, 3);
    doc = await document(ternPointId);
    const before = doc.rolls.length;
    expect((await change(ternPointId, 'Cut for real', takeFromStock(plan, roll.id, doc, who()))).status).toBe(200);
    doc = await document(ternPointId);
    expect((await line('B-031')).remainingMm).toBeCloseTo(18_200 - needed, 3);
    expect((await line('B-031')).reservedMm).toBe(0);
    expect(doc.rolls.length).toBeGreaterThan(before);
    expect((await line('B-031/1')).roll).toMatchObject({ form: 'leftover', lot: 'L2511-C' });
    // undo, as one
    const undone = await request(app.http).post(`/api/jobs/${ternPointId}/undo`).set('Host', 'localhost').send(device.undo());
    expect(undone.status).toBe(200);
    doc = await document(ternPointId);
    expect([(await line('B-031')).remainingMm, doc.rolls.length, doc.plans.find((p) => p.id === plan.id)!.status]).toEqual([18_200, before, 'draft']);
    expect((await line('B-031')).reservedMm).toBeCloseTo(needed, 3);
    // again, and a tick
    await change(ternPointId, 'Cut for real', takeFromStock(plan, roll.id, doc, who()));
    const step = knifeOrder(plan.layout, plan.pieces, () => roll.widthMm, 'mm')[0]!;
    const tick = {
      id: uuidv7(),
      jobId: ternPointId,
      at: new Date().toISOString(),
      personId: ines,
      kind: 'cut-done',
      planId: plan.id,
      stepKey: step.key,
      surfaceId: null,
      note: '',
    };
    await change(ternPointId, 'Cut made', [{ op: 'add', kind: 'logEntry', id: tick.id, value: tick }]);
    const { canUndo } = await document(ternPointId);
    expect(canUndo).toBe('Promise');
  });

  test('what the search laid is no step of anybody; a move by hand is, until the knife has been at the plan', async () => {
    const { film, found } = await (async () => {
      const doc = await document(lanternStreetId);
      const frost = doc.films.find((f) => f.kind === 'frosted' && doc.surfaces.some((s) => s.filmId === f.id))!;
      return { film: frost, found: await storePlan(lanternStreetId, frost.id) };
    })();
    const before = (await document(lanternStreetId)).canUndo;
    expect(before).not.toBe('Lay');
    const moved = { ...found, id: uuidv7(), isByHand: true };
    const move: Patch[] = [
      { op: 'add', kind: 'plan', id: moved.id, value: moved },
      { op: 'set', kind: 'plan', id: found.id, field: 'deletedAt', value: moved.updatedAt },
    ];
    await change(lanternStreetId, 'Move B1 by hand', move);
    expect((await document(lanternStreetId)).canUndo).toBe('Move B1 by hand');
    const step = (way: 'undo' | 'redo') => request(app.http).post(`/api/jobs/${lanternStreetId}/${way}`).set('Host', 'localhost').send(device.undo()); // prettier-ignore
    await step('undo');
    expect((await document(lanternStreetId)).plans.map((p) => p.id)).toEqual([found.id]);
    await step('redo');
    const doc = await document(lanternStreetId);
    expect(doc.plans.map((p) => p.id)).toEqual([moved.id]);
    const first = knifeOrder(moved.layout, moved.pieces, (id) => doc.rolls.find((r) => r.id === id)!.widthMm, 'mm')[0]!;
    const tick = { id: uuidv7(), jobId: lanternStreetId, at: moved.updatedAt, personId: ines, kind: 'cut-done', planId: moved.id, stepKey: first.key, surfaceId: null, note: '' }; // prettier-ignore
    expect((await change(lanternStreetId, 'Cut made', [{ op: 'add', kind: 'logEntry', id: tick.id, value: tick }])).status).toBe(200);
    expect([film.kind, (await document(lanternStreetId)).canUndo]).toEqual(['frosted', before]);
  });

  test('two jobs cannot promise the same metre, and a roll somebody counts on cannot go', async () => {
    const doc = await document(ternPointId);
    const roll = doc.rolls.find((r) => r.label === 'S-108')!;
    expect((await change(ternPointId, 'Promise', reserve(roll.id, roll.filmId, 9000, doc, who()))).status).toBe(200);
    const other = await document(lanternStreetId);
    const refused = await change(lanternStreetId, 'Promise', reserve(roll.id, roll.filmId, 4000, other, who()));
    expect([refused.status, (refused.body as Problem).code]).toEqual([409, 'stock-promised']);
    expect((refused.body as Problem).detail).toMatch(/S-108 has 12.40 m left and 13.00 m would be promised \(Tern Point terminal 9.00 m/);
    expect((await change(lanternStreetId, 'Promise', reserve(roll.id, roll.filmId, 3000, await document(lanternStreetId), who()))).status).toBe(200);
    const gone = await change(ternPointId, 'Away', [{ op: 'set', kind: 'roll', id: roll.id, field: 'deletedAt', value: new Date().toISOString() }]);
    expect((gone.body as Problem).code).toBe('stock-promised');
    // the other job's plan sees only what is free for it
    const input = filmPlanInput({ ...(await document(lanternStreetId)), memo: new Memo() }, (await document(lanternStreetId)).job.cut, roll.filmId, undefined);
    expect(input.layout.rolls.find((r) => r.id === roll.id)!.availableMm).toBe(12_400 - 9000 - roll.leadInMm);
  });

  test('more than there is cannot be cut; a count tells what is there, promised or not', async () => {
    const { roll, remainingMm } = await line('F-207');
    const entry = (kind: string, lengthMm: number) => ({
      id: uuidv7(),
      rollId: roll.id,
      kind,
      lengthMm,
      jobId: null,
      planId: null,
      personId: okan,
      at: new Date().toISOString(),
      reason: 'test',
      deletedAt: null,
    });
    const add = (e: { id: string }): Patch[] => [{ op: 'add', kind: 'stockEntry', id: e.id, value: e as unknown as Record<string, unknown> }];
    const firm = (await document(ternPointId)).firm.id;
    const post = (patches: Patch[]) => request(app.http).post(`/api/jobs/${firm}/changes`).set('Host', 'localhost').send(device.draft(firm, 'x', patches, 1e6)); // prettier-ignore
    const much = await post(add(entry('cut', -remainingMm - 1000)));
    expect([(much.body as Problem).code, (much.body as Problem).detail]).toEqual(['stock-short', expect.stringContaining('cannot be cut from it')]);
    device.takeBack();
    expect((await post(add(entry('count', -400)))).status).toBe(200);
    expect((await line('F-207')).remainingMm).toBe(remainingMm - 400);
  });
});

describe('stock in and out', () => {
  const bring = (csv: string, same = 'ask') =>
    request(app.http)
      .post(`/api/stock.csv?personId=${ines}&deviceId=${uuidv7()}&same=${same}`)
      .set('Host', 'localhost')
      .set('Content-Type', 'text/csv')
      .send(csv);

  test('what goes out as CSV comes in again as known labels; a changed length is a count', async () => {
    const csv = (await get('/api/stock.csv')).text;
    expect(csv.split('\r\n')[0]).toBe('label,film,form,lot,widthMm,lengthM,place,edges,leadInMm,pricePerM');
    expect((await bring(csv)).body).toMatchObject({ code: 'rolls-known' });
    const shorter = csv.replace(/^(R-012,.*?,)9\.500,/m, '$18.000,');
    expect((await bring(shorter, 'count')).body).toMatchObject({ added: 0, counted: 1 });
    expect((await line('R-012')).remainingMm).toBe(8000);
  });
  test('a row that does not read is named, and nothing comes in', async () => {
    const before = (await lines()).length;
    const answer = await bring('label,film,widthMm,lengthM\nX-1,Tern Shade 35,1524,30\nX-2,No Such Film,1524,30\nX-3,Tern Shade 35,wide,30');
    expect((answer.body as Problem).faults!.map((f) => f.path)).toEqual(['row 3, film', 'row 4, widthMm']);
    expect((await bring('label,film\nX,Y')).body).toMatchObject({ code: 'bad-input' });
    expect((await lines()).length).toBe(before);
    expect((await bring('label,film,widthMm,lengthM,form\nX-1,Tern Shade 35,1524,30,roll\nX-2,Tern Shade 35,700,1.2,leftover')).body).toEqual({
      added: 2,
      counted: 0,
      skipped: 0,
    });
    // a roll without a price has the one the film is sold at
    expect((await line('X-1')).roll.pricePerM).toBe('13.56');
    expect((await line('X-2')).roll.edges).toBe('none');
  });
  test('labels: a page with every label, and a code that a scanner reads as YP:label', async () => {
    const { roll } = await line('S-102/1');
    const pdf = await get(`/api/stock/labels.pdf?ids=${roll.id}`).buffer(true).parse((res, done) => {
      const chunks: Buffer[] = [];
      res.on('data', (c: Buffer) => chunks.push(c));
      res.on('end', () => done(null, Buffer.concat(chunks)));
    }); // prettier-ignore
    const doc = await getDocument({ data: new Uint8Array(pdf.body as Buffer), verbosity: 0 }).promise;
    const page = await doc.getPage(1);
    const text = (await page.getTextContent()).items
      .map((x) => ('str' in x ? x.str : ''))
      .join(' ')
      .replace(/\s+/g, ' ');
    expect(text).toContain('S-102/1');
    expect(text).toContain('Tern Shade 35');
    // the squares of the code are the filled rectangles of the page: drawn again, an independent reader reads them
    const { fnArray, argsArray } = await page.getOperatorList();
    const squares = squaresOf(fnArray, argsArray);
    const image = drawn(squares);
    expect(jsQR(image.data, image.size, image.size)?.data).toBe('YP:S-102/1');
  });
  test('a label of a roll that is not here is refused', async () => expect((await get(`/api/stock/labels.pdf?ids=${uuidv7()}`)).status).toBe(404));
});

type Square = { x: number; y: number; w: number; h: number };
/** Small filled rectangles of a page, from its path operators. */
function squaresOf(ops: number[], args: unknown[][]): Square[] {
  const out: Square[] = [];
  ops.forEach((_, i) => {
    const box = args[i]?.[2] as Float32Array | undefined;
    if (!box || box.length !== 4) return;
    const [x0, y0, x1, y1] = box as unknown as [number, number, number, number];
    if (Math.abs(x1 - x0) < 8 && Math.abs(y1 - y0) < 8 && x1 > x0) out.push({ x: x0, y: y0, w: x1 - x0, h: y1 - y0 });
  });
  return out;
}
function drawn(squares: readonly Square[]): { data: Uint8ClampedArray; size: number } {
  const [minX, minY] = [Math.min(...squares.map((s) => s.x)), Math.min(...squares.map((s) => s.y))];
  const span = Math.max(...squares.map((s) => s.x + s.w)) - minX;
  const scale = 320 / span;
  const size = 400;
  const data = new Uint8ClampedArray(size * size * 4).fill(255);
  for (const s of squares)
    for (let y = Math.round((s.y - minY) * scale); y < Math.round((s.y + s.h - minY) * scale); y++)
      for (let x = Math.round((s.x - minX) * scale); x < Math.round((s.x + s.w - minX) * scale); x++) {
        const at = ((y + 40) * size + x + 40) * 4;
        data[at] = data[at + 1] = data[at + 2] = 0;
      }
  return { data, size };
}

test('a job file carries what its job took; on this bench a copy takes nothing twice', async () => {
  const file = (await get(`/api/jobs/${ternPointId}/file`)).body as { stockEntries: unknown[]; rolls: Roll[] };
  expect(file.stockEntries.length).toBeGreaterThan(0);
  const before = await lines();
  const copy = await request(app.http).post(`/api/job-files?personId=${ines}&deviceId=${uuidv7()}`).set('Host', 'localhost').send(file);
  expect(copy.body).toMatchObject({ isCopy: true });
  expect((await lines()).map((l) => l.remainingMm)).toEqual(before.map((l) => l.remainingMm));
});
