import type { Bow, BowPlace, CurvedPane, ShrinkInput } from '@yellow-pane/contracts';
import type { Polygon } from '../geometry/index.js';
import { straightedgeOf, usualBows } from './pane-outline.js';

/** A plain dish that nobody measured. */
const WIDTH_MM = 900;
const HEIGHT_MM = 480;
const ACROSS_MM = 30;
const UPRIGHT_MM = 8;
const NOBODY = '00000000-0000-7000-8000-000000000000';

/**
 * A made-up pane to run a plan through before a real one is asked for: what a machine computes for the first time takes five times as long as
 * afterwards. It has what real ones have, a crown, a border, a short bow, a lamp, so that none of that is new to the machine. Its plan is thrown away.
 * @param round each one a little wider than the one before, so that nothing is kept from it
 */
export function practicePane(round: number): ShrinkInput {
  const w = WIDTH_MM + 20 * round;
  // crowned above, as most panes are
  const top = Array.from({ length: 25 }, (_, i) => ({ x: w * (1 - i / 24), y: HEIGHT_MM + 20 * (1 - (i / 12 - 1) ** 2) }));
  const outline: Polygon = [{ x: 0, y: 0 }, { x: w, y: 0 }, ...top];
  const height = (p: { x: number; y: number }): number => -(((2 * p.x) / w - 1) ** 2 * ACROSS_MM) - ((2 * p.y) / HEIGHT_MM - 1) ** 2 * UPRIGHT_MM;
  const short: BowPlace[] = [
    { way: 'upright', atMm: w / 2, span: { fromMm: 0, lengthMm: 200 } },
    { way: 'across', atMm: HEIGHT_MM / 6, span: null },
  ];
  const bows = [...usualBows(outline), ...short].map((place): Bow => {
    const edge = straightedgeOf(outline, place)!;
    const depthMm = Math.round(height(edge.middle) - (height(edge.from) + height(edge.to)) / 2);
    return { ...place, id: NOBODY, typed: String(depthMm), unit: 'mm', depthMm, personId: null, at: '2026-01-01T00:00:00Z' };
  });
  const curved: CurvedPane = {
    seat: 'fixed',
    stamp: 'tempered',
    isChipped: false,
    taped: 'chord',
    isMirror: false,
    cornerRadiiMm: [0, 0, 0, 0],
    dotBorderMm: 25,
    defroster: null,
    zones: [{ id: NOBODY, kind: 'brake-light', leftMm: 0.4 * w, lowMm: HEIGHT_MM - 30, widthMm: 0.2 * w, heightMm: 30 }],
    bows,
    cloud: null,
    anchor: { kind: 'balanced' },
    school: null,
    lubrication: null,
  };
  const film = { id: NOBODY, name: 'Practice', shrink: { alongPct: 2, acrossPct: 0 }, thicknessUm: 38, stretches: false, isOutside: false, darkens: true };
  return {
    curved,
    outline: [...outline],
    film,
    others: [],
    isLookout: false,
    isLaminated: false,
    edgeGapMm: 1.5,
    widestRollMm: null,
    units: 'mm',
    firmSchool: null,
    stepMm: 20,
  };
}
