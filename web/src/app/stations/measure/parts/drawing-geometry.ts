import type { MeasureKey } from '@yellow-pane/contracts';
import type { Polygon, Vec } from '@yellow-pane/core';

/** Where a field and its dimension line stand in the drawing, px. */
export interface FieldPlace {
  readonly key: MeasureKey;
  readonly x: number;
  readonly y: number;
  readonly from: Vec;
  readonly to: Vec;
  /** Ticks at both ends belong to a dimension outside the opening; inside lines are drawn plain. */
  readonly isOutside: boolean;
  readonly isDiagonal: boolean;
}

export interface DrawnOpening {
  readonly points: string;
  readonly fields: readonly FieldPlace[];
  readonly scale: number;
  readonly toPx: (p: Vec) => Vec;
}

export const FIELD_W = 84;
const OUT = 44;
/** Beside the opening a field is wider than it is high. */
const OUT_SIDE = 70;

/** The outline with its deviations from the mean rectangle drawn larger. */
export function exaggerated(outline: Polygon, times: number): Polygon {
  const [a, b, c, d] = outline as [Vec, Vec, Vec, Vec];
  const w = (b.x - a.x + (c.x - d.x)) / 2;
  const h = (d.y - a.y + (c.y - b.y)) / 2;
  const left = (a.x + d.x) / 2;
  const low = (a.y + b.y) / 2;
  const straight: Vec[] = [
    { x: left, y: low },
    { x: left + w, y: low },
    { x: left + w, y: low + h },
    { x: left, y: low + h },
  ];
  return outline.map((p, i) => ({ x: straight[i]!.x + times * (p.x - straight[i]!.x), y: straight[i]!.y + times * (p.y - straight[i]!.y) }));
}

const mid = (a: Vec, b: Vec, t = 0.5): Vec => ({ x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t });

/**
 * Lays an opening into a box of `width` × `height` px, true to scale, and says where each measure's field stands: on the edge
 * that it measures. Mirrored: seen from the other side, left and right change places.
 */
export function layOpening(outline: Polygon, keys: readonly MeasureKey[], width: number, height: number, isMirrored: boolean): DrawnOpening {
  const shown = isMirrored ? outline.map((p) => ({ x: -p.x, y: p.y })) : outline;
  const xs = shown.map((p) => p.x);
  const ys = shown.map((p) => p.y);
  const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.max(0.01, Math.min((width - 2 * (OUT_SIDE + FIELD_W / 2 + 14)) / (maxX - minX), (height - 2 * (OUT + 46)) / (maxY - minY)));
  const toPx = (p: Vec): Vec => ({ x: width / 2 + ((isMirrored ? -p.x : p.x) - (minX + maxX) / 2) * scale, y: height / 2 - (p.y - (minY + maxY) / 2) * scale });
  const [bl, br, tr, tl] = outline.map(toPx) as [Vec, Vec, Vec, Vec];
  const side = isMirrored ? 1 : -1;
  const out = (p: Vec, dx: number, dy: number): Vec => ({ x: p.x + dx, y: p.y + dy });
  const lines: Record<string, { from: Vec; to: Vec; at: number; outside?: boolean; diagonal?: boolean }> = {
    widthTop: { from: out(tl, 0, -OUT), to: out(tr, 0, -OUT), at: 0.5, outside: true },
    widthLargest: { from: out(tl, 0, -OUT), to: out(tr, 0, -OUT), at: 0.5, outside: true },
    widthBottom: { from: out(bl, 0, OUT), to: out(br, 0, OUT), at: 0.5, outside: true },
    heightLeft: { from: out(tl, side * OUT_SIDE, 0), to: out(bl, side * OUT_SIDE, 0), at: 0.5, outside: true },
    heightLargest: { from: out(tl, side * OUT_SIDE, 0), to: out(bl, side * OUT_SIDE, 0), at: 0.5, outside: true },
    heightRight: { from: out(tr, -side * OUT_SIDE, 0), to: out(br, -side * OUT_SIDE, 0), at: 0.5, outside: true },
    widthMiddle: { from: mid(tl, bl), to: mid(tr, br), at: 0.5 },
    heightMiddle: { from: mid(tl, tr), to: mid(bl, br), at: 0.8 },
    diagonalDown: { from: tl, to: br, at: 0.24, diagonal: true },
    diagonalUp: { from: bl, to: tr, at: 0.24, diagonal: true },
    bowTop: { from: tl, to: tr, at: 0.78 },
    bowBottom: { from: bl, to: br, at: 0.78 },
    bowLeft: { from: tl, to: bl, at: 0.3 },
    bowRight: { from: tr, to: br, at: 0.3 },
  };
  const fields = keys.map((key): FieldPlace => {
    const l = lines[key]!;
    const p = mid(l.from, l.to, l.at);
    return { key, x: p.x, y: p.y, from: l.from, to: l.to, isOutside: l.outside === true, isDiagonal: l.diagonal === true };
  });
  return { points: [bl, br, tr, tl].map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' '), fields, scale, toPx };
}
