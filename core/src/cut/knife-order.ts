import type { DropColumn, Drop, Layout, LeftoverRule, Piece, PlacedPiece, RollLayout } from '@yellow-pane/contracts';
import { vec } from '../geometry/index.js';
import { formatLength, type UnitSystem } from '../ground/index.js';
import { isWorthKeeping } from '../stock/index.js';
import { cutAcross, onRoll, partingLine } from './pairs.js';

/** One cut as a person makes it. */
export interface KnifeStep {
  /** Stays the same as long as the drop does: ticks hang on it. */
  readonly key: string;
  readonly number: number;
  readonly rollId: string;
  readonly dropIndex: number;
  readonly kind: 'pull' | 'slit' | 'crosscut' | 'trim' | 'part' | 'outline';
  readonly text: string;
  /** Pieces that are finished by this cut. */
  readonly finishes: readonly string[];
  readonly xMm: number;
}

/** A rest that a plan leaves, in the frame of the roll. */
export interface Rest {
  readonly xMm: number;
  readonly yMm: number;
  readonly alongMm: number;
  readonly acrossMm: number;
  /** Worth a label by the firm's rule. */
  readonly isWorthKeeping: boolean;
}

const LEAST_MM = 0.05;

/**
 * The numbered cuts of a whole layout in the order of the drops: pull and cut across, slit from the near edge on, cut each
 * strip across from the squared start on, trim last. Distances are from the near edge and
 * from the squared end, unless the step says otherwise.
 * @param isFilmUp the film side lies up on the bench: distances then run from the far edge (`startEdge`)
 */
export function knifeOrder(
  layout: Layout,
  pieces: readonly Piece[],
  rollWidthMm: (rollId: string) => number,
  system: UnitSystem,
  isFilmUp: (rollId: string) => boolean = () => false,
): KnifeStep[] {
  const byId = new Map(pieces.map((p) => [p.id, p]));
  const steps: KnifeStep[] = [];
  for (const roll of layout.rolls) {
    const end = roll.drops.at(-1);
    const crosscutMm = end ? roll.usedMm - end.xMm - end.alongMm : 0;
    roll.drops.forEach((drop, dropIndex) => {
      const name = dropKey(roll, drop);
      const width = rollWidthMm(roll.rollId);
      const before = roll.drops[dropIndex - 1];
      // told from the last cut; film that the knife takes anyway lies between any two drops
      const offMm = before ? drop.xMm - before.xMm - before.alongMm - crosscutMm : drop.xMm;
      dropSteps(drop, width, system, byId, isFilmUp(roll.rollId), { isFirst: !before, offMm }).forEach((s, i) =>
        steps.push({ ...s, key: `${name}/${i}`, number: steps.length + 1, rollId: roll.rollId, dropIndex, xMm: drop.xMm }),
      );
    });
  }
  return steps;
}

/** A drop is known by its pieces, not by its place: re-planning the others keeps its ticks. */
export const dropKey = (roll: Pick<RollLayout, 'rollId'>, drop: Drop): string =>
  `${roll.rollId.slice(-6)}:${drop.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId.slice(-8)))).join('+')}`;

/**
 * The edge that distances are measured from. Plans are made liner up; with the film side up the sheet lies turned over, and
 * what was the near edge lies far.
 */
export const startEdge = (isFilmUp: boolean): 'near' | 'far' => (isFilmUp ? 'far' : 'near');
const otherEdge = (isFilmUp: boolean): 'near' | 'far' => startEdge(!isFilmUp);

type Bare = Pick<KnifeStep, 'kind' | 'text' | 'finishes'>;

/** What has to be done before a drop is pulled: patterned film begins at a mark. */
function beforePull(
  drop: Drop,
  byId: ReadonlyMap<string, Piece>,
  { isFirst, offMm }: { readonly isFirst: boolean; readonly offMm: number },
  f: (mm: number) => string,
): string {
  const isPatterned = drop.columns.some((c) => c.rows.some((r) => r.pieces.some((p) => byId.get(p.pieceId)?.repeat)));
  if (!isPatterned) return '';
  const off = offMm > LEAST_MM ? `Cut ${f(offMm)} off first: the pattern begins there. ` : '';
  return `${isFirst ? 'Square the start at a mark of the pattern. ' : ''}${off}`;
}

function dropSteps(
  drop: Drop,
  rollWidthMm: number,
  system: UnitSystem,
  byId: ReadonlyMap<string, Piece>,
  isFilmUp: boolean,
  from: { readonly isFirst: boolean; readonly offMm: number },
): Bare[] {
  const other = otherEdge(isFilmUp);
  const f = (mm: number) => formatLength(mm, system);
  const out: Bare[] = [{ kind: 'pull', text: `${beforePull(drop, byId, from, f)}Pull ${f(drop.alongMm)}, cut across`, finishes: [] }];
  const finished = new Map<string, number>();
  const columns = [...drop.columns].sort((a, b) => a.yMm - b.yMm);
  const touch = (ids: string[]) => ids.forEach((id) => finished.set(id, out.length - 1));
  columns.forEach((column, i) => {
    const ids = column.rows.flatMap((r) => r.pieces.map((p) => p.pieceId));
    touch(ids.filter((id) => !finished.has(id)));
    const end = column.yMm + column.acrossMm;
    const before = i > 0 ? columns[i - 1]!.yMm + columns[i - 1]!.acrossMm : 0;
    if (column.yMm > before + LEAST_MM) {
      out.push({ kind: 'slit', text: `Slit ${f(rollWidthMm - column.yMm)} off the ${other} edge`, finishes: [] });
      touch(ids);
    }
    if (end < rollWidthMm - LEAST_MM) {
      out.push({ kind: 'slit', text: `Slit at ${f(end)}`, finishes: [] });
      touch(ids);
      const next = columns[i + 1];
      if (next && next.yMm <= end + LEAST_MM) touch(next.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)));
    }
  });
  const strips = stripNumbers(columns);
  columns.forEach((column, i) => {
    const strip = strips.length > 1 || strips[0] !== 1 ? `Strip ${strips[i]}: cut` : 'Cut';
    column.rows.forEach((row, r) => {
      const end = row.xMm + row.alongMm - drop.xMm;
      const ids = row.pieces.map((p) => p.pieceId);
      if (end < drop.alongMm - LEAST_MM) {
        out.push({ kind: 'crosscut', text: `${strip} across at ${f(end)}`, finishes: [] });
        touch(ids);
        const next = column.rows[r + 1];
        if (next) touch(next.pieces.map((p) => p.pieceId));
      }
      for (const p of row.pieces) {
        const name = byId.get(p.pieceId)?.label ?? '';
        if (row.pieces.length > 1 && p.yMm + p.acrossMm < column.yMm + column.acrossMm - LEAST_MM) {
          out.push({ kind: 'slit', text: `Slit ${name} off at ${f(p.acrossMm)} wide`, finishes: [] });
          touch(ids);
        } else if (p.acrossMm < column.acrossMm - LEAST_MM && row.pieces.length === 1) {
          out.push({ kind: 'trim', text: `Trim ${name} to ${f(p.acrossMm)} across`, finishes: [] });
          touch([p.pieceId]);
        }
        if (p.xMm > row.xMm + LEAST_MM) {
          out.push({ kind: 'trim', text: `Trim ${f(p.xMm - row.xMm)} off the start of ${name}: the pattern begins there`, finishes: [] });
          touch([p.pieceId]);
        }
        if (p.xMm + p.alongMm < row.xMm + row.alongMm - LEAST_MM) {
          out.push({ kind: 'trim', text: `Trim ${name} to ${f(p.alongMm)} along`, finishes: [] });
          touch([p.pieceId]);
        }
      }
    });
  });
  // what is no rectangle is made of its rectangle last
  for (const placed of columns.flatMap((c) => c.rows.flatMap((r) => r.pieces))) {
    const piece = byId.get(placed.pieceId);
    if (!piece) continue;
    if (piece.parts.length === 2) {
      out.push({ kind: 'part', text: `Part ${piece.label} ${partingWords(piece, placed, isFilmUp, f)}`, finishes: [] });
      finished.delete(piece.id);
      touch(piece.parts.map((p) => p.id));
    } else if (piece.isPlotted || (piece.method === 'pre-cut' && (isCurvedOrSlanted(piece) || piece.holes.length > 0))) {
      out.push({ kind: 'outline', text: piece.isPlotted ? `Plot ${piece.label}, film side up` : `Cut ${piece.label} to its outline, by template or plotter`, finishes: [] }); // prettier-ignore
      touch([piece.id]);
    }
  }
  const finishes = out.map(() => [] as string[]);
  for (const [id, at] of finished) finishes[at]!.push(id);
  return out.map((s, i) => ({ ...s, finishes: finishes[i]! }));
}

/** A pre-cut outline that is not its own rectangle within a hair. */
const isCurvedOrSlanted = (piece: Piece): boolean =>
  piece.path !== null &&
  piece.path.some(
    (p) => p.bulge !== 0 || (Math.min(p.xMm, piece.widthMm - p.xMm) > OUTLINE_HAIR_MM && Math.min(p.yMm, piece.heightMm - p.yMm) > OUTLINE_HAIR_MM),
  ) === true;
/** Corners nearer to the rectangle's edge than this are cut with the rectangle and trimmed by eye. @source house rule: the edge gap */
const OUTLINE_HAIR_MM = 1.5;

/**
 * Where the parting cut runs on the sheet as it lies: from a mark on one side of the rectangle to a mark on another. Marks are
 * measured along the sides that run with the roll from the end nearer to the start, along the others from the start edge.
 */
function partingWords(piece: Piece, placed: PlacedPiece, isFilmUp: boolean, f: (mm: number) => string): string {
  const [a, b] = piece.parts.map((p) => p.path.map((q) => vec(q.xMm, q.yMm)));
  const line = partingLine(a!, b!);
  if (!line) return 'where it is drawn';
  const [edge, other] = [startEdge(isFilmUp), startEdge(!isFilmUp)];
  const marks = cutAcross(line, piece.widthMm, piece.heightMm).map((p) => {
    const on = onRoll(p, piece, { ...placed, xMm: 0, yMm: 0 });
    const y = isFilmUp ? placed.acrossMm - on.y : on.y;
    if (y < LEAST_MM) return `${f(on.x)} along its ${edge} side`;
    if (y > placed.acrossMm - LEAST_MM) return `${f(on.x)} along its ${other} side`;
    return on.x < LEAST_MM ? `${f(y)} up its start end` : `${f(y)} up its far end`;
  });
  return `by one straight cut from ${marks[0]} to ${marks[1]}`;
}

/** Where each column stands among the strips that the slits leave, counted from the start edge; a rest between two columns is a strip too. */
function stripNumbers(columns: readonly DropColumn[]): number[] {
  let strip = 0;
  let end = 0;
  return columns.map((c) => {
    strip += c.yMm > end + LEAST_MM ? 2 : 1;
    end = c.yMm + c.acrossMm;
    return strip;
  });
}

/** What is left of each drop beside the pieces: the strip along the far side and the ends of columns. */
export function restsOf(drop: Drop, rollWidthMm: number, rule: LeftoverRule): Rest[] {
  const rests: Rest[] = [];
  const push = (xMm: number, yMm: number, alongMm: number, acrossMm: number) => {
    if (alongMm > 1 && acrossMm > 1) rests.push({ xMm, yMm, alongMm, acrossMm, isWorthKeeping: isWorthKeeping({ alongMm, acrossMm }, rule) });
  };
  const columns = [...drop.columns].sort((a, b) => a.yMm - b.yMm);
  let y = 0;
  for (const c of columns) {
    push(drop.xMm, y, drop.alongMm, c.yMm - y);
    y = c.yMm + c.acrossMm;
    const last = c.rows.reduce((m, r) => Math.max(m, r.xMm + r.alongMm), drop.xMm);
    push(last, c.yMm, drop.xMm + drop.alongMm - last, c.acrossMm);
  }
  push(drop.xMm, y, drop.alongMm, rollWidthMm - y);
  return rests;
}
