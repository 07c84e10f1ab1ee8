import { moneyText, toMinor } from './money.js';

test('an amount is rounded once, by one rule, wherever it is told: halves go up', () => {
  // as binary numbers these lie a hair under the half; print by print they used to differ by a cent
  expect([12.725, 1.005, 2.675].map((v) => moneyText(v, 'EUR'))).toEqual(['€12.73', '€1.01', '€2.68']);
  expect(moneyText(-12.725, 'EUR')).toBe('-€12.73');
  expect(moneyText(416.5, 'EUR', true)).toBe('€417');
  expect(toMinor(12.725)).toBe(1273);
  // what nobody would call a currency still prints
  expect(moneyText(12.725, '€€€')).toBe('12.73 €€€');
  // nor what has three letters in it, or is longer: a firm that typed "EUR " or "EURO" still gets its paper
  expect(['EURO', 'xEUR', 'E1R'].map((c) => moneyText(1, c))).toEqual(['1.00 EURO', '1.00 xEUR', '1.00 E1R']);
  expect(moneyText(1.5, 'eur')).toBe('€1.50');
  expect(moneyText(1.5, '€€€', true)).toBe('2 €€€');
});
