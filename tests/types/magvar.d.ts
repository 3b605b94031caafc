declare module 'magvar' {
  const library: { magvar(latDeg: number, lonDeg: number, altitudeKm: number, year: number): number }
  export default library
}
