/**
 * What costs nothing, or next to nothing: as it is, another band, another SIM, another window; and what the readings
 * say of plan and hour.
 */
import { nth, sure } from '../sure'
import { wifiReach, wifiShort } from '../coverage/wifi'
import { byTests, draw } from '../promise/promise'
import { MAST_ELEMENT_DBM, readBeside, shareAt, uploadAt } from '../promise/inputs'
import type { Expected } from '../promise/promise'
import { RECEIVER_NF_DB } from '../radio/levels'
import { capsSeen } from '../survey/caps'
import { ASSUMED_BANDWIDTH_MHZ } from '../masts/predict'
import { summariseSpot } from '../survey/spots'
import type { SpotSummary } from '../survey/spots'
import { given, mbps } from '../units'
import { callsOverWifi, capOfSim, ownBefore } from '../judge/context'
import { needForCallsDbm } from '../site/use'
import type { Context } from '../judge/context'

export type Calls = 'as phones are' | 'over Wi-Fi' | 'not everywhere' | 'not known'

/** An approach that was tried, or is reckoned from a reading alone. */
export interface Free {
  id: 'nothing' | 'band' | 'sim' | 'move' | 'window'
  name: string
  down: Expected | null
  up: Expected | null
  where: string
  calls: Calls
  hours: number
  cost: 0 | 1
  cannot: string[]
  /** whether the figures were measured just so */
  measured: boolean
}

/** Every cure that asks for no hole, the one that changes nothing first. */
export function freeCures(c: Context, base: SpotSummary): Free[] {
  return [asItIs(c, base), otherBand(c, base), otherSim(c, base), ...moved(c, base)].filter((f): f is Free => f !== null)
}

function asItIs(c: Context, base: SpotSummary): Free | null {
  if (!base.down) return null
  return tried(c, base, { id: 'nothing', name: 'Nothing: as it is' })
}

const tried = (c: Context, s: SpotSummary, f: Pick<Free, 'id' | 'name'> & Partial<Free>): Free => ({
  down: s.down && byTests(s.down, c.own.usual.speed),
  up: s.up && byTests(s.up, c.own.usual.speed),
  where: `in ${s.spot.name}`,
  calls: callsNow(c),
  hours: 0,
  cost: 0,
  cannot: [],
  measured: true,
  ...f,
})

/** The bands tried at the baseline's place with a speed test each: one that was faster than what answers by itself. */
function otherBand(c: Context, base: SpotSummary): Free | null {
  if (!base.down) return null
  const locked = new Map<string, string>()
  for (const r of c.log.runs) {
    const lock = r.setup?.row.bandLock
    if (r.spotId === base.spot.id && r.phase === 'before' && lock && r.setupId) locked.set(lock, r.setupId)
  }
  const found = [...locked]
    .map(([lock, setupId]) => ({ lock, s: summariseSpot(c.log, base.spot, 'before', { setupId }) }))
    .filter(x => x.s.down && x.s.down.median > sure(base.down).median)
    .sort((a, b) => sure(b.s.down).median - sure(a.s.down).median)[0]
  if (!found) return null
  return tried(c, found.s, {
    id: 'band',
    name: `Lock to ${found.lock}`,
    hours: 0.25,
    cannot: ['follow the network: a locked band goes when its carrier does'],
  })
}

/** Another SIM tried at the baseline's place. */
function otherSim(c: Context, base: SpotSummary): Free | null {
  if (!base.down) return null
  const mine = base.setup?.row.simId ?? null
  const byOther = new Map<string, { setupId: string; name: string }>()
  for (const r of c.log.runs) {
    const sim = r.setup?.sim
    if (r.spotId !== base.spot.id || r.phase !== 'before' || !sim || sim.id === mine || !r.setupId) continue
    byOther.set(r.setupId, { setupId: r.setupId, name: sim.name })
  }
  const found = [...byOther.values()]
    .map(({ setupId, name }) => ({ name, s: summariseSpot(c.log, base.spot, 'before', { setupId }) }))
    .filter(x => x.s.down && x.s.down.median > sure(base.down).median)
    .sort((a, b) => sure(b.s.down).median - sure(a.s.down).median)[0]
  if (!found) return null
  return tried(c, found.s, {
    id: 'sim',
    name: `Another SIM: ${found.name}`,
    hours: 0.25,
    cannot: ['keep the number and the plan: a contract changes'],
  })
}

/** What a device's own antennas and the way it is held leave unsure when it is moved, dB. Assumed. */
const MOVED_SIGMA_DB = 2

/** The router where a room reads best, its Wi-Fi from there; and the modem there with the Wi-Fi left in the middle. */
function moved(c: Context, base: SpotSummary): Free[] {
  if (!base.rsrp || !base.sinr) return []
  const rooms = ownBefore(c).filter(s => s.spot.indoors && s.spot.id !== base.spot.id && s.rsrp && s.sinr && s.band === base.band)
  const best = rooms.reduce<SpotSummary | null>((a, b) => (!a || sure(b.sinr).median > sure(a.sinr).median ? b : a), null)
  if (!best || sure(best.sinr).median <= base.sinr.median) return []
  const { down, up } = speedAt(c, base, best)
  const reach = wifiReach(c.doc, c.building, best.spot)
  const short = wifiShort(reach)
  const hangs = c.doc.spots.filter(s => s.hangs && s.id !== best.spot.id)
  const common = { down, up, where: `at the router, to ${best.spot.name}`, measured: false } as const
  const move: Free = {
    ...common,
    id: 'move',
    name: `Move the router to ${best.spot.name}`,
    calls: 'over Wi-Fi',
    hours: 0.5,
    cost: 0,
    cannot: [
      short.length
        ? `reach with its Wi-Fi from there: ${short.map(s => s.name).join(', ')}`
        : `leave its Wi-Fi where it was: what hung on it in ${base.spot.name} may lose it`,
      ...(hangs.length ? [`keep what hangs on today’s place: ${hangs.map(s => `${s.hangs} (${s.name})`).join(', ')}`] : []),
    ],
  }
  const window: Free = {
    ...common,
    id: 'window',
    name: `Modem in ${best.spot.name}, Wi-Fi left in the middle`,
    where: `at the modem, to ${best.spot.name}`,
    calls: 'over Wi-Fi',
    hours: 1.5,
    cost: 1,
    cannot: ['do without an Ethernet lead between the two, and an access point where the router stood'],
  }
  return [move, window]
}

/** By its own tests where there are some; else down by what was read there, and up by how much nearer the mast it is. */
function speedAt(c: Context, base: SpotSummary, best: SpotSummary): { down: Expected; up: Expected } {
  const bandwidthMHz = base.readings.find(r => r.bandwidthMHz)?.bandwidthMHz ?? ASSUMED_BANDWIDTH_MHZ
  const cap = capOfSim(c)
  const { share } = shareAt(base, readBeside(c.own, base), bandwidthMHz)
  const { down, up } = draw({
    mountRsrpDbm: { mean: sure(best.rsrp).median, sigma: MOVED_SIGMA_DB },
    readRsrpDbm: { mean: sure(best.rsrp).median, sigma: MOVED_SIGMA_DB },
    readSinrDb: { mean: sure(best.sinr).median, sigma: MOVED_SIGMA_DB },
    netGainDb: { mean: 0, sigma: MOVED_SIGMA_DB },
    discriminationDb: { mean: 0, sigma: 0 },
    share,
    shareSinrDb: base.sinr?.median ?? null,
    measuredUp: uploadAt(base),
    bandwidthMHz,
    layers: 2,
    capMbps: cap.downMbps,
    capUpMbps: cap.upMbps,
    portLimitMbps: null,
    noiseFigureDb: RECEIVER_NF_DB,
    mastElementDbm: MAST_ELEMENT_DBM,
    booster: null,
    added: [],
  })
  const own = (s: SpotSummary['down']) => s && byTests(s, c.own.usual.speed)
  return { down: own(best.down) ?? down, up: own(best.up) ?? up }
}

function callsNow(c: Context): Calls {
  const rooms = ownBefore(c).filter(s => s.spot.needed && s.rsrp)
  if (!rooms.length) return 'not known'
  return Math.min(...rooms.map(s => sure(s.rsrp).low)) >= needForCallsDbm(c.job) ? 'as phones are' : 'not everywhere'
}

/** Tests this much apart in the same place, by hour, are the cell's load. Assumed. */
const BUSY_RATIO = 1.6

/** What no antenna lifts, where the readings show it: the plan's cap, the busy hour, calls over Wi-Fi. */
export function freeRemarks(c: Context, base: SpotSummary | null): string[] {
  const out: string[] = []
  for (const cap of capsSeen(c.log, c.doc.sims))
    out.push(
      `Tests end at ${given(cap.downMbps)} Mbit/s both ways${cap.simName ? ` on ${cap.simName}` : ''}: that is the plan’s cap. ` +
        'No antenna lifts it; another plan does.',
    )
  const { downMbps } = capOfSim(c)
  const agreed = c.job.agreedDownMbps
  if (downMbps !== null && agreed !== null && downMbps < agreed)
    out.push(
      `The plan stops at ${given(downMbps)} Mbit/s, agreed are ${given(agreed)}: the plan must change before anything is fitted.`,
    )
  const busy = base ? busyHour(base) : null
  if (busy) out.push(busy)
  const calls = callsOverWifi(c)
  if (c.job.agreedCalls && calls === 'yes')
    out.push(
      'Plan and phones carry calls over Wi-Fi: any way that brings data brings calls where the Wi-Fi reaches. Try an ordinary call first.',
    )
  if (c.job.agreedCalls && calls === 'no')
    out.push('Plan or phones carry no calls over Wi-Fi: a router brings none; a booster does.')
  return out
}

const hourOf = (utc: string): number => Number(utc.slice(11, 13))

/** The same place and set-up at two hours of the day, far apart in speed. */
function busyHour(base: SpotSummary): string | null {
  const byHour = new Map<number, number[]>()
  for (const r of base.runs) {
    if (r.downMbps === null) continue
    const hour = hourOf(r.takenAtUtc)
    byHour.set(hour, [...(byHour.get(hour) ?? []), r.downMbps])
  }
  const medians = [...byHour].map(([hour, v]) => ({
    hour,
    mbps: nth(
      [...v].sort((a, b) => a - b),
      Math.floor(v.length / 2),
    ),
  }))
  if (medians.length < 2) return null
  const slow = medians.reduce((a, b) => (b.mbps < a.mbps ? b : a))
  const fast = medians.reduce((a, b) => (b.mbps > a.mbps ? b : a))
  if (slow.mbps <= 0 || fast.mbps / slow.mbps < BUSY_RATIO) return null
  return (
    `${base.spot.name} had ${mbps(fast.mbps)} Mbit/s at one hour and ${mbps(slow.mbps)} at another: the cell is shared. ` +
    'Level does not cure a full band; another band or SIM may.'
  )
}
