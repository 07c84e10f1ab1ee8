export * from './surface.js';
export * from './thread.js';
export * from './shrink-field.js';
