import type { PaneLook, PinKind, PinSpread, PinState } from '@yellow-pane/contracts';
import type { MendKind, Patient } from './causes.js';
import type { CheckState } from './check-job.js';
import { isUsualLook } from './diagnosis.js';

/** What is seen, as one says it. */
export const pinNames: Record<PinKind, string> = {
  pockets: 'Water pockets, milky patches',
  haze: 'A veil',
  bubble: 'A bubble',
  'bubble-field': 'Many small bubbles',
  'bubble-line': 'Beads along a line',
  speck: 'A speck',
  hair: 'A hair, lint',
  crease: 'A crease',
  fingers: 'Little fingers at an edge',
  'light-line': 'A light line at the edge',
  'edge-up': 'An edge that stands off',
  'fine-lines': 'Many fine tight lines',
  streak: 'A stripe or wave',
  scratch: 'A scratch',
  crack: 'A crack',
  fog: 'Fog no cloth reaches',
};
/** What can be picked of a patient, in the order it is offered. */
export const kindsOf = (patient: Patient): PinKind[] => (Object.keys(pinNames) as PinKind[]).filter((kind) => isUsualLook(patient, kind));
/** The same on film that was laid dry, where it is something else. */
const dryNames: Partial<Record<PinKind, string>> = {
  haze: 'Pale, as if it did not touch',
  'bubble-line': 'A line of air',
  'light-line': 'The ground shows at an edge or seam',
  'fine-lines': 'Tight shiny lines',
  crack: 'A cut or tear',
};
/** What is seen, by whether film was laid wet on glass or dry. */
export const pinNamesOf = (patient: Patient): Record<PinKind, string> => (patient === 'dry' ? { ...pinNames, ...dryNames } : pinNames);
export const spreadNames: Record<PinSpread, string> = { one: 'by itself', line: 'along a line', edge: 'at an edge', field: 'all over a part' };
export const pinStateWords: Record<PinState, string> = {
  open: 'open',
  watched: 'watched',
  mended: 'mended',
  replaced: 'gone with the old piece',
  left: 'left as it is',
  accepted: 'accepted by the customer',
};
export const mendWords: Record<MendKind, string> = {
  mend: 'Mend it now',
  wait: 'Wait',
  replace: 'Cut another piece',
  leave: 'Leave it: it is not the film',
  wipe: 'Wipe it off',
  judge: 'Hold it to the rule',
  stop: 'Stop, and fetch somebody',
};
/** How what was laid dry stands: there is nothing in it that dries. */
export const dryStateWords: Record<CheckState, string> = { drying: 'laid', due: 'due', late: 'due', seen: 'to decide', clear: 'looked over' };
export const checkStateWords: Record<CheckState, string> = {
  drying: 'drying',
  due: 'due',
  late: 'not clear in time',
  seen: 'to decide',
  clear: 'clear',
};

/** A look at a pane, as one says it. */
export const lookText = (look: PaneLook): string =>
  ({
    none: look.isClean ? 'looked at: clean and clear' : 'looked at: no water left',
    some: 'looked at: some water left',
    much: 'looked at: wet as on the first day',
  })[look.water];

/** Odds as one says them, so that nobody takes a reckoned share for a measured one. */
export const oddsWords = (odds: number): string =>
  odds >= 0.95 ? 'nearly certain' : odds >= 0.75 ? 'very likely' : odds >= 0.5 ? 'likely' : odds >= 0.25 ? 'possible' : 'less likely';
