/**
 * Bytes to text and back, without losing the way between them. A page is edited in its bytes, while
 * the parser speaks of positions in decoded text; `byteOffsets` translates, also where bytes do not
 * round-trip. Text that is inserted is written in the page's own character set.
 * @see Encoding Standard; HTML, "determining the character encoding"
 */

import { getBOMEncoding, TextDecoder as LegacyDecoder } from '@exodus/bytes/encoding.js'
import sniff from 'html-encoding-sniffer'

export interface DecodedText {
  text: string
  /** Encoding Standard name in lower case, such as `utf-8` or `shift_jis`. */
  encoding: string
  /** False when neither a byte order mark nor a `meta` names the encoding: then only ASCII is safe to insert. */
  declared: boolean
  /** Length in bytes of the byte order mark, 0 without one. */
  bomLength: number
}

interface Decoder {
  decode: (bytes?: Uint8Array, options?: { stream?: boolean }) => string
}

/** Finds the encoding as a browser does, and decodes. Undeclared bytes are UTF-8 if they are valid UTF-8. */
export function decodePage(bytes: Uint8Array): DecodedText {
  const { encoding, declared, bomLength } = findEncoding(bytes)
  return { text: textOfBytes(encoding, bytes.subarray(bomLength)), encoding, declared, bomLength }
}

export const textOfBytes = (encoding: string, bytes: Uint8Array): string => decoderFor(encoding).decode(bytes)

/**
 * The platform's own for Unicode, since it is fast; the library's for the rest, since Node's lacks some and gets windows-1252 wrong.
 * `ignoreBOM`: the mark was cut off already; a second one is a character of the page.
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
 * What a `meta` says: in the first 1,024 bytes, which are looked through before parsing, or later in the head, where it makes the parser begin again.
 * @see HTML, "encoding sniffing algorithm" and "changing the encoding while parsing"
 */
function namedEncoding(bytes: Uint8Array): string | null {
  // A name that is no encoding's, so that the default can be told from what was found.
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

/** UTF-16 without a mark works only when the host names it, so take it where every other byte of the start is NUL. */
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
 * The byte offsets in `bytes` of positions in the decoded text, for `positions` in rising order.
 * A position between two characters gives the first byte of the later one.
 */
export function byteOffsets(bytes: Uint8Array, page: DecodedText, positions: readonly number[]): number[] {
  const { encoding, bomLength, text } = page
  if (encoding.startsWith('utf-16')) return positions.map((p) => Math.min(bomLength + 2 * p, bytes.length))
  if (text.length === bytes.length - bomLength) return positions.map((p) => bomLength + p)
  const out: number[] = []
  const decoder = decoderFor(encoding)
  // In these an ASCII byte may be part of a longer sequence, so no byte can be taken without the decoder.
  const stateful = /^(gb|iso-2022)/.test(encoding)
  const one = new Uint8Array(1)
  let chars = 0
  let begin = bomLength // first byte of the character that is being read
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
    // A broken sequence gives its replacement together with the ASCII byte that broke it, which stands for itself.
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

/** Where inserted text stands, which decides how a character is escaped that the page's encoding lacks. */
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

/** Writes `text` in the page's encoding; what the encoding lacks, or what an undeclared one leaves unsure, is escaped. */
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

/** Character to bytes, made by decoding every one- and two-byte sequence: the decoder's own tables, turned round. */
function encodeTable(encoding: string): Map<string, number[]> {
  const known = tables.get(encoding)
  if (known) return known
  const table = new Map<string, number[]>()
  const add = (bytes: number[]) => {
    const got = textOfBytes(encoding, Uint8Array.from(bytes))
    if (got.length === 1 && got !== '\ufffd' && got.charCodeAt(0) >= 0x80 && !table.has(got)) table.set(got, bytes)
  }
  for (let a = 0x80; a < 0x100; a++) add([a])
  // ISO-2022-JP switches tables by escape sequences: there, escape everything.
  if (table.size < 100 && !encoding.startsWith('iso-')) {
    for (let a = 0x81; a < 0xff; a++) for (let b = 0x40; b < 0xff; b++) add([a, b])
  }
  tables.set(encoding, table)
  return table
}
