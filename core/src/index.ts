export * from './ground/index.js';
export * from './geometry/index.js';
export * from './measure/index.js';
export * from './cut/index.js';
