/** What the handover says of how it was set up: connections, networks, failover tests, boxes, and who signed. No secret is in it. */
import { checkMbMonth } from '../connect/check'
import { lanesOf, STATE_WORDS } from '../connect/lanes'
import type { Lane } from '../connect/lanes'
import type { Tree } from '../chain/tree'
import type { JobDocument } from '../job/schema'
import { failoversOf, failoverWords } from '../prove/failover'
import { given, num } from '../units'
import type { Block } from './report'

const joined = (parts: readonly (string | null | false)[]): string => parts.filter(Boolean).join('; ')

export function setUpBlocks(doc: JobDocument, tree: Tree | null, atUtc: string): Block[] {
  const lanes = lanesOf(doc, tree)
  const out: Block[] = []
  if (lanes.length)
    out.push({
      kind: 'table',
      title: 'Connections, in the order they are used',
      head: ['', 'Connection', 'By', 'Carries', 'Set to', 'State'],
      rows: lanes.map((l, i) => [
        String(i + 1),
        l.row.name,
        joined([l.port, l.slot !== null && `slot ${l.slot}`, l.sim?.iccid ? `card ${l.sim.iccid}` : null]),
        joined([l.row.use === 'in order' ? null : l.row.use, l.row.carries]),
        settings(l),
        STATE_WORDS[l.row.state].words,
      ]),
    })
  const tests = failoversOf(doc.failovers, atUtc)
  if (tests.length)
    out.push({
      kind: 'list',
      title: 'Failover tests',
      items: tests.flatMap(t =>
        t.tests.map(x => failoverWords(x, lanes.find(l => l.row.id === t.connectionId)?.row.name ?? 'a connection')),
      ),
    })
  if (doc.networks.length)
    out.push({
      kind: 'table',
      title: 'Networks',
      head: ['Network', 'For', 'Name', 'Password', 'What hangs on it'],
      rows: doc.networks.map(n => [
        n.name,
        n.kind,
        joined([n.named, n.radio]),
        joined([
          n.password ?? 'not told',
          n.passwordBy && `by ${n.passwordBy}`,
          n.passwordTo && `given to ${n.passwordTo}`,
          n.passwordOn,
        ]),
        doc.appliances
          .filter(a => a.networkId === n.id)
          .map(a => `${a.name}${a.backAtUtc ? '' : ' (not seen to work)'}`)
          .join(', '),
      ]),
    })
  const boxes = (tree?.routers ?? []).flatMap(at => {
    const l = doc.labels.find(x => x.nodeId === at.node.id)
    return l
      ? [
          [
            at.name,
            l.serial ?? '',
            l.imei ?? '',
            l.firmwareFound ?? '',
            l.wps ?? 'not looked at',
            l.adminFromOutside ?? 'not looked at',
          ],
        ]
      : []
  })
  if (boxes.length)
    out.push({
      kind: 'table',
      title: 'Boxes',
      head: ['Box', 'Serial', 'IMEI', 'Firmware', 'WPS', 'Administered from outside'],
      rows: boxes,
    })
  return out
}

const settings = ({ row, allowanceGb }: Lane): string =>
  joined([
    row.throttleDownMbps !== null && `${given(row.throttleDownMbps)} Mbit/s down`,
    row.throttleUpMbps !== null && `${given(row.throttleUpMbps)} up`,
    row.deviceMbps !== null && `${given(row.deviceMbps)} each device`,
    row.reserveMbps !== null && `${given(row.reserveMbps)} kept for calls`,
    row.checkS !== null &&
      `asked every ${given(row.checkS)} s, given up after ${row.checkMisses ?? 3} lost, ${num(checkMbMonth(row))} MB a month`,
    allowanceGb !== null && `${given(allowanceGb)} GB a month`,
    row.address && `address: ${row.address}`,
  ]) || 'nothing set'

/** @returns who signed, when, and what was open then; nothing where nobody did */
export function signedBlock(doc: JobDocument): Block[] {
  const rows = [...doc.signatures].sort((a, b) => a.atUtc.localeCompare(b.atUtc))
  if (!rows.length) return []
  return [
    {
      kind: 'table',
      title: 'Signed',
      head: ['What', '', 'By', 'When', 'Remarks', 'Open then'],
      rows: rows.map(s => [
        s.what === 'access' ? 'passwords and access' : 'what was handed over',
        s.said,
        s.name,
        s.atUtc.slice(0, 16).replace('T', ' '),
        s.remarks ?? '',
        s.open ?? 'nothing',
      ]),
    },
  ]
}
