import type { Film, PrepareSettings, Pane, WeatherDay } from '@yellow-pane/contracts';
import { panesOf } from '../measure/index.js';
import { dateAt, dayStartMs } from '../ground/index.js';
import { bandsOfJob, ROOM, type DayRecords, type PaneDay } from '../prepare/index.js';
import { dayLossGPerM2, type LossOnDay } from './cure.js';
import { WARM_GLASS_C } from './check-job.js';

const DAY_MS = 86_400_000;
/** Days after the first pane was laid on which weather is asked for: closer together at first, then by the season. @source house rule */
export const ASKED_DAYS = [0, 7, 14, 28, 42, 56, 84, 112, 140, 182, 238, 301, 365] as const;

/** One day of weather; of a day that lies ahead there may be two, one clear and one not, that count alike. Null: nobody knows it, then only glass between rooms dries. */
export interface AskedDay {
  readonly on: string;
  readonly weather: WeatherDay | null;
}

/** What was typed on site holds for the day it was typed; of other days only the room counts. */
const roomOnly = (settings: PrepareSettings): PrepareSettings => ({
  ...settings,
  typed: { ...settings.typed, airC: null, humidityPct: null, cloudPct: null, windMPerS: null },
});

/** Air before the film: the room's, or, on the street face, that outside. */
function lossOf(day: PaneDay, surface: Pane, film: Film, settings: PrepareSettings): number | null {
  if (!day.ok) return null;
  const isOut = surface.filmFace === 'street' && !surface.exposure?.isIndoors;
  const room = { airC: settings.typed.roomC ?? ROOM.airC, humidityPct: settings.typed.roomHumidityPct ?? ROOM.humidityPct };
  return dayLossGPerM2(day.moments.map((m) => ({ glassC: m.faceC, ...(isOut ? { airC: m.airC, humidityPct: m.humidityPct } : room) })), film); // prettier-ignore
}

/** What leaves each pane on each day asked for, by its surface; panes of which the day cannot be told are left out. */
export function lossesOn(records: DayRecords, settings: PrepareSettings, { on, weather }: AskedDay): Map<string, number> {
  const out = new Map<string, number>();
  const panes = new Map(panesOf(records.surfaces).map((s) => [s.id, s]));
  for (const band of bandsOfJob(records, roomOnly(settings), weather, on, true))
    for (const id of band.surfaceIds) {
      const surface = panes.get(id)!;
      const film = records.films.find((f) => f.id === surface.filmId);
      const loss = film ? lossOf(band.day, surface, film, settings) : null;
      if (loss !== null) out.set(id, loss);
    }
  return out;
}

/** Losses of one pane from the day it was laid. @param days in calendar order, several of one date count alike @returns null where none is known */
export function dryingFrom(laidOn: string, days: readonly { readonly on: string; readonly gPerM2: number }[]): LossOnDay[] | null {
  const byDate = new Map<string, number[]>();
  for (const d of days) byDate.set(d.on, [...(byDate.get(d.on) ?? []), d.gPerM2]);
  const dated = [...byDate].map(([on, list]) => ({ day: (Date.parse(on) - Date.parse(laidOn)) / DAY_MS, gPerM2: list.reduce((s, v) => s + v, 0) / list.length })); // prettier-ignore
  dated.sort((a, b) => a.day - b.day);
  if (dated.length === 0) return null;
  const ahead = dated.filter((d) => d.day > 0);
  const before = dated.filter((d) => d.day <= 0).at(-1);
  if (!before) return ahead;
  const [next] = ahead;
  // on the day itself: straight between the days around it
  const today = next ? before.gPerM2 + ((next.gPerM2 - before.gPerM2) * (0 - before.day)) / (next.day - before.day) : before.gPerM2;
  return [{ day: 0, gPerM2: today }, ...ahead];
}

/** Sun on the glass, or glass too warm, in the hour a pane was laid; null: nobody can say. */
export function wasWarmWhenLaid(records: DayRecords, settings: PrepareSettings, weather: WeatherDay | null, surfaceId: string, laidAt: string): boolean | null {
  const { zone } = records.job;
  const on = dateAt(Date.parse(laidAt), zone);
  const band = bandsOfJob(records, settings, weather, on).find((b) => b.surfaceIds.includes(surfaceId));
  if (!band?.day.ok) return null;
  const hour = (Date.parse(laidAt) - dayStartMs(on, zone)) / 3_600_000;
  const moment = band.day.moments.reduce((a, b) => (Math.abs(b.hour - hour) < Math.abs(a.hour - hour) ? b : a));
  return moment.faceC > WARM_GLASS_C || moment.reasons.some((r) => r.cause === 'sun' && r.grade === 'wrong');
}

/** Dates on which weather is asked for, from the first laying on. */
export const datesAsked = (firstLaidAt: string, zone: string): string[] => ASKED_DAYS.map((d) => dateAt(Date.parse(firstLaidAt) + d * DAY_MS, zone));

/** The words for where the days came from. */
export const daysBasis = (source: string, isMadeUp: boolean): string =>
  `${isMadeUp ? 'Made-up weather' : source}: a clear and a changing day of each season, sun on this facade, the room as in Prepare.`;
