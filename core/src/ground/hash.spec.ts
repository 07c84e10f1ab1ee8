import { contentHash } from './hash.js';

describe('the name of an input: whatever has the same name is not reckoned again', () => {
  test('the order of fields and fields that are not there make no difference', () => {
    expect(contentHash({ a: 1, b: [1, 2] })).toBe(contentHash({ b: [1, 2], a: 1, c: undefined }));
    expect(contentHash({ b: 1, a: { d: 1, c: 2 } })).toBe(contentHash({ a: { c: 2, d: 1 }, b: 1 }));
  });
  test('everything else does: a value, the order of a list, null, a number for a word, one letter', () => {
    const names = [{}, [], null, 'null', 0, '0', [1, 2], [2, 1], [[1], 2], { a: 1 }, { a: null }, { a: '1' }, { b: 1 }, 'width', 'widtH', true, 'true'].map(
      contentHash,
    );
    expect(new Set(names).size).toBe(names.length);
  });
  // @source FNV-1a 32 bit, draft-eastlake-fnv: of the empty text it is its start 811c9dc5, of "a" e40c292c, of "foobar" bf9cf968; a text is hashed with its quotation marks here, so a number stands for the plain one
  test('the first half is FNV-1a as published', () => {
    const published = (text: string) => {
      let h = 0x811c9dc5n;
      for (const c of text) h = ((h ^ BigInt(c.charCodeAt(0))) * 0x01000193n) % 2n ** 32n;
      return h.toString(16).padStart(8, '0');
    };
    expect([published(''), published('a'), published('foobar')]).toEqual(['811c9dc5', 'e40c292c', 'bf9cf968']);
    for (const n of [1, 12, 123456]) expect(contentHash(n).slice(0, 8)).toBe(published(String(n)));
  });
  test('always 16 figures, the halves not alike', () => {
    for (let i = 0; i < 2000; i++) {
      const name = contentHash(i);
      expect(name).toMatch(/^[0-9a-f]{16}$/);
      expect(name.slice(0, 8)).not.toBe(name.slice(8));
    }
  });
});
