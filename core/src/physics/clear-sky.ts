import { incidenceDeg, type SunPosition } from './sun-position.js';

/** Sunlight under a cloudless sky, W/m². */
export interface ClearSky {
  /** On a plane that faces the sun. */
  readonly directNormalWPerM2: number;
  /** From the sky, on a level plane. */
  readonly diffuseLevelWPerM2: number;
  /** Both, on a level plane. */
  readonly globalLevelWPerM2: number;
}

/** What the air holds. */
export interface Air {
  readonly pressureMbar: number;
  readonly ozoneCm: number;
  readonly waterCm: number;
  /** Aerosol optical depth at 500 and 380 nm. */
  readonly aerosol500: number;
  readonly aerosol380: number;
}
/** @source Bird & Hulstrom 1981, the values of their rural example (from memory) */
export const clearAir: Air = { pressureMbar: 1013, ozoneCm: 0.3, waterCm: 1.5, aerosol500: 0.1, aerosol380: 0.15 };
const SOLAR_CONSTANT_W_PER_M2 = 1367;
/** @source common practice: grass and paving */
const GROUND_ALBEDO = 0.2;

/** Day-to-day distance of the sun. @source Duffie & Beckman, eq. 1.4.1a (from memory) */
const beyondAir = (dayOfYear: number): number => SOLAR_CONSTANT_W_PER_M2 * (1 + 0.033 * Math.cos((2 * Math.PI * dayOfYear) / 365));

/**
 * Clear-sky light by the broadband model of Bird.
 * @param altitudeDeg apparent altitude; at or below 0 everything is 0
 * @source Bird & Hulstrom, A Simplified Clear Sky Model for Direct and Diffuse Insolation, SERI/TR-642-761 (1981), equations from memory
 */
export function clearSky(altitudeDeg: number, dayOfYear: number, air: Air = clearAir): ClearSky {
  if (!(altitudeDeg > 0)) return { directNormalWPerM2: 0, diffuseLevelWPerM2: 0, globalLevelWPerM2: 0 };
  const cosZ = Math.sin((altitudeDeg * Math.PI) / 180);
  // Kasten 1966
  const m = 1 / (cosZ + 0.15 * (93.885 - (90 - altitudeDeg)) ** -1.25);
  const mp = (m * air.pressureMbar) / 1013;
  const rayleigh = Math.exp(-0.0903 * mp ** 0.84 * (1 + mp - mp ** 1.01));
  const xo = air.ozoneCm * m;
  const ozone = 1 - 0.1611 * xo * (1 + 139.48 * xo) ** -0.3035 - (0.002715 * xo) / (1 + 0.044 * xo + 0.0003 * xo * xo);
  const gases = Math.exp(-0.0127 * mp ** 0.26);
  const xw = air.waterCm * m;
  const water = 1 - (2.4959 * xw) / ((1 + 79.034 * xw) ** 0.6828 + 6.385 * xw);
  const depth = 0.2758 * air.aerosol380 + 0.35 * air.aerosol500;
  const aerosol = Math.exp(-(depth ** 0.873) * (1 + depth - depth ** 0.7088) * m ** 0.9108);
  const absorbing = 1 - 0.1 * (1 - m + m ** 1.06) * (1 - aerosol);
  const scattering = aerosol / absorbing;
  const sky = 0.0685 + (1 - 0.84) * (1 - scattering);
  const beyond = beyondAir(dayOfYear);
  const directNormal = Math.max(0, 0.9662 * beyond * aerosol * water * gases * ozone * rayleigh);
  const scattered = (beyond * cosZ * 0.79 * ozone * water * gases * absorbing * (0.5 * (1 - rayleigh) + 0.84 * (1 - scattering))) / (1 - m + m ** 1.02);
  const globalLevel = (directNormal * cosZ + scattered) / (1 - GROUND_ALBEDO * sky);
  return { directNormalWPerM2: directNormal, globalLevelWPerM2: globalLevel, diffuseLevelWPerM2: Math.max(0, globalLevel - directNormal * cosZ) };
}

/** Light that falls on a plane, W/m². */
export interface PlaneLight {
  readonly directWPerM2: number;
  readonly diffuseWPerM2: number;
  /** Angle at which the direct part comes in, degrees; 90 when there is none. */
  readonly incidenceDeg: number;
}

/** Clear-sky light on a facade: direct by its cosine, sky and ground as even domes. @source Liu & Jordan 1960 (isotropic sky; from memory) */
export function lightOnPlane(sun: SunPosition, sky: ClearSky, facadeDeg: number, tiltDeg = 90): PlaneLight {
  const angle = incidenceDeg(sun, facadeDeg, tiltDeg);
  const cosTilt = Math.cos((tiltDeg * Math.PI) / 180);
  const direct = angle < 90 && sun.altitudeDeg > 0 ? sky.directNormalWPerM2 * Math.cos((angle * Math.PI) / 180) : 0;
  return {
    directWPerM2: direct,
    diffuseWPerM2: (sky.diffuseLevelWPerM2 * (1 + cosTilt)) / 2 + (GROUND_ALBEDO * sky.globalLevelWPerM2 * (1 - cosTilt)) / 2,
    incidenceDeg: direct > 0 ? angle : 90,
  };
}
