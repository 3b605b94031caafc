import { swapSteps } from '#core/fitting'
import type { Node, Part } from '#core/job'
import { buildingOf } from '#core/site'
import { sure } from '#core/sure'

/** Another part in the place of one, and of those that are built alike. */
export function useSwapParts() {
  const store = useOpened()
  const swap = (nodes: readonly Pick<Node, 'id' | 'upM'>[], part: Part) => {
    const on = { job: store.job, site: store.site, building: buildingOf(store.here), tree: sure(store.result.tree) }
    return store.commit(swapSteps(on, nodes, part), 'change a part')
  }
  return { swap }
}
