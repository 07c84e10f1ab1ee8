/** A point or direction in the plane. On an opening: x to the right, y up, as seen from the named side, in mm. */
export interface Vec {
  readonly x: number;
  readonly y: number;
}
export const vec = (x: number, y: number): Vec => ({ x, y });
export const minus = (a: Vec, b: Vec): Vec => vec(a.x - b.x, a.y - b.y);
export const middle = (a: Vec, b: Vec): Vec => vec((a.x + b.x) / 2, (a.y + b.y) / 2);
export const distance = (a: Vec, b: Vec): number => Math.hypot(a.x - b.x, a.y - b.y);
export const cross = (a: Vec, b: Vec): number => a.x * b.y - a.y * b.x;
export const dot = (a: Vec, b: Vec): number => a.x * b.x + a.y * b.y;
