import type { HorizonPoint } from '@yellow-pane/contracts';

/**
 * How high the sketched horizon stands at a bearing, degrees above level: straight lines between the points as one walks round,
 * level where there are none.
 */
export function horizonDeg(horizon: readonly HorizonPoint[], bearingDeg: number): number {
  if (horizon.length === 0) return 0;
  if (horizon.length === 1) return horizon[0]!.heightDeg;
  const points = [...horizon].sort((a, b) => a.bearingDeg - b.bearingDeg);
  const b = ((bearingDeg % 360) + 360) % 360;
  const next = points.findIndex((p) => p.bearingDeg >= b);
  const to = points[next < 0 ? 0 : next]!;
  const from = points[(next <= 0 ? points.length : next) - 1]!;
  const span = (to.bearingDeg - from.bearingDeg + 360) % 360 || 360;
  const along = (b - from.bearingDeg + 360) % 360;
  return from.heightDeg + ((to.heightDeg - from.heightDeg) * along) / span;
}
