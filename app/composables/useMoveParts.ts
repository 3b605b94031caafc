import { longer } from '#core/judge/cures'
import type { CureStep } from '#core/judge/finding'
import { buildingOf } from '#core/site/building'

/** A part moves, and with it the cables that no longer reach: those not measured take the next stock length. */
export function useMoveParts() {
  const store = useJob()
  return function move(id: string, fields: Record<string, unknown>, label = 'move a part') {
    const step: CureStep = { table: 'nodes', op: 'update', rowId: id, fields }
    const { tree } = store.result!
    const context = { doc: store.here!, job: store.job!, building: buildingOf(store.here!), tree }
    void store.commit(
      [step, ...(tree ? longer(context, [step]) : [])].map(s => ({ table: s.table, op: s.op, rowId: s.rowId, fields: s.fields })),
      label,
    )
  }
}
