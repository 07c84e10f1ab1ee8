import type { Film } from '@yellow-pane/contracts';
import { workClassOf } from '../films/index.js';

/** Gap that thick film keeps at least. @source common practice: 2–3 mm for security film, 1–2 mm else */
const THICK_EDGE_GAP_MM = 2.5;

/** Edge gap of a pane, the same for the knife at the bench and for the trim on the glass: what the job says, and for thick film not under its own. */
export const edgeGapFor = (film: Pick<Film, 'kind'>, jobGapMm: number): number =>
  workClassOf(film) === 'security' ? Math.max(jobGapMm, THICK_EDGE_GAP_MM) : jobGapMm;
