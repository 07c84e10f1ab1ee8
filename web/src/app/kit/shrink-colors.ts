/** A share to lose and how it is shown: from pale to dark, so that it reads without hue; blue where film would have to stretch. */
const steps: readonly (readonly [frac: number, rgb: readonly [number, number, number]])[] = [
  [-1, [28, 62, 88]],
  [-0.35, [110, 158, 188]],
  [-0.02, [226, 236, 242]],
  [0, [255, 250, 236]],
  [0.25, [252, 214, 150]],
  [0.5, [232, 150, 84]],
  [0.75, [180, 82, 34]],
  [1, [92, 36, 14]],
];

/** @param share of the largest on this pane, −1 … 1 @returns red, green, blue, 0 … 255 */
export function shrinkRgb(share: number): [number, number, number] {
  const t = Math.max(-1, Math.min(1, share));
  const i = Math.max(1, steps.findIndex(([f]) => f >= t)); // prettier-ignore
  const [[a, from], [b, to]] = [steps[i - 1]!, steps[i]!];
  const k = b === a ? 0 : (t - a) / (b - a);
  return [0, 1, 2].map((c) => Math.round(from[c]! + k * (to[c]! - from[c]!))) as [number, number, number];
}
export const shrinkColor = (share: number): string => `rgb(${shrinkRgb(share).join(' ')})`;

/** The share that fills the scale: the largest on the pane, but never so small that noise looks like shrink. */
export const fullScale = (largestFrac: number): number => Math.max(0.002, largestFrac);
