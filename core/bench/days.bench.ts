import { boundOfDays, costOfDays, DaysBoard, DaysSearch, faultsOfDays, layOutDays, type DaysInput, type DaysTask } from '../src/days/index.js';
import { randomInt, seededRandom } from '../src/ground/index.js';
import { timed } from './timed.js';

/**
 * Days of a tower: 60 surfaces of 12 steps with three people (goal: a first answer in 1 s; within 2 % of what ten seconds find). The reference in the same run is the list as
 * it was walked: surface by surface, step by step.
 */
const random = seededRandom(3);
const DAYS = 14;
const daily = (fromMin: number, toMin: number) => Array.from({ length: DAYS }, (_, d) => ({ fromMin: d * 1440 + fromMin, toMin: d * 1440 + toMin }));
const hours = [...daily(480, 720), ...daily(750, 990)].sort((a, b) => a.fromMin - b.fromMin);
const tasks = Array.from({ length: 720 }, (_, i): DaysTask => {
  const [s, k] = [Math.floor(i / 12), i % 12];
  return {
    id: `${s}.${k}`,
    name: `${s}.${k}`,
    minutes: 5 + randomInt(random, 25),
    people: k === 5 && s % 4 === 0 ? 2 : 1,
    lead: k === 5 ? 'lay' : null,
    placeId: `room ${Math.floor(s / 6)}`,
    kit: k === 2 && s % 3 === 0 ? ['ladder'] : [],
    goodHours: k === 5 && s % 5 === 0 ? daily(480, 720) : null,
    after: k ? [{ taskId: `${s}.${k - 1}`, leastMin: k === 4 ? 20 : k === 9 ? 60 : 0, mostMin: k === 4 ? 120 : null, what: 'drying' }] : [],
    dueMin: null,
    fixed: null,
  };
});
const input: DaysInput = {
  tasks,
  people: [0, 1, 2].map((i) => ({ id: `p${i}`, name: `p${i}`, can: i < 2 ? ['lay'] : [], hours })),
  kit: [{ id: 'ladder', name: 'ladder', count: 1 }],
  places: Array.from({ length: 10 }, (_, i) => ({ id: `room ${i}`, name: `room ${i}`, site: 'tower', open: null })),
  walkMin: 3,
  travelMin: 20,
  seed: 1,
};
const board = new DaysBoard(input);
const told = (name: string, cost: readonly number[]) => console.log(`${name}: ${cost[2]} days, end ${cost[3]} min, ${cost[4]} min on the way, ${cost[5]} standing about${cost[0] ? `, ${cost[0]} left over` : ''}`); // prettier-ignore
const walked = tasks.map((t) => t.id);
timed('reference: as it was walked, laid out once', null, 3, () => layOutDays(board, walked));
told('as it was walked', costOfDays(input, layOutDays(board, walked)));
timed('first answer', 1000, 3, () => new DaysSearch(input));
timed('before when nobody ends', null, 3, () => boundOfDays(board));
const search = new DaysSearch(input);
told('first answer', search.cost);
const until = performance.now() + 10_000;
while (performance.now() < until) search.step();
told(`after 10 s, ${search.steps} steps`, search.cost);
console.log(`nobody ends before ${search.bound!.endMin} min; faults: ${faultsOfDays(input, search.plan).length}`);
