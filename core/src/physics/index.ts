export * from './sun-position.js';
export * from './clear-sky.js';
