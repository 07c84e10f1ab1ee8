export * from './horizon.js';
export * from './glass-day.js';
export * from './work-windows.js';
export * from './slip-mix.js';
export * from './wash-mix.js';
export * from './blades.js';
export * from './kit-list.js';
export * from './job-day.js';
