import { checkRange } from '../ground/index.js';

// Magnus form over water, −45 … 60 °C. @source WMO-No. 8, Guide to Instruments and Methods of Observation, annex 4.B (from memory; checked in the specification against ASHRAE by a reference library)
const [BASE_HPA, SLOPE, OFFSET_C] = [6.112, 17.62, 243.12];

/**
 * Pressure of water vapour in saturated air, hPa.
 * @throws OutOfRange outside −45 … 60 °C, where the formula does not hold
 */
export function saturationHPa(airC: number): number {
  checkRange('Air temperature', airC, -45, 60, '°C');
  return BASE_HPA * Math.exp((SLOPE * airC) / (OFFSET_C + airC));
}

/** Temperature at which this air begins to wet a surface, °C. @param humidityPct 1 … 100 @throws OutOfRange */
export function dewPointC(airC: number, humidityPct: number): number {
  checkRange('Humidity', humidityPct, 0.1, 100, '%');
  const x = Math.log((saturationHPa(airC) * humidityPct) / 100 / BASE_HPA);
  return (OFFSET_C * x) / (SLOPE - x);
}

/** Relative humidity of air that begins to wet a surface at the dew point, %. */
export const humidityPctAt = (airC: number, dewC: number): number => Math.min(100, (100 * saturationHPa(dewC)) / saturationHPa(airC));
