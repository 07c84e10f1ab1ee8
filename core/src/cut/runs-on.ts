/** Where a piece whose direction lies level begins along the film of all that stand side by side. */
export interface RunsOn {
  /** What one pattern runs on over; what has another key has a line of its own. */
  readonly row: string;
  /** From the line of its row to where it begins on the roll, along the roll; less than nothing: before it. */
  readonly fromMm: number;
  /** Its place across the pattern: the strips of one face, from the foot. */
  readonly place: number;
  /** Others stand beside it, so its head lies at the edge of the roll: what the roll shows across is at one height on all. */
  readonly isBeside: boolean;
}

/** What one of several side by side takes along the film, and how its own piece lies there. */
export interface BesideOnFilm {
  /** Film over its face from side to side, grooves and all, mm; null: nobody has taped it. */
  readonly alongMm: number | null;
}

/**
 * How the film of a face runs on from those before it. Turned by a quarter a piece begins at the left of whoever stands before the face, its head at the near edge of the roll;
 * turned by three it begins at the right, and is counted from there.
 * @param of all of them from the left of whoever stands before this face
 * @param at which of them this is
 * @param reachMm film before its face, at the side where the piece begins
 * @returns null: one before it is not taped, so the pattern begins anew
 */
export function alongFrom(of: readonly BesideOnFilm[], at: number, reachMm: number, isHeadDown: boolean): number | null {
  const before = isHeadDown ? of.slice(at + 1) : of.slice(0, at);
  const sum = before.reduce<number | null>((s, b) => (s === null || b.alongMm === null ? null : s + b.alongMm), 0);
  return sum === null ? null : sum - reachMm;
}
