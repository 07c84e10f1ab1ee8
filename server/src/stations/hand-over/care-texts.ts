import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { careEnglish, readCareText, type CareText } from '@yellow-pane/core';
import { Refusal } from '../../problem.js';

/** Files that a firm adds: `care.de.txt`. */
const NAMED = /^care\.([a-z]{2,3}(?:-[a-z0-9]{2,8})?)\.txt$/i;

/** Care sheets in the languages that there are: English, and a text file for each that a firm has added. They are read when they are asked for, so that a mended file counts at once. */
export class CareTexts {
  constructor(private readonly dir: string | null) {}

  list(): { language: string; title: string; fault: string | null }[] {
    const own = this.files().map(({ language }) => {
      const read = this.read(language);
      return read.ok ? { language, title: read.value.words.title!, fault: null } : { language, title: '', fault: read.message };
    });
    const hasEnglish = own.some((o) => o.language === 'en');
    return [...(hasEnglish ? [] : [{ language: 'en', title: this.shipped().words.title!, fault: null }]), ...own];
  }

  /** @throws Refusal with the line that does not read */
  get(language: string): CareText {
    if (!this.files().some((f) => f.language === language.toLowerCase())) {
      if (language.toLowerCase() === 'en') return this.shipped();
      throw new Refusal('bad-input', `There is no care sheet in “${language}” on this bench. Put a file care.${language}.txt into its folder “languages”.`);
    }
    const read = this.read(language.toLowerCase());
    if (!read.ok) throw new Refusal('bad-input', `The file care.${language}.txt does not read. ${read.message}`);
    return read.value;
  }

  private shipped(): CareText {
    const read = readCareText(careEnglish);
    if (!read.ok) throw new Error(read.message);
    return read.value;
  }
  private read(language: string): ReturnType<typeof readCareText> {
    const file = this.files().find((f) => f.language === language)!;
    return readCareText(readFileSync(file.path, 'utf8'));
  }
  private files(): { language: string; path: string }[] {
    const { dir } = this;
    if (!dir || !existsSync(dir)) return [];
    return readdirSync(dir).flatMap((name) => {
      const language = NAMED.exec(name)?.[1]?.toLowerCase();
      return language ? [{ language, path: join(dir, name) }] : [];
    });
  }
}
