import type { Change } from '#core/job/schema'

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
  const validate = validators[`${change.table}_${change.op === 'insert' ? 'row' : 'part'}`]
  if (validate(change.fields)) return []
  const errors = validate.errors ?? []
  const leaf = errors.filter(e => e.keyword !== 'anyOf' && !(e.keyword === 'type' && e.params.type === 'null'))
  return (leaf.length ? leaf : errors).map(e => ({ field: e.instancePath.slice(1), message: plain(e) }))
}

function plain(e: { keyword: string; message?: string; params: Record<string, unknown> }): string {
  if (e.keyword === 'minimum') return `must be ${e.params.limit} or more`
  if (e.keyword === 'maximum') return `must be ${e.params.limit} or less`
  if (e.keyword === 'type') return `must be a ${e.params.type}`
  if (e.keyword === 'minLength') return 'must not be empty'
  if (e.keyword === 'maxLength') return `must be at most ${e.params.limit} characters`
  return e.message ?? 'does not fit'
}
