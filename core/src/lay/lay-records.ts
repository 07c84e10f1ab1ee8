import type { Job, LayEntry, StepSet } from '@yellow-pane/contracts';
import type { JobRecords } from '../cut/index.js';

/** The records that laying looks at. */
export interface LayRecords extends JobRecords {
  readonly job: JobRecords['job'] & Pick<Job, 'lay' | 'firmId' | 'prepare'>;
  readonly stepSets: readonly StepSet[];
  readonly layEntries: readonly LayEntry[];
}
