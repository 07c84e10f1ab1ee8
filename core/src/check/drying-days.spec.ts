import { panesIn } from '../../../demo/src/index.js';
import { defaultPrepareSettings, type Film, type Pane, type WeatherDay } from '@yellow-pane/contracts';
import { demoFirm, demoId, ternPoint } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';
import type { DayRecords } from '../prepare/index.js';
import { dayOfLoss } from './cure.js';
import { ASKED_DAYS, datesAsked, daysBasis, dryingFrom, lossesOn, wasWarmWhenLaid } from './drying-days.js';

const file = ternPoint();
const film: Film = { ...file.films.find((f) => f.construction === 'clear' && f.thicknessUm === 200)!, thicknessUm: 100, id: demoId(80_001) };
const single = { ...panesIn(file).find((s) => s.glazing)!.glazing!, panes: [panesIn(file).find((s) => s.glazing)!.glazing!.panes[0]!], cavities: [] };
const pane = (n: number, facadeDeg: number | null, more: Partial<Pane> = {}): Pane => ({
  ...panesIn(file).find((s) => s.name === 'W1')!,
  id: demoId(80_100 + n),
  filmId: film.id,
  filmFace: 'room',
  glazing: single,
  exposure: { ...panesIn(file).find((s) => s.exposure)!.exposure!, facadeDeg, isIndoors: facadeDeg === null, overhangMm: 0, overhangAboveMm: 0 },
  ...more,
});
const double = panesIn(file).find((s) => s.glazing?.panes.length === 2)!.glazing!;
const [south, north, inner, out] = [pane(1, 180), pane(2, 0), pane(3, null), pane(4, 0, { filmFace: 'street' })];
const [behindTwo, tinted] = [pane(5, 0, { glazing: double }), pane(6, 180, { filmId: demoId(80_002) })];
const tint: Film = { ...file.films.find((f) => f.construction === 'metallised' && f.optics && f.thicknessUm < 45)!, id: demoId(80_002) };
const surfaces = [south, north, inner, out, behindTwo, tinted];
const tapes = surfaces.flatMap((s, i) =>
  file.readings
    .filter((r) => r.surfaceId === panesIn(file).find((x) => x.name === 'W1')!.id)
    .map((r, k) => ({ ...r, id: demoId(80_200 + 20 * i + k), surfaceId: s.id })),
);
const records: DayRecords = { job: { ...file.job, latDeg: 52, lonDeg: 5, zone: 'Etc/GMT-1' }, firm: demoFirm, places: file.places, surfaces, readings: tapes, films: [film, tint], memo: new Memo() }; // prettier-ignore
const settings = { ...defaultPrepareSettings };
const weather = (on: string, airC: number, cloudFrac = 0, humidityPct = 70): WeatherDay => ({
  on, source: 'typed for the test', isMadeUp: false, sky: 'clear', nightLowC: airC,
  hours: Array.from({ length: 24 }, () => ({ airC, humidityPct, cloudFrac, windMPerS: 2, gustMPerS: 3, rainMm: 0 })),
}); // prettier-ignore
const loss = (s: Pane, day: WeatherDay | null, on = '2026-04-15', of = records): number => lossesOn(of, settings, { on, weather: day }).get(s.id)!;

describe('what leaves a pane on a day', () => {
  test('sun on the facade dries it sooner; without sun north and south dry alike', () => {
    expect(loss(south, weather('2026-04-15', 10))).toBeGreaterThan(1.15 * loss(north, weather('2026-04-15', 10)));
    expect(loss(south, weather('2026-04-15', 10, 1)) / loss(north, weather('2026-04-15', 10, 1))).toBeCloseTo(1, 1);
  });
  test('winter about doubles it (common practice): behind double glazing at 4 °C against 15 °C, without sun', () => {
    const days = (airC: number) => dayOfLoss([{ day: 0, gPerM2: loss(behindTwo, weather('2026-01-15', airC, 1), '2026-01-15') }], 24);
    expect(days(4) / days(15)).toBeGreaterThan(1.6);
    expect(days(4) / days(15)).toBeLessThan(2.4);
    // single glass sweats by then: in so damp a room nothing leaves it on a frosty day
    expect(loss(north, weather('2026-01-15', -8, 1), '2026-01-15')).toBe(0);
  });
  test('film that takes in sun warms its own water: the laid pane counts, not the bare one', () => {
    const day = { on: '2026-04-15', weather: weather('2026-04-15', 10) };
    const pale = { ...records, films: [film, { ...tint, optics: null }], memo: new Memo() };
    expect(lossesOn(records, settings, day).get(tinted.id)!).toBeGreaterThan(1.1 * lossesOn(pale, settings, day).get(tinted.id)!);
    // thin film within thirty sunny days (common practice)
    expect(dayOfLoss([{ day: 0, gPerM2: loss(tinted, weather('2026-04-15', 12)) }], 24)).toBeLessThan(30);
  });
  test('glass between rooms dries without any weather; of a facade nothing is said then', () => {
    const known = lossesOn(records, settings, { on: '2026-04-15', weather: null });
    expect([...known.keys()]).toEqual([inner.id]);
    // 100 µm in a heated room: about the trade’s thirty days
    expect(dayOfLoss([{ day: 0, gPerM2: known.get(inner.id)! }], 24)).toBeGreaterThan(24);
    expect(dayOfLoss([{ day: 0, gPerM2: known.get(inner.id)! }], 24)).toBeLessThan(34);
  });
  test('film on the street face dries into the air outside: damp air holds it back, the room’s does not count', () => {
    const dry = loss(out, weather('2026-04-15', 10, 1, 40));
    const damp = loss(out, weather('2026-04-15', 10, 1, 95));
    expect(damp).toBeLessThan(0.7 * dry);
    expect(loss(north, weather('2026-04-15', 10, 1, 95)) / loss(north, weather('2026-04-15', 10, 1, 40))).toBeCloseTo(1, 6);
    // both by the same glass outside at the same temperature, not the same air
    expect(dry).not.toBeCloseTo(loss(north, weather('2026-04-15', 10, 1, 40)), 3);
  });
  test('what was typed on site for one day is not taken for the weather of the season, the room’s air is', () => {
    const typed = { ...settings, typed: { ...settings.typed, airC: 35, cloudPct: 0, roomHumidityPct: 90 } };
    const day = { on: '2026-04-15', weather: weather('2026-04-15', 10, 1) };
    expect(lossesOn(records, typed, day).get(north.id)!).toBeLessThan(lossesOn(records, settings, day).get(north.id)!);
    const airOnly = { ...settings, typed: { ...settings.typed, airC: 35, cloudPct: 0 } };
    expect(lossesOn(records, airOnly, day).get(north.id)).toBe(lossesOn(records, settings, day).get(north.id));
  });
});

describe('from days of the calendar to days of a pane', () => {
  const days = [
    { on: '2026-04-01', gPerM2: 1 },
    { on: '2026-04-01', gPerM2: 3 },
    { on: '2026-04-11', gPerM2: 4 },
    { on: '2026-05-01', gPerM2: 6 },
  ];
  test('a clear and a changing sky of one date count alike; laid on the first of them', () =>
    expect(dryingFrom('2026-04-01', days)).toEqual([{ day: 0, gPerM2: 2 }, { day: 10, gPerM2: 4 }, { day: 30, gPerM2: 6 }])); // prettier-ignore
  test('laid in between it begins with what lies between them; laid after the last, with the last; before the first, with the first', () => {
    expect(dryingFrom('2026-04-06', days)).toEqual([{ day: 0, gPerM2: 3 }, { day: 5, gPerM2: 4 }, { day: 25, gPerM2: 6 }]); // prettier-ignore
    expect(dryingFrom('2026-06-01', days)).toEqual([{ day: 0, gPerM2: 6 }]);
    expect(dryingFrom('2026-03-22', days)![0]).toEqual({ day: 10, gPerM2: 2 });
    expect(dryingFrom('2026-04-01', [])).toBeNull();
  });
  test('weather is asked for over a year from the first laying, closer together at first, by the date at the site', () => {
    const dates = datesAsked('2026-11-24T23:30:00Z', 'Etc/GMT-1');
    expect([dates[0], dates[1], dates.at(-1)]).toEqual(['2026-11-25', '2026-12-02', '2027-11-25']);
    expect(dates).toHaveLength(ASKED_DAYS.length);
  });
});

test('warm when it was laid: sun on the glass in that hour, glass over 32 °C, or neither; of an unknown day nobody can say', () => {
  const was = (s: Pane, day: WeatherDay | null, at: string) => wasWarmWhenLaid(records, settings, day, s.id, at);
  const april = weather('2026-04-15', 10);
  expect(was(south, april, '2026-04-15T11:00:00Z')).toBe(true);
  expect(was(south, april, '2026-04-15T03:00:00Z')).toBe(false);
  expect(was(north, april, '2026-04-15T11:00:00Z')).toBe(false);
  expect(was(north, weather('2026-04-15', 42, 1), '2026-04-15T11:00:00Z')).toBe(true);
  expect(was(south, null, '2026-04-15T11:00:00Z')).toBeNull();
});
test('where the days came from is said, made-up weather as such', () => {
  expect(daysBasis('North Sea service', false)).toContain('North Sea service: a clear and a changing day');
  expect(daysBasis('anything', true)).toContain('Made-up weather');
});
