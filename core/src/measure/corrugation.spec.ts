import type { Corrugation } from '@yellow-pane/contracts';
import { flatOfCrest, girthOfRibs, halfRib, judgeRibs } from './corrugation.js';

const wave: Corrugation = { run: 'upright', form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0, girthMm: null, way: 'fed' };
const deck: Corrugation = { ...wave, form: 'trapezoid', pitchMm: 207, depthMm: 35, crestMm: 40, valleyMm: 119, bendMm: 4 };
/** The way along half a rib, by its own points. */
const walked = (c: Corrugation): number => {
  const half = halfRib(c);
  return half.slice(1).reduce((s, p, i) => s + Math.hypot(p.xMm - half[i]!.xMm, p.downMm - half[i]!.downMm), 0);
};

describe('film from crest to crest', () => {
  test('a wave of half circles takes π/2 of its pitch; a shallow one hardly more than it; sharp flats and flanks as one adds them up', () => {
    expect(girthOfRibs({ ...wave, depthMm: 38 })).toBeCloseTo((Math.PI / 2) * 76, 9);
    // shallow: the arcs' own series, 1 + (2/3)(2d/p)²
    expect(girthOfRibs({ ...wave, depthMm: 1 }) / 76 - 1).toBeCloseTo((2 / 3) * (2 / 76) ** 2, 6);
    expect(girthOfRibs({ ...deck, bendMm: 0 })).toBeCloseTo(40 + 119 + 2 * Math.hypot(24, 35), 9);
    expect(girthOfRibs({ ...deck, bendMm: 0, crestMm: 88, valleyMm: 119 })).toBeCloseTo(207 + 2 * 35, 9);
  });
  test('the section that is drawn has that girth, ends in the valley and never goes back', () => {
    for (const c of [wave, deck, { ...deck, bendMm: 12 }, { ...deck, bendMm: 0 }, { ...deck, crestMm: 88 }, { ...wave, depthMm: 38 }]) {
      expect(2 * walked(c)).toBeCloseTo(girthOfRibs(c), 0);
      const half = halfRib(c);
      expect(half.at(-1)).toEqual({ xMm: expect.closeTo(c.pitchMm / 2, 6), downMm: expect.closeTo(c.depthMm, 6) });
      for (const [i, p] of half.slice(1).entries()) expect(p.xMm).toBeGreaterThanOrEqual(half[i]!.xMm - 1e-9);
    }
  });
  test('a bend cuts a corner short: the rounder, the less film; no rounder than there is flat for it', () => {
    const at = (bendMm: number) => girthOfRibs({ ...deck, bendMm });
    expect(at(4)).toBeLessThan(at(0));
    expect(at(12)).toBeLessThan(at(4));
    expect(at(5000)).toBe(at(9000));
    expect(girthOfRibs({ ...deck, bendMm: 5000, crestMm: 0 })).toBeCloseTo(119 + 2 * Math.hypot(44, 35), 9);
  });
  test('on a crest film lies as far as it is flat; on a wave nowhere', () => {
    expect(flatOfCrest(wave)).toBe(0);
    expect(flatOfCrest({ ...deck, bendMm: 0 })).toBe(40);
    expect(flatOfCrest(deck)).toBeCloseTo(40 - 2 * 4 * Math.tan(Math.atan2(35, 24) / 2), 9);
    expect(flatOfCrest({ ...deck, bendMm: 500 })).toBeGreaterThanOrEqual(0);
  });
});

describe('ribs as they were taped', () => {
  const doubts = (c: Partial<Corrugation>, of = wave) => judgeRibs({ ...of, ...c }).doubts.map((d) => d.is);
  test('a string that agrees is taken where it is longer; one that does not is asked for again, and so is one shorter than the pitch', () => {
    const girth = girthOfRibs(wave);
    expect(judgeRibs(wave).ribs.moreFrac).toBeCloseTo(girth / 76 - 1, 12);
    expect(judgeRibs({ ...wave, girthMm: girth + 1 }).ribs.girthMm).toBe(girth + 1);
    expect(judgeRibs({ ...wave, girthMm: girth - 1 }).ribs.girthMm).toBe(girth);
    expect(doubts({ girthMm: girth + 1 })).toEqual([]);
    expect(doubts({ girthMm: girth + 9 })).toEqual(['ribs-girth']);
    expect(doubts({ girthMm: girth - 9 })).toEqual(['ribs-girth']);
    expect(doubts({ depthMm: 1, girthMm: 75 })).toEqual(['ribs-girth']);
  });
  test('what no sheet can be: a wave deeper than half circles, flats wider than the pitch', () => {
    expect(doubts({ depthMm: 38 })).toEqual([]);
    expect(doubts({ depthMm: 39 })).toEqual(['ribs-none']);
    expect(doubts({ crestMm: 88 }, deck)).toEqual([]);
    expect(doubts({ crestMm: 89 }, deck)).toEqual(['ribs-none']);
  });
});
