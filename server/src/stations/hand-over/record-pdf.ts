import type { Content, TableCell } from 'pdfmake/interfaces.js';
import type { LayEntry, SealCheck, UnitSystem } from '@yellow-pane/contracts';
import { boundingBox, countLaid, groupedSeal, temperatureText, told, type PaneRecord } from '@yellow-pane/core';
import { page, soft, type Paper } from '../../pdf/page.js';

/** All that the record says. */
export interface RecordPaper {
  readonly firm: string;
  readonly job: string;
  readonly customer: string;
  readonly address: string;
  readonly units: UnitSystem;
  readonly zone: string;
  readonly printedAt: string;
  readonly panes: readonly PaneRecord[];
  /** Air that was read or typed on the day of the work; empty: none was. */
  readonly air: string;
  /** Of the whole job: what was there before the work, and who signed it. */
  readonly before: readonly LayEntry[];
  /** Over the printed panes as they stand now. */
  readonly seal: string;
  readonly jobId: string;
  readonly seals: readonly SealCheck[];
  readonly signatures: readonly {
    readonly name: string;
    readonly at: string;
    readonly strokes: readonly (readonly (readonly [number, number])[])[];
    readonly of: string;
  }[];
  /** A photo by its name, made small; null: it is not on this bench. */
  readonly photo: (name: string) => Promise<string | null>;
}

/** Photos on one paper at the most: the others are counted. @source house rule: a paper that can be sent */
const MOST_PHOTOS = 60;
/** Text in the code, so that whoever points a phone at it can compare. */
const codeText = (seal: string, jobId: string): string => `Yellow Pane seal ${seal} job ${jobId}`;

/** The pane as seen from the room, with what was seen on it numbered. */
function paneSvg(p: PaneRecord): string | null {
  if (!p.outline) return null;
  const { minX, maxX, minY, maxY } = boundingBox(p.outline);
  const k = Math.min(120 / (maxX - minX), 120 / (maxY - minY));
  const x = (v: number) => (6 + (v - minX) * k).toFixed(1);
  const y = (v: number) => (6 + (maxY - v) * k).toFixed(1);
  const [w, h] = [(12 + (maxX - minX) * k).toFixed(1), (12 + (maxY - minY) * k).toFixed(1)];
  const marks = p.seen
    .filter((s) => s.where)
    .map((s, i) => {
      const [cx, cy] = [x(minX + s.where!.xFrac * (maxX - minX)), y(minY + s.where!.yFrac * (maxY - minY))];
      return `<circle cx="${cx}" cy="${cy}" r="5.5" fill="${s.isOpen ? '#FFE9A8' : '#FFFEFA'}" stroke="#1C2226" stroke-width="0.8"/><text x="${cx}" y="${(Number(cy) + 2.4).toFixed(1)}" font-size="7" text-anchor="middle" fill="#1C2226">${i + 1}</text>`;
    })
    .join('');
  const points = p.outline.map((q) => `${x(q.x)},${y(q.y)}`).join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}"><polygon points="${points}" fill="#F4F1E8" stroke="#1C2226" stroke-width="1"/>${marks}</svg>`;
}

function signatureSvg(strokes: RecordPaper['signatures'][number]['strokes']): string | null {
  const all = strokes.flat();
  if (!all.length) return null;
  const h = Math.max(0.12, ...all.map(([, v]) => v));
  const d = strokes.map((s) => s.map(([u, v], i) => `${i ? 'L' : 'M'}${(u * 200).toFixed(1)} ${(v * 200).toFixed(1)}`).join(' ')).join(' ');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="200" height="${(h * 200 + 6).toFixed(1)}" viewBox="0 0 200 ${(h * 200 + 6).toFixed(1)}"><path d="${d}" fill="none" stroke="#1C2226" stroke-width="1.2" stroke-linecap="round"/></svg>`;
}

/** When its water is gone; or, of what was laid dry, when it was looked over. */
function dryingRows({ drying, dryHoldsAt, seenClearAt }: PaneRecord, day: (iso: string) => string): [string, string][] {
  const holds: [string, string][] = dryHoldsAt ? [['Holds fully', `from ${day(dryHoldsAt)}; not washed or rubbed before`]] : [];
  if (!drying) return [['Looked over', seenClearAt ? `on ${day(seenClearAt)}` : 'not yet'], ...holds];
  return [
    ['Edge holds from', day(drying.holds.to)],
    ['Touch, drop windows', `from ${day(drying.touch.to)}`],
    ['Clear', seenClearAt ? `seen clear on ${day(seenClearAt)}` : `expected ${day(drying.clear.from)} to ${day(drying.clear.to)}`],
  ];
}

/** The record to hand over: one block a pane, what was there before, who signed, and the seal. */
export async function recordPdf(doc: RecordPaper, paper: Paper): Promise<Buffer> {
  const day = (iso: string) => new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: doc.zone }).format(new Date(iso));
  const time = (iso: string) => new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone: doc.zone }).format(new Date(iso));
  let photosLeft = MOST_PHOTOS;
  let notPrinted = 0;
  const pictures = async (list: readonly { photo: string; text: string; at: string }[]): Promise<Content[]> => {
    const out: Content[] = [];
    for (const p of list) {
      const image = photosLeft > 0 ? await doc.photo(p.photo) : null;
      if (!image) notPrinted++;
      else {
        photosLeft--;
        out.push({
          stack: [
            { image, fit: [150, 110] },
            { text: `${day(p.at)} ${p.text}`.trim(), fontSize: 8, color: soft, margin: [0, 3, 0, 0] },
          ],
          unbreakable: true,
        });
      }
    }
    const rows: Content[] = [];
    for (let i = 0; i < out.length; i += 3) rows.push({ columns: out.slice(i, i + 3), columnGap: 8, margin: [0, 4, 0, 0] });
    return rows;
  };

  const content: Content[] = [
    {
      columns: [
        [
          { text: doc.firm, fontSize: 11, bold: true },
          { text: 'Record of the work', fontSize: 22, bold: true, margin: [0, 8, 0, 0] },
          { text: [doc.job, doc.customer, doc.address].filter(Boolean).join(' · '), margin: [0, 2, 0, 0] },
          ...(doc.air ? [{ text: doc.air, color: soft, margin: [0, 2, 0, 0] as [number, number, number, number] }] : []),
          {
            text: `${countLaid(
              doc.panes.length,
              doc.panes.every((p) => p.drying !== null),
            )}, printed ${time(doc.printedAt)}`,
            color: soft,
            margin: [0, 2, 0, 0],
          },
        ],
        { qr: codeText(doc.seal, doc.jobId), fit: 84, width: 92, eccLevel: 'M', alignment: 'right' },
      ],
    },
    { text: [{ text: 'Seal ', bold: true }, groupedSeal(doc.seal)], fontSize: 8, margin: [0, 6, 0, 0] },
    {
      text: 'A sum (SHA-256) over the tapes, the films and every line of the log behind this paper; the customer’s name and address are not in it. The bench reckons it anew on demand and says whether the record is still this one, and what came after.',
      fontSize: 8,
      color: soft,
      margin: [0, 0, 0, 10],
    },
  ];
  const before = doc.before.filter((e) => e.photo || e.kind === 'signed');
  if (before.length) {
    content.push({ text: 'Before the work', fontSize: 14, bold: true, margin: [0, 4, 0, 2] });
    content.push(...(await pictures(before.flatMap((e) => (e.photo ? [{ photo: e.photo, text: e.text, at: e.occurredAt }] : [])))));
  }
  for (const p of doc.panes) {
    const svg = paneSvg(p);
    const figures: [string, string][] = [
      ['Size', p.size],
      ['Film', `${p.film}, version ${p.filmVersion}, ${p.face}`],
      ['Roll', p.roll],
      ['Cut', p.pieces()],
      ['Laid', `${time(p.laidAt)} by ${p.laidBy}`],
      ...(p.glassC.length ? [['Glass', p.glassC.map((c) => temperatureText(c, doc.units, 1)).join(', ')] as [string, string]] : []),
      ...(p.heated ? [['Heated through', told(p.heated, doc.units)] as [string, string]] : []),
      ...dryingRows(p, day),
      ['Taken over', p.acceptedBy ? `${day(p.acceptedBy.occurredAt)} by ${p.acceptedBy.signature?.name ?? '(erased)'}` : 'not yet'],
    ];
    let n = 0;
    const seen: TableCell[][] = p.seen.map((s) => [s.where ? String(++n) : '', day(s.at), s.what, { text: s.became, bold: s.isOpen }]);
    content.push(
      { text: `${p.name} · ${p.place}`, fontSize: 14, bold: true, margin: [0, 12, 0, 3] },
      {
        columns: [
          svg ? { svg, width: 146 } : { text: '', width: 146 },
          { table: { widths: [98, '*'], body: figures.map(([a, b]) => [{ text: a, color: soft }, b]) }, layout: 'noBorders' },
        ],
        columnGap: 10,
        unbreakable: true,
      },
    );
    if (seen.length)
      content.push({
        table: { headerRows: 1, widths: [14, 62, '*', 150], body: [['', 'Seen', 'What', 'What became of it'].map((t) => ({ text: t, bold: true })), ...seen], dontBreakRows: true }, // prettier-ignore
        layout: 'lightHorizontalLines',
        margin: [0, 4, 0, 0],
      });
    if (p.steps.length)
      content.push({
        text: [{ text: 'Logged: ', bold: true }, p.steps.map((s) => `${time(s.at)} ${s.who}: ${s.what}`).join(' · ')],
        fontSize: 8,
        color: soft,
        margin: [0, 4, 0, 0],
      });
    content.push(...(await pictures(p.photos)));
  }
  if (notPrinted)
    content.push({
      text: `${notPrinted === 1 ? '1 photo is' : `${notPrinted} photos are`} kept on the bench and not printed here.`,
      color: soft,
      margin: [0, 8, 0, 0],
    });
  doc.signatures.forEach((s, i) => {
    const svg = signatureSvg(s.strokes);
    // a heading does not stand alone at the foot of a page
    const head: Content[] = i === 0 ? [{ text: 'Signed', fontSize: 14, bold: true, margin: [0, 12, 0, 2] }] : [];
    content.push({
      unbreakable: true,
      margin: [0, 2, 0, 4],
      stack: [...head, { text: `${s.of}: ${s.name}, ${time(s.at)}` }, ...(svg ? [{ svg } as Content] : [])],
    });
  });
  if (doc.seals.length) content.push({ text: 'Seals', fontSize: 14, bold: true, margin: [0, 10, 0, 2] });
  for (const s of doc.seals)
    content.push({ text: [`${time(s.signedAt)}, ${s.signedBy}: `, { text: s.says.join(' '), bold: s.verdict === 'changed' }, { text: `\n${groupedSeal(s.seal)}`, fontSize: 8, color: soft }], margin: [0, 0, 0, 4] }); // prettier-ignore
  return page(paper, `Record · ${doc.job}`, content, doc.units);
}
