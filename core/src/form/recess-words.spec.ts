import type { RecessForm } from '../measure/index.js';
import { recessCard } from './recess-card.js';
import type { RecessPlan, RecessResult } from './recess-ways.js';
import { recessWords, stopDepths } from './recess-words.js';
import { stretchPct } from './stretch-words.js';

const form: RecessForm = { acrossMm: 300, upMm: 500, depthMm: 15, slopeMm: 15, cornerMm: 40 };
const result = (way: RecessResult['way'], largestFrac: number, foldMm: number, fedFrac = 0): RecessResult => ({ way, fedFrac, largestFrac, largestAt: { xMm: 130, yMm: 220 }, foldMm, isAtRest: true, cells: [] }); // prettier-ignore
const ways = [
  result('bridged', 0.16, 0),
  result('fed', 0.04, 14, 1),
  result('divided', 0.13, 3, 0.25),
  result('walls-first', 0.18, 1),
  result('field-first', 0.3, 0),
];
const plan = (more: Partial<RecessPlan> = {}): RecessPlan => ({
  form,
  ways,
  best: ways[2]!,
  finer: result('divided', 0.14, 3, 0.25),
  fedFrac: 0.04,
  limitFrac: 0.3,
  is: 'goes',
  ...more,
});

describe('a recess in words', () => {
  test('it goes: the larger figure of both meshes, what is fed in at each side, the goes, what is left over', () => {
    const { headline, doing, minds } = recessWords(plan(), 'mm');
    expect(headline).toBe('It goes in one piece: 14 % at most, at the corners.');
    // a quarter of a wall's slack: 15·√2 − 15
    expect(doing[0]).toBe('Push 2 mm of film in from each of the four sides, so that it hangs loose in the recess, then tack it round about.');
    expect(doing.join(' ')).toContain(
      'In 2 goes: down to 8 mm, lift it back to the nearest line of the body (arris or foot), heat, let it nearly cool, on. Such a line hides a change of colour',
    );
    expect(minds.join(' ')).toContain('Pressing the field down first would cost 30 %.');
    expect(minds.join(' ')).toContain('A fold of about 3 mm is left over at each corner');
    expect(minds.join(' ')).not.toContain('near what it stands');
  });
  test('near what the film stands it is said; far from it, or where nobody knows, it is not', () => {
    const near = (limitFrac: number | null) => recessWords(plan({ limitFrac, is: limitFrac === null ? 'unknown' : 'goes' }), 'mm').minds.join(' ');
    expect(near(0.15)).toContain('14 % is near what it stands (15 %)');
    expect(near(0.3)).not.toContain('near');
    expect(near(null)).not.toContain('near');
    expect(recessWords(plan({ limitFrac: null, is: 'unknown' }), 'mm').headline).toContain('how much this film stands is not in the library');
  });
  test('only fed in: its corners are slit, as much falls out as is left over; not even that: a piece of its own', () => {
    const slit = recessWords(plan({ limitFrac: 0.08, is: 'slit' }), 'mm');
    expect(slit.headline).toBe('In one piece only with its corners slit: uncut it would stretch 14 % there, and this film stands 8 %.');
    expect(slit.doing.join(' ')).toContain('about 14 mm falls out');
    expect(slit.doing[0]).toContain('Lay the field first');
    const inlay = recessWords(plan({ limitFrac: 0.01, is: 'inlay' }), 'mm');
    expect(inlay.headline).toContain('Not in one piece: it would stretch 4 %');
    expect(inlay.doing).toHaveLength(1);
  });
  test('a reckoning that was broken off is said to be rough', () => {
    const rough = (more: Partial<RecessPlan>) => recessWords(plan(more), 'mm').minds.join(' ').includes('take the figures as rough');
    expect([rough({}), rough({ finer: { ...ways[2]!, isAtRest: false } }), rough({ best: { ...ways[2]!, isAtRest: false } })]).toEqual([false, true, true]);
  });
  test('an order that somebody chose: its own way of working and figure, what the best would cost; beyond the film’s figure it is said to be this order’s doing', () => {
    const field = recessWords(plan(), 'mm', 'field-first');
    expect(field.headline).toBe('It goes in one piece: 30 % at most, at the corners.');
    expect(field.doing.join(' ')).toContain('press it down from its middle outwards');
    expect(field.doing.join(' ')).toContain('In 3 goes: down to 5 mm, 10 mm');
    expect(field.minds[0]).toBe('This order was chosen here; some fed in, then formed in hot would cost 14 %.');
    expect(recessWords(plan(), 'mm', 'walls-first').doing.join(' ')).toContain('down the walls a little at a time');
    const over = recessWords(plan({ limitFrac: 0.2 }), 'mm', 'field-first');
    expect(over.headline).toBe('By this order it would stretch 30 %, and this film stands 20 %.');
    expect(over.doing.join(' ')).not.toContain('Slit it');
    // the best is no choice, nor one that was not tried
    expect(recessWords(plan(), 'mm', 'divided')).toEqual(recessWords(plan(), 'mm'));
    expect(recessWords(plan({ ways: ways.filter((w) => w.way !== 'fed') }), 'mm', 'fed')).toEqual(
      recessWords(plan({ ways: ways.filter((w) => w.way !== 'fed') }), 'mm'),
    );
  });
  test('forming stops at even depths, a tenth of stretch for each go; up to a tenth it does not stop', () => {
    expect(stopDepths(form, 0.1)).toEqual([]);
    expect(stopDepths(form, 0.101)).toEqual([7.5]);
    expect(stopDepths(form, 0.3)).toEqual([5, 10]);
  });
  test('sharp corners, inches, and small figures', () => {
    expect(recessWords(plan({ form: { ...form, cornerMm: 0 } }), 'mm').minds.join(' ')).toContain('no corner sharper than about 3 mm');
    expect(recessWords(plan(), 'in').doing[0]).toMatch(/^Push \S+" of film/);
    expect([stretchPct(0.004), stretchPct(0.049), stretchPct(0.5)]).toEqual(['under 1 %', '5 %', '50 %']);
    expect(recessWords(plan(), 'mm').why[0]).toBe('By girth alone, far from corners: 4 %; rough rule (8/3)(depth/width)²: under 1 %.');
  });
  test('by measures alone: figures and words of the same plan', () => {
    const card = recessCard({ recess: { acrossMm: 60, upMm: 80, depthMm: 4, slopeMm: 6, cornerMm: 15 }, film: { stretchMaxPct: 60 }, units: 'mm' });
    const best = card.ways.find((w) => w.isBest)!;
    expect(card.is).toBe('goes');
    expect(card.headline).toContain(stretchPct(Math.max(best.largestPct, card.finerPct) / 100));
    expect(card.ways.find((w) => w.way === 'fed')!.fedFrac).toBe(1);
  });
});
