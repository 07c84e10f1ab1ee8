import type { LaySettings } from '@yellow-pane/contracts';

/** How a job is laid as long as nobody says otherwise. */
export const defaultLay: LaySettings = { liner: 'halves', lock: 'tee', trim: 'corner', silicone: 'stays', stops: 'stay', edge: 'edge-gap',
  forming: null,
  lubrication: null, way: 'one-tap', bladeMm: null, overlapMm: 25 }; // prettier-ignore
