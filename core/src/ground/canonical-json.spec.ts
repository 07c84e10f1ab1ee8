import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { canonicalJson } from './canonical-json.js';
import { sha256Of } from './sha256.js';

describe('one value, one text', () => {
  test('the example of RFC 8785, section 3.2.2', () => {
    // the number is written there with more digits than a double holds
    const value = {
      numbers: [Number('333333333.33333329'), 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
      string: '\u20ac$\u000F\u000aA\'\u0042\u0022\u005c\\"/',
      literals: [null, true, false],
    };
    expect(canonicalJson(value)).toBe(
      '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"\u20ac$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
    );
  });
  test('keys by UTF-16 code units: the example of RFC 8785, section 3.2.3', () => {
    const value = { '\u20ac': 'Euro Sign', '\r': 'Carriage Return', '\ufb33': 'Hebrew Letter Dalet With Dagesh', '1': 'One', '\ud83d\ude00': 'Emoji: Grinning Face', '\u0080': 'Control', '\u00f6': 'Latin Small Letter O With Diaeresis' }; // prettier-ignore
    const order = [...canonicalJson(value).matchAll(/:"([^"]+)"/g)].map((m) => m[1]);
    expect(order).toEqual(['Carriage Return', 'One', 'Control', 'Latin Small Letter O With Diaeresis', 'Euro Sign', 'Emoji: Grinning Face', 'Hebrew Letter Dalet With Dagesh']); // prettier-ignore
  });
  test('whatever order the keys came in', () => {
    fc.assert(
      fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (value) => {
        const turned = Object.fromEntries(Object.entries(value).reverse());
        expect(canonicalJson(turned)).toBe(canonicalJson(value));
        expect(JSON.parse(canonicalJson(value))).toEqual(JSON.parse(JSON.stringify(value)));
      }),
    );
  });
});

test('SHA-256 is that of Node, whatever it is over', () => {
  // the canonical text of a number is its digits: the sum over "0" as sha256sum gives it
  expect(sha256Of(0)).toBe('5feceb66ffc86f38d952786c6d696c79c2dbc239dd4e91b46729d73a27fb57e9');
  fc.assert(
    fc.property(fc.jsonValue(), (value) => {
      expect(sha256Of(value)).toBe(createHash('sha256').update(canonicalJson(value), 'utf8').digest('hex'));
    }),
  );
});
