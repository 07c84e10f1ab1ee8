import type { Design, HeightZone } from '@yellow-pane/contracts';
import {
  boundingBox,
  common,
  evenOdd,
  isConvex,
  liesInConvex,
  regionArea,
  regionOf,
  ringsFromSvgPath,
  ringsOf,
  vec,
  without,
  type Polygon,
  type Region,
} from '../../geometry/index.js';
import { Memo, shelf } from '../../ground/index.js';

/**
 * A frosted design on one pane. The design is drawn once in the frame of the wall (x from the left side of the first pane, y up from the
 * floor or from the sill) and each pane shows the part that lies behind it, so that it runs on behind the bars.
 */
export interface PaneOnWall {
  /** Adjusted outline of the pane, mm, as it was seen when measured. */
  readonly outline: Polygon;
  /** Left side of this pane from the left side of the first, mm. */
  readonly offsetMm: number;
  /** Lower edge of the glass above the floor; null = not said. */
  readonly sillMm: number | null;
}

/** What is frosted, in the frame of the pane's own outline. */
export interface PaneDesign {
  readonly frosted: Region;
  /** Share of the glass that stays clear. */
  readonly openFrac: number;
  /** Height of the outline's lower edge in the frame of the design. */
  readonly baseMm: number;
}

export type PaneDesignAnswer = { readonly ok: true; readonly value: PaneDesign } | { readonly ok: false; readonly message: string };

/**
 * Heights of marks on glass doors and walls above the floor.
 * @source UK Approved Document K (protection from falling, collision and impact), manifestation of glazing: 850–1000 mm and 1400–1600 mm; from memory of the text, to be read in its edition in force
 */
export const markingHeights: readonly HeightZone[] = [
  { bottomMm: 850, topMm: 1000 },
  { bottomMm: 1400, topMm: 1600 },
];

/** Dots smaller than this cannot be weeded. @source house rule */
const LEAST_DOT_MM = 2;
/** Sides of a dot's outline: chord error below 0.1 mm up to 80 mm across. */
const DOT_SIDES = 36;
/** Most motifs on one pane: more is a printed film. @source house rule */
const MOST_MOTIFS = 6000;

const box = (x0: number, y0: number, x1: number, y1: number): Polygon => [vec(x0, y0), vec(x1, y0), vec(x1, y1), vec(x0, y1)];
const dot = (x: number, y: number, r: number): Polygon =>
  Array.from({ length: DOT_SIDES }, (_, i) => vec(x + r * Math.cos((2 * Math.PI * i) / DOT_SIDES), y + r * Math.sin((2 * Math.PI * i) / DOT_SIDES)));

/** Heights of a marking: those of the rule, or the person's own. */
export const zonesOfMarking = (design: Extract<Design, { kind: 'marking' }>): readonly HeightZone[] =>
  design.rule === 'approved-document-k' ? markingHeights : design.zones;

/** Level zones that are frosted all over, if the design is made of such. */
export const bandsOf = (design: Design): readonly HeightZone[] | null =>
  design.kind === 'bands' ? design.bands : design.kind === 'marking' && design.motif === 'band' ? zonesOfMarking(design) : null;

/** Rows of dots, staggered, or of squares, one over the other, whose size goes from one end of the zone to the other. */
function motifs(zone: HeightZone, pitchMm: number, sizeAt: (shareUp: number) => number, from: number, to: number, isRound: boolean): Polygon[] {
  const rowMm = isRound ? (pitchMm * Math.sqrt(3)) / 2 : pitchMm;
  const height = zone.topMm - zone.bottomMm;
  const rows = Math.max(1, Math.floor((height - sizeAt(0) / 2 - sizeAt(1) / 2) / rowMm + 1e-9) + 1);
  const first = zone.bottomMm + (height - (rows - 1) * rowMm) / 2;
  const out: Polygon[] = [];
  for (let r = 0; r < rows; r++) {
    const y = first + r * rowMm;
    const size = sizeAt(rows === 1 ? 0.5 : r / (rows - 1));
    if (size < LEAST_DOT_MM) continue;
    const shift = isRound && r % 2 === 1 ? pitchMm / 2 : 0;
    for (let k = Math.floor((from - size - shift) / pitchMm); k * pitchMm + shift <= to + size; k++) {
      const x = k * pitchMm + shift + pitchMm / 2;
      if (x + size / 2 < from || x - size / 2 > to) continue;
      out.push(isRound ? dot(x, y, size / 2) : box(x - size / 2, y - size / 2, x + size / 2, y + size / 2));
    }
  }
  return out;
}

/**
 * The part of a design that lies on a pane.
 * @returns a sentence where the design does not read or a height is missing
 */
export const designOnPane = (design: Design, pane: PaneOnWall, memo = new Memo()): PaneDesignAnswer =>
  memo.once(drawn, JSON.stringify([design, pane]), () => drawOnPane(design, pane));
/** Asked for by the drawing, the pieces and the plotter alike: drawn once. */
const drawn = shelf<PaneDesignAnswer>(300);

function drawOnPane(design: Design, pane: PaneOnWall): PaneDesignAnswer {
  const own = boundingBox(pane.outline);
  if (design.heightsFrom === 'floor' && pane.sillMm === null)
    return { ok: false, message: 'The heights of this design are from the floor: enter how high the lower edge of the glass is above it.' };
  const baseMm = design.heightsFrom === 'floor' ? pane.sillMm! : 0;
  // the outline in the frame of the wall
  const onWall = pane.outline.map((p) => vec(p.x - own.minX + pane.offsetMm, p.y - own.minY + baseMm));
  const glass = regionOf(onWall);
  const [from, to] = [pane.offsetMm, pane.offsetMm + own.maxX - own.minX];
  const drawn = drawnOn(design, glass, onWall, from, to);
  if (!drawn.ok) return drawn;
  const back = (p: Polygon): Polygon => p.map((q) => vec(q.x - pane.offsetMm + own.minX, q.y - baseMm + own.minY));
  const frosted = drawn.region.map((rings) => rings.map(back));
  const area = regionArea(glass);
  return { ok: true, value: { frosted, openFrac: Math.min(1, Math.max(0, 1 - regionArea(frosted) / area)), baseMm } };
}

function drawnOn(design: Design, glass: Region, outline: Polygon, from: number, to: number): { ok: true; region: Region } | { ok: false; message: string } {
  const bands = bandsOf(design);
  if (bands) {
    const sorted = [...bands].sort((a, b) => a.bottomMm - b.bottomMm);
    const clash = sorted.findIndex((b, i) => i > 0 && b.bottomMm < sorted[i - 1]!.topMm);
    if (clash > 0) return { ok: false, message: `The bands ${said(sorted[clash - 1]!)} and ${said(sorted[clash]!)} lie over one another.` };
    return { ok: true, region: sorted.flatMap((b) => [...common(glass, regionOf(box(from - 1, b.bottomMm, to + 1, b.topMm)))]) };
  }
  if (design.kind === 'figure') {
    const figure = figureOnWall(design);
    return figure.ok ? { ok: true, region: without(glass, figure.region) } : figure;
  }
  if (design.kind === 'graded' && design.motif === 'stripes') {
    const { zone, pitchMm } = design;
    const count = Math.floor((zone.topMm - zone.bottomMm) / pitchMm + 1e-9);
    if (count < 1) return { ok: false, message: 'Not one stripe fits: the zone is lower than the distance between stripes.' };
    const stripes = Array.from({ length: count }, (_, i) => {
      const h = sizeAt(design, count === 1 ? 0.5 : i / (count - 1));
      const y = zone.bottomMm + (i + 0.5) * pitchMm;
      return box(from - 1, y - Math.min(h, pitchMm) / 2, to + 1, y + Math.min(h, pitchMm) / 2);
    });
    return { ok: true, region: stripes.flatMap((s) => [...common(glass, regionOf(s))]) };
  }
  const shapes =
    design.kind === 'graded'
      ? motifs(design.zone, design.pitchMm, (share) => sizeAt(design, share), from, to, true)
      : design.kind === 'marking'
        ? zonesOfMarking(design).flatMap((z) =>
            motifs(z, design.pitchMm, () => Math.min(design.sizeMm, z.topMm - z.bottomMm), from, to, design.motif === 'dots'),
          )
        : [];
  const largest = design.kind === 'graded' ? Math.max(design.largestMm, design.smallestMm) : design.kind === 'marking' ? design.sizeMm : 0;
  if (largest >= ('pitchMm' in design ? design.pitchMm : Infinity))
    return {
      ok: false,
      message: `Marks of ${largest} mm every ${'pitchMm' in design ? design.pitchMm : 0} mm would touch: put them farther apart or make them smaller.`,
    };
  if (shapes.length > MOST_MOTIFS) return { ok: false, message: `That would be ${shapes.length} marks on one pane; ${MOST_MOTIFS} are the most.` };
  // whole ones are kept as they are; only what crosses the edge of the glass is clipped
  const isSimple = isConvex(outline);
  const region = shapes.flatMap((s): Region => (isSimple && liesInConvex(s, outline) ? regionOf(s) : common(glass, regionOf(s))));
  return { ok: true, region };
}

/** The clear figure itself, in the frame of the wall. */
function figureOnWall(design: Extract<Design, { kind: 'figure' }>): { ok: true; region: Region } | { ok: false; message: string } {
  const raw = ringsFromSvgPath(design.svgPath);
  if (!raw.ok) return raw;
  const all = boundingBox(raw.rings.flat());
  const scale = design.widthMm / (all.maxX - all.minX);
  if (!Number.isFinite(scale)) return { ok: false, message: 'The figure has no width.' };
  const fine = ringsFromSvgPath(design.svgPath, scale);
  if (!fine.ok) return fine;
  const [mx, my] = [(all.minX + all.maxX) / 2, (all.minY + all.maxY) / 2];
  return { ok: true, region: evenOdd(fine.rings.map((r) => r.map((p) => vec((p.x - mx) * scale + design.acrossMm, (p.y - my) * scale + design.middleMm)))) }; // prettier-ignore
}

/** The clear figure in the frame of a pane, also where it reaches past the glass; null when the design is another one. */
export function figureOnPane(design: Design, pane: PaneOnWall): Region | null {
  if (design.kind !== 'figure') return null;
  const figure = figureOnWall(design);
  if (!figure.ok) return null;
  const own = boundingBox(pane.outline);
  const baseMm = design.heightsFrom === 'floor' ? (pane.sillMm ?? 0) : 0;
  return figure.region.map((rings) => rings.map((r) => r.map((q) => vec(q.x - pane.offsetMm + own.minX, q.y - baseMm + own.minY))));
}

/** Size of a mark by how far up the zone it is, 0 at its bottom. */
const sizeAt = (design: Extract<Design, { kind: 'graded' }>, shareUp: number): number => {
  const t = design.denseAt === 'bottom' ? shareUp : 1 - shareUp;
  return design.largestMm + (design.smallestMm - design.largestMm) * t;
};
const said = (z: HeightZone): string => `${z.bottomMm}–${z.topMm}`;

/** Share of the glass between two heights of the design's frame that stays clear; null where there is no glass. */
export function openBetween(pane: PaneOnWall, designed: PaneDesign, bottomMm: number, topMm: number): number | null {
  const own = boundingBox(pane.outline);
  const zone = regionOf(box(own.minX - 1, bottomMm - designed.baseMm + own.minY, own.maxX + 1, topMm - designed.baseMm + own.minY));
  const glass = regionArea(common(regionOf(pane.outline), zone));
  if (glass < 1) return null;
  const film = designed.frosted.reduce((s, part) => {
    const b = boundingBox(part[0]!);
    const z = boundingBox(zone[0]![0]!);
    if (b.minY >= z.minY && b.maxY <= z.maxY) return s + regionArea([part]);
    return b.maxY <= z.minY || b.minY >= z.maxY ? s : s + regionArea(common([part], zone));
  }, 0);
  return Math.min(1, Math.max(0, 1 - film / glass));
}

/**
 * Eye heights above the floor: standing, and seated at a table.
 * @source standing: the brief of the trade (1500–1700 mm); seated: common practice of interiors, from memory
 */
export const EYES_MM = { standing: { bottomMm: 1500, topMm: 1700 }, seated: { bottomMm: 1100, topMm: 1300 } } as const;

/** Light through glass that is partly frosted: each part by its share. Broad-band values, ±0.03 as the verdict says. */
export const lightThroughDesign = (openFrac: number, frostedVisibleFrac: number, bareVisibleFrac: number): number =>
  openFrac * bareVisibleFrac + (1 - openFrac) * frostedVisibleFrac;

/** All closed lines that a knife follows for a design. */
export const cutLines = (designed: PaneDesign): Polygon[] => ringsOf(designed.frosted);
