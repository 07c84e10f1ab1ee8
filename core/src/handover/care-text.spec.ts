import { careEnglish } from './care-english.js';
import { careSheet, readCareText, type CareText } from './care-text.js';

const english = (() => {
  const read = readCareText(careEnglish);
  if (!read.ok) throw new Error(read.message);
  return read.value;
})();
const figures = {
  customer: 'Tern Point Ferries',
  job: 'the annex',
  firm: 'Wharfside',
  clear: 'Tern Shade 35 1 to 20 Dec',
  touchTo: '3 Dec',
  cleanFrom: '24 Dec',
};
const all = (text: CareText, kinds: Parameters<typeof careSheet>[1], isDouble = false) => {
  const sheet = careSheet(text, kinds, { isWet: true, isDry: false, hasDoubleGlazing: isDouble }, figures);
  return [sheet.title, sheet.for, ...sheet.sections.flatMap((s) => [s.head, ...s.lines])].join('\n');
};
const fault = (text: string) => {
  const read = readCareText(text);
  return read.ok ? null : read.message;
};

describe('what the customer is told', () => {
  test('common practice: cleaning after 30 days, no ammonia, no abrasives, pockets are normal until the date, drop windows up', () => {
    const said = all(english, new Set(['solar']));
    expect(said).toContain('Expect it to be clear: Tern Shade 35 1 to 20 Dec.');
    expect(said).toContain('Not before 24 Dec');
    expect(said).toMatch(/No ammonia, no scouring/);
    expect(said).toContain('keep drop windows up until then');
    expect(said).not.toMatch(/[{}]/);
  });
  test('only the kinds that are there: security is never sold as unbreakable, a mirror turns round at night', () => {
    const solar = all(english, new Set(['solar']));
    expect(solar).not.toContain('unbreakable');
    expect(all(english, new Set(['security']))).toContain('does not make the glass unbreakable');
    expect(all(english, new Set(['mirror']))).toContain('At night');
    expect(solar).not.toContain('warranty of the seal');
    expect(all(english, new Set(['solar']), true)).toContain('warranty of the seal of double glazing');
    // what was seen clear is not told to dry
    const done = careSheet(english, new Set(['solar']), { isWet: true, isDry: false, hasDoubleGlazing: false }, { ...figures, clear: '' });
    expect(done.sections[0]!.lines).toEqual([expect.stringContaining('seen clear')]);
    // without a kind that needs words there is no empty head
    expect(all(english, new Set(['lettering']))).not.toContain('does and does not do');
  });
  test('film that was laid dry: two weeks until its glue holds fully (common practice), and no word of drying where nothing was laid wet', () => {
    const there = { isWet: false, isDry: true, hasDoubleGlazing: false };
    const said = careSheet(english, new Set(['interior']), there, { ...figures, clear: '', touchTo: '' });
    const lines = said.sections.flatMap((s) => [s.head, ...s.lines]).join('\n');
    expect(lines).toContain('about two weeks to hold fully');
    expect(lines).not.toMatch(/first weeks|seen clear|drop windows/);
    const both = careSheet(english, new Set(['solar', 'interior']), { ...there, isWet: true }, figures);
    expect(both.sections.map((s) => s.head)).toEqual(['The first weeks', 'Cleaning', 'What your film does and does not do', 'Call us']);
  });
  test('another language: what its file lacks is told in English, nothing is left blank', () => {
    const read = readCareText('language: xx\ntitle: Titel\nclean: Erst ab {cleanFrom},\n  mit weichem Tuch.\nstick:\n');
    expect(read.ok && read.value).toEqual({ language: 'xx', words: { title: 'Titel', clean: 'Erst ab {cleanFrom}, mit weichem Tuch.', stick: '' } });
    const said = all(read.ok ? read.value : english, new Set());
    expect(said).toContain('Erst ab 24 Dec, mit weichem Tuch.');
    expect(said).toContain('Stick nothing to the film');
  });
});

test('a file that does not read says the line and how to mend it', () => {
  expect(fault('title: x')).toBe('A line “language: de” (or another code of the language) is missing.');
  expect(fault('language: Deutsch!\ntitle: x')).toContain('language: de');
  expect(fault('language: de')).toBe('The title is missing.');
  expect(fault('language: de\ntitle: x\ncleaning: y')).toMatch(/^Line 3: “cleaning” is no part of a care sheet\. Parts: title/);
  expect(fault('language: de\ntitle x')).toBe('Line 2 has no colon: write a name, a colon, then the words.');
  expect(fault('language: de\ntitle: x\ntitle: y')).toBe('Line 3: “title” is there twice.');
  expect(fault('  goes on\nlanguage: de')).toBe('Line 1 goes on with a line before it, and there is none.');
  expect(fault('language: de\n goes on')).toContain('there is none');
  expect(fault('language: de\ntitle: ab {clearfrom}')).toMatch(/^Line 2: “\{clearfrom\}” stands for nothing/);
  expect(fault('language: de\ntitle: a\n  b {x}')).toMatch(/^Line 3: “\{x\}”/);
  expect(fault(`language: de\ntitle: ${'x'.repeat(50_000)}`)).toContain('too long');
  // written by an editor that marks its files, with other ends of lines
  expect(fault('\ufefflanguage: de\r\n# a word\r\n\r\ntitle: x\r\n')).toBeNull();
});
