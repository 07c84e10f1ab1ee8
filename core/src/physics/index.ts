export * from './sun-position.js';
export * from './clear-sky.js';
export * from './moist-air.js';
export * from './cloud.js';
export * from './permeation.js';
export * from './warm-through.js';
export * from './heat-conduction.js';
export * from './hot-air.js';
