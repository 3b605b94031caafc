import { readdirSync, readFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { printable } from './paper'
import { runsOf, svgInFaces } from './faces'

/** Letters of each language's alphabet beside a to z. @source Unicode CLDR, main exemplar characters, from memory */
const ALPHABETS: Record<string, string> = {
  Polish: 'ąćęłńóśźż',
  Czech: 'áčďéěíňóřšťúůýž',
  Slovak: 'áäčďéíĺľňóôŕšťúýž',
  Hungarian: 'áéíóöőúüű',
  Romanian: 'ăâîșțşţ',
  Turkish: 'çğıöşüâîûİ',
  Estonian: 'šžõäöü',
  Latvian: 'āčēģīķļņšūž',
  Lithuanian: 'ąčęėįšųūž',
  Greek: 'αβγδεζηθικλμνξοπρσςτυφχψωάέήίόύώϊϋΐΰ',
  Russian: 'абвгдеёжзийклмнопрстуфхцчшщъыьэюя',
  Ukrainian: 'абвгґдеєжзиіїйклмнопрстуфхцчшщьюя',
  Belarusian: 'абвгдеёжзійклмнопрстуўфхцчшыьэюя',
  Bulgarian: 'абвгдежзийклмнопрстуфхцчшщъьюя',
  Serbian: 'абвгдђежзијклљмнњопрстћуфхцчџш',
  Macedonian: 'абвгдѓежзѕијклљмнњопрстќуфхцчџш',
  Icelandic: 'áðéíóúýþæö',
  Nordic: 'åäöæø',
}
const isLost = (text: string) => runsOf(text).some(r => r.text.includes('?'))

describe('faces of the papers', () => {
  it.each(Object.entries(ALPHABETS))('every letter of %s is held, small and large', (_, letters) => {
    for (const l of letters) {
      expect(isLost(l), l).toBe(false)
      expect(isLost(l.toUpperCase()), l.toUpperCase()).toBe(false)
    }
  })
  it('a name is split by what each face holds, and put together it is the same', () => {
    const name = 'Łódź-Młyn, Čáslav, Αθήνα, Київ'
    const runs = runsOf(name)
    expect(runs.map(r => r.text).join('')).toBe(name)
    expect(new Set(runs.map(r => r.font)).size).toBeGreaterThan(3)
    expect(runsOf('Harbour crew, 12 m').length).toBe(1)
  })
  it('what no face holds is a question mark, not a box', () => expect(runsOf('漢').map(r => r.text)).toEqual(['?']))
  it('a drawing names the face of what its own lacks, and leaves the rest as it was', () => {
    expect(svgInFaces('<text x="1">Hall</text>')).toBe('<text x="1">Hall</text>')
    expect(svgInFaces('<text x="1">Młyn</text>')).toMatch(/M<tspan font-family="[^"]+">ł<\/tspan>yn/)
  })
  it('every sign of our own texts is held, or written as a word', () => {
    const files = (folder: string): string[] =>
      readdirSync(folder).flatMap(f => {
        const path = join(folder, f)
        return statSync(path).isDirectory() ? files(path) : /\.ts$/.test(f) && !/test\.ts$/.test(f) ? [path] : []
      })
    const root = join(import.meta.dirname, '../../core')
    const signs = new Set<string>()
    for (const f of files(root))
      for (const line of readFileSync(f, 'utf8').split('\n'))
        // Comments are nobody's paper.
        if (!/^\s*(\*|\/\/|\/\*)/.test(line))
          for (const s of line.replace(/\/\/.*$|\/\*.*\*\//g, '')) if (s > '\u007f') signs.add(s)
    const lost = [...signs].filter(s => isLost(printable(s)))
    expect(lost).toEqual([])
  })
})
