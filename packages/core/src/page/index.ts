/** Reading pages and editing their bytes. */
export { PageError, MAX_PAGE_BYTES, MAX_DEPTH, type PageErrorCode } from './errors.ts'
export { decodePage, textOfBytes, encodeText, byteOffsets, type DecodedText, type TextPlace } from './encoding.ts'
export { Lines, type Place } from './lines.ts'
export { textOf, parseTree, contains, type El, type Tree, type WrittenPiece } from './tree.ts'
export { hashOf, decodeFragment, Targets } from './fragment.ts'
export { readAddress, resolvePath, type LinkStatus, type Address } from './links.ts'
export { assetPath, followAssets, type Asset, type FoundFile } from './assets.ts'
export {
  parsePage,
  readPage,
  readParsed,
  type PageReading,
  type ParsedPage,
  type Candidate,
  type PageLink,
  type ReadMenu,
  type ElementAt,
  type ReadId,
} from './read.ts'
export { splice, undoSplices, type Splice } from './splice.ts'
export { ANCHOR, type Settings, type Written, type WrittenSettings } from './written.ts'
export { inlineScripts, undeclaredNames } from './scripts.ts'
export { inlineStyles, namedIds, renamedReference, type NamedIds, type Reference } from './references.ts'
export { starterPage } from './starter.ts'
export { stampPage } from './stamp.ts'
export { attributeRange, nameEnd } from './attribute.ts'
