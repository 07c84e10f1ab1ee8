import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Font } from 'fontkit';
import type { Lettering, LetterFace } from '@yellow-pane/contracts';

const packageOf = (name: string): string => dirname(createRequire(import.meta.url).resolve(`${name}/package.json`));
/** The shipped faces that letters are set in: none whose outlines cross each other, since a knife would cut both. */
const files: Readonly<Record<LetterFace, readonly [string, string]>> = {
  plain: ['@expo-google-fonts/atkinson-hyperlegible-next', '500Medium/AtkinsonHyperlegibleNext_500Medium.ttf'],
  heavy: ['@expo-google-fonts/atkinson-hyperlegible-next', '800ExtraBold/AtkinsonHyperlegibleNext_800ExtraBold.ttf'],
  pitched: ['@fontsource/ibm-plex-mono', 'files/ibm-plex-mono-latin-400-normal.woff2'],
  'pitched-heavy': ['@fontsource/ibm-plex-mono', 'files/ibm-plex-mono-latin-600-normal.woff2'],
};
const fonts = new Map<LetterFace, Promise<Font>>();
const fontOf = (face: LetterFace): Promise<Font> => {
  const known = fonts.get(face);
  if (known) return known;
  const [name, file] = files[face];
  // read when the first letters are set: a start does not wait for it
  const reading = Promise.all([import('fontkit'), readFile(join(packageOf(name), file))]).then(([{ create }, bytes]) => create(bytes) as Font);
  fonts.set(face, reading);
  return reading;
};

/** Signs of the text that a face has no letter for. */
export const missingIn = async (text: string, face: LetterFace): Promise<string[]> => {
  const font = await fontOf(face);
  return [...new Set(text)].filter((sign) => !font.hasGlyphForCodePoint(sign.codePointAt(0)!));
};

/**
 * One line of letters as outlines, with the kerning of its face: an SVG path in units of the face, its baseline y = 0, y down.
 * @param spacing added after each letter, % of the height of a capital
 */
export async function setLetters(text: string, face: LetterFace, spacing: number): Promise<Lettering> {
  const font = await fontOf(face);
  const { glyphs, positions } = font.layout(text);
  const parts: string[] = [];
  let x = 0;
  glyphs.forEach((glyph, i) => {
    const { xAdvance, xOffset, yOffset } = positions[i]!;
    const path = glyph.path.transform(1, 0, 0, -1, Math.round(x + xOffset), Math.round(-yOffset));
    parts.push(path.toSVG());
    x += xAdvance + (spacing / 100) * font.capHeight;
  });
  return { svgPath: parts.join(''), capUnits: font.capHeight };
}
