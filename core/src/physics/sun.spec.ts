import { Body, Equator, Horizon, Observer } from 'astronomy-engine';
import fc from 'fast-check';
import { clearAir, clearSky, lightOnPlane } from './clear-sky.js';
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
  });

  test('a place that is not on Earth is refused with value, range and unit', () => {
    expect(() => sunPosition(at, 91, 0)).toThrow('Latitude is 91 °; it must be -90 … 90 °.');
    expect(() => sunPosition(at, Number.NaN, 0)).toThrow('Latitude');
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
});
