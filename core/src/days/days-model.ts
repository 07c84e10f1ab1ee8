/** A stretch of time, minutes from the midnight at which the plan begins; the end is not in it. */
export interface Span {
  readonly fromMin: number;
  readonly toMin: number;
}

/** Somebody who works: what they may do, and when they are there; breaks, nights and days off are no part of it. Hours sorted, none touching another. */
export interface DaysPerson {
  readonly id: string;
  readonly name: string;
  readonly can: readonly string[];
  readonly hours: readonly Span[];
}
/** What is shared and cannot be at two places: a ladder, a steamer, guns on one fuse. */
export interface DaysKit {
  readonly id: string;
  readonly name: string;
  readonly count: number;
}
/** Where work is done. `open` null: always; sorted. */
export interface DaysPlace {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly open: readonly Span[] | null;
}
/** What comes before: this one begins at least, and where a wait has an upper end at most, so long after that one ended. */
export interface DaysWait {
  readonly taskId: string;
  readonly leastMin: number;
  readonly mostMin: number | null;
  /** What one waits for: “primer dries”. Empty: one just follows the other. */
  readonly what: string;
}
/** Work that is done in one go by the same people. Minutes are whole. */
export interface DaysTask {
  readonly id: string;
  readonly name: string;
  readonly minutes: number;
  /** How many hands; the first of them must be able to do `lead`, the others help. */
  readonly people: number;
  readonly lead: string | null;
  readonly placeId: string;
  readonly kit: readonly string[];
  /** Hours in which the glass, the sun, the frost allow it; null: any. All of the work lies in one of them. */
  readonly goodHours: readonly Span[] | null;
  readonly after: readonly DaysWait[];
  /** It may not end later; null: nobody said. */
  readonly dueMin: number | null;
  /** Somebody put it there: it stays. */
  readonly fixed: { readonly startMin: number; readonly people: readonly string[] } | null;
}
/** All that a plan of days depends on. */
export interface DaysInput {
  readonly tasks: readonly DaysTask[];
  readonly people: readonly DaysPerson[];
  readonly kit: readonly DaysKit[];
  readonly places: readonly DaysPlace[];
  /** From place to place of one site, and from site to site, min. */
  readonly walkMin: number;
  readonly travelMin: number;
  readonly seed: number;
}

/** A task in the plan. */
export interface PlacedTask {
  readonly taskId: string;
  readonly startMin: number;
  readonly endMin: number;
  /** The one who leads first. */
  readonly people: readonly string[];
}
/** A plan, and what found no time in it. */
export interface DaysPlan {
  readonly placed: readonly PlacedTask[];
  readonly left: readonly string[];
}

/** Minutes of a day. */
export const DAY_MIN = 1440;

/** How long one is on the way between two places. */
export function wayMin(input: Pick<DaysInput, 'walkMin' | 'travelMin'>, from: DaysPlace, to: DaysPlace): number {
  return from.id === to.id ? 0 : from.site === to.site ? input.walkMin : input.travelMin;
}

/** Whether all of a stretch lies in one of the spans, which are sorted and do not touch; null spans: always. */
export function liesIn(spans: readonly Span[] | null, fromMin: number, toMin: number): boolean {
  if (spans === null) return true;
  const at = firstFrom(spans.length, (i) => spans[i]!.fromMin > fromMin) - 1;
  return at >= 0 && toMin <= spans[at]!.toMin;
}
/** The first place in a list from which on something holds: it holds for all that come after it too. */
export function firstFrom(length: number, holds: (i: number) => boolean): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Waits that a plan does not hold: only round what somebody put somewhere can there be any. */
function brokenWaits(input: DaysInput, plan: DaysPlan): number {
  const at = new Map(plan.placed.map((x) => [x.taskId, x]));
  const isHeld = (x: PlacedTask, w: DaysWait): boolean => {
    const before = at.get(w.taskId);
    return before !== undefined && x.startMin >= before.endMin + w.leastMin && (w.mostMin === null || x.startMin <= before.endMin + w.mostMin);
  };
  return input.tasks.reduce((s, t) => s + (at.has(t.id) ? t.after.filter((w) => !isHeld(at.get(t.id)!, w)).length : 0), 0);
}

/** What a plan costs, in the order in which it matters: work left over and waits not held, lateness, days used, when it ends, minutes on the way, minutes standing about between. */
export function costOfDays(input: DaysInput, plan: DaysPlan): number[] {
  const task = new Map(input.tasks.map((t) => [t.id, t]));
  const place = new Map(input.places.map((p) => [p.id, p]));
  let [way, idle] = [0, 0];
  const days = new Set<number>();
  for (const p of input.people) {
    const own = plan.placed.filter((x) => x.people.includes(p.id)).sort((a, b) => a.startMin - b.startMin);
    own.forEach((x, i) => {
      days.add(Math.floor(x.startMin / DAY_MIN));
      const before = own[i - 1];
      if (!before || Math.floor(before.startMin / DAY_MIN) !== Math.floor(x.startMin / DAY_MIN)) return;
      const on = wayMin(input, place.get(task.get(before.taskId)!.placeId)!, place.get(task.get(x.taskId)!.placeId)!);
      way += on;
      idle += x.startMin - before.endMin - on;
    });
  }
  const late = plan.placed.reduce((s, x) => s + Math.max(0, x.endMin - (task.get(x.taskId)!.dueMin ?? Infinity)), 0);
  return [plan.left.length + brokenWaits(input, plan), late, days.size, Math.max(0, ...plan.placed.map((x) => x.endMin)), way, idle];
}
/** Below nought: the first is better. */
export function compareCosts(a: readonly number[], b: readonly number[]): number {
  const i = a.findIndex((x, k) => x !== b[k]);
  return i < 0 ? 0 : a[i]! - b[i]!;
}
