import { liesIn, type DaysInput, type DaysTask, type Span } from './days-model.js';
import type { DaysBoard } from './lay-out-days.js';

/** Before this no plan ends, whoever makes it, and what says so. Infinity: there is more work than hours. */
export interface DaysBound {
  readonly endMin: number;
  /** A chain of work and waits that ends with a task; all hands; those who can lead one kind of work; a thing there are too few of. */
  readonly by:
    | { readonly is: 'chain'; readonly taskId: string }
    | { readonly is: 'people' }
    | { readonly is: 'lead'; readonly lead: string }
    | { readonly is: 'kit'; readonly kitId: string }
    | null;
}
/** Why no plan exists at all, whoever makes it: these cannot hold together. */
export interface NoPlan {
  readonly taskId: string;
  readonly wishes: readonly ('hours' | 'good-hours' | 'place' | 'due' | 'kit' | 'lead' | 'people')[];
}

/** The first minute from `fromMin` on at which a task could be done, were there nothing else; null: none. @param without wishes that are given up */
function firstMinute(board: DaysBoard, t: DaysTask, fromMin: number, without: ReadonlySet<string> = new Set()): number | null {
  const { people, kit } = board.input;
  if (!without.has('kit') && t.kit.some((id) => (kit.find((k) => k.id === id)?.count ?? 0) < 1)) return null;
  const good = without.has('good-hours') ? null : t.goodHours;
  const open = without.has('place') ? null : board.place.get(t.placeId)!.open;
  const whenever = without.has('hours');
  const at = [fromMin, ...board.starts, ...(good ?? []).map((s) => s.fromMin), ...(open ?? []).map((s) => s.fromMin)].filter((m) => m >= fromMin).sort((a, b) => a - b); // prettier-ignore
  for (const m of at) {
    if (!liesIn(good, m, m + t.minutes) || !liesIn(open, m, m + t.minutes)) continue;
    const there = people.filter((p) => whenever || liesIn(p.hours, m, m + t.minutes));
    if (there.length < (without.has('people') ? 1 : t.people)) continue;
    if (!without.has('lead') && t.lead !== null && !there.some((p) => p.can.includes(t.lead!))) continue;
    return m;
  }
  return null;
}

/** The earliest minute at which each task can begin, by what comes before it, by when it can be done at all, and by waits with an upper end; null: never. */
function earliestStarts(board: DaysBoard): Map<string, number | null> {
  const { tasks } = board.input;
  const at = new Map<string, number | null>(tasks.map((t) => [t.id, t.fixed ? t.fixed.startMin : firstMinute(board, t, 0)]));
  // a ring of waits would go on for ever: more rounds than tasks no chain needs
  for (let round = 0, isMoved = true; isMoved && round <= 2 * tasks.length; round++) {
    isMoved = false;
    const raise = (t: DaysTask, fromMin: number) => {
      const now = at.get(t.id);
      if (now === null || now === undefined || now >= fromMin || t.fixed) return;
      at.set(t.id, firstMinute(board, t, fromMin));
      isMoved = true;
    };
    for (const t of tasks)
      for (const w of t.after) {
        const before = board.task.get(w.taskId)!;
        const [own, theirs] = [at.get(t.id), at.get(before.id)];
        if (theirs !== null && theirs !== undefined) raise(t, theirs + before.minutes + w.leastMin);
        if (w.mostMin !== null && own !== null && own !== undefined) raise(before, own - w.mostMin - before.minutes);
      }
  }
  return at;
}

/** How much of spans lies between two minutes. */
const within = (spans: readonly Span[], fromMin: number, toMin: number): number =>
  spans.reduce((s, x) => s + Math.max(0, Math.min(x.toMin, toMin) - Math.max(x.fromMin, fromMin)), 0);
/** The minute at which so much work is done from a minute on, by all these spans at once; Infinity: never. */
function doneAt(spans: readonly Span[], fromMin: number, workMin: number): number {
  if (workMin <= 0) return fromMin;
  if (within(spans, fromMin, Infinity) < workMin) return Infinity;
  const edges = [...new Set(spans.flatMap((s) => [s.fromMin, s.toMin]))].filter((m) => m > fromMin).sort((a, b) => a - b);
  let [at, left] = [fromMin, workMin];
  for (const m of edges) {
    const done = within(spans, at, m);
    if (done >= left) return at + Math.ceil((left * (m - at)) / done);
    [at, left] = [m, left - done];
  }
  return Infinity;
}
const union = (spans: readonly Span[]): Span[] =>
  [...spans].sort((a, b) => a.fromMin - b.fromMin).reduce<Span[]>((out, s) => {
    const last = out.at(-1);
    if (last && s.fromMin <= last.toMin) out[out.length - 1] = { fromMin: last.fromMin, toMin: Math.max(last.toMin, s.toMin) };
    else out.push(s);
    return out;
  }, []); // prettier-ignore

/**
 * Before which minute no plan of all tasks ends: chains of work and waits through calendars, and for every minute the work that cannot begin before it against hands that
 * are there from it on, against those who can lead it, against things that are shared. Ways count nothing: it is too early rather than too late.
 * @returns null where some task can be done at no time at all
 * @source heads and energy: Carlier & Latapie 1991, from memory
 */
export function boundOfDays(board: DaysBoard): DaysBound | null {
  const { tasks, people, kit }: DaysInput = board.input;
  const heads = earliestStarts(board);
  if (tasks.some((t) => heads.get(t.id) === null)) return null;
  const head = (t: DaysTask) => heads.get(t.id)!;
  let best: DaysBound = { endMin: 0, by: null };
  const take = (endMin: number, by: DaysBound['by']) => {
    if (endMin > best.endMin) best = { endMin, by };
  };
  for (const t of tasks) take(head(t) + t.minutes, { is: 'chain', taskId: t.id });
  const leads = [...new Set(tasks.flatMap((t) => (t.lead === null ? [] : [t.lead])))];
  const all = people.flatMap((p) => p.hours);
  for (const from of [...new Set(tasks.map(head))]) {
    const later = tasks.filter((t) => head(t) >= from);
    const work = (list: readonly DaysTask[], each: (t: DaysTask) => number) => list.reduce((s, t) => s + t.minutes * each(t), 0);
    take(
      doneAt(
        all,
        from,
        work(later, (t) => t.people),
      ),
      { is: 'people' },
    );
    for (const lead of leads)
      take(
        doneAt(
          people.filter((p) => p.can.includes(lead)).flatMap((p) => p.hours),
          from,
          work(
            later.filter((t) => t.lead === lead),
            () => 1,
          ),
        ),
        { is: 'lead', lead },
      );
    const anybody = union(all);
    for (const k of kit) {
      const uses = later.filter((t) => t.kit.includes(k.id));
      take(
        doneAt(
          Array.from({ length: k.count }, () => anybody).flat(),
          from,
          work(uses, () => 1),
        ),
        { is: 'kit', kitId: k.id },
      );
    }
  }
  return best;
}

/**
 * Of a task that can be done at no time at all, or not by when it is due, a smallest set of wishes that cannot hold together: each of them given up, and it could.
 * Only what one task and what comes before it ask for; what several ask for at once is the search’s to find.
 */
export function wishesAgainst(board: DaysBoard): NoPlan[] {
  const heads = earliestStarts(board);
  return board.input.tasks.flatMap((t): NoPlan[] => {
    const from = t.after.reduce((s, w) => {
      const before = heads.get(w.taskId);
      return before === null || before === undefined ? s : Math.max(s, before + board.task.get(w.taskId)!.minutes + w.leastMin);
    }, 0);
    const wishes = ['kit', 'people', 'lead', 'place', 'good-hours', 'due', 'hours'] as const;
    const cannot = (without: ReadonlySet<string>): boolean => {
      const at = firstMinute(board, t, from, without);
      return at === null || (!without.has('due') && t.dueMin !== null && at + t.minutes > t.dueMin);
    };
    if (!cannot(new Set())) return [];
    // one wish after the other is given up; what can go while it still cannot be done is no part of it
    const gone = new Set<string>();
    for (const w of wishes) if (cannot(new Set([...gone, w]))) gone.add(w);
    return [{ taskId: t.id, wishes: wishes.filter((w) => !gone.has(w)) }];
  });
}
