import type { Counter, DryAllowances } from '@yellow-pane/contracts';
import { demoFirm, ternInterior } from '../../../demo/src/index.js';
import { checkDry, dryOutline } from '../check/index.js';
import { Memo } from '../ground/index.js';
import { dryAreaM2 } from '../measure/index.js';
import { counterFigures } from './counter-sheet.js';
import { counterSteps } from './counter-steps.js';
import { dryKit, promoterMm } from './dry-kit.js';
import { sheetOfSurface } from './lay-job.js';
import type { LayRecords } from './lay-records.js';
import { unknownFigures } from './run-sheet.js';

const file = ternInterior();
const named = (name: string) => file.surfaces.find((s): s is Counter => s.kind === 'counter' && s.name === name)!;
function asked(name: string, own: Partial<Counter> = {}, dry: Partial<DryAllowances> | null = null): { surface: Counter; records: LayRecords } {
  const surface = { ...named(name), ...own };
  const surfaces = file.surfaces.map((s) => (s.id === surface.id ? surface : s));
  return { surface, records: { ...file, job: { ...file.job, dry }, firm: demoFirm, memo: new Memo(), surfaces } as LayRecords };
}
const sheet = (name: string, own: Partial<Counter> = {}, dry: Partial<DryAllowances> | null = null) => {
  const { surface, records } = asked(name, own, dry);
  return sheetOfSurface(surface, records)!;
};
const keys = (name: string, own: Partial<Counter> = {}) => sheet(name, own).steps.map((s) => s.key.replace('counter-', ''));
const step = (key: string, name: string, own: Partial<Counter> = {}, dry: Partial<DryAllowances> | null = null) => sheet(name, own, dry).steps.find((s) => s.key === `counter-${key}`)!; // prettier-ignore
const trimmed = { front: 'trimmed', right: 'trimmed', back: 'trimmed', left: 'trimmed' } as const;

describe('the steps of a counter', () => {
  test('liner off at one end and that tacked, then the rest; holes, edges, rounds; the joint at the wall a day later', () => {
    expect(keys('Reception counter')).toEqual(['clear', 'silicone', 'clean', 'check', 'promoter', 'end', 'lay', 'holes', 'edges', 'round', 'wall', 'post-heat', 'trim', 'back-on', 'feel', 'truth', 'seal']); // prettier-ignore
    expect(step('end', 'Reception counter').text).toContain('50 mm of liner come off at the left end.');
    expect(step('round', 'Reception counter').text).toMatch(/^Front right: radius 25\d mm, \d+ Vs\./);
    expect(step('seal', 'Reception counter').returnAfterMinutes).toBe(1440);
    // common practice: promoter 5 to 15 minutes
    expect(step('promoter', 'Reception counter').wait!.minutes).toBe(10);
  });
  test('an edge with a strip: it is laid first, and the top ends 3 mm from the arris on it', () => {
    expect(keys('Waiting table')).toEqual(['clean', 'check', 'promoter', 'strip', 'end', 'lay', 'over', 'post-heat', 'trim', 'feel']);
    expect(step('over', 'Waiting table').text).toContain('ends 3 mm from the arris');
    expect(step('strip', 'Waiting table').text).toContain('25 mm on to the top and 25 mm underneath');
  });
  test('a plain shelf has the few it needs; sharp corners are told by the school of the corner', () => {
    expect(keys('Waiting table', { sides: trimmed })).toEqual(['clean', 'check', 'end', 'lay', 'trim', 'feel']);
    const sharp = { round: [], sides: { ...trimmed, front: 'return', left: 'return' } } as const;
    expect(keys('Reception counter', { ...sharp, round: [], hardware: [] })).toContain('corner');
    expect(step('corner', 'Reception counter', { ...sharp, round: [] }, { corner: 'mitre' }).text).toContain('45° tip');
    expect(step('end', 'Reception counter', { ...sharp, round: [] }).text).toContain('come off at the right end');
  });
  test('where nothing is turned underneath nothing has to be cut out of a round: no Vs are told', () => {
    const edges = { front: 'edge', right: 'edge', back: 'wall', left: 'joint' } as const;
    expect(step('round', 'Reception counter', { sides: edges }).text).toMatch(/^Front right: radius 25\d mm\./);
  });
  test('a cold counter is warmed first and tried two hours after it was pressed (common practice)', () => {
    const cold = { ground: { ...named('Reception counter').ground, surfaceTempC: 11 } };
    expect(keys('Reception counter', cold)).toEqual(expect.arrayContaining(['ground-warm', 'tack']));
    expect(step('tack', 'Reception counter', cold).returnAfterMinutes).toBe(120);
    expect(keys('Reception counter')).not.toContain('tack');
  });
  test('what stands in doubt is asked before the first step: a ground that lets go, a round that is too tight', () => {
    const ask = (own: Partial<Counter>) => {
      const { surface, records } = asked('Waiting table', own);
      return counterFigures(surface, records)!.ask;
    };
    expect(ask({})).toBeNull();
    expect(ask({ sides: { front: 'return', right: 'return', back: 'return', left: 'return' } })).toContain('Give these sides a strip of their own.');
    expect(ask({ ground: { ...named('Waiting table').ground, isDamp: true } })).toContain('no film until it is dry');
  });
  test('water, gas and current are cautioned where they are met; every figure of its words is known', () => {
    expect(step('clear', 'Reception counter').caution).toContain('a licensed fitter’s work');
    expect(step('post-heat', 'Reception counter').caution).toContain('until nothing is smelt');
    expect(counterSteps.flatMap(unknownFigures)).toEqual([]);
    for (const s of [...sheet('Reception counter').steps, ...sheet('Waiting table').steps]) expect(`${s.title} ${s.text}`).not.toMatch(/\{|undefined|NaN| {2}/);
  });
  test('its area is that of its outline, its promoter that of its edges, a strip twice; nobody climbs for it', () => {
    const { surface, records } = asked('Waiting table');
    expect(dryAreaM2(surface, records)).toBeCloseTo(0.64 - (4 - Math.PI) * 0.06 ** 2, 3);
    expect(promoterMm(surface, records)).toBeCloseTo(2 * 4 * (800 - 120), -2);
    expect(promoterMm({ ...surface, sides: trimmed }, records)).toBe(0);
    expect(dryKit([surface], records, 2100).map((l) => l.key)).toEqual(['blade-tin', 'dry-alcohol', 'dry-promoter']);
    expect(dryOutline(surface, records)!.length).toBeGreaterThan(8);
    expect(checkDry(records, '2026-12-03T09:00:00Z')).toEqual([]);
  });
});
