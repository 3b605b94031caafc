import { describe, expect, it } from 'vitest'
import { worldOf } from '#core/world/world'
import { modemStandin } from '../../standins/modem'
import type { ModemPort } from '../../shared/modem'
import { recordingLink } from './recording'
import { ModemSession } from './session'
import type { Sample } from './session'

const modem = () => modemStandin({ world: worldOf(4), operator: 'Tern', technology: 'LTE', now: () => 3 })

/** A link that answers each command by what is given. */
function fake(answer: (command: string) => string | null): ModemPort & { said: string[]; unplug: () => void } {
  let take: (t: string) => void = () => {}
  let gone: (why: string) => void = () => {}
  const said: string[] = []
  return {
    name: 'fake',
    kind: 'modem',
    said,
    write: text => {
      said.push(text.trim())
      const a = answer(text.trim())
      if (a !== null) setTimeout(() => take(a), 1)
    },
    onText: t => (take = t),
    onGone: g => (gone = g),
    unplug: () => gone('it was unplugged'),
    close: () => {},
  }
}

async function talk(link: ModemPort, until: (samples: Sample[], troubles: (string | null)[]) => boolean, ms = 8000) {
  const samples: Sample[] = []
  const troubles: (string | null)[] = []
  let why = ''
  const s = new ModemSession(
    link,
    { sample: x => samples.push(x), trouble: t => troubles.push(t), gone: w => (why = w) },
    { everyMs: 5 },
  )
  void s.run()
  const from = Date.now()
  while (!until(samples, troubles) && !why && Date.now() - from < ms) await new Promise(r => setTimeout(r, 5))
  s.stop()
  return { samples, troubles, why, recording: s.recording() }
}

describe('a talk with a modem', () => {
  it('a stand-in is heard with level, quality, cell, operator and registration', async () => {
    const { samples, troubles } = await talk(modem(), s => s.length > 3)
    const s = samples.at(-1)!
    expect(s.rsrpDbm!.value).toBeGreaterThan(-135)
    expect(s.rsrqDb!.value).toBeLessThan(-2)
    expect(s).toMatchObject({ registered: 'home', operator: 'Tern', technology: 'LTE', cellId: worldOf(4).cellId, sinrDb: null })
    expect(troubles.every(t => t === null)).toBe(true)
  })
  it('what is told unasked in between costs no answer', async () => {
    let n = 0
    const link = fake(c =>
      c === 'AT+CESQ'
        ? `\r\n+CEREG: 5,"00A1","0BAD",7\r\nRING\r\n+CESQ: 99,99,255,255,20,${40 + (n++ % 3)}\r\n\r\nOK\r\n`
        : '\r\nOK\r\n',
    )
    const { samples } = await talk(link, s => s.length > 4)
    expect(samples.at(-1)).toMatchObject({ registered: 'roaming', cellId: '2989' })
    expect(samples.every(s => s.rsrpDbm !== null)).toBe(true)
  })
  it('not known is not known, and not the figure before it', async () => {
    let n = 0
    const link = fake(c => (c === 'AT+CESQ' ? `+CESQ: 99,99,255,255,${n++ ? '255,255' : '20,40'}\r\nOK\r\n` : 'OK\r\n'))
    const { samples } = await talk(link, s => s.length > 2)
    expect(samples[0]!.rsrpDbm).not.toBeNull()
    expect(samples.at(-1)!.rsrpDbm).toBeNull()
  })
  it('one that knows the older command alone is asked by that', async () => {
    const link = fake(c => (c === 'AT+CESQ' ? 'ERROR\r\n' : c === 'AT+CSQ' ? '+CSQ: 18,99\r\nOK\r\n' : 'OK\r\n'))
    const { samples, troubles } = await talk(link, s => s.length > 1)
    expect(samples.at(-1)).toMatchObject({ rssiDbm: { value: -77 }, rsrpDbm: null })
    expect(troubles.at(-1)).toBeNull()
  })
  it('no SIM, silence, garbage and an unplugged lead are each told in words', async () => {
    const noSim = await talk(
      fake(() => '+CME ERROR: 10\r\n'),
      (_s, t) => t.includes('no SIM in the modem'),
    )
    expect(noSim.troubles).toContain('no SIM in the modem')
    const garbage = await talk(
      fake(() => 'xÿ\u0003\r\n?\r\n##\r\n!!\r\n--\r\n'),
      (_s, t) => t.some(x => x?.includes('another speed')),
      20_000,
    )
    expect(garbage.troubles.some(t => t?.includes('no modem’s answer') || t?.includes('does not answer'))).toBe(true)
    const lead = fake(() => '+CESQ: 99,99,255,255,20,40\r\nOK\r\n')
    setTimeout(lead.unplug, 100)
    expect((await talk(lead, () => false)).why).toBe('it was unplugged')
  })
  it('kept, it can be played again and tells the same levels', async () => {
    const first = await talk(modem(), s => s.length > 5)
    const again = await talk(
      recordingLink(first.recording, 'yesterday', () => Promise.resolve()),
      () => false,
    )
    expect(again.why).toBe('the recording is at its end')
    expect(again.samples.map(s => s.rsrpDbm?.value).slice(0, 3)).toEqual(first.samples.map(s => s.rsrpDbm?.value).slice(0, 3))
    expect(() => recordingLink('a,b,c', 'x')).toThrow('no recording')
  })
})
