import { randomInt, seededRandom, type Random } from '../ground/index.js';
import { faultsOfDays } from './check-days.js';
import { compareCosts, costOfDays, type DaysInput, type DaysPlan, type DaysTask } from './days-model.js';
import { boundOfDays, type DaysBound } from './days-bound.js';
import { DaysBoard, layOutDays, orderInTime } from './lay-out-days.js';

/** How much work and waiting hangs on a task. */
function tails(board: DaysBoard): Map<string, number> {
  const out = new Map<string, number>();
  const of = (t: DaysTask, seen: ReadonlySet<string>): number => {
    const known = out.get(t.id);
    if (known !== undefined) return known;
    // a ring of waits: it goes no farther
    if (seen.has(t.id)) return 0;
    const on = new Set([...seen, t.id]);
    const after = board.next.get(t.id)!.map((id) => {
      const n = board.task.get(id)!;
      return n.after.find((w) => w.taskId === t.id)!.leastMin + of(n, on);
    });
    const tail = t.minutes + Math.max(0, ...after);
    out.set(t.id, tail);
    return tail;
  };
  for (const t of board.input.tasks) of(t, new Set());
  return out;
}

/**
 * A plan of days, made better step by step; the same for the same input, seed and steps. It begins with the best of a few rules, then moves, swaps and gathers tasks in the
 * list they are laid out from, and asks others first who does them.
 */
export class DaysSearch {
  readonly board: DaysBoard;
  private readonly random: Random;
  private order: string[] = [];
  private likings = new Map<string, readonly string[]>();
  private found: { plan: DaysPlan; cost: number[] };
  private count = 0;
  private readonly least: DaysBound | null;

  /** @param before a plan of the same tasks that is to be kept unless something better is found, as far as it still holds */
  constructor(
    readonly input: DaysInput,
    before: DaysPlan | null = null,
  ) {
    this.board = new DaysBoard(input);
    this.random = seededRandom(input.seed);
    this.least = boundOfDays(this.board);
    const tail = tails(this.board);
    const ids = input.tasks.map((t) => t.id);
    const due = (id: string) => this.board.task.get(id)!.dueMin ?? Infinity;
    const place = new Map(input.places.map((p, i) => [p.id, i]));
    const by = (...keys: ((id: string) => number)[]) => [...ids].sort((a, b) => keys.reduce((s, k) => s || k(a) - k(b), 0) || ids.indexOf(a) - ids.indexOf(b));
    const orders = [
      by((id) => -tail.get(id)!),
      by(due, (id) => -tail.get(id)!),
      by((id) => place.get(this.board.task.get(id)!.placeId)!),
      ids,
      orderInTime(this.board, (id) => tail.get(id)!),
    ];
    const plans = orders.map((order) => ({ order, plan: layOutDays(this.board, order) }));
    if (before && faultsOfDays(input, before).length === 0) plans.unshift({ order: orderOf(before), plan: before });
    const costed = plans.map((p) => ({ ...p, cost: costOfDays(input, p.plan) }));
    const first = costed.reduce((a, b) => (compareCosts(b.cost, a.cost) < 0 ? b : a));
    this.order = [...first.order];
    this.found = { plan: first.plan, cost: first.cost };
  }

  get plan(): DaysPlan {
    return this.found.plan;
  }
  get cost(): readonly number[] {
    return this.found.cost;
  }
  /** Before this nobody ends; null: some task can be done at no time. */
  get bound(): DaysBound | null {
    return this.least;
  }
  get steps(): number {
    return this.count;
  }

  /** One step of improvement. @returns true when the plan got better */
  step(): boolean {
    this.count++;
    const { tasks, people } = this.input;
    if (tasks.length < 2) return false;
    const order = this.moved();
    const likings = new Map(this.likings);
    if (people.length > 1 && this.random() < 0.4) {
      const t = tasks[randomInt(this.random, tasks.length)]!;
      if (this.random() < 0.3) likings.delete(t.id);
      else likings.set(t.id, shuffled(people.map((p) => p.id), this.random)); // prettier-ignore
    }
    const plan = layOutDays(this.board, order, likings);
    const cost = costOfDays(this.input, plan);
    const better = compareCosts(cost, this.found.cost);
    if (better > 0) return false;
    [this.order, this.likings, this.found] = [order, likings, { plan, cost }];
    return better < 0;
  }

  private moved(): string[] {
    const order = [...this.order];
    const n = order.length;
    const what = this.random();
    if (what < 0.45) {
      // one to another place of the list
      const [id] = order.splice(randomInt(this.random, n), 1) as [string];
      order.splice(randomInt(this.random, n), 0, id);
    } else if (what < 0.7) {
      const [i, j] = [randomInt(this.random, n), randomInt(this.random, n)];
      [order[i], order[j]] = [order[j]!, order[i]!];
    } else if (what < 0.85) {
      // the work of one place is gathered
      const { placeId } = this.board.task.get(order[randomInt(this.random, n)]!)!;
      const own = order.filter((id) => this.board.task.get(id)!.placeId === placeId);
      const rest = order.filter((id) => this.board.task.get(id)!.placeId !== placeId);
      rest.splice(randomInt(this.random, rest.length + 1), 0, ...own);
      return rest;
    } else {
      // as it lies now, a few neighbours shuffled
      const now = orderOf(this.found.plan);
      const at = randomInt(this.random, n);
      const some = now.splice(at, 6);
      now.splice(at, 0, ...shuffled(some, this.random));
      return now;
    }
    return order;
  }
}
const orderOf = (plan: DaysPlan): string[] => [...[...plan.placed].sort((a, b) => a.startMin - b.startMin).map((p) => p.taskId), ...plan.left];
function shuffled<T>(list: readonly T[], random: Random): T[] {
  const out = [...list];
  for (let i = out.length - 1; i > 0; i--) {
    const j = randomInt(random, i + 1);
    [out[i], out[j]] = [out[j]!, out[i]!];
  }
  return out;
}
