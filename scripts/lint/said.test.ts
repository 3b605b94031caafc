/** Words with a quantity become text by `say` alone: nothing puts them into a template, joins them or adds to them. */
import { join } from 'node:path'
import ts from 'typescript'
import { expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '../..')
const OPTIONS: ts.CompilerOptions = {
  ...{ strict: true, noEmit: true, skipLibCheck: true, noUncheckedIndexedAccess: true, allowImportingTsExtensions: true },
  ...{ target: ts.ScriptTarget.ESNext, module: ts.ModuleKind.ESNext, moduleResolution: ts.ModuleResolutionKind.Bundler },
  types: [],
}

/** @returns where words are taken as text, `file:line` each */
function wrong(files: string[], extra: Record<string, string> = {}): string[] {
  const host = ts.createCompilerHost(OPTIONS)
  const { readFile, fileExists, getSourceFile } = host
  host.fileExists = f => f in extra || fileExists(f)
  host.readFile = f => extra[f] ?? readFile(f)
  host.getSourceFile = (f, target) => (f in extra ? ts.createSourceFile(f, extra[f]!, target, true) : getSourceFile(f, target))
  const program = ts.createProgram([...files, ...Object.keys(extra)], OPTIONS, host)
  const checker = program.getTypeChecker()
  const isWords = (type: ts.Type): boolean =>
    type.isUnion()
      ? type.types.some(isWords)
      : !!type.getProperty('said') || !!type.getProperty('siteM') || !!type.getProperty('landM')
  const isList = (type: ts.Type): boolean => {
    const [of] = checker.isArrayType(type) || checker.isTupleType(type) ? checker.getTypeArguments(type as ts.TypeReference) : []
    return !!of && isWords(of)
  }
  const found: string[] = []
  for (const file of program.getSourceFiles()) {
    if (file.fileName.includes('/node_modules/') || (files.length && file.fileName.endsWith('.test.ts'))) continue
    const told = (node: ts.Node) =>
      found.push(`${file.fileName.replace(`${ROOT}/`, '')}:${file.getLineAndCharacterOfPosition(node.getStart()).line + 1}`)
    const visit = (node: ts.Node): void => {
      if (ts.isTemplateExpression(node) && !ts.isTaggedTemplateExpression(node.parent))
        for (const span of node.templateSpans) if (isWords(checker.getTypeAtLocation(span.expression))) told(span)
      if (ts.isBinaryExpression(node) && node.operatorToken.kind === ts.SyntaxKind.PlusToken)
        for (const side of [node.left, node.right]) if (isWords(checker.getTypeAtLocation(side))) told(side)
      if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression) && node.expression.name.text === 'join')
        if (isList(checker.getTypeAtLocation(node.expression.expression))) told(node)
      if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && node.expression.text === 'String')
        for (const a of node.arguments) if (isWords(checker.getTypeAtLocation(a))) told(node)
      ts.forEachChild(node, visit)
    }
    visit(file)
  }
  return found
}

it('finds words in a template, a sum, a join and String()', () => {
  const file = join(ROOT, 'core/example.ts')
  const text = [
    "import { metres, words } from './words'",
    'const w = words`up ${metres(1)}`',
    'export const a = [`so ${w}`, `so ${metres(2)}`, [w].join(), String(w)]',
    "export const b = 'so ' + w",
    'export const c = words`so ${w}`',
  ].join('\n')
  expect(wrong([], { [file]: text })).toEqual([3, 3, 3, 3, 4].map(line => `core/example.ts:${line}`))
})

it('core and the server say words before they make text of them', () => {
  const files = ts.sys.readDirectory(
    ROOT,
    ['.ts'],
    ['**/node_modules', '**/*.test.ts', '**/*.d.ts'],
    ['core/**/*', 'server/services/**/*'],
  )
  expect(files.length).toBeGreaterThan(150)
  expect(wrong(files)).toEqual([])
}, 60_000)
