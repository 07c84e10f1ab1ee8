import fc from 'fast-check';
import { slipSchool, washKind } from '@yellow-pane/contracts';
import { defaultBlades } from '@yellow-pane/contracts';
import { bladeFor, pressingBladeFor } from './blades.js';
import { kitList, type KitPane } from './kit-list.js';
import { CAP_ML, correctMix, DROP_ML, mixSlip, slipDoseMlPerL, slipRules, spoonedText, strengthText } from './slip-mix.js';
import { mixWash, washMeasure, washRules, washStrengthText } from './wash-mix.js';

describe('what goes into the bottles', () => {
  test('each school in the bottle that it was written for (common practice)', () => {
    const additive = (school: Parameters<typeof mixSlip>[0], bottleMl: number, glassC = 18) => mixSlip(school, 10, glassC, bottleMl, 350).additiveMl;
    expect(additive('soap-drops', 473.2) / DROP_ML).toBeCloseTo(6, 6);
    expect(additive('soap-drops', 473.2, 35) / DROP_ML).toBeCloseTo(8, 6);
    expect(additive('shampoo-gallon', 3785.41)).toBeCloseTo(30, 6);
    expect(additive('shampoo-bottle', 946.35)).toBeCloseTo(15, 6);
    expect(additive('concentrate', 946.35, 22) / CAP_ML).toBeCloseTo(1, 6);
    expect(additive('concentrate', 946.35, 40) / CAP_ML).toBeCloseTo(2, 6);
  });
  test('the dose never falls as the glass gets warmer, and stays within the school', () =>
    fc.assert(
      fc.property(fc.constantFrom(...slipSchool.options), fc.double({ min: -5, max: 50, noNaN: true }), (school, c) => {
        const dose = slipDoseMlPerL(school, c);
        expect(dose).toBeGreaterThanOrEqual(slipRules[school].lowMlPerL);
        expect(dose).toBeLessThanOrEqual(slipRules[school].highMlPerL + 1e-9);
        expect(slipDoseMlPerL(school, c + 1)).toBeGreaterThanOrEqual(dose);
      }),
    ));
  test('area makes fillings: 12 m² at 350 ml/m² are 4.2 l, five fillings of 946 ml', () => {
    const mix = mixSlip('soap-drops', 12, 18, 946, 350);
    expect([mix.totalMl, mix.fillingCount]).toEqual([4200, 5]);
    expect(mix.waterMl + mix.additiveMl).toBeCloseTo(946, 9);
    expect(mixSlip('soap-drops', 0, 18, 946, 350).fillingCount).toBe(0);
  });
  test('small volumes in what a hand has', () => {
    expect(spoonedText(0.3, 'soap-drops')).toBe('6 drops');
    // to a millilitre and a half they are counted, from there on spooned
    expect([spoonedText(1.4, 'soap-drops'), spoonedText(1.5, 'soap-drops')].map((t) => t.includes('drops'))).toEqual([true, false]);
    expect(spoonedText(7.5, 'shampoo-bottle')).toBe('1½ teaspoons');
    expect(spoonedText(15, 'shampoo-bottle')).toBe('1 tablespoon');
    expect(spoonedText(30, 'shampoo-gallon')).toBe('2 tablespoons');
    expect(spoonedText(CAP_ML * 1.5, 'concentrate')).toBe('1½ caps');
  });
});

describe('a wrong mix is put right', () => {
  test('1.5 times too strong in 700 ml: add 350 ml of water', () => {
    const dose = 10;
    expect(correctMix(700, 10.5, 2000, dose)).toEqual({ strength: 1.5, pourOutMl: 0, addWaterMl: 350, addAdditiveMl: 0 });
  });
  test('no room for the water: pour out first, no more than has to go', () => {
    const c = correctMix(900, 18, 900, 10);
    expect(c).toEqual({ strength: 2, pourOutMl: 450, addWaterMl: 450, addAdditiveMl: 0 });
  });
  test('afterwards it has the right strength, fits the bottle, and only what had to was poured out', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 100, max: 1000, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        (bottleMl, full, share, dose) => {
          const inBottle = Math.max(1, bottleMl * full);
          const c = correctMix(inBottle, inBottle * share, bottleMl, dose);
          const kept = inBottle - c.pourOutMl;
          const total = kept + c.addWaterMl + c.addAdditiveMl;
          expect((kept * share + c.addAdditiveMl) / total).toBeCloseTo(dose / 1000, 9);
          expect(total).toBeLessThanOrEqual(bottleMl * (1 + 1e-9));
          expect(Math.min(c.addWaterMl, c.addAdditiveMl)).toBe(0);
          if (c.pourOutMl > 1e-6) expect(total).toBeCloseTo(bottleMl, 6);
        },
      ),
    ));
  test('what it does to the work is said; more additive than slip is refused', () => {
    expect([strengthText(1.5), strengthText(1), strengthText(0.5)].map((t) => t.split(':')[0])).toEqual(['Too strong', 'Right', 'Too weak']);
    expect(() => correctMix(500, 600, 946, 10)).toThrow(/Additive in it/);
    expect(() => correctMix(1200, 10, 946, 10)).toThrow(/In the bottle/);
  });
});

describe('what goes onto a surface before the film', () => {
  test('in the vessel that each was written for (common practice)', () => {
    // 1 part to 2 parts; 70 : 30; 1 fl oz to the US gallon
    expect(mixWash('cleaner', 1, 900, 100)).toMatchObject({ additiveMl: expect.closeTo(300, 6), waterMl: expect.closeTo(600, 6) });
    expect(mixWash('alcohol', 1, 1000, 100)).toMatchObject({ additiveMl: 700, waterMl: 300 });
    expect(mixWash('detergent', 1, 3785.41, 100).additiveMl).toBeCloseTo(29.57, 2);
    expect(washMeasure('detergent', mixWash('detergent', 1, 3785.41, 100).additiveMl)).toBe('2 tablespoons (30 ml)');
  });
  test('ten square metres take 600 ml of cleaner, 300 of wipe, 1500 of wash (house figures)', () => {
    expect(washKind.options.map((kind) => mixWash(kind, 10, 1000, 100).totalMl)).toEqual([600, 300, 1500]);
  });
  test('alcohol as it comes: more of the weaker one; weaker than the wipe cannot be made stronger by water', () => {
    expect(mixWash('alcohol', 1, 1000, 91).additiveMl).toBeCloseTo(700 / 0.91, 9);
    expect(mixWash('alcohol', 1, 1000, 70).waterMl).toBeCloseTo(0, 9);
    expect(() => mixWash('alcohol', 1, 1000, 50)).toThrow(/Strength of the isopropyl alcohol/);
    expect(() => mixWash('detergent', 1, 1000, 50)).toThrow(/Strength of the detergent/);
  });
  test('every wash fills its vessel and no more, for any area', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...washKind.options),
        fc.double({ min: 0, max: 500, noNaN: true }),
        fc.double({ min: 50, max: 25_000, noNaN: true }),
        (kind, areaM2, bottleMl) => {
          const mix = mixWash(kind, areaM2, bottleMl, 100);
          expect(mix.waterMl + mix.additiveMl).toBeCloseTo(bottleMl, 6);
          // to a billionth of a filling, which is less than a drop
          expect(mix.fillingCount * bottleMl).toBeGreaterThanOrEqual(mix.totalMl - 1.1e-9 * bottleMl);
          expect((mix.fillingCount - 1) * bottleMl).toBeLessThan(Math.max(mix.totalMl, 1e-9) + 1e-6);
        },
      ),
    ));
  test('what too much and too little do is said of each, with a caution', () => {
    for (const kind of washKind.options) {
      expect([washStrengthText(kind, 2), washStrengthText(kind, 1), washStrengthText(kind, 0.5)].map((t) => t.slice(0, 5))).toEqual([
        'Too s',
        'Right',
        'Too w',
      ]);
      expect(washRules[kind].caution.length).toBeGreaterThan(30);
    }
  });
});

describe('the van', () => {
  const pane = (name: string, widthMm: number, heightMm: number, more: Partial<KitPane> = {}): KitPane => ({
    name, widthMm, heightMm, areaM2: (widthMm * heightMm) / 1e6, perimeterMm: 2 * (widthMm + heightMm), heightAboveFloorMm: 200, frame: 'gasket', film: { kind: 'solar', name: 'x', drying: 'medium' }, place: 'Hall', ...more,
  }); // prettier-ignore
  const list = (...panes: KitPane[]) =>
    kitList({ panes, reachMm: 2100, slipMl: 3000, bottleMl: 946, additive: 'dish soap', units: 'mm', blades: defaultBlades });
  const line = (key: string, ...panes: KitPane[]) => list(...panes).find((l) => l.key === key);
  test('a ladder as high as the top edge asks for, with its caution; none where a person reaches', () => {
    expect(line('ladder', pane('A', 600, 1200))).toBeUndefined();
    const high = line('ladder', pane('A', 600, 1200), pane('B', 600, 2700, { heightAboveFloorMm: 900 }))!;
    // top at 3.60 m, reach 2.10 m
    expect(high.howMuch).toBe('to stand at 1.50 m');
    expect(high.why).toContain('B: top edge up to 3.60 m');
    expect(high.caution).toContain('slippery');
  });
  test('what ends just where a person reaches needs no ladder, a millimetre more does', () => {
    expect(line('ladder', pane('A', 600, 1900))).toBeUndefined();
    expect(line('ladder', pane('A', 600, 1901))).toBeDefined();
  });
  test('silicone for every metre of frame where it stands proud, and of no other pane', () => {
    expect(line('silicone', pane('A', 600, 1200))).toBeUndefined();
    const some = line('silicone', pane('A', 600, 1200, { frame: 'silicone' }), pane('B', 500, 900, { frame: 'silicone' }), pane('C', 500, 900))!;
    expect(some.howMuch).toBe('6.4 m');
    expect(some.why).toMatch(/^A, B/);
  });
  test('big pieces bring a second person; a height that nobody said is asked for', () => {
    expect(line('second-person', pane('A', 900, 1700))).toBeUndefined();
    expect(line('second-person', pane('A', 900, 1900))!.why).toMatch(/^A: more than 2 m²/);
    expect(line('height-unknown', pane('A', 600, 600, { heightAboveFloorMm: null }))!.why).toBe('Nobody has said how high A sits.');
  });
  test('cleaning and pressing are two blades: a wide one cleans, a narrow one presses, thick film takes the narrowest (common practice)', () => {
    const { cleaningMm } = defaultBlades;
    expect([bladeFor({ widthMm: 120, heightMm: 900 }, cleaningMm), bladeFor({ widthMm: 400, heightMm: 300 }, cleaningMm), bladeFor({ widthMm: 476, heightMm: 900 }, cleaningMm)]).toEqual([150, 150, 450]); // prettier-ignore
    const big = { widthMm: 1200, heightMm: 2000 };
    expect([pressingBladeFor(big, false, defaultBlades), pressingBladeFor(big, true, defaultBlades)]).toEqual([200, 150]);
    // the same hand on 450 mm presses a third as hard as on 150 mm: never the plan for 350 µm
    const keys = list(pane('Thick', 1200, 2000, { film: { kind: 'security', name: 'y', drying: 'slow' } })).map((l) => l.key);
    expect(keys).toEqual(expect.arrayContaining(['squeegee-clean-450', 'squeegee-press-150']));
    // the firm's own list rules, whatever stands in it
    expect(pressingBladeFor(big, true, { ...defaultBlades, thickMm: [125, 300] })).toBe(300);
  });
  test('a new edge for every window, twelve edges on a blade', () => {
    const many = Array.from({ length: 13 }, (_, i) => pane(`P${i}`, 500, 500));
    expect(line('blades', ...many)!.howMuch).toBe('2');
    expect(line('blades', pane('Long', 4000, 5000))!.why).toContain('3 edges');
  });
  test('on curved glass a blade no longer than lies on it: 14 mm of bow over 560 take 150, a flat door 300, unmeasured no more than 150', () => {
    const rear = { widthMm: 1320, heightMm: 560 };
    const bend = (bowMm: number) => (8 * bowMm) / 560 ** 2;
    // 211 mm of blade stand 2 mm off the glass in the middle there: chord and sagitta
    expect(Math.sqrt((8 * 2) / bend(14))).toBeCloseTo(211.7, 1);
    const widths = [100, 150, 300, 450];
    expect([60, 14, 4, 0].map((h) => bladeFor({ ...rear, bendPerMm: bend(h) }, widths))).toEqual([100, 150, 300, 450]);
    expect([bladeFor({ ...rear, bendPerMm: null }, widths), bladeFor(rear, widths)]).toEqual([150, 450]);
    expect(line('squeegee-press-200', pane('Rear', 1320, 560, { bendPerMm: bend(14) }))!.why).toContain('lies on the glass');
  });
  test('bottles are filled again: three of slip and one of cleaner at the most; dry-laid film needs neither', () => {
    // 3000 ml in bottles of 946 ml
    expect(line('sprayers', pane('A', 900, 900))).toMatchObject({ howMuch: '4', why: '946 ml each, 4 fillings of slip; one bottle is the cleaner’s.' });
    const small = kitList({
      panes: [pane('A', 900, 900)],
      reachMm: 2100,
      slipMl: 280,
      bottleMl: 946,
      additive: 'dish soap',
      units: 'mm',
      blades: defaultBlades,
    });
    expect(small.find((l) => l.key === 'sprayers')!.howMuch).toBe('2');
    const dry = list(pane('Counter', 900, 900, { film: { kind: 'interior', name: 'z', drying: 'dry-applied' } })).map((l) => l.key);
    expect(dry.filter((k) => ['slip', 'sprayers', 'cleaner'].includes(k))).toEqual([]);
    expect(dry).toContain('squeegee-press-200');
  });
  test('silicone, security film, liquids: only where the day has them; the same panes keep the same lines to tick', () => {
    const keys = list(pane('A', 900, 900, { frame: 'silicone', film: { kind: 'security', name: 'y', drying: 'slow' } })).map((l) => l.key);
    expect(keys).toEqual(expect.arrayContaining(['silicone', 'hard-squeegee', 'slip', 'cleaner']));
    expect(new Set(keys).size).toBe(keys.length);
    expect(list(pane('A', 900, 900)).map((l) => l.key)).not.toContain('silicone');
    expect(list()).toEqual([]);
  });
});
