/**
 * Where the ticks of a scale from 0 stand: whole steps of 1, 2 or 5 times a power of ten.
 *
 * @param top  the largest value shown, > 0
 * @param most  as many steps at most, >= 1
 * @returns from 0 up to the first step at or over `top`
 * @throws RangeError  where the largest value is not a number over 0
 * @source common practice (no source)
 */
export function ticksFromZero(top: number, most = 5): number[] {
  if (!(top > 0) || !Number.isFinite(top)) throw new RangeError(`top must be over 0, got ${top}`)
  const power = 10 ** Math.floor(Math.log10(top / most))
  const step = [1, 2, 5, 10].map(f => f * power).find(s => s * most >= top * (1 - 1e-9)) ?? 10 * power
  const count = Math.ceil(top / step - 1e-9)
  return Array.from({ length: count + 1 }, (_, i) => Number((i * step).toPrecision(12)))
}
