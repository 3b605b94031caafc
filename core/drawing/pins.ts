/** What is pinned to a drawing of the site beside its kit: sockets, feeds, roof units, a satellite terminal, photographs. */
import type { Fixture, JobDocument, Photo } from '../job/schema'
import type { Point } from '../site/frame'
import { ofStop } from '../survey/place'
import { earthLacks } from '../judge/demands'
import { isLookedBehind } from '../install/behind'
import { placesOf } from '../install/passage'
import { wayInById } from '../install/ways-in'
import { windowOf } from '../site/sky'
import { toRad } from '../geo/angles'
import type { LabelSpace, LabelWish, Primitive } from './primitives'
import { polyline } from './primitives'

/** The drawing that takes the pins. */
export interface Pinboard {
  p: Primitive[]
  labels: LabelSpace
  handles: {
    push: (h: { id: string; kind: 'fixture' | 'photo'; x: number; y: number; label: string; draggable: boolean }) => unknown
  }
  /** null where it is not on this drawing */
  xy: (at: Point) => [number, number] | null
  perM: number
  /** the section looks from the side, the plan from above */
  side: boolean
  /** unit vector on the drawing of a bearing in the site frame; of the plan alone */
  look?: (at: Point, deg: number) => [number, number]
  /** names are written */
  named: boolean
  /** a vehicle or boat */
  moves: boolean
}

const HALF_PX = 6
const RAY_PX = 26

/** Photographs of the present place by their time, numbered from 1: the number stands on the pin and in the list. */
export const numbered = (doc: JobDocument): (Photo & { number: number })[] =>
  ofStop(doc, doc.photos)
    .sort((a, b) => a.takenAtUtc.localeCompare(b.takenAtUtc) || a.id.localeCompare(b.id))
    .map((p, i) => ({ ...p, number: i + 1 }))

/** A photograph's place: its own, else of what it shows. @returns null where neither is known */
export function photoPlace(doc: Pick<JobDocument, 'spots' | 'nodes'>, photo: Photo): Point | null {
  const { eastM, northM, upM } = photo
  if (eastM !== null && northM !== null) return { eastM, northM, upM: upM ?? EYE_M }
  const of = doc.nodes.find(n => n.id === photo.nodeId) ?? doc.spots.find(s => s.id === photo.spotId)
  return of ? { eastM: of.eastM, northM: of.northM, upM: of.upM } : null
}

/** Height of a camera in the hand, m. */
const EYE_M = 1.5

/** What cables are led by tells its name when it is pointed at: on the picture the ways themselves stand. */
const LED: ReadonlySet<Fixture['kind']> = new Set(['way in', 'duct', 'electrode'])

/** @returns names to be written once every line has its place */
export function drawPins(board: Pinboard, doc: JobDocument): LabelWish[] {
  const names: LabelWish[] = []
  const passed = new Set(placesOf(doc, doc.designs.find(d => d.id === doc.jobs[0]?.designId) ?? null))
  for (const f of doc.fixtures) {
    if ((f.kind === 'way in' || f.kind === 'duct') && !passed.has(f)) continue
    const xy = board.xy(f)
    if (!xy) continue
    board.handles.push({ id: f.id, kind: 'fixture', x: xy[0], y: xy[1], label: f.name || f.kind, draggable: true })
    drawFixture(board, f, xy)
    if (board.named && f.name && !LED.has(f.kind))
      names.push({
        x: xy[0] + 11,
        y: xy[1] + 4,
        anchor: 'start',
        style: 'labelSoft',
        text: f.name,
        optional: true,
        id: f.id,
      })
  }
  drawPhotos(board, doc)
  return names
}

/** A photograph stands beside what it was taken of, never on a part, a spot or another photograph. */
function drawPhotos(board: Pinboard, doc: JobDocument): void {
  const taken = [...doc.nodes, ...doc.spots].flatMap(at => {
    const xy = board.xy(at)
    return xy ? [xy] : []
  })
  for (const photo of numbered(doc)) {
    const at = photoPlace(doc, photo)
    const xy = at && board.xy(at)
    if (!xy) continue
    const stands = beside(taken, xy)
    taken.push(stands)
    drawPhoto(board, photo, at, stands)
  }
}

/** Nearer than this the pin of a photograph would take the pointer from what it was taken of, px. */
const APART_PX = 24
function beside(taken: readonly [number, number][], [x, y]: [number, number]): [number, number] {
  const asides: [number, number][] = [0, 1, 2].flatMap(far =>
    [
      [0, -1],
      [1, 0],
      [0, 1],
      [-1, 0],
    ].map(([dx, dy]): [number, number] => [x + dx! * far * APART_PX, y + dy! * far * APART_PX]),
  )
  return asides.find(([ax, ay]) => !taken.some(([tx, ty]) => Math.hypot(tx - ax, ty - ay) < APART_PX)) ?? [x, y]
}

function drawFixture(board: Pinboard, f: Fixture, [x, y]: [number, number]): void {
  const { p, labels } = board
  const id = f.id
  const title = f.name || f.kind
  if (f.kind === 'roof unit') {
    const w = Math.max(8, (f.widthM ?? 0.6) * board.perM)
    const h = board.side ? Math.max(6, (f.heightM ?? 0.3) * board.perM) : w
    const top = board.side ? y - h : y - h / 2
    p.push({ kind: 'rect', style: board.side ? 'unit' : 'unitAbove', x: x - w / 2, y: top, w, h, id, title })
    labels.reserve(x - w / 2, top, w, h)
  } else if (f.kind === 'satellite terminal') {
    drawTerminal(board, f, x, y)
  } else if (f.kind === 'way in' || f.kind === 'duct') {
    drawPassage(board, f, x, y)
  } else if (f.kind === 'electrode') {
    const style = earthLacks(f, board.moves).length ? 'assumed' : 'earth'
    for (const [i, half] of [8, 5, 2].entries())
      p.push({ kind: 'line', style, x1: x - half, y1: y + 4 * i, x2: x + half, y2: y + 4 * i, id, title })
    labels.reserve(x - 9, y - 2, 18, 12)
  } else {
    p.push({ kind: 'rect', style: 'part', x: x - HALF_PX, y: y - HALF_PX + 1, w: 2 * HALF_PX, h: 2 * HALF_PX - 2, id, title })
    if (f.kind === 'mains socket') for (const dx of [-2.4, 2.4]) p.push({ kind: 'circle', style: 'dot', x: x + dx, y, r: 1.3 })
    else p.push({ kind: 'line', style: 'rule', x1: x - 3, y1: y, x2: x + 3, y2: y })
    labels.reserve(x - HALF_PX - 1, y - HALF_PX - 1, 2 * HALF_PX + 2, 2 * HALF_PX + 2)
  }
}

const drills = (entry: Fixture['entry']): boolean => entry !== null && wayInById(entry).drills

/** A way in is a sleeve through the shell, a duct two walls with room between them. */
function drawPassage({ p, labels }: Pinboard, f: Fixture, x: number, y: number): void {
  const title = f.name || f.kind
  if (f.kind === 'way in') {
    p.push({ kind: 'circle', style: drills(f.entry) && !isLookedBehind(f) ? 'ringOpen' : 'ring', x, y, r: 6, id: f.id, title })
    p.push({ kind: 'circle', style: 'dot', x, y, r: 2 })
  } else
    for (const dx of [-5, 5])
      p.push({ kind: 'line', style: 'rule', x1: x + dx, y1: y - 9, x2: x + dx, y2: y + 9, id: f.id, title })
  labels.reserve(x - 8, y - 10, 16, 20)
}

/** From the side its face and the edges of the sky that it uses; from above its round face. */
function drawTerminal(board: Pinboard, f: Fixture, x: number, y: number): void {
  const { p, labels } = board
  const half = toRad(windowOf(f).halfFieldDeg)
  if (board.side) {
    for (const s of [-1, 1]) {
      const [x2, y2] = [x + s * RAY_PX * Math.sin(half), y - 4 - RAY_PX * Math.cos(half)]
      p.push({ kind: 'line', style: 'skyEdge', x1: x, y1: y - 4, x2, y2 })
      labels.keepOff(x, y - 4, x2, y2)
    }
    p.push({ kind: 'line', style: 'pole', x1: x - 9, y1: y - 4, x2: x + 9, y2: y - 4, id: f.id, title: f.name || f.kind })
    p.push({ kind: 'line', style: 'rule', x1: x, y1: y - 4, x2: x, y2: y + 4 })
  } else {
    p.push({ kind: 'circle', style: 'part', x, y, r: 8, id: f.id, title: f.name || f.kind })
    p.push({ kind: 'line', style: 'rule', x1: x - 4, y1: y + 3, x2: x + 4, y2: y - 3 })
  }
  labels.reserve(x - 10, y - 10, 20, 18)
}

/** Its number in a frame, and from above the way the camera looked. */
function drawPhoto(board: Pinboard, photo: Photo & { number: number }, at: Point, [x, y]: [number, number]): void {
  const { p, labels } = board
  if (photo.bearingDeg !== null && board.look) {
    const rays = [-25, 25].map(off => board.look!(at, photo.bearingDeg! + off))
    const ends = rays.map(([dx, dy]): [number, number] => [x + dx * RAY_PX, y + dy * RAY_PX])
    p.push({ kind: 'path', style: 'view', d: polyline([[x, y], ...ends], true) })
  }
  const text = String(photo.number)
  const w = 12 + 6 * text.length
  p.push({ kind: 'rect', style: 'photo', x: x - 3, y: y - 11, w: 6, h: 5 })
  p.push({ kind: 'rect', style: 'photo', x: x - w / 2, y: y - 8, w, h: 16, id: photo.id, title: photo.caption ?? undefined })
  p.push({ kind: 'text', style: 'photoNumber', x, y: y + 4, text, anchor: 'middle', id: photo.id })
  labels.reserve(x - w / 2 - 1, y - 9, w + 2, 18)
  board.handles.push({ id: photo.id, kind: 'photo', x, y, label: photo.caption ?? `photograph ${text}`, draggable: true })
}
