import type { Content } from 'pdfmake/interfaces.js';
import { formatRough, lockNames, type PassName, type SqueegeePlan, type Step } from '@yellow-pane/core';
import { page, soft, type Paper } from '../../pdf/page.js';

/** A pane as its sheet is printed. */
export interface PrintedPane {
  readonly name: string;
  readonly place: string;
  readonly face: string;
  readonly film: string;
  readonly roll: string;
  readonly steps: readonly Step[];
  readonly minutes: number;
  readonly plan: SqueegeePlan | null;
  /** Why there are no strokes. */
  readonly noPlan: string;
}
export interface RunSheetDocument {
  readonly job: string;
  readonly customer: string;
  readonly units: 'mm' | 'in';
  readonly version: number;
  readonly lock: keyof typeof lockNames;
  readonly panes: readonly PrintedPane[];
}

/** Strokes of one pass on the pane's outline, numbered, as an SVG of `width` points. */
function passSvg(plan: SqueegeePlan, strokes: SqueegeePlan['passes'][number]['strokes'], width: number): string {
  const ring = plan.stopLine;
  const xs = ring.map((p) => p.x);
  const ys = ring.map((p) => p.y);
  const [minX, maxX, minY, maxY] = [Math.min(...xs) - 30, Math.max(...xs) + 30, Math.min(...ys) - 30, Math.max(...ys) + 30];
  const k = Math.min(width / (maxX - minX), 150 / (maxY - minY));
  const x = (v: number) => ((v - minX) * k).toFixed(1);
  const y = (v: number) => ((maxY - v) * k).toFixed(1);
  const points = ring.map((p) => `${x(p.x)},${y(p.y)}`).join(' ');
  const lines = strokes
    .map((s, i) => {
      const [a, b] = [s.path[0]!, s.path.at(-1)!];
      const d = s.path.map((p, n) => `${n ? 'L' : 'M'}${x(p.x)} ${y(p.y)}`).join(' ');
      const at = s.path.length > 1 ? { x: a.x + (s.path[1]!.x - a.x) * 0.4, y: a.y + (s.path[1]!.y - a.y) * 0.4 } : a;
      const end = s.path.length > 1 ? `<circle cx="${x(b.x)}" cy="${y(b.y)}" r="2.4" fill="#1C2226"/>` : '';
      return `<path d="${d}" fill="none" stroke="#3E6E8E" stroke-width="1.6"/>${end}<text x="${x(at.x)}" y="${(Number(y(at.y)) - 2).toFixed(1)}" font-size="7" fill="#1C2226">${i + 1}</text>`;
    })
    .join('');
  const [w, h] = [((maxX - minX) * k).toFixed(1), ((maxY - minY) * k).toFixed(1)];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}" height="${h}" viewBox="0 0 ${w} ${h}"><polygon points="${points}" fill="#FFF6DC" stroke="#1C2226" stroke-width="0.8" stroke-dasharray="2 2"/>${lines}</svg>`;
}

/** The run sheet: for each pane its steps to tick off, strokes drawn in order, cautions where they bite. */
export function runSheetPdf(doc: RunSheetDocument, paper: Paper): Promise<Buffer> {
  const content: Content[] = [
    { text: doc.job, fontSize: 20, bold: true },
    { text: `${doc.customer} · steps version ${doc.version} · lock: ${lockNames[doc.lock]}`, color: soft, margin: [0, 0, 0, 10] },
  ];
  doc.panes.forEach((p, i) => content.push(...panePart(p, doc.units, i > 0)));
  return page(paper, `Run sheet · ${doc.job}`, content, doc.units);
}

function panePart(p: PrintedPane, units: 'mm' | 'in', isLater: boolean): Content[] {
  const isFormed = !p.plan?.passes.some((x) => x.name === 'lock');
  // formed film is not held first, and it is trimmed before it is laid
  const titles: Partial<Record<PassName, string>> = isFormed
    ? { light: 'Four quarters from the line', hard: 'Hard, in the same order' }
    : { lock: 'Lock', light: 'First pass, light', hard: 'Hard pass' };
  const drawn = (plan: SqueegeePlan): Content[] =>
    plan.passes.flatMap(({ name, strokes }): Content[] => {
      const title = titles[name];
      return title ? [{ stack: [{ text: title, fontSize: 8, color: soft }, { svg: passSvg(plan, strokes, isFormed ? 240 : 160) }] }] : [];
    });
  return [
    { text: `${p.name} · ${p.place}`, fontSize: 15, bold: true, ...(isLater ? { pageBreak: 'before' as const } : {}) },
    { text: `${p.face} · ${p.film} · ${p.roll} · about ${Math.round(p.minutes)} min`, margin: [0, 0, 0, 6] },
    p.plan
      ? {
          stack: [
            { columns: drawn(p.plan) },
            {
              text: `${p.plan.strokeCount} strokes, blade ${formatRough(p.plan.bladeMm, units)}; drawn from the side you work on; a stroke ends at its dot; dashed: ${isFormed ? 'the edge of the film, where water leaves' : 'stop here until it is trimmed'}.`,
              fontSize: 8,
              color: soft,
              margin: [0, 2, 0, 6],
            },
          ],
        }
      : { text: p.noPlan, margin: [0, 0, 0, 6] },
    {
      table: {
        headerRows: 1,
        widths: [16, 130, '*', 26, 26],
        body: [
          ['', 'Step', 'What, and what is right', 'min', 'Done'].map((t) => ({ text: t, bold: true })),
          ...p.steps.map((s, i) => [
            String(i + 1),
            { text: s.title, bold: true },
            { stack: [{ text: s.text }, { text: s.good, color: soft }, ...(s.caution ? [{ text: `Caution: ${s.caution}`, bold: true }] : [])] },
            s.minutes.toFixed(1),
            { text: ' ', border: [true, true, true, true] as [boolean, boolean, boolean, boolean] },
          ]),
        ],
        dontBreakRows: true,
      },
      layout: 'lightHorizontalLines',
    },
  ];
}
