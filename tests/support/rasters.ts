/** GeoTIFFs written by hand, small and wrong on purpose. @source TIFF 6.0; OGC GeoTIFF 1.1 (tags 33550, 33922, 34735) */
import { deflateSync } from 'node:zlib'

interface Entry {
  tag: number
  type: 3 | 4 | 12
  values: number[]
}

const SHORT = 3
const LONG = 4
const DOUBLE = 12
const SIZE: Record<number, number> = { [SHORT]: 2, [LONG]: 4, [DOUBLE]: 8 }

/** One image of one strip. */
function tiff(o: {
  width: number
  height: number
  bits: number
  format: 1 | 3
  compression: number
  rowsPerStrip?: number
  data: Buffer
  west: number
  north: number
  pixel: number
}): Buffer {
  const entries: Entry[] = [
    { tag: 256, type: LONG, values: [o.width] },
    { tag: 257, type: LONG, values: [o.height] },
    { tag: 258, type: SHORT, values: [o.bits] },
    { tag: 259, type: SHORT, values: [o.compression] },
    { tag: 262, type: SHORT, values: [1] },
    { tag: 273, type: LONG, values: [0] },
    { tag: 277, type: SHORT, values: [1] },
    { tag: 278, type: LONG, values: [o.rowsPerStrip ?? o.height] },
    { tag: 279, type: LONG, values: [o.data.length] },
    { tag: 339, type: SHORT, values: [o.format] },
    { tag: 33550, type: DOUBLE, values: [o.pixel, o.pixel, 0] },
    { tag: 33922, type: DOUBLE, values: [0, 0, 0, o.west, o.north, 0] },
    { tag: 34735, type: SHORT, values: [1, 1, 0, 3, 1024, 0, 1, 2, 1025, 0, 1, 1, 2048, 0, 1, 4326] },
  ]
  const head = 8 + 2 + entries.length * 12 + 4
  const long = entries.filter(e => e.values.length * SIZE[e.type]! > 4)
  let at = head
  const places = new Map(
    long.map(e => {
      const place = at
      at += e.values.length * SIZE[e.type]!
      return [e, place]
    }),
  )
  entries.find(e => e.tag === 273)!.values = [at]
  const out = Buffer.alloc(at)
  out.write('II')
  out.writeUInt16LE(42, 2)
  out.writeUInt32LE(8, 4)
  out.writeUInt16LE(entries.length, 8)
  const write = (e: Entry, from: number) =>
    e.values.forEach((v, i) => {
      const place = from + i * SIZE[e.type]!
      if (e.type === SHORT) out.writeUInt16LE(v, place)
      else if (e.type === LONG) out.writeUInt32LE(v, place)
      else out.writeDoubleLE(v, place)
    })
  entries.forEach((e, i) => {
    const place = 10 + i * 12
    out.writeUInt16LE(e.tag, place)
    out.writeUInt16LE(e.type, place + 2)
    out.writeUInt32LE(e.values.length, place + 4)
    const far = places.get(e)
    if (far !== undefined) {
      out.writeUInt32LE(far, place + 8)
      write(e, far)
    } else write(e, place + 8)
  })
  return Buffer.concat([out, o.data])
}

interface Area {
  side: number
  west: number
  north: number
  degrees: number
}

/** Heights that rise eastward, 32-bit floats; of one half of it nothing is known where that is asked. */
export function floatTiff({ side, west, north, degrees, half }: Area & { half?: 0 | 1 }): Buffer {
  const values = new Float32Array(side * side)
  for (let y = 0; y < side; y++) {
    for (let x = 0; x < side; x++) values[y * side + x] = half !== undefined && x < side / 2 === (half === 1) ? NaN : x
  }
  return tiff({
    width: side,
    height: side,
    bits: 32,
    format: 3,
    compression: 1,
    data: Buffer.from(values.buffer),
    west,
    north,
    pixel: degrees / side,
  })
}

export function classTiff({ side, west, north, degrees }: Area): Buffer {
  return tiff({
    width: side,
    height: side,
    bits: 8,
    format: 1,
    compression: 1,
    data: Buffer.alloc(side * side, 1),
    west,
    north,
    pixel: degrees / side,
  })
}

/** A file that would unpack to gigabytes: by what it declares, by what its packing hides, or packed in a way nobody reads here. */
export function bombTiff(how: 'declares' | 'unpacks' | 'odd packing'): Buffer {
  const place = { west: 30, north: 11 }
  if (how === 'declares')
    return tiff({
      ...place,
      width: 100_000,
      height: 100_000,
      bits: 32,
      format: 3,
      compression: 8,
      data: deflateSync(Buffer.alloc(24_000_000)),
      pixel: 1e-6,
    })
  if (how === 'unpacks')
    return tiff({
      ...place,
      width: 1000,
      height: 1000,
      bits: 16,
      format: 1,
      compression: 8,
      data: deflateSync(Buffer.alloc(1_000_000_000)),
      pixel: 1e-4,
    })
  return tiff({
    ...place,
    width: 1000,
    height: 1000,
    bits: 16,
    format: 1,
    compression: 50_000,
    data: Buffer.alloc(1000),
    pixel: 1e-4,
  })
}
