import type { Ground, PrimerSchool } from '@yellow-pane/contracts';
import { dryingFactor, groundPlan, waitText } from './ground-plan.js';

const sound: Ground = {
  material: 'steel',
  finish: 'painted',
  madeOn: '2024-05-02',
  gloss: 'satin',
  state: 'sound',
  isDamp: false,
  isGreasy: false,
  surfaceTempC: 19,
};
const room = { airC: 20, humidityPct: 50 };
const plan = (more: Partial<Ground>, school: PrimerSchool = 'water', air = room, areaM2 = 3) => groundPlan({ ...sound, ...more }, areaM2, school, air);
const keys = (more: Partial<Ground>) => plan(more).tasks.map((t) => t.key);

describe('a ground is made ready in the order of the trade (common practice)', () => {
  test('sound paint is dusted and wiped, and that is all', () => expect(keys({})).toEqual(['dust', 'wipe']));
  test('holes are filled, dry by hand, sanded; grease off and rinsed twice; a ground that drinks primed, dry, sanded; then dust and alcohol', () => {
    expect(keys({ material: 'wood-board', finish: 'bare', state: 'damaged', isGreasy: true })).toEqual(['putty', 'sand', 'degrease', 'rinse', 'primer', 'sand-primer', 'dust', 'wipe']); // prettier-ignore
    for (const t of plan({ material: 'wood-board', finish: 'bare', state: 'damaged' }).tasks)
      if (t.waitHours && t.waitHours[1] > 0.5) expect(t.proof).not.toBeNull();
  });
  test('steel needs no primer, board two coats, plasterboard one', () => {
    expect(plan({ finish: 'bare' }).coats).toBe(0);
    expect(plan({ material: 'wood-board', finish: 'bare' }).coats).toBe(2);
    expect(plan({ material: 'plasterboard', finish: 'bare' }).coats).toBe(1);
    expect(plan({ material: 'wood-board', finish: 'bare' }, 'water', room, 10).primerL).toBeCloseTo(2.4, 9);
  });
  test('primer dries over two hours (water) or over one (solvent) at 20 °C and 50 %', () => {
    const wait = (school: PrimerSchool) => plan({ material: 'plasterboard', finish: 'bare' }, school).tasks.find((t) => t.key === 'primer')!.waitHours!;
    expect(wait('water')).toEqual([2, 3]);
    expect(wait('solvent')).toEqual([1, 1.5]);
  });
  test('what can hurt is said where it bites: lead, solvent, trisodium phosphate, alcohol', () => {
    const caution = (more: Partial<Ground>, key: string, school: PrimerSchool = 'solvent') => plan(more, school).tasks.find((t) => t.key === key)!.caution!;
    expect(caution({ state: 'damaged', madeOn: null }, 'sand')).toMatch(/lead/);
    expect(caution({ state: 'damaged' }, 'sand')).not.toMatch(/lead/);
    expect(caution({ material: 'wood', finish: 'bare' }, 'primer')).toMatch(/no flame/);
    expect(plan({ material: 'wood', finish: 'bare' }, 'water').tasks.find((t) => t.key === 'primer')!.caution).toBeNull();
    expect(caution({ isGreasy: true }, 'degrease')).toMatch(/eyes/);
    expect(caution({}, 'wipe')).toMatch(/no gun/);
  });
  test('in the cold primer is a little richer, and the ground is brought to 15 °C first', () => {
    const cold = plan({ material: 'wood', finish: 'bare', surfaceTempC: 12 }, 'water', { airC: 12, humidityPct: 50 });
    expect(cold.tasks.find((t) => t.key === 'primer')!.text).toContain('richer in the cold');
    expect(cold.tasks.at(-1)!.key).toBe('warm');
    expect(keys({ surfaceTempC: 15 })).not.toContain('warm');
  });
});

describe('drying by temperature and damp', () => {
  test('goes with the deficit of vapour pressure: 10 °C and 50 % take 1.90 times as long as 20 °C (WMO-No. 8: 12.27 and 23.37 hPa)', () =>
    expect(dryingFactor('water', { airC: 10, humidityPct: 50 })).toBeCloseTo(23.37 / 12.27, 2));
  test('twice as dry air dries twice as fast; saturated air hardly at all, and no wait is told longer than eight times', () => {
    expect(dryingFactor('water', { airC: 20, humidityPct: 0 })).toBeCloseTo(0.5, 6);
    expect(dryingFactor('water', { airC: 20, humidityPct: 75 })).toBeCloseTo(2, 6);
    expect(dryingFactor('water', { airC: 20, humidityPct: 99 })).toBe(8);
  });
  test('a solvent takes twice as long 10 °C colder, whatever the damp', () => {
    expect(dryingFactor('solvent', { airC: 10, humidityPct: 90 })).toBe(2);
    expect(dryingFactor('solvent', { airC: 30, humidityPct: 10 })).toBe(0.5);
  });
  test('colder and damper is never faster (both schools)', () => {
    for (const school of ['water', 'solvent'] as const)
      for (let airC = 6; airC <= 34; airC += 4)
        for (let humidityPct = 10; humidityPct <= 80; humidityPct += 10) {
          expect(dryingFactor(school, { airC, humidityPct })).toBeGreaterThanOrEqual(dryingFactor(school, { airC: airC + 1, humidityPct }));
          expect(dryingFactor(school, { airC, humidityPct: humidityPct + 5 })).toBeGreaterThanOrEqual(dryingFactor(school, { airC, humidityPct }));
        }
  });
  test('waits are told as a person says them', () => {
    expect([waitText([0.1, 0.25]), waitText([2, 3]), waitText([10, 16]), waitText([2, 2.1])]).toEqual(['5 min to 15 min', '2 h to 3 h', '10 h to 16 h', '2 h']);
  });
  test('in the cold its film is waited for too: as long as its roll takes, told out of the box and in it', () => {
    const warm = (box: { radiusMm: number } | null, surfaceTempC = 6) =>
      groundPlan({ ...sound, surfaceTempC }, 3, 'water', room, box).tasks.find((t) => t.key === 'warm')!;
    expect(warm(null).waitHours).toEqual([2, 8]);
    expect(warm(null).text).not.toContain('roll');
    const [from, to] = warm({ radiusMm: 70 }).waitHours!;
    expect(from).toBeGreaterThan(4);
    expect(to).toBeGreaterThan(from * 1.2);
    expect(warm({ radiusMm: 70 }).text).toMatch(/its roll \(140 mm thick\) is warm through in about [\d.]+ h out of its box, [\d.]+ h in it\./);
    // a thin one is ready before the wall is
    expect(warm({ radiusMm: 30 }, 14).waitHours![0]).toBe(2);
  });
});
