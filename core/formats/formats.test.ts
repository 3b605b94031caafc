import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parse } from 'csv-parse/sync'
import { asNegative, csvCell, csvLine, guessDelimiter, markStrays, parseNumber, recordCuts, STRAY_MARK } from './csv'
import { headerSignature, lackingFields, looksSwapped, proposeMapping, proposeRules } from './mast-columns'
import { channelMeans, readDay, readMastRow } from './mast-csv'
import { bearing, distance, fromMetres, length, num, signed, toMetres } from '../units'
import { metres, say, words } from '../words'

describe('numbers as typed', () => {
  it.each([
    ['−95', -95],
    ['95,5', 95.5],
    [' 1 234.5 ', 1234.5],
    ['+3', 3],
    ['.5', 0.5],
    ['', null],
  ])('“%s”', (text, v) => expect(parseNumber(text)).toBe(v))
  it.each(['NaN', 'Infinity', '1e9', '12 dBm', '1.2.3', '--4'])('refuses “%s”', t =>
    expect(() => parseNumber(t)).toThrow(/not a number/),
  )
  it('95 means −95 where only negative makes sense', () => {
    expect(asNegative(95)).toBe(-95)
    expect(asNegative(-95)).toBe(-95)
    expect(asNegative(null)).toBeNull()
  })
  it('reads back what it prints', () =>
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), v => {
        expect(parseNumber(num(v, 3))).toBeCloseTo(v, 3)
      }),
    ))
})

describe('tables', () => {
  it('guesses the separator', () => {
    expect(guessDelimiter('a;b;c')).toBe(';')
    expect(guessDelimiter('a\tb\tc,d')).toBe('\t')
  })
  it('writes a formula as text', () => {
    // OWASP, CSV injection.
    expect(csvCell('=1+1')).toBe("'=1+1")
    expect(csvCell(-5)).toBe('-5')
    expect(csvLine(['a"b', 'c,d'])).toBe('"a""b","c,d"\r\n')
  })
  it('is cut between rows, never inside quotes', () => {
    const text = 'a,b\n1,"x\ny"\n2,z\n3,half'
    expect(recordCuts(text, ',', 8)).toEqual([4, 12, 16])
    expect(recordCuts(text, ',', 8, true)).toEqual([4, 12, 16, 22])
    expect(recordCuts('a,b\n1,5" pole\n', ',', 100)).toEqual([14])
  })
  it('cut anywhere and put together again it is the same table', () =>
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 6 }), { minLength: 2, maxLength: 3 }), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 40 }),
        (rows, size) => {
          const text = rows.map(r => csvLine(r)).join('')
          const cuts = recordCuts(text, ',', size, true)
          expect(cuts.at(-1)).toBe(text.length)
          const parts = cuts.map((c, i) => text.slice(cuts[i - 1] ?? 0, c))
          const read = (t: string) => parse(t, { relax_column_count: true, relax_quotes: true }) as string[][]
          expect(parts.flatMap(read)).toEqual(read(text))
        },
      ),
    ))

  const readRows = (t: string) => parse(markStrays(t, ','), { relax_column_count: true, relax_quotes: true }) as string[][]
  it.each([
    ['never closed', '"Stack,1\n', 1],
    ['in the last column', 'Stack,"1\n', 1],
    ['an inch sign that begins a field', '" pole,1\n', 1],
    ['two of them', '"Stack,1\n"Lee,2\n', 2],
  ])('a stray quote, %s, spoils its row and no other', (_, bad, rows) => {
    const good = ['Far,3\n', '"Tarn, upper",4\n', 'pole 12" high,5\n', '"say ""so""",6\n']
    const found = readRows([good[0], bad, ...good.slice(1)].join(''))
    expect(found).toHaveLength(4 + rows)
    expect(found.filter(r => r.some(c => c.startsWith(STRAY_MARK)))).toHaveLength(rows)
    expect([found[0], ...found.slice(1 + rows)]).toEqual([
      ['Far', '3'],
      ['Tarn, upper', '4'],
      ['pole 12" high', '5'],
      ['say "so"', '6'],
    ])
    expect(() => readMastRow([STRAY_MARK + '"Stack', '46.7'], proposeRules(['name', 'lat', 'lon']))).toThrow(/never closed/)
  })
  it('marks nothing in a table that is in order', () =>
    fc.assert(
      fc.property(fc.array(fc.array(fc.string({ maxLength: 8 }), { minLength: 2, maxLength: 3 }), { maxLength: 12 }), rows => {
        const text = rows.map(r => csvLine(r)).join('')
        expect(markStrays(text, ',')).toBe(text)
      }),
    ))

  it('proposes columns by what stands in them where the headings are of another language', () => {
    const german = ['Netz', 'Standort', 'Breite', 'Länge', 'Frequenzband', 'Hauptstrahlrichtung', 'Montagehöhe', 'Stand']
    const rows = [
      ['Tern', 'Stack', '46,7250', '-41,3660', 'B20', '0', '30', '2026-03-01'],
      ['Tern', 'Stack', '46,7250', '-41,3660', 'B3', '120', '30', '2026-03-01'],
      ['Tern', 'Quay Town', '46,7450', '-41,4000', 'B3', '270', '16', '2026-02-11'],
      ['Gannet', 'West Spine', '46,7850', '-41,4690', 'B20', '60', '22', '2026-02-11'],
      ['Gannet', 'Moss Road', '46,7900', '-41,3250', 'B7', '240', '15', '2026-02-11'],
      ['Gannet', 'Salt Pans', '46,6990', '-41,3000', 'B20', '330', '24', '2026-02-11'],
    ]
    const read = proposeRules(german, null, rows)
    expect(read.mapping).toMatchObject({ carrier: 0, name: 1, lat: 2, lon: 3, band: 4, azimuth: 5, height: 6, seen: 7, cell: -1 })
    expect(readMastRow(rows[4]!, read)).toMatchObject({
      name: 'Moss Road',
      carrier: 'Gannet',
      latDeg: 46.79,
      lonDeg: -41.325,
      band: 'B7',
    })
    const one = proposeRules(['Punto', 'Operador', 'Banda', 'Celda'], null, [
      ['46.725, -41.366', 'Tern', '800', '181505'],
      ['46.745, -41.400', 'Tern', '1800', '181762'],
      ['46.785, -41.469', 'Tern', '800', '182018'],
    ])
    expect(one.mapping).toMatchObject({ place: 0, carrier: 1, band: 2, cell: 3, lat: -1, lon: -1, name: -1 })
  })
  it('leaves a column alone that nothing speaks for, and one that a heading placed', () => {
    const none = proposeRules(['a', 'b', 'c'], null, [
      ['1', '2', '3'],
      ['2', '4', '6'],
    ])
    expect(Object.values(none.mapping).every(i => i < 0)).toBe(true)
    const placed = proposeRules(['lat', 'lon', 'x1'], null, [
      ['46.71', '-41.31', '46.72'],
      ['46.72', '-41.32', '46.73'],
    ])
    expect(placed.mapping).toMatchObject({ lat: 0, lon: 1 })
  })

  const header = ['Site', 'Latitude', 'Longitude', 'Operator', 'RAT', 'EARFCN', 'Height (ft)', 'Azimuth']
  const rules = proposeRules(header, '2026-03-01')
  it('proposes columns by their words, and units by what stands behind them', () => {
    const m = rules.mapping
    expect([m.name, m.lat, m.lon, m.carrier, m.technology, m.channel, m.height, m.azimuth, m.power]).toEqual([
      0, 1, 2, 3, 4, 5, 6, 7, -1,
    ])
    expect(rules.heightUnit).toBe('ft')
    expect(proposeMapping(['lat_deg', 'lon_deg', 'power_dbm', 'cell_id', 'mcc', 'net'])).toMatchObject({
      lat: 0,
      lon: 1,
      power: 2,
      cell: 3,
      mcc: 4,
      mnc: 5,
    })
  })
  it('a crew’s mapping is remembered by the words of the header', () =>
    expect(headerSignature(['\uFEFFLat ', 'LON'])).toBe('lat|lon'))
  it('says what is still to map', () => {
    expect(lackingFields(rules.mapping, null)).toEqual([])
    // A list that names no bands, as crowd lists do, is taken: its bands are unknown, not refused.
    expect(lackingFields(proposeMapping(['lat', 'lon', 'cell', 'mcc', 'mnc']))).toEqual([])
    expect(lackingFields(proposeMapping(['position', 'name']))).toEqual(['carrier (or mcc and mnc, or one for the whole list)'])
    expect(lackingFields(proposeMapping(['position', 'name']), 'Tern')).toEqual([])
  })
  const one = (header: string[], cells: string[], more: object = {}) => readMastRow(cells, { ...proposeRules(header), ...more })
  it.each([
    ['800', 'LTE', 'B20'],
    ['900', 'LTE', 'B8'],
    ['1800 MHz', 'LTE', 'B3'],
    ['2100', 'LTE', 'B1'],
    ['2600', 'LTE', 'B7'],
    ['3500', 'NR', 'n78'],
    ['20', 'LTE', 'B20'],
    ['6300', 'LTE', 'B20'],
  ])('a band column that holds %s of %s is %s: the frequency people call it by, not a channel number', (text, tech, band) =>
    expect(one(['name', 'lat', 'lon', 'carrier', 'tech', 'band'], ['A', '46', '-41', 'Tern', tech, text]).band).toBe(band),
  )
  it('a channel column that holds 2600 is a channel number', () =>
    expect(one(['name', 'lat', 'lon', 'carrier', 'channel'], ['A', '46', '-41', 'Tern', '2600'])).toMatchObject({
      band: 'B5',
      channel: 2600,
    }))
  it('no band at all is unknown, not guessed', () =>
    expect(one(['name', 'lat', 'lon', 'carrier'], ['A', '46', '-41', 'Tern']).band).toBe(''))
  it('one column may hold both coordinates, and one carrier the whole list', () => {
    expect(one(['name', 'position'], ['A', '46.8 N 41.4 W'], { wholeCarrier: 'Tern' })).toMatchObject({
      latDeg: 46.8,
      lonDeg: -41.4,
      carrier: 'Tern',
    })
    expect(() => one(['name', 'position'], ['A', 'over there'], { wholeCarrier: 'Tern' })).toThrow(/^place: /)
  })
  it('a day that no calendar has is refused', () => {
    expect(() => one(['name', 'lat', 'lon', 'carrier', 'seen'], ['A', '46', '-41', 'Tern', '2026-02-30'])).toThrow(
      'is not a date',
    )
  })
  const row = (o: Partial<Record<number, string>> = {}) =>
    ['Stack', '46.725', '-41.366', 'Tern', 'LTE', '6300', '100', '120'].map((v, i) => o[i] ?? v)
  const read = (o: Partial<Record<number, string>> = {}, r = rules) => readMastRow(row(o), r)
  it('reads a row: a channel number as its band, feet as metres, the list’s day where the row has none', () =>
    expect(read()).toMatchObject({
      name: 'Stack',
      latDeg: 46.725,
      band: 'B20',
      channel: 6300,
      technology: 'LTE',
      heightM: 30.48,
      azimuthDeg: 120,
      seenOn: '2026-03-01',
    }))
  it.each([
    ['46°43.5′N', 46.725],
    ['N46 43 30', 46.725],
    ['46,725', 46.725],
    ['46.725 N', 46.725],
  ])('latitude “%s”', (t, v) => expect(read({ 1: t }).latDeg).toBeCloseTo(v, 6))
  it.each([
    ['30 m', 30],
    ['98.4252 ft', 30],
    ['98,4252', 30],
  ])('height “%s”', (t, v) => expect(read({ 6: t }).heightM).toBeCloseTo(v, 3))
  it.each([
    [1, '96', 'lat 96 is outside −90…90 °'],
    [2, 'west', 'lon “west” is not a number'],
    [1, '', 'lat is missing'],
    [0, ' ', 'name is missing'],
    [5, '99999', 'is no LTE band'],
    [4, 'WIMAX', 'neither LTE nor NR'],
    [4, 'UMTS', 'older than LTE'],
    [6, 'NaN', 'not a number'],
    [3, '', 'carrier is missing'],
    [1, 'Infinity', 'outside'],
  ])('a bad column %i (“%s”) says %s', (i, v, message) => expect(() => read({ [i]: v })).toThrow(message))
  it('refuses 0, 0', () => expect(() => read({ 1: '0', 2: '0' })).toThrow(/placeholder/))
  it('exchanged columns are read the other way round', () =>
    expect(read({ 1: '-41.366', 2: '46.725' }, { ...rules, swapped: true })).toMatchObject({ latDeg: 46.725, lonDeg: -41.366 }))
  it('sees that they are exchanged by the globe, or by where the crew works', () => {
    expect(
      looksSwapped([
        [141.2, 46.7],
        [140.1, 46.6],
      ]),
    ).toBe(true)
    expect(looksSwapped([[46.7, 141.2]])).toBe(false)
    // One row that is simply wrong says nothing of the others.
    expect(
      looksSwapped([
        [46.7, -41.2],
        [95.2, -41.2],
        [46.6, -41.1],
      ]),
    ).toBe(false)
    expect(looksSwapped([[-41.3, 46.7]], { latDeg: 46.8, lonDeg: -41.4 })).toBe(true)
    expect(looksSwapped([[46.7, -41.3]], { latDeg: 46.8, lonDeg: -41.4 })).toBe(false)
  })
  const crowd = proposeRules(['radio', 'mcc', 'net', 'area', 'cell', 'lon', 'lat', 'range', 'updated', 'earfcn'])
  it('a crowd’s rows are gathered by the mast’s number inside the cell identity', () => {
    const of = (cell: string) =>
      readMastRow(['LTE', '999', '1', '410', cell, '-41.3', '46.7', '850', '1767225600', '6300'], crowd, c =>
        c === '99901' ? 'Tern' : undefined,
      )
    const a = of(String(80001 * 256 + 1))
    const b = of(String(80001 * 256 + 2))
    expect(a).toMatchObject({ carrier: 'Tern', name: 'LTE site 80001', accuracyM: 850, seenOn: '2026-01-01', channel: 6300 })
    expect(a.mastKey).toBe(b.mastKey)
    expect(a.cellKey).not.toBe(b.cellKey)
    expect(of('77').mastKey).not.toBe(of('78').mastKey)
  })
  it.each([
    ['2026-03-24', '2026-03-24'],
    ['24.03.2026', '2026-03-24'],
    ['20260324', '2026-03-24'],
    ['1774310400', '2026-03-24'],
    ['1774310400000', '2026-03-24'],
    ['', null],
  ])('day “%s”', (t, d) => expect(readDay(t)).toBe(d))
  it('a day that cannot be is refused', () => expect(() => readDay('last spring')).toThrow(/is not a date/))
  it('watts become dBm', () => {
    const withPower = proposeRules([...header, 'power'])
    expect(readMastRow([...row(), '40 W'], withPower).powerDbm).toBeCloseTo(46.02, 2)
    expect(readMastRow([...row(), '46 dBm'], withPower).powerDbm).toBe(46)
    expect(() => readMastRow([...row(), '4000 W'], { ...withPower })).not.toThrow()
    expect(() => readMastRow([...row(), '99'], withPower)).toThrow(/outside −30…70/)
  })
  it('a channel number means a frequency and the bands that hold it', () => {
    expect(channelMeans(6300, 'LTE')).toEqual({ frequencyMHz: 806, bands: ['B20'] })
    expect(channelMeans(636_666, 'NR')!.bands).toEqual(['n77', 'n78'])
    expect(channelMeans(99_999_999, 'LTE')).toBeNull()
  })
})

describe('figures as read', () => {
  it('carry a true minus and no negative zero', () => {
    expect(num(-3.2, 1)).toBe('−3.2')
    expect(num(-0.01, 1)).toBe('0.0')
    expect(signed(2)).toBe('+2')
  })
  it('tokens turn into either unit', () => {
    expect(say(words`raise ${metres(1.9)}`, 'metric')).toBe('raise 1.9\u2009m')
    expect(say(words`raise ${metres(1.9)}`, 'imperial')).toBe('raise 6.2\u2009ft')
    expect(length(6.1, 'imperial', 0)).toBe('20\u2009ft')
    expect(distance(11_300, 'metric')).toBe('11.3\u2009km')
  })
  it('metres and feet turn into each other', () =>
    fc.assert(
      fc.property(fc.double({ min: -1e3, max: 1e3, noNaN: true }), v => {
        expect(toMetres(fromMetres(v, 'imperial'), 'imperial')).toBeCloseTo(v, 9)
      }),
    ))
  it('bearings have three figures', () => {
    expect(bearing(4.6)).toBe('005°')
    expect(bearing(359.7)).toBe('000°')
  })
})
