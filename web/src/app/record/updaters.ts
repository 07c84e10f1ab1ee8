import { kindOf, type BenchDocument, type JobDocument, type Patch, type RecordKind } from '@yellow-pane/contracts';
import { bringsBack, patchedBench, patchedJob } from '@yellow-pane/core/record';

const inJob = (kind: RecordKind) => kindOf(kind).inJob;
const inBench = (kind: RecordKind) => kindOf(kind).inBench;

/** The document after a change, in walking order. */
export const applyPatches = (doc: JobDocument, patches: readonly Patch[]): JobDocument => patchedJob(doc, patches, inJob);
/** True when these patches bring back something that is not in the document any more: then it must be loaded again. */
export const needsReload = (doc: JobDocument, patches: readonly Patch[]): boolean => bringsBack(doc, patches, inJob);
/** The firm's own records after a change. */
export const applyBenchPatches = (doc: BenchDocument, patches: readonly Patch[]): BenchDocument => patchedBench(doc, patches, inBench);
