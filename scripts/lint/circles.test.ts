/** No module needs itself by way of others, what is imported of itself by its name included. */
import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join, normalize, relative } from 'node:path'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '../..')
const ALIASES: Record<string, string> = { '#core': 'core', '#demo': 'demo', '~~': '.', '~': 'app', '@': 'app' }
const sources = execFileSync('git', ['ls-files', 'app', 'core', 'server', 'shared'], { cwd: ROOT, encoding: 'utf8' })
  .split('\n')
  .filter(f => /\.(ts|vue)$/.test(f) && !/\.test\.ts$/.test(f) && existsSync(join(ROOT, f)))
const known = new Set(sources)

const fileOf = (path: string): string | null =>
  [path, `${path}.ts`, `${path}.vue`, `${path}/index.ts`].find(p => known.has(p)) ?? null

function target(from: string, specifier: string): string | null {
  if (specifier.startsWith('.')) return fileOf(normalize(join(dirname(from), specifier)))
  const alias = Object.keys(ALIASES).find(a => specifier === a || specifier.startsWith(`${a}/`))
  return alias ? fileOf(normalize(join(ALIASES[alias]!, specifier.slice(alias.length + 1)))) : null
}

/** Names that the interface takes without importing them, and where they are. */
function takenByName(): Map<string, string> {
  const list = join(ROOT, '.nuxt/imports.d.ts')
  const names = new Map<string, string>()
  for (const [, list_, from] of readFileSync(list, 'utf8').matchAll(/^export \{ ([^}]+) \} from '([^']+)'/gm)) {
    const file = fileOf(relative(ROOT, normalize(join(ROOT, '.nuxt', from!))))
    if (file) for (const name of list_!.split(',')) names.set(name.trim().split(' as ').at(-1)!, file)
  }
  return names
}

const SCRIPT = /<script[^>]*>([\s\S]*?)<\/script>/
/** @returns names that a module uses and does not declare, those of a template too */
function usedNames(text: string): Set<string> {
  const script = SCRIPT.exec(text)?.[1] ?? text
  const [used, own] = [new Set<string>(), new Set<string>()]
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node)) return
    if (ts.isIdentifier(node)) {
      const { parent } = node as { parent: ts.Node & { name?: ts.Node; propertyName?: ts.Node } }
      if (ts.isPropertyAccessExpression(parent) && parent.name === node) return
      ;(parent.name === node || parent.propertyName === node ? own : used).add(node.text)
    }
    ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile('x.ts', script, ts.ScriptTarget.Latest, true))
  const template = text.split('<template>')[1] ?? ''
  for (const [word] of template.matchAll(/(?<![\w.'"$-])[A-Za-z]\w+(?=\()/g)) used.add(word)
  return new Set([...used].filter(n => !own.has(n)))
}

/** @returns the modules that each needs when it runs: types are gone by then */
function graph(): Map<string, Set<string>> {
  const byName = takenByName()
  return new Map(
    sources.map(file => {
      const text = readFileSync(join(ROOT, file), 'utf8').replace(/\/\*[\s\S]*?\*\//g, '')
      const needs = new Set<string>()
      for (const [, type, specifier] of text.matchAll(/^(?:import|export) (type )?[^'\n]*(?:\n[^'\n]*)*?from '([^']+)'/gm)) {
        const to = type ? null : target(file, specifier!)
        if (to) needs.add(to)
      }
      if (file.startsWith('app/'))
        for (const word of usedNames(text)) {
          const to = byName.get(word)
          if (to && to !== file) needs.add(to)
        }
      return [file, needs]
    }),
  )
}

/** @returns the first circle there is, as a way round it; null where there is none */
function circle(of: Map<string, Set<string>>): string[] | null {
  const done = new Set<string>()
  const way: string[] = []
  const visit = (file: string): string[] | null => {
    if (way.includes(file)) return [...way.slice(way.indexOf(file)), file]
    if (done.has(file)) return null
    way.push(file)
    for (const next of of.get(file) ?? []) {
      const found = visit(next)
      if (found) return found
    }
    way.pop()
    done.add(file)
    return null
  }
  for (const file of of.keys()) {
    const found = visit(file)
    if (found) return found
  }
  return null
}

describe('modules', () => {
  it('a circle is found', () => {
    expect(
      circle(
        new Map([
          ['a', new Set(['b'])],
          ['b', new Set(['c'])],
          ['c', new Set(['b'])],
        ]),
      ),
    ).toEqual(['b', 'c', 'b'])
  })
  it('need no circle', () => {
    const needs = graph()
    expect([...needs.values()].reduce((n, s) => n + s.size, 0)).toBeGreaterThan(1000)
    // By its own import, and by its name alone.
    expect([...needs.get('app/stores/job.ts')!]).toEqual(expect.arrayContaining(['app/job/held-job.ts', 'app/stores/sending.ts']))
    expect(circle(needs)).toBeNull()
  })
})
