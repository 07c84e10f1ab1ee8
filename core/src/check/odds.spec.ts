import fc from 'fast-check';
import { after, answerOdds, asOdds, entropyBits, expectedGainBits } from './odds.js';

describe('odds', () => {
  // CHECKS, Diagnosis: computed by Bayes and Shannon apart from this code
  const prior = [0.5, 0.3, 0.2];
  const yes = [0.1, 0.2, 0.9];
  const no = yes.map((p) => 1 - p);
  test('three causes 0.5, 0.3, 0.2; a question answered yes with 0.1, 0.2, 0.9', () => {
    expect(answerOdds(prior, [yes, no])[0]).toBeCloseTo(0.29, 12);
    for (const [i, p] of [0.1724, 0.2069, 0.6207].entries()) expect(after(prior, yes)[i]).toBeCloseTo(p, 4);
    for (const [i, p] of [0.6338, 0.338, 0.0282].entries()) expect(after(prior, no)[i]).toBeCloseTo(p, 4);
    expect(expectedGainBits(prior, [yes, no])).toBeCloseTo(0.32385, 5);
  });
  test('a fair coin is one bit, certainty none; what is answered alike under every cause tells nothing', () => {
    expect(entropyBits([0.5, 0.5])).toBeCloseTo(1, 12);
    expect(entropyBits([1, 0])).toBe(0);
    expect(expectedGainBits(prior, [[0.3, 0.3, 0.3], [0.7, 0.7, 0.7]])).toBeCloseTo(0, 12); // prettier-ignore
    // an answer that nobody ever gives takes no part
    expect(expectedGainBits(prior, [[1, 1, 1], [0, 0, 0]])).toBeCloseTo(0, 12); // prettier-ignore
  });
  test('odds add up to one, and what was found first does not matter', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(...Array.from({ length: 3 }, () => fc.double({ min: 0.01, max: 1, noNaN: true }))), { minLength: 2, maxLength: 6 }),
        ([weights, ...findings]) => {
          const start = asOdds(weights!);
          const forth = findings.reduce((o, f) => after(o, f), start);
          const back = findings.toReversed().reduce((o, f) => after(o, f), start);
          expect(forth.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9);
          forth.forEach((p, i) => expect(p).toBeCloseTo(back[i]!, 9));
        },
      ),
    ));
});
