import { wayMin, type DaysInput, type DaysPlan, type Span } from './days-model.js';

/** All of a stretch in one of the spans, one after the other: the planner looks them up in its own way. */
const isWithin = (spans: readonly Span[] | null, fromMin: number, toMin: number): boolean =>
  spans === null || spans.some((s) => s.fromMin <= fromMin && toMin <= s.toMin);

/**
 * What a plan of days breaks, in a sentence each; it knows nothing of how plans are made. Whoever puts work outside its good hours may: it is warned of, not refused.
 * @returns empty: everybody can do it as it stands
 */
export function faultsOfDays(input: DaysInput, plan: DaysPlan): string[] {
  const out: string[] = [];
  const task = new Map(input.tasks.map((t) => [t.id, t]));
  const place = new Map(input.places.map((p) => [p.id, p]));
  const person = new Map(input.people.map((p) => [p.id, p]));
  const at = new Map(plan.placed.map((x) => [x.taskId, x]));
  const counted = [...plan.placed.map((x) => x.taskId), ...plan.left].sort().join();
  if (counted !== input.tasks.map((t) => t.id).sort().join()) out.push('Not every task is in the plan once.'); // prettier-ignore
  for (const x of plan.placed) {
    const t = task.get(x.taskId)!;
    const p = place.get(t.placeId)!;
    if (x.endMin - x.startMin !== t.minutes) out.push(`${t.name} takes ${t.minutes} min.`);
    if (x.people.length !== t.people || new Set(x.people).size !== t.people) out.push(`${t.name} needs ${t.people} people.`);
    if (t.lead !== null && !person.get(x.people[0]!)?.can.includes(t.lead)) out.push(`${t.name} is led by somebody who does not do it.`);
    for (const id of x.people)
      if (!isWithin(person.get(id)!.hours, x.startMin, x.endMin)) out.push(`${person.get(id)!.name} is not there for all of ${t.name}.`);
    if (!isWithin(p.open, x.startMin, x.endMin)) out.push(`${p.name} is closed while ${t.name} is done.`);
    if (!t.fixed && !isWithin(t.goodHours, x.startMin, x.endMin)) out.push(`${t.name} lies outside its good hours.`);
    if (t.fixed && (x.startMin !== t.fixed.startMin || x.people.join() !== t.fixed.people.join())) out.push(`${t.name} was moved from where it was put.`);
    for (const w of t.after) {
      const before = at.get(w.taskId);
      if (!before) out.push(`${t.name} is done before what it follows.`);
      else if (x.startMin < before.endMin + w.leastMin) out.push(`${t.name} begins too early after ${task.get(w.taskId)!.name}.`);
      else if (w.mostMin !== null && x.startMin > before.endMin + w.mostMin) out.push(`${t.name} begins too late after ${task.get(w.taskId)!.name}.`);
    }
  }
  for (const p of input.people) {
    const own = plan.placed.filter((x) => x.people.includes(p.id)).sort((a, b) => a.startMin - b.startMin);
    own.slice(1).forEach((x, i) => {
      const way = wayMin(input, place.get(task.get(own[i]!.taskId)!.placeId)!, place.get(task.get(x.taskId)!.placeId)!);
      if (x.startMin < own[i]!.endMin + way) out.push(`${p.name} is at two things at ${x.startMin}.`);
    });
  }
  for (const k of input.kit) {
    const uses = plan.placed.filter((x) => task.get(x.taskId)!.kit.includes(k.id));
    for (const x of uses)
      if (uses.filter((y) => y.startMin <= x.startMin && x.startMin < y.endMin).length > k.count)
        out.push(`There are only ${k.count} of ${k.name} at ${x.startMin}.`);
  }
  return out;
}
