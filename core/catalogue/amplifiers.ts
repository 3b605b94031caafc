/**
 * Generic boosters and building amplifiers. What is repeated where is law: the figures of the very part, and the
 * operator's consent, are entered by who fits it.
 * @source common practice (no source); bands of the United States 47 CFR 20.21(e)(3), from memory
 */
import type { AmplifierPart } from '../job/part'
import { amplifier } from './build'
import type { Facts } from './build'

/** Bands a consumer booster may repeat in the United States. @source 47 CFR 20.21(e)(3), from memory */
export const US_BOOSTER_BANDS = ['B2', 'B4', 'B5', 'B12', 'B13', 'B17', 'B25', 'B66'] as const
/** Of B66 only what is AWS-1, downlink MHz. @source 47 CFR 20.21(e)(3), from memory */
export const AWS_1_DOWN_MHZ = [2110, 2155] as const

const HOME: Facts = {
  mount: 'four screws 4 mm, air all round',
  outdoors: false,
  temperatureC: [-10, 50],
  supply: 'mains',
  apart: ['outside antenna', 'inside antenna', 'cables', 'surge protector'],
  inBox: ['mains adapter, lead 1.8 m'],
}
const RACK: Facts = {
  mount: 'wall plate, six anchors M6',
  outdoors: false,
  temperatureC: [-20, 50],
  supply: 'mains',
  apart: ['antennas', 'cables', 'splitters and taps', 'surge protector'],
}
const CAR: Facts = {
  mount: 'two straps or four screws',
  outdoors: false,
  temperatureC: [-20, 60],
  supply: '12 V',
  apart: ['fused lead'],
}
const LOW = ['B8', 'B20', 'B28'] as const
const FIVE = ['B1', 'B3', 'B7', 'B8', 'B20'] as const
const SIX = ['B1', 'B3', 'B7', 'B8', 'B20', 'B28'] as const
/** Low bands come with a few dB less gain than high ones. @source common practice (no source) */
const lessLow = (gainDb: number, bands: readonly string[]) =>
  bands.filter(b => (LOW as readonly string[]).includes(b)).map(band => ({ band, gainDb }))
const limits = (inputLimitDbm: number, shutDownDbm: number) => ({ inputLimitDbm, shutDownDbm })

export const AMPLIFIERS: readonly AmplifierPart[] = [
  amplifier('amp-home', 'Home booster, several bands, 62 dB', {
    use: 'fixed',
    bands: FIVE,
    radio: {
      gainDb: 62,
      lowestGainDb: 35,
      noiseFigureDb: 6,
      outputDbm: 12,
      uplinkOutputDbm: 22,
      ...limits(-45, -30),
      class: 'wideband',
      separation: { upM: 6, alongM: 15, boxM: 3 },
    },
    facts: { ...HOME, massKg: 1.6, sizeMm: [190, 230, 60], powerW: 18, priceClass: 2 },
  }),
  amplifier('amp-home-small', 'Small home booster, two bands, 58 dB', {
    use: 'fixed',
    bands: ['B3', 'B20'],
    radio: {
      gainDb: 58,
      lowestGainDb: 33,
      noiseFigureDb: 7,
      outputDbm: 8,
      uplinkOutputDbm: 20,
      ...limits(-48, -33),
      class: 'wideband',
      separation: { upM: 5, alongM: 12, boxM: 2 },
    },
    facts: { ...HOME, massKg: 0.9, sizeMm: [150, 180, 45], powerW: 10, priceClass: 1 },
  }),
  amplifier('amp-single', 'Single-band booster, 55 dB', {
    use: 'fixed',
    bands: ['B20'],
    radio: {
      gainDb: 55,
      lowestGainDb: 30,
      noiseFigureDb: 6,
      outputDbm: 10,
      uplinkOutputDbm: 20,
      ...limits(-48, -33),
      class: 'one carrier',
    },
    facts: { ...HOME, massKg: 0.8, sizeMm: [140, 170, 40], powerW: 8, priceClass: 1 },
  }),
  ...(['B1', 'B3', 'B8', 'B28'] as const).map(band =>
    amplifier(`amp-single-${band.toLowerCase()}`, `Single-band booster, ${band}, 60 dB`, {
      use: 'fixed',
      bands: [band],
      radio: {
        gainDb: 60,
        lowestGainDb: 32,
        noiseFigureDb: 6,
        outputDbm: 10,
        uplinkOutputDbm: 20,
        ...limits(-50, -35),
        class: 'one carrier',
      },
      facts: { ...HOME, massKg: 0.9, sizeMm: [140, 170, 40], powerW: 9, priceClass: 1 },
    }),
  ),
  amplifier('amp-extender', 'Indoor extender, room unit, 64 dB', {
    use: 'fixed',
    bands: FIVE,
    radio: {
      gainDb: 64,
      lowestGainDb: 30,
      noiseFigureDb: 7,
      outputDbm: 10,
      uplinkOutputDbm: 20,
      ...limits(-40, -20),
      class: 'one carrier',
    },
    facts: {
      ...HOME,
      mount: 'stands on a shelf',
      massKg: 0.8,
      sizeMm: [150, 170, 60],
      powerW: 12,
      priceClass: 2,
      apart: ['a data lead over 10 m'],
    },
    end: ['SMA', 'socket'],
    // What the window unit hears comes as data.
    donorEnd: ['RJ45', 'socket', 100],
  }),
  amplifier('amp-plain', 'Booster with a knob, no control of its own, 60 dB', {
    use: 'fixed',
    bands: ['B3', 'B20'],
    radio: {
      gainDb: 60,
      lowestGainDb: 60,
      noiseFigureDb: 8,
      outputDbm: 10,
      uplinkOutputDbm: 17,
      ...limits(-50, -30),
      class: 'wideband',
    },
    facts: { ...HOME, massKg: 1, sizeMm: [160, 190, 50], powerW: 9, priceClass: 1 },
  }),
  amplifier('amp-75', 'Home booster with 75 Ω ports, 58 dB', {
    use: 'fixed',
    bands: ['B1', 'B3', 'B8', 'B20', 'B28'],
    radio: {
      gainDb: 58,
      lowestGainDb: 38,
      noiseFigureDb: 7,
      outputDbm: 10,
      uplinkOutputDbm: 21,
      ...limits(-45, -30),
      class: 'wideband',
      separation: { upM: 6, alongM: 15, boxM: 3 },
    },
    facts: { ...HOME, massKg: 1.3, sizeMm: [180, 210, 55], powerW: 15, priceClass: 1 },
    end: ['F', 'socket', 75],
  }),
  amplifier('amp-na-home', 'North American home booster, 62 dB', {
    use: 'fixed',
    bands: US_BOOSTER_BANDS,
    radio: {
      gainDb: 62,
      lowestGainDb: 35,
      noiseFigureDb: 6,
      outputDbm: 12,
      uplinkOutputDbm: 23,
      ...limits(-45, -30),
      class: 'wideband',
      separation: { upM: 6.1, alongM: 15.2, boxM: 3 },
    },
    facts: { ...HOME, massKg: 1.6, sizeMm: [190, 230, 60], powerW: 18, priceClass: 2 },
  }),
  amplifier('amp-na-75', 'North American home booster, 75 Ω, 60 dB', {
    use: 'fixed',
    bands: US_BOOSTER_BANDS,
    radio: {
      gainDb: 60,
      lowestGainDb: 35,
      noiseFigureDb: 7,
      outputDbm: 10,
      uplinkOutputDbm: 22,
      ...limits(-45, -30),
      class: 'wideband',
      separation: { upM: 6.1, alongM: 15.2, boxM: 3 },
    },
    facts: { ...HOME, massKg: 1.3, sizeMm: [180, 210, 55], powerW: 15, priceClass: 1 },
    end: ['F', 'socket', 75],
  }),
  amplifier('amp-na-single', 'North American one-carrier booster, 62 dB', {
    use: 'fixed',
    bands: ['B12', 'B13'],
    radio: {
      gainDb: 62,
      lowestGainDb: 30,
      noiseFigureDb: 5,
      outputDbm: 15,
      uplinkOutputDbm: 24,
      ...limits(-50, -35),
      class: 'one carrier',
    },
    facts: { ...HOME, massKg: 1.2, sizeMm: [170, 200, 50], powerW: 14, priceClass: 2 },
  }),
  amplifier('amp-building', 'Building amplifier, 75 dB', {
    use: 'fixed',
    bands: SIX,
    radio: {
      gainDb: 75,
      lowestGainDb: 40,
      noiseFigureDb: 5,
      outputDbm: 17,
      uplinkOutputDbm: 24,
      ...limits(-50, -35),
      class: 'wideband',
    },
    facts: { ...RACK, massKg: 5.5, sizeMm: [300, 380, 110], powerW: 55, priceClass: 3 },
  }),
  amplifier('amp-na-building', 'North American building amplifier, 72 dB', {
    use: 'fixed',
    bands: US_BOOSTER_BANDS,
    radio: {
      gainDb: 72,
      lowestGainDb: 40,
      noiseFigureDb: 5,
      outputDbm: 17,
      uplinkOutputDbm: 24,
      ...limits(-50, -35),
      class: 'wideband',
      separation: { upM: 9, alongM: 20, boxM: 3 },
    },
    facts: { ...RACK, massKg: 5.5, sizeMm: [300, 380, 110], powerW: 55, priceClass: 3 },
  }),
  amplifier('amp-building-24', 'Building amplifier, 80 dB, 24 dBm', {
    use: 'fixed',
    bands: SIX,
    radio: {
      gainDb: 80,
      lowestGainDb: 45,
      noiseFigureDb: 5,
      outputDbm: 24,
      uplinkOutputDbm: 24,
      ...limits(-52, -37),
      class: 'one carrier',
      perBand: lessLow(77, SIX),
    },
    facts: { ...RACK, massKg: 9, sizeMm: [340, 440, 150], powerW: 90, priceClass: 3 },
  }),
  amplifier('amp-building-small', 'Small building amplifier, 70 dB', {
    use: 'fixed',
    bands: FIVE,
    radio: {
      gainDb: 70,
      lowestGainDb: 38,
      noiseFigureDb: 5,
      outputDbm: 15,
      uplinkOutputDbm: 23,
      ...limits(-48, -33),
      class: 'wideband',
      perBand: lessLow(68, FIVE),
    },
    facts: { ...RACK, massKg: 3.4, sizeMm: [260, 320, 90], powerW: 35, priceClass: 2 },
  }),
  amplifier('amp-line', 'Line amplifier for a long riser, 30 dB', {
    use: 'fixed',
    bands: SIX,
    radio: {
      gainDb: 30,
      lowestGainDb: 15,
      noiseFigureDb: 6,
      outputDbm: 17,
      uplinkOutputDbm: 22,
      ...limits(-15, 0),
      class: 'wideband',
    },
    facts: { ...RACK, massKg: 2, sizeMm: [180, 240, 60], powerW: 14, priceClass: 2 },
  }),
  amplifier('amp-mobile', 'Mobile booster, 50 dB', {
    use: 'mobile',
    bands: FIVE,
    radio: {
      gainDb: 50,
      lowestGainDb: 23,
      noiseFigureDb: 6,
      outputDbm: 8,
      uplinkOutputDbm: 22,
      ...limits(-42, -27),
      class: 'wideband',
    },
    facts: { ...CAR, massKg: 0.7, sizeMm: [110, 30, 150], powerW: 12, priceClass: 2 },
  }),
  amplifier('amp-mobile-sma', 'Mobile booster with SMA ports, 45 dB', {
    use: 'mobile',
    bands: ['B3', 'B8', 'B20'],
    radio: {
      gainDb: 45,
      lowestGainDb: 20,
      noiseFigureDb: 7,
      outputDbm: 5,
      uplinkOutputDbm: 21,
      ...limits(-42, -27),
      class: 'wideband',
    },
    facts: { ...CAR, massKg: 0.5, sizeMm: [95, 28, 130], powerW: 9, priceClass: 1 },
    end: ['SMA', 'socket'],
  }),
  amplifier('amp-cradle', 'Cradle booster for one phone, 23 dB', {
    use: 'mobile',
    bands: FIVE,
    radio: {
      gainDb: 23,
      lowestGainDb: 10,
      noiseFigureDb: 7,
      outputDbm: 0,
      uplinkOutputDbm: 23,
      ...limits(-35, -20),
      class: 'wideband',
    },
    facts: { ...CAR, massKg: 0.3, sizeMm: [80, 30, 160], powerW: 6, priceClass: 1 },
    end: ['SMA', 'socket'],
  }),
  amplifier('amp-na-mobile', 'North American mobile booster, 50 dB', {
    use: 'mobile',
    bands: US_BOOSTER_BANDS,
    radio: {
      gainDb: 50,
      lowestGainDb: 23,
      noiseFigureDb: 6,
      outputDbm: 8,
      uplinkOutputDbm: 23,
      ...limits(-42, -27),
      class: 'wideband',
    },
    facts: { ...CAR, massKg: 0.7, sizeMm: [110, 30, 150], powerW: 12, priceClass: 2 },
  }),
  amplifier('amp-na-cradle', 'North American cradle booster, 23 dB', {
    use: 'mobile',
    bands: US_BOOSTER_BANDS,
    radio: {
      gainDb: 23,
      lowestGainDb: 10,
      noiseFigureDb: 7,
      outputDbm: 0,
      uplinkOutputDbm: 23,
      ...limits(-35, -20),
      class: 'wideband',
    },
    facts: { ...CAR, massKg: 0.3, sizeMm: [80, 30, 160], powerW: 6, priceClass: 1 },
    end: ['SMA', 'socket'],
  }),
]
