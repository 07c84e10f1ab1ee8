import type { FilmVerdict } from '@yellow-pane/contracts';
import { compareRows } from './compare-rows';

const film = (grade: FilmVerdict['grade'], part: { t: number; g: number; r: number } | null): { verdict: FilmVerdict; price: string } => ({
  price: part ? '€ 120' : '',
  verdict: {
    filmId: 'f', grade, day: null, night: null, breakRisk: null, score: part?.t ?? 0, heatLessFrac: null, glareLessFrac: null, fadingLessFrac: null,
    figures: part && { visibleTransmittanceFrac: part.t, gFrac: part.g, visibleReflectanceOutFrac: part.r, uvTransmittanceFrac: 0.01, uWPerM2K: 2.7 },
  } as unknown as FilmVerdict,
}); // prettier-ignore

describe('films side by side', () => {
  const rows = compareRows(film('go', { t: 0.8, g: 0.7, r: 0.08 }).verdict, [
    film('go', { t: 0.5, g: 0.4, r: 0.2 }),
    film('ask', { t: 0.3, g: 0.3, r: 0.3 }),
    film('do-not', null),
  ]);
  const row = (name: string) => rows.find((r) => r.name === name)!.values;

  test('the best of the films is marked: most light, least heat; never the bare glass', () => {
    expect(row('light let through').map((v) => [v.text, v.isBest])).toEqual([['80 %', false], ['50 %', true], ['30 %', false], ['–', false]]); // prettier-ignore
    expect(row('g, sun heat let in').map((v) => v.isBest)).toEqual([false, false, true, false]);
  });
  test('a mirror is neither better nor worse: nothing is marked', () => expect(row('mirrors to the street').some((v) => v.isBest)).toBe(false));
  test('one film alone is not the best of anything', () =>
    expect(
      compareRows(film('go', null).verdict, [film('go', { t: 0.5, g: 0.4, r: 0.2 })])
        .flatMap((r) => r.values)
        .some((v) => v.isBest),
    ).toBe(false));
  test('the verdict comes first, in its words', () => expect(row('verdict').map((v) => v.text)).toEqual(['go', 'go', 'ask the glass maker', 'do not']));
});
