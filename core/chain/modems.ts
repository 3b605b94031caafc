/** The modems of a box: which SIM lies in which of its slots, and which feeds of which antenna come to its ports. */
import type { Port, RouterPart } from '../job/part'
import type { JobDocument, Sim, SimSlot } from '../job/schema'
import { portsWith } from './data'
import { feedsInto } from './tree'
import type { AntennaNode, RouterNode, Tree } from './tree'

export interface ModemSlot {
  /** counted over the whole box, from 1 */
  slot: number
  row: SimSlot | null
  sim: Sim | null
}
export interface ModemPort {
  port: Port
  /** null where nothing from outside comes to it */
  from: { antenna: AntennaNode; feed: string } | null
}
export interface Modem {
  at: RouterNode
  /** from 0 */
  index: number
  ports: ModemPort[]
  slots: ModemSlot[]
  /** that it works with: in the first slot that is filled; the others stand by */
  sim: Sim | null
  standby: Sim[]
}

/** @returns ports and slots of each modem; one has all where its maker's sheet says nothing */
const modemsIn = (part: RouterPart): { ports: string[]; slots: number }[] =>
  part.modems ?? [{ ports: portsWith(part, 'cell').map(p => p.id), slots: part.simSlots ?? 1 }]

/** Two people may have filled one slot apart from each other: the row begun last counts. */
const rowOf = (rows: readonly SimSlot[], nodeId: string, slot: number): SimSlot | null =>
  rows.reduce<SimSlot | null>((last, r) => (r.nodeId === nodeId && r.slot === slot && (!last || r.id > last.id) ? r : last), null)

/** @returns the modems of a box, in the order of its ports */
export function modemsOf(doc: Pick<JobDocument, 'simSlots' | 'sims'>, tree: Tree, at: RouterNode): Modem[] {
  const feeds = feedsInto(tree, at.node.id)
  const sims = new Map(doc.sims.map(s => [s.id, s]))
  let before = 0
  return modemsIn(at.part).map((m, index) => {
    const slots = Array.from({ length: m.slots }, (_, i): ModemSlot => {
      const slot = before + i + 1
      const row = rowOf(doc.simSlots, at.node.id, slot)
      return { slot, row, sim: (row && sims.get(row.simId)) ?? null }
    })
    before += m.slots
    const ports = portsWith(at.part, 'cell')
      .filter(p => m.ports.includes(p.id))
      .map((port): ModemPort => {
        const visit = feeds.find(v => v.entry?.id === port.id)
        return { port, from: visit ? { antenna: visit.donor, feed: visit.feed } : null }
      })
    const filled = slots.flatMap(s => s.sim ?? [])
    return { at, index, ports, slots, sim: filled[0] ?? null, standby: filled.slice(1) }
  })
}

/** @returns what a modem is called: by its box, and numbered where that has several */
export const modemName = ({ at, index }: Pick<Modem, 'at' | 'index'>): string =>
  (at.part.modems?.length ?? 1) > 1 ? `modem ${index + 1} of ${at.name}` : at.name

/** @returns the antennas that a modem hears by */
export const heardBy = (m: Modem): AntennaNode[] => [
  ...new Map(m.ports.flatMap(p => (p.from ? [[p.from.antenna.node.id, p.from.antenna] as const] : []))).values(),
]

/** @returns slots of rows that the box does not have: of one that was changed for another */
export function slotsBeyond(doc: Pick<JobDocument, 'simSlots' | 'sims'>, at: RouterNode): { row: SimSlot; sim: Sim | null }[] {
  const most = modemsIn(at.part).reduce((n, m) => n + m.slots, 0)
  return doc.simSlots
    .filter(r => r.nodeId === at.node.id && r.slot > most)
    .map(row => ({ row, sim: doc.sims.find(s => s.id === row.simId) ?? null }))
}

/** @returns the modems of all boxes of a tree */
export const allModems = (doc: Pick<JobDocument, 'simSlots' | 'sims'>, tree: Tree): Modem[] =>
  tree.routers.flatMap(at => modemsOf(doc, tree, at))

/** @returns whether an antenna's feeds went to different modems, and one of these hears by another antenna as well */
export function areCrossed(modems: readonly Modem[]): boolean {
  const heard = modems.map(m => heardBy(m).map(a => a.node.id))
  return heard.some((mine, i) => mine.length > 1 && mine.some(id => heard.some((other, k) => k !== i && other.includes(id))))
}
