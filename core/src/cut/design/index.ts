export * from './pattern.js';
export * from './plot-paths.js';
export * from './hpgl.js';
export * from './design-pieces.js';
