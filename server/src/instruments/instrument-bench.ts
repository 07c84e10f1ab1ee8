import type { InstrumentAct, InstrumentStatus } from '@yellow-pane/contracts';

/** The instruments that are connected to the bench, real or simulated. */
export interface InstrumentBench {
  statuses(): InstrumentStatus[];
  /** @throws Refusal when the instrument does not answer */
  act(act: InstrumentAct): InstrumentStatus;
  /** Hears of every change and reading. @returns stops hearing */
  listen(hear: (status: InstrumentStatus) => void): () => void;
}
