/** Modems judged: each its SIM, each its own antenna, and nothing of two of them mixed. */
import { nth } from '../sure'
import { areCrossed, modemName, modemsOf, slotsBeyond } from '../chain/modems'
import type { Modem } from '../chain/modems'
import type { RouterNode, Tree } from '../chain/tree'
import { update } from '../job/edits'
import type { Step } from '../job/edits'
import type { JobDocument } from '../job/schema'
import type { Laid } from './context'
import { COMMON } from './finding'
import type { Draft } from './finding'

export function modemDrafts({ doc, tree }: Laid): Draft[] {
  return tree.routers.flatMap(at => {
    const modems = modemsOf(doc, tree, at)
    return [...beyond(doc, at), ...twice(modems), ...(modems.length > 1 ? several(tree, at, modems) : [])]
  })
}

/** A box that was changed for one with fewer slots. */
const beyond = (doc: JobDocument, at: RouterNode): Draft[] =>
  slotsBeyond(doc, at).map(({ row, sim }) => ({
    code: 'choose.sim-slot',
    subjectId: row.id,
    severity: 'fix',
    title: `${at.name} has no slot ${row.slot}`,
    sentence: `${sim?.name ?? 'A SIM'} is planned in it: another slot, or none.`,
    because: 'slots as the box has them',
    source: 'the part’s own data',
    cures: [
      {
        label: 'take it out of the plan',
        gain: 'the map is true',
        cost: 'the SIM has no slot',
        enough: true,
        steps: [{ table: 'simSlots', op: 'delete', rowId: row.id, fields: {} }],
      },
    ],
  }))

/** One SIM cannot lie in two slots. */
function twice(modems: readonly Modem[]): Draft[] {
  const filled = modems.flatMap(m => m.slots).filter(s => s.sim)
  return filled.flatMap((s, i): Draft[] =>
    filled.slice(0, i).some(o => o.sim!.id === s.sim!.id)
      ? [
          {
            code: 'choose.sim-twice',
            subjectId: s.row!.id,
            severity: 'fix',
            title: `${s.sim!.name} is planned in two slots`,
            sentence: `Slot ${s.slot} wants another SIM, or none.`,
            because: 'one card, one slot',
            source: COMMON,
            cures: [
              {
                label: `empty slot ${s.slot}`,
                gain: 'the map is true',
                cost: 'nothing',
                enough: true,
                steps: [{ table: 'simSlots', op: 'delete', rowId: s.row!.id, fields: {} }],
              },
            ],
          },
        ]
      : [],
  )
}

function several(tree: Tree, at: RouterNode, modems: readonly Modem[]): Draft[] {
  const out: Draft[] = []
  for (const m of modems)
    if (!m.sim)
      out.push({
        code: 'choose.modem-sim',
        subjectId: `${at.node.id}.${m.index}`,
        severity: 'fix',
        title: `No SIM is planned for ${modemName(m)}`,
        sentence:
          'Which SIM lies in which slot decides which mast and which plan each modem has. Say it in the map of its modems.',
        because: 'each modem works with a SIM of its own',
        source: COMMON,
      })
  if (areCrossed(modems))
    out.push({
      code: 'choose.modem-crossed',
      subjectId: at.node.id,
      severity: 'fix',
      title: `The antennas of ${at.name} are mixed between its modems`,
      sentence:
        'The feeds of one antenna belong to one modem. Mixed, each layer of a modem comes from another direction, ' +
        'and no antenna can be aimed for it.',
      because: 'both layers of a modem come from one mast',
      source: COMMON,
      cures: [
        {
          label: 'sort them, antenna by antenna',
          gain: 'each modem its own antenna',
          cost: 'plugs change places at the box',
          enough: true,
          steps: sorted(tree, modems),
        },
      ],
    })
  const carriers = modems.map(m => m.sim?.carrier ?? null)
  const [first] = carriers
  if (first && carriers.every(c => c === first))
    out.push({
      code: 'choose.modem-alike',
      subjectId: at.node.id,
      severity: 'note',
      title: `All modems of ${at.name} work with ${first}`,
      sentence: 'Two of one carrier add speed in a quiet cell; where its mast fails, both fail.',
      because: 'the carriers of their SIMs',
      source: COMMON,
    })
  return out
}

/** The last cables into the box, dealt out antenna by antenna to the ports of its modems. */
function sorted(tree: Tree, modems: readonly Modem[]): Step[] {
  const taken = modems.flatMap(m => m.ports.filter(p => p.from))
  const ports = taken.map(p => p.port.id)
  const at = nth(modems, 0).at.node.id
  const order = [...taken].sort((a, b) => {
    const [x, y] = [a.from!, b.from!]
    return x.antenna.node.id.localeCompare(y.antenna.node.id) || x.feed.localeCompare(y.feed)
  })
  return order.flatMap((p, i): Step[] => {
    const to = nth(ports, i)
    if (to === p.port.id) return []
    const joint = tree.joints.find(j => [j.from, j.to].some(e => e.at.node.id === at && e.port.id === p.port.id))
    if (!joint) return []
    return [update('runs', joint.run.id, joint.to.at.node.id === at ? { toPort: to } : { fromPort: to })]
  })
}

/** @returns what the SIM step of a box says: each SIM with its slot; nothing where no slot was said */
export const slotsWords = (doc: JobDocument, tree: Tree, at: RouterNode): string[] =>
  modemsOf(doc, tree, at).flatMap(m =>
    m.slots.flatMap(s => (s.sim ? [`slot ${s.slot}: ${[s.sim.name, s.sim.carrier].filter(Boolean).join(', ')}`] : [])),
  )
