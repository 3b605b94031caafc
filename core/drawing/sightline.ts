/** The sight line: terrain between site and mast, the ray over it, and what stands in its way. */
import { nth } from '../sure'
import { clearanceAt, sightLine } from '../terrain/path'
import type { PathResult } from '../terrain/path'
import type { Drawing, Primitive } from './primitives'
import { polyline, textWidth } from './primitives'
import { distance, length, num } from '../units'
import type { Units } from '../units'

export interface SightLineOptions {
  width: number
  height: number
  units: Units
  band: string
  heightM: number
  mastName: string
  diffractionDb: number
  compact?: boolean
}

export function layoutSightLine(path: PathResult, o: SightLineOptions): Drawing {
  const p: Primitive[] = []
  const band = path.bands.find(b => b.band === o.band) ?? nth(path.bands, 0)
  const s = sightLine(path, band, o.heightM)
  const left = 14
  const right = 14
  const bottom = 24
  const high = Math.max(...s.rayM.map((r, i) => r + nth(s.zoneM, i)), ...s.groundM) * 1.06 + 8
  const low = Math.min(0, ...s.groundM)
  const x = (d: number) => left + (d / path.distanceM) * (o.width - left - right)
  const y = (m: number) => 26 + ((high - m) / (high - low)) * (o.height - 26 - bottom)
  p.push({ kind: 'rect', style: 'sky', x: 0, y: 0, w: o.width, h: o.height })
  // The ribbon: 60 % of the first Fresnel zone about the ray.
  p.push({
    kind: 'path',
    style: 'zone',
    d: polyline(
      [
        ...s.distanceM.map((d, i) => [x(d), y(nth(s.rayM, i) + nth(s.zoneM, i))] as const),
        ...[...s.distanceM.keys()].reverse().map(i => [x(nth(s.distanceM, i)), y(nth(s.rayM, i) - nth(s.zoneM, i))] as const),
      ],
      true,
    ),
  })
  const ground = s.distanceM.map((d, i) => [x(d), y(nth(s.groundM, i))] as const)
  p.push({
    kind: 'path',
    style: 'ground',
    d: polyline([[x(0), o.height - bottom], ...ground, [x(path.distanceM), o.height - bottom]], true),
  })
  // Where ground enters the ribbon it is marked, and where it covers the ray it is blocked.
  for (let i = 1; i < s.distanceM.length - 1; i++) {
    const over = nth(s.groundM, i) - (nth(s.rayM, i) - nth(s.zoneM, i))
    if (over <= 0) continue
    p.push({
      kind: 'line',
      style: nth(s.groundM, i) > nth(s.rayM, i) ? 'limit' : 'loop',
      x1: x(nth(s.distanceM, i)),
      y1: y(nth(s.groundM, i)),
      x2: x(nth(s.distanceM, i)),
      y2: y(Math.max(nth(s.rayM, i) - nth(s.zoneM, i), low)),
    })
  }
  p.push({ kind: 'path', style: 'rule', d: polyline(ground) })
  p.push({
    kind: 'line',
    style: 'beamLine',
    x1: x(0),
    y1: y(nth(s.rayM, 0)),
    x2: x(path.distanceM),
    y2: y(nth(s.rayM, s.rayM.length - 1)),
  })
  p.push({ kind: 'line', style: 'pole', x1: x(0), y1: y(path.siteGroundM), x2: x(0), y2: y(nth(s.rayM, 0)) })
  p.push({
    kind: 'line',
    style: 'pole',
    x1: x(path.distanceM),
    y1: y(path.mastGroundM),
    x2: x(path.distanceM),
    y2: y(path.mastTopM),
  })
  const tight = clearanceAt(band, o.heightM)
  const tx = x(tight.atM)
  const words =
    tight.clearM < 0
      ? `${num(o.diffractionDb)} dB lost here, ${distance(tight.atM, o.units)} out: ground stands ` +
        `${length(-tight.clearM, o.units, 0)} into the ray`
      : tight.ratio < 0.6
        ? `tight at ${distance(tight.atM, o.units)}: ${length(tight.clearM, o.units, 0)} clear, ${num(o.diffractionDb)} dB`
        : `clear by ${length(tight.clearM, o.units, 0)} at the tightest, ${distance(tight.atM, o.units)} out`
  const wide = textWidth(words, 'labelBold')
  const wx = Math.min(Math.max(tx, wide / 2 + 10), o.width - wide / 2 - 10)
  p.push({
    kind: 'line',
    style: 'leader',
    x1: tx,
    y1: 20,
    x2: tx,
    y2: y(Math.max(nth(s.rayM, 0) + ((nth(s.rayM, s.rayM.length - 1) - nth(s.rayM, 0)) * tight.atM) / path.distanceM, 0)),
  })
  p.push({
    kind: 'text',
    style: tight.clearM < 0 ? 'labelShort' : tight.ratio < 0.6 ? 'labelBold' : 'labelMet',
    x: wx,
    y: 15,
    text: words,
    anchor: 'middle',
  })
  p.push({ kind: 'text', style: 'labelSoft', x: left, y: o.height - 7, text: `mount ${length(o.heightM, o.units)}` })
  p.push({
    kind: 'text',
    style: 'labelBlue',
    x: o.width - right,
    y: o.height - 7,
    text: `${o.mastName}, ${distance(path.distanceM, o.units)}`,
    anchor: 'end',
  })
  if (!o.compact)
    p.push({
      kind: 'text',
      style: 'labelSoft',
      x: o.width / 2,
      y: o.height - 7,
      text:
        `${band.band} at ${num(band.frequencyMHz)} MHz · ribbon: 60 % of the first Fresnel zone · earth bulge for 4/3 ` +
        `radius${path.unknown > 0.01 ? ` · ${Math.round(path.unknown * 100)} % of the ground unknown` : ''}`,
      anchor: 'middle',
    })
  return { width: o.width, height: o.height, primitives: p }
}
