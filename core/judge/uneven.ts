/** Are the inside antennas fed evenly, each for what its zone needs? */
import { entryOf } from '../sure'
import { WITHIN_DB } from '../chain/distribution'
import type { AmplifierState, ServerLevel } from '../chain/levels'
import { facingOf, turned } from '../chain/tree'
import type { Tree } from '../chain/tree'
import { indoorLossDb } from '../coverage/indoor'
import { wayDb } from '../coverage/rooms'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { floorAt, floorWords } from '../site/building'
import { exponentOf, needAtDbm, needOfUseDbm, USE_FIGURES } from '../site/use'
import type { Point } from '../site/frame'
import { num } from '../units'
import type { BandWork, Worked } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

/** Antennas of one amplifier, each with what its zone needs and by how much it is over that now. */
export interface Fan {
  amplifier: AmplifierState
  servers: { server: ServerLevel; targetDbm: number; overDb: number }[]
  /** between the best and the worst fed, against their targets, dB */
  spreadDb: number
}

/** A room far away asks no more of an antenna than this over what its own area needs, dB. Assumed. */
const MOST_OVER_RULE_DB = 10

/** @returns the amplifiers that feed two antennas or more */
export function fansOf(c: Worked, work: BandWork | null = c.main): Fan[] {
  if (!work?.levels || !c.tree) return []
  const { levels } = work
  const targets = targetsOf(c, work, c.tree)
  return levels.amplifiers.flatMap((amplifier): Fan[] => {
    const mine = levels.servers.filter(s => s.amplifier?.at.node.id === amplifier.at.node.id)
    if (mine.length < 2) return []
    const servers = mine.map(server => {
      const targetDbm = entryOf(targets, server.at.node.id)
      return { server, targetDbm, overDb: server.fedRsrpDbm - targetDbm }
    })
    const over = servers.map(s => s.overDb)
    return [{ amplifier, servers, spreadDb: Math.max(...over) - Math.min(...over) }]
  })
}

/**
 * RSRP that each antenna must be fed: for the area that one antenna serves among ordinary walls, and for the rooms
 * that hear it best, whichever is more.
 */
function targetsOf(c: Worked, work: BandWork, tree: Tree): Map<string, number> {
  const { frequencyMHz } = work.carrier
  const servers = work.levels!.servers.map(s => turned(s.at, frequencyMHz, facingOf(tree, s.at)))
  const out = new Map<string, number>()
  const rule = new Map<string, number>()
  for (const s of servers) {
    const { use } = floorAt(c.building.floors, s.at.node.upM - 0.01)
    const edgeM = Math.sqrt(USE_FIGURES[use].areaM2 / Math.PI)
    const lossDb = indoorLossDb({ distanceM: edgeM, frequencyMHz, n: exponentOf(use, frequencyMHz) })
    const own = needOfUseDbm(c.job, use) + lossDb - s.pattern.gainDbi - DEVICE_GAIN_DBI.phone
    rule.set(s.at.node.id, own)
    out.set(s.at.node.id, own)
  }
  for (const spot of c.doc.spots.filter(s => s.indoors)) {
    const ways = servers.map(s => ({ id: s.at.node.id, lossDb: wayDb(c.building, s, spot, frequencyMHz).lossDb }))
    if (!ways.length) break
    const nearest = ways.reduce((a, b) => (b.lossDb < a.lossDb ? b : a))
    const asks = Math.min(
      needAtDbm(c.job, spot) + nearest.lossDb - DEVICE_GAIN_DBI.phone,
      entryOf(rule, nearest.id) + MOST_OVER_RULE_DB,
    )
    out.set(nearest.id, Math.max(entryOf(out, nearest.id), asks))
  }
  return out
}

export function unevenDrafts(c: Worked): Draft[] {
  return fansOf(c).flatMap((fan): Draft[] => {
    const name = (s: Fan['servers'][number]) => zoneName(c, s.server.at.node)
    const best = fan.servers.reduce((a, b) => (b.overDb > a.overDb ? b : a))
    const worst = fan.servers.reduce((a, b) => (b.overDb < a.overDb ? b : a))
    if (fan.spreadDb <= 2 * WITHIN_DB)
      return [
        {
          code: 'level.even',
          subjectId: fan.amplifier.at.node.id,
          severity: 'good',
          title: `${fan.servers.length} antennas fed within ${num(fan.spreadDb, 1)} dB`,
          sentence: `Against what each zone needs: ${name(best)} gets most, ${name(worst)} least.`,
          because: 'target by the area one antenna serves and the rooms that hear it',
          source: COMMON,
        },
      ]
    return [
      {
        code: 'level.uneven',
        subjectId: fan.amplifier.at.node.id,
        severity: worst.overDb < -WITHIN_DB ? 'fix' : 'note',
        title: `${num(fan.spreadDb)} dB between the best and the worst fed antenna`,
        sentence:
          `${name(best)} gets ${num(best.server.fedRsrpDbm)} dBm RSRP at its antenna, ${name(worst)} ` +
          `${num(worst.server.fedRsrpDbm)}: ${num(Math.max(0, -worst.overDb))} dB under what its zone needs.`,
        because: 'the nearest to the amplifier gets most, the last least; taps even it out',
        source: COMMON,
        solves: true,
      },
    ]
  })
}

/** The zone of an antenna: its floor, by name where it has one. */
export function zoneName(c: Worked, at: Point): string {
  return floorWords(floorAt(c.building.floors, at.upM - 0.01))
}
