import ClipperLib from 'clipper-lib';
import fc from 'fast-check';
import { boundingBox, mirrored, offsetOutline, signedArea, vec, type Polygon } from '../geometry/index.js';
import { EDGE_STOP_MM } from '../prepare/index.js';
import { bladeSpans, laneFeet } from './lanes.js';
import { MISSED_MM2, planQuarters, planSqueegee, type SqueegeePlan, type SqueegeeRequest } from './squeegee-plan.js';
import { strokeLengthMm, sweptParts, turnsLeft, type Stroke } from './stroke.js';

const box = (w: number, h: number): Polygon => [vec(0, 0), vec(w, 0), vec(w, h), vec(0, h)];
const rake = (w: number, low: number, high: number): Polygon => [vec(0, 0), vec(w, 0), vec(w, high), vec(0, low)];
const arch = (w: number, h: number, n = 40): Polygon => [vec(0, 0), vec(w, 0), ...Array.from({ length: n + 1 }, (_, i) => vec(w / 2 + (w / 2) * Math.cos((Math.PI * i) / n), h + (w / 2) * Math.sin((Math.PI * i) / n)))]; // prettier-ignore
const round = (r: number, n = 60): Polygon =>
  Array.from({ length: n }, (_, i) => vec(r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n)));
const step: Polygon = [vec(0, 0), vec(1200, 0), vec(1200, 500), vec(600, 500), vec(600, 1200), vec(0, 1200)];

const ask = (outline: Polygon, more: Partial<SqueegeeRequest> = {}): SqueegeeRequest => ({ outline, bladeMm: 300, overlapMm: 25, lock: 'tee', edgeGapMm: 1.5, isThick: false, ...more }); // prettier-ignore
const plan = (outline: Polygon, more: Partial<SqueegeeRequest> = {}): SqueegeePlan => {
  const answer = planSqueegee(ask(outline, more));
  if (!answer.ok) throw new Error(answer.why);
  return answer.plan;
};
const strokesOf = (p: SqueegeePlan, name: string): readonly Stroke[] => p.passes.find((x) => x.name === name)!.strokes;

/** Areas by Clipper 6 (general-purpose polygon library, Boost licence). */
const clip = (op: 'difference' | 'outside', field: readonly Polygon[], parts: readonly Polygon[]): number => {
  const c = new ClipperLib.Clipper();
  const path = (p: Polygon) => p.map((q) => ({ X: Math.round(q.x * 1000), Y: Math.round(q.y * 1000) }));
  const [subject, other] = op === 'difference' ? [field, parts] : [parts, field];
  c.AddPaths(subject.map(path), ClipperLib.PolyType.ptSubject, true);
  c.AddPaths(other.map(path), ClipperLib.PolyType.ptClip, true);
  const out: { X: number; Y: number }[][] = [];
  const fill = ClipperLib.PolyFillType.pftNonZero;
  const evenOdd = ClipperLib.PolyFillType.pftEvenOdd;
  c.Execute(ClipperLib.ClipType.ctDifference, out, op === 'difference' ? evenOdd : fill, op === 'difference' ? fill : evenOdd);
  return out.reduce((s, p) => s + signedArea(p.map((q) => vec(q.X, q.Y))), 0) / 1e6;
};

/** Clipper works on whole micrometres: over the metres of edge of a pane that is a fraction of 1 mm² either way. */
const MISSED_BY_CLIPPER_MM2 = MISSED_MM2 + 1;

describe('lanes of a blade', () => {
  test('a field of 1174 mm takes five lanes of a 300 mm blade with at least 25 mm of overlap, the outer two flush', () => {
    const feet = laneFeet(13, 1187, 300, 25);
    expect(feet).toHaveLength(5);
    expect([feet[0], feet[4]! + 300]).toEqual([13, 1187]);
    expect(feet[1]! - feet[0]!).toBeLessThanOrEqual(275);
  });
  test('a field as high as the blade takes one, a lower one takes none', () => {
    expect(laneFeet(0, 300, 300, 25)).toEqual([0]);
    expect(laneFeet(0, 299, 300, 25)).toEqual([]);
  });
  test('under a slope the blade stops where its upper end meets the edge', () => {
    // from 400 high at the left to 800 at the right over 1000: the top of a blade at 300…600 meets the slope at x = 500
    const [span] = bladeSpans([rake(1000, 400, 800)], 300, 600);
    expect(span![0]).toBeCloseTo(500, 0);
    expect(span![1]).toBeCloseTo(1000, 0);
  });
  test('something in the way makes two spans of one', () => {
    const handle = [vec(400, 100), vec(500, 100), vec(500, 200), vec(400, 200)];
    expect(bladeSpans([box(1000, 300), handle], 50, 250).map(([a, b]) => [Math.round(a), Math.round(b)])).toEqual([
      [0, 400],
      [500, 1000],
    ]);
    expect(bladeSpans([box(1000, 300), handle], 210, 290)).toHaveLength(1);
  });
});

describe('what a stroke presses', () => {
  test('a corner that bends back is no bend of a curve, and three points in a line are no corner: strokes are joined at bends of the ring alone', () => {
    expect(turnsLeft(vec(0, 0), vec(100, 0), vec(200, 20))).toBe(true);
    expect(turnsLeft(vec(0, 0), vec(100, 0), vec(200, -20))).toBe(false);
    expect(turnsLeft(vec(0, 0), vec(100, 0), vec(200, 0))).toBe(false);
  });
  test('a straight one its length by its blade; narrowed, both', () => {
    const s: Stroke = { tool: 'squeegee', bladeMm: 300, how: 'pull', path: [vec(0, 0), vec(1000, 0)] };
    const area = (less: number) => sweptParts(s, less).reduce((t, p) => t + signedArea(p), 0);
    expect([area(0), area(10)]).toEqual([300_000, 280 * 980]);
    expect(strokeLengthMm(s)).toBe(1000);
  });
});

describe('squeegee plan (common practice: lock, light pass short of the frame, corners, trim, hard pass, bump)', () => {
  test('a pane of 900 × 1200 mm by hand: a T, five lanes to each side, and every edge bumped', () => {
    const p = plan(box(900, 1200));
    expect(p.passes.map((x) => [x.name, x.strokes.length])).toEqual([
      ['lock', 3],
      ['light', 10],
      ['hard', 10],
      ['edges', 4],
    ]);
    expect(p.strokeCount).toBe(27);
    expect(p.corners.map((c) => Math.round(c.angleDeg))).toEqual([90, 90, 90, 90]);
    // ten half lanes of 437 mm and 12.5 mm over the middle, twice; T: 437 × 2 and 1174 down; four edges at the film’s cut edge
    const half = 900 / 2 - 13 + 12.5;
    expect(strokesOf(p, 'light').reduce((s, k) => s + strokeLengthMm(k), 0)).toBeCloseTo(10 * half, 3);
    expect(strokesOf(p, 'edges').reduce((s, k) => s + strokeLengthMm(k), 0)).toBeCloseTo(2 * (897 + 1197), 3);
  });
  test('the first pass ends 13 mm short of the frame, the hard one at the cut edge', () => {
    const p = plan(box(900, 1200));
    const reach = (name: string) => Math.max(...strokesOf(p, name).flatMap((s) => s.path.map((q) => q.x)));
    expect(reach('light')).toBeCloseTo(900 - EDGE_STOP_MM, 6);
    expect(reach('hard')).toBeCloseTo(900 - 1.5, 6);
  });
  test('lanes run from the middle outwards and from the top down', () => {
    const lanes = strokesOf(plan(box(900, 1200)), 'light');
    for (const s of lanes) expect(Math.abs(s.path.at(-1)!.x - 450)).toBeGreaterThan(Math.abs(s.path[0]!.x - 450));
    const heights = lanes.map((s) => s.path[0]!.y);
    expect([...heights].sort((a, b) => b - a)).toEqual(heights);
  });
  test.each([
    ['tee', 3],
    ['cross', 4],
    ['x', 4],
    ['centre-line', 1],
  ] as const)('the lock by school: %s takes %i strokes, the first of them through the middle line', (lock, count) => {
    const strokes = strokesOf(plan(box(900, 1200), { lock }), 'lock');
    expect(strokes).toHaveLength(count);
    expect(strokes[0]!.path[0]!.x).toBeCloseTo(450, 6);
  });
  test('thick film is pressed twice, strokes half over one another', () => {
    const thick = plan(box(900, 1200), { isThick: true });
    expect(strokesOf(thick, 'hard').length).toBeGreaterThan(2 * strokesOf(plan(box(900, 1200)), 'hard').length);
    expect(thick.minutes).toBeGreaterThan(plan(box(900, 1200)).minutes);
  });
  test('no blade is turned on the film: along a bend it is carried straight, lifted and set down anew, stroke after stroke (common practice)', () => {
    for (const outline of [arch(1182, 400), round(450), rake(1000, 400, 800), step])
      for (const isThick of [false, true])
        for (const s of plan(outline, { isThick })
          .passes.filter((x) => x.name !== 'edges')
          .flatMap((x) => x.strokes)) {
          if (s.tool !== 'finger') expect(s.path).toHaveLength(2);
        }
  });
  test('on an arch strokes follow the bend, each beginning where the last one ended; on a round pane all the way round', () => {
    // the outer end of the blade runs along the edge, its middle half a blade inside
    const along = (p: SqueegeePlan) => strokesOf(p, 'light').filter((s) => s.how === 'push' && s.tool !== 'finger' && s.joins);
    const bend = along(plan(arch(1182, 400)));
    expect(bend.length).toBeGreaterThan(4);
    expect(bend.some((s) => s.joins!.before && s.joins!.after)).toBe(true);
    const ring = along(plan(round(450))).filter((s) => s.joins!.before && s.joins!.after);
    const turned = ring.reduce((sum, s) => sum + strokeLengthMm(s), 0);
    // a ring of the first blade's own: 2π (450 − 13) less what the straight pieces cut off
    expect(turned).toBeGreaterThan(0.9 * 2 * Math.PI * (450 - EDGE_STOP_MM));
  });
  test('a sharp corner is pressed with card and finger', () => {
    const tools = new Set(strokesOf(plan([vec(0, 0), vec(900, 0), vec(0, 700)]), 'light').map((s) => s.tool));
    expect(tools.has('card')).toBe(true);
  });
  test('beside a handle that parts a lane the strokes still run away from the middle: water is never pushed back over what is pressed', () => {
    const field = plan(box(900, 1200), { holes: [[vec(560, 500), vec(640, 500), vec(640, 700), vec(560, 700)]] });
    const beside = strokesOf(field, 'light').filter((s) => s.tool === 'squeegee' && Math.min(...s.path.map((q) => q.x)) > 640);
    expect(beside.length).toBeGreaterThan(0);
    for (const s of beside) expect(s.path.at(-1)!.x).toBeGreaterThan(s.path[0]!.x);
    const left = plan(box(900, 1200), { holes: [[vec(260, 500), vec(340, 500), vec(340, 700), vec(260, 700)]] });
    const onLeft = strokesOf(left, 'light').filter((s) => s.tool === 'squeegee' && Math.max(...s.path.map((q) => q.x)) < 260);
    expect(onLeft.length).toBeGreaterThan(0);
    for (const s of onLeft) expect(s.path.at(-1)!.x).toBeLessThan(s.path[0]!.x);
  });
  test('no stroke goes over a handle', () => {
    const handle = [vec(700, 500), vec(760, 500), vec(760, 640), vec(700, 640)];
    const p = plan(box(900, 1200), { holes: [handle] });
    for (const s of [...strokesOf(p, 'light'), ...strokesOf(p, 'hard')].filter((k) => k.path.length > 1))
      expect(clip('outside', [box(900, 1200), [...handle].reverse()], sweptParts(s))).toBeLessThan(1);
  });
  test('between a handle and the frame, where no card fits, the finger is drawn along', () => {
    const handle = [vec(640, 940), vec(702, 940), vec(702, 1120), vec(640, 1120)];
    const strokes = strokesOf(plan(box(740, 1990), { holes: [handle] }), 'light');
    expect(strokes.some((s) => s.tool === 'finger' && s.path.length > 1 && s.path.every((q) => q.x > 702))).toBe(true);
  });
  test('seen from the other side it is the same work', () => {
    const [a, b] = [plan(rake(1200, 500, 900)), plan(mirrored(rake(1200, 500, 900)))];
    expect(Math.abs(b.strokeCount - a.strokeCount)).toBeLessThanOrEqual(2);
    expect(Math.abs(b.lengthMm / a.lengthMm - 1)).toBeLessThan(0.05);
  });
  test('a pane narrower than every blade is refused with what to do instead', () => {
    expect(planSqueegee(ask(box(40, 900)))).toMatchObject({ ok: false, why: expect.stringContaining('by hand with a card') });
    expect(planSqueegee(ask(box(20, 20)))).toMatchObject({ ok: false, why: expect.stringContaining('nothing is left') });
  });
  test('a blade wider than the pane gives way to a smaller one', () => {
    expect(plan(box(200, 160)).bladeMm).toBe(100);
  });
});

describe('full overlap, proven by another polygon library (Clipper 6)', () => {
  const outline = fc.oneof(
    fc.tuple(fc.integer({ min: 250, max: 2400 }), fc.integer({ min: 250, max: 2600 })).map(([w, h]) => box(w, h)),
    fc
      .tuple(fc.integer({ min: 400, max: 1800 }), fc.integer({ min: 350, max: 900 }), fc.integer({ min: 0, max: 900 }))
      .map(([w, low, more]) => rake(w, low, low + more)),
    fc.tuple(fc.integer({ min: 500, max: 1600 }), fc.integer({ min: 200, max: 1200 })).map(([w, h]) => arch(w, h)),
    fc.integer({ min: 250, max: 900 }).map((r) => round(r)),
    fc.constant(step),
  );
  const lock = fc.constantFrom('tee', 'cross', 'x', 'centre-line' as const);
  test('whatever the outline and the school: nothing inside the stop line stays unpressed, and no blade goes over it', () =>
    fc.assert(
      fc.property(outline, lock, fc.constantFrom(150, 300, 450), (o, school, bladeMm) => {
        const answer = planSqueegee(ask(o, { lock: school as 'tee', bladeMm }));
        expect(answer.ok).toBe(true);
        if (!answer.ok) return;
        const field = offsetOutline(o, -EDGE_STOP_MM)!;
        const pressed = [...strokesOf(answer.plan, 'lock'), ...strokesOf(answer.plan, 'light')];
        const inner = offsetOutline(field, -12.5)!;
        // bent edges are followed in straight pieces within 3 mm, which the overlap swallows
        expect(
          clip(
            'difference',
            [inner],
            pressed.flatMap((s) => sweptParts(s)),
          ),
        ).toBeLessThan(MISSED_BY_CLIPPER_MM2);
        for (const s of pressed.filter((k) => k.path.length > 1)) expect(clip('outside', [field], sweptParts(s))).toBeLessThan(5);
        const film = offsetOutline(o, -1.5)!;
        const hard = strokesOf(answer.plan, 'hard');
        expect(
          clip(
            'difference',
            [offsetOutline(film, -12.5)!],
            hard.flatMap((s) => sweptParts(s)),
          ),
        ).toBeLessThan(MISSED_BY_CLIPPER_MM2);
      }),
      { seed: 12, numRuns: 40 },
    ));
  test('lanes of a box overlap by the overlap asked for: narrowed by half of it they still leave nothing', () =>
    fc.assert(
      fc.property(fc.integer({ min: 400, max: 2400 }), fc.integer({ min: 400, max: 2600 }), fc.integer({ min: 10, max: 80 }), (w, h, overlapMm) => {
        const p = plan(box(w, h), { overlapMm });
        const inner = offsetOutline(box(w, h), -EDGE_STOP_MM - overlapMm / 2)!;
        const parts = [...strokesOf(p, 'lock'), ...strokesOf(p, 'light')].flatMap((s) => sweptParts(s, overlapMm / 2 - 0.001));
        expect(clip('difference', [inner], parts)).toBeLessThan(MISSED_BY_CLIPPER_MM2);
      }),
      { seed: 13, numRuns: 60 },
    ));
  test('the stop line of an arch is as wide as the arch less its two stops', () => {
    const b = boundingBox(plan(arch(1182, 400)).stopLine);
    expect(b.maxX - b.minX).toBeCloseTo(1182 - 26, 0);
  });
});

describe('film that was formed: four quarters out from its line (common practice)', () => {
  /** A rear window: crowned above, tapered, its corners in the plane of the pane. */
  const rear = (w: number, h: number, taper: number, crown: number): Polygon => [
    vec(0, 0),
    vec(w, 0),
    ...Array.from({ length: 31 }, (_, i) => {
      const t = 1 - i / 30;
      return vec(taper + t * (w - 2 * taper), h + crown * (1 - (2 * t - 1) ** 2));
    }),
  ];
  const quarters = (outline: Polygon, leftMm: number, rightMm: number, more = {}): SqueegeePlan => {
    const w = boundingBox(outline).maxX;
    const answer = planQuarters({ outline, line: [vec(0, leftMm), vec(w, rightMm)], bladeMm: 150, overlapMm: 25, isThick: false, ...more });
    if (!answer.ok) throw new Error(answer.why);
    return answer.plan;
  };
  /** Which quarter a stroke over the field lies in. */
  const quarterOf = (s: Stroke, middleX: number, lineY: number): string =>
    `${(s.path[0]!.y + s.path.at(-1)!.y) / 2 > lineY ? 'above' : 'below'} ${s.path.at(-1)!.x < middleX ? 'left' : 'right'}`;

  test('the first stroke of each quarter lies on the line and starts at its middle; lanes go away from it', () => {
    const p = quarters(rear(1320, 560, 0, 0), 180, 180);
    expect(p.passes.map((x) => x.name)).toEqual(['light', 'hard', 'edges']);
    const pulled = strokesOf(p, 'light').filter((s) => s.how === 'pull');
    const order = pulled.map((s) => quarterOf(s, 660, 180));
    expect(order.filter((q, i) => q !== order[i - 1])).toEqual(['above left', 'above right', 'below left', 'below right']);
    for (const name of new Set(order)) {
      const mine = pulled.filter((_, i) => order[i] === name);
      expect(Math.abs(mine[0]!.path[0]!.y - 180)).toBeLessThanOrEqual(mine[0]!.bladeMm / 2);
      for (const s of mine) expect(Math.abs(s.path[0]!.x - 660)).toBeCloseTo(12.5, 6);
      const away = mine.map((s) => Math.abs(s.path[0]!.y - 180));
      expect(away).toEqual([...away].sort((a, b) => a - b));
    }
  });
  test('nothing stays unpressed, wherever the line lies and however it tilts, by an independent library too', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 700, max: 1500 }),
        fc.integer({ min: 300, max: 700 }),
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 0, max: 60 }),
        fc.double({ min: 0.15, max: 0.85, noNaN: true }),
        fc.integer({ min: -40, max: 40 }),
        (w, h, taper, crown, at, tilt) => {
          const outline = rear(w, h, taper, crown);
          const p = quarters(outline, at * h - tilt, at * h + tilt);
          const pressed = strokesOf(p, 'light').flatMap((s) => sweptParts(s, 0));
          expect(clip('difference', [p.stopLine], pressed)).toBeLessThan(MISSED_BY_CLIPPER_MM2);
          // a bent edge is followed in straight pieces that lie inside it by a hair, and the bump goes over it
          expect(clip('outside', [outline], [p.stopLine])).toBeLessThan(1);
          expect(signedArea(p.stopLine) / signedArea(outline)).toBeGreaterThan(0.996);
          expect(p.missedMm2.light).toBeLessThan(MISSED_MM2);
        },
      ),
      { numRuns: 25 },
    ));
  test('under a crown the lanes stay as long as on the line, and what is left above them is gone over once along the edge', () => {
    const p = quarters(rear(1280, 540, 0, 40), 200, 200);
    const above = strokesOf(p, 'light').filter((s) => s.how === 'pull' && quarterOf(s, 640, 200).startsWith('above'));
    expect(Math.min(...above.map(strokeLengthMm))).toBeGreaterThan(0.7 * Math.max(...above.map(strokeLengthMm)));
    const upper = strokesOf(p, 'light').filter((s) => s.how === 'push' && s.path.every((q) => q.y > 400));
    // straight strokes in a chain: seldom more than one chain
    expect(upper.filter((s) => !s.joins?.before).length).toBeLessThanOrEqual(2);
  });
  test('a line close to the lower edge: the strip below it gets a smaller blade; thick film is gone over half over half', () => {
    const p = quarters(rear(1000, 420, 0, 0), 60, 60);
    const below = strokesOf(p, 'light').filter((s) => s.how === 'pull' && quarterOf(s, 500, 60).startsWith('below'));
    expect(below.map((s) => s.bladeMm)).toEqual([50, 50, 50, 50]);
    expect(strokesOf(quarters(rear(1000, 420, 0, 0), 200, 200, { isThick: true }), 'hard').length).toBeGreaterThan(strokesOf(p, 'light').length);
  });
  test('the mirrored pane with its line mirrored takes the mirrored strokes', () => {
    const outline = rear(1200, 500, 60, 30);
    const flipped = mirrored(outline).map((q) => vec(q.x + 1200, q.y));
    const [a, b] = [quarters(outline, 180, 220), quarters(flipped, 220, 180)];
    expect(b.lengthMm).toBeCloseTo(a.lengthMm, -2);
    expect(b.strokeCount).toBe(a.strokeCount);
  });
  test('a pane narrower than every blade says so', () => {
    const answer = planQuarters({ outline: box(300, 9), line: [vec(0, 4), vec(300, 4)], bladeMm: 150, overlapMm: 25, isThick: false });
    expect(answer).toEqual({ ok: false, why: 'This pane is narrower than every blade: lay it by hand with a card.' });
  });
});
