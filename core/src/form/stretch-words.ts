/** What is to be done where film has to give, and why: of a recess, over ribs, on a dome. */
export interface StretchWords {
  readonly headline: string;
  /** What hands do, in their order. */
  readonly doing: readonly string[];
  readonly minds: readonly string[];
  readonly why: readonly string[];
}

/** A figure of stretch as it is spoken: no hand tells tenths. */
export const stretchPct = (frac: number): string => (frac < 0.01 ? 'under 1 %' : `${Math.round(100 * frac)} %`);

/** Film that must go farther than this goes in several: heated, left to cool, drawn on. @source house figure for "line by line", common practice */
const ONE_GO_FRAC = 0.1;
/** In how many goes film is drawn so far. */
export const goesOf = (largestFrac: number): number => Math.max(1, Math.ceil(largestFrac / ONE_GO_FRAC - 1e-9));

/** Nearer than this to its figure film may change colour. @source house figure */
const NEAR_FRAC = 0.7;
/** What has to be minded where film comes near what it stands; empty: it does not, or nobody knows. */
export const nearLimitWords = (frac: number, limitFrac: number | null): string =>
  limitFrac !== null && frac > NEAR_FRAC * limitFrac
    ? `${stretchPct(frac)} is near what it stands (${stretchPct(limitFrac)}): its colour may change and lines of glue show. Try it where nobody sees it.`
    : '';
