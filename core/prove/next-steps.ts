/** What to do where a proof falls short: each with what it may bring, the most promising first. */
import type { Ranking } from '../survey/rank'
import { setupWords } from '../survey/setups'
import { num } from '../units'
import type { SpotProof } from './proof'
import type { GainShares } from './shares'

export interface NextStep {
  words: string
  /** so many times the download, about; 1 where nothing says how much */
  times: number
}

/** Where noise and not interference limits, so many dB double the rate. @source about 3 bit/s/Hz a 9 dB, TR 36.942 annex A */
const DOUBLES_DB = 6
/** What steps without a figure of this job usually bring, times. Assumed. */
const USUAL = { band: 1.5, height: 1.8, hour: 1.3, aim: 1.15 }

export interface ShortOf {
  judged: SpotProof | null
  got: number | null
  agreed: number | null
  shares: GainShares | null
  /** what was tried at the judged place, by download; asked only where it falls short */
  tried: () => Ranking | null
}

/** @returns none where nothing falls short */
export function nextSteps({ judged, got, agreed, shares, tried }: ShortOf): NextStep[] {
  if (got === null) return [{ words: 'test at the same spots, at the same hour as before', times: 1 }]
  if (agreed === null || got >= agreed) return []
  const steps = [...missing(shares), ...triedBetter(judged, tried()), ...byRadio(judged)]
  return steps.sort((a, b) => b.times - a.times)
}

function missing(shares: GainShares | null): NextStep[] {
  const db = shares?.shares.find(s => s.share === 'unexplained')?.db ?? 0
  if (!shares || -db <= shares.unsureDb) return []
  return [
    {
      words: `${num(-db)} dB are missing against sheets and readings: plugs first, then the cable, then what stands before the antenna`,
      times: 2 ** (-db / DOUBLES_DB),
    },
  ]
}

function triedBetter(judged: SpotProof | null, tried: Ranking | null): NextStep[] {
  const mine = tried?.tried.find(t => t.setup?.row.id === judged?.after.setup?.row.id)
  const best = tried?.tried[0]
  if (!best?.setup || !mine?.behind?.beyondChance) return []
  return [
    {
      words: `${setupWords(best.setup)} gave more here than what is to stay: go back to it, or find what it had`,
      times: Math.exp(mine.behind.difference.by),
    },
  ]
}

function byRadio(judged: SpotProof | null): NextStep[] {
  const sinr = judged?.after.sinr?.median
  const rsrp = judged?.after.rsrp?.median
  const steps: NextStep[] = []
  if (sinr !== undefined && sinr < 5 && rsrp !== undefined && rsrp > -105)
    steps.push({
      words: 'the level is there but not the SINR: re-aim for SINR, or lock another band and test again',
      times: USUAL.band,
    })
  if (rsrp !== undefined && rsrp < -113)
    steps.push({
      words: 'the level is still low: check plugs and cable for the loss expected, then raise the antenna',
      times: USUAL.height,
    })
  if (sinr !== undefined && sinr > 12)
    steps.push({
      words: 'the radio is good and the speed is not: test another band and another hour; look for a plan cap',
      times: USUAL.hour,
    })
  steps.push({ words: 'aim again in finer steps about the best heading, then test three times', times: USUAL.aim })
  return steps
}
