import type { PinKind, PinSpread } from '@yellow-pane/contracts';

/** Where a figure comes from. */
export type FigureSource = 'common practice' | 'house figure';
/** Wet film on glass and dry film on walls are different patients: what cures one ruins the other. */
export type Patient = 'wet-on-glass' | 'dry';
/** What to do: mend it now, wait, cut another piece, leave it as it is, wipe it off, hold it to the firm's rule, stop and fetch somebody. */
export type MendKind = 'mend' | 'wait' | 'replace' | 'leave' | 'wipe' | 'judge' | 'stop';
export interface Mend {
  readonly kind: MendKind;
  readonly text: string;
  readonly caution: string | null;
}

/** What may be behind something that is seen. */
export interface Cause {
  readonly key: string;
  readonly name: string;
  /** How it comes about, in a sentence. */
  readonly why: string;
  /** Of a hundred things pinned on panes of this kind, so many are this. */
  readonly prior: number;
  readonly source: FigureSource;
  /** What it looks like: in which proportion; what is not named is a drawing picked wrongly. */
  readonly looks: Partial<Record<PinKind, number>>;
  /** While the film can still be lifted, and after. */
  readonly fresh: Mend;
  readonly set: Mend;
  /** Once the drying is over; left out: as before. Nobody is told to wait until a day that has gone by. */
  readonly over?: Mend;
}

/** Pictures that say themselves how the thing lies: asked again, it would count twice. */
export const liesAsDrawn: Partial<Record<PinKind, PinSpread>> = {
  'bubble-field': 'field',
  'bubble-line': 'line',
  fingers: 'edge',
  'light-line': 'edge',
  'edge-up': 'edge',
  crack: 'line',
};

/** A question at the pane. An answer that is not named for a cause is as likely as `usual` says. */
export interface Question {
  readonly key: string;
  readonly text: string;
  readonly answers: readonly { readonly key: string; readonly text: string }[];
  readonly source: FigureSource;
  /** How likely each answer is, in the order of the answers, where a cause is not named. */
  readonly usual: readonly number[];
  readonly under: Readonly<Record<string, readonly number[]>>;
}

/** Something the log says: how many times likelier it makes a cause. */
export interface Fact {
  readonly key: string;
  readonly text: string;
  readonly source: FigureSource;
  readonly times: Readonly<Record<string, number>>;
}

/** All that is known of a patient: data, so that another patient is another table. */
export interface CauseTable {
  readonly causes: readonly Cause[];
  readonly questions: readonly Question[];
  readonly facts: readonly Fact[];
}
