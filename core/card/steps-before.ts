/** Steps before anything is fixed: in coverage, the dry run, the way in. */
import { BEHIND_SAYS } from '../install/behind'
import { wayInById } from '../install/ways-in'
import type { Part } from '../job/part'
import { jobOf, movesAbout } from '../job/schema'
import type { Fixture } from '../job/schema'
import { passagesOf } from '../judge/passages'
import { digest } from '../judge/ticks'
import { num } from '../units'
import { LININGS, TAKES } from './durations'
import { byFlame, heightGates, holeOf, lacking, transmitting } from './needs'
import { isUp, catalogueName, partKey, tally } from './step'
import type { CardContext, Draft } from './step'

/** Parts without which a dry run says nothing. */
const TRIED: ReadonlySet<Part['kind']> = new Set(['antenna', 'amplifier', 'router'])

/** In coverage, and on the ground, before anything is fixed. */
export function before({ doc, a }: CardContext): Draft[] {
  const boosters = a.tree.amplifiers
  const out: Draft[] = [
    {
      id: 'fetch',
      words: 'Fetch what needs a network',
      stand: 'in coverage',
      at: null,
      then: 'This job opened once on this phone; manuals of every box, firmware, the map and the ground; the operator’s settings.',
      minutes: TAKES.fetch,
      needs: [],
    },
    {
      id: 'labels',
      words: 'Photograph every label before it is hidden',
      stand: 'ground',
      at: null,
      parts: tally([...a.tree.amplifiers, ...a.tree.routers].map(catalogueName)),
      then: 'Serial, IMEI, MAC; the default key covered before the picture is taken. Ends of every cable marked.',
      photo: 'each label, sharp',
      minutes: TAKES.labels,
      needs: [],
    },
  ]
  if (boosters.length)
    out.push({
      id: 'register',
      words: boosters.length === 1 ? 'Register the booster, or have consent' : 'Register the boosters, or have consent',
      stand: 'in coverage',
      at: null,
      parts: tally(boosters.map(catalogueName)),
      then: 'Where it is the rule, before it transmits: with the carrier, by its serial and this address.',
      minutes: TAKES.register,
      needs: ['fetch', 'labels'],
    })
  if (a.drill.dryRun.length)
    out.push({
      id: 'dry-run',
      words: `Dry run: everything loose, cable through a ${jobOf(doc).kind === 'boat' ? 'hatch' : 'window'}`,
      stand: 'ground',
      at: null,
      parts: tally(a.tree.nodes.filter(n => n.part.kind !== 'adapter' && n.part.kind !== 'pad').map(catalogueName)),
      takes: a.tree.nodes.filter(n => TRIED.has(n.part.kind)).map(partKey),
      tools: ['window lead', 'phone'],
      then: 'Donor where it will hang or on a pole beside it, antennas on before power; read and compare. Past a stop: back to the plan.',
      figure: a.drill.dryRun
        .slice(0, 3)
        .map(d => `${d.quantity} ${num(d.expected)} ${d.unit} (${d.where}), stop ${d.stopWhen} ${num(d.stopAt)}`)
        .join('; '),
      gates: [...a.tree.amplifiers, ...a.tree.routers].map(transmitting),
      minutes: TAKES.dryRun,
      // Its SIM is in, its antenna is on: else it reads nothing.
      needs: ['labels', 'register', ...a.tree.routers.map(r => `sim:${r.node.id}`)],
    })
  const { kind } = jobOf(doc)
  if (movesAbout(kind))
    out.push({
      id: 'panels-out',
      words: kind === 'boat' ? 'Linings and lockers out' : 'Panels out',
      stand: 'ground',
      at: null,
      tools: ['trim tools', 'tray for clips'],
      then:
        kind === 'boat'
          ? 'Along the way of the cables alone, screws in bags with their place on them; what is behind is looked at now.'
          : 'From the door inward, clips in a tray; what is behind is looked at now.',
      minutes: LININGS[kind],
      needs: ['dry-run'],
    })
  return out
}

/** One step a hole that the plan's way in makes. */
export function holes(s: CardContext): Draft[] {
  const { doc, design, a, building } = s
  const made = passagesOf({ doc, design, tree: a.tree, lengths: a.lengths, building }).flatMap((p): Draft[] => {
    if (p.at.kind !== 'way in' || !p.at.entry || p.at.entry === 'flue' || p.needsMm === null) return []
    const way = wayInById(p.at.entry)
    const name = p.at.name || way.words
    const bit = p.bitMm === null ? 'the widest bit, plugs crimped afterwards' : `bit ${p.bitMm}`
    if (!way.drills)
      return [
        {
          id: `way:${p.at.id}`,
          words: `Open the way: ${name}`,
          stand: 'ground',
          at: p.at,
          tools: ['torch', 'draw line'],
          then: [way.how, way.caution].filter(Boolean).join(' '),
          figure: `${num(p.needsMm, 1)} mm with one plug at a time`,
          gates: [...heightGates(p.at, s), ...(p.at.entry === 'fridge-vent' ? [byFlame(p.at)] : [])],
          photo: 'the way, before and after',
          minutes: TAKES.wayOpened,
          turnsOn: p.at.entry,
          needs: ['dry-run', 'panels-out'],
        },
      ]
    const cored = p.at.entry === 'deck' || p.at.behindFound === 'deck core'
    const stand = isUp(p.at, building) ? ('up' as const) : ('ground' as const)
    const hole: Draft = {
      id: `way:${p.at.id}`,
      words: `Hole: ${name}`,
      stand,
      at: p.at,
      parts: ['sleeve or gland', 'cover or gasket', 'sealant'],
      tools: ['drill', bit, 'pilot 6 mm', 'brush', 'eyes and dust mask'],
      then: [cored ? 'Through the filling, once it is hard; sealant under the gland, gland by the jacket.' : way.how, way.caution]
        .filter(Boolean)
        .join(' '),
      figure: `${num(p.needsMm, 1)} mm${p.at.entry === 'wall' ? ', falls outward' : ''}${
        p.at.wallMm === null ? '' : ` through ${num(p.at.wallMm)} mm`
      }`,
      photo: 'both sides before the cover',
      takes: ['use:glands', 'use:sealant'],
      gates: [...heightGates(p.at, s), holeOf(p.at)],
      minutes: TAKES.hole,
      turnsOn: [p.at.entry, p.at.behindFound].join(' '),
      dry: true,
      needs: ['dry-run', 'panels-out', `fill:${p.at.id}`],
    }
    return cored ? [filling(s, p.at, name), hole] : [hole]
  })
  return [...made, ...notChosen(s)]
}

/** Cables that come in nowhere yet: a hole all the same, and its gate is shut until it is chosen, there or here. */
function notChosen({ design, a }: CardContext): Draft[] {
  const missing = a.demands.filter(d => d.kind === 'way in' && d.state === 'missing')
  if (!missing.length) return []
  const id = `way:${design.id}`
  return [
    {
      id,
      words: missing.length === 1 ? 'Way in: not chosen yet' : `Way in: not chosen yet, for ${missing.length} cables`,
      stand: 'ground',
      at: null,
      parts: ['sleeve or gland', 'sealant'],
      tools: ['drill', 'bit by the plug', 'detector', 'eyes and dust mask'],
      takes: ['use:glands', 'use:sealant'],
      then: 'Choose it in Route; by a hole it is sized by the plug, and somebody has looked behind it.',
      gates: [
        ...lacking(missing, design.id),
        { gate: 'drill', of: design.id, about: digest(missing.map(d => d.key).join()), hole: 'through' },
      ],
      minutes: TAKES.hole,
      turnsOn: missing.map(d => d.key).join(),
      dry: true,
      needs: ['dry-run', 'panels-out'],
    },
  ]
}

/** Hours until a filling of epoxy can be drilled, at 20 °C. @source common practice (no source); its maker's sheet wins */
const HARD_MIN = 12 * 60

/** A core between two skins is closed against water before anything goes through it. */
const filling = (s: CardContext, at: Fixture, name: string): Draft => ({
  id: `fill:${at.id}`,
  words: `Over-drill and fill the core: ${name}`,
  stand: isUp(at, s.building) ? 'up' : 'ground',
  at,
  parts: ['epoxy and filler', 'tape'],
  tools: ['drill', 'bent nail or cutter', 'vacuum', 'syringe', 'eyes and dust mask'],
  then: BEHIND_SAYS['deck core'].how!,
  photo: 'the core, dry, before it is filled',
  takes: ['use:epoxy'],
  gates: [...heightGates(at, s), holeOf(at)],
  minutes: TAKES.coreFilled,
  hardensMin: HARD_MIN,
  dry: true,
  needs: ['dry-run', 'panels-out'],
})
