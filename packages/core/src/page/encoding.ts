/**
 * Bytes to text and back without loss. A page is edited in its bytes, while the parser uses positions in decoded text; `byteOffsets`
 * translates, even where bytes don't round-trip. Inserted text uses the page's own character set.
 * @see Encoding Standard; HTML, "determining the character encoding"
 */

import { getBOMEncoding, TextDecoder as LegacyDecoder } from '@exodus/bytes/encoding.js'
import sniff from 'html-encoding-sniffer'

export interface DecodedText {
  text: string
  /** Encoding Standard name in lower case, such as `utf-8` or `shift_jis`. */
  encoding: string
  /** False without byte order mark and `meta`: then only ASCII is safe to insert. */
  declared: boolean
  /** Length in bytes of the byte order mark, 0 without one. */
  bomLength: number
}

interface Decoder {
  decode: (bytes?: Uint8Array, options?: { stream?: boolean }) => string
}

/** Finds the encoding as a browser does, and decodes. Undeclared bytes are UTF-8 if valid. */
export function decodePage(bytes: Uint8Array): DecodedText {
  const { encoding, declared, bomLength } = findEncoding(bytes)
  return { text: textOfBytes(encoding, bytes.subarray(bomLength)), encoding, declared, bomLength }
}

export const textOfBytes = (encoding: string, bytes: Uint8Array): string => decoderFor(encoding).decode(bytes)

/**
 * The platform's decoder for Unicode, because it's fast; the library's for the rest, because Node lacks some and gets windows-1252
 * wrong. `ignoreBOM`: the mark is cut off already, and a second one is a character.
 */
const decoderFor = (encoding: string): Decoder =>
  encoding.startsWith('utf-') ? new TextDecoder(encoding, { ignoreBOM: true }) : new LegacyDecoder(encoding, { ignoreBOM: true })

function findEncoding(bytes: Uint8Array): Omit<DecodedText, 'text'> {
  const mark = getBOMEncoding(bytes)
  if (mark) return { encoding: mark, declared: true, bomLength: mark === 'utf-8' ? 3 : 2 }
  const wide = wideWithoutMark(bytes)
  if (wide) return { encoding: wide, declared: true, bomLength: 0 }
  const named = namedEncoding(bytes)
  if (named) return { encoding: named, declared: true, bomLength: 0 }
  return { encoding: isUtf8(bytes) ? 'utf-8' : 'windows-1252', declared: false, bomLength: 0 }
}

/**
 * The encoding of a `meta`: in the first 1,024 bytes, which are scanned before parsing, or later in the head, where it restarts the
 * parser.
 * @see HTML, "encoding sniffing algorithm" and "changing the encoding while parsing"
 */
function namedEncoding(bytes: Uint8Array): string | null {
  // An invalid default tells “found” from “not found”.
  const early = sniff(bytes, { defaultEncoding: '' }).toLowerCase()
  if (early) return early
  const head = Array.from({ length: Math.ceil(bytes.length / 8192) }, (_, i) => i * 8192)
  let text = ''
  for (const from of head) {
    text += String.fromCharCode(...bytes.subarray(from, from + 8192))
    if (/<\/head|<body/i.test(text) || text.length > 262144) break
  }
  const blank = (m: string) => ' '.repeat(m.length)
  const markup = text.replace(/<!--[\s\S]*?(-->|$)/g, blank).replace(/<(script|style|noscript|template)\b[\s\S]*?(<\/\1|$)/gi, blank)
  const end = markup.search(/<\/head|<body/i)
  for (const { index } of markup.slice(0, end < 0 ? undefined : end).matchAll(/<meta[\s/]/gi)) {
    const late = sniff(bytes.subarray(index, index + 1024), { defaultEncoding: '' }).toLowerCase()
    if (late) return late
  }
  return null
}

/** UTF-16 without a mark: only when every other byte at the start is NUL. */
function wideWithoutMark(bytes: Uint8Array): string | null {
  const n = Math.min(bytes.length, 64) & ~1
  if (n < 8) return null
  let even = 0
  let odd = 0
  for (let i = 0; i < n; i += 2) {
    if (bytes[i] === 0) even++
    if (bytes[i + 1] === 0) odd++
  }
  if (odd === n / 2 && even === 0) return 'utf-16le'
  return even === n / 2 && odd === 0 ? 'utf-16be' : null
}

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return true
  } catch {
    return false
  }
}

/**
 * Byte offsets of positions in the decoded text.
 * @param positions in rising order; one inside a character gives that character's first byte
 */
export function byteOffsets(bytes: Uint8Array, page: DecodedText, positions: readonly number[]): number[] {
  const { encoding, bomLength, text } = page
  if (encoding.startsWith('utf-16')) return positions.map((p) => Math.min(bomLength + 2 * p, bytes.length))
  if (text.length === bytes.length - bomLength) return positions.map((p) => bomLength + p)
  const out: number[] = []
  const decoder = decoderFor(encoding)
  // In these encodings an ASCII byte may be part of a longer sequence, so every byte goes through the decoder.
  const stateful = /^(gb|iso-2022)/.test(encoding)
  const one = new Uint8Array(1)
  let chars = 0
  let begin = bomLength // First byte of the current character.
  let previousAscii = true
  for (let i = bomLength; i < bytes.length && out.length < positions.length; i++) {
    const byte = bytes[i]!
    if (byte < 0x80 && previousAscii && !stateful) {
      while (out.length < positions.length && positions[out.length]! <= chars) out.push(begin)
      chars++
      begin = i + 1
      continue
    }
    one[0] = byte
    const got = decoder.decode(one, { stream: true })
    previousAscii = byte < 0x80
    if (!got) continue
    while (out.length < positions.length && positions[out.length]! <= chars) out.push(begin)
    // A broken sequence yields its replacement and the ASCII byte that broke it.
    if (got.length > 1 && previousAscii && got.charCodeAt(got.length - 1) === byte) {
      chars += got.length - 1
      while (out.length < positions.length && positions[out.length]! <= chars) out.push(i)
      chars++
    } else chars += got.length
    begin = i + 1
  }
  while (out.length < positions.length) out.push(positions[out.length]! <= chars ? begin : bytes.length)
  return out
}

/** Context of inserted text, which decides how missing characters are escaped. */
export type TextPlace = 'html' | 'css' | 'js'

const escapes: Record<TextPlace, (code: number) => string> = {
  html: (code) => `&#x${code.toString(16)};`,
  css: (code) => `\\${code.toString(16)} `,
  js: (code) =>
    [...String.fromCodePoint(code)]
      .flatMap((c) => c.split(''))
      .map((unit) => `\\u${unit.charCodeAt(0).toString(16).padStart(4, '0')}`)
      .join(''),
}

/** Encodes text for the page; escapes characters that the encoding lacks, and all non-ASCII if it's undeclared. */
export function encodeText(text: string, page: Pick<DecodedText, 'encoding' | 'declared'>, place: TextPlace): Uint8Array {
  const { encoding, declared } = page
  if (encoding.startsWith('utf-16')) {
    const out = new Uint8Array(text.length * 2)
    const view = new DataView(out.buffer)
    for (let i = 0; i < text.length; i++) view.setUint16(i * 2, text.charCodeAt(i), encoding === 'utf-16le')
    return out
  }
  if (encoding === 'utf-8' && declared) return new TextEncoder().encode(text)
  const table = declared ? encodeTable(encoding) : null
  const out: number[] = []
  for (const char of text) {
    const code = char.codePointAt(0)!
    const known = code < 0x80 ? [code] : table?.get(char)
    if (known) out.push(...known)
    else for (const c of escapes[place](code)) out.push(c.charCodeAt(0))
  }
  return Uint8Array.from(out)
}

const tables = new Map<string, Map<string, number[]>>()

/** Character to bytes, built by decoding every one- and two-byte sequence. */
function encodeTable(encoding: string): Map<string, number[]> {
  const known = tables.get(encoding)
  if (known) return known
  const table = new Map<string, number[]>()
  const add = (bytes: number[]) => {
    const got = textOfBytes(encoding, Uint8Array.from(bytes))
    if (got.length === 1 && got !== '\ufffd' && got.charCodeAt(0) >= 0x80 && !table.has(got)) table.set(got, bytes)
  }
  for (let a = 0x80; a < 0x100; a++) add([a])
  // ISO-2022-JP switches tables by escape sequences, so everything is escaped.
  if (table.size < 100 && !encoding.startsWith('iso-')) {
    for (let a = 0x81; a < 0xff; a++) for (let b = 0x40; b < 0xff; b++) add([a, b])
  }
  tables.set(encoding, table)
  return table
}
