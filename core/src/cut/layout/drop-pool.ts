import type { Random } from '../../ground/index.js';
import { usedArea, type PackedDrop } from './model.js';

/** Most drops kept; when there are twice as many, the wasteful half goes. @source measured; house figure */
const MOST_KEPT = 3000;

interface Seen {
  readonly drop: PackedDrop;
  /** Types in it, and how many pieces of each. */
  readonly types: readonly number[];
  readonly counts: readonly number[];
  /** Share of its film that is no piece. */
  readonly waste: number;
}

/**
 * Drops that were once part of an exact re-cut. A good plan is often made of drops that were all seen, but never at the same time: covers put together anew from
 * them are tried now and then (a greedy set cover, the least wasteful drops first, with chance in the order).
 */
export class DropPool {
  private seen = new Map<string, Seen>();

  constructor(private readonly widthGrains: number) {}

  add(drop: PackedDrop): void {
    const tally = new Map<number, number>();
    for (const c of drop.columns) for (const r of c.rows) for (const p of r.pieces) tally.set(p.type, (tally.get(p.type) ?? 0) + 1);
    const types = [...tally.keys()].sort((a, b) => a - b);
    const counts = types.map((t) => tally.get(t)!);
    const key = types.map((t, i) => `${t}x${counts[i]}`).join();
    const known = this.seen.get(key);
    if (known && known.drop.along <= drop.along) return;
    this.seen.set(key, { drop, types, counts, waste: 1 - usedArea(drop) / (drop.along * this.widthGrains) });
    if (this.seen.size > 2 * MOST_KEPT) this.seen = new Map([...this.seen].sort((a, b) => a[1].waste - b[1].waste).slice(0, MOST_KEPT));
  }

  /**
   * Drops that can be cut beside each other out of these pieces.
   * @param left how many pieces of each type there are; what the drops take is taken off it
   * @param mostWaste no drop that wastes more is taken
   */
  cover(left: number[], mostWaste: number, random: Random): PackedDrop[] {
    const order: [number, Seen][] = [];
    for (const s of this.seen.values()) if (s.waste <= mostWaste) order.push([s.waste + 0.3 * mostWaste * random(), s]);
    order.sort((a, b) => a[0] - b[0]);
    const out: PackedDrop[] = [];
    for (const [, s] of order)
      while (s.types.every((t, i) => left[t]! >= s.counts[i]!)) {
        s.types.forEach((t, i) => (left[t]! -= s.counts[i]!));
        out.push(s.drop);
      }
    return out;
  }
}
