export { flatten, isStraight, outlineOf } from './outline'
export type { Outline } from './outline'
export { facingOf, jointLossDb, partOf, treeOf, turned } from './tree'
export type { AntennaNode, Joint, TreeNode } from './tree'
