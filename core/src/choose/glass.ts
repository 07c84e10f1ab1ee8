import type { CoatingKind, GlassPane, Glazing, PaneTint } from '@yellow-pane/contracts';
import {
  airFace,
  behind,
  bulk,
  clearExtinctionPerM,
  emptyLayer,
  filmAlone,
  stack,
  turnedRound,
  type BandName,
  type FilmBlock,
  type Layer,
} from '../films/index.js';

/** Extinction per metre by tint. @source common catalogue values of 6 mm body-tinted float, from memory: ±0.03 in transmission */
const extinctionPerM: Record<Exclude<PaneTint, 'unknown'>, Record<BandName, number>> = {
  clear: clearExtinctionPerM,
  'low-iron': { visible: 0.9, solar: 2.8, uv: 25 },
  grey: { visible: 122, solar: 115, uv: 190 },
  bronze: { visible: 101, solar: 104, uv: 210 },
  green: { visible: 35, solar: 107, uv: 185 },
  blue: { visible: 79, solar: 114, uv: 165 },
};

/** A coating as sold on 4 mm clear: T, R on the glass side, R on the coated side, and its emissivity. @source common catalogue values, from memory */
const coatingOnClear4: Record<Exclude<CoatingKind, 'none' | 'unknown'>, Record<BandName, Layer> & { emissivityFrac: number }> = {
  'low-e-soft': {
    visible: { t: 0.885, rFront: 0.055, rBack: 0.045 },
    solar: { t: 0.61, rFront: 0.22, rBack: 0.27 },
    uv: { t: 0.4, rFront: 0.15, rBack: 0.15 },
    emissivityFrac: 0.04,
  },
  'low-e-hard': {
    visible: { t: 0.82, rFront: 0.11, rBack: 0.11 },
    solar: { t: 0.71, rFront: 0.1, rBack: 0.11 },
    uv: { t: 0.5, rFront: 0.1, rBack: 0.1 },
    emissivityFrac: 0.17,
  },
  'solar-control': {
    visible: { t: 0.66, rFront: 0.13, rBack: 0.09 },
    solar: { t: 0.36, rFront: 0.29, rBack: 0.37 },
    uv: { t: 0.2, rFront: 0.2, rBack: 0.2 },
    emissivityFrac: 0.02,
  },
};
/** Laminating interlayer, once for a laminated pane. @source common catalogue values, from memory */
const interlayer: Record<BandName, Layer> = {
  visible: { t: 0.99, rFront: 0, rBack: 0 },
  solar: { t: 0.955, rFront: 0, rBack: 0 },
  uv: { t: 0.01, rFront: 0, rBack: 0 },
};
/** Emissivity of plain glass. @source EN 12898 / EN 673: 0.837 */
export const GLASS_EMISSIVITY = 0.837;
/** Thermal conductivity of glass, W/(m K). @source EN 673: 1.0 */
export const GLASS_CONDUCTIVITY = 1;

/** A pane about which nothing is left open. */
export interface DefinitePane extends Omit<GlassPane, 'thicknessMm' | 'tint' | 'coating'> {
  readonly thicknessMm: number;
  readonly tint: Exclude<PaneTint, 'unknown'>;
  readonly coating: Exclude<CoatingKind, 'unknown'>;
}
export interface DefiniteCavity {
  readonly gas: 'air' | 'argon' | 'krypton';
  readonly widthMm: number;
}

/** One film on one face of one pane. */
export interface FilmOnFace {
  readonly block: FilmBlock;
  readonly paneIndex: number;
  readonly face: 'outer' | 'inner';
  /** Emissivity of the film's free face. */
  readonly emissivityFrac: number;
}

/** Something on a face: a coating or a film, bonded to the glass, open to the air. As seen on the inner face. */
function faceBlock(coating: DefinitePane['coating'], band: BandName): Layer | null {
  if (coating === 'none') return null;
  const slab = behind(airFace, bulk(clearExtinctionPerM[band], 4));
  const alone = filmAlone(coatingOnClear4[coating][band], slab);
  if (!alone) throw new Error(`The table value of ${coating} in the ${band} band is no coating.`);
  return alone;
}

/**
 * One pane with what is on its faces, as one layer.
 * A film on a coated face takes the coating's place against the air; the coating stays between, its reflection with it.
 */
export function paneLayer(pane: DefinitePane, band: BandName, film: { block: FilmBlock; face: 'outer' | 'inner' } | null): Layer {
  const own = faceBlock(pane.coating, band);
  const face = (which: 'outer' | 'inner'): Layer => {
    const coat = own && pane.coatingFace === which ? own : null;
    const put = film && film.face === which ? film.block[band] : null;
    if (coat && put) return behind({ ...coat, rBack: Math.max(0, coat.rBack - airFace.rFront) }, put);
    return put ?? coat ?? airFace;
  };
  const inside = pane.kind === 'laminated' ? interlayer[band] : emptyLayer;
  return stack([turnedRound(face('outer')), bulk(extinctionPerM[pane.tint][band], pane.thicknessMm), inside, face('inner')]);
}

/** Emissivity of a pane's face, the film's where it lies. */
export function faceEmissivity(pane: DefinitePane, which: 'outer' | 'inner', filmEmissivity: number | null): number {
  if (filmEmissivity !== null) return filmEmissivity;
  return pane.coating !== 'none' && pane.coatingFace === which ? coatingOnClear4[pane.coating].emissivityFrac : GLASS_EMISSIVITY;
}

/** What is not known of a build-up, and what would settle it. */
export interface OpenQuestion {
  readonly what: string;
  readonly settle: string;
  readonly assumed: string;
}

/** Edge cover taken where nobody measured: deeper is colder. @source common practice, the deep end of usual rebates */
export const UNKNOWN_COVER_MM = 20;
/** Thickness taken where nobody measured: thicker glass soaks up more sun. @source house rule */
const UNKNOWN_THICKNESS_MM = 6;

/**
 * Settles every "I don't know" on its unfavourable side and says what would settle it for real.
 * Unfavourable here means: warmer and weaker glass. Light is therefore computed too dark rather than too bright only where the tint is open.
 */
export function settleGlazing(glazing: Glazing): { panes: DefinitePane[]; cavities: DefiniteCavity[]; open: OpenQuestion[] } {
  const open: OpenQuestion[] = [];
  const many = glazing.panes.length > 1;
  const panes = glazing.panes.map((p, i): DefinitePane => {
    const name = many ? `pane ${i + 1} from the street` : 'the pane';
    if (p.kind === 'unknown')
      open.push({
        what: `What kind of glass ${name} is`,
        settle: 'Look for a stamp in the corner: it names tempered and laminated glass.',
        assumed: 'taken as laminated, the weakest that looks plain',
      });
    if (p.thicknessMm === null)
      open.push({
        what: `How thick ${name} is`,
        settle: 'A thickness meter, or the spacing of a lamp’s two reflections.',
        assumed: `taken as ${UNKNOWN_THICKNESS_MM} mm`,
      });
    if (p.tint === 'unknown')
      open.push({
        what: `Whether ${name} is tinted`,
        settle: 'Hold white paper behind it, beside an open window.',
        assumed: 'taken as grey, which soaks up most sun',
      });
    if (p.coating === 'unknown')
      open.push({
        what: `Whether ${name} is coated`,
        settle: 'Count a lamp’s reflections: one of another colour is a coating.',
        assumed: many ? 'taken as a soft low-emissivity coating' : 'taken as uncoated',
      });
    return {
      ...p,
      thicknessMm: p.thicknessMm ?? UNKNOWN_THICKNESS_MM,
      tint: p.tint === 'unknown' ? 'grey' : p.tint,
      // a soft coating lives only inside a sealed unit
      coating: p.coating === 'unknown' ? (many ? 'low-e-soft' : 'none') : p.coating,
      coatingFace: p.coating === 'unknown' && many ? (i === 0 ? 'inner' : 'outer') : p.coatingFace,
    };
  });
  const cavities = glazing.cavities.map((c, i): DefiniteCavity => {
    if (c.widthMm === null)
      open.push({
        what: `How wide cavity ${i + 1} is`,
        settle: 'Read the spacer bar in the edge, or measure between a lamp’s reflections.',
        assumed: 'taken as 12 mm',
      });
    return { gas: c.gas === 'unknown' ? 'argon' : c.gas, widthMm: c.widthMm ?? 12 };
  });
  if (glazing.edge === 'hidden')
    open.push({ what: 'How good the edge under the frame is', settle: 'Take one bead off and look.', assumed: 'taken a fifth weaker than a clean cut' });
  if (glazing.edgeCoverMm === null)
    open.push({
      what: 'How deep the frame covers the edge',
      settle: 'A feeler beside the gasket, or one bead off.',
      assumed: `taken as ${UNKNOWN_COVER_MM} mm, deep and cold`,
    });
  if (glazing.ageYears === null) open.push({ what: 'How old the glass is', settle: 'A date in the spacer bar, or ask.', assumed: 'taken as over 30 years' });
  if (glazing.frame === 'unknown')
    open.push({ what: 'What the frame is made of', settle: 'Scratch it where nobody sees, or ask.', assumed: 'taken as masonry, which stays cold longest' });
  return { panes, cavities, open };
}
