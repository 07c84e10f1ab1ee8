import { columnMeasure, type ColumnMeasure } from '@yellow-pane/contracts';
import { seededRandom } from '../ground/index.js';
import { sampleOf } from '../ground/sample.testing.js';
import type { TapeReading } from './adjustment.js';
import { columnKeys, columnModel, columnOutline, coverOfColumn, girthOfOval, girthOfSquare, judgeColumn } from './column.js';
import { columnFacts, columnVerdict } from './column-words.js';
import { oddLength } from './words.js';

type Tapes = Partial<Record<ColumnMeasure, number>>;
const tapes = (t: Tapes): TapeReading[] => Object.entries(t).map(([measure, lengthMm]) => ({ measure: measure as ColumnMeasure, lengthMm }));
const round = (d: number): Tapes => ({ girthFoot: Math.PI * d, girthMiddle: Math.PI * d, girthTop: Math.PI * d, heightFront: 2500, heightRight: 2500, heightBack: 2500, heightLeft: 2500, acrossFront: d, acrossSide: d }); // prettier-ignore

describe('the girth of a section', () => {
  /** Length of an ellipse, by many short chords: nothing of the formula under test. */
  const byChords = (a: number, b: number): number => {
    const n = 200_000;
    let [sum, x, y] = [0, a, 0];
    for (let i = 1; i <= n; i++) {
      const t = (2 * Math.PI * i) / n;
      const [x1, y1] = [a * Math.cos(t), b * Math.sin(t)];
      sum += Math.hypot(x1 - x, y1 - y);
      [x, y] = [x1, y1];
    }
    return sum;
  };
  test('of an oval of 420 × 380 is 1257.42: its girth alone would pass for a round one of 400.25 (computed)', () => {
    expect(girthOfOval(420, 380)).toBeCloseTo(1257.42, 2);
    expect(girthOfOval(420, 380) / Math.PI).toBeCloseTo(400.25, 2);
  });
  test.each([[400, 400], [420, 380], [600, 480], [500, 390]])('of %d × %d is as long as its chords together', (a, b) => expect(girthOfOval(a, b)).toBeCloseTo(byChords(a / 2, b / 2), 3)); // prettier-ignore
  test('of a square loses (8 − 2π) radii at its corners; with corners as large as can be it is a circle', () => {
    expect(girthOfSquare(250, 250, 0)).toBe(1000);
    expect(girthOfSquare(400, 400, 200)).toBeCloseTo(400 * Math.PI, 9);
  });
});

describe('what the tapes of a column say', () => {
  test('nothing without a girth and a height; with one of each it can be cut, and it is said what cannot be told', () => {
    expect(judgeColumn('round', tapes({ girthFoot: 1257 })).status).toBe('nothing');
    expect(judgeColumn('round', tapes({ heightFront: 2500 })).status).toBe('nothing');
    const two = judgeColumn('round', tapes({ girthFoot: 1257, heightFront: 2500 }));
    expect(two.status).toBe('unchecked');
    expect(two.body!.girthMm.top).toBeCloseTo(1257, 6);
    expect(two.cannotCheck.join(' ')).toMatch(/whether it narrows.*floor and ceiling are level.*hides an oval.*leans/);
  });
  test('a straight round column is found to be one', () => {
    const { status, body } = judgeColumn('round', tapes(round(400)));
    expect(status).toBe('agreeing');
    expect(body!.acrossMm.front).toBeCloseTo(400, 6);
    expect(columnFacts(body!, 'mm')).toEqual([]);
  });
  test('taper, oval, a floor out of level and a lean are told apart, each by its own tapes', () => {
    const taper = judgeColumn('round', tapes({ ...round(400), girthFoot: 405 * Math.PI, girthTop: 395 * Math.PI }));
    expect(taper.body!.taperMm).toBeCloseTo(-10, 4);
    expect(columnFacts(taper.body!, 'mm')[0]).toBe('It gets thinner towards the top: 31 mm of girth, 10 mm across.');
    const g = girthOfOval(420, 380);
    const oval = judgeColumn('round', tapes({ ...round(400), girthFoot: g, girthMiddle: g, girthTop: g, acrossFront: 420, acrossSide: 380 }));
    expect(oval.status).toBe('agreeing');
    expect(columnFacts(oval.body!, 'mm')).toEqual(['It is oval: 40 mm wider seen from the front than from the side.']);
    const sloping = judgeColumn('round', tapes({ ...round(400), heightFront: 2494, heightBack: 2506 }));
    expect(sloping.status).toBe('agreeing');
    expect(columnFacts(sloping.body!, 'mm')).toEqual(['Floor or ceiling is not level: 12 mm more at the back than at the front.']);
    const leaning = judgeColumn('round', tapes({ ...round(400), plumbFront: 9, plumbBack: -9 }));
    expect(leaning.body!.leanMm).toEqual({ front: expect.closeTo(9, 6), right: 0 });
    expect(columnFacts(leaning.body!, 'mm')).toEqual(['Its top leans 9 mm to the back.']);
  });
  test('hanging lines see the taper too: foot and top by their girths, or not at all', () => {
    const t = { ...round(400), girthFoot: 410 * Math.PI, girthTop: 390 * Math.PI };
    expect(judgeColumn('round', tapes({ ...t, plumbFront: 10, plumbBack: 10 })).status).toBe('agreeing');
    expect(judgeColumn('round', tapes({ ...t, plumbFront: -10, plumbBack: -10 })).status).toBe('doubtful');
  });
  test('of a square one, both widths and the girth check the corner radius', () => {
    const g = girthOfSquare(255, 255, 10);
    const t: Tapes = { girthFoot: g, girthMiddle: g, girthTop: g, heightFront: 2640, acrossFront: 255, acrossSide: 255 };
    expect(judgeColumn('square', tapes(t)).body!.cornerRadiusMm).toBeCloseTo(10, 3);
    expect(judgeColumn('square', tapes({ ...t, cornerRadius: 10 })).status).toBe('agreeing');
    expect(judgeColumn('square', tapes({ ...t, cornerRadius: 40 })).status).toBe('doubtful');
    expect(columnKeys('round')).not.toContain('cornerRadius');
    // the core takes only types from the contract: this holds the two lists together
    expect(columnKeys('square')).toEqual(columnMeasure.options);
  });
  test('digits that were exchanged at half height are named, and that tape is asked for again', () => {
    const survey = judgeColumn('round', tapes({ ...round(395), girthFoot: 1257, girthMiddle: 1214, girthTop: 1225 }));
    expect(survey.suspects[0]).toMatchObject({ hypothesis: { kind: 'slip', measure: 'girthMiddle' }, looksLike: 'digits swapped' });
    expect(survey.suspects[0]!.wouldBeMm).toBeCloseTo(1241, 0);
    expect(survey.next).toMatchObject({ measure: 'girthMiddle', isRetape: true });
    expect(columnVerdict(survey, 'mm').body).toContain('would be 1241 (looks like digits swapped)');
  });
  test('a column that really swells in its middle is no slip: its width says so too', () => {
    const survey = judgeColumn('round', tapes({ ...round(400), girthMiddle: 412 * Math.PI, acrossFront: 412, acrossSide: 412 }));
    expect(survey.suspects[0]!.hypothesis).toEqual({ kind: 'otherwise', is: 'swelling' });
    expect(survey.suspects[0]!.slipMm).toBeCloseTo(12, 0);
    expect(columnVerdict(survey, 'mm').body).toContain('it swells by about 12 mm at half height');
  });
  test('a piece that covers every explanation covers the column whichever is true', () => {
    const survey = judgeColumn('round', tapes({ ...round(400), girthTop: Math.PI * 400 + 100 }));
    const cover = coverOfColumn(survey)!;
    for (const b of survey.possible) expect(cover.girthMm).toBeGreaterThan(Math.max(...Object.values(b.girthMm)));
    expect(survey.status).toBe('doubtful');
  });
  test('a length that no column has is asked about before it counts', () => {
    expect(oddLength('girthFoot', 12.57, 'mm')).toContain('a column of');
    expect(oddLength('girthFoot', 1257, 'mm')).toBeNull();
    expect(oddLength('plumbFront', -900, 'mm')).toContain('Ten times too large, perhaps');
    expect(oddLength('plumbFront', -12, 'mm')).toBeNull();
  });
  test('it is drawn as it stands: thinner at the end that is thinner', () => {
    const { body } = judgeColumn('round', tapes({ ...round(400), girthFoot: 405 * Math.PI, girthTop: 395 * Math.PI }));
    const [footLeft, footRight, topRight, topLeft] = columnOutline(body!);
    expect(footRight!.x - footLeft!.x).toBeCloseTo(405, 3);
    expect(topRight!.x - topLeft!.x).toBeCloseTo(395, 3);
  });
});

describe('certainty, by columns that are drawn at random (seeded)', () => {
  const random = seededRandom(17);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const sigmas: Readonly<Record<string, number>> = { girth: 1.5, height: 1.25, across: 2, plumb: 1.5, corner: 1.5 };
  const keys = columnKeys('round').filter((k) => !k.startsWith('plumb'));
  const model = columnModel('round', new Set(keys));
  /** A column as it may be, and its tapes as a hand would read them. */
  function drawn() {
    const truth = [300 + 300 * random(), 12 * normal(), 10 * normal(), 2300 + 600 * random(), 5 * normal(), 5 * normal()];
    const read = new Map(keys.map((k) => [k, model.reading(truth, k) + sigmas[/^[a-z]+/.exec(k)![0]]! * normal()]));
    return { truth, read };
  }
  test('the range given for girth and height holds the truth in 92 to 98 of 100', () => {
    const n = sampleOf(1500, 400);
    let [girth, height] = [0, 0];
    for (let i = 0; i < n; i++) {
      const { truth, read } = drawn();
      const survey = judgeColumn('round', [...read].map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
      const b = survey.body!;
      const largest = (['girthFoot', 'girthMiddle', 'girthTop'] as const).reduce((a, k) => (model.reading(truth, k) > model.reading(truth, a) ? k : a));
      const told = { girthFoot: b.girthMm.foot, girthMiddle: b.girthMm.middle, girthTop: b.girthMm.top }[largest];
      if (Math.abs(told - model.reading(truth, largest)) <= 1.96 * b.sigmaMm.girth) girth++;
      if (Math.abs(b.heightMm.front - model.reading(truth, 'heightFront')) <= 1.96 * b.sigmaMm.height) height++;
    }
    for (const share of [girth / n, height / n]) {
      expect(share).toBeGreaterThan(0.92);
      expect(share).toBeLessThan(0.985);
    }
  });
  test('with one usual slip among all tapes, the explanation that is named first is right as often as its odds say', () => {
    const n = sampleOf(400, 120);
    let [right, odds, found] = [0, 0, 0];
    for (let i = 0; i < n; i++) {
      const { read } = drawn();
      const wrong = keys[Math.floor(random() * keys.length)]!;
      const by = [10, -10, 100, -100, 25.4, -25.4, 20 * normal()][Math.floor(random() * 7)]!;
      read.set(wrong, read.get(wrong)! + by);
      const survey = judgeColumn('round', [...read].map(([measure, lengthMm]) => ({ measure, lengthMm }))); // prettier-ignore
      const [first] = survey.suspects;
      if (!first) continue;
      found++;
      odds += first.probability;
      if (first.hypothesis.kind === 'slip' && first.hypothesis.measure === wrong) right++;
    }
    expect(found / n).toBeGreaterThan(0.6);
    expect(Math.abs(right - odds) / found).toBeLessThan(0.08);
  });
});
