import {
  firstFrom,
  liesIn,
  wayMin,
  type DaysInput,
  type DaysPerson,
  type DaysPlace,
  type DaysPlan,
  type DaysTask,
  type PlacedTask,
  type Span,
} from './days-model.js';

/** After so many times that an upper end of a wait could not be held, what hangs on it is left over. @source house figure */
const MOST_REPAIRS = 60;

/** What stands in the way of a task at one minute. */
export type InTheWay =
  | { readonly is: 'after'; readonly taskId: string; readonly what: string }
  | { readonly is: 'too-late-after'; readonly taskId: string; readonly what: string }
  | { readonly is: 'good-hours' | 'place' }
  | { readonly is: 'kit'; readonly kitId: string }
  /** Who is busy, or on the way; and who is not there at all. */
  | { readonly is: 'people'; readonly busy: readonly string[]; readonly away: readonly string[] };

/** Everything looked up by its id, once for a plan. */
export class DaysBoard {
  readonly task: ReadonlyMap<string, DaysTask>;
  readonly place: ReadonlyMap<string, DaysPlace>;
  readonly person: ReadonlyMap<string, DaysPerson>;
  readonly kitCount: ReadonlyMap<string, number>;
  /** What comes after each. */
  readonly next: ReadonlyMap<string, readonly string[]>;
  /** Hours of the people that could do it begin here: nothing begins earlier. */
  readonly starts: readonly number[];

  constructor(readonly input: DaysInput) {
    this.task = new Map(input.tasks.map((t) => [t.id, t]));
    this.place = new Map(input.places.map((p) => [p.id, p]));
    this.person = new Map(input.people.map((p) => [p.id, p]));
    this.kitCount = new Map(input.kit.map((k) => [k.id, k.count]));
    const next = new Map<string, string[]>(input.tasks.map((t) => [t.id, []]));
    for (const t of input.tasks) for (const w of t.after) next.get(w.taskId)?.push(t.id);
    this.next = next;
    this.starts = [...new Set(input.people.flatMap((p) => p.hours.map((h) => h.fromMin)))].sort((a, b) => a - b);
  }
}

/** Times that are taken, while a plan is laid out. */
class Taken {
  readonly at = new Map<string, PlacedTask>();
  private readonly ofPerson = new Map<string, PlacedTask[]>();
  private readonly ofKit = new Map<string, PlacedTask[]>();
  constructor(private readonly board: DaysBoard) {}

  put(x: PlacedTask): void {
    this.at.set(x.taskId, x);
    for (const id of x.people) insert(this.list(this.ofPerson, id), x);
    for (const id of this.board.task.get(x.taskId)!.kit) insert(this.list(this.ofKit, id), x);
  }
  remove(taskId: string): void {
    const x = this.at.get(taskId);
    if (!x) return;
    this.at.delete(taskId);
    for (const id of x.people) this.ofPerson.set(id, this.list(this.ofPerson, id).filter((y) => y !== x)); // prettier-ignore
    for (const id of this.board.task.get(taskId)!.kit) this.ofKit.set(id, this.list(this.ofKit, id).filter((y) => y !== x)); // prettier-ignore
  }
  private list(map: Map<string, PlacedTask[]>, id: string): PlacedTask[] {
    const known = map.get(id);
    if (known) return known;
    const fresh: PlacedTask[] = [];
    map.set(id, fresh);
    return fresh;
  }

  /** Whether somebody is free, there, and has the time to come from what is before it and to go on to what is after; with how long the way there is. */
  wayTo(person: DaysPerson, t: DaysTask, startMin: number): number | null {
    const endMin = startMin + t.minutes;
    if (!liesIn(person.hours, startMin, endMin)) return null;
    const own = this.list(this.ofPerson, person.id);
    const i = firstFrom(own.length, (k) => own[k]!.startMin >= startMin);
    const [before, after] = [own[i - 1], own[i]];
    const place = this.board.place.get(t.placeId)!;
    const way = (x: PlacedTask) => wayMin(this.board.input, this.board.place.get(this.board.task.get(x.taskId)!.placeId)!, place);
    const there = before ? way(before) : 0;
    if (before && before.endMin + there > startMin) return null;
    if (after && endMin + way(after) > after.startMin) return null;
    return there;
  }
  /** Whether somebody is there at a minute and does nothing. */
  isFree(person: DaysPerson, min: number): boolean {
    const own = this.list(this.ofPerson, person.id);
    const before = own[firstFrom(own.length, (k) => own[k]!.startMin > min) - 1];
    return liesIn(person.hours, min, min + 1) && (!before || before.endMin <= min);
  }
  kitIsFree(id: string, startMin: number, endMin: number): boolean {
    const uses = this.list(this.ofKit, id).filter((x) => x.startMin < endMin && startMin < x.endMin);
    const count = this.board.kitCount.get(id) ?? 0;
    // most at one time: at the start, or where another begins
    const most = Math.max(0, ...[startMin, ...uses.map((x) => x.startMin).filter((m) => m > startMin)].map((m) => uses.filter((x) => x.startMin <= m && m < x.endMin).length)); // prettier-ignore
    return most < count;
  }
  /** Minutes from one on at which somebody could be there from what he does, or a thing is given back: a sorted list for each. */
  ends(t: DaysTask, fromMin: number): number[][] {
    const { input, place, task } = this.board;
    const here = place.get(t.placeId)!;
    const longest = Math.max(input.walkMin, input.travelMin);
    const ofPeople = input.people.map((p) => {
      const own = this.list(this.ofPerson, p.id);
      const out: number[] = [];
      for (let i = firstFrom(own.length, (k) => own[k]!.endMin + longest >= fromMin); i < own.length; i++) {
        const x = own[i]!;
        // only where what comes next leaves room for it
        if ((own[i + 1]?.startMin ?? Infinity) - x.endMin >= t.minutes) out.push(x.endMin + wayMin(input, place.get(task.get(x.taskId)!.placeId)!, here));
      }
      return out;
    });
    return [...ofPeople, ...t.kit.map((id) => this.list(this.ofKit, id).map((x) => x.endMin).sort((a, b) => a - b))]; // prettier-ignore
  }
}
function insert(list: PlacedTask[], x: PlacedTask): void {
  list.splice(
    firstFrom(list.length, (k) => list[k]!.startMin > x.startMin),
    0,
    x,
  );
}

/** From when on, and until when, what comes before lets a task begin; all of it must be placed. */
function between(t: DaysTask, at: ReadonlyMap<string, PlacedTask>): { readonly fromMin: number; readonly toMin: number } {
  return t.after.reduce(
    (s, w) => {
      const end = at.get(w.taskId)!.endMin;
      return { fromMin: Math.max(s.fromMin, end + w.leastMin), toMin: w.mostMin === null ? s.toMin : Math.min(s.toMin, end + w.mostMin) };
    },
    { fromMin: 0, toMin: Infinity },
  );
}

/** Who would do it at a minute: whoever leads with the shortest way there, then helpers; null: not enough of them. */
function teamAt(taken: Taken, board: DaysBoard, t: DaysTask, startMin: number, liked: readonly string[] = []): string[] | null {
  const like = (id: string) => (liked.includes(id) ? liked.indexOf(id) : liked.length);
  const free = board.input.people.flatMap((p, i) => {
    const way = taken.wayTo(p, t, startMin);
    return way === null ? [] : [{ p, way, i }];
  });
  // who can do less leads first: the others are kept for what only they can do
  free.sort((a, b) => like(a.p.id) - like(b.p.id) || a.way - b.way || a.p.can.length - b.p.can.length || a.i - b.i);
  const lead = free.find(({ p }) => t.lead === null || p.can.includes(t.lead));
  if (!lead || free.length < t.people) return null;
  return [lead, ...free.filter((f) => f !== lead).slice(0, t.people - 1)].map((f) => f.p.id);
}
function mayBegin(taken: Taken, board: DaysBoard, t: DaysTask, startMin: number, liked: readonly string[]): string[] | null {
  const endMin = startMin + t.minutes;
  if (!liesIn(t.goodHours, startMin, endMin) || !liesIn(board.place.get(t.placeId)!.open, startMin, endMin)) return null;
  if (!t.kit.every((id) => taken.kitIsFree(id, startMin, endMin))) return null;
  return teamAt(taken, board, t, startMin, liked);
}

/** Who is asked first for a task, by its id; left out: whoever has the shortest way. */
export type Likings = ReadonlyMap<string, readonly string[]>;

/**
 * Lays tasks out one after the other in the order given, each as early as everything that lies there already allows; what follows something waits for its turn.
 * Where a wait has an upper end that cannot be held, what it follows is moved later and all that hangs on it is laid out anew.
 * @param order ids of all tasks, the most pressing first; an order against what comes before is mended as it is followed
 * @source serial schedule generation: Kolisch 1996, from memory; earliest starts with the order of a list reach an optimal end for some order where waits have no upper end
 */
export function layOutDays(board: DaysBoard, order: readonly string[], likings: Likings = new Map()): DaysPlan {
  const taken = new Taken(board);
  const notBefore = new Map<string, number>();
  const left = new Set<string>();
  // what somebody put somewhere stays there: all others go round it
  for (const t of board.input.tasks)
    if (t.fixed) {
      taken.put({ taskId: t.id, startMin: t.fixed.startMin, endMin: t.fixed.startMin + t.minutes, people: t.fixed.people });
      // where a wait has an upper end, what it follows may not be too early for it
      for (const w of t.after)
        if (w.mostMin !== null)
          notBefore.set(w.taskId, Math.max(notBefore.get(w.taskId) ?? 0, t.fixed.startMin - w.mostMin - board.task.get(w.taskId)!.minutes));
    }
  const queue = order.filter((id) => !board.task.get(id)!.fixed);
  const rank = new Map(order.map((id, i) => [id, i]));
  let repairs = 0;
  while (queue.length) {
    const i = queue.findIndex((id) => board.task.get(id)!.after.every((w) => taken.at.has(w.taskId) || left.has(w.taskId)));
    // a ring of tasks, each after the other: none of them can be done
    const [id] = queue.splice(Math.max(0, i), 1) as [string];
    const t = board.task.get(id)!;
    if (i < 0 || t.after.some((w) => left.has(w.taskId))) {
      left.add(id);
      continue;
    }
    const { fromMin, toMin } = between(t, taken.at);
    const from = Math.max(fromMin, notBefore.get(id) ?? 0);
    const fixedAfter = board.next.get(id)!.flatMap((n) => (board.task.get(n)!.fixed ? [board.task.get(n)!] : []));
    const latest = Math.min(
      Infinity,
      ...fixedAfter.flatMap((n) => n.after.flatMap((w) => (w.taskId === id ? [n.fixed!.startMin - w.leastMin - t.minutes] : []))),
    );
    const placed = earliest(taken, board, t, { fromMin: from, latestMin: latest, liked: likings.get(id) ?? [] });
    if (placed && placed.startMin <= toMin) {
      taken.put(placed);
      continue;
    }
    // too late after something: that one moves later, so that this one is in time
    const late = placed && t.after.find((w) => w.mostMin !== null && placed.startMin > taken.at.get(w.taskId)!.endMin + w.mostMin);
    const earlier = late ? board.task.get(late.taskId)! : null;
    if (!placed || !late || !earlier || earlier.fixed || ++repairs > MOST_REPAIRS) {
      left.add(id);
      continue;
    }
    notBefore.set(earlier.id, placed.startMin - late.mostMin! - earlier.minutes);
    const back = new Set([earlier.id]);
    for (const x of back) for (const n of board.next.get(x)!) if (!board.task.get(n)!.fixed) back.add(n);
    for (const x of back) {
      taken.remove(x);
      left.delete(x);
    }
    queue.push(id, ...[...back].filter((x) => x !== id && !queue.includes(x)));
    queue.sort((a, b) => rank.get(a)! - rank.get(b)!);
  }
  return { placed: [...taken.at.values()].sort((a, b) => a.startMin - b.startMin || rank.get(a.taskId)! - rank.get(b.taskId)!), left: [...left] };
}

/**
 * A list of tasks in the order in which they would be begun, were at every minute at which somebody comes free the most pressing one begun that can be: nobody stands about while
 * there is something for him. Upper ends of waits are not looked at; whoever lays out the list holds them.
 * @param pressing more is begun first
 * @source parallel schedule generation: Kolisch 1996, from memory
 */
export function orderInTime(board: DaysBoard, pressing: (id: string) => number): string[] {
  const { input } = board;
  const taken = new Taken(board);
  const open = input.tasks.map((t, i) => ({ t, i })).sort((a, b) => pressing(b.t.id) - pressing(a.t.id) || a.i - b.i).map(({ t }) => t); // prettier-ignore
  const spans = [...input.tasks.flatMap((t) => t.goodHours ?? []), ...input.places.flatMap((p) => p.open ?? [])].map((s) => s.fromMin);
  const times = [...new Set([...board.starts, ...spans])].sort((a, b) => a - b);
  const come = (min: number) => {
    const at = firstFrom(times.length, (k) => times[k]! >= min);
    if (times[at] !== min) times.splice(at, 0, min);
  };
  const out: string[] = [];
  for (let k = 0; k < times.length && open.length > 0; k++) {
    const now = times[k]!;
    if (!input.people.some((p) => taken.isFree(p, now))) continue;
    for (let i = 0; i < open.length; i++) {
      const t = open[i]!;
      if (!t.after.every((w) => (taken.at.get(w.taskId)?.endMin ?? Infinity) + w.leastMin <= now)) continue;
      const people = mayBegin(taken, board, t, now, []);
      if (!people) continue;
      const endMin = now + t.minutes;
      taken.put({ taskId: t.id, startMin: now, endMin, people });
      out.push(t.id);
      open.splice(i--, 1);
      for (const min of [endMin, endMin + input.walkMin, endMin + input.travelMin]) come(min);
      for (const n of board.next.get(t.id)!) come(endMin + board.task.get(n)!.after.find((w) => w.taskId === t.id)!.leastMin);
    }
  }
  return [...out, ...open.map((t) => t.id)];
}

/** The earliest minute at which a task can begin, with who does it; null: none up to the latest. */
function earliest(
  taken: Taken,
  board: DaysBoard,
  t: DaysTask,
  { fromMin, latestMin, liked }: { readonly fromMin: number; readonly latestMin: number; readonly liked: readonly string[] },
): PlacedTask | null {
  const spans = (list: readonly Span[] | null) => (list ?? []).map((s) => s.fromMin);
  const lists = [[fromMin], board.starts, spans(t.goodHours), spans(board.place.get(t.placeId)!.open), ...taken.ends(t, fromMin)];
  const next = lists.map((l) => firstFrom(l.length, (i) => l[i]! >= fromMin));
  let last = -1;
  // lists are merged as far as they are asked: mostly a few steps
  for (;;) {
    const which = lists.reduce((w, l, i) => ((l[next[i]!] ?? Infinity) < (w < 0 ? Infinity : lists[w]![next[w]!]!) ? i : w), -1);
    if (which < 0) return null;
    const startMin = lists[which]![next[which]!]!;
    next[which]! += 1;
    if (startMin > latestMin) return null;
    if (startMin === last) continue;
    last = startMin;
    const people = mayBegin(taken, board, t, startMin, liked);
    if (people) return { taskId: t.id, startMin, endMin: startMin + t.minutes, people };
  }
}

/**
 * What stands in the way of each placed task one minute before it begins, with everything else as it lies: why it does not begin earlier.
 * @returns by task; empty: nothing does, and it could
 */
export function whyThen(board: DaysBoard, plan: DaysPlan): Map<string, InTheWay[]> {
  const taken = new Taken(board);
  for (const p of plan.placed) taken.put(p);
  return new Map(
    plan.placed.map((x) => {
      taken.remove(x.taskId);
      const why = inTheWayOf(board, taken, x);
      taken.put(x);
      return [x.taskId, why];
    }),
  );
}
function inTheWayOf(board: DaysBoard, taken: Taken, x: PlacedTask): InTheWay[] {
  const t = board.task.get(x.taskId)!;
  const [startMin, endMin] = [x.startMin - 1, x.endMin - 1];
  const out: InTheWay[] = [];
  for (const w of t.after) {
    const before = taken.at.get(w.taskId);
    if (before && startMin < before.endMin + w.leastMin) out.push({ is: 'after', taskId: w.taskId, what: w.what });
  }
  if (!liesIn(t.goodHours, startMin, endMin)) out.push({ is: 'good-hours' });
  if (!liesIn(board.place.get(t.placeId)!.open, startMin, endMin)) out.push({ is: 'place' });
  for (const id of t.kit) if (!taken.kitIsFree(id, startMin, endMin)) out.push({ is: 'kit', kitId: id });
  if (!teamAt(taken, board, t, startMin)) {
    const isThere = (id: string) => liesIn(board.person.get(id)!.hours, startMin, endMin);
    const busy = x.people.filter((id) => isThere(id) && taken.wayTo(board.person.get(id)!, t, startMin) === null);
    out.push({ is: 'people', busy, away: x.people.filter((id) => !isThere(id)) });
  }
  // what comes after it with an upper end keeps it late
  for (const n of board.next.get(x.taskId)!) {
    const [later, wait] = [taken.at.get(n), board.task.get(n)!.after.find((w) => w.taskId === x.taskId)!];
    if (later && wait.mostMin !== null && later.startMin > endMin + wait.mostMin) out.push({ is: 'too-late-after', taskId: n, what: wait.what });
  }
  return out;
}
