/** What the device will not take, as an error: where a press is what failed, and no field stands beside it. */
export function throwRefused(errors: readonly { field: string; message: string }[], withField = false): void {
  const [first] = errors
  if (first) throw new RangeError(withField ? `${first.field} ${first.message}` : first.message)
}
