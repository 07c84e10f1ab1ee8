import { panesIn } from '../../../demo/src/index.js';
import { defaultPrepareSettings, type PrepareSettings, type Pane, type WeatherDay } from '@yellow-pane/contracts';
import { demoFirm, ternPoint } from '../../../demo/src/index.js';
import { ROOM } from './ground-plan.js';
import { bandsOfJob, kitOfDay, kitPanesOf, slipNeed, type DayRecords } from './job-day.js';
import { Memo } from '../ground/index.js';

const file = ternPoint();
const weather: WeatherDay = {
  on: '2026-09-14',
  source: 'made for the test',
  isMadeUp: false,
  sky: 'clear',
  hours: Array.from({ length: 24 }, (_, h) => ({ airC: 16 + (h > 8 && h < 20 ? 4 : 0), humidityPct: 55, cloudFrac: 0, windMPerS: 2, gustMPerS: 3, rainMm: 0 })),
  nightLowC: 12,
};
const settings = (more: Partial<PrepareSettings> = {}): PrepareSettings => ({ ...defaultPrepareSettings, ...more });
const records = (change: (s: Pane) => Pane = (s) => s): DayRecords => ({
  ...file,
  firm: demoFirm,
  surfaces: panesIn(file).map(change),
  memo: new Memo(),
});
const bands = (r: DayRecords = records(), s = settings()) => bandsOfJob(r, s, weather, weather.on);
const placeId = (name: string) => file.places.find((p) => p.name === name)!.id;

describe('bands of a job', () => {
  test('every pane that gets film stands in exactly one band', () => {
    const ids = bands().flatMap((b) => b.surfaceIds);
    expect(new Set(ids).size).toBe(ids.length);
    expect([...ids].sort()).toEqual(panesIn(file).filter((s) => s.filmId).map((s) => s.id).sort()); // prettier-ignore
  });
  test('another glass, another shade, another face: a band of its own, though place and bearing are the same', () => {
    const one = (change: Partial<Pane>) => bands(records((s) => (s.name === 'W3' ? { ...s, ...change } : s))).filter((b) => b.name.startsWith('Waiting')).map((b) => b.surfaceIds.length).sort(); // prettier-ignore
    const w3 = panesIn(file).find((s) => s.name === 'W3')!;
    expect(one({})).toEqual([12]);
    expect(one({ glazing: { ...w3.glazing!, frame: 'wood' } })).toEqual([1, 11]);
    expect(one({ exposure: { ...w3.exposure!, overhangMm: 1500 } })).toEqual([1, 11]);
    expect(one({ filmFace: 'street' })).toEqual([1, 11]);
    // how high it hangs changes nothing of its day
    expect(one({ exposure: { ...w3.exposure!, heightAboveFloorMm: 900 } })).toEqual([12]);
  });
  test('what is missing is named: tapes, glass, bearing, the place on earth', () => {
    const lacking = (r: DayRecords) => bands(r).flatMap((b) => (b.day.ok ? [] : [b.day.missing]));
    expect(lacking(records())).toEqual([]);
    expect(lacking({ ...records(), readings: [] })[0]).toBe('It is not measured yet.');
    expect(lacking(records((s) => ({ ...s, glazing: null })))[0]).toContain('what glass it is');
    expect(lacking(records((s) => (s.exposure ? { ...s, exposure: { ...s.exposure, facadeDeg: null } } : s)))[0]).toContain('which way it looks');
    expect(lacking({ ...records(), job: { ...file.job, latDeg: null } })[0]).toContain('where on earth');
  });
  test('south and west: the sun comes to the south first, and the fixed hours of both follow the bearing', () => {
    const sunAt = (name: string) => {
      const { day } = bands().find((b) => b.name === name)!;
      return day.ok ? day.windows.find((w) => w.cause === 'sun')!.fromHour : NaN;
    };
    expect(sunAt("Harbour master's room")).toBeLessThan(sunAt('Waiting room · west front') - 2);
  });
});

describe('without any weather', () => {
  test('glass between two rooms has its day, all other glass says what to read', () => {
    const all = bandsOfJob(records(), settings(), null, '2026-09-14');
    expect(all.filter((b) => b.day.ok).map((b) => b.isIndoors)).toEqual(all.filter((b) => b.isIndoors).map(() => true));
    expect(all.some((b) => b.isIndoors)).toBe(true);
    for (const b of all.filter((x) => !x.isIndoors))
      expect(b.day).toMatchObject({ ok: false, missing: expect.stringContaining('type air, humidity, clouds and wind') as string });
  });
});

describe('bottles and van for the day', () => {
  test('only wet film and only the places of the day count', () => {
    const all = slipNeed(records(), settings(), bands());
    const one = settings({ placeIds: [placeId('Toilets')] });
    const toilets = slipNeed(records(), one, bands());
    // three panes of about 0.6 × 0.67 m
    expect(toilets.wetAreaM2).toBeCloseTo(3 * 0.604 * 0.668, 1);
    expect(all.wetAreaM2).toBeGreaterThan(20 * toilets.wetAreaM2);
    const frost = panesIn(file).find((s) => s.name === 'Toilet 1')!.filmId;
    const dry: DayRecords = { ...records(), films: file.films.map((f) => (f.id === frost ? { ...f, drying: 'dry-applied' as const } : f)) };
    expect(slipNeed(dry, one, bands()).wetAreaM2).toBe(0);
    expect(kitPanesOf(dry, one)).toHaveLength(3);
  });
  test('the glass is taken as warm as it gets in the good hours of those places, not of others', () => {
    const glass = (name: string) => slipNeed(records(), settings({ placeIds: [placeId(name)] }), bands()).glassC;
    expect(glass('Meeting room')).toBeCloseTo(ROOM.airC, 0);
    const both = slipNeed(records(), settings({ placeIds: [placeId('Meeting room'), placeId('Toilets')] }), bands()).glassC;
    expect(both).toBeCloseTo(Math.max(glass('Meeting room'), glass('Toilets')), 9);
    expect(slipNeed(records(), settings(), []).glassC).toBe(ROOM.airC);
  });
  test('a place that was deleted since is no place of the day; with none left it is the whole job', () => {
    const gone = settings({ placeIds: [placeId('Toilets'), '01930000-0000-7000-8000-00000000dead'] });
    expect(kitPanesOf(records(), gone)).toHaveLength(3);
    const none = settings({ placeIds: ['01930000-0000-7000-8000-00000000dead'] });
    expect(kitPanesOf(records(), none)).toHaveLength(panesIn(file).filter((s) => s.filmId).length);
  });
  test('the list has the reach of the job and the slip of its school', () => {
    const low = { ...records(), job: { ...file.job, reachMm: 1900 } };
    const need = slipNeed(records(), settings(), bands());
    const line = (r: DayRecords, key: string) => kitOfDay(r, settings({ school: 'concentrate' }), need).find((l) => l.key === key)!;
    expect(line(records(), 'slip').what).toBe('Slip: water and slip concentrate');
    expect(line(records(), 'slip').howMuch).toBe(`${((need.wetAreaM2 * 350) / 1000).toFixed(1)} l`);
    expect(line(low, 'ladder').why).toContain('your reach is 1.90 m');
  });
});
