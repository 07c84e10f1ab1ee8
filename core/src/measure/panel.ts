import type { Groove, Hardware, Panel, Recess } from '@yellow-pane/contracts';
import { boundingBox } from '../geometry/index.js';
import { tapeSigmaMm, type TapeReading } from './adjustment.js';
import { judgeRibs, type JudgedRibs, type RibDoubt } from './corrugation.js';
import { judgeDome, type DomeDoubt, type JudgedDome } from './dome.js';
import { judgeEdge, type EdgeDoubt, type TapedEdge } from './edge.js';
import { grooveGirth, type GrooveGirth } from './groove.js';
import { outsideByMm } from './hardware.js';
import { slackOfWall } from './recess.js';
import { enclosingRectangle, surveyOpening, type Survey } from './survey.js';

/** One groove of a panel with what is known of its girth. */
export interface JudgedGroove extends GrooveGirth {
  readonly groove: Groove;
}

/** One recess of a panel. */
export interface JudgedRecess {
  readonly recess: Recess;
  /** Film that each of its walls takes more than it is wide on plan. */
  readonly slackMm: number;
}

/** Something besides the tapes of the face that does not fit. `part`: the groove or piece of hardware it is about. */
export type PanelDoubt =
  | { readonly is: 'groove-girth' | 'groove-sum'; readonly part: string; readonly byMm: number }
  | {
      readonly is:
        'groove-outside' | 'groove-through' | 'groove-narrow' | 'recess-outside' | 'recess-through' | 'recess-narrow' | 'recess-overlap' | 'hardware-outside';
      readonly part: string;
      readonly byMm: number;
    }
  | RibDoubt
  | DomeDoubt
  | EdgeDoubt;

/** What is known of one panel, and how sure. */
export interface PanelSurvey {
  /** As of its face; doubtful too where its face agrees but something else does not. */
  readonly status: Survey['status'];
  /** The tapes of its face, judged as an opening’s. */
  readonly face: Survey;
  /** Null: nobody taped its edge. */
  readonly edge: TapedEdge | null;
  readonly grooves: readonly JudgedGroove[];
  readonly recesses: readonly JudgedRecess[];
  /** Null: it is no corrugated sheet. */
  readonly ribs: JudgedRibs | null;
  /** Null: its face is flat, or has no size yet. */
  readonly dome: JudgedDome | null;
  readonly doubts: readonly PanelDoubt[];
}

/** What of a panel its survey looks at. */
export type PanelParts = Pick<Panel, 'grooves' | 'recesses' | 'corrugation' | 'dome' | 'hardware'>;

/** Places on a face are taped to this, 1 σ, and told apart at 1 %. @source as any tape, common practice */
const APART = 2.58;

/** From where to where a groove goes: across for upright ones and frames, upwards for level ones. */
function spanOf({ run, widthMm }: Groove): { readonly fromMm: number; readonly toMm: number; readonly isUpright: boolean } {
  if (run.way === 'level') return { fromMm: run.fromFootMm, toMm: run.fromFootMm + widthMm, isUpright: false };
  return { fromMm: run.fromLeftMm, toMm: run.fromLeftMm + (run.way === 'frame' ? run.acrossMm : widthMm), isUpright: true };
}

function doubtsOfGroove(judged: JudgedGroove, face: Survey, thicknessMm: number | null): PanelDoubt[] {
  const { groove, apartMm } = judged;
  const out: PanelDoubt[] = [];
  if (apartMm !== null) out.push({ is: 'groove-girth', part: groove.id, byMm: apartMm });
  if (thicknessMm !== null && groove.form !== 'moulding' && groove.depthMm >= thicknessMm)
    out.push({ is: 'groove-through', part: groove.id, byMm: groove.depthMm - thicknessMm });
  // a frame is as wide as two of its sides at least
  const narrowMm = groove.run.way === 'frame' ? 2 * groove.widthMm - Math.min(groove.run.acrossMm, groove.run.upMm) : 0;
  if (narrowMm > 0) out.push({ is: 'groove-narrow', part: groove.id, byMm: narrowMm });
  if (!face.outline) return out;
  const box = boundingBox(face.outline);
  const size = { x: box.maxX - box.minX, y: box.maxY - box.minY };
  const span = spanOf(groove);
  const whole = span.isUpright ? size.x : size.y;
  const reaches = [span.toMm - whole, groove.run.way === 'frame' ? groove.run.fromFootMm + groove.run.upMm - size.y : -Infinity];
  const past = Math.max(...reaches);
  const slop = APART * Math.hypot(tapeSigmaMm(whole), tapeSigmaMm(span.toMm));
  if (past > slop) out.push({ is: 'groove-outside', part: groove.id, byMm: past });
  else if (groove.toFarEdgeMm !== null) {
    // a face out of parallel has no one width: the sum may be any of them
    const widths = taperOf(face, span.isUpright);
    const sum = span.toMm + groove.toFarEdgeMm;
    const sigma = Math.hypot(tapeSigmaMm(span.fromMm), tapeSigmaMm(span.toMm - span.fromMm), tapeSigmaMm(groove.toFarEdgeMm), tapeSigmaMm(whole));
    const off = sum < widths.least ? sum - widths.least : sum > widths.most ? sum - widths.most : 0;
    if (Math.abs(off) > APART * sigma) out.push({ is: 'groove-sum', part: groove.id, byMm: off });
  }
  return out;
}

/** The least and the most that a face measures across (or up), by its corners. */
function taperOf(face: Survey, isAcross: boolean): { least: number; most: number } {
  const [a, b, c, d] = face.outline!;
  const length = (p: { x: number; y: number }, q: { x: number; y: number }) => Math.hypot(p.x - q.x, p.y - q.y);
  const sides = isAcross ? [length(a!, b!), length(c!, d!)] : [length(b!, c!), length(d!, a!)];
  return { least: Math.min(...sides), most: Math.max(...sides) };
}

/** A recess that cannot be: past the face, through the board, its walls wider than itself, or over another one. */
function doubtsOfRecess(recess: Recess, all: readonly Recess[], face: Survey, thicknessMm: number | null): PanelDoubt[] {
  const { id, fromLeftMm, fromFootMm, acrossMm, upMm, depthMm, slopeMm, cornerMm } = recess;
  const out: PanelDoubt[] = [];
  if (thicknessMm !== null && depthMm >= thicknessMm) out.push({ is: 'recess-through', part: id, byMm: depthMm - thicknessMm });
  const narrow = 2 * Math.max(slopeMm, cornerMm) - Math.min(acrossMm, upMm);
  if (narrow > 0 || 2 * slopeMm >= Math.min(acrossMm, upMm)) out.push({ is: 'recess-narrow', part: id, byMm: Math.max(0, narrow) });
  const before = all.slice(0, all.indexOf(recess));
  const over = Math.max(0, ...before.map((o) => Math.min(fromLeftMm + acrossMm - o.fromLeftMm, o.fromLeftMm + o.acrossMm - fromLeftMm, fromFootMm + upMm - o.fromFootMm, o.fromFootMm + o.upMm - fromFootMm))); // prettier-ignore
  if (over > 0) out.push({ is: 'recess-overlap', part: id, byMm: over });
  if (!face.outline) return out;
  const box = boundingBox(face.outline);
  const [wide, high] = [box.maxX - box.minX, box.maxY - box.minY];
  const past = Math.max(fromLeftMm + acrossMm - wide, fromFootMm + upMm - high);
  if (past > APART * Math.hypot(tapeSigmaMm(wide), tapeSigmaMm(acrossMm))) out.push({ is: 'recess-outside', part: id, byMm: past });
  return out;
}

function doubtOfHardware(h: Hardware, face: Survey): PanelDoubt[] {
  const byMm = face.outline && outsideByMm(h, face.outline);
  return byMm === null ? [] : [{ is: 'hardware-outside', part: h.id, byMm }];
}

/** Judges what was taped of one panel. @param readings in force, at most one per measure, mm */
export function judgePanel({ grooves, recesses, corrugation, dome, hardware }: PanelParts, readings: readonly TapeReading[]): PanelSurvey {
  const face = surveyOpening(readings.filter((r) => !r.measure.startsWith('edge')));
  const { edge, doubts: ofEdge } = judgeEdge(readings);
  const judged = grooves.map((groove) => ({ groove, ...grooveGirth(groove) }));
  const ribs = corrugation && judgeRibs(corrugation);
  const hollows = grooves.length + recesses.length;
  const size = enclosingRectangle(face);
  const domed = dome && size ? judgeDome(dome, size) : null;
  const doubts: PanelDoubt[] = [
    ...ofEdge,
    ...judged.flatMap((j) => doubtsOfGroove(j, face, edge?.thicknessMm ?? null)),
    ...recesses.flatMap((r) => doubtsOfRecess(r, recesses, face, edge?.thicknessMm ?? null)),
    ...(ribs?.doubts ?? []),
    // what runs across ribs has no way of its own that could be reckoned with
    ...(ribs && hollows ? [{ is: 'ribs-hollows', part: 'corrugation', byMm: hollows } as const] : []),
    ...(domed?.doubts ?? []),
    ...(domed && (hollows || ribs) ? [{ is: 'dome-hollows', part: 'dome', byMm: hollows + 1 } as const] : []),
    ...hardware.flatMap((h) => doubtOfHardware(h, face)),
  ];
  return {
    status: doubts.length > 0 && (face.status === 'agreeing' || face.status === 'unchecked' || face.status === 'two-tapes') ? 'doubtful' : face.status,
    face,
    edge,
    grooves: judged,
    recesses: recesses.map((recess) => ({ recess, slackMm: slackOfWall(recess) })),
    ribs: ribs?.ribs ?? null,
    dome: domed?.dome ?? null,
    doubts,
  };
}

/** What a piece has to cover of a face: every explanation of its tapes and two standard deviations. */
export const coverOfPanel = (survey: PanelSurvey): { widthMm: number; heightMm: number } | null => enclosingRectangle(survey.face);
