import { nth, sure } from '#core/sure'
import { insert, standing } from '#core/job'
import type { Edit, Fields, New, Reading } from '#core/job'
import { mastOfReading } from '#core/masts'
import { asPlanned } from '#core/survey'
import type { MadeWith } from '#core/survey'
import { asNegative, parseNumber } from '#core/formats'
import type { PageFigures } from '#core/formats'
import { bandFromEntry, earfcnToMHz, gradeRsrp, noiseLimitedSinrDb } from '#core/radio'
import { countWords } from '#core/prove'
import type { Step } from '#core/fitting'
import type { Kept } from '../components/prove/WatchPanel.vue'
import { v7 as uuidv7 } from 'uuid'
import { nowUtc } from '~/replica/clock'
import { MBITS_PER_MBYTE, num } from '#core/units'
import type { TestedSpeed } from '~/instruments/speed'

/** What is typed of one moment: level, speed. */
export type Name = 'band' | 'width' | 'rsrp' | 'rsrq' | 'sinr' | 'cell' | 'down' | 'up' | 'ping'
type Heard = Pick<Reading, 'technology' | 'band' | 'channel' | 'bandwidthMHz' | 'cellId' | 'rsrpDbm' | 'rsrqDb' | 'sinrDb'>
const SPEED = 'Mbit/s'
const FIELDS: Record<
  'reading' | 'speed',
  { name: Name; label: string; unit: string; negative?: boolean; low?: number; high?: number }[]
> = {
  reading: [
    { name: 'rsrp', label: 'RSRP', unit: 'dBm', negative: true, low: -160, high: -20 },
    { name: 'sinr', label: 'SINR', unit: 'dB', low: -30, high: 60 },
    { name: 'rsrq', label: 'RSRQ', unit: 'dB', negative: true, low: -50, high: 10 },
    { name: 'band', label: 'Band', unit: '' },
    { name: 'width', label: 'Width', unit: 'MHz', low: 1.4, high: 100 },
    { name: 'cell', label: 'Cell', unit: '' },
  ],
  speed: [
    { name: 'down', label: 'Down', unit: SPEED, low: 0, high: 10000 },
    { name: 'up', label: 'Up', unit: SPEED, low: 0, high: 10000 },
    { name: 'ping', label: 'Ping', unit: 'ms', low: 0, high: 100000 },
  ],
}
export const CALLS = [
  { words: 'made, heard both ways, held', made: true, heard: true, dropped: false },
  { words: 'heard badly or one way', made: true, heard: false, dropped: false },
  { words: 'dropped', made: true, heard: true, dropped: true },
  { words: 'not made', made: false, heard: false, dropped: false },
]
export type ReadingEntry = ReturnType<typeof useReadingEntry>

/** One reading, one speed test, one call or one watch at a spot: typed at the desk or by a keypad, told by a modem, or pressed. */
export function useReadingEntry(props: { spotId: string; after?: boolean }) {
  const store = useOpened()
  const kind = ref<'reading' | 'speed' | 'call' | 'watch'>('reading')
  /** what it is made with */
  const setupId = ref<string | null>(null)
  /** The first reading of the finished work brings its set-up along, as planned, where none was chosen. */
  function madeWith(): { id: string | null; steps: Step[] } {
    if (!props.after || setupId.value || !store.design) return { id: setupId.value, steps: [] }
    const rowId = uuidv7()
    return { id: rowId, steps: [{ table: 'setups', op: 'insert', rowId, fields: { ...asPlanned(store.doc, store.design) } }] }
  }
  /** carriers of one moment share a number: the next one read belongs to the last where it is said so */
  const capture = ref<string | null>(null)
  const role = ref<'anchor' | 'added' | 'NR'>('anchor')
  const technology = ref<'LTE' | 'NR'>('LTE')
  const values = reactive<Record<Name, string>>({
    band: '',
    width: '',
    rsrp: '',
    rsrq: '',
    sinr: '',
    cell: '',
    down: '',
    up: '',
    ping: '',
  })
  const errors = reactive<Partial<Record<Name | 'all', string>>>({})
  const done = ref('')
  const { start: quietLater } = useTimeoutFn(() => (done.value = ''), 2500, { immediate: false })
  /** some pages and programs show megabytes: what is typed is of this unit, what is kept is Mbit/s */
  const speedUnit = ref<'Mbit/s' | 'MB/s'>('Mbit/s')
  const fields = computed(() =>
    FIELDS[kind.value === 'reading' ? 'reading' : 'speed'].map(f =>
      f.unit === SPEED ? { ...f, unit: speedUnit.value, high: f.high! / factorOf(f.unit) } : f,
    ),
  )
  /** to Mbit/s, of a field that is a speed */
  const factorOf = (unit: string): number => (unit === SPEED && speedUnit.value === 'MB/s' ? MBITS_PER_MBYTE : 1)
  const active = ref<Name>('rsrp')
  watch(kind, k => (active.value = k === 'reading' ? 'rsrp' : 'down'))
  function nextRole() {
    role.value = role.value === 'anchor' ? 'added' : role.value === 'added' ? 'NR' : 'anchor'
    if (role.value === 'NR') technology.value = 'NR'
    else technology.value = 'LTE'
    values.band = values.width = values.cell = ''
  }
  // What the last reading of the job said of band, width and cell is offered again: nothing is typed twice.
  watchEffect(() => {
    const last = store.doc.readings.at(-1)
    if (last && !values.band) values.band = last.band ?? ''
    if (last && !values.width && last.bandwidthMHz) values.width = String(last.bandwidthMHz)
  })
  function read(name: Name): number | null {
    const f = sure(fields.value.find(x => x.name === name))
    let v = parseNumber(values[name])
    if (f.negative) v = asNegative(v)
    if (v !== null && (v < f.low! || v > f.high!)) throw new RangeError(`${f.low} to ${f.high} ${f.unit}`.replace(/-/g, '−'))
    return v === null || f.unit !== 'MB/s' ? v : Math.round(v * MBITS_PER_MBYTE * 1000) / 1000
  }
  function all(names: Name[]): Record<Name, number | null> | null {
    for (const k of Object.keys(errors) as Name[]) errors[k] = ''
    const out = {} as Record<Name, number | null>
    let bad = false
    for (const n of names) {
      try {
        out[n] = read(n)
      } catch (e) {
        errors[n] = messageOf(e)
        bad = true
      }
    }
    return bad ? null : out
  }
  /** left empty: now. A reading noted on paper is given its own time, in this device’s zone. */
  const taken = ref('')
  function takenAt(): string {
    const at = new Date(taken.value)
    return Number.isNaN(at.getTime()) ? nowUtc() : at.toISOString()
  }
  const { once } = useOnce()
  const save = (wouldNotLoad = false) =>
    once(() => (kind.value === 'speed' || wouldNotLoad ? saveSpeed(wouldNotLoad) : saveReading()))
  const common = (setupId: string | null) => ({
    spotId: props.spotId,
    setupId,
    takenAtUtc: takenAt(),
    replacesId: null,
    withdrawn: false,
  })
  /** Keeps one row of the log at this spot, with what it was made with. @returns whether it was taken */
  async function keep<T extends MadeWith>(
    table: T,
    fields: Omit<Fields<T>, keyof ReturnType<typeof common> | 'stopId'>,
    what: string,
    said: string,
  ): Promise<boolean> {
    const by = madeWith()
    const row = { ...common(by.id), ...fields } as New<T>
    const wrong = await store.commit([...by.steps, insert(table, row) as Edit], what)
    errors.all = wrong[0] ? `${wrong[0].field} ${wrong[0].message}` : ''
    done.value = wrong.length ? '' : said
    quietLater()
    return !wrong.length
  }
  /** @returns what stands in the fields; null where something is wrong, and its field says what */
  function inFields(): Heard | null {
    const v = all(['rsrp', 'sinr', 'rsrq', 'width'])
    if (!v) return null
    const text = values.band.trim()
    const band = text ? bandFromEntry(text, technology.value) : undefined
    if (text && !band) {
      errors.band = `no ${technology.value} band or channel held`
      return null
    }
    if (v.rsrp === null && v.sinr === null && v.rsrq === null) {
      errors.rsrp = 'RSRP, SINR or RSRQ is needed'
      return null
    }
    return {
      technology: technology.value,
      band: band?.name ?? null,
      channel: /^\d+$/.test(text) && Number(text) > 100 ? Number(text) : null,
      bandwidthMHz: v.width,
      cellId: values.cell.trim() || null,
      rsrpDbm: v.rsrp,
      rsrqDb: v.rsrq,
      sinrDb: v.sinr,
    }
  }
  async function saveReading(heard: Heard | null = inFields()) {
    if (!heard) return
    if (role.value === 'anchor') capture.value = uuidv7()
    const kept = await keep(
      'readings',
      { ...heard, capture: capture.value, carrierRole: role.value },
      'a reading',
      `kept ${heard.rsrpDbm ?? ''} dBm`.replace('-', '−'),
    )
    if (kept) values.rsrp = values.sinr = values.rsrq = ''
    active.value = 'rsrp'
  }
  /** What a modem said, or its page, shown in the fields. */
  function fill(f: Partial<PageFigures>) {
    kind.value = 'reading'
    const text = (v: number | null | undefined) => (v === null || v === undefined ? '' : String(v).replace('-', '−'))
    values.rsrp = text(f.rsrpDbm)
    values.rsrq = text(f.rsrqDb)
    values.sinr = text(f.sinrDb)
    if (f.cellId) values.cell = f.cellId
    if (f.band) values.band = f.band
    if (f.bandwidthMHz) values.width = String(f.bandwidthMHz)
    if (f.technology) technology.value = f.technology
  }
  /** A modem's figures go into the row as the numbers that they are; what it does not say is what the fields say. */
  async function keepHeard(f: Partial<PageFigures>, words: string) {
    fill(f)
    const shown = inFields()
    if (!shown) return
    const said = { rsrpDbm: f.rsrpDbm ?? null, rsrqDb: f.rsrqDb ?? null, sinrDb: f.sinrDb ?? null }
    await once(() => saveReading({ ...shown, ...said, bandwidthMHz: f.bandwidthMHz ?? shown.bandwidthMHz }))
    if (done.value) done.value = `${done.value}: ${words}`
  }
  function showPage(f: PageFigures, told: string) {
    fill(f)
    errors.all = told
  }
  /** The carrier that the link was last seen on here, with this set-up. */
  function answeredBy(): { band: string | null; cellId: string | null } {
    const last = standing(store.doc.readings).findLast(
      r => r.spotId === props.spotId && r.carrierRole === 'anchor' && (!setupId.value || r.setupId === setupId.value),
    )
    return { band: last?.band ?? null, cellId: last?.cellId ?? null }
  }
  async function saveSpeed(wouldNotLoad: boolean) {
    const v = wouldNotLoad ? { down: null, up: null, ping: null } : all(['down', 'up', 'ping'])
    if (!v) return
    if (!wouldNotLoad && v.down === null && v.up === null) {
      errors.down = 'a speed is needed, or “would not load”'
      return
    }
    const kept = await keep(
      'speedRuns',
      { downMbps: v.down, upMbps: v.up, pingMs: v.ping, wouldNotLoad, via: null, doubted: false, ...answeredBy() },
      'a speed test',
      wouldNotLoad ? 'kept: would not load' : `kept ${v.down} Mbit/s down`,
    )
    if (kept) values.down = values.up = values.ping = ''
    // “Would not load” is said from the keys of a reading too.
    active.value = nth(fields.value, 0).name
  }
  /** A test of our own: kept as it came, marked where it went another way than the set-up's earlier ones. */
  async function keepTested(t: TestedSpeed) {
    const kept = await keep(
      'speedRuns',
      {
        downMbps: t.downMbps,
        upMbps: t.upMbps,
        pingMs: t.pingMs,
        wouldNotLoad: false,
        via: t.via,
        doubted: t.doubted,
        ...answeredBy(),
      },
      'a speed test',
      t.doubted ? 'kept, marked: it went another way' : `kept ${num(t.downMbps, 1)} down`,
    )
    if (!kept && !errors.all) errors.all = 'the test could not be kept'
  }
  /** A link watched: of its own beginning. */
  const keepWatched = (w: Kept) => keep('watches', w, 'a watch for drop-outs', `kept: ${countWords(w.drops)}`)
  /** the lock that was just taken is the band that is read */
  function lockedTo(band: string) {
    values.band = band
  }
  const dwelling = ref(false)
  /** the modem’s page is pasted instead */
  const pasting = ref(false)
  /** figures are typed, rather than an outcome pressed */
  const typed = computed(() => kind.value === 'reading' || kind.value === 'speed')
  const saveCall = ({ words, ...outcome }: (typeof CALLS)[number]) =>
    once(() => keep('calls', outcome, 'a call', `kept: ${words}`))
  function press(key: string) {
    const v = values[active.value]
    values[active.value] = key === '⌫' ? v.slice(0, -1) : key === '±' ? (/^[-−]/.test(v) ? v.slice(1) : `−${v}`) : v + key
  }
  function next() {
    const i = fields.value.findIndex(f => f.name === active.value)
    active.value = nth(fields.value, (i + 1) % fields.value.length).name
  }
  const shown = computed(() => {
    const f = sure(fields.value.find(x => x.name === active.value))
    const v = values[active.value]
    return f.negative && v && !/^[-−]/.test(v) ? `−${v}` : v
  })
  const hint = computed(() => {
    if (values.cell.trim() && kind.value === 'reading') {
      const doc = store.doc
      const mastId = mastOfReading(
        { cellId: values.cell, technology: technology.value },
        doc.cells,
        id => doc.masts.find(m => m.id === id)?.carrier,
        store.job.carrier,
      )
      return mastId
        ? `that cell is ${sure(doc.masts.find(m => m.id === mastId)).name}’s: it corrects the sums`
        : 'a cell of no mast in the list'
    }
    try {
      if (active.value === 'rsrp' || values.rsrp) {
        const v = asNegative(parseNumber(values.rsrp))
        if (v !== null) return `${gradeRsrp(v).id}; noise alone would leave ${num(noiseLimitedSinrDb(v))} dB of SINR`
      }
      if (/^\d{3,}$/.test(values.band) && technology.value === 'LTE')
        return `${earfcnToMHz(Number(values.band)).frequencyMHz.toFixed(1)} MHz`
    } catch {
      return ''
    }
    return ''
  })
  /** on the keypad: the field that is typed into */
  const pick = (name: Name) => (active.value = name)
  const swapTechnology = () => (technology.value = technology.value === 'LTE' ? 'NR' : 'LTE')
  /** what is said once and quietly: it stays as it is until somebody changes it */
  const usual = computed(() =>
    [
      kind.value === 'reading' && values.band.trim(),
      kind.value === 'reading' && values.width.trim() && `${values.width.trim()} MHz`,
      kind.value === 'reading' && role.value !== 'anchor' && ROLE_WORDS[role.value],
      taken.value ? dayAndTime(takenAt()) : 'now',
    ]
      .filter((w): w is string => !!w)
      .join(' · '),
  )
  return reactive({
    kind,
    setupId,
    role,
    technology,
    values,
    errors,
    done,
    hint,
    speedUnit,
    fields,
    active,
    shown,
    taken,
    typed,
    dwelling,
    pasting,
    usual,
    nextRole,
    press,
    next,
    pick,
    save,
    saveCall,
    swapTechnology,
    keepHeard,
    showPage,
    keepTested,
    keepWatched,
    lockedTo,
  })
}

/** Of carriers used together, which one is read. */
export const ROLE_WORDS = { anchor: 'anchor carrier', added: 'added carrier', NR: 'NR beside it' } as const
