import type { Allowances, Piece, Pane } from '@yellow-pane/contracts';
import { boundingBox, offsetOutline, regionOf, common, vec, without, type Polygon, type Region, isConvex, liesInConvex } from '../../geometry/index.js';
import { type Memo } from '../../ground/index.js';
import { bandsOf, designOnPane, figureOnPane, zonesOfMarking, type PaneOnWall } from './pattern.js';
import type { PlotRequest } from './plot-paths.js';

/** Film round the drawn part of a plotter sheet: room for corner marks and for the pinch rollers. @source house rule */
const SHEET_MARGIN_MM = 15;

/** A piece of a designed pane: where its lower left corner lies on the pane, mm in the frame of the pane's outline. */
export interface DesignedPiece {
  readonly piece: Omit<Piece, 'id' | 'label'>;
  readonly suffix: string;
  readonly cornerMm: { readonly x: number; readonly y: number };
}

export interface DesignedPane {
  readonly surface: Pick<Pane, 'id' | 'name' | 'design' | 'seenFrom' | 'filmFace'>;
  readonly pane: PaneOnWall;
  /** The plain piece of this pane: its size, turns and film. */
  readonly plain: Omit<Piece, 'id' | 'label'>;
  readonly allowances: Allowances;
  /** Doubt of width and height that every piece must hold. */
  readonly marginMm: { readonly width: number; readonly height: number };
  readonly roundUp: (mm: number) => number;
  readonly memo: Memo;
}

/**
 * What is cut for a pane with a design. Bands: one strip each, upper and lower edge cut true, the sides trimmed on the glass; the clear
 * gaps cost no film. Dots, stripes and marks: one sheet as large as the marked part, plotted. A figure: the plain piece with the figure
 * plotted out of it.
 * @returns a sentence where the design cannot be laid out on this pane
 */
export function piecesOfDesign(d: DesignedPane): { readonly ok: true; readonly pieces: DesignedPiece[] } | { readonly ok: false; readonly message: string } {
  const design = d.surface.design!;
  const read = designOnPane(design, d.pane, d.memo);
  if (!read.ok) return read;
  const box = boundingBox(d.pane.outline);
  const { plain, allowances: a } = d;
  const bands = bandsOf(design);
  if (bands) {
    const base = read.value.baseMm;
    const height = box.maxY - box.minY;
    const width = d.roundUp(box.maxX - box.minX + d.marginMm.width + 2 * a.overhangMm);
    const pieces = [...bands]
      .sort((x, y) => x.bottomMm - y.bottomMm)
      .flatMap((b, i): DesignedPiece[] => {
        const [low, high] = [Math.max(b.bottomMm - base, 0), Math.min(b.topMm - base, height)];
        if (high - low < 1) return [];
        const atSill = low < 1;
        const atHead = high > height - 1;
        const up = (atSill ? a.overhangMm : 0) + (atHead ? a.overhangTopMm : 0) + (atSill || atHead ? d.marginMm.height : 0);
        return [
          {
            suffix: bands.length > 1 ? `band ${i + 1}` : 'band',
            cornerMm: vec(box.minX - a.overhangMm, box.minY + low - (atSill ? a.overhangMm : 0)),
            piece: {
              ...plain,
              widthMm: width,
              heightMm: high - low + up,
              factoryEdge: null,
              path: null,
              holes: [],
              trimmedEdges: [...(atHead ? (['top'] as const) : []), 'right', ...(atSill ? (['bottom'] as const) : []), 'left'],
              why: [
                `Frosted from ${Math.round(b.bottomMm)} to ${Math.round(b.topMm)} mm above ${design.heightsFrom === 'floor' ? 'the floor' : 'the sill'}; ${atSill || atHead ? 'where it meets the frame it is trimmed' : 'upper and lower edge are cut true before it is laid'}.`,
                `Overhang ${a.overhangMm} mm at the sides, trimmed on the glass.`,
              ],
              fallback: null,
            },
          },
        ];
      });
    return pieces.length ? { ok: true, pieces } : { ok: false, message: 'None of these bands lies on this pane: look at the heights.' };
  }
  if (design.kind === 'figure') {
    const corner = vec((box.minX + box.maxX - plain.widthMm) / 2, box.minY - a.overhangMm - d.marginMm.height / 2);
    return {
      ok: true,
      pieces: [
        {
          suffix: '',
          cornerMm: corner,
          piece: { ...plain, isPlotted: true, why: [...plain.why, 'The figure is plotted out of the plain piece before it is laid.'] },
        },
      ],
    };
  }
  const marks = plottedRegion(d, read.value.frosted);
  if (marks.length === 0) return { ok: false, message: 'None of these marks lies on this pane: look at the heights.' };
  // marks at several heights: a sheet for each, so that the clear glass between them costs no film
  const zones = design.kind === 'marking' ? zonesOfMarking(design).map((z) => [z.bottomMm - read.value.baseMm + box.minY, z.topMm - read.value.baseMm + box.minY] as const) : [[-Infinity, Infinity] as const]; // prettier-ignore
  const groups = zones.map(([low, high]) => marks.filter((rings) => isBetween(rings[0]!, low, high))).filter((g) => g.length > 0);
  return { ok: true, pieces: groups.map((g, i) => sheetOf(d, g, groups.length > 1 ? `marks ${i + 1}` : '')) };
}

const isBetween = (ring: Polygon, low: number, high: number): boolean => {
  const b = boundingBox(ring);
  return (b.minY + b.maxY) / 2 >= low && (b.minY + b.maxY) / 2 <= high;
};

/** One plotter sheet as large as the marks on it and a margin. */
function sheetOf(d: DesignedPane, marks: Region, suffix: string): DesignedPiece {
  const drawn = boundingBox(marks.flatMap((rings) => rings[0]!));
  return {
    suffix,
    cornerMm: vec(drawn.minX - SHEET_MARGIN_MM, drawn.minY - SHEET_MARGIN_MM),
    piece: {
      ...d.plain,
      method: 'pre-cut',
      widthMm: d.roundUp(drawn.maxX - drawn.minX + 2 * SHEET_MARGIN_MM),
      heightMm: d.roundUp(drawn.maxY - drawn.minY + 2 * SHEET_MARGIN_MM),
      factoryEdge: null,
      path: null,
      holes: [],
      trimmedEdges: [],
      isPlotted: true,
      why: [`One sheet as large as the marks and ${SHEET_MARGIN_MM} mm round them, plotted, weeded and carried over with transfer tape.`],
      fallback: null,
    },
  };
}

/** Marks keep the edge gap to the frame, so that water can leave. */
function plottedRegion(d: DesignedPane, frosted: Region): Region {
  const inset = offsetOutline(d.pane.outline, -d.allowances.edgeGapMm);
  if (!inset) return [];
  const isSimple = isConvex(inset);
  return frosted.flatMap((part): Region => (isSimple && liesInConvex(part[0]!, inset) ? [part] : common([part], regionOf(inset))));
}

/** What the plotter cuts of a designed piece: film that stays, in the frame of the sheet seen from the film side. */
export function keepOnSheet(d: DesignedPane, piece: DesignedPiece): { keep: Region; wasteBox: PlotRequest['wasteBox'] } | null {
  const design = d.surface.design!;
  const read = designOnPane(design, d.pane, d.memo);
  if (!read.ok || !piece.piece.isPlotted) return null;
  const { widthMm: w, heightMm: h } = piece.piece;
  const { x, y } = piece.cornerMm;
  const isFilmSideView = d.surface.seenFrom === d.surface.filmFace;
  const onSheet = (ring: Polygon): Polygon => {
    const moved = ring.map((p) => vec(isFilmSideView ? p.x - x : x + w - p.x, p.y - y));
    return isFilmSideView ? moved : [...moved].reverse();
  };
  if (design.kind !== 'figure') {
    const own = plottedRegion(d, read.value.frosted).filter((rings) => isBetween(rings[0]!, y, y + h));
    return { keep: own.map((rings) => rings.map(onSheet)), wasteBox: null };
  }
  // the field is the whole piece; what the figure takes out of it falls away, also under the overhang
  const sheet: Polygon = [vec(0, 0), vec(w, 0), vec(w, h), vec(0, h)];
  const figure = figureOnPane(design, d.pane)!.map((rings) => rings.map(onSheet));
  return { keep: without(regionOf(sheet), figure), wasteBox: boundingBox(figure.flatMap((rings) => rings[0]!)) };
}
