/** What a site looks like from the side: a house, a vehicle, a boat; to scale from its numbers. */
import { nth } from '../sure'
import { eavesM, ridgeM } from '../site/frame'
import type { Job, Site } from '../job/schema'
import { spreadersM } from '../fitting/usual-kit'
import { BODY_FIGURES, bodyOf } from '../site/bodies'
import type { Building } from '../site/building'
import { SHAPES_OF } from './bodies'
import type { LabelSpace, Primitive } from './primitives'
import { polyline } from './primitives'

export interface Axes {
  toX: (alongM: number) => number
  toY: (upM: number) => number
  /** 1 where ahead lies to the right */
  sign: 1 | -1
}

const WAVE_PX = 4.5

export function drawGround(p: Primitive[], kind: Job['kind'], { width, y, h }: { width: number; y: number; h: number }): void {
  if (kind === 'boat') {
    p.push({ kind: 'rect', style: 'beam', x: 0, y, w: width, h })
    // Close under the surface: names of what lies in the hull are written below it.
    for (let x = -6; x < width; x += 34) p.push({ kind: 'path', style: 'wave', d: `M${x} ${y + WAVE_PX}q8.5 -5 17 0t17 0` })
  } else {
    p.push({ kind: 'rect', style: 'ground', x: 0, y, w: width, h })
    for (let x = 8; x < width; x += 26)
      p.push({ kind: 'line', style: 'hatch', x1: x, y1: y + h * 0.55, x2: x + 9, y2: y + h * 0.3 })
  }
  p.push({ kind: 'line', style: 'grade', x1: 0, y1: y, x2: width, y2: y })
}

/** Draws the site from the side; no label is to cross its outline or a floor. */
export function drawHull(
  p: Primitive[],
  labels: LabelSpace,
  { building, site, at }: { building: Building; site: Site; at: Axes },
): void {
  const before = p.length
  const outline =
    building.kind === 'vehicle'
      ? drawVehicle(p, labels, site, at)
      : building.kind === 'boat'
        ? drawBoat(p, site, at)
        : drawHouse(p, building, at)
  outline.forEach((q, i) => i && labels.keepOff(...nth(outline, i - 1), ...q))
  for (const q of p.slice(before)) if (q.kind === 'line') labels.keepOff(q.x1, q.y1, q.x2, q.y2)
  if (building.kind !== 'vehicle' && building.kind !== 'boat') return
  const { ahead } = BODY_FIGURES[bodyOf(site, building.kind)]
  labels.put(p, {
    x: at.toX((at.sign * site.lengthM) / 2) + at.sign * 8,
    y: at.toY(eavesM(site) * (ahead === 'bow' ? 0.62 : 0.2)),
    text: ahead,
    style: 'labelSoft',
    anchor: at.sign > 0 ? 'start' : 'end',
  })
}

type Outline = [number, number][]

function drawHouse(p: Primitive[], b: Building, { toX, toY }: Axes): Outline {
  const half = b.halfLengthM
  const eaves = b.eavesM
  const outline: Outline = [
    [toX(-half), toY(0)],
    [toX(-half), toY(eaves)],
    ...(b.riseM > 0 ? [[toX(0), toY(eaves + b.riseM)] as [number, number]] : []),
    [toX(half), toY(eaves)],
    [toX(half), toY(0)],
  ]
  p.push({ kind: 'path', style: 'wall', d: polyline(outline, true) })
  for (const floor of b.floors) {
    if (floor.toM >= eaves && b.riseM === 0) continue
    p.push({
      kind: 'line',
      style: floor.material.includes('concrete') ? 'slab' : 'inner',
      x1: toX(-half),
      y1: toY(floor.toM),
      x2: toX(half),
      y2: toY(floor.toM),
    })
  }
  if (b.riseM === 0) p.push({ kind: 'line', style: 'slab', x1: toX(-half), y1: toY(eaves), x2: toX(half), y2: toY(eaves) })
  return outline
}

/** Body on its wheels, its front toward the nose, or what it is drawn by. */
function drawVehicle(p: Primitive[], labels: LabelSpace, site: Site, { toX, toY, sign }: Axes): Outline {
  const half = site.lengthM / 2
  const roof = eavesM(site)
  const body = bodyOf(site, 'vehicle')
  const shape = SHAPES_OF[body === 'sailing boat' || body === 'motor boat' ? 'van' : body]
  const x = (m: number) => toX(sign * m)
  const point = ([along, up]: readonly [number, number]): [number, number] => [x(along * half), toY(up * roof)]
  const outline: Outline = shape.outline.map(point)
  p.push({ kind: 'path', style: 'wall', d: polyline(outline, true) })
  for (const pane of shape.panes.map(q => q.map(point))) {
    p.push({ kind: 'path', style: 'inner', d: polyline(pane, true) })
    pane.forEach((from, i) => labels.keepOff(...from, ...nth(pane, (i + 1) % pane.length)))
  }
  for (const [from, to] of shape.lines) {
    const [[x1, y1], [x2, y2]] = [point(from), point(to)]
    p.push({ kind: 'line', style: 'inner', x1, y1, x2, y2 })
    labels.keepOff(x1, y1, x2, y2)
  }
  const radius = Math.abs(toY(0) - toY(Math.min(0.38, roof * 0.16)))
  for (const along of shape.wheels) {
    const m = along * half
    p.push({ kind: 'circle', style: 'wheel', x: x(m), y: toY(0) - radius, r: radius })
    p.push({ kind: 'circle', style: 'hollow', x: x(m), y: toY(0) - radius, r: radius * 0.4 })
    labels.reserve(x(m) - radius, toY(0) - 2 * radius, 2 * radius, 2 * radius)
  }
  return outline
}

/** Hull on the water, coachroof, one mast or two with spreaders and stays. */
function drawBoat(p: Primitive[], site: Site, { toX, toY, sign }: Axes): Outline {
  const half = site.lengthM / 2
  const roof = eavesM(site)
  const deck = roof * 0.62
  const top = ridgeM(site)
  const x = (m: number) => toX(sign * m)
  const draught = Math.min(0.5, site.lengthM * 0.05)
  const q = (m: number, u: number) => `${Math.round(x(m) * 10) / 10} ${Math.round(toY(u) * 10) / 10}`
  p.push({
    kind: 'path',
    style: 'wall',
    d:
      `M${q(-half, deck * 0.9)}L${q(half, deck * 1.15)}C${q(half * 0.86, deck * 0.2)} ${q(half * 0.6, -draught)} ` +
      `${q(half * 0.2, -draught)}L${q(-half * 0.7, -draught)}C${q(-half * 0.94, -draught)} ${q(-half, 0)} ${q(-half, deck * 0.9)}Z`,
  })
  // A wheelhouse stands up where a coachroof slopes.
  const motor = site.body === 'motor boat'
  const [front, foot] = motor ? [half * 0.26, half * 0.34] : [half * 0.3, half * 0.5]
  p.push({
    kind: 'path',
    style: 'wall',
    d: `M${q(-half * 0.42, deck * 0.95)}L${q(-half * 0.36, roof)}L${q(front, roof)}L${q(foot, deck * 1.05)}Z`,
  })
  if (motor)
    p.push({
      kind: 'path',
      style: 'inner',
      d: `M${q(-half * 0.3, deck * 1.18)}L${q(-half * 0.28, roof * 0.93)}L${q(half * 0.22, roof * 0.93)}L${q(half * 0.29, deck * 1.2)}Z`,
    })
  const point = (m: number, u: number): [number, number] => [x(m), toY(u)]
  // From the stern round the bottom to the bow, back along the deck and over the coachroof: its curves as their chords.
  const outline: Outline = [
    ...[point(-half, deck * 0.9), point(-half * 0.7, -draught), point(half * 0.2, -draught)],
    ...[point(half * 0.8, deck * 0.2), point(half, deck * 1.15), point(-half, deck * 0.9), point(-half * 0.42, deck * 0.95)],
    ...[point(-half * 0.36, roof), point(front, roof), point(foot, deck * 1.05)],
  ]
  if (top - roof < 1) return outline
  const mastAt = motor ? -half * 0.1 : half * 0.1
  p.push({ kind: 'line', style: 'pole', x1: x(mastAt), y1: toY(roof), x2: x(mastAt), y2: toY(top) })
  if (motor) return outline
  const spreaders = spreadersM(site)
  p.push({
    kind: 'line',
    style: 'inner',
    x1: x(mastAt - half * 0.12),
    y1: toY(spreaders),
    x2: x(mastAt + half * 0.12),
    y2: toY(spreaders),
  })
  p.push({ kind: 'line', style: 'inner', x1: x(mastAt), y1: toY(top), x2: x(half), y2: toY(deck * 1.15) })
  if (site.mizzenRiseM) {
    // The mizzen stands before the rudder; the mainmast's backstay goes to its foot then.
    const aft = -half * 0.66
    const head = roof + site.mizzenRiseM
    p.push({ kind: 'line', style: 'inner', x1: x(mastAt), y1: toY(top), x2: x(aft + half * 0.1), y2: toY(deck * 0.95) })
    p.push({ kind: 'line', style: 'pole', x1: x(aft), y1: toY(deck * 0.9), x2: x(aft), y2: toY(head) })
    p.push({ kind: 'line', style: 'inner', x1: x(aft), y1: toY(head), x2: x(-half), y2: toY(deck * 0.9) })
    p.push({ kind: 'line', style: 'inner', x1: x(aft), y1: toY(roof + 0.6), x2: x(-half * 1.02), y2: toY(roof + 0.6) })
  } else p.push({ kind: 'line', style: 'inner', x1: x(mastAt), y1: toY(top), x2: x(-half), y2: toY(deck * 0.9) })
  p.push({ kind: 'line', style: 'inner', x1: x(mastAt), y1: toY(roof + 0.9), x2: x(-half * 0.5), y2: toY(roof + 0.9) })
  return outline
}

/** Height of what a pole stands on, over a place along the site, m. */
export function standsOnM(b: Building, alongM: number): number {
  return b.eavesM + Math.max(0, 1 - Math.abs(alongM) / b.halfLengthM) * b.riseM
}
