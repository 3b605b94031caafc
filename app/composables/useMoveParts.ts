import { applyChanges } from '#core/job'
import type { Fields as NodeFields } from '#core/job'
import { moveSteps } from '#core/fitting'
import type { Step } from '#core/fitting'
import { buildingOf } from '#core/site'

/** Of which table a handle on a drawing is a row. */
const TABLE_OF = { node: 'nodes', turn: 'nodes', spot: 'spots', fixture: 'fixtures', photo: 'photos' } as const
interface Handle {
  id: string
  kind: keyof typeof TABLE_OF
}
type Fields = Record<string, number>

/** What is dragged on a drawing: shown moved while it is under the finger, written when it is let go. */
export function useMoveParts() {
  const store = useOpened()
  const held = shallowRef<{ handle: Handle; fields: Fields } | null>(null)
  /** the document with what is under the finger already moved */
  const shown = computed(() => {
    if (!held.value) return store.doc
    const { handle, fields } = held.value
    return applyChanges(store.doc, [
      { id: '', table: TABLE_OF[handle.kind], rowId: handle.id, op: 'update', baseVersion: 0, fields },
    ])
  })

  /** A part moves, and with it what is screwed to it and its cables. */
  function move(id: string, fields: Partial<NodeFields<'nodes'>>, label = 'move a part') {
    const step: Step = { table: 'nodes', op: 'update', rowId: id, fields }
    const { tree } = store.result
    const on = { job: store.job, building: buildingOf(store.here) }
    void store.commit(tree ? moveSteps({ ...on, tree }, [step]) : [step], label)
  }
  function hold(handle: Handle, fields: Fields | null) {
    if (fields) held.value = { handle, fields }
  }
  function drop(handle: Handle, fields: Fields | null) {
    held.value = null
    if (!fields) return
    const table = TABLE_OF[handle.kind]
    if (table === 'nodes') move(handle.id, fields, handle.kind === 'turn' ? 'turn an antenna' : 'move a part')
    else void store.commit([{ table, op: 'update', rowId: handle.id, fields }], `move ${tableWord(table)}`)
  }
  return { shown, move, hold, drop, rowOf: (h: Handle) => store.doc[TABLE_OF[h.kind]].find(r => r.id === h.id) }
}
