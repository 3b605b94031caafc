/** The judgement calls: what will hurt, what will not work well, and the change that would cure it. */
import { leastMove, meetsRuleOfThumb, RULE_OF_THUMB } from '../separation/isolation'
import { PARTS, partOfKind } from '../catalogue/parts'
import type { LinePart, Small } from '../catalogue/parts'
import { lineLossDb } from '../chain/line'
import { fitsTogether } from '../fitting/compatibility'
import { mToken, num, signed } from '../units'
import type { Cure, Finding, Section } from './finding'
import type { JobDocument, Site } from '../job/schema'
import type { Kit } from '../chain/tree'

import type { Chain } from '../chain/levels'
import { loopOf } from '../chain/levels'
import { bearingHalfWidth, USABLE_RSRP_DBM } from '../aim/bearings'
import type { MastView } from '../aim/bearings'
import { ENTRY_LOSS_DB } from '../coverage/indoor'
import { fixedBeamOver } from '../aim/nose'
import { DEVICE_GAIN_DBI } from '../survey/devices'
import { moves, positionOf } from '../site/place'
import type { LogIndex, SpotSummary } from '../survey/spots'
import { capSuspected } from '../survey/spots'
import type { Declination } from '../geo/declination'
import { RULE_PACKS } from './cautions'
import { along, axisSign, moveAlong, round2 } from '../site/frame'
import { degreesForLoss } from '../radio/pattern'

type Draft = Omit<Finding, 'key' | 'cures' | 'section'> & { cures?: Cure[] }

export const finding = (section: Section, d: Draft): Finding => ({
  ...d,
  section,
  cures: d.cures ?? [],
  key: `${d.code}:${d.subjectId}`,
})

const COMMON = 'common practice (no source)'

export function surveyFindings(doc: JobDocument, log: LogIndex, before: SpotSummary[]): Finding[] {
  const out: Finding[] = []
  const job = doc.jobs[0]!
  const baseline = before.find(s => s.spot.id === job.baselineSpotId)
  if (before.length && !baseline) {
    out.push(
      finding('survey', {
        code: 'survey.no-baseline',
        subjectId: job.id,
        severity: 'note',
        title: 'No baseline chosen',
        sentence: 'Mark the spot where the device stands today: before and after are told from there.',
        because: 'one record of before, kept',
        source: COMMON,
      }),
    )
  } else if (baseline && !baseline.runs.length) {
    out.push(
      finding('survey', {
        code: 'survey.baseline-speed',
        subjectId: baseline.spot.id,
        severity: 'note',
        title: 'No speed test at the baseline',
        sentence: `Run one at ${baseline.spot.name} before anything is touched, even if it will not load.`,
        because: 'the share of the cell is calibrated by the baseline’s own speed',
        source: COMMON,
      }),
    )
  }
  const cap = capSuspected(log)
  if (cap !== null && job.planCapMbps === null) {
    out.push(
      finding('survey', {
        code: 'survey.cap',
        subjectId: job.id,
        severity: 'fix',
        title: `Looks like a plan cap of ${num(cap)} Mbit/s`,
        sentence: 'The best of both directions stops at the same round figure: no antenna lifts a cap. Ask the carrier.',
        because: 'download and upload end within 6 % of one figure',
        source: COMMON,
        cures: [
          {
            label: `note a cap of ${num(cap)} Mbit/s`,
            gain: 'promise told truly',
            cost: '',
            enough: true,
            steps: [{ table: 'jobs', op: 'update', rowId: job.id, fields: { planCapMbps: cap } }],
          },
        ],
      }),
    )
  }
  for (const s of before) {
    if (s.rsrp && s.sinr && s.down && s.rsrp.median >= -100 && s.sinr.median < 5) {
      out.push(
        finding('survey', {
          code: 'survey.level-not-speed',
          subjectId: s.spot.id,
          severity: 'note',
          title: `Level is not the trouble at ${s.spot.name}`,
          sentence:
            `${num(s.rsrp.median)} dBm is workable but SINR is ${num(s.sinr.median)} dB: other cells or a full ` +
            `band. Compare bands one by one; a booster would not help.`,
          because: 'noise alone would leave more than 20 dB at this level',
          source: 'thermal noise, NF 9 dB (3GPP TR 36.942)',
        }),
      )
    }
  }
  return out
}

/** Days after which a list of masts is called old. @source common practice (no source) */
const OLD_DAYS = 730

/** @param doc  at its present stop */
export function bearingFindings(
  doc: JobDocument,
  masts: MastView[],
  dec: Declination | null,
  kit: Kit | null,
  chosen: MastView | null,
  atUtc: string,
): Finding[] {
  const out: Finding[] = []
  const job = doc.jobs[0]!
  const add = (d: Draft) => out.push(finding('bearings', d))
  const mine = masts.filter(m => m.matchesCarrier && m.path)
  const best = mine[0]
  const nearest = mine.reduce<MastView | null>((a, b) => (!a || b.distanceM < a.distanceM ? b : a), null)
  if (best?.best && nearest && nearest !== best) {
    add({
      code: 'bearings.nearest-not-best',
      subjectId: best.mast.id,
      severity: 'note',
      title: 'The nearest mast is not the best',
      sentence: `${best.mast.name}: ${best.sentence}.`,
      because: 'ranked by what the shared bands can be expected to carry, not by distance',
      source: 'ITU-R P.526-15 §4.5 over the terrain held',
    })
  }
  if (mine.length && !mine.some(m => m.usable)) {
    add({
      code: 'bearings.none-reachable',
      subjectId: job.id,
      severity: 'stop',
      title: 'No mast of this carrier reaches the site',
      sentence:
        'The best comes more than 15 dB below what serves in the open: no antenna or booster mends that. ' +
        'Try another carrier’s SIM first.',
      because: 'a booster repeats; it makes nothing',
      source: COMMON,
    })
  }
  const indoors = best?.best ? best.best.rsrpDbm - 1.645 * best.best.sigmaDb - ENTRY_LOSS_DB + DEVICE_GAIN_DBI.phone : -Infinity
  if (indoors >= USABLE_RSRP_DBM + 20) {
    add({
      code: 'bearings.no-need',
      subjectId: job.id,
      severity: 'note',
      title: 'Coverage so good that no antenna is needed',
      sentence:
        `${best!.mast.name} on ${best!.best!.band} should come to ${num(indoors)} dBm or more on a phone indoors. ` +
        `Read it there first, and save the money.`,
      because: `lower edge of the prediction, less ${num(ENTRY_LOSS_DB)} dB for a wall (assumed)`,
      source: COMMON,
    })
  }
  const top = masts.filter(m => m.path && m.matchesCarrier && m.rank <= 3)
  const old = top.filter(m => m.mast.seenOn && (Date.parse(atUtc) - Date.parse(m.mast.seenOn)) / 86_400_000 > OLD_DAYS)
  if (old.length) {
    add({
      code: 'bearings.data-old',
      subjectId: job.id,
      severity: 'note',
      title: 'The list of masts is old',
      sentence:
        `${old.map(m => `${m.mast.name} was last seen ${m.mast.seenOn}`).join(', ')}. Bands and carriers change: ` +
        `bring a newer list, or sweep first.`,
      because: 'last seen more than two years ago',
      source: COMMON,
    })
  }
  const patchy = masts.filter(m => m.path && m.path.unknown > 0.02 && m.rank <= 3)
  if (patchy.length) {
    add({
      code: 'bearings.terrain-missing',
      subjectId: job.id,
      severity: 'note',
      title: 'Terrain is missing under the path',
      sentence:
        `${patchy.map(m => `${Math.round(m.path!.unknown * 100)} % of the way to ${m.mast.name}`).join(', ')}: ` +
        `bridged straight. Load the tile to see the ridges.`,
      because: 'unknown ground is taken as a straight line between known heights',
      source: COMMON,
    })
  }
  if (!dec && positionOf(doc)) {
    add({
      code: 'bearings.no-declination',
      subjectId: job.id,
      severity: 'fix',
      title: 'No declination for this date',
      sentence:
        `${atUtc.slice(0, 10)} is outside the magnetic model held: is the device’s date right? Bearings are true ` +
        `only; aim by the sun or a landmark.`,
      because: 'the model says nothing outside its five years',
      source: 'World Magnetic Model 2025',
    })
  }
  if (dec && dec.compass !== 'good') {
    add({
      code: 'bearings.compass',
      subjectId: job.id,
      severity: dec.compass === 'useless' ? 'fix' : 'note',
      title: dec.compass === 'useless' ? 'A compass is useless here' : 'A compass is unsure here',
      sentence: `The horizontal field is ${num(dec.horizontalNt)} nT. Aim by the sun or a landmark.`,
      because: 'below 6,000 nT unsure, below 2,000 nT useless',
      source: 'World Magnetic Model 2025, from memory',
    })
  }
  if (kit?.outside && dec) {
    const width = bearingHalfWidth(chosen, dec)
    const tolerance = degreesForLoss(kit.outside.pattern, 1)
    const far = degreesForLoss(kit.outside.pattern, 3)
    if (tolerance !== null && width > tolerance) {
      const beyond = far !== null && width > far
      add({
        code: 'bearings.beam-narrow',
        subjectId: kit.outside.node.id,
        severity: beyond ? 'fix' : 'note',
        title: beyond ? 'The bearing is less sure than the beam is wide' : 'The beam is narrower than the compass is sure',
        sentence:
          `${num(tolerance)}° off costs 1 dB${far !== null ? `, ${num(far)}° costs 3 dB` : ''}; this bearing is ` +
          `good to ±${num(width)}°. Fine-tune by reading.`,
        because:
          `hand compass, the model’s own ` +
          `uncertainty${chosen?.positionDeg ? `, and ±${num(chosen.positionDeg)}° since the mast’s place is not surveyed` : ''}`,
        source: 'World Magnetic Model 2025; 3GPP pattern',
      })
    }
  }
  if (moves(doc)) out.push(...movingFindings(doc, kit))
  return out
}

/** What a nose or a bow asks: where does it point, how far does it swing, can a fixed beam follow. */
function movingFindings(doc: JobDocument, kit: Kit | null): Finding[] {
  const job = doc.jobs[0]!
  const site = doc.sites[0]!
  const bow = job.kind === 'boat' ? 'bow' : 'nose'
  if (site.headingDeg === null) {
    return [
      finding('bearings', {
        code: 'bearings.heading',
        subjectId: site.id,
        severity: 'note',
        title: `Where does the ${bow} point?`,
        sentence: 'Without its heading a bearing says nothing aboard; true and magnetic still hold.',
        because: `bearing from the ${bow} = true bearing − heading`,
        source: COMMON,
      }),
    ]
  }
  if (!kit?.outside || site.swingDeg <= 0 || kit.outside.pattern.beamwidthDeg >= 360) return []
  const v = fixedBeamOver(site.swingDeg, kit.outside.pattern)
  const what = job.kind === 'boat' ? 'swings at anchor' : 'may be parked'
  if (v.serves) {
    return [
      finding('bearings', {
        code: 'bearings.swing',
        subjectId: kit.outside.node.id,
        severity: 'good',
        title: 'The beam holds over the swing',
        sentence: `It ${what} ±${num(site.swingDeg)}°: at worst ${num(v.worstDb, 1)} dB off the peak.`,
        because: 'headings spread evenly over the swing (assumed)',
        source: '3GPP pattern',
      }),
    ]
  }
  const omni = kit.outside.part.feeds >= 2 ? 'ant-omni-x' : 'ant-omni'
  return [
    finding('bearings', {
      code: 'bearings.swing',
      subjectId: kit.outside.node.id,
      severity: 'fix',
      title: 'A fixed beam cannot follow the swing',
      sentence:
        `It ${what} ±${num(site.swingDeg)}°: this beam loses ${num(v.worstDb)} dB at the ends, ${num(v.meanDb, 1)} ` +
        `on average; it serves ±${num(v.withinDeg)}°. An omni, a wide panel, or turning it by hand.`,
      because: 'headings spread evenly over the swing (assumed)',
      source: '3GPP pattern',
      cures: [
        {
          label: 'fit an omni instead',
          gain: 'no aiming',
          cost: `${num(kit.outside.pattern.gainDbi - (omni === 'ant-omni-x' ? 1.5 : 2.5), 1)} dB less at best`,
          enough: true,
          steps: [{ table: 'nodes', op: 'update', rowId: kit.outside.node.id, fields: { partId: omni, azimuthDeg: null } }],
        },
      ],
    }),
  ]
}

export function chooseFindings(kit: Kit, chain: Chain | null, doc: JobDocument, before: SpotSummary[]): Finding[] {
  const out = fitsTogether(kit).map(d => finding('choose', d))
  const job = doc.jobs[0]!
  const booster = kit.design.approach === 'booster'
  const sinr = chain?.start.sinr?.median ?? null
  if (booster && sinr !== null && sinr < 3) {
    out.push(
      finding('choose', {
        code: 'choose.booster-sinr',
        subjectId: kit.design.id,
        severity: 'fix',
        title: 'A booster cannot cure this SINR',
        sentence: `SINR outside is ${num(sinr)} dB and stays so: level rises, speed does not. Try another band, or a router with a beam.`,
        because: 'an amplifier raises signal and interference alike',
        source: COMMON,
      }),
    )
  }
  if (booster && chain && chain.start.rsrpDbm < -118 && chain.start.provenance === 'measured') {
    out.push(
      finding('choose', {
        code: 'choose.nothing-outside',
        subjectId: kit.design.id,
        severity: 'stop',
        title: 'Too little outside to repeat',
        sentence: `${num(chain.start.rsrpDbm)} dBm RSRP at the mount is under the noise of anything that follows.`,
        because: 'a booster repeats; it makes nothing',
        source: 'thermal noise −123.2 dBm a resource element at NF 9 dB',
      }),
    )
  }
  const needed = before.filter(s => s.spot.needed && s.rsrp && s.sinr && s.down)
  const fine =
    needed.length > 0 &&
    needed.every(
      s => s.rsrp!.median > -95 && s.sinr!.median > 13 && (job.agreedDownMbps === null || s.down!.median >= job.agreedDownMbps),
    )
  if (fine) {
    out.push(
      finding('choose', {
        code: 'choose.no-need',
        subjectId: kit.design.id,
        severity: 'note',
        title: 'No outside antenna needed',
        sentence: 'Every needed spot already has the level, the SINR and the speed agreed. Say so, and save the money.',
        because: 'readings at the needed spots',
        source: COMMON,
      }),
    )
  }
  if (booster) {
    const pack = RULE_PACKS[job.rules]
    out.push(
      finding('choose', {
        code: 'choose.rules',
        subjectId: kit.design.id,
        severity: 'note',
        title: `${pack.name}: consent or approval`,
        sentence: pack.booster,
        because: 'law, not radio',
        source: pack.source,
      }),
    )
  }
  return out
}

export function placeFindings(kit: Kit, chain: Chain | null, site: Site, bearingDeg: number | null): Finding[] {
  const loop = chain?.loop
  if (!loop || !kit.outside || !kit.inside) return []
  const out: Finding[] = []
  const what =
    `${num(loop.isolationDb)} dB isolation of ${num(loop.neededDb)} needed (gain ` +
    `${num(kit.amplifier!.part.gainDb)} + margin ${num(kit.design.marginDb)})`
  const because =
    loop.rule === 'cap'
      ? 'scatter lets about this much past until it is measured (assumed)'
      : `${loop.rule === 'slant' ? 'slant rule (Iv − Ih)·θ/90° + Ih' : 'free space with both patterns'} at ` +
        `${num(loop.angleDeg)}°, ${mToken(loop.alongM)} along, ${mToken(loop.upM)} up`
  if (loop.state === 'stable') {
    out.push(
      finding('place', {
        code: 'place.loop',
        subjectId: kit.design.id,
        severity: 'good',
        title: 'Stable',
        sentence: `${what}.`,
        because,
        source: COMMON,
      }),
    )
  } else {
    out.push(
      finding('place', {
        code: 'place.loop',
        subjectId: kit.design.id,
        severity: loop.state === 'oscillating' ? 'stop' : 'fix',
        title: loop.state === 'oscillating' ? 'It will oscillate' : `Gain held back by ${num(loop.heldBackDb)} dB`,
        sentence: `Donor and inside antenna hear each other: ${what}.`,
        because,
        source: COMMON,
        cures: separationCures(kit, site, bearingDeg, loop.neededDb, loop.isolationDb),
      }),
    )
  }
  if (!meetsRuleOfThumb(loop.alongM, loop.upM)) {
    out.push(
      finding('place', {
        code: 'place.thumb',
        subjectId: kit.design.id,
        severity: 'note',
        title: 'Closer than the rule of thumb',
        sentence:
          `${mToken(loop.upM)} up and ${mToken(loop.alongM)} along; fitters keep ${mToken(RULE_OF_THUMB.upM)} up ` +
          `or ${mToken(RULE_OF_THUMB.alongM)} along.`,
        because: loop.state === 'stable' ? 'the sum says it is stable all the same: prove it in the dry run' : 'the sum agrees',
        source: COMMON,
      }),
    )
  }
  if (!loop.farField) {
    out.push(
      finding('place', {
        code: 'place.near',
        subjectId: kit.design.id,
        severity: 'note',
        title: 'Too close for the formula',
        sentence: 'Under three wavelengths along and one up, the sum is a guess: try it loose first.',
        because: 'the rules hold in the far field',
        source: COMMON,
      }),
    )
  }
  return out
}

/** Raise the donor, move the inside antenna away, hang a sheet: the least of each. */
function separationCures(kit: Kit, site: Site, bearingDeg: number | null, neededDb: number, nowDb: number): Cure[] {
  const sign = axisSign(site, bearingDeg)
  const outside = kit.outside!.node
  const inside = kit.inside!.node
  const isoWith = (o: Partial<typeof outside>, i: Partial<typeof inside>, obstructionDb = kit.design.obstructionDb): number => {
    const loop = loopOf(
      {
        ...kit,
        design: { ...kit.design, obstructionDb },
        outside: { ...kit.outside!, node: { ...outside, ...o } },
        inside: { ...kit.inside!, node: { ...inside, ...i } },
      },
      bearingDeg,
    )
    return loop?.isolationDb ?? -Infinity
  }
  const cures: Cure[] = []
  const line = kit.order.find(s => s.run)?.line
  const raise = leastMove(x => isoWith({ upM: outside.upM + x }, {}), neededDb, 8)
  const up = raise ?? 3
  const raised = isoWith({ upM: outside.upM + up }, {}) - nowDb
  if (raised > 0.5) {
    cures.push({
      label: `raise the donor ${mToken(up)}`,
      gain: `${signed(raised, 1)} dB`,
      cost: line ? `−${num(lineLossDb(line.constants, up, kit.frequencyMHz), 1)} dB cable` : 'longer cable',
      enough: raise !== null,
      steps: [
        { table: 'nodes', op: 'update', rowId: outside.id, fields: { upM: round2(outside.upM + up) } },
        ...lengthen(kit, up),
      ],
    })
  }
  const away = along(site, inside, sign) >= along(site, outside, sign) ? 1 : -1
  const shifted = (x: number) => moveAlong(site, inside, along(site, inside, sign) + away * x, sign)
  const room = Math.max(0, site.lengthM / 2 - 0.3 - away * along(site, inside, sign))
  const move = leastMove(x => isoWith({}, shifted(x)), neededDb, room)
  const by = move ?? Math.floor(room * 10) / 10
  const moved = by >= 0.3 ? isoWith({}, shifted(by)) - nowDb : 0
  if (moved > 0.5) {
    cures.push({
      label: `inside antenna ${mToken(by)} along`,
      gain: `${signed(moved, 1)} dB`,
      cost: move !== null ? 'longer cable' : 'not enough alone',
      enough: move !== null,
      steps: [{ table: 'nodes', op: 'update', rowId: inside.id, fields: shifted(by) }],
    })
  }
  const sheetAndRaise = isoWith({ upM: outside.upM + 2 }, {}, kit.design.obstructionDb + 10)
  const sheet = isoWith({}, {}, kit.design.obstructionDb + 10) - nowDb
  if (sheet > 0.5) {
    cures.push({
      label: 'steel sheet 1.2 × 1.2 m between them',
      gain: `${signed(sheet, 0)} dB`,
      cost: 'assumed',
      enough: nowDb + sheet >= neededDb,
      steps: [{ table: 'designs', op: 'update', rowId: kit.design.id, fields: { obstructionDb: kit.design.obstructionDb + 10 } }],
    })
  }
  if (sheetAndRaise >= neededDb && nowDb + sheet < neededDb && raise === null) {
    cures.push({
      label: `raise the donor ${mToken(2)} and hang a steel sheet`,
      gain: `${signed(sheetAndRaise - nowDb, 1)} dB`,
      cost: 'sheet assumed, longer cable',
      enough: true,
      steps: [
        { table: 'nodes', op: 'update', rowId: outside.id, fields: { upM: round2(outside.upM + 2) } },
        { table: 'designs', op: 'update', rowId: kit.design.id, fields: { obstructionDb: kit.design.obstructionDb + 10 } },
        ...lengthen(kit, 2),
      ],
    })
  }
  const moves = cures.sort((a, b) => Number(b.enough) - Number(a.enough))
  if (nowDb < neededDb) {
    const drop = Math.ceil(neededDb - nowDb)
    const part = kit.amplifier!.part
    if (part.gainDb - drop >= part.lowestGainDb) {
      moves.push({
        label: `settle for ${drop} dB less gain`,
        gain: 'stable',
        cost: `${drop} dB less inside`,
        enough: true,
        steps: [{ table: 'nodes', op: 'update', rowId: kit.amplifier!.node.id, fields: { gainDb: part.gainDb - drop } }],
      })
    }
  }
  return moves
}

const lengthen = (kit: Kit, byM: number): Cure['steps'] => {
  const run = kit.order.find(s => s.run)?.run
  return run ? [{ table: 'runs', op: 'update', rowId: run.id, fields: { lengthM: round2(run.lengthM + byM) } }] : []
}

export function levelFindings(kit: Kit, chain: Chain | null, kind: JobDocument['jobs'][number]['kind'] = 'home'): Finding[] {
  const out: Finding[] = []
  if (!chain) return out
  const amp = chain.amplifier
  if (!kit.arrestor && kit.outside && kind === 'home') {
    const after = kit.order[1]
    out.push(
      finding('level', {
        code: 'level.no-arrestor',
        subjectId: kit.design.id,
        severity: 'fix',
        title: 'No arrestor on the down-lead',
        sentence:
          'A surge on the mast comes straight to the device and the people near it. It goes outdoors where the lead ' +
          'reaches the building, earthed by the short way; local code and a licensed electrician decide.',
        because: 'US NEC 810.20 asks for one at or nearest the entrance',
        source: 'NEC 810.20, from memory',
        cures: after?.run
          ? [
              {
                label: 'put an arrestor at the entrance',
                gain: 'surge path',
                cost: '−0.4 dB',
                enough: true,
                steps: arrestorSteps(kit),
              },
            ]
          : [],
      }),
    )
  }
  if (amp) {
    const part = kit.amplifier!.part
    const over = amp.inputAllDbm - part.inputLimitDbm
    if (over > 0) {
      const shut = amp.limitedBy === 'shut down'
      const pad =
        PARTS.filter((p): p is Small<'pad'> => p.kind === 'pad').find(p => p.lossDb >= over) ?? partOfKind('pad-10', 'pad')!
      out.push(
        finding('level', {
          code: 'level.overload',
          subjectId: kit.amplifier!.node.id,
          severity: shut ? 'stop' : 'fix',
          title: shut ? 'Overload: the amplifier shuts down' : `Overloaded by ${num(over, 1)} dB`,
          sentence:
            `${num(amp.inputAllDbm)} dBm in its band at the donor port, limit ` +
            `${num(part.inputLimitDbm)}${amp.carriersAssumed ? ` (${amp.carriers} carriers assumed)` : ''}.`,
          because: 'input limit is total power: one carrier + 10·log10(carriers)',
          source: 'amplifier’s data; carriers entered or assumed',
          cures: [
            {
              label: `add a ${num(pad.lossDb)} dB pad before it`,
              gain: `${num(Math.min(pad.lossDb, over), 1)} dB of overload gone`,
              cost: `−${num(pad.lossDb)} dB`,
              enough: pad.lossDb >= over,
              steps: insertBefore(kit, kit.amplifier!.node.id, pad.id, 'pad'),
            },
          ],
        }),
      )
    } else if (amp.limitedBy === 'output') {
      out.push(
        finding('level', {
          code: 'level.output',
          subjectId: kit.amplifier!.node.id,
          severity: 'note',
          title: 'At its output limit',
          sentence:
            `${num(amp.outputLimitDbm, 1)} dBm a carrier with ${amp.carriers} ` +
            `carriers${amp.carriersAssumed ? ' (assumed)' : ''}: more gain or a stronger donor would not reach further.`,
          because: 'output limit − 10·log10(carriers)',
          source: 'amplifier’s data; carriers entered or assumed',
        }),
      )
    }
  }
  for (const room of chain.rooms) {
    if (room.met) continue
    const short = room.needDbm - room.rsrpDbm
    out.push(
      finding('level', {
        code: 'level.room',
        subjectId: room.spot.id,
        severity: room.spot.needed ? 'fix' : 'note',
        title: `${room.spot.name} is ${num(short)} dB short`,
        sentence: `${num(room.rsrpDbm)} dBm RSRP at a phone, needs ${num(room.needDbm)}.`,
        because: `indoor loss ${num(room.lossDb)} dB over ${mToken(room.distanceM)}${room.floors ? ` and ${room.floors} floor` : ''}`,
        source: 'ITU-R P.1238, from memory',
      }),
    )
  }
  const first = kit.order.find(s => s.run && s.line)
  if (first?.run && first.line) out.push(...lineFindings(kit, first.run.id, first.run.lengthM, first.line))
  return out
}

/** A better line where the one chosen wastes more than 2 dB. */
function lineFindings(kit: Kit, runId: string, lengthM: number, line: LinePart): Finding[] {
  const loss = lineLossDb(line.constants, lengthM, kit.frequencyMHz)
  if (loss < 3) return []
  const better = PARTS.filter((p): p is LinePart => p.kind === 'line' && p.impedanceOhm === line.impedanceOhm)
    .map(p => ({ p, saved: loss - lineLossDb(p.constants, lengthM, kit.frequencyMHz) }))
    .filter(x => x.saved >= 1.5)
    .sort((a, b) => a.p.diameterMm - b.p.diameterMm)
  return [
    finding('level', {
      code: 'level.line',
      subjectId: runId,
      severity: 'note',
      title: `${num(loss, 1)} dB lost in the ${line.name}`,
      sentence: `${mToken(lengthM)} at ${num(kit.frequencyMHz)} MHz.`,
      because: 'k1·√f + k2·f a hundred metres',
      source: 'two-term line model; constants from memory of data sheets',
      cures: better.slice(0, 2).map(({ p, saved }) => ({
        label: `${p.name} instead`,
        gain: `${signed(saved, 1)} dB`,
        cost: `${num(p.diameterMm, 1)} mm thick, bends ${num(p.bendMm)} mm`,
        enough: true,
        steps: [{ table: 'runs' as const, op: 'update' as const, rowId: runId, fields: { partId: p.id } }],
      })),
    }),
  ]
}

/** Puts a part into the run that leads to a node: the run is split, the new piece is a short one. */
export function insertBefore(kit: Kit, nodeId: string, partId: string, role: 'pad' | 'arrestor', atUpM?: number): Cure['steps'] {
  const i = kit.order.findIndex(s => s.node.id === nodeId)
  const step = kit.order[i]
  if (!step?.run) return []
  const from = kit.order[i - 1]!.node
  const run = step.run
  const firstM = role === 'pad' ? run.lengthM : round2(run.lengthM / 2)
  return [
    {
      table: 'nodes',
      op: 'insert',
      rowId: 'new:1',
      fields: {
        designId: kit.design.id,
        role,
        partId,
        eastM: round2((from.eastM + step.node.eastM) / 2),
        northM: round2((from.northM + step.node.northM) / 2),
        upM: atUpM ?? step.node.upM,
        azimuthDeg: null,
        tiltDeg: 0,
        gainDb: null,
      },
    },
    { table: 'runs', op: 'update', rowId: run.id, fields: { toNodeId: 'new:1', lengthM: firstM } },
    {
      table: 'runs',
      op: 'insert',
      rowId: 'new:2',
      fields: {
        designId: kit.design.id,
        fromNodeId: 'new:1',
        toNodeId: nodeId,
        partId: run.partId,
        lengthM: round2(Math.max(0.3, run.lengthM - firstM)),
        measured: false,
        spareM: null,
      },
    },
  ]
}

function arrestorSteps(kit: Kit): Cure['steps'] {
  const second = kit.order[1]
  return second ? insertBefore(kit, second.node.id, 'arr-gas', 'arrestor', 1.2) : []
}
