/** Steps with power and after it: joined, powered, in the network, aimed, sealed, proved, cleared. */
import { isData } from '../chain/data'
import { modemsOf } from '../chain/modems'
import { adaptersIn } from '../connect/identity'
import { isOmni } from '../job/part'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import type { JobKind } from '../job/schema'
import { heightWords, poleOf } from '../install/mounts'
import { travelHeightM } from '../install/striking'
import { feedsOf } from '../judge/feeds'
import { slotsWords } from '../judge/modems'
import { num } from '../units'
import { metres, words } from '../words'
import { aloft, LININGS, TAKES } from './durations'
import { energising, heightGates, lacking, transmitting } from './needs'
import { aboard, striking } from './steps-aboard'
import { isUp, worded } from './step'
import type { Draft, CardContext } from './step'

/** A router's SIM before there is power; its way into the network, and who may change it, once there is. */
function online({ doc, a }: CardContext): Draft[] {
  const all = doc.sims.map(x => [x.name, x.carrier].filter(Boolean).join(', '))
  return a.tree.routers.flatMap((at): Draft[] => {
    const planned = slotsWords(doc, a.tree, at)
    const sims = planned.length ? planned : all
    return [
      {
        id: `sim:${at.node.id}`,
        ...worded(name => `SIM into ${name(at)}, power off`),
        stand: 'ground',
        at: at.node,
        parts: [
          ...(sims.length ? sims : ['SIM of the plan agreed']),
          ...adaptersIn(modemsOf(doc, a.tree, at)).map(x => `adapter, ${x.words}`),
        ],
        tools: ['pin of the slot'],
        then: 'Its size, which way its chip looks and which slot as the box shows, until it clicks; a second one in the second slot.',
        minutes: TAKES.sim,
        // Before the dry run: without it nothing is read, and one that hangs outdoors has it before it goes up.
        needs: ['labels'],
      },
      {
        id: `net:${at.node.id}`,
        ...worded(name => `Wait for the network: ${name(at)}`),
        stand: 'ground',
        at: at.node,
        then: 'Lamps that wander are normal. Past five minutes it is SIM, plan or identity, not the antenna: do not climb for it.',
        figure: 'two minutes are normal, five are not',
        minutes: TAKES.network,
        needs: [`power:${at.node.id}`],
      },
      {
        id: `keys:${at.node.id}`,
        ...worded(name => `Passwords and names of ${name(at)}`),
        stand: 'ground',
        at: at.node,
        then:
          'Default passwords changed and handed over, WPA2 or better, WPS off, administration from outside off; ' +
          'the old network’s name kept where things hang on it.',
        minutes: TAKES.keys,
        needs: [`net:${at.node.id}`],
      },
    ]
  })
}

/** How high a vehicle is with what stands on its roof; null where nothing stands higher than the roof. */
function heightStep({ doc, a, building }: CardContext): Draft | null {
  if (jobOf(doc).kind !== 'vehicle') return null
  const roofM = building.eavesM + building.riseM
  const top = travelHeightM(a.tree, siteOf(doc), roofM)
  if (!(top > roofM)) return null
  return {
    id: 'height',
    words: 'Measure its height as it now stands',
    stand: 'ground',
    at: null,
    tools: ['tape', 'level'],
    then: 'On level ground, tyres as they are driven; written where the driver reads it: bridges, ferries, car parks.',
    figure: words`${heightWords(top)}; the body alone ${metres(roofM)}`,
    minutes: TAKES.height,
    needs: ['seal'],
  }
}

/** What the case of a box on 12 V is bonded to, by site: never the hull of a boat. */
const CASE_WORDS: Record<JobKind, string> = {
  home: '',
  building: '',
  vehicle: ', its case to bare metal under a factory bolt',
  boat: ', its case to nothing but the boat’s common negative, and never to the hull',
}

/** Where something is left behind. */
const LEFT_NOWHERE: Record<JobKind, string> = {
  home: 'Nothing left on the roof or in the garden',
  building: 'Nothing left on the roof or above a ceiling',
  vehicle: 'Nothing left on the roof or under a seat',
  boat: 'Nothing left on deck, aloft or in the bilge',
}

/** Power last; then aim, seal, prove and clear. */
export function after(s: CardContext): Draft[] {
  const { doc, a, building } = s
  const { kind } = jobOf(doc)
  const isBoat = kind === 'boat'
  const pulled = a.lengths.map(c => `pull:${c.joint.run.id}`)
  const laid = [...pulled, ...a.tree.nodes.flatMap(n => [`hang:${n.node.id}`, `raise:${n.node.id}`, `earth:${n.node.id}`])]
  const feeds = feedsOf(doc, a.tree, kind, building)
  const out: Draft[] = [
    {
      id: 'join',
      words: 'Join every plug to its port, antennas first',
      stand: 'ground',
      at: a.tree.amplifiers[0]?.node ?? a.tree.routers[0]?.node ?? null,
      tools: ['torque wrench or two fingers'],
      then: 'By the labels; an open port of an amplifier is closed; nothing is powered yet.',
      minutes: TAKES.join,
      needs: laid,
    },
  ]
  const powered = [...a.tree.amplifiers, ...a.tree.routers].map(
    at =>
      feeds.find(f => f.at.node.id === at.node.id) ?? {
        at,
        wire: null,
        fuseA: null,
        supply: at.part.supply ?? null,
        wired: at.part.supply === '12 V',
        planned: null,
      },
  )
  for (const f of powered) {
    const lacks = a.demands.filter(d => d.kind === 'feed' && d.subjectId === f.at.node.id)
    out.push({
      id: `power:${f.at.node.id}`,
      ...worded(name => `Power ${name(f.at)}`),
      stand: 'ground',
      at: f.at.node,
      parts: f.wire ? [f.wire.words, ...(f.fuseA === null ? [] : [`fuse ${num(f.fuseA, f.fuseA % 1 ? 1 : 0)} A`])] : [],
      takes: f.wire ? [`wire:${f.wire.id}`, 'fuse'] : [],
      tools: f.wired ? ['meter', 'crimper'] : [],
      then: f.wired
        ? 'Its feed told by switching something on it off, what has no label left alone; lead cut to length, negative found ' +
          `by the meter; eye terminals, negative first${CASE_WORDS[kind]}; legend of the fuses kept, fuse last; ` +
          (f.planned?.inverter ? 'the inverter off until all is wired, then the box by its plug.' : 'red, then green.')
        : f.supply === 'PoE' || f.supply === 'passive PoE'
          ? 'Injector indoors, lamps at both ends.'
          : 'By its plug, with surge protection.',
      gates: [
        ...lacking(lacks, f.at.node.id),
        energising(f.at, f.wired),
        ...(f.at.part.kind === 'amplifier' ? [transmitting(f.at)] : []),
      ],
      minutes: f.wired ? TAKES.wireIn : TAKES.plugIn,
      turnsOn: f.supply ?? '',
      needs: ['join', `sim:${f.at.node.id}`, ...a.tree.joints.filter(isData).map(j => `wires:${j.run.id}`)],
    })
  }
  for (const joint of a.tree.joints.filter(isData)) {
    const code = s.labels.get(joint.run.id) ?? ''
    out.push({
      id: `wires:${joint.run.id}`,
      words: `Test ${code}: eight wires, in order`,
      stand: 'ground',
      at: joint.to.at.node,
      tools: ['cable tester'],
      then: 'Crimped after pulling, its gland and boot already on; every wire through and at its own pin, before there is power on it.',
      minutes: TAKES.join,
      needs: [`pull:${joint.run.id}`],
    })
  }
  for (const f of feeds.filter(x => x.data?.injector))
    out.push({
      id: `link:${f.at.node.id}`,
      ...worded(name => `Read the link of ${name(f.at)}`),
      stand: 'ground',
      at: f.data!.injector!.node,
      tools: ['phone or laptop'],
      then: 'Lamps at both ends, the speed on the page of the port: half of it is a pair that does not make contact.',
      figure: f.supply === 'passive PoE' ? '100 Mbit/s' : '1000 Mbit/s',
      minutes: TAKES.plugIn,
      needs: [`power:${f.at.node.id}`],
    })
  for (const f of feeds.filter(x => x.planned?.begins && x.restV !== null))
    out.push({
      id: `volts:${f.at.node.id}`,
      ...worded(name => `Read the volts at ${name(f.planned?.inverter ?? f.at)}, under load`),
      stand: 'ground',
      at: f.at.node,
      tools: ['meter'],
      then: 'At its own terminals while it works hard; less than the figure is a bad crimp, a thin wire or a poor return.',
      figure: `${num(f.restV!, 1)} V with the source at rest`,
      minutes: TAKES.plugIn,
      needs: [`power:${f.at.node.id}`],
    })
  for (const ups of new Set(feeds.flatMap(f => f.planned?.ups ?? []))) {
    const hang = feeds.filter(f => f.planned?.ups === ups)
    out.push({
      id: `bridge:${ups.node.id}`,
      ...worded(name => `Pull the plug of ${name(ups)}: what hangs on it stays on`),
      stand: 'ground',
      at: ups.node,
      then: 'A minute by the clock, then the plug back. Nothing on it restarts; what does hangs on the wrong socket.',
      figure: `${num(Math.round(hang[0]?.upsMin ?? 0))} minutes by the sum, ${num(hang[0]?.planned?.upsW ?? 0)} W on it`,
      minutes: TAKES.plugIn,
      needs: hang.map(f => `power:${f.at.node.id}`),
    })
  }
  out.push(...aboard(s))
  const networked = online(s)
  out.push(...networked)
  const running = [...powered.map(f => `power:${f.at.node.id}`), ...networked.filter(d => d.id.startsWith('net:')).map(d => d.id)]
  const turned = a.tree.donors.filter(d => !poleOf(a.tree, d))
  for (const d of turned) {
    const isHigh = isUp(d.node, building)
    const round = isOmni(d.part)
    const minutes = round ? TAKES.tighten : TAKES.aim
    out.push({
      id: `aim:${d.node.id}`,
      ...worded(name => (round ? `Read ${name(d)} and tighten it` : `Aim ${name(d)} and lock it`)),
      stand: isHigh ? 'up' : 'ground',
      at: d.node,
      tools: ['phone', 'spanners'],
      then: round
        ? 'It hears all round, so it is not turned; upright, read, tighten, read again.'
        : 'Steps about the bearing, finer about the best, lock, read again: tightening moves it.',
      gates: [...heightGates(d.node, s), ...a.tree.amplifiers.map(transmitting)],
      minutes: isBoat && isHigh ? aloft(minutes) : minutes,
      shown: round ? null : a.tree.design.aimedAtUtc !== null,
      // Another mast is another bearing; what hears all round does not mind.
      turnsOn: round ? '' : (a.tree.design.mastId ?? ''),
      dry: true,
      needs: running,
    })
  }
  const aimed = turned.map(d => `aim:${d.node.id}`)
  const height = heightStep(s)
  if (height) out.push(height)
  if (movesAbout(kind))
    out.push({
      id: 'panels-back',
      words: isBoat ? 'Linings and lockers back' : 'Panels back',
      stand: 'ground',
      at: null,
      tools: ['trim tools'],
      then: 'Once it is proved, not before; no cable under a clip or a screw, nothing that rattles.',
      minutes: LININGS[kind],
      needs: ['prove'],
    })
  const high = a.tree.donors.find(d => isUp(d.node, building))
  const up = !!high
  const rooms = a.demands.filter(d => d.kind === 'room')
  out.push(
    {
      id: 'seal',
      words: 'Seal plugs and way in, tie, clamp',
      stand: up ? 'up' : 'ground',
      at: (high ?? a.tree.donors[0])?.node ?? null,
      parts: ['self-amalgamating tape', 'ties'],
      takes: ['use:tape', 'use:ties'],
      then: 'Plugs wrapped from below upward; weight off them; neighbours’ cables clamped too; old holes closed.',
      photo: 'every sealed plug',
      gates: high ? heightGates(high.node, s) : [],
      minutes: isBoat && up ? aloft(TAKES.seal) : TAKES.seal,
      dry: true,
      needs: aimed,
    },
    {
      id: 'prove',
      words: 'Prove it: same spots, same test, same hour',
      stand: 'ground',
      at: null,
      then: [
        'Three readings and three speed tests at the baseline; the hardest room; a call; the other way if there is one.',
        rooms.length ? `Must be proved: ${rooms.map(r => r.of).join(', ')}.` : '',
      ]
        .filter(Boolean)
        .join(' '),
      shown: rooms.length ? rooms.every(r => r.state === 'met') : null,
      minutes: TAKES.prove,
      needs: [...aimed, 'seal', ...networked.map(d => d.id)],
    },
    ...striking(s),
    {
      id: 'clear',
      words: movesAbout(kind) ? 'Wipe, clear' : 'Clear, wipe, old gear out',
      stand: 'ground',
      at: null,
      then: `${LEFT_NOWHERE[kind]}; small parts counted, tools counted.`,
      photo: 'everything as it stays',
      minutes: TAKES.clear,
      needs: ['prove', 'height', 'panels-back', 'strike'],
    },
  )
  return out
}
