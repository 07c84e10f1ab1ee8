export * from './days-model.js';
export * from './check-days.js';
export * from './lay-out-days.js';
export * from './days-bound.js';
export * from './improve-days.js';
export * from './days-words.js';
export * from './days-card.js';
