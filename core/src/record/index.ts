export * from './apply.js';
export * from './undo.js';
