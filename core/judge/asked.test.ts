import { describe, expect, it } from 'vitest'
import { demoScenario } from '../../demo/scenario'
import { treeOf } from '../chain/tree'
import type { JobDocument } from '../job/schema'
import { askedOf } from './asked'
import { usualFeed } from './feeds'

const [kiln, loft] = demoScenario().jobs.map(j => j.document)
const asked = (doc: JobDocument, fields: Partial<JobDocument['jobs'][number]> = {}) => {
  const told = structuredClone(doc)
  Object.assign(told.jobs[0]!, fields)
  return askedOf(
    told,
    treeOf(
      told,
      told.designs.find(d => d.id === told.jobs[0]!.designId)!,
    ),
  )
}

describe('what follows from what was asked', () => {
  it('a question that nobody asked is open, never passed over', () => {
    const none = asked(kiln!, { complaint: null, changedLately: null, mayDrill: 'ask', outageMin: null })
    expect(Object.entries(none).filter(([q, f]) => q !== 'hangs' && f.state !== 'open')).toEqual([])
  })

  it('a Wi-Fi complaint is not mended by an antenna outside', () => {
    expect(asked(loft!, { complaint: 'Wi-Fi' }).complaint.says).toContain('access point')
  })

  it('power cuts are held against the standby of every box: without one it is open however short the cut', () => {
    expect(asked(loft!, { outageMin: 1 }).outage.state).toBe('open')
    expect(asked(loft!, { outageMin: 0 }).outage.state).toBe('note')
  })

  it('a battery that bridges longer than the longest cut meets it, a shorter one does not', () => {
    const doc = structuredClone(kiln!)
    const router = doc.nodes.find(n => n.designId === doc.jobs[0]!.designId && n.part?.kind === 'router')!
    const watts = router.part?.kind === 'router' ? router.part.powerW! : NaN
    // An hour at the router's own draw, nothing lost on the way; the kernel takes losses off.
    router.feed = { ...(router.feed ?? usualFeed()), upsWh: watts }
    expect(asked(doc, { outageMin: 20 }).outage.state).toBe('met')
    expect(asked(doc, { outageMin: 70 }).outage.state).toBe('open')
  })

  it('what hangs on today’s Wi-Fi is named, with whether it is still reached', () => {
    const doc = structuredClone(loft!)
    for (const s of doc.spots) s.hangs = null
    expect(asked(doc).hangs.state).toBe('open')
    doc.spots.find(s => s.name === 'Kitchen')!.hangs = 'television'
    expect(asked(doc).hangs.says).toContain('Kitchen')
  })
})
