export * from './piece.js';
export * from './job-pieces.js';
export * from './pairs.js';
export * from './layout/index.js';
export * from './knife-order.js';
export * from './minutes.js';
export * from './film-plan.js';
