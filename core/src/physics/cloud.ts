import type { ClearSky } from './clear-sky.js';

/**
 * Light under a sky that clouds cover in part: the whole by the law of Kasten and Czeplak, the direct part by the share of open sky,
 * the rest diffuse.
 * @param cloudFrac 0 … 1
 * @source Kasten & Czeplak, Solar Energy 24 (1980): G = G₀ (1 − 0.75 N^3.4) (from memory); direct by open sky: common practice
 */
export function lightUnderCloud(clear: ClearSky, altitudeDeg: number, cloudFrac: number): ClearSky {
  if (!(altitudeDeg > 0)) return { directNormalWPerM2: 0, diffuseLevelWPerM2: 0, globalLevelWPerM2: 0 };
  const globalLevel = clear.globalLevelWPerM2 * (1 - 0.75 * cloudFrac ** 3.4);
  const up = Math.sin((altitudeDeg * Math.PI) / 180);
  const directNormal = Math.min(clear.directNormalWPerM2 * (1 - cloudFrac), globalLevel / up);
  return { directNormalWPerM2: directNormal, globalLevelWPerM2: globalLevel, diffuseLevelWPerM2: Math.max(0, globalLevel - directNormal * up) };
}
