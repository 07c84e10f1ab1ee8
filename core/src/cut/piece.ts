import type { Allowances, CutMethod, CutOut, Edge, Film, PathPoint, Piece, Pane, Turn } from '@yellow-pane/contracts';
import { anticlockwise, boundingBox, insetConvex, mirroredPath, minus, offsetOutline, type ArcPath, type Polygon, type Vec } from '../geometry/index.js';
import { formatLength, type UnitSystem } from '../ground/index.js';
import { enclosingRectangle, openingOf, readingSigmaMm, type Survey } from '../measure/index.js';
import { handySize, roundUpToMark } from './handy-size.js';

/** Everything that decides the piece of one pane. */
export interface PieceRequest {
  readonly surface: Pick<Pane, 'id' | 'name' | 'seenFrom' | 'filmFace' | 'signed' | 'cutOuts'>;
  readonly survey: Survey;
  readonly method: CutMethod;
  readonly allowances: Allowances;
  readonly film: Pick<Film, 'id' | 'direction'>;
  /** Widths of the rolls there are, mm. */
  readonly rollWidthsMm: readonly number[];
  /** Longest piece that bench and person can pull; no limit when left out. */
  readonly longestMm?: number;
  readonly units: UnitSystem;
  /** True when the signature stands for exactly the readings in force. */
  readonly isSigned: boolean;
}

/** A pane's piece before its plan names it. */
export type BarePiece = Omit<Piece, 'id' | 'label' | 'method'> & { readonly method: CutMethod };
/** A piece, or the sentence that says why none is cut yet and what would settle it. */
export type PieceAnswer = { readonly piece: BarePiece; readonly note: string | null } | { readonly blocked: string };

/** A corner is square enough to tuck when it leaves less than this over the longer side. @source common practice (2 mm) */
const TUCK_SQUARE_MM = 2;
/** A side is straight enough to carry a factory edge or a tuck up to this bow. @source common practice (3 mm shows as a light line) */
const STRAIGHT_MM = 2;

/** Turns that a film's direction leaves. */
export function turnsOf(direction: Film['direction']): Turn[] {
  if (direction === 'one-way') return [0];
  return direction === 'two-way' ? [0, 180] : [0, 90, 180, 270];
}

/**
 * The mirror, and the only one: a piece is defined as seen from the liner side. Whoever lays film on the room face stands in
 * the room and sees the outside of the film; the liner side faces the glass and is its mirror image. A survey from the same
 * side as the film face is mirrored once; a survey from the other side of the glass already is the liner's view.
 */
export const toLinerView = (edge: Edge, seenFrom: Pane['seenFrom'], filmFace: Pane['filmFace']): Edge => {
  if (seenFrom !== filmFace) return edge;
  return edge === 'left' ? 'right' : edge === 'right' ? 'left' : edge;
};

/** The width and height of the opening in a frame turned so that one of its sides lies true; anticlockwise side index. */
function sizeAlongSide(outline: Polygon, sideIndex: number): { widthMm: number; heightMm: number } {
  const a = outline[sideIndex]!;
  const along = minus(outline[(sideIndex + 1) % outline.length]!, a);
  const length = Math.hypot(along.x, along.y);
  const box = boundingBox(
    outline.map((p): Vec => {
      const d = minus(p, a);
      return { x: (d.x * along.x + d.y * along.y) / length, y: (d.y * along.x - d.x * along.y) / length };
    }),
  );
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  return sideIndex % 2 === 0 ? { widthMm: w, heightMm: h } : { widthMm: h, heightMm: w };
}

/** How far a corner is out of square over the longer of its two sides, mm. */
function outOfSquareMm(survey: Survey, corner: 'topLeft' | 'topRight'): number {
  const angle = survey.crookedness!.cornersDeg[corner];
  const box = boundingBox(survey.outline!);
  return Math.abs(Math.tan(((angle - 90) * Math.PI) / 180)) * Math.max(box.maxX - box.minX, box.maxY - box.minY);
}

interface Draft {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly turns: Turn[];
  /** As seen from the side the survey was made from. */
  readonly factoryEdge: Edge | null;
  readonly trimmed: Edge[];
  readonly why: string[];
}

const ALL: Edge[] = ['top', 'right', 'bottom', 'left'];

/**
 * The piece that one pane needs.
 * Overhang and dry template cover every explanation of the tapes, so a doubt does not stop them; what must fit (tucked,
 * pre-cut) or lies on one side (factory edge) waits until the doubt is settled or signed.
 * @source common practice for allowances; docs/models/pieces.md
 */
export function pieceForPane(request: PieceRequest): PieceAnswer {
  const { survey, method, units } = request;
  if (survey.status === 'nothing') return { blocked: 'No width and height yet.' };
  if (survey.status === 'impossible') return { blocked: 'These tapes cannot belong to one opening. Tape the marked ones again.' };
  const isDoubtful = survey.status === 'doubtful' && !request.isSigned;
  if (survey.shape) return shapedPiece(request, isDoubtful);
  const box = enclosingRectangle(survey)!;
  const planned = plan(request, box, isDoubtful);
  if ('blocked' in planned) return planned;
  const { draft, used, fallback } = planned;
  const seen = request.surface;
  const note = isDoubtful ? coverNote(survey, box, units) : fallback;
  const size = sizeOfDraft(request, draft, used);
  return {
    piece: {
      surfaceId: seen.id,
      filmId: request.film.id,
      method: used,
      widthMm: size.widthMm,
      heightMm: size.heightMm,
      turns: draft.turns,
      factoryEdge: draft.factoryEdge && toLinerView(draft.factoryEdge, seen.seenFrom, seen.filmFace),
      trimmedEdges: draft.trimmed,
      ...alone,
      parts: [],
      ...(used === 'pre-cut' ? ownOutline(request, preCutOutline(request)!) : plainOutline),
      why: [...draft.why, ...size.why, ...cutOutWords(request, used)],
      fallback: used === method ? null : fallback,
    },
    note,
  };
}

/** What is trimmed on the glass comes in handy sizes; what has to fit, to the mark. */
function sizeOfDraft(request: PieceRequest, draft: Draft, used: CutMethod): { widthMm: number; heightMm: number; why: string[] } {
  const { units, allowances, rollWidthsMm, longestMm } = request;
  const [w, h] = [roundUpToMark(draft.widthMm, units), roundUpToMark(draft.heightMm, units)];
  if (used === 'pre-cut') return { widthMm: w, heightMm: h, why: [] };
  const rule = { units, step: allowances.sizeStep, limitsMm: longestMm === undefined ? rollWidthsMm : [...rollWidthsMm, longestMm] };
  const [widthMm, heightMm] = [handySize(draft.widthMm, rule), handySize(draft.heightMm, rule)];
  const f = words(request);
  const why =
    widthMm > w + 1e-6 || heightMm > h + 1e-6 ? [`A handy size instead of ${f(w)} × ${f(h)}: what is over is trimmed on the glass with the rest.`] : [];
  return { widthMm, heightMm, why };
}

/** A size that is the mean of tapes that disagree fits no explanation of them: no signature makes it one. */
const MUST_FIT = 'The tapes disagree and this piece must fit. Tape the doubtful one again, or sign the explanation that you believe.';

type Box = NonNullable<ReturnType<typeof enclosingRectangle>>;

function plan(request: PieceRequest, box: Box, isDoubtful: boolean): { draft: Draft; used: CutMethod; fallback: string | null } | { blocked: string } {
  const { method, survey } = request;
  const needsFit = method === 'tucked-corner' || method === 'pre-cut';
  if (needsFit && survey.status === 'doubtful') return { blocked: MUST_FIT };
  if (method === 'pre-cut') {
    if (survey.status !== 'agreeing' && !request.isSigned)
      return { blocked: 'A pre-cut piece needs tapes that check each other: three widths, three heights, two diagonals. Or sign the size as yours.' };
    const draft = preCut(request);
    return draft ? { draft, used: method, fallback: null } : { blocked: 'Nothing is left of this opening inside the edge gap.' };
  }
  const tried = method === 'tucked-corner' ? tucked(request) : method === 'factory-edge' ? factory(request, isDoubtful) : null;
  if (tried && 'draft' in tried) return { draft: tried.draft, used: method, fallback: null };
  const used = method === 'dry-template' ? method : 'overhang';
  return { draft: overhang(request, box), used, fallback: tried?.reason ?? null };
}

const words = (request: PieceRequest) => (mm: number) => formatLength(mm, request.units);

function overhang(request: PieceRequest, box: Box): Draft {
  const { overhangMm, overhangTopMm } = request.allowances;
  const f = words(request);
  return {
    widthMm: box.widthMm + 2 * overhangMm,
    heightMm: box.heightMm + overhangMm + overhangTopMm,
    turns: turnsOf(request.film.direction),
    factoryEdge: null,
    trimmed: ALL,
    why: [
      `Opening at most ${f(box.widthMm)} × ${f(box.heightMm)}: the rectangle round the adjusted outline plus 2σ (${box.marginMm.width.toFixed(1)} and ${box.marginMm.height.toFixed(1)} mm).`,
      `Overhang ${f(overhangMm)} on each side${overhangTopMm === overhangMm ? '' : `, ${f(overhangTopMm)} at the top`}, trimmed on the glass.`,
    ],
  };
}

/** Bow gap of the side that should carry a straight edge. */
const bowOf = (survey: Survey, edge: Edge): number =>
  Math.abs({ top: survey.bowsMm.bowTop, right: survey.bowsMm.bowRight, bottom: survey.bowsMm.bowBottom, left: survey.bowsMm.bowLeft }[edge]);

function factory(request: PieceRequest, isDoubtful: boolean): { draft: Draft } | { reason: string } {
  if (isDoubtful) return { reason: 'The tapes disagree, so all four sides get overhang: that covers every explanation.' };
  const { survey, allowances: a, rollWidthsMm } = request;
  const turns = turnsOf(request.film.direction);
  const f = words(request);
  const widest = Math.max(0, ...rollWidthsMm);
  const margin = enclosingRectangle(survey)!.marginMm;
  const side = (edge: 'top' | 'left' | 'right', index: number) => {
    const s = sizeAlongSide(survey.outline!, index);
    const upright = edge === 'top';
    return {
      widthMm: s.widthMm + margin.width + (upright ? 2 * a.overhangMm : a.overhangMm - a.edgeGapMm),
      heightMm: s.heightMm + margin.height + (upright ? a.overhangMm - a.edgeGapMm : a.overhangMm + a.overhangTopMm),
    };
  };
  const why = (edge: string) => [
    `The roll's own edge goes to the ${edge} frame and stays ${a.edgeGapMm} mm off it; no cut there.`,
    `Overhang ${f(a.overhangMm)} on the three trimmed sides, 2σ of the tapes added.`,
  ];
  const top = side('top', 2);
  if (turns.includes(90) && top.heightMm <= widest && bowOf(survey, 'top') <= STRAIGHT_MM)
    return { draft: { ...top, turns: [90, 270], factoryEdge: 'top', trimmed: ['right', 'bottom', 'left'], why: why('top') } };
  for (const [edge, index] of [
    ['left', 3],
    ['right', 1],
  ] as const) {
    const s = side(edge, index);
    if (s.widthMm > widest || bowOf(survey, edge) > STRAIGHT_MM) continue;
    const other: Edge = edge === 'left' ? 'right' : 'left';
    return { draft: { ...s, turns: turns.filter((t) => t === 0 || t === 180), factoryEdge: edge, trimmed: ['top', 'bottom', other], why: why(edge) } };
  }
  return { reason: 'No factory edge can lie on a straight side of this pane with these rolls; overhang instead.' };
}

function tucked(request: PieceRequest): { draft: Draft } | { reason: string } {
  const { survey, allowances: a } = request;
  if (survey.status !== 'agreeing' && !request.isSigned)
    return { reason: 'A tucked corner needs both diagonals taped, to know that it is square; overhang instead.' };
  if (!survey.adjustment!.isDetermined) return { reason: 'These tapes do not say whether a corner is square; overhang instead.' };
  const corners = (['topLeft', 'topRight'] as const).map((corner) => ({ corner, outMm: outOfSquareMm(survey, corner) })).sort((x, y) => x.outMm - y.outMm);
  const best = corners[0]!;
  const side: Edge = best.corner === 'topLeft' ? 'left' : 'right';
  if (best.outMm > TUCK_SQUARE_MM)
    return {
      reason: `No top corner is square: the better one is ${best.outMm.toFixed(1)} mm out over the side, ${TUCK_SQUARE_MM} mm is the most. Overhang instead.`,
    };
  if (bowOf(survey, 'top') > STRAIGHT_MM || bowOf(survey, side) > STRAIGHT_MM) return { reason: 'A side beside the corner is bowed; overhang instead.' };
  const box = enclosingRectangle(survey)!;
  const f = words(request);
  return {
    draft: {
      widthMm: box.widthMm + a.overhangMm - a.edgeGapMm,
      heightMm: box.heightMm + a.overhangMm - a.edgeGapMm,
      turns: turnsOf(request.film.direction),
      factoryEdge: null,
      trimmed: side === 'left' ? ['right', 'bottom'] : ['left', 'bottom'],
      why: [
        `Cut truly square and tucked into the top ${side} corner, ${a.edgeGapMm} mm off both frames; that corner is ${best.outMm.toFixed(1)} mm out of square over the side.`,
        `Overhang ${f(a.overhangMm)} on the two trimmed sides, 2σ of the tapes added.`,
      ],
    },
  };
}

/** The outline of a pre-cut piece inside the opening, in the frame of the survey; null when nothing is left. */
export function preCutOutline({ survey, allowances: a }: Pick<PieceRequest, 'survey' | 'allowances'>): Polygon | null {
  const adjustment = openingOf(survey)!;
  const sigma = (key: Parameters<typeof readingSigmaMm>[1]) => readingSigmaMm(adjustment, key);
  const acrossMm = a.edgeGapMm + Math.max(sigma('widthTop'), sigma('widthBottom'));
  const uprightMm = a.edgeGapMm + Math.max(sigma('heightLeft'), sigma('heightRight'));
  const inwards = (key: keyof Survey['bowsMm']) => Math.max(0, -survey.bowsMm[key]);
  return insetConvex(survey.outline!, [
    uprightMm + inwards('bowBottom'),
    acrossMm + inwards('bowRight'),
    uprightMm + inwards('bowTop'),
    acrossMm + inwards('bowLeft'),
  ]);
}

function preCut(request: PieceRequest): Draft | null {
  const { allowances: a } = request;
  const inset = preCutOutline(request);
  if (!inset) return null;
  const box = boundingBox(inset);
  const f = words(request);
  return {
    widthMm: box.maxX - box.minX,
    heightMm: box.maxY - box.minY,
    turns: turnsOf(request.film.direction),
    factoryEdge: null,
    trimmed: [],
    why: [
      `Inside the adjusted outline: edge gap ${a.edgeGapMm} mm and 2σ of the tapes off each pair of sides.`,
      `Laid out as the rectangle ${f(box.maxX - box.minX)} × ${f(box.maxY - box.minY)}; the four true corners are on the cut sheet.`,
    ],
  };
}

const plainOutline: Pick<Piece, 'path' | 'holes'> = { path: null, holes: [] };
/** Until its neighbours and its pattern are looked at. */
const alone: Pick<Piece, 'meets' | 'repeat' | 'isPlotted'> = { meets: null, repeat: null, isPlotted: false };

/** From the frame of the survey to the piece's own: the liner's view, lower left corner of its box at the origin. */
function toPiece(request: PieceRequest, path: ArcPath, box: { minX: number; minY: number; maxX: number }): PathPoint[] {
  const { seenFrom, filmFace } = request.surface;
  const moved = path.map((p) => ({ ...p, x: p.x - box.minX, y: p.y - box.minY }));
  const w = box.maxX - box.minX;
  const own = seenFrom === filmFace ? mirroredPath(moved).map((p) => ({ ...p, x: p.x + w })) : moved;
  return own.map((p) => ({ xMm: p.x, yMm: p.y, bulge: p.bulge }));
}

/** A cut-out as a path in the frame of the survey, made larger all round. */
export function cutOutPath(c: CutOut, opening: Polygon, growMm: number): ArcPath {
  const box = boundingBox(opening);
  const [w, h] = [c.widthMm, c.isRound ? c.widthMm : c.heightMm];
  const x = c.fromSide === 'left' ? box.minX + c.acrossMm : box.maxX - c.acrossMm - w;
  const y = c.fromEdge === 'bottom' ? box.minY + c.upMm : box.maxY - c.upMm - h;
  const g = growMm;
  if (c.isRound)
    return [
      { x: x + w + g, y: y + h / 2, bulge: 1 },
      { x: x - g, y: y + h / 2, bulge: 1 },
    ];
  // inner corners are rounded: a sharp one tears
  const r = Math.min(CUT_OUT_RADIUS_MM, w / 2, h / 2);
  const b = Math.tan(Math.PI / 8);
  const [x0, x1, y0, y1] = [x - g, x + w + g, y - g, y + h + g];
  return [
    { x: x0 + r, y: y0, bulge: 0 },
    { x: x1 - r, y: y0, bulge: b },
    { x: x1, y: y0 + r, bulge: 0 },
    { x: x1, y: y1 - r, bulge: b },
    { x: x1 - r, y: y1, bulge: 0 },
    { x: x0 + r, y: y1, bulge: b },
    { x: x0, y: y1 - r, bulge: 0 },
    { x: x0, y: y0 + r, bulge: b },
  ];
}
/** @source common practice: inner corners of film are rounded, a coin's edge serves as a guide */
const CUT_OUT_RADIUS_MM = 6;

/** True outline and cut-outs of a pre-cut piece. */
function ownOutline(request: PieceRequest, outline: Polygon): Pick<Piece, 'path' | 'holes'> {
  const box = boundingBox(outline);
  return {
    path: toPiece(request, outline.map((p) => ({ ...p, bulge: 0 })), box), // prettier-ignore
    holes: request.surface.cutOuts.map((c) => toPiece(request, anticlockwise(cutOutPath(c, request.survey.outline!, request.allowances.edgeGapMm)), box)),
  };
}

/** What is done about handles and holes. */
function cutOutWords(request: PieceRequest, used: CutMethod): string[] {
  const list = request.surface.cutOuts;
  if (list.length === 0) return [];
  const f = words(request);
  const say = (c: CutOut) =>
    `${c.what} ${c.isRound ? `⌀ ${f(c.widthMm)}` : `${f(c.widthMm)} × ${f(c.heightMm)}`}, ${f(c.acrossMm)} from the ${c.fromSide}, ${f(c.upMm)} from the ${c.fromEdge}`;
  return used === 'pre-cut'
    ? [`Cut out with ${request.allowances.edgeGapMm} mm to spare: ${list.map(say).join('; ')}.`]
    : [
        `Cut out on the glass: ${list.map(say).join('; ')}. Slit the film from the cut-out to the nearest edge so that it lies flat, trim round it last, and round every inner corner: a sharp one tears.`,
      ];
}

/**
 * The piece of a pane that is not four-sided. Overhang: its outline moved outwards on every side, cut as a rectangle or parted from
 * a neighbour by one straight cut. Pre-cut: the outline moved inwards.
 */
function shapedPiece(request: PieceRequest, isDoubtful: boolean): PieceAnswer {
  const { survey, method, allowances: a, units, surface } = request;
  const f = words(request);
  const box = enclosingRectangle(survey)!;
  const margin = Math.max(box.marginMm.width, box.marginMm.height);
  const piece = (
    used: CutMethod,
    size: Polygon | Box,
    path: Pick<Piece, 'path' | 'holes'>,
    trimmedEdges: Edge[],
    why: string[],
    note: string | null,
  ): PieceAnswer => {
    const round = 'widthMm' in size ? size : sizeOf(size);
    return {
      piece: {
        surfaceId: surface.id,
        filmId: request.film.id,
        method: used,
        widthMm: roundUpToMark(round.widthMm, units),
        heightMm: roundUpToMark(round.heightMm, units),
        turns: turnsOf(request.film.direction),
        factoryEdge: null,
        trimmedEdges,
        ...path,
        ...alone,
        parts: [],
        why: [...why, ...cutOutWords(request, used)],
        fallback: used === method ? null : note,
      },
      note,
    };
  };
  if (method === 'pre-cut') {
    if (survey.status === 'doubtful') return { blocked: MUST_FIT };
    if (survey.status !== 'agreeing' && !request.isSigned)
      return { blocked: 'A pre-cut piece needs tapes that check each other: one more than the outline needs. Or sign the size as yours.' };
    const inset = offsetOutline(survey.outline!, -(a.edgeGapMm + margin / 2));
    if (!inset) return { blocked: 'Nothing in one piece is left of this outline inside the edge gap.' };
    const why = [
      `Inside the adjusted outline: edge gap ${a.edgeGapMm} mm and 1σ of the tapes (${(margin / 2).toFixed(1)} mm) off every side, curves within 0.1 mm.`,
    ];
    return piece('pre-cut', inset, ownOutline(request, inset), [], why, null);
  }
  const used: CutMethod = method === 'dry-template' ? method : 'overhang';
  const over = Math.max(a.overhangMm, a.overhangTopMm);
  const reason = used === method ? null : 'Tucked corners and factory edges are for four-sided panes; this outline gets overhang.';
  if (isDoubtful || survey.possibleOutlines.length > 1) {
    const size = { ...box, widthMm: box.widthMm + 2 * over, heightMm: box.heightMm + 2 * over };
    return piece(
      used,
      size,
      plainOutline,
      ALL,
      [`A rectangle of ${f(box.widthMm)} × ${f(box.heightMm)} holds every explanation of the tapes; overhang ${f(over)}.`],
      coverNote(survey, box, units),
    );
  }
  const outer = offsetOutline(survey.outline!, over + margin);
  const why = [`Outline moved outwards by ${f(over)} and 2σ of the tapes (${margin.toFixed(1)} mm); trimmed on the glass.`];
  if (!outer) return piece(used, { ...box, widthMm: box.widthMm + 2 * over, heightMm: box.heightMm + 2 * over }, plainOutline, ALL, why, reason);
  const path = toPiece(request, outer.map((p) => ({ ...p, bulge: 0 })), boundingBox(outer)); // prettier-ignore
  return piece(used, outer, { path, holes: [] }, ALL, why, reason);
}

const sizeOf = (outline: Polygon): { widthMm: number; heightMm: number } => {
  const b = boundingBox(outline);
  return { widthMm: b.maxX - b.minX, heightMm: b.maxY - b.minY };
};

/** What the doubt costs when the cut simply covers it. */
function coverNote(survey: Survey, box: Box, units: UnitSystem): string {
  const likely = boundingBox(survey.possibleOutlines[0] ?? survey.outline!);
  const more = Math.max(box.widthMm - box.marginMm.width - (likely.maxX - likely.minX), box.heightMm - box.marginMm.height - (likely.maxY - likely.minY));
  return `The tapes disagree, but this cut covers every explanation of them (${more < 1 ? 'hardly more film' : `${formatLength(more, units)}${units === 'mm' ? ' mm' : ''} more film at most`}). You may let it go.`;
}
