import type { WeatherDay } from '@yellow-pane/contracts';

/** Where the weather comes from: a service on the network, or the stand-in that ships with the bench. */
export interface WeatherService {
  /** The day at a place, hour by hour. @param sky null: as it will be @throws when the service does not answer */
  day(latDeg: number, lonDeg: number, zone: string, on: string, sky: WeatherDay['sky'] | null): Promise<WeatherDay>;
}
