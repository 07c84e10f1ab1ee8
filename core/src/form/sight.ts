/** One thing measured of a smooth pane, as a straight sum of its height at some places: a bow, or a point. */
export interface Sight {
  readonly id: string;
  /** Heights that take part, and how much. */
  readonly terms: readonly { readonly x: number; readonly y: number; readonly factor: number }[];
  readonly valueMm: number;
  readonly sigmaMm: number;
}
