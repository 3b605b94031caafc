import { sure } from '#core/sure'
import type { Act, Finding, Section } from '#core/judge'

export interface SectionPlace {
  id: Section
  name: string
  act: Act
}

/** The acts and their sections, in the order of work. */
export const ACTS: { id: Act; name: string }[] = [
  { id: 'scout', name: 'Scout' },
  { id: 'plan', name: 'Plan' },
  { id: 'fit', name: 'Fit' },
  { id: 'prove', name: 'Prove' },
  { id: 'keep', name: 'Keep' },
]

export const SECTIONS: SectionPlace[] = [
  { id: 'ask', name: 'Ask', act: 'scout' },
  { id: 'survey', name: 'Survey', act: 'scout' },
  { id: 'bearings', name: 'Bearings', act: 'scout' },
  { id: 'choose', name: 'Choose', act: 'plan' },
  { id: 'place', name: 'Place', act: 'plan' },
  { id: 'level', name: 'Level', act: 'plan' },
  { id: 'route', name: 'Route', act: 'plan' },
  { id: 'card', name: 'Job card', act: 'fit' },
  { id: 'list', name: 'List', act: 'fit' },
  { id: 'aim', name: 'Aim', act: 'fit' },
  { id: 'proof', name: 'Before and after', act: 'prove' },
  { id: 'commission', name: 'Commission', act: 'prove' },
  { id: 'handover', name: 'Handover', act: 'keep' },
]

/** Where something that is not known is noted: the way there, and its name. */
export const placeToNote = (
  jobId: string,
  { section, layer }: NonNullable<Finding['noted']>,
): { path: string; words: string } => ({
  path: `/job/${jobId}/${section}${layer ? `?layer=${layer}` : ''}`,
  words: sure(SECTIONS.find(s => s.id === section)).name,
})
