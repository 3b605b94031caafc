import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { InlineWorker } from '../../tests/support/inline-worker'
import { readFloorPlan } from './floor-plans'

beforeAll(() => void vi.stubGlobal('Worker', InlineWorker))
afterAll(() => void vi.unstubAllGlobals())

const SITE = { latDeg: 46.8, lonDeg: -41.3 }
const file = (name: string, text: string, type = '') => new File([text], name, { type })
const geo = (coordinates: unknown) =>
  JSON.stringify({ type: 'Feature', geometry: { type: 'LineString', coordinates }, properties: {} })
const dxf = (header: string, entities: string) =>
  `0\nSECTION\n2\nHEADER\n${header}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`
const LINE = '0\nLINE\n8\n0\n10\n0\n20\n0\n11\n6\n21\n0\n'

describe('a floor’s plan as people have it', () => {
  it('a DXF gives its lines, and its unit where it says one', async () => {
    const read = await readFloorPlan(file('a.dxf', dxf('9\n$INSUNITS\n70\n6\n', LINE)), SITE)
    expect(read).toMatchObject({ kind: 'lines', unitM: 1, lines: [{ x1: 0, y1: 0, x2: 6, y2: 0 }] })
    expect(await readFloorPlan(file('a.dxf', dxf('', LINE)), SITE)).toMatchObject({ unitM: null })
  })
  it('a closed polyline of a DXF has as many walls as corners', async () => {
    const shape = '0\nLWPOLYLINE\n8\n0\n90\n3\n70\n1\n10\n0\n20\n0\n10\n4\n20\n0\n10\n4\n20\n3\n'
    const read = await readFloorPlan(file('a.dxf', dxf('9\n$INSUNITS\n70\n6\n', shape)), SITE)
    expect(read.kind === 'lines' && read.lines).toHaveLength(3)
  })
  it('a GeoJSON lies in degrees: a hundred metres north are a hundred metres', async () => {
    const read = await readFloorPlan(
      file(
        'a.geojson',
        geo([
          [-41.3, 46.8],
          [-41.3, 46.8009],
        ]),
      ),
      SITE,
    )
    if (read.kind !== 'lines') throw new Error('lines were wanted')
    // A minute of latitude at 46.8° is 1,852.2 m on WGS84: 0.0009° are 100.04 m.
    expect(Math.hypot(read.lines[0]!.x2 - read.lines[0]!.x1, read.lines[0]!.y2 - read.lines[0]!.y1)).toBeCloseTo(100.04, 1)
  })
  it.each([
    ['a.txt', 'x', 'a picture (PNG, JPEG), a page of a PDF, a DXF or a GeoJSON'],
    ['a.geojson', '{', 'cannot be read'],
    [
      'a.geojson',
      geo([
        [400, 95],
        [0, 0],
      ]),
      'no longitude and latitude',
    ],
    ['a.dxf', dxf('9\n$INSUNITS\n70\n17\n', LINE), 'none that buildings are drawn in'],
  ])('%s of %j is refused in words', async (name, text, words) => {
    await expect(readFloorPlan(file(name, text), SITE)).rejects.toThrow(words)
  })
  it('a GeoJSON without a position of the site is refused, and so is a file of 200 MB', async () => {
    await expect(readFloorPlan(file('a.geojson', geo([])), { latDeg: null, lonDeg: null })).rejects.toThrow(
      'position in Ask first',
    )
    const huge = { name: 'a.png', size: 200_000_000, type: 'image/png' } as File
    await expect(readFloorPlan(huge, SITE)).rejects.toThrow('200 MB; a plan may have 12')
  })
})
