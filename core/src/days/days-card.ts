import type { DaysPlanInput, DaysPlanResult } from '@yellow-pane/contracts';
import { listed } from '../ground/index.js';
import { faultsOfDays } from './check-days.js';
import { costOfDays, type DaysInput, type Span } from './days-model.js';
import { wishesAgainst, type NoPlan } from './days-bound.js';
import { DaysSearch } from './improve-days.js';
import { whyThen } from './lay-out-days.js';
import { boundWords, fixedWords, lateWords, minuteName, whyWords, wishWords } from './days-words.js';

/** Spans in order, those that touch or lie over each other made one; empty and turned ones are none. */
function inOrder(list: readonly Span[]): Span[] {
  const out: { fromMin: number; toMin: number }[] = [];
  for (const s of [...list].filter((x) => x.toMin > x.fromMin).sort((a, b) => a.fromMin - b.fromMin)) {
    const last = out.at(-1);
    if (last && s.fromMin <= last.toMin) last.toMin = Math.max(last.toMin, s.toMin);
    else out.push({ ...s });
  }
  return out;
}

/** What of an input cannot be meant, in a sentence; null: all of it can. */
function doubtOf(asked: DaysPlanInput): string | null {
  const { tasks, people, kit, places } = asked;
  for (const [what, list] of [['task', tasks], ['person', people], ['thing', kit], ['place', places]] as const) {
    const twice = list.find((x, i) => list.findIndex((y) => y.id === x.id) !== i);
    if (twice) return `There are two of the ${what} “${twice.id}”: give each an id of its own.`;
  } // prettier-ignore
  const has = (list: readonly { readonly id: string }[], id: string) => list.some((x) => x.id === id);
  for (const t of tasks) {
    if (!has(places, t.placeId)) return `“${t.id}” is done at “${t.placeId}”, and no such place is among them.`;
    const thing = t.kit.find((id) => !has(kit, id));
    if (thing !== undefined) return `“${t.id}” needs “${thing}”, and no such thing is among them.`;
    const before = t.after.find((w) => !has(tasks, w.taskId));
    if (before) return `“${t.id}” follows “${before.taskId}”, and no such task is among them.`;
    const early = t.after.find((w) => w.mostMin !== null && w.mostMin < w.leastMin);
    if (early) return `“${t.id}” waits at least ${early.leastMin} min after “${early.taskId}”, and at most ${early.mostMin}: let the most be no less.`;
    const nobody = t.fixed?.people.find((id) => !has(people, id));
    if (nobody !== undefined) return `“${t.id}” was given to “${nobody}”, and nobody of that id is among them.`;
    if (t.fixed && t.fixed.people.length !== t.people) return `“${t.id}” wants ${t.people} people and was given to ${t.fixed.people.length}.`;
  }
  return null;
}

/** A plan of days by figures alone, in words too: what lies when and why, what found no time, before when nobody ends. */
export function daysCard(asked: DaysPlanInput): DaysPlanResult {
  const doubt = doubtOf(asked);
  const nothing = { placed: [], left: [], late: [], endMin: 0, days: 0, wayMin: 0, idleMin: 0, bound: null };
  if (doubt) return { doubt, ...nothing };
  const named = <T extends { readonly id: string; readonly name: string }>(x: T): T => ({ ...x, name: x.name || x.id });
  const input: DaysInput = {
    tasks: asked.tasks.map((t) => ({ ...named(t), goodHours: t.goodHours && inOrder(t.goodHours) })),
    people: asked.people.map((p) => ({ ...named(p), hours: inOrder(p.hours) })),
    kit: asked.kit.map(named),
    places: asked.places.map((p) => ({ ...named(p), open: p.open && inOrder(p.open) })),
    walkMin: asked.walkMin,
    travelMin: asked.travelMin,
    seed: asked.seed,
  };
  const search = new DaysSearch(input);
  for (let i = 0; i < asked.steps; i++) search.step();
  const { plan, board, bound } = search;
  // what somebody put somewhere may itself be impossible: then it is said, and nothing is planned round it
  const faults = faultsOfDays(input, plan);
  if (faults.length) return { doubt: `As it was put it cannot be: ${faults[0]!}`, ...nothing };
  const [, , days, endMin, wayMin, idleMin] = costOfDays(input, plan) as [number, number, number, number, number, number];
  const at = (min: number) => minuteName(asked.from, min);
  const nameOf = (id: string) => board.person.get(id)!.name;
  const why = whyThen(board, plan);
  const against = new Map(wishesAgainst(board).map((w): [string, NoPlan] => [w.taskId, w]));
  return {
    doubt: null,
    placed: plan.placed.map(({ taskId, startMin, endMin: end, people }) => ({
      taskId,
      startMin,
      endMin: end,
      people: [...people],
      text: `${board.task.get(taskId)!.name}: ${at(startMin)}, ${listed(people.map(nameOf))}.`,
      why: board.task.get(taskId)!.fixed ? fixedWords(board, { taskId, startMin, endMin: end }) : why.get(taskId)!.map((w) => whyWords(board, w)),
    })),
    left: plan.left.map((taskId) => ({ taskId, text: wishWords(board.task.get(taskId)!.name, against.get(taskId)?.wishes ?? []) })),
    endMin,
    days,
    wayMin,
    idleMin,
    late: plan.placed.flatMap(({ taskId, endMin: end }) => {
      const { dueMin, name } = board.task.get(taskId)!;
      return dueMin === null || end <= dueMin ? [] : [{ taskId, byMin: end - dueMin, text: lateWords(name, end - dueMin, against.get(taskId)?.wishes ?? []) }];
    }),
    bound: bound && {
      endMin: Number.isFinite(bound.endMin) ? bound.endMin : null,
      text: boundWords(board, bound, Number.isFinite(bound.endMin) ? at(bound.endMin) : null),
    },
  };
}
