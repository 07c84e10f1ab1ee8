/** A corner where two edges that film goes over meet, seen on the face and across its arris. Model: docs/models/stretch.md §6. */
export interface WrappedCorner {
  /** Of the corner as one stands before the face. */
  readonly radiusMm: number;
  /** Of the arris between face and edge; no larger than the corner’s own. */
  readonly arrisMm: number;
  /** Null: nobody taped how thick it is. */
  readonly thicknessMm: number | null;
  /** The way of film over the edge, from face to back. */
  readonly girthMm: number;
  /** On to the back, past its far arris. */
  readonly returnMm: number;
}
/** Film without a cut, drawn straight down over a corner. */
export interface CornerPlan {
  /** Where the flat face ends: round the arris, down the edge, on to the back, mm. */
  readonly partsMm: { readonly arris: number; readonly edge: number; readonly back: number };
  /** The most, at the end of its way, as a share. Infinity: it comes to the middle of the round. */
  readonly largestFrac: number;
  /** At the end of the arris and at the end of the edge. */
  readonly arrisFrac: number;
  readonly edgeFrac: number;
  /** Flat film that comes to lie on that way: less than it is long. */
  readonly filmMm: number;
  /** So far down, from where the face ends, film gets within its figure. */
  readonly reachMm: number;
  /** Where a cut has to begin on the flat film: so far inside the place where both edges of the face would meet, both ways. */
  readonly cutInsetMm: number;
  readonly limitFrac: number;
  /** Drawn over without a cut, or folded with one. */
  readonly is: 'draws' | 'folds';
}

/** Round the corner’s axis: how far the film is from it, and the integral of that squared along its way. */
interface At {
  readonly awayMm: number;
  readonly squaredMm3: number;
}

/** Where the flat face ends, and from there on. */
function profileOf({ radiusMm, arrisMm, thicknessMm, girthMm, returnMm }: WrappedCorner) {
  const b = Math.min(arrisMm, radiusMm);
  const flat = radiusMm - b;
  // a thin board ends before its arris has turned all the way
  const turn = thicknessMm !== null && thicknessMm < b ? Math.acos(1 - thicknessMm / b) : Math.PI / 2;
  // a board’s thickness leaves the rest of its edge below the arris; a moulded edge is longer by the string than that
  const below = thicknessMm === null ? 0 : thicknessMm - b * (1 - Math.cos(turn));
  const parts = { arris: b * turn, edge: Math.max(0, below, girthMm - b * turn), back: returnMm };
  const round = (phi: number): At => ({
    awayMm: flat + b * Math.sin(phi),
    squaredMm3: b * (flat ** 2 * phi + 2 * flat * b * (1 - Math.cos(phi)) + b ** 2 * (phi / 2 - Math.sin(2 * phi) / 4)),
  });
  const foot = round(turn);
  const at = (alongMm: number): At => {
    if (alongMm <= parts.arris) return round(b > 0 ? alongMm / b : 0);
    const down = Math.min(parts.edge, alongMm - parts.arris);
    const in_ = Math.min(foot.awayMm, Math.max(0, alongMm - parts.arris - parts.edge));
    return {
      awayMm: foot.awayMm - in_,
      squaredMm3: foot.squaredMm3 + foot.awayMm ** 2 * down + (foot.awayMm ** 3 - (foot.awayMm - in_) ** 3) / 3,
    };
  };
  return { flat, parts, at, longMm: parts.arris + parts.edge + parts.back };
}

/**
 * Stretch of film that was drawn straight down over a corner, so far from where the flat face ends, and the flat film on that way. What lies flat at ρ from the corner’s axis comes to lie at
 * s from it: drawn one way at constant volume to λ times its length it is 1/√λ as wide, so `λ = (ρ/s)²` and, along the way t, `ρ² dρ = s² dt`.
 * @source docs/models/stretch.md §6; a ball (both radii r): ρ³ = 3r³(φ/2 − sin 2φ/4); a sharp arris: λ = (1 + 3t/r)^⅔, docs/models/counters.md §3
 */
export function alongCorner(c: WrappedCorner, alongMm: number): { readonly stretchFrac: number; readonly filmMm: number } {
  const { flat, at } = profileOf(c);
  const { awayMm, squaredMm3 } = at(alongMm);
  const rho = Math.cbrt(flat ** 3 + 3 * squaredMm3);
  // at the very pole of a ball both are nothing, and nothing is stretched
  if (rho < 1e-9) return { stretchFrac: alongMm > 0 ? Infinity : 0, filmMm: 0 };
  return { stretchFrac: Math.max(0, (rho / awayMm) ** 2 - 1), filmMm: rho - flat };
}

/** Whether film goes over a corner without a cut. @param limitFrac how far it may be stretched */
export function planWrappedCorner(c: WrappedCorner, limitFrac: number): CornerPlan {
  const { parts, longMm, flat } = profileOf(c);
  const end = alongCorner(c, longMm);
  const isIn = (mm: number) => alongCorner(c, mm).stretchFrac <= limitFrac;
  let [low, high] = [0, longMm];
  if (isIn(longMm)) low = longMm;
  else
    for (let i = 0; i < 40; i++) {
      const middle = (low + high) / 2;
      if (isIn(middle)) low = middle;
      else high = middle;
    }
  return {
    partsMm: parts,
    largestFrac: end.stretchFrac,
    arrisFrac: alongCorner(c, parts.arris).stretchFrac,
    edgeFrac: alongCorner(c, parts.arris + parts.edge).stretchFrac,
    filmMm: end.filmMm,
    reachMm: low,
    // on the diagonal, seen from the corner’s axis
    cutInsetMm: Math.max(0, c.radiusMm - (flat + alongCorner(c, low).filmMm) / Math.SQRT2),
    limitFrac,
    is: low === longMm ? 'draws' : 'folds',
  };
}
