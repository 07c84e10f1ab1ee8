import type { Layout, LeftoverRule, Piece, Roll } from '@yellow-pane/contracts';
import { leftoverPricePerM, valueOf } from '../stock/index.js';
import { restsOf } from './knife-order.js';
import { minutesPer, workMinutes } from './minutes.js';

/** What a plan costs, film and minutes, and what each pane bears of it. Money in the job's currency. */
export interface PlanCost {
  readonly film: number;
  readonly usedM: number;
  /** Film that becomes no piece and no leftover. */
  readonly wasteM2: number;
  readonly wasteMoney: number;
  /** The waste as a length of the roll it comes from. */
  readonly wasteM: number;
  readonly leftoverCount: number;
  readonly leftoverM2: number;
  /** What the leftovers count for by the firm's rule. */
  readonly leftoverMoney: number;
  readonly cuttingMinutes: number;
  readonly trimmingMinutes: number;
  readonly workMoney: number;
  /** Film and minutes, less what the leftovers count for. */
  readonly total: number;
  readonly perPane: readonly { readonly surfaceId: string; readonly label: string; readonly money: number; readonly areaM2: number }[];
}

/**
 * Adds a plan up. Each piece bears its share of the film of its roll by area (waste and leftovers with it) and its own minutes; cuts are
 * shared by the pieces of a drop.
 */
export function costOfPlan(layout: Layout, pieces: readonly Piece[], rolls: readonly Roll[], rule: LeftoverRule, hourRate: number): PlanCost {
  const byId = new Map(pieces.map((p) => [p.id, p]));
  const rollOf = new Map(rolls.map((r) => [r.id, r]));
  let [film, waste, wasteMoney, wasteM, leftoverM2, leftoverMoney, leftoverCount] = [0, 0, 0, 0, 0, 0, 0];
  const bears = new Map<string, { label: string; money: number; areaM2: number }>();
  const cutMoney = (minutesPer.knifeCut / 60) * hourRate;
  const laidCount = layout.rolls.reduce((s, r) => s + r.drops.reduce((t, d) => t + d.columns.reduce((u, c) => u + c.rows.length, 0), 0), 0);
  for (const laid of layout.rolls) {
    const roll = rollOf.get(laid.rollId);
    if (!roll || laid.usedMm === 0) continue;
    const money = valueOf(roll, laid.usedMm);
    film += money;
    const usedM2 = (laid.usedMm * roll.widthMm) / 1e6;
    const rests = laid.drops.flatMap((d) => restsOf(d, roll.widthMm, rule)).filter((r) => r.isWorthKeeping);
    const keptM2 = rests.reduce((s, r) => s + (r.alongMm * r.acrossMm) / 1e6, 0);
    const kept = rests.reduce((s, r) => s + (r.alongMm / 1000) * Number(leftoverPricePerM(roll, r.acrossMm, rule)), 0);
    const placed = laid.drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces)));
    const piecesM2 = placed.reduce((s, p) => s + (p.alongMm * p.acrossMm) / 1e6, 0);
    leftoverCount += rests.length;
    leftoverM2 += keptM2;
    leftoverMoney += kept;
    const lost = Math.max(0, usedM2 - piecesM2 - keptM2);
    waste += lost;
    wasteMoney += usedM2 > 0 ? (money * lost) / usedM2 : 0;
    wasteM += (lost * 1e6) / roll.widthMm / 1000;
    for (const p of placed) {
      const piece = byId.get(p.pieceId);
      if (!piece) continue;
      const area = (p.alongMm * p.acrossMm) / 1e6;
      const parts = piece.parts.length ? piece.parts : [piece];
      for (const part of parts) {
        const share = area / parts.length;
        const own = bears.get(part.surfaceId) ?? { label: part.label, money: 0, areaM2: 0 };
        own.money += piecesM2 > 0 ? ((money - kept) * share) / piecesM2 : 0;
        own.money += ((layout.cutCount / Math.max(1, laidCount)) * cutMoney) / parts.length + (workMinutes([piece], 0) / 60 / parts.length) * hourRate;
        own.areaM2 += share;
        bears.set(part.surfaceId, own);
      }
    }
  }
  const cuttingMinutes = layout.cutCount * minutesPer.knifeCut;
  const trimmingMinutes = workMinutes(pieces.filter((p) => !layout.unplaced.some((u) => u.pieceId === p.id)), 0); // prettier-ignore
  const workMoney = ((cuttingMinutes + trimmingMinutes) / 60) * hourRate;
  return {
    film,
    usedM: layout.usedMm / 1000,
    wasteM2: waste,
    wasteMoney,
    wasteM,
    leftoverCount,
    leftoverM2,
    leftoverMoney,
    cuttingMinutes,
    trimmingMinutes,
    workMoney,
    total: film + workMoney - leftoverMoney,
    perPane: [...bears].map(([surfaceId, b]) => ({ surfaceId, ...b })),
  };
}
