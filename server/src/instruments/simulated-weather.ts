import type { WeatherDay, WeatherHour } from '@yellow-pane/contracts';
import { contentHash, dewPointC, humidityPctAt, seededRandom } from '@yellow-pane/core';
import type { WeatherService } from './weather-service.js';

/** Season and noon of a made-up climate by latitude. @source house figures for a temperate coast; nothing of it is a forecast */
const meanC = (latDeg: number): number => 28 - 0.35 * Math.abs(latDeg);
const seasonK = (latDeg: number): number => 0.18 * Math.abs(latDeg);

/**
 * Stands in for a weather service: made up, but the same for the same place and day, and steady from one day to the next.
 * A clear day has few clouds and a breeze in the afternoon; a changing one clouds over, with a shower and gusts.
 */
export class SimulatedWeather implements WeatherService {
  async day(latDeg: number, lonDeg: number, _zone: string, on: string, sky: WeatherDay['sky'] | null): Promise<WeatherDay> {
    const today = made(latDeg, lonDeg, on, sky);
    const tomorrow = made(latDeg, lonDeg, nextDay(on), null);
    const night = [...today.hours.slice(18), ...tomorrow.hours.slice(0, 18)];
    return { on, source: 'Made-up weather, for trying the bench: no forecast', isMadeUp: true, ...today, nightLowC: Math.min(...night.map((h) => h.airC)) };
  }
}

const nextDay = (on: string): string => new Date(Date.parse(`${on}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);

function made(latDeg: number, lonDeg: number, on: string, asked: WeatherDay['sky'] | null): Pick<WeatherDay, 'sky' | 'hours'> {
  const random = seededRandom(parseInt(contentHash([latDeg.toFixed(1), lonDeg.toFixed(1), on]).slice(0, 8), 16));
  const dice = Array.from({ length: 8 }, random);
  const sky = asked ?? (dice[0]! < 0.6 ? 'clear' : 'changing');
  const dayOfYear = (Date.parse(`${on}T00:00:00Z`) - Date.UTC(Number(on.slice(0, 4)), 0, 1)) / 86_400_000;
  const summer = Math.cos((2 * Math.PI * (dayOfYear - 200)) / 365) * (latDeg >= 0 ? 1 : -1);
  const dayMeanC = meanC(latDeg) + seasonK(latDeg) * summer + 5 * (dice[1]! - 0.5);
  const swing = sky === 'clear' ? 4.5 : 2.5;
  const dewC = dewPointC(dayMeanC, 62 + 16 * dice[2]!);
  const shower = 12 + Math.floor(6 * dice[3]!);
  const hours = Array.from({ length: 24 }, (_, hour): WeatherHour => {
    const airC = dayMeanC + swing * Math.cos((2 * Math.PI * (hour - 15)) / 24);
    const breeze = Math.max(0, Math.sin((Math.PI * (hour - 8)) / 12));
    const isShower = sky === 'changing' && hour >= shower && hour < shower + 2;
    const windMPerS = 1 + (sky === 'clear' ? 2.5 : 4.5) * breeze + dice[4]!;
    const cloudFrac =
      sky === 'clear' ? 0.05 + 0.1 * dice[5]! : Math.min(1, 0.3 + 0.5 * Math.max(0, Math.sin((Math.PI * (hour - shower + 8)) / 16)) + (isShower ? 0.2 : 0));
    const rounded = (x: number) => Math.round(x * 10) / 10;
    return {
      airC: rounded(airC),
      humidityPct: Math.round(Math.max(20, Math.min(100, humidityPctAt(airC, Math.min(dewC, airC))))),
      cloudFrac: Math.round(cloudFrac * 100) / 100,
      windMPerS: rounded(windMPerS),
      gustMPerS: rounded(windMPerS * (isShower ? 2 : 1.5)),
      rainMm: isShower ? rounded(0.8 + 2 * dice[6]!) : 0,
    };
  });
  return { sky, hours };
}
