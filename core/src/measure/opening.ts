import { cornerAngleDeg, distance, middle, vec, type Polygon, type Vec } from '../geometry/index.js';
import type { MeasureKey } from '@yellow-pane/contracts';

/**
 * A four-sided opening has five degrees of freedom once it is laid down with its lower left corner at the origin and its
 * sill along x: the sill's length and the two upper corners. Everything a tape says is a function of these five numbers.
 * Frame: mm, x right, y up, as seen from the side it was measured from.
 */
export type Shape = readonly [sillX: number, topLeftX: number, topLeftY: number, topRightX: number, topRightY: number];

export interface Corners {
  readonly bottomLeft: Vec;
  readonly bottomRight: Vec;
  readonly topRight: Vec;
  readonly topLeft: Vec;
}

const cornersOf = (s: Shape): Corners => ({
  bottomLeft: vec(0, 0),
  bottomRight: vec(s[0], 0),
  topRight: vec(s[3], s[4]),
  topLeft: vec(s[1], s[2]),
});

/** Anticlockwise from the lower left: side 0 is the sill, 1 the right, 2 the top, 3 the left. */
export const outlineOf = (s: Shape): Polygon => {
  const c = cornersOf(s);
  return [c.bottomLeft, c.bottomRight, c.topRight, c.topLeft];
};

export const rectangle = (widthMm: number, heightMm: number): Shape => [widthMm, 0, heightMm, widthMm, heightMm];

/** The tapes in the order a person walks round: across at the top, middle, bottom, then up, then the diagonals. */
export const tapeOrder = [
  'widthTop',
  'widthMiddle',
  'widthBottom',
  'heightLeft',
  'heightMiddle',
  'heightRight',
  'diagonalDown',
  'diagonalUp',
] as const satisfies readonly MeasureKey[];
export const bowKeys = ['bowTop', 'bowRight', 'bowBottom', 'bowLeft'] as const satisfies readonly MeasureKey[];
export const twoTapes = ['widthLargest', 'heightLargest'] as const satisfies readonly MeasureKey[];
/** What is taped at a straight-sided opening. */
type OpeningKey = (typeof tapeOrder)[number] | (typeof twoTapes)[number] | BowKey;
export type BowKey = (typeof bowKeys)[number];
const openingKeys: ReadonlySet<MeasureKey> = new Set([...tapeOrder, ...twoTapes, ...bowKeys]);
const isOpeningKey = (key: MeasureKey): key is OpeningKey => openingKeys.has(key);
export const isBow = (key: MeasureKey): key is BowKey => (bowKeys as readonly string[]).includes(key);

/**
 * What a perfect tape would read on straight sides; a bow gap reads 0. "Middle" runs from midpoint to midpoint of the sides.
 * @throws RangeError for a measure that only other shapes have
 */
export function trueReading(s: Shape, key: MeasureKey): number {
  if (!isOpeningKey(key)) throw new RangeError(`A four-sided opening has no ${key}.`);
  const { topLeft: a, topRight: b, bottomRight: c, bottomLeft: d } = cornersOf(s);
  switch (key) {
    case 'widthTop':
      return distance(a, b);
    case 'widthBottom':
      return distance(d, c);
    case 'widthMiddle':
      return distance(middle(a, d), middle(b, c));
    case 'heightLeft':
      return distance(a, d);
    case 'heightRight':
      return distance(b, c);
    case 'heightMiddle':
      return distance(middle(a, b), middle(d, c));
    case 'diagonalDown':
      return distance(a, c);
    case 'diagonalUp':
      return distance(d, b);
    case 'widthLargest':
      return Math.max(distance(a, b), distance(d, c));
    case 'heightLargest':
      return Math.max(distance(a, d), distance(b, c));
    case 'bowTop':
    case 'bowRight':
    case 'bowBottom':
    case 'bowLeft':
      return 0;
  }
}

/** Derivative of a reading by the five numbers (central difference, 0.01 mm: exact to 1e-9 for these smooth lengths). */
export function readingSlope(s: Shape, key: MeasureKey): number[] {
  const h = 0.01;
  return s.map((_, i) => {
    const move = (by: number) => s.map((v, j) => (i === j ? v + by : v)) as unknown as Shape;
    return (trueReading(move(h), key) - trueReading(move(-h), key)) / (2 * h);
  });
}

/** How far the opening is from a rectangle, in mm a person can see. */
export interface Crookedness {
  /** Top width minus bottom width. */
  readonly widthTaperMm: number;
  /** Left height minus right height. */
  readonly heightTaperMm: number;
  /** How far the top sits to the right of the bottom. */
  readonly rackMm: number;
  readonly cornersDeg: { bottomLeft: number; bottomRight: number; topRight: number; topLeft: number };
}

export function crookednessOf(s: Shape): Crookedness {
  const outline = outlineOf(s);
  return {
    widthTaperMm: trueReading(s, 'widthTop') - trueReading(s, 'widthBottom'),
    heightTaperMm: trueReading(s, 'heightLeft') - trueReading(s, 'heightRight'),
    rackMm: (s[1] + s[3] - s[0]) / 2,
    cornersDeg: {
      bottomLeft: cornerAngleDeg(outline, 0),
      bottomRight: cornerAngleDeg(outline, 1),
      topRight: cornerAngleDeg(outline, 2),
      topLeft: cornerAngleDeg(outline, 3),
    },
  };
}
