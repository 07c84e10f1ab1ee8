import type { Allowances, CutSettings, Film, FilmOffer, Piece, UnitSystem } from '@yellow-pane/contracts';
import { filmText, formatDifference, lengthPrice } from '../ground/index.js';
import { layPiecesOnRolls } from '../cut/index.js';

/** Equal panes to be covered. */
export interface PaneSize {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly count: number;
}
/** What a film costs for some panes, on the roll width that makes it cheapest. */
export interface Material {
  readonly offer: FilmOffer | null;
  readonly usedM: number;
  readonly cost: number;
  /** Panes that no width of this film takes without a seam. */
  readonly tooWide: number;
}

/** How the price of a film for some panes came about; empty where there is none. @param widthCount widths it is sold in */
export function materialText(m: Material | undefined, paneCount: number, widthCount: number, units: UnitSystem): string {
  if (!m?.offer) return '';
  const perLength = `${lengthPrice(Number(m.offer.pricePerM), units).figure} a ${units === 'in' ? 'foot' : 'metre'}`;
  const panes = `${paneCount} ${paneCount === 1 ? 'pane' : 'panes'}`;
  return `${filmText(1000 * m.usedM, units)} of ${formatDifference(m.offer.widthMm, units)} at ${perLength}, ${panes} laid out with their allowances; the cheapest of ${widthCount} widths. No work, no margin.`;
}

/** A roll as long as anyone could want: a price asks how much to order. */
const ENDLESS_MM = 1_000_000;
/** Steps of search: a price needs metres, not the last per cent. */
const PRICE_STEPS = 12;

/** Overhang pieces for the panes, as the cutter will make them. */
function overhangPieces(panes: readonly PaneSize[], film: Pick<Film, 'id' | 'direction'>, a: Allowances): Piece[] {
  const turns: Piece['turns'] = film.direction === 'one-way' ? [0] : film.direction === 'two-way' ? [0, 180] : [0, 90, 180, 270];
  return panes.flatMap((p, line) =>
    Array.from({ length: p.count }, (_, i): Piece => ({
      id: `${line}/${i}`,
      surfaceId: film.id,
      label: '',
      filmId: film.id,
      method: 'overhang',
      widthMm: Math.ceil(p.widthMm + 2 * a.overhangMm),
      heightMm: Math.ceil(p.heightMm + a.overhangMm + a.overhangTopMm),
      turns,
      factoryEdge: null,
      trimmedEdges: ['top', 'right', 'bottom', 'left'],
      why: [],
      path: null,
      holes: [],
      parts: [],
      meets: null,
      repeat: null,
      isPlotted: false,
      fallback: null,
    })),
  );
}

/**
 * Metres and money of a film for these panes: laid out on each width it is sold in, by the metre; the width that takes most
 * panes wins, then the cheapest. @param steps of layout search; 0 is the instant answer
 */
export function materialFor(
  panes: readonly PaneSize[],
  film: Pick<Film, 'id' | 'direction' | 'offers'>,
  allowances: Allowances,
  cut: CutSettings,
  steps = PRICE_STEPS,
): Material {
  const pieces = overhangPieces(panes, film, allowances);
  let best: Material = { offer: null, usedM: 0, cost: 0, tooWide: pieces.length };
  for (const offer of film.offers) {
    const roll = { id: film.id, widthMm: offer.widthMm, availableMm: ENDLESS_MM, pricePerM: Number(offer.pricePerM), fixedDrops: [] };
    const layout = layPiecesOnRolls({ filmId: film.id, rolls: [roll], pieces, settings: cut, seed: 20 }, steps);
    const found: Material = { offer, usedM: layout.usedMm / 1000, cost: layout.cost, tooWide: layout.unplaced.length };
    if (best.offer === null || found.tooWide < best.tooWide || (found.tooWide === best.tooWide && found.cost < best.cost)) best = found;
  }
  return best;
}
