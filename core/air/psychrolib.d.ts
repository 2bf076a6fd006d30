/** The part of the reference library that the tests call. */
declare module 'psychrolib' {
  const psychrolib: {
    SI: unknown;
    SetUnitSystem(system: unknown): void;
    GetTDewPointFromRelHum(dryBulbC: number, rh: number): number;
  };
  export default psychrolib;
}
