export * from './undo.js';
