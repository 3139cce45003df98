import { PageError } from '@waybell/core'
import { randomBytes } from 'node:crypto'
import { crc32, deflateRawSync } from 'node:zlib'
import { filesInZip, isZip, MAX_ENTRIES } from '../src/sites/zip.ts'

interface Part {
  name: string | Buffer
  content?: Buffer
  /** Unix mode in the upper half. */
  attributes?: number
  flags?: number
  /** What the directory says of the size. */
  told?: number
  /** Makes the bytes others than those that the checksum is of. */
  isSpoilt?: boolean
}

/** A ZIP byte by byte, so that it can lie. */
function zip(parts: Part[], count = parts.length): Buffer {
  const locals: Buffer[] = []
  const directory: Buffer[] = []
  let at = 0
  for (const { name, content = Buffer.from('x'), attributes = 0, flags = 0, told = content.length, isSpoilt } of parts) {
    const raw = Buffer.isBuffer(name) ? name : Buffer.from(name)
    const packed = deflateRawSync(content)
    const head = (signature: number, size: number) => {
      const b = Buffer.alloc(size)
      b.writeUInt32LE(signature)
      return b
    }
    const local = head(0x04034b50, 30)
    local.writeUInt16LE(20, 4)
    local.writeUInt16LE(flags, 6)
    local.writeUInt16LE(8, 8)
    local.writeUInt32LE(crc32(isSpoilt ? Buffer.concat([content, content]) : content), 14)
    local.writeUInt32LE(packed.length, 18)
    local.writeUInt32LE(told, 22)
    local.writeUInt16LE(raw.length, 26)
    const entry = head(0x02014b50, 46)
    entry.writeUInt16LE(0x031e, 4)
    entry.writeUInt16LE(20, 6)
    entry.writeUInt16LE(flags, 8)
    entry.writeUInt16LE(8, 10)
    entry.writeUInt32LE(crc32(isSpoilt ? Buffer.concat([content, content]) : content), 16)
    entry.writeUInt32LE(packed.length, 20)
    entry.writeUInt32LE(told, 24)
    entry.writeUInt16LE(raw.length, 28)
    entry.writeUInt32LE((attributes << 16) >>> 0, 38)
    entry.writeUInt32LE(at, 42)
    locals.push(local, raw, packed)
    directory.push(entry, raw)
    at += 30 + raw.length + packed.length
  }
  const size = directory.reduce((n, b) => n + b.length, 0)
  const end = Buffer.alloc(22)
  end.writeUInt32LE(0x06054b50)
  end.writeUInt16LE(Math.min(count, 0xffff), 8)
  end.writeUInt16LE(Math.min(count, 0xffff), 10)
  end.writeUInt32LE(size, 12)
  end.writeUInt32LE(at, 16)
  return Buffer.concat([...locals, ...directory, end])
}

const read = (bytes: Buffer) => filesInZip('site.zip', bytes)
const page = { name: 'site/index.html', content: Buffer.from('<h1>Hi</h1>') }

it('returns the files with folders, without system files', async () => {
  const bytes = zip([page, { name: 'site/' }, { name: '__MACOSX/site/._index.html' }, { name: 'site/.DS_Store' }, { name: 'site/a b.css' }])
  expect(isZip(bytes)).toBe(true)
  expect((await read(bytes)).map((f) => [f.name, Buffer.from(f.bytes).toString()])).toEqual([
    ['site/index.html', '<h1>Hi</h1>'],
    ['site/a b.css', 'x'],
  ])
})

it('reads names as UTF-8, with or without the flag, else in the legacy encoding', async () => {
  const bytes = zip([{ name: 'größe.css', flags: 0x800 }, { name: '写真.png' }, { name: Buffer.from([0x81, 0x2e, 0x63, 0x73, 0x73]) }])
  expect((await read(bytes)).map((f) => f.name)).toEqual(['größe.css', '写真.png', 'ü.css'])
})

it.each([
  ['画像.png', [0x89, 0xe6, 0x91, 0x9c]],
  ['はな.png', [0x82, 0xcd, 0x82, 0xc8]],
  ['テスト.png', [0x83, 0x65, 0x83, 0x58, 0x83, 0x67]],
  ['Bücher.png', [0x42, 0x81, 0x63, 0x68, 0x65, 0x72]],
  ['Größe.png', [0x47, 0x72, 0x94, 0xe1, 0x65]],
  ['été.png', [0x82, 0x74, 0x82]],
  ['façade.png', [0x66, 0x61, 0x87, 0x61, 0x64, 0x65]],
  ['a:b.png', [0x61, 0x3a, 0x62]],
])('reads the legacy name %s', async (name, bytes) => {
  const [file] = await read(zip([{ name: Buffer.from([...bytes, ...Buffer.from('.png')]) }]))
  expect(file!.name).toBe(name)
})

it.each<[string, Part[], string]>([
  ['leads out of its folder', [page, { name: '../../etc/passwd' }], '“../../etc/passwd”'],
  ['leads out by the other slash', [page, { name: 'a\\..\\..\\b' }], 'leads out of its folder'],
  ['begins at the root', [page, { name: '/etc/passwd' }], '“/etc/passwd”'],
  ['begins at a drive', [page, { name: 'C:/x.css' }], '“C:/x.css”'],
  ['is a link', [page, { name: 'a.css', attributes: 0xa1ff }], '“a.css” of the ZIP is a link'],
  ['is locked', [page, { name: 'a.css', flags: 1 }], '“a.css” of the ZIP is locked'],
  ['is packed itself', [page, { name: 'in/more.zip' }], '“in/more.zip” is packed itself'],
  ['is there twice', [page, { name: 'a.css' }, { name: './a.css' }], 'twice'],
  ['says less than it holds', [page, { name: 'a.css', content: Buffer.alloc(5000, 'x'), told: 10 }], '“a.css” of the ZIP cannot be read'],
  ['is not what was packed', [page, { name: 'a.css', isSpoilt: true }], '“a.css” of the ZIP cannot be read (its bytes are not'],
  ['is larger than a file may be', [page, { name: 'a.css', told: 30e6 }], '“a.css” of the ZIP has 29 MB, more than the 20 MB'],
])('refuses an entry that %s', async (_, parts, words) => {
  await expect(read(zip(parts))).rejects.toThrow(PageError)
  await expect(read(zip(parts))).rejects.toThrow(words)
})

it('stops at the unpacked size limit, whatever the directory says', async () => {
  const bomb = Buffer.alloc(19 * 1024 * 1024)
  const bytes = zip(Array.from({ length: 40 }, (_, i) => ({ name: `${i}.css`, content: bomb })))
  expect(bytes.length).toBeLessThan(1.2e6)
  await expect(read(bytes)).rejects.toThrow('expands to more than 50 MB, the most that is read of one of its size, at “2.css”')
  const noise = { name: 'noise.png', content: randomBytes(8 * 1024 * 1024) }
  await expect(read(zip([noise, ...Array.from({ length: 40 }, (_, i) => ({ name: `${i}.css`, content: bomb }))]))).rejects.toThrow(
    'expands to more than 300 MB, the most that is read of one of its size, at “15.css”',
  )
})

it('refuses too many entries before reading one', () =>
  expect(read(zip(Array.from({ length: MAX_ENTRIES + 1 }, (_, i) => ({ name: `${i}.css` }))))).rejects.toThrow(
    'has 5,001 entries, more than the 5,000',
  ))

it.each([
  ['cut short', zip([page]).subarray(0, 60)],
  ['with a directory of something else', Buffer.concat([zip([page]).subarray(0, 60), Buffer.alloc(200, 7), zip([page]).subarray(-22)])],
  ['that promises more entries than it has', zip([page], 9)],
])('reports a ZIP that %s as broken', async (_, bytes) => expect(read(Buffer.from(bytes))).rejects.toThrow(/pack it again/))
