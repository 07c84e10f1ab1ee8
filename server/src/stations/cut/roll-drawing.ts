import { oneLine } from '../../http/csv.js';
import type { BenchCut, Layout, Piece, PlacedPiece, Roll } from '@yellow-pane/contracts';
import { flatten, formatLength, onRoll, restsOf, type KnifeStep, type PlotSheet, type UnitSystem, type Vec } from '@yellow-pane/core';
import type { FilmSheet } from './cut.service.js';

const xml = (s: string): string => oneLine(s).replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');
const n = (v: number): string => String(Math.round(v * 100) / 100);

/** Arrow towards the pane's top, by the turn of the piece, with x to the right and y up. */
const topArrow: Record<number, { dx: number; dy: number }> = { 0: { dx: 1, dy: 0 }, 90: { dx: 0, dy: -1 }, 180: { dx: -1, dy: 0 }, 270: { dx: 0, dy: 1 } };

/**
 * Which face lies up when the film is pulled off the top of the roll: the side that is wound outwards.
 * With the film side up, what is planned from the liner side is drawn mirrored across the roll.
 */
export const faceUp = (wound: FilmSheet['film']['wound']): 'liner' | 'film' | 'unknown' =>
  wound === 'unknown' ? 'unknown' : wound === 'liner-out' ? 'liner' : 'film';

/** One stretch of a roll, drawn to scale (1 unit = 1 mm), from x to x, as an SVG of its own. */
export function rollSvg(sheet: FilmSheet, roll: Roll, fromMm: number, toMm: number, units: UnitSystem): string {
  const layout = sheet.layout.rolls.find((r) => r.rollId === roll.id)!;
  const flip = faceUp(roll.wound ?? sheet.film.wound) === 'film';
  const W = roll.widthMm;
  const y = (low: number, size: number) => (flip ? low : W - low - size);
  const labels = new Map(sheet.pieces.map((p) => [p.id, p]));
  const f = (mm: number) => formatLength(mm, units);
  const text = (x: number, top: number, size: number, s: string, more = '') =>
    `<text x="${n(x)}" y="${n(top)}" font-size="${n(size)}" ${more}>${xml(s)}</text>`;
  const parts: string[] = [];
  const drops = layout.drops.filter((d) => d.xMm < toMm && d.xMm + d.alongMm > fromMm + 1);
  for (const drop of drops) {
    const i = layout.drops.indexOf(drop);
    for (const r of restsOf(drop, W, sheet.leftovers))
      parts.push(`<rect x="${n(r.xMm)}" y="${n(y(r.yMm, r.acrossMm))}" width="${n(r.alongMm)}" height="${n(r.acrossMm)}" fill="#EFE9DA"/>`);
    for (const p of drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces))) {
      const top = y(p.yMm, p.acrossMm);
      const piece = labels.get(p.pieceId);
      const arrow = topArrow[p.turn]!;
      const size = Math.min(84, p.acrossMm / 4, p.alongMm / 6);
      const cx = p.xMm + p.alongMm / 2;
      const cy = top + p.acrossMm / 2 + size * 1.6;
      const ay = flip ? arrow.dy : -arrow.dy;
      const long = Math.min(120, p.acrossMm / 4, p.alongMm / 4);
      parts.push(
        `<rect x="${n(p.xMm)}" y="${n(top)}" width="${n(p.alongMm)}" height="${n(p.acrossMm)}" fill="#FFFEFA" stroke="#1C2226" stroke-width="4"/>`,
        piece?.parts.length ? '' : text(p.xMm + size * 0.5, top + size * 1.3, size, piece?.label ?? '', 'font-weight="bold"'),
        text(p.xMm + size * 0.5, top + size * 2.4, size * 0.8, `${f(p.alongMm)} × ${f(p.acrossMm)}`),
        `<path d="M ${n(cx - (arrow.dx * long) / 2)} ${n(cy - (ay * long) / 2)} L ${n(cx + (arrow.dx * long) / 2)} ${n(cy + (ay * long) / 2)}" stroke="#3E6E8E" stroke-width="6" fill="none"/>`,
        `<path d="M ${n(cx + (arrow.dx * long) / 2 + ay * 18)} ${n(cy + (ay * long) / 2 + arrow.dx * 18)} L ${n(cx + arrow.dx * (long / 2 + 34))} ${n(cy + ay * (long / 2 + 34))} L ${n(cx + (arrow.dx * long) / 2 - ay * 18)} ${n(cy + (ay * long) / 2 - arrow.dx * 18)} Z" fill="#3E6E8E"/>`,
      );
    }
    for (const p of drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces))) {
      const piece = labels.get(p.pieceId);
      for (const { label, rings } of piece ? outlinesOn(piece, p) : []) {
        const px = rings.map((ring) => ring.map((q) => ({ x: q.x, y: y(q.y, 0) })));
        parts.push(
          `<path d="${px.map((ring) => `M ${ring.map((q) => `${n(q.x)} ${n(q.y)}`).join(' L ')} Z`).join(' ')}" stroke="#1C2226" stroke-width="5" fill="none"/>`,
        );
        const middle = { x: px[0]!.reduce((s, q) => s + q.x, 0) / px[0]!.length, y: px[0]!.reduce((s, q) => s + q.y, 0) / px[0]!.length };
        if (piece!.parts.length) parts.push(text(middle.x, middle.y, Math.min(70, p.acrossMm / 6), label, 'text-anchor="middle" font-weight="bold"'));
      }
    }
    for (const p of drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces))) {
      const piece = labels.get(p.pieceId);
      for (const { cut, points } of piece ? benchOn(piece, p) : [])
        parts.push(`<path d="M ${points.map((q) => `${n(q.x)} ${n(y(q.y, 0))}`).join(' L ')}" fill="none" ${benchStroke(cut)}/>`);
    }
    parts.push(
      `<path d="M ${n(drop.xMm + drop.alongMm)} -60 V ${n(W + 60)}" stroke="#1C2226" stroke-width="6" stroke-dasharray="30 18"/>`,
      text(drop.xMm + drop.alongMm, -80, 70, String(i + 1), 'text-anchor="middle" font-weight="bold"'),
    );
  }
  for (const edge of [0, W]) parts.push(`<path d="M ${n(fromMm)} ${n(edge)} H ${n(toMm)}" stroke="#1C2226" stroke-width="12"/>`);
  // a scale in the job's units: metres, or every second foot
  const [stepMm, each, unit] = units === 'in' ? [609.6, 2, 'ft'] : [1000, 1, 'm'];
  for (let k = Math.ceil(fromMm / stepMm); k * stepMm <= toMm; k++) {
    const x = k * stepMm;
    const anchor = x - fromMm < 80 ? 'start' : 'middle';
    parts.push(
      text(x, W + 130, 60, `${k * each} ${unit}`, `text-anchor="${anchor}"`),
      `<path d="M ${n(x)} ${n(W + 20)} v 40" stroke="#1C2226" stroke-width="4"/>`,
    );
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${n(fromMm - 40)} -170 ${n(toMm - fromMm + 80)} ${n(W + 330)}" font-family="Atkinson" fill="#1C2226">${parts.join('')}</svg>`;
}

/** All rolls of all films below one another, 1 unit = 1 mm, for a drawing program or a browser. */
export function wholeSvg(sheets: readonly FilmSheet[], units: UnitSystem): string {
  let top = 0;
  let widest = 0;
  const groups: string[] = [];
  for (const sheet of sheets)
    for (const roll of sheet.rolls) {
      const used = usedOn(sheet.layout, roll);
      if (used === 0) continue;
      const inner = rollSvg(sheet, roll, 0, used, units)
        .replace(/^<svg[^>]*>/, '')
        .replace(/<\/svg>$/, '');
      groups.push(
        `<g transform="translate(0 ${n(top + 420)})"><text x="0" y="-220" font-size="110" font-weight="bold">${xml(`${sheet.film.name} · ${roll.label} · drawn ${faceUp(roll.wound ?? sheet.film.wound)} up${sheet.standing === 'none' ? ' · a proposal that nobody has kept' : ''}`)}</text>${inner}</g>`,
      );
      top += roll.widthMm + 700;
      widest = Math.max(widest, used);
    }
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(widest + 160)}mm" height="${n(top + 200)}mm" viewBox="-80 0 ${n(widest + 160)} ${n(top + 200)}" font-family="sans-serif" fill="#1C2226">${groups.join('')}</svg>`;
}

export const usedOn = (layout: Layout, roll: Roll): number => layout.rolls.find((r) => r.rollId === roll.id)?.usedMm ?? 0;

/** True outlines of a piece where it lies, mm on the roll: of two joined pieces, or of one that is no rectangle. */
export function outlinesOn(piece: Piece, placed: PlacedPiece): { label: string; rings: Vec[][] }[] {
  const own = piece.parts.length
    ? piece.parts.map((part) => ({ label: part.label, rings: [part.path] }))
    : piece.path
      ? [{ label: piece.label, rings: [piece.path, ...piece.holes] }]
      : [];
  return own.map(({ label, rings }) => ({
    label,
    rings: rings.map((ring) => flatten(ring.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge }))).map((q) => onRoll(q, piece, placed))),
  }));
}

/** What the bench cuts in a piece, where it lies on the roll, mm. */
export const benchOn = (piece: Piece, placed: PlacedPiece): { cut: BenchCut; points: Vec[] }[] =>
  (piece.bench ?? []).map((cut) => ({
    cut,
    points: flatten(cut.path.map((q) => ({ x: q.xMm, y: q.yMm, bulge: q.bulge }))).map((q) => onRoll(q, piece, placed)),
  }));
/** On which layer of a drawing a cut stands; what is made when the film lies is no matter for a plotter. */
export const benchLayerOf = (cut: BenchCut) => (cut.later ? 'CUT_LATER' : ({ film: 'FILM_CUT', liner: 'LINER_CUT', mark: 'PENCIL' } as const)[cut.layer]);
/** Through the film: a full line. Liner only: dashed. A pencil line: dotted. Cut later: dash and dot. */
const benchStrokes: Readonly<Record<ReturnType<typeof benchLayerOf>, string>> = {
  FILM_CUT: 'stroke="#1C2226" stroke-width="6"',
  LINER_CUT: 'stroke="#3E6E8E" stroke-width="5" stroke-dasharray="24 14"',
  PENCIL: 'stroke="#56626A" stroke-width="4" stroke-dasharray="4 10"',
  CUT_LATER: 'stroke="#A8431A" stroke-width="4" stroke-dasharray="20 8 4 8"',
};
const benchStroke = (cut: BenchCut): string => benchStrokes[benchLayerOf(cut)];

/** Air round a true-scale drawing, mm. */
const ROUND_MM = 14;
/** What two strips of one drawing show both of, mm: the line to join them by stands in it. */
const STRIP_OVERLAP_MM = 12;
/** How one cut is told apart on strips of several pages. */
const letterOf = (i: number): string => String.fromCharCode(65 + (i % 26));

/**
 * The end of a piece round one film cut at true scale, 1 unit = 1 mm, to lay on the film; liner cuts beside it as they meet it. In as many strips as a page asks,
 * each with the line to join it to the next.
 * @param widestMm what of a page can be drawn on
 */
export function benchEndSvgs(piece: Pick<Piece, 'heightMm' | 'bench'>, cut: BenchCut, units: UnitSystem, widestMm: number): { svg: string; widthMm: number }[] {
  const [xs, ys] = [cut.path.map((p) => p.xMm), cut.path.map((p) => p.yMm)];
  const isTop = Math.max(...ys) > piece.heightMm / 2;
  const [x0, x1] = [Math.min(...xs) - ROUND_MM, Math.max(...xs) + ROUND_MM];
  const depth = Math.max(...ys) - Math.min(...ys);
  const high = depth + 2 * ROUND_MM + 8;
  // y down; the film's end 6 mm inside the drawing
  const y = (mm: number) => (isTop ? piece.heightMm - mm + 6 : high - 6 - mm);
  const end = y(isTop ? piece.heightMm : 0);
  const line = (points: readonly { xMm: number; yMm: number }[], more: string) =>
    `<path d="M ${points.map((p) => `${n(p.xMm - x0)} ${n(y(p.yMm))}`).join(' L ')}" fill="none" ${more}/>`;
  const liners = (piece.bench ?? []).filter((c) => c.layer === 'liner').map((c) => line(c.path, 'stroke="#3E6E8E" stroke-width="0.5" stroke-dasharray="3 2"'));
  const scaleAt = (x: number) => `<path d="M ${n(x - 25)} ${n(isTop ? high - 3 : 3)} h 50" stroke="#1C2226" stroke-width="0.4"/><text x="${n(x)}" y="${n(isTop ? high - 4 : 7)}" font-size="3.4" text-anchor="middle">${xml(`this line is ${formatLength(50, units)}${units === 'mm' ? ' mm' : ''}: check it before you trust the sheet`)}</text>`; // prettier-ignore
  const count = x1 - x0 <= widestMm ? 1 : Math.ceil((x1 - x0 - STRIP_OVERLAP_MM) / (widestMm - STRIP_OVERLAP_MM));
  const stripMm = (x1 - x0 + (count - 1) * STRIP_OVERLAP_MM) / count;
  const from = (i: number) => i * (stripMm - STRIP_OVERLAP_MM);
  // in the middle of what two strips share
  const join = (i: number): string => {
    const x = from(i + 1) + STRIP_OVERLAP_MM / 2;
    return `<path d="M ${n(x)} 0 V ${n(high)} M ${n(x - 3)} ${n(high / 3)} h 6 M ${n(x - 3)} ${n((2 * high) / 3)} h 6" stroke="#56626A" stroke-width="0.3" stroke-dasharray="1 1" fill="none"/><text x="${n(x + 1)}" y="${n(high / 2)}" font-size="3.4">${letterOf(i)}</text>`;
  };
  const joins = Array.from({ length: count - 1 }, (_, i) => join(i)).join('');
  const drawn = `<path d="M 0 ${n(end)} H ${n(x1 - x0)}" stroke="#1C2226" stroke-width="0.7"/>${liners.join('')}${line(cut.path, 'stroke="#1C2226" stroke-width="0.7"')}${joins}`;
  return Array.from({ length: count }, (_, i) => ({
    svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${n(from(i))} 0 ${n(stripMm)} ${n(high)}" font-family="Atkinson" fill="#1C2226"><clipPath id="c"><rect x="${n(from(i))}" width="${n(stripMm)}" height="${n(high)}"/></clipPath><g clip-path="url(#c)">${drawn}${scaleAt(from(i) + stripMm / 2)}</g></svg>`,
    widthMm: stripMm,
  }));
}

/** A sheet of letters as it is plotted, film side up, true to scale, with dimensions. */
export function lettersSvg({ widthMm: w, heightMm: h, paths }: PlotSheet, units: UnitSystem): string {
  const m = Math.max(w, h) * 0.16;
  const s = Math.max(w, h) * 0.066;
  const f = (mm: number) => xml(formatLength(mm, units));
  const rings = paths.filter((p) => p.kind === 'cut').map((p) => `M ${p.points.map((q) => `${n(q.x)} ${n(h - q.y)}`).join(' L ')} Z`);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${n(-m)} ${n(-m)} ${n(w + 2 * m)} ${n(h + 2 * m)}" font-family="Atkinson" fill="#1C2226"><rect width="${n(w)}" height="${n(h)}" fill="#FFF6DC" stroke="#1C2226" stroke-width="${n(s / 4)}"/>
<path d="${rings.join(' ')}" fill="#1C2226" fill-rule="evenodd"/>
<text x="${n(w / 2)}" y="${n(-m * 0.3)}" font-size="${n(s)}" text-anchor="middle">${f(w)}</text><text x="${n(-m * 0.3)}" y="${n(h / 2)}" font-size="${n(s)}" text-anchor="middle" transform="rotate(-90 ${n(-m * 0.3)} ${n(h / 2)})">${f(h)}</text></svg>`;
}

/** A pane's piece with its opening, true to scale, with dimensions and the arrow to the top of the pane. */
export function pieceSvg(piece: Pick<Piece, 'widthMm' | 'heightMm' | 'trimmedEdges' | 'path' | 'holes'>, units: UnitSystem): string {
  const { widthMm: w, heightMm: h } = piece;
  const m = Math.max(w, h) * 0.16;
  const s = Math.max(w, h) * 0.055;
  const f = (mm: number) => xml(formatLength(mm, units));
  const rings = piece.path ? [piece.path, ...piece.holes].map((ring) => flatten(ring.map((q) => ({ x: q.xMm, y: h - q.yMm, bulge: -q.bulge })))) : [];
  const own = rings.length
    ? `<path d="${rings.map((ring) => `M ${ring.map((q) => `${n(q.x)} ${n(q.y)}`).join(' L ')} Z`).join(' ')}" fill="#F6D98A" fill-rule="evenodd" stroke="#1C2226" stroke-width="${n(s / 6)}"/>`
    : '';
  const line = (edge: Piece['trimmedEdges'][number]) =>
    piece.trimmedEdges.includes(edge)
      ? `stroke="#A8431A" stroke-width="${n(s / 6)}" stroke-dasharray="${n(s / 2)} ${n(s / 3)}"`
      : `stroke="#1C2226" stroke-width="${n(s / 3)}"`;
  // under the arrow; beside it where the piece is too low for both
  const isLow = h * 0.22 < 1.4 * s;
  const words = `<text x="${n(w / 2 + (isLow ? s : 0))}" y="${n(isLow ? h / 2 + s / 3 : h * 0.78)}" font-size="${n(s)}" text-anchor="${isLow ? 'start' : 'middle'}">top of pane</text>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${n(-m)} ${n(-m)} ${n(w + 2 * m)} ${n(h + 2 * m)}" font-family="Atkinson" fill="#1C2226"><rect width="${n(w)}" height="${n(h)}" fill="#FFF6DC"/>${own}
<path d="M 0 0 H ${n(w)}" ${line('top')}/><path d="M ${n(w)} 0 V ${n(h)}" ${line('right')}/><path d="M 0 ${n(h)} H ${n(w)}" ${line('bottom')}/><path d="M 0 0 V ${n(h)}" ${line('left')}/>
<path d="M ${n(w / 2)} ${n(h * 0.7)} V ${n(h * 0.32)}" stroke="#3E6E8E" stroke-width="${n(s / 4)}" fill="none"/><path d="M ${n(w / 2 - s / 2)} ${n(h * 0.34)} L ${n(w / 2)} ${n(h * 0.34 - s)} L ${n(w / 2 + s / 2)} ${n(h * 0.34)} Z" fill="#3E6E8E"/>
${words}
<text x="${n(w / 2)}" y="${n(-m * 0.3)}" font-size="${n(s * 1.2)}" text-anchor="middle">${f(w)}</text><text x="${n(-m * 0.3)}" y="${n(h / 2)}" font-size="${n(s * 1.2)}" text-anchor="middle" transform="rotate(-90 ${n(-m * 0.3)} ${n(h / 2)})">${f(h)}</text></svg>`;
}

/** Steps of one roll. */
export const stepsOf = (sheet: FilmSheet, roll: Roll): KnifeStep[] => sheet.steps.filter((s) => s.rollId === roll.id);
