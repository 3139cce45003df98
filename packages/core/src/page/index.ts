/** Reading pages and editing their bytes. */
export { PageError, MAX_PAGE_BYTES, MAX_DEPTH, type PageErrorCode } from './errors.ts'
export { decodePage, textOfBytes, encodeText, byteOffsets, type DecodedText, type TextPlace } from './encoding.ts'
export { Lines, type Place } from './lines.ts'
export { textOf, parseTree, contains, type El, type ElementAt, type Tree, type WrittenPiece } from './tree.ts'
export type { MenuEntry, MenuList } from './entries.ts'
export { Targets } from './fragment.ts'
export { meansFile, readAddress, relativePath, resolvePath, type LinkStatus, type Address } from './links.ts'
export { assetPath, followAssets, type Asset, type FoundFile } from './assets.ts'
export {
  parsePage,
  readPage,
  readParsed,
  type PageReading,
  type ParsedPage,
  type Looks,
  type Candidate,
  type PageLink,
  type ReadMenu,
  type ReadId,
} from './read.ts'
export { splice, undoSplices, type Splice } from './splice.ts'
export type { Written, WrittenItem, WrittenMenu } from './written.ts'
export { hostedIds } from './hosted.ts'
export { inlineScripts, registersWorker, undeclaredNames } from './scripts.ts'
export { inlineStyles, namedIds, renamedReference, type NamedIds, type Reference } from './references.ts'
export { starterPage } from './starter.ts'
export { stampEdits, stampPage } from './stamp.ts'
export { attributeRange, nameEnd } from './attribute.ts'
export { canBeLink, linkRange, type Range } from './linkable.ts'
