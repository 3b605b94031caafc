/** Each judgement, provoked by the facts it is about and quiet without them. */
import { said } from '../../tests/support/said'
import { describe, expect, it } from 'vitest'
import { partById } from '../catalogue/parts'
import { AT, House } from '../../tests/support/house'
import { CAUTIONS, cautionsFor, RULE_PACKS } from './cautions'

describe('in Survey', () => {
  it('wants a baseline, and a speed at it', () => {
    const h = new House(null)
    expect(h.finding('survey.baseline-speed')?.severity).toBe('note')
    expect(h.speed('Kitchen', 3, 1).finding('survey.baseline-speed')).toBeUndefined()
    expect(h.job({ baselineSpotId: null }).finding('survey.no-baseline')).toBeDefined()
  })
  it('a fade of 74 dB is refused: one of the two was mistyped, and no spread learns from it', () => {
    const h = new House(null)
    h.read('Kitchen', -120)
    h.read('Kitchen', -118)
    expect(h.finding('survey.readings-apart')).toBeUndefined()
    const before = h.context().log.usual.db
    h.read('Kitchen', -46)
    const f = h.finding('survey.readings-apart')!
    expect(f.severity).toBe('fix')
    expect(said(f.sentence)).toContain('No fading is 74 dB deep')
    expect(h.context().log.usual.db).toBeLessThanOrEqual(before + 0.5)
    // Another band, or another day, is no fade.
    const other = new House(null)
    other.read('Kitchen', -120)
    other.read('Kitchen', -76, 15, { band: 'B3' })
    other.read('Kitchen', -80, 15, { takenAtUtc: '2026-05-03T10:00:00.000Z' })
    expect(other.finding('survey.readings-apart')).toBeUndefined()
  })
  it('tells level from speed: a workable level with no SINR is a full band', () => {
    const h = new House(null).reads('Kitchen', -90, 2).speed('Kitchen', 1, 0.2)
    expect(said(h.finding('survey.level-not-speed')?.sentence)).toContain('a booster would not help')
    expect(new House(null).reads('Kitchen', -90, 15).speed('Kitchen', 20, 5).finding('survey.level-not-speed')).toBeUndefined()
  })
  it('a cap is cured by noting it, and the promise then keeps under it', () => {
    const h = new House('router').reads('Ridge', -90, 20).reads('Kitchen', -100, 15)
    for (const d of [5.0, 4.9, 5.05]) h.speed('Kitchen', d, 4.95)
    const after = h.cured('survey.cap')
    expect(after.doc.sims[0]).toMatchObject({ capDownMbps: 5, capUpMbps: 5 })
    expect(after.finding('survey.cap')).toBeUndefined()
    expect(after.assess().promise!.down.high).toBeLessThanOrEqual(5)
  })
})

describe('in Bearings', () => {
  it('says when terrain is missing under the path', () =>
    expect(new House().finding('bearings.terrain-missing')?.sentence).toContain('100 % of the way to West'))
  it('says when no mast of the carrier reaches', () => {
    const h = new House()
    h.set('masts', h.doc.masts[0]!.id, { lonDeg: -30.8, heightM: 2 })
    expect(h.finding('bearings.none-reachable')?.severity).toBe('stop')
  })
  it('says when a beam is narrower than a compass is sure', () => {
    const h = new House('router')
    h.swap(h.donor, 'ant-yagi-mid-x').design({ band: 'B3' })
    expect(h.finding('bearings.beam-narrow')).toBeUndefined()
    // Near the north magnetic pole the field lies almost upright and no compass serves.
    h.site({ latDeg: 85.8, lonDeg: 139 })
    expect(h.finding('bearings.compass')?.severity).toBe('fix')
    expect(said(h.finding('bearings.beam-narrow')?.sentence)).toContain('off costs 1 dB')
  })
})

describe('in Choose', () => {
  it('needs every part of the chain', () =>
    expect(new House(null).finding('choose.missing')?.title).toBe('No outside antenna, no router chosen'))
  describe('no need at all', () => {
    const fine = (down: number[], rsrp = -80) => {
      const h = new House('booster').reads('Kitchen', rsrp, 20)
      for (const d of down) h.speed('Kitchen', d, 8)
      return h
    }
    it('is said where level, SINR and every agreed thing are met with margin, three times', () =>
      expect(fine([30, 31, 32]).finding('choose.no-need')?.title).toBe('No outside antenna needed'))
    it.each([
      ['two tests', fine([30, 31])],
      ['one test below the margin', fine([30, 31, 11])],
      ['a weak level', fine([30, 31, 32], -95)],
      ['calls agreed and none made', fine([30, 31, 32]).job({ agreedCalls: true })],
      ['an upload that is not', fine([30, 31, 32]).job({ agreedUpMbps: 8 })],
    ])('is not said with %s', (_, h) => expect(h.finding('choose.no-need')).toBeUndefined())
  })
  it('a booster makes nothing of nothing', () =>
    expect(new House().reads('Ridge', -124, 0).finding('choose.nothing-outside')?.severity).toBe('stop'))
  it('a booster does not mend SINR, a good one is left alone', () => {
    expect(new House().reads('Ridge', -95, 0).finding('choose.booster-sinr')?.severity).toBe('fix')
    expect(new House().reads('Ridge', -95, 16).finding('choose.booster-sinr')).toBeUndefined()
  })
  it.each(Object.keys(RULE_PACKS) as (keyof typeof RULE_PACKS)[])(
    'asks for the consent that %s wants, with its source',
    rules => {
      const f = new House().job({ rules }).finding('choose.rules')!
      expect(f.sentence).toBe(RULE_PACKS[rules].booster)
      expect(f.source).toMatch(/memory|no source/)
    },
  )
  it('plugs that cannot mate are to be settled, and an adapter does it', () => {
    const h = new House()
    h.set('runs', h.doc.runs[0]!.id, { partId: 'line-rg6', part: partById('line-rg6') })
    const wrong = () => h.assess().findings.filter(f => f.code === 'choose.connector')
    expect(wrong().map(f => f.severity)).toEqual(['fix', 'fix'])
    h.cured('choose.connector').cured('choose.connector')
    expect(wrong()).toEqual([])
  })
  it('US consumer boosters keep to their bands', () => {
    const us = new House('booster', 'home', { rules: 'US' })
    expect(us.part('amplifier').partId).toBe('amp-na-home')
    expect(us.finding('choose.us-bands')).toBeUndefined()
    expect(us.design({ band: 'B66' }).finding('choose.aws')?.sentence).toContain('2155')
    expect(us.swap(us.part('amplifier'), 'amp-home').finding('choose.us-bands')?.severity).toBe('stop')
  })
  it('a certified booster near a strong mast lowers its gain by itself: a note of how much, nothing to fix', () => {
    const near = (rsrp: number) => {
      const h = new House('booster', 'home', { rules: 'US' })
      for (const cell of h.doc.cells) h.set('cells', cell.id, { band: 'B12' })
      h.read('Ridge', rsrp, 15, { band: 'B12' })
      return h
        .design({ band: 'B12' })
        .assess()
        .findings.filter(f => f.code === 'level.us-noise')
    }
    const lowersDb = (rsrp: number) => Number(/by (\d+) dB/.exec(said(near(rsrp)[0]!.title))![1])
    expect(near(-84).map(f => f.severity)).toEqual(['note'])
    // A decibel stronger outside is a decibel less of noise that may go back, until its output holds it first.
    expect(lowersDb(-86) - lowersDb(-88)).toBe(2)
    expect(near(-118)).toEqual([])
  })
  it('a wanted band outside the amplifier’s is a stop', () =>
    expect(new House().design({ band: 'B28' }).finding('choose.device-band')?.severity).toBe('stop'))
})

describe('in Place', () => {
  it('is quiet about the rule of thumb only where it is kept', () => {
    // The program's own layout keeps it where the roof lets it.
    expect(new House().finding('place.thumb')).toBeUndefined()
    const h = new House()
    expect(h.place(h.donor, { upM: 7 }).finding('place.thumb')).toBeDefined()
    expect(h.place(h.donor, { upM: 20 }).finding('place.thumb')).toBeUndefined()
  })
  it('says when the formula does not hold', () => {
    const h = new House()
    h.place(h.server, { eastM: h.donor.eastM + 0.6, northM: h.donor.northM, upM: h.donor.upM - 0.1 })
    expect(h.finding('place.near')).toBeDefined()
  })
  const close = () => {
    const h = new House()
    h.place(h.donor, { upM: 6.4 })
    return h.place(h.server, { eastM: -2.6, northM: 0, upM: 5.2 })
  }
  it('what is held back has cures, of which each that says it is enough makes it stable', () => {
    const cures = close().cures('place.loop')
    expect(cures.length).toBeGreaterThanOrEqual(3)
    expect(cures.some(c => c.enough)).toBe(true)
    for (const c of cures.filter(x => x.enough)) expect(close().cure(c).assess().loops[0]!.state, said(c.label)).toBe('stable')
  })
  it('a sheet is a thing in the section: hung once, it is not offered again there', () => {
    const h = close()
    const sheet = h.cures('place.loop').find(c => said(c.label).startsWith('steel sheet'))!
    const before = h.assess().loops[0]!.isolationDb
    h.cure(sheet)
    expect(h.doc.sheets).toHaveLength(1)
    expect(h.assess().loops[0]!.isolationDb).toBeGreaterThan(before + 3)
    if (h.finding('place.loop')!.solves) expect(h.cures('place.loop').map(c => c.label)).not.toContain(sheet.label)
  })
  it('a cure gives what it says, also where the donor is locked elsewhere than at its mast', () => {
    for (const aimedDeg of [null, 300, 60]) {
      const locked = () => close().design({ aimedDeg, aimedAtUtc: AT })
      const before = locked().assess().loops[0]!.isolationDb
      for (const c of locked().cures('place.loop')) {
        const says = /^\+([\d.]+) dB$/.exec(said(c.gain))
        if (!says) continue
        const gained = locked().cure(c).assess().loops[0]!.isolationDb - before
        // A longer cable that comes with it takes a little more.
        expect(gained, `${aimedDeg} ${said(c.label)}`).toBeGreaterThan(Number(says[1]) - 0.1)
        expect(gained, `${aimedDeg} ${said(c.label)}`).toBeLessThan(Number(says[1]) + 2)
      }
    }
  })
  it('a donor raised by a cure takes a cable that reaches', () => {
    const h = close()
    const raise = h.cures('place.loop').find(c => said(c.label).startsWith('raise'))!
    expect(h.cure(raise).finding('place.short')).toBeUndefined()
  })
  it('accepting less gain makes it run; surely only where the margin is more than the sum is good to', () => {
    const h = close()
    h.cure(h.cures('place.loop').find(c => said(c.label).startsWith('settle'))!)
    expect(h.finding('place.loop')?.severity).toBe('note')
  })
  it('“may we drill” is heeded: no and not yet asked are to be settled, yes is quiet', () => {
    const drill = (mayDrill: string) => new House('router').job({ mayDrill }).finding('place.drill')?.severity
    expect([drill('no'), drill('ask'), drill('yes')]).toEqual(['fix', 'fix', undefined])
    expect(new House('router').job({ mayDrill: 'no' }).cured('place.drill').finding('place.drill')).toBeUndefined()
  })
  it('where nothing may be drilled the usual kit comes in by the window', () => {
    const h = new House('router', 'home', { mayDrill: 'no' })
    expect(h.finding('place.drill')).toBeUndefined()
    expect(h.doc.nodes.some(n => n.partId === 'adp-window')).toBe(true)
  })
})

describe('in Level', () => {
  it('a pad cures an overload, and the level line shows it', () => {
    const h = new House().reads('Ridge', -72, 20)
    const before = h.assess().levels!.amplifiers[0]!
    expect(before.inputAllDbm).toBeGreaterThan(-45)
    const after = h.cured('level.overload').assess()
    expect(after.levels!.amplifiers[0]!.inputAllDbm).toBeLessThan(before.inputAllDbm - 2.9)
    expect(after.tree!.visits.some(v => v.at.part.kind === 'pad')).toBe(true)
  })
  it('far too much shuts the amplifier down and serves no room', () => {
    const a = new House().reads('Ridge', -50, 25).assess()
    expect(a.levels!.amplifiers[0]!.limitedBy).toBe('shut down')
    expect(a.findings.find(f => f.code === 'level.overload')?.severity).toBe('stop')
    expect(a.rooms).toEqual([])
  })
  it('a needed room below −100 is to be settled, another is a note', () => {
    const h = new House().reads('Ridge', -116, 6)
    h.set('nodes', h.part('amplifier').id, { own: { gainDb: 36, lowestGainDb: 30 } })
    const rooms = h.assess().findings.filter(f => f.code === 'level.room')
    const kitchen = h.spot('Kitchen')
    expect(rooms.find(f => f.subjectId === kitchen.id)?.severity).toBe('fix')
    expect(rooms.filter(f => f.subjectId !== kitchen.id).every(f => f.severity === 'note')).toBe(true)
    for (const r of h.assess().rooms) expect(r.met).toBe(r.rsrpDbm >= -100)
  })
  it('where only calls were agreed a room needs −105; the job’s own figure wins', () => {
    const calls = new House('booster', 'home', { agreedDownMbps: null, agreedUpMbps: null, agreedCalls: true }).reads(
      'Ridge',
      -95,
    )
    expect(calls.assess().rooms[0]!.needDbm).toBe(-105)
    expect(calls.job({ needCallsDbm: -98 }).assess().rooms[0]!.needDbm).toBe(-98)
  })
  it('readings on another band do not start the signal’s way', () => {
    const a = new House().reads('Ridge', -90, 20, { band: 'B3' }).assess()
    expect(a.levels!.sources[0]!.start.provenance).toBe('assumed')
    expect(a.levels!.sources[0]!.start.words).toContain('nothing read on B20')
  })
  it('every down-lead without an arrestor is counted, and the cure puts one on each', () => {
    const h = new House('router')
    for (const a of h.doc.nodes.filter(n => n.part?.kind === 'arrestor')) {
      const into = h.doc.runs.find(r => r.toNodeId === a.id)!
      const out = h.doc.runs.find(r => r.fromNodeId === a.id)!
      h.set('runs', into.id, { toNodeId: out.toNodeId, toPort: out.toPort })
      h.remove('runs', out.id).remove('nodes', a.id)
    }
    expect(h.finding('level.no-arrestor')?.title).toBe('2 down-leads without an arrestor')
    h.cured('level.no-arrestor')
    expect(h.finding('level.no-arrestor')).toBeUndefined()
    expect(h.assess().tree!.visits.filter(v => v.at.part.kind === 'arrestor')).toHaveLength(2)
  })
  it('aboard none is asked for', () => expect(new House('router', 'boat').finding('level.no-arrestor')).toBeUndefined())
  it('one section that cannot be worked takes none of the others down', () => {
    const h = new House().reads('Ridge', -95)
    h.place(h.donor, { own: { gainDbi: Number.NaN } as never })
    const codes = h.codes()
    expect(codes).toContain('level.unworkable')
    expect(codes).toContain('survey.baseline-speed')
  })
})

describe('in Prove', () => {
  const thrice = (h: House) => [12, 13, 12].reduce((x, down) => x.speed('Kitchen', down, 3, { phase: 'after' }), h)
  const proven = () => new House('router').reads('Ridge', -95, 15).speed('Kitchen', 2, 0.5)
  it('meets what was agreed, or is short by so much', () => {
    expect(thrice(proven()).assess().proof.verdict).toMatchObject({ met: true, short: 'met' })
    // One test is noise, however good: met takes three.
    expect(proven().speed('Kitchen', 12, 3, { phase: 'after' }).assess().proof.verdict).toMatchObject({
      met: null,
      short: '1 of 3 speed tests made',
    })
    expect(proven().speed('Kitchen', 7, 3, { phase: 'after' }).assess().proof.verdict.words).toBe(
      'short by 3.0 Mbit/s down in Kitchen',
    )
    expect(proven().speed('Kitchen', 2.1, 3, { phase: 'after' }).assess().proof.verdict.words).toContain('no better than before')
  })
  it('calls that were agreed must be tested too: made, heard, held', () => {
    const h = thrice(proven().job({ agreedCalls: true }))
    expect(h.assess().proof.verdict).toMatchObject({ met: null, short: 'calls not tested' })
    const setupId = h.doc.setups.find(s => s.mark === 'after')!.id
    const call = (o: object) =>
      h.add('calls', {
        spotId: h.spot('Kitchen').id,
        setupId,
        stopId: null,
        takenAtUtc: AT,
        replacesId: null,
        withdrawn: false,
        made: true,
        heard: true,
        dropped: false,
        ...o,
      })
    for (let i = 0; i < 3; i++) call({})
    expect(h.assess().proof.verdict).toMatchObject({ met: true, words: 'meets the 10 down, 2 up and calls agreed in Kitchen' })
    call({ dropped: true })
    expect(h.assess().proof.verdict.words).toContain('1 of 4 calls failed')
  })
  it('0.04 to 4.9 Mbit/s is about 120 times, and says between what', () => {
    const h = new House('router').reads('Ridge', -95, 15)
    for (let i = 0; i < 3; i++) h.speed('Kitchen', 0.04, 0.02).speed('Kitchen', 4.9, 1, { phase: 'after' })
    expect(h.assess().proof.judged!.words).toContain('about 120 times (108 to 141) the download')
  })
  it('what is shown is told where one thing changed, and what is not where two did', () => {
    const h = new House('router').reads('Ridge', -95, 15)
    const first = () => h.doc.setups.find(s => s.id === h.doc.speedRuns[0]!.setupId)!
    for (const d of [2, 2.2, 2.1]) h.speed('Kitchen', d, 0.5)
    const at = (minute: number) => new Date(Date.parse(AT) + minute * 60_000).toISOString()
    const with_ = (changed: object, downs: number[], minute: number) => {
      const setupId = h.add('setups', { ...first(), id: undefined, mark: null, ...changed })
      for (const d of downs)
        h.add('speedRuns', { ...h.doc.speedRuns[0]!, id: undefined, setupId, downMbps: d, takenAtUtc: at(minute) })
      return setupId
    }
    const simId = h.add('sims', {
      name: 'Gannet SIM',
      carrier: null,
      plan: null,
      capDownMbps: null,
      capUpMbps: null,
      allowanceGb: null,
    })
    with_({ link: 'LAN' }, [2.1, 2.0, 2.2], 10)
    with_({ link: 'LAN', simId }, [8, 9, 8.5], 20)
    with_({ link: 'LAN', antenna: 'outside' }, [20, 21, 22], 30)
    const proof = h.job({ baselineSpotId: h.spot('Kitchen').id }).assess().proof
    expect(proof.lines.map(l => l.changed)).toEqual([[], ['link'], ['SIM'], ['SIM', 'antenna']])
    expect(proof.proven.map(p => [p.what, p.words.slice(0, 13)])).toEqual([
      ['link: on the device → LAN', 'no difference'],
      ['SIM: Tern SIM → Gannet SIM', '4.0 times (+3'],
    ])
    expect(proof.unproven.join(' ')).toContain('SIM, antenna changed together')
  })
  it('one test is noise, and other hours are another load', () => {
    const a = proven().speed('Kitchen', 12, 3, { phase: 'after', at: '2026-04-03T20:00:00.000Z' }).assess()
    expect(a.proof.unproven.join(' ')).toContain('one speed test is noise')
    expect(a.proof.unproven.join(' ')).toContain('8 hours apart')
  })
  it('names needed spots that were not tested', () => {
    const h = proven().speed('Hall', 12, 3, { phase: 'after' })
    expect(h.assess().proof.unproven.join(' ')).toContain('not tested after: Kitchen')
  })
  it('judges by the hardest needed room', () => {
    const h = proven()
    h.set('spots', h.doc.spots.find(s => s.name === 'Study')!.id, { needed: true })
    const a = h.speed('Kitchen', 20, 5, { phase: 'after' }).speed('Study', 6, 5, { phase: 'after' }).assess()
    expect(a.proof.judged!.before.spot.name).toBe('Study')
    expect(a.proof.nextSteps.map(s => s.times)).toEqual([...a.proof.nextSteps.map(s => s.times)].sort((x, y) => y - x))
    expect(a.proof.nextSteps.at(-1)!.words).toContain('aim again')
  })
})

describe('cautions', () => {
  it('what can kill asks for a tick', () => {
    expect(
      cautionsFor('aim', 'home')
        .filter(c => c.tick)
        .map(c => c.key),
    ).toEqual(['falls', 'overhead', 'storm'])
    expect(
      cautionsFor('aim', 'boat')
        .filter(c => c.tick)
        .map(c => c.key),
    ).toEqual(['overhead', 'aloft', 'storm'])
    for (const c of CAUTIONS) expect(c.text.length).toBeGreaterThan(20)
  })
  it('every finding says why and from where', () => {
    for (const f of new House().reads('Ridge', -72, 2).assess().findings) {
      expect(said(f.because).length, f.code).toBeGreaterThan(5)
      expect(f.source.length, f.code).toBeGreaterThan(5)
      expect(f.key).toBe(`${f.code}:${f.subjectId}`)
    }
  })
})
