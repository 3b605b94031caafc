/** What feeds the boxes, judged: voltage that arrives, wire and fuse, power over data cables, petrol and gas. */
import { lastOf, sure } from '../sure'
import { MOST_DROP, SOURCE_V } from '../chain/wire'
import { num } from '../units'
import { concat, metres, sentenceOf, words } from '../words'
import { partById } from '../catalogue/parts'
import { WIRES } from '../catalogue/wires'
import type { Tree, TreeNode } from '../chain/tree'
import { dataLeadSteps } from '../fitting/data-lead'
import { converterSteps, inverterSteps, rewireSteps, supplyLeadSteps } from '../fitting/supply-lead'
import { bySocket } from '../fitting/layer'
import { withinWall } from '../install/passage'
import { atEntrance, REACHED_M } from '../install/surge'
import { update } from '../job/edits'
import { movesAbout } from '../job/schema'
import { inside } from '../site/building'
import { nearestTo } from '../site/frame'
import { isLaid } from './context'
import type { Context, Laid } from './context'
import { feedsOf, sourcesOf } from './feeds'
import type { BoxFeed } from './feeds'
import { COMMON } from './finding'
import type { Draft, Severity } from './finding'

export function feedDrafts(c: Context): Draft[] {
  if (!c.tree) return []
  const { tree } = c
  const feeds = feedsOf(c.doc, tree, c.job.kind, c.building)
  const each = feeds.flatMap(f => [
    ...starved(tree, f),
    ...fused(f),
    ...overData(f),
    ...noData(c, f),
    ...noSupply(c, f),
    ...fumes(f),
  ])
  return [...each, ...overloaded(feeds)]
}

function starved(tree: Tree, f: BoxFeed): Draft[] {
  const wiresM = f.planned?.begins ? f.planned.way.lengthM : f.lengthM
  if (!f.wired || wiresM === null) return []
  const { inverter } = f.planned ?? {}
  const at = inverter ?? f.at
  const lowest = SOURCE_V[f.feed.volts][0]
  const base = {
    code: 'route.starved',
    subjectId: f.at.node.id,
    severity: 'fix' as Severity,
    title: `${at.name} starves on its lead`,
    because: 'a constant-power load at the lowest voltage of the source, out and back; 3 % of drop borne',
    source: `ABYC E-11 for the drop; ${COMMON} for the range of the source`,
  }
  const drawnW = inverter?.part.mostW ?? f.powerW
  const over = words`${num(drawnW)} W over ${metres(wiresM)} at ${num(lowest, 1)} V`
  const arriving = (fed: BoxFeed['fed']) => (fed?.volts == null ? 'nothing arrives' : `${num(fed.volts, 1)} V arrive`)
  if (!f.wire) {
    const thickest = lastOf(f.tried)
    return [
      {
        ...base,
        sentence: concat(
          words`${over}: even on ${thickest.wire.words} ${arriving(thickest.fed)}. `,
          inverter ? 'It goes nearer the battery.' : 'The box nearer its feed, a converter beside it, or another source.',
        ),
      },
    ]
  }
  if (f.fed?.volts == null || f.fed.dropShare! > MOST_DROP) {
    const enough = f.tried.find(t => t.fed.dropShare !== null && t.fed.dropShare <= MOST_DROP && t.fuseA !== null)
    return [
      {
        ...base,
        sentence: words`${over}: on ${f.wire.words} ${arriving(f.fed)}.`,
        cures: enough
          ? [
              {
                label: `lay ${enough.wire.words}`,
                gain: `${num(enough.fed.volts!, 1)} V arrive`,
                cost: 'thicker wire',
                enough: true,
                steps: [
                  {
                    table: 'nodes',
                    op: 'update',
                    rowId: f.at.node.id,
                    fields: { feed: { ...f.feed, wire: enough.wire.id, fuseA: f.feed.fuseA === null ? null : enough.fuseA } },
                  },
                  ...(f.planned ? rewireSteps(tree, f.at, enough.wire) : []),
                ],
              },
            ]
          : [],
      },
    ]
  }
  if (f.feed.lowestV !== null && f.fed.volts < f.feed.lowestV && f.feed.through === 'lead')
    return [
      {
        ...base,
        title: `${f.at.name} drops out when the engine cranks`,
        sentence:
          `It runs on ${num(f.feed.lowestV, 1)} V and more; ${num(f.fed.volts, 1)} V are left at the lowest of the source. ` +
          'A converter that holds its output while cranking.',
        cures: [
          {
            label: 'a converter beside the box',
            gain: 'its voltage holds',
            cost: 'a part, a little heat',
            enough: true,
            steps: f.planned
              ? converterSteps(tree, f.at)
              : [{ table: 'nodes', op: 'update', rowId: f.at.node.id, fields: { feed: { ...f.feed, through: 'converter' } } }],
          },
        ],
      },
    ]
  return []
}

function fused(f: BoxFeed): Draft[] {
  if (!f.fuseSays || !('refused' in f.fuseSays)) return []
  return [
    {
      code: 'route.fuse',
      subjectId: f.at.node.id,
      severity: 'fix',
      title: `The fuse of ${f.at.name} is not right`,
      sentence: sentenceOf(f.fuseSays.refused),
      because: '1.25 × continuous current ≤ fuse ≤ the thinnest conductor’s; it breaks what the source can drive',
      source: 'NEC 240.4(D) and 210.20(A); ABYC E-11',
    },
  ]
}

function overData(f: BoxFeed): Draft[] {
  if (!f.poe) return []
  const base = {
    subjectId: f.at.node.id,
    because: 'power over the data cable, by its class',
    source: 'IEEE 802.3; ISO/IEC 11801-1',
  }
  const out: Draft[] = []
  if (f.poe.clash)
    out.push({
      ...base,
      code: 'route.poe',
      severity: 'stop',
      title: `${f.at.name}: standard and passive are mixed`,
      sentence: sentenceOf(f.poe.clash),
    })
  if (f.poe.tooLong)
    out.push({
      ...base,
      code: 'route.poe-length',
      severity: 'fix',
      title: `The data cable to ${f.at.name} is longer than 100 m`,
      sentence: words`${metres(f.lengthM!)}: a switch half way, or fibre.`,
    })
  else if (f.poe.arrivesW < f.powerW - 1e-9)
    out.push({
      ...base,
      code: 'route.poe-power',
      severity: 'fix',
      title: `${f.at.name} gets too little over its data cable`,
      sentence: `${num(f.poe.arrivesW, 1)} W arrive, it wants ${num(f.powerW, 1)} W: a shorter way, a higher class, or a feed of its own.`,
    })
  return out
}

function fumes(f: BoxFeed): Draft[] {
  if (!f.feed.fumes || f.feed.ignitionProtected) return []
  return [
    {
      code: 'route.fumes',
      subjectId: f.at.node.id,
      severity: 'stop',
      holds: true,
      title: `${f.at.name} hangs where petrol or gas collects`,
      sentence: 'A spark there burns. Only what is ignition-protected, else another place: high, dry, outside that space.',
      because: 'noted at its feed',
      source: 'ABYC E-11.5.3 and ISO 8846, from memory',
    },
  ]
}

/** A box that is fed over its data cable, and no such cable: nothing is pulled, sealed, earthed or bought for it. */
function noData(c: Context, f: BoxFeed): Draft[] {
  if (!f.poe || f.data?.injector || !isLaid(c)) return []
  const dead = f.data?.parts.find(p => p.part.kind === 'injector')
  if (dead) return [noPower(f.at, dead)]
  const { node } = f.at
  const within = withinWall(c.building, node)
  const injectorAt = f.source ? bySocket(f.source) : within
  const outside = !inside(c.building, node)
  const steps = dataLeadSteps(c, f.at, {
    injectorAt,
    arrestorAt: outside && !movesAbout(c.job.kind) ? atEntrance(c.building, within, REACHED_M) : null,
  })
  return [
    {
      code: 'route.no-data',
      subjectId: node.id,
      severity: 'fix',
      title: f.data ? `The data cable of ${f.at.name} ends at no injector` : `No data cable comes to ${f.at.name}`,
      sentence:
        'It is fed over Ethernet: a cable to an injector by a socket, with its way, hole, drip loop and arrestor. ' +
        'As long as nobody plans it, none is on the list and none on the card.',
      because: `the box asks for ${f.supply}`,
      source: COMMON,
      cures:
        steps.length && !f.data
          ? [
              {
                label: 'lay it to an injector',
                gain: 'pulled, labelled, tested, bought',
                cost: outside ? 'cable, arrestor, injector' : 'cable, injector',
                enough: true,
                steps,
              },
            ]
          : [],
    },
  ]
}

/** A switch that gives no power stands in the data cable by which a box is fed. */
function noPower(box: TreeNode, { node, name }: TreeNode): Draft {
  const part = sure(partById('sw-poe'))
  return {
    code: 'route.no-power',
    subjectId: box.node.id,
    severity: 'fix',
    title: `${name} gives ${box.name} no power`,
    sentence:
      `${box.name} is fed over its data cable, and ${name} passes data alone: ` +
      'one with PoE, or the injector between it and the box.',
    because: 'a plain switch ends power over Ethernet',
    source: 'IEEE 802.3 clause 33, from memory',
    cures: [
      {
        label: `another in its place: ${part.name}`,
        gain: 'it is fed',
        cost: 'a dearer switch',
        enough: true,
        steps: [update('nodes', node.id, { partId: part.id, part, own: null })],
      },
    ],
  }
}

/** A box on 12 V, and no lead to it: nothing is pulled, labelled, fused or bought by its way. */
function noSupply(c: Context, f: BoxFeed): Draft[] {
  if (!isLaid(c)) return []
  if (f.supply === 'mains' && f.feed.through === 'inverter' && !f.planned) return noInverter(c, f)
  if (!f.wired || f.planned?.begins || (f.supply === '12 V' && f.feed.through === 'inverter')) return []
  const wire = f.wire ?? (f.planned?.inverter ? lastOf(WIRES) : null)
  // What changes the voltage beside the box is there already; its lead was taken out.
  const at = f.planned?.way.parts.at(-1) ?? f.at
  const steps = f.source && wire ? supplyLeadSteps(c, at, f.source, wire) : []
  return [
    {
      code: 'route.no-supply',
      subjectId: f.at.node.id,
      severity: 'fix',
      title: `No lead to ${at.name} is planned`,
      sentence: f.source
        ? 'It runs on 12 V: a fuse tap at the feed, and both wires to the box with their way, holes and labels.'
        : 'It runs on 12 V, and no feed is noted on the site: put one on the picture in Place.',
      because: f.wired && f.supply !== '12 V' ? 'it makes mains of 12 V' : 'the box asks for 12 V',
      source: COMMON,
      cures: steps.length
        ? [
            {
              label: `lay it from ${f.source!.name || 'the 12 V feed'}`,
              gain: 'pulled, labelled, fused, bought',
              cost: `a fuse tap, two-core cable ${wire!.words}`,
              enough: true,
              steps,
            },
          ]
        : [],
    },
  ]
}

/** A box that is said to run through an inverter, and none is planned. */
function noInverter(c: Laid, f: BoxFeed): Draft[] {
  const feed = nearestTo(f.at.node, sourcesOf(c.doc, '12 V'))
  const steps = feed ? inverterSteps(c, f.at, feed) : []
  return [
    {
      code: 'route.no-inverter',
      subjectId: f.at.node.id,
      severity: 'fix',
      title: `No inverter for ${f.at.name} is planned`,
      sentence: feed
        ? 'It is said to run through one: the inverter beside it, a fuse tap at the feed, and both wires to it.'
        : 'It is said to run through one, and no feed is noted on the site: put one on the picture in Place.',
      because: 'its feed, as it was noted',
      source: COMMON,
      cures: steps.length
        ? [
            {
              label: `put one beside it, fed from ${feed!.name || 'the 12 V feed'}`,
              gain: 'pulled, labelled, fused, bought',
              cost: 'an inverter, and what it takes for itself',
              enough: true,
              steps,
            },
          ]
        : [],
    },
  ]
}

/** More hangs on a UPS, or on an inverter, than it can give. */
function overloaded(feeds: readonly BoxFeed[]): Draft[] {
  const loads = new Map(
    feeds.flatMap(({ planned: p }) => [
      ...(p?.ups ? [[p.ups, p.upsW] as const] : []),
      ...(p?.inverter ? [[p.inverter, p.inverterW] as const] : []),
    ]),
  )
  return [...loads].flatMap(([{ node, part, name }, hangW]): Draft[] =>
    part.mostW === undefined || hangW <= part.mostW
      ? []
      : [
          {
            code: part.batteryWh ? 'route.ups' : 'route.inverter',
            subjectId: node.id,
            severity: 'fix',
            title: `${name} is overloaded`,
            sentence: `${num(hangW)} W hang on it, it gives ${num(part.mostW)} W at most: a larger one, or less on it.`,
            because: 'the sum of what hangs on it',
            source: 'the part’s own figure',
          },
        ],
  )
}
