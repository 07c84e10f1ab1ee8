import type { Drop, Layout, Piece } from '@yellow-pane/contracts';
import { grainsUp, mmFromGrains } from '../../ground/index.js';
import { checkLayout } from './check-layout.js';
import {
  alignedDrop,
  benchFor,
  columnOf,
  cutsOf,
  edgesFit,
  joinNeeds,
  leadOf,
  repeatOf,
  rollSideOf,
  waysOf,
  type Bench,
  type PackedColumn,
  type PackedDrop,
  type Way,
} from './model.js';
import { drawDrop, keptPlace, knifeCuts, shifted, type LayoutInput } from './planner.js';

/** Where a piece is put by hand: into a drop, or onto a drop of its own at the end of a roll. */
export interface MoveTarget {
  readonly rollId: string;
  /** Null: a new drop at the end. */
  readonly dropIndex: number | null;
  /** Turned a quarter where the film allows. */
  readonly isTurned?: boolean;
}

/** The plan after a move by hand, with what it does to length and money; or why it cannot be. */
export type MovedByHand =
  { readonly ok: true; readonly layout: Layout; readonly usedDeltaMm: number; readonly moneyDelta: number } | { readonly ok: false; readonly message: string };

const refuse = (message: string): MovedByHand => ({ ok: false, message });

/** A drop as the search knows it, with the pieces in the order of its columns. */
interface Loose {
  readonly drop: PackedDrop;
  readonly pieces: readonly Piece[];
}

/**
 * Moves one piece by hand and says at once whether it can lie there: every rule of the knife is kept, the drop it leaves closes up, the one it
 * comes to grows as little as it can.
 * @param heldDrops drops of each roll that the knife has been at: nothing moves into or out of them
 */
export function movePiece(
  layout: Layout,
  pieceId: string,
  to: MoveTarget,
  input: LayoutInput,
  heldDrops: ReadonlyMap<string, ReadonlySet<number>>,
): MovedByHand {
  const byId = new Map(input.pieces.map((p) => [p.id, p]));
  const piece = byId.get(pieceId);
  const roll = input.rolls.find((r) => r.id === to.rollId);
  if (!piece || !roll) return refuse('There is no such piece or roll.');
  const from = layout.rolls.flatMap((r) => r.drops.map((d, i) => ({ r, d, i }))).find(({ d }) => idsOf(d).includes(pieceId));
  if (!from) return refuse(`${piece.label} does not lie on a roll.`);
  if (heldDrops.get(from.r.rollId)?.has(from.i)) return refuse(`The knife has been at the drop of ${piece.label}: it stays where it lies.`);
  if (to.dropIndex !== null && heldDrops.get(to.rollId)?.has(to.dropIndex)) return refuse('The knife has been at that drop: nothing more goes into it.');
  const here = placedIn(from.d, pieceId)!;
  const wasTurned = here.turn % 180 !== 0;
  const bench = benchFor(roll.widthMm, input.settings, roll.edges ?? 'both');
  const ways = waysOf(piece, input.settings).filter((w) => w.across <= bench.width && w.along <= bench.longest && edgesFit([w.need], bench));
  const upright = ways.filter((w) => isUpright(piece, w, input) !== (to.isTurned === undefined ? wasTurned : to.isTurned));
  if (upright.length === 0) {
    // a film that shrinks along the roll only leaves one way round: the piece itself says why
    const isFixed = piece.turns.every((t) => (t % 180 !== 0) === wasTurned);
    const why = isFixed ? piece.why.find((w) => w.includes('Turned by 90°')) : undefined;
    return refuse(`${to.isTurned ? `${piece.label} cannot lie turned on this roll.` : `${piece.label} does not fit this roll that way round.`}${why ? ` ${why}` : ''}`); // prettier-ignore
  }
  const isSameDrop = to.dropIndex !== null && from.r.rollId === to.rollId && from.i === to.dropIndex;
  if (isSameDrop && to.isTurned === undefined) return refuse(`${piece.label} lies there already.`);
  const rest = without(loosen(from.d, byId, input), pieceId);
  const target: Loose | null =
    to.dropIndex === null
      ? { drop: { along: 0, columns: [] }, pieces: [] }
      : isSameDrop
        ? rest
        : (() => {
            const d = layout.rolls.find((r) => r.rollId === to.rollId)?.drops[to.dropIndex];
            return d ? loosen(d, byId, input) : null;
          })();
  if (!target) return refuse('There is no such drop.');
  const put = bestPlace(target, piece, upright, bench);
  if (!put) return refuse(`${piece.label} does not fit beside or behind what lies in drop ${(to.dropIndex ?? 0) + 1}.`);
  const next = rebuilt(layout, input, (rollId, drops) => {
    const out: (Drop | Loose)[] = drops.flatMap((d, i): (Drop | Loose)[] => {
      const isFrom = rollId === from.r.rollId && i === from.i;
      const isTo = rollId === to.rollId && i === to.dropIndex;
      if (isTo) return [put];
      if (isFrom) return rest && rest.drop.columns.length ? [rest] : [];
      return [d];
    });
    return rollId === to.rollId && to.dropIndex === null ? [...out, put] : out;
  });
  const faults = checkLayout(next, { pieces: input.pieces, rolls: input.rolls, settings: input.settings });
  if (faults.length) return refuse(faults[0]!);
  return {
    ok: true,
    layout: next,
    usedDeltaMm: next.usedMm - layout.usedMm,
    moneyDelta: next.cost - layout.cost + (next.cutCount - layout.cutCount) * (input.cutPrice ?? 0),
  };
}

const idsOf = (d: Drop): string[] => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces.map((p) => p.pieceId)));
const placedIn = (d: Drop, id: string) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces)).find((p) => p.pieceId === id);

/** Whether a way has the piece's top along the roll. */
const isUpright = (piece: Piece, way: Way, { settings }: LayoutInput): boolean =>
  piece.turns.some((t) => t % 180 === 0) && way.across === grainsUp(piece.widthMm) + grainsUp(settings.slitAllowanceMm);

function loosen(d: Drop, byId: ReadonlyMap<string, Piece>, input: LayoutInput): Loose {
  const pieces: Piece[] = [];
  const columns = d.columns.map((c) =>
    columnOf(
      c.rows.map((r) => {
        const packed = r.pieces.map((p) => {
          const piece = byId.get(p.pieceId)!;
          pieces.push(piece);
          const side = piece.factoryEdge ? rollSideOf(piece.factoryEdge, p.turn) : null;
          const across = grainsUp(p.turn % 180 === 0 ? piece.widthMm : piece.heightMm) + grainsUp(input.settings.slitAllowanceMm);
          const way = waysOf(piece, input.settings).find((w) => w.across === across && (!side || w.need === side || w.need === 'either'))!;
          return { type: pieces.length - 1, way };
        });
        return { along: Math.max(...packed.map((p) => p.way.along)), pieces: packed };
      }),
    ),
  );
  return { drop: { along: Math.max(0, ...columns.map((c) => c.along)), columns }, pieces };
}

/** The drop without one piece; what lay behind it moves up. */
function without(loose: Loose, pieceId: string): Loose | null {
  const columns: PackedColumn[] = loose.drop.columns.flatMap((c) => {
    const rows = c.rows.flatMap((r) => {
      const left = r.pieces.filter((p) => loose.pieces[p.type]!.id !== pieceId);
      return left.length ? [{ along: Math.max(...left.map((p) => p.way.along)), pieces: left }] : [];
    });
    return rows.length ? [columnOf(rows)] : [];
  });
  return { drop: { along: Math.max(0, ...columns.map((c) => c.along)), columns }, pieces: loose.pieces };
}

/** Behind what lies in a column, or as a column of its own: where the drop grows least, then where least is left over. */
function bestPlace(loose: Loose, piece: Piece, ways: readonly Way[], bench: Bench): Loose | null {
  const pieces = [...loose.pieces, piece];
  const type = pieces.length - 1;
  const used = loose.drop.columns.reduce((s, c) => s + c.across, 0);
  let best: { along: number; loss: number; columns: PackedColumn[] } | null = null;
  const look = (columns: PackedColumn[]) => {
    const across = columns.reduce((s, c) => s + c.across, 0);
    const along = Math.max(...columns.map((c) => c.along));
    if (across > bench.width || along > bench.longest || !edgesFit(columns.map((c) => c.need), bench)) return; // prettier-ignore
    const loss = columns.reduce((s, c) => s + c.across * (along - c.along), 0) - across * 1e-6 * along;
    if (!best || along < best.along || (along === best.along && loss < best.loss)) best = { along, loss, columns };
  };
  for (const way of ways) {
    const row = { along: way.along, pieces: [{ type, way }] };
    if (used + way.across <= bench.width) look([...loose.drop.columns, columnOf([row])]);
    loose.drop.columns.forEach((c, i) => {
      if (joinNeeds(c.need, way.need) === null) return;
      look(loose.drop.columns.map((x, j) => (j === i ? columnOf([...x.rows, row]) : x)));
    });
  }
  const found = best as { along: number; columns: PackedColumn[] } | null;
  return found && { drop: { along: found.along, columns: found.columns }, pieces };
}

function rebuilt(layout: Layout, input: LayoutInput, change: (rollId: string, drops: readonly Drop[]) => (Drop | Loose)[]): Layout {
  let cuts = 0;
  const patterned = input.pieces.map(repeatOf).find((p) => p !== null);
  const pattern = patterned ? patterned.length : null;
  const rolls = layout.rolls.map((r) => {
    const roll = input.rolls.find((x) => x.id === r.rollId)!;
    const bench = benchFor(roll.widthMm, input.settings, roll.edges ?? 'both');
    let x = 0;
    const drops = change(r.rollId, r.drops).map((d): Drop => {
      if ('drop' in d) {
        const order = d.drop.columns.flatMap((c) => c.rows.flatMap((w) => w.pieces.map((p) => d.pieces[p.type]!)));
        const repeat = (type: number) => repeatOf(d.pieces[type]!);
        const at = x + leadOf(d.drop.columns, x, repeat);
        const aligned = alignedDrop(d.drop.columns, at, repeat);
        const drawn = drawDrop(aligned, order, at, bench, input.settings);
        cuts += cutsOf(aligned, bench) + (at > x ? 1 : 0);
        x = at + aligned.along;
        return drawn;
      }
      const at = keptPlace(x, grainsUp(d.xMm), pattern);
      const moved = shifted(d, mmFromGrains(at) - d.xMm);
      x = at + grainsUp(d.alongMm) + bench.crosscut;
      cuts += knifeCuts(d, roll.widthMm);
      return moved;
    });
    return { ...r, drops, usedMm: mmFromGrains(x) };
  });
  const price = new Map(input.rolls.map((r) => [r.id, r.pricePerM]));
  return {
    ...layout,
    rolls,
    usedMm: rolls.reduce((s, r) => s + r.usedMm, 0),
    cost: rolls.reduce((s, r) => s + (r.usedMm / 1000) * price.get(r.rollId)!, 0),
    cutCount: cuts,
  };
}
