import { panesIn } from '../../../demo/src/index.js';
import type { Film, JobFile, LogEntry, Pane } from '@yellow-pane/contracts';
import { demoFirm, ternPoint } from '../../../demo/src/index.js';
import { Memo } from '../ground/index.js';

/** The demo harbour as the cut reads it: records of a job with nothing cut yet. */
export const file: JobFile = ternPoint();
export const records = {
  firm: demoFirm,
  job: file.job,
  surfaces: file.surfaces,
  readings: file.readings,
  films: file.films,
  rolls: file.rolls,
  entries: [] as LogEntry[],
  memo: new Memo(),
};
export const film = (name: string): Film => file.films.find((f) => f.name === name)!;
export const pane = (name: string): Pane => panesIn(file).find((s) => s.name === name)!;
