import type { Random } from '../ground/index.js';
import { normal } from './laser-distance-meter.js';

/** Errors of a pocket instrument, 1 σ. @source common practice: ±0.5 °C and ±3 % given as two standard deviations */
const NOISE = { airC: 0.25, humidityPct: 1.5 };
/** Seconds in which it follows the air by 63 %. @source common practice: pocket instruments want some minutes after the cold van */
export const HYGROMETER_LAG_S = 90;

export interface AirReading {
  readonly airC: number;
  readonly humidityPct: number;
}

/** What the sensor itself has come to after some seconds in other air. */
export function followAir(sensor: AirReading, air: AirReading, seconds: number): AirReading {
  const left = Math.exp(-Math.max(0, seconds) / HYGROMETER_LAG_S);
  return { airC: air.airC + (sensor.airC - air.airC) * left, humidityPct: air.humidityPct + (sensor.humidityPct - air.humidityPct) * left };
}

/** What it shows: the sensor with its noise, in its steps. */
export function shownAir(sensor: AirReading, random: Random): AirReading {
  return {
    airC: Math.round((sensor.airC + NOISE.airC * normal(random)) * 10) / 10,
    humidityPct: Math.min(99, Math.max(1, Math.round(sensor.humidityPct + NOISE.humidityPct * normal(random)))),
  };
}
