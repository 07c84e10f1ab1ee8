import type { BenchCut, Sign } from '@yellow-pane/contracts';
import { isLaidDry } from '../films/index.js';
import { boundingBox, vec, type Polygon, type Region } from '../geometry/index.js';
import { formatLength } from '../ground/index.js';
import { lineName, signDoubtText, type PlacedMark, type SignSurvey } from '../measure/index.js';
import { plotSheet, type PlotSheet } from './design/index.js';
import type { DryPart, DryPieces, DryToPiece } from './dry-piece.js';
import { roundUpToMark } from './handy-size.js';
import { turnsOf } from './piece.js';
import { mirroredCut } from './wrapped-edges.js';

/** Everything that decides the sheets of one sign. */
export type SignToPiece = DryToPiece<Pick<Sign, 'id' | 'name' | 'lines' | 'hardware' | 'texture'>, SignSurvey>;

/** A sheet of letters, as one stands before its ground; mm from the ground’s left side and foot. */
export interface LetterSheet {
  readonly mark: PlacedMark;
  /** Film that stays on it. */
  readonly region: Region;
  readonly leftMm: number;
  readonly lowMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  /** From the lower edge of the sheet to what the letters stand on. */
  readonly baselineMm: number;
  readonly hinge: 'top' | 'middle';
  /** Which sheet of its line, and of how many. */
  readonly number: number;
  readonly of: number;
}

/** Longer sheets are hinged in their middle: one half is laid, then the other. @source house rule */
export const HINGE_MIDDLE_MM = 600;

interface Cluster {
  readonly parts: Region;
  readonly from: number;
  readonly to: number;
}
/** What cannot be parted by an upright cut: a letter with its dot, a figure. From left to right. */
function clustersOf(region: Region): Cluster[] {
  const spans = region.map((part) => ({ part, box: boundingBox(part[0]!) })).sort((a, b) => a.box.minX - b.box.minX);
  const out: { parts: Region[number][]; from: number; to: number }[] = [];
  for (const { part, box } of spans) {
    const last = out.at(-1);
    if (last && box.minX <= last.to) {
      last.parts.push(part);
      last.to = Math.max(last.to, box.maxX);
    } else out.push({ parts: [part], from: box.minX, to: box.maxX });
  }
  return out;
}

/**
 * Letters in as few sheets as go under a length, parted where the gaps are widest. A cluster that is longer by itself stays whole.
 * @returns runs of clusters, from left to right
 */
export function partLetters(clusters: readonly Pick<Cluster, 'from' | 'to'>[], longestMm: number): readonly (readonly [number, number])[] {
  // best[j]: the fewest sheets for the first j, and of those the widest gaps
  const best: { readonly sheets: number; readonly gaps: number; readonly from: number }[] = [{ sheets: 0, gaps: 0, from: 0 }];
  for (let j = 1; j <= clusters.length; j++) {
    let found: (typeof best)[number] | null = null;
    for (let i = j - 1; i >= 0; i--) {
      if (i < j - 1 && clusters[j - 1]!.to - clusters[i]!.from > longestMm) break;
      const gap = i === 0 ? 0 : clusters[i]!.from - clusters[i - 1]!.to;
      const tried = { sheets: best[i]!.sheets + 1, gaps: best[i]!.gaps + gap, from: i };
      if (!found || tried.sheets < found.sheets || (tried.sheets === found.sheets && tried.gaps > found.gaps)) found = tried;
    }
    best.push(found!);
  }
  const out: (readonly [number, number])[] = [];
  for (let j = clusters.length; j > 0; j = best[j]!.from) out.unshift([best[j]!.from, j]);
  return out;
}

/** The sheets of a sign, line by line, from left to right. */
export function letterSheets({
  survey,
  allowances: a,
  rollWidthsMm,
  units,
}: Pick<SignToPiece, 'survey' | 'allowances' | 'rollWidthsMm' | 'units'>): LetterSheet[] {
  const widest = Math.max(0, ...rollWidthsMm);
  return survey.marks.flatMap((mark): LetterSheet[] => {
    const { box, region, line } = mark;
    const heightMm = roundUpToMark(box.maxY - box.minY + 2 * a.weedMm, units);
    // what is higher than the roll is wide stands along it: then the roll’s width is the longest that a sheet may be
    const longest = widest > 0 && heightMm > widest ? Math.min(a.sheetMm, widest) : a.sheetMm;
    const clusters = clustersOf(region);
    const runs = partLetters(clusters, longest - 2 * a.weedMm);
    return runs.map(([from, to], i): LetterSheet => {
      const own = clusters.slice(from, to);
      const leftMm = own[0]!.from - a.weedMm;
      const widthMm = roundUpToMark(own.at(-1)!.to - own[0]!.from + 2 * a.weedMm, units);
      return {
        mark,
        region: own.flatMap((c) => c.parts),
        leftMm,
        lowMm: box.minY - a.weedMm,
        widthMm,
        heightMm,
        baselineMm: (line.is === 'letters' ? line.baselineMm : box.minY) - (box.minY - a.weedMm),
        hinge: widthMm > HINGE_MIDDLE_MM ? 'middle' : 'top',
        number: i + 1,
        of: runs.length,
      };
    });
  });
}

/** The sheets of letters of a sign: as large as what is on them and a border, plotted, weeded, carried over with transfer tape. */
export function piecesOfSign(p: SignToPiece): DryPieces {
  const { surface, survey, film, rollWidthsMm, units } = p;
  const f = (mm: number) => formatLength(mm, units);
  const said = (d: SignSurvey['doubts'][number]) => signDoubtText(d, surface, units);
  if (survey.face.status === 'nothing') return { blocked: 'No width and height of its ground yet.' };
  if (survey.face.status === 'impossible') return { blocked: 'These tapes cannot belong to one ground: tape the marked ones again.' };
  if (surface.lines.length === 0) return { blocked: 'Nothing is written on it yet.' };
  if (!isLaidDry(film)) return { blocked: `${film.name} is film for glass and laid wet; letters take film that is laid dry. Choose another.` };
  const wrong = survey.doubts.find((d) => d.is === 'unread' || d.is === 'outside' || d.is === 'overlap');
  if (wrong) return { blocked: said(wrong) };
  const sheets = letterSheets(p);
  const widest = Math.max(0, ...rollWidthsMm);
  const tooLarge = widest > 0 ? sheets.find((s) => Math.min(s.widthMm, s.heightMm) > widest) : undefined;
  if (tooLarge)
    return { blocked: `${lineName(tooLarge.mark.line)} takes a sheet of ${f(tooLarge.widthMm)} × ${f(tooLarge.heightMm)}, and the widest roll of ${film.name} is ${f(widest)}. Make it smaller.` }; // prettier-ignore
  const notes = survey.doubts.filter((d) => d.is === 'on-hardware' || d.is === 'thin').map(said);
  return { pieces: sheets.map((sheet) => pieceOf(sheet, p, f)), note: notes.join(' ') || null };
}

const suffixOf = ({ mark: { line }, number, of }: LetterSheet): string => {
  const name = line.is === 'letters' ? line.text : line.what;
  return `${name.length > 26 ? `${name.slice(0, 25)}…` : name}${of > 1 ? `, ${number} of ${of}` : ''}`;
};

function pieceOf(sheet: LetterSheet, { surface, film, allowances: a }: SignToPiece, f: (mm: number) => string): DryPart {
  const { widthMm, heightMm, mark } = sheet;
  return {
    suffix: suffixOf(sheet),
    piece: {
      surfaceId: surface.id,
      filmId: film.id,
      method: 'pre-cut',
      widthMm,
      heightMm,
      turns: turnsOf(film.direction),
      factoryEdge: null,
      trimmedEdges: [],
      path: null,
      holes: [],
      // letters beside each other show every difference of lots
      meets: surface.id,
      repeat: null,
      isPlotted: true,
      parts: [],
      // drawn as one reads it, a piece from its liner’s side: mirrored
      bench: marksOn(sheet, f).map((c) => mirroredCut(c, widthMm)),
      why: [
        `${mark.line.is === 'letters' ? `Capitals ${f(mark.line.heightMm)} high` : `${f(mark.line.heightMm)} high`}: ${f(widthMm - 2 * a.weedMm)} × ${f(heightMm - 2 * a.weedMm)} of film, ${f(a.weedMm)} left round it to weed by.`,
        ...(sheet.of > 1 ? [`Sheet ${sheet.number} of ${sheet.of}: parted in the widest gaps that leave no sheet longer than ${f(a.sheetMm)}.`] : []),
        'Plotted film side up, weeded, carried over with transfer tape.',
      ],
      fallback: null,
    },
  };
}

/** What is pencilled on the transfer tape, as one reads the letters: what they stand on, where they come, and where the sheet is hinged. */
function marksOn(sheet: LetterSheet, f: (mm: number) => string): BenchCut[] {
  const { widthMm: w, heightMm: h, baselineMm, leftMm, lowMm, hinge } = sheet;
  const point = (xMm: number, yMm: number) => ({ xMm, yMm, bulge: 0 });
  return [
    {
      layer: 'mark',
      path: [point(0, baselineMm), point(w, baselineMm)],
      words: `Pencil on the transfer tape: the line it stands on, ${f(baselineMm)} above the lower edge of the sheet. On the ground it is ${f(lowMm + baselineMm)} above the foot; the sheet’s left edge comes ${f(leftMm)} from the left side${leftMm < 0 ? ' (past it: cut the tape back)' : ''}.`,
    },
    hinge === 'middle'
      ? {
          layer: 'mark',
          path: [point(w / 2, 0), point(w / 2, h)],
          words: `Hinge: masking tape from top to bottom over the middle, ${f(w / 2)} from either end. One half is laid, then the other.`,
        }
      : { layer: 'mark', path: [point(0, h), point(w, h)], words: 'Hinge: masking tape along the upper edge; the sheet swings up on it like a flap.' },
  ];
}

/** What the plotter cuts of one sheet, seen from the film side; null: there is no such piece. */
export function plotOfSheet(
  sheets: readonly LetterSheet[],
  part: number,
  settings: { readonly weeding: boolean; readonly registration: boolean },
): PlotSheet | null {
  const sheet = sheets[part];
  if (!sheet) return null;
  const onSheet = (ring: Polygon): Polygon => ring.map((p) => vec(p.x - sheet.leftMm, p.y - sheet.lowMm));
  return plotSheet({ keep: sheet.region.map((rings) => rings.map(onSheet)), widthMm: sheet.widthMm, heightMm: sheet.heightMm, wasteBox: null, settings });
}
