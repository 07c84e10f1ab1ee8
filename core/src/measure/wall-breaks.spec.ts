import fc from 'fast-check';
import type { WallBreak, WallMeasure } from '@yellow-pane/contracts';
import type { TapeReading } from './adjustment.js';
import { ceilingBetween, coverOfWall, floorAt, judgeWall, wallFaceMm2, wallSpan, type WallParts } from './wall.js';
import { wallDoubtText, wallFacts, wallNumbers, wallVerdict } from './wall-words.js';

type Tapes = Partial<Record<WallMeasure, number>>;
const tapes = (t: Tapes): TapeReading[] => Object.entries(t).map(([measure, lengthMm]) => ({ measure: measure as WallMeasure, lengthMm }));
const id = (n: number) => `01930000-0000-7000-8000-0000000000${n}`;
const stop = { is: 'stop', angleDeg: null, isFirst: true, beside: null } as const;
const at = (n: number, fromLeftMm: number, upMm: number | null, downMm: number | null = null): WallBreak => ({ id: id(50 + n), fromLeftMm, upMm, downMm });
const parts = (breaks: WallBreak[], more: Partial<WallParts> = {}): WallParts => ({
  hardware: [],
  masonry: null,
  corners: { left: stop, right: stop },
  breaks,
  ...more,
});
const judge = (t: Tapes, breaks: WallBreak[]) => judgeWall(parts(breaks), tapes(t));
const verdict = (t: Tapes, breaks: WallBreak[]) => wallVerdict(judge(t, breaks), { hardware: [] }, 'mm');
const highAt = (survey: ReturnType<typeof judge>, x: number) => {
  const { lowMm, highMm } = wallSpan(survey, x, x, 0)!;
  return highMm - lowMm;
};

/** A gable 6 m wide, 2400 at its eaves, 3900 at its ridge 2500 from the left; the line 1 m above a level floor. */
const eaves: Tapes = { widthBottom: 6000, widthTop: 6000, heightLeft: 2400, heightRight: 2400, upLeft: 1400, downLeft: 1000, upRight: 1400, downRight: 1000 };
const ridge = at(1, 2500, 2900);
/** Under stairs: the floor rises from 1500 to 4200 by 1600, a landing after it; the line 2 m above the lower floor, the ceiling level 4200 above that. */
const stairs: Tapes = { widthBottom: 5000, upLeft: 2200, downLeft: 2000, upRight: 2200, downRight: 400 };
const flight = [at(1, 1500, null, 2000), at(2, 4200, null, 400)];

describe('a wall whose ceiling or floor breaks', () => {
  test('a gable: as high at every place as the slopes make it, and so large', () => {
    const survey = judge(eaves, [ridge]);
    expect(survey.body!.isBroken).toEqual({ floor: false, ceiling: true });
    expect(highAt(survey, 2500)).toBeCloseTo(3900, 1);
    expect(highAt(survey, 1250)).toBeCloseTo(3150, 1);
    expect(highAt(survey, 4250)).toBeCloseTo(3150, 1);
    // eaves and triangle
    expect(wallFaceMm2(survey)! / 1e6).toBeCloseTo(6 * 2.4 + (6 * 1.5) / 2, 3);
    expect(coverOfWall(survey)!.heightMm).toBeGreaterThan(3900);
    expect(wallNumbers(survey, null, 'mm')[1]).toEqual({ name: 'Height, least to most', value: '2400 to 3900' });
    expect(wallFacts(survey.body!, 'mm')).toEqual(['Its ceiling breaks once.']);
  });
  test('stairs: the floor follows the flight and the landing; what stands on the wall is told from the floor below it', () => {
    const survey = judge(stairs, flight);
    expect([0, 1500, 2850, 4200, 5000].map((x) => Math.round(highAt(survey, x)))).toEqual([4200, 4200, 3400, 2600, 2600]);
    expect(floorAt(survey.body!, 2850) - floorAt(survey.body!, 0)).toBeCloseTo(800, 1);
    expect(wallFacts(survey.body!, 'mm')).toEqual(['Its floor breaks 2 times.']);
  });
  test('a landing that lies above the line is taped with a minus', () => {
    const low = { ...stairs, upLeft: 3200, downLeft: 1000, upRight: 3200 };
    const survey = judge({ ...low, downRight: 1 }, [at(1, 1500, null, 1000), at(2, 4200, null, -600)]);
    expect(highAt(survey, 4200)).toBeCloseTo(2600, 0);
  });
  test('a beam: two breaks at one place stand one above the other', () => {
    const survey = judge({ ...eaves, upLeft: 1400, upRight: 1400 }, [at(1, 2000, 1400), at(2, 2000, 1100), at(3, 2400, 1100), at(4, 2400, 1400)]);
    expect([1999, 2001, 2399, 2401].map((x) => Math.round(highAt(survey, x)))).toEqual([2400, 2100, 2100, 2400]);
    expect(wallFaceMm2(survey)! / 1e6).toBeCloseTo(14.4 - 0.12, 3);
  });
  test('without both ends from the level line a break stands nowhere: asked for, and the line taken as straight', () => {
    const survey = judge({ widthBottom: 6000, heightLeft: 2400, heightRight: 2400 }, [ridge]);
    expect(survey.doubts).toEqual([{ is: 'break-untaped', part: null, line: 'ceiling' }]);
    expect(survey.body!.isBroken.ceiling).toBe(false);
    expect(verdict({ widthBottom: 6000, heightLeft: 2400, heightRight: 2400 }, [ridge]).body).toContain('tape up from the same level line at both ends too');
    expect(judge({ ...stairs, downRight: 0 }, flight).doubts).toContainEqual({ is: 'break-untaped', part: null, line: 'floor' });
  });
  test('heights in full do for the ceiling where the floor is known at both ends', () => {
    const { upLeft: _l, upRight: _r, ...noUps } = eaves;
    expect(judge(noUps, [ridge]).doubts).toEqual([]);
    expect(highAt(judge(noUps, [ridge]), 2500)).toBeCloseTo(3900, 1);
  });
  test('a break past the end, or a ceiling under its floor, is told', () => {
    expect(judge(eaves, [at(1, 6200, 1400)]).doubts[0]).toMatchObject({ is: 'break-outside', part: id(51), byMm: expect.closeTo(200, 0) });
    const crossed = judge(eaves, [at(1, 2500, -1200)]);
    expect(crossed.doubts).toEqual([{ is: 'break-crossed', part: id(51), byMm: expect.closeTo(200, 0) }]);
    expect(wallDoubtText(crossed.doubts[0]!, { hardware: [], corners: crossed.corners }, 'mm')).toContain('has a minus');
  });
  test('an end that leans has no height of its own: the slope begins at its foot, and breaks where it meets the ceiling', () => {
    // in by 400 at the left, out by 300 at the right
    const tapes: Tapes = { widthBottom: 5000, downLeft: 1000, upRight: 1600, downRight: 1000, heightLeft: 1, heightRight: 2600 };
    const inwards = judge(tapes, [at(1, 400, 1600)]);
    expect([inwards.status, inwards.doubts]).toEqual(['agreeing', []]);
    expect([100, 200, 400, 3000].map((x) => Math.round(highAt(inwards, x)))).toEqual([651, 1301, 2600, 2600]);
    expect(wallFaceMm2(inwards)! / 1e6).toBeCloseTo(5 * 2.6 - (0.4 * 2.6) / 2, 2);
    // its floor slopes up to the ceiling instead; the line just under that
    const outwards = judge({ widthTop: 5300, heightLeft: 2600, downLeft: 2599, upLeft: 1, upRight: 1, downRight: 1 }, [at(1, 5000, null, 2599)]);
    expect([outwards.status, outwards.doubts]).toEqual(['agreeing', []]);
    expect([4900, 5100, 5200].map((x) => Math.round(highAt(outwards, x)))).toEqual([2600, 1734, 868]);
  });
  test('a slip in a height is still found: the ridge is no excuse for it', () => {
    const slipped = judge({ ...eaves, heightLeft: 2450 }, [ridge]);
    expect(slipped.suspects.length).toBeGreaterThan(0);
    expect(verdict({ ...eaves, heightLeft: 2450 }, [ridge]).body).toContain('left height would be 2400');
  });
  test('a middle height is taped up to the slope, not to a line between the eaves', () => {
    // the ridge stands in the middle
    expect(judge({ ...eaves, heightMiddle: 3900 }, [at(1, 3000, 2900)]).status).toBe('agreeing');
    expect(judge({ ...eaves, heightMiddle: 2400 }, [at(1, 3000, 2900)]).status).toBe('doubtful');
  });
  test('a drop taped in the middle checks the slope, and makes no sag of its own', () => {
    expect(judge({ ...eaves, upMiddle: 2900, downMiddle: 1000 }, [at(1, 3000, 2900)]).status).toBe('agreeing');
    expect(judge({ ...eaves, upMiddle: 2600, downMiddle: 1000 }, [at(1, 3000, 2900)]).status).toBe('doubtful');
    expect(judge({ ...stairs, downMiddle: 1407, upMiddle: 2200 }, flight).status).toBe('agreeing');
    expect(judge({ ...stairs, downMiddle: 1200, upMiddle: 2200 }, flight).status).toBe('doubtful');
  });
  test('of a beam both sides are looked at: its lower one may be what cannot be', () =>
    expect(judge(eaves, [at(1, 2000, 1400), at(2, 2000, -1100), at(3, 2400, 1400)]).doubts.map((d) => d.is)).toContain('break-crossed'));
  test('any broken ceiling is found again from exact tapes, between any two places', () => {
    const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    fc.assert(
      fc.property(
        fc.record({
          wide: mm(2000, 9000),
          left: mm(2000, 3500),
          right: mm(2000, 3500),
          fall: mm(-300, 300),
          line: mm(600, 1400),
          breaks: fc.array(fc.tuple(mm(0.05, 0.95), mm(1800, 5000)), { minLength: 1, maxLength: 6 }),
          from: mm(0, 0.5),
          to: mm(0.5, 1),
        }),
        (w) => {
          const floor = (x: number) => (w.fall * x) / w.wide;
          const breaks = w.breaks.map(([share, high], i) => at(i, share * w.wide, high - w.line)).sort((a, b) => a.fromLeftMm - b.fromLeftMm);
          const survey = judge(
            {
              widthBottom: Math.hypot(w.wide, w.fall),
              upLeft: w.left - w.line,
              downLeft: w.line,
              upRight: w.right + w.fall - w.line,
              downRight: w.line - w.fall,
            },
            breaks,
          );
          const line = [{ x: 0, y: w.left }, ...breaks.map((b) => ({ x: b.fromLeftMm, y: b.upMm! + w.line })), { x: w.wide, y: w.right + w.fall }];
          const ceiling = (x: number) => {
            const i = Math.max(
              1,
              line.findIndex((p) => p.x >= x - 1e-9),
            );
            const [a, b] = [line[i - 1]!, line[i]!];
            return a.y + ((b.y - a.y) * (x - a.x)) / Math.max(1e-9, b.x - a.x);
          };
          // a straight look along the ceiling, away from where two breaks stand one above the other
          const places = Array.from({ length: 21 }, (_, i) => w.wide * (w.from + ((w.to - w.from) * i) / 20)).filter((x) =>
            breaks.every((b) => Math.abs(b.fromLeftMm - x) > 5),
          );
          const foot = floorAt(survey.body!, 0);
          return places.every(
            (x) =>
              Math.abs(floorAt(survey.body!, x) - foot - floor(x)) < 0.5 && Math.abs(ceilingBetween(survey.body!, x, x + 1e-6)[0]!.y - foot - ceiling(x)) < 1,
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});
