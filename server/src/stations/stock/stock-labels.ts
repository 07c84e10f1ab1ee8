import type { Content } from 'pdfmake/interfaces.js';
import type { Film, Firm, StockLine } from '@yellow-pane/contracts';
import { formatLength } from '@yellow-pane/core';
import { page, soft, type Paper } from '../../pdf/page.js';

/** What the QR code of a label says: enough for a scanner that types, and for a person. */
const labelCode = (label: string): string => `YP:${label}`;

/** Labels for rolls and leftovers, two across: name, film, width, lot, face up, and a code to scan. */
export function stockLabelsPdf(lines: readonly StockLine[], films: readonly Film[], firm: Firm, paper: Paper): Promise<Buffer> {
  const cells = lines.map(({ roll, remainingMm }): Content => {
    const film = films.find((f) => f.id === roll.filmId);
    const wound = roll.wound ?? film?.wound ?? 'unknown';
    const length =
      roll.form === 'leftover'
        ? `${formatLength(roll.widthMm, firm.units)} wide × ${formatLength(remainingMm, firm.units)} long`
        : `${formatLength(roll.widthMm, firm.units)} wide`;
    return {
      columns: [
        { qr: labelCode(roll.label), fit: 74, width: 82 },
        {
          stack: [
            { text: roll.label, bold: true, fontSize: 18 },
            { text: film?.name ?? '', fontSize: 11 },
            { text: length, fontSize: 11 },
            {
              text: `lot ${roll.lot || '–'} · comes off ${wound === 'liner-in' ? 'film up' : wound === 'liner-out' ? 'liner up' : 'face not known'}`,
              fontSize: 8,
              color: soft,
            },
            { text: roll.form === 'leftover' ? `own edge: ${roll.edges}` : roll.place, fontSize: 8, color: soft },
          ],
        },
      ],
      margin: [6, 10, 6, 10],
    };
  });
  const rows: Content[][] = [];
  for (let i = 0; i < cells.length; i += 2) rows.push([cells[i]!, cells[i + 1] ?? '']);
  return page(paper, 'Labels for rolls and leftovers', [{ table: { widths: ['*', '*'], body: rows, dontBreakRows: true } }], firm.units);
}
