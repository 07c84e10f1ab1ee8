import { judgeDome } from '../measure/index.js';
import { domeCard, domeWords } from './dome-words.js';
import { drawnOver, planDome, tackedDome } from './dome-ways.js';

const dome = (widthMm: number, heightMm: number, acrossBowMm: number, upBowMm: number) => judgeDome({ acrossBowMm, upBowMm }, { widthMm, heightMm }).dome;

describe('film over a dome', () => {
  test('bent one way only it lies as on a flat face, however round', () => {
    for (const d of [dome(600, 400, 250, 0), dome(600, 400, 0, 150), dome(600, 400, 0, 0)]) {
      expect(planDome(d, 0.2)).toMatchObject({ is: 'lies', leftOverMm: 0, allRoundMm: 0, drawnFrac: 0, darts: 0 });
      expect(tackedDome(dome(600, 400, 0, 0))).toBeCloseTo(0, 6);
    }
  });
  test('drawn on over a ball: what small rings add up to, each drawn until it is as narrow as its place', () => {
    for (const deg of [10, 30, 60, 90]) {
      let [rho, stretch] = [0, 1];
      const d = 1e-5;
      for (let phi = d; phi <= (deg * Math.PI) / 180; phi += d) {
        // a ring of flat film as wide as sin φ of the ball is: λ = (ρ / sin φ)²
        stretch = phi < 1e-3 ? 1 : (rho / Math.sin(phi)) ** 2;
        rho += d / stretch;
      }
      expect(drawnOver((deg * Math.PI) / 180)).toBeCloseTo(stretch - 1, 3);
    }
    expect(drawnOver(0)).toBe(0);
    expect(drawnOver(0.0009)).toBeCloseTo(drawnOver(0.0011), 6);
  });
  test('what is left over all round a square is what the flat border is longer than the ball’s: walked round it by small steps', () => {
    // a square of film on a ball of radius 1000, laid flat from its middle
    const d = dome(600, 600, 46.061, 46.061);
    expect(d.radiusMm.across).toBeCloseTo(1000, 0);
    const half = 300;
    let round = 0;
    for (let i = 0; i < 4000; i++) {
      // one side, seen from the middle under so much
      const along = -half + (2 * half * (i + 0.5)) / 4000;
      const away = Math.hypot(half, along);
      const seen = (half / (away * away)) * ((2 * half) / 4000);
      round += 4 * (1000 * Math.asin(away / 1000) - away) * seen;
    }
    expect(planDome(d, null).allRoundMm).toBeCloseTo(round, 2);
    // shallow: r³/6R² for each angle
    expect(planDome(d, null).leftOverMm).toBeCloseTo((200 * (half * Math.SQRT2) ** 2) / 6e6, 0);
  });
  test('rounder and larger never less; a deep and a shallow bow count as their root', () => {
    const of = (...m: Parameters<typeof dome>) => planDome(dome(...m), 0.2).drawnFrac;
    expect(of(600, 450, 50, 40)).toBeGreaterThan(of(600, 450, 30, 40));
    expect(of(900, 675, 75, 60)).toBeCloseTo(of(600, 450, 50, 40), 9);
    const { radiusMm } = dome(600, 600, 60, 30);
    const ball = Math.sqrt(radiusMm.across * radiusMm.up);
    expect(of(600, 600, 60, 30)).toBeCloseTo(drawnOver(Math.asin((300 * Math.SQRT2) / ball)), 9);
  });
  test('tacked round first it stretches at its middle by about the mean of what its rims allow, and no mesh twice as fine says much else', () => {
    const d = dome(500, 500, 60, 60);
    const girth = d.overMm.across / 500 - 1;
    const tacked = tackedDome(d);
    expect(tacked).toBeGreaterThan(girth);
    expect(Math.abs(tackedDome(d, 28) / tacked - 1)).toBeLessThan(0.2);
  });
});

describe('what it means for a film', () => {
  const [flat, lid, ball] = [dome(600, 450, 20, 15), dome(600, 450, 50, 40), dome(600, 600, 120, 120)];
  test('up to 4 mm on a hand’s length lies down; else drawn on within its figure; else darts; nobody knows: no verdict', () => {
    expect([planDome(flat, 0.01).is, planDome(lid, 0.3).is, planDome(lid, 0.03).is, planDome(lid, null).is]).toEqual(['lies', 'draw', 'darts', 'unknown']);
    const { darts, allRoundMm } = planDome(ball, 0.2);
    expect(darts).toBe(Math.ceil(allRoundMm / 12));
  });
  test('in words: where it begins, what is drawn, how many darts; what tacking the border first would cost', () => {
    const of = (d: typeof lid, limit: number | null) => domeWords(planDome(d, limit), tackedDome(d), 'mm');
    expect(of(lid, 0.3).headline).toBe('Drawn on from its middle outwards: 5 % at its corners.');
    expect(of(lid, 0.3).doing[0]).toContain('nothing at the border');
    expect(of(lid, 0.06).minds.join(' ')).toContain('near what it stands (6 %)');
    expect(of(lid, 0.3).minds.join(' ')).not.toContain('near what');
    expect(of(lid, 0.03).headline).toContain('and this film stands 3 %');
    expect(of(lid, 0.03).doing.at(-1)).toMatch(/about 5 darts in all, none wider than 10 mm/);
    expect(of(lid, null).headline).toContain('not in the library');
    expect(of(flat, 0.3).headline).toContain('it lies down');
    expect(domeWords(planDome(dome(600, 400, 0, 0), null), 0, 'mm').headline).toBe('It lies as on a flat face.');
    expect(of(lid, 0.3).minds.join(' ')).toContain('Tacked round its border first');
  });
  test('by measures alone: darts only where they are cut; a ball that cannot be is doubted', () => {
    const ask = (acrossBowMm: number, stretchMaxPct: number | null) => domeCard({ dome: { acrossBowMm, upBowMm: 40 }, widthMm: 600, heightMm: 450, film: { stretchMaxPct }, units: 'mm' }); // prettier-ignore
    expect(ask(50, 30)).toMatchObject({ doubt: null, is: 'draw', darts: 0, drawnPct: expect.closeTo(5, 0) as number });
    expect(ask(50, 3).darts).toBe(5);
    expect(ask(310, 30).doubt).toContain('on no ball');
  });
});
