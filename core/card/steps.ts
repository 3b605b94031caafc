/** The steps of a job, made from this plan: what is done where, with what, to which figure, behind which gate. */
import { cableLabels } from '../install/pick-list'
import type { JobDocument } from '../job/schema'
import { digest } from '../judge/ticks'
import { buildingOf } from '../site/building'
import { TAKES } from './durations'
import { SECOND_PERSON } from './gates'
import { withStands } from './needs'
import type { Draft, Planned, CardContext, Step } from './step'
import { before, holes } from './steps-before'
import { cables, earths, inner, masts } from './steps-fixing'
import { after } from './steps-power'
import { keyOf } from '../words'

/** @returns every step of the plan shown, those it needs before it; none where nothing is laid out */
export function stepsOf(doc: JobDocument, a: Planned): Step[] {
  if (!a.tree?.nodes.length) return []
  const { tree } = a
  const { design } = tree
  const labels = new Map(cableLabels(tree, design.name).map(l => [l.runId, l.code]))
  const s: CardContext = { doc, design, a: { ...a, tree }, building: buildingOf(doc), labels }
  const planned = [...before(s), ...holes(s), ...masts(s), ...inner(s), ...cables(s), ...earths(s), ...after(s)]
  const drafts = withStands(withOwn([...planned, loading(planned)], doc))
  const known = new Set(drafts.map(d => d.id))
  return drafts.map(({ turnsOn = '', ...d }) => {
    const step: Omit<Step, 'about'> = {
      tools: [],
      parts: [],
      figure: null,
      photo: null,
      hardensMin: 0,
      people: 1,
      dry: false,
      takes: [],
      own: false,
      shown: null,
      plain: d.words,
      ...d,
      gates: d.gates ?? [],
      needs: d.needs.filter(n => known.has(n)),
    }
    // Someone at the ladder's foot, at the winch or at the guys is a second person.
    if (step.gates.some(g => SECOND_PERSON.has(g.gate))) step.people = 2
    const { plain, figure, parts } = step
    // What a dry run should read follows every new reading: that is no change of the plan.
    const kept = step.id === 'dry-run' ? null : figure
    // How it is done is the program's to word, and may be worded better: that is no change of the plan either.
    return { ...step, about: digest([plain, kept === null ? '' : keyOf(kept), parts.map(keyOf), turnsOn].flat().join('|')) }
  })
}

/** Every tool that a step takes, and what is on the list, before anybody leaves. */
function loading(planned: readonly Draft[]): Draft {
  return {
    id: 'load',
    words: 'Gather parts and tools',
    stand: 'in coverage',
    at: null,
    tools: [...new Set(planned.flatMap(d => d.tools ?? []))].sort((a, b) => a.localeCompare(b)),
    then: 'Everything on the list, down to washers and tape; batteries charged.',
    minutes: TAKES.gather,
    needs: [],
  }
}

/** What somebody added: behind or before the step it was put at, or whenever there is time. */
function withOwn(planned: readonly Draft[], { ownSteps }: JobDocument): Draft[] {
  const waits = new Map<string, string[]>()
  const own = ownSteps.map((o): Draft => {
    const id = `own:${o.id}`
    // By a step by hand that is older alone, and by one step: then none can come to wait for itself.
    const by = (key: string | null) => (key && (!key.startsWith('own:') || key < id) ? key : null)
    const after = by(o.afterKey)
    const before = after ? null : by(o.beforeKey)
    if (before) waits.set(before, [...(waits.get(before) ?? []), id])
    return {
      id,
      words: o.words,
      stand: o.stand,
      at: null,
      then: 'Added by hand.',
      gates: o.stand === 'up' ? [{ gate: 'climb', of: id, about: id }] : [],
      minutes: [o.minutes * 0.6, o.minutes, o.minutes * 2],
      needs: after ? [after] : [],
      own: true,
    }
  })
  return [...planned, ...own].map(d => ({ ...d, needs: [...d.needs, ...(waits.get(d.id) ?? [])] }))
}
