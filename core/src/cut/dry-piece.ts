import type { DryAllowances, Film, Piece } from '@yellow-pane/contracts';
import type { UnitSystem } from '../ground/index.js';
import type { RunsOn } from './runs-on.js';

/** Everything that decides the pieces of a surface that film is laid on dry. */
export interface DryToPiece<Surface, Survey> {
  readonly surface: Surface;
  readonly survey: Survey;
  readonly allowances: DryAllowances;
  readonly film: Pick<Film, 'id' | 'name' | 'direction' | 'drying' | 'mounting' | 'patternRepeatMm' | 'stretchMaxPct'>;
  /** Widths of the rolls there are, mm; none: the film is as wide as it has to be. */
  readonly rollWidthsMm: readonly number[];
  readonly units: UnitSystem;
}
/** A piece, without the names that its plan gives it. */
export interface DryPart {
  /** How far its head hangs below the highest head of its surface, where a pattern runs on over both: under a slope, below an opening. Left out: beside it. */
  readonly headDropMm?: number;
  /** How its pattern runs on along the roll from the face before it. Left out: its direction is upright. */
  readonly runsOn?: RunsOn;
  readonly piece: Omit<Piece, 'id' | 'label'>;
  /** Which part of the surface it covers; empty: all of it. */
  readonly suffix: string;
}
/** A piece that is trimmed all round when it lies, as far as most are alike. */
export const laidOver = {
  method: 'laid-over',
  factoryEdge: null,
  trimmedEdges: ['top', 'right', 'bottom', 'left'],
  path: null,
  holes: [],
  meets: null,
  repeat: null,
  isPlotted: false,
  parts: [],
  fallback: null,
} satisfies Partial<Piece>;
/** The pieces of a surface, or why there are none. `note`: what should be known of them before they are cut. */
export type DryPieces = { readonly pieces: readonly DryPart[]; readonly note?: string | null } | { readonly blocked: string };
