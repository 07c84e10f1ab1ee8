import fc from 'fast-check';
import { newShape, newPane, type MeasureKey, type PaneShape } from '@yellow-pane/contracts';
import { flatten, pathArea, signedArea } from '../geometry/index.js';
import { tapeSigmaMm, type TapeReading } from './adjustment.js';
import { boxOf, shapeModel, typicalNumbers } from './shape-models.js';
import { surveyShape } from './shape-survey.js';
import { adjustTaped } from './taped-model.js';
import { enclosingRectangle } from './survey.js';
import { askText, measureTitle, verdictText } from './words.js';

const shape = newShape;
const tapes = (values: Partial<Record<MeasureKey, number>>): TapeReading[] =>
  Object.entries(values).map(([measure, lengthMm]) => ({ measure: measure as MeasureKey, lengthMm: lengthMm! }));
/** Every tape of a shape, read perfectly. */
const perfect = (s: PaneShape, p: readonly number[]): TapeReading[] => {
  const model = shapeModel(s);
  return model.keys.map((measure) => ({ measure, lengthMm: model.reading(p, measure) }));
};

const all: readonly PaneShape[] = [
  shape('rake'),
  shape('parallelogram'),
  shape('triangle'),
  shape('arch-round'),
  shape('arch-round', { hasLegs: true }),
  shape('arch-flat'),
  shape('arch-flat', { hasLegs: true }),
  shape('arch-pointed'),
  shape('arch-pointed', { hasLegs: true }),
  shape('circle'),
  shape('quarter'),
  shape('quarter', { corner: 'lower-right' }),
  shape('quarter', { corner: 'upper-left' }),
  shape('quarter', { corner: 'upper-right' }),
  shape('polygon', { corners: 3 }),
  shape('polygon', { corners: 5 }),
  shape('polygon', { corners: 6, inward: ['D'] }),
  shape('polygon', { corners: 8 }),
];
const called = (s: PaneShape): string =>
  `${s.kind}${s.hasLegs ? ' with legs' : ''}${s.kind === 'quarter' ? ` ${s.corner}` : ''}${s.kind === 'polygon' ? ` of ${s.corners}${s.inward.join('')}` : ''}`;

describe('outlines that a tape can take', () => {
  test.each(all.map((s) => [called(s), s] as const))('%s: perfect tapes give the shape back, agree, and at least one checks the others', (_, s) => {
    const p = typicalNumbers(s);
    const survey = surveyShape(s, perfect(s, p));
    // three sides of a triangle are just enough: its own shape has the height as a check
    const isBare = s.kind === 'polygon' && s.corners === 3;
    expect(survey.status).toBe(isBare ? 'unchecked' : 'agreeing');
    expect(survey.adjustment!.redundancy).toBeGreaterThanOrEqual(isBare ? 0 : 1);
    survey.adjustment!.shape.forEach((v, i) => expect(v).toBeCloseTo(p[i]!, 4));
    expect(pathArea(survey.path!)).toBeCloseTo(pathArea(shapeModel(s).outline(p)), 1);
  });
  test.each(all.filter((s) => !(s.kind === 'polygon' && s.corners === 3)).map((s) => [called(s), s] as const))(
    '%s: a tape 100 mm long is doubted, blamed, and the tape to take again is one that settles it',
    (_, s) => {
      const model = shapeModel(s);
      const p = typicalNumbers(s);
      for (const bad of model.keys.filter((_, i) => i % Math.ceil(model.keys.length / (model.keys.length > 20 ? 4 : 10)) === 0)) {
        const read = perfect(s, p).map((r) => (r.measure === bad ? { ...r, lengthMm: r.lengthMm + 100 } : r));
        const survey = surveyShape(s, read);
        expect(['doubtful', 'impossible']).toContain(survey.status);
        if (survey.status !== 'doubtful') continue;
        // the true explanation is among those shown, and the cut covers it
        const mine = survey.suspects.find((x) => x.hypothesis.kind === 'slip' && x.hypothesis.measure === bad);
        expect(mine?.probability ?? 0).toBeGreaterThan(0.02);
        const held = enclosingRectangle(survey)!;
        const truth = boxOf(model.outline(p));
        expect(held.widthMm).toBeGreaterThan(truth.maxX - truth.minX - 1);
        expect(held.heightMm).toBeGreaterThan(truth.maxY - truth.minY - 1);
        expect(survey.next).not.toBeNull();
      }
    },
  );
  test('the closed slopes of a polygon are those that moving its corners gives', () => {
    const s = shape('polygon', { corners: 6 });
    const [model, p] = [shapeModel(s), typicalNumbers(s)];
    for (const key of model.keys)
      model.slope!(p, key).forEach((v, i) => {
        const at = (by: number) => model.reading(p.map((x, j) => (j === i ? x + by : x)), key); // prettier-ignore
        expect(v).toBeCloseTo((at(0.01) - at(-0.01)) / 0.02, 6);
      });
  });
  test('the slip of a well-checked tape is named with what it would be: an arch with legs, crown height 10 mm off', () => {
    const s = shape('arch-round', { hasLegs: true });
    const read = perfect(s, typicalNumbers(s)).map((r) => (r.measure === 'crownLeft' ? { ...r, lengthMm: r.lengthMm + 25.4 } : r));
    const survey = surveyShape(s, read);
    expect(survey.suspects[0]).toMatchObject({ hypothesis: { kind: 'slip', measure: 'crownLeft' }, looksLike: '1 inch' });
    expect(survey.suspects[0]!.wouldBeMm).toBeCloseTo(Math.hypot(450, 450), 0);
    expect(askText(survey.next!.measure, survey.next!.isRetape, s)).toBe('Tape the left spring to crown again');
    expect(verdictText(survey, 'mm').body).toContain('left spring to crown');
  });

  test('areas against closed forms', () => {
    const area = (s: PaneShape, p: readonly number[]) => pathArea(shapeModel(s).outline(p));
    expect(area(shape('arch-round'), [900, 450])).toBeCloseTo((Math.PI * 450 ** 2) / 2, 3);
    const [c, h] = [1200, 300];
    const r = (c * c) / 8 / h + h / 2;
    const theta = 2 * Math.asin(c / 2 / r);
    expect(area(shape('arch-flat'), [c, h])).toBeCloseTo((r * r * (theta - Math.sin(theta))) / 2, 3);
    expect(area(shape('circle'), [700, 0, 0])).toBeCloseTo(Math.PI * 350 ** 2, 3);
    expect(area(shape('quarter'), [800, 800, Math.PI / 2])).toBeCloseTo((Math.PI * 800 ** 2) / 4, 3);
    expect(area(shape('triangle'), [3000, 0, 4000])).toBeCloseTo(6e6, 6);
    expect(area(shape('rake'), [900, 900, 900, 0, 1400])).toBeCloseTo((900 * (900 + 1400)) / 2, 6);
  });
  test('quarters come in pairs: the right angle sits where it is said to, the curve bulges away from it', () => {
    const p = [800, 780, Math.PI / 2];
    for (const [corner, x, y] of [
      ['lower-left', 0, 0],
      ['lower-right', 800, 0],
      ['upper-left', 0, 780],
      ['upper-right', 800, 780],
    ] as const) {
      const path = shapeModel(shape('quarter', { corner })).outline(p);
      const box = boxOf(path);
      [box.minX, box.minY, box.maxX, box.maxY].forEach((v, i) => expect(v).toBeCloseTo([0, 0, 800, 780][i]!, 2));
      expect(Math.min(...path.map((v) => Math.hypot(v.x - x, v.y - y)))).toBeCloseTo(0, 6);
      // nothing of it is near the corner that lies opposite
      expect(Math.min(...path.map((v) => Math.hypot(v.x - (800 - x), v.y - (780 - y))))).toBeGreaterThan(300);
      expect(pathArea(path)).toBeCloseTo((Math.PI / 4) * 800 * 780, -2);
    }
  });
  test('a quarter whose corner is not square: its chord says so by the law of cosines, and the film follows', () => {
    const corner = (80 * Math.PI) / 180;
    // an acute corner leans its upright inwards; the diagonal to the middle of the curve is longer for it
    const chord = 2 * 600 * Math.sin(corner / 2);
    const cornerToArc = 600 * Math.hypot(Math.SQRT1_2 * (1 + Math.cos(corner)), Math.SQRT1_2 * Math.sin(corner));
    const survey = surveyShape(shape('quarter'), tapes({ widthBottom: 600, heightLeft: 600, chord, cornerToArc }));
    expect(survey.status).toBe('agreeing');
    expect((survey.adjustment!.shape[2]! * 180) / Math.PI).toBeCloseTo(80, 1);
    const top = survey.outline!.reduce((a, b) => (b.y > a.y ? b : a));
    expect(top.y).toBeCloseTo(600 * Math.sin(corner), 0);
    // the curve is the quarter of a circle drawn over the two sides: π/4 · w · h · sin of the corner
    expect(pathArea(survey.path!)).toBeCloseTo((Math.PI / 4) * 600 * 600 * Math.sin(corner), -2);
  });
  test('a fanlight of which the crown cannot be reached from the sill: the slant from a spring gives its rise', () => {
    // 500² + 300²
    const survey = surveyShape(shape('arch-flat'), tapes({ widthBottom: 1000, crownLeft: Math.sqrt(340_000) }));
    expect(survey.adjustment!.shape[1]).toBeCloseTo(300, 1);
    // and a width alone is no fanlight, unless it is a round one
    expect(surveyShape(shape('arch-flat'), tapes({ widthBottom: 1000 })).outline).toBeNull();
    expect(surveyShape(shape('arch-pointed'), tapes({ widthBottom: 1000 })).outline).toBeNull();
    expect(surveyShape(shape('arch-round'), tapes({ widthBottom: 1000 })).adjustment!.shape[1]).toBeCloseTo(500, 0);
  });
  test('where one tape checks the others, each of them misses by the same number of its own errors: the root of χ²', () => {
    // least squares with one redundancy, W. Baarda, A Testing Procedure for Use in Geodetic Networks (1968)
    const s = shape('triangle');
    const read = perfect(s, typicalNumbers(s));
    const adjustment = surveyShape(s, [{ ...read[0]!, lengthMm: read[0]!.lengthMm + 4 }, ...read.slice(1)]).adjustment!;
    expect(adjustment.redundancy).toBe(1);
    expect(adjustment.chiSquare).toBeGreaterThan(0.5);
    for (const r of adjustment.readings) {
      expect(Math.abs(r.normalised)).toBeCloseTo(Math.sqrt(adjustment.chiSquare), 3);
      expect(Math.abs(r.residualMm)).toBeCloseTo(Math.abs(r.normalised) * r.sigmaMm * Math.sqrt(r.redundancyFrac), 6);
    }
  });
  test('triangulation by hand: 3-4-5, and a pentagon from sides and two diagonals', () => {
    const t = surveyShape(shape('triangle'), tapes({ widthBottom: 3000, sideLeft: 4000, sideRight: 5000 }));
    expect(t.status).toBe('unchecked');
    expect(t.adjustment!.shape[1]).toBeCloseTo(0, 6);
    expect(t.adjustment!.shape[2]).toBeCloseTo(4000, 6);
    // regular pentagon of side s: diagonals s·φ; area s²·√(25 + 10√5)/4
    const s = 600;
    const d = (s * (1 + Math.sqrt(5))) / 2;
    const five = surveyShape(shape('polygon', { corners: 5 }), tapes({ AB: s, BC: s, CD: s, DE: s, AE: s, AC: d, AD: d, BD: d }));
    expect(five.status).toBe('agreeing');
    expect(signedArea(five.outline!)).toBeCloseTo((s * s * Math.sqrt(25 + 10 * Math.sqrt(5))) / 4, 2);
  });
  test('the same tapes make another outline when a corner points inwards, and the person says which', () => {
    const p = typicalNumbers(shape('polygon', { corners: 6, inward: ['D'] }));
    const read = perfect(shape('polygon', { corners: 6, inward: ['D'] }), p);
    const sidesAndFan = read.filter((r) => ['AB', 'BC', 'CD', 'DE', 'EF', 'AF', 'AC', 'AD', 'AE'].includes(r.measure));
    const inward = surveyShape(shape('polygon', { corners: 6, inward: ['D'] }), sidesAndFan);
    expect(inward.status).toBe('unchecked');
    expect(signedArea(inward.outline!)).toBeCloseTo(pathArea(shapeModel(shape('polygon', { corners: 6, inward: ['D'] })).outline(p)), 1);
  });
  test('tapes that no polygon can make are impossible, not bent until they fit', () =>
    expect(surveyShape(shape('polygon', { corners: 3 }), tapes({ AB: 1000, BC: 300, AC: 400 })).status).not.toBe('agreeing'));

  test('a fanlight from sill and rise, as found in an old house: the round one does not need to be a half circle', () => {
    const s = shape('arch-flat');
    const survey = surveyShape(s, tapes({ widthBottom: 1020, heightMiddle: 385, crownLeft: 639, crownRight: 639 }));
    expect(survey.status).toBe('agreeing');
    expect(survey.adjustment!.shape[1]).toBeCloseTo(385, 0);
  });
  test('a round arch of which the rise was not taped is taken as half its width, with the doubt of a made arch', () => {
    const survey = surveyShape(shape('arch-round'), tapes({ widthBottom: 900 }));
    expect(survey.status).toBe('unchecked');
    expect(survey.adjustment!.shape[1]).toBeCloseTo(450, 3);
    expect(survey.boxSigmaMm!.height).toBeGreaterThan(2.5);
  });
  test('a rake with its corners out of plumb shows it: plumb is not forced on tapes that say otherwise', () => {
    const p = [900, 925, 905, 15, 1400];
    const survey = surveyShape(shape('rake'), perfect(shape('rake'), p));
    expect(survey.status).toBe('agreeing');
    survey.adjustment!.shape.forEach((v, i) => expect(v).toBeCloseTo(p[i]!, 3));
  });
  test('drawn outlines have nothing to adjust; two tapes check their size', () => {
    const path = [[0, 0], [800, 0], [800, 600], [0, 600]].map(([xMm, yMm]) => ({ xMm: xMm!, yMm: yMm!, bulge: 0 })); // prettier-ignore
    const s = shape('drawn', { path });
    expect(surveyShape(s, []).status).toBe('unchecked');
    expect(surveyShape(s, tapes({ widthLargest: 801, heightLargest: 599 })).status).toBe('agreeing');
    expect(surveyShape(s, tapes({ widthLargest: 812, heightLargest: 599 })).status).toBe('doubtful');
  });
  test('nothing taped is nothing, in words that fit the shape', () => {
    const survey = surveyShape(shape('circle'), []);
    expect(survey.status).toBe('nothing');
    expect(verdictText(survey, 'mm').headline).toBe('Not enough tapes for this shape yet.');
    expect(measureTitle('widthMiddle', shape('circle'))).toBe('Across');
    expect(measureTitle('AC', shape('polygon'))).toBe('A to C');
  });
  test('a pane is four-sided until somebody says otherwise', () => {
    const id = '01930000-0000-7000-8000-000000000001';
    expect(newPane({ id, jobId: id, placeId: id, name: 'W1', order: 1 }).shape).toBeNull();
  });

  test('with the scatter of a hand the tapes nearly always agree, and the outline is as sure as it says', () => {
    let [agreed, runs, spread, said] = [0, 0, 0, 0];
    // a small generator of its own, so that the scatter is normal and not what a shrinker likes
    let state = 12345;
    const uniform = () => (state = (state * 1103515245 + 12345) % 2147483648) / 2147483648;
    const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
    for (let k = 0; k < 40; k++)
      for (const s of all.filter((x) => x.kind !== 'polygon')) {
        const p = typicalNumbers(s);
        const read = perfect(s, p).map((r) => ({ ...r, lengthMm: r.lengthMm + normal() * tapeSigmaMm(r.lengthMm) }));
        const fit = adjustTaped(shapeModel(s), read)!;
        runs++;
        if (fit.passes) agreed++;
        spread += (fit.shape[0]! - p[0]!) ** 2 / fit.covariance[0]![0]!;
        said++;
      }
    expect(agreed / runs).toBeGreaterThan(0.9);
    expect(spread / said).toBeGreaterThan(0.6);
    expect(spread / said).toBeLessThan(1.6);
  });
  test('boxes hold their arcs: against the flattened outline', () =>
    fc.assert(
      fc.property(fc.double({ min: 200, max: 2000, noNaN: true }), fc.double({ min: 0.05, max: 1, noNaN: true }), (w, share) => {
        const path = shapeModel(shape('arch-flat')).outline([w, (share * w) / 2]);
        const flat = flatten(path);
        const box = boxOf(path);
        expect(box.maxY).toBeCloseTo((share * w) / 2, 6);
        expect(Math.abs(Math.max(...flat.map((q) => q.y)) - box.maxY)).toBeLessThan(0.1001);
      }),
      { seed: 2 },
    ));
  test('boxes hold arcs that turn the other way too, as cut into a side', () =>
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.integer({ min: 0, max: 3 }),
        fc.double({ min: -3, max: 3, noNaN: true }),
        (bulge, side, turn) => {
          const corners = [[0, 0], [800, 0], [800, 500], [0, 500]].map(([x, y]) => ({ x: x! * Math.cos(turn) - y! * Math.sin(turn), y: x! * Math.sin(turn) + y! * Math.cos(turn) })); // prettier-ignore
          const path = corners.map((c, i) => ({ ...c, bulge: i === side ? bulge : 0 }));
          const [box, flat] = [boxOf(path), flatten(path)];
          const far = (pick: (q: { x: number; y: number }) => number, most: typeof Math.max) => most(...flat.map(pick));
          expect(Math.abs(far((q) => q.x, Math.min) - box.minX)).toBeLessThan(0.11);
          expect(Math.abs(far((q) => q.x, Math.max) - box.maxX)).toBeLessThan(0.11);
          expect(Math.abs(far((q) => q.y, Math.min) - box.minY)).toBeLessThan(0.11);
          expect(Math.abs(far((q) => q.y, Math.max) - box.maxY)).toBeLessThan(0.11);
        },
      ),
      { seed: 3 },
    ));
  test('a gable from its sill, one slope and its height, whichever slope can be reached (3-4-5 twice)', () => {
    const tip = (values: Parameters<typeof tapes>[0]) => surveyShape(shape('triangle'), tapes(values)).adjustment?.shape;
    const left = tip({ widthBottom: 1200, sideLeft: 500, heightMiddle: 400 })!;
    expect([left[1], left[2]].map((v) => Math.round(v!))).toEqual([300, 400]);
    const right = tip({ widthBottom: 1200, sideRight: 500, heightMiddle: 400 })!;
    expect([right[1], right[2]].map((v) => Math.round(v!))).toEqual([900, 400]);
    // a slope no longer than the height is no slope; just as long, a millimetre in either moves the tip by 28: nothing is claimed
    expect(tip({ widthBottom: 1200, sideLeft: 380, heightMiddle: 400 })).toBeUndefined();
    expect(tip({ widthBottom: 1200, sideLeft: 400, heightMiddle: 400 })).toBeUndefined();
    expect(tip({ widthBottom: 1200, heightMiddle: 400 })).toBeUndefined();
  });
  test('an arch whose legs are of two heights leans with them: its crown stands square on the line of its springs', () => {
    for (const kind of ['arch-flat', 'arch-pointed', 'arch-round'] as const) {
      const s = shape(kind, { hasLegs: true });
      const p = kind === 'arch-pointed' ? [900, 12, 800, -8, 760, 780] : kind === 'arch-flat' ? [900, 12, 1000, -8, 940, 230] : [900, 12, 900, -8, 860, 440];
      const survey = surveyShape(s, perfect(s, p));
      survey.adjustment!.shape.forEach((v, i) => expect(v).toBeCloseTo(p[i]!, 2));
      // by hand: the middle of the springs, and the rise at right angles to the line between them
      const [l, r] = [
        { x: p[1]!, y: p[2]! },
        { x: p[0]! + p[3]!, y: p[4]! },
      ];
      const c = Math.hypot(r.x - l.x, r.y - l.y);
      const crown = { x: (l.x + r.x) / 2 - ((r.y - l.y) / c) * p[5]!, y: (l.y + r.y) / 2 + ((r.x - l.x) / c) * p[5]! };
      const nearest = Math.min(...flatten(shapeModel(s).outline(p)).map((q) => Math.hypot(q.x - crown.x, q.y - crown.y)));
      expect(nearest).toBeLessThan(25);
    }
  });
  test('each tape is told with what it is taken as: that is what the found shape would read there', () => {
    const s = shape('rake');
    const read = perfect(s, [900, 925, 905, 15, 1400]).map((r, i) => ({ ...r, lengthMm: r.lengthMm + [0.6, -0.4, 0.3][i % 3]! }));
    const { adjustment } = surveyShape(s, read);
    for (const r of adjustment!.readings) {
      expect(r.adjustedMm).toBeCloseTo(shapeModel(s).reading(adjustment!.shape, r.measure), 2);
      expect(r.adjustedMm + r.residualMm).toBeCloseTo(r.readMm, 9);
    }
  });
});
