import fc from 'fast-check';
import { defaultAllowances, defaultCutSettings, type Film, type QuoteLine } from '@yellow-pane/contracts';
import { demoFirm, demoLibrary, demoRates } from '../../../demo/src/index.js';
import { materialFor, materialText } from './material.js';
import { workClassOf } from '../films/index.js';
import { toMinor } from '../ground/index.js';
import { lineMinutes, priceQuote } from './price.js';

const film = (name: string): Film => demoLibrary.find((f) => f.name === name)!;
const line = (more: Partial<QuoteLine> = {}): QuoteLine => ({
  id: demoFirm.id,
  place: 'Shop',
  name: 'Front',
  widthMm: 1000,
  heightMm: 2000,
  count: 1,
  reach: 'floor',
  hasOldFilm: false,
  hasProudSilicone: false,
  ...more,
});
const price = (lines: QuoteLine[], name = 'Tern Shade 35', kmThere = 0, rates = demoRates) =>
  priceQuote({ lines, kmThere }, film(name), rates, defaultAllowances, defaultCutSettings);

describe('film for a price', () => {
  test('one pane of 1000 × 2000 with an inch all round, by hand: lies across a 1220 roll, 2053 mm with the crosscut', () => {
    const m = materialFor([line()], film('Tern Shade 35'), defaultAllowances, defaultCutSettings);
    // 1050 × 2050 lies along the 1220 roll (2.053 m at 13.03) or across none; 1524 and 1829 cost more per metre
    expect(m.offer!.widthMm).toBe(1220);
    expect(m.usedM).toBeCloseTo(2.053, 3);
    expect(m.cost).toBeCloseTo(2.053 * Number(m.offer!.pricePerM), 6);
  });
  test('what no roll takes is counted, not squeezed in', () => {
    expect(materialFor([line({ widthMm: 2000, heightMm: 2500, count: 3 })], film('Tern Shade 35'), defaultAllowances, defaultCutSettings).tooWide).toBe(3);
    expect(price([line({ widthMm: 2000, heightMm: 2500, count: 3 })]).fault).toContain('3 panes are too large');
  });
  test('how it came about is told in the units of the job: the roll, its price, how many panes; nothing where there is no film', () => {
    const m = materialFor([line()], film('Tern Shade 35'), defaultAllowances, defaultCutSettings);
    expect(materialText(m, 1, 3, 'mm')).toBe(
      '2.05 m of 1220 mm at 13.03 a metre, 1 pane laid out with their allowances; the cheapest of 3 widths. No work, no margin.',
    );
    expect(materialText(m, 2, 3, 'in')).toBe(
      `6.7 ft of 48 1/16" at 3.97 a foot, 2 panes laid out with their allowances; the cheapest of 3 widths. No work, no margin.`,
    );
    expect([materialText(undefined, 1, 3, 'mm'), materialText({ ...m, offer: null }, 1, 3, 'mm')]).toEqual(['', '']);
  });
  test('a film that runs up and down alike may be laid head down, and still not across', () => {
    const panes = [line({ widthMm: 1100, heightMm: 400, count: 4 })];
    const across = (direction: Film['direction']) => materialFor(panes, { ...film('Tern Shade 35'), direction }, defaultAllowances, defaultCutSettings).usedM;
    // 1150 × 450: across a 1220 roll one beside the other takes 4 × 0.45 m; turned, two lie side by side
    expect(across('two-way')).toBeCloseTo(across('one-way'), 6);
    expect(across('none')).toBeLessThanOrEqual(across('two-way'));
  });
  test('of two widths that both take the panes the cheaper one wins, whatever their order; one that takes more panes wins before it', () => {
    const [narrow, wide] = [
      { widthMm: 600, pricePerM: '1.00' },
      { widthMm: 1220, pricePerM: '9.00' },
    ] as const;
    const of = (offers: Film['offers'], w: number) =>
      materialFor([line({ widthMm: w, heightMm: 700 })], { ...film('Tern Shade 35'), offers }, defaultAllowances, defaultCutSettings).offer?.widthMm;
    const both = [narrow, wide].map((o) => ({ ...film('Tern Shade 35').offers[0]!, ...o }));
    for (const offers of [both, both.toReversed()]) {
      expect(of(offers, 400)).toBe(600);
      expect(of(offers, 900)).toBe(1220);
    }
  });
  test('a film with one direction is not turned to save film', () => {
    const panes = [line({ widthMm: 1400, heightMm: 500, count: 6 })];
    const free = materialFor(panes, { ...film('Reed Lines'), direction: 'none' }, defaultAllowances, defaultCutSettings);
    const bound = materialFor(panes, film('Reed Lines'), defaultAllowances, defaultCutSettings);
    expect(bound.usedM).toBeGreaterThanOrEqual(free.usedM);
  });
});

describe('minutes of a line', () => {
  test('by hand: 3 panes of 2 m² tint: 3 × (8 + 12 × 2) laying, 3 × 6 × 2 cleaning', () =>
    expect(lineMinutes(line({ count: 3 }), demoRates, 'tint')).toEqual({ layingMinutes: 96, cleaningMinutes: 36, oldFilmMinutes: 0, siliconeMinutes: 0 }));
  test('old film, silicone and a tower add what the rates say', () => {
    const m = lineMinutes(line({ reach: 'tower', hasOldFilm: true, hasProudSilicone: true }), demoRates, 'security');
    expect(m.layingMinutes).toBeCloseTo(1.8 * (8 + 44), 9);
    expect(m.oldFilmMinutes).toBeCloseTo(1.8 * 50, 9);
    expect(m.siliconeMinutes).toBeCloseTo(1.8 * 36, 9);
  });
  test('security film is worked at its own minutes', () =>
    expect(['Breakwater 200', 'Sea Mist white', 'Tern Shade 20'].map((n) => workClassOf(film(n)))).toEqual(['security', 'frost', 'tint']));
});

describe('the price', () => {
  test('by hand: one pane, 10 km', () => {
    const p = price([line()], 'Tern Shade 35', 10);
    const filmCost = 2.053 * Number(film('Tern Shade 35').offers.find((o) => o.widthMm === 1220)!.pricePerM) * 1.35;
    expect(p.makeUp.map((l) => [l.name, l.amountMinor])).toEqual([
      ['Film', toMinor(filmCost)],
      ['Laying', toMinor((32 / 60) * 48)],
      ['Cleaning', toMinor((12 / 60) * 48)],
      ['Setting up', toMinor((45 / 60) * 48)],
      ['Travel', 1200],
      ['Up to the minimum', expect.any(Number)],
    ]);
    expect([p.netMinor, p.taxMinor, p.totalMinor, p.isMinimum]).toEqual([15000, 3150, 18150, true]);
  });
  test('a quote that comes to the minimum by itself is no minimum, one that is a cent below it is', () => {
    const made = price([line()], 'Tern Shade 35', 10, { ...demoRates, minimum: '0' }).netMinor;
    const at = (minor: number) => price([line()], 'Tern Shade 35', 10, { ...demoRates, minimum: (minor / 100).toFixed(2) });
    expect(at(made)).toMatchObject({ isMinimum: false, netMinor: made });
    expect(at(made).makeUp.map((l) => l.name)).not.toContain('Up to the minimum');
    expect(at(made + 1)).toMatchObject({ isMinimum: true, netMinor: made + 1 });
    expect(at(made + 1).makeUp.at(-1)).toMatchObject({ name: 'Up to the minimum', amountMinor: 1 });
  });
  test('the parts make the net, net and tax the total, whatever the windows', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 200, max: 1400 }), fc.integer({ min: 200, max: 2400 }), fc.integer({ min: 1, max: 6 })), {
          minLength: 1,
          maxLength: 4,
        }),
        fc.integer({ min: 0, max: 90 }),
        (windows, km) => {
          const p = price(
            windows.map(([widthMm, heightMm, count]) => line({ widthMm, heightMm, count })),
            'Tern Shade 35',
            km,
          );
          expect(p.makeUp.reduce((s, l) => s + l.amountMinor, 0)).toBe(p.netMinor);
          expect(p.totalMinor).toBe(p.netMinor + p.taxMinor);
          // the tax of each line is rounded there, and the lines make the tax of the whole
          for (const l of p.makeUp) expect(Math.abs(l.taxMinor - 0.21 * l.amountMinor)).toBeLessThanOrEqual(0.5 + 1e-6);
          expect(p.makeUp.reduce((s, l) => s + l.taxMinor, 0)).toBe(p.taxMinor);
          expect(p.netMinor).toBeGreaterThanOrEqual(15000);
        },
      ),
      { seed: 6, numRuns: 60 },
    ));
  test('film may be taxed at another rate than work', () => {
    const p = price([line({ count: 4 })], 'Tern Shade 35', 10, { ...demoRates, taxPct: 21, filmTaxPct: 9 });
    const [filmLine, ...work] = p.makeUp;
    expect([filmLine!.taxPct, filmLine!.taxMinor]).toEqual([9, toMinor((filmLine!.amountMinor / 100) * 0.09)]);
    expect(work.map((l) => l.taxPct)).toEqual(work.map(() => 21));
    expect(p.taxMinor).toBe(filmLine!.taxMinor + work.reduce((s, l) => s + toMinor((l.amountMinor / 100) * 0.21), 0));
  });
  test('one more pane is never cheaper', () => {
    let before = 0;
    for (let count = 1; count <= 12; count++) {
      const { netMinor } = price([line({ count })]);
      expect(netMinor).toBeGreaterThanOrEqual(before);
      before = netMinor;
    }
  });
  test('halves are rounded away from zero, once', () => expect([0.005, 1.005, 2.675, -0.005, 10].map(toMinor)).toEqual([1, 101, 268, -1, 1000]));
  test('a film too narrow for the window has no price, and says so', () => expect(price([line()], 'Pier Letters').fault).toContain('too large'));
  test('no windows, no price', () => expect(price([]).fault).toBe('No window yet.'));
});
