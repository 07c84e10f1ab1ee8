import type { Film, Roll } from '@yellow-pane/contracts';
import { warmThroughHours, type RoundBody } from '../physics/index.js';

/** A film's thickest roll. */
export interface FilmBox {
  readonly radiusMm: number;
}

/** A core of 3 in and its wall. @source common practice */
const CORE_RADIUS_MM = 42;
/** Liner and glue of a film, µm. @source house figure: silicone paper 70 to 100 µm and 25 µm of glue */
const LINER_UM = 110;
/** Film and liner as they are wound, square to the layers; and what they hold. @source Incropera & DeWitt, tables of polymers and paper (from memory): PVC 0.19 W/(m·K), paper 0.18; 1.6 MJ/(m³·K) */
const WOUND = { wPerMK: 0.18, joulePerM3K: 1.6e6 };
/** Still air at an open roll; through the board of a closed box (4 mm at 0.06 W/(m·K)) with air inside. @source EN ISO 6946 (from memory): 1/0.13 = 7.7 inside; house figure for the box */
const OPEN_W_PER_M2K = 7.7;
const CLOSED_W_PER_M2K = 3.5;
/** So near the room it is told as warm through. @source house rule */
const NEAR_K = 2;

/** The thickest roll of a film; null: none is in stock. @param lengthM on it, as it was bought: a part roll is ready sooner */
export function boxOfFilm(film: Pick<Film, 'id' | 'thicknessUm'>, rolls: readonly Pick<Roll, 'filmId' | 'lengthM' | 'deletedAt'>[]): FilmBox | null {
  const longest = Math.max(0, ...rolls.filter((r) => r.filmId === film.id && !r.deletedAt).map((r) => r.lengthM));
  if (longest === 0) return null;
  // what is wound fills a ring of as much area
  const ringMm2 = longest * 1000 * ((film.thicknessUm + LINER_UM) / 1000);
  return { radiusMm: Math.sqrt(CORE_RADIUS_MM ** 2 + ringMm2 / Math.PI) };
}

/** How long a roll takes to be warm through: out of its box, and in it, hours. @source docs/models/columns.md §5 */
export function boxHours(box: FilmBox, fromC: number, roomC: number): readonly [number, number] {
  const body = (surfaceWPerM2K: number): RoundBody => ({ radiusMm: box.radiusMm, ...WOUND, surfaceWPerM2K });
  return [warmThroughHours(body(OPEN_W_PER_M2K), fromC, roomC, NEAR_K), warmThroughHours(body(CLOSED_W_PER_M2K), fromC, roomC, NEAR_K)];
}
