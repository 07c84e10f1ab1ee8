export * from './glass-slab.js';
export * from './film-optics.js';
export * from './work-class.js';
