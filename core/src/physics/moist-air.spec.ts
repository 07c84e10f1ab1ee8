import { dewPointC, humidityPctAt, saturationHPa } from './moist-air.js';

describe('water in air', () => {
  // @source steam tables: 0.01 °C 6.117 hPa, 20 °C 23.39, 40 °C 73.84, 60 °C 199.4; over water at −20 °C 1.254 (from memory)
  test.each([
    [0.01, 6.117],
    [20, 23.39],
    [40, 73.84],
    [60, 199.4],
    [-20, 1.254],
  ])('saturated air at %d °C holds water at %d hPa, within half a per cent', (c, hPa) => expect(saturationHPa(c) / hPa).toBeCloseTo(1, 1.9));
  // @source psychrometric tables: room air of 20 °C and 50 % sweats at 9.3 °C, 25 °C and 60 % at 16.7 °C (common practice)
  test('room air at 20 °C and 50 % begins to wet what is at 9.3 °C, at 25 °C and 60 % what is at 16.7 °C', () => {
    expect(dewPointC(20, 50)).toBeCloseTo(9.27, 1);
    expect(dewPointC(25, 60)).toBeCloseTo(16.7, 1);
    expect(dewPointC(18, 100)).toBeCloseTo(18, 9);
  });
  test('back and forth: the humidity at the dew point’s own air is the one that it came from; colder than that it is fog, 100 %', () => {
    for (const [c, pct] of [[5, 30], [21, 55], [34, 80]] as const) expect(humidityPctAt(c, dewPointC(c, pct))).toBeCloseTo(pct, 6); // prettier-ignore
    expect(humidityPctAt(5, 9)).toBe(100);
  });
  test('beyond what the formula knows is refused with its limits, at both ends', () => {
    expect(() => saturationHPa(-46)).toThrow('Air temperature is -46 °C; it must be -45 … 60 °C.');
    expect(() => saturationHPa(61)).toThrow('-45 … 60');
    expect(() => dewPointC(20, 0)).toThrow('Humidity');
    expect(() => dewPointC(20, 101)).toThrow('Humidity');
    expect([saturationHPa(-45), saturationHPa(60)].every(Number.isFinite)).toBe(true);
  });
});
