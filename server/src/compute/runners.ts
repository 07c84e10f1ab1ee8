import { cutMethod } from '@yellow-pane/contracts';
import type {
  CloudRequest,
  CutSettings,
  Film,
  Layout,
  LayoutComputeInput,
  LogEntry,
  PaneCloud,
  PaneShape,
  PaneVerdict,
  ShrinkInput,
  ShrinkPlan,
  SurveyResult,
  TapedInput,
  TapedResult,
  VerdictInput,
} from '@yellow-pane/contracts';
import { surveyInWords, tapedInWords } from './survey-in-words.js';
import {
  cloudOfPane,
  heatCard,
  judgePane,
  layPiecesOnRolls,
  Memo,
  methodFigures,
  planStrokes,
  corrugationCard,
  daysCard,
  jointsCard,
  zonesOfPanel,
  type PanelZones,
  type TexturedPanel,
  type ZoneDone,
  type ZonesAsked,
  domeCard,
  wrappedCornerCard,
  recessCard,
  shrinkPlan,
  type MethodFigures,
  type PlainRecords,
  type Result,
  type SqueegeeAnswer,
  type StrokesAsked,
  type TapeReading,
} from '@yellow-pane/core';

/** The tapes of one opening. */
export interface SurveyAsked {
  readonly readings: readonly TapeReading[];
  readonly calledCrooked: boolean;
  readonly shape: PaneShape | null;
}

/** Methods of cutting a film, to be compared. */
export interface MethodsAsked {
  readonly records: PlainRecords & { readonly entries: readonly LogEntry[] };
  readonly settings: CutSettings;
  readonly filmId: string;
}

/** Panels of a textured wall, what the log says of them, and how they are worked. */
export interface ZonesComputeInput {
  readonly panels: readonly TexturedPanel[];
  readonly logged: readonly ZoneDone[];
  readonly asked: ZonesAsked;
}

/** What this thread has had worked out. */
const memo = new Memo();

/** Heavy computations by name: plain data in, plain data out. The same in a worker thread and, for tests, in place. */
export const runners = {
  layout: (input: LayoutComputeInput): Layout => layPiecesOnRolls(input, input.steps, 60),
  methods: ({ records, settings, filmId }: MethodsAsked): MethodFigures[] =>
    cutMethod.options.map((m) => methodFigures({ ...records, memo }, settings, filmId, m)),
  strokes: (asked: readonly StrokesAsked[]): SqueegeeAnswer[] => asked.map((a) => planStrokes(a, memo)),
  survey: (asked: SurveyAsked): SurveyResult => surveyInWords(asked.readings, asked.calledCrooked, asked.shape),
  taped: (asked: TapedInput): TapedResult => tapedInWords(asked, memo),
  heat: heatCard,
  recess: recessCard,
  corrugation: corrugationCard,
  joints: jointsCard,
  days: daysCard,
  zones: ({ panels, logged, asked }: ZonesComputeInput): PanelZones[] => panels.map((p) => zonesOfPanel(p, logged, asked)),
  dome: domeCard,
  wrappedCorner: wrappedCornerCard,
  verdict: ({ input, films }: { input: VerdictInput; films: Film[] }): PaneVerdict => judgePane(input, films, memo),
  shrink: (input: ShrinkInput): Result<ShrinkPlan> => {
    try {
      return { ok: true, value: shrinkPlan(input, memo) };
    } catch (error) {
      // what the measures do not allow is told in words
      if (error instanceof RangeError) return { ok: false, message: error.message };
      throw error;
    }
  },
  cloud: (asked: CloudRequest): Result<PaneCloud> => {
    const bytes = asked.base64 !== null ? new Uint8Array(Buffer.from(asked.base64, 'base64')) : new Uint8Array(Buffer.from(asked.text ?? '', 'latin1'));
    return cloudOfPane(bytes, asked.fileName, asked.unit, asked.clicks);
  },
} as const;

export type RunnerName = keyof typeof runners;
export interface Compute {
  run<N extends RunnerName>(name: N, input: Parameters<(typeof runners)[N]>[0]): Promise<ReturnType<(typeof runners)[N]>>;
  close(): Promise<void>;
}

/** Runs in place: for tests and small tools. */
export const inPlace: Compute = {
  run: async (name, input) => (runners[name] as (x: unknown) => never)(input),
  close: async () => undefined,
};
