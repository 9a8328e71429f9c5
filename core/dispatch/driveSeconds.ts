import { greatCircle, type Place } from './greatCircle'

/**
 * Estimated drive between two places, whole seconds rounded up to the minute: great circle × circuity ÷ speed.
 * The same place takes no time.
 * @example driveSeconds({ lat: 41, lon: -74 }, { lat: 41, lon: -74 }) // 0
 * Source: circuity 1.3 is our default; published mean for US roads 1.20, Ballou, Rahardja & Sakai (2002), Transportation
 * Research A 36. The mean speed of 60 km/h on county roads is our assumption.
 */
export function driveSeconds(
  a: Place,
  b: Place,
  circuity = 1.3,
  metresPerSecond = 60 / 3.6,
): number {
  // A hair is taken off, so that a whole number of minutes is not pushed to the next by the last bit.
  return Math.max(0, Math.ceil((greatCircle(a, b) * circuity) / metresPerSecond / 60 - 1e-9)) * 60
}
