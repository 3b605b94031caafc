import { said } from '../../tests/support/said'
import { describe, expect, it } from 'vitest'
import { House } from '../../tests/support/house'
import { partById } from '../catalogue/parts'
import { consumerLimits } from '../chain/uplink'
import { BARE_FIXING } from '../job/fixing'
import { wavelengthM } from '../radio/freespace'
import { between } from '../site/frame'
import { besideTubeDbi } from './placing'

const booster = (kind: 'home' | 'building' | 'vehicle' | 'boat' = 'home', job: Record<string, unknown> = {}) => {
  const h = new House('booster', kind, job)
  return h.reads(h.doc.spots.find(s => !s.indoors)!.name, -92)
}

describe('where parts stand', () => {
  it('an omni under the ridge is told, and the cure lifts it over', () => {
    const h = booster()
    h.swap(h.donor, 'ant-omni').place(h.donor, { upM: 6 })
    expect(said(h.finding('place.omni-low')?.sentence)).toContain('behind the roof it does not hear')
    h.cured('place.omni-low')
    expect(h.finding('place.omni-low')).toBeUndefined()
  })
  it('an omni beside its pole is told with what is left in the worst direction; on top or on the mast’s side it is not', () => {
    const h = booster()
    const mast = h.donor
    h.place(mast, {
      fixing: { ...BARE_FIXING, mount: 'wall bracket', apartM: 0.5, sections: [{ outsideMm: 50, wallMm: 3, lengthM: 2 }] },
    })
    const port = h.doc.runs.find(r => r.fromNodeId === mast.id || r.toNodeId === mast.id)!
    const omni = h.add('nodes', { ...mast, id: undefined, fixing: null, partId: 'ant-omni', part: partById('ant-omni')! })
    h.add('runs', { ...port, id: undefined, fromNodeId: omni, fromPort: null, toPort: null })
    const at = (fields: Record<string, number>) => h.set('nodes', omni, { eastM: mast.eastM, northM: mast.northM, ...fields })
    // The mast lies to the west.
    at({ eastM: mast.eastM + 0.18, upM: mast.upM - 1 })
    expect(said(h.finding('place.omni-beside-pole')?.sentence)).toContain('−3.8 dBi are left at 806 MHz')
    at({ eastM: mast.eastM - 0.18, upM: mast.upM - 1 })
    expect(h.finding('place.omni-beside-pole')).toBeUndefined()
    at({ upM: mast.upM + 0.3 })
    expect(h.finding('place.omni-beside-pole')).toBeUndefined()
  })
  it('a gain typed over that its beam cannot have is told, outside and inside; one that it can have is not', () => {
    for (const of of ['donor', 'server'] as const) {
      const h = booster()
      const node = h[of]
      expect(h.finding('place.gain-over')).toBeUndefined()
      h.set('nodes', node.id, { own: { gainDbi: node.part!.kind === 'antenna' ? node.part!.ranges[0]!.gainDbi + 1 : 0 } })
      expect(h.finding('place.gain-over')).toBeUndefined()
      h.set('nodes', node.id, { own: { gainDbi: 24 } })
      expect(h.finding('place.gain-over')).toMatchObject({ severity: 'fix', subjectId: node.id })
    }
  })
  it.each([
    [850, [-6, -3.7, -1.4]],
    [1900, [-11.5, -9.1, -4.1]],
  ])('beside a tube of 50 mm at %i MHz a quarter, a half and one wavelength leave %j dBi', (mhz, left) => {
    ;[0.25, 0.5, 1].forEach((n, i) => expect(besideTubeDbi(n * wavelengthM(mhz), mhz)).toBeCloseTo(left[i]!, 9))
    expect(besideTubeDbi(1.2 * wavelengthM(mhz), mhz)).toBeNull()
  })
  it('a panel that looks at the donor is turned away', () => {
    const h = booster()
    h.swap(h.server, 'ant-panel-in')
    h.place(h.server, { azimuthDeg: Math.round(between(h.server, h.donor).bearingDeg) % 360 })
    expect(h.finding('place.panel-toward')?.severity).toBe('fix')
    h.cured('place.panel-toward')
    expect(h.finding('place.panel-toward')).toBeUndefined()
  })
  it('an amplifier of 50 °C does not hang in an attic, nor one for indoors outside', () => {
    const h = booster()
    const amp = h.part('amplifier')
    h.place(amp, { upM: 6.2, eastM: 0 })
    expect(h.finding('place.hot')?.severity).toBe('fix')
    h.place(amp, { upM: 1.3, eastM: -20 })
    expect(h.finding('place.box-outside')?.severity).toBe('fix')
  })
  it('ten feet from amplifier to inside antenna', () => {
    const h = booster()
    const amp = h.part('amplifier')
    h.place(h.server, { eastM: amp.eastM + 1, northM: amp.northM, upM: amp.upM + 1 })
    expect(said(h.finding('place.box-near')?.sentence)).toContain('3.0 m')
  })
  it('on a boat the masthead is left to VHF and AIS, with each height’s horizon', () => {
    const h = booster('boat')
    expect(h.finding('place.ladder')?.severity).toBe('good')
    // 4.12·√h: 9.6 m sees 12.8 km.
    h.place(h.donor, { upM: 9.6 })
    expect(said(h.finding('place.ladder')?.title)).toContain('12.8 km')
    h.place(h.donor, { upM: 14.7 })
    expect(h.finding('place.masthead')?.severity).toBe('fix')
  })
  it('people near a dome: 20 cm at least, told where a head comes nearer', () => {
    const h = booster()
    expect(h.finding('place.exposure-near')).toBeUndefined()
    h.place(h.server, { upM: 2 })
    expect(h.finding('place.exposure-near')?.severity).toBe('fix')
    expect(h.finding('place.exposure')?.source).toContain('ICNIRP 2020')
    h.job({ rules: 'US' })
    expect(h.finding('place.exposure')?.source).toContain('FCC OET 65')
  })
})

describe('two amplifiers', () => {
  it('whose donor and inside antennas hear each other are told; far apart they are not', () => {
    const h = booster('building')
    const design = h.doc.designs[0]!
    // The same kit once more, a few metres on.
    const twin = (alongM: number) => {
      const ids = new Map(h.doc.nodes.map(n => [n.id, h.id()]))
      for (const n of [...h.doc.nodes]) h.add('nodes', { ...n, id: undefined, eastM: n.eastM + alongM, designId: design.id })
      const made = h.doc.nodes.slice(-ids.size).map(n => n.id)
      const to = new Map([...ids.keys()].map((old, i) => [old, made[i]!]))
      for (const r of [...h.doc.runs])
        h.add('runs', { ...r, id: undefined, fromNodeId: to.get(r.fromNodeId)!, toNodeId: to.get(r.toNodeId)! })
    }
    twin(10)
    const [first, second] = h.assess().loops
    // The second's donor hung under the first's dome, and the first's under the second's.
    const under = (donor: string, at: { eastM: number; northM: number; upM: number }) =>
      h.set('nodes', donor, { eastM: at.eastM + 1, northM: at.northM, upM: at.upM - 0.5 })
    under(second!.worst.donor.node.id, first!.worst.server.node)
    under(first!.worst.donor.node.id, second!.worst.server.node)
    expect(h.finding('place.amplifiers-hear')?.severity).toBe('fix')
    for (const l of h.assess().loops) h.set('nodes', l.worst.donor.node.id, { eastM: 400, upM: 12 })
    expect(h.finding('place.amplifiers-hear')).toBeUndefined()
  })
})

describe('isolation by four methods', () => {
  const entered = (h: House, fields: Record<string, unknown>) =>
    h.add('isolations', {
      designId: h.doc.designs[0]!.id,
      donorId: h.donor.id,
      serverId: h.server.id,
      makerDb: null,
      measuredDb: null,
      inForce: 'computed',
      reason: null,
      ...fields,
    })
  it('the sum is in force until another figure is, which then decides', () => {
    const h = booster()
    const [loop] = h.assess().loops
    expect(loop!.worst.inForce).toBe('computed')
    entered(h, { measuredDb: 50, inForce: 'measured', reason: 'signal source and phone' })
    const after = h.assess().loops[0]!
    expect(after.worst).toMatchObject({ inForce: 'measured', isolationDb: 50, computedDb: loop!.worst.computedDb })
    expect(after.isolationDb).toBeCloseTo(50 + after.worst.linesDb, 6)
    expect(h.finding('place.loop')!.because).toContain('measured on site: signal source and phone')
  })
  it('a method without a figure falls back to the sum', () => {
    const h = booster()
    entered(h, { inForce: 'maker' })
    expect(h.assess().loops[0]!.worst.inForce).toBe('computed')
  })
  it('a figure far from the sum is doubted', () => {
    const h = booster()
    entered(h, { measuredDb: 20, inForce: 'measured' })
    expect(h.finding('place.isolation-differs')?.severity).toBe('note')
  })
  it('goes with the antenna it is of', () => {
    const h = booster()
    entered(h, { measuredDb: 50, inForce: 'measured' })
    h.remove('nodes', h.server.id)
    expect(h.doc.isolations).toEqual([])
  })
})

describe('consumer boosters of the United States', () => {
  it.each([
    // 47 CFR 20.21(e)(8)(i)(C), from memory: 6.5 + 20·log10 f.
    [707, 63.5],
    [836.5, 65],
    [1880, 72],
  ])('fixed at %f MHz up may have about %f dB', (uplinkMHz, gainDb) =>
    expect(consumerLimits({ use: 'fixed' }, { uplinkMHz }, -70).gainDb).toBeCloseTo(gainDb, 0),
  )
  it('a strong donor quietens it: −103 − RSSI dBm/MHz', () => {
    expect(consumerLimits({ use: 'fixed' }, { uplinkMHz: 836.5 }, -40).noiseDbmPerMHz).toBeCloseTo(-63, 9)
    expect(consumerLimits({ use: 'mobile' }, { uplinkMHz: 836.5 }, -90).noiseDbmPerMHz).toBeCloseTo(-59, 9)
  })
  it('the shipped ones keep their gain; a building amplifier under these rules does not', () => {
    const h = booster('home', { rules: 'US' })
    const mast = h.doc.masts[0]!.id
    h.add('cells', { ...h.doc.cells[0]!, id: undefined, mastId: mast, band: 'B13' })
    h.design({ band: 'B13' })
    expect(h.codes()).not.toContain('level.us-gain')
    h.set('nodes', h.part('amplifier').id, { part: { ...partById('amp-building')!, bands: ['B13'] } })
    expect(said(h.finding('level.us-gain')?.title)).toMatch(/75.0 dB of gain, a consumer booster may 64/)
  })
})

describe('before you drill', () => {
  it('names what is assumed, what hurts first, and how each is known cheapest', () => {
    const h = booster()
    const { assumed, dryRun } = h.assess().drill
    expect(assumed[0]!.first).toBe(true)
    expect(assumed.filter(a => a.first).map(a => a.what)).toEqual(
      expect.arrayContaining([expect.stringContaining('overhead line'), expect.stringContaining('come in')]),
    )
    expect(assumed.some(a => said(a.what).includes('isolation of'))).toBe(true)
    expect(assumed.some(a => said(a.what).includes('cable length'))).toBe(true)
    for (const a of assumed) expect(a.know.length).toBeGreaterThan(5)
    expect(dryRun.map(d => d.quantity)).toEqual(['total at the donor port', 'gain', 'RSRP', 'download'])
    for (const d of dryRun) {
      if (d.stopWhen === 'under') expect(d.stopAt, d.quantity).toBeLessThanOrEqual(d.expected)
    }
  })
  it('shrinks as things are measured', () => {
    const h = booster()
    const before = h.assess().drill.assumed.length
    for (const r of h.doc.runs) h.set('runs', r.id, { measured: true })
    h.speed('Kitchen', 3, 1).speed('Kitchen', 3.2, 1).speed('Kitchen', 3.1, 1).reads('Kitchen', -108, 8)
    expect(h.assess().drill.assumed.length).toBeLessThan(before)
  })
})
