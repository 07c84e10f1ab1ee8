import type { DrawnEntity } from '@yellow-pane/core';

// few panes come as a drawing: what makes outlines of them is fetched with the first
export { outlineFromDrawing } from '@yellow-pane/core/measure';

/** What a drawing file says: its lines, and how long its unit is; null where it does not say. */
export interface Drawing {
  readonly entities: readonly DrawnEntity[];
  readonly mmPerUnit: number | null;
}

/** Millimetres in one unit of a drawing by its `$INSUNITS`. @source DXF reference, header variables (published by its maker; from memory) */
const insUnits: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 10: 914.4, 14: 100 };

interface Point {
  readonly x: number;
  readonly y: number;
  readonly bulge?: number;
}
interface RawEntity {
  readonly type: string;
  readonly vertices?: readonly Point[];
  readonly shape?: boolean;
  readonly center?: Point;
  readonly radius?: number;
  readonly startAngle?: number;
  readonly endAngle?: number;
  readonly controlPoints?: readonly Point[];
  readonly degreeOfSplineCurve?: number;
  readonly knotValues?: readonly number[];
  readonly closed?: boolean;
}

const point = (p: Point) => ({ x: p.x, y: p.y });

function entityFrom(e: RawEntity): DrawnEntity | null {
  if (e.type === 'LINE' && e.vertices?.length === 2) return { kind: 'line', a: point(e.vertices[0]!), b: point(e.vertices[1]!) };
  if ((e.type === 'LWPOLYLINE' || e.type === 'POLYLINE') && e.vertices)
    return { kind: 'polyline', points: e.vertices.map((v) => ({ ...point(v), bulge: v.bulge ?? 0 })), isClosed: e.shape === true };
  if (e.type === 'CIRCLE' && e.center && e.radius) return { kind: 'circle', centre: point(e.center), radius: e.radius };
  if (e.type === 'ARC' && e.center && e.radius && e.startAngle !== undefined && e.endAngle !== undefined)
    return { kind: 'arc', centre: point(e.center), radius: e.radius, startRad: e.startAngle, endRad: e.endAngle };
  if (e.type === 'SPLINE' && e.controlPoints && e.knotValues && e.degreeOfSplineCurve)
    return { kind: 'spline', control: e.controlPoints.map(point), degree: e.degreeOfSplineCurve, knots: e.knotValues, isClosed: e.closed === true };
  return null;
}

/** Reads a DXF text. @returns null when it is no DXF */
export async function readDrawing(text: string): Promise<Drawing | null> {
  const { default: DxfParser } = await import('dxf-parser');
  try {
    const dxf = new DxfParser().parseSync(text);
    if (!dxf) return null;
    const entities = (dxf.entities as unknown as RawEntity[]).flatMap((e) => entityFrom(e) ?? []);
    return { entities, mmPerUnit: insUnits[Number(dxf.header?.['$INSUNITS'])] ?? null };
  } catch {
    return null;
  }
}
