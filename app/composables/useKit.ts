import { isCoax } from '#core/job'
import type { Part, Port, Run } from '#core/job'
import { partById } from '#core/catalogue'
import { jointLossDb, portsWith, turned } from '#core/chain'
import type { AntennaNode, Joint, Outline, TreeNode } from '#core/chain'
import { roleOf } from '#core/drawing'
import { branchSteps, removeSteps, screwOn } from '#core/fitting'
import type { Step } from '#core/fitting'
import { buildingOf } from '#core/site'
import { lastOf, sure } from '#core/sure'
import { length, num, signed } from '#core/units'

/** one of each code: twins would say it twice */
const onePerCode = <T extends { code: string }>(list: T[]): T[] =>
  list.filter((f, i) => list.findIndex(g => g.code === f.code) === i)

/** What may be put into a cable that is there. */
export const INSERTS = [
  'spl-2',
  'spl-3',
  'spl-4',
  'tap-6',
  'tap-10',
  'tap-15',
  'pad-3',
  'pad-6',
  'pad-10',
  'pad-20',
  'arr-gas',
  'adp-n-n',
  'adp-window',
] as const

/** A kit in the order of the signal: what is said of each part and cable, and what can be changed there. */
export function useKit() {
  const store = useOpened()
  const prefs = usePrefs()
  const session = useSession()
  const crewParts = useCrewParts()
  const { swap } = useSwapParts()
  const { doing, once } = useOnce()
  const result = computed(() => store.result)
  const findings = computed(() => result.value.findings.filter(f => f.section === 'choose'))
  const frequency = computed(() => result.value.levels?.carrier.frequencyMHz ?? 806)
  const lines = computed(() => crewParts.all.value.filter(isCoax))

  /** a part and those built alike, each once: two feeds end in one and the same router */
  const each = (o: Outline) => [o, ...o.twins]
  const idsOf = (o: Outline) => [...new Set(each(o).map(t => t.at.node.id))]
  const runIdsOf = (o: Outline) => each(o).flatMap(t => t.joint?.run.id ?? [])
  const about = (ids: string[]) => findings.value.filter(f => f.severity !== 'good' && ids.some(id => f.subjectId.includes(id)))
  const levelAt = (o: Outline) => result.value.levels?.ports.find(p => p.visit.at.node.id === o.at.node.id)

  const said = {
    count: (o: Outline): number => idsOf(o).length,
    atRun: (o: Outline) => onePerCode(about(runIdsOf(o))),
    atPart: (o: Outline) => onePerCode(about(idsOf(o)).filter(f => !runIdsOf(o).some(id => f.subjectId.includes(id)))),
    role: (at: TreeNode): string => roleOf(sure(result.value.tree), at),
    roleWord: (at: TreeNode): string => roleWords(said.role(at)),
    gain(o: Outline): string {
      const { part } = o.at
      if (part.kind === 'antenna') return `${signed(turned(o.at as AntennaNode, frequency.value, null).pattern.gainDbi, 1)} dBi`
      if (part.kind === 'amplifier') {
        const state = result.value.levels?.amplifiers.find(a => a.at.node.id === o.at.node.id)
        return state ? `${signed(state.gainDb)} of ${num(part.gainDb)} dB` : `${signed(part.gainDb)} dB`
      }
      const level = levelAt(o)
      return level && level.gainDb < 0 ? `−${num(-level.gainDb, 1)} dB` : ''
    },
    rsrp(o: Outline): string {
      const level = levelAt(o)
      return level ? `RSRP ${num(o.at.part.kind === 'antenna' && o.joint ? level.entryRsrpDbm : level.rsrpDbm)}` : ''
    },
    /** A lead is as long as its maker made it; a cable once it is measured. */
    isKnown: ({ run }: Joint): boolean => run.measured || !run.partId,
    leads: ({ leads }: Joint): string =>
      leads.map(l => `${l.line.name}, ${length(l.lengthM, prefs.units)}${l.assumed ? ', coax assumed' : ''}`).join(' and '),
    loss: (joint: Joint): string => `−${num(jointLossDb(joint, frequency.value), 1)} dB`,
    spare(joint: Joint): string {
      const l = result.value.lengths.find(x => x.joint.run.id === joint.run.id)
      if (!l || (joint.run.partId && joint.run.measured)) return ''
      if (l.spareM < -0.05) return `${length(-l.spareM, prefs.units)} short`
      return l.spareM > 0.3 ? `${length(l.spareM, prefs.units)} over` : 'just reaches'
    },
    ports(part: Part): string {
      if (part.kind === 'line') return ''
      const [first] = part.ports
      if (!first) return ''
      const last = lastOf(part.ports)
      const joins = part.kind === 'arrestor' || part.kind === 'pad' || part.kind === 'adapter'
      if (part.ports.length === 2 && joins) return `${first.connector} ${first.gender} to ${last.connector} ${last.gender}`
      const feeds = part.kind === 'antenna' && part.ports.length > 1 ? `, ${portsWith(part, 'feed').length} feeds` : ''
      const many = part.kind === 'router' ? `, ${part.ports.length} ports` : feeds
      return `${first.connector} ${first.gender}, ${first.impedanceOhm} Ω${many}`
    },
  }

  const act = async (work: () => Promise<unknown>) => void (session.mayEdit && (await once(work)))
  const apply = (steps: Step[], label: string) => act(() => store.commitSteps(steps, label))
  const context = () => ({ kind: store.job.kind, building: buildingOf(store.here), design: store.variant })
  const setRun = (o: Outline, fields: Partial<Run>) =>
    store.commit(
      each(o).flatMap(t => (t.joint ? [{ table: 'runs' as const, op: 'update' as const, rowId: t.joint.run.id, fields }] : [])),
      'change a cable',
    )
  const edit = {
    setRun,
    setLine: (o: Outline, partId: string) => setRun(o, { partId, part: lines.value.find(l => l.id === partId) ?? null }),
    setPart(o: Outline, partId: string) {
      const part = crewParts.all.value.find(p => p.id === partId)
      if (part)
        void swap(
          each(o).map(t => t.at.node),
          part,
        )
    },
    addAntenna: (at: TreeNode, port: Port) => apply(branchSteps(context(), { at, port }, 'ant-dome'), 'add an inside antenna'),
    insertInto: (joint: Joint, partId: string) => apply(screwOn(joint, 'to', partId), `put in a ${sure(partById(partId)).name}`),
    remove: (o: Outline) =>
      apply(
        each(o)
          .filter((t, i, all) => all.findIndex(u => u.at.node.id === t.at.node.id) === i)
          .flatMap(t => removeSteps(sure(result.value.tree), t.at)),
        `take out the ${o.at.name}`,
      ),
  }
  /** ports on which something more may hang, by the part they are of */
  const freePorts = (at: TreeNode): Port[] =>
    (result.value.tree?.open ?? [])
      .filter(j => j.at.node.id === at.node.id && ['server', 'out', 'tap', 'through'].includes(j.port.role))
      .map(j => j.port)

  return {
    said,
    edit,
    lines,
    findings,
    freePorts,
    doing,
    act,
    apply,
    context,
    optionsFor: (at: TreeNode) => crewParts.like(at.part),
  }
}

/** What a kit's views say and do, made once by the section that shows them. */
export type KitUse = ReturnType<typeof useKit>
