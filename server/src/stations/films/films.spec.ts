import { readFileSync } from 'node:fs';
import { filmBlock } from '@yellow-pane/core';
import request from 'supertest';
import type { BenchDocument, Film, PaneVerdict } from '@yellow-pane/contracts';
import { defaultChooseSettings } from '@yellow-pane/contracts';
import { demoLibrary, ternPoint, panesIn } from '@yellow-pane/demo';
import type { App } from '../../app.js';
import { ines, openBench, TestDevice, type TestDatabase } from '../../bench.testing.js';
import { filmsFromCsv, filmsToCsv } from './film-csv.js';

let app: App;
let open: TestDatabase;
beforeAll(async () => ({ app, open } = await openBench()), 60_000);
afterAll(() => open.close());

const who = `personId=${ines}&deviceId=01930000-0000-7000-8000-0000000f1111`;
const get = (path: string) => request(app.http).get(path).set('Host', 'localhost');
const bring = (body: string | object, same = '') => {
  const call = request(app.http)
    .post(`/api/films?${who}${same && `&same=${same}`}`)
    .set('Host', 'localhost');
  return (typeof body === 'string' ? call.set('Content-Type', 'text/csv') : call).send(body);
};
const films = async (): Promise<Film[]> => (await get('/api/films')).body as Film[];
const stamp = { id: () => '01930000-0000-7000-8000-0000000f2222', at: '2026-09-14T07:00:00.000Z' };

describe('the film library in and out', () => {
  test('every film goes out as CSV and comes in again the same', () => {
    const { films: back, faults } = filmsFromCsv(filmsToCsv(demoLibrary), stamp);
    expect(faults).toEqual([]);
    back.forEach((f, i) => expect({ ...f, id: '', createdAt: '', retiredAt: null }).toEqual({ ...demoLibrary[i]!, id: '', createdAt: '', retiredAt: null }));
  });

  test('the sheet of typical films that ships with the app reads whole, can be on glass, names no maker and says where its figures come from', () => {
    const csv = readFileSync(new URL('../../../../web/public/starter-films.csv', import.meta.url), 'utf8');
    const { films: typical, faults } = filmsFromCsv(csv, stamp);
    expect(faults).toEqual([]);
    expect(typical.length).toBeGreaterThan(12);
    expect(new Set(typical.map((f) => f.kind))).toEqual(new Set(['solar', 'mirror', 'exterior-solar', 'security', 'anti-graffiti', 'frosted']));
    for (const f of typical) {
      expect({ name: f.name, note: f.note }).toEqual({ name: f.name, note: expect.stringContaining('from memory: no maker’s sheet') });
      expect({ name: f.name, alone: filmBlock(f.optics!) }).toEqual({ name: f.name, alone: expect.objectContaining({ ok: true }) });
      // nobody is told a price that nobody asks
      expect(f.offers).toEqual([]);
    }
  });

  test('bad rows are named by row and column, and nothing comes in', async () => {
    const before = (await films()).length;
    const answer = await bring(
      [
        'name,kind,thicknessUm,visibleTPct,visibleRGlassPct,visibleRFreePct,solarTPct,solarRGlassPct,solarRFreePct,solarAPct,uvTPct,offers',
        'Good,solar,38,35,20,18,30,25,22,45,1,1524 x 30.5 @ 400 / 16',
        'Shines,solar,38,95,20,18,30,25,22,45,1,',
        ',solar,38,,,,,,,,,',
        'Thin,solar,thin,,,,,,,,,',
        'Odd,curtain,38,,,,,,,,,',
        'Sums,solar,38,35,20,18,30,25,22,30,1,a roll',
      ].join('\n'),
    );
    expect(answer.status).toBe(400);
    expect((answer.body.faults as { path: string }[]).map((f) => f.path)).toEqual([
      'row 3, visibleTPct',
      'row 4, name',
      'row 5, thicknessUm',
      'row 5, thicknessUm',
      'row 6, kind',
      'row 7, offers',
    ]);
    expect((await films()).length).toBe(before);
  });

  test('names that are here are asked about; then they are left, or become a new version', async () => {
    const shade = (await films()).find((f) => f.name === 'Tern Shade 35')!;
    const dearer = { ...shade, note: 'New sheet.' };
    const asked = await bring([dearer]);
    expect([asked.status, asked.body.code, asked.body.faults[0].path]).toEqual([409, 'films-known', 'Tern Shade 35']);
    expect((await bring([dearer], 'skip')).body).toEqual({ added: 0, renewed: 0, skipped: 1 });
    expect((await bring([dearer], 'new-version')).body).toEqual({ added: 0, renewed: 1, skipped: 0 });
    const now = (await films()).filter((f) => f.name === 'Tern Shade 35');
    expect(now.map((f) => [f.version, f.replacesId, f.note])).toEqual([[2, shade.id, 'New sheet.']]);
    // panes that had the old version keep it
    const bench = (await get(`/api/bench?personId=${ines}`)).body as BenchDocument;
    expect(bench.panesWithFilm[shade.id]).toBeGreaterThan(10);
  });

  test('a film stands as it is; it can be retired and taken back into use', async () => {
    const bench = (await get(`/api/bench?personId=${ines}`)).body as BenchDocument;
    const frost = bench.films.find((f) => f.name === 'Sea Mist white')!;
    const device = new TestDevice(ines);
    const set = (field: string, value: unknown) =>
      request(app.http)
        .post(`/api/jobs/${bench.firm.id}/changes`)
        .set('Host', 'localhost')
        .send(device.draft(bench.firm.id, 'Retire', [{ op: 'set', kind: 'film', id: frost.id, field, value }], bench.revision + 10));
    const refused = await set('thicknessUm', 10);
    device.takeBack();
    expect([refused.status, refused.body.code]).toEqual([409, 'fact-stands']);
    expect((await set('retiredAt', '2026-10-01T00:00:00Z')).status).toBe(200);
    expect((await films()).some((f) => f.id === frost.id)).toBe(false);
  });

  test('a list that is none, and an empty one, are refused in words', async () => {
    expect((await bring({ film: 1 })).body.faults[0].message).toContain('should begin with “[”');
    expect((await bring('name,kind\n')).body.faults[0].path).toBe('column thicknessUm');
  });
});

test('the verdict can be called: same order and figures as on the screen', async () => {
  const s = panesIn(ternPoint()).find((x) => x.name === 'W1')!;
  const input = {
    glazing: s.glazing,
    exposure: s.exposure,
    filmFace: 'room',
    widthMm: 1184,
    heightMm: 2046,
    revealMm: 60,
    latDeg: 38.6,
    lonDeg: -9.1,
    zoneMinutes: 60,
    year: 2026,
    settings: defaultChooseSettings,
  };
  const answer = await request(app.http)
    .post('/api/compute/verdict')
    .set('Host', 'localhost')
    .send({ ...input, films: demoLibrary });
  expect(answer.status).toBe(200);
  const verdict = answer.body as PaneVerdict;
  expect(verdict.films).toHaveLength(demoLibrary.length);
  expect(verdict.bare.figures!.gFrac).toBeGreaterThan(0.6);
  const bad = await request(app.http)
    .post('/api/compute/verdict')
    .set('Host', 'localhost')
    .send({ ...input, latDeg: 120, films: [] });
  expect([bad.status, bad.body.faults[0].path]).toEqual([400, 'body.latDeg']);
});
