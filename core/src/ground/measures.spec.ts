import { celsius, fahrenheit, figureOf, filmShareText, filmText, lengthPrice, measureOf, temperatureText, told, toldAll } from './measures.js';

describe('inch jobs tell °F, ft², mil and mph', () => {
  test('fixed points: water freezes at 32 °F and boils at 212; 40 °F is 4.4 °C (CHECKS: facts of the trade)', () => {
    expect([fahrenheit(0), fahrenheit(100), fahrenheit(-40)]).toEqual([32, 212, -40]);
    expect(celsius(40)).toBeCloseTo(4.44, 2);
    expect(measureOf('area', 'in').to(1)).toBeCloseTo(10.7639, 4);
    // 2 mil is the usual window film, 8 mil security film
    expect(measureOf('thickness', 'in').to(50.8)).toBeCloseTo(2, 9);
    expect(measureOf('wind', 'in').to(10)).toBeCloseTo(22.369, 3);
  });
  test.each([
    ['Between 5 °C and a hand’s warmth.', 'Between 41 °F and a hand’s warmth.'],
    ['480 to 540 °C at the nozzle burns at once', '896 to 1004 °F at the nozzle burns at once'],
    ['5 … 30 °C', '41 … 86 °F'],
    ['They go at about 57 to 68 °C.', 'They go at about 135 to 154 °F.'],
    ['down to −4 °C at night', 'down to 25 °F at night'],
    ['down to −20 °C at night', 'down to −4 °F at night'],
    ['glass 12 °C warmer than the air', 'glass 22 °F warmer than the air'],
    ['only 2.1 °C above the dew point', 'only 3.8 °F above the dew point'],
    ['a difference of 35 K; 26 K for wired glass', 'a difference of 63 °F; 47 °F for wired glass'],
    ['A big pane of 4.2 m² that is not hardened.', 'A big pane of 45 ft² that is not hardened.'],
    ['350 µm holds splinters', '13.8 mil holds splinters'],
    ['gusts up to 9 m/s', 'gusts up to 20 mph'],
    ['gusts of 9 m/s: dust', 'gusts of 20 mph: dust'],
    // what is none of these stays
    [
      'sun on the glass, 640 W/m²; 3.2 m of film; W1 at 9.3, 1200 × 900 mm, 5 Kilo',
      'sun on the glass, 640 W/m²; 3.2 m of film; W1 at 9.3, 1200 × 900 mm, 5 Kilo',
    ],
  ])('%s', (metric, customary) => {
    expect(told(metric, 'in')).toBe(customary);
    expect(told(metric, 'mm')).toBe(metric);
  });
  test('what was told once is not told again, and a figure of a field comes back as typed', () => {
    expect(told(told('20 °C, 3 K, 2 m²', 'in'), 'in')).toBe(told('20 °C, 3 K, 2 m²', 'in'));
    for (const f of [32, 40, 72, 105]) expect(figureOf(measureOf('temperature', 'in').from(f), 'temperature', 'in')).toBe(String(f));
    for (const mil of [1.5, 2, 8, 13.8]) expect(figureOf(measureOf('thickness', 'in').from(mil), 'thickness', 'in')).toBe(String(mil));
    expect([figureOf(21.5, 'temperature', 'mm'), figureOf(38.1, 'thickness', 'mm'), figureOf(0.4, 'area', 'mm')]).toEqual(['21.5', '38.1', '0.4']);
    expect([temperatureText(20, 'mm'), temperatureText(20, 'in')]).toEqual(['20 °C', '68 °F']);
  });
  test('a whole plan, however deep; figures, dates and what has no sentence are left as they are', () => {
    const at = new Date(0);
    const plan = { lines: [{ words: 'at 20 °C', c: 20 }], at, nothing: null };
    expect(toldAll(plan, 'in')).toEqual({ lines: [{ words: 'at 68 °F', c: 20 }], at, nothing: null });
    const same = { a: ['x'], at };
    expect(toldAll(same, 'in')).toBe(same);
  });
});

test('film in a sentence: metres to the centimetre or feet to a tenth; a price for a metre asked for by the foot', () => {
  expect([filmText(3084, 'mm'), filmText(3084, 'mm', 1), filmText(3048, 'in')]).toEqual(['3.08 m', '3.1 m', '10.0 ft']);
  expect([filmShareText(3084, 8000, 'mm', 1), filmShareText(3048, 7620, 'in')]).toEqual(['3.08 of 8.0 m', '10.0 of 25.0 ft']);
  expect([lengthPrice(13.6, 'mm'), lengthPrice(13.12, 'in')]).toEqual([{ figure: '13.60', unit: 'm' }, { figure: '4.00', unit: 'ft' }]); // prettier-ignore
});
