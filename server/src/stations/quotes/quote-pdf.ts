import type { Content } from 'pdfmake/interfaces.js';
import { formatLength, kindCautions } from '@yellow-pane/core';
import { page, soft, type Paper } from '../../pdf/page.js';
import type { OpenQuote } from './quotes.service.js';

/** What a film does, as a customer hears it. */
const plainWords: Partial<Record<string, string>> = {
  solar: 'keeps out heat and glare',
  'exterior-solar': 'keeps out heat and glare, laid outside',
  mirror: 'one-way by day: you see out, nobody sees in while it is brighter outside',
  frosted: 'lets light in and keeps looks out',
  security: 'holds the glass together when it breaks',
  'anti-graffiti': 'takes the scratches instead of the glass',
  'anti-fog': 'keeps the pane from fogging',
};

/** The quote for the customer: windows, one price for each film in plain words, no make-up. */
export async function quotePdf({ quote, firm, rates, films, prices }: OpenQuote, paper: Paper): Promise<Buffer> {
  const money = (minor: number) => new Intl.NumberFormat('en-IE', { style: 'currency', currency: quote.currency }).format(minor / 100);
  const f = (mm: number) => formatLength(mm, firm.units);
  const content: Content[] = [
    { text: firm.name, fontSize: 12, bold: true },
    { text: 'Quote', fontSize: 22, bold: true, margin: [0, 10, 0, 0] },
    { text: [quote.customer, quote.site].filter(Boolean).join(' · '), color: soft, margin: [0, 0, 0, 12] },
  ];
  if (quote.photo) content.push({ image: quote.photo, fit: [220, 160], margin: [0, 0, 0, 12] });
  content.push({
    table: {
      headerRows: 1,
      widths: ['*', 'auto', 'auto'],
      body: [
        ['Windows', 'Size', 'How many'],
        ...quote.lines.map((l) => [
          [l.place, l.name].filter(Boolean).join(', ') + (l.hasOldFilm ? ' (old film comes off)' : ''),
          `${f(l.widthMm)} × ${f(l.heightMm)}`,
          String(l.count),
        ]),
      ],
    },
    layout: 'lightHorizontalLines',
    margin: [0, 0, 0, 16],
  });
  films.forEach((film, i) => {
    const price = prices[i]!;
    if (price.fault) return;
    content.push(
      {
        text: `${films.length > 1 ? `${i + 1}. ` : ''}${film.name}: ${plainWords[film.kind] ?? 'window film'}`,
        fontSize: 13,
        bold: true,
        margin: [0, 6, 0, 2],
      },
      {
        columns: [
          { text: `laid, film and travel included${rates.taxPct ? `, ${rates.taxPct} % tax in it: ${money(price.taxMinor)}` : ''}`, color: soft },
          { text: money(price.totalMinor), fontSize: 15, bold: true, alignment: 'right' },
        ],
      },
    );
    const caution = kindCautions[film.kind];
    if (caution) content.push({ text: caution, margin: [0, 2, 0, 0], italics: true });
  });
  content.push({
    text: 'Sizes are rounded; a full survey and a look at the glass come first. Where the glass may not stand a film we say so before any work begins.',
    color: soft,
    margin: [0, 18, 0, 0],
  });
  return page(paper, `Quote · ${quote.customer || firm.name}`, content, firm.units);
}
