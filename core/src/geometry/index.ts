export * from './vec.js';
export * from './polygon.js';
export * from './linear.js';
export * from './cholesky.js';
export * from './path.js';
export * from './clip.js';
export * from './svg-path.js';
export * from './convex-parts.js';
