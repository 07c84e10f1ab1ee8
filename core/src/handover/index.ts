export * from './material.js';
export * from './price.js';
export * from './moved.js';
export * from './seal.js';
export * from './record-of-panes.js';
export * from './care-text.js';
export * from './care-english.js';
export * from './call-backs.js';
