import type { BenchCut, DryAllowances, Film, Panel, PanelWrap, Turn } from '@yellow-pane/contracts';
import type { CornerPlan } from '../form/index.js';
import { capital, listed } from '../ground/index.js';
import { turnsOf } from './piece.js';

export const SIDES = ['left', 'right', 'top', 'bottom'] as const;
export type Side = (typeof SIDES)[number];
/** Something of each side, mm. */
export type Reach = Readonly<Record<Side, number>>;

/** What the sides of a face are called where one stands before it. */
export type SideNames = Readonly<Record<Side, string>>;
/** Of what stands upright. */
export const uprightNames: SideNames = { left: 'left', right: 'right', top: 'top', bottom: 'foot' };

/** Held between two fingers past what is wrapped, and trimmed off at the end. @source house rule */
export const GRIP_MM = 10;
/** Film ends so far from an arris that other film comes round: never a seam on the arris. @source common practice: a ⅛ in (3 mm) ruler */
export const OFF_ARRIS_MM = 3;
/** Liner folded back at the top before the centre is tacked. @source common practice: 4 in */
export const FOLD_BACK_MM = 100;
/** How far film goes over each edge, from the arris on; 0: it is trimmed there. With film on both faces an edge is returned, so that no seam lies on the arris. */
export function wrapDepth(wrap: PanelWrap, edgeGirthMm: number, isBothFaces: boolean, a: Pick<DryAllowances, 'returnMm'>): number {
  if (wrap === 'trimmed') return 0;
  return edgeGirthMm + (wrap === 'return' || isBothFaces ? a.returnMm : 0);
}

/** How far a piece reaches past each side of its face: what is wrapped and what holds it, the firm's figure where nothing is. */
export const reachOf = (depth: Reach, { panelMm }: Pick<DryAllowances, 'panelMm'>): Record<Side, number> =>
  Object.fromEntries(SIDES.map((s) => [s, depth[s] === 0 ? panelMm : Math.max(panelMm, depth[s] + GRIP_MM)])) as Record<Side, number>;
/** What is said of a direction that lies level over several. Without a repeat there is no figure that one could be matched to the next by. */
export const levelRunWords = ({ patternRepeatMm }: Pick<Film, 'patternRepeatMm'>): string =>
  patternRepeatMm === null
    ? 'Grain lies level over several: one lot. This film has no repeat, so it runs on in kind only, not line for line.'
    : 'Grain runs on from one to the next: one lot, each begins in the repeat where the one before it ends, all heads at the same edge of the roll.';

/** Turns that leave the film's direction as it is wanted: along the roll it is upright, so a level grain lies across it. */
export function turnsFor(direction: Film['direction'], grain: 'upright' | 'level'): Turn[] {
  const upright = turnsOf(direction);
  return grain === 'upright' || upright.length === 4 ? upright : upright.map((t) => ((t + 90) % 360) as Turn);
}

/**
 * Words of the pencil line round a face, liner up, where left and right are exchanged. @param from how far it lies from each end of the piece
 * @param seams ends that are seams: nothing is taped from there
 */
export function faceMarkWords(what: string, names: SideNames, from: Reach, f: (mm: number) => string, seams: readonly string[] = []): string {
  const told = (['top', 'bottom', 'left', 'right'] as const).filter((s) => !seams.includes(names[s])).map((s) => `${f(from[s])} from the ${names[s]}`);
  return `Pencil on the liner: the ${what}, ${listed(told)} as it lies.`;
}

/** Of these turns the ones that have the head where it is wanted: 0 or 90 is up. */
export const headed = (turns: readonly Turn[], head: 'any' | 'up' | 'down'): Turn[] =>
  head === 'any' ? [...turns] : head === 'up' ? turns.filter((t) => t < 180) : [...new Set(turns.map((t) => ((t % 180) + 180) as Turn))];

/** How a face lies on its piece. */
export interface FaceOnPiece {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly reach: Reach;
  readonly depth: Reach;
  readonly cover: { readonly widthMm: number; readonly heightMm: number };
}

/** Whether film goes over two edges that meet. */
export const hasWrappedCorner = ({ wraps }: Pick<Panel, 'wraps'>): boolean =>
  (wraps.left !== 'trimmed' || wraps.right !== 'trimmed') && (wraps.top !== 'trimmed' || wraps.bottom !== 'trimmed');

/** Where film goes over two edges that meet, and where it goes over one beside an edge that is trimmed. */
export function cutsOfCorners(
  laid: FaceOnPiece,
  a: DryAllowances,
  at: { left: number; right: number; foot: number; top: number },
  f: (mm: number) => string,
  names: SideNames = uprightNames,
  isCut: (corner: string) => boolean = () => true,
  round: Pick<CornerPlan, 'is' | 'cutInsetMm'> | null = null,
): BenchCut[] {
  const { widthMm, heightMm, depth } = laid;
  const insetMm = round?.cutInsetMm ?? 0;
  const inside = insetMm >= 1 ? `${f(insetMm)} inside it, both ways` : '';
  const point = (xMm: number, yMm: number) => ({ xMm, yMm, bulge: 0 });
  const out: BenchCut[] = [];
  for (const v of ['top', 'bottom'] as const)
    for (const h of ['left', 'right'] as const) {
      const [x, y] = [h === 'left' ? at.left : at.right, v === 'top' ? at.top : at.foot];
      const [endX, endY] = [h === 'left' ? 0 : widthMm, v === 'top' ? heightMm : 0];
      const up = v === 'top' ? 1 : -1;
      const name = `${capital(names[v])} ${h}`;
      const cut = (path: BenchCut['path'], words: string): void => void out.push({ layer: 'film', later: true, path, words: `${name}: ${words}` });
      if (!isCut(`${names[v]} ${h}`) || (depth[h] === 0 && depth[v] === 0)) continue;
      if (depth[h] === 0) {
        cut([point(x, endY), point(x, y)], `in along the ${h} arris to the corner, so that the ${names[v]} can fold.`);
        continue;
      }
      if (depth[v] === 0) {
        cut([point(endX, y), point(x, y)], `in along the ${names[v]} arris to the corner, so that the ${h} side can fold.`);
        continue;
      }
      if (a.corner === 'envelope' || round?.is === 'draws') continue;
      // round corners are cut from where film comes to its figure
      const begin = point(x - Math.sign(endX - x) * insetMm, y - up * insetMm);
      if (a.corner === 'mitre') {
        cut(
          [begin, point(x + Math.sign(endX - x) * Math.min(Math.abs(endX - x), Math.abs(endY - y)), y + up * Math.min(Math.abs(endX - x), Math.abs(endY - y)))],
          `45° from ${inside ? `the corner, ${inside},` : 'the corner'} outwards; the ${h} side goes round first, what the ${names[v]} has too much is trimmed on it.`,
        );
        continue;
      }
      const tab = Math.min(a.cornerTabMm, Math.abs(endY - y) / 2);
      cut([point(endX, y + up * tab), point(x, y + up * tab), point(x, endY)], `the waste out, ${f(tab)} past the arris and along the ${h} line.`);
      cut(
        [point(x, y + up * tab), point(x, y), ...(inside ? [begin] : [])],
        `down to the corner${inside ? ` and on to ${inside}` : ''}: the tab of the ${h} side goes round first, the ${names[v]} over it.`,
      );
    }
  return out;
}

/** Seen from the other side. */
export const mirroredCut = (c: BenchCut, widthMm: number): BenchCut => ({
  ...c,
  path: c.path.map((q) => ({ ...q, xMm: widthMm - q.xMm, bulge: q.bulge === 0 ? 0 : -q.bulge })),
});
