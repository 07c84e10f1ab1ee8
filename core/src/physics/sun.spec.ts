import { Body, Equator, Horizon, Observer } from 'astronomy-engine';
import fc from 'fast-check';
import { clearAir, clearSky, lightOnPlane, type Air } from './clear-sky.js';
import { lightUnderCloud } from './cloud.js';
import { incidenceDeg, profileAngleDeg, shadowOnPane, sunPosition } from './sun-position.js';

/** Angles may differ by this much between almanacs that treat refraction and ΔT differently. */
const ANGLE_TOLERANCE_DEG = 0.05;

describe('the sun', () => {
  // 17 October 2003, 12:30:30 at UTC-7
  const at = Date.UTC(2003, 9, 17, 19, 30, 30);
  test('stands where the published algorithm of NREL/TP-560-34302 has it', () => {
    const sun = sunPosition(at, 39.742476, -105.1786);
    expect(Math.abs(90 - sun.altitudeDeg - 50.11162)).toBeLessThan(ANGLE_TOLERANCE_DEG);
    expect(Math.abs(sun.azimuthDeg - 194.34024)).toBeLessThan(ANGLE_TOLERANCE_DEG);
    // the published slope of 30° faces 10° east of south (from memory)
    expect(Math.abs(incidenceDeg(sun, 170, 30) - 25.187)).toBeLessThan(ANGLE_TOLERANCE_DEG);
  });

  test('agrees with a second library over the year and the globe', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 525_600 }), fc.integer({ min: -65, max: 65 }), fc.integer({ min: -179, max: 179 }), (minute, lat, lon) => {
        const when = new Date(Date.UTC(2026, 0, 1) + minute * 60_000);
        const observer = new Observer(lat, lon, 0);
        const place = Equator(Body.Sun, when, observer, true, true);
        const other = Horizon(when, observer, place.ra, place.dec, 'normal');
        const sun = sunPosition(when.getTime(), lat, lon);
        fc.pre(other.altitude > 3 && other.altitude < 85);
        expect(Math.abs(sun.altitudeDeg - other.altitude)).toBeLessThan(ANGLE_TOLERANCE_DEG);
        const turned = Math.abs(((sun.azimuthDeg - other.azimuth + 540) % 360) - 180) * Math.cos((other.altitude * Math.PI) / 180);
        expect(turned).toBeLessThan(ANGLE_TOLERANCE_DEG);
      }),
      { seed: 7, numRuns: 400 },
    ));

  test('altitude 40°, azimuth 210° on a south facade: profile 44.095°, overhang 500 shades 484.45, reveal 100 shades 57.74 (closed form)', () => {
    const sun = { altitudeDeg: 40, azimuthDeg: 210 };
    expect(profileAngleDeg(sun, 180)).toBeCloseTo(44.095, 3);
    const shadow = shadowOnPane(sun, 180, 500, 100);
    expect(shadow.fromTopMm).toBeCloseTo(484.45, 2);
    expect(shadow.fromSideMm).toBeCloseTo(57.735, 3);
    expect(shadowOnPane({ altitudeDeg: 40, azimuthDeg: 10 }, 180, 500, 100)).toEqual({ fromTopMm: 0, fromSideMm: 0 });
    // from the other side the reveal shades as much; a sun that has set, or that stands behind the wall, shades nothing
    expect(shadowOnPane({ altitudeDeg: 40, azimuthDeg: 150 }, 180, 500, 100)).toEqual(shadow);
    for (const [altitudeDeg, azimuthDeg] of [[0, 180], [-3, 180], [40, 271]] as const) expect(shadowOnPane({ altitudeDeg, azimuthDeg }, 180, 500, 100).fromTopMm).toBeLessThan(1e-6); // prettier-ignore
  });

  test('a place that is not on Earth is refused with value, range and unit', () => {
    expect(() => sunPosition(at, 91, 0)).toThrow('Latitude is 91 °; it must be -90 … 90 °.');
    expect(() => sunPosition(at, Number.NaN, 0)).toThrow('Latitude');
    expect(() => sunPosition(at, 0, 181)).toThrow('Longitude is 181 °; it must be -180 … 180 °.');
    for (const lon of [-180, 180]) expect(sunPosition(at, 90, lon).azimuthDeg).toBeGreaterThanOrEqual(0);
  });
});

describe('a clear sky', () => {
  test('at sea level: about 900 W/m² direct at noon height, a tenth of the global light diffuse (common practice)', () => {
    const noon = clearSky(60, 172);
    expect(noon.directNormalWPerM2).toBeGreaterThan(820);
    expect(noon.directNormalWPerM2).toBeLessThan(980);
    expect(noon.diffuseLevelWPerM2 / noon.globalLevelWPerM2).toBeGreaterThan(0.07);
    expect(noon.diffuseLevelWPerM2 / noon.globalLevelWPerM2).toBeLessThan(0.2);
  });
  test('no sun, no light; never more than beyond the air; higher sun, more light', () => {
    expect(clearSky(0, 100)).toEqual({ directNormalWPerM2: 0, diffuseLevelWPerM2: 0, globalLevelWPerM2: 0 });
    for (let h = 1; h < 90; h++) {
      expect(clearSky(h + 1, 100).globalLevelWPerM2).toBeGreaterThan(clearSky(h, 100).globalLevelWPerM2);
      expect(clearSky(h, 100).directNormalWPerM2).toBeLessThan(1412);
    }
  });
  test('hazy air takes from the direct light and gives to the sky', () => {
    const [fine, hazy] = [clearSky(45, 100), clearSky(45, 100, { ...clearAir, aerosol500: 0.4, aerosol380: 0.5 })];
    expect(hazy.directNormalWPerM2).toBeLessThan(0.8 * fine.directNormalWPerM2);
    expect(hazy.diffuseLevelWPerM2).toBeGreaterThan(1.4 * fine.diffuseLevelWPerM2);
  });
  test('a level plane gets the global light, an upright one half the sky; the sun behind gives nothing direct', () => {
    const sun = { altitudeDeg: 30, azimuthDeg: 180 };
    const sky = clearSky(30, 80);
    const level = lightOnPlane(sun, sky, 180, 0);
    expect(level.directWPerM2 + level.diffuseWPerM2).toBeCloseTo(sky.globalLevelWPerM2, 6);
    expect(lightOnPlane(sun, sky, 0).directWPerM2).toBe(0);
    expect(lightOnPlane(sun, sky, 180).directWPerM2).toBeCloseTo(sky.directNormalWPerM2 * Math.cos(Math.PI / 6), 6);
    expect(lightOnPlane(sun, sky, 0).diffuseWPerM2).toBeCloseTo(sky.diffuseLevelWPerM2 / 2 + 0.1 * sky.globalLevelWPerM2, 6);
  });
  // @source Haurwitz 1945: G = 1098 sin h · exp(−0.057 / sin h); Meinel & Meinel 1976: DNI = 1353 · 0.7^(AM^0.678), air mass by Kasten & Young 1989 (all from memory): two models that share no equation with this one
  test('agrees with two older models of a clear sky from 10° up: the whole within 5 %, the direct part within 8 %', () => {
    for (let h = 10; h < 90; h += 5) {
      const up = Math.sin((h * Math.PI) / 180);
      const sky = clearSky(h, 100);
      expect(Math.abs(sky.globalLevelWPerM2 / (1098 * up * Math.exp(-0.057 / up)) - 1)).toBeLessThan(0.05);
      const airMass = 1 / (up + 0.50572 * (h + 6.07995) ** -1.6364);
      expect(Math.abs(sky.directNormalWPerM2 / (1353 * 0.7 ** (airMass ** 0.678)) - 1)).toBeLessThan(0.08);
    }
  });
  test('each thing the air holds takes what it is known to take: from the mountains’ thin air to dust', () => {
    const at = (more: Partial<Air>) => clearSky(45, 100, { ...clearAir, ...more });
    const base = at({});
    const ratio = (more: Partial<Air>) => [at(more).directNormalWPerM2 / base.directNormalWPerM2, at(more).diffuseLevelWPerM2 / base.diffuseLevelWPerM2];
    // three kilometres up: more sun, a darker blue sky
    expect(ratio({ pressureMbar: 700 })[0]).toBeCloseTo(1.033, 2);
    expect(ratio({ pressureMbar: 700 })[1]).toBeCloseTo(0.92, 2);
    // ozone takes two parts in a hundred, of direct and diffuse alike; water vapour six or seven more than none
    for (const r of ratio({ ozoneCm: 0 })) expect(r).toBeCloseTo(1.021, 2);
    for (const r of ratio({ waterCm: 0.1 })) expect(r).toBeCloseTo(1.066, 2);
    // without dust the sky gives a quarter less, the sun a twentieth more
    expect(ratio({ aerosol380: 1e-4 })[0]).toBeCloseTo(1.066, 2);
    expect(ratio({ aerosol500: 1e-4 })[1]).toBeCloseTo(0.78, 2);
  });
  test('the sun is nearer in January than in July: 6.8 % more', () =>
    expect(clearSky(45, 3).directNormalWPerM2 / clearSky(45, 185).directNormalWPerM2).toBeCloseTo((1.0167 / 0.9833) ** 2, 2));
  test('below the horizon nothing, however it is asked', () => {
    for (const h of [0, -5, Number.NaN]) expect(clearSky(h, 100).globalLevelWPerM2).toBe(0);
    const sky = clearSky(30, 80);
    expect(lightOnPlane({ altitudeDeg: -1, azimuthDeg: 180 }, sky, 180).directWPerM2).toBe(0);
    // along the facade nothing comes in, and the angle says so
    expect(lightOnPlane({ altitudeDeg: 30, azimuthDeg: 270 }, sky, 180)).toMatchObject({ directWPerM2: 0, incidenceDeg: 90 });
    expect(lightOnPlane({ altitudeDeg: 30, azimuthDeg: 210 }, sky, 180).incidenceDeg).toBeCloseTo(41.41, 2);
  });
});

describe('clouds', () => {
  const clear = clearSky(40, 172);
  const under = (share: number) => lightUnderCloud(clear, 40, share);
  // @source Kasten & Czeplak 1980 (from memory): overcast a quarter of the light, half covered 93 %
  test('an overcast sky leaves a quarter, all of it from all sides; half covered hardly dims, but takes half the sun', () => {
    expect(under(1).globalLevelWPerM2 / clear.globalLevelWPerM2).toBeCloseTo(0.25, 9);
    expect([under(1).directNormalWPerM2, under(1).diffuseLevelWPerM2]).toEqual([0, under(1).globalLevelWPerM2]);
    expect(under(0.5).globalLevelWPerM2 / clear.globalLevelWPerM2).toBeCloseTo(1 - 0.75 * 0.5 ** 3.4, 9);
    expect(under(0.5).directNormalWPerM2).toBeCloseTo(clear.directNormalWPerM2 / 2, 9);
  });
  test('without a cloud it is the clear sky; direct and diffuse always make the whole', () => {
    expect(under(0)).toEqual(clear);
    const up = Math.sin((40 * Math.PI) / 180);
    for (let n = 0; n <= 10; n++) {
      const l = under(n / 10);
      expect(l.directNormalWPerM2 * up + l.diffuseLevelWPerM2).toBeCloseTo(l.globalLevelWPerM2, 6);
      expect(l.diffuseLevelWPerM2).toBeGreaterThanOrEqual(0);
    }
  });
  test('at night there is no light under any cloud', () => {
    for (const h of [0, -10]) expect(lightUnderCloud(clear, h, 0.3)).toEqual({ directNormalWPerM2: 0, diffuseLevelWPerM2: 0, globalLevelWPerM2: 0 });
  });
  test('thin sun never gives more direct light than there is light in all', () => {
    const lopsided = { directNormalWPerM2: 900, globalLevelWPerM2: 300, diffuseLevelWPerM2: 0 };
    expect(lightUnderCloud(lopsided, 30, 0).directNormalWPerM2).toBeCloseTo(600, 9);
  });
});
