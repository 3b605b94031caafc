/** The figures whose working can be opened. */
import { sure } from '../sure'
import { inverse } from '../geo/geodesic'
import type { PromiseView } from '../promise/view'
import { gradeRsrp } from '../radio/grades'
import { ISOLATION_SIGMA_DB } from '../separation/isolation'
import { secondOpinion } from '../masts/predict'
import { NINE_IN_TEN } from '../survey/stats'
import { num } from '../units'
import { betweenWords } from './place'
import type { Context } from './context'
import type { Figure } from './finding'

export function figuresOf(c: Context, promise: PromiseView | null): Record<string, Figure> {
  return { ...bearingFigures(c), ...levelFigures(c), ...isolationFigure(c), ...promiseFigure(promise) }
}

function bearingFigures({ doc, site, chosen, declination: dec, mountHeightM }: Context): Record<string, Figure> {
  const out: Record<string, Figure> = {}
  if (chosen?.path && site.latDeg !== null && site.lonDeg !== null) {
    const check = inverse({ latDeg: site.latDeg, lonDeg: site.lonDeg }, chosen.mast)
    out.bearing = {
      value: check.bearingDeg,
      unit: '°',
      low: check.bearingDeg,
      high: check.bearingDeg,
      formulaId: 'geodesic',
      formula: 'WGS84 geodesic, inverse problem',
      inputs: [
        { name: 'site', value: `${site.latDeg}, ${site.lonDeg}`, unit: '°', provenance: 'measured' },
        { name: 'mast', value: `${chosen.mast.latDeg}, ${chosen.mast.lonDeg}`, unit: '°', provenance: 'measured' },
      ],
      source: 'Karney 2013, GeographicLib',
      assumed: false,
    }
    if (dec && chosen.magneticDeg !== null) {
      const u = NINE_IN_TEN * dec.uncertaintyDeg
      out.magnetic = {
        value: chosen.magneticDeg,
        unit: '°',
        low: chosen.magneticDeg - u,
        high: chosen.magneticDeg + u,
        formulaId: 'magnetic',
        formula: 'magnetic = true − declination',
        inputs: [
          { name: 'true bearing', value: check.bearingDeg, unit: '°', provenance: 'computed' },
          { name: 'declination', value: dec.declinationDeg, unit: '°', provenance: 'computed' },
          { name: 'its uncertainty (1σ)', value: dec.uncertaintyDeg, unit: '°', provenance: 'computed' },
        ],
        source: 'World Magnetic Model 2025; uncertainty from memory of its report',
        assumed: false,
      }
    }
    if (chosen.best) {
      out.diffraction = {
        value: chosen.best.diffractionDb,
        unit: 'dB',
        low: chosen.best.diffractionDb,
        high: chosen.best.diffractionDb + 6,
        formulaId: 'delta-bullington',
        formula: `delta-Bullington over the profile, earth radius × ${num(chosen.path.k, 2)}`,
        inputs: [
          { name: 'distance', value: chosen.distanceM / 1000, unit: 'km', provenance: 'computed' },
          { name: 'tightest clearance', value: chosen.best.clearance.clearM, unit: 'm', provenance: 'computed' },
          { name: 'at', value: chosen.best.clearance.atM / 1000, unit: 'km', provenance: 'computed' },
          { name: 'terrain unknown', value: Math.round(chosen.path.unknown * 100), unit: '%', provenance: 'computed' },
          { name: 'land cover on the ground', value: chosen.path.cover ? 'added' : 'not held', unit: '', provenance: 'assumed' },
          { name: 'obstacles noted about the site', value: doc.obstacles.length, unit: '', provenance: 'measured' },
        ],
        source: 'ITU-R P.526-15 §4.5; left out: trees and buildings not held, entry loss, load of the cell',
        assumed: false,
      }
      const band = sure(chosen.path.bands.find(b => b.band === chosen.best!.band))
      const other = secondOpinion(doc.cells, chosen.path, { band, heightM: Math.min(10, Math.max(1, mountHeightM)) })
      if (typeof other !== 'string')
        out.opinion = {
          value: other.rsrpDbm,
          unit: 'dBm',
          low: other.rsrpDbm - 8,
          high: other.rsrpDbm + 8,
          formulaId: 'hata',
          formula: `${other.model}, open country: RSRP in the open by measured medians, without this path’s ridges`,
          inputs: [
            { name: 'mast over the ground 3 to 15 km out', value: Math.round(other.baseM), unit: 'm', provenance: 'computed' },
            { name: 'distance', value: chosen.distanceM / 1000, unit: 'km', provenance: 'computed' },
            { name: 'loss', value: other.lossDb, unit: 'dB', provenance: 'computed' },
            { name: 'delta-Bullington says', value: chosen.best.rsrpDbm, unit: 'dBm', provenance: 'computed' },
          ],
          source: 'M. Hata 1980; COST 231, from memory',
          assumed: true,
        }
    }
  }
  return out
}

function levelFigures({ main }: Context): Record<string, Figure> {
  const levels = main?.levels
  const source = levels?.sources[0]
  if (!levels || !source) return {}
  const { start } = source
  const { carrier } = levels
  const width = NINE_IN_TEN * start.sigmaDb
  const out: Record<string, Figure> = {
    mount: {
      value: start.rsrpDbm,
      unit: 'dBm',
      low: start.rsrpDbm - width,
      high: start.rsrpDbm + width,
      formulaId: 'mount',
      formula: start.read
        ? 'RSRP read − device gain + height gain ± what the wall took'
        : 'mast EIRP − free space − diffraction, per resource element',
      inputs: start.read
        ? [
            { name: `RSRP read at ${start.spot!.name}`, value: start.read.median, unit: 'dBm', provenance: 'measured' },
            ...start.devices.map(d => ({
              name: `${d.name} antenna`,
              value: d.antennaDbi,
              unit: 'dBi',
              provenance: 'assumed' as const,
            })),
            { name: 'height gain', value: start.heightGainDb, unit: 'dB', provenance: 'computed' },
            { name: 'the wall between', value: start.wallDb, unit: 'dB', provenance: start.provenance },
          ]
        : [{ name: start.words, value: '', unit: '', provenance: 'assumed' }],
      source: 'start of the signal’s way; device gain common practice',
      assumed: start.provenance === 'assumed',
    },
  }
  const air = sure(levels.ports.find(p => p.visit.parent < 0))
  const modem = levels.modems[0]
  const amp = levels.amplifiers[0]
  const portRsrp = modem?.rsrpDbm ?? amp?.inputRsrpDbm
  if (portRsrp === undefined) return out
  out.port = {
    value: portRsrp,
    unit: 'dBm',
    low: portRsrp - width,
    high: portRsrp + width,
    formulaId: 'port',
    formula: `RSRP at the ${modem ? 'modem' : 'amplifier'}’s port = RSRP in the air + antenna gain − cables and joints`,
    inputs: [
      { name: 'RSRP at the donor', value: start.rsrpDbm, unit: 'dBm', provenance: start.provenance },
      { name: 'antenna gain', value: air.gainDb, unit: 'dBi', provenance: air.provenance },
      { name: 'cables and joints', value: air.rsrpDbm - portRsrp, unit: 'dB', provenance: 'computed' },
      { name: 'resource blocks', value: carrier.resourceBlocks, unit: '', provenance: carrier.assumed ? 'assumed' : 'measured' },
    ],
    source: '3GPP TS 36.214; two-term line model',
    assumed: carrier.assumed,
  }
  if (amp)
    out.amplifier = {
      value: amp.inputAllDbm,
      unit: 'dBm',
      low: amp.inputAllDbm - width,
      high: amp.inputAllDbm + width,
      formulaId: 'amplifier',
      formula: 'total at the donor port = RSRP + 10·log10(12·N_RB), with every other carrier of the band added as powers',
      inputs: [
        { name: 'RSRP of the wanted carrier', value: amp.inputRsrpDbm, unit: 'dBm', provenance: start.provenance },
        { name: 'carriers in its band', value: amp.carriers, unit: '', provenance: amp.carriersFrom },
        { name: 'loudest', value: amp.loudest ?? 'the wanted one', unit: '', provenance: amp.carriersFrom },
        { name: 'input limit', value: amp.at.part.inputLimitDbm, unit: 'dBm', provenance: 'computed' },
        { name: 'gain in use', value: amp.gainDb, unit: 'dB', provenance: 'computed' },
      ],
      source: 'amplifier’s data; 3GPP TS 36.214',
      assumed: amp.carriersFrom === 'assumed',
    }
  return out
}

function isolationFigure({ main }: Context): Record<string, Figure> {
  const loop = main?.loops[0]
  if (!loop) return {}
  const w = loop.worst
  const width = NINE_IN_TEN * ISOLATION_SIGMA_DB
  return {
    isolation: {
      value: loop.isolationDb,
      unit: 'dB',
      low: loop.isolationDb - width,
      high: loop.isolationDb + width,
      formulaId: 'isolation',
      formula: 'free space − G1 − G2 + what the line crosses, joined as powers with a scattered way; plus the cables',
      inputs: [
        { name: 'distance', value: w.distanceM, unit: 'm', provenance: 'computed' },
        { name: 'donor’s gain toward the inside antenna', value: w.gainTowardDbi[0], unit: 'dBi', provenance: 'computed' },
        { name: 'inside antenna’s gain toward the donor', value: w.gainTowardDbi[1], unit: 'dBi', provenance: 'computed' },
        { name: betweenWords(loop), value: w.crossings.reduce((s, x) => s + x.lossDb, 0), unit: 'dB', provenance: 'assumed' },
        { name: 'by the straight line', value: w.directDb, unit: 'dB', provenance: 'computed' },
        { name: 'by scattered ways', value: w.scatteredDb, unit: 'dB', provenance: 'assumed' },
        { name: 'in cables and splitters', value: w.linesDb, unit: 'dB', provenance: 'computed' },
        ...(w.axialDb === null
          ? []
          : [{ name: 'by the near field along both', value: w.axialDb, unit: 'dB', provenance: 'computed' as const }]),
        ...(w.quickDb === null
          ? []
          : [{ name: 'by the quick rule, nothing between', value: w.quickDb, unit: 'dB', provenance: 'computed' as const }]),
      ],
      source: 'ITU-R P.525, P.2040; scattered way assumed',
      assumed: true,
    },
  }
}

function promiseFigure(promise: PromiseView | null): Record<string, Figure> {
  if (!promise) return {}
  return {
    promise: {
      value: promise.down.median,
      unit: 'Mbit/s',
      low: promise.down.low,
      high: promise.down.high,
      formulaId: 'promise',
      formula: 'min(cap, port, bandwidth · efficiency(SINR) · layers · share), 320 draws',
      inputs: [
        { name: 'SINR expected', value: promise.sinr.median, unit: 'dB', provenance: 'computed' },
        { name: 'RSRP expected', value: promise.rsrp.median, unit: 'dBm', provenance: 'computed' },
        { name: 'grade', value: gradeRsrp(promise.rsrp.median).id, unit: '', provenance: 'computed' },
        ...promise.assumptions.map(a => ({ name: a.words, value: '', unit: '', provenance: 'assumed' as const })),
      ],
      source: '3GPP TR 36.942 annex A; interval 90 %',
      assumed: promise.assumptions.length > 0,
    },
  }
}
