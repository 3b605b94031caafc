export { flatten, isStraight, outlineOf } from './outline'
export type { Outline } from './outline'
export { facingOf, isCable, jointLossDb, jointM, lineOf, partOf, treeOf, turned } from './tree'
export type { AntennaNode, Joint, TreeNode } from './tree'
