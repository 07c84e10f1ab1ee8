import type { Content } from 'pdfmake/interfaces.js';
import type { CareSheet } from '@yellow-pane/core';
import type { UnitSystem } from '@yellow-pane/contracts';
import { page, type Paper } from '../../pdf/page.js';

/** The care sheet, in type that is read without glasses. */
export function carePdf(sheet: CareSheet, units: UnitSystem, paper: Paper): Promise<Buffer> {
  const content: Content[] = [
    { text: sheet.title, fontSize: 26, bold: true },
    { text: sheet.for, fontSize: 12, margin: [0, 2, 0, 8] },
    ...sheet.sections.flatMap((s): Content[] => [
      { text: s.head, fontSize: 17, bold: true, margin: [0, 10, 0, 3] },
      ...s.lines.map((text): Content => ({ text, fontSize: 13, lineHeight: 1.2, margin: [0, 0, 0, 5] })),
    ]),
  ];
  return page(paper, sheet.title, content, units);
}
