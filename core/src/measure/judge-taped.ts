import { handTape, houseLevels, type TapeError, type TapeReading, type TestLevels } from './adjustment.js';
import type { NextTape, Suspect } from './hypotheses.js';
import { adjustTaped, nextTape, weighSlips, type Fit, type Numbers, type TapedModel } from './taped-model.js';

/** What is known of one thing of few numbers by its tapes, and how sure. */
export interface TapedSurvey<Body> {
  /** nothing: too few tapes for a size. unchecked: no tape checks another. agreeing / doubtful: the redundant tapes pass or fail the global test, or something else does not fit. */
  readonly status: 'nothing' | 'unchecked' | 'agreeing' | 'doubtful';
  readonly adjustment: Fit | null;
  /** By the most probable explanation. */
  readonly body: Body | null;
  /** By every explanation down to 2 %, most probable first: a piece that covers them all does not need to know which is true. */
  readonly possible: readonly Body[];
  readonly suspects: readonly Suspect<Numbers>[];
  readonly next: NextTape | null;
  readonly disagreeMm: number;
  /** Plain statements of what these tapes cannot tell. */
  readonly cannotCheck: readonly string[];
}

/** How the tapes of one thing are judged. */
export interface TapedCase<Body> {
  readonly model: TapedModel;
  /** What of its readings the model has a use for. */
  readonly used: readonly TapeReading[];
  readonly cannotCheck: readonly string[];
  /** @param isOtherwise by the further number of another truth than a slip */
  readonly bodyOf: (fit: Fit, isOtherwise: boolean) => Body;
  readonly tape?: TapeError | undefined;
  readonly levels?: TestLevels | undefined;
}

/**
 * Adjusts tapes, and weighs slips where they disagree.
 * @returns `asTaped`: by the tapes as they stand, whichever is blamed; null: nothing has a size
 * @source docs/models/survey.md, docs/models/shapes.md §3
 */
export function judgeTaped<Body>({ model, used, cannotCheck, bodyOf, tape = handTape, levels = houseLevels }: TapedCase<Body>): {
  readonly survey: TapedSurvey<Body>;
  readonly asTaped: Body | null;
} {
  const fit = adjustTaped(model, used, { tape, levels });
  const known = { adjustment: fit, suspects: [], next: null, disagreeMm: 0, cannotCheck };
  if (!fit) return { survey: { ...known, status: 'nothing', body: null, possible: [] }, asTaped: null };
  const asTaped = bodyOf(fit, false);
  if (fit.passes) return { survey: { ...known, status: fit.redundancy === 0 ? 'unchecked' : 'agreeing', body: asTaped, possible: [asTaped] }, asTaped };
  const explained = weighSlips(model, used, tape);
  const suspects = explained.map((x) => x.suspect);
  const blamed = suspects.filter((x) => x.hypothesis.kind !== 'no-slip');
  const possible = explained.filter((x) => x.suspect.probability >= 0.02).map((x) => bodyOf(x.fit, x.suspect.hypothesis.kind === 'otherwise'));
  const survey: TapedSurvey<Body> = {
    ...known,
    status: 'doubtful',
    body: possible[0] ?? asTaped,
    possible: possible.length ? possible : [asTaped],
    suspects,
    next: nextTape(model, explained, used, tape),
    disagreeMm: blamed.length ? Math.min(...blamed.filter((x) => x.probability > 0.05 * blamed[0]!.probability).map((x) => Math.abs(x.slipMm))) : 0,
  };
  return { survey, asTaped };
}

/** A survey whose tapes agree, but something beside them does not fit. */
export const doubtedIf = (status: TapedSurvey<unknown>['status'], hasDoubts: boolean): TapedSurvey<unknown>['status'] =>
  hasDoubts && status !== 'nothing' ? 'doubtful' : status;
