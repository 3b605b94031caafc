/** What was asked of the owner, and what follows from each answer: told beside it. */
import type { Tree } from '../chain/tree'
import { wifiReach, wifiShort } from '../coverage/wifi'
import type { Complaint, JobDocument } from '../job/schema'
import { jobOf, movesAbout } from '../job/schema'
import { buildingOf } from '../site/building'
import { num } from '../units'
import { feedsOf } from './feeds'

export type Question = 'complaint' | 'changed' | 'hangs' | 'drill' | 'outage'

export interface Follows {
  /** `open`: nobody has asked, or what is planned does not do; `met`: what is planned does; else a `note` */
  state: 'open' | 'note' | 'met'
  says: string
}
const open = (says: string): Follows => ({ state: 'open', says })
const note = (says: string): Follows => ({ state: 'note', says })
const met = (says: string): Follows => ({ state: 'met', says })

const OF_COMPLAINT: Record<Complaint, Follows> = {
  'Wi-Fi': note('an outside antenna does not mend Wi-Fi: try a nearer access point first'),
  'cellular': note('readings outside show how much there is to be had'),
  'both': note('prove each alone: by cable first, then over Wi-Fi'),
}

/** @returns what follows from the answer to each question, or from its missing */
export function askedOf(doc: JobDocument, tree: Tree | null): Record<Question, Follows> {
  const job = jobOf(doc)
  return {
    complaint: job.complaint ? OF_COMPLAINT[job.complaint] : open('not asked: test once by cable at the router'),
    changed: job.changedLately
      ? note('readings from before it may no longer hold: read again')
      : open('not asked: it is often the cause'),
    hangs: hangs(doc, tree),
    drill: drill(doc),
    outage: outage(doc, tree),
  }
}

/** What hangs on today's Wi-Fi or wire must be reached from where the box will stand. */
function hangs(doc: JobDocument, tree: Tree | null): Follows {
  const at = doc.spots.filter(s => s.hangs)
  if (!at.length) return open('not asked: cameras, printers and cordless phones lose their Wi-Fi if the router moves')
  const router = tree?.routers[0]
  if (!router) return note(`Wi-Fi must still reach ${at.map(s => s.name).join(', ')}`)
  const short = wifiShort(wifiReach(doc, buildingOf(doc), router.node)).filter(s => s.hangs)
  return short.length
    ? open(`Wi-Fi does not reach ${short.map(s => s.name).join(', ')} from where the router is planned`)
    : met(`Wi-Fi still reaches ${at.map(s => s.name).join(', ')}`)
}

function drill(doc: JobDocument): Follows {
  const { mayDrill, kind } = jobOf(doc)
  if (mayDrill === 'ask') return open('each way in that needs a hole waits for the owner')
  if (mayDrill === 'no') return note('only ways in that need no hole are planned')
  return movesAbout(kind)
    ? note('a hole cannot be undone: seal it at once and note its place')
    : note('a hole cannot be undone: look for services behind the wall first')
}

/** The longest cut against what the standby of the boxes bridges. */
function outage(doc: JobDocument, tree: Tree | null): Follows {
  const { outageMin, kind } = jobOf(doc)
  if (outageMin === null) return open('not asked: without standby everything stops with the mains')
  if (outageMin === 0) return note('no power cut needs to be bridged')
  const feeds = tree ? feedsOf(doc, tree, kind, buildingOf(doc)) : []
  if (!feeds.length) return open(`plan a standby for ${num(outageMin)} min with the boxes`)
  const least = Math.min(...feeds.map(f => f.upsMin ?? 0))
  if (least >= outageMin) return met(`the standby planned bridges ${num(Math.floor(least))} min`)
  return open(
    least > 0
      ? `the standby planned bridges ${num(Math.floor(least))} min of ${num(outageMin)}`
      : 'no standby is planned: set one in Route, feeds',
  )
}
