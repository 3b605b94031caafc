/** Connections of a job in their order: by which modem and SIM, over which mast, and how far each has come. */
import { allModems, heardBy, modemName } from '../chain/modems'
import type { Modem } from '../chain/modems'
import type { Tree } from '../chain/tree'
import { insert } from '../job/edits'
import type { Step } from '../job/edits'
import { NETWORK_KINDS } from '../job/schema'
import type { Appliance, Connection, ConnectionKind, ConnectionState, JobDocument, Network, Sim } from '../job/schema'

export interface Lane {
  row: Connection
  sim: Sim | null
  modem: Modem | null
  slot: number | null
  /** its SIM stands by in a modem that works with another */
  standsBy: boolean
  /** where it comes into the box: `modem 2 of router`, `slot 2`, `WAN` */
  port: string
  mastId: string | null
  /** GB a month; null where nothing is counted */
  allowanceGb: number | null
}

/** Rows in order, whatever two people gave the same rank. */
const ranked = <T extends { rank: number; id: string }>(rows: readonly T[]): T[] =>
  [...rows].sort((a, b) => a.rank - b.rank || a.id.localeCompare(b.id))

type Ground = Pick<JobDocument, 'connections' | 'sims' | 'simSlots' | 'designs' | 'jobs' | 'masts'>

/** @returns the connections, in the order they are tried */
export function lanesOf(doc: Ground, tree: Tree | null): Lane[] {
  const modems = tree ? allModems(doc, tree) : []
  const planned = doc.designs.find(d => d.id === doc.jobs[0]?.designId) ?? doc.designs[0]
  const mast = doc.masts.find(m => m.id === planned?.mastId)
  // A SIM of another carrier holds to another's mast.
  const ofMast = (sim: Sim | null): boolean => !!mast && (!sim?.carrier || sim.carrier === mast.carrier)
  return ranked(doc.connections).map((row): Lane => {
    const sim = doc.sims.find(s => s.id === row.simId) ?? null
    const mine = modems.filter(m => !row.nodeId || m.at.node.id === row.nodeId)
    const modem =
      row.kind === 'cellular' ? (mine.find(m => m.slots.some(s => s.sim && s.sim.id === sim?.id)) ?? mine[0] ?? null) : null
    const slot = modem?.slots.find(s => s.sim && s.sim.id === sim?.id)?.slot ?? null
    const standsBy = !!sim && !!modem?.standby.some(s => s.id === sim.id)
    return {
      row,
      sim,
      modem,
      slot,
      standsBy,
      port: row.kind !== 'cellular' ? WIRED_PORT[row.kind] : standsBy ? `slot ${slot}` : modem ? modemName(modem) : 'modem',
      mastId: row.mastId ?? (row.kind === 'cellular' && isPlanned(modem) && ofMast(sim) ? mast!.id : null),
      allowanceGb: sim?.allowanceGb ?? row.allowanceGb,
    }
  })
}

/** The plan's mast is that of the modem which hears by the planned antenna. */
const isPlanned = (m: Modem | null): boolean => !!m && m.index === 0 && heardBy(m).length > 0

const WIRED_PORT: Record<Exclude<ConnectionKind, 'cellular'>, string> = {
  'cable line': 'WAN',
  'satellite': 'WAN',
  'site Wi-Fi': 'Wi-Fi',
  'tether': 'USB',
}

/** What a state means, and what is asked next. @source TS 27.007 for the states of a modem; words: common practice (no source) */
export const STATE_WORDS: Record<ConnectionState, { words: string; next: string }> = {
  'not in yet': { words: 'not in yet', next: 'SIM, lead or plug goes in, power off' },
  'off': { words: 'off until pressed', next: 'switched on by hand' },
  'no SIM': { words: 'no SIM found', next: 'power off; way round, size, slot, until it clicks' },
  'PIN': { words: 'asks for the PIN', next: 'the PIN is taken off in a phone, by its owner' },
  'searching': { words: 'searching for a network', next: 'two minutes are usual; then bands, mode, antenna leads' },
  'denied': { words: 'the network refuses it', next: 'SIM, plan or the box’s number: the carrier is called' },
  'no data': { words: 'registered, no data', next: 'the access point’s name, letter by letter' },
  'no internet': { words: 'an address, no internet', next: 'allowance, access point, name server' },
  'slow': { words: 'up, slower than it should be', next: 'throttle of the plan, band, busy hour' },
  'up': { words: 'up', next: 'nothing' },
}
/** It answers, well or not. */
export const answers = (s: ConnectionState): boolean => s === 'up' || s === 'slow'
/** Connecting: power was put on and nothing has answered yet. */
export const isConnecting = (c: Pick<Connection, 'state' | 'poweredAtUtc'>): boolean =>
  c.poweredAtUtc !== null && !answers(c.state) && c.state !== 'off'

export const BARE_CONNECTION: Omit<Connection, 'id' | 'name' | 'kind' | 'rank'> = {
  nodeId: null,
  simId: null,
  use: 'in order',
  carries: 'everything',
  throttleDownMbps: null,
  throttleUpMbps: null,
  deviceMbps: null,
  reserveMbps: null,
  checkS: null,
  checkPlaces: null,
  checkMisses: null,
  allowanceGb: null,
  address: null,
  mastId: null,
  socketId: null,
  entryId: null,
  state: 'not in yet',
  stateAtUtc: null,
  poweredAtUtc: null,
}
export const BARE_NETWORK: Omit<Network, 'id' | 'name' | 'kind'> = {
  named: 'new name',
  radio: null,
  apart: null,
  deviceMbps: null,
  password: null,
  passwordBy: null,
  passwordTo: null,
  passwordOn: null,
}
export const BARE_APPLIANCE: Omit<Appliance, 'id' | 'networkId' | 'name'> = {
  backAtUtc: null,
  tunnel: false,
  usage: null,
  hoursDay: null,
  mbHour: null,
}

/** Between two ranks there is always room for a third. */
export const RANK_STEP = 10
/** @returns a rank after all that are there */
export const lastRank = (doc: Pick<JobDocument, 'connections'>): number =>
  Math.max(0, ...doc.connections.map(c => c.rank)) + RANK_STEP

/** @returns ranks as they are once a connection was moved one place up or down; only what changes */
export function moved(doc: Ground, id: string, by: -1 | 1): { id: string; rank: number }[] {
  const rows = ranked(doc.connections)
  const at = rows.findIndex(r => r.id === id)
  const to = at + by
  const [one, other] = [rows[at], rows[to]]
  if (!one || !other) return []
  rows[at] = other
  rows[to] = one
  return rows.flatMap((r, i) => (r.rank === (i + 1) * RANK_STEP ? [] : [{ id: r.id, rank: (i + 1) * RANK_STEP }]))
}

/**
 * What the plan tells already, so that nobody types it twice: a connection for every SIM that lies in a slot, a house network
 * with what hung on the old one, and one for management.
 */
export function begunSteps(doc: JobDocument, tree: Tree | null): Step[] {
  const modems = tree ? allModems(doc, tree) : []
  const filled = modems.flatMap(m => m.slots.flatMap(s => (s.sim ? [{ sim: s.sim, nodeId: m.at.node.id }] : [])))
  const first = modems[0]
  const only = doc.sims[0]
  const cells = filled.length ? filled : first && only ? [{ sim: only, nodeId: first.at.node.id }] : []
  const terminal = doc.fixtures.find(f => f.kind === 'satellite terminal')
  const hangs = doc.spots.flatMap(s => (s.hangs?.trim() ? [`${s.hangs.trim()}, ${s.name}`.slice(0, 80)] : []))
  const networks = NETWORK_KINDS.filter(k => k !== 'guests')
  return [
    ...cells.map(({ sim, nodeId }, i) =>
      step('connections', `new:connection-${i}`, {
        ...BARE_CONNECTION,
        name: sim.name.slice(0, 60),
        kind: 'cellular',
        rank: (i + 1) * RANK_STEP,
        nodeId,
        simId: sim.id,
        carries: i ? 'no tunnels' : 'everything',
      }),
    ),
    ...(terminal
      ? [
          step('connections', 'new:connection-sky', {
            ...BARE_CONNECTION,
            name: terminal.name.slice(0, 60) || 'Satellite',
            kind: 'satellite',
            rank: (cells.length + 1) * RANK_STEP,
            use: 'by hand',
            state: 'off',
          }),
        ]
      : []),
    ...networks.map(kind =>
      step('networks', `new:network-${kind}`, {
        ...BARE_NETWORK,
        name: kind,
        kind,
        named: kind === 'house' && hangs.length ? 'old name kept' : 'new name',
      }),
    ),
    ...hangs.map((name, i) =>
      step('appliances', `new:appliance-${i}`, { ...BARE_APPLIANCE, networkId: 'new:network-house', name }),
    ),
  ]
}

const step = <T extends 'connections' | 'networks' | 'appliances'>(
  table: T,
  rowId: string,
  fields: Parameters<typeof insert<T>>[1],
): Step => ({ ...insert(table, fields, rowId), rowId }) as Step
