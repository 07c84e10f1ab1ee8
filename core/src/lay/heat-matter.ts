import type { Film, Ground, Masonry } from '@yellow-pane/contracts';
import { cellsOf, type CellRow, type Conductor, type HeatLayer } from '../physics/index.js';

type Material = Ground['material'];
/**
 * Conductivity W/(m·K), density kg/m³, heat J/(kg·K); how thick a sheet of it usually is, mm; and how warm it may get, °C.
 * @source Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, tables A.1 and A.3 (from memory); sheets: common practice; limits: house rule (gypsum gives off its water from about 80 °C, wood
 * based boards lose their glue, lacquer and melamine blister, coated cloth goes soft)
 */
const matter: Readonly<Record<Exclude<Material, 'unknown'>, readonly [wPerMK: number, kgPerM3: number, joulePerKgK: number, sheetMm: number, limitC: number]>> =
  {
    plasterboard: [0.17, 800, 1085, 12.5, 80],
    plaster: [0.72, 1860, 780, 60, 80],
    concrete: [1.4, 2300, 880, 60, 150],
    brick: [0.72, 1920, 835, 60, 150],
    wood: [0.16, 720, 1255, 20, 110],
    'wood-board': [0.17, 1000, 1300, 19, 110],
    steel: [60.5, 7854, 434, 1, 120],
    aluminium: [177, 2770, 875, 2, 120],
    laminate: [0.17, 1000, 1300, 19, 110],
    tile: [1.2, 2000, 850, 8, 100],
    canvas: [0.1, 1000, 1400, 0.5, 75],
  };
/** What nobody named is taken for what its kind mostly is: walls and columns warm slowest as concrete, doors and tops are board. @source common practice */
export type UsualGround = Exclude<Material, 'unknown'>;

/** Between film that is pressed on and its ground: 20 µm of adhesive, and air at the paint's grain, m²·K/W. @source house rule */
const CONTACT_M2K_PER_W = 1.5e-4;
/** Still air in a gap; in one deeper than this it begins to turn over. @source Incropera & DeWitt, table A.4 at 330 K (from memory) */
const STILL_AIR_W_PER_MK = 0.0285;
const STILL_GAP_MM = 8;
/** From a face to the room by convection and radiation. @source ISO 6946 has 7.7 for walls; warm ones somewhat more: house rule */
export const ROOM_W_PER_M2K = 10;

/** PVC begins to break down and goes brown at about 200 °C; urethane and polyester take little more before they melt or haze. @source from memory */
const SCORCH_C: Partial<Record<NonNullable<Film['construction']>, number>> = {
  'cast-vinyl': 200,
  'embossed-vinyl': 200,
  'calendered-vinyl': 180,
  urethane: 160,
};
const OTHER_SCORCH_C = 200;
const VINYL: Conductor = { wPerMK: 0.17, joulePerM3K: 1380 * 1000 };
const POLYESTER: Conductor = { wPerMK: 0.15, joulePerM3K: 1390 * 1200 };

/** Film as heat sees it. */
export interface FilmHeat {
  readonly layer: HeatLayer;
  /** Where it is soft enough to be formed, °C. */
  readonly relaxC: number;
  /** What keeps it where it was formed, °C; null: its maker's figure is not in the library. */
  readonly postHeatC: number | null;
  readonly scorchC: number;
}
/** Cast film without a figure: wrinkles appear and vanish between 40 and 50 °C. @source common practice */
const RELAX_C = 50;
export function filmHeatOf(film: Pick<Film, 'construction' | 'thicknessUm' | 'temps'>): FilmHeat {
  const thickM = film.thicknessUm / 1e6;
  const of = film.construction?.endsWith('vinyl') ? VINYL : POLYESTER;
  return {
    layer: { ...of, thickM, firstCellM: thickM, growth: 1 },
    relaxC: film.temps?.relaxC ?? RELAX_C,
    postHeatC: film.temps?.postHeatC ?? null,
    scorchC: (film.construction && SCORCH_C[film.construction]) ?? OTHER_SCORCH_C,
  };
}

/** A place of a ground where film lies on it, or bridges a hollow so deep. */
export interface HeatPlace {
  readonly key: 'lying' | 'pore' | 'joint' | 'lifted' | 'bare';
  readonly name: string;
  /** Null: it is pressed on. */
  readonly gapMm: number | null;
}
export const lying: HeatPlace = { key: 'lying', name: 'film that lies on', gapMm: null };
/** Nothing on it yet. */
export const bare: HeatPlace = { key: 'bare', name: 'the bare ground', gapMm: null };
export const lifted: HeatPlace = { key: 'lifted', name: 'film held off', gapMm: 30 };

/** A ground as heat sees it, with the hollows that film bridges. */
export interface GroundHeat {
  readonly name: string;
  readonly layer: HeatLayer;
  readonly limitC: number;
  readonly hollows: readonly HeatPlace[];
  readonly isNamed: boolean;
}
/** How deep the pores of a face are that film bridges before it is warm. @source house rule, from what is felt with a nail */
const PORE_MM = { glazed: 0, smooth: 0.15, medium: 0.3, rough: 0.5 } as const;
/** Finest cell beside the film: what a pass of half a second heats is some tenths of a millimetre. */
const FIRST_CELL_M = 4e-5;
const GROWTH = 1.35;

export function groundHeatOf(
  { material }: Pick<Ground, 'material'>,
  masonry: Pick<Masonry, 'texture' | 'jointDepthMm'> | null = null,
  usual: UsualGround = 'concrete',
): GroundHeat {
  const named = material === 'unknown' ? usual : material;
  const [wPerMK, kgPerM3, joulePerKgK, sheetMm, limitC] = matter[named];
  const poreMm = masonry ? PORE_MM[masonry.texture] : 0;
  return {
    name: named.replace('-', ' '),
    layer: { wPerMK, joulePerM3K: kgPerM3 * joulePerKgK, thickM: sheetMm / 1000, firstCellM: Math.min(FIRST_CELL_M, sheetMm / 4000), growth: GROWTH },
    limitC,
    hollows: [
      ...(poreMm > 0 ? [{ key: 'pore' as const, name: 'film over a pore', gapMm: poreMm }] : []),
      ...(masonry && masonry.jointDepthMm >= 1 ? [{ key: 'joint' as const, name: 'film over a joint', gapMm: masonry.jointDepthMm }] : []),
    ],
    isNamed: material !== 'unknown',
  };
}

/** Film on a ground at a place as a row of cells; the film is the first, unless the ground is bare. */
export function rowAt(film: FilmHeat, ground: GroundHeat, { key, gapMm }: HeatPlace, airC: number): CellRow {
  const back = { wPerM2K: ROOM_W_PER_M2K, tempC: airC };
  if (key === 'bare') return cellsOf([ground.layer], [], back);
  const hold = gapMm === null ? CONTACT_M2K_PER_W : Math.min(gapMm, STILL_GAP_MM) / 1000 / STILL_AIR_W_PER_MK;
  return cellsOf([film.layer, ground.layer], [hold], back);
}
