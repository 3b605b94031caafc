/**
 * Sealing: everything of a customer lies on the device as AES-GCM under a key that cannot be taken out
 * of the browser and goes when its owner signs out.
 * @source NIST SP 800-38D (GCM): a 96-bit nonce, random, never used twice under one key
 */

export interface Sealed {
  nonce: Uint8Array<ArrayBuffer>
  data: ArrayBuffer
}

/** @param raw  32 bytes, base64, as the server made them for this member and device */
export async function keyOf(raw: string): Promise<CryptoKey> {
  const bytes = Uint8Array.from(atob(raw), c => c.charCodeAt(0))
  return crypto.subtle.importKey('raw', bytes, 'AES-GCM', false, ['encrypt', 'decrypt'])
}

export async function sealBytes(key: CryptoKey, bytes: BufferSource): Promise<Sealed> {
  const nonce = crypto.getRandomValues(new Uint8Array(12))
  return { nonce, data: await crypto.subtle.encrypt({ name: 'AES-GCM', iv: nonce }, key, bytes) }
}

export const unsealBytes = (key: CryptoKey, s: Sealed): Promise<ArrayBuffer> =>
  crypto.subtle.decrypt({ name: 'AES-GCM', iv: s.nonce }, key, s.data)

export const seal = (key: CryptoKey, value: unknown): Promise<Sealed> =>
  sealBytes(key, new TextEncoder().encode(JSON.stringify(value)))

/** @throws where it was sealed by another key or changed since */
export async function unseal<T>(key: CryptoKey, s: Sealed): Promise<T> {
  return JSON.parse(new TextDecoder().decode(await unsealBytes(key, s))) as T
}
