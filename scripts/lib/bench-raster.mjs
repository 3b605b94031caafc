/** A GeoTIFF of heights in 32-bit floats, one degree square, for the bench. */
import { importTs } from './database.mjs'

const { floatTiff: write } = await importTs('tests/support/rasters.ts')

/** @returns {Buffer} */
export const floatTiff = (/** @type {number} */ side) => write({ side, west: 10, north: 41, degrees: 1 })
