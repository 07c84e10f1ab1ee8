import type { ShrinkPlan, StepDrawing, UnitSystem } from '@yellow-pane/contracts';
import { taped } from '@yellow-pane/core/form';
import { formatRough, formatRoughRange } from '@yellow-pane/core/ground';

/** Size of the picture. */
export const [W, H] = [360, 214];
/** Heights are written beside the pane where the line is laid; elsewhere the pane has that room. */
const padOf = (drawing: StepDrawing) => ({ side: drawing === 'anchor-line' ? 78 : 12, top: 24, bottom: drawing === 'forming' ? 40 : 24 });

interface Point {
  readonly x: number;
  readonly y: number;
}
/** Strokes in order, in the plane of the plan. */
export interface StrokeDrawn {
  readonly path: readonly Point[];
  readonly isLane: boolean;
}

/** How the plane of the plan (mm, y up) lies in the picture. */
interface Frame {
  readonly minX: number;
  readonly maxX: number;
  readonly minY: number;
  readonly maxY: number;
  /** Picture per mm. */
  readonly k: number;
  /** −1: drawn from the other side than the bows were read from. */
  readonly flip: 1 | -1;
  readonly x: (mm: number) => number;
  readonly y: (mm: number) => number;
}
function frameOf(plan: ShrinkPlan, drawing: StepDrawing, isMirrored: boolean): Frame {
  const xs = plan.outline.map((q) => q.x);
  const ys = plan.outline.map((q) => q.y);
  const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(0, ...ys), Math.max(...ys)];
  const pad = padOf(drawing);
  const k = Math.min((W - 2 * pad.side) / (maxX - minX), (H - pad.top - pad.bottom) / (maxY - minY));
  const flip = isMirrored ? -1 : 1;
  return {
    minX,
    maxX,
    minY,
    maxY,
    k,
    flip,
    x: (v) => W / 2 + flip * (v - (minX + maxX) / 2) * k,
    y: (v) => pad.top + (H - pad.top - pad.bottom) / 2 - (v - (minY + maxY) / 2) * k,
  };
}
const ringText = ({ x, y }: Frame, ring: readonly Point[]): string => ring.map((q) => `${x(q.x).toFixed(1)},${y(q.y).toFixed(1)}`).join(' ');
const pathText = ({ x, y }: Frame, line: readonly Point[]): string => line.map((q, i) => `${i ? 'L' : 'M'}${x(q.x).toFixed(1)} ${y(q.y).toFixed(1)}`).join(' ');

/** What heat keeps away from: told beside it, towards the line, where no finger stands. */
function zonesOf(plan: ShrinkPlan, f: Frame) {
  const kept = plan.keepClear.filter((z) => z.heatMm !== null && z.ring.length > 2);
  return kept.map((z) => {
    const [xs, ys] = [z.ring.map((q) => q[0]), z.ring.map((q) => q[1])];
    const [low, high] = [Math.min(...ys), Math.max(...ys)];
    const isHigh = (low + high) / 2 > plan.anchor.middleMm;
    const points = ringText(
      f,
      z.ring.map(([x, y]) => ({ x, y })),
    );
    return { id: z.zoneId, points, x: f.x((Math.min(...xs) + Math.max(...xs)) / 2), y: isHigh ? f.y(low) + 13 : f.y(high) - 5 };
  });
}

/** Fingers as wedges from their foot to their root, with their place in the order. */
function fingersOf(plan: ShrinkPlan, { x, y, k }: Frame) {
  const order = new Map(plan.order.map((o, i) => [`${o.side}${o.number}`, i + 1]));
  return [...plan.below.fingers, ...plan.above.fingers].map((f) => {
    const key = `${f.side}${f.number}`;
    const [footX, footY, half] = [x(f.foot.x), y(f.foot.y), Math.max(3, (f.baseMm * k) / 2)];
    const points = `${(footX - half).toFixed(1)},${footY.toFixed(1)} ${(footX + half).toFixed(1)},${footY.toFixed(1)} ${x(f.root.x).toFixed(1)},${y(f.root.y).toFixed(1)}`;
    return { key, order: order.get(key) ?? 0, points, x: footX, y: footY + (f.side === 'above' ? -11 : 11) };
  });
}

/** Where the line lies over the lower corners, at left, middle and right; an arch has none. */
function heightsOf({ anchor }: ShrinkPlan, { x, y, k, flip, minX, maxX }: Frame, units: UnitSystem) {
  if (anchor.kind === 'arch') return [];
  const turned = { start: 'end', end: 'start' } as const;
  const at = (v: number, mm: number, side: 'start' | 'end', dx: number) => ({
    path: `M${x(v)} ${y(0)}V${y(mm)}`,
    x: x(v) + flip * dx,
    y: y(mm / 2) + 5,
    anchor: flip > 0 ? side : turned[side],
    text: taped(mm, units),
  });
  return [at(minX - 6 / k, anchor.leftMm, 'end', -5), at((minX + maxX) / 2, anchor.middleMm, 'start', 6), at(maxX + 6 / k, anchor.rightMm, 'start', 5)];
}

/** The two sides that are pressed down beside the line. */
function sidesOf({ x, y, minX, maxX, minY, maxY }: Frame): string {
  const [w, h] = [maxX - minX, maxY - minY];
  const down = (v: number) => `M${x(v)} ${y(maxY - 0.12 * h)}V${y(minY + 0.12 * h)}`;
  return down(minX + 0.05 * w) + down(maxX - 0.05 * w);
}

/** Quarters in their order: the first at the left of whoever works, whichever way round the pane is drawn. */
const QUARTERS = [
  { n: 1, dx: -0.3, isUp: true },
  { n: 2, dx: 0.3, isUp: true },
  { n: 3, dx: -0.3, isUp: false },
  { n: 4, dx: 0.3, isUp: false },
] as const;
/** An arrow out of the line for each quarter. @param isNumberInside its number stands on the arrow, else beyond its head */
function quartersOf({ anchor }: ShrinkPlan, { x, y, flip, minX, maxX, minY, maxY }: Frame, isNumberInside: boolean) {
  const middle = (minX + maxX) / 2;
  const line = anchor.middleMm;
  return QUARTERS.map(({ n, dx, isUp }) => {
    const toX = middle + flip * dx * (maxX - minX);
    const toY = isUp ? line + 0.6 * (maxY - line) : line - 0.6 * (line - minY);
    const [sx, sy, ex, ey] = [x(middle) + Math.sign(x(toX) - x(middle)) * 8, y(line) + (isUp ? -6 : 6), x(toX), y(toY)];
    const length = Math.hypot(ex - sx, ey - sy) || 1;
    const [ux, uy] = [(ex - sx) / length, (ey - sy) / length];
    const path = `M${sx.toFixed(1)} ${sy.toFixed(1)}L${ex.toFixed(1)} ${ey.toFixed(1)}`;
    const head = `${(ex + 9 * ux).toFixed(1)},${(ey + 9 * uy).toFixed(1)} ${(ex - 6 * uy).toFixed(1)},${(ey + 6 * ux).toFixed(1)} ${(ex + 6 * uy).toFixed(1)},${(ey - 6 * ux).toFixed(1)}`;
    return isNumberInside ? { n, path, head, x: (sx + ex) / 2, y: (sy + ey) / 2 + 6 } : { n, path, head, x: ex + 24 * ux, y: ey + 24 * uy + 6 };
  });
}

const strokesOf = (strokes: readonly StrokeDrawn[], f: Frame) =>
  strokes.map(({ path, isLane }) => ({ isLane, path: pathText(f, path), x: f.x(path.at(-1)!.x), y: f.y(path.at(-1)!.y) }));

/** What stands under the picture. */
function captionOf(plan: ShrinkPlan, drawing: StepDrawing, fingerCount: number, units: UnitSystem): string {
  if (drawing === 'forming') {
    if (fingerCount === 0) return 'under the squeegee alone: no gun';
    const card = plan.methods.find((m) => m.school === plan.school);
    return `${card?.name ?? ''}, gun ${formatRoughRange(card?.gunMm[0] ?? 100, card?.gunMm[1] ?? 150, units)} off`;
  }
  if (drawing !== 'anchor-line') return 'on the face that gets the film; water to the side and down';
  const { raiseMm } = plan.forming;
  return raiseMm > 0 ? `from outside; film ${formatRough(raiseMm, units)} higher than it will sit` : 'from outside; heights over the lower corners';
}

/** What is drawn of a curved pane at a step: where the line goes, which fingers in which order, or the quarters that water is driven out of. */
export function formingFigure(plan: ShrinkPlan, drawing: StepDrawing, units: UnitSystem, strokes: readonly StrokeDrawn[], isMirrored: boolean) {
  const f = frameOf(plan, drawing, isMirrored);
  const fingers = fingersOf(plan, f);
  return {
    outline: ringText(f, plan.outline),
    finished: ringText(f, plan.finished),
    zones: zonesOf(plan, f),
    fingers,
    line: pathText(f, plan.anchor.line),
    heights: heightsOf(plan, f, units),
    noFingers: plan.anchor.kind === 'arch' ? 'push three fingers together below' : 'no fingers: it lies down',
    sides: sidesOf(f),
    quarters: quartersOf(plan, f, strokes.length > 0),
    strokes: strokesOf(strokes, f),
    below: captionOf(plan, drawing, fingers.length, units),
  };
}
