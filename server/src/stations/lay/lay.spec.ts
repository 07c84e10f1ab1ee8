import { createHash } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import request from 'supertest';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import type { Change, JobDocument, JobFile, JointsAnswer, LayEntry, RunSheetBody, StepSet, Wall } from '@yellow-pane/contracts';
import { Memo, plainStroke, shippedSteps, SHIPPED_STEPS_ID, texturedWallOf, unknownFigures, zonesOfPanel, type LayRecords } from '@yellow-pane/core';
import type { App } from '../../app.js';
import { ines, okan, openBench, TestDevice, ternPointId, type TestDatabase } from '../../bench.testing.js';

let app: App, open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const post = (path: string, body: object) => request(app.http).post(path).set('Host', 'localhost').send(body);
const job = async () => (await get(`/api/jobs/${ternPointId}`)).body as JobDocument;
const pane = async (name: string) => (await job()).surfaces.find((s) => s.name === name)!.id;
const line = (surfaceId: string | null, more: Partial<LayEntry> = {}): LayEntry => ({
  id: uuidv7(), jobId: ternPointId, surfaceId, personId: ines, occurredAt: '2026-12-03T09:00:00Z', clockOffsetMs: -120, receivedAt: null, stepSetId: SHIPPED_STEPS_ID, kind: 'pane-done',
  stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, ...more,
}); // prettier-ignore
const send = (device: TestDevice, entry: LayEntry) => {
  const draft = device.draft(ternPointId, 'Lay', [{ op: 'add', kind: 'layEntry', id: entry.id, value: { ...entry } }], 0);
  return { draft, answer: post(`/api/jobs/${ternPointId}/changes`, draft) };
};

describe('run sheet and strokes', () => {
  test('the steps of a pane with its own figures and minutes', async () => {
    const sheet = (await get(`/api/jobs/${ternPointId}/surfaces/${await pane('W2')}/run-sheet`)).body as RunSheetBody;
    expect(sheet.stepSetId).toBe(SHIPPED_STEPS_ID);
    expect(sheet.steps.map((s) => s.key)).toEqual(expect.arrayContaining(['stamp', 'lock', 'hard', 'bump']));
    expect(sheet.minutes).toBeGreaterThan(10);
    expect(sheet.steps.find((s) => s.key === 'lock')!.text).toContain('13 mm');
  });
  test('strokes that press everything; an outline of one’s own can be asked too', async () => {
    const own = await get(`/api/jobs/${ternPointId}/surfaces/${await pane('W2')}/squeegee`);
    expect(own.body.ok).toBe(true);
    expect(own.body.plan.missedMm2.light).toBeLessThan(25);
    const outline = [{ x: 0, y: 0 }, { x: 900, y: 0 }, { x: 900, y: 1200 }, { x: 0, y: 1200 }]; // prettier-ignore
    expect((await post('/api/compute/squeegee', { outline, bladeMm: 300 })).body.plan.strokeCount).toBe(27);
    expect((await post('/api/compute/squeegee', { outline: outline.slice(0, 2), bladeMm: 300 })).status).toBe(400);
  });
  test('a pane with nothing to lay is refused in a sentence', async () => {
    const without = (await job()).surfaces.find((s) => !s.filmId)!;
    const answer = await get(`/api/jobs/${ternPointId}/surfaces/${without.id}/run-sheet`);
    expect([answer.status, answer.body.code]).toEqual([422, 'not-layable']);
  });
});

describe('the log', () => {
  const device = new TestDevice(ines);
  test('a line is written once, however often it is sent, and the bench adds when it came in', async () => {
    const { draft, answer } = send(device, line(await pane('W1'), { receivedAt: '2020-01-01T00:00:00Z' }));
    expect((await answer).status).toBe(200);
    expect((await post(`/api/jobs/${ternPointId}/changes`, draft)).status).toBe(200);
    const [only, ...more] = (await job()).layEntries;
    expect(more).toEqual([]);
    expect(Date.now() - Date.parse(only!.receivedAt!)).toBeLessThan(60_000);
    expect(only).toMatchObject({ occurredAt: '2026-12-03T09:00:00Z', clockOffsetMs: -120 });
  });
  test('a line out of its turn is refused with the number that is missing', async () => {
    const { draft, answer } = send(device, line(await pane('W2')));
    const later = send(device, line(await pane('W3')));
    const refused = await later.answer;
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([409, 'sequence-gap', expect.stringContaining(`number ${draft.deviceSeq}`)]);
    expect((await answer).status).toBe(200);
    expect((await post(`/api/jobs/${ternPointId}/changes`, later.draft)).status).toBe(200);
  });
  test('it is never edited and never undone; a correction is a line of its own', async () => {
    const [first] = (await job()).layEntries;
    const edit = await post(`/api/jobs/${ternPointId}/changes`, device.draft(ternPointId, 'Edit', [{ op: 'set', kind: 'layEntry', id: first!.id, field: 'text', value: 'x' }], 0)); // prettier-ignore
    expect([edit.status, edit.body.code]).toEqual([409, 'fact-stands']);
    device.takeBack();
    const undone = await post(`/api/jobs/${ternPointId}/undo`, device.undo());
    expect(undone.body.code).toBe('nothing-to-undo');
    device.takeBack();
    expect((await send(device, line(first!.surfaceId, { kind: 'correction', correctsId: first!.id, text: 'wrong pane' })).answer).status).toBe(200);
  });
  test.each([
    ['a pane of another job', { surfaceId: uuidv7() }, 'surfaceId'],
    ['steps nobody has', { stepSetId: uuidv7() }, 'stepSetId'],
    ['a problem that is none', { kind: 'problem' as const }, 'problem'],
    ['a photo that has not come in', { photo: 'a'.repeat(64) }, 'photo'],
    ['a correction of nothing', { kind: 'correction' as const }, 'correctsId'],
    ['a person who does not work here', { personId: uuidv7() }, 'personId'],
  ])('refuses %s, names the field, and nothing is written', async (_, more, path) => {
    const before = (await job()).layEntries.length;
    const answer = await send(device, line(await pane('W1'), more)).answer;
    device.takeBack();
    expect([answer.status, answer.body.faults[0].path]).toEqual([400, expect.stringMatching(new RegExp(`(^|\\.)${path}$`))]);
    expect((await job()).layEntries).toHaveLength(before);
  });
  test('goes out with the job file and comes in again; a photo stays on the bench that took it', async () => {
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#884422' } })
      .png()
      .toBuffer();
    const { photo } = (await request(app.http).post('/api/photos').set('Host', 'localhost').set('Content-Type', 'image/png').send(picture)).body;
    expect((await send(device, line(await pane('W1'), { kind: 'photo', photo, text: 'chip, lower left' })).answer).status).toBe(200);
    const file = (await get(`/api/jobs/${ternPointId}/file`)).body as JobFile;
    expect(file.formatVersion).toBe(17);
    const other = await openBench();
    try {
      const there = await request(other.app.http).post(`/api/job-files?personId=${okan}&deviceId=${uuidv7()}`).set('Host', 'localhost').send(file);
      const doc = (await request(other.app.http).get(`/api/jobs/${there.body.jobId}`).set('Host', 'localhost')).body as JobDocument;
      expect(doc.layEntries).toHaveLength(file.layEntries.length);
      expect(doc.layEntries.find((e) => e.text.startsWith('chip'))).toMatchObject({
        kind: 'note',
        photo: null,
        text: expect.stringContaining('stayed on the other bench'),
      });
    } finally {
      await other.open.close();
    }
  });
});

describe('photos', () => {
  const upload = (bytes: Buffer, type = 'image/jpeg') => request(app.http).post('/api/photos').set('Host', 'localhost').set('Content-Type', type).send(bytes);
  test('are made smaller, lose place and camera, are turned upright, and are named by what is in them', async () => {
    const taken = await sharp({ create: { width: 3000, height: 2000, channels: 3, background: '#3355aa' } })
      .withExif({ IFD0: { Make: 'Some camera' }, IFD3: { GPSLatitude: '38/1 41/1 0/1', GPSLatitudeRef: 'N' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const { body } = await upload(taken);
    const kept = (await get(`/api/photos/${body.photo}`).responseType('blob')).body as Buffer;
    expect(createHash('sha256').update(kept).digest('hex')).toBe(body.photo);
    const meta = await sharp(kept).metadata();
    expect([meta.width, meta.height, meta.exif, meta.xmp, meta.iptc]).toEqual([1067, 1600, undefined, undefined, undefined]);
    expect((await upload(taken)).body.photo).toBe(body.photo);
  });
  test('what is no picture is refused; one that is not there is not found', async () => {
    expect((await upload(Buffer.from('not a picture'))).body.detail).toContain('does not read as a picture');
    expect((await request(app.http).post('/api/photos').set('Host', 'localhost').send({ a: 1 })).status).toBe(400);
    expect((await get(`/api/photos/${'0'.repeat(64)}`)).status).toBe(404);
    // once these two failed as if the bench itself had broken
    expect((await get('/api/photos/chip')).body).toMatchObject({ code: 'bad-input', faults: [{ path: 'path.photo' }] });
    expect((await get('/api/jobs/no-id/stream')).body).toMatchObject({ code: 'bad-input', faults: [{ path: 'path.jobId' }] });
  });
});

describe('the firm’s own steps', () => {
  const firmId = shippedSteps('x').firmId;
  const device = new TestDevice(ines);
  const version = async (more: Partial<StepSet>): Promise<StepSet> => {
    const { firm } = (await get('/api/session')).body;
    return { ...shippedSteps(firm.id), id: uuidv7(), version: 2, replacesId: SHIPPED_STEPS_ID, note: 'ours', createdAt: '2026-12-01T08:00:00Z', ...more };
  };
  const write = (s: StepSet) =>
    post(`/api/jobs/${s.firmId}/changes`, device.draft(s.firmId, 'Steps', [{ op: 'add', kind: 'stepSet', id: s.id, value: { ...s } }], 0));
  test('a figure that stands for nothing is named, two steps of one key are refused', async () => {
    expect(firmId).toBe('x');
    const steps = shippedSteps('x').steps;
    const bad = await write(await version({ steps: [{ ...steps[0]!, text: 'Keep {edgeGapp} off' }] }));
    device.takeBack();
    expect(bad.body.faults[0].message).toContain('{edgeGapp}');
    // what may stand there is named, and all of it is known
    const named = [...(bad.body.faults[0].message as string).matchAll(/\{\w+\}/g)].map((m) => m[0]).filter((n) => n !== '{edgeGapp}');
    expect(named).toEqual(expect.arrayContaining(['{girth}', '{slack}', '{holes}', '{hinge}']));
    expect(unknownFigures({ ...steps[0]!, text: named.join(' ') })).toEqual([]);
    const twice = await write(await version({ steps: [steps[0]!, steps[0]!] }));
    device.takeBack();
    expect(twice.body.faults[0].message).toContain('same key');
  });
  test('a new version is for jobs that have not begun: Tern Point has, and keeps its own', async () => {
    const ours = await version({});
    expect((await write(ours)).status).toBe(200);
    expect(((await get('/api/bench')).body as { stepSets: StepSet[] }).stepSets.map((s) => s.version)).toEqual([2]);
    const sheet = (await get(`/api/jobs/${ternPointId}/surfaces/${await pane('W2')}/run-sheet`)).body as RunSheetBody;
    expect(sheet.stepSetId).toBe(SHIPPED_STEPS_ID);
  });
  test('two people writing a version at once: the second is told', async () => {
    const late = await write(await version({}));
    device.takeBack();
    expect([late.status, late.body.detail]).toEqual([400, expect.stringContaining('next version of the steps is 3')]);
  });
});

describe('on paper and as a table', () => {
  const pdfText = async (path: string) => {
    const pdf = await get(path).buffer(true).parse((res, done) => {
      const parts: Buffer[] = [];
      res.on('data', (d: Buffer) => parts.push(d));
      res.on('end', () => done(null, Buffer.concat(parts)));
    }); // prettier-ignore
    expect([pdf.status, pdf.type]).toEqual([200, 'application/pdf']);
    const document = await getDocument({ data: new Uint8Array(pdf.body as Buffer), verbosity: 0 }).promise;
    let text = '';
    for (let i = 1; i <= document.numPages; i++)
      text += (await (await document.getPage(i)).getTextContent()).items.map((t) => ('str' in t ? t.str : '')).join(' ');
    return { text: text.replace(/\s+/g, ' '), pages: document.numPages };
  };
  test('the run sheet of a pane: its steps to tick, its strokes, the caution at the step where it bites', async () => {
    const { text, pages } = await pdfText(`/api/jobs/${ternPointId}/run-sheet.pdf?surfaceId=${await pane('W2')}`);
    expect(pages).toBeLessThanOrEqual(2);
    for (const words of ['W2 · Waiting room', 'Find the stamp', 'Never scrape coated', 'Hard pass', 'strokes, blade']) expect(text).toContain(words);
  });
  describe('a textured wall', () => {
    const interior = async () => {
      const { jobs } = (await get('/api/jobs?find=interior')).body as { jobs: { id: string; name: string }[] };
      const { id } = jobs.find((j) => j.name === 'Tern Point interior')!;
      const doc = (await get(`/api/jobs/${id}`)).body as JobDocument;
      return { id, doc, wall: doc.surfaces.find((s) => s.name === 'Corridor wall') as Wall };
    };
    const body = async () => ({
      masonry: (await interior()).wall.masonry,
      wall: { widthMm: 1300, heightMm: 900 },
      panel: { leftMm: 0, rightMm: 1300, footMm: 0, topMm: 900 },
      borders: { left: 'closed', right: 'free', foot: 'free', top: 'free' },
    });
    test('the order of its joints by figures alone; one’s own is judged; nonsense is refused in a sentence', async () => {
      const plan = (await post('/api/compute/joints', await body())).body as JointsAnswer;
      expect(plan).toMatchObject({ doubt: null, verdict: null, pierces: [] });
      const strokes = plan.zones.flatMap((z) => z.strokes.map((s) => s.stroke));
      expect(((await post('/api/compute/joints', { ...(await body()), strokes })).body as JointsAnswer).verdict).toMatchObject({ isClean: true });
      expect(((await post('/api/compute/joints', { ...(await body()), border: 'set-first' })).body as JointsAnswer).pierces.length).toBeGreaterThan(0);
      const refused = await post('/api/compute/joints', { ...(await body()), masonry: null });
      expect([refused.status, refused.type]).toEqual([400, 'application/problem+json']);
    });
    test('its run sheet has a page for each place, drop by drop; a place that is done is no longer printed', async () => {
      const { id, wall } = await interior();
      const path = `/api/jobs/${id}/run-sheet.pdf?surfaceId=${wall.id}`;
      const before = await pdfText(path);
      for (const words of ['Drop 1, from the floor', 'Drop 1, from the platform', 'Drop 2, from the floor', 'Joints with the joint wheel'])
        expect(before.text).toContain(words);
      const plan = zonesOfPanel(texturedWallOf(wall, { ...(await interior()).doc, memo: new Memo() } as unknown as LayRecords)!.panels[0]!, []);
      const zone = { panel: 1, graph: plan.graph, strokes: plan.left[0]!.strokes.map(plainStroke) };
      const entry = { ...line(wall.id, { kind: 'zone-done', zone, text: 'Drop 1, from the floor' }), jobId: id };
      const draft = new TestDevice(okan).draft(id, 'Lay', [{ op: 'add', kind: 'layEntry', id: entry.id, value: { ...entry } }], 0);
      expect((await post(`/api/jobs/${id}/changes`, draft)).status).toBe(200);
      const after = await pdfText(path);
      expect(after.text).not.toContain('Drop 1, from the floor');
      expect(after.text).toContain('Drop 1, from the platform');
      expect(after.pages).toBe(before.pages - 1);
      // and it goes out with the job and comes in again
      const file = (await get(`/api/jobs/${id}/file`)).body as JobFile;
      expect(file.layEntries.find((e) => e.id === entry.id)!.zone).toEqual(zone);
    });
  });
  test('the log as CSV: every line, taken-back ones marked, no cell that a table program would run', async () => {
    const device = new TestDevice(ines);
    await send(device, line(await pane('W6'), { kind: 'note', text: '=1+1' })).answer;
    await send(device, line(await pane('W6'), { kind: 'reading', reading: { what: 'hollow', valueC: 41.5 } })).answer;
    const csv = (await get(`/api/jobs/${ternPointId}/log.csv`)).text;
    const [head, ...rows] = csv.trim().split('\r\n');
    expect(head).toBe('occurredAt,receivedAt,pane,person,kind,step,text,glassC,lot,photo,signedBy,isInForce,filmC,stretch,hollowC');
    expect(rows.some((r) => r.endsWith(',,,41.5'))).toBe(true);
    expect(rows).toHaveLength((await job()).layEntries.length);
    expect(csv).toContain("'=1+1");
    expect(csv).toContain('taken back');
  });
});

test('how long panes took, over all jobs: from tap to tap of one person', async () => {
  const device = new TestDevice(okan);
  for (const [name, at] of [
    ['O1', '10:00'],
    ['O2', '10:30'],
    ['O3', '11:00'],
  ] as const)
    // prettier-ignore
    expect((await send(device, line(await pane(name), { personId: okan, occurredAt: `2026-12-03T${at}:00Z` })).answer).status).toBe(200);
  const learned = (await get('/api/lay/minutes')).body as { work: string; paneCount: number; factor: number }[];
  expect(learned.find((l) => l.work === 'security')).toMatchObject({ paneCount: 2, jobCount: 1 });
  expect(learned.find((l) => l.work === 'security')!.factor).toBeGreaterThan(0.2);
});

describe('others hear of every change (server-sent events)', () => {
  let server: Server;
  let url: string;
  beforeAll(async () => {
    await new Promise<void>((r) => void (server = app.http.listen(0, '127.0.0.1', () => r())));
    url = `http://localhost:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => {
    server.closeAllConnections();
    server.close();
  });
  const hear = async (path: string, count: number, headers: Record<string, string> = {}): Promise<Change[]> => {
    const stop = new AbortController();
    const res = await fetch(`${url}${path}`, { signal: stop.signal, headers });
    const heard: Change[] = [];
    const reader = res.body!.pipeThrough(new TextDecoderStream()).getReader();
    for (let text = ''; heard.length < count;) {
      const { value, done } = await reader.read();
      if (done) break;
      text += value;
      const blocks = text.split('\n\n');
      text = blocks.pop()!;
      heard.push(...blocks.flatMap((b) => (/^data: (.*)$/m.exec(b) ? [JSON.parse(/^data: (.*)$/m.exec(b)![1]!) as Change] : [])));
    }
    stop.abort();
    return heard;
  };
  test('what is made while one listens; what was missed comes first; other jobs stay out', async () => {
    const device = new TestDevice(okan);
    const at = (await job()).revision;
    const one = send(device, line(await pane('W1'), { kind: 'note', text: 'one' }));
    await one.answer;
    const listening = hear(`/api/jobs/${ternPointId}/stream?after=${at}`, 2);
    await new Promise((r) => setTimeout(r, 150));
    await send(device, line(await pane('W1'), { kind: 'note', text: 'two' })).answer;
    const heard = await listening;
    expect(heard.map((c) => (c.patches[0] as { value: LayEntry }).value.text)).toEqual(['one', 'two']);
    const again = await hear(`/api/jobs/${ternPointId}/stream`, 1, { 'Last-Event-ID': String(heard[0]!.revision) });
    expect((again[0]!.patches[0] as { value: LayEntry }).value.text).toBe('two');
  });
});
