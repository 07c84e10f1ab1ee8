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

/** One of several side by side, as far as the film of the next depends on it. */
export interface FaceInRow {
  readonly id: string;
  /** Film over its face from side to side, grooves and all; null: nobody has taped it. */
  readonly alongMm: number | null;
}

/**
 * How the film of a face runs on from those before it. Turned by a quarter a piece begins at the left of whoever stands before the face, its head at the near edge of the roll;
 * turned by three it begins at the right, and is counted from there. Behind one that is not taped the pattern begins anew.
 * @param faces all of them from the left of whoever stands before them
 * @param id which of them this is
 * @param reachMm film before its face, at the side where the piece begins
 */
export function runsOn(faces: readonly FaceInRow[], id: string, reachMm: number, { side = '', isHeadDown = false } = {}): Omit<RunsOn, 'place'> {
  const at = faces.findIndex((f) => f.id === id);
  const before = isHeadDown ? faces.slice(at + 1) : faces.slice(0, Math.max(0, at));
  const sumMm = before.reduce<number | null>((s, f) => (s === null || f.alongMm === null ? null : s + f.alongMm), 0);
  const row = [sumMm === null ? `${id} alone` : (faces[0]?.id ?? id), side, isHeadDown ? 'head down' : ''].join('/');
  return { row, fromMm: (sumMm ?? 0) - reachMm, isBeside: faces.length > 1 };
}
