import type { FilmKind } from '@yellow-pane/contracts';
import { fail, ok, type Result } from '../ground/index.js';
import { careEnglish } from './care-english.js';

/** What of the words of a care sheet hangs on. Heads stand with what is under them. */
const parts = [
  'title',
  'for',
  'drying-head',
  'drying',
  'clear-now',
  'touch',
  'clean-head',
  'clean',
  'stick',
  'kinds-head',
  'solar',
  'exterior-solar',
  'mirror',
  'frosted',
  'security',
  'anti-graffiti',
  'anti-fog',
  'double-glazing',
  'laid-dry',
  'call-head',
  'call',
] as const;
export type CarePart = (typeof parts)[number];
const isPart = (key: string): key is CarePart => (parts as readonly string[]).includes(key);

/** What is filled in. */
const figures = ['customer', 'job', 'firm', 'clear', 'touchTo', 'cleanFrom'] as const;
export type CareFigures = Readonly<Record<(typeof figures)[number], string>>;

/** A care sheet in one language. */
export interface CareText {
  readonly language: string;
  readonly words: Readonly<Partial<Record<CarePart, string>>>;
}

/** Longest file that is read: a sheet of paper has a tenth of it. */
const MOST_SIGNS = 40_000;

/** Reads a language file. @returns the fault says the line and how to mend it */
export function readCareText(text: string): Result<CareText> {
  if (text.length > MOST_SIGNS) return fail('This file is too long for a care sheet.');
  const words: Partial<Record<CarePart, string>> = {};
  let language: string | null = null;
  let last: CarePart | null = null;
  for (const [i, raw] of text
    .replace(/^\ufeff/, '')
    .split(/\r?\n/)
    .entries()) {
    const at = `Line ${i + 1}`;
    if (raw.trim() === '' || raw.startsWith('#')) continue;
    if (/^\s/.test(raw)) {
      if (!last) return fail(`${at} goes on with a line before it, and there is none.`);
      words[last] += ` ${raw.trim()}`;
    } else {
      const colon = raw.indexOf(':');
      const key = raw.slice(0, colon).trim();
      if (colon < 1) return fail(`${at} has no colon: write a name, a colon, then the words.`);
      if (key === 'language') {
        language = raw.slice(colon + 1).trim();
        last = null;
        continue;
      }
      if (!isPart(key)) return fail(`${at}: “${key}” is no part of a care sheet. Parts: ${parts.join(', ')}.`);
      if (words[key] !== undefined) return fail(`${at}: “${key}” is there twice.`);
      words[key] = raw.slice(colon + 1).trim();
      last = key;
    }
    const unknown = last && [...words[last]!.matchAll(/\{([^{}]*)\}/g)].find(([, name]) => !(figures as readonly string[]).includes(name!));
    if (unknown) return fail(`${at}: “${unknown[0]}” stands for nothing. Use ${figures.map((f) => `{${f}}`).join(', ')}.`);
  }
  if (!language || !/^[a-z]{2,3}(-[a-z0-9]{2,8})?$/i.test(language)) return fail('A line “language: de” (or another code of the language) is missing.');
  if (!words.title) return fail('The title is missing.');
  return ok({ language, words });
}

const english = (() => {
  const read = readCareText(careEnglish);
  if (!read.ok) throw new Error(read.message);
  return read.value;
})();

/** A head with what stands under it. */
export interface CareSection {
  readonly head: string;
  readonly lines: readonly string[];
}
export interface CareSheet {
  readonly title: string;
  readonly for: string;
  readonly sections: readonly CareSection[];
}

/** What was laid. */
export interface CareOf {
  readonly isWet: boolean;
  readonly isDry: boolean;
  readonly hasDoubleGlazing: boolean;
}

/**
 * The care sheet for the films that are really there.
 * @param text in the customer's language; what it lacks is told in English
 * @param there film laid wet (that dries), film laid dry, double glazing
 * @param f `clear`: when which film will be; empty: all was seen clear
 */
export function careSheet(text: CareText, kinds: ReadonlySet<FilmKind>, there: CareOf, f: CareFigures): CareSheet {
  const isClear = f.clear === '';
  const say = (part: CarePart): string =>
    (text.words[part] || english.words[part]!).replace(/\{(\w+)\}/g, (whole, name: string) => f[name as keyof CareFigures] ?? whole);
  const kindParts = parts.filter((p) => kinds.has(p as FilmKind));
  const about = [...kindParts, ...(there.hasDoubleGlazing ? (['double-glazing'] as const) : []), ...(there.isDry ? (['laid-dry'] as const) : [])];
  const sections: [CarePart, readonly CarePart[]][] = [
    ['drying-head', !there.isWet ? [] : isClear ? ['clear-now'] : ['drying', 'touch']],
    ['clean-head', ['clean', 'stick']],
    ['kinds-head', about],
    ['call-head', ['call']],
  ];
  return {
    title: say('title'),
    for: say('for'),
    sections: sections.filter(([, lines]) => lines.length).map(([head, lines]) => ({ head: say(head), lines: lines.map(say) })),
  };
}

/** Days after the last laying on which film may be cleaned first. @source common practice: 30 days */
export const CLEAN_AFTER_DAYS = 30;
