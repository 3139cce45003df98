/**
 * The contract: what handed-over pages carry, and how a hash is resolved. Shared by core, script and agent; without imports and DOM, so
 * that pages can carry it.
 */
export { arrangement, type Token } from './arrangement.ts'
export * from './attributes.ts'
export { coversEdge, isFixed, isInReach, lasts, SCROLLS, SPREADS } from './box.ts'
export { decodeFragment, fragmentOf, hashOf, indicated, isElsewhere, type Indicated } from './hash.ts'
export { NO_WORDS, whyNoLink, wordsIn, type NoLink, type Walk } from './linkable.ts'
export { madeMenuNamed, madeText, readMade, type MadeWords } from './made-words.ts'
export {
  entryOf,
  MARK_STYLES,
  markClassOf,
  markRule,
  markStyles,
  markText,
  openersOf,
  type Mark,
  type MarkClass,
  type MarkStyle,
} from './marks.ts'
export { EASINGS, motionText, readMotion, timeOf, TIMES, type Easing, type Motion, type Timed } from './motion.ts'
export { pieceTags, roleOf, type Piecelike, type PieceRole } from './pieces.ts'
export { ADDRESS_RULES, FILLS, readSettings, type AddressRule, type Settings, type WrittenSettings } from './settings.ts'
