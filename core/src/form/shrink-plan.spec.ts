import type { CurvedPane } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { boundingBox, signedArea } from '../geometry/index.js';
import { surveyOpening } from '../measure/index.js';
import { archLine, chosenLine, forcedLine, heightOn, lineThrough, straightLine } from './anchor-line.js';
import { balancedAnchor } from './balance.js';
import { dishOver, filmOf, inputOf, readBows, sheet } from './curved-panes.testing.js';
import { edgeLosses, FINGER, fingersAlong, foldHeightMm, peakLoss } from './fingers.js';
import { finishedOutline, flatOutline, FORMING, onFlatFilm, partOf } from './flat-film.js';
import { fingerOrder, methodCards } from './forming-methods.js';
import { gradeOf, stretchGrade } from './grade.js';
import { edgesSeen, mirroredCurved, outlineOfCurved, straightedgeOf, usualBows } from './pane-outline.js';
import { mayTurn, radiusFromBowM, shrinkPlan } from './shrink-plan.js';
import { fieldFromLine, fieldOfArch, shrinkField } from './shrink-field.js';
import { practicePane } from './practice.js';
import { dishByBows, heightSurface } from './surface.js';

const level = { du: 1, dv: 0 };
const bowl = (w: number, h: number, across: number, upright: number) => {
  const dish = dishByBows(w, -across, h, -upright);
  return heightSurface((x, y) => dish.height!(x - w / 2, y - h / 2));
};
const rear = sheet(1320, 560);
const rearPlan = (more: Parameters<typeof inputOf>[2] = {}, curved: Parameters<typeof inputOf>[1] = {}) =>
  shrinkPlan(inputOf(rear, { bows: readBows(rear, dishOver(1320, 560, 62, 16)), ...curved }, more));

describe('the outline of a curved pane by its tapes', () => {
  const survey = surveyOpening([
    { measure: 'widthLargest', lengthMm: 1000 },
    { measure: 'heightLargest', lengthMm: 500 },
    { measure: 'bowTop', lengthMm: 40 },
  ]);
  test('a crown stands out by its bow in the middle; a round corner takes off what its radius says: (1 − π/4) r² each', () => {
    const outline = outlineOfCurved(survey, { cloud: null, cornerRadiiMm: [60, 60, 0, 0] })!;
    expect(boundingBox(outline)).toMatchObject({
      minX: expect.closeTo(0, 3),
      maxX: expect.closeTo(1000, 3),
      minY: expect.closeTo(0, 3),
      maxY: expect.closeTo(540, 0),
    });
    // segment of a circle over 1000 with a rise of 40 (Bronshtein, from memory): r = 3145, area r² (a − sin a) / 2
    const r = 1000 ** 2 / 8 / 40 + 20;
    const a = 2 * Math.asin(500 / r);
    expect(signedArea(outline)).toBeCloseTo(500_000 + (r * r * (a - Math.sin(a))) / 2 - 2 * (1 - Math.PI / 4) * 3600, -2.5);
  });
  test('a level straightedge runs from edge to edge; one that would lie off the glass is refused', () => {
    const outline = outlineOfCurved(survey, { cloud: null, cornerRadiiMm: [0, 0, 0, 0] })!;
    const e = straightedgeOf(outline, { way: 'across', atMm: 250, span: null })!;
    expect([e.from.x, e.middle.x, e.to.x]).toEqual([expect.closeTo(0, 6), expect.closeTo(500, 6), expect.closeTo(1000, 6)]);
    expect(straightedgeOf(outline, { way: 'across', atMm: 700, span: null })).toBeNull();
    expect(straightedgeOf(outline, { way: 'upright', atMm: 500, span: { fromMm: 400, lengthMm: 300 } })).toBeNull();
  });
  test('the radius that is told is that of the bow nearest to the middle, whatever else was read, and wherever in the list it stands', () => {
    // deeper towards the top, and towards the right
    const shape = (x: number, y: number) => -((x / 660 - 1) ** 2) * (40 + y / 20) - (y / 280 - 1) ** 2 * (10 + x / 100);
    const across = [60, 280, 500].map((atMm) => ({ way: 'across' as const, atMm, span: null }));
    const upright = [120, 660, 1200].map((atMm) => ({ way: 'upright' as const, atMm, span: null }));
    const bows = readBows(rear, shape, [...across, ...upright]);
    const of = (mm: number, way: 'across' | 'upright') => bows.find((b) => b.way === way && b.atMm === mm)!.depthMm;
    for (const order of [bows, [...bows].reverse()]) {
      const { radiusM } = shrinkPlan(inputOf(rear, { bows: order }));
      expect(radiusM.across).toBeCloseTo(radiusFromBowM(1320, of(280, 'across'))!, 6);
      expect(radiusM.upright).toBeCloseTo(radiusFromBowM(560, of(660, 'upright'))!, 6);
    }
  });
  test('chord 800, sagitta 20: radius 4010 mm (CHECKS)', () => expect(radiusFromBowM(800, 20)).toBeCloseTo(4.01, 6));
});

/** The top of a ball, seen from above. */
const sphere = (R: number) =>
  heightSurface((x, y) => {
    const z = Math.sqrt(R * R - x * x - y * y);
    return { z, zx: -x / z, zy: -y / z, zxx: -(R * R - y * y) / z ** 3, zyy: -(R * R - x * x) / z ** 3, zxy: (-x * y) / z ** 3 };
  });

describe('lines', () => {
  const dish = bowl(1200, 600, 45, 10);
  const outline = sheet(1200, 600);
  test('through two points: it meets both, and lies between them higher or lower than the straight line of the plane', () => {
    const anchor = lineThrough(dish, outline, { u: 0, v: 120 }, { u: 1200, v: 160 }, 10)!;
    const line = straightLine(dish, outline, anchor, 10);
    expect(heightOn(line, 0)).toBeCloseTo(120, 0);
    expect(heightOn(line, 1200)).toBeCloseTo(160, 0);
    expect(Math.abs(heightOn(line, 600) - 140)).toBeGreaterThan(1);
  });
  test('the geodesic between two points is the shortest way: shorter than the forced line between them', () => {
    const anchor = lineThrough(dish, outline, { u: 0, v: 120 }, { u: 1200, v: 120 }, 5)!;
    const length = (l: readonly { alongMm: number }[]) => l.at(-1)!.alongMm - l[0]!.alongMm;
    expect(length(straightLine(dish, outline, anchor, 5))).toBeLessThan(length(forcedLine(dish, outline, [120, 120, 120], 5)));
  });
  test('what is counted along a line is its length on the glass, not that of its chords: a parallel of a sphere is 2 ρ asin(x / ρ) long', () => {
    const R = 2500;
    const cap = sphere(R);
    const pane = [{ x: -300, y: 50 }, { x: 300, y: 50 }, { x: 300, y: 650 }, { x: -300, y: 650 }]; // prettier-ignore
    const line = forcedLine(cap, pane, [250, 250, 250], 60);
    const rho = Math.sqrt(R * R - 250 * 250);
    // chords of 60 mm alone would be 0.014 mm short
    expect(line.at(-1)!.alongMm - line[0]!.alongMm).toBeCloseTo(2 * rho * Math.asin(300 / rho), 5);
    expect(line[Math.floor((line.length - 1) / 2)]!.alongMm).toBe(0);
  });
  test('a forced level line on a sphere turns by tan(latitude) / R, and its field is that of the parallel: 1 − cos((s + s₀)/R) / cos(s₀/R)', () => {
    const R = 2500;
    const cap = sphere(R);
    const pane = [{ x: -300, y: 50 }, { x: 300, y: 50 }, { x: 300, y: 650 }, { x: -300, y: 650 }]; // prettier-ignore
    const line = forcedLine(cap, pane, [250, 250, 250], 10);
    const mid = line[Math.floor(line.length / 2)]!;
    const latitude = Math.asin(250 / R);
    expect(mid.turnPerMm).toBeCloseTo(Math.tan(latitude) / R, 7);
    const field = fieldFromLine(cap, pane, line, { stepMm: 10 });
    const here = field.stations[Math.floor(line.length / 2)]!;
    const s = here.up.edge!.sMm;
    expect(here.up.edge!.widthRatio).toBeCloseTo(Math.cos(latitude + s / R) / Math.cos(latitude), 5);
  });
  test('a defroster line off the middle costs: more hangs from the worse edge than from the straight line through its ends', () => {
    const forced = chosenLine(dish, outline, { kind: 'forced', leftMm: 250, middleMm: 290, rightMm: 250 }, 20)!;
    const straight = chosenLine(dish, outline, { kind: 'through', leftMm: 250, rightMm: 250 }, 20)!;
    const worst = (l: typeof forced) => {
      const f = fieldFromLine(dish, outline, l, { stepMm: 20 });
      return Math.max(f.slackAboveMm, f.slackBelowMm);
    };
    expect(worst(forced)).toBeGreaterThan(1.5 * worst(straight));
  });
});

describe('balance with tilt', () => {
  /** More curved upright towards the lower left. */
  const lopsided = heightSurface((x, y) => {
    const [a, b, c] = [-1.1e-4, -6e-5, 5e-11];
    const [p, q] = [x - 500, y - 300];
    // z = a p² + b q² + c p³ q² ... only as far as it stays gentle
    return {
      z: a * p * p + b * q * q + 400 * c * p * q * q,
      zx: 2 * a * p + 400 * c * q * q,
      zy: 2 * b * q + 800 * c * p * q,
      zxx: 2 * a,
      zxy: 800 * c * q,
      zyy: 2 * b + 800 * c * p,
    };
  });
  const outline = [{ x: 0, y: 0 }, { x: 1000, y: 0 }, { x: 1000, y: 440 }, { x: 0, y: 600 }]; // prettier-ignore
  test('on a lopsided pane the line tilts, and left and right halves balance each for themselves', () => {
    const found = balancedAnchor(lopsided, outline, 500, { stepMm: 20 })!;
    expect(Math.abs(found.anchor.way.dv)).toBeGreaterThan(0.02);
    const half = (from: number, to: number) => {
      const sum = (side: 'above' | 'below') => {
        const places = edgeLosses(found.field.stations, side).places.filter((p) => p.alongMm >= from && p.alongMm <= to);
        return places.slice(1).reduce((s, p, i) => s + ((p.lossFrac + places[i]!.lossFrac) / 2) * (p.alongMm - places[i]!.alongMm), 0);
      };
      return sum('below') - sum('above');
    };
    expect(half(-600, 0)).toBeCloseTo(0, 1);
    expect(half(0, 600)).toBeCloseTo(0, 1);
    expect(found.field.slackBelowMm).toBeCloseTo(found.field.slackAboveMm, 1);
  });
  test('the mirror image has the mirrored line, to half a millimetre', () => {
    const over = heightSurface((x, y) => {
      const h = lopsided.height!(1000 - x, y);
      return { ...h, zx: -h.zx, zxy: -h.zxy };
    });
    const mirror = outline.map((p) => ({ x: 1000 - p.x, y: p.y })).reverse();
    const [a, b] = [balancedAnchor(lopsided, outline, 500, { stepMm: 20 })!, balancedAnchor(over, mirror, 500, { stepMm: 20 })!];
    expect(b.heightMm).toBeCloseTo(a.heightMm, 0);
    expect(b.anchor.way.dv).toBeCloseTo(-a.anchor.way.dv, 2);
    expect(b.field.slackAboveMm).toBeCloseTo(a.field.slackAboveMm, 1);
  });
});

describe('fingers', () => {
  const field = shrinkField(bowl(1320, 560, 62, 16), rear, { through: { u: 660, v: 280 }, way: level }, { stepMm: 20 });
  test('they share the slack of their edge evenly, and none asks more of the film than half of what it can', () => {
    const fingers = fingersAlong(field.stations, 'below', 0.025);
    expect(fingers.reduce((s, f) => s + f.slackMm, 0)).toBeCloseTo(field.slackBelowMm, 1);
    for (const f of fingers) expect(f.needFrac).toBeLessThanOrEqual(0.0126);
    expect(fingers.map((f) => f.number)).toEqual(fingers.map((_, i) => i + 1));
  });
  test('a film that shrinks less needs more of them; one that shrinks much needs them only as they gather', () => {
    const count = (capacity: number) => fingersAlong(field.stations, 'below', capacity).length;
    expect(count(0.01)).toBeGreaterThan(count(0.025));
    expect(count(0.06)).toBe(Math.round(1320 / FINGER.pitchMm));
  });
  test('the root lies where a thousandth of the width has to go; from there to the edge runs the finger', () => {
    for (const f of fingersAlong(field.stations, 'below', 0.025)) {
      expect(f.root.v).toBeGreaterThan(f.foot.v);
      // a dish of these bows: K s² / 2 = 0.001
      const k = (64 * 62 * 16) / (1320 * 560) ** 2;
      expect(280 - f.root.v).toBeCloseTo(Math.sqrt(0.002 / k), -1.3);
    }
  });
  test('height of a fold: a base of 90 mm with 1.2 mm too much stands 6.4 mm high (arc over chord)', () => {
    const h = foldHeightMm(1.2, 90);
    expect(h).toBeCloseTo(6.36, 1);
    // and back, by the circle through chord and sagitta
    const r = 90 ** 2 / 8 / h + h / 2;
    expect(2 * r * Math.asin(45 / r) - 90).toBeCloseTo(1.2, 1);
  });
  test('no place one finger wide loses more than the peak, and the peak is more than the mean', () => {
    const { places } = edgeLosses(field.stations, 'below');
    const peak = peakLoss(places, FINGER.baseMm);
    expect(peak.frac).toBeGreaterThan(field.slackBelowMm / 1400);
    expect(peak.frac).toBeLessThanOrEqual(Math.max(...places.map((p) => p.lossFrac)) + 1e-9);
  });
  test('what lies down without heat has none: about 0.1 % (common practice)', () => {
    const flat = shrinkField(bowl(820, 480, 3, 9), sheet(820, 480), { through: { u: 410, v: 240 }, way: level }, { stepMm: 20 });
    expect(fingersAlong(flat.stations, 'below', 0.025)).toEqual([]);
  });
});

describe('the flat film', () => {
  test('glass that unrolls: the film is the unrolled pane, to a tenth of a millimetre (cylinder, arc 801.33 over a chord of 800 with 20: CHECKS)', () => {
    const R = 4010;
    const roof = heightSurface((x) => {
      const z = Math.sqrt(R * R - (x - 400) ** 2);
      return { z, zx: -(x - 400) / z, zy: 0, zxx: -R * R / z ** 3, zxy: 0, zyy: 0 }; // prettier-ignore
    });
    const outline = sheet(800, 500);
    const { stations } = shrinkField(roof, outline, { through: { u: 400, v: 250 }, way: { du: 1, dv: 0.1 } }, { stepMm: 20 });
    const to = onFlatFilm(stations);
    const [a, b, c, d] = outline.map((p) => to(p)!);
    const far = (p: { x: number; y: number }, q: { x: number; y: number }) => Math.hypot(p.x - q.x, p.y - q.y);
    expect(far(a!, b!)).toBeCloseTo(801.33, 0);
    expect(far(b!, c!)).toBeCloseTo(500, 0);
    expect(far(a!, c!)).toBeCloseTo(Math.hypot(801.33, 500), 0);
    expect(signedArea([a!, b!, c!, d!])).toBeCloseTo(801.33 * 500, -3);
  });
  test('on a dish the film is bigger than what it will be: it still has its slack', () => {
    const outline = sheet(1200, 600);
    const dish = bowl(1200, 600, 45, 10);
    const { stations, slackAboveMm } = shrinkField(dish, outline, { through: { u: 600, v: 300 }, way: level }, { stepMm: 20 });
    const flat = flatOutline(stations, outline);
    const box = boundingBox(flat);
    const top = flat.filter((p) => Math.abs(p.x) < 560 && p.y > 0);
    expect(box.maxX - box.minX).toBeGreaterThan(1200);
    expect(top.length).toBeGreaterThan(10);
    // along its upper edge the film is longer than the glass by the slack
    const edge = stations.filter((s) => s.up.edge).map((s) => dish.at(s.up.edge!.u, s.up.edge!.v).r);
    const glass = edge.slice(1).reduce((s, p, i) => s + Math.hypot(p[0] - edge[i]![0], p[1] - edge[i]![1], p[2] - edge[i]![2]), 0);
    const film = stations.at(-1)!.alongMm - stations[0]!.alongMm;
    expect(film - glass).toBeCloseTo(slackAboveMm, 0);
  });
  test('drop glass: 1.5 mm under its top edge, 13 mm below the belt seal; fixed glass: onto the dots, not past them', () => {
    const drop = boundingBox(finishedOutline(sheet(800, 480), 'drop', null, 1.5)!);
    expect(drop).toMatchObject({ maxY: expect.closeTo(478.5, 6), minY: expect.closeTo(-13, 6), minX: expect.closeTo(1.5, 6) });
    const fixed = boundingBox(finishedOutline(sheet(800, 480), 'fixed', 35, 1.5)!);
    expect(fixed.minX).toBeCloseTo(35 - FORMING.ontoDotsMm, 6);
    expect(boundingBox(finishedOutline(sheet(800, 480), 'fixed', null, 1.5)!).minX).toBeCloseTo(1.5, 6);
  });
  test('a pane parted along a level line: the two parts make it whole', () => {
    const whole = sheet(800, 480);
    expect(signedArea(partOf(whole, 200, 'above')!) + signedArea(partOf(whole, 200, 'below')!)).toBeCloseTo(800 * 480, 6);
    expect(partOf(whole, 900, 'above')).toBeNull();
  });
});

describe('an arch: across the top and down both sides, all of it to the bottom', () => {
  const R = 2500;
  const cap = heightSurface((x, y) => {
    const z = Math.sqrt(R * R - x * x - y * y);
    return { z, zx: -x / z, zy: -y / z, zxx: -(R * R - y * y) / z ** 3, zyy: -(R * R - x * x) / z ** 3, zxy: (-x * y) / z ** 3 };
  });
  test('on a sphere the lower edge loses 1 − cos(s/R) of its width from the upper one down (do Carmo, from memory), nothing above', () => {
    const pane = [{ x: -300, y: -400 }, { x: 300, y: -400 }, { x: 300, y: 0 }, { x: -300, y: 0 }]; // prettier-ignore
    const { field } = fieldOfArch(cap, pane, archLine(cap, pane, 10), { stepMm: 10 });
    const mid = field.stations[Math.floor(field.stations.length / 2)]!;
    expect(mid.down.edge!.widthRatio).toBeCloseTo(Math.cos(mid.down.edge!.sMm / R), 5);
    expect(mid.down.edge!.sMm).toBeCloseTo(R * Math.asin(400 / R), 1);
    expect(field.toGoAboveMm).toBeLessThan(0.01);
  });
  test('under a rounded top film hangs free as far as the glass: there only what lies on it is brought together', () => {
    // a shoulder cut off at the left: threads come onto the pane 150 mm lower there
    const pane = [{ x: -300, y: -400 }, { x: 300, y: -400 }, { x: 300, y: 0 }, { x: -100, y: 0 }, { x: -100, y: -150 }, { x: -300, y: -150 }]; // prettier-ignore
    const { field, line } = fieldOfArch(cap, pane, archLine(cap, pane, 10), { stepMm: 10 });
    const shoulder = field.stations.find((s) => s.at.u > -220 && s.at.u < -180)!;
    expect(shoulder.at.v).toBeCloseTo(-150, 0);
    const onGlass = shoulder.down.edge!.sMm - shoulder.down.points[0]!.sMm;
    expect(onGlass).toBeCloseTo(250, -1);
    expect(shoulder.down.edge!.widthRatio).toBeCloseTo(Math.cos(onGlass / R), 5);
    expect(line.every((p) => p.v < 0.01)).toBe(true);
    // the film itself is still as long as the glass under it, shoulder and all
    const box = boundingBox(flatOutline(field.stations, pane));
    expect(box.maxY - box.minY).toBeGreaterThan(398);
  });
  const door = sheet(650, 450);
  const bows = readBows(door, dishOver(650, 450, 2.75, 11));
  test('a door glass 650 × 450 with bows of 2.5 to 3 across and 11 upright: three fingers at the bottom, none above (trade fact); an H would have none', () => {
    const plan = shrinkPlan(inputOf(door, { seat: 'drop', bows }));
    expect(plan.anchor.kind).toBe('arch');
    expect([plan.below.fingers.length, plan.above.fingers.length]).toEqual([3, 0]);
    expect(plan.order).toEqual([{ side: 'below', number: 2 }, expect.objectContaining({ side: 'below' }), expect.objectContaining({ side: 'below' })]);
    expect(plan.grade).toBe('easy');
    const h = shrinkPlan(inputOf(door, { seat: 'drop', bows, anchor: { kind: 'h' } }));
    expect(h.above.fingers.length + h.below.fingers.length).toBe(0);
    // twice as far to the edge over the whole height: four times what hangs from each edge of the H
    expect(plan.below.slackMm / h.below.slackMm).toBeCloseTo(4, 0);
    expect(plan.below.lowMm).toBeLessThan(plan.below.slackMm);
    expect(plan.below.highMm).toBeGreaterThan(plan.below.slackMm);
  });
  test('it says how it is laid: across the top, down both sides, 13 mm free at the long side, the lower edge 25 to 50 mm up from the seal', () => {
    const slanted = [{ x: 0, y: 0 }, { x: 650, y: 0 }, { x: 650, y: 450 }, { x: 0, y: 380 }]; // prettier-ignore
    const words = shrinkPlan(inputOf(slanted, { seat: 'drop', bows: readBows(slanted, dishOver(650, 450, 4, 13)) })).summary.join(' ');
    expect(words).toContain('An arch: card the film down across the top, which is a finished edge, then down both sides');
    expect(words).toContain('nothing stays above');
    expect(words).toContain('Leave 13 mm of glass free at the long side, here the right one, and let film rest over the left; its lower edge 25 to 50 mm up');
  });
  test('where next to nothing hangs, fingers are pushed together by hand', () => {
    const flat = shrinkPlan(inputOf(door, { seat: 'drop', bows: readBows(door, dishOver(650, 450, 0.6, 4)) }));
    expect(flat.below.fingers).toHaveLength(0);
    expect(flat.summary.join(' ')).toContain('Even nearly flat door glass is shrunk: push the film together by hand along the bottom until 3 stand evenly');
  });
  test('the seat decides until somebody does: H on fixed glass, arch on drop glass, either on both', () => {
    const kindOf = (seat: CurvedPane['seat'], kind: 'balanced' | 'h' | 'arch') => shrinkPlan(inputOf(door, { seat, bows, anchor: { kind } })).anchor.kind;
    expect(kindOf('fixed', 'balanced')).toBe('balanced');
    expect(kindOf('drop', 'balanced')).toBe('arch');
    expect(kindOf('fixed', 'arch')).toBe('arch');
    expect(kindOf('drop', 'h')).toBe('balanced');
  });
});

describe('the plan', () => {
  test('says it in a sentence: fingers below and above, the longest, and the height of the line', () => {
    const plan = rearPlan();
    expect(plan.summary[0]).toMatch(/^\d+ fingers below, \d+ above, the longest \d+ mm\.$/);
    expect(plan.summary[1]).toMatch(/^Lay the line 2\d\d mm above the lower corners/);
    expect(plan.above.slackMm).toBeCloseTo(plan.below.slackMm, 1);
    expect(plan.below.lowMm).toBeLessThan(plan.below.slackMm);
    expect(plan.below.highMm).toBeGreaterThan(plan.below.slackMm);
  });
  test('no height is promised before short straightedges have seen the lower and the upper edge', () => {
    const outline = sheet(1150, 400);
    // bent in sharply within the lowest 130 mm: the eight usual bows do not see it
    const sharp = (x: number, y: number) => dishOver(1150, 400, 40, 6)(x, y) - 14 * (Math.max(0, 130 - y) / 130) ** 2;
    const usual = readBows(outline, sharp);
    const words = (bows: typeof usual) => shrinkPlan(inputOf(outline, { bows })).summary.join(' ');
    expect(words(usual)).toContain('How good that height is nobody can say yet: lay a short straightedge upright at the lower edge and one at the upper');
    expect(words(usual)).not.toMatch(/good to/);
    const short = (fromMm: number) => ({ way: 'upright' as const, atMm: 575, span: { fromMm, lengthMm: 150 } });
    const more = readBows(outline, sharp, [...usualBows(outline), short(0), short(250)]);
    expect(edgesSeen(outline, usual)).toBe(false);
    expect(edgesSeen(outline, readBows(outline, sharp, [...usualBows(outline), short(0)]))).toBe(false);
    expect(edgesSeen(outline, more)).toBe(true);
    expect(words(more)).toMatch(/That height is good to|Too little is known of that height/);
  });
  test('on an H a nearly flat door glass lies down without heat, and one four times as hollow does not', () => {
    const door = sheet(820, 480);
    const bows = (k: number) => readBows(door, dishOver(820, 480, 3 * k, 9 * k));
    const onH = (k: number) => shrinkPlan(inputOf(door, { seat: 'drop', anchor: { kind: 'h' }, bows: bows(k) }));
    expect(onH(1)).toMatchObject({ grade: 'lies-down', anchor: { kind: 'balanced' } });
    expect(onH(4).grade).not.toBe('lies-down');
  });
  test('forming takes 30 s to 2 min for a side window by the first way (common practice)', () => {
    const side = sheet(820, 480);
    const plan = shrinkPlan(inputOf(side, { seat: 'drop', bows: readBows(side, dishOver(820, 480, 14, 14)) }));
    const card = plan.methods.find((m) => m.school === 'finger-by-finger')!;
    expect(plan.below.fingers.length).toBeGreaterThan(0);
    expect(card.minutes).toBeGreaterThan(0.5);
    expect(card.minutes).toBeLessThan(2);
  });
  test('drop glass is formed 25 to 50 mm higher and 13 past the sides, and told apart from where it lies', () => {
    const plan = shrinkPlan(inputOf(sheet(820, 480), { seat: 'drop', bows: readBows(sheet(820, 480), dishOver(820, 480, 14, 14)) }));
    expect(plan.forming).toMatchObject({ raiseMm: 38, pastSidesMm: 13 });
    expect(plan.forming.text).toContain('38 mm higher than it will sit');
    expect(rearPlan().forming.raiseMm).toBe(0);
  });
  test('the piece: the flat film, 13 mm past each side, 25 mm to grip above and below', () => {
    const plan = rearPlan();
    const box = boundingBox(plan.flat.outline);
    expect(plan.flat.piece.widthMm).toBeCloseTo(box.maxX - box.minX + 26, 6);
    expect(plan.flat.piece.heightMm).toBeCloseTo(box.maxY - box.minY + 50, 6);
    expect(plan.flat.piece.widthMm).toBeGreaterThan(1320 + 26);
  });
  test('a line that somebody wants is taken, and what it costs is said', () => {
    const plan = rearPlan({}, { anchor: { kind: 'through', leftMm: 120, rightMm: 120 } });
    expect(plan.anchor).toMatchObject({ kind: 'through', leftMm: expect.closeTo(120, 0), sureToMm: null });
    expect(plan.above.slackMm).toBeGreaterThan(2 * plan.below.slackMm);
    expect(plan.advice.join(' ')).toContain('Another line: the balanced one asks for');
  });
  test('grade by what the film can do, with the doubt of the bows', () => {
    expect(rearPlan({ film: filmOf({ shrink: { alongPct: 0.5, acrossPct: 0 } }) }).grade).toBe('beyond');
    const weak = rearPlan({ film: filmOf({ shrink: { alongPct: 0.5, acrossPct: 0 } }), others: [{ id: filmOf().id.replace('900', '901'), name: 'Better 3', alongPct: 3 }] }); // prettier-ignore
    expect(weak.advice.join(' ')).toContain('Another film: Better 3 shrinks 3 %');
    expect([gradeOf(0.0009, 0.025), gradeOf(0.005, 0.025), gradeOf(0.015, 0.025), gradeOf(0.022, 0.025)]).toEqual(['lies-down', 'easy', 'care', 'beyond']);
  });
  test('too much for one piece: parted along a heating line each half asks for a quarter', () => {
    const weak = rearPlan(
      { film: filmOf({ shrink: { alongPct: 0.5, acrossPct: 0 } }) },
      { defroster: { way: 'across', firstMm: 100, spacingMm: 30, count: 13 } },
    );
    const words = weak.advice.find((a) => a.includes('heating line'))!;
    expect(words).toContain('280 mm above the lower corners');
    const peak = Number(/at most ([\d.]+) %/.exec(words)![1]) / 100;
    expect(peak / weak.below.peakFrac).toBeGreaterThan(0.2);
    expect(peak / weak.below.peakFrac).toBeLessThan(0.32);
  });
  test('a saddle would have to stretch: beyond a film that only shrinks, with care for one that gives way', () => {
    const saddle = (x: number, y: number) => dishOver(900, 560, 40, -14)(x, y);
    const bows = readBows(sheet(900, 560), saddle);
    const plan = shrinkPlan(inputOf(sheet(900, 560), { bows }));
    expect(plan.grade).toBe('beyond');
    expect(plan.anchor.kind).toBe('middle');
    expect(plan.advice.join(' ')).toContain('A saddle');
    expect(shrinkPlan(inputOf(sheet(900, 560), { bows }, { film: filmOf({ stretches: true }) })).grade).toBe('care');
    expect([stretchGrade(-0.0005, false), stretchGrade(-0.002, false), stretchGrade(-0.006, false)]).toEqual(['lies-down', 'care', 'beyond']);
  });
  test('tint shrinks along the roll only, so its piece cannot be turned; what shrinks both ways or gives way may be', () => {
    expect(mayTurn(filmOf())).toBe(false);
    expect(mayTurn(filmOf({ shrink: { alongPct: 6, acrossPct: 4 } }))).toBe(true);
    expect(mayTurn(filmOf({ stretches: true }))).toBe(true);
    expect(mayTurn(filmOf({ shrink: null }))).toBe(false);
    expect(rearPlan({ widestRollMm: 500 }).advice.join(' ')).toContain('cannot be turned');
  });
  test('an inch job reads no millimetre: neither in the plan, nor of a bow that is out, nor of a zone, nor on the cards', () => {
    const zone = { id: filmOf().id, kind: 'sensor' as const, leftMm: 600, lowMm: 0, widthMm: 120, heightMm: 60 };
    const read = readBows(rear, dishOver(1320, 560, 62, 16)).map((b, i) => (i === 0 ? { ...b, depthMm: b.depthMm - 25, typed: '' } : b));
    const words = (units: 'mm' | 'in', anchor: CurvedPane['anchor'] = { kind: 'balanced' }, seat: CurvedPane['seat'] = 'drop') => {
      const p = shrinkPlan(inputOf(rear, { bows: read, zones: [zone], anchor, seat }, { units }));
      const cards = p.methods.flatMap((m) => [m.text, m.notHere ?? '', m.why]);
      return [...p.summary, ...p.advice, ...p.cautions, ...p.suspects.map((s) => s.text), p.nextBow?.text ?? '', p.forming.text, ...cards].join('\n');
    };
    for (const text of [words('in'), words('in', { kind: 'balanced' }, 'fixed'), words('in', { kind: 'forced', leftMm: 120, middleMm: 120, rightMm: 120 })]) {
      expect(text).not.toMatch(/\d mm\b/);
      expect(text).toMatch(/\d"/);
    }
    expect(words('mm')).not.toMatch(/\d"/);
    expect(words('in')).toMatch(/reads [\d\s/]+"; all the others together say [\d\s/]+", give or take [\d\s/]+"/);
    expect(words('in')).toContain('1/2" past the sides');
  });
  test('lookout glass and plastic windows are refused; laminated glass gets no full gun; cold glass, burns and darkness are said', () => {
    expect(rearPlan({ isLookout: true }).refused).toContain('Lookout glass');
    const clear = rearPlan({ isLookout: true, film: filmOf({ darkens: false }) });
    expect([clear.refused, clear.advice.join(' ')]).toEqual([null, expect.stringContaining('ask the authority')]);
    expect(rearPlan({}, { stamp: 'plastic' }).refused).toContain('no heat gun');
    const laminated = rearPlan({}, { stamp: 'laminated' });
    expect(laminated.methods.find((m) => m.school === 'double-lift')!.notHere).toContain('Laminated');
    expect(laminated.methods.find((m) => m.school === laminated.school)).toMatchObject({ isRecommended: true, notHere: null });
    // the same pane, tempered, is easy with this film
    expect([rearPlan({}, { stamp: 'tempered' }).grade, laminated.grade, rearPlan({}, { stamp: 'tempered', isChipped: true }).grade]).toEqual([
      'easy',
      'care',
      'care',
    ]);
    expect(laminated.cautions.join(' ')).toContain('low heat, always moving');
    const { cautions } = rearPlan({}, { stamp: 'unknown', zones: [{ id: filmOf().id, kind: 'airbag', leftMm: 0, lowMm: 0, widthMm: 50, heightMm: 50 }] });
    for (const word of ['stamp', '15 °C', 'burns', 'Airbag', 'local law', 'Practise']) expect(cautions.join(' ')).toContain(word);
  });
  test('the firm’s way is taken where it can be done; what was chosen for the pane itself stands anyhow', () => {
    expect(rearPlan({ firmSchool: 'single-lift' }, { stamp: 'tempered' }).school).toBe('single-lift');
    expect(rearPlan({ firmSchool: 'single-lift' }, { stamp: 'laminated' }).school).toBe('finger-by-finger');
    expect(rearPlan({ firmSchool: 'gel-and-fold' }, { stamp: 'tempered' }).school).not.toBe('gel-and-fold');
    expect(rearPlan({ firmSchool: 'single-lift' }, { stamp: 'laminated', school: 'double-lift' }).school).toBe('double-lift');
  });
  test('the order is a permutation of the fingers, from the middle outwards by the first way, round the pane when film is folded', () => {
    const plan = rearPlan();
    const all = [...plan.below.fingers, ...plan.above.fingers].map((f) => `${f.side}${f.number}`);
    for (const school of ['finger-by-finger', 'double-lift', 'single-lift', 'tug-and-heat', 'gel-and-fold'] as const) {
      const order = fingerOrder(school, fingersOf(plan, 'above'), fingersOf(plan, 'below'));
      expect(order.map((o) => `${o.side}${o.number}`).sort()).toEqual([...all].sort());
    }
    const first = fingerOrder('finger-by-finger', [], fingersOf(plan, 'below'))[0]!;
    expect(Math.abs(first.number - (plan.below.fingers.length + 1) / 2)).toBeLessThanOrEqual(0.5);
  });
  test('halving the step changes the map by less than 1 %', () => {
    const [a, b] = [rearPlan({ stepMm: 20 }), rearPlan({ stepMm: 10 })];
    expect(Math.abs(a.below.slackMm / b.below.slackMm - 1)).toBeLessThan(0.01);
    expect(Math.abs(a.below.peakFrac / b.below.peakFrac - 1)).toBeLessThan(0.01);
  });
  test('the window on the other side: its bows mirrored, the same plan mirrored', () =>
    fc.assert(
      fc.property(fc.double({ min: -3e-8, max: 3e-8, noNaN: true }), fc.double({ min: 8, max: 18, noNaN: true }), (lop, upright) => {
        const height = (x: number, y: number) => dishOver(1320, 560, 55, upright)(x, y) + lop * (x - 660) * (y - 280) ** 2;
        const bows = readBows(rear, height);
        const input = inputOf(rear, { bows, cornerRadiiMm: [10, 20, 30, 40] });
        const other = mirroredCurved(input.curved, rear, 1320);
        const back = mirroredCurved(other, rear, 1320);
        expect(back.bows.map((b) => [b.way, b.atMm])).toEqual(bows.map((b) => [b.way, expect.closeTo(b.atMm, 9)]));
        expect(back.cornerRadiiMm).toEqual([10, 20, 30, 40]);
        const [a, b] = [shrinkPlan(input), shrinkPlan({ ...input, curved: other })];
        expect(b.below.slackMm).toBeCloseTo(a.below.slackMm, 1);
        expect(b.anchor.leftMm).toBeCloseTo(a.anchor.rightMm, 0);
      }),
      { numRuns: 5 },
    ));
});
const fingersOf = (plan: ReturnType<typeof shrinkPlan>, side: 'above' | 'below') =>
  plan[side].fingers.map((f) => ({ ...f, foot: { u: f.foot.x, v: f.foot.y }, root: { u: f.root.x, v: f.root.y } }));

test('thick exterior film is folded by the air; thin tint is not', () => {
  const t = {
    above: [],
    below: [],
    grade: 'easy' as const,
    isLaminated: true,
    thicknessUm: 200,
    isOutside: true,
    areaM2: 0.7,
    bandM: 2.6,
    units: 'mm' as const,
  };
  expect(methodCards(t).find((m) => m.isRecommended)!.school).toBe('gel-and-fold');
  expect(methodCards({ ...t, isLaminated: false, thicknessUm: 38 }).find((m) => m.school === 'gel-and-fold')!.notHere).toContain('thin');
});

test('usual bows are taken in walking order: three level from above, three upright from the left, both diagonals', () => {
  expect(usualBows(rear).map((b) => b.way)).toEqual(['across', 'across', 'across', 'upright', 'upright', 'upright', 'down', 'up']);
});

test('a made-up pane to practise on is planned like any other, and no two rounds are the same pane', () => {
  const [first, second] = [practicePane(0), practicePane(1)];
  const plan = shrinkPlan(first);
  expect(Math.abs(plan.anchor.middleMm - 250)).toBeLessThan(10);
  expect(plan.below.slackMm).toBeGreaterThan(1);
  // with what real ones have: a border that film ends on, a lamp that fingers stand clear of
  expect(Math.max(...plan.finished.map((p) => p.x))).toBeLessThan(900);
  expect(plan.keepClear.map((z) => z.name)).toEqual(['Brake light']);
  expect(plan.suspects).toEqual([]);
  expect(second.outline).not.toEqual(first.outline);
});
