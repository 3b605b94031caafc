/** The customer's page as a value: what was handed over, in plain words, and nothing else of the job. */
import { answers, isConnecting, lanesOf } from '../connect/lanes'
import type { Lane } from '../connect/lanes'
import { jobOf, movesAbout, siteOf } from '../job/schema'
import type { Job, JobDocument } from '../job/schema'
import type { Assessment } from '../judge/assess'
import { countWords, spanWords } from '../prove/drops'
import { failoversOf } from '../prove/failover'
import { given, mbps, num } from '../units'

export interface CustomerPage {
  title: string
  crew: string
  phone: string
  fittedOn: string
  endsOn: string
  kind: Job['kind']
  /** words on the picture; null where there is no such thing */
  picture: { mast: [string, string] | null; box: string; room: string | null; inside: boolean }
  speed: {
    before: number | null
    now: number | null
    agreed: number | null
    where: string | null
    /** what it does at once */
    does: string | null
    did: string | null
  }
  /** what was agreed besides, kept or not */
  kept: { words: string; met: boolean }[]
  verdict: string
  /** in order */
  connections: { name: string; when: string }[]
  switchWords: string | null
  networks: { name: string; words: string }[]
  ifItStops: { first: string; steps: string[]; last: string }
  lookAt: { when: string; onDay: string | null; what: string }[]
}

/** What a rate does at once, in a house's words. @source common practice (no source) */
export function ratesDo(downMbps: number): string {
  if (downMbps >= 50) return 'films on several screens, school and calls at the same time'
  if (downMbps >= 20) return 'films, school and calls at the same time'
  if (downMbps >= 8) return 'a film and calls at the same time'
  if (downMbps >= 3) return 'one film, or calls with a picture'
  if (downMbps >= 1) return 'pages and mail; a film with stops'
  return 'mail, and pages with patience'
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
/** @returns `31 Mar 2026` */
export const dayInWords = (iso: string): string =>
  `${Number(iso.slice(8, 10))} ${MONTHS[Number(iso.slice(5, 7)) - 1] ?? ''} ${iso.slice(0, 4)}`
const addDays = (day: string, days: number): string => new Date(Date.parse(day) + days * 86_400_000).toISOString().slice(0, 10)
const FOLLOW_UP_DAYS = 30
const YEAR_DAYS = 365
/** Growth hides a mast in May, or in November south of the line. */
const springAfter = (day: string, latDeg: number | null): string => {
  const month = latDeg !== null && latDeg < 0 ? '11' : '05'
  const year = Number(day.slice(0, 4))
  const thisYear = `${year}-${month}-01`
  return thisYear > addDays(day, FOLLOW_UP_DAYS) ? thisYear : `${year + 1}-${month}-01`
}

export function customerPage(
  document: JobDocument,
  a: Assessment,
  o: { crew: string; phone: string; fittedOn: string; endsOn: string },
): CustomerPage {
  const job = jobOf(document)
  const site = siteOf(document)
  const judged = a.proof.judged
  const now = judged?.after.down?.median ?? null
  const before = judged?.before.down?.median ?? null
  const lanes = lanesOf(document, a.tree).filter(l => l.row.state !== 'not in yet')
  const box = a.tree?.routers[0] ?? a.tree?.amplifiers[0] ?? null
  const mast = a.chosen?.mast
  return {
    title: `Your ${a.tree?.routers.length ? 'internet' : 'reception'} at ${job.name}`,
    crew: o.crew,
    phone: o.phone,
    fittedOn: o.fittedOn,
    endsOn: o.endsOn,
    kind: job.kind,
    picture: {
      mast:
        mast && a.chosen && Number.isFinite(a.chosen.distanceM)
          ? ['the mast,', `${num(a.chosen.distanceM / 1000, a.chosen.distanceM < 9950 ? 1 : 0)} km`]
          : null,
      box: box?.name ?? 'box',
      room: judged?.before.spot.name ?? null,
      inside: !!a.tree?.servers.length || !!a.tree?.routers.length,
    },
    speed: {
      before,
      now,
      agreed: job.agreedDownMbps,
      where: judged?.before.spot.name ?? null,
      does: now === null ? null : ratesDo(now),
      did: before === null ? null : ratesDo(before),
    },
    kept: keptOf(job, a),
    verdict: a.proof.verdict.words,
    connections: lanes.map((l, i) => ({ name: l.row.name, when: whenOf(l, i) })),
    switchWords: switchWords(document, lanes, a.atUtc),
    networks: document.networks.map(n => ({
      name: n.name,
      words: [
        n.named === 'old name kept' ? 'the name you had' : null,
        n.kind === 'guests'
          ? 'for guests: sees nothing of the house'
          : n.kind === 'management'
            ? 'for whoever looks after the box'
            : null,
        n.passwordTo ? `password with ${n.passwordTo}${n.passwordOn ? ` since ${dayInWords(n.passwordOn)}` : ''}` : null,
      ]
        .filter(Boolean)
        .join(', '),
    })),
    ifItStops: whenItStopsPlain(job, box?.name ?? 'the box', !!a.tree?.routers.length),
    lookAt: lookAt(job, site.latDeg, o.fittedOn),
  }
}

function keptOf(job: Job, a: Assessment): { words: string; met: boolean }[] {
  const out: { words: string; met: boolean }[] = []
  const up = a.proof.judged?.after.up?.median
  if (up !== undefined && job.agreedUpMbps !== null)
    out.push({ words: `uploading ${mbps(up)}, agreed ${given(job.agreedUpMbps)}`, met: up >= job.agreedUpMbps })
  const { calls } = a.proof
  if (calls) out.push({ words: `${calls.tried} calls made, ${calls.held} held`, met: calls.held === calls.tried })
  const drops = a.proof.drops.after
  if (drops && job.agreedDrops !== null)
    out.push({
      words: `${countWords(drops.drops)} in ${spanWords(drops.watchedH * 3600)}`,
      met: drops.perHour <= job.agreedDrops,
    })
  return out
}

function whenOf({ row }: Lane, i: number): string {
  if (row.use === 'by hand') return 'switched on by hand'
  const carries =
    row.carries === 'everything' ? 'everything' : row.carries === 'only its check' ? 'nothing of yours' : row.carries
  if (isConnecting(row) || !answers(row.state)) return 'does not answer yet'
  return i === 0 ? `first: ${carries}` : `takes over by itself: ${carries}`
}

function switchWords(doc: JobDocument, lanes: readonly Lane[], atUtc: string): string | null {
  const first = lanes[0]
  const tested = failoversOf(doc.failovers, atUtc).find(f => f.connectionId === first?.row.id)
  if (!first || !tested?.switchS) return null
  return `If ${first.row.name} fails, the other takes over after about ${num(tested.switchS.median)} seconds; a call under way ends.`
}

function whenItStopsPlain(job: Job, box: string, isRouter: boolean): CustomerPage['ifItStops'] {
  const where = movesAbout(job.kind) ? 'switch it off, or take its plug out' : 'pull its plug out of the wall'
  return isRouter
    ? {
        first: '5 minutes, nothing can break',
        steps: [`at ${box}: ${where}`, 'count to sixty, put it back', 'wait: up to 5 minutes until pages load'],
        last: job.kind === 'boat' ? 'Still nothing? Do not go aloft. Call us.' : 'Still nothing? Do not climb. Call us.',
      }
    : {
        first: '2 minutes, nothing can break',
        steps: [
          `at ${box}: is its lamp on? If it is red, or bars come and go, was an antenna inside moved? Move it back`,
          `${where}, count to ten, put it back`,
          'asked by an operator to switch it off: switch it off at once',
        ],
        last: 'Still nothing? Do not climb. Call us.',
      }
}

function lookAt(job: Job, latDeg: number | null, fittedOn: string): CustomerPage['lookAt'] {
  const storm = {
    home: 'from the ground: does the pole stand upright, is the cable still clipped?',
    building: 'from the ground: does the pole stand upright, is the cable still clipped?',
    vehicle: 'after low branches: is the antenna straight, its foot tight, no water inside under it?',
    boat: 'from the deck: is the antenna straight, are its plugs dry?',
  }[job.kind]
  const follow = {
    when: 'after a month',
    onDay: addDays(fittedOn, FOLLOW_UP_DAYS),
    what: 'is it still as it was? We call, or you call us',
  }
  const growth = {
    when: 'in spring',
    onDay: springAfter(fittedOn, latDeg),
    what: 'is a tree, or anything new, now before the antenna?',
  }
  const year = { when: 'after a year', onDay: addDays(fittedOn, YEAR_DAYS), what: 'we come and read it again' }
  return [
    { when: movesAbout(job.kind) ? 'now and then' : 'after a storm', onDay: null, what: storm },
    follow,
    ...(movesAbout(job.kind) ? [] : [growth]),
    year,
  ]
}
