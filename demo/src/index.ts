export { demoFilms, demoLibrary } from './films.js';
export { demoFirm, demoPersons, demoRates, demoRolls } from './firm.js';
export { demoId } from './ids.js';
export { panesIn } from './panes-in.js';
export { ternPoint } from './tern-point.js';
export { lanternStreet } from './lantern-street.js';
export { launchAndShuttle } from './launch-and-shuttle.js';
export { ternInterior } from './interior.js';
export { demoScratchSvg, demoSignature, ternAnnex } from './annex.js';
