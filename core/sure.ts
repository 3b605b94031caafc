/** What must be there by what was built before. Where it is not, the program is wrong: it stops here, by name, and no NaN goes on. */

/** @returns the element at a place of a list. Loops over millions of samples read their arrays themselves. @throws RangeError */
export function nth<T>(list: ArrayLike<T>, i: number): T {
  const value = list[i]
  if (value === undefined) throw new RangeError(`place ${i} of ${list.length}`)
  return value
}

/** @returns the last element of a list that is not empty. @throws RangeError */
export const lastOf = <T>(list: ArrayLike<T>): T => nth(list, list.length - 1)

/** @returns the value kept under a key. @throws RangeError */
export function entryOf<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key)
  if (value === undefined) throw new RangeError(`nothing is kept under ${String(key)}`)
  return value
}

/** @returns the value, which is neither null nor undefined. @throws RangeError */
export function sure<T>(value: T): NonNullable<T> {
  if (value === undefined || value === null) throw new RangeError('a value that must be known is missing')
  return value
}
