import type { Change } from '#core/job'

type Validators = typeof import('~/generated/validators')
let validators: Validators | null = null

/** Brings what checks a change: a job that is opened needs it, the first page does not. */
export async function loadValidators(): Promise<void> {
  validators ??= await import('~/generated/validators')
}

/**
 * @returns what is wrong with a change's fields, each beside its field; empty where they fit
 * @throws Error before the validators are there
 */
export function changeErrors(change: Pick<Change, 'table' | 'op' | 'fields'>): { field: string; message: string }[] {
  if (change.op === 'delete') return []
  if (!validators) throw new Error('nothing to check a change by')
  const fields = validators.FIELDS[change.table]!
  const given = Object.entries(change.fields)
  const missing = change.op === 'insert' ? Object.keys(fields).filter(f => !Object.hasOwn(change.fields, f)) : []
  return [
    ...(given.length ? [] : [{ field: '', message: 'holds nothing' }]),
    ...missing.map(field => ({ field, message: 'is missing' })),
    ...given.flatMap(([field, value]) => {
      const check = Object.hasOwn(fields, field) ? fields[field] : undefined
      if (!check) return [{ field, message: 'is no field of this' }]
      if (check(value)) return []
      const errors = check.errors ?? []
      const leaf = errors.filter(e => e.keyword !== 'anyOf' && !(e.keyword === 'type' && e.params.type === 'null'))
      return (leaf.length ? leaf : errors).map(e => ({ field: field + e.instancePath, message: plain(e) }))
    }),
  ]
}

function plain(e: { keyword: string; params: Record<string, unknown> }): string {
  if (e.keyword === 'minimum') return `must be ${e.params.limit} or more`
  if (e.keyword === 'maximum') return `must be ${e.params.limit} or less`
  if (e.keyword === 'type') return `must be a ${e.params.type}`
  if (e.keyword === 'minLength') return 'must not be empty'
  if (e.keyword === 'maxLength') return `must be at most ${e.params.limit} characters`
  if (e.keyword === 'enum') return `must be one of ${(e.params.allowedValues as string[]).join(', ')}`
  if (e.keyword === 'required') return `lacks “${e.params.missingProperty}”`
  if (e.keyword === 'minItems') return `must hold at least ${e.params.limit}`
  if (e.keyword === 'maxItems') return `must hold at most ${e.params.limit}`
  if (e.keyword === 'pattern' || e.keyword === 'format') return 'is not of the form that is kept there'
  return 'does not fit'
}
