import type { CutSettings, Drop, Layout, Piece, PlacedPiece, RollEdges, Row } from '@yellow-pane/contracts';
import { checkParts } from '../pairs.js';

/** What a checked plan is checked against. */
export interface LayoutCheck {
  readonly pieces: readonly Piece[];
  readonly rolls: readonly {
    readonly id: string;
    readonly widthMm: number;
    readonly availableMm: number;
    readonly pricePerM: number;
    readonly edges?: RollEdges;
    readonly lot?: string;
  }[];
  readonly settings: CutSettings;
}

/** Half a grain: what rounding may move an edge by. */
const SLACK_MM = 1 / 640;

/**
 * Checks a layout without knowing how it was made, in plain millimetres and from the drawing alone: every piece once, its
 * size and turn right, inside the roll, nothing overlapping, cuttable by knife and straightedge within the stage rule,
 * factory edges on roll edges, sums right.
 * @returns faults as sentences; empty = the plan may be cut
 */
export function checkLayout(layout: Layout, against: LayoutCheck): string[] {
  const faults: string[] = [];
  const say = (text: string) => void faults.push(text);
  const pieceOf = new Map(against.pieces.map((p) => [p.id, p]));
  const seen = new Map<string, number>();
  for (const r of layout.rolls) for (const p of placedOn(r.drops)) seen.set(p.pieceId, (seen.get(p.pieceId) ?? 0) + 1);
  for (const u of layout.unplaced) seen.set(u.pieceId, (seen.get(u.pieceId) ?? 0) + 1);
  for (const p of against.pieces) if (seen.get(p.id) !== 1) say(`Piece ${p.label} is laid ${seen.get(p.id) ?? 0} times.`);
  for (const id of seen.keys()) if (!pieceOf.has(id)) say(`Piece ${id} is on the roll but was not asked for.`);
  for (const p of against.pieces) checkParts(p).forEach(say);
  if (against.settings.mixLots === false) checkLots(layout, against, pieceOf, say);
  let used = 0;
  let cost = 0;
  for (const rollLayout of layout.rolls) {
    const roll = against.rolls.find((r) => r.id === rollLayout.rollId);
    if (!roll) {
      say(`Roll ${rollLayout.rollId} is not there.`);
      continue;
    }
    checkRoll(rollLayout.drops, roll, pieceOf, against.settings, say);
    const last = rollLayout.drops.at(-1);
    const end = last ? last.xMm + last.alongMm + against.settings.crosscutAllowanceMm : 0;
    if (Math.abs(end - rollLayout.usedMm) > 0.1) say(`Roll ${roll.id}: ${rollLayout.usedMm} mm are counted, ${end} mm are used.`);
    if (end > roll.availableMm + SLACK_MM) say(`Roll ${roll.id}: ${end} mm are used and ${roll.availableMm} mm are there.`);
    used += rollLayout.usedMm;
    cost += (rollLayout.usedMm / 1000) * roll.pricePerM;
  }
  if (Math.abs(used - layout.usedMm) > 0.1) say('The total length is not the sum of the rolls.');
  if (Math.abs(cost - layout.cost) > 0.01) say('The cost is not length times price.');
  return faults;
}

/** Panes that meet come from one lot. */
function checkLots(layout: Layout, against: LayoutCheck, pieceOf: ReadonlyMap<string, Piece>, say: (text: string) => void): void {
  const lotOf = new Map<string, { lot: string; label: string }>();
  for (const r of layout.rolls) {
    const lot = against.rolls.find((x) => x.id === r.rollId)?.lot ?? '';
    for (const p of placedOn(r.drops)) {
      const piece = pieceOf.get(p.pieceId);
      if (!piece?.meets) continue;
      const before = lotOf.get(piece.meets);
      if (!before) lotOf.set(piece.meets, { lot, label: piece.label });
      else if (before.lot !== lot) say(`${before.label} and ${piece.label} meet and come from different lots (${before.lot || 'none'}, ${lot || 'none'}).`);
    }
  }
}

const placedOn = (drops: readonly Drop[]): PlacedPiece[] => drops.flatMap((d) => d.columns.flatMap((c) => c.rows.flatMap((r) => r.pieces)));

function checkRoll(
  drops: readonly Drop[],
  roll: LayoutCheck['rolls'][number],
  pieceOf: ReadonlyMap<string, Piece>,
  settings: CutSettings,
  say: (text: string) => void,
): void {
  let free = 0;
  drops.forEach((drop, i) => {
    const name = `Drop ${i + 1}`;
    if (drop.xMm < free - SLACK_MM) say(`${name} starts before the one before it is cut off.`);
    free = drop.xMm + drop.alongMm + settings.crosscutAllowanceMm;
    if (drop.alongMm > settings.longestPullMm + SLACK_MM) say(`${name} is longer than the longest pull.`);
    if (settings.largestSheetM2 !== null && (drop.alongMm * roll.widthMm) / 1e6 > settings.largestSheetM2 + 1e-6)
      say(`${name} is too heavy a sheet for one person.`);
    let across = 0;
    for (const column of [...drop.columns].sort((a, b) => a.yMm - b.yMm)) {
      if (column.yMm < across - SLACK_MM) say(`${name}: two columns overlap, no slit separates them.`);
      across = column.yMm + column.acrossMm + settings.slitAllowanceMm;
      if (column.acrossMm < settings.smallestStripMm - SLACK_MM) say(`${name}: a strip is narrower than this bench handles.`);
      if (column.yMm + column.acrossMm > roll.widthMm + SLACK_MM) say(`${name}: a column reaches over the roll edge.`);
      let along = drop.xMm;
      for (const row of [...column.rows].sort((a, b) => a.xMm - b.xMm)) {
        if (row.xMm < along - SLACK_MM) say(`${name}: two rows overlap, no crosscut separates them.`);
        along = row.xMm + row.alongMm + settings.crosscutAllowanceMm;
        if (row.xMm + row.alongMm > drop.xMm + drop.alongMm + SLACK_MM) say(`${name}: a row is longer than its drop.`);
        checkRow(row, column.yMm, column.acrossMm, name, settings, say);
      }
    }
  });
  const placed = placedOn(drops);
  placed.forEach((p) => checkPiece(p, pieceOf.get(p.pieceId), roll, say));
  const byX = [...placed].sort((a, b) => a.xMm - b.xMm);
  byX.forEach((a, i) => {
    for (let j = i + 1; j < byX.length && byX[j]!.xMm < a.xMm + a.alongMm - SLACK_MM; j++) {
      const b = byX[j]!;
      if (a.yMm < b.yMm + b.acrossMm - SLACK_MM && b.yMm < a.yMm + a.acrossMm - SLACK_MM) say(`Pieces ${a.pieceId} and ${b.pieceId} overlap.`);
    }
  });
}

function checkRow(row: Row, yMm: number, acrossMm: number, name: string, settings: CutSettings, say: (text: string) => void): void {
  if (settings.stages === 3 && row.pieces.length > 1) say(`${name}: two pieces side by side in a row need a fourth stage.`);
  let y = yMm;
  for (const p of [...row.pieces].sort((a, b) => a.yMm - b.yMm)) {
    if (p.yMm < y - SLACK_MM) say(`${name}: pieces in a row overlap.`);
    y = p.yMm + p.acrossMm + settings.slitAllowanceMm;
    if (p.yMm + p.acrossMm > yMm + acrossMm + SLACK_MM) say(`${name}: a piece is wider than its column.`);
    if (p.xMm < row.xMm - SLACK_MM || p.xMm + p.alongMm > row.xMm + row.alongMm + SLACK_MM) say(`${name}: a piece is longer than its row.`);
  }
}

function checkPiece(p: PlacedPiece, piece: Piece | undefined, roll: LayoutCheck['rolls'][number], say: (text: string) => void): void {
  if (!piece) return;
  const upright = p.turn === 0 || p.turn === 180;
  const [across, along] = upright ? [piece.widthMm, piece.heightMm] : [piece.heightMm, piece.widthMm];
  if (!piece.turns.includes(p.turn)) say(`Piece ${piece.label} may not be turned by ${p.turn}°.`);
  if (p.acrossMm < across - SLACK_MM || p.alongMm < along - SLACK_MM) say(`Piece ${piece.label} is cut too small.`);
  if (p.acrossMm > across + 0.1 || p.alongMm > along + 0.1) say(`Piece ${piece.label} is cut too large.`);
  if (piece.repeat) {
    const { repeatMm, startMm } = piece.repeat;
    const off = (((p.xMm - startMm) % repeatMm) + repeatMm) % repeatMm;
    if (Math.min(off, repeatMm - off) > 0.2) say(`Piece ${piece.label}: its pattern would be ${off.toFixed(1)} mm off the panes beside it.`);
  }
  if (!piece.factoryEdge) return;
  // clockwise from the pane's top at turn 0 pointing along the roll: its right side lies at the near edge
  const clockwise = ['top', 'right', 'bottom', 'left'] as const;
  const pointing = (clockwise.indexOf(piece.factoryEdge) + p.turn / 90) % 4;
  const edges = roll.edges ?? 'both';
  const near = edges === 'both' || edges === 'near';
  const far = edges === 'both' || edges === 'far';
  const touches = pointing === 1 ? near && p.yMm <= SLACK_MM : pointing === 3 ? far && p.yMm + p.acrossMm >= roll.widthMm - SLACK_MM : false;
  if (!touches) say(`Piece ${piece.label}: its factory edge does not lie on a roll edge.`);
}
