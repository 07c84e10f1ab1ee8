import { checkRange } from '../ground/index.js';
import { saturationHPa } from './moist-air.js';

/** One barrer in cm³ of gas (at 0 °C and 1 atm) · cm / (cm² · s · cmHg). @source definition of the unit */
const BARRER = 1e-10;
/** Of water vapour as an ideal gas at 0 °C and 1 atm: what a cm³ weighs, g. @source molar volume 22 414 cm³/mol, molar mass 18.015 g/mol (CODATA, from memory) */
const G_PER_CM3 = 18.015 / 22_414;
const HPA_PER_CMHG = 13.332_24;
const CM2_PER_M2 = 1e4;
const S_PER_DAY = 86_400;
/** Above this the formula of saturation does not hold: a hotter face is taken as this hot, which lets water go rather too slowly. */
const HOTTEST_C = 60;

/** Water on one side of a sheet, air on the other. */
export interface WetSheet {
  /** Permeability to water vapour, barrer. */
  readonly permeabilityBarrer: number;
  readonly thicknessUm: number;
  /** The water behind the sheet, °C: liquid, so the air in it is saturated. */
  readonly waterC: number;
  readonly airC: number;
  readonly humidityPct: number;
}

/**
 * Water that leaves through a sheet in a day, g/m². Steady: a film lets it through as fast as it comes (the time lag L²/6D of 100 µm of polyester is an hour).
 * Damper air than the water's own lets none out: 0.
 * @throws OutOfRange for a sheet without thickness, or air beyond −45 … 60 °C
 * @source Fick & Henry: flux = P · Δp / L; saturation as in `moist-air`
 */
export function waterThroughGPerM2Day(sheet: WetSheet): number {
  const { permeabilityBarrer, thicknessUm, waterC, airC, humidityPct } = sheet;
  checkRange('Thickness', thicknessUm, 1, 10_000, 'µm');
  checkRange('Humidity', humidityPct, 0, 100, '%');
  const behindHPa = saturationHPa(Math.min(HOTTEST_C, waterC));
  const inFrontHPa = (saturationHPa(Math.min(HOTTEST_C, airC)) * humidityPct) / 100;
  const differenceCmHg = Math.max(0, behindHPa - inFrontHPa) / HPA_PER_CMHG;
  const thicknessCm = thicknessUm / 1e4;
  return ((permeabilityBarrer * BARRER * differenceCmHg) / thicknessCm) * S_PER_DAY * CM2_PER_M2 * G_PER_CM3;
}
