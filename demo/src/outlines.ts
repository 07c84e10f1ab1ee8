import type { PathPoint } from '@yellow-pane/contracts';

/** A trefoil light as the stonemason drew it: three lobes, each an arc of 205° between two cusps 220 mm from the middle. */
export const trefoil: PathPoint[] = [30, 150, 270].map((deg) => ({
  // + 0: a file knows no −0
  xMm: Math.round(220 * Math.cos((deg * Math.PI) / 180) * 100) / 100 + 0,
  yMm: Math.round(220 * Math.sin((deg * Math.PI) / 180) * 100) / 100,
  bulge: 1.25,
}));
