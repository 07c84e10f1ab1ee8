import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { demoId, launchAndShuttle, panesIn } from '@yellow-pane/demo';
import { paneCloud, problem, shrinkPlan, squeegeeResult, type ShrinkInput } from '@yellow-pane/contracts';
import { shrinkRequestOf, Memo } from '@yellow-pane/core';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import request from 'supertest';
import type { App } from '../../app.js';
import { openBench } from '../../bench.testing.js';
import { formingSvg } from './forming-sheet-pdf.js';

const jobId = demoId(102);
const ply = readFileSync(join(import.meta.dirname, '../../../../demo/clouds/launch-skylight.ply'));
const idOf = (name: string) => panesIn(launchAndShuttle()).find((s) => s.name === name)!.id;

let bench: Awaited<ReturnType<typeof openBench>>;
let app: App;
beforeAll(async () => {
  bench = await openBench();
  app = bench.app;
});
afterAll(() => bench.open.close());
const post = async (path: string, body: object) => request(app.http).post(path).send(body);
const get = async (path: string) => request(app.http).get(path).buffer(true).parse(toBuffer);
/** A file as it came. */
const toBuffer = (res: request.Response, done: (error: Error | null, body: Buffer) => void): void => {
  const parts: Buffer[] = [];
  res.on('data', (p: Buffer) => parts.push(p));
  res.on('end', () => done(null, Buffer.concat(parts)));
};

async function inputOf(name: string): Promise<ShrinkInput> {
  const doc = await app.jobs.open(jobId);
  const surface = panesIn(doc).find((s) => s.name === name)!;
  const asked = shrinkRequestOf(
    surface,
    { ...doc, memo: new Memo() },
    doc.films.find((f) => f.id === surface.filmId)!,
  )!;
  if ('blocked' in asked) throw new Error(asked.blocked);
  return asked.input;
}

describe('curved glass over the API', () => {
  test('the shuttle’s rear window, as its bows were read: a plan by the contract, its line below the middle because the lower edge bends abruptly', async () => {
    const plan = shrinkPlan.parse((await post('/api/compute/shrink', await inputOf('Rear window'))).body);
    expect(plan.anchor.kind).toBe('balanced');
    expect(plan.anchor.middleMm).toBeLessThan(plan.halfWay.heightMm - 15);
    expect(plan.below.fingers.length).toBeGreaterThan(3);
    expect(plan.summary[1]).toContain('not half way');
    expect(plan.suspects).toEqual([]);
  });
  test('door glass left is measured like the right one and is its mirror: the same slack, the line turned over', async () => {
    const [right, left] = [await inputOf('Door glass right'), await inputOf('Door glass left')];
    expect(left.curved.bows.map((b) => b.way)).toEqual(right.curved.bows.map((b) => (b.way === 'down' ? 'up' : b.way === 'up' ? 'down' : b.way)));
    expect(left.curved.cornerRadiiMm).toEqual([0, 0, 50, 50]);
    const [a, b] = await Promise.all([right, left].map(async (i) => shrinkPlan.parse((await post('/api/compute/shrink', i)).body)));
    // a door glass is laid as an arch: nothing hangs above, and it is formed though it is nearly flat
    expect(a).toMatchObject({ grade: 'easy', anchor: { kind: 'arch' }, above: { fingers: [] } });
    expect(a!.below.fingers.length).toBeGreaterThan(0);
    expect(b!.below.slackMm).toBeCloseTo(a!.below.slackMm, 2);
  });
  test('the flared corner of the cabin is a saddle: it would have to stretch there, and that is said', async () => {
    const plan = shrinkPlan.parse((await post('/api/compute/shrink', await inputOf('Cabin forward'))).body);
    expect(Math.min(plan.above.leastFrac, plan.below.leastFrac)).toBeLessThan(-0.001);
    expect(plan.advice.join(' ')).toContain('A saddle');
    expect(['care', 'beyond']).toContain(plan.grade);
  });
  test('the wheelhouse is refused as lookout glass', async () => {
    const plan = shrinkPlan.parse((await post('/api/compute/shrink', await inputOf('Wheelhouse windscreen'))).body);
    expect(plan.refused).toContain('Lookout glass');
  });
  test('the skylight’s PLY, brought in again, is the cloud that the demo holds', async () => {
    const answer = await post('/api/compute/cloud', { fileName: 'launch-skylight.ply', base64: ply.toString('base64') });
    const cloud = paneCloud.parse(answer.body);
    const held = panesIn(launchAndShuttle()).find((s) => s.name === 'Skylight')!.curved!.cloud!;
    expect(cloud.pointCount).toBe(held.pointCount);
    expect(cloud.strayCount).toBe(held.strayCount);
    expect(cloud.cells.length).toBe(held.cells.length);
    cloud.cells.forEach((c, i) => c.forEach((v, k) => expect(Math.abs(v - held.cells[i]![k]!)).toBeLessThan(0.06)));
  });
  test('what cannot be planned is refused in a sentence with its place', async () => {
    const input = await inputOf('Cabin port');
    const none = await post('/api/compute/shrink', { ...input, curved: { ...input.curved, bows: [] } });
    expect(none.status).toBe(400);
    expect(problem.parse(none.body).detail).toContain('lay the straightedge once across and once upright');
    const torn = await post('/api/compute/cloud', { fileName: 'torn.ply', base64: ply.subarray(0, 4000).toString('base64') });
    expect(torn.status).toBe(400);
    expect(problem.parse(torn.body).detail).toContain('ends early');
    expect((await post('/api/compute/cloud', { fileName: 'x' })).status).toBe(400);
  });
  test('forming sheet: one page a pane, the refused one with its reason; none for a job without curved glass', async () => {
    const sheet = await get(`/api/jobs/${jobId}/forming-sheet.pdf`);
    expect(sheet.status).toBe(200);
    expect(sheet.headers['content-type']).toBe('application/pdf');
    expect(sheet.body.subarray(0, 5).toString()).toBe('%PDF-');
    const one = await get(`/api/jobs/${jobId}/forming-sheet.pdf?surfaceId=${idOf('Rear window')}`);
    expect(one.body.length).toBeLessThan(sheet.body.length);
    const none = await get(`/api/jobs/${demoId(100)}/forming-sheet.pdf`);
    expect(none.status).toBe(422);
  });
  test('on the drawing every finger has its number in the order of work, and the line its three heights', async () => {
    const plan = shrinkPlan.parse((await post('/api/compute/shrink', await inputOf('Rear window'))).body);
    const svg = formingSvg(plan, 'mm');
    plan.order.forEach((_, i) => expect(svg).toContain(`>${i + 1}</text>`));
    for (const mm of [plan.anchor.leftMm, plan.anchor.middleMm, plan.anchor.rightMm]) expect(svg).toContain(`${Math.round(mm)} mm`);
  });
  test('its strokes go out from the line of that plan, mirrored for the room; the run sheet prints them, and no lock or trim of a flat pane', async () => {
    const plan = shrinkPlan.parse((await post('/api/compute/shrink', await inputOf('Rear window'))).body);
    const answer = squeegeeResult.parse(JSON.parse((await get(`/api/jobs/${jobId}/surfaces/${idOf('Rear window')}/squeegee`)).body.toString()));
    if (!answer.ok) throw new Error(answer.why);
    const strokes = answer.plan;
    expect(strokes.passes.map((p) => p.name)).toEqual(['light', 'hard', 'edges']);
    const first = strokes.passes[0]!.strokes[0]!;
    expect(Math.abs(first.path[0]!.y - plan.anchor.middleMm)).toBeLessThan(first.bladeMm / 2 + 1);
    const middle = (Math.min(...plan.finished.map((p) => p.x)) + Math.max(...plan.finished.map((p) => p.x))) / 2;
    expect(Math.abs(first.path[0]!.x + middle)).toBeLessThan(60);
    // upright it is 15 mm hollow over half a metre: a wider blade would lie hollow
    expect(strokes.bladeMm).toBe(150);
    expect(strokes.missedMm2.light).toBeLessThan(25);
    const sheet = await get(`/api/jobs/${jobId}/run-sheet.pdf?surfaceId=${idOf('Rear window')}`);
    const printed = await getDocument({ data: new Uint8Array(sheet.body), verbosity: 0 }).promise;
    const items = (await (await printed.getPage(1)).getTextContent()).items
      .map((t) => ('str' in t ? t.str : ''))
      .join(' ')
      .replace(/\s+/g, ' ');
    expect(items).toContain('Four quarters from the line');
    expect(items).not.toContain('First pass, light');
  });
});
