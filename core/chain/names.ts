/** What each part of a design is called: by what it is and where it stands, unless somebody gave it a name of its own. */
import { entryOf, nth } from '../sure'
import { isExtender, isInverter } from '../job/part'
import type { AntennaPart, Part, Port, Service } from '../job/part'
import { movesAbout } from '../job/schema'
import type { Job, JobDocument, Node } from '../job/schema'
import { buildingOf, floorAt, inside } from '../site/building'
import type { Building } from '../site/building'
import { nearestTo } from '../site/frame'
import { capital } from '../units'

type Named = { node: Node; part: Part }

const SHAPE: Record<AntennaPart['shape'], string> = {
  'log-periodic': 'Log-periodic',
  'Yagi': 'Yagi',
  'panel': 'Panel',
  'omni': 'Omni',
  'dome': 'Dome',
  'whip': 'Whip',
}

const SET_NAMES: Record<Service, string> = {
  'VHF': 'VHF radio',
  'AIS': 'AIS transponder',
  'Wi-Fi': 'Wi-Fi bridge',
  'position': 'Plotter',
  'broadcast': 'Radio',
}

/** What a part is, in a word or two. */
function noun(part: Part): string {
  switch (part.kind) {
    case 'antenna':
      return SHAPE[part.shape]
    case 'router':
      return part.outdoors ? 'Outdoor modem' : part.supply === 'USB' && !part.lanPorts && !part.wifiMbps ? 'Stick' : 'Router'
    case 'amplifier':
      return isExtender(part) ? 'Extender' : 'Amplifier'
    case 'arrestor':
      return part.ports[0]?.connector === 'RJ45' ? 'Data arrestor' : 'Arrestor'
    case 'injector':
      return part.ports.length > 2 ? 'Switch' : 'Injector'
    case 'source':
      if (part.takes === 'nothing') return part.ports.length > 1 ? 'Fuse board' : 'Fuse tap'
      return part.batteryWh ? 'UPS' : isInverter(part) ? 'Inverter' : 'Converter'
    case 'service':
      if (part.does === 'splitter') return 'VHF and AIS splitter'
      return part.does === 'antenna' ? `${capital(part.service)} antenna` : SET_NAMES[part.service]
    case 'pad':
      return `Pad ${part.lossDb} dB`
    case 'splitter':
      return 'Splitter'
    case 'tap':
      return `Tap ${part.couplingDb} dB`
    case 'adapter':
      return part.id.startsWith('adp-window') ? 'Window lead' : `Adapter ${endsOf(part.ports)}`
    case 'line':
      return part.name
  }
}
const endsOf = (ports: readonly Port[]): string => ports.map(p => p.connector).join('–')

/** Over the top of what the body of a boat is, an antenna is on its mast, m. */
const ON_MAST_M = 1.5

/** Where an antenna stands outdoors: `Roof`, `Wall`, `Mast`. */
function outdoors(kind: Job['kind'], b: Building, node: Node): string {
  if (kind === 'boat') return node.upM > b.eavesM + ON_MAST_M ? 'Mast' : 'Deck'
  if (kind === 'vehicle') return node.upM > b.eavesM - 0.2 ? 'Roof' : 'Outside'
  return node.upM > b.eavesM ? 'Roof' : 'Wall'
}

/** What hangs in a room is no further over or under a place in it, m. */
const STOREY_M = 3

/** The room in which a part is: of the places noted indoors the nearest on its level, else the floor where there are several. */
function roomOf(doc: Pick<JobDocument, 'spots' | 'jobs'>, b: Building, node: Node): string {
  const level = floorAt(b.floors, node.upM)
  const rooms = doc.spots.filter(
    s => s.indoors && Math.abs(s.upM - node.upM) < STOREY_M && floorAt(b.floors, s.upM).level === level.level,
  )
  const near = nearestTo(node, rooms)
  if (near) return near.name
  if (b.floors.length < 2) return ''
  return level.name ?? (level.level ? `floor ${level.level}` : 'ground floor')
}

/** Told by the room they are in, also where there is but one of them. */
const BY_ROOM: ReadonlySet<Part['kind']> = new Set(['antenna', 'router', 'amplifier', 'injector', 'source', 'splitter', 'tap'])

/** What a part is called: its name; what it is alike with, and the number by which it is told from those. */
export interface Called {
  name: string
  what: string
  number: number
}

/**
 * @param parts  of one design, in the order in which they were put in: those alike are numbered by it, but for those with a number
 * @returns a name a part: `Roof panel`, `Dome 3, Workshop`, `Arrestor 2`
 */
export function namesOf(doc: JobDocument, parts: readonly Named[]): Map<string, Called> {
  const job = doc.jobs[0]
  const b = job && doc.sites[0] ? buildingOf(doc) : null
  const plain = parts.map(({ node, part }) => {
    const what = noun(part)
    if (!b || !job) return { what, room: '' }
    if (part.kind === 'antenna' && !inside(b, node)) return { what: `${outdoors(job.kind, b, node)} ${lower(what)}`, room: '' }
    const room = BY_ROOM.has(part.kind) && inside(b, node) && !(movesAbout(job.kind) && part.kind !== 'antenna')
    return { what, room: room ? roomOf(doc, b, node) : '' }
  })
  const alike = new Map<string, Node[]>()
  parts.forEach(({ node }, i) => {
    const { what } = nth(plain, i)
    alike.set(what, [...(alike.get(what) ?? []), node])
  })
  const numbers = new Map([...alike.values()].flatMap(many => [...numbered(many)]))
  return new Map(
    parts.map(({ node, part }, i) => {
      const { what, room } = nth(plain, i)
      const number = entryOf(numbers, node.id)
      const several = entryOf(alike, what).length > 1 || number > 1
      const told = several && part.kind !== 'adapter' ? `${what} ${number}` : what
      // One box of its kind is known without its room.
      const placed = room && (part.kind === 'antenna' || several) ? `${told}, ${room}` : told
      return [node.id, { name: node.name?.trim() || placed, what, number }]
    }),
  )
}

/** Of parts alike: those that keep a number have it, the first to say so; the others take what is free, in their order. */
function numbered(alike: readonly Pick<Node, 'id' | 'number'>[]): Map<string, number> {
  const kept = new Map<number, string>()
  for (const { id, number } of alike) if (number !== null && !kept.has(number)) kept.set(number, id)
  let next = 1
  return new Map(
    alike.map(({ id, number }) => {
      if (number !== null && kept.get(number) === id) return [id, number]
      while (kept.has(next)) next++
      return [id, next++]
    }),
  )
}
/** A name of somebody keeps its capital. */
const lower = (what: string): string => (what === SHAPE.Yagi ? what : what.toLowerCase())

/** @returns a name without its room: what fits beside a part on a picture */
export const shortName = (name: string): string => nth(name.split(','), 0)
