/** Reads the files of a ZIP with limits: nothing is trusted, and nothing is written. */
import { promisify } from 'node:util'
import { crc32 } from 'node:zlib'
import { fromBuffer, getFileNameLowLevel, type Entry, type ZipFile } from 'yauzl'
import { MAX_PAGE_BYTES, PageError } from '@waybell/core'
import { cleanPath } from './content.ts'
import type { HandedIn } from './handed-in.ts'

/** Max files of a ZIP, and max unpacked size: 300 MB. */
export const MAX_ENTRIES = 5000
export const MAX_EXPANDED = 300 * 1024 * 1024
/** Files rarely compress to under a tenth; a large ZIP that expands beyond this factor is an attack. */
const MOST_PACKED = 50
const ALWAYS_EXPANDED = 50 * 1024 * 1024
/** Max size of a given file: 100 MB. */
export const MAX_UPLOAD = 100 * 1024 * 1024

export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2]! < 0x08 && bytes[2] === bytes[3]! - 1

const open = promisify(fromBuffer as (buffer: Buffer, options: object, done: (error: Error | null, zip: ZipFile) => void) => void)
const refuse = (message: string): PageError => new PageError('zip', message)

/** @throws PageError `zip`, naming the entry or limit */
export async function filesInZip(name: string, bytes: Uint8Array): Promise<HandedIn[]> {
  const zip = await open(Buffer.from(bytes), { lazyEntries: true, decodeStrings: false, validateEntrySizes: true, autoClose: false }).catch(
    (error: Error) => {
      throw refuse(`the ZIP “${name}” cannot be read (${error.message}); pack it again`)
    },
  )
  if (zip.entryCount > MAX_ENTRIES)
    throw refuse(
      `the ZIP “${name}” has ${zip.entryCount.toLocaleString('en')} entries, more than the ${MAX_ENTRIES.toLocaleString('en')} that are read; leave out what the site does not need`,
    )
  const most = Math.min(MAX_EXPANDED, Math.max(ALWAYS_EXPANDED, bytes.length * MOST_PACKED))
  const files: HandedIn[] = []
  const seen = new Set<string>()
  let expanded = 0
  for (let n = 0; n < zip.entryCount; n++) {
    const entry = await nextEntry(zip, name)
    if (!entry) break
    const path = pathOf(entry)
    if (path.endsWith('/') || /(^|\/)(__MACOSX|\.DS_Store|Thumbs\.db)(\/|$)/.test(path)) continue
    check(entry, path, seen)
    if (expanded + entry.uncompressedSize > most) throw tooLarge(path, most)
    const content = await contentOf(zip, entry, path, { left: most - expanded, most })
    expanded += content.length
    files.push({ name: path, bytes: content })
  }
  return files
}

const tooLarge = (path: string, most: number) =>
  refuse(
    `the ZIP expands to more than ${Math.floor(most / 1048576)} MB, the most that is read of one of its size, at “${path}”; leave out what the site does not need`,
  )

/** Entries by the ZIP's directory; null after the last. */
function nextEntry(zip: ZipFile, name: string): Promise<Entry | null> {
  return new Promise((done, failed) => {
    const settle = (act: () => void) => {
      zip.removeAllListeners()
      act()
    }
    zip.once('entry', (entry: Entry) => settle(() => done(entry)))
    zip.once('end', () => settle(() => done(null)))
    zip.once('error', (error: Error) =>
      settle(() => failed(refuse(`the directory of the ZIP “${name}” is broken (${error.message}); pack it again`))),
    )
    zip.readEntry()
  })
}

/** Many programs write UTF-8 without the flag; otherwise the legacy encoding that gives words, or the extra field, counts. */
function pathOf(entry: Entry): string {
  const raw = entry.fileNameRaw
  return decoded('utf-8', raw) ?? japanese(raw) ?? getFileNameLowLevel(entry.generalPurposeBitFlag & ~0x800, raw, entry.extraFields, false)
}

function decoded(encoding: string, raw: Uint8Array): string | null {
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(raw)
  } catch {
    return null
  }
}

/** Japanese text: ASCII and kana, or two Chinese characters in a row, which accented letters hardly produce. */
function japanese(raw: Buffer): string | null {
  const name = decoded('shift_jis', raw)
  const words = name?.match(/[^\u0000-\u007f]+/g)
  if (!name || !words?.every((word) => /^[\u3001-\u30ff\u4e00-\u9fff\uff01-\uffef]+$/.test(word))) return null
  return words.some((word) => /[\u3041-\u30fa]|[\u4e00-\u9fff]{2}/.test(word)) ? name : null
}

const UNIX_LINK = 0xa000

function check(entry: Entry, path: string, seen: Set<string>): void {
  const clean = cleanPath(path)
  const escapes = clean === null || /^([/\\]|[a-z]:[/\\])/i.test(path)
  if (escapes) throw refuse(`the entry “${path}” of the ZIP leads out of its folder; take it out, or pack the site's folder again`)
  if (((entry.externalFileAttributes >>> 16) & 0xf000) === UNIX_LINK)
    throw refuse(`the entry “${path}” of the ZIP is a link and no file; put the file itself there`)
  if (entry.isEncrypted()) throw refuse(`the entry “${path}” of the ZIP is locked with a password; pack it without one`)
  if (/\.(zip|7z|rar|tar|t?gz)$/i.test(path))
    throw refuse(
      `the entry “${path}” is packed itself and is not opened; put its files into the ZIP, or leave it out and add it to the handed-over site`,
    )
  if (seen.has(clean)) throw refuse(`the ZIP has the entry “${path}” twice; keep one of the two`)
  seen.add(clean)
  if (entry.uncompressedSize > MAX_PAGE_BYTES)
    throw refuse(
      `the entry “${path}” of the ZIP has ${(entry.uncompressedSize / 1048576).toFixed(0)} MB, more than the ${MAX_PAGE_BYTES / 1048576} MB that a file may have`,
    )
}

/** Counts actual bytes, not the directory's figures, and checks the checksum. */
function contentOf(zip: ZipFile, entry: Entry, path: string, { left, most }: { left: number; most: number }): Promise<Uint8Array> {
  return new Promise((done, failed) => {
    const broken = (reason: string) => failed(refuse(`the entry “${path}” of the ZIP cannot be read (${reason}); pack it again`))
    zip.openReadStream(entry, (error, stream) => {
      if (error) return broken(error.message)
      const chunks: Buffer[] = []
      let size = 0
      let sum = 0
      stream.on('data', (chunk: Buffer) => {
        size += chunk.length
        sum = crc32(chunk, sum)
        if (size > Math.min(left, MAX_PAGE_BYTES)) {
          stream.destroy()
          failed(tooLarge(path, most))
        } else chunks.push(chunk)
      })
      stream.on('error', (failure: Error) => broken(failure.message))
      stream.on('end', () => (sum === entry.crc32 ? done(Buffer.concat(chunks)) : broken('its bytes are not those that were packed')))
    })
  })
}
