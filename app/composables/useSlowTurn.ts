import { sectorFor, SlowTurn } from '#core/aim'
import type { SweepStep } from '#core/aim'

/** A turn without a stop under way: figures and headings go in, steps come out. */
export function useSlowTurn(keep: (step: SweepStep) => void) {
  const turn = shallowRef<SlowTurn | null>(null)
  const covered = ref(0)
  const missed = ref<number[]>([])
  const speed = ref({ now: 0, most: Infinity })
  function show(t: SlowTurn) {
    covered.value = t.covered
    missed.value = t.missed
    speed.value = t.speed()
  }
  function begin(beamwidthDeg: number) {
    turn.value = new SlowTurn(sectorFor(Math.min(beamwidthDeg, 360)))
    show(turn.value)
  }
  function hear(headingDeg: number, value: number, atMs: number) {
    const t = turn.value
    if (!t) return
    t.add(headingDeg, value, atMs).forEach(keep)
    show(t)
    if (t.covered === 1) end()
  }
  function end() {
    turn.value?.end().forEach(keep)
    turn.value = null
  }
  const words = computed(() => {
    if (!turn.value) return ''
    const { now, most } = speed.value
    if (now > most) return `slower: ${Math.round(now)}° a second, ${Math.floor(most)} at most`
    if (missed.value.length) return `passed too fast at ${missed.value.map(d => `${Math.round(d)}°`).join(', ')}: once more there`
    return `${Math.round(covered.value * 100)} % of the circle heard`
  })
  return { turning: computed(() => turn.value !== null), begin, hear, end, words }
}
