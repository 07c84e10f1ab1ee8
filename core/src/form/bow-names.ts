import type { BowPlace, BowWay } from '@yellow-pane/contracts';

/** How a place of a straightedge is written in a table of measures: "bow across 295", "bow upright 660 from 309 long 260", "bow down". All in mm. */
export function bowName({ way, atMm, span }: BowPlace): string {
  const at = way === 'across' || way === 'upright' ? ` ${atMm}` : '';
  return `bow ${way}${at}${span ? ` from ${span.fromMm} long ${span.lengthMm}` : ''}`;
}

const NUMBER = String.raw`(-?\d+(?:\.\d+)?)`;
const written = new RegExp(`^bow (across|upright|down|up)(?: ${NUMBER})?(?: from ${NUMBER} long ${NUMBER})?$`);

/** The place that a table names. @returns null for what is no bow */
export function bowPlaceOf(name: string): BowPlace | null {
  const found = written.exec(name.trim());
  if (!found) return null;
  const [, way, at, from, long] = found;
  const isDiagonal = way === 'down' || way === 'up';
  if (isDiagonal !== (at === undefined) || (from !== undefined && (Number(from) < 0 || Number(long) <= 0))) return null;
  return { way: way as BowWay, atMm: Number(at ?? 0), span: from === undefined ? null : { fromMm: Number(from), lengthMm: Number(long) } };
}
