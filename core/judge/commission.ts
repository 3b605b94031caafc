/** Commission judged: what comes to the internet by which way, what each carries, and what the owner is left with. */
import { answers, begunSteps, lanesOf, STATE_WORDS } from '../connect/lanes'
import type { Lane } from '../connect/lanes'
import type { RouterNode } from '../chain/tree'
import type { Label } from '../job/schema'
import { checkMbMonth, checkWithin, MONTH_DAYS } from '../connect/check'
import { cardFits, iccidChecks } from '../connect/identity'
import { mbDayCarried, monthOf, periodOf } from '../connect/month'
import { BARE_LABEL } from '../job/defaults'
import { insert, update } from '../job/edits'
import { failoversOf, failoverWords } from '../prove/failover'
import { summarise } from '../survey/stats'
import { num } from '../units'
import type { Context } from './context'
import { feedsOf } from './feeds'
import { COMMON, finding } from './finding'
import type { Cure, Draft, Finding } from './finding'

const cure = (label: string, gain: string, cost: string, steps: Cure['steps']): Cure => ({
  label,
  gain,
  cost,
  enough: true,
  steps,
})

export function commissionFindings(c: Context): Finding[] {
  const lanes = lanesOf(c.doc, c.tree)
  const drafts = lanes.length
    ? [
        ...upDrafts(lanes),
        ...cardDrafts(lanes),
        ...boxDrafts(c),
        ...carriedDrafts(c, lanes),
        ...checkDrafts(lanes),
        ...togetherDrafts(c, lanes),
        ...throttleDrafts(c, lanes),
        ...failoverDrafts(c, lanes),
        ...monthDrafts(c, lanes),
        ...networkDrafts(c),
      ]
    : notBegun(c)
  return drafts.map(d => finding('commission', d))
}

/** A box with a modem comes up by its SIM, its plan and its passwords: that is open until it is noted. */
function notBegun(c: Context): Draft[] {
  if (!c.tree?.routers.length) return []
  const steps = begunSteps(c.doc, c.tree)
  return [
    {
      code: 'commission.none',
      subjectId: c.job.id,
      severity: 'fix',
      title: 'Nothing is noted of how it is set up',
      sentence:
        'By which SIM it comes to the internet, whose passwords it has, what finds its network again: half of all second visits ' +
        'come from these.',
      because: 'a box with a modem is planned',
      source: COMMON,
      cures: steps.length ? [cure('begin with what the plan tells', 'connections and networks laid out', 'nothing', steps)] : [],
    },
  ]
}

/** A connection that is to be used and does not answer. */
const upDrafts = (lanes: readonly Lane[]): Draft[] =>
  lanes.flatMap(({ row }): Draft[] => {
    const { words, next } = STATE_WORDS[row.state]
    const isIdle = row.use === 'by hand' && row.state === 'off'
    if (row.state === 'up' || isIdle) return []
    return [
      {
        code: 'commission.not-up',
        subjectId: row.id,
        severity: answers(row.state) ? 'note' : 'fix',
        title: `${row.name}: ${words}`,
        sentence: `Next: ${next}.`,
        because: 'state as noted in Commission',
        source: COMMON,
      },
    ]
  })

/** Numbers and sizes of cards. */
function cardDrafts(lanes: readonly Lane[]): Draft[] {
  const out: Draft[] = []
  for (const { sim, modem, slot } of lanes) {
    if (!sim) continue
    if (sim.iccid && !iccidChecks(sim.iccid))
      out.push({
        code: 'commission.iccid',
        subjectId: sim.id,
        severity: 'note',
        title: `The number of ${sim.name} may be misread`,
        sentence: 'Its last digit is not what the others make it. Some carriers print none that is: read it once more.',
        because: 'check digit',
        source: 'ITU-T E.118, Luhn',
      })
    const size = modem?.at.part.simSize
    const fits = cardFits(sim.size, size)
    if (fits === 'too large' || fits === 'adapter')
      out.push({
        code: 'commission.card-size',
        subjectId: sim.id,
        severity: fits === 'adapter' ? 'note' : 'fix',
        title:
          fits === 'adapter'
            ? `${sim.name} goes into ${slot ? `slot ${slot}` : 'its slot'} with an adapter`
            : `${sim.name} is too large for its slot`,
        sentence:
          fits === 'adapter'
            ? `A ${sim.size} card in a slot for ${size}: the adapter is on the list. Never push a card in without it.`
            : `A ${sim.size} card, a slot for ${size}: the carrier changes the card.`,
        because: 'sizes of card and slot',
        source: 'ETSI TS 102 221, ISO/IEC 7810, from memory',
      })
  }
  return out
}

/** Firmware of boxes, and doors left open or not looked at. */
const boxDrafts = ({ doc, tree }: Context): Draft[] =>
  (tree?.routers ?? []).flatMap(at => {
    const label = doc.labels.find(l => l.nodeId === at.node.id) ?? null
    return [...doorDrafts(at, label), ...firmwareDrafts(at, label)]
  })

const BOTH_OFF = { wps: 'off', adminFromOutside: 'off' } as const

function doorDrafts(at: RouterNode, label: Label | null): Draft[] {
  const out: Draft[] = []
  if (!label?.wps || !label.adminFromOutside)
    out.push({
      code: 'commission.doors-unknown',
      subjectId: at.node.id,
      severity: 'fix',
      title: `${at.name}: WPS and the door from outside were not looked at`,
      sentence: 'A press on the box, or its address, may let anybody in. Look at both on its page, and switch them off.',
      because: 'nothing is noted of them',
      source: COMMON,
      cures: [
        cure('looked at: both off', 'no way in from outside', 'a minute on its page first', [
          label
            ? update('labels', label.id, BOTH_OFF)
            : { ...insert('labels', { ...BARE_LABEL, nodeId: at.node.id, ...BOTH_OFF }), rowId: 'new:label' },
        ]),
      ],
    })
  const open = [label?.wps === 'on' && 'WPS is on', label?.adminFromOutside === 'on' && 'it is administered from outside']
  const left = open.filter((d): d is string => !!d)
  if (label && left.length)
    out.push({
      code: 'commission.doors',
      subjectId: label.id,
      severity: 'fix',
      title: `${at.name}: ${left.join(', ')}`,
      sentence: 'Whoever passes, or finds its address, comes in. Both off, unless the owner asks for it by name.',
      because: 'as noted on its label',
      source: COMMON,
      cures: [
        cure('noted as off', 'no way in from outside', 'switched off at the box first', [update('labels', label.id, BOTH_OFF)]),
      ],
    })
  return out
}

const firmwareDrafts = (at: RouterNode, label: Label | null): Draft[] =>
  label?.firmwareNeeded && label.firmwareFound !== label.firmwareNeeded
    ? [
        {
          code: 'commission.firmware',
          subjectId: label.id,
          severity: label.firmwareFound ? 'fix' : 'note',
          title: `${at.name}: firmware ${label.firmwareNeeded} is needed, ${label.firmwareFound ?? 'nothing'} found`,
          sentence: 'Bring it up to that in coverage, before it is on the roof, or read what it has.',
          because: 'as noted on its label',
          source: COMMON,
        },
      ]
    : []

const tunnelsOf = (c: Context) => c.doc.appliances.filter(a => a.tunnel)

/** What a connection that is counted should not carry. */
const carriedDrafts = (c: Context, lanes: readonly Lane[]): Draft[] => {
  const tunnels = tunnelsOf(c)
  if (!tunnels.length) return []
  return lanes.flatMap(({ row, allowanceGb }): Draft[] => {
    if (allowanceGb === null || row.carries !== 'everything') return []
    const only = lanes.length === 1
    const backup = lanes[0]?.row.id !== row.id
    return [
      {
        code: 'commission.tunnel',
        subjectId: row.id,
        severity: only || !backup ? 'note' : 'fix',
        title: `Tunnels go over ${row.name}, which has ${num(allowanceGb)} GB`,
        sentence:
          `${tunnels.map(t => t.name).join(', ')}: a tunnel sends all that is behind it, ` +
          'and a file copied at night is the month’s data.',
        because: 'what hangs on the networks, and the plan’s allowance',
        source: COMMON,
        cures: only
          ? []
          : [
              cure('no tunnels over it', 'the allowance is kept for calls and pages', 'no tunnel while it serves', [
                update('connections', row.id, { carries: 'no tunnels' }),
              ]),
            ],
      },
    ]
  })
}

/** Share of an allowance at which a check costs too much, and what it is brought under. Assumed. */
const CHECK_SHARE = 0.1
const CHECK_AIM = 0.02

function checkDrafts(lanes: readonly Lane[]): Draft[] {
  const out: Draft[] = []
  const inOrder = lanes.filter(l => l.row.use === 'in order')
  const first = inOrder[0]
  if (first && inOrder.length > 1 && !first.row.checkS)
    out.push({
      code: 'commission.no-check',
      subjectId: first.row.id,
      severity: 'fix',
      title: `Nothing asks whether ${first.row.name} still answers`,
      sentence: 'A line whose plug is in and behind which there is no internet is never given up without a check.',
      because: 'another connection is to take over',
      source: COMMON,
      cures: [
        cure('ask every 10 s at two places, given up after 3', 'a failure is seen in half a minute', 'its few bytes', [
          update('connections', first.row.id, { checkS: 10, checkPlaces: 2, checkMisses: 3 }),
        ]),
      ],
    })
  for (const { row, allowanceGb } of lanes) {
    const mb = checkMbMonth(row)
    if (!allowanceGb || mb < CHECK_SHARE * allowanceGb * 1000) continue
    const checkS = checkWithin(row, allowanceGb, CHECK_AIM)
    out.push({
      code: 'commission.check-costs',
      subjectId: row.id,
      severity: 'fix',
      title: `The check of ${row.name} takes ${num(mb)} MB a month of ${num(allowanceGb * 1000)}`,
      sentence: 'It uses up what it is to guard. A connection that stands by is asked seldom.',
      because: `168 bytes for each question, every ${num(row.checkS ?? 0)} s at ${row.checkPlaces ?? 1} of places`,
      source: 'RFC 791, RFC 792',
      cures:
        checkS === null
          ? []
          : [
              cure(`every ${num(checkS)} s`, `${num(checkMbMonth({ ...row, checkS }))} MB a month`, 'a failure is seen later', [
                update('connections', row.id, { checkS }),
              ]),
            ],
    })
  }
  return out
}

/** A backup that fails with what it backs up. */
function togetherDrafts(c: Context, lanes: readonly Lane[]): Draft[] {
  const [first, ...others] = lanes
  if (!first) return []
  const out: Draft[] = []
  const named = (id: string | null) =>
    c.doc.masts.find(m => m.id === id)?.name ?? c.doc.fixtures.find(f => f.id === id)?.name ?? ''
  for (const o of others) {
    const shared = [
      first.mastId && first.mastId === o.mastId && `mast ${named(first.mastId)}`,
      first.row.socketId && first.row.socketId === o.row.socketId && `socket ${named(first.row.socketId)}`,
      first.row.entryId && first.row.entryId === o.row.entryId && `way in ${named(first.row.entryId)}`,
      first.modem && first.modem.at.node.id === o.modem?.at.node.id && first.modem.index === o.modem.index && 'modem',
    ].filter((s): s is string => !!s)
    if (shared.length)
      out.push({
        code: 'commission.together',
        subjectId: o.row.id,
        severity: shared.length === 1 && shared[0] === 'modem' ? 'note' : 'fix',
        title: `${first.row.name} and ${o.row.name} fail together`,
        sentence: `Both by the same: ${shared.join(', ')}. What takes one away takes the other.`,
        because: 'what each connection stands on',
        source: COMMON,
      })
  }
  const feeds = c.tree ? feedsOf(c.doc, c.tree, c.job.kind, c.building) : []
  const held = feeds.filter(f => (f.upsMin ?? 0) > 0)
  const bare = feeds.filter(
    f => !((f.upsMin ?? 0) > 0) && lanes.some(l => (l.row.nodeId ?? l.modem?.at.node.id) === f.at.node.id),
  )
  if (held.length)
    for (const f of bare)
      out.push({
        code: 'commission.ups',
        subjectId: f.at.node.id,
        severity: 'fix',
        title: `${f.at.name} is on no UPS`,
        sentence: `${held[0]!.at.name} is: with the mains off, one works and the other does not.`,
        because: 'feeds as planned',
        source: COMMON,
      })
  for (const { row } of lanes)
    if (row.address === 'behind a router')
      out.push({
        code: 'commission.double-nat',
        subjectId: row.id,
        severity: 'note',
        title: `${row.name} lies behind a second router`,
        sentence:
          'Calls to the house, cameras from outside and some tunnels fail: its own box is set to pass all through, or left out.',
        because: 'address as noted',
        source: COMMON,
      })
  return out
}

/** A throttle that was never reached holds nothing back, share of what was measured. Assumed. */
const THROTTLE_SHARE = 0.8

const throttleDrafts = (c: Context, lanes: readonly Lane[]): Draft[] =>
  lanes.flatMap(({ row, sim }): Draft[] => {
    if (!sim || row.throttleDownMbps === null) return []
    const runs = c.log.runs.filter(r => r.setup?.sim?.id === sim.id && r.phase === 'after')
    const got = summarise(runs.map(r => r.downMbps))?.median
    if (got === undefined || got <= 0 || row.throttleDownMbps <= got) return []
    const aim = Math.max(0.1, Math.round(got * THROTTLE_SHARE * 10) / 10)
    return [
      {
        code: 'commission.throttle',
        subjectId: row.id,
        severity: 'note',
        title: `${row.name} is held to ${num(row.throttleDownMbps, 1)} Mbit/s, and ${num(got, 1)} were measured`,
        sentence:
          'Held to more than it brings, nothing is kept free for calls. Both ends are held: here, and at the other end of a tunnel.',
        because: `median of ${runs.length} tests after`,
        source: COMMON,
        cures: [
          cure(`hold it to ${num(aim, 1)}`, 'calls keep their share', `${num(got - aim, 1)} Mbit/s`, [
            update('connections', row.id, { throttleDownMbps: aim }),
          ]),
        ],
      },
    ]
  })

/** Another is there to take over, and nobody saw it do so. */
function failoverDrafts(c: Context, lanes: readonly Lane[]): Draft[] {
  const inOrder = lanes.filter(l => l.row.use !== 'by hand')
  const first = inOrder[0]
  if (!first || inOrder.length < 2) return []
  const summary = failoversOf(c.doc.failovers, c.atUtc).find(f => f.connectionId === first.row.id)
  if (!summary)
    return [
      {
        code: 'commission.failover-untested',
        subjectId: first.row.id,
        severity: 'fix',
        title: `Failover from ${first.row.name} was never tested`,
        sentence: 'Pull its line and time it: what is not tried fails on the day it is wanted.',
        because: `${inOrder.length} connections are to stand in for each other`,
        source: COMMON,
      },
    ]
  if (!summary.failed) return []
  return [
    {
      code: 'commission.failover-failed',
      subjectId: first.row.id,
      severity: 'fix',
      title: `Nothing took over from ${first.row.name}`,
      sentence: `${failoverWords(summary.last, first.row.name)}. Look at order, check and state of the next one.`,
      because: 'the last test',
      source: 'tested here',
    },
  ]
}

const LIKELY = 0.5
const ALL_BUT_SURE = 0.9

/** @returns the month of each connection that is counted, by what hangs on the networks and what was counted */
export function monthsOf(c: Pick<Context, 'doc' | 'tree' | 'atUtc'>, lanes: readonly Lane[] = lanesOf(c.doc, c.tree)) {
  const first = lanes[0]?.row.id
  return lanes.flatMap(({ row, sim, allowanceGb }) => {
    if (!allowanceGb) return []
    const period = periodOf(c.atUtc.slice(0, 10), sim?.resetDay ?? null)
    const from = Date.parse(period.from)
    const counted = c.doc.usageDays
      .filter(u => u.connectionId === row.id)
      .map(u => ({ day: Math.round((Date.parse(u.onDay) - from) / 86_400_000) + 1, mb: u.mb }))
    // What stands by carries its check alone until it is wanted.
    const carried = row.id === first || row.use === 'bonded' ? mbDayCarried(c.doc.appliances, row.carries) : 0
    const expectedMbDay = carried + checkMbMonth(row) / MONTH_DAYS
    const month = monthOf({ allowanceGb, days: period.days, expectedMbDay }, counted)
    return month
      ? [{ row, sim, period, month, counted, expectedMbDay, outageMbDay: mbDayCarried(c.doc.appliances, row.carries) }]
      : []
  })
}

const monthDrafts = (c: Context, lanes: readonly Lane[]): Draft[] =>
  monthsOf(c, lanes).flatMap(({ row, month }): Draft[] => {
    if (month.runsOutChance < LIKELY) return []
    const day = month.runsOutDay
    return [
      {
        code: 'commission.month',
        subjectId: row.id,
        severity: month.runsOutChance >= ALL_BUT_SURE ? 'fix' : 'note',
        title: `${num(month.allowanceGb)} GB of ${row.name} do not last the month`,
        sentence:
          `${num(month.endGb.mid, 1)} GB by its end as things go (${num(month.endGb.low, 1)} to ${num(month.endGb.high, 1)})` +
          `${day ? `; used up on day ${day}` : ''}.`,
        because: month.countedTo ? `counted to day ${month.countedTo}` : 'what hangs on it, each by its usual use',
        source: month.countedTo ? 'counted here' : COMMON,
      },
    ]
  })

/** Names, passwords, and what came back. */
function networkDrafts({ doc }: Context): Draft[] {
  const out: Draft[] = []
  if (!doc.networks.some(n => n.kind === 'management'))
    out.push({
      code: 'commission.no-management',
      subjectId: doc.jobs[0]!.id,
      severity: 'fix',
      title: 'Nobody said how the box is administered',
      sentence: 'By which network, and that its delivered password is gone: note a network for management.',
      because: 'no network is for management',
      source: COMMON,
    })
  for (const n of doc.networks) {
    if (n.password !== 'changed')
      out.push({
        code: 'commission.password',
        subjectId: n.id,
        severity: 'fix',
        title: `${n.name}: the password is ${n.password ?? 'not told'}`,
        sentence:
          'The delivered one stands on the box and in lists. Change it; here its state alone is noted, never the password.',
        because: 'state as noted',
        source: COMMON,
      })
    else if (!n.passwordTo)
      out.push({
        code: 'commission.access',
        subjectId: n.id,
        severity: 'fix',
        title: `${n.name}: nobody was given the password`,
        sentence: 'An owner who cannot come into the own box is locked out: hand it over on paper, and note to whom.',
        because: 'state as noted',
        source: COMMON,
      })
    if (n.kind === 'guests' && n.apart !== 'apart')
      out.push({
        code: 'commission.guests',
        subjectId: n.id,
        severity: n.apart ? 'fix' : 'note',
        title: n.apart ? `${n.name} sees the house` : `${n.name}: not tried whether it sees the house`,
        sentence: 'On the guests’ network, open the page of the box and of a printer: neither may come.',
        because: 'as tried',
        source: COMMON,
      })
    const missing = doc.appliances.filter(a => a.networkId === n.id && !a.backAtUtc)
    if (missing.length)
      out.push({
        code: 'commission.not-back',
        subjectId: n.id,
        severity: 'fix',
        title: `On ${n.name} not seen to work yet: ${missing.map(a => a.name).join(', ')}`,
        sentence: 'Each is looked at before leaving: a camera that lost its network is a second visit.',
        because: 'what hangs on the network',
        source: COMMON,
      })
  }
  return out
}
