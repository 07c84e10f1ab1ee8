export * from './material.js';
export * from './price.js';
