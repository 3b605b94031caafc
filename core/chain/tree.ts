/** A design as the signal meets it: parts in order from the outside antenna on. */
import { antennaAt, partById, partOfKind } from '../catalogue/parts'
import type { AmplifierPart, AntennaPart, LinePart, RouterPart, SmallPart } from '../catalogue/parts'
import { lineLossDb } from './line'
import { bandByName, dlCentreMHz } from '../radio/bands'
import type { Band } from '../radio/bands'
import type { Pattern } from '../radio/pattern'
import type { Design, JobDocument, Node, Run } from '../job/schema'

/** One mated pair of connectors, dB. @source common practice (no source) */
export const CONNECTOR_PAIR_DB = 0.1

export interface Kit {
  design: Design
  band: Band
  frequencyMHz: number
  outside: { node: Node; part: AntennaPart; pattern: Pattern; covered: boolean } | null
  inside: { node: Node; part: AntennaPart; pattern: Pattern; covered: boolean } | null
  amplifier: { node: Node; part: AmplifierPart } | null
  router: { node: Node; part: RouterPart } | null
  arrestor: { node: Node; part: SmallPart } | null
  pads: { node: Node; part: SmallPart }[]
  /** every node reached from the outside antenna, in order, each with the run that leads to it */
  order: { node: Node; run: Run | null; line: LinePart | null }[]
  feeds: number
}

/** @returns the kit of a design; parts that are missing are null */
export function resolveKit(doc: JobDocument, design: Design): Kit {
  const band = bandByName(design.band ?? 'B20') ?? bandByName('B20')!
  const frequencyMHz = dlCentreMHz(band)
  const nodes = doc.nodes.filter(n => n.designId === design.id)
  const runs = doc.runs.filter(r => r.designId === design.id)
  const antenna = (role: Node['role']) => {
    const node = nodes.find(n => n.role === role)
    const part = partOfKind(node?.partId, 'antenna')
    if (!node || !part) return null
    const { pattern, covered } = antennaAt(part, frequencyMHz)
    return { node, part, pattern: { ...pattern, gainDbi: node.gainDb ?? pattern.gainDbi }, covered }
  }
  const one = <K extends 'amplifier' | 'router' | 'arrestor'>(role: K) => {
    const node = nodes.find(n => n.role === role)
    const part = partOfKind(node?.partId, role)
    return node && part ? { node, part } : null
  }
  const outside = antenna('outside')
  const amplifier = one('amplifier')
  const order: Kit['order'] = []
  const seen = new Set<string>()
  let at = outside?.node
  let via: Run | null = null
  while (at && !seen.has(at.id)) {
    seen.add(at.id)
    order.push({ node: at, run: via, line: partOfKind(via?.partId, 'line') ?? null })
    const from: string = at.id
    via = runs.find(r => r.fromNodeId === from) ?? null
    at = via ? nodes.find(n => n.id === via!.toNodeId) : undefined
  }
  return {
    design,
    band,
    frequencyMHz,
    outside,
    inside: antenna('inside'),
    amplifier: amplifier
      ? { node: amplifier.node, part: { ...amplifier.part, gainDb: amplifier.node.gainDb ?? amplifier.part.gainDb } }
      : null,
    router: one('router'),
    arrestor: one('arrestor'),
    pads: nodes
      .filter(n => n.role === 'pad')
      .flatMap(node => {
        const part = partOfKind(node.partId, 'pad')
        return part ? [{ node, part }] : []
      }),
    order,
    feeds: outside?.part.feeds ?? 1,
  }
}

/** @returns loss of one run with its two connector pairs, dB; half a unit where the run has no line chosen */
export function runLossDb(run: Run, line: LinePart | null, frequencyMHz: number): number {
  return (line ? lineLossDb(line.constants, run.lengthM, frequencyMHz) : 0) + 2 * CONNECTOR_PAIR_DB
}

/** Loss a node puts in the way by being there, dB. */
export function passLossDb(node: Node): number {
  const part = partById(node.partId)
  return part && 'lossDb' in part ? part.lossDb : 0
}
