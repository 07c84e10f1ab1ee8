import { difference, intersection, union, xor, type Geom } from 'polyclip-ts';
import { signedArea, type Polygon } from './polygon.js';
import { vec } from './vec.js';

/** Parts of the plane: each part is its outer ring and the rings of its holes. The one door to the polygon clipping library. */
export type Region = readonly (readonly Polygon[])[];

const geom = (region: Region): Geom => region.map((rings) => rings.map((p) => p.map((q) => [q.x, q.y] as [number, number])));
const fromLibrary = (result: readonly (readonly (readonly (readonly [number, number])[])[])[]): Region =>
  result.map((rings) => rings.map((r) => r.slice(0, -1).map(([x, y]) => vec(x, y))));

/** One simple ring as a region. */
export const regionOf = (ring: Polygon): Region => [[ring]];
/** What lies in both. */
export const common = (a: Region, b: Region): Region => (a.length === 0 || b.length === 0 ? [] : fromLibrary(intersection(geom(a), geom(b)) as never));
/** What lies in a and not in b. */
export const without = (a: Region, b: Region): Region => (a.length === 0 || b.length === 0 ? a : fromLibrary(difference(geom(a), geom(b)) as never));
/** Everything that lies in one of the parts, which may overlap. */
export const together = (parts: readonly Region[]): Region => {
  const [first, ...rest] = parts.filter((p) => p.length > 0);
  return first ? fromLibrary(union(geom(first), ...rest.map(geom)) as never) : [];
};
/** Rings of one drawing as a region: what lies in an odd number of rings, so that a ring in a ring is a hole. */
export const evenOdd = (rings: readonly Polygon[]): Region => {
  const [first, ...rest] = rings.map((r) => geom(regionOf(r)));
  return first ? fromLibrary((rest.length ? xor(first, ...rest) : union(first)) as never) : [];
};
/** Area of a region, holes taken off. */
export const regionArea = (region: Region): number =>
  region.reduce((s, rings) => s + rings.reduce((t, r, i) => t + (i === 0 ? 1 : -1) * Math.abs(signedArea(r)), 0), 0);
/** All rings of a region, outer ones and holes, as they would be cut. */
export const ringsOf = (region: Region): Polygon[] => region.flatMap((rings) => [...rings]);
