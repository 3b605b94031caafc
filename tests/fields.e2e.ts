/**
 * Every field of the job's document is set by somebody: each is pressed here, or in a test that is named, or says why nobody sets it.
 * A field without its line fails by its name. What is pressed is read back from the server, again after a reload, and on the screen.
 */
import { existsSync, readFileSync } from 'node:fs'
import type { Locator, Page } from '@playwright/test'
import { TABLE_FIELDS, TABLES } from '../core/job/schema'
import type { JobDocument, TableName } from '../core/job/schema'
import type { JobSnapshot } from '../shared/api'
import { choose } from './support/choose'
import { copyOf } from './support/copy'
import { CROFT, expect, KETCH, KILN, LOFT, openJob, sent, test, VAN } from './support/fixtures'

/** Set here by an act of that name, in another test, or by nobody. */
type Line = { here: string } | { in: string; title: string } | { nobody: string }

const by = (here: string, ...fields: string[]): Record<string, Line> => Object.fromEntries(fields.map(f => [f, { here }]))
const within = (file: string, title: string, ...fields: string[]): Record<string, Line> =>
  Object.fromEntries(fields.map(f => [f, { in: file, title }]))
const nobody = (why: string, ...fields: string[]): Record<string, Line> =>
  Object.fromEntries(fields.map(f => [f, { nobody: why }]))

const WHEN = 'the moment of the press'
const WHERE = 'the stop at which the job stands when it is pressed'
const OF = 'what it was pressed at'
const BYTES = 'of the picture that was brought'
const SET_UP = 'a house is commissioned: what is said of connections, cards, boxes and networks is kept'
const PULLED = 'a line is pulled by the clock'
const COUNTED = 'usage of a month comes from a file'
const SIGNED = 'the customer signs'
const A_BOX = 'a label: the key is black'

const LINES: { [T in TableName]: Record<string, Line> } = {
  jobs: {
    ...by('ask', 'customerName', 'customerContact', 'customerAddress', 'agreedDownMbps', 'agreedUpMbps', 'agreedCalls'),
    ...by('ask', 'complaint', 'changedLately', 'drillWhere', 'outageMin'),
    ...by('ask', 'agreedDrops', 'carrier', 'today', 'mayDrill', 'notes', 'nextOn', 'rules', 'kFactor', 'name'),
    ...by('ask', 'needDataDbm', 'needCallsDbm', 'rsrpEdges', 'sinrEdges', 'busyHours'),
    ...by('begin', 'kind'),
    ...by('baseline', 'baselineSpotId'),
    ...by('variant', 'designId'),
    ...by('stop', 'stopId'),
    ...by('quote', 'quoteMarginPercent', 'quoteHours'),
    ...within('days', 'a fleet: more of one job at once', 'methodId'),
  },
  sites: {
    ...by('begin', 'latDeg', 'lonDeg'),
    ...nobody('from the position', 'zone'),
    ...by('ask', 'groundM', 'axisDeg', 'lengthM', 'depthM', 'storeys', 'storeyHeightM', 'roofRiseM'),
    ...by('ask', 'wallMaterial', 'paneMaterial', 'panePercent', 'floorMaterial', 'roofMaterial'),
    ...by('boat', 'mizzenRiseM'),
    ...within('detail', 'what moves is drawn by its body', 'body'),
    ...by('heading', 'headingDeg', 'swingDeg', 'deviation'),
    ...by('gust', 'gustMs'),
  },
  floors: {
    ...by('inside', 'name', 'heightM', 'material'),
    ...within('zones', 'a floor says what it is used as', 'use'),
    ...nobody('the floor whose row is filled', 'level'),
  },
  zones: {
    ...within('zones', 'a zone keeps what is said of it', 'name', 'fromLevel', 'toLevel', 'use', 'needDbm', 'people'),
    ...within('zones', 'a zone keeps what is said of it', 'alongFromM', 'alongToM', 'acrossFromM', 'acrossToM'),
  },
  walls: by('inside', 'level', 'fromEastM', 'fromNorthM', 'toEastM', 'toNorthM', 'material', 'lossDb'),
  sheets: by('inside', 'name', 'eastM', 'northM', 'upM', 'azimuthDeg', 'tiltDeg', 'widthM', 'heightM', 'material', 'lossDb'),
  stops: {
    ...by('stop', 'name', 'latDeg', 'lonDeg', 'arriveOn', 'leaveOn', 'groundM'),
    ...nobody('from the position', 'zone'),
    ...by('heading there', 'headingDeg', 'swingDeg'),
    ...by('stop', 'notes'),
  },
  obstacles: { ...by('about', 'name', 'fromDeg', 'toDeg', 'distanceM', 'heightM'), ...nobody(WHERE, 'stopId') },
  landmarks: { ...by('about', 'name', 'latDeg', 'lonDeg'), ...nobody(WHERE, 'stopId') },
  pictures: {
    ...within('scout', 'a picture with its world file lies under the map', 'name', 'affine', 'opacity'),
    ...nobody(BYTES, 'widthPx', 'heightPx'),
  },
  floorPlans: {
    ...within('plan', 'coverage of a floor: a wall drawn lowers it', 'level', 'name', 'affine', 'opacity'),
    ...nobody(BYTES, 'widthPx', 'heightPx'),
  },
  fixtures: {
    ...by('pins', 'kind', 'name', 'upM', 'widthM', 'heightM'),
    ...by('sky', 'azimuthDeg', 'tiltDeg', 'halfFieldDeg'),
    ...within('plan', 'a photograph and a socket are pinned', 'eastM', 'northM'),
    ...by('way in', 'entry', 'behind', 'behindFound', 'behindWhat', 'openMm', 'wallMm'),
    ...by('electrode', 'electrode', 'bonded', 'conductor', 'corners'),
  },
  photos: {
    ...by('photo', 'caption', 'bearingDeg'),
    ...nobody(WHEN, 'takenAtUtc'),
    ...nobody(WHERE, 'stopId'),
    ...nobody(BYTES, 'widthPx', 'heightPx'),
    ...within('plan', 'a photograph and a socket are pinned', 'eastM', 'northM', 'upM'),
    ...within('walk', 'the walk: a new place is pressed', 'spotId'),
    ...within('days', A_BOX, 'nodeId', 'stepKey'),
  },
  labels: {
    ...within('days', A_BOX, 'nodeId', 'serial', 'imei', 'mac'),
    ...within('commission', SET_UP, 'firmwareNeeded', 'firmwareFound', 'wps', 'adminFromOutside'),
  },
  simSlots: within('leads', 'SIMs lie in the slots of two modems', 'nodeId', 'slot', 'simId'),
  connections: {
    ...within(
      'commission',
      SET_UP,
      'name',
      'kind',
      'rank',
      'nodeId',
      'simId',
      'use',
      'carries',
      'state',
      'stateAtUtc',
      'poweredAtUtc',
    ),
    ...within('commission', SET_UP, 'throttleDownMbps', 'throttleUpMbps', 'deviceMbps', 'reserveMbps', 'allowanceGb', 'address'),
    ...within('commission', SET_UP, 'checkS', 'checkPlaces', 'checkMisses', 'mastId', 'socketId', 'entryId'),
  },
  networks: {
    ...within('commission', SET_UP, 'name', 'kind', 'named', 'radio', 'apart', 'deviceMbps'),
    ...within('commission', SET_UP, 'password', 'passwordBy', 'passwordTo', 'passwordOn'),
  },
  appliances: {
    ...within('commission', SET_UP, 'networkId', 'name', 'backAtUtc', 'tunnel', 'usage', 'hoursDay', 'mbHour'),
  },
  failovers: {
    ...within('commission', PULLED, 'connectionId', 'how', 'pulledAtUtc', 'answeredAtUtc', 'otherId', 'backInAtUtc', 'backAtUtc'),
    ...within('commission', PULLED, 'broke', 'address', 'withdrawn'),
  },
  usageDays: within('commission', COUNTED, 'connectionId', 'onDay', 'mb', 'hours'),
  signatures: within('commission', SIGNED, 'what', 'said', 'name', 'atUtc', 'remarks', 'open', 'strokes'),
  visits: by('visit', 'onDay', 'startsAt', 'hours', 'team', 'people', 'weather', 'state', 'note'),
  supplies: {
    ...by('list', 'state', 'dueOn', 'name', 'quantity'),
    ...nobody('the supplier of a thing is the crew’s, and stands in its price book', 'supplier'),
    ...nobody('the line that was pressed', 'key'),
  },
  ownSteps: by('own step', 'words', 'stand', 'minutes', 'afterKey', 'beforeKey'),
  spots: {
    ...by('spot', 'name', 'station', 'note', 'upM', 'indoors', 'needed', 'people', 'use', 'needDbm', 'hangs'),
    ...within('walk', 'the walk: a new place is pressed', 'eastM', 'northM'),
  },
  devices: { ...by('ask', 'name', 'antennaDbi'), ...by('set-up', 'kind') },
  sims: {
    ...by('ask', 'name', 'carrier', 'plan', 'capDownMbps', 'capUpMbps', 'allowanceGb', 'callsOverWifi'),
    ...within('commission', SET_UP, 'iccid', 'size', 'resetDay', 'usedUp', 'slowMbps'),
  },
  setups: {
    ...by('set-up', 'deviceId', 'simId', 'link', 'antenna', 'designId', 'booster', 'bandLock', 'power', 'name', 'mark'),
    ...by('set-up', 'ownAntennas', 'place', 'antennaUpM', 'antennaDeg'),
  },
  readings: {
    ...by('reading', 'rsrpDbm', 'rsrqDb', 'sinrDb', 'band', 'bandwidthMHz', 'cellId', 'technology', 'carrierRole', 'takenAtUtc'),
    ...nobody(OF, 'spotId', 'setupId'),
    ...nobody(WHERE, 'stopId'),
    ...nobody('added to the anchor that was read just before', 'capture'),
    ...within('live', 'half a minute at a spot becomes a reading', 'channel'),
    ...by('corrected', 'replacesId', 'withdrawn'),
  },
  speedRuns: {
    ...by('speed', 'downMbps', 'upMbps', 'pingMs', 'wouldNotLoad', 'takenAtUtc'),
    ...within('live', 'a speed test of our own is asked for', 'via', 'doubted', 'band', 'cellId'),
    ...nobody(OF, 'spotId', 'setupId'),
    ...nobody(WHERE, 'stopId'),
    ...nobody('as with readings', 'replacesId', 'withdrawn'),
  },
  calls: {
    ...by('call', 'made', 'heard', 'dropped'),
    ...nobody(WHEN, 'takenAtUtc'),
    ...nobody(OF, 'spotId', 'setupId'),
    ...nobody(WHERE, 'stopId'),
    ...nobody('as with readings', 'replacesId', 'withdrawn'),
  },
  watches: {
    ...within('walk', 'drop-outs are watched', 'kind', 'seconds', 'drops', 'longestS', 'lostS'),
    ...nobody('of a failover test kept here before Commission had them', 'switchS', 'backS', 'broke'),
    ...nobody(WHEN, 'takenAtUtc'),
    ...nobody(OF, 'spotId', 'setupId'),
    ...nobody(WHERE, 'stopId'),
    ...nobody('as with readings', 'replacesId', 'withdrawn'),
  },
  masts: {
    ...by('mast', 'name', 'latDeg', 'lonDeg', 'heightM', 'carrier'),
    ...nobody('of the ground that was brought', 'groundM'),
    ...nobody('of a list of masts', 'accuracyM', 'seenOn'),
  },
  cells: {
    ...by('mast', 'band', 'technology'),
    ...nobody('the mast they were entered with', 'mastId'),
    ...nobody('of a list of masts', 'cellId', 'channel', 'azimuthDeg', 'beamwidthDeg', 'powerDbm'),
  },
  designs: {
    ...by('variant', 'name', 'reason'),
    ...by('choose', 'approach', 'band', 'bandwidthMHz', 'marginDb', 'carriersInBand'),
    ...by('mast', 'mastId'),
    ...by('lock', 'aimedDeg', 'aimedAtUtc'),
    ...within('walk', 'a receiver on the pole tells where', 'aimedTiltDeg'),
    ...within('plan', 'the pick list counts, is cut from the drum', 'plugs'),
    ...by('way in', 'wayInId'),
  },
  nodes: {
    ...nobody('the plan that is shown', 'designId'),
    ...by('choose', 'partId', 'part'),
    ...by('figures', 'own'),
    ...within('detail', 'a part is dragged, the isolation follows', 'eastM', 'upM'),
    ...by('turn', 'azimuthDeg'),
    ...by('plan', 'northM'),
    ...nobody('of the lay-out; up and down in Aim is the design’s', 'tiltDeg'),
    ...within('route', 'a mast is held, stands or does not', 'fixing'),
    ...within('route', 'a box on 12 V', 'feed'),
    ...within('leads', 'an antenna taken out, the others keep their numbers', 'number'),
    ...by('source', 'sourceId'),
    ...by('figures', 'polarisation', 'name'),
  },
  runs: {
    ...nobody('the plan that is shown', 'designId'),
    ...nobody('the two ports that it joins', 'fromNodeId', 'fromPort', 'toNodeId', 'toPort'),
    ...by('cable', 'partId', 'part', 'lengthM', 'measured'),
    ...nobody('kept by jobs of before', 'spareM'),
    ...within('route', 'a way is drawn, a corner moved', 'way', 'pieces'),
  },
  isolations: {
    ...nobody('the pair that is shown', 'designId', 'donorId', 'serverId'),
    ...by('isolation', 'makerDb', 'measuredDb', 'inForce', 'reason'),
  },
  sweeps: {
    ...nobody('the plan that is shown', 'designId'),
    ...nobody(WHEN, 'startedAtUtc'),
    ...nobody(OF, 'setupId'),
    ...nobody(WHERE, 'stopId'),
    ...by('sweep', 'quantity', 'band', 'reference', 'stepDeg', 'dwellS', 'struckDeg'),
    ...within('walk', 'a receiver on the pole tells where', 'axis', 'slow'),
    ...nobody('of the modem that is heard', 'cellId'),
  },
  steps: {
    ...by('sweep', 'headingDeg', 'value', 'pass'),
    ...nobody('the sweep that is going', 'sweepId'),
    ...nobody(WHEN, 'takenAtUtc'),
    ...within('walk', 'a receiver on the pole tells where', 'tiltDeg'),
    ...within('detail', 'the aim: no sweep before the ticks', 'replacesId', 'withdrawn'),
  },
  checks: {
    ...within('card', 'the next step stands behind its gate', 'kind', 'key', 'done', 'by', 'atUtc', 'about'),
    ...within('card', 'a gust above ten keeps the ladder down', 'value'),
    ...within('detail', 'a finding is accepted with a reason', 'reason'),
    ...nobody(WHERE, 'stopId'),
  },
}

test('every field of the document has its line, every line its field, its act or its test', () => {
  for (const table of TABLES) {
    const fields = Object.keys(TABLE_FIELDS[table])
    expect(
      fields.filter(f => !LINES[table][f]).map(f => `${table}.${f}`),
      'fields without a line',
    ).toEqual([])
    expect(Object.keys(LINES[table]).filter(f => !fields.includes(f))).toEqual([])
    for (const [field, line] of Object.entries(LINES[table])) {
      if ('here' in line) expect(Object.keys(ACTS), `${table}.${field}`).toContain(line.here)
      if (!('in' in line)) continue
      const path = `tests/${line.in}.e2e.ts`
      expect(existsSync(path) && readFileSync(path, 'utf8').includes(line.title), `${table}.${field}: ${line.title}`).toBe(true)
    }
  }
  // What an act says that it sets is what stands against its name, and the other way round.
  for (const [name, act] of Object.entries(ACTS)) {
    const said = Object.entries(act.sets).flatMap(([t, fields]) => Object.keys(fields!).map(f => `${t}.${f}`))
    const lines = TABLES.flatMap(t =>
      Object.entries(LINES[t]).flatMap(([f, l]) => ('here' in l && l.here === name ? `${t}.${f}` : [])),
    )
    expect(
      lines.filter(l => !said.includes(l)),
      `of ${name}`,
    ).toEqual([])
  }
})

interface Act {
  job: string
  section: string
  does: (page: Page, id: string) => Promise<unknown>
  /** rows that were not there before, as they are then: of each table one, its fields by value */
  sets: { [T in TableName]?: Record<string, unknown> }
  /** on the screen after a reload */
  shows?: (page: Page) => Promise<unknown>
}

type Where = Page | Locator
const fill = async (where: Where, label: string | RegExp, text: string) => {
  const field = where.getByLabel(label, { exact: true }).first()
  await field.fill(text)
  await field.blur()
}
const shows = async (where: Where, label: string, text: string) =>
  expect(where.getByLabel(label, { exact: true }).first(), label).toHaveValue(text)
/** By its word, or by its place in the list where each option tells its loss beside its name. */
const pick = async (where: Where, label: string, word: string | RegExp | number) => {
  await choose(where.locator('.mv-choice', { hasText: label }).first().locator('.v-field'), word)
}
const typed = (texts: Record<string, string>) => ({
  does: async (where: Where) => {
    for (const [label, text] of Object.entries(texts)) await fill(where, label, text)
  },
  shows: async (where: Where) => {
    for (const [label, text] of Object.entries(texts)) await shows(where, label, text)
  },
})
/** Heading and swing of what moves, as the sheet of the compass takes them. */
const headed = (reference: string, heading: string, swing: string) => async (page: Page) => {
  await page.locator('[data-test=compass]').click()
  await choose(page.locator('[data-test=heading-ref]'), reference)
  await fill(page, 'Heading', heading)
  await fill(page, /± ?$|parked|anchor/, swing)
  await page.keyboard.press('Escape')
}
const DOT = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==',
  'base64',
)
const asked = typed({
  'Down': '37.5',
  'Up': '4.25',
  'Drop-outs borne': '1.5',
  'Next visit': '2031-05-06',
  'Ground above sea': '123.5',
  'Earth radius × k': '1.2',
  'What is there today': 'A line that drops',
  'What changed lately': 'A metal roof on the barn',
  'Where we may drill': 'the loft wall only',
  'Power cuts to be bridged': '45',
  'Length': '17.5',
  'Depth': '9.5',
  'Its long side runs toward': '33',
  'Storeys': '3',
  'Storey height': '3.1',
  'Roof above eaves, 0 is flat': '2.4',
  'Share of panes in the walls': '22',
  'Job': 'Croft by hand',
  'Customer': 'Somebody',
  'How to reach them': 'by bell',
  'Address': 'Third gate',
  'Notes': 'Beware of the goose',
  'SIM': 'The new one',
  'Cap down': '88',
  'Cap up': '11',
  'Plan: allowance, throttle, whose network': 'slow after ten',
  'Allowance': '77',
  'Its own antenna': '2.5',
  'Device: phone': 'The old phone',
  'A room needs, for data': '−101',
  'for calls': '−111',
})

/** What is seldom changed of an entry stands open. */
async function seldom(page: Page): Promise<void> {
  const more = page.locator('[data-test=more]')
  if ((await more.getAttribute('aria-expanded')) === 'false') await more.click()
}

const ACTS: Record<string, Act> = {
  'ask': {
    job: CROFT,
    section: 'ask',
    does: async page => {
      await page.locator('[data-test=site-details]').click()
      // Where is asked where it may be.
      await pick(page, 'May we drill?', 'yes')
      await asked.does(page)
      await page.getByLabel('Calls must work').click()
      await pick(page, 'Rules of', /New Zealand|Australia/)
      await pick(page, 'Wi-Fi or cellular?', 'cellular')
      await pick(page.locator('[data-test=sim]').first(), 'Calls over Wi-Fi', 'no')
      await pick(page, 'Outside walls', 2)
      await pick(page, 'Window panes', 1)
      await pick(page, 'Floors and ceilings', 1)
      await pick(page.locator('.building'), 'Roof', 3)
      await fill(page, 'Grades of RSRP, dBm, from: very good, good, weak, poor', '-81 -91 -101 -111')
      await fill(page, 'Grades of SINR, dB, from: very good, good, weak, poor', '19 12 1 -4')
      await fill(page, 'Busy hours of the day: speeds are compared within them', '9 to 16')
      await pick(page.locator('[data-test=sim]').first(), 'of', 'Gannet')
      await pick(page.locator('form, .form').first(), 'Planned for the network of', 'Gannet')
    },
    sets: {
      jobs: {
        name: 'Croft by hand',
        customerName: 'Somebody',
        customerContact: 'by bell',
        customerAddress: 'Third gate',
        agreedDownMbps: 37.5,
        agreedUpMbps: 4.25,
        agreedCalls: expect.any(Boolean),
        agreedDrops: 1.5,
        carrier: 'Gannet',
        today: 'A line that drops',
        complaint: 'cellular',
        changedLately: 'A metal roof on the barn',
        drillWhere: 'the loft wall only',
        outageMin: 45,
        mayDrill: 'yes',
        notes: 'Beware of the goose',
        nextOn: '2031-05-06',
        rules: 'AU',
        kFactor: 1.2,
        needDataDbm: -101,
        needCallsDbm: -111,
        rsrpEdges: [-81, -91, -101, -111],
        sinrEdges: [19, 12, 1, -4],
        busyHours: [9, 16],
      },
      sites: {
        groundM: 123.5,
        axisDeg: 33,
        lengthM: 17.5,
        depthM: 9.5,
        storeys: 3,
        storeyHeightM: 3.1,
        roofRiseM: 2.4,
        panePercent: 22,
        wallMaterial: 'concrete',
        paneMaterial: 'coated glass',
        floorMaterial: 'concrete',
        roofMaterial: 'sheet metal',
      },
      sims: {
        name: 'The new one',
        carrier: 'Gannet',
        plan: 'slow after ten',
        capDownMbps: 88,
        capUpMbps: 11,
        allowanceGb: 77,
        callsOverWifi: 'no',
      },
      devices: { name: 'The old phone', antennaDbi: 2.5 },
    },
    shows: page => asked.shows(page),
  },
  'begin': {
    job: '',
    section: 'ask',
    does: async page => {
      await page.goto('/')
      await page.locator('[data-test=new-job]').click()
      await choose(page.locator('[data-test=kind]'), 'vehicle')
      await page.getByLabel('Job', { exact: true }).fill('A van of the fields')
      await page.getByLabel('Position (may follow)').fill('46.80, -41.36')
      await page.locator('[data-test=create]').click()
      await expect(page).toHaveURL(/\/ask$/)
    },
    sets: { jobs: { kind: 'vehicle' }, sites: { latDeg: 46.8, lonDeg: -41.36 } },
  },
  'spot': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      await page.getByText('the spot itself').click()
      await typed({
        'Name': 'Reading corner',
        'Height over ground': '1.7',
        'Note': 'by the stove',
        'What hangs there on today’s Wi-Fi or wire': 'a printer',
        'People there': '4',
        'Level designed for': '93',
      }).does(page)
      await page.getByLabel('Must be proved here').click()
      await pick(page, 'Place of the walk', 'windows')
      await pick(page, 'Used as', 'stores')
      await page.getByLabel('Indoors').click()
    },
    sets: {
      spots: {
        name: 'Reading corner',
        upM: 1.7,
        note: 'by the stove',
        hangs: 'a printer',
        people: 4,
        use: 'store',
        needDbm: -93,
        needed: expect.any(Boolean),
        indoors: expect.any(Boolean),
        station: 'window',
      },
    },
    shows: page => expect(page.locator('.picture').getByText('Reading corner').first()).toBeVisible(),
  },
  'baseline': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      await page.getByRole('button', { name: 'Next spot' }).or(page.locator('.picture g.spot').last()).last().click()
      await page.getByRole('button', { name: 'make it the baseline' }).click()
    },
    sets: { jobs: { baselineSpotId: expect.any(String) } },
  },
  'variant': {
    job: LOFT,
    section: 'choose',
    does: async page => {
      await page.locator('[data-test=copy-variant]').click()
      await page.locator('[data-test=variant-C]').click()
      await page.locator('[data-test=make-plan]').click()
      await page.locator('[data-test=compare-variants]').click()
      await page.locator('[data-test=reason-C] input').fill('less to carry')
      await page.locator('[data-test=reason-C] input').blur()
      await page.keyboard.press('Escape')
    },
    sets: { jobs: { designId: expect.any(String) }, designs: { name: 'C', reason: 'less to carry' } },
    shows: page => expect(page.locator('[data-test=variant-C]')).toContainText('plan'),
  },
  'stop': {
    job: VAN,
    section: 'ask',
    does: async page => {
      await page.locator('[data-test=stop-name] input').fill('Salt pans')
      await page.locator('[data-test=stop-position] input').fill('46.9010, -41.7265')
      await page.locator('[data-test=stop-arrive] input').fill('2031-05-06')
      await page.locator('.stops form').getByLabel('To', { exact: true }).fill('2031-05-09')
      await page.locator('[data-test=add-stop]').click()
      await page.locator('[data-test="stop-Salt pans"] .where').click()
      await expect(page.locator('[data-test="stop-Salt pans"]')).toHaveClass(/here/)
      await fill(page, 'Notes on this stop', 'gate on the left')
      await page.locator('[data-test=site-details]').click()
      await fill(page, 'Ground above sea', '17')
    },
    sets: {
      jobs: { stopId: expect.any(String) },
      stops: {
        name: 'Salt pans',
        latDeg: 46.901,
        lonDeg: -41.7265,
        arriveOn: '2031-05-06',
        leaveOn: '2031-05-09',
        notes: 'gate on the left',
        groundM: 17,
      },
    },
    shows: page => shows(page, 'Notes on this stop', 'gate on the left'),
  },
  'heading there': {
    job: VAN,
    section: 'bearings',
    does: headed('true', '123', '35'),
    sets: { stops: { headingDeg: 123, swingDeg: 35 } },
  },
  'heading': {
    job: KETCH,
    section: 'bearings',
    does: async (page, id) => {
      await page.goto(`/job/${id}/ask`)
      await page.locator('[data-test=own-place] button').click()
      await expect(page.locator('[data-test=own-place]')).toHaveClass(/here/)
      await sent(page)
      await page.getByRole('link', { name: 'Bearings' }).click()
      await headed('true', '77', '48')(page)
      await page.locator('[data-test=compass]').click()
      await page.locator('[data-test=card] textarea').first().fill('000 2 W\n090 1.5 E\n180 2 E\n270 1 W')
      await page.locator('[data-test=keep-card]').click()
      await expect(page.getByRole('dialog')).toContainText('4 headings')
      await page.keyboard.press('Escape')
    },
    sets: {
      sites: { headingDeg: 77, swingDeg: 48, deviation: expect.arrayContaining([{ headingDeg: 90, deviationDeg: 1.5 }]) },
    },
  },
  'boat': {
    job: KETCH,
    section: 'ask',
    does: page => fill(page, /[Mm]izzen/, '6.2'),
    sets: { sites: { mizzenRiseM: 6.2 } },
  },
  'gust': {
    job: LOFT,
    section: 'route?layer=mounts',
    does: page => fill(page, 'strongest gust', '41'),
    sets: { sites: { gustMs: 41 } },
    shows: page => shows(page, 'strongest gust', '41'),
  },
  'inside': {
    job: CROFT,
    section: 'ask',
    does: async page => {
      await page.locator('[data-test=inside]').click()
      const rows = page.locator('.building .rows')
      const floor = rows.locator('tbody tr').last()
      await fill(floor, 'Name', 'Attic')
      await fill(floor, 'Height', '2.9')
      await choose(floor.locator('.v-field').last(), 3)
      await page.locator('[data-test=add-wall]').click()
      const wall = rows.locator('.item').filter({ hasText: 'inside wall' }).last()
      await fill(wall, 'Floor', '1')
      await fill(wall, 'From, east', '-3')
      await fill(wall, 'to, east', '4')
      await wall.getByLabel('north', { exact: true }).first().fill('-1.5')
      await wall.getByLabel('north', { exact: true }).last().fill('2.5')
      await wall.getByLabel('north', { exact: true }).last().blur()
      await pick(wall, 'Of', 2)
      await fill(wall, 'Measured through it', '7.5')
      await page.locator('[data-test=add-sheet]').click()
      const sheet = rows.locator('.item').filter({ hasText: 'Measured' }).filter({ hasNotText: 'inside wall' }).last()
      await typed({
        'Sheet': 'Foil',
        'East': '1.5',
        'North': '-2.5',
        'Up': '3.5',
        'Wide': '2.2',
        'High': '1.8',
        'Faces': '210',
        'Tilt, 90 lies flat': '15',
        'Measured': '24',
      }).does(sheet)
      await pick(sheet, 'Of', 1)
    },
    sets: {
      floors: { name: 'Attic', heightM: 2.9, material: 'plasterboard' },
      walls: { level: 1, fromEastM: -3, fromNorthM: -1.5, toEastM: 4, toNorthM: 2.5, material: 'concrete', lossDb: 7.5 },
      sheets: {
        name: 'Foil',
        eastM: 1.5,
        northM: -2.5,
        upM: 3.5,
        widthM: 2.2,
        heightM: 1.8,
        azimuthDeg: 210,
        tiltDeg: 15,
        material: 'foil',
        lossDb: 24,
      },
    },
  },
  'about': {
    job: KILN,
    section: 'bearings',
    does: async page => {
      await page.locator('[data-test=seen]').click()
      const texts = { 'ob-name': 'Barn', 'ob-from': '70', 'ob-to': '95', 'ob-far': '160', 'ob-high': '14' }
      for (const [f, v] of Object.entries(texts)) await page.locator(`[data-test=${f}] input`).fill(v)
      await page.locator('[data-test=add-obstacle]').click()
      await page.locator('[data-test=mark-name] input').fill('Chimney')
      await page.locator('[data-test=mark-at] input').fill('46.81, -41.37')
      await page.locator('[data-test=add-landmark]').click()
      await expect(page.locator('[data-test=landmark]')).toContainText(['Chimney'])
      await page.keyboard.press('Escape')
    },
    sets: {
      obstacles: { name: 'Barn', fromDeg: 70, toDeg: 95, distanceM: 160, heightM: 14 },
      landmarks: { name: 'Chimney', latDeg: 46.81, lonDeg: -41.37 },
    },
  },
  'pins': {
    job: VAN,
    section: 'place',
    does: async page => {
      await page.locator('[data-test=pins]').click()
      await page.locator('[data-test=add-roof-unit]').click()
      const unit = page.locator('[data-test="fixture-roof unit"]').last()
      await typed({ name: 'Vent', up: '2.9', across: '0.45', high: '0.22' }).does(unit)
      await page.keyboard.press('Escape')
    },
    sets: {
      fixtures: { kind: 'roof unit', name: 'Vent', upM: 2.9, widthM: 0.45, heightM: 0.22 },
    },
  },
  'sky': {
    job: VAN,
    section: 'place',
    does: async page => {
      await page.locator('[data-test=pins]').click()
      const dish = page.locator('[data-test="fixture-satellite terminal"]').last()
      await fill(dish, /^window/, '98')
      await typed({ tilt: '19', looks: '335' }).does(dish)
      await page.keyboard.press('Escape')
    },
    sets: { fixtures: { halfFieldDeg: 49, tiltDeg: 19, azimuthDeg: 335 } },
  },
  'way in': {
    job: LOFT,
    section: 'route?layer=way in',
    does: async page => {
      await page.locator('[data-test=ways-in] button').last().click()
      const taken = page.locator('[data-test=taken]')
      await expect(taken).toBeVisible()
      await typed({
        'free inside': '27',
        'goes through': '245',
        'in words: brick, stud, foam, how thick': 'brick, then foam',
      }).does(taken)
      await pick(taken, 'what is behind', /nothing/)
      await pick(taken, 'how one knows', /looked/)
    },
    sets: {
      fixtures: {
        entry: expect.any(String),
        openMm: 27,
        wallMm: 245,
        behindWhat: 'brick, then foam',
        behindFound: 'clear',
        behind: 'looked at',
      },
      designs: { wayInId: expect.any(String) },
    },
    shows: page => shows(page.locator('[data-test=taken]'), 'goes through', '245'),
  },
  'electrode': {
    job: LOFT,
    section: 'route?layer=surge',
    does: async page => {
      await page.locator('[data-test=add-electrode]').click()
      const row = page.locator('[data-test=electrode]').last()
      await pick(row, 'to', /rod/)
      await pick(row, 'bonded to the building’s earthing', 'yes')
      await pick(row, 'by', /solid/)
      await row.locator('[data-test=draw-surge]').click()
    },
    sets: { fixtures: { electrode: 'rod', bonded: 'yes', conductor: 'solid', corners: expect.any(Array) } },
  },
  'source': {
    job: LOFT,
    section: 'place',
    does: async (page, id) => {
      await page.locator('[data-test=pins]').click()
      await page.locator('[data-test=add-mains-socket]').click()
      await fill(page.locator('[data-test="fixture-mains socket"]').last(), 'name', 'Far socket')
      await page.keyboard.press('Escape')
      await page.goto(`/job/${id}/route?layer=feeds`)
      await page.locator('[data-test=feed] [data-test=fed-from]').first().click()
      await page.locator('.v-overlay-container').getByRole('option', { selected: false }).first().click()
    },
    sets: { nodes: { sourceId: expect.any(String) } },
  },
  'photo': {
    job: LOFT,
    section: 'place',
    does: async page => {
      await page.locator('[data-test=pins]').click()
      const before = await page.locator('[data-test=photo]').count()
      await page.locator('[data-test=bring-photo]').setInputFiles({ name: 'dot.png', mimeType: 'image/png', buffer: DOT })
      await expect(page.locator('[data-test=photo]')).toHaveCount(before + 1)
      const photo = page.locator('[data-test=photo]').last()
      await typed({ 'what it shows': 'The wall', 'looking': '215' }).does(photo)
      await page.keyboard.press('Escape')
    },
    sets: { photos: { caption: 'The wall', bearingDeg: 215 } },
  },
  'visit': {
    job: LOFT,
    section: 'card',
    does: async page => {
      await page.locator('[data-test=days]').click()
      await page.locator('[data-test=add-visit]').click()
      const row = page.locator('[data-test=visit-row]').last()
      await typed({ From: '13:30', Hours: '2.5', Team: 'Harbour two', People: '3', Note: 'bring the long ladder' }).does(row)
      await pick(row, 'Weather', 'dry and calm')
      await pick(row, 'State', 'confirmed')
      await fill(row, 'Day', '2031-05-07')
      await expect(page.locator('[data-test=visit-row]').last()).toBeVisible()
      await page.keyboard.press('Escape')
    },
    sets: {
      visits: {
        onDay: '2031-05-07',
        startsAt: '13:30',
        hours: 2.5,
        team: 'Harbour two',
        people: 3,
        weather: 'dry and calm',
        state: 'confirmed',
        note: 'bring the long ladder',
      },
    },
  },
  'list': {
    job: LOFT,
    section: 'list',
    does: async page => {
      await page.locator('[data-test=own-quantity] input').fill('7')
      await page.locator('[data-test=own-line] input').fill('Long screws')
      await page.locator('[data-test=own-line] input').press('Enter')
      const line = page.locator('.line').filter({ hasText: 'Long screws' })
      await fill(line, 'supplier of Long screws', 'Corner shop')
      await fill(line, 'day on which Long screws comes', '2031-05-05')
      await line.locator('[data-test=state]').selectOption('ordered')
    },
    sets: {
      supplies: { name: 'Long screws', quantity: 7, dueOn: '2031-05-05', state: 'ordered' },
    },
  },
  'quote': {
    job: LOFT,
    section: 'list',
    does: typed({ 'Margin of this job': '33', 'Hours quoted': '9.5' }).does,
    sets: { jobs: { quoteMarginPercent: 33, quoteHours: 9.5 } },
    shows: typed({ 'Margin of this job': '33', 'Hours quoted': '9.5' }).shows,
  },
  'own step': {
    job: LOFT,
    section: 'card',
    does: async page => {
      await page.locator('[data-test=step-seal]').click()
      for (const [words, press] of [
        ['Ladder tied twice', 'after'],
        ['Plugs looked at', 'before'],
      ] as const) {
        await page.locator('[data-test=add-step]').click()
        // It takes the focus a moment after it is there.
        await expect(page.locator('[data-test=own-words] input')).toBeFocused()
        await page.locator('[data-test=own-words] input').fill(words)
        await page.locator('[data-test=own-minutes] input').fill('25')
        await page.locator('.own').getByLabel('up there').check()
        if (press === 'before') await page.locator('[data-test=own-before]').click()
        else await page.getByRole('button', { name: 'put it after this step' }).click()
        await expect(page.locator('[data-test=step-own]').filter({ hasText: words })).toBeVisible()
        await page.locator('[data-test=step-seal]').click()
      }
    },
    sets: { ownSteps: { words: 'Ladder tied twice', stand: 'up', minutes: 25, afterKey: 'seal', beforeKey: null } },
  },
  'set-up': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      const change = async (press: (sheet: Locator) => Promise<unknown>) => {
        await page.locator('[data-test=setup-change]').click()
        const sheet = page.getByRole('dialog')
        await press(sheet)
        await expect(sheet).toBeHidden()
      }
      const word = (name: string) => (sheet: Locator) => sheet.getByRole('button', { name, exact: true }).click()
      await change(sheet => sheet.locator('[data-test=add-router]').click())
      await change(word('its lead'))
      await change(word('taken off'))
      await change(word('Wi-Fi 5'))
      await change(sheet => sheet.locator('[data-test=setup-outside]').first().click())
      await change(async sheet => {
        await fill(sheet, 'Held or fixed at', 'on a pole at the gate')
        await fill(sheet, 'Above ground', '4.5')
        await fill(sheet, 'Pointing, true', '211')
        await sheet.locator('[data-test=setup-where-take]').click()
      })
      await change(async sheet => {
        await sheet.getByLabel('Band, empty for none').fill('B7')
        await sheet.getByLabel('Band, empty for none').press('Enter')
      })
      await change(sheet => sheet.getByRole('button', { name: 'off', exact: true }).click())
      await page.locator('[data-test=setup-change]').click()
      await page.locator('[data-test=setup-name] input').fill('On the sill')
      await page.locator('[data-test=setup-name] input').blur()
      const after = page.getByRole('dialog').getByRole('button', { name: 'after', exact: true })
      await after.click()
      await expect(after).toHaveClass(/on/)
      await page.keyboard.press('Escape')
    },
    sets: {
      devices: { kind: 'router' },
      setups: {
        deviceId: expect.any(String),
        simId: expect.any(String),
        power: 'lead',
        link: 'Wi-Fi 5',
        antenna: 'outside',
        designId: expect.any(String),
        ownAntennas: 'out',
        place: 'on a pole at the gate',
        antennaUpM: 4.5,
        antennaDeg: 211,
        bandLock: 'B7',
        booster: 'off',
        name: 'On the sill',
        mark: 'after',
      },
    },
  },
  'reading': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      await seldom(page)
      await page.locator('[data-test=taken-change]').click()
      await page.locator('[data-test=carrier-role]').click()
      const texts = { rsrp: '-97', sinr: '8.5', rsrq: '-12', band: 'B3', width: '15', cell: 'hand-7' }
      for (const [f, v] of Object.entries(texts)) await page.locator(`[data-test=${f}] input`).fill(v)
      await page.locator('[data-test=taken]').fill('2026-04-02T09:30')
      await page.locator('[data-test=keep]').click()
      await expect(page.locator('[data-test=rsrp] input')).toHaveValue('')
    },
    sets: {
      readings: {
        rsrpDbm: -97,
        sinrDb: 8.5,
        rsrqDb: -12,
        band: 'B3',
        bandwidthMHz: 15,
        cellId: 'hand-7',
        technology: 'LTE',
        carrierRole: 'added',
        takenAtUtc: expect.stringMatching(/^2026-04-0/),
      },
    },
  },
  'corrected': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      await page.locator('[data-test=rsrp] input').fill('-88')
      await page.locator('[data-test=keep]').click()
      await page
        .getByRole('button', { name: /^Withdraw .*88/ })
        .first()
        .click()
    },
    sets: { readings: { withdrawn: true, replacesId: expect.any(String) } },
  },
  'speed': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      await page.getByRole('button', { name: 'speed', exact: true }).click()
      for (const [f, v] of Object.entries({ down: '23.5', up: '6.25', ping: '41' }))
        await page.locator(`[data-test=${f}] input`).fill(v)
      await page.locator('[data-test=keep]').click()
      await expect(page.locator('[data-test=down] input')).toHaveValue('')
      await seldom(page)
      await page.locator('[data-test=no-load]').click()
    },
    sets: {
      speedRuns: { downMbps: 23.5, upMbps: 6.25, pingMs: 41, wouldNotLoad: false, takenAtUtc: expect.any(String) },
    },
  },
  'call': {
    job: CROFT,
    section: 'survey',
    does: async page => {
      await page.locator('[data-test=kind-call]').click()
      await page.locator('[data-test=call-dropped]').click()
    },
    sets: { calls: { made: true, heard: true, dropped: true } },
  },
  'mast': {
    job: KILN,
    section: 'bearings',
    does: async page => {
      await page.locator('[data-test=add-mast]').click()
      const dialog = page.getByRole('dialog')
      await dialog.getByLabel('Mast', { exact: true }).fill('Hand pole')
      await dialog.getByLabel('Position').fill('46.7990, −41.3600')
      await dialog.getByLabel('Bands or channels').fill('B3')
      await dialog.getByLabel('Height over ground').fill('18')
      await dialog.getByRole('button', { name: 'Add it' }).click()
      await page.locator('[data-test="mast-Hand pole"]').click()
      await page.locator('[data-test=choose-mast]').first().click()
    },
    sets: {
      masts: { name: 'Hand pole', latDeg: 46.799, lonDeg: -41.36, heightM: 18, carrier: 'Tern' },
      cells: { band: 'B3', technology: 'LTE' },
      designs: { mastId: expect.any(String) },
    },
  },
  'lock': {
    job: KILN,
    section: 'aim',
    does: async page => {
      await page.locator('[data-test=heading]').fill('172')
      await page.locator('[data-test=heading]').press('Enter')
      await page.locator('[data-test=lock]').click()
    },
    sets: { designs: { aimedDeg: expect.any(Number), aimedAtUtc: expect.any(String) } },
  },
  'sweep': {
    job: LOFT,
    section: 'aim',
    does: async page => {
      const anew = page.locator('[data-test=anew]')
      await expect(anew.or(page.locator('[data-test=how]'))).toBeVisible()
      if (await anew.isVisible()) await anew.click()
      await page.locator('[data-test=how]').click()
      await page.locator('[data-test=quantity]').selectOption('RSRP')
      await page.locator('[data-test=aim-band]').selectOption({ index: 0 })
      await page.locator('[data-test=dwell]').selectOption('10')
      await page.locator('[data-test=sweep-45]').click()
      await page.locator('[data-test=aim-value]').fill('-95')
      await page.locator('[data-test=keep-step]').click()
      await expect(page.locator('[data-test=aim-value]')).toHaveValue('')
      await page.locator('[data-test=strike]').click()
    },
    sets: {
      sweeps: {
        quantity: 'RSRP',
        band: expect.any(String),
        reference: expect.any(String),
        stepDeg: 45,
        dwellS: 10,
        struckDeg: [expect.any(Number)],
      },
      steps: { value: -95, headingDeg: expect.any(Number), pass: 1 },
    },
  },
  'choose': {
    job: CROFT,
    section: 'choose',
    does: async page => {
      await page.locator('[data-test=approach-booster]').click()
      await pick(page, 'Band', 'B3')
      await page.locator('[data-test=kit-more]').click()
      await typed({ 'Carrier width': '15', 'Carriers in its band': '3', 'Margin against oscillation': '17' }).does(page)
      await pick(page, 'Add a part', 'Ceiling dome')
      await expect(page.locator('.tree, .strip')).toContainText(/dome/i)
    },
    sets: {
      designs: { approach: 'booster', band: 'B3', bandwidthMHz: 15, carriersInBand: 3, marginDb: 17 },
      nodes: { partId: expect.stringContaining('dome'), part: expect.objectContaining({ kind: 'antenna' }) },
    },
  },
  'figures': {
    job: KILN,
    section: 'choose',
    does: async page => {
      await page.locator('[data-test=figures-outside]').first().click()
      await fill(page.getByRole('dialog'), 'Gain on every band', '9.25')
      await pick(page.getByRole('dialog'), 'How it is fitted', 'lying (horizontal)')
      await fill(page.getByRole('dialog'), 'Name', 'Kiln panel')
      await page.keyboard.press('Escape')
    },
    sets: { nodes: { own: expect.objectContaining({ gainDbi: 9.25 }), polarisation: 'horizontal', name: 'Kiln panel' } },
  },
  'plan': {
    job: KILN,
    section: 'place',
    does: async page => {
      const part = page.locator('[data-test^=plan-node]').first()
      const box = (await part.boundingBox())!
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
      await page.mouse.move(x, y)
      await page.mouse.down()
      await page.mouse.move(x + 10, y - 40, { steps: 4 })
      await page.mouse.up()
    },
    sets: { nodes: { northM: expect.any(Number) } },
  },
  'turn': {
    job: KILN,
    section: 'place',
    does: async page => {
      await page.locator('[data-test=part-outside]').first().focus()
      await page.locator('[data-test=turn-right]').click()
    },
    sets: { nodes: { azimuthDeg: expect.any(Number) } },
  },
  'cable': {
    job: KILN,
    section: 'choose',
    does: async page => {
      const run = page.locator('.strip .run').first()
      await fill(run, 'Length', '13.5')
      await run.getByLabel('measured').click()
      await run.locator('.mv-choice .v-field').click()
      await page.locator('.v-overlay-container').getByRole('option').last().click()
    },
    sets: {
      runs: {
        lengthM: 13.5,
        measured: expect.any(Boolean),
        partId: expect.any(String),
        part: expect.objectContaining({ kind: 'line' }),
      },
    },
  },
  'isolation': {
    job: LOFT,
    section: 'place',
    does: async page => {
      await page.locator('[data-test=isolation]').click()
      const dialog = page.getByRole('dialog')
      for (const [m, v] of [
        ['maker', '71'],
        ['measured', '74'],
      ] as const) {
        await dialog.locator(`[data-test=enter-${m}] input`).first().fill(v)
        await dialog.locator(`[data-test=enter-${m}] input`).first().blur()
      }
      await expect(dialog.locator('[data-test=method-measured]').first()).toHaveAttribute('aria-checked', 'true')
      await fill(dialog, 'Why this figure is believed', 'read twice')
      await page.keyboard.press('Escape')
    },
    sets: { isolations: { makerDb: 71, measuredDb: 74, inForce: 'measured', reason: 'read twice' } },
  },
}

const documentOf = async (page: Page, id: string): Promise<JobDocument> =>
  ((await (await page.request.get(`/api/jobs/${id}`, { maxRetries: 2 })).json()) as JobSnapshot).document

/** Through the program's own links, as a person goes: a page is loaded once for all acts of a job. */
const go = (page: Page, path: string) =>
  page.evaluate(to => {
    const nuxt = document.querySelector('#__nuxt') as unknown as {
      __vue_app__: { config: { globalProperties: { $router: { push: (to: string) => Promise<unknown> } } } }
    }
    return nuxt.__vue_app__.config.globalProperties.$router.push(to).then(() => {})
  }, path)

/** What an act sets stands in one row that is new, or in which each of those fields was another. */
const expectSet = (after: JobDocument, before: JobDocument | null, name: string, act: Act) => {
  for (const [table, fields] of Object.entries(act.sets) as [TableName, Record<string, unknown>][]) {
    const was = new Map<string, Record<string, unknown>>(before?.[table].map(r => [r.id, r]))
    const told = (after[table] as { id: string }[]).map(r => {
      const [old, row] = [was.get(r.id), r as Record<string, unknown>]
      const same = old ? Object.keys(fields).filter(f => JSON.stringify(old[f]) === JSON.stringify(row[f])) : []
      return { ...row, 'as it was': same }
    })
    expect(told, `${name}: ${table}`).toContainEqual(expect.objectContaining({ ...fields, 'as it was': [] }))
  }
}

/**
 * The acts of one job, on a copy of it: what is pressed is read back from the server at once; a reload changes nothing of
 * it, and what an act says of the screen stands there then.
 */
async function press(page: Page, job: string, acts: [string, Act][]): Promise<void> {
  let id = job && (await copyOf(page.request, job))
  if (id) await openJob(page, id, acts[0]![1].section)
  for (const [name, act] of acts)
    await test.step(name, async () => {
      const before = id ? await documentOf(page, id) : null
      if (id) await go(page, `/job/${id}/${act.section}`)
      await act.does(page, id)
      await sent(page)
      id ||= /job\/([^/]+)/.exec(page.url())![1]!
      // “All sent” may still be of what came before the last press.
      await expect(async () => expectSet(await documentOf(page, id), before, name, act)).toPass({ timeout: 20_000 })
      await sent(page)
    })
  const kept = await documentOf(page, id)
  await page.reload()
  await expect(page.locator('[data-test=promise]')).toBeVisible()
  await sent(page)
  expect(await documentOf(page, id), 'after a reload').toEqual(kept)
  for (const [, act] of acts.filter(([, a]) => a.shows)) {
    await go(page, `/job/${id}/${act.section}`)
    await act.shows!(page)
  }
  await page.goto('/')
  await page.request.delete(`/api/jobs/${id}`)
}

const JOBS: [string, string][] = [
  ['a job begun', ''],
  ['the croft', CROFT],
  ['the loft', LOFT],
  ['the kiln', KILN],
  ['the van', VAN],
  ['the ketch', KETCH],
]
for (const [name, job] of JOBS)
  test(`set by hand and kept: ${name}`, async ({ demoPage: page }) => {
    test.setTimeout(300_000)
    await press(
      page,
      job,
      Object.entries(ACTS).filter(([, act]) => act.job === job),
    )
  })
