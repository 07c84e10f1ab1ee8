/** A place on a drawing, as shares of its box from the lower left. */
export interface PlaceOnDrawing {
  readonly xFrac: number;
  readonly yFrac: number;
}

/** A share that stays on the drawing. */
export const onDrawing = (share: number): number => Math.min(1, Math.max(0, share));

/** Where an SVG was tapped, in its own units, and how many px of the screen one of them is. It is held in the middle of its box, whichever way that is longer. */
export function tapOn(event: MouseEvent, { width, height }: { readonly width: number; readonly height: number }): { x: number; y: number; pxPerUnit: number } {
  const at = (event.currentTarget as SVGSVGElement).getBoundingClientRect();
  const k = Math.min(at.width / width, at.height / height);
  return { x: (event.clientX - at.left - (at.width - width * k) / 2) / k, y: (event.clientY - at.top - (at.height - height * k) / 2) / k, pxPerUnit: k };
}

/**
 * Arrows move a mark over a drawing, Enter takes its place; of other keys nothing is taken.
 * @param flip −1 where the drawing shows the other side: the mark goes the way the arrow points
 * @returns the mark where it stands now, and whether it was taken; null: the key is none of these
 */
export function aimBy(event: KeyboardEvent, at: PlaceOnDrawing, step: number, flip: 1 | -1): { place: PlaceOnDrawing; isTaken: boolean } | null {
  const move = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
  if (!move && event.key !== 'Enter') return null;
  event.preventDefault();
  event.stopPropagation();
  if (!move) return { place: at, isTaken: true };
  return { place: { xFrac: onDrawing(at.xFrac + flip * step * move[0]!), yFrac: onDrawing(at.yFrac + step * move[1]!) }, isTaken: false };
}
