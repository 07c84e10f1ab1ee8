import type { Bow, EdgePlan, FormGrade, MeshStation, ShrinkInput, ShrinkPlan, UnitSystem } from '@yellow-pane/contracts';
import { boundingBox, signedArea, type Polygon } from '../geometry/index.js';
import { contentHash, formatDoubt, formatFine, formatRough, Memo, shelf, toldAll } from '../ground/index.js';
import { archLine, heightOn, straightLine, type LinePoint } from './anchor-line.js';
import { edgeLosses, FINGER, fingersAlong, peakLoss, PRESSED_MM, type Finger } from './fingers.js';
import { flatOutline, FORMING, halfHeight } from './flat-film.js';
import { barringBoxes, type KeptBox } from './keep-clear.js';
import { advice, cautionsFor } from './plan-advice.js';
import { fingerOrder, formRefusal, takesNoFullGun, lubricationCards, methodCards, type ToForm } from './forming-methods.js';
import { gradeOf, stretchGrade, USUAL_SHRINK_FRAC, worseGrade } from './grade.js';
import { fittedPane, formedPane, SIGMAS, SLACK_SIGMAS, tryLine, type FormedPane, type TriedLine } from './formed-pane.js';
import type { PaneFit } from './pane-fit.js';
import { edgesSeen, lengthOf, straightedgeOf } from './pane-outline.js';
import { sightsOfBows } from './bow-sights.js';
import { bowPlaceWords, planSummary, taped } from './plan-words.js';
import { fieldFromLine, fieldOfArch, quickSlackMm, type ShrinkField } from './shrink-field.js';
import { lossFrac } from './thread.js';
import { keepClearOf } from './zone-words.js';
import { addForms, nextBow, slackForm, weigh, type Weighed } from './slack-range.js';

const round = (v: number, digits = 1): number => Math.round(v * 10 ** digits) / 10 ** digits;
const toPoint = (p: { u: number; v: number }) => ({ x: round(p.u), y: round(p.v) });
const planned = (f: Finger) => ({ ...f, foot: toPoint(f.foot), root: toPoint(f.root) });

/** Threads of a field as points in space with what the film loses there, each thread up to the edge. */
export function meshOf(fit: PaneFit, field: ShrinkField): MeshStation[] {
  const side = (t: ShrinkField['stations'][number]['up']): MeshStation['up'] => {
    if (!t.edge) return [];
    const inside = t.points.filter((p) => p.sMm < t.edge!.sMm - 0.5);
    return [...inside, t.edge].map((p) => [round(p.u), round(p.v), round(fit.surface.at(p.u, p.v).r[2], 2), round(p.sMm), round(lossFrac(p), 6)]);
  };
  return field.stations.map((s) => {
    const down = side(s.down);
    // a thread that comes onto the pane at its upper edge begins there
    const up = s.up.edge || s.down.points[0]!.sMm === 0 ? side(s.up) : down.slice(0, 1).map((p): MeshStation['up'][number] => [p[0], p[1], p[2], -p[3], p[4]]);
    return { alongMm: round(s.alongMm), up, down };
  });
}

function edgePlan(
  pane: FormedPane,
  tried: TriedLine,
  side: 'above' | 'below',
  weighed: Weighed,
  fingers: readonly Finger[],
  boxes: readonly KeptBox[],
): EdgePlan {
  const { field, line } = tried;
  const { places } = edgeLosses(field.stations, side, boxes);
  const slackMm = side === 'above' ? field.toGoAboveMm : field.toGoBelowMm;
  const peak = peakLoss(places, FINGER.baseMm);
  // where on the pane that stretch lies
  const middle = line.reduce((a, p) => (Math.abs(p.alongMm - peak.alongMm) < Math.abs(a.alongMm - peak.alongMm) ? p : a));
  const window = weigh(pane.fit, slackForm(pane.fit, pane.finished, line, side, [middle.u - FINGER.baseMm / 2, middle.u + FINGER.baseMm / 2]));
  const off = (w: Weighed, k: number) => w.biasMm + k * SLACK_SIGMAS * w.sigmaMm;
  return {
    slackMm,
    lowMm: Math.max(0, slackMm + off(weighed, -1)),
    highMm: Math.max(0, slackMm + off(weighed, 1)),
    peakFrac: peak.frac,
    peakLowFrac: Math.max(0, peak.frac + off(window, -1) / FINGER.baseMm),
    peakHighFrac: Math.max(0, peak.frac + off(window, 1) / FINGER.baseMm),
    peakAlongMm: peak.alongMm,
    leastFrac: places.length ? Math.min(...places.map((p) => p.lossFrac)) : 0,
    fingers: fingers.map(planned),
  };
}

/** How well a spline tells where a bend begins, as share of a cell. @source tried on 300 made-up panes, a quarter of them bent from a fifth to a third of their height (claims.spec.ts) */
const BEND_TOLD = 1 / 3;

/** How far a balanced height may be off, mm: what the gap between above and below may be off, over how fast it closes. */
function sureHeight(pane: FormedPane, input: ShrinkInput, gap: Weighed): number | null {
  if (!pane.balanced) return null;
  const { anchor, field } = pane.balanced;
  const step = 12;
  const moved = fieldFromLine(pane.fit.surface, pane.finished, straightLine(pane.fit.surface, pane.finished, { ...anchor, through: { u: anchor.through.u, v: anchor.through.v + step } }, input.stepMm), { stepMm: input.stepMm }); // prettier-ignore
  const slope = (moved.toGoBelowMm - moved.toGoAboveMm - (field.toGoBelowMm - field.toGoAboveMm)) / step;
  const { minY, maxY } = boundingBox(pane.finished);
  // where a bend begins is told to a part of a cell of the spline; and the line lies on the pane, whatever the measures leave open
  const { box, bendFrac } = pane.fit;
  const cellMm = (box.maxY - box.minY) / box.ny;
  return slope > 0 ? Math.min(Math.hypot((SIGMAS * gap.sigmaMm) / slope, Math.sqrt(bendFrac) * BEND_TOLD * cellMm), (maxY - minY) / 2) : null;
}

const heightsOf = (line: readonly LinePoint[], outline: Polygon) => {
  const { minX, maxX } = boundingBox(outline);
  return { leftMm: heightOn(line, minX), middleMm: heightOn(line, (minX + maxX) / 2), rightMm: heightOn(line, maxX) };
};

/** Radius of a bow over its straightedge, m. @source chord and sagitta: R = L²/8h + h/2 (CHECKS: 800 mm and 20 mm make 4010 mm) */
export const radiusFromBowM = (lengthMm: number, depthMm: number): number | null =>
  Math.abs(depthMm) < 0.05 ? null : (lengthMm ** 2 / (8 * Math.abs(depthMm)) + Math.abs(depthMm) / 2) / 1000;

/** The bow across or upright that lies nearest to the middle, from edge to edge. */
function middleBow(outline: Polygon, bows: readonly Bow[], way: 'across' | 'upright'): { depthMm: number; lengthMm: number } | null {
  const box = boundingBox(outline);
  const mid = way === 'across' ? (box.minY + box.maxY) / 2 : (box.minX + box.maxX) / 2;
  const [best] = bows.filter((b) => b.way === way && !b.span).sort((a, b) => Math.abs(a.atMm - mid) - Math.abs(b.atMm - mid));
  const edge = best && straightedgeOf(outline, best);
  return best && edge ? { depthMm: best.depthMm, lengthMm: lengthOf(edge) } : null;
}

const capacityOf = (input: ShrinkInput): number => (input.film.shrink ? input.film.shrink.alongPct / 100 : USUAL_SHRINK_FRAC);

/** Grade of both edges with the least, the likely and the most that the measures leave. */
function grades(above: EdgePlan, below: EdgePlan, capacity: number, stretches: boolean): { grade: FormGrade; range: [FormGrade, FormGrade] } {
  const with_ = (pick: (e: EdgePlan) => number): FormGrade =>
    [above, below].map((e) => worseGrade(gradeOf(pick(e), capacity), stretchGrade(e.leastFrac, stretches))).reduce(worseGrade);
  return { grade: with_((e) => e.peakFrac), range: [with_((e) => e.peakLowFrac), with_((e) => e.peakHighFrac)] };
}

/** What was read, as it was written down where that was in these units. */
const readWords = (b: Bow, units: UnitSystem): string => (b.unit === units && b.typed) || formatFine(b.depthMm, units);

/** What the bows say of each other: which are off and what they should read, and how each stands to all the others. */
function weighedBows(fit: PaneFit, outline: Polygon, bows: readonly Bow[], units: UnitSystem): Pick<ShrinkPlan, 'suspects' | 'checks'> {
  const impossible = sightsOfBows(outline, bows).impossible.map((b) => {
    const longMm = lengthOf(straightedgeOf(outline, b)!);
    const text = `The bow ${bowPlaceWords(b, units)} reads ${readWords(b, units)} under a straightedge of ${taped(longMm, units)}: no pane bends so. It is left out: read it again.`;
    return { bowId: b.id, expectedMm: null, slipFrac: 1, isOut: true, text };
  });
  const contradicted = fit.checks
    .filter((c) => c.isOut || c.slipFrac > 0.3)
    .map((c) => {
      const b = bows.find((x) => x.id === c.id)!;
      const so = `The bow ${bowPlaceWords(b, units)} reads ${readWords(b, units)}; all the others together say ${formatFine(c.expectedMm, units)}, give or take ${formatDoubt(c.sigmaMm, units)}.`;
      const then = c.isOut ? 'It is left out: lay the straightedge there again.' : `A slip is likely (${Math.round(100 * c.slipFrac)} %): read it again.`;
      return { bowId: c.id, expectedMm: c.expectedMm, slipFrac: c.slipFrac, isOut: c.isOut, text: `${so} ${then}` };
    });
  return {
    suspects: [...impossible, ...contradicted],
    checks: fit.checks.map((c) => ({ bowId: c.id, expectedMm: c.expectedMm, sigmaMm: c.sigmaMm, off: c.off, isOut: c.isOut })),
  };
}

/** The quick rule and the radii, from the bows across and upright that lie nearest to the middle. A point cloud has none. */
function ruleOfThumb(outline: Polygon, curved: ShrinkInput['curved'], suspects: ShrinkPlan['suspects']): Pick<ShrinkPlan, 'quickMm' | 'radiusM'> {
  // what is left out counts nowhere
  const bows = curved.bows.filter((b) => !suspects.some((s) => s.isOut && s.bowId === b.id));
  const [hx, hy] = curved.cloud ? [null, null] : [middleBow(outline, bows, 'across'), middleBow(outline, bows, 'upright')];
  return {
    quickMm: hx && hy ? quickSlackMm(hx.lengthMm, hx.depthMm, hy.depthMm) : null,
    radiusM: { across: hx && radiusFromBowM(hx.lengthMm, hx.depthMm), upright: hy && radiusFromBowM(hy.lengthMm, hy.depthMm) },
  };
}

/** The grade for this glass: film with no way past a zone is beyond; glass that takes no full gun is never easy, unless no heat is asked for at all. */
function gradesHere(input: ShrinkInput, { above, below }: Pick<ShrinkPlan, 'above' | 'below'>, hasNoWay: boolean): Pick<ShrinkPlan, 'grade' | 'gradeRange'> {
  const usual = grades(above, below, capacityOf(input), input.film.stretches);
  const here = (g: FormGrade): FormGrade => (hasNoWay ? 'beyond' : takesNoFullGun(input) && g !== 'lies-down' ? worseGrade(g, 'care') : g);
  return { grade: here(usual.grade), gradeRange: [here(usual.range[0]), here(usual.range[1])] };
}

/**
 * How film is formed on a curved pane: what it has to lose and where, where its anchor line goes, its fingers, its grade, ways of forming it, and the piece to cut.
 * @throws RangeError in words for the installer when the pane cannot be made of these measures
 * @source docs/models/shrink.md
 */
export function shrinkPlan(input: ShrinkInput, memo = new Memo()): ShrinkPlan {
  const pane = formedPane(input, memo);
  const { fit, finished, outline } = pane;
  const { curved, film, units } = input;
  const tried = tryLine(pane, input);
  const capacity = capacityOf(input);
  const forms = { above: slackForm(fit, finished, tried.line, 'above'), below: slackForm(fit, finished, tried.line, 'below') };
  const weighed = { above: weigh(fit, forms.above), below: weigh(fit, forms.below) };
  const boxes = barringBoxes(curved);
  const fingersOn = (f: ShrinkField, side: 'above' | 'below') => fingersAlong(f.stations, side, capacity, boxes);
  const fingers = { above: fingersOn(tried.field, 'above'), below: fingersOn(tried.field, 'below') };
  const above = edgePlan(pane, tried, 'above', weighed.above, fingers.above, boxes);
  const below = edgePlan(pane, tried, 'below', weighed.below, fingers.below, boxes);
  const heights = heightsOf(tried.across, outline);
  const halfLine = straightLine(fit.surface, finished, { through: { u: pane.middleMm, v: halfHeight(finished) }, way: { du: 1, dv: 0 } }, input.stepMm);
  const halfField = fieldFromLine(fit.surface, finished, halfLine, { stepMm: input.stepMm });
  const fingersOf = (f: ShrinkField) => fingersOn(f, 'above').length + fingersOn(f, 'below').length;
  const balancedLine = pane.balanced && straightLine(fit.surface, finished, pane.balanced.anchor, input.stepMm);
  const { minX, maxX } = boundingBox(finished);
  const hasNoWay = (['above', 'below'] as const).some((side) => edgeLosses(tried.field.stations, side, boxes).led.some((l) => l.stuckMm > PRESSED_MM));
  const { grade, gradeRange } = gradesHere(input, { above, below }, hasNoWay);
  const toForm: ToForm = {
    ...fingers,
    grade,
    isLaminated: takesNoFullGun(input),
    thicknessUm: film.thicknessUm,
    isOutside: film.isOutside,
    areaM2: signedArea(finished) / 1e6,
    bandM: (2 * (maxX - minX)) / 1000,
    units,
  };
  const methods = toldAll(methodCards(toForm), units);
  // the way of the firm or the job is not forced on a pane where it cannot be done; what somebody chose for this very pane stands
  const usualWay = methods.find((m) => m.school === input.firmSchool && m.notHere === null)?.school;
  const school = curved.school ?? usualWay ?? methods.find((m) => m.isRecommended)!.school;
  const anchor: ShrinkPlan['anchor'] = {
    kind: tried.kind,
    ...heights,
    sureToMm: tried.kind === 'balanced' ? sureHeight(pane, input, weigh(fit, addForms(forms.below, forms.above, -1))) : null,
    edgesSeen: curved.cloud !== null || edgesSeen(outline, curved.bows),
    line: tried.line.map(toPoint),
    tiltMmPerM: ((heights.rightMm - heights.leftMm) / (maxX - minX)) * 1000,
  };
  const halfWay = { heightMm: halfHeight(finished), aboveMm: halfField.toGoAboveMm, belowMm: halfField.toGoBelowMm, fingers: fingersOf(halfField) };
  const balanced = balancedLine && {
    ...heightsOf(balancedLine, outline),
    worstMm: Math.max(pane.balanced!.field.toGoAboveMm, pane.balanced!.field.toGoBelowMm),
  };
  const said = weighedBows(fit, outline, curved.cloud ? [] : curved.bows, units);
  const { quickMm, radiusM } = ruleOfThumb(outline, curved, said.suspects);
  const next = curved.cloud ? null : nextBow(fit, finished, [weighed.above, weighed.below], curved.bows);
  const flat = flatPiece(tried.field, finished, input);
  const order = fingerOrder(school, fingers.above, fingers.below);
  const keepClear = keepClearOf(input, pane, tried, fingers, order);
  return {
    refused: formRefusal(input),
    grade,
    gradeRange,
    capacityFrac: capacity,
    anchor,
    above,
    below,
    balanced,
    halfWay,
    quickMm,
    outline: outline.map((p) => ({ x: round(p.x), y: round(p.y) })),
    finished: finished.map((p) => ({ x: round(p.x), y: round(p.y) })),
    mesh: meshOf(fit, tried.field),
    flat,
    forming: formingPosition(pane, tried, input),
    methods,
    lubrications: lubricationCards(toForm),
    school,
    order,
    keepClear,
    advice: toldAll(
      advice(input, pane, { keepClear, above, below, grade, capacity, anchorKind: tried.kind, balancedWorstMm: balanced?.worstMm ?? null, flat }),
      units,
    ),
    summary: planSummary({ above, below, anchor, halfWay, balanced, grade, gradeRange, quickMm, keepClear, finished }, input),
    cautions: toldAll(
      cautionsFor(
        input,
        keepClear.map((k) => k.text),
      ),
      units,
    ),
    ...said,
    nextBow: next && {
      ...next,
      text: `One more bow would narrow this most: ${bowPlaceWords(next.place, units)}. The range of the slack gets ${Math.round(100 * next.narrowsFrac)} % narrower.`,
    },
    radiusM,
  };
}

/** Film that may lie either way round: what shrinks both ways, or gives way to a pull. @source common practice: tint shrinks along the roll only */
export const mayTurn = (film: Pick<ShrinkInput['film'], 'shrink' | 'stretches'>): boolean =>
  film.stretches || (film.shrink !== null && film.shrink.acrossPct >= film.shrink.alongPct / 2 && film.shrink.alongPct > 0);

function flatPiece(field: ShrinkField, finished: Polygon, input: ShrinkInput): ShrinkPlan['flat'] {
  const outline = flatOutline(field.stations, finished).map((p) => ({ x: round(p.x), y: round(p.y) }));
  const box = boundingBox(outline.length ? outline : finished);
  const piece = { widthMm: box.maxX - box.minX + 2 * FORMING.pastSidesMm, heightMm: box.maxY - box.minY + 2 * FORMING.gripMm };
  return { outline, piece, fitsRoll: input.widestRollMm === null ? null : piece.heightMm <= input.widestRollMm, mayTurn: mayTurn(input.film) };
}

/** The size of the film before it is shrunk, and of the piece that is cut for it. */
export interface FlatSize {
  readonly filmWidthMm: number;
  readonly filmHeightMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly pastSidesMm: number;
  readonly gripMm: number;
}

/**
 * The piece alone, without looking for the balanced line: unrolled from the line that was chosen, or half way up, which makes no difference of a millimetre to
 * its size. Quick enough to be asked at every edit.
 */
export function flatSize(input: ShrinkInput, memo = new Memo()): FlatSize {
  const key = contentHash([input.curved.bows.map((b) => [b.way, b.atMm, b.span, b.depthMm]), input.curved.cloud?.cells.length, input.curved.cloud?.noiseMm, input.curved.anchor, input.curved.seat, input.curved.dotBorderMm, input.outline, input.edgeGapMm]); // prettier-ignore
  return memo.once(sizes, key, () => newFlatSize(input, memo));
}
const sizes = shelf<FlatSize>(200);

function newFlatSize(input: ShrinkInput, memo: Memo): FlatSize {
  const pane = fittedPane(input, memo);
  const { field } = tryLine({ ...pane, balanced: null }, input);
  const box = boundingBox(flatOutline(field.stations, pane.finished));
  const [filmWidthMm, filmHeightMm] = [box.maxX - box.minX, box.maxY - box.minY];
  return {
    filmWidthMm,
    filmHeightMm,
    widthMm: filmWidthMm + 2 * FORMING.pastSidesMm,
    heightMm: filmHeightMm + 2 * FORMING.gripMm,
    pastSidesMm: FORMING.pastSidesMm,
    gripMm: FORMING.gripMm,
  };
}

/** Where the film lies while it is formed, and what that place asks for. */
function formingPosition(pane: FormedPane, tried: TriedLine, input: ShrinkInput): ShrinkPlan['forming'] {
  const { units } = input;
  const f = (mm: number) => formatRough(mm, units);
  const base = { pastSidesMm: FORMING.pastSidesMm, gripMm: FORMING.gripMm };
  if (input.curved.seat === 'fixed') {
    const text = `Formed where it will lie: ${f(FORMING.pastSidesMm)} past the sides, ${f(FORMING.gripMm)} to grip above and below. Shield the rubber from the gun; trim onto the dots before the film is turned over.`;
    return { raiseMm: 0, ...base, aboveMm: tried.field.toGoAboveMm, belowMm: tried.field.toGoBelowMm, text };
  }
  // the same film, laid higher up: its own outline and line moved together
  const up = FORMING.raiseMm;
  const moved = pane.finished.map((p) => ({ x: p.x, y: p.y + up }));
  const middle = tried.line.reduce((a, p) => (Math.abs(p.u - pane.middleMm) < Math.abs(a.u - pane.middleMm) ? p : a));
  const { stepMm } = input;
  const { surface } = pane.fit;
  const field =
    tried.kind === 'arch'
      ? fieldOfArch(surface, moved, archLine(surface, moved, stepMm), { stepMm }).field
      : fieldFromLine(surface, moved, straightLine(surface, moved, { through: { u: middle.u, v: middle.v + up }, way: middle }, stepMm), { stepMm });
  const text = `Formed ${f(up)} higher than it will sit, to keep heat off the lower rubber, and ${f(FORMING.pastSidesMm)} past the sides; laid inside so that it runs ${f(FORMING.belowSealMm)} below the belt seal, its top ${f(FORMING.underTopMm)} under the edge of the glass. Up there it has to lose ${formatFine(field.toGoBelowMm, units)} below and ${formatFine(field.toGoAboveMm, units)} above.`;
  return { raiseMm: up, ...base, aboveMm: field.toGoAboveMm, belowMm: field.toGoBelowMm, text };
}
