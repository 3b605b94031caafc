/** The zones of a building on one of its floors, from above. */
import type { Zone } from '../job/schema'
import type { Building } from '../site/building'
import { antennasOf, areaOf, levelsOf, zoneTrouble } from '../fitting/zones'
import { ceilingPlaces } from '../fitting/layer'
import { fitting } from './section'
import { textWidth } from './primitives'
import type { Drawing, Primitive } from './primitives'

const MARGIN_PX = 8
const MOST_HIGH_PX = 320
/** A number stands in a corner of its zone, px. */
const CORNER_PX = 18

/** @returns the floor with its zones numbered as in their list, and a dot where each antenna is to hang */
export function layoutZones(b: Building, zones: readonly Zone[], { level, width }: { level: number; width: number }): Drawing {
  const scale = Math.min((width - 2 * MARGIN_PX) / (2 * b.halfLengthM), (MOST_HIGH_PX - 2 * MARGIN_PX) / (2 * b.halfDepthM))
  const w = 2 * b.halfLengthM * scale
  const h = 2 * b.halfDepthM * scale
  const x0 = (width - w) / 2
  const at = (alongM: number, acrossM: number): [number, number] => [
    x0 + (alongM + b.halfLengthM) * scale,
    MARGIN_PX + (acrossM + b.halfDepthM) * scale,
  ]
  const p: Primitive[] = [{ kind: 'rect', style: 'wall', x: x0, y: MARGIN_PX, w, h }]
  zones.forEach((z, i) => {
    if (zoneTrouble(b, z) !== null || !levelsOf(b, z).includes(level)) return
    const a = areaOf(b, z)
    const [x1, y1] = at(a.alongFromM, a.acrossFromM)
    const [x2, y2] = at(a.alongToM, a.acrossToM)
    p.push({ kind: 'rect', style: 'zone', x: x1 + 3, y: y1 + 3, w: x2 - x1 - 6, h: y2 - y1 - 6, id: z.id, title: z.name })
    p.push({ kind: 'rect', style: 'unitAbove', x: x1 + 3, y: y1 + 3, w: x2 - x1 - 6, h: y2 - y1 - 6 })
    const places = ceilingPlaces(a, antennasOf(b, z, level))
    for (const place of places) {
      const [x, y] = at(place.alongM, place.acrossM)
      p.push({ kind: 'circle', style: 'ring', x, y, r: 4 })
    }
    const name = `${i + 1}  ${fitting(z.name)}`
    const text = textWidth(name) < x2 - x1 - CORNER_PX ? name : String(i + 1)
    // Between its first two rows: there no antenna is.
    const rows = [...new Set(places.map(q => at(0, q.acrossM)[1]))]
    const y = rows.length > 1 ? (rows[0]! + rows[1]!) / 2 + 4 : y1 + CORNER_PX + 2
    p.push({ kind: 'text', style: 'labelBold', x: x1 + 9, y, text })
  })
  return { width, height: h + 2 * MARGIN_PX, primitives: p }
}
