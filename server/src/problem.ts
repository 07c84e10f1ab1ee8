import type { ErrorCode, Fault } from '@yellow-pane/contracts';
import { errorTable } from '@yellow-pane/contracts';

/** A refusal with its place in the error table; becomes problem details at the edge. */
export class Refusal extends Error {
  constructor(
    readonly code: ErrorCode,
    detail?: string,
    readonly faults: readonly Fault[] = [],
  ) {
    super(detail ?? errorTable[code].sentence);
  }
}
