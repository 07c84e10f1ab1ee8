import type { Region } from '@yellow-pane/core/geometry';

/** A region as one SVG path, to be filled by the even-odd rule. @param x and @param y bring mm to px */
export const svgOfRegion = (region: Region, x: (mm: number) => number, y: (mm: number) => number): string =>
  region.flatMap((part) => part.map((ring) => `M${ring.map((p) => `${x(p.x).toFixed(2)} ${y(p.y).toFixed(2)}`).join('L')}Z`)).join('');
