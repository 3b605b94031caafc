/** The rest of the program enters a room of `core` by its front: `#core/job`, not `#core/job/schema`. */

const DEEP = /(?:^#core|(?:^|\/)core)\/[\w-]+\/[\w-]+/

/** @type {import('eslint').Rule.RuleModule} */
export const byTheFront = {
  create: context => {
    const check = (/** @type {any} */ node) => {
      const from = node.source?.value
      if (typeof from === 'string' && DEEP.test(from))
        context.report({
          node,
          message: `enter by the front: ${from.replace(/\/[\w-]+$/, '')}, and add to its index.ts what is missing`,
        })
    }
    return { ImportDeclaration: check, ExportNamedDeclaration: check, ImportExpression: check }
  },
}
