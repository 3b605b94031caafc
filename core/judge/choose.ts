/** Choose judged: is anything needed at all, is every part there, do they fit, do they pass the band. */
import { nth, sure } from '../sure'
import { AWS_1_DOWN_MHZ, US_BOOSTER_BANDS } from '../catalogue/parts'
import { misfits } from '../fitting/joints'
import type { Misfit } from '../fitting/joints'
import { WIFI_USABLE_DBM, wifiReach } from '../coverage/wifi'
import { cablesBetween, chainLossDb } from '../fitting/adapters'
import { screwOnChain, turnedLinks } from '../fitting/splice'
import { feedsInto, turned } from '../chain/tree'
import type { Joint, Tree } from '../chain/tree'
import { BESIDE, joinByRole } from '../fitting/by-role'
import type { LinePart, Port } from '../job/part'
import { SINR_EDGES } from '../radio/grades'
import { needAtDbm } from '../site/use'
import type { SpotSummary } from '../survey/spots'
import { num } from '../units'
import { metres, words } from '../words'
import { RULE_PACKS } from './cautions'
import { isLaid } from './context'
import { byAirDrafts } from './by-air'
import { modemDrafts } from './modems'
import { pairDrafts } from './pairs'
import type { Context, Laid } from './context'
import { COMMON, finding } from './finding'
import type { Cure, Draft, Finding } from './finding'

export function chooseFindings(c: Context): Finding[] {
  if (!isLaid(c)) return []
  const { tree } = c
  const drafts = [
    ...missing(c),
    ...broken(tree),
    ...bandsThatPass(c),
    ...joints(tree, c.main?.carrier.frequencyMHz ?? MIDDLE_MHZ),
    ...openPorts(tree),
    ...wrongRoles(tree),
    ...openRoles(tree),
    ...pairDrafts(tree, c.main?.carrier.frequencyMHz ?? MIDDLE_MHZ),
    ...modemDrafts(c),
    ...byAirDrafts(c),
    ...handsOn(c, tree),
    ...wifiRooms(c),
    ...needed(c),
    ...whatABoosterCannot(c),
    ...rules(c),
  ]
  return drafts.map(d => finding('choose', d))
}

function missing(c: Laid): Draft[] {
  const { tree } = c
  const booster = c.design.approach === 'booster'
  const lacks = [
    !tree.donors.length && 'outside antenna',
    booster && !tree.amplifiers.length && 'amplifier',
    booster && !tree.servers.length && 'inside antenna',
    !booster && !tree.routers.length && 'router',
  ].filter((m): m is string => !!m)
  const out: Draft[] = []
  if (lacks.length)
    out.push({
      code: 'choose.missing',
      subjectId: c.design.id,
      severity: 'fix',
      title: `No ${lacks.join(', no ')} chosen`,
      sentence: 'The sum stops where a part is missing.',
      because: 'a signal needs every part between mast and user',
      source: COMMON,
    })
  if (tree.loose.length && tree.donors.length)
    out.push({
      code: 'choose.loose',
      subjectId: c.design.id,
      severity: 'fix',
      title:
        tree.loose.length === 1 ? `${nth(tree.loose, 0).name} hangs on nothing` : `${tree.loose.length} parts hang on nothing`,
      sentence: `No cable leads the signal to: ${tree.loose.map(n => n.name).join(', ')}.`,
      because: 'every way begins at an outside antenna',
      source: COMMON,
    })
  return out
}

const broken = (tree: Tree): Draft[] =>
  tree.broken.map(id => ({
    code: 'choose.unknown-part',
    subjectId: id,
    severity: 'fix',
    title: 'A part or cable that the program does not know',
    sentence: 'Choose it again: until then the sum goes on without it.',
    because: 'its row names no part known, or no port that is free',
    source: COMMON,
  }))

function bandsThatPass(c: Laid): Draft[] {
  const { tree } = c
  const out: Draft[] = []
  if (!c.main) return out
  const { band, frequencyMHz } = c.main.carrier
  for (const a of [...tree.donors, ...tree.servers]) {
    if (turned(a, frequencyMHz, 0).covered) continue
    out.push({
      code: 'choose.antenna-band',
      subjectId: a.node.id,
      severity: 'fix',
      title: `${a.name} is not made for ${band.name}`,
      sentence:
        `${band.name} is at ${num(frequencyMHz)} MHz; the antenna covers ` +
        `${a.part.ranges.map(r => `${r.lowMHz}–${r.highMHz}`).join(' and ')} MHz.`,
      because: 'gain and match are unknown outside the maker’s range',
      source: COMMON,
    })
  }
  for (const box of [...tree.amplifiers, ...tree.routers]) {
    if (box.part.bands.includes(band.name)) continue
    out.push({
      code: 'choose.device-band',
      subjectId: box.node.id,
      severity: 'stop',
      title: `${box.name} has no ${band.name}`,
      sentence: `It works on ${box.part.bands.slice(0, 8).join(', ')}${box.part.bands.length > 8 ? '…' : ''}.`,
      because: 'a device passes nothing on a band it lacks',
      source: COMMON,
    })
  }
  return out
}

/** A router's own ports and Wi-Fi cap what the best antenna brings. */
function handsOn({ job }: Context, tree: Tree): Draft[] {
  const agreed = job.agreedDownMbps
  if (agreed === null) return []
  return tree.routers.flatMap(({ node, part, name }): Draft[] => {
    const ways = [
      { way: 'port', mbps: part.portLimitMbps },
      { way: 'Wi-Fi', mbps: part.wifiMbps || Infinity },
    ]
    const tight = ways.filter(w => w.mbps < agreed)
    if (!tight.length) return []
    return [
      {
        code: 'choose.hands-on',
        subjectId: node.id,
        severity: tight.length === ways.length || nth(tight, 0).way === 'port' ? 'fix' : 'note',
        title: `${name} hands on ${tight.map(w => `${num(w.mbps)} Mbit/s by its ${w.way}`).join(', ')}`,
        sentence:
          `Agreed are ${num(agreed)}: whatever the antenna brings, no more comes out. ` +
          'A faster box, or an access point on its port.',
        because: 'the slowest part of the way is the speed',
        source: 'the part’s own figures',
      },
    ]
  })
}

/** What 2.4 GHz alone carries in a house, Mbit/s. @source common practice (no source) */
const SLOW_WIFI_MBPS = 40

/** Where the router's own Wi-Fi must reach and does not, or only on its slower band. */
function wifiRooms(c: Laid): Draft[] {
  const { tree } = c
  return tree.routers.flatMap(({ node, part }): Draft[] => {
    if (part.wifiMbps === 0) return []
    const reach = wifiReach(c.doc, c.building, node)
    const short = reach.filter(r => r.state === 'short')
    const slow = reach.filter(r => r.state === 'slow' && (c.job.agreedDownMbps ?? 0) > SLOW_WIFI_MBPS)
    if (!short.length && !slow.length) return []
    const named = (list: typeof reach) => list.map(r => `${r.spot.hangs ?? r.spot.name} ${num(r.slowDbm)} dBm`).join(', ')
    return [
      {
        code: 'choose.wifi',
        subjectId: node.id,
        severity: short.length ? 'fix' : 'note',
        title: short.length ? `Its Wi-Fi does not reach ${named(short)}` : `On its slower Wi-Fi only: ${named(slow)}`,
        sentence:
          (slow.length && short.length ? `On its slower band only: ${named(slow)}. ` : '') +
          `From ${WIFI_USABLE_DBM} dBm at 2.4 GHz it works, there with some ${SLOW_WIFI_MBPS} Mbit/s at most: ` +
          'the router nearer, or an access point by cable half way.',
        because: '20 dBm EIRP, indoor loss and every wall on the straight line, a small device’s own antenna',
        source: 'ITU-R P.1238 with P.2040, from memory; levels common practice (no source)',
      },
    ]
  })
}

/** Cables are compared here while no band is chosen, MHz. */
const MIDDLE_MHZ = 800

const joints = (tree: Tree, frequencyMHz: number): Draft[] =>
  misfits(tree).map(m => (m.kind === 'plug' ? plugDraft(m, frequencyMHz) : impedanceDraft(m)))

function plugDraft(m: Misfit, frequencyMHz: number): Draft {
  const { joint } = m
  const side = m.jack === joint.from ? 'from' : 'to'
  const what = joint.line?.name ?? joint.from.at.name
  const cures: Cure[] = []
  if (m.adapters?.length)
    cures.push({
      label: m.adapters.map(l => l.part.name.toLowerCase()).join(' and '),
      gain: 'it fits',
      cost: `−${num(chainLossDb(m.adapters), 1)} dB${m.adapters.length > 1 ? `, ${m.adapters.length} more joints` : ''}`,
      enough: true,
      steps: screwOnChain(joint, side, turnedLinks(m.adapters)),
    })
  const cable = joint.line ? rightCable(joint, joint.line, frequencyMHz) : null
  if (cable) cures.push(cable)
  return {
    code: 'choose.connector',
    subjectId: `${joint.run.id}.${m.jack.at.node.id}`,
    severity: 'fix',
    title: `Plugs do not mate: ${m.words}`,
    sentence:
      `${what} ends in ${m.end.connector} ${m.end.gender}s; ${m.jack.at.name} has a ` +
      `${m.jack.port.connector} ${m.jack.port.gender}. Never forced: an adapter, or another line.`,
    because: 'connector family and gender must match at each joint',
    source: COMMON,
    cures,
  }
}

/** A cable with the plugs that both ends want, where one is sold long enough and takes no more than it saves. */
function rightCable(joint: Joint, line: LinePart, frequencyMHz: number): Cure | null {
  const { lengthM } = joint.run
  const found = cablesBetween(joint.from.port, joint.to.port, { lengthM, frequencyMHz }).find(
    c => c.line.id !== line.id && !c.atFrom.length && !c.atTo.length && c.line.stockM.some(s => s >= lengthM),
  )
  if (!found) return null
  const stockM = sure(found.line.stockM.find(s => s >= lengthM))
  return {
    label: words`the ${found.line.name} instead, ${metres(stockM)}`,
    gain: 'it fits, no adapter',
    cost: `−${num(found.lossDb, 1)} dB in it`,
    enough: true,
    steps: [
      { table: 'runs', op: 'update', rowId: joint.run.id, fields: { partId: found.line.id, part: found.line, lengthM: stockM } },
    ],
  }
}

const impedanceDraft = (m: Misfit): Draft => ({
  code: 'choose.impedance',
  subjectId: `${m.joint.run.id}.${m.jack.at.node.id}`,
  severity: 'note',
  title: m.words,
  sentence: `Costs ${num(m.lossDb, 2)} dB at VSWR ${num(m.vswr, 1)}: little, but the plugs differ too.`,
  because: '−10·log10(1 − |Γ|²)',
  source: 'transmission-line theory',
})

/** Ports left open: a feed without a port, a branch without a feed. */
function openPorts(tree: Tree): Draft[] {
  const out: Draft[] = []
  for (const router of tree.routers) {
    const fed = new Set(feedsInto(tree, router.node.id).map(v => v.entry!.id))
    const branches = router.part.ports.filter(p => p.role === 'cell').length
    if (fed.size && fed.size < branches)
      out.push({
        code: 'choose.feeds',
        subjectId: router.node.id,
        severity: 'note',
        title: `${fed.size === 1 ? 'One feed' : `${fed.size} feeds`} on ${branches} ports`,
        sentence:
          fed.size === 1
            ? 'One layer only: at good SINR two feeds would bring up to twice the rate. The open port keeps its own small antenna.'
            : 'The open ports keep their own small antennas; some boxes tie bands to ports: the maker’s sheet says which.',
        because: 'each layer needs its own feed',
        source: '3GPP TR 36.942 annex A gives the rate per layer',
      })
  }
  for (const { at, port } of tree.open) {
    if (port.role === 'cell' || tree.loose.some(n => n.node.id === at.node.id)) continue
    const what = at.name
    const words =
      port.role === 'feed'
        ? `Feed ${port.id} of ${what} is open`
        : port.role === 'out' || port.role === 'tap' || port.role === 'through'
          ? `An output of ${what} is open`
          : `The ${port.role} port of ${what} is open`
    out.push({
      code: 'choose.open-port',
      subjectId: `${at.node.id}.${port.id}`,
      severity: port.role === 'feed' ? 'fix' : 'note',
      title: words,
      sentence:
        port.role === 'feed'
          ? 'Every feed needs a cable and a port of its own; what is left open brings nothing.'
          : 'Close it with a terminator of the line’s impedance, or what it reflects spoils the others.',
      because: 'an open port reflects all that reaches it',
      source: COMMON,
    })
  }
  return out
}

/** Ports that look alike and are not: Wi-Fi and satellite positions carry no cellular branch. */
const wrongRoles = (tree: Tree): Draft[] =>
  tree.joints.flatMap(j =>
    [j.from, j.to]
      .filter(jack => isBeside(jack.port.role) && carriesCellular(tree, j, jack))
      .map((jack): Draft => ({
        code: 'choose.port-role',
        subjectId: `${j.run.id}.${jack.at.node.id}`,
        severity: 'fix',
        title: `${jack.at.part.kind === 'antenna' ? 'A cellular port' : 'A cellular feed'} on the ${ROLE_WORD[jack.port.role]} ${
          jack.at.part.kind === 'antenna' ? 'lead' : 'port'
        } of ${jack.at.name}`,
        sentence: 'It looks like the others and carries nothing of the mast. The cellular ports are marked as such.',
        because: 'each port has a role of its own',
        source: COMMON,
      })),
  )
const ROLE_WORD: Partial<Record<Port['role'], string>> = { wifi: 'Wi-Fi', position: 'position' }
const isBeside = (role: Port['role']): boolean => role in ROLE_WORD
/** A feed of the mast comes by it, or a modem's branch hangs at its other end. */
const carriesCellular = (tree: Tree, j: Joint, jack: Joint['from']): boolean =>
  tree.visits.some(v => v.joint?.run.id === j.run.id) || (jack === j.from ? j.to : j.from).port.role === 'cell'

/** Leads of a combined antenna that hang free while the box has sockets for them. */
function openRoles(tree: Tree): Draft[] {
  return tree.donors.flatMap((antenna): Draft[] => {
    const box = tree.routers.find(r => feedsInto(tree, r.node.id).some(v => v.donor.node.id === antenna.node.id))
    const steps = box ? joinByRole(tree, antenna, box, [...BESIDE]) : []
    if (!box || !steps.length) return []
    return [
      {
        code: 'choose.roles',
        subjectId: antenna.node.id,
        severity: 'note',
        title: `${steps.length === 1 ? 'A lead' : `${steps.length} leads`} of ${antenna.name} for Wi-Fi and position hang free`,
        sentence:
          `${box.name} has sockets for them. They may stay open: ` +
          'what they would carry then comes by its own small antennas, or not at all.',
        because: 'ports of one role at both ends',
        source: COMMON,
        cures: [
          {
            label: 'join them by role',
            gain: 'every lead on its own socket',
            cost: 'as many leads to pull',
            enough: true,
            steps,
          },
        ],
      },
    ]
  })
}

/** Over what is needed, before "nothing is needed" may be said. Assumed. */
const MARGIN = { levelDb: 10, speed: 1.2, tests: 3 } as const

/** Nothing is needed only where level, quality and every agreed thing are met with margin, by repeated tests. */
function needed({ job, before, design }: Context): Draft[] {
  const spots = before.filter(s => s.spot.needed)
  const agreed = job.agreedDownMbps !== null || job.agreedUpMbps !== null
  if (!spots.length || !agreed || job.agreedCalls) return []
  const enough = (s: SpotSummary): boolean =>
    s.rsrp !== null &&
    s.rsrp.low >= needAtDbm(job, s.spot) + MARGIN.levelDb &&
    s.sinr !== null &&
    s.sinr.low >= nth(job.sinrEdges ?? SINR_EDGES, 1) &&
    s.runs.length >= MARGIN.tests &&
    s.wouldNotLoad === 0 &&
    (job.agreedDownMbps === null || (s.down !== null && s.down.low >= job.agreedDownMbps * MARGIN.speed)) &&
    (job.agreedUpMbps === null || (s.up !== null && s.up.low >= job.agreedUpMbps * MARGIN.speed))
  if (!spots.every(enough)) return []
  return [
    {
      code: 'choose.no-need',
      subjectId: design!.id,
      severity: 'note',
      title: 'No outside antenna needed',
      sentence:
        'Every needed spot has the level, the SINR and the speeds agreed with room to spare, test after test. Say so, and save the money.',
      because: `the lowest of at least ${MARGIN.tests} tests at each needed spot, ${MARGIN.levelDb} dB and a fifth over the need`,
      source: COMMON,
    },
  ]
}

function whatABoosterCannot(c: Laid): Draft[] {
  const { tree } = c
  const start = c.main?.levels?.sources[0]?.start
  if (!tree.amplifiers.length || !start) return []
  const out: Draft[] = []
  const sinr = start.sinr?.median ?? null
  if (sinr !== null && sinr < 3)
    out.push({
      code: 'choose.booster-sinr',
      subjectId: c.design.id,
      severity: 'fix',
      title: 'A booster cannot cure this SINR',
      sentence: `SINR outside is ${num(sinr)} dB and stays so: level rises, speed does not. Try another band, or a router with a beam.`,
      because: 'an amplifier raises signal and interference alike',
      source: COMMON,
    })
  if (start.rsrpDbm < -118 && start.provenance === 'measured')
    out.push({
      code: 'choose.nothing-outside',
      subjectId: c.design.id,
      severity: 'stop',
      title: 'Too little outside to repeat',
      sentence: `RSRP ${num(start.rsrpDbm)} dBm at the donor is under the noise of anything that follows.`,
      because: 'a booster repeats; it makes nothing',
      source: 'thermal noise −123.2 dBm a resource element at NF 9 dB',
    })
  return out
}

function rules(c: Laid): Draft[] {
  const { tree } = c
  if (!tree.amplifiers.length) return []
  const pack = RULE_PACKS[c.job.rules]
  const out: Draft[] = [
    {
      code: 'choose.rules',
      subjectId: c.design.id,
      severity: 'note',
      title: `${pack.name}: consent or approval`,
      sentence: pack.booster,
      because: 'law, not radio',
      source: pack.source,
    },
  ]
  if (c.job.rules !== 'US' || !c.main) return out
  const { band } = c.main.carrier
  const source = '47 CFR 20.21(e)(3), from memory'
  for (const amp of tree.amplifiers) {
    const beyond = amp.part.bands.filter(b => !(US_BOOSTER_BANDS as readonly string[]).includes(b))
    if (beyond.length)
      out.push({
        code: 'choose.us-bands',
        subjectId: amp.node.id,
        severity: 'stop',
        title: `${amp.name} is no consumer booster of the United States`,
        sentence: `It repeats ${beyond.join(', ')}: consumer boosters there repeat ${US_BOOSTER_BANDS.join(', ')} only.`,
        because: 'the rule names the bands',
        source,
      })
  }
  if (band.name === 'B66')
    out.push({
      code: 'choose.aws',
      subjectId: c.design.id,
      severity: 'note',
      title: 'Of B66 a booster repeats only AWS-1',
      sentence: `Up to ${AWS_1_DOWN_MHZ[1]} MHz down: a carrier of B66 above that stays as it is. The channel number tells.`,
      because: 'consumer boosters are certified for AWS-1',
      source,
    })
  return out
}
