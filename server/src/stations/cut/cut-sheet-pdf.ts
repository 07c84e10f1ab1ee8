import type { Content } from 'pdfmake/interfaces.js';
import type { BenchCut, Piece } from '@yellow-pane/contracts';
import { formatLength, formatLong, isNotch, moneyText, startEdge, unbroken } from '@yellow-pane/core';
import { page, soft, type Paper } from '../../pdf/page.js';
import type { CutSheet, FilmSheet } from './cut.service.js';
import { benchEndSvgs, faceUp, lettersSvg, pieceSvg, rollSvg, stepsOf, usedOn } from './roll-drawing.js';

const PROPOSAL = 'A PROPOSAL, not a plan: nobody has kept it yet. Open Cut, let the layout settle, and print again before the knife touches the roll.';
const warning = '#A8431A';

/** Stretch of roll that one line of the drawing shows. */
const STRETCH_MM = 5200;

/** The cut sheet: per film the rolls to scale, the knife order to tick off, then every piece with its top and its why. */
export async function cutSheetPdf(sheet: CutSheet, paper: Paper): Promise<Buffer> {
  const { doc } = sheet;
  const width = paper === 'a4' ? 523 : 540;
  const content: Content[] = [
    { text: doc.job.name, fontSize: 20, bold: true },
    { text: `${doc.job.customer}${doc.job.address ? ` · ${doc.job.address}` : ''}`, color: soft, margin: [0, 0, 0, 10] },
  ];
  if (sheet.short.length)
    content.push(
      { text: 'Measured again since the knife', bold: true, fontSize: 12, margin: [0, 0, 0, 4] },
      { ul: sheet.short.map((s) => `${s.words}${s.serves ? ` ${s.serves.words}` : ''}`), margin: [0, 0, 0, 10] },
    );
  sheet.films.forEach((film, i) => {
    if (i > 0) content.push({ text: '', pageBreak: 'before' });
    content.push(...filmPart(sheet, film, width));
  });
  const refused = sheet.films.flatMap((f) => [
    ...f.cuts.flatMap((c) => ('blocked' in c.answer ? [`${c.surface.name}: ${c.answer.blocked}`] : [])),
    ...f.layout.unplaced.map((u) => `${f.pieces.find((p) => p.id === u.pieceId)?.label ?? ''}: ${u.reason}`),
  ]);
  if (refused.length) content.push({ text: 'Not on this sheet', bold: true, fontSize: 12, margin: [0, 12, 0, 4] }, { ul: refused });
  return page(paper, `Cut sheet · ${doc.job.name}`, content, doc.job.units);
}

function filmPart(sheet: CutSheet, film: FilmSheet, width: number): Content[] {
  const { doc } = sheet;
  const money = moneyText(film.layout.cost, doc.job.currency);
  const out: Content[] = [
    { text: film.film.name, fontSize: 15, bold: true },
    { text: `${film.pieces.length} pieces · ${formatLong(film.layout.usedMm, doc.job.units)} · ${money} · ${film.layout.cutCount} cuts`, margin: [0, 0, 0, 4] },
    {
      text: 'Caution: fresh blade, snapped-off bits in a tin; keep liner off the floor, wet liner is slippery.',
      color: soft,
      fontSize: 8.5,
      margin: [0, 0, 0, 6],
    },
  ];
  if (film.standing === 'none') out.push({ text: PROPOSAL, bold: true, color: warning, margin: [0, 0, 0, 6] });
  if (film.since.length)
    out.push({ text: 'This is the plan that the knife follows. Since it was committed:', bold: true, color: warning }, { ul: [...film.since], margin: [0, 0, 0, 6] }); // prettier-ignore
  for (const roll of film.rolls) {
    const used = usedOn(film.layout, roll);
    if (used === 0) continue;
    const up = faceUp(roll.wound ?? film.film.wound);
    out.push({
      text: `${roll.form === 'roll' ? 'Roll' : 'Leftover'} ${roll.label} · lot ${roll.lot} · ${formatLength(roll.widthMm, doc.job.units)} wide · ${formatLong(used, doc.job.units)}${roll.place ? ` · ${roll.place}` : ''}`,
      bold: true,
      margin: [0, 6, 0, 2],
    });
    out.push({
      text:
        up === 'unknown'
          ? 'FACE UP NOT KNOWN: two tape tabs on a corner tell which side is liner. Drawn liner up. Sizes are along the roll × across it.'
          : `Drawn ${up} up, as it comes off the roll. Arrows point to the top of the pane; sizes are along the roll × across it.`,
      bold: true,
      margin: [0, 0, 0, 4],
    });
    for (const [from, to] of stretches(film, roll))
      out.push({ svg: rollSvg(film, roll, from, Math.max(to, from + STRETCH_MM / 2), doc.job.units), width, margin: [0, 2, 0, 2] });
    const labels = new Map([...film.pieces, ...film.single].map((p) => [p.id, p.label]));
    out.push({
      table: {
        headerRows: 1,
        widths: [22, '*', 120, 26],
        body: [
          ['', `Knife order (from the ${startEdge(up === 'film')} edge and the squared end)`, 'Finished piece', 'Done'].map((t) => ({ text: t, bold: true })),
          ...stepsOf(film, roll).map((s) => [
            String(s.number),
            s.text,
            s.finishes.map((id) => labels.get(id)).join(', '),
            { text: ' ', border: [true, true, true, true] as [boolean, boolean, boolean, boolean] },
          ]),
        ],
      },
      layout: 'lightHorizontalLines',
      margin: [0, 4, 0, 8],
    });
  }
  out.push({ text: 'Pieces', bold: true, fontSize: 12, margin: [0, 8, 0, 4] });
  const cells = film.single.map((p): Content => {
    const corners = p.path && p.path.length <= 8 && p.path.every((q) => q.bulge === 0) ? p.path : null;
    const f = (mm: number) => unbroken(formatLength(mm, doc.job.units));
    const scale = 70 / Math.max(p.widthMm, p.heightMm);
    const letters = film.letters.get(p.id);
    return {
      unbreakable: true,
      margin: [0, 0, 8, 10],
      stack: [
        { svg: letters ? lettersSvg(letters, doc.job.units) : pieceSvg(p, doc.job.units), width: p.widthMm * scale * 1.32 + 12 },
        { text: p.label, bold: true },
        {
          text: `${sheet.placeOf(p.surfaceId)} · ${f(p.widthMm)} wide × ${f(p.heightMm)} high${p.factoryEdge ? ` · factory edge ${p.factoryEdge}, seen liner up` : ''}`,
          fontSize: 8,
        },
        { text: letters ? 'Drawn film side up, as it is plotted and read' : trimWords(p), fontSize: 8, color: soft },
        ...(p.fallback ? [{ text: p.fallback, fontSize: 8, color: warning }] : []),
        ...(corners
          ? [{ text: `Corners from lower left, seen liner up: ${corners.map((c) => `${c.xMm.toFixed(1)}/${c.yMm.toFixed(1)}`).join('  ')}`, fontSize: 7.5 }]
          : []),
      ],
    };
  });
  const rows: Content[][] = [];
  for (let i = 0; i < cells.length; i += 4) rows.push([...cells.slice(i, i + 4), ...new Array<Content>(Math.max(0, 4 - (cells.length - i))).fill('')]);
  if (rows.length) out.push({ table: { widths: ['*', '*', '*', '*'], body: rows, dontBreakRows: true }, layout: 'noBorders' });
  out.push(...film.single.flatMap((p) => benchPart(p, doc.job.units, width, film.letters.has(p.id))));
  return out;
}

const trimWords = (p: Piece): string => {
  if (p.method === 'laid-round' || p.method === 'laid-over') return `Trimmed when it is on: ${p.trimmedEdges.join(', ')}`;
  return p.trimmedEdges.length ? `Trim on the glass: ${p.trimmedEdges.join(', ')}` : 'Cut to fit, no trimming';
};

const LETTERS =
  'Film side up: plotted through the film and not into the liner, weeded, transfer tape on. What follows is pencilled on the transfer tape and done when the sheet hangs.';
/** Points of a page for a millimetre. @source 72 points an inch */
const PT_PER_MM = 72 / 25.4;
/** What is done at a layer, before its words. */
function benchWords(c: BenchCut): string {
  if (c.later) return `LATER, when it lies. ${c.words}`;
  if (c.layer === 'film') return `Through the film. ${c.words}`;
  return c.words.replace(/^Liner only/, 'LINER ONLY');
}
/** What the bench cuts in a piece, in its order, and its ends at true scale, in strips where they are wider than the sheet. */
function benchPart(piece: Piece, units: 'mm' | 'in', width: number, isLetters: boolean): Content[] {
  const cuts = piece.bench ?? [];
  if (cuts.length === 0) return [];
  const ends = cuts.filter(isNotch).map((c) => ({ c, strips: benchEndSvgs(piece, c, units, width / PT_PER_MM) }));
  return [
    { text: `${isLetters ? 'Sheet of letters' : 'Bench cuts'} · ${piece.label}`, bold: true, fontSize: 12, margin: [0, 8, 0, 2] },
    {
      text: isLetters
        ? LETTERS
        : 'Liner up. LINER ONLY is dashed: through the paper and not into the film. Full lines go through the film; pencil lines are dotted. What is cut LATER, when the film lies, is told as one stands before it.',
      fontSize: 8.5,
      color: soft,
      margin: [0, 0, 0, 4],
    },
    {
      ol: cuts.map((c) => ({ text: benchWords(c) })),
      margin: [0, 0, 0, 4],
    },
    ...ends.flatMap(({ c, strips }) =>
      strips.map((s, i): Content => {
        const several = strips.length > 1 ? `, strip ${i + 1} of ${strips.length} (cut out, lay letter on letter, tape)` : '';
        return {
          unbreakable: true,
          stack: [
            { text: `${c.words.split(':')[0]!}, true scale${several}: print without fitting to the page`, fontSize: 8.5, color: soft },
            { svg: s.svg, width: s.widthMm * PT_PER_MM },
          ],
          margin: [0, 4, 0, 4],
        };
      }),
    ),
  ];
}

/** A roll in lines of whole drops, each at most a stretch long (one drop at least). */
function stretches(film: FilmSheet, roll: FilmSheet['rolls'][number]): [number, number][] {
  const out: [number, number][] = [];
  for (const drop of film.layout.rolls.find((r) => r.rollId === roll.id)!.drops) {
    const end = drop.xMm + drop.alongMm;
    const line = out.at(-1);
    if (line && end - line[0] <= STRETCH_MM) line[1] = end;
    else out.push([drop.xMm, end]);
  }
  return out;
}

/** The roll or leftover that a piece is cut from. */
function rollOf(film: FilmSheet, piece: Piece): FilmSheet['rolls'][number] | undefined {
  const laidAs = film.pieces.find((x) => x.id === piece.id || x.parts.some((part) => part.id === piece.id))?.id;
  const laid = film.layout.rolls.find((r) => r.drops.some((d) => d.columns.some((c) => c.rows.some((w) => w.pieces.some((x) => x.pieceId === laidAs)))));
  return film.rolls.find((r) => r.id === laid?.rollId);
}

/** Labels for the liner, by room, in the order of the walk: three across. */
export async function labelsPdf(sheet: CutSheet, paper: Paper): Promise<Buffer> {
  const { doc } = sheet;
  const f = (mm: number) => unbroken(formatLength(mm, doc.job.units));
  const all = sheet.films.flatMap((film) => film.single.map((p) => ({ p, film })));
  const walk = doc.surfaces.map((s) => s.id);
  all.sort((a, b) => walk.indexOf(a.p.surfaceId) - walk.indexOf(b.p.surfaceId));
  const cells = all.map(({ p, film }): Content => ({
    margin: [6, 8, 6, 8],
    stack: [
      { text: sheet.placeOf(p.surfaceId), fontSize: 8, color: soft },
      { text: p.label, bold: true, fontSize: 17 },
      { text: `${f(p.widthMm)} wide × ${f(p.heightMm)} high`, fontSize: 12 },
      { text: `${film.film.name} · this way up${film.standing === 'none' ? ' · proposal' : ''}`, fontSize: 8 },
      { text: `${rollOf(film, p)?.label ?? 'no roll'} · lot ${rollOf(film, p)?.lot || '–'}`, fontSize: 8, color: soft },
    ],
  }));
  const rows: Content[][] = [];
  for (let i = 0; i < cells.length; i += 3) rows.push([...cells.slice(i, i + 3), ...new Array<Content>(Math.max(0, 3 - (cells.length - i))).fill('')]);
  return page(paper, `Labels · ${doc.job.name}`, [{ table: { widths: ['*', '*', '*'], body: rows, dontBreakRows: true } }], doc.job.units);
}
