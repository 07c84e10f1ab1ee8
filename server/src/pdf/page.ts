import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { UnitSystem } from '@yellow-pane/contracts';
import { toldAll } from '@yellow-pane/core';
import type Pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';

export type Paper = 'a4' | 'letter';

const fontDir = dirname(createRequire(import.meta.url).resolve('@expo-google-fonts/atkinson-hyperlegible-next/package.json'));
const font = (weight: string) => join(fontDir, weight, `AtkinsonHyperlegibleNext_${weight}.ttf`);

/** Read when the first paper is asked for: it is a large library, and a bench starts often. */
async function papers(): Promise<typeof Pdfmake> {
  const { default: pdfmake } = await import('pdfmake');
  pdfmake.setFonts({
    Atkinson: { normal: font('400Regular'), bold: font('700Bold'), italics: font('400Regular_Italic'), bolditalics: font('700Bold_Italic') },
  });
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path: string) => path.startsWith(fontDir));
  return pdfmake;
}

const ink = '#1C2226';
export const soft = '#56626A';

/** A document in the firm's look: title above, page count below; what its sentences say in °C, m² and µm is told in the units of the job or the bench. */
export async function page(paper: Paper, title: string, content: Content[], units: UnitSystem): Promise<Buffer> {
  const definition: TDocumentDefinitions = {
    pageSize: paper === 'a4' ? 'A4' : 'LETTER',
    pageMargins: [36, 44, 36, 40],
    info: { title },
    defaultStyle: { font: 'Atkinson', fontSize: 9.5, color: ink },
    header: { text: title, margin: [36, 20, 36, 0], fontSize: 8, color: soft },
    footer: (at: number, of: number) => ({ text: `${at} of ${of}`, alignment: 'right', margin: [36, 10, 36, 0], fontSize: 8, color: soft }),
    content: toldAll(content, units),
  };
  return (await papers()).createPdf(definition).getBuffer();
}
