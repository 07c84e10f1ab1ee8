import { dryAllowances } from '../cut/dry-allowances.js';
import { ground } from './ground.js';
import { ofEverySurface } from './shared.js';

/** What every surface has that film is laid on dry, whatever its kind. */
export const ofDrySurface = {
  ...ofEverySurface,
  ground,
  /** What is added to its pieces, where it differs from the job’s. */
  dry: dryAllowances.partial().nullable(),
};
