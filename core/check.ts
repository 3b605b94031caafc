/** Range checks that say what was asked and what came. */

/**
 * @returns the value itself, so that a check can stand inside an expression
 * @throws RangeError where the value is not a finite number within low…high
 */
export function inRange(name: string, value: number, low: number, high: number): number {
  if (!Number.isFinite(value) || value < low || value > high) {
    throw new RangeError(`${name} must be within ${text(low)}…${text(high)}, got ${value}`)
  }
  return value
}

/** @throws RangeError where the value is not a finite number above zero */
export function positive(name: string, value: number): number {
  if (!Number.isFinite(value) || value <= 0) throw new RangeError(`${name} must be above 0, got ${value}`)
  return value
}

/** @throws RangeError where the value is not a finite number */
export function finite(name: string, value: number): number {
  if (!Number.isFinite(value)) throw new RangeError(`${name} must be a number, got ${value}`)
  return value
}

const text = (n: number): string => (n === Infinity ? '∞' : n === -Infinity ? '−∞' : String(n))
