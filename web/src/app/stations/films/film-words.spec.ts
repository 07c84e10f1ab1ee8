import { demoLibrary } from '../../../../../demo/src/index';
import { shownFilms } from './film-words';

const names = (...a: Parameters<typeof shownFilms> extends [unknown, ...infer R] ? R : never) => shownFilms(demoLibrary, ...a).map((f) => f.name);

describe('the film list', () => {
  test('leaves retired films and old versions out, unless one looks for the retired', () => {
    expect(names('', 'all', 'name', false)).not.toContain('Dawn Bronze 30');
    expect(names('', 'retired', 'name', false)).toEqual(['Dawn Bronze 30']);
    const renewed = { ...demoLibrary[0]!, id: 'x', version: 2, replacesId: demoLibrary[0]!.id };
    expect(shownFilms([...demoLibrary, renewed], 'Tern Shade 35', 'all', 'name', false)).toEqual([renewed]);
  });
  test('is found by any words in name, kind and note', () => {
    expect(names('tern shade', 'all', 'name', false)).toEqual(['Tern Shade 20', 'Tern Shade 35', 'Tern Shade 50']);
    expect(names('one-way', 'all', 'name', false)).toEqual(['Gull Mirror 15', 'Night Watch 8']);
    expect(names('no such film', 'all', 'name', false)).toEqual([]);
  });
  test('by purpose: privacy is frost and mirrors', () => {
    expect(names('', 'privacy', 'name', false)).toContain('Quay Frost plain');
    expect(names('', 'walls', 'name', false)).toContain('Ash Plank');
    expect(names('', 'safety', 'name', false)).not.toContain('Ebb Grey 5');
  });
  test('sorted both ways, with films of unknown value last either way', () => {
    for (const down of [false, true]) {
      const list = shownFilms(demoLibrary, '', 'all', 'light', down).map((f) => f.optics?.visible.transmittanceFrac ?? null);
      const known = list.filter((v) => v !== null);
      expect(known).toEqual([...known].sort((a, b) => (down ? b - a : a - b)));
      expect(list.slice(known.length).every((v) => v === null)).toBe(true);
    }
  });
});
