import type { JobDocument } from '@yellow-pane/contracts';
import { demoFirm, demoPersons, ternInterior } from '../../../../demo/src/index';

const emptyStock = { entries: [], reservations: [], jobNames: {} };
/** The interior of the demo as a bench tells it, with nothing cut or laid yet. */
export const interiorDocument = (): JobDocument =>
  ({ revision: 1, firm: demoFirm, persons: demoPersons, ...ternInterior(), stock: emptyStock, canUndo: null, canRedo: null }) as never;
