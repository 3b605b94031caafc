/** A small seeded generator, so that a simulation gives the same answer twice. */

/** @returns uniform numbers in 0 ≤ x < 1. @source mulberry32, public domain (T. Ettinger) */
export function seeded(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), a | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** @returns standard normal numbers. @source Box and Muller, Ann. Math. Statist. 29 (1958) */
export function normals(uniform: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
}
