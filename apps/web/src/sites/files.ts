/** Given files, with folders if the browser has them. */
import type { GivenFile } from '../api.ts'

export const filesFromPicker = (files: FileList): GivenFile[] =>
  [...files].map((file) => ({ file, path: file.webkitRelativePath || file.name }))

/** Walks through dropped folders. */
export async function filesFromDrop(data: DataTransfer): Promise<GivenFile[]> {
  const plain = filesFromPicker(data.files)
  const entries = [...data.items].flatMap((item) => item.webkitGetAsEntry?.() ?? [])
  if (!entries.some((e) => e.isDirectory)) return plain
  return (await Promise.all(entries.map(walk))).flat()
}

async function walk(entry: FileSystemEntry): Promise<GivenFile[]> {
  const path = entry.fullPath.replace(/^\//, '')
  if (entry.isFile) return [{ path, file: await new Promise<File>((done, failed) => (entry as FileSystemFileEntry).file(done, failed)) }]
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const out: GivenFile[] = []
  // Folders are listed in parts, until one is empty.
  for (;;) {
    const part = await new Promise<FileSystemEntry[]>((done, failed) => reader.readEntries(done, failed))
    if (!part.length) return out
    out.push(...(await Promise.all(part.map(walk))).flat())
  }
}
