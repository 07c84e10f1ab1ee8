export * from './laser-distance-meter.js';
export * from './infrared-thermometer.js';
export * from './thermo-hygrometer.js';
