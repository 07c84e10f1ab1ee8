import type { Content } from 'pdfmake/interfaces.js';
import type { EdgePlan, ShrinkPlan } from '@yellow-pane/contracts';
import { formatFine, formatRoughRange, formGradeWords, fromMiddle, percent, taped } from '@yellow-pane/core';
import { page, soft, type Paper } from '../../pdf/page.js';

/** A curved pane as its sheet is printed. */
export interface PrintedForm {
  readonly name: string;
  readonly place: string;
  readonly film: string;
  readonly seat: 'fixed' | 'drop';
  readonly plan: ShrinkPlan;
}
export interface FormingSheetDocument {
  readonly job: string;
  readonly customer: string;
  readonly units: 'mm' | 'in';
  readonly panes: readonly PrintedForm[];
}

const WIDTH = 500;
const HEIGHT = 235;

/** Zones of the pane that heat has to mind. */
const heatKeepsOut = (plan: ShrinkPlan) => plan.keepClear.filter((z) => z.heatMm !== null && z.ring.length > 2);

/** The pane with its line, the line's heights at left, middle and right, and its fingers in the order they are worked. */
export function formingSvg(plan: ShrinkPlan, units: 'mm' | 'in'): string {
  const xs = plan.outline.map((p) => p.x);
  const ys = plan.outline.map((p) => p.y);
  const [minX, maxX, minY, maxY] = [Math.min(...xs), Math.max(...xs), Math.min(0, ...ys), Math.max(...ys)];
  const k = Math.min((WIDTH - 130) / (maxX - minX), (HEIGHT - 40) / (maxY - minY));
  const left = (WIDTH - (maxX - minX) * k) / 2;
  const x = (v: number) => left + (v - minX) * k;
  const y = (v: number) => 16 + (maxY - v) * k;
  const at = (v: number) => v.toFixed(1);
  const points = (ring: readonly { x: number; y: number }[]) => ring.map((p) => `${at(x(p.x))},${at(y(p.y))}`).join(' ');
  const order = new Map(plan.order.map((o, i) => [`${o.side}${o.number}`, i + 1]));
  const fingers = [...plan.below.fingers, ...plan.above.fingers]
    .map((f) => {
      const [fx, fy, rx, ry] = [x(f.foot.x), y(f.foot.y), x(f.root.x), y(f.root.y)];
      const w = (f.baseMm * k) / 2;
      const out = f.side === 'above' ? 11 : -4;
      return `<polygon points="${at(fx - w)},${at(fy)} ${at(fx + w)},${at(fy)} ${at(rx)},${at(ry)}" fill="#F3D9CB" stroke="#C2501C" stroke-width="0.8"/><text x="${at(fx)}" y="${at(fy + out)}" font-size="9" font-weight="bold" text-anchor="middle" fill="#1C2226">${order.get(`${f.side}${f.number}`)}</text>`;
    })
    .join('');
  const zones = heatKeepsOut(plan)
    .map(
      (z) =>
        `<polygon points="${points(z.ring.map(([a, b]) => ({ x: a, y: b })))}" fill="#E6EEF2" stroke="#3E6E8E" stroke-width="0.9" stroke-dasharray="3 2"/>`,
    )
    .join('');
  const line = plan.anchor.line.map((p, i) => `${i ? 'L' : 'M'}${at(x(p.x))} ${at(y(p.y))}`).join(' ');
  const height = (px: number, lineMm: number, anchor: string, dx: number) =>
    `<path d="M${at(px)} ${at(y(0))}V${at(y(lineMm))}" stroke="#1C2226" stroke-width="0.8" stroke-dasharray="2 2"/><text x="${at(px + dx)}" y="${at(y(0.72 * lineMm))}" font-size="10" font-weight="bold" text-anchor="${anchor}" fill="#1C2226">${taped(lineMm, units)}</text>`;
  const { leftMm, middleMm, rightMm } = plan.anchor;
  const heights =
    plan.anchor.kind === 'arch'
      ? ''
      : height(x(minX) - 10, leftMm, 'end', -4) + height(x((minX + maxX) / 2), middleMm, 'start', 4) + height(x(maxX) + 10, rightMm, 'start', 4);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}" viewBox="0 0 ${WIDTH} ${HEIGHT}"><polygon points="${points(plan.outline)}" fill="#FFFEFA" stroke="#1C2226" stroke-width="1.2"/><polygon points="${points(plan.finished)}" fill="#FFF6DC" stroke="#A97C00" stroke-width="0.7" stroke-dasharray="3 2"/>${zones}${fingers}<path d="${line}" fill="none" stroke="#1C2226" stroke-width="2"/>${heights}</svg>`;
}

/** The forming sheet: where the line goes, which fingers in which order, by which way, and what can hurt. */
export function formingSheetPdf(doc: FormingSheetDocument, paper: Paper): Promise<Buffer> {
  const content: Content[] = [
    { text: doc.job, fontSize: 20, bold: true },
    { text: `${doc.customer} · forming sheets for curved glass`, color: soft, margin: [0, 0, 0, 8] },
  ];
  doc.panes.forEach((p, i) => content.push(...panePart(p, doc.units, i > 0)));
  return page(paper, `Forming sheet · ${doc.job}`, content, doc.units);
}

function panePart(p: PrintedForm, units: 'mm' | 'in', isLater: boolean): Content[] {
  const { plan } = p;
  const f = (mm: number) => taped(mm, units);
  const head: Content[] = [
    { text: `${p.name} · ${p.place}`, fontSize: 15, bold: true, ...(isLater ? { pageBreak: 'before' as const } : {}) },
    { text: `${p.film} · ${p.seat === 'drop' ? 'drop glass' : 'fixed glass'} · seen from outside`, margin: [0, 0, 0, 4] },
  ];
  if (plan.refused) return [...head, { text: plan.refused, bold: true, fontSize: 12, margin: [0, 8, 0, 8] }];
  const card = plan.methods.find((m) => m.school === plan.school)!;
  const order = new Map(plan.order.map((o, i) => [`${o.side}${o.number}`, i + 1]));
  const rows = [...plan.below.fingers, ...plan.above.fingers].sort((a, b) => order.get(`${a.side}${a.number}`)! - order.get(`${b.side}${b.number}`)!);
  return [
    ...head,
    { text: `This film: ${formGradeWords(plan.grade, plan.gradeRange)}.`, bold: true },
    { svg: formingSvg(plan, units), margin: [0, 4, 0, 4] },
    ...(heatKeepsOut(plan).length
      ? [
          {
            text: `Dashed boxes: heat keeps out (${heatKeepsOut(plan)
              .map((z) => z.name.toLowerCase())
              .join(', ')}).`,
            color: soft,
          },
        ]
      : []),
    { text: plan.anchor.kind === 'arch' ? 'Lay an arch: across the top, then down both sides; all of it goes to the bottom.' : `Lay the line above the lower corners: left ${f(plan.anchor.leftMm)}, middle ${f(plan.anchor.middleMm)}, right ${f(plan.anchor.rightMm)}.${plan.anchor.sureToMm === null || !plan.anchor.edgesSeen ? '' : ` Good to ${f(plan.anchor.sureToMm)}.`}`, fontSize: 11, bold: true }, // prettier-ignore
    { ul: plan.summary.map((s) => ({ text: s })), margin: [0, 4, 0, 4] },
    {
      text: `${card.name}, about ${card.minutes.toFixed(1)} min of heat, ${card.heats} heats, gun ${formatRoughRange(card.gunMm[0], card.gunMm[1], units)} off${card.gunDeg === null ? '' : `, at ${card.gunDeg}°`}.`,
      bold: true,
    },
    { text: card.notHere ? `Not here: ${card.notHere}` : card.text, margin: [0, 0, 0, 4] },
    {
      text: `Piece ${f(plan.flat.piece.widthMm)} along the roll × ${f(plan.flat.piece.heightMm)} across it${plan.flat.mayTurn ? '' : '; not to be turned'}. ${plan.forming.text}`,
      margin: [0, 0, 0, 4],
    },
    ...(rows.length === 0
      ? []
      : [
          {
            table: {
              headerRows: 1,
              widths: [24, 60, 70, 60, 60, 60, '*'],
              body: [
                ['No.', 'Edge', 'From middle', 'Foot', 'Length', 'Stands', 'Has to lose'].map((t) => ({ text: t, bold: true })),
                ...rows.map((r) => [
                  String(order.get(`${r.side}${r.number}`)),
                  r.side === 'above' ? 'upper' : 'lower',
                  fromMiddle(r.alongMm, units),
                  f(r.baseMm),
                  f(r.lengthMm),
                  f(r.foldMm),
                  `${formatFine(r.slackMm, units)}, ${percent(r.needFrac)}`,
                ]),
              ],
            },
            layout: 'lightHorizontalLines',
            fontSize: 8.5,
          } as Content,
        ]),
    ...(plan.advice.length ? [{ ul: plan.advice.map((a) => ({ text: a })), margin: [0, 4, 0, 0] as [number, number, number, number] }] : []),
    { text: 'Before the gun is on', bold: true, margin: [0, 6, 0, 0] },
    { ul: plan.cautions.map((c) => ({ text: c })) },
    {
      text: 'Zig-zag texture: it shrinks. Soft and floating: right. Tight chaotic lines: too much. Smoke: burnt. A finger that pops up when swept: not enough.',
      color: soft,
      margin: [0, 4, 0, 0],
    },
    { text: rangeWords(plan, units), color: soft },
  ];
}

const rangeWords = (plan: ShrinkPlan, units: 'mm' | 'in'): string => {
  const fine = (mm: number) => formatFine(mm, units);
  const of = (name: string, e: EdgePlan) => `${name} edge ${fine(e.slackMm)} (${fine(e.lowMm)} to ${fine(e.highMm)})`;
  return `Ranges are two standard deviations of what the measures leave: ${of('lower', plan.below)}, ${of('upper', plan.above)}.`;
};
