import type { PieceMethod } from '@yellow-pane/contracts';

/** The cutting methods as they are called on every screen. */
export const methodNames: Record<PieceMethod, string> = {
  overhang: 'Overhang and trim',
  'factory-edge': 'Factory edge to the frame',
  'tucked-corner': 'Tucked corner',
  'dry-template': 'Dry template',
  'pre-cut': 'Pre-cut to size',
  'laid-over': 'Laid over the face, trimmed round it',
  'laid-round': 'Laid round, trimmed at both ends',
};
