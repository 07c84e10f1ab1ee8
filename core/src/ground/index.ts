export * from './result.js';
export * from './rational.js';
export * from './length.js';
export * from './random.js';
export * from './hash.js';
export * from './statistics.js';
export * from './zone.js';
