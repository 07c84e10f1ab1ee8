import type { Blades, LaySettings } from '@yellow-pane/contracts';

/** How a job is laid as long as nobody says otherwise. */
export const defaultLay: LaySettings = { liner: 'halves', lock: 'tee', trim: 'corner', silicone: 'stays', stops: 'stay', edge: 'edge-gap',
  forming: null,
  lubrication: null, way: 'one-tap', bladeMm: null, overlapMm: 25,
  gun: { nozzleMm: 34, setC: 538, powerW: 2000, distanceMm: 25, angleDeg: 90 }, postHeat: 'before-trim', jointBorder: 'left-open', jointHands: 'one' }; // prettier-ignore

/** Blades of a firm that has not written its own list: those of the contract (core takes only types from there; a test holds them together). */
export const usualBlades: Blades = { cleaningMm: [150, 300, 450], pressingMm: [100, 150, 200], thickMm: [100, 150] };
