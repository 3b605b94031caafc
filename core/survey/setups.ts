/** What readings were made with: set-ups with their device and SIM, and what differs between two. */
import type { Design, Device, JobDocument, Reading, SetupRow, Sim, SpeedRun, Call, Watch } from '../job/schema'
import { BARE_SETUP } from '../job/defaults'
import { num } from '../units'
import { DEVICE_GAIN_DBI } from './devices'

export type Phase = 'before' | 'between' | 'after'

export interface SetUp {
  row: SetupRow
  device: Device | null
  sim: Sim | null
  /** gain of the antenna that reads, isotropic 0; null where it is a design's, whose own sum tells */
  antennaDbi: number | null
  phase: Phase
}

/** A row of the log with its set-up; one of before set-ups were kept has none. */
export type Made<T> = T & { setup: SetUp | null; phase: Phase }

export function setUpsOf(doc: Pick<JobDocument, 'setups' | 'devices' | 'sims'>): Map<string, SetUp> {
  const devices = new Map(doc.devices.map(d => [d.id, d]))
  const sims = new Map(doc.sims.map(s => [s.id, s]))
  return new Map(
    doc.setups.map(row => {
      const device = devices.get(row.deviceId ?? '') ?? null
      return [
        row.id,
        {
          row,
          device,
          sim: sims.get(row.simId ?? '') ?? null,
          antennaDbi: row.antenna === 'outside' ? null : antennaOf(device),
          phase: phaseOf(row),
        },
      ]
    }),
  )
}

/** @returns gain of a device's own antenna, dBi; a phone's where nothing is known */
export const antennaOf = (device: Device | null): number =>
  device?.antennaDbi ?? (device?.kind === 'router' || device?.kind === 'modem' ? DEVICE_GAIN_DBI.router : DEVICE_GAIN_DBI.phone)

/** What the air is like is read by built-in antennas with no booster at work, until it is as it is to stay. */
export function phaseOf(row: Pick<SetupRow, 'mark' | 'antenna' | 'booster'>): Phase {
  if (row.mark) return row.mark
  return row.antenna === 'built in' && row.booster !== 'on' ? 'before' : 'between'
}

export const made = <T extends Reading | SpeedRun | Call | Watch>(
  rows: readonly T[],
  setups: ReadonlyMap<string, SetUp>,
): Made<T>[] =>
  rows.map(r => {
    const setup = setups.get(r.setupId ?? '') ?? null
    return { ...r, setup, phase: setup?.phase ?? 'before' }
  })

/** @returns gain of the antenna that made a reading, dBi; null where it was a design's */
export const readingAntennaDbi = (r: Made<Reading>): number | null => (r.setup ? r.setup.antennaDbi : DEVICE_GAIN_DBI.phone)

export type Trait =
  | 'device'
  | 'SIM'
  | 'link'
  | 'antenna'
  | 'antenna’s place'
  | 'antenna’s height'
  | 'antenna’s heading'
  | 'own antennas'
  | 'booster'
  | 'band lock'
  | 'power'

/** Traits in the order they are told, each in words. */
export function traitsOf(s: SetUp, designName?: (id: string | null) => string): [Trait, string][] {
  const { row } = s
  const traits: [Trait, string][] = [
    ['device', s.device?.name ?? 'device not named'],
    ['SIM', s.sim?.name ?? 'SIM not named'],
    ['link', row.link === 'device' ? 'on the device' : row.link],
    [
      'antenna',
      row.antenna === 'built in' ? 'built-in antenna' : `outside antenna${designName ? ` of ${designName(row.designId)}` : ''}`,
    ],
  ]
  if (row.antenna === 'outside') {
    if (row.place) traits.push(['antenna’s place', row.place])
    if (row.antennaUpM !== null) traits.push(['antenna’s height', `${num(row.antennaUpM, 1)} m up`])
    if (row.antennaDeg !== null) traits.push(['antenna’s heading', `toward ${num(row.antennaDeg)}° true`])
  }
  if (row.ownAntennas) traits.push(['own antennas', row.ownAntennas === 'in' ? 'its own antennas on' : 'its own antennas off'])
  if (row.booster !== 'none') traits.push(['booster', `booster ${row.booster}`])
  if (row.bandLock) traits.push(['band lock', `locked to ${row.bandLock}`])
  if (row.power) traits.push(['power', row.power === 'battery' ? 'on battery' : 'on its lead'])
  return traits
}

const WHERE_SAID = [
  ['antenna’s place', 'place'],
  ['antenna’s height', 'antennaUpM'],
  ['antenna’s heading', 'antennaDeg'],
  ['own antennas', 'ownAntennas'],
  ['power', 'power'],
] as const satisfies readonly (readonly [Trait, keyof SetupRow])[]

/** @returns the traits in which two set-ups differ */
export function changedBetween(a: SetUp, b: SetUp): Trait[] {
  const out: Trait[] = []
  if (a.row.deviceId !== b.row.deviceId) out.push('device')
  if (a.row.simId !== b.row.simId) out.push('SIM')
  if (a.row.link !== b.row.link) out.push('link')
  if (a.row.antenna !== b.row.antenna || (b.row.antenna === 'outside' && a.row.designId !== b.row.designId)) out.push('antenna')
  if (a.row.booster !== b.row.booster) out.push('booster')
  if ((a.row.bandLock ?? '') !== (b.row.bandLock ?? '')) out.push('band lock')
  for (const [trait, field] of WHERE_SAID) {
    const [x, y] = [a.row[field], b.row[field]]
    // Where one of the two does not say, nothing is known to differ.
    if (x !== null && y !== null && x !== y) out.push(trait)
  }
  return out
}

/** @returns a set-up in a few words, its own name first where it has one */
export const setupWords = (s: SetUp): string =>
  s.row.name ??
  traitsOf(s)
    .filter(([t, words]) => !(t === 'SIM' && words === 'SIM not named') && !(t === 'link' && s.row.link === 'device'))
    .map(([, words]) => words)
    .join(', ')

/**
 * What the finished work will be read with, where nobody has said so yet: a router through the design's antennas by its
 * own cable, or a phone in the room with the booster on.
 */
export function asPlanned(doc: Pick<JobDocument, 'setups' | 'devices' | 'sims'>, design: Design): Omit<SetupRow, 'id'> {
  const router = design.approach === 'router'
  const device = doc.devices.find(d => (d.kind === 'phone') !== router) ?? null
  return {
    ...BARE_SETUP,
    deviceId: device?.id ?? null,
    simId: doc.setups.findLast(s => s.simId)?.simId ?? doc.sims[0]?.id ?? null,
    link: router ? 'LAN' : 'device',
    antenna: router ? 'outside' : 'built in',
    designId: router ? design.id : null,
    booster: router ? 'none' : 'on',
    mark: 'after',
  }
}

/** @returns carriers of the SIMs as they were added, then the job's own where there is no SIM of it yet */
export const carriersOf = (doc: Pick<JobDocument, 'jobs' | 'sims'>): string[] => [
  ...new Set([...doc.sims.map(s => s.carrier), doc.jobs[0]?.carrier].filter((c): c is string => !!c)),
]
