declare module 'virtual:coasts' {
  /** Closed coasts: longitude and latitude by turns, in degrees. */
  const rings: number[][];
  export default rings;
}
