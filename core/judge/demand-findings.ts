/** Every demand that is missing, as a finding: what is not known stays open until it is noted, or somebody decides it on site. */
import { sure } from '../sure'
import { RULE_PACKS } from './cautions'
import type { Context } from './context'
import { clearOfLinesM, DEEP } from './demands'
import type { Demand, DemandKind } from './demands'
import { COMMON, finding } from './finding'
import type { Cure, Draft, Finding, Section } from './finding'
import { capital } from '../units'
import { concat, metres, words } from '../words'

type Layer = 'cables' | 'way in' | 'mounts' | 'feeds' | 'surge'

/** Where a demand is noted: the section, and which layer of it. */
export const NOTED_IN: Record<DemandKind, { section: Section; layer?: Layer }> = {
  'mount': { section: 'route', layer: 'mounts' },
  'way in': { section: 'route', layer: 'way in' },
  'arrestor': { section: 'route', layer: 'surge' },
  'earth': { section: 'route', layer: 'surge' },
  'feed': { section: 'place' },
  'lines': { section: 'route', layer: 'mounts' },
  'consent': { section: 'ask' },
  'registration': { section: 'card' },
  'seal': { section: 'route', layer: 'way in' },
  'room': { section: 'proof' },
}

/** What is said of each that is missing. A seal follows its way in; a coax's arrestor and a registration are told elsewhere. */
const SAYS: Partial<
  Record<DemandKind, (d: Demand, c: Context) => Pick<Draft, 'code' | 'title' | 'sentence' | 'because'> & { source?: string }>
> = {
  'mount': d => ({
    code: 'route.no-mount',
    title: `What holds ${d.of} is not noted`,
    sentence: 'Bracket, pole, screws and what they go into: without them neither the wind nor the list is known.',
    because: 'whatever hangs outdoors is held by something',
  }),
  'way in': d => ({
    code: 'route.no-way-in',
    title: `${capital(d.of)} comes in nowhere`,
    sentence: 'It runs from outdoors to within, and no way in is chosen for it: no hole is sized, asked for, or looked behind.',
    because: 'its two ends lie on different sides of the shell',
  }),
  'earth': (d, c) => ({
    code: 'route.no-earth',
    title: 'No earth is noted',
    sentence:
      'A mast and an arrestor lead a surge nowhere without electrode, conductor and bond. A licensed electrician decides.',
    because: `${d.of} stands outdoors at a building`,
    source: `${RULE_PACKS[c.job.rules].earth} From memory; local code decides`,
  }),
  'feed': d => ({
    code: 'place.no-feed',
    title: d.asks,
    sentence: 'None is noted: where the box hangs follows from it, and every cable from that. No extension lead for good.',
    because: 'a box is fed within the length of its lead',
  }),
  'lines': (d, c) => {
    const node = sure(c.tree!.nodes.find(n => n.node.id === d.subjectId))
    return {
      code: 'route.lines',
      title: d.by ? `An overhead line is too near: ${d.by}` : 'How far is the nearest overhead line?',
      sentence: concat(
        words`${d.of} is raised: a line is at least ${metres(clearOfLinesM(node))} away in every direction in which it can fall. `,
        'Not known is stop.',
      ),
      because: 'the assembled length, and 3 m',
    }
  },
  'consent': d => ({
    code: 'place.drill',
    title: 'Ask before anything is drilled',
    sentence: `Drilled is ${d.of}. Get it in writing.`,
    because: 'asked in Ask: not settled',
  }),
}

const SECTION_OF: Partial<Record<DemandKind, Section>> = { feed: 'place', consent: 'place' }

export function demandFindings(c: Context): Finding[] {
  const told = new Set<string>()
  return c.demands.flatMap(d => {
    const says = SAYS[d.kind]
    if (d.state !== 'missing' || !says || d.by === DEEP) return []
    // What Place says of a shell that must stay whole has its own cures.
    if (d.kind === 'consent' && c.job.mayDrill === 'no') return []
    if (told.has(d.key)) return []
    told.add(d.key)
    const { source = COMMON, ...draft } = says(d, c)
    const tooNear = d.kind === 'lines' && d.by !== null
    return [
      {
        ...finding(SECTION_OF[d.kind] ?? 'route', {
          ...draft,
          source,
          subjectId: d.subjectId,
          severity: tooNear ? 'stop' : 'fix',
          ...(tooNear && { holds: true as const }),
          cures: curesOf(d, c),
        }),
        noted: NOTED_IN[d.kind],
      },
    ]
  })
}

/** What can be noted by one press because there is one answer alone. */
function curesOf(d: Demand, c: Context): Cure[] {
  if (d.kind === 'consent')
    return [
      {
        label: 'the owner said yes',
        gain: 'agreed in Ask',
        cost: 'each hole through the shell still asks for its own yes',
        enough: true,
        steps: [{ table: 'jobs', op: 'update', rowId: c.job.id, fields: { mayDrill: 'yes' } }],
      },
    ]
  return []
}
