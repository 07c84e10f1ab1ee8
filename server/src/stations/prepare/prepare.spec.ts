import request from 'supertest';
import {
  defaultPrepareSettings,
  jobDay,
  weatherDay,
  type JobDay,
  type KitLines,
  type Patch,
  type PrepareSettings,
  type WeatherDay,
} from '@yellow-pane/contracts';
import type { App } from '../../app.js';
import { ines, lanternStreetId, openBench, ternPointId, type TestDatabase } from '../../bench.testing.js';
import { SimulatedWeather } from '../../instruments/simulated-weather.js';

let app: App, open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const slip = (body: object) => request(app.http).post('/api/compute/slip').set('Host', 'localhost').send(body);

describe('the weather at the site', () => {
  test('is the day that the work is due, the same each time it is asked, and says that it is made up', async () => {
    const day = weatherDay.parse((await get(`/api/jobs/${ternPointId}/weather`)).body);
    expect([day.on, day.hours.length]).toEqual(['2026-12-03', 24]);
    expect(day.source).toContain('Made-up');
    expect(day.isMadeUp).toBe(true);
    expect((await get(`/api/jobs/${ternPointId}/weather`)).body).toEqual(day);
    expect((await get(`/api/jobs/${ternPointId}/weather?on=2026-07-01`)).body.hours).not.toEqual(day.hours);
  });
  test('a clear day has few clouds and no rain, a changing one a shower; noon is warmer than dawn, summer than winter', async () => {
    const of = (on: string, sky: WeatherDay['sky']) => new SimulatedWeather().day(38.6, -9.1, 'Europe/Lisbon', on, sky);
    const rain = (d: WeatherDay) => d.hours.reduce((s, h) => s + h.rainMm, 0);
    const [clear, changing, winter] = [await of('2026-07-10', 'clear'), await of('2026-07-10', 'changing'), await of('2026-01-10', 'clear')];
    expect(clear.hours.every((h) => h.cloudFrac < 0.2)).toBe(true);
    expect(rain(clear)).toBe(0);
    expect(rain(changing)).toBeGreaterThan(0);
    for (const d of [clear, changing, winter]) {
      expect(d.hours[15]!.airC).toBeGreaterThan(d.hours[4]!.airC);
      expect(d.hours.every((h) => h.gustMPerS >= h.windMPerS)).toBe(true);
      expect(weatherDay.safeParse(d).success).toBe(true);
    }
    expect(clear.hours[15]!.airC - winter.hours[15]!.airC).toBeGreaterThan(5);
  });
  test('a day that is no day is refused with the place where it stands', async () => {
    const answer = await get(`/api/jobs/${ternPointId}/weather?on=tomorrow`);
    expect([answer.status, answer.body.code, answer.body.faults[0].path]).toEqual([400, 'bad-input', 'query.on']);
  });
});

describe('a bench with no weather service', () => {
  const jobId = '01930000-0000-7000-8000-0000000be9c4';
  const put = (patches: Patch[]) => app.jobs.change(jobId, { personId: ines, deviceId: '01930000-0000-7000-8000-0000000dec1e' }, 'x', patches);
  const prepare = (more: Partial<PrepareSettings>) =>
    put([{ op: 'set', kind: 'job', id: jobId, field: 'prepare', value: { ...defaultPrepareSettings, ...more } }]);
  beforeAll(async () => {
    const { job } = await app.jobs.open(ternPointId);
    await put([{ op: 'add', kind: 'job', id: jobId, value: { ...job, id: jobId, name: 'A real job', prepare: null } }]);
  });
  test('makes nothing up: it says what to read, and that made-up weather can be switched on', async () => {
    const answer = await get(`/api/jobs/${jobId}/weather?on=2026-12-03`);
    expect([answer.status, answer.body.code]).toEqual([422, 'no-weather']);
    expect(answer.body.detail).toMatch(/Type air, humidity, clouds and wind/);
  });
  test('goes by what was typed, all of it, and says so', async () => {
    await prepare({ typed: { ...defaultPrepareSettings.typed, airC: 11, humidityPct: 70, cloudPct: 100 } });
    expect((await get(`/api/jobs/${jobId}/weather`)).status).toBe(422);
    await prepare({ typed: { ...defaultPrepareSettings.typed, airC: 11, humidityPct: 70, cloudPct: 100, windMPerS: 2 } });
    expect((await get(`/api/jobs/${jobId}/weather`)).body).toMatchObject({
      isMadeUp: false,
      nightLowC: null,
      source: expect.stringContaining('typed on site'),
    });
  });
  test('switched on for one job, the made-up weather is there for that one and says that it is made up', async () => {
    await prepare({ madeUpWeather: true });
    expect((await get(`/api/jobs/${jobId}/weather`)).body).toMatchObject({ isMadeUp: true });
  });
});

describe('the day of a job', () => {
  test('a band for each facade: the west front is wrong when the sun comes round, inner partitions never are', async () => {
    const answer = await get(`/api/jobs/${ternPointId}/day?on=2026-09-14&sky=clear`);
    const day: JobDay = jobDay.parse(answer.body);
    const band = (name: string) => day.bands.find((b) => b.name === name)!;
    const west = band('Waiting room · west front');
    expect(west.surfaceIds).toHaveLength(12);
    expect(west.windows.find((w) => w.grade === 'wrong')).toMatchObject({ cause: 'sun' });
    expect(west.windows.find((w) => w.cause === 'sun')!.fromHour).toBeGreaterThan(11);
    expect(west.best).toMatchObject({ grade: 'good', fromHour: 6 });
    expect(band('Meeting room').windows).toEqual([{ fromHour: 6, toHour: 21, grade: 'good', cause: null, why: '' }]);
    expect(west.glass).toHaveLength(24);
  });
  test('what is not known is asked for, not guessed', async () => {
    const file = (await get(`/api/jobs/${lanternStreetId}/day`)).body as JobDay;
    // the back door of the bakery has neither glass nor bearing
    expect(file.bands.find((b) => b.name === 'Back door')).toMatchObject({ windows: [], best: null, missing: expect.stringContaining('see Choose') });
  });
});

test('the van: the whole job’s list, nothing loaded yet, cautions where somebody can be hurt', async () => {
  const lines = (await get(`/api/jobs/${ternPointId}/kit`)).body as KitLines;
  expect(lines.map((l) => l.key)).toEqual(expect.arrayContaining(['ladder', 'second-person', 'dust-sheet', 'slip', 'sprayers']));
  expect(lines.every((l) => !l.isLoaded && l.why.length > 0)).toBe(true);
  expect(lines.find((l) => l.key === 'ladder')!.caution).toContain('Local rules');
});

describe('bottles', () => {
  const ask = { school: 'soap-drops', areaM2: 12, glassC: 18, bottleMl: 473.2, slipMlPerM2: 350 };
  test('six drops to the bottle, and a wrong mix is put right', async () => {
    const { body } = await slip({ ...ask, inBottle: { slipMl: 400, additiveMl: 0.4 } });
    expect([body.additiveText, body.fillingCount, body.correction.words]).toEqual(['6 drops', 9, expect.stringContaining('Too strong')]);
  });
  test('more in the bottle than it holds is refused in a sentence', async () => {
    const answer = await slip({ ...ask, inBottle: { slipMl: 500, additiveMl: 1 } });
    expect([answer.status, answer.body.faults[0].message]).toEqual([400, expect.stringContaining('473.2 ml cannot hold that')]);
  });
});

describe('washes over the API', () => {
  const wash = (body: object) => request(app.http).post('/api/compute/wash').set('Host', 'localhost').send(body);
  test('a wall wash for 20 m² in a bucket of 10 l, with what comes after it', async () => {
    const { body } = await wash({ kind: 'detergent', areaM2: 20, bottleMl: 10_000 });
    expect(body).toMatchObject({ fillingCount: 1, totalMl: 3000, correction: null, after: expect.stringContaining('Rinse twice') });
    expect(body.additiveMl).toBeCloseTo(78.1, 1);
  });
  test('a wipe that is too weak is put right; alcohol weaker than the mix is refused by name', async () => {
    const { body } = await wash({ kind: 'alcohol', areaM2: 1, bottleMl: 1000, strengthPct: 100, inBottle: { mixMl: 400, additiveMl: 200 } });
    // 200 of 400 is 50 %: x more alcohol so that (200 + x) / (400 + x) = 0.7
    expect(body.correction.addAdditiveMl).toBeCloseTo(80 / 0.3, 6);
    expect(body.correction.words).toContain('Too weak');
    const weak = await wash({ kind: 'alcohol', areaM2: 1, bottleMl: 1000, strengthPct: 50 });
    expect(weak.body).toMatchObject({ code: 'bad-input', faults: [{ path: 'body.strengthPct', message: expect.stringContaining('take a stronger one') }] });
    expect((await wash({ kind: 'cleaner', areaM2: 1, bottleMl: 500, inBottle: { mixMl: 600, additiveMl: 1 } })).body.faults[0].path).toBe('body.inBottle');
  });
});
