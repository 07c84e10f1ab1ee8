import { listed } from '../ground/index.js';
import { DAY_MIN, liesIn, type PlacedTask } from './days-model.js';
import type { DaysBound, NoPlan } from './days-bound.js';
import type { DaysBoard, InTheWay } from './lay-out-days.js';

const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const;
/** A minute of a plan as one says it: “Thursday 10, 15:40”. @param from the first day, ISO date */
export function minuteName(from: string, min: number): string {
  const day = new Date(Date.parse(`${from}T00:00:00Z`) + Math.floor(min / DAY_MIN) * 86_400_000);
  const ofDay = min % DAY_MIN;
  const two = (n: number) => String(n).padStart(2, '0');
  return `${WEEKDAYS[day.getUTCDay()]!} ${day.getUTCDate()}, ${two(Math.floor(ofDay / 60))}:${two(ofDay % 60)}`;
}

/** One reason why a task does not begin earlier. */
export function whyWords(board: DaysBoard, w: InTheWay): string {
  const name = (id: string) => board.task.get(id)!.name;
  const names = (ids: readonly string[]) => listed(ids.map((id) => board.person.get(id)!.name));
  switch (w.is) {
    case 'after':
      return `It waits for ${name(w.taskId)}${w.what ? `: ${w.what}` : ''}.`;
    case 'too-late-after':
      return `Earlier, ${name(w.taskId)} would come too late after it${w.what ? `: ${w.what}` : ''}.`;
    case 'good-hours':
      return 'It waits for its good hours.';
    case 'place':
      return 'Its place is not open before.';
    case 'kit':
      return `It waits for ${board.input.kit.find((k) => k.id === w.kitId)!.name}.`;
    case 'people':
      return [
        w.busy.length ? `It waits for ${names(w.busy)}.` : '',
        w.away.length ? `${names(w.away)} ${w.away.length > 1 ? 'are' : 'is'} not there before.` : '',
      ]
        .filter(Boolean)
        .join(' ');
  }
}

/** Why something lies where somebody put it, and what is to be minded there. */
export const fixedWords = (board: DaysBoard, { taskId, startMin, endMin }: Omit<PlacedTask, 'people'>): string[] => [
  'It was put there.',
  ...(liesIn(board.task.get(taskId)!.goodHours, startMin, endMin) ? [] : ['It lies outside its good hours.']),
];

const numbers = ['nobody', 'one', 'two', 'three', 'four', 'five', 'six'] as const;
/** Before when nobody ends, and what says so. @param at that minute; null: there is more work than hours */
export function boundWords(board: DaysBoard, { by }: DaysBound, at: string | null): string {
  const it = at === null ? 'It cannot all be done in these hours' : `It cannot be done before ${at}`;
  if (!by) return `${it}.`;
  const hands = board.input.people.length;
  switch (by.is) {
    case 'chain':
      return `${it}: work and waits up to ${board.task.get(by.taskId)!.name} take so long one after the other, however many help.`;
    case 'people':
      return `${it} with ${numbers[hands] ?? hands}: there is so much work.`;
    case 'lead':
      return `${it}: only who can do “${by.lead}” may lead so much of it.`;
    case 'kit':
      return `${it}: so much of it needs ${board.input.kit.find((k) => k.id === by.kitId)!.name}.`;
  }
}

const wishes: Readonly<Record<NoPlan['wishes'][number], string>> = {
  hours: 'the hours in which somebody is there',
  'good-hours': 'its good hours',
  place: 'when its place is open',
  due: 'when it is due',
  kit: 'the things it needs',
  lead: 'who may lead it',
  people: 'how many it needs',
};
/** What of a task cannot hold together; none: the rest of the plan leaves it no time. */
export const wishWords = (name: string, against: NoPlan['wishes']): string =>
  against.length
    ? `${name} can be done at no time: ${listed(against.map((w) => wishes[w]))} cannot hold together. Give one of them up.`
    : `${name} finds no time beside the rest: more days, more hands, or less before it.`;

/** How late a task ends, and whether it could have been in time at all. */
export const lateWords = (name: string, byMin: number, against: NoPlan['wishes']): string =>
  against.length
    ? `${name} ends ${byMin} min after it is due, and no plan has it in time: ${listed(against.map((w) => wishes[w]))} cannot hold together.`
    : `${name} ends ${byMin} min after it is due: more hands, or less before it.`;
