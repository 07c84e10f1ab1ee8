export * from './vec.js';
export * from './polygon.js';
export * from './linear.js';
