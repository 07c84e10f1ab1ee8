import type { Film, Layout, LayoutComputeInput, PaneVerdict, VerdictInput } from '@yellow-pane/contracts';
import { judgePane, layPiecesOnRolls, methodFigures, type MethodFigures } from '@yellow-pane/core';

/** Heavy computations by name: plain data in, plain data out. The same in a worker thread and, for tests, in place. */
export const runners = {
  layout: (input: LayoutComputeInput): Layout => layPiecesOnRolls(input, input.steps, 60),
  methods: (input: { calls: Parameters<typeof methodFigures>[] }): MethodFigures[] => input.calls.map((c) => methodFigures(...c)),
  verdict: ({ input, films }: { input: VerdictInput; films: Film[] }): PaneVerdict => judgePane(input, films),
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
