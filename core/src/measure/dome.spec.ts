import fc from 'fast-check';
import { judgeDome } from './dome.js';

describe('bows', () => {
  test('a half circle has its radius as bow and π/2 of its chord over it; more than that is no dome', () => {
    const half = judgeDome({ acrossBowMm: 300, upBowMm: 0 }, { widthMm: 600, heightMm: 400 }).dome;
    expect(half.radiusMm.across).toBeCloseTo(300, 9);
    expect(half.overMm.across).toBeCloseTo(300 * Math.PI, 9);
    expect(half.radiusMm.up).toBe(Infinity);
    expect(half.overMm.up).toBe(400);
    // round one way only its corners are no farther than its middle
    expect(half.pieceMm).toEqual(half.overMm);
    const is = (a: number, u: number) => judgeDome({ acrossBowMm: a, upBowMm: u }, { widthMm: 600, heightMm: 400 }).doubts.map((d) => [d.is, d.byMm]);
    expect(is(300, 0)).toEqual([]);
    expect(is(301, 0)).toEqual([['dome-none', 1]]);
    expect(is(0, 203)).toEqual([['dome-none', 3]]);
    // corners 721 apart lie on a ball of 361 and no smaller one
    const square = (bow: number) => judgeDome({ acrossBowMm: bow, upBowMm: bow }, { widthMm: 600, heightMm: 600 }).doubts;
    expect(square(124)).toEqual([]);
    // R = c²/8b + b/2 = 300·√2 where b = 300(√2 − 1) = 124.26
    expect(square(125)).toMatchObject([{ is: 'dome-none', byMm: expect.closeTo(300 * Math.SQRT2 - 422.5, 6) as number }]);
  });
  test('a piece laid back over the ball from its middle reaches every place of the border', () => {
    fc.assert(
      fc.property(fc.integer({ min: 200, max: 2000 }), fc.integer({ min: 200, max: 2000 }), fc.integer({ min: 0, max: 400 }), fc.integer({ min: 0, max: 400 }), (w, h, a, u) => {
        const { dome: d, doubts } = judgeDome({ acrossBowMm: a, upBowMm: u }, { widthMm: w, heightMm: h });
        if (doubts.length) return;
        const ball = Math.sqrt(d.radiusMm.across * d.radiusMm.up);
        for (let i = 0; i <= 20; i++)
          for (const [x, y] of [[w / 2, (h * i) / 40], [(w * i) / 40, h / 2]] as const) {
            const away = Math.hypot(x, y);
            // film lies as far from the middle as it is over the ball, in the same direction
            const over = Number.isFinite(ball) ? ball * Math.asin(away / ball) : away;
            expect((x / away) * over).toBeLessThanOrEqual(d.pieceMm.across / 2 + 1e-6);
            expect((y / away) * over).toBeLessThanOrEqual(d.pieceMm.up / 2 + 1e-6);
          }
      }),
    ); // prettier-ignore
  });
});
