import type { Exposure, Film, Firm, Job, Pane, Place, PrepareSettings, Reading, Surface, WeatherDay } from '@yellow-pane/contracts';
import { uprightBendOf } from '../cut/index.js';
import { filmOnFace } from '../choose/index.js';
import { surveySurface } from '../form/index.js';
import { boundingBox, pathArea, pathLength } from '../geometry/index.js';
import { contentHash, dayStartMs, type Memo } from '../ground/index.js';
import { panesOf } from '../measure/index.js';
import { ROOM } from './ground-plan.js';
import { glassDay, indoorDay, typedOver } from './glass-day.js';
import { kitList, type KitLine, type KitPane } from './kit-list.js';
import { slipRules } from './slip-mix.js';
import { bestWindow, workMoments, workWindows, type WorkAsked, type WorkMoment, type WorkWindow } from './work-windows.js';

/** What the day of a job is worked out from. */
export interface DayRecords {
  readonly job: Job;
  readonly firm: Pick<Firm, 'blades'>;
  readonly places: readonly Place[];
  readonly surfaces: readonly Surface[];
  readonly readings: readonly Reading[];
  readonly films: readonly Film[];
  /** What whoever asks has had worked out before. */
  readonly memo: Memo;
}

/** A pane's day, or what is missing for it. */
export type PaneDay =
  | {
      readonly ok: true;
      readonly surfaceId: string;
      readonly moments: readonly WorkMoment[];
      readonly windows: readonly WorkWindow[];
      readonly best: WorkWindow | null;
    }
  | { readonly ok: false; readonly surfaceId: string; readonly missing: string };

/** The face of the glass that film goes on, the conditions that it is laid in. */
export function workAsked(surface: Pane, film: Film | null, settings: PrepareSettings, weather: WeatherDay): WorkAsked {
  return {
    face: surface.filmFace,
    isIndoors: surface.exposure?.isIndoors ?? false,
    film,
    roomC: settings.typed.roomC ?? ROOM.airC,
    roomHumidityPct: settings.typed.roomHumidityPct ?? ROOM.humidityPct,
    nightLowC: weather.nightLowC,
  };
}

/**
 * Sun, glass and verdict of one pane on a day.
 * @param known the weather of that day; null: nobody knows it, then only glass between two rooms has a verdict
 * @param isLaid the film is on already
 */
export function dayOfPane(surface: Pane, records: DayRecords, settings: PrepareSettings, known: WeatherDay | null, on: string, isLaid = false): PaneDay {
  const missing = (text: string): PaneDay => ({ ok: false, surfaceId: surface.id, missing: text });
  const { outline } = surveySurface(surface, records).survey;
  const { job } = records;
  const exposure: Exposure | null = surface.exposure;
  if (!outline) return missing('It is not measured yet.');
  if (!surface.glazing) return missing('Nobody has said what glass it is: see Choose.');
  const isIndoors = exposure?.isIndoors ?? false;
  if (!isIndoors && (job.latDeg === null || job.lonDeg === null)) return missing('Nobody has said where on earth the site is: see Choose.');
  if (!isIndoors && exposure?.facadeDeg == null) return missing('Nobody has said which way it looks: see Choose.');
  const weather = known ?? (isIndoors ? indoorDay(on, settings.typed.roomC ?? ROOM.airC) : null);
  if (!weather) return missing('No weather is known: type air, humidity, clouds and wind as you read them on site.');
  const box = boundingBox(outline);
  const film = records.films.find((f) => f.id === surface.filmId) ?? null;
  const asked = workAsked(surface, film, settings, weather);
  const moments = workMoments(
    glassDay({
      latDeg: job.latDeg ?? 0,
      lonDeg: job.lonDeg ?? 0,
      dayStartMs: dayStartMs(weather.on, job.zone),
      facadeDeg: exposure?.facadeDeg ?? null,
      isIndoors,
      widthMm: box.maxX - box.minX,
      heightMm: box.maxY - box.minY,
      revealMm: surface.revealMm ?? 0,
      overhangMm: exposure?.overhangMm ?? 0,
      overhangAboveMm: exposure?.overhangAboveMm ?? 0,
      horizon: isIndoors ? [] : settings.horizon,
      glazing: surface.glazing,
      weather: typedOver(weather, settings.typed),
      roomC: asked.roomC,
      film: isLaid && film ? filmOnFace(film, surface.glazing.panes.length, surface.filmFace) : null,
    }),
    asked,
  );
  const windows = workWindows(moments);
  return { ok: true, surfaceId: surface.id, moments, windows, best: bestWindow(windows) };
}

/** Panes that share place, bearing, face, film, glass and what shades it share their day: one of them, the largest, stands for all. */
export interface DayBand {
  readonly key: string;
  readonly name: string;
  readonly facadeDeg: number | null;
  readonly isIndoors: boolean;
  readonly surfaceIds: readonly string[];
  readonly day: PaneDay;
}

/** One band for each facade of the job, in the order of walking. @param isLaid the film is on already */
export function bandsOfJob(records: DayRecords, settings: PrepareSettings, weather: WeatherDay | null, on: string, isLaid = false): DayBand[] {
  const groups = new Map<string, Pane[]>();
  for (const s of panesOf(records.surfaces)) {
    if (!s.filmId) continue;
    const e = s.exposure;
    const shade = e?.isIndoors ? 'in' : [e?.facadeDeg ?? null, e?.overhangMm ?? null, e?.overhangAboveMm ?? null, s.revealMm];
    const key = contentHash([s.placeId, s.filmFace, s.filmId, s.glazing, shade]);
    groups.set(key, [...(groups.get(key) ?? []), s]);
  }
  return [...groups].map(([key, list]) => {
    const sized = list.map((s) => ({ s, area: areaOf(s, records)?.areaM2 ?? 0 }));
    const { s } = sized.reduce((a, b) => (b.area > a.area ? b : a));
    return {
      key,
      name: records.places.find((p) => p.id === s.placeId)?.name ?? '',
      facadeDeg: s.exposure?.facadeDeg ?? null,
      isIndoors: s.exposure?.isIndoors ?? false,
      surfaceIds: list.map((x) => x.id),
      day: dayOfPane(s, records, settings, weather, on, isLaid),
    };
  });
}

function areaOf(
  surface: Pane,
  records: Pick<DayRecords, 'surfaces' | 'readings' | 'memo'>,
): { areaM2: number; perimeterMm: number; widthMm: number; heightMm: number } | null {
  const { outline, path } = surveySurface(surface, records).survey;
  if (!outline || !path) return null;
  const box = boundingBox(outline);
  return { areaM2: Math.abs(pathArea(path)) / 1e6, perimeterMm: pathLength(path), widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY };
}

/** Whether a pane is worked on that day: in the places chosen, as far as they are still there; the whole job where none is. */
export function isOfTheDay(records: Pick<DayRecords, 'places'>, settings: PrepareSettings): (s: Pick<Pane, 'placeId'>) => boolean {
  const chosen = settings.placeIds?.filter((id) => records.places.some((p) => p.id === id)) ?? [];
  return (s) => chosen.length === 0 || chosen.includes(s.placeId);
}

/** The panes that get film on that day and are measured, as the van has to be loaded for them. */
export function kitPanesOf(records: DayRecords, settings: PrepareSettings): KitPane[] {
  return panesOf(records.surfaces)
    .filter(isOfTheDay(records, settings))
    .flatMap((s): KitPane[] => {
      const size = s.filmId ? areaOf(s, records) : null;
      if (!size) return [];
      const film = records.films.find((f) => f.id === s.filmId) ?? null;
      const place = records.places.find((p) => p.id === s.placeId)?.name ?? '';
      const bend = s.curved ? { bendPerMm: uprightBendOf(s, records) } : {};
      return [{ name: s.name, ...size, ...bend, heightAboveFloorMm: s.exposure?.heightAboveFloorMm ?? null, frame: s.frame, film, place }];
    });
}

/** What the day's slip is mixed for: glass that gets wet film, and the warmest that it is in its best hours. */
export interface SlipNeed {
  readonly wetAreaM2: number;
  readonly glassC: number;
}
export function slipNeed(records: DayRecords, settings: PrepareSettings, bands: readonly DayBand[]): SlipNeed {
  const wet = kitPanesOf(records, settings).filter((p) => p.film?.drying !== 'dry-applied');
  const isToday = isOfTheDay(records, settings);
  const faces = bands.flatMap(({ surfaceIds, day }) => {
    if (!day.ok || !records.surfaces.some((s) => surfaceIds.includes(s.id) && isToday(s))) return [];
    return day.moments.filter((m) => day.best && m.hour >= day.best.fromHour && m.hour < day.best.toHour).map((m) => m.faceC);
  });
  return { wetAreaM2: wet.reduce((sum, p) => sum + p.areaM2, 0), glassC: faces.length ? Math.max(...faces) : ROOM.airC };
}

/** Reach of a person from the floor where the job says nothing, mm. @source common practice */
export const REACH_MM = 2100;

/** What has to be in the van for the day. */
export function kitOfDay(records: DayRecords, settings: PrepareSettings, need: Pick<SlipNeed, 'wetAreaM2'>): KitLine[] {
  return kitList({
    panes: kitPanesOf(records, settings),
    reachMm: records.job.reachMm ?? REACH_MM,
    slipMl: need.wetAreaM2 * settings.slipMlPerM2,
    bottleMl: settings.bottleMl,
    additive: slipRules[settings.school].what,
    units: records.job.units,
    blades: records.firm.blades,
  });
}
