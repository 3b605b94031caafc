/** Do the parts fit each other: band, impedance, connector, gender, ports. */
import { mismatchLossDb, vswrOf } from '../chain/line'
import { partById } from '../catalogue/parts'
import type { LinePart, Port } from '../catalogue/parts'
import type { Finding } from '../judge/finding'
import type { Kit } from '../chain/tree'
import { num } from '../units'

type Draft = Omit<Finding, 'key' | 'cures' | 'section'> & { cures?: Finding['cures'] }

const SOURCE_FIT = 'common practice (no source)'

/** @returns the port a node shows to the run, where its part has one */
export function portOf(partId: string): Port | null {
  const part = partById(partId)
  if (!part) return null
  if ('port' in part) return part.port
  return 'to' in part ? part.from : null
}

/** Lines are sold with plugs of one kind on both ends, of the line's own impedance. */
export const lineEnd = (line: LinePart): Port => ({ connector: line.ends, gender: 'plug', impedanceOhm: line.impedanceOhm })

/** @returns what is wrong between two mated ports, in words, or null where they mate */
export function matingProblem(a: Port, b: Port): string | null {
  if (a.connector !== b.connector) return `${a.connector} ${a.gender} against ${b.connector} ${b.gender}`
  if (a.gender === b.gender) return `two ${a.connector} ${a.gender}s`
  return null
}

/** Findings about the parts of one design, none about where they stand. */
export function fitsTogether(kit: Kit): Draft[] {
  const out: Draft[] = []
  const { outside, amplifier, router, inside, band } = kit
  const booster = kit.design.approach === 'booster'
  const missing = [
    !outside && 'outside antenna',
    booster && !amplifier && 'amplifier',
    booster && !inside && 'inside antenna',
    !booster && !router && 'router',
  ].filter((m): m is string => !!m)
  if (missing.length) {
    out.push({
      code: 'choose.missing',
      subjectId: kit.design.id,
      severity: 'fix',
      title: `No ${missing.join(', no ')} chosen`,
      sentence: 'The sum stops where a part is missing.',
      because: 'a chain needs every part between mast and user',
      source: SOURCE_FIT,
    })
  }
  for (const a of [outside, inside]) {
    if (a && !a.covered) {
      out.push({
        code: 'choose.antenna-band',
        subjectId: a.node.id,
        severity: 'fix',
        title: `${a.part.name} is not made for ${band.name}`,
        sentence:
          `${band.name} is at ${num(kit.frequencyMHz)} MHz; the antenna covers ` +
          `${a.part.ranges.map(r => `${r.lowMHz}–${r.highMHz}`).join(' and ')} MHz.`,
        because: 'gain and match are unknown outside the maker’s range',
        source: SOURCE_FIT,
      })
    }
  }
  const device = booster ? amplifier : router
  if (device && !device.part.bands.includes(band.name)) {
    out.push({
      code: 'choose.device-band',
      subjectId: device.node.id,
      severity: 'stop',
      title: `${device.part.name} has no ${band.name}`,
      sentence: `It works on ${device.part.bands.slice(0, 8).join(', ')}${device.part.bands.length > 8 ? '…' : ''}.`,
      because: 'a device passes nothing on a band it lacks',
      source: SOURCE_FIT,
    })
  }
  for (const step of kit.order) {
    if (!step.run || !step.line) continue
    const from = kit.order[kit.order.indexOf(step) - 1]!.node
    for (const node of [from, step.node]) {
      const port = portOf(node.partId)
      if (!port) continue
      const end = lineEnd(step.line)
      const problem = matingProblem(end, port)
      if (problem) {
        const jumper = port.connector === 'SMA' && end.connector === 'N'
        out.push({
          code: 'choose.connector',
          subjectId: `${step.run.id}.${node.id}`,
          severity: jumper ? 'note' : 'fix',
          title: jumper ? 'Jumper N to SMA needed' : `Plugs do not mate: ${problem}`,
          sentence: jumper
            ? `The line ends in ${end.connector}, ${partById(node.partId)!.name} takes ${port.connector}: a short jumper ` +
              `carries the weight and loses about 0.3 dB.`
            : `${step.line.name} ends in ${end.connector} ${end.gender}s; ${partById(node.partId)!.name} has ` +
              `${port.connector} ${port.gender}s. Never forced: an adapter, or another line.`,
          because: 'connector family and gender must match at each joint',
          source: SOURCE_FIT,
        })
      }
      if (port.impedanceOhm !== end.impedanceOhm) {
        const vswr = vswrOf(port.impedanceOhm, end.impedanceOhm)
        out.push({
          code: 'choose.impedance',
          subjectId: `${step.run.id}.${node.id}`,
          severity: 'note',
          title: `${end.impedanceOhm} Ω line on a ${port.impedanceOhm} Ω port`,
          sentence: `Costs ${num(mismatchLossDb(vswr), 2)} dB at VSWR ${num(vswr, 1)}: little, but the plugs differ too.`,
          because: '−10·log10(1 − |Γ|²)',
          source: 'transmission-line theory',
        })
      }
    }
  }
  if (outside && router && !booster) {
    if (outside.part.feeds < 2 && router.part.ports >= 2) {
      out.push({
        code: 'choose.feeds',
        subjectId: outside.node.id,
        severity: 'note',
        title: 'One feed on a two-port router',
        sentence:
          'One layer only: at good SINR two feeds would bring up to twice the rate. The second port keeps its own small antenna.',
        because: 'each layer needs its own feed',
        source: '3GPP TR 36.942 annex A gives the rate per layer',
      })
    }
    if (outside.part.feeds > router.part.ports) {
      out.push({
        code: 'choose.ports',
        subjectId: router.node.id,
        severity: 'fix',
        title: 'More feeds than ports',
        sentence: `${outside.part.feeds} feeds, ${router.part.ports} port: a feed would be left open.`,
        because: 'every feed needs a port',
        source: SOURCE_FIT,
      })
    }
  }
  return out
}
