import { letterFace, signLine } from '@yellow-pane/contracts';
import { boundingBox, evenOdd, placeMark, regionArea, ringsFromSvgPath, signedArea } from '@yellow-pane/core';
import { ternInterior } from '@yellow-pane/demo';
import { missingIn, setLetters } from './lettering.js';

const faces = letterFace.options;
/** What the customers of a sign writer order. */
const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789&@%!?.,:;+-–/()€ÄÖÜäöüßÉéèêëÇçÑñÅåØøÆæŒœ“”‘’«»';

function rings(path: string) {
  const read = ringsFromSvgPath(path);
  if (!read.ok) throw new Error(read.message);
  return read.rings;
}

describe.each(faces)('letters in the face “%s”', (face) => {
  test('no outline crosses another: a knife would cut both. By areas: the winding sum of each letter is what the even-odd rule fills', async () => {
    expect(await missingIn(ALPHABET, face)).toEqual([]);
    for (const letter of ALPHABET) {
      const own = rings((await setLetters(letter, face, 0)).svgPath);
      const winding = Math.abs(own.reduce((s, r) => s + signedArea(r), 0));
      expect({ letter, area: regionArea(evenOdd(own)) / winding }).toEqual({ letter, area: expect.closeTo(1, 6) as number });
    }
  });
  test('a capital without a round is as high as the face says, and stands on the baseline', async () => {
    const { svgPath, capUnits } = await setLetters('H', face, 0);
    const box = boundingBox(rings(svgPath).flat());
    expect(box.minY).toBeCloseTo(0, 9);
    expect(box.maxY).toBe(capUnits);
    expect(boundingBox(rings((await setLetters('p', face, 0)).svgPath).flat()).minY).toBeLessThan(-0.15 * capUnits);
  });
  test('a line runs to the right, letter by letter; space between letters widens it by that for each gap', async () => {
    const wide = async (text: string, spacing = 0) => {
      const box = boundingBox(rings((await setLetters(text, face, spacing)).svgPath).flat());
      return box.maxX - box.minX;
    };
    const { capUnits } = await setLetters('H', face, 0);
    expect((await wide('HHHH', 10)) - (await wide('HHHH'))).toBeCloseTo(3 * 0.1 * capUnits, -1);
    expect(await wide('HH')).toBeGreaterThan(2 * (await wide('H')));
  });
  test('the longest line of the richest letter is taken by the record', async () => {
    for (const letter of ['@', '&', 'g']) {
      const text = letter.repeat(60);
      const line = { is: 'letters', id: '01930000-0000-7000-8000-000000000001', text, face, spacing: 0, heightMm: 100, baselineMm: 0, atMm: 0, align: 'left', ...(await setLetters(text, face, 0)) }; // prettier-ignore
      expect(signLine.safeParse(line).success).toBe(true);
    }
  });
  test('a sign that it has not is named', async () => {
    expect(await missingIn('A→B→漢', face)).toEqual(['→', '漢']);
  });
});

test('kerning of the face counts: AV stands closer than its letters alone', async () => {
  const wide = async (text: string) => {
    const box = boundingBox(rings((await setLetters(text, 'heavy', 0)).svgPath).flat());
    return box.maxX - box.minX;
  };
  expect((await wide('AVA')) + 20).toBeLessThan((await wide('AHA')) - (await wide('H')) + (await wide('V')));
});

test('the letters of the demo are what the bench sets', async () => {
  const lines = ternInterior().surfaces.flatMap((s) => (s.kind === 'sign' ? s.lines : []));
  for (const l of lines) {
    if (l.is !== 'letters') continue;
    expect(await setLetters(l.text, l.face, l.spacing)).toEqual({ svgPath: l.svgPath, capUnits: l.capUnits });
    expect(placeMark(l)).toHaveProperty('region');
  }
  expect(lines).toHaveLength(3);
});
