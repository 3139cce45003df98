/** Offers a file for saving. */
export function save(content: Blob, name: string): void {
  const url = URL.createObjectURL(content)
  Object.assign(document.createElement('a'), { href: url, download: name }).click()
  // The browser has started to read it by then.
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}
