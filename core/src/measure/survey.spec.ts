import fc from 'fast-check';
import type { MeasureKey } from '@yellow-pane/contracts';
import { boundingBox } from '../geometry/index.js';
import { seededRandom } from '../ground/index.js';
import { adjustOpening, tapeSigmaMm } from './adjustment.js';
import { outlineOf, rectangle, tapeOrder, trueReading, type Shape } from './opening.js';
import { explanationKey, signable, surveyBelieving } from './believed.js';
import { enclosingRectangle, openingOf, surveyOpening } from './survey.js';
import { askText, crookednessText, oddLength, suspectText, verdictText, surveyWhy } from './words.js';

type Tapes = Partial<Record<MeasureKey, number>>;
const readings = (tapes: Tapes) => Object.entries(tapes).map(([measure, lengthMm]) => ({ measure: measure as MeasureKey, lengthMm }));
const oneMm = { constantMm: 1, perMille: 0 };
const at95 = { alpha0: 0.05, power: 0.8 };
const square: Tapes = { widthTop: 900, widthBottom: 900, heightLeft: 1200, heightRight: 1200, diagonalDown: 1500, diagonalUp: 1500 };
const tapesOf = (shape: Shape): Tapes => Object.fromEntries(tapeOrder.map((k) => [k, trueReading(shape, k)]));

describe('adjusting a four-sided opening', () => {
  // CHECKS, Survey 1: a 3-4-5 triangle; χ² of the wrong diagonal by least squares, worked out apart from this code
  test('900 × 1200 with both diagonals 1500 is exact and square', () => {
    const s = surveyOpening(readings(square), { tape: oneMm, levels: at95 });
    expect(s.status).toBe('agreeing');
    expect(s.adjustment!.chiSquare).toBeCloseTo(0, 9);
    for (const angle of Object.values(s.crookedness!.cornersDeg)) expect(angle).toBeCloseTo(90, 9);
  });

  test('one diagonal of 1520 is flagged at χ² 100.66 against 3.84, and no reading is proven wrong', () => {
    const s = surveyOpening(readings({ ...square, diagonalDown: 1520 }), { tape: oneMm, levels: at95 });
    expect(s.adjustment!.chiSquare).toBeCloseTo(100.66, 2);
    expect(s.adjustment!.limit).toBeCloseTo(3.84, 2);
    expect(s.status).toBe('doubtful');
    const tests = s.adjustment!.readings.map((r) => Math.abs(r.normalised));
    for (const t of tests) expect(t).toBeCloseTo(tests[0]!, 6);
    expect(verdictText(s, 'mm').body).toContain('cannot be proven');
  });

  // CHECKS, Survey 2: corner angles by the law of cosines
  test('diagonals 1501 and 1499 are a real lean or two opposite errors: nothing to object', () => {
    const s = surveyOpening(readings({ ...square, diagonalDown: 1501, diagonalUp: 1499 }), { tape: oneMm, levels: at95 });
    expect(s.adjustment!.chiSquare).toBeLessThan(2e-7);
    // the longer diagonal runs from the top left, so the lower left corner is the wide one
    expect(s.crookedness!.cornersDeg.bottomLeft).toBeCloseTo(90.08, 2);
    expect(s.crookedness!.cornersDeg.bottomRight).toBeCloseTo(89.92, 2);
    expect(s.cannotCheck.join(' ')).toContain('opposite amounts');
  });

  test('recovers any opening from error-free tapes', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 300, max: 2500 }),
        fc.integer({ min: 300, max: 2500 }),
        fc.array(fc.integer({ min: -25, max: 25 }), { minLength: 4, maxLength: 4 }),
        (w, h, d) => {
          const shape: Shape = [w, d[0]!, h + d[1]!, w + d[2]!, h + d[3]!];
          const a = adjustOpening(readings(tapesOf(shape)))!;
          expect(a.chiSquare).toBeLessThan(1e-9);
          a.shape.forEach((v, i) => expect(v).toBeCloseTo(shape[i]!, 4));
        },
      ),
      { seed: 7, numRuns: 60 },
    ));

  test('with honest tape errors the global test raises a false alarm about as often as it says', () => {
    const random = seededRandom(5);
    const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const shape: Shape = [812, 4, 1402, 818, 1398];
    let alarms = 0;
    const trials = 400;
    let alpha = 0;
    for (let i = 0; i < trials; i++) {
      const noisy = readings(tapesOf(shape)).map((r) => ({ ...r, lengthMm: r.lengthMm + gauss() * tapeSigmaMm(r.lengthMm) }));
      const a = adjustOpening(noisy)!;
      alpha = a.alpha;
      if (!a.passes) alarms++;
    }
    expect(Math.abs(alarms / trials - alpha)).toBeLessThan(3 * Math.sqrt((alpha * (1 - alpha)) / trials));
  });

  test('missing tapes are filled by the most rectangular shape, and then carry more uncertainty', () => {
    const few = adjustOpening(readings({ widthTop: 900, heightLeft: 1200, diagonalDown: 1500 }))!;
    const all = adjustOpening(readings(tapesOf(rectangle(900, 1200))))!;
    expect(few.isDetermined).toBe(false);
    expect(few.covariance[3]![3]!).toBeGreaterThan(all.covariance[3]![3]!);
  });
});

describe('as few tapes as the method needs', () => {
  test('largest width and largest height are a finished survey without a warning', () => {
    const s = surveyOpening(readings({ widthLargest: 1184, heightLargest: 2046 }));
    expect(s.status).toBe('two-tapes');
    expect(s.cannotCheck).toEqual([]);
    const box = enclosingRectangle(s)!;
    expect(box.widthMm).toBeGreaterThanOrEqual(1184);
    expect(box.widthMm).toBeLessThan(1184 + 2.5);
  });

  test('says plainly what cannot be checked', () => {
    expect(surveyOpening(readings({ widthTop: 900, widthBottom: 902, heightLeft: 1200 })).cannotCheck.join(' ')).toMatch(/No diagonal.*One height/);
    expect(
      surveyOpening(readings({ widthTop: 900, widthBottom: 902, heightLeft: 1200, heightRight: 1200, diagonalDown: 1500 })).cannotCheck.join(' '),
    ).toContain('One diagonal only');
    // nobody is told to tape what they have taped
    const both = surveyOpening(readings(square)).cannotCheck.join(' ');
    expect(both).not.toContain('diagonal only');
    expect(both).not.toContain('No diagonal');
    expect(both).toContain('only a level or a framing square tells');
  });

  test('where no tape checks another that is said, once, and not where something else is missing already', () => {
    const says = (t: Tapes) => surveyOpening(readings(t)).cannotCheck.filter((x) => x.includes('No tape here checks another')).length;
    expect(says(square)).toBe(0);
    expect(says({ widthTop: 900, widthBottom: 902, heightLeft: 1200 })).toBe(0);
    expect(says({ widthTop: 900, widthBottom: 900, heightLeft: 1200, heightRight: 1200, diagonalDown: 1500 })).toBe(0);
  });
  test('a largest height is no second height: beside one taken by itself it does not count, beside widths alone it does', () => {
    const beside = surveyOpening(readings({ ...square, heightLargest: 1300 }));
    expect(beside.status).toBe('agreeing');
    expect(beside.adjustment!.readings.map((r) => r.measure)).not.toContain('heightLargest');
    const alone = surveyOpening(readings({ widthTop: 900, widthBottom: 900, heightLargest: 1200 }));
    expect(boundingBox(alone.outline!).maxY).toBeCloseTo(1200, 0);
    const wide = surveyOpening(readings({ ...square, widthLargest: 1000 }));
    expect(wide.adjustment!.readings.map((r) => r.measure)).not.toContain('widthLargest');
  });
  test('a side and a diagonal are enough for a first size, whichever side it is (3-4-5)', () => {
    const sizeOf = (tapes: Tapes) => boundingBox(surveyOpening(readings(tapes)).outline!);
    const [byHeight, byWidth] = [sizeOf({ heightLeft: 1200, diagonalDown: 1500 }), sizeOf({ widthTop: 900, diagonalUp: 1500 })];
    expect(byHeight.maxX - byHeight.minX).toBeCloseTo(900, 0);
    expect(byWidth.maxY - byWidth.minY).toBeCloseTo(1200, 0);
    // a diagonal no longer than the side makes no opening
    expect(enclosingRectangle(surveyOpening(readings({ heightLeft: 1200, diagonalDown: 1200 })))).toBeNull();
  });

  test('nothing yet, or one tape: nothing is claimed', () => {
    expect(surveyOpening([]).status).toBe('nothing');
    expect(surveyOpening(readings({ widthTop: 900 })).outline).toBeNull();
    expect(surveyOpening(readings({ widthTop: 900, heightLeft: 0 })).status).toBe('impossible');
  });
});

describe('weighing what may have happened', () => {
  const toilet: Tapes = {
    widthTop: 612,
    widthMiddle: 605,
    widthBottom: 619,
    heightLeft: 669,
    heightMiddle: 668,
    heightRight: 668,
    diagonalDown: 903,
    diagonalUp: 900,
  };

  test('top and bottom width both explain the crooked toilet window; the bottom is asked for again', () => {
    const s = surveyOpening(readings(toilet));
    expect(s.disagreeMm).toBeGreaterThan(20);
    expect(s.disagreeMm).toBeLessThan(22);
    const [first, second] = s.suspects;
    expect(first!.hypothesis).toEqual({ kind: 'slip', measure: 'widthBottom' });
    expect(first!.wouldBeMm).toBeCloseTo(598, 0);
    expect(second!.hypothesis).toEqual({ kind: 'slip', measure: 'widthTop' });
    expect(second!.wouldBeMm).toBeCloseTo(591, 0);
    expect(askText(s.next!.measure, s.next!.isRetape)).toBe('Tape the bottom width again');
  });

  test('where the person saw that it is crooked, the less usual shape gets a better chance', () => {
    const chance = (calledCrooked: boolean) =>
      surveyOpening(readings(toilet), { calledCrooked }).suspects.find((s) => s.hypothesis.kind === 'slip' && s.hypothesis.measure === 'widthTop')!.probability;
    expect(chance(true)).toBeGreaterThan(chance(false));
  });

  test('probabilities are honest: they add up to one at most, and re-taping the slip settles it', () => {
    const s = surveyOpening(readings(toilet));
    expect(s.suspects.reduce((sum, x) => sum + x.probability, 0)).toBeLessThanOrEqual(1 + 1e-9);
    expect(surveyOpening(readings({ ...toilet, widthBottom: 598 })).status).toBe('agreeing');
  });

  test('a bowed side looks like a slip of the middle tape: one straightedge gap settles it', () => {
    const bowed: Tapes = {
      widthTop: 598,
      widthMiddle: 605,
      widthBottom: 598,
      heightLeft: 670,
      heightMiddle: 670,
      heightRight: 670,
      diagonalDown: 898,
      diagonalUp: 898,
    };
    const s = surveyOpening(readings(bowed));
    expect(s.suspects.slice(0, 2).map((x) => x.hypothesis.kind)).toEqual(['bowed', 'bowed']);
    expect(s.next!.measure).toMatch(/^bow(Left|Right)$/);
    const settled = surveyOpening(readings({ ...bowed, bowRight: 7 }));
    expect(settled.status).toBe('agreeing');
    expect(enclosingRectangle(settled)!.widthMm).toBeGreaterThan(604.9);
  });

  test('the cut covers a side that may be bowed before anybody looked', () => {
    const s = surveyOpening(
      readings({ widthTop: 598, widthMiddle: 605, widthBottom: 598, heightLeft: 670, heightRight: 670, diagonalDown: 898, diagonalUp: 898 }),
    );
    expect(enclosingRectangle(s)!.widthMm).toBeGreaterThan(604.9);
  });

  test.each<[string, Tapes, string]>([
    ['100 mm misread', { ...square, widthMiddle: 900, heightMiddle: 1200, heightLeft: 1300 }, '100 mm'],
    ['10 mm misread', { ...square, widthMiddle: 900, heightMiddle: 1200, heightLeft: 1210 }, '10 mm'],
    ['one inch', { ...square, widthMiddle: 900, heightMiddle: 1200, widthTop: 925.4 }, '1 inch'],
    [
      'digits swapped',
      {
        widthTop: 847,
        widthMiddle: 874,
        widthBottom: 874,
        heightLeft: 1200,
        heightMiddle: 1200,
        heightRight: 1200,
        diagonalDown: Math.hypot(874, 1200),
        diagonalUp: Math.hypot(874, 1200),
      },
      'digits swapped',
    ],
  ])('%s is recognised beside the suspect', (_name, tapes, looksLike) => {
    const [first] = surveyOpening(readings(tapes)).suspects;
    expect(first!.looksLike).toBe(looksLike);
    expect(suspectText(first!, 'mm')).toContain(`looks like ${looksLike}`);
  });

  test('two readings put into each other’s place are found', () => {
    const s = surveyOpening(readings({ ...square, widthMiddle: 900, heightMiddle: 1200, widthTop: 1200, heightLeft: 900 }));
    expect(s.suspects[0]!.hypothesis).toEqual({ kind: 'swapped', measures: ['widthTop', 'heightLeft'] });
  });

  test('signed for one explanation, the size is the one that it leaves, and every tape left agrees with it', () => {
    const judged = surveyOpening(readings(toilet));
    expect(signable(judged, readings(toilet), false).map((s) => s.hypothesis.kind)).not.toContain('no-slip');
    for (const s of signable(judged, readings(toilet), false)) {
      const survey = surveyBelieving(judged, explanationKey(s.hypothesis), readings(toilet), false)!;
      expect(['agreeing', 'unchecked']).toContain(survey.status);
      expect(survey.believed).toBe(s);
      for (const r of survey.adjustment!.readings) expect(Math.abs(r.residualMm)).toBeLessThan(4);
      expect(verdictText(survey, 'mm').body).toContain('taken as true by signature');
    }
    const bottom = surveyBelieving(judged, 'slip:widthBottom', readings(toilet), false)!;
    expect(bottom.adjustment!.readings.map((r) => r.measure)).not.toContain('widthBottom');
    // no explanation: the mean of them all is none
    expect(surveyBelieving(judged, 'as-taped', readings(toilet), false)).toBeNull();
    expect(surveyBelieving(judged, 'slip:diagonalUpwards', readings(toilet), false)).toBeNull();
    // and where nothing was in doubt there is nothing to sign for
    const sound = surveyOpening(readings(square));
    for (const key of ['as-taped', 'slip:widthTop', 'bowed:bowLeft']) expect(surveyBelieving(sound, key, readings(square), false)).toBeNull();
  });
  test('what is cut with overhang is never narrower than the largest tape that stands', () =>
    fc.assert(
      fc.property(fc.integer({ min: -150, max: 150 }), fc.integer({ min: -40, max: 40 }), (slip, other) => {
        const tapes = readings({ ...toilet, widthBottom: 612 + slip, heightLeft: 668 + other });
        const survey = surveyOpening(tapes);
        const box = enclosingRectangle(survey);
        if (!box) return;
        expect(box.widthMm).toBeGreaterThanOrEqual(Math.max(612, 605, 612 + slip));
        expect(box.heightMm).toBeGreaterThanOrEqual(Math.max(668, 668 + other));
      }),
      { numRuns: 40 },
    ));
  test('taped again with the same result is a second reading: the doubt moves on to the other explanation', () => {
    const odds = (times: number) => {
      const s = surveyOpening(readings(toilet).map((r) => (r.measure === 'widthBottom' ? { ...r, times } : r)));
      return s.suspects.find((x) => x.hypothesis.kind === 'slip' && x.hypothesis.measure === 'widthBottom')?.probability ?? 0;
    };
    // almost surely the bottom; taken anew as often as not; a third time it is hardly that one any more
    expect(odds(1)).toBeGreaterThan(0.9);
    expect(odds(2)).toBeGreaterThan(0.3);
    expect(odds(2)).toBeLessThan(0.6);
    expect(odds(3)).toBeLessThan(0.1);
    const again = surveyOpening(readings(toilet).map((r) => (r.measure === 'widthBottom' ? { ...r, times: 3 } : r)));
    expect(again.suspects[0]!.hypothesis).toEqual({ kind: 'slip', measure: 'widthTop' });
    expect(again.next!.measure).not.toBe('widthBottom');
  });
  test('660 for 600 is called no exchange of digits', () => {
    const s = surveyOpening(readings({ ...toilet, widthTop: 600, widthMiddle: 600, widthBottom: 660, diagonalDown: 898, diagonalUp: 898 }));
    const bottom = s.suspects.find((x) => x.hypothesis.kind === 'slip' && x.hypothesis.measure === 'widthBottom')!;
    expect(bottom.looksLike).not.toBe('digits swapped');
  });

  test('tapes that no four sides can make are marked', () => {
    const s = surveyOpening(readings({ ...square, diagonalDown: 2500 }));
    expect(s.status).toBe('impossible');
    expect(s.impossible).toContain('diagonalDown');
  });

  test('a tape of next to nothing is none: it is marked and no size is made up', () => {
    const s = surveyOpening(readings({ widthLargest: 905, heightLargest: 1480, widthTop: 5e-324, widthMiddle: 468 }));
    expect(s).toMatchObject({ status: 'impossible', impossible: ['widthTop'], outline: null });
  });

  test('every explanation’s outline lies inside the enclosing rectangle', () =>
    fc.assert(
      fc.property(fc.constantFrom(...tapeOrder), fc.integer({ min: 12, max: 60 }), (key, slip) => {
        const tapes = tapesOf(rectangle(840, 1310));
        const s = surveyOpening(readings({ ...tapes, [key]: tapes[key]! + slip }));
        const box = enclosingRectangle(s)!;
        for (const outline of [...s.possibleOutlines, outlineOf(openingOf(s)!.shape)]) {
          const b = boundingBox(outline);
          expect(b.maxX - b.minX).toBeLessThanOrEqual(box.widthMm + (s.possibleOutlines.includes(outline) ? 1e-9 : slip));
          expect(b.maxY - b.minY).toBeLessThanOrEqual(box.heightMm + (s.possibleOutlines.includes(outline) ? 1e-9 : slip));
        }
      }),
      { seed: 3, numRuns: 25 },
    ));
});

describe('plain words', () => {
  test('how the verdict came about: what a tape is taken as, the sum against its limit, and what cannot be checked', () => {
    const lines = surveyWhy(surveyOpening(readings({ ...square, diagonalDown: 1520 }), { tape: oneMm, levels: at95 }), oneMm);
    expect(lines[0]).toContain(`A tape is taken as ±(${oneMm.constantMm} mm + ${oneMm.perMille} ‰), 1 σ`);
    expect(lines[1]).toMatch(/^6 tapes adjusted together by least squares, 1 of them redundant\. Σ\(residual\/σ\)² = 100\.7, limit 3\.8/);
    expect(surveyWhy(surveyOpening([]))).toEqual(['A tape is taken as ±(1 mm + 0.1 ‰): common practice.']);
    expect(surveyWhy(surveyOpening(readings({ widthTop: 900, heightLeft: 1200 })))[1]).toBe('No redundancy: no tape checks another.');
  });
  test('a length that is likelier a slip by a factor is asked about before it counts', () => {
    expect(oddLength('widthLargest', 902.5 * 25.4, 'in')).toBe('That is 22.92 m. Millimetres? Type “902.5 mm”.');
    expect(oddLength('widthLargest', 902.5, 'in')).toBeNull();
    expect(oddLength('heightLeft', 35, 'mm')).toBe('That is an opening of 35 mm.');
    expect(oddLength('heightLeft', 50, 'mm')).toBeNull();
    expect(oddLength('widthTop', 12_001, 'mm')).toBe('That is 12.00 m.');
    expect(oddLength('bowTop', 80, 'mm')).toContain('Ten times too large, perhaps: 8');
    expect(oddLength('bowTop', -8, 'mm')).toBeNull();
  });
  test('taper and lean in mm before anything else', () => {
    const s = surveyOpening(readings(tapesOf([640, 10, 900, 640, 900])));
    expect(crookednessText(s, 'mm')).toBe('The top is 10 mm narrower than the bottom; the top sits 5 mm to the right of the bottom.');
  });
  test('square within 2 mm is said as such', () =>
    expect(crookednessText(surveyOpening(readings(tapesOf(rectangle(640, 900)))), 'mm')).toBe('Square and parallel within 2 mm.'));
});
