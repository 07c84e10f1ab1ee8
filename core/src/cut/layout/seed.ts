import { columnOf, edgesFit, joinNeeds, type Bench, type PackedColumn, type PackedDrop, type PieceType, type Way } from './model.js';

/** What a seed may prefer when a piece can lie two ways. */
type Preference = (a: Way, b: Way) => number;
const preferences: readonly Preference[] = [(a, b) => a.along - b.along, (a, b) => b.along - a.along];

interface OpenDrop {
  along: number;
  columns: PackedColumn[];
}

/**
 * First answer, at once: longest pieces first, each put where it leaves least over – on top of a column, beside the
 * others in a drop, or at the start of a new drop (best-fit decreasing height). Both preferences of turn are tried.
 * @returns null when some piece fits no drop
 */
export function packAtOnce(types: readonly PieceType[], counts: readonly number[], bench: Bench): PackedDrop[] | null {
  let best: PackedDrop[] | null = null;
  let least = Infinity;
  for (const preference of preferences) {
    const drops = packWith(types, counts, bench, preference);
    const along = drops?.reduce((s, d) => s + d.along, 0) ?? Infinity;
    if (drops && along < least) [best, least] = [drops, along];
  }
  return best;
}

function packWith(types: readonly PieceType[], counts: readonly number[], bench: Bench, preference: Preference): PackedDrop[] | null {
  const queue = types.flatMap((t, type) => {
    const ways = t.ways.filter((w) => w.across <= bench.width && w.along <= bench.longest && edgesFit([w.need], bench)).sort(preference);
    return Array.from({ length: counts[type]! }, () => ({ type, ways }));
  });
  if (queue.some((q) => q.ways.length === 0)) return null;
  queue.sort((a, b) => b.ways[0]!.along - a.ways[0]!.along || b.ways[0]!.across - a.ways[0]!.across);
  const drops: OpenDrop[] = [];
  for (const { type, ways } of queue) {
    let bestWaste = Infinity;
    let place: (() => void) | null = null;
    for (const drop of drops) {
      const used = drop.columns.reduce((s, c) => s + c.across, 0);
      for (const way of ways) {
        if (way.along > drop.along) continue;
        drop.columns.forEach((c, i) => {
          if (c.along + way.along > drop.along || way.across > c.across || joinNeeds(c.need, way.need) === null) return;
          const column = columnOf([...c.rows, { along: way.along, pieces: [{ type, way }] }]);
          const waste = (c.across - way.across) * way.along;
          if (
            waste < bestWaste &&
            edgesFit(
              drop.columns.map((x, j) => (j === i ? column.need : x.need)),
              bench,
            )
          ) {
            bestWaste = waste;
            place = () => void (drop.columns[i] = column);
          }
        });
        if (used + way.across <= bench.width && edgesFit([...drop.columns.map((c) => c.need), way.need], bench)) {
          const waste = (drop.along - way.along) * way.across;
          if (waste < bestWaste) {
            bestWaste = waste;
            place = () => void drop.columns.push(columnOf([{ along: way.along, pieces: [{ type, way }] }]));
          }
        }
      }
    }
    const way = ways[0]!;
    const ownWaste = (bench.width - way.across) * way.along;
    if (place && bestWaste < ownWaste * 4) (place as () => void)();
    else drops.push({ along: way.along, columns: [columnOf([{ along: way.along, pieces: [{ type, way }] }])] });
  }
  return drops;
}
