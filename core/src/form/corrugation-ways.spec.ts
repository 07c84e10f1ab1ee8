import { girthOfRibs, type Ribs } from '../measure/index.js';
import { corrugationCard, corrugationWords } from './corrugation-words.js';
import { planCorrugation } from './corrugation-ways.js';

const wave: Ribs = { form: 'wave', pitchMm: 76, depthMm: 18, crestMm: 0, valleyMm: 0, bendMm: 0 };
const deck: Ribs = { form: 'trapezoid', pitchMm: 207, depthMm: 35, crestMm: 40, valleyMm: 119, bendMm: 0 };

describe('film held on its crests', () => {
  test('formed in all at once it stretches by its girth; what lies flat on the crest does not', () => {
    expect(planCorrugation(wave, null).bridgedFrac).toBeCloseTo(girthOfRibs(wave) / 76 - 1, 12);
    // a trapezoid as CHECKS.md has one: crest to crest 100 + 0 crest, slopes 20 long on plan, 20 deep, flat 60
    expect(planCorrugation({ form: 'trapezoid', pitchMm: 100, depthMm: 20, crestMm: 0, valleyMm: 60, bendMm: 0 }, null).bridgedFrac).toBeCloseTo(0.1657, 4);
    const flat = planCorrugation(deck, null).bridgedFrac;
    expect(flat).toBeCloseTo((119 + 2 * Math.hypot(24, 35)) / 167 - 1, 9);
    expect(flat).toBeGreaterThan(girthOfRibs(deck) / 207 - 1);
  });
  test('pressed down bit by bit it costs more: between straight flanks (W₁/W₀)^−(1 − cos α)/cos α, between upright ones e^(2d/W)', () => {
    const run = 24;
    const cos = run / Math.hypot(run, 35);
    expect(planCorrugation(deck, null).pressedFrac).toBeCloseTo((119 / 167) ** -((1 - cos) / cos) - 1, 9);
    expect(planCorrugation({ ...deck, crestMm: 88, valleyMm: 119 }, null).pressedFrac).toBeCloseTo(Math.exp((2 * 35) / 119) - 1, 9);
    for (const r of [wave, deck, { ...deck, bendMm: 10 }, { ...wave, depthMm: 6 }]) {
      const p = planCorrugation(r, null);
      expect(p.pressedFrac).toBeGreaterThan(p.bridgedFrac);
    }
  });
  test('of a wave it is what small steps add up to, reckoned by themselves: film between two flanks, drawn on a hundredth of a millimetre at a time', () => {
    const theta = 2 * Math.atan2(2 * 18, 76);
    const r = 76 / (4 * Math.sin(theta));
    let stretch = 1;
    // along both arcs, by the turn
    for (const isUpper of [true, false])
      for (let t = 0; t < theta; t += 1e-4) {
        const [turn, place] = isUpper ? [t, r * Math.sin(t)] : [theta - t, 38 - r * Math.sin(theta - t)];
        const open = 76 - 2 * place;
        if (open > 3) stretch *= 1 + (2 * (1 - Math.cos(turn)) * r * 1e-4) / open;
      }
    expect(planCorrugation(wave, null).pressedFrac).toBeCloseTo(stretch - 1, 2);
  });
  test('deeper and narrower never stretches less', () => {
    let before = 0;
    for (const depthMm of [2, 6, 12, 18, 24, 30, 38]) {
      const { bridgedFrac, pressedFrac } = planCorrugation({ ...wave, depthMm }, null);
      expect(bridgedFrac).toBeGreaterThan(before);
      expect(pressedFrac).toBeGreaterThanOrEqual(bridgedFrac);
      before = bridgedFrac;
    }
  });
});

describe('what it means for a film', () => {
  const words = (limit: number | null, way: 'fed' | 'bridged' = 'bridged') => corrugationWords(planCorrugation(wave, limit), way, 3, 'mm');
  test('within its figure it goes over the crests; beyond it, it is fed in; nobody knows the figure: no verdict', () => {
    expect(words(0.2).headline).toBe('Stretched over its crests it goes: 14 % in every valley.');
    expect(words(0.1).headline).toBe('Not over its crests: 14 % in every valley, and this film stands 10 %. Feed it in valley by valley.');
    expect(words(0.1).doing.join(' ')).toContain('film comes in from the free side');
    expect(words(null).headline).toContain('not in the library');
  });
  test('near the figure it is said; that pressing bit by bit costs more, too', () => {
    expect(words(0.2).minds.join(' ')).toContain('near what it stands');
    expect(words(0.4).minds.join(' ')).not.toContain('near what it stands');
    expect(words(0.4).minds.join(' ')).toContain('bit by bit would cost');
  });
  test('fed in it stretches nowhere and takes more film; what stretching would save is said where the film stands it', () => {
    expect(words(0.2, 'fed').headline).toBe('Valley by valley it stretches nowhere; its ribs take 14 % more film.');
    expect(words(0.2, 'fed').minds.join(' ')).toContain('14 % less film');
    expect(words(0.1, 'fed').minds.join(' ')).not.toContain('less film');
  });
  test('by measures alone: a section no sheet has is said to be none; string and section that differ, too', () => {
    const ask = (c: object) => corrugationCard({ corrugation: { ...wave, girthMm: null, way: 'bridged', ...c }, film: { stretchMaxPct: 20 }, units: 'mm' });
    expect(ask({})).toMatchObject({ doubt: null, is: 'goes', bridgedPct: expect.closeTo(14.3, 0) });
    expect(ask({ depthMm: 50 })).toMatchObject({ is: 'unknown', doubt: expect.stringContaining('no deeper than half its pitch') });
    expect(ask({ form: 'trapezoid', crestMm: 50, valleyMm: 50 }).doubt).toContain('Its flats are wider');
    expect(ask({ girthMm: 100 }).doubt).toContain('do not agree');
    // the longer of both counts
    expect(ask({ girthMm: 88 }).girthMm).toBe(88);
  });
});
