import { shrinkInput, zoneKind, type AnchorChoice, type Bow } from '@yellow-pane/contracts';
import fc from 'fast-check';
import { sampleOf } from '../ground/sample.testing.js';
import { filmOf, inputOf, readBows, sheet, dishOver } from './curved-panes.testing.js';
import { sightsOfBows } from './bow-sights.js';
import { lengthOf, straightedgeOf } from './pane-outline.js';
import { fromMiddle } from './plan-words.js';
import { shrinkPlan } from './shrink-plan.js';

const rear = sheet(1320, 560);
const bows = readBows(rear, dishOver(1320, 560, 62, 16));
const planOf = (more: Parameters<typeof inputOf>[1]) => shrinkPlan(inputOf(rear, { bows, ...more }));

/** Every figure of a plan, however deep. */
const figures = (x: unknown): number[] =>
  typeof x === 'number' ? [x] : Array.isArray(x) ? x.flatMap(figures) : x !== null && typeof x === 'object' ? Object.values(x).flatMap(figures) : [];

describe('whatever is typed', () => {
  const mm = (min: number, max: number) => fc.double({ min, max, noNaN: true });
  const anyBow = fc.record({
    way: fc.constantFrom('across' as const, 'upright' as const, 'down' as const, 'up' as const),
    place: mm(0, 1),
    depthMm: fc.oneof(mm(-400, 400), mm(-20, 20)),
    span: fc.option(fc.record({ from: mm(0, 1), lengthMm: mm(50, 2000) }), { nil: null }),
  });
  const anyLine: fc.Arbitrary<AnchorChoice> = fc.oneof(
    fc.constant({ kind: 'balanced' as const }),
    fc.record({ kind: fc.constant('through' as const), leftMm: mm(-500, 3000), rightMm: mm(-500, 3000) }),
    fc.record({ kind: fc.constant('forced' as const), leftMm: mm(-500, 3000), middleMm: mm(-500, 3000), rightMm: mm(-500, 3000) }),
  );
  test('there is a plan of real figures, or a sentence that says what to look at; never a pane that nobody can make sense of', () =>
    fc.assert(
      fc.property(
        mm(60, 4000),
        mm(60, 2500),
        mm(-0.4, 0.4),
        fc.array(anyBow, { minLength: 1, maxLength: 9 }),
        anyLine,
        fc.constantFrom('fixed' as const, 'drop' as const),
        fc.option(mm(0, 300), { nil: null }),
        fc.array(fc.record({ kind: fc.constantFrom(...zoneKind.options), at: mm(0, 1), low: mm(0, 1), size: mm(5, 600) }), { maxLength: 3 }),
        (w, h, taper, typed, anchor, seat, dotBorderMm, zones) => {
          const outline = [
            { x: 0, y: 0 },
            { x: w, y: 0 },
            { x: w * (1 - Math.max(0, taper)), y: h },
            { x: w * Math.max(0, -taper), y: h },
          ];
          const read = typed.map((b, i): Bow => {
            const long = b.way === 'across' ? w : h;
            const atMm = b.way === 'across' ? b.place * h : b.way === 'upright' ? b.place * w : 0;
            const span = b.span && { fromMm: b.span.from * long, lengthMm: b.span.lengthMm };
            return { ...bows[0]!, id: `018f0000-0000-7000-8000-00000000000${i}`, way: b.way, atMm, span, depthMm: b.depthMm, typed: '' };
          });
          const kept = zones.map((z, i) => ({ id: `018f0000-0000-7000-8000-0000000000a${i}`, kind: z.kind, leftMm: z.at * w, lowMm: z.low * h, widthMm: z.size, heightMm: z.size })); // prettier-ignore
          const input = shrinkInput.parse({ ...inputOf(outline, { bows: read, anchor, seat, dotBorderMm, zones: kept }), outline });
          let said = '';
          try {
            const plan = shrinkPlan(input);
            expect(figures(plan).every(Number.isFinite)).toBe(true);
            expect(plan.above.slackMm).toBeGreaterThanOrEqual(0);
            // film that has to go comes in fingers or lies down
            for (const edge of [plan.above, plan.below]) for (const f of edge.fingers) expect(f.slackMm).toBeGreaterThanOrEqual(0);
          } catch (error) {
            if (!(error instanceof RangeError)) throw error;
            said = error.message;
          }
          expect(['', 'Nothing of this pane is left', 'Too few bows lie on the glass']).toContain(said && said.split(/ inside|:/)[0]);
        },
      ),
      { numRuns: sampleOf(60, 30) },
    ));
});

describe('what cannot be', () => {
  test('a gap deeper than a third of its straightedge is left out and named: 335 mm for 33.5 under 560, and the plan stands on the others', () => {
    const upright = bows.findIndex((b) => b.way === 'upright');
    const misread = bows.map((b, i) => (i === upright ? { ...b, depthMm: 335, typed: '335' } : b));
    const plan = planOf({ bows: misread });
    expect(plan.suspects).toEqual([
      expect.objectContaining({ bowId: bows[upright]!.id, isOut: true, expectedMm: null, text: expect.stringMatching(/reads 335 under a straightedge of 5\d\d mm: no pane bends so/) }),
    ]); // prettier-ignore
    const without = planOf({ bows: bows.filter((_, i) => i !== upright) });
    expect(plan.below.slackMm).toBeCloseTo(without.below.slackMm, 6);
  });
  test('and it counts nowhere: neither in the quick rule nor in the radii', () => {
    for (const [i, b] of bows.entries()) {
      if (b.span || b.way === 'down' || b.way === 'up') continue;
      const plan = planOf({ bows: bows.map((x, k) => (k === i ? { ...x, depthMm: 10 * x.depthMm } : x)) });
      if (!plan.suspects.some((x) => x.bowId === b.id && x.isOut)) continue;
      const without = planOf({ bows: bows.filter((_, k) => k !== i) });
      expect([plan.quickMm, plan.radiusM]).toEqual([without.quickMm, without.radiusM]);
    }
    expect.hasAssertions();
  });
  test('a gap of a little less than a third of its straightedge is a reading, of a little more none', () => {
    const across = bows.find((b) => b.way === 'across')!;
    const read = (frac: number) => sightsOfBows(rear, [{ ...across, depthMm: frac * lengthOf(straightedgeOf(rear, across)!) }]);
    expect([read(0.33).sights.length, read(0.34).impossible.length, read(-0.34).impossible.length]).toEqual([1, 1, 1]);
  });
  test('a line over half of the pane is taken, one over a quarter of it is not', () => {
    // runs out below: from the left corner it is on the pane for so much of the width
    const over = (frac: number): AnchorChoice => ({ kind: 'forced', leftMm: 300, middleMm: 300 - 150 / frac, rightMm: 300 - 300 / frac });
    expect([planOf({ anchor: over(0.5) }).anchor.kind, planOf({ anchor: over(0.25) }).anchor.kind]).toEqual(['forced', 'balanced']);
  });
  test('where a finger stands is told from the middle: left, right, or in it', () => {
    expect([fromMiddle(-410, 'mm'), fromMiddle(4, 'mm'), fromMiddle(254, 'in')]).toEqual(['left 410 mm', 'middle', 'right 10"']);
  });
  test('a line that does not lie on the pane any more, since it was taped anew: the balanced one is shown and it is said', () => {
    for (const anchor of [
      { kind: 'forced', leftMm: 900, middleMm: 910, rightMm: 900 },
      { kind: 'through', leftMm: -300, rightMm: -280 },
    ] as const) {
      const plan = planOf({ anchor });
      expect(plan.anchor.kind).toBe('balanced');
      expect(plan.advice.join(' ')).toContain('The line that was chosen does not lie across this pane: the balanced one is shown');
    }
    // one end may run out at a corner
    expect(planOf({ anchor: { kind: 'forced', leftMm: -40, middleMm: 130, rightMm: 300 } }).anchor.kind).toBe('forced');
    expect(planOf({ anchor: { kind: 'balanced' } }).advice.join(' ')).not.toContain('does not lie across');
  });
  test('a strip forty times as long as high has a plan', () => {
    const strip = sheet(4000, 100);
    const plan = shrinkPlan(inputOf(strip, { bows: readBows(strip, dishOver(4000, 100, 40, 1)) }));
    expect(plan.grade).toBe('lies-down');
    expect(plan.below.slackMm).toBeLessThan(0.5);
  });
  test('an edge that one thread alone meets makes no finger', () => {
    const shut = planOf({ zones: [{ id: filmOf().id, kind: 'sensor', leftMm: -10, lowMm: -10, widthMm: 1400, heightMm: 700 }] });
    expect(shut.grade).toBe('beyond');
    expect([...shut.above.fingers, ...shut.below.fingers]).toEqual([]);
  });
});
