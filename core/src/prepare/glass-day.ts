import type { Glazing, HorizonPoint, TypedConditions, WeatherDay, WeatherHour } from '@yellow-pane/contracts';
import {
  angularShare,
  centreToCentre,
  conductances,
  diffuseShare,
  insideCoefficient,
  litFrac,
  settleGlazing,
  stepPanes,
  throughGlazing,
  type FilmOnFace,
} from '../choose/index.js';
import { clearSky, lightOnPlane, lightUnderCloud, sunPosition } from '../physics/index.js';
import { horizonDeg } from './horizon.js';

/** A pane on its facade on one day. */
export interface GlassDayInput {
  readonly latDeg: number;
  readonly lonDeg: number;
  /** The instant from which the clock hours of the day are counted, ms since 1970 UTC. */
  readonly dayStartMs: number;
  /** Bearing that the street face looks to; null: no sun is reckoned with. */
  readonly facadeDeg: number | null;
  readonly isIndoors: boolean;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly revealMm: number;
  readonly overhangMm: number;
  readonly overhangAboveMm: number;
  readonly horizon: readonly HorizonPoint[];
  readonly glazing: Glazing;
  readonly weather: readonly WeatherHour[];
  readonly roomC: number;
  /** A film that is on already, which takes in sun of its own; left out: the bare pane that is laid on. */
  readonly film?: FilmOnFace | null;
}

/** What is so at one moment of the day. */
export interface GlassMoment {
  /** Clock hour at the site. */
  readonly hour: number;
  readonly airC: number;
  readonly humidityPct: number;
  readonly windMPerS: number;
  readonly gustMPerS: number;
  readonly rainMm: number;
  /** Sun on a plane that faces it, W/m²: 0 behind the horizon, an overhang or the house itself. */
  readonly beamWPerM2: number;
  /** Share of the pane that the sun reaches. */
  readonly litFrac: number;
  /** Sun that falls on the lit glass, W/m² of glass. */
  readonly sunWPerM2: number;
  /** Street face and room face, °C. */
  readonly outerC: number;
  readonly innerC: number;
}

export const GLASS_STEP_MINUTES = 10;
/** Radiation between the street face and what stands before it, W/(m² K). @source ISO 6946 annex A: 4σT³ at 10 °C times 0.9 */
const RADIATION_W_PER_M2K = 4.6;
/** Heat taken by the wind, W/(m² K). @source ISO 6946 annex A: 4 + 4 v */
const windCooling = (windMPerS: number): number => 4 + 4 * windMPerS;

/** Between the middles of two hours, straight; the day runs on into the night as it came out of it. */
function between(weather: readonly WeatherHour[], hour: number): WeatherHour {
  const at = hour - 0.5;
  const i = Math.floor(at);
  const f = at - i;
  const [a, b] = [weather[(i + 24) % 24]!, weather[(i + 25) % 24]!];
  const mix = (key: keyof WeatherHour) => a[key] * (1 - f) + b[key] * f;
  return {
    airC: mix('airC'),
    humidityPct: mix('humidityPct'),
    cloudFrac: mix('cloudFrac'),
    windMPerS: mix('windMPerS'),
    gustMPerS: mix('gustMPerS'),
    // rain falls in the hour it is told for
    rainMm: weather[Math.min(23, Math.floor(hour))]!.rainMm,
  };
}

/**
 * A day by nothing but what was read or typed on site: every hour alike, nobody knows the night.
 * @returns null while air, humidity, clouds or wind outside are still missing
 */
export function typedDay(on: string, typed: TypedConditions): WeatherDay | null {
  const { airC, humidityPct, cloudPct, windMPerS } = typed;
  if (airC === null || humidityPct === null || cloudPct === null || windMPerS === null) return null;
  const hour: WeatherHour = { airC, humidityPct, cloudFrac: cloudPct / 100, windMPerS, gustMPerS: windMPerS, rainMm: 0 };
  return {
    on,
    source: 'As read or typed on site, for every hour of the day',
    isMadeUp: false,
    sky: cloudPct < 50 ? 'clear' : 'changing',
    hours: Array.from({ length: 24 }, () => hour),
    nightLowC: null,
  };
}

/** A day that has no outside: for glass between two rooms, where nothing of the weather counts. */
export const indoorDay = (on: string, roomC: number): WeatherDay => ({
  on,
  source: 'Between two rooms: no weather counts',
  isMadeUp: false,
  sky: 'clear',
  hours: Array.from({ length: 24 }, () => ({ airC: roomC, humidityPct: 50, cloudFrac: 1, windMPerS: 0, gustMPerS: 0, rainMm: 0 })),
  nightLowC: null,
});

/** What the weather service says, with what was read or typed on site in its place. */
export function typedOver(day: WeatherDay, typed: TypedConditions): WeatherHour[] {
  return day.hours.map((h) => ({
    ...h,
    airC: typed.airC === null ? h.airC : typed.airC,
    humidityPct: typed.humidityPct ?? h.humidityPct,
    cloudFrac: typed.cloudPct === null ? h.cloudFrac : typed.cloudPct / 100,
    windMPerS: typed.windMPerS ?? h.windMPerS,
    gustMPerS: typed.windMPerS === null ? h.gustMPerS : Math.max(typed.windMPerS, (typed.windMPerS * h.gustMPerS) / Math.max(0.1, h.windMPerS)),
  }));
}

/**
 * Sun on a pane and its temperature over a day, every ten minutes: the panes as a row of heat stores, warmed by the sun on
 * their lit part, cooled by wind and room. The day is run twice, so that it begins as a day like it would have left the glass.
 * Not weighed: cold sky at night (a clear night leaves the street face a few degrees colder), blinds.
 * @source docs/models/day.md; panes and light as in the models of light and heat
 */
export function glassDay(input: GlassDayInput): GlassMoment[] {
  const { panes, cavities } = settleGlazing(input.glazing);
  const { betweenPanesWPerM2K, roomEmissivity } = conductances(panes, cavities, input.film ?? null);
  const absorbed = throughGlazing(panes, input.film ?? null, 'solar').absorbedFrac;
  const spread = diffuseShare(panes.length);
  const insideWPerM2K = insideCoefficient(roomEmissivity);
  const steps = (24 * 60) / GLASS_STEP_MINUTES;
  const start = new Date(input.dayStartMs);
  const dayOfYear = Math.floor((input.dayStartMs + 43_200_000 - Date.UTC(start.getUTCFullYear(), 0, 1)) / 86_400_000) + 1;
  const light = Array.from({ length: steps }, (_, i) => lightAt(input, (i * GLASS_STEP_MINUTES) / 60, dayOfYear));
  const dark = panes.map(() => 0);
  let now: number[] | null = null;
  let out: GlassMoment[] = [];
  for (let round = 0; round < 2; round++) {
    out = light.map((l) => {
      const network = {
        thicknessMm: panes.map((p) => p.thicknessMm),
        betweenWPerM2K: centreToCentre(panes, betweenPanesWPerM2K),
        outsideWPerM2K: input.isIndoors ? insideWPerM2K : windCooling(l.weather.windMPerS) + RADIATION_W_PER_M2K,
        insideWPerM2K,
      };
      const before = input.isIndoors ? input.roomC : l.weather.airC;
      const soaked = absorbed.map((a) => a * (l.sunWPerM2 * angularShare(l.incidenceDeg, panes.length) + l.diffuseWPerM2 * spread));
      now = stepPanes(network, now ?? dark, soaked, before, input.roomC, now ? GLASS_STEP_MINUTES * 60 : Infinity);
      const { airC, humidityPct, windMPerS, gustMPerS, rainMm } = l.weather;
      const { hour, beamWPerM2, litFrac: lit, sunWPerM2 } = l;
      return { hour, airC, humidityPct, windMPerS, gustMPerS, rainMm, beamWPerM2, litFrac: lit, sunWPerM2, outerC: now[0]!, innerC: now[now.length - 1]! };
    });
  }
  return out;
}

interface LightMoment {
  readonly hour: number;
  readonly weather: WeatherHour;
  readonly beamWPerM2: number;
  readonly litFrac: number;
  readonly sunWPerM2: number;
  readonly diffuseWPerM2: number;
  readonly incidenceDeg: number;
}

function lightAt(input: GlassDayInput, hour: number, dayOfYear: number): LightMoment {
  const weather = between(input.weather, hour);
  const none = { hour, weather, beamWPerM2: 0, litFrac: 0, sunWPerM2: 0, diffuseWPerM2: 0, incidenceDeg: 90 };
  if (input.isIndoors) return none;
  const sun = sunPosition(input.dayStartMs + hour * 3_600_000, input.latDeg, input.lonDeg);
  const sky = lightUnderCloud(clearSky(sun.altitudeDeg, dayOfYear), sun.altitudeDeg, weather.cloudFrac);
  // where nobody said which way it looks, only the light from all sides counts
  const plane = lightOnPlane(sun, sky, input.facadeDeg ?? sun.azimuthDeg + 180);
  const isHidden = sun.altitudeDeg <= horizonDeg(input.horizon, sun.azimuthDeg);
  const lit = plane.directWPerM2 > 0 && !isHidden && input.facadeDeg !== null ? litFrac(sun, { ...input, facadeDeg: input.facadeDeg }) : 0;
  return {
    ...none,
    litFrac: lit,
    beamWPerM2: lit > 0 ? sky.directNormalWPerM2 : 0,
    sunWPerM2: lit > 0 ? plane.directWPerM2 : 0,
    diffuseWPerM2: plane.diffuseWPerM2,
    incidenceDeg: lit > 0 ? plane.incidenceDeg : 90,
  };
}
