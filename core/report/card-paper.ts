/** The job card on paper: for a second pair of hands, and for when the phone is dead. */
import { jobOf } from '../job/schema'
import { nth } from '../sure'
import { climbOf } from '../card/card'
import type { Card, CardStep } from '../card/card'
import { factKey, factsFor, GATES } from '../card/gates'
import type { GateId, GateNeed } from '../card/gates'
import { runsOf, spanOf } from '../card/order'
import { layoutSection } from '../drawing/section'
import type { JobDocument, JobKind } from '../job/schema'
import type { Assessment } from '../judge/assess'
import { num } from '../units'
import { listed, say, words } from '../words'
import type { Words } from '../words'
import type { Units } from '../units'
import type { Block, Report } from './report'

interface CardPaper {
  /** standing at the present stop */
  document: JobDocument
  a: Assessment
  card: Card
  units: Units
  crew: string
  /** ISO day on which it is written */
  day: string
}

const STANDS = { 'in coverage': 'While there is coverage', 'ground': 'On the ground, inside', 'up': 'One climb' } as const
const GATE_TITLES: Record<GateId, string> = {
  plan: 'Not planned yet',
  climb: 'Before anyone climbs',
  ladder: 'Before a stepladder indoors',
  gas: 'Before a gas appliance’s vent is used',
  drill: 'Before a hole',
  raise: 'Before anything is raised',
  energise: 'Before there is power',
  transmit: 'Before it transmits',
}
/** Where a pen makes a tick. */
const BOX = '[   ]'

/** @returns the open steps in their order, block by block; gates as lists with room for time and name */
export function cardPaper({ document, a, card, units, crew, day }: CardPaper): Report {
  const job = jobOf(document)
  const t = (w: Words) => say(w, units)
  const open = card.steps.filter(s => !s.done)
  const facts: [string, string][] = [
    ['Job', job.name],
    ...(job.customerAddress ? [['Where', job.customerAddress] as [string, string]] : []),
    [
      'Left',
      `${open.length} of ${card.steps.length} steps, ${num(card.left.likely / 60, 1)} ± ${num(card.left.sigma / 60, 1)} h`,
    ],
    ['Written', `${day}: what was done or changed since stands on the phone alone`],
  ]
  const picture: Block = {
    kind: 'drawing',
    title: 'Where',
    drawing: layoutSection(document, a, { width: 800, height: 320, units, levels: false }).drawing,
    caption: 'To scale from the numbers.',
  }
  const blocks: Block[] = [
    { kind: 'facts', title: 'What and where', rows: facts },
    ...(a.tree ? [picture] : []),
    ...gatesOf(open, job.kind),
    ...runsOf(open, s => s.stand).flatMap((batch): Block[] => [
      ...bundle(card.steps, batch, t),
      {
        kind: 'table',
        title: `${STANDS[nth(batch, 0).stand]}, ${batch.length === 1 ? 'one step' : `${batch.length} steps`}`,
        head: ['', 'Step', 'min', 'How, to which figure'],
        rows: batch.map(s => [BOX, t(s.words), num(spanOf(s.minutes).likely), howWords(s, t)]),
      },
    ]),
  ]
  return { title: 'Job card', subtitle: `${job.name}, ${day}`, blocks, foot: crew }
}

/** What goes up on a climb, told before it. */
function bundle(all: readonly CardStep[], batch: readonly CardStep[], t: (w: Words) => string): Block[] {
  const climb = climbOf(all, nth(batch, 0))
  return climb ? [{ kind: 'list', title: 'To take up', items: climb.takes.map(t) }] : []
}

function howWords(s: CardStep, t: (w: Words) => string): string {
  const says = [
    s.stand === 'up' || !(s.parts.length + s.tools.length) ? '' : words`Take: ${listed([...s.parts, ...s.tools], ', ')}.`,
    s.then,
    s.figure ? words`Figure: ${s.figure}.` : '',
    s.photo ? `Photograph: ${s.photo}.` : '',
    s.gates.length ? `Gate: ${[...new Set(s.gates.map(g => GATE_TITLES[g.gate].toLowerCase()))].join('; ')}.` : '',
    s.people === 2 ? 'Two people.' : '',
    s.waits ? `Waits for ${s.waits.line.name}.` : '',
    s.notSo ? `Not so: ${s.notSo}.` : '',
  ]
  return t(listed(says.filter(Boolean), '\n'))
}

/** On paper nothing shuts by itself: each fact, of the thing that it is about, with room for its time and who says so. */
function gatesOf(open: readonly CardStep[], kind: JobKind): Block[] {
  return GATES.flatMap((gate): Block[] => {
    const abouts = new Map(
      open.flatMap(s =>
        s.gates
          .filter(g => g.gate === gate)
          .map((g): [string, { need: GateNeed; words: string }] => [g.of, { need: g, words: s.words }]),
      ),
    )
    if (!abouts.size) return []
    const rows = new Map<string, string[]>()
    for (const { need, words } of abouts.values())
      for (const f of factsFor(need, kind)) {
        const said = f.figure ? `${f.words}: ____ ${f.figure.unit}` : f.words
        rows.set(factKey(f, need), [BOX, f.scope === 'one' ? `${said} (${words})` : said, ''])
      }
    return [
      {
        kind: 'table',
        title: `${GATE_TITLES[gate]}: all true, else stop`,
        head: ['', 'True now', 'time, who'],
        rows: [...rows.values()],
      },
    ]
  })
}
