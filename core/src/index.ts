export * from './ground/index.js';
export * from './geometry/index.js';
export * from './physics/index.js';
export * from './measure/index.js';
export * from './films/index.js';
export * from './choose/index.js';
export * from './cut/index.js';
export * from './handover/index.js';
