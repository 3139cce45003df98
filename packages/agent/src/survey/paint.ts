/** Gradients and pictures behind text, by their stops and pixels. */
import type { SurveyRequest } from '../messages.ts'
import { pause } from '../page/pending.ts'
import { elementAt, positionOf } from '../page/stamps.ts'

/** A picture this share of the viewport's width is background; smaller ones aren't. */
const WIDE = 0.6
/** Samples of a picture each way. */
const GRID = 12
/** Max pictures, and colours per part. */
const MOST_PICTURES = 60
const MOST_COLOURS = 12

const COLOURS = /(?:rgba?|hsla?|hwb|lab|lch|oklab|oklch|color)\([^()]*\)/g

/** Colours of pictures by address: overall, darkest, lightest; empty if pixels can't be read. */
const seen = new Map<string, Promise<string[]>>()

/** Colours behind the text of each part, if more than its background; the overall one first. */
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
  // Ends on `load` or `error`; a missing file may give neither.
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
  // Browsers give no pixels of other origins.
  const { data } = context.getImageData(0, 0, GRID, GRID)
  const pixels: number[][] = []
  for (let i = 0; i < data.length; i += 4) if (data[i + 3]! > 127) pixels.push([data[i]!, data[i + 1]!, data[i + 2]!])
  if (!pixels.length) return []
  const light = ([r, g, b]: number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!
  const sorted = [...pixels].sort((a, b) => light(a) - light(b))
  const mean = [0, 1, 2].map((n) => Math.round(pixels.reduce((sum, p) => sum + p[n]!, 0) / pixels.length))
  return [mean, sorted[0]!, sorted.at(-1)!].map((c) => `rgb(${c.join(', ')})`)
}
