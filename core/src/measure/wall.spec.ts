import { newWall, type Hardware, type Masonry, type Wall, type WallEnd, type WallMeasure } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { Memo } from '../ground/index.js';
import type { TapeReading } from './adjustment.js';
import { insideReturnMm } from './inside-corner.js';
import { jointsOf } from './masonry.js';
import { coverOfWall, floorAt, judgeWall, wallModel, wallSpan, type WallParts } from './wall.js';
import { runOf, surveyWall, wallBeside } from './wall-survey.js';
import { cornerText, wallDoubtText, wallNumbers, wallVerdict } from './wall-words.js';

type Tapes = Partial<Record<WallMeasure, number>>;
const tapes = (t: Tapes): TapeReading[] => Object.entries(t).map(([measure, lengthMm]) => ({ measure: measure as WallMeasure, lengthMm }));
const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
const stop = { is: 'stop', angleDeg: null, isFirst: true, beside: null } as const;
const parts = (p: Partial<WallParts> = {}): WallParts => ({ hardware: [], masonry: null, corners: { left: stop, right: stop }, ...p });
const judge = (t: Tapes, p: Partial<WallParts> = {}) => judgeWall(parts(p), tapes(t));
const verdict = (t: Tapes, p: Partial<WallParts> = {}) => wallVerdict(judge(t, p), parts(p), 'mm');
/** 4000 × 2500, its floor falling by 12 to the right, a laser line 1000 above the floor at the left. */
const sloping: Tapes = {
  widthTop: 4000,
  widthBottom: 4000.02,
  heightLeft: 2500,
  heightRight: 2512,
  upLeft: 1500,
  downLeft: 1000,
  upRight: 1500,
  downRight: 1012,
};
const blocks: Masonry = { unit: 'block', pitchAcrossMm: 400, pitchUpMm: 200, jointMm: 10, jointDepthMm: 6, bond: 'running', firstBedMm: 200, firstHeadMm: 400, texture: 'medium', courses: null, unitsInFirstCourse: null }; // prettier-ignore
const socket: Hardware = { id: id(20), what: 'Socket', handling: 'off', fromLeftMm: 600, fromFootMm: 300, widthMm: 80, heightMm: 80, isElectric: true };

describe('what is taped of a wall', () => {
  test('a width and a height give it a size; that nobody drew a level line is said', () => {
    expect(judge({ widthBottom: 4000 }).status).toBe('nothing');
    const two = judge({ widthBottom: 4000, heightLeft: 2500 });
    expect(two.status).toBe('unchecked');
    expect(verdict({ widthBottom: 4000, heightLeft: 2500 }).body).toContain('No laser line');
    expect(coverOfWall(two)!.widthMm).toBeGreaterThan(4000);
  });
  test('a height can come from the laser line alone, up and down', () => {
    const { body } = judge({ widthBottom: 4000, upLeft: 1480, downLeft: 1020, upRight: 1490, downRight: 1020 });
    expect(body!.heightMm.left).toBeCloseTo(2500, 3);
    expect(body!.heightMm.right).toBeCloseTo(2510, 3);
    expect(body!.riseMm).toEqual({ floor: expect.closeTo(0, 6) as number, ceiling: expect.closeTo(10, 3) as number });
  });
  test('three drops from the line tell a floor that falls from a ceiling that rises: the heights alone cannot', () => {
    const survey = judge(sloping);
    expect(survey.status).toBe('agreeing');
    expect(survey.body!.riseMm!.floor).toBeCloseTo(-12, 3);
    expect(survey.body!.riseMm!.ceiling).toBeCloseTo(0, 3);
    expect(verdict(sloping).body).toContain('Its floor falls by 12 mm from left to right.');
    const { upLeft: _a, upRight: _b, downLeft: _c, downRight: _d, ...plain } = sloping;
    expect(judge(plain).body!.riseMm).toBeNull();
    expect(verdict(plain).body).toContain('It is 12 mm higher on the right.');
  });
  test('three drops each way also find what hangs through in the middle', () => {
    const hanging = { ...sloping, upMiddle: 1485, downMiddle: 1006 };
    const { body, status } = judge(hanging);
    expect(status).toBe('agreeing');
    expect(body!.sagMm.ceiling).toBeCloseTo(15, 3);
    expect(body!.sagMm.floor).toBeCloseTo(0, 3);
    expect(verdict(hanging).body).toContain('Its ceiling lies 15 mm lower in the middle.');
  });
  test('a drop that was misread is named, and the tape that settles it is asked for', () => {
    const slip = { ...sloping, downRight: 1021 };
    const survey = judge(slip);
    expect(survey.status).toBe('doubtful');
    expect(survey.suspects.map((s) => s.hypothesis)).toContainEqual({ kind: 'slip', measure: 'downRight' });
    expect(survey.next).not.toBeNull();
    expect(verdict(slip).headline).toMatch(/disagree by about/);
  });
  test('one middle height that differs is a slip or a ceiling that hangs: both are weighed, and the piece covers both', () => {
    const t = { widthBottom: 4000, heightLeft: 2500, heightMiddle: 2488, heightRight: 2500 };
    const survey = judge(t);
    expect(survey.status).toBe('doubtful');
    const kinds = survey.suspects.map((s) => (s.hypothesis.kind === 'otherwise' ? s.hypothesis.is : s.hypothesis.kind));
    expect(kinds).toEqual(expect.arrayContaining(['slip', 'hanging']));
    expect(verdict(t).body).toMatch(/hangs through by about 1\d mm in the middle/);
    const span = wallSpan(survey, 0, 4000)!;
    expect(span.highMm - span.lowMm).toBeGreaterThan(2499);
  });
  test('a diagonal says whether its ends are plumb', () => {
    const rack = { widthTop: 4000, widthBottom: 4000, heightLeft: 2500, heightRight: 2500, upLeft: 1500, downLeft: 1000, upRight: 1500, downRight: 1000, diagonalUp: Math.hypot(4020, 2500), diagonalDown: Math.hypot(3980, 2500) }; // prettier-ignore
    const { body, status } = judge(rack);
    expect(status).toBe('agreeing');
    expect(body!.rackMm).toBeCloseTo(20, 0);
    expect(verdict(rack).body).toContain('Its top stands 20 mm to the right of its foot.');
  });
  test('any wall is found again from exact tapes', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(mm(800, 9000), mm(-20, 20), mm(-20, 20), mm(2000, 4000), mm(-25, 25), mm(-25, 25), mm(400, 1500), mm(-15, 15), mm(-15, 15), (...p) => {
        const keys = ['widthTop', 'widthMiddle', 'widthBottom', 'heightLeft', 'heightMiddle', 'heightRight', 'upLeft', 'downLeft', 'upMiddle', 'downMiddle', 'upRight', 'downRight', 'diagonalDown', 'diagonalUp'] as const; // prettier-ignore
        const model = wallModel(new Set(keys));
        const t = Object.fromEntries(keys.map((k) => [k, model.reading(p, k)]));
        const { body, status } = judge(t);
        return (
          status === 'agreeing' &&
          Math.abs(body!.riseMm!.floor - p[4]) < 1e-3 &&
          Math.abs(body!.sagMm.ceiling - p[8]) < 1e-3 &&
          Math.abs(body!.rackMm! - p[2]) < 1e-3
        );
      }),
      { numRuns: 60 },
    );
  });
  test('what film has to cover: the lowest floor and the highest ceiling over each stretch of it', () => {
    const survey = judge(sloping);
    const [left, right] = [wallSpan(survey, 0, 1000)!, wallSpan(survey, 3000, 4000)!];
    expect(left.lowMm - right.lowMm).toBeCloseTo(9, 1);
    expect(left.highMm).toBeCloseTo(right.highMm, 6);
    expect(floorAt(survey.body!, 0) - floorAt(survey.body!, 2000)).toBeCloseTo(6, 3);
    // a ceiling that hangs is covered at its ends as well, a high middle in the middle
    const high = judge({ ...sloping, upMiddle: 1520, downMiddle: 1006 });
    expect(wallSpan(high, 1500, 2500)!.highMm - wallSpan(high, 0, 500)!.highMm).toBeGreaterThan(10);
  });
});

describe('what else does not fit', () => {
  test('a corner that two walls share is one arris: it has one height', () => {
    const corners = { left: stop, right: { ...stop, is: 'inside', beside: { name: 'Wall B', heightMm: 2530 } } } as const;
    const survey = judge(sloping, { corners });
    expect(survey).toMatchObject({ status: 'doubtful', doubts: [{ is: 'corner-height', side: 'right' }] });
    expect(wallDoubtText(survey.doubts[0]!, { hardware: [], corners: survey.corners }, 'mm')).toMatch(
      /The corner on its right is 18 mm lower here than from Wall B/,
    );
    expect(judge(sloping, { corners: { ...corners, right: { ...corners.right, beside: { name: 'Wall B', heightMm: 2513 } } } }).status).toBe('agreeing');
  });
  test('courses and units counted, cut ones with them, check the pitch', () => {
    const counted = (courses: number, unitsInFirstCourse: number) => judge(sloping, { masonry: { ...blocks, courses, unitsInFirstCourse } }).doubts;
    expect(counted(13, 10)).toEqual([]);
    expect(counted(13, 11)).toEqual([]);
    expect(counted(11, 10)).toMatchObject([{ is: 'courses', counted: 11, expected: 13 }]);
    expect(counted(13, 20)).toMatchObject([{ is: 'units', counted: 20, expected: 10 }]);
  });
  test('a socket beside the wall is a slip of the tape', () => {
    expect(judge(sloping, { hardware: [socket] }).doubts).toEqual([]);
    const survey = judge(sloping, { hardware: [{ ...socket, fromLeftMm: 6000 }] });
    expect(survey.doubts).toMatchObject([{ is: 'outside', part: socket.id }]);
    expect(verdict(sloping, { hardware: [{ ...socket, fromLeftMm: 6000 }] }).body).toMatch(/^Socket would stand .* outside the wall/);
  });
});

describe('joints of blocks and bricks', () => {
  const perM2 = (m: Partial<Masonry>, wide: number, high: number) =>
    jointsOf({ ...blocks, ...m }, { widthMm: wide, heightMm: high }).lengthM / ((wide * high) / 1e6);
  test('blocks of 400 × 200 have 7.5 m of joint to the m², of 16 × 8 in 7.38 m; rolled at 51 mm/s 147 s and 145 s (CHECKS)', () => {
    const metric = perM2({}, 400_000, 200_000);
    expect(metric).toBeCloseTo(7.5, 1);
    expect((metric * 1000) / 51).toBeCloseTo(147, 0);
    const inch = perM2({ pitchAcrossMm: 406.4, pitchUpMm: 203.2, firstBedMm: 203.2, firstHeadMm: 406.4 }, 406_400, 203_200);
    expect(inch).toBeCloseTo(7.38, 1);
    expect((inch * 1000) / 51).toBeCloseTo(145, 0);
  });
  test('running bond breaks joints by half, third bond by a third, stack bond not at all', () => {
    const heads = (bond: Masonry['bond']) => jointsOf({ ...blocks, bond }, { widthMm: 1200, heightMm: 600 }).courses.map((c) => c.headsMm.map(Math.round));
    expect(heads('stack')).toEqual([[400, 800], [400, 800], [400, 800]]); // prettier-ignore
    expect(heads('running')).toEqual([[400, 800], [200, 600, 1000], [400, 800]]); // prettier-ignore
    expect(heads('thirds')).toEqual([[400, 800], [133, 533, 933], [267, 667, 1067]]); // prettier-ignore
  });
  test('half and cut units are told at the ends; a course that is cut at the top too', () => {
    const { courses } = jointsOf(blocks, { widthMm: 1300, heightMm: 500 });
    expect(courses.map((c) => c.units.map((u) => u.is))).toEqual([
      ['whole', 'whole', 'whole', 'cut'],
      ['half', 'whole', 'whole', 'cut'],
      ['whole', 'whole', 'whole', 'cut'],
    ]);
    expect(courses.map((c) => c.isCut)).toEqual([false, false, true]);
  });
  test('whatever the pitch and the first joints: units and courses fill the wall once, none is longer than the pitch', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        mm(80, 600),
        mm(50, 300),
        mm(0, 900),
        mm(0, 900),
        fc.constantFrom<Masonry['bond']>('running', 'thirds', 'stack'),
        mm(300, 6000),
        mm(300, 3000),
        (across, up, bed, head, bond, wide, high) => {
          const m = { ...blocks, pitchAcrossMm: across, pitchUpMm: up, firstBedMm: bed, firstHeadMm: head, bond };
          const { courses } = jointsOf(m, { widthMm: wide, heightMm: high });
          const area = courses.reduce((sum, c) => sum + c.units.reduce((s, u) => s + (u.toMm - u.fromMm) * (c.highMm - c.lowMm), 0), 0);
          const longest = Math.max(...courses.flatMap((c) => [...c.units.map((u) => (u.toMm - u.fromMm) / across), (c.highMm - c.lowMm) / up]));
          return Math.abs(area - wide * high) < 1e-3 && longest < 1 + 2.1 / Math.min(across, up);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('walls round corners', () => {
  const corner: WallEnd = { is: 'inside', angleDeg: 91, isFirst: true };
  const wall = (n: number, more: Partial<Wall> = {}): Wall => newWall({ id: id(n), jobId: id(90), placeId: id(91), name: `Wall ${n}`, order: n, ...more });
  const records = (surfaces: Wall[], taped: [number, WallMeasure, number][] = []) => ({
    surfaces,
    readings: taped.map(([n, measure, lengthMm], i) => ({ id: `01930000-0000-7000-8000-000000001${100 + i}`, jobId: id(90), surfaceId: id(n), measure, typed: String(lengthMm), unit: 'mm' as const, lengthMm, instrument: 'tape' as const, personId: id(92), at: '2026-11-30T10:00:00.000Z', supersedesId: null, withdrawnAt: null, deletedAt: null })), // prettier-ignore
    memo: new Memo(),
  });
  const three = [wall(41, { right: corner, nextId: id(42) }), wall(42, { right: { is: 'outside', angleDeg: null, isFirst: false }, nextId: id(43) }), wall(43)];
  test('a corner stands in the record of the wall on its left, and is seen from both', () => {
    const doc = records(three, [[42, 'heightLeft', 2500], [42, 'wanderLeft', 4], [41, 'wanderRight', 2]]); // prettier-ignore
    const [a, b, c] = three.map((w) => surveyWall(w, doc).survey.corners);
    expect(a!.right).toMatchObject({ is: 'inside', angleDeg: 91, isFirst: true, wanderMm: 4, beside: { name: 'Wall 42', heightMm: 2500 } });
    expect(b!.left).toMatchObject({ is: 'inside', angleDeg: 91, isFirst: false, wanderMm: 4, beside: { name: 'Wall 41' } });
    expect(b!.right).toMatchObject({ is: 'outside', isFirst: false });
    expect(c!.left).toMatchObject({ is: 'outside', isFirst: true });
    expect([a!.left.is, c!.right.is]).toEqual(['stop', 'stop']);
    // a wall that was taped from a level line alone has a height at its corner too
    const levelled = records(three, [[42, 'upLeft', 1500], [42, 'downLeft', 1010]]); // prettier-ignore
    expect(surveyWall(three[0]!, levelled).survey.corners.right.beside!.heightMm).toBe(2510);
  });
  test('a run is told from its left end; a room all round begins where one begins to walk; a wall that was deleted parts it', () => {
    const names = (w: Wall, all: Wall[]) => runOf(w, { surfaces: all }).map((x) => x.name);
    for (const w of three) expect(names(w, three)).toEqual(['Wall 41', 'Wall 42', 'Wall 43']);
    const room = [three[0]!, three[1]!, { ...three[2]!, nextId: id(41) }];
    for (const w of room) expect(names(w, room)).toEqual(['Wall 41', 'Wall 42', 'Wall 43']);
    const gone = [three[0]!, { ...three[1]!, deletedAt: '2026-11-30T10:00:00.000Z' }, three[2]!];
    expect(names(three[0]!, gone)).toEqual(['Wall 41']);
    expect(wallBeside({ ...three[2]!, nextId: id(43) }, 'right', { surfaces: three })).toBeNull();
  });
  test('an inside corner: return 13, ruler 3, lap 10 (CHECKS); the more it wanders the wider the return, and 6 of lap are left', () => {
    expect(insideReturnMm(13, 0)).toEqual({ returnMm: 13, leastLapMm: 10, isWidened: false });
    expect(insideReturnMm(13, 4)).toEqual({ returnMm: 13, leastLapMm: 6, isWidened: false });
    expect(insideReturnMm(13, 5)).toEqual({ returnMm: 14, leastLapMm: 6, isWidened: true });
    expect(insideReturnMm(13, null)).toEqual({ returnMm: 13, leastLapMm: 10, isWidened: false });
  });
  test('each end is told in a sentence', () => {
    const { corners } = surveyWall(three[1]!, records(three)).survey;
    expect(cornerText('left', corners.left, 'mm', insideReturnMm(13, null))).toMatch(
      /^Left end: inside corner of 91° with Wall 41\. The other film is first.*ruler of 3 mm\. Lay a straightedge along it/,
    );
    const usual = insideReturnMm(13, 0);
    expect(cornerText('right', corners.right, 'mm', usual)).toBe(
      'Right end: outside corner with Wall 43. The other film comes round it; this one is laid over.',
    );
    expect(cornerText('left', corners.left, 'in', usual)).toContain('along a ruler of 1/8"');
    expect(cornerText('left', { ...corners.left, isFirst: true, wanderMm: 0 }, 'mm', usual)).toContain(
      'turns 13 mm on to the other wall; 10 mm of lap are left',
    );
  });
  test('figures beside the drawing: sizes, and of blocks what they come to', () => {
    const survey = judge(sloping, { masonry: blocks });
    expect(wallNumbers(survey, blocks, 'mm')).toEqual([
      { name: 'Width, foot × top', value: '4000 × 4000' },
      { name: 'Height, least to most', value: '2500 to 2512' },
      { name: 'Courses', value: '13, running bond' },
      { name: 'Units', value: expect.stringMatching(/^\d+, of them 12 halves and 0 cut$/) as string },
      { name: 'Joints in all', value: expect.stringMatching(/ m$/) as string },
    ]);
  });
});
