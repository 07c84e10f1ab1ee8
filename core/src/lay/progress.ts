import type { LayEntry } from '@yellow-pane/contracts';
import { isOfGround } from './step-rule.js';
import type { Step } from './run-sheet.js';

/** How far the work on a pane has come. */
export type LayState = 'not-begun' | 'in-hand' | 'stopped' | 'done';

/** Two lines of the log that cannot both be right, written by two devices neither of which knew of the other’s. */
export interface LayConflict {
  readonly first: LayEntry;
  readonly second: LayEntry;
}
/** A wait that a step began. */
export interface Wait {
  readonly what: string;
  readonly until: string;
}
/** A step of a later visit that is still to be done on a pane that is laid. */
export interface ReturnVisit {
  readonly key: string;
  readonly title: string;
  /** From when on. */
  readonly dueAt: string;
}
export interface PaneProgress {
  readonly state: LayState;
  /** Keys of the steps done. */
  readonly done: ReadonlySet<string>;
  /** Who has or had it in hand, in the order they came. */
  readonly personIds: readonly string[];
  readonly beganAt: string | null;
  readonly doneAt: string | null;
  readonly waits: readonly Wait[];
  /** Why somebody has to come back to a laid pane, the first visit first; empty: nobody has. */
  readonly returns: readonly ReturnVisit[];
  /** The trouble that stopped it. */
  readonly problem: LayEntry | null;
  readonly conflict: LayConflict | null;
  /** Somebody else began it too, and it is not done. */
  readonly alsoPersonId: string | null;
}

const byTime = (a: LayEntry, b: LayEntry): number => a.occurredAt.localeCompare(b.occurredAt) || a.id.localeCompare(b.id);

/** The lines that still count: those that no correction in force takes back, oldest first. A correction can itself be corrected. */
export function linesInForce(entries: readonly LayEntry[]): LayEntry[] {
  const corrections = new Map<string, LayEntry[]>();
  for (const e of entries) if (e.kind === 'correction' && e.correctsId) corrections.set(e.correctsId, [...(corrections.get(e.correctsId) ?? []), e]);
  const counts = (e: LayEntry, depth = 0): boolean => depth > 40 || !(corrections.get(e.id) ?? []).some((c) => counts(c, depth + 1));
  return entries.filter((e) => counts(e)).sort(byTime);
}

/** Whether two lines were written without one device knowing of the other’s: neither had reached the bench when the other was written. */
const writtenApart = (a: LayEntry, b: LayEntry): boolean =>
  a.personId !== b.personId && (a.receivedAt === null || a.receivedAt > b.occurredAt) && (b.receivedAt === null || b.receivedAt > a.occurredAt);

const contradict = (a: LayEntry, b: LayEntry): boolean => {
  const kinds = [a.kind, b.kind].sort().join('+');
  return kinds === 'pane-done+pane-done' || kinds === 'pane-done+problem';
};

/**
 * What the log says of one pane.
 * @param entries all lines of this pane, in any order
 * @param steps its steps, for their waits; a step no longer in them has none
 */
export function paneProgress(entries: readonly LayEntry[], steps: readonly Step[]): PaneProgress {
  const lines = linesInForce(entries).filter((e) => e.kind !== 'correction');
  const done = new Set<string>();
  const persons: string[] = [];
  let waits: (Wait & { readonly of: Step })[] = [];
  let [state, beganAt, doneAt]: [LayState, string | null, string | null] = ['not-begun', null, null];
  let problem: LayEntry | null = null;
  let conflict: LayConflict | null = null;
  const groundBefore = (key: string): Step[] => {
    const at = steps.findIndex((s) => s.key === key);
    return at < 0 || isOfGround(steps[at]!) ? [] : steps.slice(0, at).filter(isOfGround);
  };
  const waitAfter = (key: string, from: string) => {
    const of = steps.find((s) => s.key === key);
    const wait = of?.wait;
    if (wait) waits.push({ of, what: wait.what, until: new Date(Date.parse(from) + wait.minutes * 60_000).toISOString() });
  };
  for (const [i, e] of lines.entries()) {
    if (e.kind === 'begin' || e.kind === 'step-done' || e.kind === 'pane-done') {
      if (!persons.includes(e.personId)) persons.push(e.personId);
      beganAt ??= e.occurredAt;
    }
    const other = lines.slice(0, i).find((b) => contradict(b, e) && writtenApart(b, e));
    if (other) conflict = { first: other, second: e };
    if (e.kind === 'begin') state = state === 'done' ? 'done' : problem ? 'stopped' : 'in-hand';
    if (e.kind === 'step-done' && e.stepKey) {
      done.add(e.stepKey);
      // who is past it goes on: a job that was begun before its ground had steps is not sent back to them
      for (const s of groundBefore(e.stepKey)) {
        done.add(s.key);
        waits = waits.filter((w) => w.of.key !== s.key);
      }
      if (!problem && state !== 'done') state = 'in-hand';
      // what the hand has proven, or pulled off again, needs no clock
      waits = waits.filter((w) => !(isOfGround(w.of) && e.stepKey!.startsWith(`${w.of.key}-`)));
      waitAfter(e.stepKey, e.occurredAt);
    }
    if (e.kind === 'problem') [problem, state, doneAt] = [e, 'stopped', null];
    if (e.kind === 'mended') [problem, state] = [null, 'in-hand'];
    if (e.kind === 'pane-done') {
      [problem, state, doneAt] = [null, 'done', e.occurredAt];
      // under film nothing of the ground is waited for any more
      waits = waits.filter((w) => !isOfGround(w.of));
      // with one tap the waits of every step of this visit begin here; what is done on a later one is not done by it
      for (const s of steps)
        if (isOfThisVisit(s)) {
          if (!done.has(s.key) && !isOfGround(s)) waitAfter(s.key, e.occurredAt);
          done.add(s.key);
        }
    }
  }
  const returns = steps
    .filter((s) => state === 'done' && !isOfThisVisit(s) && !done.has(s.key))
    .map((s) => ({ key: s.key, title: s.title, dueAt: new Date(Date.parse(doneAt!) + s.returnAfterMinutes! * 60_000).toISOString() }))
    .sort((a, b) => a.dueAt.localeCompare(b.dueAt));
  return {
    state,
    done,
    personIds: persons,
    beganAt,
    doneAt,
    waits: waits.map(({ what, until }) => ({ what, until })),
    returns,
    problem,
    conflict,
    alsoPersonId: state === 'in-hand' && persons.length > 1 ? persons[1]! : null,
  };
}

/** Whether a step belongs to the visit on which the film is laid. */
export const isOfThisVisit = (step: Pick<Step, 'returnAfterMinutes'>): boolean => (step.returnAfterMinutes ?? null) === null;

/** The step to do next on this visit: the first one not done. Null: all are. */
export const nextStep = (steps: readonly Step[], done: ReadonlySet<string>): Step | null => steps.find((s) => isOfThisVisit(s) && !done.has(s.key)) ?? null;

/** Longest that a pane is taken to have needed; what is longer was a break or another day. @source house rule */
const LONGEST_MINUTES = 240;

/**
 * How long a pane took, from the taps: from its begin, or, where it was only tapped done, from the same person’s tap before it on the same day.
 * @param all every line of the job in force
 * @returns null when the taps do not tell
 */
export function minutesTaken(surfaceId: string, all: readonly LayEntry[]): number | null {
  const lines = [...all].sort(byTime);
  const end = lines.filter((e) => e.surfaceId === surfaceId && e.kind === 'pane-done').at(-1);
  if (!end) return null;
  const begin = lines.find((e) => e.surfaceId === surfaceId && (e.kind === 'begin' || e.kind === 'step-done') && e.occurredAt < end.occurredAt);
  const before = lines.filter((e) => e.kind === 'pane-done' && e.personId === end.personId && e.occurredAt < end.occurredAt && e.id !== end.id).at(-1);
  const from = begin ?? before;
  if (!from) return null;
  const minutes = (Date.parse(end.occurredAt) - Date.parse(from.occurredAt)) / 60_000;
  return minutes > 0 && minutes <= LONGEST_MINUTES ? minutes : null;
}

/** Panes that are laid, by their ids. */
export function laidPanes(entries: readonly LayEntry[]): ReadonlySet<string> {
  const laid = new Set<string>();
  for (const e of linesInForce(entries)) {
    if (!e.surfaceId) continue;
    if (e.kind === 'pane-done') laid.add(e.surfaceId);
    if (e.kind === 'problem') laid.delete(e.surfaceId);
  }
  return laid;
}
