import type { PinKind, PinSpread } from '@yellow-pane/contracts';
import { liesAsDrawn, type Cause, type CauseTable, type Mend, type MendKind, type Patient, type Question } from './causes.js';
import { after, answerOdds, asOdds, expectedGainBits, type Odds } from './odds.js';
import { dryFilm } from './dry-film.js';
import { wetFilm } from './wet-film.js';

/** What is known of one thing that was seen. */
export interface DiagnosisAsked {
  readonly patient: Patient;
  readonly kind: PinKind;
  readonly spread: PinSpread;
  /** Answers to questions, by their keys; keys of questions that are not in the table are let be. */
  readonly answers: Readonly<Record<string, string>>;
  /** Keys of what the log says. */
  readonly facts: readonly string[];
  /** How likely all water has left by now, by the drying clock; null: nothing was reckoned. */
  readonly clearOdds: number | null;
  /** Whether the film may still be lifted: it was laid today. */
  readonly isFresh: boolean;
}
/** A cause with what it asks for. */
export interface Likely {
  readonly cause: Cause;
  readonly odds: number;
  readonly mend: Mend;
}
export interface NextQuestion {
  readonly question: Question;
  readonly gainBits: number;
}
export interface Diagnosis {
  /** From the likeliest down, those that have to be reckoned with. */
  readonly likely: readonly Likely[];
  /** What to do, by all causes together. */
  readonly mend: Mend;
  /** How likely that is the right thing to do. */
  readonly mendOdds: number;
  /** The question or look that tells them apart best; null: none is worth asking. */
  readonly next: NextQuestion | null;
  /** Why nothing more is asked; null while something is. */
  readonly whyDone: 'sure' | 'no-change' | 'all-asked' | null;
  /** What of the log counted. */
  readonly counted: readonly string[];
}

/** Causes less likely than this are not shown. @source house rule */
const SHOWN_FROM = 0.08;
const MOST_SHOWN = 3;
/** From here on asking more changes nothing. @source house rule: nineteen in twenty */
const SURE_OF_MEND = 0.95;
/** An answer less likely than this is not asked for. @source house rule */
const WORTH_ASKING = 0.04;
/** So often the wrong drawing is picked, any of the others alike. @source house rule */
const WRONG_DRAWING = 0.006;
/** Water that should have left may still be there: rates are no more than reckoned. @source house rule */
const LATE_WATER = 0.05;

const tables: Readonly<Record<Patient, CauseTable & { readonly spread: Question }>> = { 'wet-on-glass': wetFilm, dry: dryFilm };
/** What is known of a patient. */
export const tableOf = (patient: Patient): CauseTable & { readonly spread: Question } => tables[patient];
/** What a cause is called, whoever has it; one that is not known any more by its key. */
export const causeName = (key: string): string =>
  Object.values(tables)
    .flatMap((t) => t.causes)
    .find((c) => c.key === key)?.name ?? key;

/** Whether something this patient can have usually looks like that. */
export const isUsualLook = (patient: Patient, kind: PinKind): boolean => tables[patient].causes.some((c) => (c.looks[kind] ?? 0) >= USUAL_LOOK);
/** From this share on a drawing is the usual look of a cause. @source house rule */
const USUAL_LOOK = 0.1;

const KINDS = 16;
/** How likely something looks like that under a cause. */
export function lookOdds(cause: Pick<Cause, 'looks'>, kind: PinKind): number {
  const named = Object.values(cause.looks);
  const own = cause.looks[kind];
  return own === undefined ? WRONG_DRAWING / (KINDS - named.length) : ((1 - WRONG_DRAWING) * own) / named.reduce((s, p) => s + p, 0);
}
/** Likelihoods of an answer under all causes, for each answer. */
export const tableRows = (q: Question, causes: readonly Cause[]): number[][] => q.answers.map((_, a) => causes.map((c) => (q.under[c.key] ?? q.usual)[a]!));

/** Nine of ten panes are clear by then: the end of the range that is told. */
const DRY_FROM = 0.9;
type When = 'fresh' | 'set' | 'over';
const whenOf = ({ isFresh, clearOdds }: Pick<DiagnosisAsked, 'isFresh' | 'clearOdds'>): When =>
  isFresh ? 'fresh' : (clearOdds ?? 0) >= DRY_FROM ? 'over' : 'set';
const mendOf = (cause: Cause, when: When): Mend => (when === 'fresh' ? cause.fresh : when === 'over' ? (cause.over ?? cause.set) : cause.set);

/** Odds of what is to be done: causes that ask for the same kind count together. */
function mendTally(causes: readonly Cause[], odds: Odds, when: When): Map<MendKind, number> {
  const tally = new Map<MendKind, number>();
  causes.forEach((c, i) => tally.set(mendOf(c, when).kind, (tally.get(mendOf(c, when).kind) ?? 0) + odds[i]!));
  return tally;
}
const best = (tally: ReadonlyMap<MendKind, number>): [MendKind, number] => [...tally].reduce((a, b) => (b[1] > a[1] ? b : a));

/** Odds over all causes before any question: how often each is met, what it looks like, how it lies, what the log and the clock say. */
function startOdds(asked: DiagnosisAsked, table: CauseTable & { readonly spread: Question }): Odds {
  const lift = (key: string) => table.facts.reduce((m, f) => (asked.facts.includes(f.key) ? m * (f.times[key] ?? 1) : m), 1);
  const spreadAt = table.spread.answers.findIndex((a) => a.key === asked.spread);
  const lies = (c: Cause) => (liesAsDrawn[asked.kind] ? 1 : (table.spread.under[c.key] ?? table.spread.usual)[spreadAt]!);
  const wet = asked.clearOdds === null ? 1 : Math.max(LATE_WATER, 1 - asked.clearOdds);
  return asOdds(
    table.causes.map((c) => {
      const water = c.key === 'drying' ? wet : 1;
      return c.prior * lift(c.key) * water * lookOdds(c, asked.kind) * lies(c);
    }),
  );
}

/**
 * What is likely behind something that was seen, what to do, and what to ask next: a causal model. Causes have odds before anything is asked (by film, method,
 * weather, log); what is found changes them by how likely it would be found under each; the next question is the one expected to tell most (Shannon), as long as some
 * answer of it could still change what is to be done.
 * @source Bayes; docs/models/diagnosis.md
 */
export function diagnose(asked: DiagnosisAsked): Diagnosis {
  const table = tables[asked.patient];
  const { causes, questions, facts } = table;
  const when = whenOf(asked);
  let odds = startOdds(asked, table);
  for (const q of questions) {
    const at = q.answers.findIndex((a) => a.key === asked.answers[q.key]);
    if (at >= 0) odds = after(odds, tableRows(q, causes)[at]!);
  }
  const [kind, mendOdds] = best(mendTally(causes, odds, when));
  const ranked = causes.map((cause, i) => ({ cause, odds: odds[i]!, mend: mendOf(cause, when) })).sort((a, b) => b.odds - a.odds);
  // the words are those of the likeliest cause that asks for it
  const { mend } = ranked.find((r) => r.mend.kind === kind)!;
  const open = questions.filter((q) => !(q.key in asked.answers));
  const changesMind = (q: Question): boolean => {
    const rows = tableRows(q, causes);
    const likely = answerOdds(odds, rows);
    return rows.some((row, a) => likely[a]! >= WORTH_ASKING && best(mendTally(causes, after(odds, row), when))[0] !== kind);
  };
  const isSure = mendOdds >= SURE_OF_MEND;
  const next = isSure
    ? null
    : open
        .filter(changesMind)
        .map((question) => ({ question, gainBits: expectedGainBits(odds, tableRows(question, causes)) }))
        .reduce<NextQuestion | null>((a, b) => (a && a.gainBits >= b.gainBits ? a : b), null);
  return {
    likely: ranked.filter((r, i) => i === 0 || (i < MOST_SHOWN && r.odds >= SHOWN_FROM)),
    mend,
    mendOdds,
    next,
    whyDone: next ? null : isSure ? 'sure' : open.length ? 'no-change' : 'all-asked',
    counted: facts.filter((f) => asked.facts.includes(f.key) && Object.values(f.times).some((t) => t !== 0)).map((f) => f.text),
  };
}
