import type { PlotSettings } from '@yellow-pane/contracts';
import type { PlotPath, PlotSheet } from './plot-paths.js';

/** Plotter units in a millimetre. @source HP-GL: one unit is 0.025 mm (published language reference; from memory) */
export const HPGL_UNITS_PER_MM = 40;

const unit = (mm: number, scale: number): number => Math.round(mm * scale * HPGL_UNITS_PER_MM);

/** What the machine is told before the first path: start afresh, absolute positions, knife 1, speed in cm/s, force in grams. */
export const hpglStart = (s: Pick<PlotSettings, 'forceG' | 'speedMmPerS'>): string =>
  `IN;PA;SP1;VS${Math.max(1, Math.round(s.speedMmPerS / 10))};FS${Math.round(s.forceG)};`;

/** One path: up to its start, down along it, up again. */
function hpglPath(path: PlotPath, s: Pick<PlotSettings, 'scaleX' | 'scaleY'>): string {
  const at = path.points.map((p) => `${unit(p.x, s.scaleX)},${unit(p.y, s.scaleY)}`);
  return `PU${at[0]};PD${at.slice(1).join(',')};PU;`;
}

export const HPGL_END = 'PU0,0;SP0;';

/** The whole sheet as one file for any machine that reads HP-GL. */
export const hpglFile = (sheet: PlotSheet, s: PlotSettings): string => `${hpglStart(s)}${sheet.paths.map((p) => hpglPath(p, s)).join('')}${HPGL_END}`;
