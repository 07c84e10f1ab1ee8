export * from './opening.js';
export * from './adjustment.js';
export * from './slips.js';
export * from './hypotheses.js';
export * from './survey.js';
export * from './shape-models.js';
export * from './shape-survey.js';
export * from './words.js';
