import type { Content } from 'pdfmake/interfaces.js';
import {
  formatRough,
  lockNames,
  strokePath,
  type JointStroke,
  type PassName,
  type SqueegeePlan,
  type Step,
  type TexturedPanel,
  type WallZone,
} from '@yellow-pane/core';
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
  /** Of a textured wall: place by place; empty: it is none. */
  readonly zones: readonly PrintedZone[];
}
/** One place of a textured wall as it is printed. */
export interface PrintedZone {
  readonly name: string;
  readonly panel: TexturedPanel;
  readonly zone: WallZone;
  /** Strokes of its panel that are done before it. */
  readonly before: readonly JointStroke[];
  readonly doing: readonly string[];
  readonly minds: readonly string[];
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

/** Room of the drawing of one place on the sheet, points. */
const ZONE_PT = { wide: 515, high: 560, narrow: 60 };
/** A place of a wall, its strokes numbered, big enough to be read at arm's length: joints hollow until they are pressed, strokes with an arrow, the border dashed, lanes pale. */
function zoneSvg({ panel, zone, before }: PrintedZone): string {
  const { asked, graph } = panel;
  const p = asked.panel;
  const [x0, x1, y0, y1] = [Math.max(p.leftMm, zone.fromMm), Math.min(p.rightMm, zone.toMm), Math.max(p.footMm, zone.lowMm), Math.min(p.topMm, zone.highMm)];
  const room = 14;
  const k = Math.min((ZONE_PT.wide - 2 * room) / (x1 - x0), (ZONE_PT.high - 2 * room) / (y1 - y0));
  // beside a strip there is room for its numbers: strokes left of it, the border right
  const isNarrow = (x1 - x0) * k < ZONE_PT.narrow;
  const aside = isNarrow ? 3 * room : room;
  const [w, h] = [(x1 - x0) * k + 2 * aside, (y1 - y0) * k + 2 * room];
  const x = (mm: number) => Number((aside + (mm - x0) * k).toFixed(1));
  const y = (mm: number) => Number((room + (y1 - mm) * k).toFixed(1));
  const line = (path: readonly { readonly xMm: number; readonly yMm: number }[]) => path.map((q, i) => `${i ? 'L' : 'M'}${x(q.xMm)} ${y(q.yMm)}`).join('');
  const pressed = new Set(before.flatMap((s) => (s.does === 'press' ? s.segments : [])));
  const joint = Math.max(2, asked.masonry.jointMm * k);
  const joints = (isPressed: boolean) =>
    graph.segments
      .flatMap((s, i) => {
        const a = graph.nodes[s.a]!;
        return pressed.has(i) === isPressed ? [line([a, s.way === 'bed' ? { xMm: a.xMm + s.lengthMm, yMm: a.yMm } : graph.nodes[s.b]!])] : [];
      })
      .join('');
  const lanes = zone.lanes.map((l) => `<path d="${line([{ xMm: l.fromXMm, yMm: l.fromYMm }, { xMm: l.toXMm, yMm: l.toYMm }])}" stroke="#C9D8E2" stroke-width="1.4"/><circle cx="${x(l.toXMm)}" cy="${y(l.toYMm)}" r="2.2" fill="#3E6E8E"/>`).join(''); // prettier-ignore
  const obstacles = asked.obstacles.filter((o) => o.leftMm < x1 && o.leftMm + o.widthMm > x0 && o.footMm < y1 && o.footMm + o.heightMm > y0).map((o) => `<rect x="${x(o.leftMm)}" y="${y(o.footMm + o.heightMm)}" width="${(o.widthMm * k).toFixed(1)}" height="${(o.heightMm * k).toFixed(1)}" fill="${o.isOpen ? '#FFFFFF' : '#8A8F92'}" stroke="#1C2226"/>`).join(''); // prettier-ignore
  const strokes = zone.strokes
    .map((s, i) => {
      const path = strokePath(graph, s);
      const [a, b] = [path[0]!, path[1] ?? path[0]!];
      const end = path.at(-1)!;
      const from = path.at(-2) ?? a;
      const long = Math.hypot(end.xMm - from.xMm, end.yMm - from.yMm) || 1;
      const [ux, uy] = [(end.xMm - from.xMm) / long, -(end.yMm - from.yMm) / long];
      const tip = `${x(end.xMm)},${y(end.yMm)} ${(x(end.xMm) - 9 * ux - 4 * uy).toFixed(1)},${(y(end.yMm) - 9 * uy + 4 * ux).toFixed(1)} ${(x(end.xMm) - 9 * ux + 4 * uy).toFixed(1)},${(y(end.yMm) - 9 * uy - 4 * ux).toFixed(1)}`;
      const isSeal = s.does === 'seal';
      const besideX = isSeal ? x(x1) + room + 4 : x(x0) - room - 4;
      const at = { x: isNarrow ? besideX : x(a.xMm + (b.xMm - a.xMm) * 0.4), y: y(a.yMm + (b.yMm - a.yMm) * 0.4) };
      return `<path d="${line(path)}" fill="none" stroke="${isSeal ? '#A8431A' : '#1C2226'}" stroke-width="${isSeal ? 4 : 2}"${isSeal ? ' stroke-dasharray="7 4"' : ''}/>${isSeal ? '' : `<polygon points="${tip}" fill="#1C2226"/>`}<circle cx="${at.x}" cy="${at.y}" r="10.5" fill="#FFFFFF" stroke="#1C2226" stroke-width="0.8"/><text x="${at.x}" y="${at.y + 4.5}" font-size="13" text-anchor="middle" fill="#1C2226">${i + 1}</text>`;
    })
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w.toFixed(1)}" height="${h.toFixed(1)}" viewBox="0 0 ${w.toFixed(1)} ${h.toFixed(1)}"><rect x="${x(x0)}" y="${y(y1)}" width="${((x1 - x0) * k).toFixed(1)}" height="${((y1 - y0) * k).toFixed(1)}" fill="#FFFBEA" stroke="#1C2226"/>${lanes}<path d="${joints(false)}" stroke="#8A8F92" stroke-width="${joint + 1.6}"/><path d="${joints(false)}" stroke="#FFFFFF" stroke-width="${joint}"/><path d="${joints(true)}" stroke="#A97C00" stroke-width="${joint}"/>${obstacles}${strokes}</svg>`;
}
/** A page for each place: what is done there, and its strokes. */
const zonePart = (p: PrintedPane): Content[] =>
  p.zones.flatMap((z): Content[] => [
    { text: `${p.name}: ${z.name}`, fontSize: 15, bold: true, pageBreak: 'before' },
    { ol: [...z.doing], margin: [0, 2, 0, 4] },
    ...z.minds.map((m): Content => ({ text: m, bold: true, margin: [0, 0, 0, 4] })),
    { svg: zoneSvg(z) },
    { text: 'Numbers: strokes in their order, each to its arrow. Hollow: a joint that breathes; full: pressed before. Dashed: the border, sealed. Pale lines: lanes of the roller, each to its dot. Gun on: no solvent vapour, hot-work leave, glove on the tool hand.', fontSize: 8, color: soft, margin: [0, 4, 0, 0] },
  ]); // prettier-ignore

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
    ...zonePart(p),
  ];
}
