import { DxfWriter, point3d, Units } from '@tarikjabiri/dxf';
import { csvText, oneLine } from '../../http/csv.js';
import type { CutSheet, FilmSheet } from './cut.service.js';
import { benchLayerOf, benchOn, faceUp, outlinesOn } from './roll-drawing.js';

/**
 * The rolls as DXF: millimetres declared, one layer per purpose (roll edges, crosscuts, slits and trims as rectangles, true outlines
 * of shaped pieces, what the bench cuts through the film and through the liner only, what it pencils, what is cut when the film lies, text). Rolls stand above one another, 400 mm apart.
 */
export function cutSheetDxf(sheet: CutSheet): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('ROLL_EDGE', 7, 'CONTINUOUS');
  dxf.addLayer('CROSSCUT', 1, 'CONTINUOUS');
  dxf.addLayer('PIECE', 5, 'CONTINUOUS');
  dxf.addLayer('OUTLINE', 6, 'CONTINUOUS');
  dxf.addLayer('FILM_CUT', 2, 'CONTINUOUS');
  dxf.addLayer('LINER_CUT', 4, 'CONTINUOUS');
  dxf.addLayer('PENCIL', 8, 'CONTINUOUS');
  dxf.addLayer('CUT_LATER', 30, 'CONTINUOUS');
  dxf.addLayer('TEXT', 3, 'CONTINUOUS');
  let base = 0;
  for (const film of sheet.films)
    for (const roll of film.rolls) {
      const layout = film.layout.rolls.find((r) => r.rollId === roll.id);
      if (!layout || layout.drops.length === 0) continue;
      const W = roll.widthMm;
      const flip = faceUp(roll.wound ?? film.film.wound) === 'film';
      const y = (low: number, size: number) => base + (flip ? W - low - size : low);
      const line = (x1: number, y1: number, x2: number, y2: number, layer: string) => dxf.addLine(point3d(x1, y1), point3d(x2, y2), { layerName: layer });
      line(0, base, layout.usedMm, base, 'ROLL_EDGE');
      line(0, base + W, layout.usedMm, base + W, 'ROLL_EDGE');
      dxf.addText(
        point3d(0, base + W + 60),
        60,
        oneLine(`${film.film.name} ${roll.label} ${faceUp(roll.wound ?? film.film.wound)} up${film.standing === 'none' ? ', a proposal' : ''}`),
        { layerName: 'TEXT' },
      );
      const labels = new Map(film.pieces.map((p) => [p.id, p.label]));
      for (const drop of layout.drops) {
        const end = drop.xMm + drop.alongMm;
        line(end, base, end, base + W, 'CROSSCUT');
        for (const p of drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces))) {
          const low = y(p.yMm, p.acrossMm);
          const corners = [
            [p.xMm, low],
            [p.xMm + p.alongMm, low],
            [p.xMm + p.alongMm, low + p.acrossMm],
            [p.xMm, low + p.acrossMm],
          ] as const;
          dxf.addLWPolyline(
            corners.map(([px, py]) => ({ point: { x: px, y: py } })),
            { layerName: 'PIECE', flags: 1 },
          );
          const piece = film.pieces.find((x) => x.id === p.pieceId);
          for (const { rings } of piece ? outlinesOn(piece, p) : [])
            for (const ring of rings)
              dxf.addLWPolyline(
                ring.map((q) => ({ point: { x: q.x, y: y(q.y, 0) } })),
                { layerName: 'OUTLINE', flags: 1 },
              );
          for (const { cut, points } of piece ? benchOn(piece, p) : [])
            dxf.addLWPolyline(
              points.map((q) => ({ point: { x: q.x, y: y(q.y, 0) } })),
              { layerName: benchLayerOf(cut), flags: 0 },
            );
          dxf.addText(point3d(p.xMm + 20, low + 20), 30, oneLine(labels.get(p.pieceId) ?? ''), { layerName: 'TEXT' });
        }
      }
      base += W + 400;
    }
  return dxf.stringify();
}

/** Every piece with its size and its place on the roll. */
export function cutListCsv(sheet: CutSheet): string {
  const rows = sheet.films.flatMap((film) =>
    film.single.map((p) => {
      const laidAs = film.pieces.find((x) => x.id === p.id || x.parts.some((part) => part.id === p.id))?.id ?? p.id;
      const roll = film.layout.rolls.find((r) => r.drops.some((d) => d.columns.some((c) => c.rows.some((w) => w.pieces.some((x) => x.pieceId === laidAs)))));
      const dropIndex = roll?.drops.findIndex((d) => d.columns.some((c) => c.rows.some((w) => w.pieces.some((x) => x.pieceId === laidAs)))) ?? -1;
      const placed = roll?.drops[dropIndex]?.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces)).find((x) => x.pieceId === laidAs);
      return {
        place: sheet.placeOf(p.surfaceId),
        piece: p.label,
        film: film.film.name,
        method: p.method,
        widthMm: round(p.widthMm),
        heightMm: round(p.heightMm),
        factoryEdge: p.factoryEdge ?? '',
        cutWith: laidAs === p.id ? '' : (film.pieces.find((x) => x.id === laidAs)?.label ?? ''),
        roll: film.rolls.find((r) => r.id === roll?.rollId)?.label ?? '',
        lot: film.rolls.find((r) => r.id === roll?.rollId)?.lot ?? '',
        drop: placed ? dropIndex + 1 : '',
        turnDeg: placed?.turn ?? '',
        xOnRollMm: placed ? round(placed.xMm) : '',
        yOnRollMm: placed ? round(placed.yMm) : '',
        note: film.layout.unplaced.find((u) => u.pieceId === laidAs)?.reason ?? p.fallback ?? '',
        plan: planWord(film),
      };
    }),
  );
  return csvText(rows);
}

/** What is followed, or a proposal that nobody has kept. */
const planWord = (film: FilmSheet): string => (film.standing === 'none' ? 'proposal' : film.standing);

const round = (v: number): number => Math.round(v * 1000) / 1000;
