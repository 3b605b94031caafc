/** What the customer reads when it stops working: of this kind of site, and of what was fitted in it. */
import { movesAbout } from '../job/schema'
import type { Tree } from '../chain/tree'
import type { Job } from '../job/schema'
import type { RULE_PACKS } from '../judge/cautions'

interface Fitted {
  kind: Job['kind']
  tree: Tree | null
  /** bands that the set-up to stay is locked to */
  bandLock: string | null
  rules: (typeof RULE_PACKS)[keyof typeof RULE_PACKS]
}

/** @source common practice (no source) */
export function whenItStops({ kind, tree, bandLock, rules }: Fitted): string[] {
  const has = (part: string) => !!tree?.nodes.some(n => n.part.kind === part)
  const ashore = !movesAbout(kind)
  const splits = has('splitter') || has('tap')
  const licensed = ashore ? 'earthing and mains' : 'batteries, shore power and bonding'
  return [
    'Slow at one hour only: the cell is busy then; compare like hours before anything is touched.',
    'Gone everywhere: SIM, plan or the mast. Test the SIM in a phone outside.',
    ashore &&
      `Gone after a storm: look at the aim, the plugs${has('arrestor') ? ' and the arrestor' : ''}; from the ground first.`,
    kind === 'vehicle' &&
      'Gone after moving on: another mast serves there. Look up the stop in this job, or read again before anything is turned.',
    kind === 'vehicle' && 'Gone while driving: the roof gland, the antenna’s base, the fuse; low branches bend what stands up.',
    kind === 'boat' && 'Weaker by the month: salt. Open, dry and reseal the plugs on deck first, then those aloft.',
    kind === 'boat' &&
      'Gone after the mast was unstepped: every plug at its foot is marked; each feed goes back to its own port.',
    has('amplifier') &&
      'A lamp of the amplifier shows red, or bars come and go: something between the outside and an inside antenna was ' +
        'moved. Move it back; never turn the gain up against it.',
    has('amplifier') && 'An operator asks for it to be switched off: switch it off at once. It must be, by rule.',
    splits && 'One room or floor only: the splitter before it and its cable. All of them: the amplifier and its power.',
    has('router') &&
      'Bars are there but no pages: the router, its plan and its power; its Wi-Fi is another matter than the antenna.',
    bandLock && `The router is locked to ${bandLock}. Where the mast goes off the air, or changes bands, take the lock off.`,
    `${rules.name}: ${licensed} are for licensed people; local code decides.`,
  ].filter((s): s is string => !!s)
}
