export * from './roll-length.js';
export * from './ledger.js';
export * from './leftovers.js';
