import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import request from 'supertest';
import type { BenchDocument, JobDocument, Quote, QuotePrice } from '@yellow-pane/contracts';
import { demoLibrary, demoRates } from '@yellow-pane/demo';
import type { App } from '../../app.js';
import { ines, openBench, TestDevice, type TestDatabase } from '../../bench.testing.js';

let app: App;
let open: TestDatabase;
let quote: Quote;
const film = (name: string) => demoLibrary.find((f) => f.name === name)!;
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const post = (path: string, body: object) => request(app.http).post(path).set('Host', 'localhost').send(body);
const device = new TestDevice(ines);
const line = { place: 'Kitchen', reach: 'floor', hasOldFilm: false, hasProudSilicone: false } as const;

beforeAll(async () => {
  ({ app, open } = await openBench());
  const bench = (await get(`/api/bench?personId=${ines}`)).body as BenchDocument;
  quote = {
    id: '01930000-0000-7000-8000-0000000f0001',
    firmId: bench.firm.id,
    customer: 'Harbour kiosk',
    site: 'Quay 3',
    lines: [
      { ...line, id: '01930000-0000-7000-8000-0000000f0002', name: 'Window', widthMm: 900, heightMm: 1200, count: 3 },
      { ...line, id: '01930000-0000-7000-8000-0000000f0003', place: 'Front', name: 'Door', widthMm: 700, heightMm: 1900, count: 1, hasOldFilm: true },
    ],
    kmThere: 12,
    filmIds: [film('Tern Shade 35').id, film('Slack Water 70').id],
    ratesId: demoRates.id,
    photo: null,
    currency: 'EUR',
    status: 'draft',
    acceptedFilmId: null,
    jobId: null,
    createdAt: '2026-10-01T09:00:00Z',
    deletedAt: null,
  };
  const made = await post(
    `/api/jobs/${bench.firm.id}/changes`,
    device.draft(bench.firm.id, 'New price', [{ op: 'add', kind: 'quote', id: quote.id, value: quote }], bench.revision),
  );
  expect(made.status).toBe(200);
});
afterAll(() => open.close());

test('each film has its price; the parts make the total', async () => {
  const prices = (await get(`/api/quotes/${quote.id}/prices`)).body as QuotePrice[];
  expect(prices.map((p) => p.filmId)).toEqual(quote.filmIds);
  expect(prices[1]!.totalMinor).toBeGreaterThan(prices[0]!.totalMinor);
  for (const p of prices) expect(p.makeUp.reduce((s, l) => s + l.amountMinor, 0) + p.taxMinor).toBe(p.totalMinor);
  expect(prices[0]!.makeUp.map((l) => l.name)).toContain('Old film off');
});

test('the customer’s paper has one price a film in plain words, and nothing of the make-up', async () => {
  const [price] = (await get(`/api/quotes/${quote.id}/prices`)).body as QuotePrice[];
  const pdf = await get(`/api/quotes/${quote.id}/quote.pdf`)
    .buffer(true)
    .parse((res, done) => {
      const chunks: Buffer[] = [];
      res.on('data', (c: Buffer) => chunks.push(c));
      res.on('end', () => done(null, Buffer.concat(chunks)));
    });
  expect(pdf.status).toBe(200);
  const document = await getDocument({ data: new Uint8Array(pdf.body as Buffer), verbosity: 0 }).promise;
  const text = (await (await document.getPage(1)).getTextContent()).items
    .map((x) => ('str' in x ? x.str : ''))
    .join(' ')
    .replace(/\s+/g, ' ');
  for (const words of ['Harbour kiosk', 'Tern Shade 35', 'Slack Water 70', 'keeps out heat and glare', '900 × 1200', (price!.totalMinor / 100).toFixed(2)])
    expect(text).toContain(words);
  expect(text).not.toContain('Laying');
  expect(text).not.toContain('48.00');
});

test('a yes makes a job with its panes at the sizes quoted, nothing retyped, and only once; a quoted size is a guess until it is taped', async () => {
  const who = { personId: ines, deviceId: '01930000-0000-7000-8000-0000000f00aa' };
  const foreign = await post(`/api/quotes/${quote.id}/accept`, { ...who, filmId: film('Ebb Grey 5').id });
  expect([foreign.status, foreign.body.code]).toEqual([422, 'no-price']);
  const yes = await post(`/api/quotes/${quote.id}/accept`, { ...who, filmId: quote.filmIds[0] });
  expect(yes.status).toBe(200);
  const job = (await get(`/api/jobs/${yes.body.jobId}?personId=${ines}`)).body as JobDocument;
  expect(job.surfaces.map((s) => s.name)).toEqual(['Window 1', 'Window 2', 'Window 3', 'Door']);
  expect(job.places.map((p) => p.name)).toEqual(['Kitchen', 'Front']);
  expect(job.readings).toHaveLength(4);
  expect(job.surfaces.every((s) => s.filmId === quote.filmIds[0])).toBe(true);
  expect(job.surfaces[3]!.note).toBe('Old film comes off.');
  const list = (await get('/api/jobs')).body.jobs as { id: string; measuredCount: number }[];
  expect(list.find((j) => j.id === yes.body.jobId)!.measuredCount).toBe(0);
  expect(job.readings.every((r) => r.instrument === 'quote')).toBe(true);
  const sheet = (await get(`/api/jobs/${yes.body.jobId}/cut-list.csv`)).text;
  expect(sheet).not.toMatch(/Window 1.*\d{3,4},\d{3,4}/);
  expect((await post(`/api/quotes/${quote.id}/accept`, { ...who, filmId: quote.filmIds[0] })).body.code).toBe('quote-accepted');
});

test('a quote that is not there is said so', async () =>
  expect((await get('/api/quotes/01930000-0000-7000-8000-0000000fffff/prices')).body.code).toBe('quote-not-found'));
