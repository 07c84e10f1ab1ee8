export * from './apply.js';
export * from './undo.js';
export * from './erase.js';
