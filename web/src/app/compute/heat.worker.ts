import { expose } from 'comlink';
import { heatMap, type HeatAim, type HeatCase, type HeatFactor } from '@yellow-pane/core/lay';

const api = {
  map: (c: HeatCase, aim: HeatAim, distancesMm: readonly number[], factor: HeatFactor) => heatMap(c, aim, distancesMm, factor),
};

export type HeatWorker = typeof api;
expose(api);
