/** What is painted behind words besides plain colours: gradients by their stops, pictures by their own pixels. */
import type { SurveyRequest } from '../messages.ts'
import { pause } from '../page/pending.ts'
import { elementAt, positionOf } from '../page/stamps.ts'

/** A picture that is so much of the viewport's width is ground, in parts of it; a smaller one stands on ground. */
const WIDE = 0.6
/** A picture is looked at in so many places each way. */
const GRID = 12
/** As many pictures, and colours of one part, are told of. */
const MOST_PICTURES = 60
const MOST_COLOURS = 12

const COLOURS = /(?:rgba?|hsla?|hwb|lab|lch|oklab|oklch|color)\([^()]*\)/g

/** By their addresses, what pictures come to: on the whole, at their darkest, at their lightest; nothing for one whose pixels can’t be read. */
const seen = new Map<string, Promise<string[]>>()

/** Of each part the colours that it may have behind words, where that is more than its background; the first on the whole. */
export async function paintOf({ parts }: SurveyRequest): Promise<Map<number, string[]>> {
  const out = new Map<number, string[]>()
  const put = (at: number, colours: readonly string[]) => {
    if (colours.length) out.set(at, [...new Set([...(out.get(at) ?? []), ...colours])].slice(0, MOST_COLOURS))
  }
  const asked = new Set(parts.map((p) => p.at))
  const waits: Promise<void>[] = []
  for (const { at } of parts) {
    for (let e: Element | null = elementAt(at) ?? null; e && e !== document.documentElement; e = e.parentElement) {
      const { backgroundColor, backgroundImage } = getComputedStyle(e)
      if (backgroundImage !== 'none') {
        put(at, backgroundImage.match(COLOURS) ?? [])
        const url = /url\("([^"]+)"\)/.exec(backgroundImage)?.[1]
        if (url && waits.length < MOST_PICTURES) waits.push(coloursOf(url).then((colours) => put(at, colours)))
        break
      }
      if (!/^rgba\(.*, 0\)$|^transparent$/.test(backgroundColor)) break
    }
  }
  for (const img of document.querySelectorAll('img')) {
    if (img.getBoundingClientRect().width < innerWidth * WIDE || waits.length >= MOST_PICTURES) continue
    const holders: number[] = []
    for (let e: Element | null = img; e; e = e.parentElement) {
      const at = positionOf(e)
      if (at !== undefined && asked.has(at)) holders.push(at)
    }
    if (holders.length) waits.push(coloursOf(img.currentSrc || img.src).then((colours) => holders.forEach((at) => put(at, colours))))
  }
  // Each ends by its picture's `load` or `error`; one whose file never comes has neither.
  await Promise.race([Promise.all(waits), pause(3000)])
  return out
}

function coloursOf(url: string): Promise<string[]> {
  let known = seen.get(url)
  if (!known) seen.set(url, (known = read(url).catch(() => [])))
  return known
}

async function read(url: string): Promise<string[]> {
  const picture = new Image()
  picture.src = url
  await picture.decode()
  const canvas = document.createElement('canvas')
  canvas.width = canvas.height = GRID
  const context = canvas.getContext('2d', { willReadFrequently: true })!
  context.drawImage(picture, 0, 0, GRID, GRID)
  // Of one from elsewhere a browser tells nothing.
  const { data } = context.getImageData(0, 0, GRID, GRID)
  const pixels: number[][] = []
  for (let i = 0; i < data.length; i += 4) if (data[i + 3]! > 127) pixels.push([data[i]!, data[i + 1]!, data[i + 2]!])
  if (!pixels.length) return []
  const light = ([r, g, b]: number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
  const sorted = [...pixels].sort((a, b) => light(a) - light(b))
  const mean = [0, 1, 2].map((n) => Math.round(pixels.reduce((sum, p) => sum + p[n]!, 0) / pixels.length))
  return [mean, sorted[0]!, sorted.at(-1)!].map((c) => `rgb(${c.join(', ')})`)
}
