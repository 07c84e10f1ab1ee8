import fc from 'fast-check';
import type { FormingSchool } from '@yellow-pane/contracts';
import { newCurvedPane } from '@yellow-pane/contracts';
import type { Finger } from './fingers.js';
import { fingerOrder, lubricationCards, methodCards, schoolNames, takesNoFullGun, type ToForm } from './forming-methods.js';

const fingers = (side: 'above' | 'below', count: number, lengthMm = 120): Finger[] =>
  Array.from({ length: count }, (_, i) => ({
    number: i + 1, side, foot: { u: 200 * i, v: 0 }, root: { u: 200 * i, v: lengthMm }, alongMm: 200 * i,
    baseMm: 90, lengthMm, slackMm: 1, needFrac: 1 / 90, foldMm: 5.8, partOf: 1,
  })); // prettier-ignore
const pane = (more: Partial<ToForm> = {}): ToForm => ({
  above: fingers('above', 3), below: fingers('below', 3), grade: 'easy', isLaminated: false, thicknessUm: 38, isOutside: false, areaM2: 0.5, bandM: 2, units: 'mm', ...more,
}); // prettier-ignore
const card = (t: ToForm, school: FormingSchool) => methodCards(t).find((m) => m.school === school)!;
const best = (t: ToForm) => methodCards(t).find((m) => m.isRecommended)!;

describe('which way film is formed', () => {
  test('all five ways have a card, one of them is recommended with its reason, and never one that cannot be done here', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 }), fc.integer({ min: 40, max: 400 }), fc.boolean(), fc.constantFrom(38, 100, 125, 200),
        fc.constantFrom('lies-down' as const, 'easy' as const, 'care' as const, 'beyond' as const),
        (above, below, length, isLaminated, thicknessUm, grade) => {
          const cards = methodCards(pane({ above: fingers('above', above, length), below: fingers('below', below, length), isLaminated, thicknessUm, grade }));
          expect(cards.map((c) => c.school).sort()).toEqual(Object.keys(schoolNames).sort());
          const mine = cards.filter((c) => c.isRecommended);
          expect(mine).toHaveLength(1);
          expect(mine[0]!.notHere).toBeNull();
          expect(mine[0]!.why).not.toBe('');
        },
      ),
    )); // prettier-ignore
  test('few short fingers are tugged, more are taken one by one, many or hard ones evened out by a second lift (common practice)', () => {
    const school = (n: number, more: Partial<ToForm> = {}) => best(pane({ above: [], below: fingers('below', n), ...more })).school;
    expect([school(2), school(6), school(12), school(6, { grade: 'care' })]).toEqual(['tug-and-heat', 'finger-by-finger', 'double-lift', 'double-lift']);
    // a tug reaches as far as a hand
    expect(school(2, { below: fingers('below', 2, 260) })).toBe('finger-by-finger');
    expect(card(pane({ below: fingers('below', 2, 260) }), 'tug-and-heat').notHere).toContain('260 mm: too long for a tug');
  });
  test('guns as the trade holds them: 180 to 200 mm off for a lifted corner, at 45° from 150 mm for a tug (common practice)', () => {
    expect(card(pane(), 'single-lift').gunMm).toEqual([180, 200]);
    const tug = card(pane(), 'tug-and-heat');
    expect([tug.gunDeg, tug.gunMm[0] <= 150 && tug.gunMm[1] >= 150]).toEqual([45, true]);
  });
  test('a side window takes 30 s to 2 min of forming; nothing to form takes none (common practice)', () => {
    const side = pane({ above: fingers('above', 1), below: fingers('below', 4), areaM2: 0.35, bandM: 1.6 });
    for (const school of ['finger-by-finger', 'single-lift', 'tug-and-heat'] as const) {
      expect(card(side, school).minutes).toBeGreaterThanOrEqual(0.5);
      expect(card(side, school).minutes).toBeLessThanOrEqual(2);
    }
    expect(methodCards(pane({ above: [], below: [] })).map((c) => [c.heats, c.minutes])).toEqual(Array(5).fill([0, 0]));
  });
  test('a big finger that is split says in how many', () => {
    const split = fingers('below', 6).map((f) => ({ ...f, partOf: 2 }));
    expect(card(pane({ above: [], below: split }), 'finger-by-finger').text).toContain('split every big finger in 2');
  });
});

describe('glass that takes no full gun', () => {
  test('laminated by its stamp or its make-up, or chipped', () => {
    const says = (known: Parameters<typeof newCurvedPane>[0], isLaminated = false) => takesNoFullGun({ curved: newCurvedPane(known), isLaminated });
    expect([
      says({ stamp: 'tempered' }),
      says({ stamp: 'unknown' }),
      says({ stamp: 'laminated' }),
      says({ stamp: 'tempered', isChipped: true }),
      says({}, true),
    ]).toEqual([false, false, true, true, true]);
  });
  test('gets low heat on one finger at a time, from farther off and for longer, the pane warmed first (common practice); the other ways are not for it', () => {
    const laminated = pane({ isLaminated: true });
    expect(best(laminated)).toMatchObject({ school: 'finger-by-finger', notHere: null });
    expect(best(laminated).why).toContain('or refuse it');
    expect(best(laminated).text).toContain('whole pane warmed first, the gun always moving');
    expect(best(laminated).gunMm[0]).toBeGreaterThan(card(pane(), 'finger-by-finger').gunMm[1]);
    expect(best(laminated).minutes).toBeGreaterThan(2 * card(pane(), 'finger-by-finger').minutes - 1);
    for (const school of ['double-lift', 'single-lift', 'tug-and-heat'] as const) expect(card(laminated, school).notHere).toContain('no full gun');
    expect(best(pane({ isLaminated: true, thicknessUm: 200 })).school).toBe('gel-and-fold');
  });
  test('and no dry soap: water under the film carries heat away', () => {
    const kind = (t: ToForm) => lubricationCards(t).find((l) => l.isRecommended)!.kind;
    const many = { above: fingers('above', 6), below: fingers('below', 6) };
    expect([kind(pane()), kind(pane(many)), kind(pane({ ...many, isLaminated: true }))]).toEqual(['wet', 'dry', 'wet']);
  });
});

describe('the order of fingers', () => {
  const words = (school: FormingSchool, above: number, below: number) =>
    fingerOrder(school, fingers('above', above), fingers('below', below)).map((o) => `${o.side[0]}${o.number}`).join(' '); // prettier-ignore
  test('one by one: from the middle outwards, below first', () => expect(words('finger-by-finger', 2, 5)).toBe('b3 b2 b4 b1 b5 a1 a2'));
  test('a lifted corner takes what hangs from it: lower left, lower right, upper left, upper right', () =>
    expect(words('single-lift', 3, 4)).toBe('b1 b2 b3 b4 a1 a2 a3'));
  test('folded by the air: the centre finger first, the sides in a second stage, last (common practice); the words of the card say the same', () => {
    expect(words('gel-and-fold', 3, 3)).toBe('b2 a2 b1 b3 a1 a3');
    expect(words('gel-and-fold', 0, 5)).toBe('b3 b2 b4 b1 b5');
    const gel = card(pane({ thicknessUm: 200 }), 'gel-and-fold');
    expect(gel.text).toMatch(/^Whole pane warmed first\..*centre first: the gun close and always moving.*Side fingers and thumbs in a second stage, last/);
    // close: nearer than any way for thin film; farther off it is a hair-dryer
    expect(gel.gunMm[1]).toBeLessThanOrEqual(card(pane(), 'finger-by-finger').gunMm[0]);
  });
});
