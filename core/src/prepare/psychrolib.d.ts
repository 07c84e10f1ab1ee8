/** The little of the reference library that the specification asks. */
declare module 'psychrolib' {
  const psychrolib: {
    readonly SI: number;
    SetUnitSystem(system: number): void;
    /** Pa at °C. */
    GetSatVapPres(airC: number): number;
    /** °C; humidity 0 … 1. */
    GetTDewPointFromRelHum(airC: number, humidityFrac: number): number;
  };
  export default psychrolib;
}
