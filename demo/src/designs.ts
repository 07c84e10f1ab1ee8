import type { Design } from '@yellow-pane/contracts';

/** A tern on the wing, made up for the demo: a body, two wings and an eye, drawn in a box of about 200 × 120. */
const tern =
  'M100 62 C84 50 60 34 8 4 C40 44 58 62 78 74 C66 82 52 92 34 112 C60 104 84 98 104 92 C120 96 138 96 150 88 L186 82 L152 78 C144 70 132 66 118 66 C142 46 164 28 192 10 C156 20 124 40 100 62 Z M142 80 a3 3 0 1 0 6 0 a3 3 0 1 0 -6 0 Z';

/** The frosted designs of the harbour. */
export const ternDesigns = {
  /** Bands like a falling tide over the six panes of the partition. */
  tide: {
    kind: 'bands',
    heightsFrom: 'floor',
    gapMm: 24,
    bands: [
      { bottomMm: 380, topMm: 450 },
      { bottomMm: 510, topMm: 620 },
      { bottomMm: 690, topMm: 1840 },
      { bottomMm: 1910, topMm: 1980 },
    ],
  },
  /** Plain frost with a tern in it. */
  bird: { kind: 'figure', heightsFrom: 'floor', gapMm: 0, svgPath: tern, widthMm: 520, acrossMm: 413, middleMm: 1450 },
  /** Marks that make the door seen. */
  doorMarks: {
    kind: 'marking',
    heightsFrom: 'floor',
    gapMm: 0,
    rule: 'approved-document-k',
    zones: [
      { bottomMm: 850, topMm: 1000 },
      { bottomMm: 1400, topMm: 1600 },
    ],
    motif: 'dots',
    sizeMm: 40,
    pitchMm: 60,
  },
  /** Dots that thin out upwards, on the screen of the counter. */
  spray: {
    kind: 'graded',
    heightsFrom: 'sill',
    gapMm: 0,
    motif: 'dots',
    zone: { bottomMm: 20, topMm: 700 },
    denseAt: 'bottom',
    pitchMm: 30,
    largestMm: 26,
    smallestMm: 4,
  },
} as const satisfies Record<string, Design>;
