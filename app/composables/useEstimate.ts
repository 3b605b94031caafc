import { estimateHeading, inDecibels } from '#core/aim'
import type { Estimate, SweepStep } from '#core/aim'
import { antennaAt } from '#core/catalogue'
import type { Sweep } from '#core/job'
import { bandByName, dlCentreMHz } from '#core/radio'

/** A lamp is about so many decibels. Assumed. */
const LAMP_DB = 4
/** Good enough to leave it there: a share of the beam that costs three quarters of a decibel. */
const ENOUGH = 1 / 4

/** Where the beam of the plan hears best by the steps kept, and where to read next. */
export function useEstimate(o: {
  steps: Ref<readonly SweepStep[]>
  quantity: Ref<Sweep['quantity']>
  mastDeg: Ref<number | null>
  struck: Ref<readonly number[]>
}) {
  const store = useJob()
  const pattern = computed(() => {
    const donor = store.result?.tree?.donors[0]
    const band = bandByName(store.design?.band ?? 'B20')
    return donor && band ? antennaAt(donor.part, dlCentreMHz(band)).pattern : null
  })
  const estimate = computed<Estimate | null>(() => {
    if (!pattern.value || pattern.value.beamwidthDeg >= 180) return null
    const speed = o.quantity.value === 'down' || o.quantity.value === 'up'
    const scale = (v: number) => (speed ? inDecibels(v) : o.quantity.value === 'lamps' ? v * LAMP_DB : v)
    const steps = o.steps.value.map(s => ({ headingDeg: s.headingDeg, value: scale(s.value) }))
    return estimateHeading(steps, {
      beamwidthDeg: pattern.value.beamwidthDeg,
      // The list of masts says where to begin; what is read decides.
      prior: !steps.length && o.mastDeg.value !== null ? { headingDeg: o.mastDeg.value, sigmaDeg: 20 } : null,
      reachable: Array.from({ length: 72 }, (_, i) => i * 5).filter(h => !o.struck.value.includes(h)),
    })
  })
  const found = computed(
    () => !!estimate.value && o.steps.value.length >= 3 && estimate.value.plusMinusDeg <= pattern.value!.beamwidthDeg * ENOUGH,
  )
  return { estimate, found, pattern }
}
