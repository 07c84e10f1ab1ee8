import type { Hardware } from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '../geometry/index.js';

/** By how much something stands outside the face that it is said to be on, mm; null: it does not. A lever reaches past the arris, a plate half way round it; a whole piece outside is a slip. */
export function outsideByMm(h: Hardware, face: Polygon): number | null {
  const box = boundingBox(face);
  const past = Math.max(h.fromLeftMm + h.widthMm - (box.maxX - box.minX), h.fromFootMm + h.heightMm - (box.maxY - box.minY));
  return past > Math.min(h.widthMm, h.heightMm) ? past : null;
}
