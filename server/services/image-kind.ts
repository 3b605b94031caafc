/** What the first bytes say, whatever the name does. */
const KINDS: readonly (readonly [string, readonly number[]])[] = [
  ['image/png', [0x89, 0x50, 0x4e, 0x47]],
  ['image/jpeg', [0xff, 0xd8, 0xff]],
  ['image/webp', [0x52, 0x49, 0x46, 0x46]],
]

/** @returns the kind of picture that bytes are; null where they are none that is kept */
export const imageKind = (bytes: Uint8Array): string | null =>
  KINDS.find(([, head]) => head.every((b, i) => bytes[i] === b))?.[0] ?? null
