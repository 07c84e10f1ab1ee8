import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import ICAL from 'ical.js';
import request from 'supertest';
import sharp from 'sharp';
import { v7 as uuidv7 } from 'uuid';
import type { CallBack, EraseAnswer, JobDocument, LayEntry, SealCheck } from '@yellow-pane/contracts';
import { demoId } from '@yellow-pane/demo';
import { Memo, sealPanes, SHIPPED_STEPS_ID } from '@yellow-pane/core';
import type { App } from '../../app.js';
import { ines, okan, openBench, TestDevice, type TestDatabase } from '../../bench.testing.js';

const annexId = demoId(103);
let app: App, open: TestDatabase;
const languagesDir = mkdtempSync(join(tmpdir(), 'yellow-pane-languages-'));
beforeAll(async () => ({ app, open } = await openBench(null, { languagesDir, backups: () => ['daily-1.tar.gz'] })), 60_000);
afterAll(() => open.close());
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const post = (path: string, body: object) => request(app.http).post(path).set('Host', 'localhost').send(body);
const job = async () => (await get(`/api/jobs/${annexId}`)).body as JobDocument;
const device = new TestDevice(ines);
const line = (surfaceId: string | null, more: Partial<LayEntry>): LayEntry => ({
  id: uuidv7(), jobId: annexId, surfaceId, personId: ines, occurredAt: new Date().toISOString(), clockOffsetMs: 0, receivedAt: null, stepSetId: SHIPPED_STEPS_ID, kind: 'note',
  stepKey: null, text: '', reading: null, found: null, photo: null, problem: null, roll: null, signature: null, correctsId: null, salt: uuidv7().replaceAll('-', ''), ...more,
}); // prettier-ignore
async function send(entry: LayEntry) {
  const draft = device.draft(annexId, `${entry.signature?.name ?? 'A line'} `, [{ op: 'add', kind: 'layEntry', id: entry.id, value: { ...entry } }], 0);
  const answer = await post(`/api/jobs/${annexId}/changes`, draft);
  if (answer.status !== 200) device.takeBack();
  return answer;
}
const signed = async (names: readonly string[], name = 'Rowan Vale'): Promise<LayEntry> => {
  const doc = await job();
  const ids = names.map((n) => doc.surfaces.find((s) => s.name === n)!.id);
  return line(null, { kind: 'accepted', signature: { name, strokes: [[[0.1, 0.1], [0.5, 0.2]]] }, acceptance: sealPanes(ids, { ...doc, memo: new Memo() }) }); // prettier-ignore
};
const seals = async () => (await get(`/api/jobs/${annexId}/hand-over`)).body as SealCheck[];
/** What a PDF says, by a reader that is not ours. */
async function textOf(bytes: Buffer): Promise<string> {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  let text = '';
  for (let i = 1; i <= document.numPages; i++)
    text += (await (await document.getPage(i)).getTextContent()).items.map((t) => ('str' in t ? t.str : '')).join(' ') + ' ';
  return text.replace(/\s+/g, ' ');
}
const pdf = async (path: string) => {
  const answer = await get(path).buffer().parse((res, done) => { const parts: Buffer[] = []; res.on('data', (c: Buffer) => parts.push(c)); res.on('end', () => done(null, Buffer.concat(parts))); }); // prettier-ignore
  return { status: answer.status, bytes: answer.body as Buffer };
};

describe('the seal', () => {
  test('signed, it holds; what comes later is told; another film breaks it', async () => {
    const entry = await signed(['B1', 'B2']);
    expect((await send(entry)).status).toBe(200);
    expect((await seals())[0]).toMatchObject({ entryId: entry.id, signedBy: 'Rowan Vale', verdict: 'unchanged', seal: entry.acceptance!.seal });
    // the one of the demo holds too
    expect((await seals())[1]).toMatchObject({ signedBy: 'Maren Tide', verdict: 'unchanged' });
    const doc = await job();
    const b1 = doc.surfaces.find((s) => s.name === 'B1')!;
    expect((await send(line(b1.id, { kind: 'looked', look: { water: 'none', isClean: true }, occurredAt: new Date(Date.now() + 60_000).toISOString() }))).status).toBe(200); // prettier-ignore
    expect((await seals())[0]!).toMatchObject({ verdict: 'added' });
    const other = doc.films.find((f) => f.id !== b1.filmId)!.id;
    const swap = device.draft(annexId, 'Another film', [{ op: 'set', kind: 'surface', id: b1.id, field: 'filmId', value: other }], doc.revision + 1);
    expect((await post(`/api/jobs/${annexId}/changes`, swap)).status).toBe(200);
    expect((await seals())[0]!).toMatchObject({ verdict: 'changed', says: [expect.stringContaining('B1'), expect.any(String)] });
    // undone, it holds again: a seal is over what stands
    expect((await post(`/api/jobs/${annexId}/undo`, device.undo())).status).toBe(200);
    expect((await seals())[0]!.verdict).toBe('added');
  });
  test('a copy of the job on the same bench is told to be one: it carries no seal', async () => {
    const file = (await get(`/api/jobs/${annexId}/file`)).body as unknown as Record<string, unknown>;
    const answer = await post(`/api/job-files?personId=${ines}&deviceId=${uuidv7()}`, file);
    expect(answer.body).toMatchObject({ isCopy: true });
    const copy = (await get(`/api/jobs/${answer.body.jobId}`)).body as JobDocument;
    expect(copy.layEntries.filter((e) => e.kind === 'accepted')).toEqual([]);
    expect(copy.layEntries.map((e) => e.text)).toContain('Taken over, in the job that this is a copy of.');
  });
  test('half a line is refused: no panes, no signature, a call without words', async () => {
    const entry = await signed(['B1']);
    for (const [bad, path] of [
      [{ ...entry, id: uuidv7(), acceptance: undefined }, 'acceptance'],
      [{ ...entry, id: uuidv7(), signature: null }, 'signature'],
      [{ ...entry, id: uuidv7(), kind: 'note' }, 'acceptance'],
      [line(null, { kind: 'called' }), 'text'],
      [line(null, { kind: 'erased', text: 'x' }), 'erasure'],
    ] as const) {
      const answer = await send(bad as LayEntry);
      expect([answer.status, answer.body.faults?.[0]?.path]).toEqual([400, expect.stringContaining(path)]);
    }
  });
});

describe('papers', () => {
  test('the record: every laid pane with its film, what was seen, who signed, the seal; of one place only its own; both papers', async () => {
    const { status, bytes } = await pdf(`/api/jobs/${annexId}/hand-over.pdf`);
    expect([status, bytes.subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
    expect((await pdf(`/api/jobs/${annexId}/hand-over.pdf?paper=letter`)).bytes.toString('latin1')).toMatch(/MediaBox \[0 0 612(\.00)? 792(\.00)?\]/);
    const doc = await job();
    const parcels = doc.places.find((p) => p.name === 'Parcel store')!.id;
    const part = await pdf(`/api/jobs/${annexId}/hand-over.pdf?placeId=${parcels}`);
    expect(part.status).toBe(200);
    const text = await textOf(bytes);
    for (const words of ['Tern Point annex', 'B1 · Booking hall', 'P2 · Parcel store', 'Beads along a line', '1096 × 1850 mm', 'Rowan Vale', 'Taken over: B1, B2', 'Seal', '1 line came later']) expect(text).toContain(words); // prettier-ignore
    const seal = (await seals())[0]!.seal.match(/.{1,4}/g)!;
    expect(text).toContain(seal.slice(0, 6).join(' '));
    expect(await textOf(part.bytes)).not.toContain('B1 · Booking hall');
  });
  test('what was laid dry: in the record with its pieces and without drying, in the calendar without drop windows, on a care sheet of its own', async () => {
    const interiorId = demoId(104);
    expect((await get(`/api/jobs/${interiorId}/hand-over.pdf`)).body.code).toBe('nothing-laid');
    const doc = (await get(`/api/jobs/${interiorId}`)).body as JobDocument;
    const laid = (name: string): LayEntry => line(doc.surfaces.find((s) => s.name === name)!.id, { jobId: interiorId, kind: 'pane-done' });
    for (const entry of [laid('Reception counter'), laid('Door 1')]) {
      const draft = device.draft(interiorId, 'Laid', [{ op: 'add', kind: 'layEntry', id: entry.id, value: { ...entry } }], 0);
      expect((await post(`/api/jobs/${interiorId}/changes`, draft)).status).toBe(200);
    }
    const record = await textOf((await pdf(`/api/jobs/${interiorId}/hand-over.pdf`)).bytes);
    for (const words of ['2 surfaces, printed', 'Reception counter · Reception', 'version 1, its top', 'Looked over not yet', 'not washed or rubbed before', '1 piece: 25']) expect(record).toContain(words); // prettier-ignore
    expect(record).not.toMatch(/drop windows|Edge holds/i);
    const care = await textOf((await pdf(`/api/jobs/${interiorId}/care-sheet.pdf`)).bytes);
    expect(care).toContain('about two weeks to hold fully');
    expect(care).not.toContain('The first weeks');
    const days = (await get(`/api/jobs/${interiorId}/calendar.ics`)).text;
    expect(days).toContain('Run the joint at the wall again');
    expect(days).not.toContain('Drop windows');
  });
  test('the care sheet: for the films that are there, in a language that a firm adds; a file that does not read says where', async () => {
    const english = await pdf(`/api/jobs/${annexId}/care-sheet.pdf`);
    expect(english.status).toBe(200);
    // common practice: cleaned 30 days after the last laying at the earliest, drop windows up for 5
    const { layEntries, job: { zone } } = await job(); // prettier-ignore
    const last = Math.max(...layEntries.filter((e) => e.kind === 'pane-done').map((e) => Date.parse(e.occurredAt)));
    const dayAfter = (days: number) => new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: zone }).format(last + days * 86_400_000);
    const words = await textOf(english.bytes);
    expect(words).toContain(`Not before ${dayAfter(30)}`);
    expect(words).toContain(`Do not touch the film before ${dayAfter(5)}`);
    // each film by itself, and not the pane that was seen clear
    expect(words).toMatch(/Expect it to be clear: Tern Shade 35 .*; Breakwater 200 /);
    expect(words).toContain('does not make the glass unbreakable');
    expect((await get(`/api/jobs/${annexId}/care-sheet.pdf?language=de`)).body).toMatchObject({
      code: 'bad-input',
      detail: expect.stringContaining('care.de.txt'),
    });
    mkdirSync(languagesDir, { recursive: true });
    writeFileSync(join(languagesDir, 'care.de.txt'), 'language: de\ntitle: So bleibt die Folie schön\n');
    writeFileSync(join(languagesDir, 'care.fr.txt'), 'language: fr\ntitle: Film\nnettoyage: rien\n');
    writeFileSync(join(languagesDir, 'notes.txt'), 'not ours');
    const list = (await get('/api/care-languages')).body as { language: string; title: string; fault: string | null }[];
    expect(list).toEqual([
      { language: 'en', title: 'How to look after your film', fault: null },
      { language: 'de', title: 'So bleibt die Folie schön', fault: null },
      { language: 'fr', title: '', fault: expect.stringContaining('Line 3') },
    ]);
    const german = await pdf(`/api/jobs/${annexId}/care-sheet.pdf?language=DE&paper=letter`);
    expect(german.status).toBe(200);
    expect(await textOf(german.bytes)).toContain('So bleibt die Folie schön');
    expect((await get(`/api/jobs/${annexId}/care-sheet.pdf?language=fr`)).body.detail).toContain('Line 3: “nettoyage”');
    expect((await get(`/api/jobs/${annexId}/care-sheet.pdf?language=../../etc`)).status).toBe(400);
  });
  test('RFC 5545: the calendar is read by a parser that we did not write: whole days, none before today, each with its panes', async () => {
    const answer = await get(`/api/jobs/${annexId}/calendar.ics`);
    expect(answer.headers['content-type']).toContain('text/calendar');
    const text = answer.text;
    expect(text.split('\r\n').every((l) => Buffer.byteLength(l) <= 75)).toBe(true);
    const root = new ICAL.Component(ICAL.parse(text) as unknown as string);
    expect(root.getFirstPropertyValue('version')).toBe('2.0');
    const events = root.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
    const today = new Date().toISOString().slice(0, 10);
    expect(events.length).toBeGreaterThan(2);
    for (const e of events) {
      expect([e.startDate.isDate, e.uid.length > 20, e.summary.startsWith('Tern Point annex: ')]).toEqual([true, true, true]);
      expect(e.startDate.toString() >= today).toBe(true);
      expect(e.description).toMatch(/[BP]\d/);
    }
    const touch = events.find((e) => e.summary.includes('Drop windows'))!;
    // laid 70 hours ago: five days after the laying
    const doc = await job();
    const laidAt = doc.layEntries.find((e) => e.kind === 'pane-done')!.occurredAt;
    const days = (Date.parse(`${touch.startDate.toString()}T12:00:00Z`) - Date.parse(laidAt)) / 86_400_000;
    expect(days).toBeGreaterThan(4);
    expect(days).toBeLessThan(6.1);
  });
  test('where nothing is laid there is nothing to hand over', async () => {
    const empty = (await post('/api/jobs', { name: 'Empty', units: 'mm', personId: ines, deviceId: uuidv7() })).body as { id: string };
    for (const path of ['hand-over.pdf', 'care-sheet.pdf', 'calendar.ics']) expect((await get(`/api/jobs/${empty.id}/${path}`)).body.code).toBe('nothing-laid');
    expect((await get(`/api/jobs/${empty.id}/hand-over`)).body).toEqual([]);
    expect((await get(`/api/jobs/${uuidv7()}/hand-over`)).status).toBe(404);
  });
});

test('a call back finds its pane, film, lot and what it was put down to; a search finds it by lot', async () => {
  const doc = await job();
  const b3 = doc.surfaces.find((s) => s.name === 'B3')!;
  expect((await send(line(b3.id, { text: 'a new roll', roll: { rollId: doc.rolls[0]!.id, lot: 'LOT-4711' } }))).status).toBe(200);
  const pin = doc.layEntries.find((e) => e.surfaceId === b3.id && e.kind === 'pin')!;
  expect((await send(line(b3.id, { kind: 'pin-news', news: { pinId: pin.id, answers: {}, state: null, causeKey: 'dirt', watchUntil: null } }))).status).toBe(
    200,
  );
  expect((await send(line(b3.id, { kind: 'called', text: 'specks in the morning sun', occurredAt: new Date(Date.now() + 1000).toISOString() }))).status).toBe(
    200,
  );
  const list = async (search: string) => (await get(`/api/call-backs?search=${encodeURIComponent(search)}`)).body as CallBack[];
  expect((await list(''))[0]).toMatchObject({ job: 'Tern Point annex', pane: 'B3', lot: 'LOT-4711', says: 'specks in the morning sun', daysAfterLaying: 2, film: 'Tern Shade 35' }); // prettier-ignore
  expect((await list('lot-4711 specks')).length).toBe(1);
  expect((await list('lot-4712')).length).toBe(0);
  expect((await list(''))[0]!.causes.join()).not.toBe('');
  // the list of jobs finds it by the lot too
  expect((await get('/api/jobs?search=LOT-4711')).body).toMatchObject({ total: 1, jobs: [{ name: 'Tern Point annex' }] });
});

describe('erased', () => {
  const erase = (thing: object, why = 'asked for by letter, 30 November') =>
    post(`/api/jobs/${annexId}/erase`, { thing, why, personId: okan, deviceId: uuidv7() });
  test('a photo with its words goes, out of the record, the history and the store; the seal says so and holds; who and why stand', async () => {
    const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#446' } }).png().toBuffer(); // prettier-ignore
    const photo = (await request(app.http).post('/api/photos').set('Host', 'localhost').set('Content-Type', 'image/png').send(bytes)).body.photo as string;
    const doc = await job();
    const p1 = doc.surfaces.find((s) => s.name === 'P1')!;
    const note = line(p1.id, { kind: 'photo', photo, text: 'Zenobia Quill at her desk', occurredAt: new Date().toISOString() });
    expect((await send(note)).status).toBe(200);
    const entry = await signed(['P1'], 'Zenobia Quill');
    expect((await send(entry)).status).toBe(200);
    const answer = await erase({ what: 'line', entryId: note.id });
    expect(answer.body as EraseAnswer).toEqual({ erasedLineCount: 1, photoGone: true, isOffTheDisk: false, olderBackups: ['daily-1.tar.gz'] });
    expect((await get(`/api/photos/${photo}`)).status).toBe(404);
    const after = await job();
    const gone = after.layEntries.find((e) => e.id === note.id)!;
    expect(gone).toMatchObject({ text: '', photo: null, salt: null, kind: 'photo', occurredAt: note.occurredAt });
    expect(after.layEntries.find((e) => e.id === gone.erased!.byEntryId)).toMatchObject({
      kind: 'erased',
      text: 'asked for by letter, 30 November',
      personId: okan,
    });
    expect((await seals()).find((s) => s.entryId === entry.id)).toMatchObject({ verdict: 'erased' });
    // the signature is one more line
    expect((await erase({ what: 'line', entryId: entry.id })).status).toBe(200);
    expect((await seals()).find((s) => s.entryId === entry.id)).toMatchObject({ verdict: 'erased', signedBy: 'erased' });
    for (const path of [
      `/api/jobs/${annexId}`,
      `/api/jobs/${annexId}/history`,
      `/api/jobs/${annexId}/file`,
      '/api/export',
      `/api/jobs/${annexId}/log.csv`,
      `/api/jobs/${annexId}/changes?after=0`,
    ])
      expect((await get(path)).text).not.toMatch(/Zenobia|Quill|desk/);
    // it cannot be undone, and not be erased twice; why it was erased is not erased
    expect((await erase({ what: 'line', entryId: note.id })).body).toMatchObject({ status: 404, detail: 'This line was erased already.' });
    expect((await erase({ what: 'line', entryId: gone.erased!.byEntryId })).status).toBe(400);
    expect((await erase({ what: 'line', entryId: after.layEntries.find((e) => e.kind === 'pane-done')!.id })).body.detail).toContain('no words');
    expect((await erase({ what: 'line', entryId: note.id }, '')).status).toBe(400);
    // the paper can still be printed
    expect((await pdf(`/api/jobs/${annexId}/hand-over.pdf`)).status).toBe(200);
  });
  test('a photo of before the work is printed in the record', async () => {
    const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#a72' } })
      .png()
      .toBuffer();
    const photo = (await request(app.http).post('/api/photos').set('Host', 'localhost').set('Content-Type', 'image/png').send(bytes)).body.photo as string;
    const images = async () => (await pdf(`/api/jobs/${annexId}/hand-over.pdf`)).bytes.toString('latin1').match(/\/Subtype \/Image/g)?.length ?? 0;
    const before = await images();
    expect((await send(line(null, { kind: 'photo', photo, text: 'Chip at the sill' }))).status).toBe(200);
    expect(await images()).toBe(before + 1);
  });
  test('a photo that another line holds too stays in the store until that one is erased', async () => {
    const bytes = await sharp({ create: { width: 41, height: 30, channels: 3, background: '#846' } }).png().toBuffer(); // prettier-ignore
    const photo = (await request(app.http).post('/api/photos').set('Host', 'localhost').set('Content-Type', 'image/png').send(bytes)).body.photo as string;
    const [a, b] = [line(null, { kind: 'photo', photo, text: 'one' }), line(null, { kind: 'photo', photo, text: 'two' })];
    for (const e of [a, b]) expect((await send(e)).status).toBe(200);
    expect((await erase({ what: 'line', entryId: a.id })).body).toMatchObject({ photoGone: false });
    expect((await get(`/api/photos/${photo}`)).status).toBe(200);
    expect((await erase({ what: 'line', entryId: b.id })).body).toMatchObject({ photoGone: true });
  });
  test('the customer’s name and address go from the job and its history; a new one may be written after', async () => {
    const rename = (value: string) => post(`/api/jobs/${annexId}/changes`, device.draft(annexId, 'Customer', [{ op: 'set', kind: 'job', id: annexId, field: 'customer', value }], 1e9)); // prettier-ignore
    expect((await rename('Peregrine Oak')).status).toBe(200);
    expect((await erase({ what: 'customer' })).status).toBe(200);
    expect((await job()).job).toMatchObject({ customer: '', address: '' });
    for (const path of [`/api/jobs/${annexId}/history`, '/api/export']) expect((await get(path)).text).not.toMatch(/Peregrine/);
    // undo does not bring it back
    await post(`/api/jobs/${annexId}/undo`, device.undo(true));
    expect((await job()).job.customer).toBe('');
    expect((await rename('Harbour office')).status).toBe(200);
    expect((await job()).job.customer).toBe('Harbour office');
  });
});

test('nothing of it is left in any file of the data folder: database, its log, journal; a start after a crash brings nothing back', async () => {
  if (process.env['YELLOW_PANE_TEST_DATABASE_URL']) return;
  const { openInFolder, clearOut } = await import('../../db/database.js');
  const { Journal } = await import('../../db/journal.js');
  const { appOn } = await import('../../bench.testing.js');
  const { setUpBench } = await import('../../bench-setup.js');
  const dir = mkdtempSync(join(tmpdir(), 'yellow-pane-erase-'));
  const held = (): string[] => {
    const out: string[] = [];
    const walk = (d: string): void => readdirSync(d).forEach((n) => { const f = join(d, n); if (statSync(f).isDirectory()) walk(f); else if (readFileSync(f).includes('Zenobia')) out.push(f); }); // prettier-ignore
    walk(dir);
    return out;
  };
  const start = async () => {
    const db = await openInFolder(dir, async () => undefined);
    const journal = new Journal(dir);
    const own = appOn(db.db, journal, { clearOut: () => clearOut(db.db), photosDir: join(dir, 'photos') });
    const replayed = await own.changes.replay();
    if (replayed.count > 0) await own.erasing.finish();
    await setUpBench(own, 'demo');
    return { own, close: async () => { await db.close(); journal.close(); }, journal }; // prettier-ignore
  };
  let first = await start();
  const dev = new TestDevice(ines);
  const note = line(null, { text: 'Zenobia has the key' });
  const rotate = line(null, { text: 'Zenobia again' });
  for (const e of [note, rotate]) {
    await first.own.changes.apply(dev.draft(annexId, 'Zenobia', [{ op: 'add', kind: 'layEntry', id: e.id, value: { ...e } }], 0));
    // the first lies in an older segment
    if (e === note) first.journal.rotate('2026-11-30T10-00-00-000Z');
  }
  expect(held().length).toBeGreaterThan(1);
  // the database as it was before: what a crash may leave behind
  await first.close();
  const before = mkdtempSync(join(tmpdir(), 'yellow-pane-before-'));
  cpSync(join(dir, 'db'), before, { recursive: true });
  first = await start();
  for (const e of [note, rotate]) {
    const answer = await first.own.erasing.erase(annexId, { thing: { what: 'line', entryId: e.id }, why: 'asked', personId: ines, deviceId: uuidv7() });
    expect(answer.isOffTheDisk).toBe(true);
  }
  expect(held()).toEqual([]);
  await first.close();
  expect(held()).toEqual([]);
  const again = await start();
  expect((await again.own.jobs.open(annexId)).layEntries.find((e) => e.id === note.id)).toMatchObject({ text: '', erased: { byEntryId: expect.any(String) } });
  await again.close();

  // the database has lost the erasure, the journal has it: the next start erases again, in the history and on the disk too
  rmSync(join(dir, 'db'), { recursive: true });
  cpSync(before, join(dir, 'db'), { recursive: true });
  expect(held().length).toBeGreaterThan(0);
  const lost = await start();
  expect((await lost.own.jobs.open(annexId)).layEntries.find((e) => e.id === rotate.id)).toMatchObject({ text: '', erased: { byEntryId: expect.any(String) } });
  expect(JSON.stringify(await lost.own.records.allChanges())).not.toContain('Zenobia');
  expect(held()).toEqual([]);
  await lost.close();
}, 120_000);
