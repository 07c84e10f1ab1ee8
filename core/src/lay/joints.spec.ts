import { alg, Graph } from '@dagrejs/graphlib';
import fc from 'fast-check';
import type { Masonry } from '@yellow-pane/contracts';
import { jointsOf } from '../measure/index.js';
import { jointGraph, otherEnd, type JointedPanel, type JointGraph } from './joint-graph.js';
import { breathingOrder, planJoints, planPair } from './joint-plan.js';
import { airWay } from './joint-air.js';
import { replayJoints, type CrossingRule, type JointStroke } from './joint-replay.js';

const blocks: Masonry = {
  unit: 'block',
  pitchAcrossMm: 400,
  pitchUpMm: 200,
  jointMm: 10,
  jointDepthMm: 4,
  bond: 'running',
  firstBedMm: 200,
  firstHeadMm: 400,
  texture: 'medium',
  courses: null,
  unitsInFirstCourse: null,
};
const free = { left: 'free', right: 'free', foot: 'free', top: 'free' } as const;
const wallOf = (widthMm: number, heightMm: number, more: Partial<JointedPanel> = {}): JointedPanel => ({
  masonry: blocks,
  wall: { widthMm, heightMm },
  panel: { leftMm: 0, rightMm: widthMm, footMm: 0, topMm: heightMm },
  borders: free,
  obstacles: [],
  ...more,
});
const press = (from: number, ...segments: number[]): JointStroke => ({ does: 'press', from, segments });
const of = (graph: JointGraph, way: 'bed' | 'head', level: number) => graph.segments.flatMap((s, i) => (s.way === way && s.level === level ? [i] : []));

/** By the words of the rule alone, one segment after the other, everything looked at anew each time. */
function slowly(graph: JointGraph, presses: readonly { segment: number; to: number }[], rule: CrossingRule): number[] {
  const { nodes, segments } = graph;
  const pressed = new Set<number>();
  const shutNodes = new Set<number>();
  const trapped = new Set<number>();
  const isPair = (n: number) => [[nodes[n]!.at.east, nodes[n]!.at.west], [nodes[n]!.at.north, nodes[n]!.at.south]].some(([p, q]) => p !== null && q !== null && pressed.has(p!) && pressed.has(q!)); // prettier-ignore
  const gets = (start: number, by: number | null): boolean => {
    const [seen, line] = [new Set([start]), [start]];
    while (line.length) {
      const n = line.pop()!;
      if (nodes[n]!.is === 'exit') return true;
      if (shutNodes.has(n) && !(n === start && by !== null)) continue;
      for (const s of Object.values(nodes[n]!.at)) {
        if (s === null || pressed.has(s) || s === by || (shutNodes.has(n) && n === start)) continue;
        const m = otherEnd(segments[s]!, n);
        if (!seen.has(m)) { seen.add(m); line.push(m); }
      }
    }
    return false;
  }; // prettier-ignore
  for (const { segment, to } of presses) {
    const from = otherEnd(segments[segment]!, to);
    pressed.add(segment);
    if (rule === 'strict' && isPair(from)) shutNodes.add(from);
    if (!shutNodes.has(to) ? !gets(to, segment) : nodes[to]!.is !== 'exit') trapped.add(segment);
    if (rule === 'strict' && isPair(to)) shutNodes.add(to);
    segments.forEach((s, i) => {
      if (pressed.has(i)) return;
      // through either end that is not shut; at a shut one its own mouth is closed
      const out = [s.a, s.b].some((n) => nodes[n]!.is === 'exit' || (!shutNodes.has(n) && gets(n, i)));
      if (!out) trapped.add(i);
    });
  }
  return [...trapped].sort((a, b) => a - b);
}

describe('CHECKS: mortar joints', () => {
  const graph = jointGraph(wallOf(700, 600, { masonry: { ...blocks, firstHeadMm: 200 + 150, pitchAcrossMm: 1400 } }));
  test('1: head first, then both beds from the middle outwards: nothing is shut in; both beds first: the head is, at the latest with the last stroke of the second', () => {
    const g = jointGraph(wallOf(700, 600, { masonry: { ...blocks, pitchAcrossMm: 700, firstHeadMm: 700 } }));
    const [only, ...rest] = g.segments.flatMap((s, i) => (s.way === 'head' ? [i] : []));
    expect(rest).toEqual([]);
    const { a, b } = g.segments[only!]!;
    const outwards = (n: number): JointStroke[] => [press(n, g.nodes[n]!.at.east!), press(n, g.nodes[n]!.at.west!)];
    expect(replayJoints(g, [press(a, only!), ...outwards(a), ...outwards(b)])).toEqual({ isClean: true, trapped: [], left: [], broken: [] });
    const late = replayJoints(g, [...outwards(a), ...outwards(b), press(a, only!)]);
    expect(late.trapped).toEqual([{ segment: only, atStroke: 3, why: 'cut-off' }]);
  });
  test('2: the last piece of a bed rolled towards the border lets its air out; towards the sealed middle it shuts its own in', () => {
    const g = jointGraph(
      wallOf(700, 400, { masonry: { ...blocks, pitchAcrossMm: 700, firstHeadMm: 350 }, borders: { ...free, foot: 'closed', top: 'closed', left: 'closed' } }),
    );
    const bed = of(g, 'bed', 0);
    const middle = otherEnd(g.segments[bed[0]!]!, g.segments[bed[0]!]!.a);
    const heads = g.segments.flatMap((s, i) => (s.way === 'head' ? [i] : []));
    const first: JointStroke[] = [...heads.map((h) => press(otherEnd(g.segments[h]!, middle), h)), press(g.segments[bed[0]!]!.a, bed[0]!)];
    expect(replayJoints(g, [...first, press(middle, bed[1]!)]).isClean).toBe(true);
    const right = g.segments[bed[1]!]!.b;
    expect(replayJoints(g, [...first, press(right, bed[1]!)]).trapped).toEqual([{ segment: bed[1], atStroke: first.length, why: 'dead-end' }]);
  });
  test('3: every border crossing sealed first shuts every segment in', () => {
    const exits = graph.nodes.flatMap((n, i) => (n.is === 'exit' ? [i] : []));
    const v = replayJoints(graph, [{ does: 'seal', exits }]);
    expect(v.trapped).toHaveLength(graph.segments.length);
    expect(new Set(v.trapped.map((t) => t.why))).toEqual(new Set(['sealed']));
    expect(v.trapped.every((t) => t.atStroke === 0)).toBe(true);
  });
  test('4: stack bond: all beds first shuts the heads between two of them in where a crossing is pressed shut, and does not where it is not', () => {
    const g = jointGraph(wallOf(1200, 600, { masonry: { ...blocks, bond: 'stack' } }));
    const beds = [0, 1].flatMap((level): JointStroke[] => {
      const bed = of(g, 'bed', level);
      return [press(g.segments[bed[0]!]!.a, ...bed)];
    });
    const middles = of(g, 'head', 1);
    expect(middles).toHaveLength(2);
    expect(replayJoints(g, beds, 'strict').trapped.map((t) => t.segment)).toEqual(middles);
    expect(replayJoints(g, beds, 'lenient').trapped).toEqual([]);
  });
});

const anyWall = fc.record({
  wide: fc.integer({ min: 500, max: 1700 }),
  high: fc.integer({ min: 250, max: 900 }),
  bond: fc.constantFrom('running', 'thirds', 'stack'),
  firstHead: fc.integer({ min: 0, max: 400 }),
  firstBed: fc.integer({ min: 40, max: 200 }),
  borders: fc.record({
    left: fc.constantFrom('free', 'closed'),
    right: fc.constantFrom('free', 'closed'),
    foot: fc.constantFrom('free', 'closed'),
    top: fc.constantFrom('free', 'closed'),
  }),
  holes: fc.array(
    fc.record({
      leftMm: fc.integer({ min: 0, max: 1400 }),
      footMm: fc.integer({ min: 0, max: 800 }),
      widthMm: fc.integer({ min: 20, max: 400 }),
      heightMm: fc.integer({ min: 20, max: 300 }),
      isOpen: fc.boolean(),
    }),
    { maxLength: 2 },
  ),
  goesRound: fc.boolean(),
}) as fc.Arbitrary<{
  wide: number;
  high: number;
  bond: Masonry['bond'];
  firstHead: number;
  firstBed: number;
  borders: JointedPanel['borders'];
  holes: JointedPanel['obstacles'];
  goesRound: boolean;
}>;
const made = (w: {
  wide: number;
  high: number;
  bond: Masonry['bond'];
  firstHead: number;
  firstBed: number;
  borders: JointedPanel['borders'];
  holes: JointedPanel['obstacles'];
  goesRound: boolean;
}) =>
  jointGraph(
    wallOf(w.wide, w.high, {
      masonry: { ...blocks, bond: w.bond, firstHeadMm: w.firstHead, firstBedMm: w.firstBed },
      borders: w.borders,
      obstacles: w.holes,
      goesRound: w.goesRound,
    }),
  );

describe('replay', () => {
  test('says of any order what the rule says, looked at anew at every stroke', () =>
    fc.assert(
      fc.property(anyWall, fc.constantFrom('strict', 'lenient'), fc.infiniteStream(fc.nat()), (w, rule, dice) => {
        const g = made(w);
        if (g.segments.length === 0 || g.segments.some((s) => s.a === s.b)) return;
        const [left, order] = [g.segments.map((_s, i) => i), [] as { segment: number; to: number }[]];
        const it = dice[Symbol.iterator]();
        const roll = (n: number) => (it.next().value as number) % n;
        for (let k = Math.min(left.length, 14); k > 0; k--) {
          const [segment] = left.splice(roll(left.length), 1);
          const s = g.segments[segment!]!;
          order.push({ segment: segment!, to: roll(2) ? s.a : s.b });
        }
        const strokes = order.map(({ segment, to }) => press(otherEnd(g.segments[segment]!, to), segment));
        expect(replayJoints(g, strokes, rule as CrossingRule).trapped.map((t) => t.segment).sort((a, b) => a - b)).toEqual(slowly(g, order, rule as CrossingRule)); // prettier-ignore
      }),
      { numRuns: 300 },
    ));
});

describe('plan', () => {
  test('every planned order passes the replay, and presses everything; where some is shut in, it does once it is pierced', () =>
    fc.assert(
      fc.property(anyWall, fc.constantFrom('strict', 'lenient'), (w, rule) => {
        const g = made(w);
        const plan = planJoints(g, { rule: rule as CrossingRule });
        const done = plan.strokes.flatMap((s) => (s.does === 'press' ? s.segments : []));
        expect([...done].sort((a, b) => a - b)).toEqual(g.segments.map((_s, i) => i));
        const v = replayJoints(g, plan.strokes, rule as CrossingRule, plan.pierces);
        expect(v).toEqual({ isClean: true, trapped: [], left: [], broken: [] });
        expect(plan.walkMm).toBeGreaterThanOrEqual(plan.leastWalkMm - 1e-6);
      }),
      { numRuns: 300 },
    ));
  test('a wall and its mirror image: what can be pressed in the one can in the other, and either order passes the replay', () =>
    fc.assert(
      fc.property(anyWall, fc.constantFrom('strict', 'lenient'), (w, asked) => {
        const [g, rule] = [made(w), asked as CrossingRule];
        // seen from behind: right is left, and every level joint begins at its other end
        const mirror: JointGraph = {
          nodes: g.nodes.map((n) => ({ ...n, xMm: w.wide - n.xMm, side: n.side === 'left' ? 'right' : n.side === 'right' ? 'left' : n.side, at: { ...n.at, east: n.at.west, west: n.at.east } })),
          segments: g.segments.map((s) => (s.way === 'bed' ? { ...s, a: s.b, b: s.a } : s)),
        };
        const [own, other] = [planJoints(g, { rule }), planJoints(mirror, { rule })];
        expect(replayJoints(mirror, other.strokes, rule, other.pierces)).toEqual({ isClean: true, trapped: [], left: [], broken: [] });
        expect(new Set(other.shutIn)).toEqual(new Set(own.shutIn));
        expect(other.leastWalkMm).toBeCloseTo(own.leastWalkMm, 6);
        // the same strokes do the same in either
        const verdict = (graph: JointGraph) => replayJoints(graph, own.strokes, rule).trapped;
        expect(verdict(mirror)).toEqual(verdict(g));
      }),
      { numRuns: 150 },
    )); // prettier-ignore
  test('small walls, every order there is: one is found where there is one, and where there is none that is said', () => {
    const tried = { found: 0, none: 0 };
    fc.assert(
      fc.property(anyWall, fc.constantFrom('strict', 'lenient'), (w, rule) => {
        const g = made({ ...w, wide: Math.min(w.wide, 900), high: Math.min(w.high, 420) });
        if (g.segments.length === 0 || g.segments.length > 9 || g.segments.some((s) => s.a === s.b)) return;
        const exists = anyOrder(g, rule as CrossingRule);
        const found = breathingOrder(g, { rule: rule as CrossingRule, open: g.nodes.flatMap((n, i) => (n.is === 'exit' ? [i] : [])), rank: () => 0 }).length === g.segments.length; // prettier-ignore
        expect(found).toBe(exists);
        tried[exists ? 'found' : 'none']++;
      }),
      { numRuns: 400 },
    );
    expect(Math.min(tried.found, tried.none)).toBeGreaterThan(10);
  });
});

describe('the joints beneath a panel', () => {
  const lengthMm = (g: JointGraph) => g.segments.reduce((s, x) => s + x.lengthMm, 0);
  test('all of them, and no more: as long as the joints of the wall; a panel of half of it has those beneath it', () => {
    for (const bond of ['running', 'thirds', 'stack'] as const) {
      const masonry = { ...blocks, bond, firstHeadMm: 130, firstBedMm: 70 };
      expect(lengthMm(jointGraph(wallOf(3000, 1500, { masonry })))).toBeCloseTo(1000 * jointsOf(masonry, { widthMm: 3000, heightMm: 1500 }).lengthM, 6);
    }
    const half = (leftMm: number, rightMm: number) => lengthMm(jointGraph(wallOf(3000, 1500, { panel: { leftMm, rightMm, footMm: 0, topMm: 1500 } })));
    expect(half(0, 1550) + half(1550, 3000)).toBeCloseTo(half(0, 3000), 6);
  });
  test('crossings are where they meet: three joints in running bond, four in stack bond; what leaves the panel is an exit only beneath a free edge', () => {
    const degrees = (bond: Masonry['bond']) => new Set(jointGraph(wallOf(3000, 1500, { masonry: { ...blocks, bond } })).nodes.filter((n) => n.is === 'crossing').map((n) => Object.values(n.at).filter((s) => s !== null).length)); // prettier-ignore
    expect(degrees('running')).toEqual(new Set([3]));
    expect(degrees('stack')).toEqual(new Set([4]));
    const kinds = (borders: JointedPanel['borders']) => jointGraph(wallOf(3000, 1500, { borders })).nodes.filter((n) => n.xMm === 0).map((n) => n.is); // prettier-ignore
    expect(new Set(kinds(free))).toEqual(new Set(['exit']));
    expect(new Set(kinds({ ...free, left: 'closed' }))).toEqual(new Set(['end']));
  });
  test('a border that runs along a joint is that joint; an outlet parts those it stands in, and lets air out while its hole is open', () => {
    const along = jointGraph(wallOf(1200, 600, { panel: { leftMm: 0, rightMm: 1200, footMm: 203, topMm: 600 } }));
    expect(new Set(along.segments.filter((s) => s.way === 'bed').map((s) => s.level))).toEqual(new Set([1]));
    const outlet = (isOpen: boolean) => jointGraph(wallOf(1200, 600, { obstacles: [{ leftMm: 500, footMm: 150, widthMm: 80, heightMm: 80, isOpen }] }));
    expect(lengthMm(outlet(false))).toBeCloseTo(lengthMm(jointGraph(wallOf(1200, 600))) - 80, 6);
    expect(outlet(false).nodes.filter((n) => n.is === 'end')).toHaveLength(2);
    expect(outlet(true).nodes.filter((n) => n.is === 'end')).toHaveLength(0);
  });
  test('round a column a bed meets itself: it has no end at left and right', () => {
    const g = jointGraph(wallOf(1200, 600, { goesRound: true }));
    expect(g.nodes.filter((n) => n.is !== 'crossing').every((n) => n.yMm === 0 || n.yMm === 600)).toBe(true);
    expect(g.segments.filter((s) => s.way === 'bed' && s.level === 0).reduce((s, x) => s + x.lengthMm, 0)).toBe(1200);
  });
});

describe('against a general graph library', () => {
  const asGraph = (g: JointGraph, without: ReadonlySet<number> = new Set()): Graph => {
    const out = new Graph({ directed: false, multigraph: true });
    g.nodes.forEach((_n, i) => out.setNode(String(i)));
    g.segments.forEach((s, i) => without.has(i) || out.setEdge(String(s.a), String(s.b), i, String(i)));
    return out;
  };
  const area = (w: number, h: number) => ({ wide: w, high: h });
  test('as many faces as Euler’s formula says, in as many parts as the library counts: blocks beneath a panel are what its joints and its border part', () => {
    for (const bond of ['running', 'thirds', 'stack'] as const)
      for (const { wide, high } of [area(3000, 1500), area(1350, 2600)]) {
        const masonry = { ...blocks, bond, firstHeadMm: 130, firstBedMm: 70 };
        const g = jointGraph(wallOf(wide, high, { masonry }));
        // the border joins the exits to a ring
        const border = asGraph(g);
        const exits = g.nodes.flatMap((n, i) => (n.is === 'exit' ? [i] : []));
        exits.forEach((n, i) => border.setEdge(String(n), String(exits[(i + 1) % exits.length]!), 'border', `b${i}`));
        const parts = alg.components(border).length;
        expect(parts).toBe(1);
        const faces = border.edgeCount() - border.nodeCount() + parts + 1;
        const units = jointsOf(masonry, { widthMm: wide, heightMm: high }).courses.reduce((s, c) => s + c.units.length, 0);
        expect(faces - 1).toBe(units);
      }
  });
  test('by the lenient rule what is not pressed breathes exactly where the library finds its part to hold an exit', () =>
    fc.assert(
      fc.property(anyWall, fc.infiniteStream(fc.nat()), (w, dice) => {
        const g = made(w);
        if (g.segments.length === 0 || g.segments.some((s) => s.a === s.b)) return;
        const it = dice[Symbol.iterator]();
        const taken = new Set(g.segments.flatMap((_s, i) => ((it.next().value as number) % 3 === 0 ? [i] : [])));
        const strokes = [...taken].map((i) => press(g.segments[i]!.a, i));
        const parts = alg.components(asGraph(g, taken));
        const breathing = new Set(parts.filter((c) => c.some((n) => g.nodes[Number(n)]!.is === 'exit')).flat());
        const shut = g.segments.flatMap((s, i) => (!taken.has(i) && !breathing.has(String(s.a)) ? [i] : []));
        const said = replayJoints(g, strokes, 'lenient').trapped.map((t) => t.segment).filter((s) => !taken.has(s)); // prettier-ignore
        expect(said.sort((a, b) => a - b)).toEqual(shut);
      }),
      { numRuns: 200 },
    ));
  test('the way of the air is as short as the library’s shortest one, and there is none exactly where a stroke shuts its own air in', () =>
    fc.assert(
      fc.property(anyWall, fc.infiniteStream(fc.nat()), (w, dice) => {
        const g = made(w);
        if (g.segments.length < 3 || g.segments.some((s) => s.a === s.b)) return;
        const it = dice[Symbol.iterator]();
        const roll = (n: number) => (it.next().value as number) % n;
        const [left, strokes] = [g.segments.map((_s, i) => i), [] as JointStroke[]];
        for (let k = Math.min(6, left.length); k > 0; k--) {
          const [s] = left.splice(roll(left.length), 1);
          strokes.push(press(roll(2) ? g.segments[s!]!.a : g.segments[s!]!.b, s!));
        }
        const done = new Set<number>();
        strokes.forEach((s, i) => {
          const own = s.does === 'press' ? s.segments[0]! : -1;
          done.add(own);
          const to = otherEnd(g.segments[own]!, s.does === 'press' ? s.from : -1);
          const far = alg.dijkstra(asGraph(g, done), String(to), undefined, (n) => asGraph(g, done).nodeEdges(n) ?? []);
          const best = Math.min(...g.nodes.map((n, at) => (n.is === 'exit' ? far[String(at)]!.distance : Infinity)));
          const way = airWay(g, strokes, i, 'lenient');
          expect(way === null ? Infinity : way.length - 1).toBe(best);
        });
        for (const rule of ['strict', 'lenient'] as const) {
          const dead = new Set(replayJoints(g, strokes, rule).trapped.filter((t) => t.why === 'dead-end').map((t) => t.atStroke)); // prettier-ignore
          // what others had shut in before it has no way either
          strokes.forEach((_s, i) => dead.has(i) && expect(airWay(g, strokes, i, rule)).toBeNull());
          if (replayJoints(g, strokes, rule).isClean) strokes.forEach((_s, i) => expect(airWay(g, strokes, i, rule)).not.toBeNull());
        }
      }),
      { numRuns: 60 },
    ));
});

describe('the border', () => {
  const exitsOf = (g: JointGraph) => g.nodes.flatMap((n, i) => (n.is === 'exit' ? [i] : []));
  test('is sealed where joints leave, every exit once, and never before the air that goes out there', () => {
    const g = jointGraph(wallOf(1350, 2600));
    const plan = planJoints(g);
    const sealed = plan.strokes.flatMap((s) => (s.does === 'seal' ? s.exits : []));
    expect([...sealed].sort((a, b) => a - b)).toEqual(exitsOf(g));
    expect(replayJoints(g, plan.strokes)).toEqual({ isClean: true, trapped: [], left: [], broken: [] });
    // in the place where one stands, not in a round of its own
    expect(plan.zones).toHaveLength(2);
    expect(plan.climbs).toBe(1);
  });
  test('the hole of an outlet is no border: its cover goes on, nobody seals it', () => {
    const g = jointGraph(wallOf(1350, 900, { obstacles: [{ leftMm: 500, footMm: 150, widthMm: 80, heightMm: 80, isOpen: true }] }));
    const holes = g.nodes.flatMap((n, i) => (n.side === 'hole' ? [i] : []));
    expect(holes).toHaveLength(2);
    const sealed = new Set(planJoints(g).strokes.flatMap((s) => (s.does === 'seal' ? s.exits : [])));
    expect(holes.some((h) => sealed.has(h))).toBe(false);
  });
  test('set first, all of it, every joint is shut in; pierced once inside the wall they can be pressed out', () => {
    const g = jointGraph(wallOf(1350, 2600));
    const plan = planJoints(g, { border: 'set-first' });
    expect(plan.shutIn).toHaveLength(g.segments.length);
    const first = plan.strokes.findIndex((s) => s.does === 'press');
    expect(plan.strokes.slice(0, first).flatMap((s) => (s.does === 'seal' ? s.exits : [])).sort((a, b) => a - b)).toEqual(exitsOf(g)); // prettier-ignore
    expect(replayJoints(g, plan.strokes).trapped.filter((t) => t.why === 'sealed')).toHaveLength(g.segments.length);
    expect(plan.pierces.length).toBeGreaterThan(0);
    expect(replayJoints(g, plan.strokes, 'strict', plan.pierces)).toEqual({ isClean: true, trapped: [], left: [], broken: [] });
  });
});

describe('from what was done on', () => {
  test('whatever was done, in whatever order: the rest is pressed so that nothing more is shut in than was already, or than had no way left', () =>
    fc.assert(
      fc.property(anyWall, fc.infiniteStream(fc.nat()), (w, dice) => {
        const g = made(w);
        if (g.segments.length === 0 || g.segments.some((s) => s.a === s.b)) return;
        const it = dice[Symbol.iterator]();
        const roll = (n: number) => (it.next().value as number) % n;
        const [left, done] = [g.segments.map((_s, i) => i), [] as JointStroke[]];
        for (let k = roll(left.length + 1); k > 0; k--) {
          const [s] = left.splice(roll(left.length), 1);
          done.push(press(roll(2) ? g.segments[s!]!.a : g.segments[s!]!.b, s!));
        }
        const plan = planJoints(g, { done });
        const pressed = plan.strokes.flatMap((s) => (s.does === 'press' ? s.segments : []));
        expect([...pressed].sort((a, b) => a - b)).toEqual(left);
        // what was shut in before is named for the needle, whether it is pressed or not
        const before = replayJoints(g, done);
        for (const t of before.trapped) expect(plan.shutIn).toContain(t.segment);
        const after = replayJoints(g, [...done, ...plan.strokes], 'strict', plan.pierces);
        const known = new Set(before.trapped.map((t) => t.segment));
        expect(after.trapped.filter((t) => t.atStroke >= done.length && !known.has(t.segment))).toEqual([]);
        expect(after.left).toEqual([]);
        expect(after.broken).toEqual([]);
      }),
      { numRuns: 200 },
    ));
  test('of an order that was broken off the rest goes on from there, with nothing to pierce', () => {
    const g = jointGraph(wallOf(5000, 2600));
    const whole = planJoints(g);
    const done = whole.strokes.slice(0, 100);
    const rest = planJoints(g, { done });
    expect(rest.pierces).toEqual([]);
    expect(replayJoints(g, [...done, ...rest.strokes])).toEqual({ isClean: true, trapped: [], left: [], broken: [] });
  });
});

describe('walking', () => {
  const least = (more: Partial<JointedPanel> = {}) => planJoints(jointGraph(wallOf(10_000, 3000, more)));
  test('ten metres by three, from the floor and from a platform: to the other end, up, and back; nobody walks less', () => {
    const p = least();
    expect(p).toMatchObject({ climbs: 1, shutIn: [], pierces: [] });
    expect(p.walkMm).toBeCloseTo(p.leastWalkMm, 6);
    expect(p.zones).toHaveLength(14);
    // each place once
    expect(new Set(p.zones.map((z) => `${z.band}/${z.fromMm}`)).size).toBe(14);
  });
  test('a panel that begins far from the left end is walked as one that begins there', () => {
    const far = planJoints(jointGraph(wallOf(15_000, 3000, { panel: { leftMm: 10_000, rightMm: 15_000, footMm: 0, topMm: 3000 } })));
    const near = planJoints(jointGraph(wallOf(5000, 3000)));
    expect(far.walkMm).toBeCloseTo(near.walkMm, 6);
    expect(far.zones.map((z) => [z.band, z.fromMm - 10_000])).toEqual(near.zones.map((z) => [z.band, expect.closeTo(z.fromMm, 6)]));
  });
  test('where only the right edge is free, the lower band is swept away from it: its air goes up the heads and out above', () => {
    const p = least({ borders: { left: 'closed', right: 'free', foot: 'closed', top: 'closed' } });
    expect(p.walkMm).toBeCloseTo(p.leastWalkMm, 6);
    expect(p.zones[0]).toMatchObject({ band: 0, toMm: expect.closeTo(10_000, 6) as number });
    expect(p.zones.at(-1)).toMatchObject({ band: 1, toMm: expect.closeTo(10_000, 6) as number });
  });
  test('shut all round: it is pierced once, at its lowest place', () => {
    const p = least({ borders: { left: 'closed', right: 'closed', foot: 'closed', top: 'closed' } });
    expect(p.pierces).toHaveLength(1);
    expect(p.pierces[0]).toMatchObject({ yMm: 0 });
    expect(p.shutIn.length).toBeGreaterThan(700);
  });
});

/** Whether any order of all segments is clean: tried by hand, with what was tried remembered. */
function anyOrder(g: JointGraph, rule: CrossingRule): boolean {
  const n = g.segments.length;
  const dead = new Set<number>();
  const from = (mask: number, order: { segment: number; to: number }[]): boolean => {
    if (mask === (1 << n) - 1) return true;
    if (dead.has(mask)) return false;
    for (let s = 0; s < n; s++) {
      if (mask & (1 << s)) continue;
      for (const to of [g.segments[s]!.a, g.segments[s]!.b]) {
        const next = [...order, { segment: s, to }];
        if (slowly(g, next, rule).length === 0 && from(mask | (1 << s), next)) return true;
      }
    }
    dead.add(mask);
    return false;
  };
  return from(0, []);
}

describe('two people at one panel', () => {
  /** A stroke bit by bit, as it is on its way while the other one works. */
  const bits = (g: JointGraph, strokes: readonly JointStroke[]): JointStroke[] =>
    strokes.flatMap((s): JointStroke[] => {
      if (s.does === 'seal') return s.exits.map((n) => ({ does: 'seal', exits: [n] }));
      let at = s.from;
      return s.segments.map((i): JointStroke => {
        const from = at;
        at = otherEnd(g.segments[i]!, at);
        return press(from, i);
      });
    });
  const mixed = (a: readonly JointStroke[], b: readonly JointStroke[], roll: (n: number) => number): JointStroke[] => {
    const [left, right, out] = [[...a], [...b], [] as JointStroke[]];
    while (left.length || right.length) out.push((right.length === 0 || (left.length > 0 && roll(2) === 0) ? left : right).shift()!);
    return out;
  };
  test('however quick each of them is, and whoever begins: no order of what both do shuts air in, and together they press everything once', () => {
    let parted = 0;
    fc.assert(
      fc.property(anyWall, fc.constantFrom('strict', 'lenient'), fc.infiniteStream(fc.nat()), (w, rule, dice) => {
        const g = made(w);
        const pair = planPair(g, { rule });
        if (!pair) return;
        parted++;
        const it = dice[Symbol.iterator]();
        const roll = (n: number) => (it.next().value as number) % n;
        const [left, right] = [bits(g, pair.left.strokes), bits(g, pair.right.strokes)];
        for (const order of [[...left, ...right], [...right, ...left], mixed(left, right, roll), mixed(left, right, roll), mixed(left, right, roll)]) {
          const verdict = replayJoints(g, order, rule as CrossingRule);
          expect(verdict).toMatchObject({ isClean: true, trapped: [], left: [], broken: [] });
        }
      }),
      { numRuns: 250 },
    );
    // most walls can be parted, or this would say nothing
    expect(parted).toBeGreaterThan(80);
  });
  test('a panel that is open at one end only is pressed by one: whoever is farther in would be shut in by the other', () => {
    const g = jointGraph(wallOf(2000, 600, { borders: { left: 'closed', right: 'free', foot: 'closed', top: 'closed' } }));
    expect(planJoints(g).shutIn).toEqual([]);
    expect(planPair(g)).toBeNull();
    // with all of the border set first there is no way out for either
    expect(planPair(jointGraph(wallOf(2000, 600)), { border: 'set-first' })).toBeNull();
    expect(planPair(jointGraph(wallOf(300, 150, { masonry: { ...blocks, pitchUpMm: 20_000, firstBedMm: 19_000, pitchAcrossMm: 20_000, firstHeadMm: 19_000 } })))).toBeNull(); // prettier-ignore
  });
  test('from the middle each has about half; what is done already stays done', () => {
    const g = jointGraph(wallOf(6000, 1800));
    const pair = planPair(g)!;
    const count = (p: { strokes: readonly JointStroke[] }) => p.strokes.reduce((s, x) => s + (x.does === 'press' ? x.segments.length : 0), 0);
    expect(Math.abs(count(pair.left) - count(pair.right))).toBeLessThan(0.1 * g.segments.length);
    expect(count(pair.left) + count(pair.right)).toBe(g.segments.length);
    const done = pair.right.zones[0]!.strokes;
    const on = planPair(g, { done })!;
    expect(replayJoints(g, [...done, ...on.left.strokes, ...on.right.strokes])).toMatchObject({ isClean: true, left: [], broken: [] });
  });
});
