/** CSS colours: parsing, blending and contrast. @see CSS Color 4; WCAG 2.2, contrast ratio */
import {
  blend,
  formatHex,
  formatRgb,
  interpolate,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeP3,
  modeProphoto,
  modeRec2020,
  modeA98,
  modeLrgb,
  modeRgb,
  modeXyz50,
  modeXyz65,
  parse,
  useMode,
  wcagContrast,
  type Color,
} from 'culori/fn'

// Formats that browsers use in computed values.
for (const mode of [
  modeRgb,
  modeHsl,
  modeHwb,
  modeLab,
  modeLch,
  modeOklab,
  modeOklch,
  modeLrgb,
  modeP3,
  modeProphoto,
  modeRec2020,
  modeA98,
  modeXyz50,
  modeXyz65,
])
  useMode(mode as typeof modeRgb)

/** Matches a computed colour and nothing else, so it's safe in a style. */
export const COLOUR = /^(?:rgb|rgba|hsl|hsla|hwb|lab|lch|oklab|oklch|color)\([\w.,/ %+-]+\)$/

/** Null if it isn't a colour. */
function read(text: string): Color | null {
  return (COLOUR.test(text) && parse(text)) || null
}

/** Contrast ratio, 1 to 21, of a text colour with alpha on an opaque background; null if either isn't a colour. */
export function contrast(text: string, behind: string): number | null {
  const [over, under] = [read(text), read(behind)]
  if (!over || !under || (under.alpha ?? 1) < 1) return null
  return wcagContrast(blend([under, over], 'normal'), under)
}

/** Blends a colour with alpha over an opaque one, per channel in sRGB, as browsers do; returns the latter if the first isn't a colour. */
export function laidOver(over: string, under: string): string {
  const [top, bottom] = [read(over), read(under)]
  return top && bottom ? formatRgb(blend([bottom, top], 'normal')) : under
}

/** Mixes two colours by a percentage, as `#rrggbb`. */
export function mixed(from: string, to: string, percent: number): string {
  const [a, b] = [read(from), parse(to)!]
  return formatHex(interpolate([a ?? b, b], 'rgb')(percent / 100))
}

/** A colour as `#rrggbb` and opacity in %; null if it isn't one. */
export function readColour(text: string): { hex: string; opacity: number } | null {
  const colour = read(text)
  return colour && { hex: formatHex(colour), opacity: Math.round((colour.alpha ?? 1) * 100) }
}

/** Contrast that text needs. @see WCAG 2.2, 1.4.3 */
export const READABLE = 4.5
const LIGHT = 'rgb(255, 255, 255)'
const DARK = 'rgb(24, 24, 24)'

/** The page's background; or white or near-black, whichever is more readable, if the text isn't readable on that. */
export function backingFor(text: string, background: string): string {
  const [own, light, dark] = [contrast(text, background), contrast(text, LIGHT), contrast(text, DARK)]
  if (light === null || dark === null || (own !== null && own >= READABLE)) return background
  return light >= dark ? LIGHT : DARK
}
