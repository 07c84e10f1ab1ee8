import type { Sign, SignLine } from '@yellow-pane/contracts';
import { boundingBox, common, cross, evenOdd, minus, regionArea, ringsFromSvgPath, signedArea, vec, type Polygon, type Region } from '../geometry/index.js';
import type { TapeReading } from './adjustment.js';
import { outsideByMm } from './hardware.js';
import { narrowestStrokeMm } from './stroke-width.js';
import { surveyOpening, type Survey } from './survey.js';

/** A line of letters, or a figure, as it stands on its ground: mm from the ground’s left side and foot, seen from the front. */
export interface PlacedMark {
  readonly line: SignLine;
  /** Film that stays. */
  readonly region: Region;
  readonly box: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };
  /** The thinnest of its strokes, about. */
  readonly strokeMm: number;
}
/** A line whose outlines do not read. */
export interface UnreadMark {
  readonly line: SignLine;
  readonly message: string;
}

/** Something of a sign that does not fit. `part`: the line or the thing on the ground that it is about. */
export type SignDoubt =
  | { readonly is: 'outside' | 'thin'; readonly part: string; readonly byMm: number }
  | { readonly is: 'on-hardware' | 'overlap'; readonly part: string; readonly other: string }
  | { readonly is: 'hardware-outside'; readonly part: string; readonly byMm: number }
  | { readonly is: 'unread'; readonly part: string; readonly message: string };

/** What is known of one sign, and how sure. */
export interface SignSurvey {
  /** As of its ground; doubtful too where its tapes agree but something else does not fit. */
  readonly status: Survey['status'];
  /** The tapes of its ground, judged as an opening’s. */
  readonly face: Survey;
  /** What letters stand on, as it is likeliest; null: it has no size. */
  readonly ground: Polygon | null;
  /** In the order they were written. */
  readonly marks: readonly PlacedMark[];
  readonly doubts: readonly SignDoubt[];
  /** From what stands nearest to an edge of the ground to that edge; null: nothing is known of one of them. */
  readonly clearMm: number | null;
}

/**
 * Thinner strokes are lost at weeding; on texture they hold by the tops of the weave alone.
 * @source house rule
 */
export const leastStrokeMm: Readonly<Record<Sign['texture'], number>> = { smooth: 1.5, fine: 3, rough: 5, unknown: 3 };

/** A gap or an overlap smaller than this is the flattening of a curve, mm². */
const NOTHING_MM2 = 0.5;

/** One line of a sign where it stands on its ground. */
export function placeMark(line: SignLine): PlacedMark | UnreadMark {
  const raw = ringsFromSvgPath(line.svgPath, line.is === 'letters' ? line.heightMm / line.capUnits : 1);
  if (!raw.ok) return { line, message: raw.message };
  const drawn = boundingBox(raw.rings.flat());
  const high = line.is === 'letters' ? line.capUnits : drawn.maxY - drawn.minY;
  if (!(high > 0) || !(drawn.maxX > drawn.minX)) return { line, message: 'The path encloses nothing: a figure to be cut out needs an inside.' };
  const k = line.heightMm / high;
  const wide = (drawn.maxX - drawn.minX) * k;
  const left = line.atMm - (line.align === 'left' ? 0 : line.align === 'middle' ? wide / 2 : wide);
  const foot = line.is === 'letters' ? 0 : drawn.minY;
  const rings = raw.rings.map((ring) => ring.map((p) => vec(left + (p.x - drawn.minX) * k, line.baselineMm + (p.y - foot) * k)));
  const region = evenOdd(rings).filter((part) => regionArea([part]) > NOTHING_MM2);
  if (region.length === 0) return { line, message: 'Nothing of it is left to be cut: its outlines cover each other.' };
  return { line, region, box: boundingBox(region.flatMap((part) => part[0]!)), strokeMm: Math.min(...region.map(narrowestStrokeMm)) };
}

/** How far the farthest point of a region lies outside a convex outline, mm; negative: the nearest keeps so much off its edge. */
function pastMm(region: Region, outline: Polygon): number {
  const ring = signedArea(outline) < 0 ? [...outline].reverse() : outline;
  let most = -Infinity;
  ring.forEach((a, i) => {
    const along = minus(ring[(i + 1) % ring.length]!, a);
    const l = Math.hypot(along.x, along.y);
    for (const part of region) for (const p of part[0]!) most = Math.max(most, -cross(along, minus(p, a)) / l);
  });
  return most;
}

const boxRing = (x: number, y: number, w: number, h: number): Polygon => [vec(x, y), vec(x + w, y), vec(x + w, y + h), vec(x, y + h)];
const boxesMeet = (a: PlacedMark['box'], b: PlacedMark['box']): boolean => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;

/** What does not fit of letters on their ground. */
function doubtsOf(marks: readonly PlacedMark[], { hardware, texture }: SignParts, ground: Polygon | null): SignDoubt[] {
  const out: SignDoubt[] = [];
  marks.forEach((m, i) => {
    const past = ground ? pastMm(m.region, ground) : -1;
    if (past > 0) out.push({ is: 'outside', part: m.line.id, byMm: past });
    for (const h of hardware) {
      const box = boxRing(h.fromLeftMm, h.fromFootMm, h.widthMm, h.heightMm);
      if (h.handling !== 'off' && boxesMeet(m.box, boundingBox(box)) && regionArea(common(m.region, [[box]])) > NOTHING_MM2)
        out.push({ is: 'on-hardware', part: m.line.id, other: h.id });
    }
    for (const other of marks.slice(i + 1))
      if (boxesMeet(m.box, other.box) && regionArea(common(m.region, other.region)) > NOTHING_MM2)
        out.push({ is: 'overlap', part: m.line.id, other: other.line.id });
    if (m.strokeMm < leastStrokeMm[texture]) out.push({ is: 'thin', part: m.line.id, byMm: m.strokeMm });
  });
  return out;
}

/** The ground by the likeliest explanation of its tapes, its lower left corner at 0, 0; null: it has no size. */
function groundOf(face: Pick<Survey, 'outline' | 'possibleOutlines'>): Polygon | null {
  const outline = face.possibleOutlines[0] ?? face.outline;
  if (!outline) return null;
  const box = boundingBox(outline);
  return outline.map((p) => vec(p.x - box.minX, p.y - box.minY));
}

/** What of a sign its survey looks at. */
export type SignParts = Pick<Sign, 'lines' | 'hardware' | 'texture'>;

/** Judges what was taped of the ground of one sign, and what is to stand on it. @param readings in force, at most one per measure, mm @param place how a line is placed: kept by whoever asks often */
export function judgeSign(sign: SignParts, readings: readonly TapeReading[], place: (line: SignLine) => PlacedMark | UnreadMark = placeMark): SignSurvey {
  const face = surveyOpening(readings);
  const ground = groundOf(face);
  const placed = sign.lines.map(place);
  const marks = placed.flatMap((m) => ('region' in m ? [m] : []));
  const doubts: SignDoubt[] = [
    ...placed.flatMap((m): SignDoubt[] => ('message' in m ? [{ is: 'unread', part: m.line.id, message: m.message }] : [])),
    ...doubtsOf(marks, sign, ground),
    ...sign.hardware.flatMap((h): SignDoubt[] => {
      const byMm = ground && outsideByMm(h, ground);
      return byMm === null ? [] : [{ is: 'hardware-outside', part: h.id, byMm }];
    }),
  ];
  const isTaped = face.status === 'agreeing' || face.status === 'unchecked' || face.status === 'two-tapes';
  return {
    status: doubts.length > 0 && isTaped ? 'doubtful' : face.status,
    face,
    ground,
    marks,
    doubts,
    clearMm: ground && marks.length ? Math.min(...marks.map((m) => -pastMm(m.region, ground))) : null,
  };
}

/**
 * From how far letters are read at a glance, m.
 * @source sight of 6/6 tells letters of 5 minutes of arc apart (Snellen; from memory); read at a glance, and not only made out, four times that: house rule
 */
export const readFromM = (heightMm: number): number => heightMm / 1000 / Math.tan(((4 * 5) / 60) * (Math.PI / 180));

/** How much of its ground the boxes of a sign’s lines take, m²: what is wiped and heated. */
export const areaOfMarksM2 = (marks: readonly Pick<PlacedMark, 'box'>[]): number =>
  marks.reduce((s, { box: b }) => s + (b.maxX - b.minX) * (b.maxY - b.minY), 0) / 1e6;
