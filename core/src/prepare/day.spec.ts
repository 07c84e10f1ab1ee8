import fc from 'fast-check';
import psychrolib from 'psychrolib';
import { defaultPrepareSettings, type Glazing, type WeatherDay, type WeatherHour } from '@yellow-pane/contracts';
import { commonGlazings } from '../choose/index.js';
import { ternGlass } from '../../../demo/src/glass.js';
import { clearSky, dewPointC, humidityPctAt, lightUnderCloud, saturationHPa } from '../physics/index.js';
import { glassDay, typedDay, typedOver, type GlassDayInput } from './glass-day.js';
import { horizonDeg } from './horizon.js';
import { bestWindow, workMoments, workWindows, type WorkAsked } from './work-windows.js';

const hours = (of: (hour: number) => Partial<WeatherHour> = () => ({})): WeatherHour[] =>
  Array.from({ length: 24 }, (_, h) => ({ airC: 16, humidityPct: 55, cloudFrac: 0, windMPerS: 2, gustMPerS: 3, rainMm: 0, ...of(h) }));
/** Tern Point on a clear day in September: clocks one hour ahead of UTC. */
const westFront: GlassDayInput = {
  latDeg: 38.6,
  lonDeg: -9.1,
  dayStartMs: Date.UTC(2026, 8, 14) - 3_600_000,
  facadeDeg: 262,
  isIndoors: false,
  widthMm: 1184,
  heightMm: 2046,
  revealMm: 60,
  overhangMm: 0,
  overhangAboveMm: 0,
  horizon: [],
  glazing: ternGlass.west.glazing,
  weather: hours((h) => ({ airC: 18 + 4 * Math.sin(((h - 9) / 12) * Math.PI) })),
  roomC: 21,
};
const asked: WorkAsked = { face: 'room', isIndoors: false, film: null, roomC: 21, roomHumidityPct: 50, nightLowC: 12 };
const single: Glazing = { ...ternGlass.toilet.glazing };

describe('moist air', () => {
  test('against ASHRAE by psychrolib 1.1 (MIT): saturation within 0.3 %, dew point within 0.1 °C, from frost to a hot day', () => {
    psychrolib.SetUnitSystem(psychrolib.SI);
    for (let t = 0; t <= 45; t += 5) {
      expect(Math.abs(saturationHPa(t) / (psychrolib.GetSatVapPres(t) / 100) - 1)).toBeLessThan(3e-3);
      for (const rh of [20, 50, 80, 100]) {
        const theirs = psychrolib.GetTDewPointFromRelHum(t, rh / 100);
        if (theirs > 0) expect([t, rh, Math.abs(dewPointC(t, rh) - theirs) < 0.1]).toEqual([t, rh, true]);
      }
    }
  });
  test('a room of 20 °C and 50 % wets glass of 9.3 °C (handbook value); saturated air wets what is as cold as itself', () => {
    expect(dewPointC(20, 50)).toBeCloseTo(9.3, 1);
    expect(dewPointC(13, 100)).toBeCloseTo(13, 9);
  });
  test('humidity and dew point are each other’s inverse', () =>
    fc.assert(
      fc.property(fc.double({ min: -10, max: 45, noNaN: true }), fc.double({ min: 5, max: 100, noNaN: true }), (t, rh) =>
        expect(humidityPctAt(t, dewPointC(t, rh))).toBeCloseTo(rh, 6),
      ),
    ));
  test('what is no air of this world is refused with value, range and unit', () => {
    expect(() => dewPointC(80, 50)).toThrow(/Air temperature.*80.*°C/);
    expect(() => dewPointC(20, Number.NaN)).toThrow(/Humidity/);
  });
});

describe('sun on the glass', () => {
  test('clouds: none change nothing, a closed sky leaves a quarter and no beam (Kasten & Czeplak), never more than clear', () => {
    const clear = clearSky(40, 200);
    expect(lightUnderCloud(clear, 40, 0)).toEqual({ ...clear, diffuseLevelWPerM2: expect.closeTo(clear.diffuseLevelWPerM2, 6) as number });
    const closed = lightUnderCloud(clear, 40, 1);
    expect([closed.directNormalWPerM2, closed.globalLevelWPerM2 / clear.globalLevelWPerM2]).toEqual([0, 0.25]);
    for (let n = 0; n <= 1; n += 0.1) expect(lightUnderCloud(clear, 40, n).globalLevelWPerM2).toBeLessThanOrEqual(clear.globalLevelWPerM2);
  });
  test('a sketched horizon runs straight from point to point, also over north', () => {
    const sketch = [
      { bearingDeg: 350, heightDeg: 10 },
      { bearingDeg: 10, heightDeg: 30 },
      { bearingDeg: 180, heightDeg: 0 },
    ];
    expect([350, 0, 10, 95, 180].map((b) => horizonDeg(sketch, b))).toEqual([10, 20, 30, 15, 0]);
    expect([horizonDeg([], 200), horizonDeg(sketch, 725)]).toEqual([0, 25]);
  });
  test('a west front has no sun in the morning and much in the afternoon; glass follows with a lag and is warmest after the sun is', () => {
    const day = glassDay(westFront);
    const at = (hour: number) => day.find((m) => Math.abs(m.hour - hour) < 1e-6)!;
    expect(at(10).sunWPerM2).toBe(0);
    expect(at(17).sunWPerM2).toBeGreaterThan(500);
    const brightest = day.reduce((a, b) => (b.sunWPerM2 > a.sunWPerM2 ? b : a));
    const warmest = day.reduce((a, b) => (b.innerC > a.innerC ? b : a));
    expect(warmest.hour).toBeGreaterThanOrEqual(brightest.hour);
    expect(warmest.innerC).toBeGreaterThan(at(10).innerC + 5);
    // half an hour after the sun has gone it still is not as cool as in the morning
    expect(at(20).innerC).toBeGreaterThan(at(7).innerC);
  });
  test('energy: settled dark glass lies between the two airs, nearer to the side that carries heat away better', () => {
    const still = glassDay({ ...westFront, facadeDeg: null, glazing: single, weather: hours(() => ({ airC: 0, cloudFrac: 1, windMPerS: 3 })), roomC: 20 });
    const night = still[6]!;
    // one pane: (he·0 + hi·20)/(he + hi), he = 4 + 4·3 + 4.6, hi = 7.7
    expect(night.outerC).toBeCloseTo((7.7 * 20) / (7.7 + 20.6), 0);
  });
  test('an overhang, a hill and a wall of another room take the sun away', () => {
    const sunny = (more: Partial<GlassDayInput>) => glassDay({ ...westFront, ...more }).filter((m) => m.litFrac > 0.05).length;
    expect(sunny({ overhangMm: 3000 })).toBeLessThan(sunny({}));
    expect(sunny({ horizon: [{ bearingDeg: 0, heightDeg: 40 }] })).toBeLessThan(sunny({}));
    expect([sunny({ isIndoors: true }), sunny({ horizon: [{ bearingDeg: 0, heightDeg: 90 }] })]).toEqual([0, 0]);
  });
  test('the air told for an hour is that of its middle; between two middles it goes straight, over midnight back to the first', () => {
    const day = glassDay({ ...westFront, weather: hours((h) => ({ airC: h === 14 ? 20 : h === 15 ? 26 : 10 })) });
    const at = (hour: number) => day.find((m) => Math.abs(m.hour - hour) < 1e-6)!.airC;
    expect([at(14.5), at(15.5), at(13.5)]).toEqual([20, 26, 10]);
    expect(at(15)).toBeCloseTo(23, 9);
    expect(at(14)).toBeCloseTo(15, 9);
    expect(at(0)).toBeCloseTo(10, 9);
  });
  test('where nobody said which way it looks no sun is reckoned with, only the light from all sides', () => {
    const day = glassDay({ ...westFront, facadeDeg: null });
    expect(day.every((m) => m.litFrac === 0 && m.sunWPerM2 === 0 && m.beamWPerM2 === 0)).toBe(true);
    // it is still lighter, and the glass warmer, at noon than at night
    expect(day.find((m) => m.hour === 13)!.innerC).toBeGreaterThan(day.find((m) => m.hour === 3)!.innerC);
  });
  test('one point of a horizon is a horizon all round', () => {
    const [one] = [[{ bearingDeg: 90, heightDeg: 25 }]];
    expect([0, 90, 181, 359].map((b) => horizonDeg(one, b))).toEqual([25, 25, 25, 25]);
  });
  test('what is typed on site stands in place of the service', () => {
    const day: WeatherDay = { on: '2026-09-14', source: '', isMadeUp: false, sky: 'clear', hours: hours(), nightLowC: 8 };
    const typed = typedOver(day, { ...defaultPrepareSettings.typed, airC: 9, cloudPct: 40, windMPerS: 4 });
    expect(typed[9]).toEqual({ airC: 9, humidityPct: 55, cloudFrac: 0.4, windMPerS: 4, gustMPerS: 6, rainMm: 0 });
    expect(typedOver(day, defaultPrepareSettings.typed)).toEqual(day.hours);
  });
});

describe('when wet work is good', () => {
  const unit = commonGlazings.find((g) => g.name === 'Double, 4-12-4 air, uncoated')!.glazing;
  const windowsOf = (more: Partial<GlassDayInput> = {}, want: Partial<WorkAsked> = {}) =>
    workWindows(workMoments(glassDay({ ...westFront, ...more }), { ...asked, ...want }));
  test('the west front: good in the morning, wrong as soon as the sun comes round, and still marginal when it has gone', () => {
    const windows = windowsOf({ glazing: single });
    expect(windows[0]).toMatchObject({ fromHour: 6, grade: 'good' });
    expect(windows.find((w) => w.grade === 'wrong')).toMatchObject({ cause: 'sun' });
    expect(windows.find((w) => w.grade === 'wrong')!.why).toMatch(/^sun on the glass, \d+ W\/m²$/);
    expect(bestWindow(windows)).toMatchObject({ fromHour: 6, grade: 'good' });
    const last = windows[windows.length - 1]!;
    expect(last.toHour).toBe(21);
  });
  test('windows cover the hours of work without gap or overlap, each different from the one before', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: -10, max: 40 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 0, max: 15 }),
        (airC, cloudFrac, facadeDeg, wind) => {
          const weather = hours((h) => ({ airC: Math.min(55, airC + h / 4), cloudFrac, windMPerS: wind, gustMPerS: wind * 1.5 }));
          const windows = windowsOf({ weather, facadeDeg }, { face: 'street' });
          expect([windows[0]!.fromHour, windows[windows.length - 1]!.toHour]).toEqual([6, 21]);
          windows.slice(1).forEach((w, i) => {
            expect(w.fromHour).toBeCloseTo(windows[i]!.toHour, 9);
            expect([w.grade, w.cause]).not.toEqual([windows[i]!.grade, windows[i]!.cause]);
          });
          for (const w of windows) expect(w.grade === 'good').toBe(w.why === '');
        },
      ),
      { numRuns: 60, seed: 5 },
    ));
  test('common practice: no wet film under 5 °C, none that may freeze at night, none on sweating glass', () => {
    const cold = windowsOf({ facadeDeg: null, glazing: single, weather: hours(() => ({ airC: -8, windMPerS: 4 })), roomC: 15 }, { roomC: 15, roomHumidityPct: 20 }); // prettier-ignore
    expect(cold).toHaveLength(1);
    expect(cold[0]).toMatchObject({ grade: 'wrong', cause: 'cold' });
    const night = (want: Partial<WorkAsked>) => windowsOf({ facadeDeg: null, glazing: unit, weather: hours(() => ({ airC: 9 })) }, want)[0]!;
    expect(night({ face: 'street', nightLowC: -8 })).toMatchObject({ grade: 'marginal', cause: 'frost' });
    expect(night({ face: 'street', nightLowC: null }).cause).not.toBe('frost');
    const sweating = windowsOf({ facadeDeg: null, glazing: single, weather: hours(() => ({ airC: 6 })) }, { roomHumidityPct: 85 });
    expect(sweating[0]!.cause).toBe('dew');
    // it is dried first: no reason to stay at home (common practice)
    expect(sweating[0]).toMatchObject({ grade: 'marginal', why: expect.stringMatching(/the glass sweats .*dry glass and frame/) as string });
  });
  test('frost is judged by the face that gets the film: a heated room’s face stays above zero in a light frost, the street face does not', () => {
    const face = (side: 'room' | 'street', nightLowC: number) =>
      windowsOf({ facadeDeg: null, glazing: unit, weather: hours(() => ({ airC: 9 })), roomC: 21 }, { face: side, nightLowC }).some((w) => w.cause === 'frost');
    // an uncoated double unit, room 21 °C, night −8 °C: its room face stays about two thirds of the way up, its street face near the air
    expect([face('room', -8), face('street', -8)]).toEqual([false, true]);
    // a night so hard that the room face freezes too
    expect(face('room', -45)).toBe(true);
  });
  test('a day of nothing but typed readings: every hour as read, the night unknown; one reading short is no day', () => {
    const typed = { ...defaultPrepareSettings.typed, airC: 12, humidityPct: 70, cloudPct: 80, windMPerS: 3 };
    expect(typedDay('2026-12-03', typed)).toMatchObject({ on: '2026-12-03', isMadeUp: false, nightLowC: null });
    expect(typedDay('2026-12-03', typed)!.hours[23]).toEqual({ airC: 12, humidityPct: 70, cloudFrac: 0.8, windMPerS: 3, gustMPerS: 3, rainMm: 0 });
    for (const field of ['airC', 'humidityPct', 'cloudPct', 'windMPerS'] as const) expect(typedDay('2026-12-03', { ...typed, [field]: null })).toBeNull();
  });
  test('outside: gusts and rain stop the work, in the room they do not', () => {
    const weather = hours((h) => ({ gustMPerS: 12, rainMm: h === 9 ? 2 : 0, cloudFrac: 1 }));
    expect(windowsOf({ weather }, { face: 'street' }).map((w) => w.cause)).toEqual(['wind', 'rain', 'wind']);
    expect(windowsOf({ weather }, { face: 'room' }).map((w) => w.grade)).toEqual(['good']);
  });
  test('dry film between two rooms is always good; a film’s own limits count before the usual ones', () => {
    const dry = { temps: null, drying: 'dry-applied' as const };
    expect(windowsOf({ isIndoors: true }, { isIndoors: true, film: dry }).map((w) => w.grade)).toEqual(['good']);
    const warmOnly = { drying: 'slow' as const, temps: { applyMinC: 24, applyMaxC: 40, relaxC: null, postHeatC: null, limitC: null } };
    expect(windowsOf({ isIndoors: true }, { isIndoors: true, film: warmOnly })[0]).toMatchObject({ grade: 'wrong', cause: 'cold', why: 'glass at 21 °C, the film needs 24 °C' }); // prettier-ignore
  });
});
