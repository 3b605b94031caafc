/** Level judged: surge path, overload, output, what the rooms get, and where the dB go. */
import { nth } from '../sure'
import { PARTS } from '../catalogue/parts'
import { lineLossDb } from '../chain/line'
import { consumerLimits, toAirOf, uplinksOf } from '../chain/uplink'
import type { ConsumerLimits, Uplink } from '../chain/uplink'
import type { AmplifierState } from '../chain/levels'
import { turned, wayTo } from '../chain/tree'
import type { Tree, TreeNode } from '../chain/tree'
import { isData, isSupply } from '../chain/data'
import { ownLead } from '../chain/leads'
import { screwOn, spliceInto } from '../fitting/splice'
import { padFor } from '../fitting/usual-kit'
import { isCoax } from '../job/part'
import { atEntrance } from '../install/surge'
import { inside } from '../site/building'
import { between } from '../site/frame'
import { num, numBeside, signed } from '../units'
import { concat, metres, words } from '../words'
import { afterDrafts } from './after'
import { isWorked } from './context'
import type { BandWork, Context, Worked } from './context'
import { unevenDrafts } from './uneven'
import { finding } from './finding'
import type { Draft, Finding } from './finding'

export function levelFindings(c: Context): Finding[] {
  if (!isWorked(c)) return []
  const levels = c.main.levels
  const drafts = [
    ...surge(c),
    ...(levels?.amplifiers ?? []).flatMap(a => amplifierDrafts(c.tree, a)),
    ...rooms(c),
    ...afterDrafts(c),
    ...(levels ? padUpward(c, c.tree) : []),
    ...unevenDrafts(c),
    ...consumer(c),
    ...(levels ? lines(c, c.tree) : []),
  ]
  return drafts.map(d => finding('level', d))
}

/** Down-leads that come into a house or building without an arrestor: one each. */
function surge(c: Worked): Draft[] {
  const wanting = new Set(c.demands.flatMap(d => (d.kind === 'arrestor' && d.state === 'missing' && !d.by ? [d.subjectId] : [])))
  const bare = c.tree.joints.filter(j => wanting.has(j.run.id) && !isSupply(j))
  if (!bare.length) return []
  const several = bare.length > 1
  const data = bare.filter(isData).length
  const leads = data === bare.length ? 'data cable' : data ? 'lead' : 'down-lead'
  return [
    {
      code: 'level.no-arrestor',
      subjectId: c.design.id,
      severity: 'fix',
      title: several ? `${bare.length} ${leads}s without an arrestor` : `No arrestor on the ${leads}`,
      sentence:
        `A surge on the mast comes straight to the device and the people near it. One goes on ${several ? 'each lead' : 'it'}, outdoors ` +
        'where the lead reaches the building, earthed by the short way; local code and a licensed electrician decide.',
      because: 'US NEC 810.20 asks for one at or nearest the entrance',
      source: 'NEC 810.20, from memory',
      cures: [
        {
          label: several ? 'put one on each at the entrance' : 'put an arrestor at the entrance',
          gain: 'surge path',
          cost: '−0.4 dB',
          enough: true,
          steps: bare.flatMap((joint, i) => {
            const [from, to] = [joint.from.at.node, joint.to.at.node]
            const [outer, within] = inside(c.building, from) ? [to, from] : [from, to]
            const at = atEntrance(c.building, within, Math.max(outer.upM, within.upM))
            const toIt = inside(c.building, from) ? between(from, at).distanceM : between(outer, at).distanceM
            const fifty = joint.line?.impedanceOhm !== 75
            return spliceInto(joint, isData(joint) ? 'arr-data' : fifty ? 'arr-gas' : 'arr-gas-f', {
              at,
              firstM: Math.max(0.5, toIt + 1),
              n: i + 1,
            })
          }),
        },
      ],
    },
  ]
}

function amplifierDrafts(tree: Tree, a: AmplifierState): Draft[] {
  const { part, node } = a.at
  const carriers =
    a.carriersFrom === 'assumed' ? ` (${a.carriers} equal carriers assumed)` : a.loudest ? `; loudest is ${a.loudest}` : ''
  const source = `amplifier’s data; carriers ${a.carriersFrom === 'measured' ? 'entered' : a.carriersFrom}`
  if (a.inputMarginDb < 0) {
    const over = -a.inputMarginDb
    const shut = a.limitedBy === 'shut down'
    const pad = padFor(over)
    const joint = tree.joints.find(j => j.to.at.node.id === node.id && j.to.port.role === 'donor')
    return [
      {
        code: 'level.overload',
        subjectId: node.id,
        severity: shut ? 'stop' : 'fix',
        title: shut ? 'Overload: the amplifier shuts down' : `Overloaded by ${num(over, 1)} dB`,
        sentence: `Total in its band at the donor port ${num(a.inputAllDbm)} dBm, limit ${num(part.inputLimitDbm)}${carriers}.`,
        because: 'the input limit is total power, over everything in the band',
        source,
        cures: joint
          ? [
              {
                label: `add a ${num(pad.lossDb)} dB pad before it`,
                gain: `${num(Math.min(pad.lossDb, over), 1)} dB of overload gone`,
                cost: `−${num(pad.lossDb)} dB, toward the mast too`,
                enough: pad.lossDb >= over,
                steps: screwOn(joint, 'to', pad.id),
              },
            ]
          : [],
      },
    ]
  }
  if (a.limitedBy === 'output')
    return [
      {
        code: 'level.output',
        subjectId: node.id,
        severity: 'note',
        title: 'At its output limit',
        sentence:
          `This carrier leaves with ${num(a.carrierLimitDbm, 1)} dBm total at most${carriers}: ` +
          'more gain or a stronger donor would not reach further.',
        because: 'the output limit is shared by every carrier in the band',
        source,
      },
    ]
  return []
}

/** A pad between donor and amplifier weakens the way up by as much as the way down: what is left of a phone inside. */
function padUpward(c: Worked, tree: Tree): Draft[] {
  const { levels, rooms } = c.main
  return levels!.amplifiers.flatMap((a): Draft[] => {
    const at = tree.visits.findIndex(v => v.at.node.id === a.at.node.id && v.entry?.role === 'donor')
    const pads = at < 0 ? [] : wayTo(tree, at).flatMap(v => (v.at.part.kind === 'pad' ? [v.at] : []))
    const lossDb = pads.reduce((sum, p) => sum + (p.part.kind === 'pad' ? p.part.lossDb : 0), 0)
    const toAirDb = toAirOf(levels!, a)
    if (!lossDb || toAirDb === null) return []
    const up = rooms.flatMap(r => (r.upEirpDbm === null ? [] : [r.upEirpDbm]))
    const ceiling = a.at.part.uplinkOutputDbm + toAirDb
    const best = up.length ? Math.max(...up) : ceiling
    return [
      {
        code: 'level.pad-up',
        subjectId: nth(pads, 0).node.id,
        severity: 'note',
        title: `The pad takes ${num(lossDb)} dB from the way up too`,
        sentence:
          `Of a phone inside at full power ${num(best)} dBm EIRP leave toward the mast, without the pad up to ${num(best + lossDb)}. ` +
          'An outside antenna with less gain weakens both ways as well. Where uploads matter take the smallest pad that keeps the ' +
          'amplifier within its limit.',
        because: 'a pad before the amplifier lies on both ways',
        source: 'the chain upward, alike both ways (assumed)',
      },
    ]
  })
}

/** What a consumer booster of the United States may send, on each band of the mast. */
function consumer(c: Worked): Draft[] {
  if (c.job.rules !== 'US') return []
  const source = '47 CFR 20.21(e)(8), from memory'
  return c.bands.flatMap((work): Draft[] => {
    const { levels } = work
    if (!levels) return []
    const band = work.carrier.band.name
    return uplinksOf(levels).flatMap((u): Draft[] => {
      const { node, part } = u.amplifier.at
      const may = consumerLimits(part, work.carrier, u.amplifier.inputAllDbm)
      const over: [code: string, is: number, most: number, unit: string, words: string][] = [
        ['us-gain', part.gainDb, may.gainDb, 'dB', 'of gain'],
        ['us-up-eirp', part.uplinkOutputDbm + u.toAirDb, may.uplinkOutputDbm, 'dBm', 'toward the mast as EIRP'],
        ['us-eirp', insideEirp(work, u.amplifier), may.outputDbm, 'dBm', 'from an inside antenna as EIRP'],
      ]
      return over
        .filter(([, is, most]) => is > most + 0.05)
        .map(([code, is, most, unit, words]): Draft => ({
          code: `level.${code}`,
          subjectId: `${node.id}.${band}`,
          severity: 'fix',
          title: `${band}: ${num(is, 1)} ${unit} ${words}, a consumer booster may ${num(most, 1)}`,
          sentence: 'A certified booster keeps this by itself; a lay-out that asks for more is not what its certificate covers.',
          because: 'conducted and as EIRP: the antennas’ gain counts',
          source,
        }))
        .concat(quietened(band, u, may))
    })
  })
}

/** Gain that a certified booster gives up for its noise; said from what rounds to a decibel on. */
function quietened(band: string, u: Uplink, may: ConsumerLimits): Draft[] {
  const overDb = Math.round(u.noiseDbmPerMHz - may.noiseDbmPerMHz)
  if (!(overDb >= 1)) return []
  return [
    {
      code: 'level.us-noise',
      subjectId: `${u.amplifier.at.node.id}.${band}`,
      severity: 'note',
      title: `${band}: it lowers its gain toward the mast by ${num(overDb)} dB`,
      sentence:
        `At this level outside its own noise may be ${num(may.noiseDbmPerMHz, 1)} dBm/MHz, and with the gain of ` +
        `the sum it would be ${num(u.noiseDbmPerMHz, 1)}. A certified booster keeps this by itself: ` +
        'upload and calls go out up to that much weaker.',
      because: 'the stronger the mast is heard, the less noise may go back to it',
      source: '47 CFR 20.21(e)(8)(i)(A), from memory',
    },
  ]
}

/** Most that an inside antenna of an amplifier may send on a band, EIRP, dBm. */
function insideEirp(work: BandWork, amp: AmplifierState): number {
  const sent = work
    .levels!.servers.filter(s => s.amplifier?.at.node.id === amp.at.node.id)
    .map(s => amp.at.part.outputDbm - s.toAmplifierDb + turned(s.at, work.carrier.frequencyMHz, null).pattern.gainDbi)
  return sent.length ? Math.max(...sent) : -Infinity
}

function rooms(c: Worked): Draft[] {
  return c.main.rooms.flatMap((room): Draft[] => {
    if (room.met) return []
    const short = room.needDbm - room.rsrpDbm
    return [
      {
        code: 'level.room',
        subjectId: room.spot.id,
        severity: room.spot.needed ? 'fix' : 'note',
        title: `${room.spot.name} is ${num(short, short < 1 ? 1 : 0)} dB short`,
        sentence: `RSRP ${numBeside(room.rsrpDbm, room.needDbm)} dBm at a phone, needs ${num(room.needDbm)}.`,
        because: concat(
          words`indoor loss ${num(room.lossDb)} dB over ${metres(room.distanceM)}`,
          `${room.crossedDb >= 0.5 ? `, ${num(room.crossedDb)} dB of it in floors and walls drawn` : ''}`,
        ),
        source: 'ITU-R P.1238 and P.2040, from memory',
      },
    ]
  })
}

/** Loss in one cable from which a better line is worth a word, and what it must save, dB. */
const WORTH_SAYING_DB = 3
const WORTH_CHANGING_DB = 1.5

/** A better line where the one chosen wastes too much. */
function lines(c: Worked, tree: Tree): Draft[] {
  const { frequencyMHz } = c.main.carrier
  const leads = tree.nodes.flatMap(n => leadDraft(n, frequencyMHz))
  const cables = tree.joints.flatMap(({ run, line }): Draft[] => {
    if (!line || !isCoax(line)) return []
    const loss = lineLossDb(line.constants, run.lengthM, frequencyMHz)
    if (loss < WORTH_SAYING_DB) return []
    const better = PARTS.filter(isCoax)
      .filter(p => p.impedanceOhm === line.impedanceOhm)
      .map(p => ({ p, saved: loss - lineLossDb(p.constants, run.lengthM, frequencyMHz) }))
      .filter(x => x.saved >= WORTH_CHANGING_DB)
      .sort((a, b) => a.p.diameterMm - b.p.diameterMm)
    return [
      {
        code: 'level.line',
        subjectId: run.id,
        severity: 'note',
        title: `${num(loss, 1)} dB lost in the ${line.name}`,
        sentence: words`${metres(run.lengthM)} at ${num(frequencyMHz)} MHz.`,
        because: 'k1·√f + k2·f a hundred metres',
        source: 'two-term line model; constants from memory of data sheets',
        cures: better.slice(0, 2).map(({ p, saved }) => ({
          label: `${p.name} instead`,
          gain: `${signed(saved, 1)} dB`,
          cost: `${num(p.diameterMm, 1)} mm thick, bends ${num(p.bendMm)} mm`,
          enough: true,
          steps: [{ table: 'runs' as const, op: 'update' as const, rowId: run.id, fields: { partId: p.id, part: p } }],
        })),
      },
    ]
  })
  return [...leads, ...cables]
}

/** A lead is what its maker made it: the box nearer does not shorten it, another antenna does. */
function leadDraft({ node, part, name }: TreeNode, frequencyMHz: number): Draft[] {
  const lead = part.kind === 'antenna' ? ownLead(part, nth(part.ports, 0)) : null
  const loss = lead ? lineLossDb(lead.line.constants, lead.lengthM, frequencyMHz) : 0
  if (!lead || loss < WORTH_SAYING_DB) return []
  return [
    {
      code: 'level.lead',
      subjectId: node.id,
      severity: 'note',
      title: `${num(loss, 1)} dB lost in the lead of ${name}`,
      sentence: concat(
        words`${metres(lead.lengthM)} of ${lead.line.name} at ${num(frequencyMHz)} MHz`,
        `${lead.assumed ? ', its coax assumed' : ''}. It is fixed: an antenna with sockets and a better line, or the modem at the antenna.`,
      ),
      because: 'k1·√f + k2·f a hundred metres',
      source: 'two-term line model; constants from memory of data sheets',
    },
  ]
}
