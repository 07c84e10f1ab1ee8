import { DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import { defaultPlotSettings, type PlotSettings } from '@yellow-pane/contracts';
import { hpglFile, type PlotSheet } from '@yellow-pane/core';

/** Layers by what the knife does there. */
const layers = { cut: 'CUT', weed: 'WEED', register: 'REGISTER' } as const;

/** The sheet as DXF in millimetres: cuts, weeding lines and marks on layers of their own, and the edge of the sheet. */
export function plotDxf(sheet: PlotSheet): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('CUT', 5, 'CONTINUOUS');
  dxf.addLayer('WEED', 1, 'CONTINUOUS');
  dxf.addLayer('REGISTER', 3, 'CONTINUOUS');
  dxf.addLayer('SHEET', 8, 'CONTINUOUS');
  const corners = [point3d(0, 0), point3d(sheet.widthMm, 0), point3d(sheet.widthMm, sheet.heightMm), point3d(0, sheet.heightMm)];
  dxf.addLWPolyline(corners.map((point) => ({ point })), { layerName: 'SHEET', flags: 1 }); // prettier-ignore
  for (const path of sheet.paths) {
    // a closed cut ends with its start and the bit past it: in a drawing it is simply closed
    const [a, b] = [path.points[0]!, path.points.at(-2)];
    const isClosed = path.kind === 'cut' && path.points.length > 3 && b !== undefined && Math.hypot(a.x - b.x, a.y - b.y) < 1e-9;
    const points = isClosed ? path.points.slice(0, -2) : path.points;
    dxf.addLWPolyline(points.map((p) => ({ point: { x: p.x, y: p.y } })), { layerName: layers[path.kind], flags: isClosed ? 1 : 0 }); // prettier-ignore
  }
  return dxf.stringify();
}

/** The sheet as HP-GL, for carrying to any machine. */
export const plotHpgl = (sheet: PlotSheet, settings: Partial<PlotSettings>): string => hpglFile(sheet, { ...defaultPlotSettings, ...settings });
