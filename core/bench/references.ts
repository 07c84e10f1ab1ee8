import { MaxRectsPacker } from 'maxrects-packer/dist/maxrects-packer.mjs';
import type { Piece } from '@yellow-pane/contracts';

/** A shelf heuristic as a person does it: longest first, each shelf filled from the left. Cuttable. @returns used length, mm */
export function shelf(pieces: readonly Piece[], widthMm: number): number {
  const items = pieces.map((p) =>
    Math.max(p.widthMm, p.heightMm) <= widthMm ? { w: Math.max(p.widthMm, p.heightMm), l: Math.min(p.widthMm, p.heightMm) } : { w: p.widthMm, l: p.heightMm },
  );
  items.sort((a, b) => b.l - a.l);
  const shelves: { left: number; l: number }[] = [];
  for (const i of items) {
    const fit = shelves.filter((s) => s.left >= i.w).sort((a, b) => a.left - b.left)[0];
    if (fit) fit.left -= i.w;
    else shelves.push({ left: widthMm - i.w, l: i.l });
  }
  return shelves.reduce((s, x) => s + x.l, 0);
}

/** A general rectangle packer, the strip shortened until it no longer fits; what it lays mostly cannot be cut with a straightedge. @returns used length, mm */
export function maxRects(pieces: readonly Piece[], widthMm: number): number {
  const area = pieces.reduce((s, p) => s + p.widthMm * p.heightMm, 0);
  const orders: ((p: Piece) => number)[] = [(p) => p.widthMm * p.heightMm, (p) => Math.max(p.widthMm, p.heightMm), (p) => Math.min(p.widthMm, p.heightMm)];
  const fits = (lengthMm: number): boolean =>
    orders.some((key) => {
      const packer = new MaxRectsPacker(widthMm, lengthMm, 0, { smart: false, pot: false, square: false, allowRotation: true });
      for (const p of [...pieces].sort((a, b) => key(b) - key(a))) packer.add(p.widthMm, p.heightMm, p.id);
      return packer.bins.length === 1;
    });
  let [low, high] = [area / widthMm, (2 * area) / widthMm];
  for (let i = 0; i < 10; i++) {
    const middle = (low + high) / 2;
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return high;
}
