/**
 * Handlers in templates act. Two ways in which one silently does nothing are refused:
 * a function that returns a function is called once too few, and an inline call beside an `update:` event drops its value.
 */

/** @param {any} node @returns {any} the function's own result, where it is one expression or one return */
function resultOf(node) {
  if (node?.type !== 'ArrowFunctionExpression' && node?.type !== 'FunctionExpression' && node?.type !== 'FunctionDeclaration')
    return null
  if (node.body.type !== 'BlockStatement') return node.body
  return node.body.body.find((/** @type {any} */ s) => s.type === 'ReturnStatement')?.argument ?? null
}

/** How many calls in a row a call chain makes: `f(a)(b)` makes two. @param {any} node @returns {{ name: string | null, calls: number }} */
function chainOf(node) {
  let calls = 0
  let at = node
  while (at?.type === 'CallExpression') {
    calls++
    at = at.callee
  }
  return { name: at?.type === 'Identifier' ? at.name : null, calls }
}

/**
 * How many calls a declared function takes before it does anything.
 * @param {any} node @param {Map<string, any>} declared @param {number} depth @returns {number}
 */
function callsWanted(node, declared, depth = 0) {
  if (depth > 6) return 0
  const result = resultOf(node)
  if (!resultOf(node) && !(node?.type ?? '').includes('Function')) return 0
  if (!result) return 1
  if (result.type.includes('Function')) return 1 + callsWanted(result, declared, depth + 1)
  const { name, calls } = chainOf(result)
  const of = name && declared.has(name) ? callsWanted(declared.get(name), declared, depth + 1) : 0
  return 1 + Math.max(0, of - calls)
}

/** @type {import('eslint').Rule.RuleModule} */
export const actingHandlers = {
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      curried: '{{ name }} returns a function, which nobody calls: pass it as a value, or call it with what the event brings',
      dropped: 'this call drops the value that the event brings: pass a function, or use $event',
    },
  },
  create(context) {
    const services = /** @type {any} */ (context.sourceCode.parserServices)
    if (!services.defineTemplateBodyVisitor) return {}
    /** @type {Map<string, any>} */
    const declared = new Map()
    for (const node of context.sourceCode.ast.body) {
      if (node.type === 'FunctionDeclaration' && node.id) declared.set(node.id.name, node)
      if (node.type === 'VariableDeclaration')
        for (const d of node.declarations) if (d.id.type === 'Identifier' && d.init) declared.set(d.id.name, d.init)
    }
    return services.defineTemplateBodyVisitor({
      /** @param {any} node */
      VOnExpression(node) {
        for (const statement of node.body) {
          if (statement.type !== 'ExpressionStatement') continue
          const call = statement.expression
          const { name, calls } = chainOf(call)
          if (name && calls && declared.has(name) && callsWanted(declared.get(name), declared) > calls) {
            context.report({ node, messageId: 'curried', data: { name } })
            continue
          }
          const argument = node.parent?.parent?.key?.argument
          const event = argument?.type === 'VIdentifier' ? argument.rawName : ''
          const takes = context.sourceCode.getText(node).includes('$event')
          if (event.startsWith('update:') && call.type === 'CallExpression' && !takes)
            context.report({ node, messageId: 'dropped' })
        }
      },
    })
  },
}
