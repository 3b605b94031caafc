import { movesAbout } from '#core/job'
import { sayBeside, sayRelative } from '#core/aim'
import type { MastView } from '#core/masts'
import { angleBetween } from '#core/geo'
import { landmarksSeen } from '#core/survey'
import { degreesForLoss } from '#core/radio'

/** A mast's bearing told otherwise than in degrees: from nose or bow, beside a landmark; and what degrees off cost. */
export function useBearingWords(mast: () => MastView | null) {
  const store = useOpened()
  const landmarks = computed(() => landmarksSeen(store.doc))
  const bow = computed(() => {
    const m = mast()
    const { kind } = store.job
    return m && movesAbout(kind) && store.site.headingDeg !== null ? sayRelative(m.frameBearingDeg, kind) : ''
  })
  const beside = computed(() => {
    const m = mast()
    if (!m) return ''
    const near = landmarks.value.map(l => ({ l, off: angleBetween(l.bearingDeg, m.bearingDeg) })).sort((a, b) => a.off - b.off)[0]
    return near && near.off < 90 ? sayBeside(m.bearingDeg, near.l.bearingDeg, near.l.name) : ''
  })
  /** degrees off that cost 1 and 3 dB with the antenna fitted; null where it does not matter */
  const tolerance = computed(() => {
    const pattern = store.result.levels?.sources[0]?.turned.pattern
    return { oneDb: pattern ? degreesForLoss(pattern, 1) : null, threeDb: pattern ? degreesForLoss(pattern, 3) : null }
  })
  return { landmarks, bow, beside, tolerance }
}
