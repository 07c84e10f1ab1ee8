import type { DaysPlanInput } from '@yellow-pane/contracts';
import highsLoader from 'highs';
import { randomInt, seededRandom, type Random } from '../ground/index.js';
import { sampleOf } from '../ground/sample.testing.js';
import { faultsOfDays } from './check-days.js';
import { boundOfDays, wishesAgainst } from './days-bound.js';
import { compareCosts, costOfDays, type DaysInput, type DaysPerson, type DaysPlan, type DaysTask, type Span } from './days-model.js';
import { daysCard } from './days-card.js';
import { minuteName } from './days-words.js';
import { DaysSearch } from './improve-days.js';
import { DaysBoard, layOutDays, whyThen } from './lay-out-days.js';

const hour = (h: number) => h * 60;
const span = (from: number, to: number): Span => ({ fromMin: hour(from), toMin: hour(to) });
/** Eight to twelve and half past twelve to half past four. */
const workday = [span(8, 12), span(12.5, 16.5)];
const person = (id: string, more: Partial<DaysPerson> = {}): DaysPerson => ({ id, name: id, can: ['lay'], hours: workday, ...more });
const task = (id: string, minutes: number, more: Partial<DaysTask> = {}): DaysTask => ({ id, name: id, minutes, people: 1, lead: null, placeId: 'room', kit: [], goodHours: null, after: [], dueMin: null, fixed: null, ...more }); // prettier-ignore
const after = (taskId: string, leastMin = 0, mostMin: number | null = null) => ({ taskId, leastMin, mostMin, what: 'drying' });
const input = (tasks: readonly DaysTask[], more: Partial<DaysInput> = {}): DaysInput => ({ tasks, people: [person('Ines')], kit: [], places: [{ id: 'room', name: 'Room', site: 'pier', open: null }], walkMin: 0, travelMin: 30, seed: 1, ...more }); // prettier-ignore
const planOf = (asked: DaysInput, steps = 60): DaysPlan => {
  const search = new DaysSearch(asked);
  for (let i = 0; i < steps; i++) search.step();
  return search.plan;
};
const startOf = (plan: DaysPlan, id: string) => plan.placed.find((p) => p.taskId === id)?.startMin;
const board = (asked: DaysInput) => new DaysBoard(asked);

describe('a day laid out', () => {
  test('nothing begins before somebody is there, nor runs over a break: an hour begun at half past eleven waits till after lunch', () => {
    const plan = planOf(input([task('clean', 210), task('lay', 60, { after: [after('clean')] })]));
    expect([startOf(plan, 'clean'), startOf(plan, 'lay')]).toEqual([hour(8), hour(12.5)]);
  });
  test('a wait is held both ways: primer needs its ten minutes, and is laid on before it is no longer tacky; where the break would let it dry too long, it is put on later', () => {
    // cleaning ends at 11:45; film wants two hours in one go, which the morning has not left: it begins at 12:30, and primer may be 20 min old
    const asked = input([task('clean', 215), task('prime', 10, { after: [after('clean')] }), task('lay', 120, { after: [after('prime', 10, 20)] })]);
    const plan = planOf(asked);
    expect(faultsOfDays(asked, plan)).toEqual([]);
    expect(plan.left).toEqual([]);
    const [prime, lay] = [startOf(plan, 'prime')!, startOf(plan, 'lay')!];
    expect(lay - (prime + 10)).toBeGreaterThanOrEqual(10);
    expect(lay - (prime + 10)).toBeLessThanOrEqual(20);
    expect(lay).toBeGreaterThanOrEqual(hour(12.5));
  });
  test('one ladder is at one place at a time; a second one, and both work at once', () => {
    const tasks = ['a', 'b'].map((id) => task(id, 60, { kit: ['ladder'] }));
    const people = [person('Ines'), person('Okan')];
    const end = (count: number) => Math.max(...planOf(input(tasks, { people, kit: [{ id: 'ladder', name: 'Ladder', count }] })).placed.map((p) => p.endMin));
    expect([end(1), end(2)]).toEqual([hour(10), hour(9)]);
  });
  test('a place that opens at nine waits for nine; glass with sun on it for its good hours; something else is done meanwhile', () => {
    const places = [{ id: 'room', name: 'Waiting room', site: 'pier', open: [span(9, 18)] }, { id: 'west', name: 'West front', site: 'pier', open: null }]; // prettier-ignore
    const plan = planOf(input([task('inside', 60), task('outside', 60, { placeId: 'west', goodHours: [span(6, 11)] })], { places }));
    expect([startOf(plan, 'outside'), startOf(plan, 'inside')]).toEqual([hour(8), hour(9)]);
  });
  test('two carry a large sheet: one leads who can, the other helps', () => {
    const people = [person('Ines', { can: ['security'] }), person('Okan', { can: [] })];
    const plan = planOf(input([task('sheet', 60, { people: 2, lead: 'security' })], { people }));
    expect(plan.placed[0]!.people).toEqual(['Ines', 'Okan']);
    expect(planOf(input([task('sheet', 60, { people: 2, lead: 'security' })], { people: [people[1]!, person('Edda', { can: [] })] })).left).toEqual(['sheet']);
  });
  test('who can do less is asked first, so that the others are kept for what only they can do', () => {
    const people = [person('Ines', { can: ['security'] }), person('Okan', { can: [] })];
    const asked = input([task('any', 60), task('sheet', 60, { lead: 'security' })], { people });
    expect(layOutDays(board(asked), ['any', 'sheet']).placed.map((p) => [p.taskId, p.people[0], p.startMin])).toEqual([['any', 'Okan', 480], ['sheet', 'Ines', 480]]); // prettier-ignore
  });
  test('what a plan costs: left over, late, days, end, on the way, standing about between the first and the last of a day', () => {
    const places = [{ id: 'room', name: 'Room', site: 'pier', open: null }, { id: 'shop', name: 'Shop', site: 'street', open: null }]; // prettier-ignore
    const asked = input([task('a', 60), task('b', 60, { placeId: 'shop', dueMin: hour(10) }), task('c', 30, { placeId: 'shop' }), task('d', 30)], { places });
    const at = (taskId: string, startMin: number, minutes: number) => ({ taskId, startMin, endMin: startMin + minutes, people: ['Ines'] });
    const plan = { placed: [at('a', hour(8), 60), at('b', hour(10), 60), at('c', 1440 + hour(9), 30)], left: ['d'] };
    // half of the hour between is the way to the shop; the night is nobody’s
    expect(costOfDays(asked, plan)).toEqual([1, 60, 2, 1440 + hour(9.5), 30, 30]);
  });
  test('on the way from one site to another nobody works', () => {
    const places = [{ id: 'room', name: 'Room', site: 'pier', open: null }, { id: 'shop', name: 'Shop', site: 'street', open: null }]; // prettier-ignore
    const asked = input([task('a', 60), task('b', 60, { placeId: 'shop', after: [after('a')] })], { places });
    expect(startOf(planOf(asked), 'b')).toBe(hour(9.5));
  });
  test('what somebody put at two o’clock stays there, and the rest goes round it', () => {
    const asked = input([task('fixed', 60, { fixed: { startMin: hour(14), people: ['Ines'] } }), task('long', 150), task('short', 60)]);
    const plan = planOf(asked);
    expect(startOf(plan, 'fixed')).toBe(hour(14));
    expect(faultsOfDays(asked, plan)).toEqual([]);
    expect(plan.left).toEqual([]);
  });
  test('a ring of tasks, each after the other, is left over and nothing hangs', () => {
    const plan = planOf(input([task('a', 10, { after: [after('b')] }), task('b', 10, { after: [after('a')] }), task('c', 10)]));
    expect([[...plan.left].sort(), plan.placed.map((p) => p.taskId)]).toEqual([['a', 'b'], ['c']]);
  });
});

describe('why then', () => {
  const places = [{ id: 'room', name: 'Waiting room', site: 'pier', open: [span(9, 18)] }]; // prettier-ignore
  const of = (asked: DaysInput, id: string) =>
    whyThen(board(asked), planOf(asked))
      .get(id)!
      .map((w) => w.is);
  test('it waits for a person, for what dries, for the key, for the sun, for the ladder', () => {
    const drying = input([task('prime', 30), task('lay', 30, { after: [after('prime', 60)] })]);
    expect(whyThen(board(drying), planOf(drying)).get('lay')!).toEqual([{ is: 'after', taskId: 'prime', what: 'drying' }]);
    expect(of(input([task('a', 60)], { places }), 'a')).toEqual(['place']);
    expect(of(input([task('a', 60, { goodHours: [span(10, 12)] })]), 'a')).toEqual(['good-hours']);
    const one = input([task('a', 60), task('b', 60)]);
    expect(whyThen(board(one), planOf(one)).get('b')!).toEqual([{ is: 'people', busy: ['Ines'], away: [] }]);
    // the first of the day waits for nobody but the morning
    expect(whyThen(board(one), planOf(one)).get('a')!).toEqual([{ is: 'people', busy: [], away: ['Ines'] }]);
    const ladder = input([task('a', 60, { kit: ['ladder'] }), task('b', 60, { kit: ['ladder'] })], { people: [person('Ines'), person('Okan')], kit: [{ id: 'ladder', name: 'Ladder', count: 1 }] }); // prettier-ignore
    const second = planOf(ladder).placed[1]!.taskId;
    expect(whyThen(board(ladder), planOf(ladder)).get(second)!).toEqual([{ is: 'kit', kitId: 'ladder' }]);
  });
  test('primer is put on late because film that follows would come too late after it', () => {
    const asked = input([task('prime', 10), task('lay', 60, { goodHours: [span(10, 12)], after: [after('prime', 10, 20)] })]);
    const plan = planOf(asked);
    expect(startOf(plan, 'prime')).toBe(hour(10) - 30);
    expect(
      whyThen(board(asked), plan)
        .get('prime')!
        .map((w) => w.is),
    ).toEqual(['too-late-after']);
  });
});

describe('before this nobody ends', () => {
  test('a textbook network without people in short supply ends with its critical path (A 3, B 4 after A, C 2 after A, D 5 after B, E 1 after C, F 2 after D, G 4 after D and E, H 3 after F and G: 19; from memory)', () => {
    const [A, B, C, D, E, F, G, H] = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'] as const;
    const net = [task(A, 3), task(B, 4, { after: [after(A)] }), task(C, 2, { after: [after(A)] }), task(D, 5, { after: [after(B)] }), task(E, 1, { after: [after(C)] }), task(F, 2, { after: [after(D)] }), task(G, 4, { after: [after(D), after(E)] }), task(H, 3, { after: [after(F), after(G)] })]; // prettier-ignore
    const asked = input(net, { people: Array.from({ length: 8 }, (_, i) => person(`p${i}`, { hours: [{ fromMin: 0, toMin: 600 }] })) });
    expect(boundOfDays(board(asked))).toEqual({ endMin: 19, by: { is: 'chain', taskId: 'H' } });
    expect(Math.max(...planOf(asked).placed.map((p) => p.endMin))).toBe(19);
    // with one pair of hands all of it takes the sum
    const alone = { ...asked, people: asked.people.slice(0, 1) };
    expect(boundOfDays(board(alone))).toEqual({ endMin: 24, by: { is: 'people' } });
    expect(Math.max(...planOf(alone).placed.map((p) => p.endMin))).toBe(24);
  });
  test('with two people four hours of work that comes at nine is done at eleven; what only one of them leads, later; what is on one ladder as well', () => {
    const people = [person('Ines', { can: ['lay'] }), person('Okan', { can: [] })];
    const places = [{ id: 'room', name: 'Room', site: 'pier', open: [span(9, 18)] }]; // prettier-ignore
    const four = (more: Partial<DaysTask> = {}) => input(['a', 'b', 'c', 'd'].map((id) => task(id, 60, more)), { people, places, kit: [{ id: 'ladder', name: 'Ladder', count: 1 }] }); // prettier-ignore
    expect(boundOfDays(board(four()))).toEqual({ endMin: hour(11), by: { is: 'people' } });
    // two hands each: two at a time are one at a time
    expect(boundOfDays(board(four({ people: 2 })))).toEqual({ endMin: hour(13.5), by: { is: 'people' } });
    expect(boundOfDays(board(four({ lead: 'lay' })))).toEqual({ endMin: hour(13.5), by: { is: 'lead', lead: 'lay' } });
    expect(boundOfDays(board(four({ kit: ['ladder'] })))).toEqual({ endMin: hour(13.5), by: { is: 'kit', kitId: 'ladder' } });
  });
});

test('what may not be too old waits for what follows it, and so does all that hangs on it', () => {
  const asked = input([task('prime', 10), task('lay', 60, { goodHours: [span(10, 12)], after: [after('prime', 10, 20)] }), task('clear', 120, { after: [after('prime')] })], { people: [person('Ines'), person('Okan')] }); // prettier-ignore
  // primer at half past nine at the earliest, two hours of clearing away after it
  expect(boundOfDays(board(asked))).toEqual({ endMin: hour(9.5) + 130, by: { is: 'chain', taskId: 'clear' } });
});

describe('when it cannot be', () => {
  test('the smallest set of wishes that cannot hold together is named; each of them given up, and it can', () => {
    const places = [{ id: 'room', name: 'Room', site: 'pier', open: [span(6, 9)] }]; // prettier-ignore
    const shut = input([task('a', 120)], { places });
    expect(boundOfDays(board(shut))).toBeNull();
    expect(wishesAgainst(board(shut))).toEqual([{ taskId: 'a', wishes: ['place', 'hours'] }]);
    expect(wishesAgainst(board(input([task('a', 60, { goodHours: [span(18, 20)] })])))).toEqual([{ taskId: 'a', wishes: ['good-hours', 'hours'] }]);
    expect(wishesAgainst(board(input([task('a', 60, { dueMin: hour(8.5) })])))).toEqual([{ taskId: 'a', wishes: ['due', 'hours'] }]);
    expect(wishesAgainst(board(input([task('a', 60, { lead: 'security' })])))).toEqual([{ taskId: 'a', wishes: ['lead'] }]);
    expect(wishesAgainst(board(input([task('a', 60, { people: 2 })])))).toEqual([{ taskId: 'a', wishes: ['people'] }]);
    expect(wishesAgainst(board(input([task('a', 60, { kit: ['ladder'] })])))).toEqual([{ taskId: 'a', wishes: ['kit'] }]);
    expect(wishesAgainst(board(input([task('a', 60)])))).toEqual([]);
  });
});

/** Days as they come: several places on two sites, windows, a ladder or two, waits with and without an upper end. */
function randomDays(random: Random, size: { readonly tasks: number; readonly people: number; readonly days: number; readonly hasWays: boolean }): DaysInput {
  const some = <T>(list: readonly T[]): T => list[randomInt(random, list.length)]!;
  const days = Array.from({ length: size.days }, (_, d) => workday.map((s) => ({ fromMin: s.fromMin + d * 1440, toMin: s.toMin + d * 1440 }))).flat();
  const windows = () => Array.from({ length: size.days }, (_, d) => ({ fromMin: d * 1440 + hour(8 + randomInt(random, 3)), toMin: d * 1440 + hour(13 + randomInt(random, 4)) })); // prettier-ignore
  const places = Array.from({ length: 4 }, (_, i) => ({
    id: `room ${i}`,
    name: `Room ${i}`,
    site: i < 3 ? 'pier' : 'street',
    open: random() < 0.3 ? windows() : null,
  }));
  const tasks = Array.from({ length: size.tasks }, (_, i): DaysTask => ({
    ...task(`t${i}`, 10 + 5 * randomInt(random, 14)),
    placeId: some(places).id,
    people: random() < 0.15 ? 2 : 1,
    lead: random() < 0.3 ? some(['lay', 'security']) : null,
    kit: random() < 0.3 ? ['ladder'] : [],
    goodHours: random() < 0.25 ? windows() : null,
    after: i > 0 && random() < 0.6 ? [{ ...after(`t${randomInt(random, i)}`, some([0, 10, 60])), mostMin: random() < 0.25 ? 240 : null }] : [],
  }));
  const people = Array.from({ length: size.people }, (_, i) =>
    person(`p${i}`, { can: i === 0 ? ['lay', 'security'] : random() < 0.5 ? ['lay'] : [], hours: days }),
  );
  return { tasks, people, kit: [{ id: 'ladder', name: 'Ladder', count: 1 }], places, walkMin: size.hasWays ? 5 : 0, travelMin: size.hasWays ? 30 : 0, seed: 7 };
}

describe('whatever days come', () => {
  test('nobody and nothing is at two places, waits are held both ways, nothing lies in a shut place, fixed work stays, none is lost; nobody ends before the bound', () => {
    for (let seed = 0; seed < sampleOf(200, 40); seed++) {
      const asked = randomDays(seededRandom(seed), { tasks: 24, people: 3, days: 4, hasWays: true });
      const search = new DaysSearch(asked);
      const first = search.cost;
      expect([seed, faultsOfDays(asked, search.plan)]).toEqual([seed, []]);
      for (let i = 0; i < 25; i++) search.step();
      expect([seed, faultsOfDays(asked, search.plan)]).toEqual([seed, []]);
      expect(compareCosts(search.cost, first)).toBeLessThanOrEqual(0);
      if (search.plan.left.length === 0) expect(Math.max(...search.plan.placed.map((p) => p.endMin))).toBeGreaterThanOrEqual(search.bound!.endMin);
      // some of it fixed where it lies: it stays, and the rest is found a time
      const kept = new Set(search.plan.placed.filter((_, i) => i % 5 === 0).map((p) => p.taskId));
      const pinned = { ...asked, tasks: asked.tasks.map((t) => (kept.has(t.id) ? { ...t, fixed: search.plan.placed.find((p) => p.taskId === t.id)! } : t)) };
      const again = new DaysSearch(pinned, search.plan);
      expect([seed, faultsOfDays(pinned, again.plan)]).toEqual([seed, []]);
    }
  });
  test('same input, seed and steps: the same plan; one more person is never later, with the plan before to begin from', () => {
    for (let seed = 0; seed < sampleOf(60, 15); seed++) {
      const asked = randomDays(seededRandom(seed + 500), { tasks: 16, people: 2, days: 4, hasWays: true });
      const plan = planOf(asked, 30);
      expect(planOf(asked, 30)).toEqual(plan);
      const more = { ...asked, people: [...asked.people, person('one more', { hours: asked.people[0]!.hours })] };
      const search = new DaysSearch(more, plan);
      for (let i = 0; i < 30; i++) search.step();
      expect(compareCosts(search.cost, costOfDays(more, plan))).toBeLessThanOrEqual(0);
    }
  });
  test('nothing could begin a minute earlier without a reason: every task says why then', () => {
    for (let seed = 0; seed < sampleOf(60, 15); seed++) {
      const days = randomDays(seededRandom(seed + 900), { tasks: 16, people: 2, days: 4, hasWays: false });
      // without upper ends nothing is ever moved back, and what lies is as early as it can be
      const asked = { ...days, tasks: days.tasks.map((t) => ({ ...t, after: t.after.map((w) => ({ ...w, mostMin: null })) })) };
      const plan = layOutDays(board(asked), asked.tasks.map((t) => t.id)); // prettier-ignore
      for (const p of plan.placed) {
        const why = whyThen(board(asked), plan).get(p.taskId)!;
        expect([seed, p.taskId, why.length > 0]).toEqual([seed, p.taskId, true]);
      }
    }
  });
});

describe('against an optimum from outside', () => {
  const isIn = (spans: readonly Span[] | null, fromMin: number, toMin: number) => spans === null || spans.some((x) => x.fromMin <= fromMin && toMin <= x.toMin);
  /** The earliest end of all, as an integer programme over who begins what when. */
  function programme(asked: DaysInput, horizon: number): string {
    const vars: { name: string; t: DaysTask; at: number; team: readonly DaysPerson[] }[] = [];
    const pairs = (list: readonly DaysPerson[], n: number): DaysPerson[][] => (n === 1 ? list.map((p) => [p]) : list.flatMap((p, i) => list.slice(i + 1).map((q) => [p, q]))); // prettier-ignore
    for (const t of asked.tasks)
      for (let at = 0; at + t.minutes <= horizon; at++)
        for (const [k, team] of pairs(asked.people, t.people).entries()) {
          const place = asked.places.find((p) => p.id === t.placeId)!;
          if (!isIn(t.goodHours, at, at + t.minutes) || !isIn(place.open, at, at + t.minutes)) continue;
          if (!team.every((p) => isIn(p.hours, at, at + t.minutes)) || (t.lead !== null && !team.some((p) => p.can.includes(t.lead!)))) continue;
          vars.push({ name: `x_${t.id}_${at}_${k}`, t, at, team });
        }
    const of = (id: string) => vars.filter((v) => v.t.id === id);
    const rows = asked.tasks.map((t) => `${of(t.id).map((v) => v.name).join(' + ') || '0 z'} = 1`); // prettier-ignore
    for (const t of asked.tasks) rows.push(`${of(t.id).map((v) => `${v.at + t.minutes} ${v.name}`).join(' + ')} - z <= 0`); // prettier-ignore
    for (const t of asked.tasks)
      for (const w of t.after) {
        const terms = [...of(t.id).map((v) => `+ ${v.at} ${v.name}`), ...of(w.taskId).map((v) => `- ${v.at + v.t.minutes} ${v.name}`)].join(' ');
        rows.push(`${terms} >= ${w.leastMin}`);
        if (w.mostMin !== null) rows.push(`${terms} <= ${w.mostMin}`);
      }
    const during = (at: number) => (v: (typeof vars)[number]) => v.at <= at && at < v.at + v.t.minutes;
    for (let at = 0; at < horizon; at++) {
      for (const p of asked.people) {
        const busy = vars.filter((v) => during(at)(v) && v.team.includes(p));
        if (busy.length > 1) rows.push(`${busy.map((v) => v.name).join(' + ')} <= 1`);
      }
      for (const k of asked.kit) {
        const used = vars.filter((v) => during(at)(v) && v.t.kit.includes(k.id));
        if (used.length > 1) rows.push(`${used.map((v) => v.name).join(' + ')} <= ${k.count}`);
      }
    }
    return `Minimize\n obj: z\nSubject To\n${rows.map((r, i) => ` c${i}: ${r}`).join('\n')}\nBounds\n z >= 0\nBinary\n ${vars.map((v) => v.name).join(' ')}\nEnd`;
  }
  test('small days end as early as an integer programme says (solved with highs), and none where it finds none', async () => {
    const highs = await highsLoader();
    let [met, none] = [0, 0];
    for (let seed = 0; seed < sampleOf(60, 14); seed++) {
      const random = seededRandom(seed + 60);
      const yes = (share: number) => random() < share;
      const tasks = Array.from({ length: 6 }, (_, i) =>
        task(`t${i}`, 1 + randomInt(random, 4), {
          people: yes(0.2) ? 2 : 1,
          lead: yes(0.3) ? 'lay' : null,
          kit: yes(0.4) ? ['ladder'] : [],
          goodHours: yes(0.2) ? [{ fromMin: randomInt(random, 5), toMin: 14 }] : null,
          after: i > 0 && yes(0.6) ? [after(`t${randomInt(random, i)}`, randomInt(random, 3), yes(0.3) ? 2 + randomInt(random, 2) : null)] : [],
        }),
      );
      const hours = [{ fromMin: 0, toMin: 7 }, { fromMin: 8, toMin: 18 }]; // prettier-ignore
      const asked = input(tasks, { people: [person('p0', { hours }), person('p1', { hours, can: [] }), person('p2', { hours: [{ fromMin: 3, toMin: 16 }], can: [] })].slice(0, 2 + (seed % 2)), kit: [{ id: 'ladder', name: 'Ladder', count: 1 }] }); // prettier-ignore
      const solved = highs.solve(programme(asked, 18));
      const plan = planOf(asked, 400);
      expect([seed, faultsOfDays(asked, plan)]).toEqual([seed, []]);
      if (solved.Status !== 'Optimal') {
        none++;
        expect([seed, plan.left.length > 0]).toEqual([seed, true]);
        continue;
      }
      expect([seed, plan.left]).toEqual([seed, []]);
      expect([seed, Math.max(...plan.placed.map((p) => p.endMin))]).toEqual([seed, Math.round(solved.ObjectiveValue)]);
      expect(boundOfDays(board(asked))!.endMin).toBeLessThanOrEqual(Math.round(solved.ObjectiveValue));
      met++;
    }
    expect(met).toBeGreaterThan(none);
  });
});

describe('by figures alone', () => {
  /** Thursday at Tern Point: Ines and Okan, one platform, a waiting room that opens at nine, primer that may be an hour old at most, sun on the west front from noon. */
  const thursday: DaysPlanInput = {
    from: '2026-12-10',
    tasks: [
      { id: 'clean', name: 'Clean W1', minutes: 30, people: 1, lead: null, placeId: 'waiting', kit: [], goodHours: null, after: [], dueMin: null, fixed: null },
      { id: 'prime', name: 'Prime W1', minutes: 15, people: 1, lead: null, placeId: 'waiting', kit: [], goodHours: null, after: [{ taskId: 'clean', leastMin: 0, mostMin: null, what: '' }], dueMin: null, fixed: null },
      { id: 'lay', name: 'Lay W1', minutes: 60, people: 2, lead: 'security', placeId: 'waiting', kit: ['platform'], goodHours: null, after: [{ taskId: 'prime', leastMin: 20, mostMin: 60, what: 'primer dries' }], dueMin: null, fixed: null },
      { id: 'west', name: 'West front', minutes: 90, people: 1, lead: null, placeId: 'west', kit: ['platform'], goodHours: [{ fromMin: 480, toMin: 720 }], after: [], dueMin: null, fixed: null },
    ],
    people: [{ id: 'ines', name: 'Ines', can: ['security'], hours: [{ fromMin: 480, toMin: 720 }, { fromMin: 750, toMin: 990 }] }, { id: 'okan', name: 'Okan', can: [], hours: [{ fromMin: 750, toMin: 990 }, { fromMin: 480, toMin: 720 }] }],
    kit: [{ id: 'platform', name: 'the platform ladder', count: 1 }],
    places: [{ id: 'waiting', name: 'Waiting room', site: 'pier', open: [{ fromMin: 540, toMin: 1080 }] }, { id: 'west', name: 'West front', site: 'pier', open: null }],
    walkMin: 5,
    travelMin: 30,
    seed: 1,
    steps: 60,
  }; // prettier-ignore
  const of = (more: Partial<DaysPlanInput>) => daysCard({ ...thursday, ...more });
  test('a Thursday with two: the west front before the sun, the waiting room from nine, primer dry and not too old; each says why then', () => {
    const answer = of({});
    expect(answer).toMatchObject({ doubt: null, left: [], days: 1 });
    const at = (id: string) => answer.placed.find((p) => p.taskId === id)!;
    expect(at('west').text).toBe('West front: Thursday 10, 08:00, Okan.');
    expect(at('clean')).toMatchObject({ startMin: 540, text: 'Clean W1: Thursday 10, 09:00, Ines.', why: ['Its place is not open before.'] });
    expect(at('lay')).toMatchObject({ startMin: 605, people: ['ines', 'okan'], why: ['It waits for Prime W1: primer dries.'] });
    expect(answer.endMin).toBe(665);
    expect(answer.bound).toEqual({ endMin: 665, text: 'It cannot be done before Thursday 10, 11:05: work and waits up to Lay W1 take so long one after the other, however many help.' }); // prettier-ignore
  });
  test('what somebody put outside its good hours lies there and is warned of; what cannot be as it was put is said, and nothing is made up', () => {
    const put = (startMin: number, people: string[]) => thursday.tasks.map((t) => (t.id === 'west' ? { ...t, fixed: { startMin, people } } : t));
    expect(of({ tasks: put(780, ['okan']) }).placed.find((p) => p.taskId === 'west')!.why).toEqual(['It was put there.', 'It lies outside its good hours.']);
    expect(of({ tasks: put(700, ['okan']) })).toMatchObject({
      doubt: 'As it was put it cannot be: Okan is not there for all of West front.',
      placed: [],
      bound: null,
    });
    expect(of({ tasks: put(700, ['okan', 'ines']) }).doubt).toContain('wants 1 people and was given to 2');
  });
  test('what finds no time says which of its wishes cannot hold together, or that the rest leaves it none', () => {
    const shut = of({ places: thursday.places.map((p) => (p.id === 'waiting' ? { ...p, open: [{ fromMin: 0, toMin: 60 }] } : p)) });
    expect(shut.bound).toBeNull();
    expect(shut.left.find((l) => l.taskId === 'clean')!.text).toBe('Clean W1 can be done at no time: when its place is open and the hours in which somebody is there cannot hold together. Give one of them up.'); // prettier-ignore
    const full = of({ tasks: Array.from({ length: 5 }, (_, i) => ({ ...thursday.tasks[0]!, id: `t${i}`, name: `T${i}`, minutes: 240 })) });
    expect(full.left.map((l) => l.text)).toContainEqual(expect.stringContaining('finds no time beside the rest'));
    expect(full.bound).toEqual({ endMin: null, text: 'It cannot all be done in these hours with two: there is so much work.' });
  });
  test('what ends after it is due is told, by how much, and whether any plan had it in time', () => {
    const due = (dueMin: number, more: object = {}) => of({ tasks: thursday.tasks.map((t) => (t.id === 'clean' ? { ...t, dueMin, ...more } : t)) }).late;
    expect(due(570)).toEqual([]);
    expect(due(560)).toEqual([{ taskId: 'clean', byMin: 10, text: 'Clean W1 ends 10 min after it is due, and no plan has it in time: when its place is open and when it is due cannot hold together.' }]); // prettier-ignore
    // due with the other at one time, and one pair of hands
    const both = ['a', 'b'].map((id) => ({ ...thursday.tasks[0]!, id, name: id, dueMin: 570 }));
    expect(of({ tasks: both, people: thursday.people.slice(0, 1) }).late).toEqual([{ taskId: expect.any(String), byMin: 30, text: expect.stringMatching(/^[ab] ends 30 min after it is due: more hands/) }]); // prettier-ignore
  });
  test('what names nobody and nothing, or is there twice, is asked for in a sentence', () => {
    const doubt = (more: object) => of({ tasks: [{ ...thursday.tasks[0]!, ...more }] }).doubt;
    expect(doubt({ placeId: 'roof' })).toBe('“clean” is done at “roof”, and no such place is among them.');
    expect(doubt({ kit: ['steamer'] })).toContain('needs “steamer”');
    expect(doubt({ after: [{ taskId: 'gone', leastMin: 0, mostMin: null, what: '' }] })).toContain('follows “gone”');
    expect(of({ tasks: [...thursday.tasks, thursday.tasks[0]!] }).doubt).toContain('two of the task “clean”');
    const turned = thursday.tasks.map((t) => (t.id === 'lay' ? { ...t, after: [{ ...t.after[0]!, leastMin: 90 }] } : t));
    expect(of({ tasks: turned }).doubt).toContain('at least 90 min after “prime”, and at most 60');
    expect(doubt({ fixed: { startMin: 540, people: ['edda'] } })).toContain('nobody of that id');
  });
  test('hours that touch are one stretch, in whatever order they are handed in', () => {
    const people = [{ ...thursday.people[0]!, hours: [{ fromMin: 600, toMin: 720 }, { fromMin: 480, toMin: 600 }, { fromMin: 700, toMin: 700 }] }]; // prettier-ignore
    const long = of({ people, tasks: [{ ...thursday.tasks[3]!, minutes: 200 }] });
    expect(long.placed.map((p) => p.startMin)).toEqual([480]);
  });
  test('a minute is told by its day', () => {
    expect([minuteName('2026-12-10', 0), minuteName('2026-12-31', 1440 + 545)]).toEqual(['Thursday 10, 00:00', 'Friday 1, 09:05']);
  });
});
