import { panesIn } from '@yellow-pane/demo';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import type { DueJob, JobDocument, LayEntry, PaneDrying } from '@yellow-pane/contracts';
import { checkPanes, Memo, SHIPPED_STEPS_ID } from '@yellow-pane/core';
import type { App } from '../../app.js';
import { ines, openBench, TestDevice, ternPointId, type TestDatabase } from '../../bench.testing.js';

let app: App, open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const job = async () => (await get(`/api/jobs/${ternPointId}`)).body as JobDocument;
const drying = async () => (await get(`/api/jobs/${ternPointId}/drying`)).body as PaneDrying[];
const device = new TestDevice(ines);
const line = (surfaceId: string, more: Partial<LayEntry>): LayEntry => ({
  id: uuidv7(), jobId: ternPointId, surfaceId, personId: ines, occurredAt: '2026-12-03T09:00:00Z', clockOffsetMs: 0, receivedAt: null, stepSetId: SHIPPED_STEPS_ID, kind: 'pane-done',
  stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more,
}); // prettier-ignore
async function send(entry: LayEntry) {
  const draft = device.draft(ternPointId, 'Check', [{ op: 'add', kind: 'layEntry', id: entry.id, value: { ...entry } }], 0);
  const answer = await request(app.http).post(`/api/jobs/${ternPointId}/changes`).set('Host', 'localhost').send(draft);
  if (answer.status !== 200) device.takeBack();
  return answer;
}

test('how fast laid panes dry, by the seasons at their facades; panes that are not laid are left out', async () => {
  const doc = await job();
  const before = new Set((await drying()).map((d) => d.surfaceId));
  const fresh = panesIn(doc).filter((s) => s.filmId && s.exposure && !before.has(s.id) && ['W1', 'T1'].includes(s.name));
  expect(fresh.length).toBe(2);
  for (const s of fresh) expect((await send(line(s.id, {}))).status).toBe(200);
  const after = await drying();
  for (const s of fresh) {
    const own = after.find((d) => d.surfaceId === s.id)!;
    expect(own.losses[0]!.day).toBe(0);
    expect(own.losses.every((l, i) => l.gPerM2 >= 0 && (i === 0 || l.day > own.losses[i - 1]!.day))).toBe(true);
    expect(own.basis).toContain('Made-up weather');
  }
  // a job of which nobody has laid anything has nothing to tell; one that is not there is refused
  expect((await get(`/api/jobs/${uuidv7()}/drying`)).status).toBe(404);
});

test('looks and pins are lines of the log: kept, read again, and refused when half of them is missing', async () => {
  const pane = (await job()).surfaces.find((s) => s.name === 'W1')!.id;
  const mark = line(pane, { kind: 'pin', occurredAt: '2026-12-05T10:00:00Z', pin: { kind: 'speck', at: { xFrac: 0.2, yFrac: 0.7 }, seenFrom: 'room', spread: 'one', sizeMm: 1, answers: {} } });
  const news = (pinId: string) => line(pane, { kind: 'pin-news', occurredAt: '2026-12-05T10:02:00Z', news: { pinId, answers: { hard: 'yes' }, state: 'watched', causeKey: 'dirt', watchUntil: '2026-12-20' } });
  expect((await send(mark)).status).toBe(200);
  expect((await send(news(mark.id))).status).toBe(200);
  expect((await send(line(pane, { kind: 'looked', occurredAt: '2026-12-05T10:05:00Z', look: { water: 'some', isClean: true } }))).status).toBe(200);
  const doc = await job();
  const [here] = checkPanes({ ...doc, memo: new Memo() }, () => null, '2026-12-06T08:00:00Z').filter((p) => p.surface.id === pane);
  expect(here!.pins[0]).toMatchObject({ state: 'watched', causeKey: 'dirt', answers: { hard: 'yes' }, watchUntil: '2026-12-20' });
  expect(here!.looks).toHaveLength(1);

  // the log as a table says what was seen, in words
  const csv = (await get(`/api/jobs/${ternPointId}/log.csv`)).text;
  expect(csv).toContain('"A speck, by itself, 1 mm"');
  expect(csv).toContain('"hard: yes, watched"');
  expect(csv).toContain('looked at: some water left');

  for (const [kind, path] of [['looked', 'look'], ['pin', 'pin'], ['pin-news', 'news']] as const) {
    const answer = await send(line(pane, { kind }));
    expect([answer.status, answer.body.code, answer.body.faults?.[0]?.path]).toEqual([400, 'bad-input', expect.stringContaining(path)]);
  }
  // a pin that is not there has no news
  const lost = await send(news(uuidv7()));
  expect(lost.status).toBe(400);
  // a pin on a line that is none
  expect((await send(line(pane, { kind: 'note', text: 'x', pin: mark.pin }))).status).toBe(400);
}); // prettier-ignore

test('what is due over all jobs: now and within a week, as Check says it; what was decided is due no more', async () => {
  const due = async () => ((await get('/api/due')).body as DueJob[]).find((d) => d.job === 'Tern Point annex')!;
  const before = await due();
  expect(before.now.filter((v) => v.what === 'Decide what was pinned').map((v) => v.pane)).toEqual(['B1', 'B2', 'B3', 'B3', 'B3', 'B3', 'B4']);
  const annex = (await get(`/api/jobs/${before.jobId}`)).body as JobDocument;
  const pin = annex.layEntries.find((e) => e.kind === 'pin' && panesIn(annex).find((s) => s.id === e.surfaceId)!.name === 'B4')!;
  const watchUntil = new Date(Date.now() + 3 * 86_400_000).toISOString().slice(0, 10);
  const news = { ...line(pin.surfaceId!, { kind: 'pin-news', occurredAt: new Date().toISOString(), news: { pinId: pin.id, answers: {}, state: 'watched', causeKey: null, watchUntil } }), jobId: before.jobId }; // prettier-ignore
  const draft = device.draft(before.jobId, 'Check', [{ op: 'add', kind: 'layEntry', id: news.id, value: { ...news } }], 0);
  expect((await request(app.http).post(`/api/jobs/${before.jobId}/changes`).set('Host', 'localhost').send(draft)).status).toBe(200);
  const after = await due();
  expect(after.now.map((v) => v.pane)).not.toContain('B4');
  expect(after.week).toContainEqual({ surfaceId: pin.surfaceId, pane: 'B4', what: 'Look again at what was pinned', on: watchUntil });
  // nothing that is further off than a week
  expect(after.week.every((v) => Date.parse(v.on) <= Date.now() + 7 * 86_400_000)).toBe(true);
});
