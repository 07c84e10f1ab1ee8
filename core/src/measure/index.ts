export * from './kinds.js';
export * from './opening.js';
export * from './adjustment.js';
export * from './slips.js';
export * from './hypotheses.js';
export * from './survey.js';
export * from './taped-model.js';
export * from './shape-models.js';
export * from './shape-survey.js';

export * from './believed.js';
export * from './drawn-outline.js';
export * from './words.js';
export * from './readings.js';
export * from './column.js';
export * from './column-survey.js';
export * from './column-words.js';
