import * as z from 'zod';
import { ofDrySurface } from './dry-surface.js';

/**
 * What can be taped of a column. Its front is where people come from. Girth at three heights; height at four sides; two widths across, square to each other
 * (girth alone hides an oval); of a square one its corner radius; how far its foot stands out (+) or in (−) from a line that hangs from its top.
 */
export const columnMeasure = z.enum([
  'girthFoot',
  'girthMiddle',
  'girthTop',
  'heightFront',
  'heightRight',
  'heightBack',
  'heightLeft',
  'acrossFront',
  'acrossSide',
  'cornerRadius',
  'plumbFront',
  'plumbRight',
  'plumbBack',
  'plumbLeft',
]);
export type ColumnMeasure = z.infer<typeof columnMeasure>;

/** What a column stands on and what it carries, where film ends. */
export const columnEnds = z.object({ foot: z.enum(['floor', 'base']), head: z.enum(['ceiling', 'capital']) });

/** One physical column, film laid all round it. */
export const column = z.object({
  ...ofDrySurface,
  kind: z.literal('column'),
  section: z.enum(['round', 'square']),
  ends: columnEnds.default({ foot: 'floor', head: 'ceiling' }),
});
export type Column = z.infer<typeof column>;
