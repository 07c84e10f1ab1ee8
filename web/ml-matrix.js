// The library's own modules: the bundle takes from them only what is used.
export * from '../node_modules/ml-matrix/src/index.js';
