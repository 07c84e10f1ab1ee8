export * from '../node_modules/ml-matrix/matrix.js';
