import { girthOfSection, grooveGirth, type GrooveSection } from './groove.js';

const section = (form: GrooveSection['form'], widthMm: number, depthMm: number, flatMm = 0, girthMm: number | null = null): GrooveSection => ({ form, widthMm, depthMm, flatMm, girthMm }); // prettier-ignore
const stretchPct = (s: GrooveSection): number => (girthOfSection(s)! / s.widthMm - 1) * 100;

describe('the way of film across a groove', () => {
  test('computed: sloping sides 100 over 60, 20 deep, 16.57 % more than the mouth; half round 57.08 %', () => {
    expect(stretchPct(section('vee', 100, 20, 60))).toBeCloseTo(16.57, 2);
    expect(stretchPct(section('round', 40, 20))).toBeCloseTo(57.08, 2);
  });
  test('a shallow round bottom follows the rule of thumb (8/3)(depth/width)² (common practice); deeper it is a little less', () => {
    expect(stretchPct(section('round', 100, 5))).toBeCloseTo((8 / 3) * 0.05 ** 2 * 100, 1);
    const deep = stretchPct(section('round', 100, 30));
    expect(deep).toBeLessThan((8 / 3) * 0.3 ** 2 * 100);
    expect(deep).toBeGreaterThan(0.85 * (8 / 3) * 0.3 ** 2 * 100);
  });
  /** Length of the section as many short chords of its depth under the mouth: nothing of the closed forms. */
  const byChords = (w: number, depthAt: (x: number) => number, n = 100_000): number => {
    let [sum, x, y] = [0, 0, 0];
    for (let i = 1; i <= n; i++) {
      const x1 = (w * i) / n;
      const y1 = depthAt(x1);
      sum += Math.hypot(x1 - x, y1 - y);
      [x, y] = [x1, y1];
    }
    return sum;
  };
  test.each([
    [10, 3],
    [30, 6],
    [50, 25],
    [12, 1],
  ])('an arc of %d wide and %d deep is as long as its chords', (w, d) => {
    const r = (w * w) / (8 * d) + d / 2;
    expect(girthOfSection(section('round', w, d))).toBeCloseTo(byChords(w, (x) => Math.sqrt(Math.max(0, r * r - (x - w / 2) ** 2)) - (r - d)), 3); // prettier-ignore
  });
  test.each([
    [10, 5, 0],
    [20, 8, 6],
    [14, 4, 14],
  ])('sloping sides of %d wide, %d deep, flat %d are as long as their chords', (w, d, flat) => {
    const slope = (w - flat) / 2;
    const chords = byChords(w, (x) => (slope === 0 ? (x === w ? 0 : d) : d * Math.min(1, x / slope, (w - x) / slope)));
    // straight sides are walked down by the first chord, not at the very edge
    expect(girthOfSection(section('vee', w, d, flat))).toBeCloseTo(chords, 2);
  });
  test('straight sides: down, across, up; a flat wider than the mouth is no wider than it', () => {
    expect(girthOfSection(section('square', 8, 3))).toBe(14);
    expect(girthOfSection(section('vee', 8, 3, 20))).toBe(14);
  });
  test('a round groove deeper than half its width has straight sides over a half circle', () => {
    expect(girthOfSection(section('round', 10, 9))).toBeCloseTo(5 * Math.PI + 8, 9);
    expect(girthOfSection(section('round', 10, 5.0000001))).toBeCloseTo(girthOfSection(section('round', 10, 4.9999999))!, 4);
  });
});

describe('string against section', () => {
  test('within what both can err they agree; the longer of both is taken', () => {
    expect(grooveGirth(section('square', 8, 3, 0, 15))).toEqual({ girthMm: 15, slackMm: 7, apartMm: null });
    expect(grooveGirth(section('square', 8, 3, 0, 13))).toEqual({ girthMm: 14, slackMm: 6, apartMm: null });
  });
  test('a string that is not pressed in, or a depth read wrong, is told', () => {
    expect(grooveGirth(section('square', 8, 3, 0, 9)).apartMm).toBe(-5);
    expect(grooveGirth(section('vee', 10, 15, 0, 12)).apartMm).toBeLessThan(-15);
  });
  test('a moulding is known by its string alone; without one nothing is', () => {
    expect(grooveGirth(section('moulding', 30, 1, 0, 41))).toEqual({ girthMm: 41, slackMm: 11, apartMm: null });
    expect(grooveGirth(section('moulding', 30, 1))).toEqual({ girthMm: null, slackMm: 0, apartMm: null });
  });
  test('a string shorter than the mouth makes no negative slack', () => expect(grooveGirth(section('moulding', 30, 1, 0, 29)).slackMm).toBe(0));
});
