import type { ShrinkInput, ShrinkPlan } from '@yellow-pane/contracts';
import { boundingBox, type Polygon } from '../geometry/index.js';
import { contentHash, Memo, shelf } from '../ground/index.js';
import { archLine, chosenLine, straightLine, type LinePoint } from './anchor-line.js';
import { halfGaps, levelBalance, withTilt, type BalancedAnchor } from './balance.js';
import { sightsOfBows, sightsOfCloud } from './bow-sights.js';
import { finishedOutline, halfHeight } from './flat-film.js';
import { fitPane, type PaneFit } from './pane-fit.js';
import { ROOM_MM } from './pane-prior.js';
import { fieldFromLine, fieldOfArch, lossesFrom, type ShrinkField } from './shrink-field.js';
import { addForms, leastSigma, slackForm, weigh } from './slack-range.js';

/** Two sigma: nineteen of twenty. */
export const SIGMAS = 2;
/**
 * Nineteen of twenty of what has to go: a mixture of kinds of panes has a wide spread for its own sake, most errors lie well inside it.
 * @source tried on 300 made-up panes, smooth, rounder towards the bottom, turned in sharply, saddles (claims.spec.ts)
 */
export const SLACK_SIGMAS = 1.6;

/** A pane brought to the point where any anchor line can be tried on it. */
export interface FormedPane {
  readonly fit: PaneFit;
  readonly outline: Polygon;
  readonly finished: Polygon;
  readonly balanced: BalancedAnchor | null;
  readonly middleMm: number;
}

/** Two: the pane in hand, and the one looked at before. */
const formed = shelf<FormedPane>(2);

/** The pane fitted and its balanced line found: the slow part, kept while only the line, the film or the school changes. @throws RangeError without outline or curve */
export function formedPane(input: ShrinkInput, memo = new Memo()): FormedPane {
  const { curved, edgeGapMm, stepMm } = input;
  const outline: Polygon = curved.cloud ? curved.cloud.outline : input.outline;
  const key = contentHash([curved.cloud ? [curved.cloud.fileName, curved.cloud.cells.length, curved.cloud.cells[0], curved.cloud.noiseMm] : [curved.bows.map((b) => [b.id, b.way, b.atMm, b.span, b.depthMm]), curved.turnsIn ?? []], outline, curved.seat, curved.dotBorderMm, edgeGapMm, stepMm]); // prettier-ignore
  return memo.once(formed, key, () => {
    const fitted = fittedPane(input, memo);
    return { ...fitted, balanced: balancedLine(fitted, stepMm) };
  });
}

/** The balanced line, tilted only where left and right differ by more than the measures leave open: noise in two bows makes no line slope. */
function balancedLine({ fit, finished, middleMm }: Omit<FormedPane, 'balanced'>, stepMm: number): BalancedAnchor | null {
  const level = levelBalance(fit.surface, finished, middleMm, { stepMm });
  if (!level) return null;
  const line = straightLine(fit.surface, finished, level.anchor, stepMm);
  const { minX, maxX } = boundingBox(finished);
  const half = (across: readonly [number, number]) => addForms(slackForm(fit, finished, line, 'below', across), slackForm(fit, finished, line, 'above', across), -1); // prettier-ignore
  const form = addForms(half([minX, middleMm]), half([middleMm, maxX]), -1);
  const [left, right] = halfGaps(lossesFrom(fit.surface, finished, stepMm)(line));
  const apart = Math.abs(left - right);
  const isSure = apart > SIGMAS * leastSigma(fit, form) && apart > SIGMAS * weigh(fit, form).sigmaMm;
  return isSure ? withTilt(fit.surface, finished, level, { stepMm }) : level;
}

/** Glass that film is formed on. @source house limits: wider than any windscreen, smaller than any port light */
const SMALLEST_MM = 60;
const LARGEST_MM = 6000;

/** The pane fitted to its bows or its cloud; no line on it yet. */
export function fittedPane(input: ShrinkInput, memo: Memo): Omit<FormedPane, 'balanced'> {
  const { curved, edgeGapMm } = input;
  const outline: Polygon = curved.cloud ? curved.cloud.outline : input.outline;
  const box = boundingBox(outline);
  const longMm = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  if (!(longMm >= SMALLEST_MM && longMm <= LARGEST_MM))
    throw new RangeError(
      `This pane would be ${Math.round(longMm)} mm long: film is formed on glass of ${SMALLEST_MM} mm to ${LARGEST_MM / 1000} m. Look at the sizes and their unit.`,
    );
  const grown = { minX: box.minX - ROOM_MM, minY: box.minY - ROOM_MM, maxX: box.maxX + ROOM_MM, maxY: box.maxY + ROOM_MM };
  const sights = curved.cloud ? sightsOfCloud(curved.cloud) : sightsOfBows(outline, curved.bows).sights;
  if (sights.length < 2) throw new RangeError('Too few bows lie on the glass: lay the straightedge once across and once upright at least.');
  const fit = fitPane(grown, sights, curved.turnsIn, memo);
  const finished = finishedOutline(outline, curved.seat, curved.dotBorderMm, edgeGapMm);
  if (!finished) throw new RangeError('Nothing of this pane is left inside its dot border and edge gap: look at the border and the sizes.');
  return { fit, outline, finished, middleMm: (box.minX + box.maxX) / 2 };
}

/** An arch, asked for or because of the seat. @source common practice: H on fixed glass, arch on drop glass */
export const isArch = ({ anchor, seat }: Pick<ShrinkInput['curved'], 'anchor' | 'seat'>): boolean =>
  anchor.kind === 'arch' || (anchor.kind === 'balanced' && seat === 'drop');

/** A line that lies where it was asked for, and what hangs from it. */
export interface TriedLine {
  readonly kind: ShrinkPlan['anchor']['kind'];
  /** Where the film is pressed down: on the pane. */
  readonly line: readonly LinePoint[];
  /** The same line from side to side, also where the upper edge of the pane falls away under an arch: its heights are told by this one. */
  readonly across: readonly LinePoint[];
  readonly field: ShrinkField;
}

/** The line in hand on this pane and its field; quick enough to be done while it is dragged. */
export function tryLine(pane: FormedPane, input: Pick<ShrinkInput, 'curved' | 'stepMm'>): TriedLine {
  const { stepMm, curved } = input;
  const { surface } = pane.fit;
  const options = { stepMm };
  if (curved.anchor.kind === 'through' || curved.anchor.kind === 'forced') {
    const line = chosenLine(surface, pane.finished, curved.anchor, stepMm);
    if (line) return { kind: curved.anchor.kind, line, across: line, field: fieldFromLine(surface, pane.finished, line, options) };
  }
  // a line of somebody's own that does not lie on this pane gives way to what is usual there
  const anchor = curved.anchor.kind === 'h' || curved.anchor.kind === 'arch' ? curved.anchor : { kind: 'balanced' as const };
  if (isArch({ seat: curved.seat, anchor })) {
    const across = archLine(surface, pane.finished, stepMm);
    const { line, field } = fieldOfArch(surface, pane.finished, across, options);
    if (line.length > 1) return { kind: 'arch', line, across, field };
  }
  if (pane.balanced) {
    const line = straightLine(surface, pane.finished, pane.balanced.anchor, stepMm);
    return { kind: 'balanced', line, across: line, field: pane.balanced.field };
  }
  const line = straightLine(surface, pane.finished, { through: { u: pane.middleMm, v: halfHeight(pane.finished) }, way: { du: 1, dv: 0 } }, stepMm);
  return { kind: 'middle', line, across: line, field: fieldFromLine(surface, pane.finished, line, options) };
}
