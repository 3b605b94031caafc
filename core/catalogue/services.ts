/** What stands aboard beside cellular service. @source bands ITU-R M.585, M.1371, Radio Regulations; sizes common practice (no source) */
import type { Service, ServicePart } from '../job/part'
import { port } from './build'
import type { End, Facts } from './build'

const WHIP: Facts = { mount: 'bracket, 1¼ thread or four screws', outdoors: true, massKg: 0.4, windM2: 0.02, priceClass: 2 }
const SET: Facts = { mount: 'four screws', outdoors: false, priceClass: 2 }

const item = (
  [service, does]: readonly [Service, ServicePart['does']],
  id: string,
  name: string,
  { mhz: [lowMHz, highMHz], end, facts }: { mhz: readonly [number, number]; end: End; facts: Facts },
): ServicePart => ({
  id,
  kind: 'service',
  name,
  service,
  does,
  lowMHz,
  highMHz,
  ...facts,
  ports: [port('service', 'service', end)],
})

export const SERVICE_PARTS: readonly ServicePart[] = [
  item(['VHF', 'antenna'], 'svc-vhf-ant', 'VHF whip, N socket', {
    mhz: [156, 162.1],
    end: ['N', 'socket'],
    facts: { ...WHIP, sizeMm: [30, 950, 30] },
  }),
  item(['VHF', 'set'], 'svc-vhf-set', 'VHF radio, 25 W', { mhz: [156, 162.1], end: ['N', 'socket'], facts: SET }),
  item(['AIS', 'antenna'], 'svc-ais-ant', 'AIS whip, N socket', {
    mhz: [161.9, 162.1],
    end: ['N', 'socket'],
    facts: { ...WHIP, sizeMm: [25, 900, 25] },
  }),
  item(['AIS', 'set'], 'svc-ais-set', 'AIS transponder', { mhz: [161.9, 162.1], end: ['BNC', 'socket'], facts: SET }),
  {
    ...SET,
    id: 'svc-split',
    kind: 'service',
    name: 'Splitter for VHF and AIS, passive by default',
    service: 'AIS',
    does: 'splitter',
    lowMHz: 156,
    highMHz: 162.1,
    // As the cables that are there end: the set's own plug on the side of its antenna.
    ports: [
      port('vhf-ant', 'service', ['N', 'socket']),
      port('ais-ant', 'service', ['BNC', 'socket']),
      port('vhf', 'service', ['N', 'socket']),
      port('ais', 'service', ['BNC', 'socket']),
    ],
  },
  item(['Wi-Fi', 'antenna'], 'svc-wifi-ant', 'Long-range Wi-Fi omni, N socket', {
    mhz: [2400, 5850],
    end: ['N', 'socket'],
    facts: { ...WHIP, sizeMm: [25, 400, 25] },
  }),
  item(['Wi-Fi', 'set'], 'svc-wifi-set', 'Long-range Wi-Fi bridge', { mhz: [2400, 5850], end: ['N', 'socket'], facts: SET }),
  item(['position', 'antenna'], 'svc-pos-ant', 'Position antenna, TNC socket', {
    mhz: [1559, 1610],
    end: ['TNC', 'socket'],
    facts: { ...WHIP, sizeMm: [75, 60, 75], massKg: 0.2 },
  }),
  item(['position', 'set'], 'svc-pos-set', 'Plotter', { mhz: [1559, 1610], end: ['BNC', 'socket'], facts: SET }),
  item(['broadcast', 'antenna'], 'svc-fm-ant', 'Broadcast whip, N socket', {
    mhz: [87.5, 240],
    end: ['N', 'socket'],
    facts: { ...WHIP, sizeMm: [20, 1000, 20] },
  }),
  item(['broadcast', 'set'], 'svc-fm-set', 'Radio receiver', { mhz: [87.5, 240], end: ['BNC', 'socket'], facts: SET }),
]
export const SPLITTER_ID = 'svc-split'

/** @returns the usual antenna and set of a service */
export const partsOf = (service: Service): { antenna: ServicePart; set: ServicePart } => {
  const of = (does: ServicePart['does']) => SERVICE_PARTS.find(p => p.service === service && p.does === does)
  const [antenna, set] = [of('antenna'), of('set')]
  if (!antenna || !set) throw new RangeError(`no parts of ${service}`)
  return { antenna, set }
}
