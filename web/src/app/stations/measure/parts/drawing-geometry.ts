import type { MeasureKey } from '@yellow-pane/contracts';
import type { Polygon, ShapeModel, Vec } from '@yellow-pane/core';

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
  /** The place on its own line that a field belongs to, where it stands so far off that nobody would know; absent: it stands there. */
  readonly lead?: Vec;
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
/** Room at the sides where a field stands there, and where none does. */
const SIDE_ROOM = OUT_SIDE + FIELD_W / 2 + 14;
const NO_SIDE_ROOM = 28;
/** Fields inside that cover more of the pane than this stand over it in a row. @source house rule: what is left has to show the shape */
const MOST_COVERED = 0.3;
/** Farther than this from its line a field is led to it. */
const LED_PX = 22;

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
  const scale = Math.max(0.01, Math.min((width - 2 * SIDE_ROOM) / (maxX - minX), (height - 2 * (OUT + 46)) / (maxY - minY)));
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
  return {
    points: [bl, br, tr, tl].map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' '),
    fields: settled(fields, [bl, br, tr, tl], width, height),
    scale,
    toPx,
  };
}

const FIELD_H = 34;

/**
 * Lays an outline of any shape into the box, true to scale. A measure that runs along a side stands outside it; one that runs across
 * stands on its line; fields that would cover one another give way.
 */
export function layShape(
  outline: Polygon,
  model: ShapeModel,
  numbers: readonly number[],
  keys: readonly MeasureKey[],
  width: number,
  height: number,
  isMirrored: boolean,
): DrawnOpening {
  const narrow = layWithin(SIDE_ROOM);
  // a low arch has no field at its sides: it may be drawn as wide as the drawing is
  const hasSides = narrow.fields.some((f) => f.isOutside && Math.abs(f.from.x - f.to.x) < Math.abs(f.from.y - f.to.y));
  return hasSides ? narrow : layWithin(NO_SIDE_ROOM);

  function layWithin(room: number): DrawnOpening {
    const xs = outline.map((p) => p.x);
    const ys = outline.map((p) => p.y);
    const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const scale = Math.max(0.01, Math.min((width - 2 * room) / (maxX - minX), (height - 2 * (OUT + 46)) / (maxY - minY)));
    const side = isMirrored ? -1 : 1;
    const toPx = (p: Vec): Vec => ({ x: width / 2 + side * (p.x - (minX + maxX) / 2) * scale, y: height / 2 - (p.y - (minY + maxY) / 2) * scale });
    const shown = outline.map(toPx);
    const centre = toPx({ x: (minX + maxX) / 2, y: (minY + maxY) / 2 });
    const fields = keys.map((key, i): FieldPlace => {
      const [from, to] = model.ends(numbers, key).map(toPx) as [Vec, Vec];
      const m = mid(from, to);
      if (!isOnOutline(m, shown)) {
        const at = mid(from, to, [0.5, 0.36, 0.64][i % 3]!);
        return { key, x: at.x, y: at.y, from, to, isOutside: false, isDiagonal: Math.abs(from.x - to.x) > 8 && Math.abs(from.y - to.y) > 8 };
      }
      const l = Math.hypot(to.x - from.x, to.y - from.y) || 1;
      const normal = { x: (to.y - from.y) / l, y: (from.x - to.x) / l };
      const away = (m.x - centre.x) * normal.x + (m.y - centre.y) * normal.y >= 0 ? 1 : -1;
      const by = away * (Math.abs(normal.x) > 0.5 ? OUT_SIDE : OUT);
      const push = (p: Vec): Vec => ({ x: p.x + normal.x * by, y: p.y + normal.y * by });
      const at = push(m);
      return { key, x: at.x, y: at.y, from: push(from), to: push(to), isOutside: true, isDiagonal: false };
    });
    return { points: shown.map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' '), fields: settled(fields, shown, width, height), scale, toPx };
  }
}

/** Whether a point lies on a side of the outline, within a pixel and a half. */
const isOnOutline = (p: Vec, outline: Polygon): boolean =>
  outline.some((a, i) => {
    const b = outline[(i + 1) % outline.length]!;
    const l2 = (b.x - a.x) ** 2 + (b.y - a.y) ** 2 || 1;
    const t = Math.max(0, Math.min(1, ((p.x - a.x) * (b.x - a.x) + (p.y - a.y) * (b.y - a.y)) / l2));
    return Math.hypot(p.x - a.x - t * (b.x - a.x), p.y - a.y - t * (b.y - a.y)) < 1.5;
  });

/** Fields where they can be read: over the pane in a row where they would hide it, none over another, and led to their line where they stand far from it. */
function settled(fields: readonly FieldPlace[], shown: Polygon, width: number, height: number): FieldPlace[] {
  const [xs, ys] = [shown.map((p) => p.x), shown.map((p) => p.y)];
  const [left, right, top, low] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const inside = fields.filter((f) => !f.isOutside).sort((a, b) => a.x - b.x);
  const isHidden = inside.length * FIELD_W * FIELD_H > MOST_COVERED * (right - left) * (low - top);
  const perRow = Math.max(1, Math.floor((width - 8) / (FIELD_W + 6)));
  const rows = Math.ceil(inside.length / perRow);
  // over what stands outside at the top, if anything does
  const base = Math.min(top, ...fields.filter((f) => f.isOutside && f.y < top).map((f) => f.y)) - 30;
  const over = new Map(
    (isHidden ? inside : []).map((f, i) => {
      const row = Math.floor(i / perRow);
      const inRow = Math.min(perRow, inside.length - row * perRow);
      return [f.key, { x: (left + right) / 2 + ((i % perRow) - (inRow - 1) / 2) * (FIELD_W + 6), y: base - (rows - 1 - row) * (FIELD_H + 6) }] as const;
    }),
  );
  return apart(
    fields.map((f) => ({ ...f, ...over.get(f.key) })),
    width,
    height,
  ).map((f, i): FieldPlace => {
    const own = fields[i]!;
    return Math.hypot(f.x - own.x, f.y - own.y) > LED_PX ? { ...f, lead: { x: own.x, y: own.y } } : f;
  });
}

/** Moves fields until none covers another; each stays near its line and inside the drawing. */
function apart(fields: readonly FieldPlace[], width: number, height: number): FieldPlace[] {
  const at = fields.map((f) => ({ x: f.x, y: f.y }));
  for (let round = 0; round < 80; round++) {
    let moved = false;
    for (let i = 0; i < at.length; i++)
      for (let j = i + 1; j < at.length; j++) {
        const [a, b] = [at[i]!, at[j]!];
        const dx = FIELD_W + 4 - Math.abs(a.x - b.x);
        const dy = FIELD_H + 2 - Math.abs(a.y - b.y);
        if (dx <= 0 || dy <= 0) continue;
        moved = true;
        if (dy < dx) {
          const s = a.y <= b.y ? -1 : 1;
          [a.y, b.y] = [a.y + (s * dy) / 2, b.y - (s * dy) / 2];
        } else {
          const s = a.x <= b.x ? -1 : 1;
          [a.x, b.x] = [a.x + (s * dx) / 2, b.x - (s * dx) / 2];
        }
      }
    for (const p of at) {
      p.x = Math.max(FIELD_W / 2 + 2, Math.min(width - FIELD_W / 2 - 2, p.x));
      p.y = Math.max(FIELD_H / 2 + 2, Math.min(height - FIELD_H / 2 - 30, p.y));
    }
    if (!moved) break;
  }
  return fields.map((f, i) => ({ ...f, ...at[i]! }));
}
