export * from './material.js';
export * from './price.js';
export * from './moved.js';
