import { v7 as uuidv7 } from 'uuid'
import { BARE_SETUP } from '#core/job'
import type { SetupRow } from '#core/job'
import { setUpsOf } from '#core/survey'
import type { SetUp } from '#core/survey'

type Fields = Omit<SetupRow, 'id' | 'version'>

/** Set-ups of the job, and a copy of one with something changed. */
export function useSetups() {
  const store = useOpened()
  const all = computed(() => [...setUpsOf(store.doc).values()])
  const error = ref('')

  /**
   * One that is there already is taken instead of another like it: what it is called makes no other of it.
   * @returns its id; null where it could not be kept, told in `error`
   */
  async function copyOf(from: SetUp | null, changed: Partial<SetupRow>, mark: SetupRow['mark']): Promise<string | null> {
    error.value = ''
    const { id: _id, version: _version, ...base } = (from?.row ?? BARE_SETUP) as Fields & { id?: string; version?: number }
    const next: Fields = { ...base, name: null, mark, ...changed }
    const same = all.value.find(s => Object.entries(next).every(([k, v]) => k === 'name' || s.row[k as keyof SetupRow] === v))
    if (same) return same.row.id
    const rowId = uuidv7()
    const bad = await store.commit([{ table: 'setups', op: 'insert', rowId, fields: next }], 'a set-up')
    error.value = bad[0]?.message ?? ''
    return bad.length ? null : rowId
  }
  return { all, copyOf, error }
}
