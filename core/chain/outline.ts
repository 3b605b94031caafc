/** A signal tree as a person reads it: feeds that are alike side by side, told once. */
import { nth } from '../sure'
import type { Joint, Tree, TreeNode, Visit } from './tree'

export interface Outline {
  at: TreeNode
  joint: Joint | null
  visit: Visit
  /** the same part and cable of the other feeds, where those are built alike */
  twins: { at: TreeNode; joint: Joint | null }[]
  children: Outline[]
  /** how deep it stands, 0 at a donor; a way without forks stays at its depth */
  depth: number
}

/** @returns one root a donor; empty where there is none */
export function outlineOf(tree: Tree): Outline[] {
  const children = new Map<number, number[]>()
  tree.visits.forEach((v, i) => children.set(v.parent, [...(children.get(v.parent) ?? []), i]))
  const build = (index: number, depth: number): Outline => {
    const visit = nth(tree.visits, index)
    const next = children.get(index) ?? []
    return {
      at: visit.at,
      joint: visit.joint,
      visit,
      twins: [],
      children: next.map(i => build(i, depth + (next.length > 1 ? 1 : 0))),
      depth,
    }
  }
  return tree.donors.map(donor => {
    const feeds = tree.visits.flatMap((v, i) => (v.parent < 0 && v.at.node.id === donor.node.id ? [i] : [])).map(i => build(i, 0))
    const ways = feeds.flatMap(f => f.children)
    const alike: Outline[] = []
    for (const way of ways) {
      const same = alike.find(a => signature(a) === signature(way))
      if (same) pair(same, way)
      else alike.push(way)
    }
    const deeper = alike.length > 1 ? 1 : 0
    return { ...nth(feeds, 0), children: alike.map(a => (deeper ? shifted(a) : a)) }
  })
}

const signature = (o: Outline): string => `${o.at.part.id}/${o.joint?.run.partId ?? ''}(${o.children.map(signature).join()})`

function pair(a: Outline, b: Outline): void {
  a.twins.push({ at: b.at, joint: b.joint })
  a.children.forEach((c, i) => pair(c, nth(b.children, i)))
}

const shifted = (o: Outline): Outline => ({ ...o, depth: o.depth + 1, children: o.children.map(shifted) })

/** @returns every part of an outline, each before what hangs on it */
export const flatten = (o: Outline): Outline[] => [o, ...o.children.flatMap(flatten)]

/** @returns whether a tree is one way without forks: what a strip can show */
export const isStraight = (roots: readonly Outline[]): boolean =>
  roots.length === 1 && flatten(nth(roots, 0)).every(o => o.children.length <= 1)
